import { MM_PER_PLATE, MM_PER_STUD, intersection, type Rect } from '../grid/index.ts';
import { frontSize, listOf, runsEast, type Scene, type Side, type Table } from '../document/index.ts';
import { OUTSIDE, footprintBounds, massOf, studMiddle, type Relief } from '../terrain/index.ts';
import { currentContents, sceneInRoom, tableInStuds } from './frame.ts';

/** A stud that no table carries: its centre and how far its outer edge is from the nearest table top, studs. */
export interface Hanging {
  x: number;
  y: number;
  by: number;
  /** Index of that table, by id order. */
  table: number;
  /** Which way it hangs from that table, by the compass of the plan. */
  side: Side;
}

/** Which table bears each stud of a relief: its index by id order, −1 outside the footprint, and what hangs over. */
interface Bearing {
  table: Int16Array;
  hanging: Hanging[];
}

/**
 * Lays the tables over the studs, and measures only those that lie on none to the nearest table. Of two tables that
 * overlap, the first by id bears.
 */
function bearingOf(scene: Scene, relief: Relief): Bearing {
  const tables = currentContents(scene, 'table').map((table) => tableInStuds(scene, table));
  const table = new Int16Array(relief.ground.length).fill(-1);
  const hanging: Hanging[] = [];
  if (tables.length === 0) return { table, hanging };
  for (let index = tables.length - 1; index >= 0; index--) {
    const { x, y, w, d } = tables[index];
    // A centre on the very edge of a table lies on it.
    const from = Math.max(0, Math.ceil(x - relief.x - 0.5));
    const to = Math.min(relief.w, Math.floor(x + w - relief.x - 0.5) + 1);
    if (from >= to) continue;
    const last = Math.min(relief.d - 1, Math.floor(y + d - relief.y - 0.5));
    for (let row = Math.max(0, Math.ceil(y - relief.y - 0.5)); row <= last; row++)
      table.fill(index, row * relief.w + from, row * relief.w + to);
  }
  for (let i = 0; i < table.length; i++) {
    if (relief.ground[i] === OUTSIDE) {
      table[i] = -1;
      continue;
    }
    if (table[i] >= 0) continue;
    const { x, y } = studMiddle(relief, i);
    const nearest = nearestTable(tables, x, y);
    table[i] = nearest.table;
    hanging.push({ x, y, ...nearest });
  }
  return { table, hanging };
}

/** The studs of the footprint whose centres lie on no table top; none without a table. */
export const hangingStuds = (scene: Scene, relief: Relief): Hanging[] => bearingOf(scene, relief).hanging;

/** The table nearest to a stud's centre, along the longer axis: `by` is 0 on a table, else to the stud's outer edge. */
function nearestTable(tables: readonly Rect[], x: number, y: number): Omit<Hanging, 'x' | 'y'> {
  let [by, nearest] = [Infinity, -1];
  let side: Side = 'n';
  for (let i = 0; i < tables.length && by > 0; i++) {
    const table = tables[i];
    const dx = Math.max(table.x - x, 0, x - table.x - table.w);
    const dy = Math.max(table.y - y, 0, y - table.y - table.d);
    const distance = dx === 0 && dy === 0 ? 0 : Math.max(dx, dy) + 0.5;
    if (distance >= by) continue;
    [by, nearest] = [distance, i];
    side = dx >= dy ? (x < table.x ? 'w' : 'e') : y < table.y ? 'n' : 's';
  }
  return { by, table: nearest, side };
}

/** What stands on one table. */
export interface TableLoad {
  table: Table;
  /** Studs of the scene that it carries, those that hang from it included. */
  studs: number;
  /** Of the ground as counted, else by area densities, kg. */
  kg: number;
}

/** The estimated load of each table: a stud rests on the table under its centre, else on the nearest one. */
export function tableLoads(scene: Scene, relief: Relief): TableLoad[] {
  const loads = currentContents(scene, 'table').map((table): TableLoad => ({ table, studs: 0, kg: 0 }));
  const { grams } = massOf(scene, relief);
  const { table } = bearingOf(scene, relief);
  for (let i = 0; i < grams.length; i++) {
    if (table[i] < 0) continue;
    loads[table[i]].studs++;
    loads[table[i]].kg += grams[i] / 1000;
  }
  return loads;
}

/** Tables farther apart than this are not bridged but two places, mm. */
const WIDEST_GAP = 400;

/** A joint between two tables that the scene lies across. */
export interface TableJoint {
  a: Table;
  b: Table;
  /** Clear gap between the tops, mm; 0: they touch. */
  gap: number;
  /** How long the joint is under the scene, mm. */
  length: number;
  /** Height of a less that of b, mm, and the shim under the lower one: whole plates and what is left over, mm. */
  step: number;
  shim: { plates: number; rest: number; under: Table };
  /** Middle of the joint, mm in the room. */
  at: { x: number; y: number };
}

/** The joints the scene lies across, the widest step first. */
export function tableJoints(scene: Scene): TableJoint[] {
  const tables = currentContents(scene, 'table');
  const parts = sceneInRoom(scene);
  const joints: TableJoint[] = [];
  for (const [i, a] of tables.entries())
    for (const b of tables.slice(i + 1)) {
      const strip = stripBetween(a, b);
      if (!strip) continue;
      const { rect, gap, along } = strip;
      // A joint without width is widened by a hair, so that it has an area to share with the scene.
      const under = parts.map((part) => intersection(part, rect)).filter((shared) => shared !== null);
      const length = under.reduce((sum, shared) => sum + (along === 'x' ? shared.w : shared.d), 0);
      if (length < MM_PER_STUD) continue;
      const step = a.height - b.height;
      const plates = Math.floor((Math.abs(step) + 1e-9) / MM_PER_PLATE);
      joints.push({
        a,
        b,
        gap,
        length,
        step,
        shim: { plates, rest: Math.abs(step) - plates * MM_PER_PLATE, under: step < 0 ? a : b },
        at: { x: rect.x + rect.w / 2, y: rect.y + rect.d / 2 },
      });
    }
  return joints.sort((p, q) => Math.abs(q.step) - Math.abs(p.step) || q.gap - p.gap);
}

/** The strip between two tables that face each other closely, or null. */
function stripBetween(
  a: Rect<'mm'>,
  b: Rect<'mm'>,
): { rect: Rect<'mm'>; gap: number; along: 'x' | 'y' } | null {
  const shared = (p: number, pl: number, q: number, ql: number) =>
    [Math.max(p, q), Math.min(p + pl, q + ql)] as const;
  const [x0, x1] = shared(a.x, a.w, b.x, b.w);
  const [y0, y1] = shared(a.y, a.d, b.y, b.d);
  const [gapX, gapY] = [x0 - x1, y0 - y1];
  if (gapX >= 0 && gapX <= WIDEST_GAP && y1 > y0)
    return { rect: { x: x1 - 0.5, y: y0, w: gapX + 1, d: y1 - y0 }, gap: gapX, along: 'y' };
  if (gapY >= 0 && gapY <= WIDEST_GAP && x1 > x0)
    return { rect: { x: x0, y: y1 - 0.5, w: x1 - x0, d: gapY + 1 }, gap: gapY, along: 'x' };
  return null;
}

/** The gaps between the leaves of a table, mm in the room: equal leaves along its longer side. */
export function leafGaps({ x, y, w, d, leaves, leafGap }: Table): Rect<'mm'>[] {
  if (leaves < 2 || leafGap <= 0) return [];
  const across = w >= d;
  const leaf = ((across ? w : d) - (leaves - 1) * leafGap) / leaves;
  return Array.from({ length: leaves - 1 }, (_, i) => {
    const from = (i + 1) * leaf + i * leafGap;
    return across ? { x: x + from, y, w: leafGap, d } : { x, y: y + from, w, d: leafGap };
  });
}

/** How a scene stands, in one look. */
export interface Support {
  /** Studs of the footprint, and those whose centres lie on a table. */
  studs: number;
  carried: number;
  /** The widest overhang on each side of the plan, studs; 0: none. */
  overhang: Record<Side, number>;
}

export function supportOf(relief: Relief, hanging: readonly Hanging[]): Support {
  let studs = 0;
  for (const ground of relief.ground) if (ground !== OUTSIDE) studs++;
  const overhang: Record<Side, number> = { n: 0, e: 0, s: 0, w: 0 };
  for (const { by, side } of hanging) overhang[side] = Math.max(overhang[side], by);
  return { studs, carried: studs - hanging.length, overhang };
}

/** Length of the street along all street fronts, studs: each counts with the side of its street door. */
export const streetFrontLength = (scene: Pick<Scene, 'plot'>): number =>
  listOf(scene, 'plot').reduce((sum, plot) => sum + (plot.streetFront ? frontSize(plot).wide : 0), 0);

/** Steps in which ground grows, studs: the smallest base. */
const GROW_STEP = 8;
const GROW_MOST = 480;

/**
 * How far the scene could grow over each of its sides before it leaves the tables as they stand, studs in steps of 8:
 * a strip along the whole side whose every stud has its centre on a table.
 */
export function roomToGrow(scene: Scene): Record<Side, number> {
  const bounds = footprintBounds(scene);
  const room: Record<Side, number> = { n: 0, e: 0, s: 0, w: 0 };
  if (!bounds) return room;
  const tables = currentContents(scene, 'table').map((table) => tableInStuds(scene, table));
  const carried = (x: number, y: number) => nearestTable(tables, x, y).by === 0;
  const { x, y, w, d } = bounds;
  for (const side of ['n', 'e', 's', 'w'] as const) {
    const lines = runsEast(side) ? w : d;
    const stud = (along: number, out: number): boolean => {
      if (side === 'n') return carried(x + along + 0.5, y - out - 0.5);
      if (side === 's') return carried(x + along + 0.5, y + d + out + 0.5);
      return side === 'w'
        ? carried(x - out - 0.5, y + along + 0.5)
        : carried(x + w + out + 0.5, y + along + 0.5);
    };
    const row = (out: number) => Array.from({ length: lines }, (_, i) => i).every((i) => stud(i, out));
    let out = 0;
    while (out < GROW_MOST && row(out)) out++;
    room[side] = out - (out % GROW_STEP);
  }
  return room;
}
