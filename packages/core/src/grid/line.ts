/**
 * Length of a line through points, in their unit.
 * @returns 0 for fewer than two points
 */
export const lengthOfLine = (points: readonly { x: number; y: number }[]): number =>
  points.reduce(
    (sum, { x, y }, i) => (i === 0 ? 0 : sum + Math.hypot(x - points[i - 1].x, y - points[i - 1].y)),
    0,
  );

/**
 * From the middle of a regular polygon to the middle of a side, in the unit of the side (regular-polygon trigonometry).
 * @param sides whole, at least 3
 */
export const polygonApothem = (sides: number, side: number): number => side / (2 * Math.tan(Math.PI / sides));
