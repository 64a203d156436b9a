import { seeded } from '../terrain/index.ts';
import { PACK_TOLERANCE, standings, type PackItem, type PackSpace, type Packed } from './packItem.ts';
import { packingBound } from './packingBound.ts';
import { Load, type PackPlace } from './packingLoad.ts';

// Pieces into a space with its door at one end, in as few trips as are found, with a bound that no packing is below.

/** A packing: what is needed first goes in the first trips. */
export interface Packing {
  /** By trip, what is put in first first. */
  packed: Packed[];
  trips: number;
  /** No packing of those pieces needs fewer trips. */
  bound: number;
  /** Pieces that fit into an empty space in no way, and pieces for which the trips did not do. */
  tooLarge: string[];
  left: string[];
}

/** How long a packing may be searched for, and how its randomness begins. */
export interface PackOptions {
  maxTrips?: number;
  seconds: number;
  seed?: number;
  now: () => number;
}

/** So many orders of putting in are tried at most, so that a small task gives the same answer on a slow machine. */
const MAX_TRIES = 4_000;

const fitsAlone = (item: PackItem, space: PackSpace): boolean =>
  item.h <= space.h + PACK_TOLERANCE &&
  item.mass <= (space.maxMass ?? Infinity) &&
  standings(item).some(([w, d]) => w <= space.w + PACK_TOLERANCE && d <= space.d + PACK_TOLERANCE);

/**
 * Packs pieces into as few trips as are found: what is needed last is put in first, deep, on what bears it; each try that
 * leaves something out puts that in earlier. It ends at once where no packing needs fewer trips.
 * @throws RangeError where an id is there twice
 */
export function packingOf(
  items: readonly PackItem[],
  space: PackSpace,
  { maxTrips = Infinity, seconds, seed = 1, now }: PackOptions,
): Packing {
  if (new Set(items.map(({ id }) => id)).size < items.length)
    throw new RangeError('an id of a piece is there twice');
  const fit = items.filter((item) => fitsAlone(item, space));
  const tooLarge = items.filter((item) => !fit.includes(item)).map(({ id }) => id);
  const bound = packingBound(fit, space);
  const random = seeded(seed);
  const end = now() + 1000 * seconds;
  let best = fill(fit.toSorted(lastFirst), space, maxTrips, deepest);
  const worse = ({ loads, left }: Filled) => left.length * 1000 + loads.length;
  let sequence = fit.toSorted(lastFirst);
  for (let n = 0; n < MAX_TRIES && now() < end; n++) {
    if (best.left.length === 0 && best.loads.length <= bound) break;
    // With one trip fewer than the best, or as many as there are for what is left.
    const trips = best.left.length === 0 ? best.loads.length - 1 : maxTrips;
    const choice = n % 2 === 0 ? deepest : weighing(random);
    const found = fill(sequence, space, trips, choice);
    if (worse(found) < worse(best)) best = found;
    // What was left out goes in earlier; now and then everything is mixed again.
    sequence =
      n % 12 === 11
        ? mixed(fit, random)
        : found.left.reduce((list, item) => promoted(list, item, random), sequence);
    if (found.left.length === 0) sequence = mixed(fit, random);
  }
  const meanOrder = ({ places }: Load) =>
    places.reduce((sum, { item }) => sum + item.order, 0) / places.length;
  const loads = best.loads.toSorted((a, b) => meanOrder(a) - meanOrder(b));
  return {
    packed: loads.flatMap(({ places }, i) =>
      places.map(({ item, x, y, z, w, d }) => ({ trip: i + 1, id: item.id, x, y, z, w, d, h: item.h })),
    ),
    trips: loads.length,
    bound,
    tooLarge,
    left: best.left.map(({ id }) => id),
  };
}

/** What is needed last first; of equal ones what bears more, then what is larger on the floor, then taller. */
const lastFirst = (a: PackItem, b: PackItem): number =>
  b.order - a.order || b.bears - a.bears || b.w * b.d - a.w * a.d || b.h - a.h || (a.id < b.id ? -1 : 1);

interface Filled {
  loads: Load[];
  left: PackItem[];
}

/** How much a place is liked: less is better. */
type Liking = (place: PackPlace) => number;
/** At the back, then low, then at the left wall; the shallower way round. */
const deepest: Liking = ({ x, y, z, d }) => -1e8 * (y + d) + 1e4 * z + x + 1e-3 * d;
const weighing = (random: () => number): Liking => {
  const [back, low, left, deep] = [random(), random(), random() - 0.5, random() - 0.5];
  return ({ x, y, z, d }) => low * z - back * (y + d) + left * x + deep * d;
};

/** Each piece of a sequence into the first trip in which there is a place for it. */
function fill(sequence: readonly PackItem[], space: PackSpace, maxTrips: number, liking: Liking): Filled {
  const loads: Load[] = [];
  const left: PackItem[] = [];
  for (const item of sequence) {
    if (loads.some((load) => load.put(item, liking))) continue;
    const load = new Load(space);
    if (loads.length < maxTrips && load.put(item, liking)) loads.push(load);
    else left.push(item);
  }
  return { loads, left };
}

/** A sequence with one piece moved forward by a random part of the way. */
function promoted(list: readonly PackItem[], item: PackItem, random: () => number): PackItem[] {
  const at = list.indexOf(item);
  const rest = list.toSpliced(at, 1);
  return rest.toSpliced(Math.floor(at * random()), 0, item);
}

/** Mixed by chance, the more so the nearer in order and in size. */
function mixed(items: readonly PackItem[], random: () => number): PackItem[] {
  const spread = 4 * random();
  return items
    .toSorted(lastFirst)
    .map((item, i) => ({ item, key: i + spread * (random() - 0.5) * Math.sqrt(items.length) }))
    .sort((a, b) => a.key - b.key)
    .map(({ item }) => item);
}
