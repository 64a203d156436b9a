// Which studs of a height field eyes see: the straight line from an eye to the middle of a stud's top face.

/** Columns on a grid of studs, each solid from the table to its height but for its open stretches. */
export interface HeightField {
  w: number;
  d: number;
  /** mm above the table, row by row from the north; NaN: no column. */
  heights: Float64Array;
  /** Open stretches below the top of a column, from and to, mm, by its index: under decks and roofs of ground. Left out: none. */
  voids?: ReadonlyMap<number, readonly Void[]>;
}

/** An open stretch of a column, mm above the table: something solid is over it. */
export interface Void {
  from: number;
  to: number;
}

/** An eye: studs east and north of the field's south-west corner, mm above the table; outside the field is usual. */
export interface Eye {
  x: number;
  y: number;
  z: number;
}

/** Lines that only touch a column do not end there: studs, and mm. */
const TOUCH = 1e-6;
/** What a stud without a column is told as. */
export const NO_COLUMN = -1;

/**
 * How many eyes see each stud's top face. An eye sees it when it is not below it and the line from it to the middle of
 * the face passes through the inside of no other column; a line that touches an edge, a corner or a top passes.
 * Its cost grows with eyes × studs × the columns that lines cross below the highest.
 * @returns counts row by row from the north; NO_COLUMN where there is no column
 */
export function seenCounts(field: HeightField, eyes: readonly Eye[]): Int32Array {
  const { w, heights } = field;
  const peaks = peaksOf(field);
  return Int32Array.from(heights, (height, i) => {
    if (Number.isNaN(height)) return NO_COLUMN;
    let count = 0;
    for (const eye of eyes) if (seesTop(field, peaks, eye, i % w, Math.trunc(i / w))) count++;
    return count;
  });
}

/** Whether an eye sees the top of a stud. */
export function seesTop(field: HeightField, peaks: Peaks, eye: Eye, column: number, row: number): boolean {
  const z = field.heights[row * field.w + column];
  if (eye.z - z < -TOUCH) return false;
  return hiderOf(field, peaks, column + 0.5, field.d - row - 0.5, z, eye) === FREE;
}

/** Columns are grouped in squares of so many studs; over the highest of a square nothing in it hides. */
const SQUARE = 8;

/** The highest column of each square of a field, and of all of it, mm. They may be too high, never too low. */
export interface Peaks {
  /** Squares in a row. */
  across: number;
  high: Float64Array;
  most: number;
}

export function peaksOf({ w, d, heights }: HeightField): Peaks {
  const across = Math.ceil(w / SQUARE);
  const high = new Float64Array(across * Math.ceil(d / SQUARE));
  let most = 0;
  for (let y = 0; y < d; y++)
    for (let x = 0; x < w; x++) {
      const height = heights[y * w + x];
      const square = Math.trunc(y / SQUARE) * across + Math.trunc(x / SQUARE);
      if (height > high[square]) high[square] = height;
      if (height > most) most = height;
    }
  return { across, high, most };
}

/** No column is in the way. */
export const FREE = -1;

/**
 * The column nearest to a point that hides it from an eye: the first through whose inside the line between them passes,
 * from the point on. A line that touches an edge, a corner or a top passes.
 * @returns its index in the field; FREE: none
 */
export const firstHider = (field: HeightField, peaks: Peaks, { x, y, z }: Eye, eye: Eye): number =>
  hiderOf(field, peaks, x, y, z, eye);

/** The same for plain numbers, as it is asked millions of times: from stud to stud, over low squares at one step. */
function hiderOf(
  { w, d, heights, voids }: HeightField,
  { across, high, most }: Peaks,
  px: number,
  py: number,
  pz: number,
  eye: Eye,
): number {
  const rise = eye.z - pz;
  const dx = eye.x - px;
  const dy = eye.y - py;
  const length = Math.sqrt(dx * dx + dy * dy);
  // North is up the rows: the stud north of a boundary is in the row before it.
  const north = dy < 0 ? Math.ceil(py) - 1 : Math.floor(py);
  let x = dx < 0 ? Math.ceil(px) - 1 : Math.floor(px);
  let y = d - 1 - north;
  if (length <= TOUCH) {
    if (x < 0 || y < 0 || x >= w || y >= d || !(heights[y * w + x] > pz + TOUCH)) return FREE;
    return isInVoid(voids, y * w + x, Math.min(pz, eye.z), Math.max(pz, eye.z)) ? FREE : y * w + x;
  }
  // Along the line between two columns it touches both.
  if ((dx === 0 && Number.isInteger(px)) || (dy === 0 && Number.isInteger(py))) return FREE;
  const stepX = dx > 0 ? 1 : -1;
  const stepRow = dy > 0 ? -1 : 1;
  const everyX = 1 / Math.abs(dx);
  const everyY = 1 / Math.abs(dy);
  let nextX = dx === 0 ? Infinity : (dx > 0 ? x + 1 - px : px - x) * everyX;
  let nextY = dy === 0 ? Infinity : (dy > 0 ? north + 1 - py : py - north) * everyY;
  const isUp = rise >= 0;
  const last = rise > 0 ? Math.min(1, (most - pz) / rise) : 1;
  const shortest = TOUCH / length;
  let slow = -1;
  for (let from = 0; from < last || from === 0;) {
    if (x >= 0 && y >= 0 && x < w && y < d) {
      const column = Math.trunc(x / SQUARE);
      const row = Math.trunc(y / SQUARE);
      const square = row * across + column;
      if (square !== slow) {
        // Boundaries to cross until the square is left, and when it is.
        const stepsX = stepX > 0 ? (column + 1) * SQUARE - x : x - column * SQUARE + 1;
        const stepsY = stepRow > 0 ? (row + 1) * SQUARE - y : y - row * SQUARE + 1;
        const leftX = nthCrossing(nextX, everyX, stepsX);
        const leftY = nthCrossing(nextY, everyY, stepsY);
        const left = Math.min(leftX, leftY);
        if (pz + rise * (isUp ? from : Math.min(left, 1)) >= high[square] - TOUCH) {
          if (left >= 1) return FREE;
          const overX = leftX <= leftY ? stepsX : crossed(nextX, everyX, left, stepsX - 1);
          const overY = leftX <= leftY ? crossed(nextY, everyY, left, stepsY - 1) : stepsY;
          // A line that runs along one axis crosses no boundary of the other: 0 × ∞ is no number.
          if (overX > 0) {
            x += stepX * overX;
            nextX += everyX * overX;
          }
          if (overY > 0) {
            y += stepRow * overY;
            nextY += everyY * overY;
          }
          from = left;
          continue;
        }
        slow = square;
      }
      const to = Math.min(nextX, nextY, 1);
      const height = heights[y * w + x];
      // Within the column from the table to its top, over more than an edge or a corner of it.
      if (
        pz + rise * (isUp ? from : to) < height - TOUCH &&
        pz + rise * (isUp ? to : from) > TOUCH &&
        to - from > shortest &&
        !isInVoid(voids, y * w + x, pz + rise * (isUp ? from : to), pz + rise * (isUp ? to : from))
      )
        return y * w + x;
    } else if (isLeaving(x, stepX, w) || isLeaving(y, stepRow, d)) return FREE;
    from = Math.min(nextX, nextY, 1);
    if (from >= 1) return FREE;
    if (nextX <= nextY) {
      x += stepX;
      nextX += everyX;
    } else {
      y += stepRow;
      nextY += everyY;
    }
  }
  return FREE;
}

/** Whether a stretch of a line within a column, mm, lies in one of its open stretches. */
const isInVoid = (voids: HeightField['voids'], column: number, low: number, high: number): boolean =>
  voids?.get(column)?.some(({ from, to }) => Math.max(0, low) >= from - TOUCH && high <= to + TOUCH) ?? false;

/** When the nth boundary from the next on is crossed; never along the boundaries, where 0 × ∞ is no number. */
const nthCrossing = (next: number, every: number, n: number): number =>
  every === Infinity ? Infinity : next + (n - 1) * every;

/** How many boundaries are crossed by then, when the next is crossed at `next` and the others one after `every`. */
const crossed = (next: number, every: number, by: number, most: number): number =>
  next > by ? 0 : Math.min(most, Math.floor((by - next) / every) + 1);

/** Whether a line that steps on is past the field and goes away from it. */
const isLeaving = (at: number, step: number, size: number): boolean => (step > 0 ? at >= size : at < 0);
