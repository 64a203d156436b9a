import { intersection, type Rect } from '../grid/index.ts';
import { isLoose } from '../terrain/index.ts';
import { displayOf, listOf, plotBounds, type Change, type Module, type Scene } from '../document/index.ts';
import { basesOf, setModules, type FreshModule } from './fromScene.ts';
import { chooseTilings } from './partition.ts';
import { CELL, type CutProblem } from './problem.ts';
import { baseGroundOf } from './rim.ts';
import { neighboursOf, type Neighbours } from './seams.ts';
import { TilingBook, placed } from './tilings.ts';

/** What a cut by hand comes to: changes that can be made, or a sentence why not. */
export type ByHand = { ok: true; changes: Change[]; words: string } | { ok: false; error: string };

/** A straight cut along the stud grid: at x (upright) or at y, over the modules it is drawn across. */
export interface Knife {
  upright: boolean;
  at: number;
  /** From and to along the line, studs. */
  from: number;
  to: number;
}

/**
 * The cut that a line drawn by hand means: straight along the grid the way it mostly runs, on the nearest step of the
 * bases from the footprint's corner, its ends taken out to the next steps.
 */
export function knifeAlong(
  { a, b }: { a: { x: number; y: number }; b: { x: number; y: number } },
  unit: number,
  corner: { x: number; y: number },
): Knife {
  const upright = Math.abs(b.x - a.x) < Math.abs(b.y - a.y);
  const [across, along] = upright ? (['x', 'y'] as const) : (['y', 'x'] as const);
  const step = (value: number, from: number, round: (n: number) => number) =>
    from + round((value - from) / unit) * unit;
  return {
    upright,
    at: step((a[across] + b[across]) / 2, corner[across], Math.round),
    from: step(Math.min(a[along], b[along]), corner[along], Math.floor),
    to: step(Math.max(a[along], b[along]), corner[along], Math.ceil),
  };
}

/** An act by hand, as a page asks for it; seams by their id (see `neighboursOf`). */
export type HandAct =
  | { act: 'split'; knife: Knife }
  | { act: 'glue'; seam: string }
  | { act: 'shift'; seam: string; by: number }
  /** Where nothing is cut yet: the footprint in as few modules of the largest size as make it up. */
  | { act: 'begin' };

/** What an act comes to. */
export function byHand(scene: Scene, act: HandAct): ByHand {
  if (act.act === 'split') return split(scene, act.knife);
  if (act.act === 'begin') return begin(scene);
  const pair = neighboursOf(scene).find(({ id }) => id === act.seam);
  if (!pair) return { ok: false, error: 'That seam is no longer there.' };
  return act.act === 'glue' ? glue(scene, pair.a, pair.b) : shiftSeam(scene, pair, act.by);
}

/** Parts every module that a line runs through from side to side. */
export function split(scene: Scene, { upright, at, from, to }: Knife): ByHand {
  const across = listOf(scene, 'module').filter(({ x, y, w, d }) => {
    const [start, length] = upright ? [x, w] : [y, d];
    const [side, along] = upright ? [y, d] : [x, w];
    return at > start && at < start + length && from <= side && to >= side + along;
  });
  if (across.length === 0)
    return {
      ok: false,
      error: 'The line runs through no module from side to side: begin and end it at seams.',
    };
  const locked = across.find((module) => module.locked);
  if (locked) return { ok: false, error: `Module ${locked.name} is locked; unlock it to cut it.` };
  const parts = across.flatMap(({ x, y, w, d }): Rect[] =>
    upright
      ? [
          { x, y, w: at - x, d },
          { x: at, y, w: x + w - at, d },
        ]
      : [
          { x, y, w, d: at - y },
          { x, y: at, w, d: y + d - at },
        ],
  );
  return recut(
    scene,
    across,
    parts,
    `split ${across.map(({ name }) => name).join(', ')} at ${upright ? 'x' : 'y'} = ${at}`,
  );
}

/** Parts each part of the footprint evenly into modules no larger than agreed, on whole steps of the bases where they fit. */
function begin(scene: Scene): ByHand {
  const { moduleMaxW, moduleMaxD } = displayOf(scene);
  const [long, short] = [Math.max(moduleMaxW, moduleMaxD), Math.min(moduleMaxW, moduleMaxD)];
  const parts = listOf(scene, 'footprint').reduce<Rect[]>(
    (all, part) => [
      ...all,
      ...all.reduce<Rect[]>((left, other) => left.flatMap((one) => less(one, other)), [part]),
    ],
    [],
  );
  if (parts.length === 0)
    return { ok: false, error: 'The display has no footprint yet: draw one on the Plan first.' };
  const steps = (from: number, size: number, most: number) => {
    const count = Math.ceil(size / most);
    const step = Math.min(most, Math.ceil(size / count / CELL) * CELL);
    return Array.from({ length: Math.ceil(size / step) }, (_, i) => ({
      from: from + i * step,
      size: Math.min(step, size - i * step),
    }));
  };
  const modules = parts.flatMap(({ x, y, w, d }) => {
    const [across, down] = w >= d ? [long, short] : [short, long];
    return steps(y, d, down).flatMap((row) =>
      steps(x, w, across).map((column) => ({ x: column.from, y: row.from, w: column.size, d: row.size })),
    );
  });
  return recut(scene, [], modules, 'cut the footprint evenly');
}

/** A rectangle less another, in strips. */
function less(part: Rect, hole: Rect): Rect[] {
  const shared = intersection(part, hole);
  if (!shared) return [part];
  const south = shared.y + shared.d;
  return [
    { x: part.x, y: part.y, w: part.w, d: shared.y - part.y },
    { x: part.x, y: south, w: part.w, d: part.y + part.d - south },
    { x: part.x, y: shared.y, w: shared.x - part.x, d: shared.d },
    { x: shared.x + shared.w, y: shared.y, w: part.x + part.w - shared.x - shared.w, d: shared.d },
  ].filter(({ w, d }) => w > 0 && d > 0);
}

/** Makes one module of two. */
export function glue(scene: Scene, a: Module, b: Module): ByHand {
  const locked = [a, b].find((module) => module.locked);
  if (locked) return { ok: false, error: `Module ${locked.name} is locked; unlock it to join it.` };
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  const whole = { x, y, w: Math.max(a.x + a.w, b.x + b.w) - x, d: Math.max(a.y + a.d, b.y + b.d) - y };
  if (whole.w * whole.d !== a.w * a.d + b.w * b.d)
    return { ok: false, error: `${a.name} and ${b.name} make no rectangle together: a module is one.` };
  const { moduleMaxW, moduleMaxD } = displayOf(scene);
  const fits =
    (whole.w <= moduleMaxW && whole.d <= moduleMaxD) || (whole.d <= moduleMaxW && whole.w <= moduleMaxD);
  if (!fits)
    return {
      ok: false,
      error: `${a.name} and ${b.name} together are ${whole.w} × ${whole.d} studs; the largest module agreed is ${moduleMaxW} × ${moduleMaxD}.`,
    };
  return recut(scene, [a, b], [whole], `joined ${a.name} and ${b.name}`);
}

/** Moves the seam between two modules east or south by so many studs (west or north when negative). */
export function shiftSeam(scene: Scene, { a, b, line }: Neighbours, by: number): ByHand {
  const locked = [a, b].find((module) => module.locked);
  if (locked) return { ok: false, error: `Module ${locked.name} is locked; unlock it to move its seam.` };
  const whole = line.upright
    ? a.y === b.y && a.d === b.d && line.length === a.d
    : a.x === b.x && a.w === b.w && line.length === a.w;
  if (!whole)
    return {
      ok: false,
      error: `The seam of ${a.name} and ${b.name} is not a whole side of both: moved, it would leave no rectangles.`,
    };
  const parts: Rect[] = line.upright
    ? [
        { x: a.x, y: a.y, w: a.w + by, d: a.d },
        { x: b.x + by, y: b.y, w: b.w - by, d: b.d },
      ]
    : [
        { x: a.x, y: a.y, w: a.w, d: a.d + by },
        { x: b.x, y: b.y + by, w: b.w, d: b.d - by },
      ];
  const gone = parts.findIndex(({ w, d }) => w <= 0 || d <= 0);
  if (gone >= 0) return { ok: false, error: `Nothing would be left of ${[a, b][gone].name}.` };
  return recut(scene, [a, b], parts, `moved the seam of ${a.name} and ${b.name} by ${by} studs`);
}

/**
 * Puts rectangles in place of modules, each on bases chosen with the stock the others leave. What the bases listed
 * cannot cover of a rectangle stays beside them as its rim.
 */
function recut(scene: Scene, gone: readonly Module[], parts: readonly Rect[], words: string): ByHand {
  const bases: CutProblem['bases'] = listOf(scene, 'baseType')
    .filter(({ w, d }) => w % CELL === 0 && d % CELL === 0)
    .map(({ w, d, price, stock, max }) => ({ ...{ w, d, price, stock }, ...(max === null ? {} : { max }) }));
  const cut = listOf(scene, 'plot').find((plot) => {
    const on = (rects: readonly Rect[]) =>
      rects.filter((rect) => intersection(rect, plotBounds(plot))).length;
    return !plot.mayCut && !isLoose(plot) && on(parts) > Math.max(1, on(gone));
  });
  if (cut) return { ok: false, error: `The line runs through “${cut.name}”, which may not be cut.` };
  const origin = baseGroundOf(scene)?.origin ?? { x: 0, y: 0 };
  const problem: CutProblem = {
    region: [...parts],
    bases,
    module: { maxW: 4096, maxD: 4096 },
    weights: { module: 0, seam: 0 },
  };
  const book = bases.length > 0 ? new TilingBook(problem) : null;
  const laid = parts.map((part) => (book ? groundIn(part, origin, book) : null));
  const onBases = laid.flatMap((ground, i) => (ground ? [{ i, ground }] : []));
  const cells = onBases.map(({ ground }) => ({ x0: 0, y0: 0, x1: ground.w / CELL, y1: ground.d / CELL }));
  const others = listOf(scene, 'module').filter((module) => !gone.includes(module));
  const elsewhere = bases.map((base) => basesOf(others, base));
  const tilings = book && cells.length > 0 ? chooseTilings({ problem }, book, cells, elsewhere) : [];
  if (!tilings)
    return { ok: false, error: 'That would take more bases than can be had: see their most on Stockpile.' };
  const fresh = parts.map((part): FreshModule => ({ ...part, bases: [] }));
  onBases.forEach(({ i, ground }, k) => {
    fresh[i].bases = placed(tilings[k], cells[k].x1, cells[k].y1).map((piece) => ({
      x: ground.x + piece.x * CELL,
      y: ground.y + piece.y * CELL,
      w: piece.w * CELL,
      d: piece.d * CELL,
    }));
  });
  return { ok: true, changes: setModules(scene, fresh, gone), words };
}

/** The largest part of a rectangle, on the lattice, that the bases listed can lay; null when that is none. */
function groundIn(part: Rect, origin: { x: number; y: number }, book: TilingBook): Rect | null {
  const up = (value: number, from: number) => from + Math.ceil((value - from) / CELL) * CELL;
  const down = (value: number, from: number) => from + Math.floor((value - from) / CELL) * CELL;
  // On the lattice where that loses nothing, else from the rectangle's own corner.
  const start = (at: number, size: number, from: number) =>
    down(at + size, from) - up(at, from) >= Math.floor(size / CELL) * CELL ? up(at, from) : at;
  const [x, y] = [start(part.x, part.w, origin.x), start(part.y, part.d, origin.y)];
  const columns = Math.floor((part.x + part.w - x) / CELL);
  const rows = Math.floor((part.y + part.d - y) / CELL);
  const sizes: { w: number; d: number }[] = [];
  for (let w = columns; w > 0; w--) for (let d = rows; d > 0; d--) sizes.push({ w, d });
  sizes.sort((a, b) => b.w * b.d - a.w * a.d);
  const best = sizes.find(({ w, d }) => book.of(w, d).list.length > 0);
  return best ? { x, y, w: best.w * CELL, d: best.d * CELL } : null;
}

/** Where two ways of dividing differ: the modules there are, and those of the other one, that make up the same ground. */
export interface PartitionDiff<T extends Rect> {
  here: Module[];
  there: T[];
}

/** The smallest parts of another cutting that can be taken by themselves; parts that are the same are left out. */
export function partitionDiffs<T extends Rect>(
  modules: readonly Module[],
  alternative: readonly T[],
): PartitionDiff<T>[] {
  const blocks: PartitionDiff<T>[] = [];
  const open = new Set(modules);
  const left = new Set(alternative);
  for (const module of modules) {
    if (!open.delete(module)) continue;
    const block: PartitionDiff<T> = { here: [module], there: [] };
    for (let grows = true; grows;) {
      grows = false;
      for (const other of left)
        if (block.here.some((one) => intersection(one, other))) {
          left.delete(other);
          block.there.push(other);
          grows = true;
        }
      for (const other of open)
        if (block.there.some((one) => intersection(one, other))) {
          open.delete(other);
          block.here.push(other);
          grows = true;
        }
    }
    const same =
      block.here.length === 1 &&
      block.there.length === 1 &&
      (['x', 'y', 'w', 'd'] as const).every((side) => block.here[0][side] === block.there[0][side]);
    if (!same) blocks.push(block);
  }
  return blocks;
}
