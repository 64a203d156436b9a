import { seeded } from '../terrain/index.ts';
import type { PackItem, PackSpace, Packed } from './packItem.ts';
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
  /** Called with the first packing, and with each better one. */
  onBetter?: (packing: Packing) => void;
}

/** So many orders of putting in are tried at most, so that a small task gives the same answer on a slow machine. */
const MAX_TRIES = 4_000;

/** Whether a piece fits into an empty space. */
export const fitsAlone = (item: PackItem, space: PackSpace): boolean => new Load(space).put(item, deepest);

const thatFit = (items: readonly PackItem[], spaces: readonly PackSpace[]): PackItem[] => {
  const kinds = [...new Set(spaces)];
  return items.filter((item) => kinds.some((one) => fitsAlone(item, one)));
};

const boundOf = (fit: readonly PackItem[], spaces: readonly PackSpace[]): number => {
  const kinds = [...new Set(spaces)];
  return kinds.length === 0 ? 0 : packingBound(fit, kinds.length === 1 ? kinds[0] : hullOf(kinds));
};

/** No packing into such spaces needs fewer trips; what fits into none is left out. */
export const packingBoundOf = (items: readonly PackItem[], spaces: readonly PackSpace[]): number =>
  boundOf(thatFit(items, spaces), spaces);

/** As large in each measure as the largest of all. */
function hullOf(spaces: readonly PackSpace[]): PackSpace {
  const most = (of: (space: PackSpace) => number) => Math.max(...spaces.map(of));
  const mass = most(({ maxMass }) => maxMass ?? Infinity);
  return {
    ...{ w: most(({ w }) => w), d: most(({ d }) => d), h: most(({ h }) => h) },
    maxMass: mass === Infinity ? null : mass,
  };
}

/**
 * Packs pieces into as few trips as are found: what is needed last is put in first, deep, on what bears it; each try that
 * leaves something out puts that in earlier. It ends at once where no packing needs fewer trips.
 * @param space of every trip, or the space of each: then `trip` counts them from 1, and some may stay empty
 * @throws RangeError where an id is there twice
 */
export function packingOf(
  items: readonly PackItem[],
  space: PackSpace | readonly PackSpace[],
  { maxTrips = Infinity, seconds, seed = 1, now, onBetter }: PackOptions,
): Packing {
  if (new Set(items.map(({ id }) => id)).size < items.length)
    throw new RangeError('an id of a piece is there twice');
  const spaces = 'w' in space ? [space] : space;
  const most = 'w' in space ? maxTrips : Math.min(maxTrips, spaces.length);
  const spaceOf = (trip: number) => spaces[Math.min(trip, spaces.length - 1)];
  const fit = thatFit(items, spaces);
  const tooLarge = items.filter((item) => !fit.includes(item)).map(({ id }) => id);
  const bound = boundOf(fit, spaces);
  const random = seeded(seed);
  const end = now() + 1000 * seconds;
  const told = (filled: Filled): Packing => ({ ...resultOf(filled), bound, tooLarge });
  const worse = ({ loads, left }: Filled) => left.length * 1000 + inUse(loads);
  let best = fill(fit.toSorted(lastFirst), spaceOf, most, deepest);
  onBetter?.(told(best));
  let sequence = fit.toSorted(lastFirst);
  for (let n = 0; n < MAX_TRIES && now() < end; n++) {
    if (best.left.length === 0 && inUse(best.loads) <= bound) break;
    // With one trip fewer than the best, or as many as there are for what is left.
    const trips = best.left.length === 0 ? best.loads.length - 1 : most;
    const choice = n % 2 === 0 ? deepest : n % 4 === 1 ? weighing(random) : weighingEach(random);
    const found = fill(sequence, spaceOf, trips, choice);
    if (worse(found) < worse(best)) {
      best = found;
      onBetter?.(told(best));
    }
    // What was left out goes in earlier; now and then everything is mixed again.
    sequence =
      n % 12 === 11
        ? mixed(fit, random)
        : found.left.reduce((list, item) => promoted(list, item, random), sequence);
    if (found.left.length === 0) sequence = mixed(fit, random);
  }
  return told(best);
}

const inUse = (loads: readonly Load[]) => loads.filter(({ places }) => places.length > 0).length;

/** Of trips of one space that in which things are needed first goes first. */
function resultOf({ loads, left }: Filled): Omit<Packing, 'bound' | 'tooLarge'> {
  const meanOrder = ({ places }: Load) =>
    places.length === 0 ? Infinity : places.reduce((sum, { item }) => sum + item.order, 0) / places.length;
  const byOrder = loads.toSorted((a, b) => meanOrder(a) - meanOrder(b));
  const inTurn = loads.map(({ space }) => {
    const at = byOrder.findIndex((load) => load.space === space);
    return byOrder.splice(at, 1)[0];
  });
  return {
    packed: inTurn.flatMap(({ places }, i) =>
      places.map(({ item, x, y, z, w, d }) => ({ trip: i + 1, id: item.id, x, y, z, w, d, h: item.h })),
    ),
    trips: inUse(loads),
    left: left.map(({ id }) => id),
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

/** Each piece by weights of its own, which may draw it to the door as well. */
function weighingEach(random: () => number): Liking {
  const likings = new Map<PackItem, Liking>();
  return (place) => {
    const { item } = place;
    const known = likings.get(item);
    if (known) return known(place);
    const weigh = weighing(random);
    const forward = random() < 0.3 ? 2 : 0;
    const liking: Liking = (at) => weigh(at) + forward * at.y;
    likings.set(item, liking);
    return liking(place);
  };
}

/** Each piece of a sequence into the first trip in which there is a place for it. */
function fill(
  sequence: readonly PackItem[],
  spaceOf: (trip: number) => PackSpace,
  maxTrips: number,
  liking: Liking,
): Filled {
  const loads: Load[] = [];
  const left: PackItem[] = [];
  for (const item of sequence) {
    let isIn = loads.some((load) => load.put(item, liking));
    // It may be larger than the next space, and smaller than one after it.
    while (!isIn && loads.length < maxTrips) {
      const load = new Load(spaceOf(loads.length));
      loads.push(load);
      isIn = load.put(item, liking);
    }
    if (!isIn) left.push(item);
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
