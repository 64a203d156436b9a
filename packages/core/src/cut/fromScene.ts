import { studsOf, type Rect } from '../lattice/index.ts';
import { displayOf, listOf, plotBounds, type Change, type Scene } from '../scene/index.ts';
import { footprintBounds } from '../relief/index.ts';
import { CELL, type CutBase, type Cutting, type CutProblem } from './problem.ts';

/** Extra seam cost a stud across water: it is seen there and hard to close (a default of ours, no source). */
const WATER_SEAM = 2;

/** A scene's cutting problem with where its origin stands in the display, or the sentences that prevent one. */
export type SceneProblem =
  { ok: true; problem: CutProblem; origin: { x: number; y: number } } | { ok: false; reasons: string[] };

/**
 * States the cutting problem of a scene: its footprint as region, its base stock and limits, its plots as keeps
 * (unless they may be cut), seams across water dearer. The lattice of 8 starts at the footprint's corner.
 */
export function cutProblemOf(scene: Scene): SceneProblem {
  const display = displayOf(scene);
  const bounds = footprintBounds(scene);
  if (!bounds)
    return { ok: false, reasons: ['The display has no footprint yet: draw one on the Plan first.'] };
  const reasons: string[] = [];
  const origin = { x: bounds.x, y: bounds.y };
  const region = listOf(scene, 'footprint').map((part) => {
    const { x, y, w, d } = shift(part, origin);
    const odd = [x, y, w, d].find((value) => value % CELL !== 0);
    if (odd !== undefined)
      reasons.push(
        `Footprint part «${part.name}» (${part.w} × ${part.d} studs at ${part.x},${part.y}) does not stand on steps of ${CELL} studs from the footprint's corner: ${odd} studs is no multiple of ${CELL}, the smallest base.`,
      );
    return { x, y, w, d };
  });
  const types = listOf(scene, 'baseType');
  if (types.length === 0)
    reasons.push('No base sizes are listed: add the ones you own or can buy on Stockpile.');
  const bases = types.map(({ w, d, price, stock, max }) => {
    if (w % CELL !== 0 || d % CELL !== 0)
      reasons.push(`The base ${w} × ${d} is no multiple of ${CELL} studs.`);
    return { w, d, price, stock, ...(max === null ? {} : { max }) };
  });
  const longest = Math.max(display.moduleMaxW, display.moduleMaxD);
  const widest = Math.min(display.moduleMaxW, display.moduleMaxD);
  if (widest < CELL)
    reasons.push(`The largest module is ${longest} × ${widest} studs; the least is ${CELL} × ${CELL}.`);
  if (reasons.length > 0) return { ok: false, reasons };

  const inside = (cell: Rect) =>
    region.some(
      (part) =>
        cell.x >= part.x &&
        cell.y >= part.y &&
        cell.x + cell.w <= part.x + part.w &&
        cell.y + cell.d <= part.y + part.d,
    );
  const keep = listOf(scene, 'plot')
    .filter((plot) => !plot.mayCut)
    .map((plot) => ({ ...cellsAround(shift(studsOf(plotBounds(plot)), origin)), name: plot.name }))
    // A plot that leaves the scene is a finding of its own and must not make the cutting impossible.
    .filter((part) => everyCell(part, inside));
  const waters = [
    ...listOf(scene, 'water'),
    ...listOf(scene, 'pad').filter(({ ground }) => ground === 'water'),
  ];
  const seamCost = waters.map((water) => ({
    ...cellsAround(shift(studsOf(water), origin)),
    cost: WATER_SEAM,
  }));
  return {
    ok: true,
    origin,
    problem: {
      region,
      bases,
      module: { maxW: Math.max(CELL, display.moduleMaxW), maxD: Math.max(CELL, display.moduleMaxD) },
      keep,
      seamCost,
      weights: { module: display.moduleWeight, seam: display.seamWeight },
    },
  };
}

/** The changes that put a cutting in place of the modules there are; modules that stay as they are stay untouched. */
export function adoptCutting(scene: Scene, cutting: Cutting, origin: { x: number; y: number }): Change[] {
  const back = { x: -origin.x, y: -origin.y };
  const changes: Change[] = [];
  const kept = new Set<string>();
  for (const module of cutting.modules) {
    const id = `module-${module.id.toLowerCase()}`;
    kept.add(id);
    const data = {
      name: module.id,
      ...place(shift(module, back)),
      bases: module.bases.map((base) => place(shift(base, back))),
    };
    const current = scene.module[id];
    if (!current) changes.push({ op: 'add', kind: 'module', id, data });
    else {
      const { id: _id, v, ...before } = current;
      if (JSON.stringify(before) !== JSON.stringify(data))
        changes.push({ op: 'patch', kind: 'module', id, v, set: data });
    }
  }
  for (const { id, v } of listOf(scene, 'module'))
    if (!kept.has(id)) changes.unshift({ op: 'remove', kind: 'module', id, v });
  return changes;
}

/** What one base size is needed for, against what is owned. */
export interface BaseNeed {
  /** Id of the base size, or null for a size that is not on the list. */
  id: string | null;
  w: number;
  d: number;
  needed: number;
  owned: number;
  short: number;
  price: number;
  /** short × price; 0 when the size has no price. */
  cost: number;
  /** How many each module takes, by module name. */
  modules: { name: string; count: number }[];
}

/** A size of which nothing is known yet, the longer side first. */
const blankNeed = ({ w, d }: { w: number; d: number }): BaseNeed => ({
  id: null,
  w: Math.max(w, d),
  d: Math.min(w, d),
  needed: 0,
  owned: 0,
  short: 0,
  price: 0,
  cost: 0,
  modules: [],
});

/** Counts the bases of all modules by size, whichever way round they lie, against the stock. */
export function baseNeeds(scene: Scene): BaseNeed[] {
  const needs = new Map<string, BaseNeed>();
  const key = ({ w, d }: { w: number; d: number }) => `${Math.max(w, d)}×${Math.min(w, d)}`;
  for (const { id, w, d, price, stock } of listOf(scene, 'baseType')) {
    const before = needs.get(key({ w, d }));
    if (before) before.owned += stock;
    else needs.set(key({ w, d }), { ...blankNeed({ w, d }), id, owned: stock, price });
  }
  for (const module of listOf(scene, 'module'))
    for (const base of module.bases) {
      const need = needs.get(key(base)) ?? blankNeed(base);
      needs.set(key(base), need);
      need.needed++;
      const line = need.modules.find(({ name }) => name === module.name);
      if (line) line.count++;
      else need.modules.push({ name: module.name, count: 1 });
    }
  for (const need of needs.values()) {
    need.short = Math.max(0, need.needed - need.owned);
    need.cost = need.short * need.price;
  }
  return [...needs.values()].sort((a, b) => b.w * b.d - a.w * a.d);
}

const shift = <R extends Rect>(rect: R, by: { x: number; y: number }): R => ({
  ...rect,
  x: rect.x - by.x,
  y: rect.y - by.y,
});
const place = ({ x, y, w, d }: CutBase): CutBase => ({ x, y, w, d });

/** The cells a shape touches: a seam can cut it only along lines strictly inside them. */
function cellsAround({ x, y, w, d }: Rect): Rect {
  const x0 = Math.floor(x / CELL) * CELL;
  const y0 = Math.floor(y / CELL) * CELL;
  return { x: x0, y: y0, w: Math.ceil((x + w) / CELL) * CELL - x0, d: Math.ceil((y + d) / CELL) * CELL - y0 };
}

function everyCell({ x, y, w, d }: Rect, test: (cell: Rect) => boolean): boolean {
  for (let row = y; row < y + d; row += CELL)
    for (let column = x; column < x + w; column += CELL)
      if (!test({ x: column, y: row, w: CELL, d: CELL })) return false;
  return true;
}
