import type { Planting, Repeat } from '../document/index.ts';
import { eachSpan } from './shape.ts';
import { atAlong } from './strip.ts';
import { lengthOfLine, boundsOf, rememberFor, type Rect } from '../grid/index.ts';

// Where the many stand: plants of a planting, the members of a repeat.

/** A small, seeded generator of numbers from 0 to 1 (xorshift, 32 bits). */
export function seeded(seed: number): () => number {
  let state = (Math.imul(seed + 1, 2_654_435_761) ^ 0x9e3779b9) >>> 0 || 1;
  return () => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    state >>>= 0;
    return state / 4_294_967_296;
  };
}

/** One plant: middle of its stem, its height in plates, the width of its crown in studs, which of the mix it is. */
export interface Plant {
  x: number;
  y: number;
  height: number;
  crown: number;
  kind: number;
}

/** How many places are tried for each plant: the farthest from the others is taken. */
const TRIES = 6;

/**
 * The plants of a planting: so many to 100 studs of its area, each on a stud of its own and, of a few places tried
 * for it, on the one farthest from those there are (so that they scatter evenly without a pattern). The kinds
 * share the plants as their parts in the mix say, to within one plant. The same seed gives the same plants.
 */
export const plantsOf = rememberFor((planting: Planting): readonly Plant[] => plantsIn(planting));

function plantsIn(planting: Planting): Plant[] {
  const { density, mix, seed } = planting;
  const studs: number[] = [];
  const bounds = boundsOf([planting]);
  const window = {
    x: Math.floor(bounds.x) - 1,
    y: Math.floor(bounds.y) - 1,
    w: Math.ceil(bounds.w) + 2,
    d: Math.ceil(bounds.d) + 2,
  };
  eachSpan(planting, window, (row, from, to) => {
    for (let x = from; x < to; x++) studs.push((row - window.y) * window.w + x - window.x);
  });
  const count = Math.min(studs.length, MAX_PLANTS, Math.round((studs.length * density) / 100));
  const random = seeded(seed);
  const kinds = apportion(
    count,
    mix.map(({ share }) => share),
  );
  const order = shuffled(
    kinds.flatMap((many, kind) => new Array<number>(many).fill(kind)),
    random,
  );
  const plants: Plant[] = [];
  // Cells about as large as one plant's ground, to look for neighbours in.
  const cell = Math.max(1, Math.sqrt(100 / Math.max(density, 0.01)));
  const near = new Map<string, Plant[]>();
  const keyAt = (x: number, y: number) => `${Math.floor(x / cell)} ${Math.floor(y / cell)}`;
  const distance = (x: number, y: number) => {
    let least = 2 * cell;
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++)
        for (const other of near.get(keyAt(x + dx * cell, y + dy * cell)) ?? [])
          least = Math.min(least, Math.hypot(other.x - x, other.y - y));
    return least;
  };
  for (const kind of order) {
    let best = { at: 0, far: -1, x: 0, y: 0 };
    for (let i = 0; i < TRIES; i++) {
      const at = Math.floor(random() * studs.length);
      const x = window.x + (studs[at] % window.w) + 0.5;
      const y = window.y + Math.trunc(studs[at] / window.w) + 0.5;
      const far = distance(x, y);
      if (far > best.far) best = { at, far, x, y };
    }
    studs[best.at] = studs[studs.length - 1];
    studs.pop();
    const { low, high, crown } = mix[kind];
    const least = Math.min(low, high);
    const height = least + Math.floor(random() * (Math.abs(high - low) + 1));
    const plant = { x: best.x, y: best.y, height, crown, kind };
    plants.push(plant);
    const key = keyAt(plant.x, plant.y);
    near.set(key, [...(near.get(key) ?? []), plant]);
  }
  return plants;
}

/** The most plants one planting sets. */
export const MAX_PLANTS = 20_000;

/** Shares a count out in proportion, the largest remainders first; the parts add up to the count. */
export function apportion(count: number, shares: readonly number[]): number[] {
  const whole = shares.reduce((sum, share) => sum + share, 0);
  const exact = shares.map((share) => (whole > 0 ? (count * share) / whole : count / shares.length));
  const parts = exact.map(Math.floor);
  const rest = exact
    .map((value, i) => ({ i, over: value - parts[i] }))
    .sort((a, b) => b.over - a.over || a.i - b.i);
  const left = count - parts.reduce((sum, part) => sum + part, 0);
  for (const { i } of rest.slice(0, left)) parts[i]++;
  return parts;
}

function shuffled(list: number[], random: () => number): number[] {
  for (let i = list.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [list[i], list[j]] = [list[j], list[i]];
  }
  return list;
}

/** One member of a repeat: its middle, and the direction of the line there in radians. */
export interface RepeatMember {
  x: number;
  y: number;
  angle: number;
  along: number;
}

/**
 * Where the members of a repeat stand. By count: evenly divided, half a bay before the first and after the last.
 * One every so many studs: as many as fit, the rest shared between both ends. To each base: each base that the line
 * runs over has `count` bays from its own edge, and every bay that lies wholly on the line has its member in the middle;
 * until the scene is cut, bases of the given length start at the display's corner.
 * Those that would stand nearer to a seam than it keeps off are left out.
 * @param modules where bases lie and modules meet, studs
 */
export function membersOf(
  repeat: Repeat,
  modules: readonly (Rect & { bases?: readonly Rect[] })[] = [],
): { members: RepeatMember[]; dropped: RepeatMember[] } {
  const length = lengthOfLine(repeat.points);
  const places: number[] = [];
  if (repeat.spacing === 'count')
    for (let i = 0; i < repeat.count; i++) places.push(((i + 0.5) * length) / repeat.count);
  else if (repeat.spacing === 'every') {
    const bays = Math.min(5000, Math.floor(length / repeat.every + 1e-9));
    for (let i = 0; i <= bays; i++) places.push((length - bays * repeat.every) / 2 + i * repeat.every);
  } else places.push(...baysOf(repeat, modules));
  const all = places.map((along): RepeatMember => ({ ...atAlong(repeat.points, along), along }));
  const keeps = (member: RepeatMember) =>
    repeat.keepOff === 0 || seamDistance(member, modules) >= repeat.keepOff + repeat.length / 2 - 1e-9;
  return { members: all.filter(keeps), dropped: all.filter((member) => !keeps(member)) };
}

/** Middles of the bays of a line that lie wholly on it, from its beginning, studs. */
function baysOf(
  { points, base, count }: Repeat,
  modules: readonly (Rect & { bases?: readonly Rect[] })[],
): number[] {
  const bases = modules.flatMap((module) =>
    module.bases && module.bases.length > 0 ? module.bases : [module],
  );
  const places: number[] = [];
  let begun = 0;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    const along = Math.abs(b.x - a.x) >= Math.abs(b.y - a.y) ? 'x' : 'y';
    const size = along === 'x' ? 'w' : 'd';
    const [from, to] = [Math.min(a[along], b[along]), Math.max(a[along], b[along])];
    // How far along the line one stud across the bases is: more than 1 where it runs aslant.
    const slant = to > from ? length / (to - from) : 0;
    const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
    const touches = (rect: Rect) =>
      along === 'x'
        ? middle.y >= rect.y && middle.y <= rect.y + rect.d
        : middle.x >= rect.x && middle.x <= rect.x + rect.w;
    const under: { at: number; length: number }[] = [];
    if (bases.length > 0)
      for (const rect of bases) {
        if (touches(rect) && rect[along] < to && rect[along] + rect[size] > from)
          under.push({ at: rect[along], length: rect[size] });
      }
    else for (let at = Math.floor(from / base) * base; at < to; at += base) under.push({ at, length: base });
    const known = new Set<number>();
    for (const { at, length: whole } of under)
      for (let bay = 0; bay < count; bay++) {
        const [start, end] = [at + (bay * whole) / count, at + ((bay + 1) * whole) / count];
        const place = (start + end) / 2;
        // A line along the joint of two rows of bases has its bays once.
        if (start < from - 1e-9 || end > to + 1e-9 || known.has(place) || places.length >= 5000) continue;
        known.add(place);
        places.push(begun + (b[along] >= a[along] ? place - from : to - place) * slant);
      }
    begun += length;
  }
  return places.sort((p, q) => p - q);
}

/** How far a place is from the nearest side of a module that another one meets, studs. */
export function seamDistance({ x, y }: { x: number; y: number }, modules: readonly Rect[]): number {
  let least = Infinity;
  for (const module of modules) {
    const { x: west, y: north, w, d } = module;
    const [dx, dy] = [Math.max(west - x, 0, x - west - w), Math.max(north - y, 0, y - north - d)];
    if (Math.hypot(dx, dy) > least) continue;
    for (const [meets, apart] of [
      [(o: Rect) => o.x + o.w === west && o.y < north + d && north < o.y + o.d, Math.hypot(x - west, dy)],
      [(o: Rect) => o.x === west + w && o.y < north + d && north < o.y + o.d, Math.hypot(west + w - x, dy)],
      [(o: Rect) => o.y + o.d === north && o.x < west + w && west < o.x + o.w, Math.hypot(dx, y - north)],
      [(o: Rect) => o.y === north + d && o.x < west + w && west < o.x + o.w, Math.hypot(dx, north + d - y)],
    ] as const)
      if (apart < least && modules.some(meets)) least = apart;
  }
  return least;
}
