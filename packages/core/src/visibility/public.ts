import { MM_PER_PLATE, MM_PER_STUD } from '../grid/index.ts';
import { displayOf, listOf, type Scene, type Side } from '../document/index.ts';
import { OUTSIDE, type Relief } from '../terrain/index.ts';
import { currentContents, currentPlace, evaluateBarriers } from '../venue/index.ts';
import { NO_COLUMN, seenCounts, type Eye } from './seen.ts';

// What the public sees of the tops of all studs, from where it stands along the sides it looks at.

/** Whose eyes. */
export const WATCHERS = ['adult', 'seated', 'child'] as const;
export type Watcher = (typeof WATCHERS)[number];

/** One pair of eyes stands each so many mm along a side (ours, no source). */
export const EYE_STEP = 500;
/** Where no barrier says so the public stands so far from the scene, mm (ours, as for sight lines). */
export const NO_BARRIER = 600;

/** What is seen of a part of the display: shares of its studs that somebody of each height sees, 0 to 1. */
export interface SeenPart {
  /** Of a section; null: all of it. */
  section: string | null;
  studs: number;
  seen: Record<Watcher, number>;
  /** Studs that nobody sees. */
  hidden: number;
}

/** What the public sees. */
export interface PublicView {
  sides: readonly Side[];
  /** From the eyes to the scene, mm, and how many stand along all sides. */
  distance: number;
  eyes: number;
  /** The whole display first, then its sections in the order of their letters. */
  parts: SeenPart[];
}

/** How far the public stands from the scene, mm: as its nearest barrier has it. */
export function publicDistance(scene: Scene): number {
  const nearest = Math.min(...evaluateBarriers(scene).map(({ toScene }) => toScene ?? Infinity));
  return Number.isFinite(nearest) ? nearest : NO_BARRIER;
}

/**
 * Where eyes stand along the viewed sides: each EYE_STEP from end to end, both ends among them.
 * @param z of the eyes above the table, mm @param distance from the scene, mm
 */
export function eyesAlong(
  { w, d }: { w: number; d: number },
  sides: readonly Side[],
  distance: number,
  z: number,
): Eye[] {
  const off = distance / MM_PER_STUD;
  return sides.flatMap((side) => {
    const length = side === 'n' || side === 's' ? w : d;
    const count = Math.max(1, Math.round((length * MM_PER_STUD) / EYE_STEP));
    return Array.from({ length: count + 1 }, (_, i): Eye => {
      const along = (length * i) / count;
      const at = {
        n: { x: along, y: d + off },
        s: { x: along, y: -off },
        w: { x: -off, y: along },
        e: { x: w + off, y: along },
      }[side];
      return { ...at, z };
    });
  });
}

/** @returns null where the display does not say from which sides it is looked at, or stands in no place */
export function publicView(scene: Scene, relief: Relief): PublicView | null {
  const { viewedSides } = displayOf(scene);
  const place = currentPlace(scene);
  if (!place || viewedSides.length === 0) return null;
  const table = Math.max(0, ...currentContents(scene, 'table').map(({ height }) => height));
  const distance = publicDistance(scene);
  const heights = Float64Array.from(relief.top, (top, i) =>
    relief.ground[i] === OUTSIDE ? NaN : top * MM_PER_PLATE,
  );
  const above = { adult: place.eyeAdult, seated: place.eyeSeated, child: place.eyeChild };
  const eyes = (who: Watcher) => eyesAlong(relief, viewedSides, distance, above[who] - table);
  const counts = WATCHERS.map((who) => seenCounts({ w: relief.w, d: relief.d, heights }, eyes(who)));
  const partOf = (section: string | null, isIn: (x: number, y: number) => boolean): SeenPart => {
    const sums = WATCHERS.map(() => 0);
    let [studs, hidden] = [0, 0];
    heights.forEach((_, i) => {
      const at = { x: relief.x + (i % relief.w), y: relief.y + Math.trunc(i / relief.w) };
      if (counts[0][i] === NO_COLUMN || !isIn(at.x, at.y)) return;
      studs++;
      const seen = counts.map((count) => count[i] > 0);
      seen.forEach((isSeen, k) => (sums[k] += isSeen ? 1 : 0));
      if (!seen.includes(true)) hidden++;
    });
    const share = (who: Watcher) => (studs > 0 ? sums[WATCHERS.indexOf(who)] / studs : 0);
    return {
      section,
      studs,
      hidden,
      seen: { adult: share('adult'), seated: share('seated'), child: share('child') },
    };
  };
  const sections = listOf(scene, 'section').toSorted((a, b) => (a.letter < b.letter ? -1 : 1));
  return {
    ...{ sides: viewedSides, distance, eyes: eyes('adult').length },
    parts: [
      partOf(null, () => true),
      ...sections.map(({ id, x, y, w, d }) =>
        partOf(
          id,
          (column, row) => column + 0.5 >= x && column + 0.5 < x + w && row + 0.5 >= y && row + 0.5 < y + d,
        ),
      ),
    ],
  };
}
