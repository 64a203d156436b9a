import { partId } from '../catalogue/index.ts';
import { intersection, type Rect } from '../grid/index.ts';
import { PLATES, priceOfLines, tileLayer } from '../masonry/index.ts';
import { runsEast, listOf, type Module, type Scene } from '../document/index.ts';
import { CELL } from './problem.ts';

// Ground that bases cannot cover: bases come in steps of 8 studs, footprints do not. What is left beside them is a rim.

/** The part of a footprint on which bases can lie, as whole cells from the best corner, and what is left of it. */
export interface BaseGround {
  /** Where the lattice of bases begins, studs of the display. */
  origin: { x: number; y: number };
  /** Rectangles of whole cells, studs from the origin. */
  region: Rect[];
  /** Studs of the footprint that no cell covers. */
  rim: number;
  /** The widest strip of rim along the west or east, and along the north or south, studs. */
  wide: { x: number; y: number };
}

/** A footprint as a raster of studs. */
interface Mask extends Rect {
  inside: Uint8Array;
}

/** The studs of some rectangles, less those of others. */
export function maskOf(parts: readonly Rect[], gone: readonly Rect[] = []): Mask {
  const x = Math.min(...parts.map((part) => part.x));
  const y = Math.min(...parts.map((part) => part.y));
  const w = Math.max(...parts.map((part) => part.x + part.w)) - x;
  const d = Math.max(...parts.map((part) => part.y + part.d)) - y;
  const inside = new Uint8Array(w * d);
  const fill = (part: Rect, value: number) => {
    const on = intersection(part, { x, y, w, d });
    if (!on) return;
    for (let row = on.y - y; row < on.y - y + on.d; row++)
      inside.fill(value, row * w + on.x - x, row * w + on.x - x + on.w);
  };
  for (const part of parts) fill(part, 1);
  for (const part of gone) fill(part, 0);
  return { x, y, w, d, inside };
}

/**
 * Lays the lattice of 8 studs so that as much ground as can be lies in whole cells; of equal ones the lattice that
 * begins farthest to the north and west.
 * @param from where the lattice begins, when that is known already, studs of the display
 */
export function baseGround(mask: Mask, from?: { x: number; y: number }): BaseGround {
  const { x, y, w, d, inside } = mask;
  const stride = w + 1;
  const sums = new Int32Array(stride * (d + 1));
  for (let row = 0; row < d; row++)
    for (let column = 0; column < w; column++)
      sums[(row + 1) * stride + column + 1] =
        inside[row * w + column] +
        sums[row * stride + column + 1] +
        sums[(row + 1) * stride + column] -
        sums[row * stride + column];
  const isFull = (column: number, row: number) =>
    sums[(row + CELL) * stride + column + CELL] -
      sums[row * stride + column + CELL] -
      sums[(row + CELL) * stride + column] +
      sums[row * stride + column] ===
    CELL * CELL;
  const cellsAt = (ox: number, oy: number) => {
    const cells: { x: number; y: number }[] = [];
    for (let row = oy; row + CELL <= d; row += CELL)
      for (let column = ox; column + CELL <= w; column += CELL)
        if (isFull(column, row)) cells.push({ x: column, y: row });
    return cells;
  };
  const start = (at: number, corner: number) => (((at - corner) % CELL) + CELL) % CELL;
  const [fx, fy] = from ? [start(from.x, x), start(from.y, y)] : [0, 0];
  let best = { ox: fx, oy: fy, cells: cellsAt(fx, fy) };
  const studs = sums[stride * (d + 1) - 1];
  for (let oy = 0; oy < CELL; oy++)
    for (let ox = 0; !from && ox < CELL && best.cells.length * CELL * CELL < studs; ox++) {
      const cells = cellsAt(ox, oy);
      if (cells.length > best.cells.length) best = { ox, oy, cells };
    }
  const origin = { x: x + best.ox, y: y + best.oy };
  const region = merged(
    best.cells.map((cell) => ({ x: cell.x - best.ox, y: cell.y - best.oy, w: CELL, d: CELL })),
  );
  const rim = studs - best.cells.length * CELL * CELL;
  const strip = (size: number, from: number) => Math.max(from, (size - from) % CELL);
  return {
    origin,
    region,
    rim,
    wide: rim === 0 ? { x: 0, y: 0 } : { x: strip(w, best.ox), y: strip(d, best.oy) },
  };
}

/** The ground for bases of a scene's whole footprint; null without one. */
export function baseGroundOf(scene: Scene): BaseGround | null {
  let ground = grounds.get(scene.footprint);
  if (ground === undefined) {
    const parts = listOf(scene, 'footprint');
    ground = parts.length > 0 ? baseGround(maskOf(parts)) : null;
    grounds.set(scene.footprint, ground);
  }
  return ground;
}
/** A scene that keeps its footprint keeps its ground for bases. */
const grounds = new WeakMap<object, BaseGround | null>();

/** Cells as few rectangles: runs of a row, then equal runs under one another. */
function merged(cells: readonly Rect[]): Rect[] {
  const runs: Rect[] = [];
  for (const cell of [...cells].sort((a, b) => a.y - b.y || a.x - b.x)) {
    const last = runs[runs.length - 1];
    if (last && last.y === cell.y && last.x + last.w === cell.x) last.w += cell.w;
    else runs.push({ ...cell });
  }
  const whole: Rect[] = [];
  for (const run of runs) {
    const above = whole.find((one) => one.x === run.x && one.w === run.w && one.y + one.d === run.y);
    if (above) above.d += run.d;
    else whole.push(run);
  }
  return whole;
}

/**
 * Modules taken out to the edge of the footprint: each side of each module grows over what no other has, as far as the
 * whole strip is ground and the module keeps within its limits. What then still is in no module becomes modules of
 * plates alone, in strips.
 * @param modules as cut, in studs of the display
 */
export function withRim<M extends Rect & { bases: Rect[] }>(
  modules: readonly M[],
  mask: Mask,
  limits: { long: number; short: number },
): (Rect & { bases: Rect[] })[] {
  const free = mask.inside.slice();
  const at = (x: number, y: number) => (y - mask.y) * mask.w + x - mask.x;
  const isFree = ({ x, y, w, d }: Rect) => {
    if (x < mask.x || y < mask.y || x + w > mask.x + mask.w || y + d > mask.y + mask.d) return false;
    for (let row = y; row < y + d; row++)
      for (let column = x; column < x + w; column++) if (!free[at(column, row)]) return false;
    return true;
  };
  const take = ({ x, y, w, d }: Rect) => {
    for (let row = y; row < y + d; row++) free.fill(0, at(x, row), at(x, row) + w);
  };
  const fits = ({ w, d }: Rect) => Math.max(w, d) <= limits.long && Math.min(w, d) <= limits.short;
  for (const module of modules) take(module);
  const grown = modules.map(({ x, y, w, d, bases }) => ({ x, y, w, d, bases }));
  for (const module of grown)
    for (const side of ['e', 'w', 's', 'n'] as const)
      for (let more = 1; more < CELL; more++) {
        const { x, y, w, d } = module;
        const strip: Rect = {
          e: { x: x + w, y, w: 1, d },
          w: { x: x - 1, y, w: 1, d },
          s: { x, y: y + d, w, d: 1 },
          n: { x, y: y - 1, w, d: 1 },
        }[side];
        const next = {
          ...{ x: Math.min(x, strip.x), y: Math.min(y, strip.y) },
          w: side === 'e' || side === 'w' ? w + 1 : w,
          d: runsEast(side) ? d + 1 : d,
        };
        if (!isFree(strip) || !fits(next)) break;
        take(strip);
        Object.assign(module, next);
      }
  const strips: Rect[] = [];
  for (let row = mask.y; row < mask.y + mask.d; row++)
    for (let column = mask.x; column < mask.x + mask.w; column++) {
      if (!free[at(column, row)]) continue;
      const strip = { x: column, y: row, w: 1, d: 1 };
      const grows = (next: Rect) => fits(next) && isFree(next) && Object.assign(strip, next);
      while (grows({ ...strip, w: strip.w + 1 }));
      while (grows({ ...strip, d: strip.d + 1 }));
      take(strip);
      strips.push(strip);
    }
  return [...grown, ...strips.map((strip) => ({ ...strip, bases: [] }))];
}

/** What lies beside the bases of a module, in plates: each piece once, with what they cost at least guessed. */
export interface ModuleRim {
  module: Module;
  studs: number;
  pieces: { part: string; qty: number }[];
  /** By known prices and guesses, in the display's money. */
  cost: number;
}

/** The rims of all modules that have one, laid with the fewest plates. */
export function rimsOf(scene: Scene): ModuleRim[] {
  return listOf(scene, 'module').flatMap((module): ModuleRim[] => {
    const known = rims.get(module);
    if (known !== undefined) return known ? [{ ...known, cost: costOf(scene, known.pieces) }] : [];
    const { inside, w, d } = maskOf([module], module.bases);
    const studs = inside.reduce((sum, on) => sum + on, 0);
    const counts = new Map<string, number>();
    if (studs > 0) {
      const laid = tileLayer(inside, w, d, PLATES);
      for (let i = 0; i < laid.length; i += 4) {
        const part = partId('plate', laid[i + 2], laid[i + 3]);
        counts.set(part, (counts.get(part) ?? 0) + 1);
      }
    }
    const pieces = [...counts].map(([part, qty]) => ({ part, qty }));
    rims.set(module, studs > 0 ? { module, studs, pieces, cost: 0 } : null);
    return studs > 0 ? [{ module, studs, pieces, cost: costOf(scene, pieces) }] : [];
  });
}
/** Modules never change, so that each rim is laid once. */
const rims = new WeakMap<Module, ModuleRim | null>();

const costOf = (scene: Scene, pieces: ModuleRim['pieces']) => priceOfLines(pieces, scene.partType);
