import { PACK_TOLERANCE, standings, type PackItem, type PackSpace } from './packItem.ts';

/** Sizes as shares of the space, and the share of what a trip carries; each from 0 to 1. */
interface Shares {
  standings: [number, number][];
  h: number;
  mass: number;
}

/** Rounds shares so that what no longer fits beside something counts as all (dual feasible; Fekete, Schepers 2004). */
type Rounding = (share: number) => number;

/**
 * A number of trips that no packing is below: by volume and by mass, also with sizes rounded so that what is over half a
 * side counts as the whole of it; by the floor that pieces take which bear nothing; by pieces of which no two fit together.
 * @param items each fits into an empty space
 */
export function packingBound(items: readonly PackItem[], space: PackSpace): number {
  if (items.length === 0) return 0;
  const sizes = items.map((item): Shares => ({
    standings: standings(item).map(([w, d]) => [w / space.w, d / space.d]),
    h: item.h / space.h,
    mass: space.maxMass === null ? 0 : item.mass / space.maxMass,
  }));
  const trips = (sum: number) => Math.ceil(sum - 1e-9 * items.length);
  const plain: Rounding = (share) => share;
  const roundings = [plain, ...[0.5, 0.4, 1 / 3, 0.25].map(halved)];
  const volumeBy = (f: Rounding, g: Rounding, k: Rounding) =>
    sizes.reduce(
      (sum, { standings: ways, h }) => sum + k(h) * Math.min(...ways.map(([w, d]) => f(w) * g(d))),
      0,
    );
  const volumes = roundings.flatMap((f) => roundings.flatMap((g) => roundings.map((k) => volumeBy(f, g, k))));
  const masses = roundings.map((f) => sizes.reduce((sum, { mass }) => sum + f(mass), 0));
  // Over each point of the floor at most one piece that bears nothing.
  const topmost = sizes.reduce(
    (sum, { standings: [[w, d]] }, i) => sum + (items[i].bears === 0 ? w * d : 0),
    0,
  );
  return Math.max(1, ...[...volumes, ...masses, topmost].map(trips), apartAll(items, space));
}

/** Over 1 − share: all; under share: nothing; between: as it is. */
const halved =
  (share: number): Rounding =>
  (value) =>
    value > 1 - share + 1e-9 ? 1 : value < share - 1e-9 ? 0 : value;

/** Pieces of which no two go together, the widest first: each needs a trip. */
function apartAll(items: readonly PackItem[], space: PackSpace): number {
  const chosen: PackItem[] = [];
  for (const item of items.toSorted((a, b) => b.w * b.d * b.h - a.w * a.d * a.h))
    if (chosen.every((other) => !goTogether(item, other, space))) chosen.push(item);
  return chosen.length;
}

/** Whether two pieces may be in one trip: two boxes apart lie beside, behind or over each other. */
function goTogether(a: PackItem, b: PackItem, space: PackSpace): boolean {
  if (a.mass + b.mass > (space.maxMass ?? Infinity)) return false;
  // What is above something needs something that bears, and never stands over what is needed earlier.
  const bearsOther = (below: PackItem, above: PackItem) => below.bears > 0 && below.order >= above.order;
  if (a.h + b.h <= space.h + PACK_TOLERANCE && (bearsOther(a, b) || bearsOther(b, a))) return true;
  return standings(a).some(([w, d]) =>
    standings(b).some(([v, c]) => w + v <= space.w + PACK_TOLERANCE || d + c <= space.d + PACK_TOLERANCE),
  );
}
