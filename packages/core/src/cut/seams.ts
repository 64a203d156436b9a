import { dequal } from 'dequal/lite';
import { PLATE, countOf, formatPlates, intersection, parseLength } from '../grid/index.ts';
import {
  runsEast,
  listOf,
  plotBounds,
  type Change,
  type Module,
  type Scene,
  type Seam,
  type SeamSide,
} from '../document/index.ts';
import {
  CONNECTOR_PLACES,
  FRONT_DEPTH,
  fixedGroundAt,
  groundAt,
  ownerAt,
  type Relief,
} from '../terrain/index.ts';
import { crossingsOf, stripsOf, type Crossing, type GridLine } from './crossing.ts';
import { pairsAlong, seamClassifier, type SeamOver } from './seamCosts.ts';

/** Two modules that lie side by side, and the line between them: `a` west or north of it, `b` east or south. */
export interface Neighbours {
  /** The id of what is agreed about them, whether it is written down yet or not. */
  id: string;
  a: Module;
  b: Module;
  line: GridLine;
}

/** All pairs of neighbouring modules, by the names of both. */
export function neighboursOf(scene: Scene): Neighbours[] {
  const modules = listOf(scene, 'module');
  const pairs: Neighbours[] = [];
  for (const a of modules)
    for (const b of modules) {
      if (a === b) continue;
      const [top, bottom] = [Math.max(a.y, b.y), Math.min(a.y + a.d, b.y + b.d)];
      const [left, right] = [Math.max(a.x, b.x), Math.min(a.x + a.w, b.x + b.w)];
      const line: GridLine | null =
        a.x + a.w === b.x && bottom > top
          ? { x: b.x, y: top, upright: true, length: bottom - top }
          : a.y + a.d === b.y && right > left
            ? { x: left, y: b.y, upright: false, length: right - left }
            : null;
      if (line) pairs.push({ id: seamId(a, b), a, b, line });
    }
  return pairs.sort((p, q) => order(p.a.name, q.a.name) || order(p.b.name, q.b.name));
}

const order = (a: string, b: string) => a.localeCompare(b, 'en', { numeric: true });

/** The modules as one reads them: A2 before A10. */
export const modulesByName = (scene: Scene): Module[] =>
  listOf(scene, 'module').toSorted((a, b) => order(a.name, b.name));

/** Ids have at most 40 characters: module ids are cut short the same way each time. */
export const seamId = (a: { id: string }, b: { id: string }) =>
  `seam-${a.id.replace(/^module-/, '').slice(0, 16)}-${b.id.replace(/^module-/, '').slice(0, 16)}`;

/** One stud along a seam, on one side. */
export interface EdgeStud {
  height: number;
  /** One of the grounds, “bare” where nothing lies. */
  ground: string;
  /** Streets, ways and tracks meet exactly; rough ground within the tolerance. */
  exact: boolean;
  /** Whether it is judged as water. */
  isWater: boolean;
}

/** What is along a seam. */
export interface SeamSheet {
  neighbours: Neighbours;
  /** Stud by stud from its beginning; null where the footprint ends. */
  studs: ({ a: EdgeStud; b: EdgeStud } | null)[];
  crossings: Crossing[];
  /** Where connectors go, studs from the beginning of the seam; on the other side the same places, mirrored. */
  connectors: Connector[];
  /** The standard the connectors follow. */
  standard: 'street' | 'landscape';
  /** Levels of water beside the seam, plates. */
  water: { a: number[]; b: number[] };
  /** Studs of the seam by what they lie over. */
  over: { over: SeamOver; studs: number }[];
}

export interface Connector {
  from: number;
  to: number;
  /** The same place counted from the other end, as one sees it standing before the neighbour's edge. */
  mirrored: { from: number; to: number };
}

/** A landscape seam is pinned by two studs in the middle of each of so many (a default of ours, no source). */
const PIN_EACH = 16;
const PIN = 2;
const PIECE = 8;

/** Grounds that meet exactly at a seam. */
const isPaved = (ground: string | null) => ground === 'road' || ground === 'paving' || ground === 'ballast';

/** Reads off a seam what both sides must know. */
export function seamSheet(scene: Scene, relief: Relief, neighbours: Neighbours): SeamSheet {
  const { line, a, b } = neighbours;
  const pairs = new Map(pairsAlong(relief, line).map((pair) => [pair.at, pair]));
  const stud = (index: number): EdgeStud => {
    const ground = groundAt(relief, index) ?? 'bare';
    const owner = ownerAt(relief, index)?.kind;
    const base = fixedGroundAt(scene, relief, index);
    const exact = isPaved(base) || owner === 'way' || owner === 'track';
    return { height: relief.height[index], ground, exact, isWater: base === 'water' };
  };
  const studs = Array.from({ length: line.length }, (_, at) => {
    const pair = pairs.get(at);
    return pair ? { a: stud(pair.a), b: stud(pair.b) } : null;
  });
  const levels = (side: SeamSide) => [
    ...new Set(studs.flatMap((pair) => (pair?.[side].isWater ? [pair[side].height] : []))),
  ];
  const judge = seamClassifier(scene, relief);
  const over = new Map<SeamOver, number>();
  for (let at = 0; at < line.length; at += PIECE) {
    const length = Math.min(PIECE, line.length - at);
    const piece = line.upright ? { ...line, y: line.y + at, length } : { ...line, x: line.x + at, length };
    const what = judge(piece);
    over.set(what, (over.get(what) ?? 0) + length);
  }
  const street = streetAlong(scene, a, b, line);
  return {
    neighbours,
    studs,
    crossings: crossingsOf(stripsOf(scene, relief), line),
    standard: street === null ? 'landscape' : 'street',
    connectors: (street ?? landscape(line.length))
      .filter(({ from, to }) => from >= 0 && to <= line.length)
      .map(({ from, to }) => ({ from, to, mirrored: { from: line.length - to, to: line.length - from } })),
    water: { a: levels('a'), b: levels('b') },
    over: [...over]
      .map(([what, length]) => ({ over: what, studs: length }))
      .sort((p, q) => q.studs - p.studs),
  };
}

const landscape = (length: number) =>
  Array.from({ length: Math.floor(length / PIN_EACH) }, (_, i) => {
    const from = i * PIN_EACH + (PIN_EACH - PIN) / 2;
    return { from, to: from + PIN };
  });

/** Connectors of the street fronts that stand at a seam: counted from the front, on the plots' own sides. */
function streetAlong(
  scene: Scene,
  a: Module,
  b: Module,
  line: GridLine,
): { from: number; to: number }[] | null {
  const places = new Map<number, { from: number; to: number }>();
  for (const plot of listOf(scene, 'plot')) {
    const bounds = plotBounds(plot);
    if (!plot.streetFront || (!intersection(bounds, a) && !intersection(bounds, b))) continue;
    const touches = line.upright
      ? bounds.x === line.x || bounds.x + bounds.w === line.x
      : bounds.y === line.y || bounds.y + bounds.d === line.y;
    const deep = line.upright ? bounds.d : bounds.w;
    const sideways = line.upright === runsEast(plot.front);
    if (!touches || !sideways || deep !== FRONT_DEPTH) continue;
    const start = line.upright ? bounds.y - line.y : bounds.x - line.x;
    // The front edge is the south or east one when the door looks that way.
    const fromEnd = plot.front === 's' || plot.front === 'e';
    for (const { from, to } of CONNECTOR_PLACES) {
      const place = fromEnd
        ? { from: start + deep - to, to: start + deep - from }
        : { from: start + from, to: start + to };
      places.set(place.from, place);
    }
  }
  return places.size === 0 ? null : [...places.values()].sort((p, q) => p.from - q.from);
}

/** The signed contents of a seam sheet. */
export function edgeOf({ neighbours: { line }, studs }: SeamSheet): NonNullable<Seam['agreed']> {
  const side = (which: SeamSide) =>
    studs.map((pair) => pair?.[which] ?? { height: 0, ground: '', exact: false, isWater: false });
  return {
    x: line.x,
    y: line.y,
    upright: line.upright,
    heights: { a: side('a').map(({ height }) => height), b: side('b').map(({ height }) => height) },
    grounds: { a: side('a').map(({ ground }) => ground), b: side('b').map(({ ground }) => ground) },
  };
}

/** One stud that is not as it should be: heights in plates. */
export interface EdgeDifference {
  side: SeamSide;
  /** Studs from the seam's beginning. */
  at: number;
  was: number;
  now: number;
  /** The ground as agreed and as it is, where it differs. */
  ground: { was: string; now: string } | null;
}

/** State of an agreement: unsigned, signed by one side, by both, or outdated by later changes. */
export type SeamState =
  | { state: 'open' }
  | { state: 'half'; side: SeamSide }
  | { state: 'agreed' }
  | { state: 'reopened'; differences: EdgeDifference[]; moved: boolean };

/**
 * Compares what was signed with the plan as it is. Streets, ways and tracks may not differ at all, rough ground by
 * the seam's tolerance; a seam that lies elsewhere now has to be signed again.
 */
export function seamState(seam: Seam | undefined, sheet: SeamSheet): SeamState {
  if (!seam?.agreed || seam.signs.length === 0) return { state: 'open' };
  const { agreed } = seam;
  const { line } = sheet.neighbours;
  const moved =
    agreed.x !== line.x ||
    agreed.y !== line.y ||
    agreed.upright !== line.upright ||
    agreed.heights.a.length !== line.length;
  const differences = moved ? [] : differencesOf(agreed, sheet, seam.tolerance);
  if (moved || differences.length > 0) return { state: 'reopened', differences, moved };
  const sides = new Set(seam.signs.map(({ side }) => side));
  return sides.size === 2 ? { state: 'agreed' } : { state: 'half', side: [...sides][0] };
}

function differencesOf(
  agreed: NonNullable<Seam['agreed']>,
  { studs }: SeamSheet,
  tolerance: number,
): EdgeDifference[] {
  return (['a', 'b'] as const).flatMap((side) =>
    studs.flatMap((pair, at): EdgeDifference[] => {
      const [was, ground] = [agreed.heights[side][at], agreed.grounds[side][at]];
      const now = pair?.[side] ?? { height: 0, ground: '', exact: false };
      const exact = now.exact || isPaved(ground);
      const off = Math.abs(now.height - was) > (exact ? 0 : tolerance);
      const other = ground !== now.ground;
      if (!off && !other) return [];
      return [{ side, at, was, now: now.height, ground: other ? { was: ground, now: now.ground } : null }];
    }),
  );
}

/** A run of studs with the same height error, as one instruction to a builder. */
export interface SeamRemedy {
  side: SeamSide;
  from: number;
  /** The stud after the last. */
  to: number;
  /** Plates to add; negative: to take away. */
  by: number;
  /** In words: “A1, studs 40 to 46: raise by 1 plate”. */
  words: string;
}

/**
 * What stands against what is agreed (or, where nothing is, planned): the list to mend by.
 * Studs without a reading are not evaluated.
 */
export function seamRemedies(seam: Seam, sheet: SeamSheet): SeamRemedy[] {
  const { a, b, line } = sheet.neighbours;
  const wanted = seam.agreed?.heights.a.length === line.length ? seam.agreed : edgeOf(sheet);
  const mends: SeamRemedy[] = [];
  for (const side of ['a', 'b'] as const) {
    const read = new Map(
      seam.readings.filter((one) => one.side === side).map(({ at, height }) => [at, height]),
    );
    for (let at = 0; at < line.length; at++) {
      const height = read.get(at);
      if (height === undefined) continue;
      const by = wanted.heights[side][at] - height;
      const limit = sheet.studs[at]?.[side].exact ? 0 : seam.tolerance;
      if (Math.abs(by) <= limit) continue;
      const last = mends.at(-1);
      if (last?.side === side && last.to === at && last.by === by) last.to++;
      else mends.push({ side, from: at, to: at + 1, by, words: '' });
    }
  }
  return mends.map((mend) => {
    const { side, from, to, by } = mend;
    const where = to - from === 1 ? `stud ${from + 1}` : `studs ${from + 1} to ${to}`;
    const name = (side === 'a' ? a : b).name;
    return {
      ...mend,
      words: `${name}, ${where}: ${by > 0 ? 'raise' : 'lower'} by ${formatPlates(Math.abs(by))}`,
    };
  });
}

/** Differences in a row as one sentence: “studs 12 to 20 of A2: 18 to 24 plates”. */
export function inWords({ a, b }: Neighbours, differences: readonly EdgeDifference[]): string {
  const runs: { side: SeamSide; from: number; to: number; by: number }[] = [];
  for (const { side, at, was, now } of differences) {
    const last = runs.at(-1);
    if (last?.side === side && last.to === at && last.by === now - was) last.to++;
    else runs.push({ side, from: at, to: at + 1, by: now - was });
  }
  const words = runs.slice(0, 3).map(({ side, from, to, by }) => {
    const name = (side === 'a' ? a : b).name;
    const what = by === 0 ? 'other ground' : `${by > 0 ? '+' : '−'}${formatPlates(Math.abs(by))}`;
    return `${name} studs ${from + 1} to ${to} ${what}`;
  });
  return runs.length > 3
    ? `${words.join('; ')} and ${countOf(runs.length - 3, 'place')} more`
    : words.join('; ');
}

/**
 * The change by which one side signs a seam as it is now. A signature under what is no longer so falls away, and so
 * does the other side's.
 */
export function signSeam(seam: Seam | undefined, sheet: SeamSheet, sign: Seam['signs'][number]): Change {
  const { id, a, b } = sheet.neighbours;
  const agreed = edgeOf(sheet);
  if (!seam) return { op: 'add', kind: 'seam', id, data: { a: a.id, b: b.id, agreed, signs: [sign] } };
  const stands = dequal(seam.agreed, agreed);
  const others = stands ? seam.signs.filter(({ side }) => side !== sign.side) : [];
  const set = stands ? { signs: [...others, sign] } : { agreed, signs: [sign] };
  return { op: 'patch', kind: 'seam', id, v: seam.v, set };
}

/**
 * Reads heights measured at a seam: a line each of side, stud and height, parted by commas, semicolons or blanks.
 * The side is the module's name (or a, b), the stud counts from 1, the height is in plates or as people say it (5b1p).
 * A first line of words is taken for a heading.
 * @returns the readings, or a sentence with the line, the value and the limit
 */
export function readReadings(
  text: string,
  { a, b, line }: Neighbours,
): { ok: true; readings: Seam['readings'] } | { ok: false; error: string } {
  const readings: Seam['readings'] = [];
  const lines = text.split(/\r?\n/);
  for (const [i, raw] of lines.entries()) {
    const fields = raw.trim().split(/\s*[,;\t]\s*|\s+/);
    if (fields[0] === '' || (i === 0 && fields.every((field) => !/\d/.test(field)))) continue;
    const where = `Line ${i + 1}, “${raw.trim().slice(0, 40)}”`;
    if (fields.length !== 3)
      return { ok: false, error: `${where}: three values are needed, side, stud and height.` };
    const [name, stud, tall] = fields;
    const side = [a.name.toLowerCase(), 'a'].includes(name.toLowerCase())
      ? 'a'
      : [b.name.toLowerCase(), 'b'].includes(name.toLowerCase())
        ? 'b'
        : null;
    if (!side) return { ok: false, error: `${where}: the side is ${a.name} or ${b.name}.` };
    const at = Number(stud);
    if (!Number.isInteger(at) || at < 1 || at > line.length)
      return { ok: false, error: `${where}: the stud is a whole number from 1 to ${line.length}.` };
    const height = parseLength(tall, 'plate', { min: 0, max: 3000 * PLATE });
    if (!height.ok) return { ok: false, error: `${where}: ${height.error}` };
    if (height.length % PLATE !== 0)
      return { ok: false, error: `${where}: heights are in whole plates, such as 16 or 5b1p.` };
    const index = readings.findIndex((one) => one.side === side && one.at === at - 1);
    if (index >= 0) readings.splice(index, 1);
    readings.push({ side, at: at - 1, height: height.length / PLATE });
  }
  return { ok: true, readings };
}
