// Which studs of a height field eyes see: the straight line from an eye to the middle of a stud's top face.

/** Columns on a grid of studs, each solid from the table to its height. */
export interface HeightField {
  w: number;
  d: number;
  /** mm above the table, row by row from the north; NaN: no column. */
  heights: Float64Array;
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
  const most = heights.reduce((high, height) => (height > high ? height : high), 0);
  return Int32Array.from(heights, (height, i) => {
    if (Number.isNaN(height)) return NO_COLUMN;
    let count = 0;
    for (const eye of eyes) if (seesTop(field, most, eye, i % w, Math.trunc(i / w))) count++;
    return count;
  });
}

/** Whether an eye sees the top of a stud. @param most the highest column, mm: above it nothing hides */
function seesTop(
  { w, d, heights }: HeightField,
  most: number,
  eye: Eye,
  column: number,
  row: number,
): boolean {
  const top = heights[row * w + column];
  const rise = eye.z - top;
  if (rise < -TOUCH) return false;
  // From the stud to the eye, so that what is near is met first and the line leaves all columns below it.
  const [dx, dy] = [eye.x - column - 0.5, eye.y - (d - row - 0.5)];
  const length = Math.hypot(dx, dy);
  if (length <= TOUCH) return true;
  const [stepX, stepRow] = [dx > 0 ? 1 : -1, dy > 0 ? -1 : 1];
  const [everyX, everyY] = [1 / Math.abs(dx), 1 / Math.abs(dy)];
  let [nextX, nextY] = [everyX / 2, everyY / 2];
  let [x, y] = [column, row];
  const last = rise > 0 ? Math.min(1, (most - top) / rise) : 1;
  const shortest = TOUCH / length;
  for (let from = Math.min(nextX, nextY); from < last;) {
    if (nextX <= nextY) {
      x += stepX;
      nextX += everyX;
    } else {
      y += stepRow;
      nextY += everyY;
    }
    if (x < 0 || y < 0 || x >= w || y >= d) return true;
    const to = Math.min(nextX, nextY, 1);
    const height = heights[y * w + x];
    // Within the column from the table to its top, over more than an edge or a corner of it.
    if (to - from > shortest && top + rise * from < height - TOUCH && top + rise * to > TOUCH) return false;
    from = to;
  }
  return true;
}
