import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { STUDS_PER_PLATE } from '@quarry/core/grid';
import { displayOf, labelOf, placeIn, type Scene } from '@quarry/core/document';
import type { Relief } from '@quarry/core/terrain';
import { currentPlace, highestTable } from '@quarry/core/venue';
import {
  eyeHeights,
  lookedAt,
  publicDistance,
  viewpointsOf,
  type LookedAt,
  type WalkMesh,
} from '@quarry/core/visibility';
import { useView } from '../../data/view.ts';
import { useDerived } from '../../workers/useDerived.ts';
import { OFF, eyeAndTarget, sideLengthOf, standingAt, type Standpoint } from './standpoint.ts';

/** Eye heights where no place says them, mm (from memory, as in a new place). */
const EYES = { adult: 1600, seated: 1200, child: 1050, shoulders: 1950 } as const;

/** Where one stands before a display or in its room, and what one looks at. */
export function useWalk(scene: Scene, mesh: WalkMesh) {
  const picked = useView((view) => view.picked);
  const relief = useDerived(({ ground }) => ground?.relief ?? null);
  const [at, setAt] = useState<Standpoint>(() => {
    const side = displayOf(scene).viewedSides[0] ?? 's';
    return { side, along: sideLengthOf(mesh, side) / 2, off: publicDistance(scene), who: 'adult' };
  });
  const place = currentPlace(scene);
  const heights = place ? eyeHeights(place) : EYES;
  const within = (next: Standpoint): Standpoint => ({
    ...next,
    along: Math.min(sideLengthOf(mesh, next.side), Math.max(0, next.along)),
    off: Math.min(OFF.max, Math.max(OFF.min, next.off)),
  });
  const viewpoints = useMemo(() => (relief ? viewpointsOf(scene, relief) : []), [scene, relief]);
  const [params] = useSearchParams();
  const [stoodAt, standAt] = useState(params.get('at') ?? '');
  const viewpoint = viewpoints.find(({ kind, id }) => stoodAt === `${kind} ${id}`) ?? null;
  // The footprint may have become smaller meanwhile.
  const here = within(at);
  const things = lookedAt(scene)
    .map((ref) => ({ ...ref, name: labelOf(scene, ref.kind, ref.id) }))
    .toSorted((a, b) => a.name.localeCompare(b.name));
  const looked = things.find(({ kind, id }) => picked?.kind === kind && picked.id === id) ?? null;
  const stance = viewpoint
    ? standingAt(viewpoint, mesh)
    : eyeAndTarget(here, mesh, heights[here.who] - highestTable(scene));
  const target = (looked && relief && middleOf(scene, relief, looked)) ?? stance.target;
  return {
    here,
    go: (more: Partial<Standpoint>) => setAt(within({ ...here, ...more })),
    heights,
    /** Doors and places of photos; null where one stands before a side. */
    ...{ viewpoints, viewpoint, standAt },
    ...{ things, looked },
    standing: { eye: stance.eye, target },
  };
}
export type WalkState = ReturnType<typeof useWalk>;

/** The middle of a thing, studs east, up and south of the footprint's corner and the datum; null: it is gone. */
function middleOf(
  scene: Scene,
  { x, y, w, d, height, top }: Relief,
  { kind, id }: { kind: LookedAt; id: string },
): [number, number, number] | null {
  const place = placeIn(scene, kind, id);
  if (!place) return null;
  const [east, south] = [place.x + place.w / 2 - x, place.y + place.d / 2 - y];
  const column = Math.min(w - 1, Math.max(0, Math.floor(east)));
  const i = Math.min(d - 1, Math.max(0, Math.floor(south))) * w + column;
  return [east, (((height[i] ?? 0) + (top[i] ?? 0)) / 2) * STUDS_PER_PLATE, south];
}
