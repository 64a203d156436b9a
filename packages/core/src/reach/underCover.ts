import { MM_PER_STUD } from '../grid/index.ts';
import type { Scene } from '../document/index.ts';
import {
  ARCH,
  NO_SLAB,
  OUTSIDE,
  eachStudOf,
  indexAt,
  levelHeight,
  undersideAt,
  type Relief,
} from '../terrain/index.ts';
import type { Reach } from './reach.ts';

// How a hand comes to what lies under a deck, a bridge or the roof of a cavity: by way of a mouth.

/** Height that a flat hand needs, plates: a default of ours, no source (38 mm). */
export const HAND = 12;

/** The lowest ceiling over each stud of a relief, and the floor under it. */
interface Covered {
  /** Plates above datum; NO_CEILING under the open sky. */
  ceiling: Int16Array;
  floor: Int16Array;
  /** 1 where something solid stands from floor to ceiling. */
  solid: Uint8Array;
}
const NO_CEILING = 32_767;

/** What lies over air for good: what lifts off is lifted off to reach under it. */
function coveredOf(scene: Scene, relief: Relief): Covered {
  const size = relief.height.length;
  const ceiling = new Int16Array(size).fill(NO_CEILING);
  const floor = relief.height.slice();
  const solid = new Uint8Array(size);
  for (const slab of relief.slabs) {
    if (slab.kind === 'deck' && scene.deck[slab.id]?.loose) continue;
    const cavity = slab.kind === 'cavity' ? scene.cavity[slab.id] : undefined;
    const bottom = cavity ? levelHeight(scene, cavity) : null;
    eachStudOf(slab, (k, x, y) => {
      const i = indexAt(relief, x, y);
      if (i < 0 || relief.ground[i] === OUTSIDE) return;
      const under = undersideAt(slab, k);
      const low = bottom ?? relief.height[i];
      if (under <= low || under >= ceiling[i]) return;
      ceiling[i] = under;
      floor[i] = low;
      solid[i] = slab.foot[k] !== NO_SLAB && slab.arch[k] === ARCH.none ? 1 : 0;
    });
  }
  return { ceiling, floor, solid };
}

/** How far in each stud under cover lies. */
export interface UnderCover {
  /** From where one can stand to a mouth and on to the stud, mm, in steps along and across; NaN: not covered; Infinity: no hand comes there. */
  distance: Float32Array;
  /** Its ceiling, plates above datum. */
  ceiling: Int16Array;
}

const STEPS = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [1, -1],
  [-1, 1],
  [-1, -1],
] as const;

/**
 * The way of a hand to each stud under a deck, a bridge or a roof that does not lift off: from the nearest edge at which
 * one can stand straight to a mouth, then under the cover from stud to stud, by sides and corners, where the air is at
 * least as high as a hand. Linear in the studs, about.
 */
export function underCover(scene: Scene, relief: Relief, reach: Reach): UnderCover {
  const { w, d, ground } = relief;
  const { ceiling, floor, solid } = coveredOf(scene, relief);
  const distance = new Float32Array(ceiling.length).fill(NaN);
  const isIn = (x: number, y: number) => x >= 0 && y >= 0 && x < w && y < d;
  const isCovered = (i: number) => ceiling[i] !== NO_CEILING;
  const passes = (i: number, j: number) =>
    !solid[i] && !solid[j] && Math.min(ceiling[i], ceiling[j]) - Math.max(floor[i], floor[j]) >= HAND;
  // Round a corner a hand needs room on both sides of it.
  const isWay = (x: number, y: number, dx: number, dy: number) => {
    const [i, j] = [y * w + x, (y + dy) * w + x + dx];
    if (ground[j] === OUTSIDE || !passes(i, j)) return false;
    return dx === 0 || dy === 0 || (passes(i, y * w + x + dx) && passes(i, (y + dy) * w + x));
  };
  let ring: number[] = [];
  for (let i = 0; i < ceiling.length; i++) {
    if (!isCovered(i)) continue;
    distance[i] = Infinity;
    if (solid[i]) continue;
    const [x, y] = [i % w, Math.trunc(i / w)];
    for (const [dx, dy] of STEPS) {
      const next = isIn(x + dx, y + dy) ? (y + dy) * w + x + dx : -1;
      // At the edge of the display it is open to the side.
      const isEdge = next < 0 || ground[next] === OUTSIDE;
      if (isEdge && (dx === 0 || dy === 0) && ceiling[i] - floor[i] >= HAND)
        distance[i] = Math.min(distance[i], reach.distance[i]);
      if (!isEdge && !isCovered(next) && isWay(x, y, dx, dy))
        distance[i] = Math.min(distance[i], reach.distance[next] + MM_PER_STUD * Math.hypot(dx, dy));
    }
    if (Number.isFinite(distance[i])) ring.push(i);
  }
  while (ring.length > 0) {
    const nearer = new Set<number>();
    for (const i of ring) {
      const [x, y] = [i % w, Math.trunc(i / w)];
      for (const [dx, dy] of STEPS) {
        if (!isIn(x + dx, y + dy)) continue;
        const next = (y + dy) * w + x + dx;
        const far = distance[i] + MM_PER_STUD * Math.hypot(dx, dy);
        if (!isCovered(next) || far >= distance[next] - 1e-3 || !isWay(x, y, dx, dy)) continue;
        distance[next] = far;
        nearer.add(next);
      }
    }
    ring = [...nearer];
  }
  return { distance, ceiling };
}
