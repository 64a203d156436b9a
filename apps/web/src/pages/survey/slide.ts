import type { Opening } from '@quarry/core/scene';
import { distanceTo, lengthOf, openingLine, sidesOf, type Point } from '@quarry/core/site';

/** Where an opening comes to be when it is pushed by so many mm: along the wall that is nearest then, within its ends. */
export function slideOpening(
  walls: readonly Point[],
  opening: Pick<Opening, 'wall' | 'at' | 'width'>,
  by: Point,
): { wall: number; at: number } | null {
  const line = openingLine(walls, opening);
  if (!line) return null;
  const middle = { x: (line.a.x + line.b.x) / 2 + by.x, y: (line.a.y + line.b.y) / 2 + by.y };
  const sides = sidesOf(walls);
  const wall = sides.reduce(
    (best, side, i) => (distanceTo(middle, side) < distanceTo(middle, sides[best]) ? i : best),
    0,
  );
  const side = sides[wall];
  const length = lengthOf(side);
  const along =
    ((middle.x - side.a.x) * (side.b.x - side.a.x) + (middle.y - side.a.y) * (side.b.y - side.a.y)) /
    (length || 1);
  const at = Math.max(0, Math.min(length - opening.width, along - opening.width / 2));
  return { wall, at: Math.round(at / 10) * 10 };
}
