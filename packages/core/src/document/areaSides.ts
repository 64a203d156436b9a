import type { StudArea } from '../grid/index.ts';
import { runsEast, type Side } from './vocabulary.ts';

// An area of studs as it lies behind a side of its raster: how far along the side, from its west or north end, and how far
// back.

/** The stud of a side by how far along and how far behind it is. */
export function studBehind(
  side: Side,
  along: number,
  back: number,
  { w, d }: { w: number; d: number },
): { x: number; y: number } {
  if (runsEast(side)) return { x: along, y: side === 'n' ? back : d - 1 - back };
  return { x: side === 'w' ? back : w - 1 - back, y: along };
}

/** Whether an area has a stud there. */
export function hasStudBehind(area: StudArea, side: Side, along: number, back: number): boolean {
  if (back < 0 || back >= (runsEast(side) ? area.d : area.w)) return false;
  const { x, y } = studBehind(side, along, back, area);
  return area.mask[y * area.w + x] === 1;
}

/** How many studs of an area lie behind one another from there without a gap. */
export function depthBehind(area: StudArea, side: Side, along: number, back: number): number {
  let deep = 0;
  while (hasStudBehind(area, side, along, back + deep)) deep++;
  return deep;
}

/**
 * What an area has behind one stud of a side: how far back its first stud is, and how many lie behind one another there
 * without a gap.
 * @returns of no depth where there is none; then it is as far back as the raster is deep
 */
export function firstBehind(area: StudArea, side: Side, along: number): { back: number; deep: number } {
  let back = 0;
  while (back < (runsEast(side) ? area.d : area.w) && !hasStudBehind(area, side, along, back)) back++;
  return { back, deep: depthBehind(area, side, along, back) };
}
