/**
 * Length of a line through points, in their unit.
 * @returns 0 for fewer than two points
 */
export const lengthOfLine = (points: readonly { x: number; y: number }[]): number =>
  points.reduce(
    (sum, { x, y }, i) => (i === 0 ? 0 : sum + Math.hypot(x - points[i - 1].x, y - points[i - 1].y)),
    0,
  );
