import { expose } from 'comlink';
import { viewHelps, type ViewHelp } from '@quarry/core/findings';
import type { Scene } from '@quarry/core/document';
import { compile } from '@quarry/core/terrain';
import { sightOf, walkMesh, type Sight, type WalkMesh } from '@quarry/core/visibility';

/** Looks at a whole scene: started for one question; ending the worker ends it. */
const worker = {
  /** What the public sees; null: it is not said who looks. */
  sight: (scene: Scene, onProgress: (share: number) => void): Sight | null =>
    sightOf(scene, compile(scene).relief, onProgress),
  /** The display as faces, to be walked round; null for one without a footprint. */
  walk: (scene: Scene): WalkMesh | null => walkMesh(scene, compile(scene).relief),
  /** What frees the view of a thing. */
  helps: (
    scene: Scene,
    ref: Parameters<typeof viewHelps>[1],
    today: string,
    onProgress: (share: number) => void,
  ): ViewHelp[] => viewHelps(compile(scene), ref, today, onProgress),
};
export type SightWorker = typeof worker;
expose(worker);
