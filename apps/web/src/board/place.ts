import type { Rect } from '@quarry/core/grid';
import {
  placeIn,
  pointsOf,
  trackLine,
  type Entity,
  type Kind,
  type Scene,
  wallLine,
} from '@quarry/core/document';
import { tableInStuds } from '@quarry/core/venue';
import type { Picked } from '../data/view.ts';

// Where entities lie on the board.

/** Where something stands, in studs; null when it is not there or has no place. */
export function placeOf(scene: Scene, picked: Picked | null): Rect | null {
  if (!picked) return null;
  if (picked.kind !== 'table') return placeIn(scene, picked.kind, picked.id);
  const table = scene.table[picked.id];
  return table ? tableInStuds(scene, table) : null;
}

/** The line of a thing that is one, with its width in studs; null for others. */
export function lineOf(
  scene: Scene,
  kind: Kind,
  id: string,
): { points: readonly { x: number; y: number }[]; width: number } | null {
  if (kind === 'track') {
    const track = scene.track[id];
    return track ? { points: trackLine(track, 0).line, width: track.bed } : null;
  }
  const entity: Entity<Kind> | undefined = scene[kind][id];
  const points = entity && pointsOf(entity);
  if (!points) return null;
  const run = kind === 'run' ? scene.run[id] : undefined;
  if (run) return { points: wallLine(run), width: run.thick };
  return { points, width: 'width' in entity && typeof entity.width === 'number' ? entity.width : 1 };
}
