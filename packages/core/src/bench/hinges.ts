import { MM_PER_STUD } from '../grid/index.ts';

// Two walls on one hinge whose far ends are pinned in one row of studs: bay windows, towers, folded fronts.

/** Two walls joined by a hinge. All lengths from pin to pin. */
export interface HingedPair {
  /** The walls and the way between their far ends, whole studs; the first is not the longer one. */
  a: number;
  b: number;
  base: number;
  /** Between both walls at the hinge, degrees. */
  angle: number;
  /** By how much that is more than what is wanted, degrees. */
  off: number;
  /** Between either wall and the row, degrees. */
  turnA: number;
  turnB: number;
  /** How far the hinge stands out of the row, mm. */
  outMm: number;
}

/**
 * Pairs of walls that stand at an angle to each other, the nearest to it first, of those the shortest (law of cosines:
 * Euclid, Elements II.12 and 13).
 * @param wanted degrees between the walls, 0 to 180, the ends not in it
 * @param within longest wall, whole studs @param most how far off the angle may be, degrees
 */
export function hingedPairs(wanted: number, within: number, most: number): HingedPair[] {
  const pairs: HingedPair[] = [];
  for (let a = 1; a <= within; a++)
    for (let b = a; b <= within; b++) {
      const far = (degrees: number) => Math.sqrt(a * a + b * b - 2 * a * b * Math.cos(radians(degrees)));
      const from = Math.ceil(far(Math.max(0, wanted - most)) - TIE);
      const to = Math.floor(far(Math.min(180, wanted + most)) + TIE);
      for (let base = Math.max(from, b - a + 1); base <= Math.min(to, a + b - 1); base++)
        pairs.push(pairOf(a, b, base, wanted));
    }
  return pairs.toSorted((p, q) => {
    const nearer = Math.abs(p.off) - Math.abs(q.off);
    return Math.abs(nearer) > TIE ? nearer : p.a + p.b - q.a - q.b || p.a - q.a;
  });
}
const TIE = 1e-9;

const radians = (degrees: number) => (degrees * Math.PI) / 180;

function pairOf(a: number, b: number, base: number, wanted: number): HingedPair {
  /** The corner between two sides of a triangle, across from the third, degrees. */
  const corner = (p: number, q: number, across: number) =>
    (Math.acos(Math.min(1, Math.max(-1, (p * p + q * q - across * across) / (2 * p * q)))) * 180) / Math.PI;
  const [angle, turnA] = [corner(a, b, base), corner(a, base, b)];
  return {
    ...{ a, b, base, angle, turnA },
    off: angle - wanted,
    turnB: corner(b, base, a),
    outMm: a * Math.sin(radians(turnA)) * MM_PER_STUD,
  };
}
