import { overlap, type Rect } from '../lattice/index.ts';
import { displayOf, listOf, plotBounds, type Change, type Module, type Scene } from '../scene/index.ts';
import { basesOf, setModules, type FreshModule } from './fromScene.ts';
import { chooseTilings } from './plan.ts';
import { CELL, type CutProblem } from './problem.ts';
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
  { act: 'split'; knife: Knife } | { act: 'glue'; seam: string } | { act: 'shift'; seam: string; by: number };

/** What an act comes to. */
export function byHand(scene: Scene, act: HandAct): ByHand {
  if (act.act === 'split') return split(scene, act.knife);
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
  return anew(
    scene,
    across,
    parts,
    `split ${across.map(({ name }) => name).join(', ')} at ${upright ? 'x' : 'y'} = ${at}`,
  );
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
  return anew(scene, [a, b], [whole], `joined ${a.name} and ${b.name}`);
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
  return anew(scene, [a, b], parts, `moved the seam of ${a.name} and ${b.name} by ${by} studs`);
}

/** Puts rectangles in place of modules, each on bases chosen with the stock the others leave. */
function anew(scene: Scene, gone: readonly Module[], parts: readonly Rect[], words: string): ByHand {
  const types = listOf(scene, 'baseType');
  const bases: CutProblem['bases'] = types.map(({ w, d, price, stock, max }) => ({
    ...{ w, d, price, stock },
    ...(max === null ? {} : { max }),
  }));
  const off = parts.find(({ w, d }) => w % CELL !== 0 || d % CELL !== 0);
  if (off || bases.length === 0 || bases.some(({ w, d }) => w % CELL !== 0 || d % CELL !== 0))
    return {
      ok: false,
      error: off
        ? `A part of ${off.w} × ${off.d} studs stands on no bases: they come in steps of ${CELL}.`
        : `Bases come in steps of ${CELL} studs: list some on Stockpile.`,
    };
  const cut = listOf(scene, 'plot').find((plot) => {
    const on = (rects: readonly Rect[]) => rects.filter((rect) => overlap(rect, plotBounds(plot))).length;
    return !plot.mayCut && on(parts) > Math.max(1, on(gone));
  });
  if (cut) return { ok: false, error: `The line runs through «${cut.name}», which may not be cut.` };
  const problem: CutProblem = {
    region: [...parts],
    bases,
    module: { maxW: 4096, maxD: 4096 },
    weights: { module: 0, seam: 0 },
  };
  const book = new TilingBook(problem);
  const cells = parts.map(({ w, d }) => ({ x0: 0, y0: 0, x1: w / CELL, y1: d / CELL }));
  const none = parts.findIndex((_, i) => book.of(cells[i].x1, cells[i].y1).list.length === 0);
  const sizes = bases.map(({ w, d }) => `${w}×${d}`).join(', ');
  if (none >= 0)
    return {
      ok: false,
      error: `A part of ${parts[none].w} × ${parts[none].d} studs cannot be laid with the bases listed (${sizes}).`,
    };
  const others = listOf(scene, 'module').filter((module) => !gone.includes(module));
  const elsewhere = bases.map((base) => basesOf(others, base));
  const tilings = chooseTilings({ problem }, book, cells, elsewhere);
  if (!tilings)
    return { ok: false, error: 'That would take more bases than can be had: see their most on Stockpile.' };
  const fresh = parts.map((part, i): FreshModule => ({
    ...part,
    bases: placed(tilings[i], cells[i].x1, cells[i].y1).map((piece) => ({
      x: part.x + piece.x * CELL,
      y: part.y + piece.y * CELL,
      w: piece.w * CELL,
      d: piece.d * CELL,
    })),
  }));
  return { ok: true, changes: setModules(scene, fresh, gone), words };
}

/** Where two ways of dividing differ: the modules there are, and those of the other one, that make up the same ground. */
export interface Block<T extends Rect> {
  here: Module[];
  there: T[];
}

/** The smallest parts of another cutting that can be taken by themselves; parts that are the same are left out. */
export function blocksOf<T extends Rect>(modules: readonly Module[], rival: readonly T[]): Block<T>[] {
  const blocks: Block<T>[] = [];
  const open = new Set(modules);
  const left = new Set(rival);
  for (const module of modules) {
    if (!open.delete(module)) continue;
    const block: Block<T> = { here: [module], there: [] };
    for (let grows = true; grows;) {
      grows = false;
      for (const other of left)
        if (block.here.some((one) => overlap(one, other))) {
          left.delete(other);
          block.there.push(other);
          grows = true;
        }
      for (const other of open)
        if (block.there.some((one) => overlap(one, other))) {
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
