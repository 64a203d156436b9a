import { partId, partOf, type Part } from '../catalogue/index.ts';
import { PLATES_PER_BRICK } from '../grid/index.ts';
import { builtSides, wallStuds, type Fronted } from './fronts.ts';
import { layFloor } from './floors.ts';
import type { LaidPiece } from './piece.ts';
import { SLOPES, roofOf, runOfSlope, slopesLike } from './roofs.ts';
import { wallTop } from './storeys.ts';
import { FACING, layStretch } from './walls.ts';

// A roof of two sides over a building's longer sides: courses of slopes, the walls between them at both ends, and a
// ridge of plates where no further slopes find room.

/** A roof of two sides as it comes out. */
export interface GableCard {
  slope: Part;
  /** Courses of slopes on each side. */
  courses: number;
  /** Plates above the building's ground: its ridge with the plates on it. */
  ridge: number;
  /** Studs of the flat ridge between both sides. */
  flat: number;
}

/** Whether courses of a slope carry one another: it keeps a row of studs for the next. */
const carriesNext = ({ d }: Part): boolean => d >= 2;

/** One slope of each pitch, the narrowest, that a roof can be laid of: width does not matter to it. */
export const ROOF_SLOPES: readonly Part[] = SLOPES.filter(
  (slope) => carriesNext(slope) && slopesLike(slope).at(-1) === slope,
);

function cardOf(span: number, slope: Part, eaves: number): GableCard {
  const { plainCourses } = roofOf(span, slope);
  const run = runOfSlope(slope);
  return {
    slope,
    courses: plainCourses,
    ridge: eaves + plainCourses * slope.h + 1,
    flat: span - 2 * run * plainCourses,
  };
}

/**
 * The two-sided roof of a building; null for a flat one. With the slopes that it names where they carry one another,
 * or those whose ridge comes nearest to its height, the flatter of two.
 */
export function gableOf(plot: Fronted): GableCard | null {
  if (plot.eaves === null) return null;
  const { w, d } = builtSides(plot);
  const span = Math.min(w, d);
  const own = plot.slope === null ? null : partOf(plot.slope);
  if (own?.family === 'slope' && carriesNext(own)) return cardOf(span, own, wallTop(plot));
  const off = (card: GableCard) => Math.abs(card.ridge - plot.height);
  return ROOF_SLOPES.map((slope) => cardOf(span, slope, wallTop(plot))).reduce((best, card) =>
    off(card) < off(best) || (off(card) === off(best) && card.ridge < best.ridge) ? card : best,
  );
}

/** The pieces of a two-sided roof. Each course stands on the studs that the one below leaves free. */
export function layGable(plot: Fronted, { slope, courses, flat }: GableCard): LaidPiece[] {
  const { w, d } = builtSides(plot);
  const eaves = wallTop(plot);
  // Its ends are of bricks, which are two studs thick at most.
  const thick = Math.min(2, wallStuds(plot));
  // Laid as if the ridge ran along x; turned where the longer side is y.
  const isX = w >= d;
  const [length, span] = isX ? [w, d] : [d, w];
  const run = runOfSlope(slope);
  const widths = slopesLike(slope).map(({ w }) => w);
  const pieces: LaidPiece[] = [];
  let below: ReadonlySet<number>[] = [new Set(), new Set()];
  for (let course = 0; course < courses; course++) {
    const z = eaves + course * slope.h;
    const from = run * course;
    for (let x = 0; x < length;) {
      const wide = widths.find((one) => one <= length - x) ?? 1;
      const own = { part: partId('slope', wide, slope.d, slope.h, slope.angle), use: 'roof' as const };
      const place = { x, w: wide, d: slope.d, z, h: slope.h };
      pieces.push({ ...own, ...place, y: from, turn: FACING.n });
      pieces.push({ ...own, ...place, y: span - from - slope.d, turn: FACING.s });
      x += wide;
    }
    const [a, b] = [from + slope.d, span - from - slope.d];
    for (let up = 0; up < slope.h && b > a;) {
      const isBrick = slope.h - up >= PLATES_PER_BRICK;
      const h = isBrick ? PLATES_PER_BRICK : 1;
      below = [0, length - thick].map((x, end) => {
        const laid = layStretch(a, b, below[end], thick, isBrick ? 'brick' : 'plate');
        for (const { at, long, part } of laid)
          pieces.push({ part, use: 'wall', x, y: at, w: thick, d: long, z: z + up, h, turn: 0 });
        return new Set(laid.map(({ at }) => at));
      });
      up += h;
    }
  }
  const top = { x: 0, y: run * courses, w: length, d: flat };
  pieces.push(...layFloor(top, eaves + courses * slope.h, 'roof'));
  return isX ? pieces : pieces.map(acrossX);
}

/** A piece with x and y exchanged: what fell north falls west, what fell south east. */
const acrossX = ({ x, y, w, d, turn, ...piece }: LaidPiece): LaidPiece => ({
  ...piece,
  ...{ x: y, y: x, w: d, d: w },
  turn: turn === FACING.n ? FACING.w : turn === FACING.s ? FACING.e : turn,
});
