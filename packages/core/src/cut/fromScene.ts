import { dequal } from 'dequal/lite';
import { boundsOf, contains, countOf, containsPoint, studsIn, type Rect } from '../grid/index.ts';
import { displayOf, listOf, plotBounds, type Change, type Module, type Scene } from '../document/index.ts';
import { OUTSIDE, compileRelief, indexAt, isLoose, type Relief } from '../terrain/index.ts';
import type { GridLine } from './crossing.ts';
import { basesUnit } from './grid.ts';
import { massTable } from './lifting.ts';
import { namesFor } from './naming.ts';
import { CELL, type Cutting, type CutProblem } from './problem.ts';
import { baseGround, baseGroundOf, maskOf, withRim } from './rim.ts';
import { SEAM_COSTS, seamPieces } from './seamCosts.ts';

/** A scene's cutting problem with where its origin stands in the display, or the sentences that prevent one. */
export type SceneProblem =
  | {
      ok: true;
      problem: CutProblem;
      origin: { x: number; y: number };
      /** What was wished for and cannot be, such as a section border between the bases' steps. */
      remarks: string[];
    }
  | { ok: false; reasons: string[] };

/**
 * States the cutting problem of a scene: its footprint less what is locked as region (of an odd size: what whole cells
 * of the lattice cover, see `baseGround`), its base stock and limits, its plots as keeps (unless they may be cut or
 * stand loose), each possible piece of seam with what it costs there, section borders as seams that must be, and masses
 * as carried.
 * @param relief of the scene; compiled when left out
 */
export function cutProblemOf(scene: Scene, relief: Relief = compileRelief(scene)): SceneProblem {
  const display = displayOf(scene);
  const whole = baseGroundOf(scene);
  if (!whole)
    return { ok: false, reasons: ['The display has no footprint yet: draw one on the Plan first.'] };
  const reasons: string[] = [];
  const { origin } = whole;
  const locked = listOf(scene, 'module').filter((module) => module.locked);
  const types = listOf(scene, 'baseType');
  const [onCells, offCells] = [types.filter(isOnCells), types.filter((type) => !isOnCells(type))];
  if (types.length === 0)
    reasons.push('No base sizes are listed: add the ones you own or can buy on Stockpile.');
  else if (onCells.length === 0)
    reasons.push(
      `None of the bases listed (${sizesOf(types)}) is a multiple of ${CELL} studs each way: list one on Stockpile, or cut by hand, on plates.`,
    );
  const bases = onCells.map(({ w, d, price, stock, max }) => {
    const inLocked = basesOf(locked, { w, d });
    return {
      ...{ w, d, price },
      stock: Math.max(0, stock - inLocked),
      ...(max === null ? {} : { max: Math.max(0, max - inLocked) }),
    };
  });
  const longest = Math.max(display.moduleMaxW, display.moduleMaxD);
  const widest = Math.min(display.moduleMaxW, display.moduleMaxD);
  if (widest < CELL)
    reasons.push(`The largest module is ${longest} × ${widest} studs; the least is ${CELL} × ${CELL}.`);
  if (reasons.length > 0) return { ok: false, reasons };
  const { region } = baseGround(maskOf(listOf(scene, 'footprint'), locked), origin);
  if (region.length === 0)
    return {
      ok: false,
      reasons: [
        locked.length > 0
          ? 'Every module is locked: unlock those that are to be cut again.'
          : `No base of ${CELL} × ${CELL} studs fits in the footprint: cut it by hand, on plates.`,
      ],
    };
  const inside = (cell: Rect) => region.some((part) => contains(part, cell));
  const keep = listOf(scene, 'plot')
    // A plot that leaves the scene is a finding of its own and must not make the cutting impossible.
    .filter((plot) => !plot.mayCut && !isLoose(plot) && isOnScene(relief, studsIn(plotBounds(plot))))
    .flatMap((plot) => {
      const cells = cellsOf(cellsAround(shift(studsIn(plotBounds(plot)), origin))).filter(inside);
      return cells.length === 0 ? [] : [{ ...boundsOf(cells), name: plot.name }];
    })
    .filter((part) => cellsOf(part).every(inside));
  const { lines, pins, remarks } = seamsOf(scene, relief, origin, basesUnit(bases), keep);
  if (whole.rim > 0)
    remarks.unshift(
      `${countOf(whole.rim, 'stud')} at the edges lie on no whole step of ${CELL} studs: ${display.rim === 'plates' ? 'they go with the modules beside them, on plates' : 'they are left bare'}.`,
    );
  if (offCells.length > 0)
    remarks.unshift(`Bases of ${sizesOf(offCells)} are no multiple of ${CELL} studs: they are not laid.`);
  // Room for the rim that a module takes with it, where it would else be too large.
  const limit = (most: number) => {
    const rim = display.rim === 'plates' ? Math.max(whole.wide.x, whole.wide.y) : 0;
    const steps = Math.floor(most / CELL) * CELL;
    return Math.max(CELL, steps + rim > most ? Math.floor((most - rim) / CELL) * CELL : steps);
  };
  return {
    ok: true,
    origin,
    remarks,
    problem: {
      region,
      bases,
      module: {
        maxW: limit(display.moduleMaxW),
        maxD: limit(display.moduleMaxD),
        ...(display.moduleMaxKg === null ? {} : { maxMassKg: display.moduleMaxKg }),
      },
      mass: { cell: CELL, kg: massTable(scene, relief, CELL, origin) },
      keep,
      lines,
      pins,
      weights: { module: display.moduleWeight, seam: display.seamWeight },
    },
  };
}

function isOnScene(relief: Relief, { x, y, w, d }: Rect): boolean {
  for (let row = y; row < y + d; row++)
    for (let column = x; column < x + w; column++) {
      const i = indexAt(relief, column, row);
      if (i < 0 || relief.ground[i] === OUTSIDE) return false;
    }
  return true;
}

const isOnCells = ({ w, d }: { w: number; d: number }) => w % CELL === 0 && d % CELL === 0;
const sizesOf = (types: readonly { w: number; d: number }[]) =>
  types.map(({ w, d }) => `${w} × ${d}`).join(', ');

/** What each possible piece of seam costs, and the section borders that must be seams. */
function seamsOf(
  scene: Scene,
  relief: Relief,
  origin: { x: number; y: number },
  unit: number,
  keep: readonly Rect[],
) {
  const pieces = seamPieces(scene, relief, origin);
  const ends = ({ x, y, upright, length }: GridLine) => ({
    x1: x - origin.x,
    y1: y - origin.y,
    x2: x - origin.x + (upright ? 0 : length),
    y2: y - origin.y + (upright ? length : 0),
  });
  const lines = pieces.map((piece) => ({ ...ends(piece), cost: SEAM_COSTS[piece.over] }));
  const pins: NonNullable<CutProblem['pins']> = [];
  const remarks = new Set<string>();
  const sections = listOf(scene, 'section');
  const sectionAt = (x: number, y: number) => sections.find((section) => containsPoint(section, x, y));
  const borders = displayOf(scene).cutAtSections ? sections : [];
  for (const { x, y, w, d, letter } of borders)
    for (const line of [
      { x, y, upright: true, length: d },
      { x: x + w, y, upright: true, length: d },
      { x, y, upright: false, length: w },
      { x, y: y + d, upright: false, length: w },
    ]) {
      const at = line.upright ? line.x - origin.x : line.y - origin.y;
      if (at <= 0 || at >= (line.upright ? relief.w : relief.d)) continue;
      const other = line.upright
        ? (sectionAt(line.x === x ? line.x - 1 : line.x, line.y) ?? null)
        : (sectionAt(line.x, line.y === y ? line.y - 1 : line.y) ?? null);
      if (!other || other.letter === letter) continue;
      const pair = [letter, other.letter].sort().join(' and ');
      if (at % unit !== 0)
        remarks.add(
          `The border of ${pair} at ${line.upright ? 'x' : 'y'} = ${line.upright ? line.x : line.y} lies between the bases’ steps of ${unit} studs: a module may lie in both.`,
        );
      else
        pins.push(
          ...pieces
            .filter(
              (piece) =>
                piece.upright === line.upright &&
                (line.upright
                  ? piece.x === line.x && piece.y >= line.y && piece.y + piece.length <= line.y + line.length
                  : piece.y === line.y &&
                    piece.x >= line.x &&
                    piece.x + piece.length <= line.x + line.length),
            )
            .map(ends)
            // A building that may not be cut and stands in both sections keeps its module.
            .filter((pin) => !keep.some((part) => cuts(pin, part))),
        );
    }
  const known = new Set<string>();
  return {
    lines,
    remarks: [...remarks],
    pins: pins.filter((pin) => {
      const key = `${pin.x1} ${pin.y1} ${pin.x2} ${pin.y2}`;
      return !known.has(key) && known.add(key);
    }),
  };
}

/** Whether a line runs through the inside of a rectangle. */
function cuts(
  { x1, y1, x2, y2 }: { x1: number; y1: number; x2: number; y2: number },
  { x, y, w, d }: Rect,
): boolean {
  return x1 === x2
    ? x1 > x && x1 < x + w && Math.max(y1, y2) > y && Math.min(y1, y2) < y + d
    : y1 > y && y1 < y + d && Math.max(x1, x2) > x && Math.min(x1, x2) < x + w;
}

/**
 * The changes that put a cutting in place of the modules there are, but for the locked ones; modules that stay as
 * they are stay untouched, and names stay (see `namesFor`).
 */
export function adoptCutting(
  scene: Scene,
  cutting: Pick<Cutting, 'modules'>,
  origin: { x: number; y: number },
): Change[] {
  return setModules(
    scene,
    inDisplay(scene, cutting, origin),
    listOf(scene, 'module').filter(({ locked }) => !locked),
  );
}

/** The modules of a cutting where they lie in the display, with the rim that goes with them. */
export function inDisplay(
  scene: Scene,
  { modules }: Pick<Cutting, 'modules'>,
  origin: { x: number; y: number },
): FreshModule[] {
  const back = { x: -origin.x, y: -origin.y };
  const laid = modules.map((module) => ({
    ...place(shift(module, back)),
    bases: module.bases.map((base) => place(shift(base, back))),
  }));
  const { rim, moduleMaxW, moduleMaxD } = displayOf(scene);
  if (rim === 'bare' || (baseGroundOf(scene)?.rim ?? 0) === 0) return laid;
  const locked = listOf(scene, 'module').filter((module) => module.locked);
  return withRim(laid, maskOf(listOf(scene, 'footprint'), locked), {
    long: Math.max(moduleMaxW, moduleMaxD),
    short: Math.min(moduleMaxW, moduleMaxD),
  });
}

/** A module as it is to be: its place and its bases, in studs of the display. */
export type FreshModule = Rect & { bases: Rect[] };

/** The changes that put fresh modules in place of some of those there are. */
export function setModules(scene: Scene, fresh: readonly FreshModule[], gone: readonly Module[]): Change[] {
  const names = namesFor(gone, fresh);
  const others = new Set(
    listOf(scene, 'module')
      .filter((module) => !gone.includes(module))
      .map(({ name }) => name),
  );
  const changes: Change[] = [];
  const kept = new Set<string>();
  fresh.forEach((module, i) => {
    let { name } = names[i];
    // Others keep theirs: the next number of the row is taken instead.
    const letters = name.replace(/\d+$/, '');
    for (let number = 1; names[i].follows === null && others.has(name); number++)
      name = `${letters}${number}`;
    others.add(name);
    const data = { name, ...place(module), bases: module.bases.map(place) };
    const current = names[i].follows === null ? undefined : scene.module[names[i].follows];
    if (current) {
      kept.add(current.id);
      const { id, v, locked: _locked, ...before } = current;
      if (!dequal(before, data)) changes.push({ op: 'patch', kind: 'module', id, v, set: data });
      return;
    }
    const stem = `module-${name.toLowerCase()}`;
    let id = stem;
    for (let n = 2; scene.module[id]; n++) id = `${stem}-${n}`;
    changes.push({ op: 'add', kind: 'module', id, data });
  });
  for (const { id, v } of gone) if (!kept.has(id)) changes.unshift({ op: 'remove', kind: 'module', id, v });
  return changes;
}

/** How many bases of a size some modules take, whichever way round they lie. */
export const basesOf = (modules: readonly Module[], { w, d }: { w: number; d: number }): number =>
  modules
    .flatMap(({ bases }) => bases)
    .filter((base) => (base.w === w && base.d === d) || (base.w === d && base.d === w)).length;

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
const place = ({ x, y, w, d }: Rect): Rect => ({ x, y, w, d });

/** The cells a shape touches: a seam can cut it only along lines strictly inside them. */
function cellsAround({ x, y, w, d }: Rect): Rect {
  const x0 = Math.floor(x / CELL) * CELL;
  const y0 = Math.floor(y / CELL) * CELL;
  return { x: x0, y: y0, w: Math.ceil((x + w) / CELL) * CELL - x0, d: Math.ceil((y + d) / CELL) * CELL - y0 };
}

/** The cells of a rectangle on the lattice. */
const cellsOf = ({ x, y, w, d }: Rect): Rect[] =>
  Array.from({ length: (w / CELL) * (d / CELL) }, (_, i) => ({
    x: x + (i % (w / CELL)) * CELL,
    y: y + Math.trunc(i / (w / CELL)) * CELL,
    w: CELL,
    d: CELL,
  }));
