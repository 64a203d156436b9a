import { MM, MM_PER_PLATE, outerSize } from '../grid/index.ts';
import { displayOf, listOf, type Module, type Passage, type Scene } from '../document/index.ts';
import type { Relief } from '../terrain/index.ts';
import { clearanceOf, passagesFor, tableLoads, wayOf, type TableLoad } from '../venue/index.ts';
import { baseNeeds } from './fromScene.ts';
import type { GridLine } from './crossing.ts';
import { moduleLoads, type ModuleLoad } from './lifting.ts';
import { CELL } from './problem.ts';
import { baseGroundOf, rimsOf } from './rim.ts';
import { SEAM_COSTS, seamClassifier, type SeamOver } from './seamCosts.ts';
import { neighboursOf } from './seams.ts';

/** What a way of dividing the scene comes to: of the modules there are, or of a alternative laid in their place. */
export interface Arrangement {
  modules: number;
  /** Cost by the Brief's weights, for solved and manual cuttings alike. */
  cost: { bases: number; modules: number; seams: number; total: number };
  bought: { w: number; d: number; count: number }[];
  loads: ModuleLoad[];
  /** What each table carries. */
  tables: TableLoad[];
  heaviest: ModuleLoad | null;
  /** The passage that leaves least room, for which module, and how much, mm (negative: it does not pass). */
  tightest: { passage: Passage; module: string; spare: number } | null;
  /** Studs of seam by what they lie over, the longest first. */
  over: { over: SeamOver; studs: number }[];
  /** Plates beside the bases of modules of odd sizes, and what they cost by prices known and guessed: in no other figure. */
  rim: { studs: number; pieces: number; cost: number };
}

/** What the modules there are cost, and what their seams lie over. @param judge of the scene's seams, when it is known already */
export function costOf(
  scene: Scene,
  relief: Relief,
  judge: (line: GridLine) => SeamOver = seamClassifier(scene, relief),
): Pick<Arrangement, 'modules' | 'cost' | 'bought' | 'over'> {
  const modules = listOf(scene, 'module');
  const { moduleWeight, seamWeight } = displayOf(scene);
  const over = new Map<SeamOver, number>();
  const corner = baseGroundOf(scene)?.origin ?? { x: 0, y: 0 };
  let seams = 0;
  for (const { line } of neighboursOf(scene))
    for (const piece of piecesOf(line, corner)) {
      const what = judge(piece);
      over.set(what, (over.get(what) ?? 0) + piece.length);
      seams += seamWeight * piece.length * (1 + SEAM_COSTS[what]);
    }
  const needs = baseNeeds(scene);
  const bases = needs.reduce((sum, { cost }) => sum + cost, 0);
  const weight = moduleWeight * modules.length;
  return {
    modules: modules.length,
    cost: { bases, modules: weight, seams, total: bases + weight + seams },
    bought: needs.filter(({ short }) => short > 0).map(({ w, d, short }) => ({ w, d, count: short })),
    over: [...over].map(([what, studs]) => ({ over: what, studs })).sort((a, b) => b.studs - a.studs),
  };
}

/** All there is to say of the modules there are. @param judge as in `costOf` */
export function arrangementOf(
  scene: Scene,
  relief: Relief,
  judge?: (line: GridLine) => SeamOver,
): Arrangement {
  const loads = moduleLoads(scene, relief);
  return {
    ...costOf(scene, relief, judge),
    rim: rimOf(scene),
    loads,
    tables: tableLoads(scene, relief),
    heaviest: loads.reduce<ModuleLoad | null>((a, b) => (a && a.bulk.kg >= b.bulk.kg ? a : b), null),
    tightest: tightestOf(listOf(scene, 'module'), loads, wayOf(scene)),
  };
}

function rimOf(scene: Scene): Arrangement['rim'] {
  const sum = { studs: 0, pieces: 0, cost: 0 };
  for (const { studs, pieces, cost } of rimsOf(scene)) {
    sum.studs += studs;
    sum.pieces += pieces.reduce((all, { qty }) => all + qty, 0);
    sum.cost += cost;
  }
  return sum;
}

/** A line in pieces of 8 studs, from one step of the lattice of bases to the next. */
function piecesOf(line: GridLine, corner: { x: number; y: number }): GridLine[] {
  const pieces: GridLine[] = [];
  const [from, start] = line.upright ? [line.y, corner.y] : [line.x, corner.x];
  for (let at = from; at < from + line.length;) {
    const next = Math.min(from + line.length, start + Math.floor((at - start) / CELL) * CELL + CELL);
    pieces.push(line.upright ? { ...line, y: at, length: next - at } : { ...line, x: at, length: next - at });
    at = next;
  }
  return pieces;
}

function tightestOf(
  modules: readonly Module[],
  loads: readonly ModuleLoad[],
  way: readonly Passage[],
): Arrangement['tightest'] {
  let tightest: Arrangement['tightest'] = null;
  for (const { id, name, w, d } of modules) {
    const height = loads.find((load) => load.id === id)?.tall ?? MM_PER_PLATE;
    const box = { short: outerSize(Math.min(w, d)) / MM, long: outerSize(Math.max(w, d)) / MM, height };
    for (const passage of passagesFor(way, box)) {
      const spare = clearanceOf(passage, box);
      if (!tightest || spare < tightest.spare) tightest = { passage, module: name, spare };
    }
  }
  return tightest;
}
