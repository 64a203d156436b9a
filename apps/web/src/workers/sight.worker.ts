import { expose } from 'comlink';
import { viewHelps, type ViewHelp } from '@quarry/core/findings';
import { deltaOf, type Scene } from '@quarry/core/document';
import { CountCache } from '@quarry/core/masonry';
import { plainSavings, type HiddenGround, type PlainSavings } from '@quarry/core/materials';
import { compile } from '@quarry/core/terrain';
import {
  SightCache,
  sightOf,
  walkMesh,
  type Sight,
  type WalkLook,
  type WalkMesh,
} from '@quarry/core/visibility';
import { FollowedScene } from './followedScene.ts';

const followed = new FollowedScene();
const cache = new SightCache();

/** Looks at a whole scene; ending the worker ends it. */
const worker = {
  /** What the public sees; null: it is not said who looks. Asked again, only what a change may touch is looked at. */
  sight(scene: Scene, onProgress: (share: number) => void): Sight | null {
    followed.follow(deltaOf(followed.scene, scene));
    return sightOf(followed.scene, followed.compiled.relief, onProgress, cache);
  },
  /** The display as faces, to be walked round; null for one without a footprint. */
  walk: (scene: Scene, look: WalkLook): WalkMesh | null => walkMesh(scene, compile(scene).relief, look),
  /** What it saves to leave some ground plain; null: it cannot be counted. */
  saves: (scene: Scene, ground: HiddenGround): PlainSavings | null =>
    plainSavings(compile(scene), ground, new CountCache()),
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
