import { STUDS_PER_PLATE } from '../../grid/index.ts';
import type { Relief } from '../../terrain/index.ts';
import { NO_STUD, UNSEEN } from '../sight.ts';
import { MeshBuilder, mergedCells, type MeshPart } from './mesh.ts';

/** How often a stud is seen: by nobody, by less than a quarter of all visitors, by less than three quarters, by most. */
export const SEEN_CLASSES = ['nobody', 'few', 'some', 'most'] as const;
export type SeenClass = (typeof SEEN_CLASSES)[number];
/** Percent of all visitors from which the next class begins. */
const BEGINS = { few: 1, some: 25, most: 75 } as const;
/** How far the shade lies over what it shades, studs. */
const ABOVE = 0.06;

/** Begins the material of a shade. */
export const SEEN = 'seen ';

/** @param share of all visitors in percent, as `Sight.studs` has it; null: outside the footprint */
export function seenClass(share: number): SeenClass | null {
  if (share === NO_STUD) return null;
  if (share === UNSEEN) return 'nobody';
  return share < BEGINS.some ? 'few' : share < BEGINS.most ? 'some' : 'most';
}

/** A shade over the ground by how many visitors see it. */
export interface SeenCover {
  parts: MeshPart[];
  /** Studs of ground by class; what something stands on is not among them. */
  studs: Record<SeenClass, number>;
}

/**
 * Shades ground, decks and bridges by who sees them, in the frame of the walk's faces.
 * @param studs as `Sight.studs`, for the same relief
 */
export function seenCover(relief: Relief, studs: Uint8Array): SeenCover {
  const { w, d, surface, top } = relief;
  const mesh = new MeshBuilder();
  const counts: Record<SeenClass, number> = { nobody: 0, few: 0, some: 0, most: 0 };
  // What is seen of a building or a tree is not seen of the ground that it stands on.
  const classAt = (i: number): number => {
    const seen = top[i] === surface[i] ? seenClass(studs[i]) : null;
    return seen === null ? -1 : SEEN_CLASSES.indexOf(seen);
  };
  for (let i = 0; i < w * d; i++) {
    const seen = SEEN_CLASSES[classAt(i)];
    if (seen) counts[seen]++;
  }
  mergedCells(
    w,
    d,
    (x, y) => {
      const i = y * w + x;
      const seen = classAt(i);
      return seen < 0 ? 0 : 1 + seen + SEEN_CLASSES.length * (surface[i] + 32_768);
    },
    (x, y, wide, deep, key) => {
      const seen = (key - 1) % SEEN_CLASSES.length;
      const plates = Math.floor((key - 1) / SEEN_CLASSES.length) - 32_768;
      const high = plates * STUDS_PER_PLATE + ABOVE;
      mesh.face(`${SEEN}${SEEN_CLASSES[seen]}`, [
        [x, high, y],
        [x, high, y + deep],
        [x + wide, high, y + deep],
        [x + wide, high, y],
      ]);
    },
  );
  return { parts: mesh.parts(), studs: counts };
}
