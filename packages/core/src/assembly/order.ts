import { countOf, formatKg, intersection, type Rect } from '../grid/index.ts';
import {
  labelOf,
  postedBoards,
  listOf,
  areaBounds,
  type Kind,
  type Module,
  type Plot,
  type Scene,
} from '../document/index.ts';
import { baseOf, isLoose, loadsOf, type Relief, type OverSeam } from '../terrain/index.ts';
import { moduleLoads, neighboursOf } from '../cut/index.ts';
import { shareOf, type Reach } from '../reach/index.ts';
import { orderOf } from './graph.ts';

/** One act of building up, as it is printed on the list. */
export interface Step {
  key: string;
  act: 'module' | 'pin' | 'bridge' | 'building' | 'part' | 'dressing';
  words: string;
  /** What it is about, as a noun. */
  title: string;
  /** Why it comes no earlier: what must be done before it. */
  after: string[];
  /** The modules it is done on. */
  modules: string[];
  /** Of what is laid over seams the pieces, by number from 0; how many trees, figures, flags and signboards. */
  pieces: number[];
  things: number;
}
/** A step of one thing. */
const single = { pieces: [], things: 1 };

/** The order in which everything goes on, or the circles that forbid one, in words. */
export type BuildUp = { ok: true; steps: Step[] } | { ok: false; cycles: string[][] };

/** A neighbour this much nearer to where one stands is in the way of the farther one, mm. */
const NEARER = 100;

/** What breaks first and is touched last. */
const DRESSING = ['tree', 'figure', 'flag'] as const;

/**
 * Works out the order of building up: a module before what stands on it; of two neighbours the one farther from
 * where one can stand first, so that no builder leans over finished modules; seams pinned once both sides stand, then what
 * lies over them; loose buildings, then their parts from below; trees, figures, flags and signboards last, the far ones first.
 */
export function buildUp(scene: Scene, relief: Relief, reach: Reach): BuildUp {
  const steps = new Map<string, Step>();
  const add = (step: Step) => steps.set(step.key, step);
  const modules = listOf(scene, 'module');
  const far = new Map(modules.map((module) => [module.id, shareOf(reach, module).farthest]));
  const kg = new Map(moduleLoads(scene, relief).map(({ id, bulk }) => [id, 1000 * bulk.kg]));
  const pairs = neighboursOf(scene);
  const fartherThan = (module: Module) =>
    pairs.flatMap(({ a, b }) => {
      const other = a === module ? b : b === module ? a : null;
      return other && (far.get(other.id) ?? 0) > (far.get(module.id) ?? 0) + NEARER ? [other] : [];
    });
  for (const module of modules)
    add({
      key: `module ${module.id}`,
      act: 'module',
      words: `Set down ${module.name} (${module.w} × ${module.d} studs, about ${formatKg(kg.get(module.id) ?? 0)})`,
      title: `Module ${module.name}`,
      after: fartherThan(module).map(({ id }) => `module ${id}`),
      modules: [module.name],
      ...single,
    });
  for (const { a, b } of pairs)
    add({
      key: `pin ${a.id} ${b.id}`,
      act: 'pin',
      words: `Pin ${a.name} to ${b.name}`,
      title: `Pins ${a.name} – ${b.name}`,
      after: [`module ${a.id}`, `module ${b.id}`],
      modules: [a.name, b.name],
      ...single,
    });
  for (const { kind, id, pieces, under } of laidOverSeams(scene, relief))
    add({
      key: `bridge ${kind} ${id}`,
      act: 'bridge',
      words: `Lay ${countOf(pieces.length, 'piece')} of “${labelOf(scene, kind, id)}” over ${under.map(({ name }) => name).join(', ')}`,
      title: `${labelOf(scene, kind, id)} over ${under.map(({ name }) => name).join(', ')}`,
      after: pairs
        .filter(({ a, b }) => under.includes(a) && under.includes(b))
        .map(({ a, b }) => `pin ${a.id} ${b.id}`)
        .concat(under.map((module) => `module ${module.id}`)),
      modules: under.map(({ name }) => name),
      pieces: pieces.map(({ index }) => index),
      things: pieces.length,
    });
  for (const deck of listOf(scene, 'deck')) {
    const under = deck.loose ? on(modules, deck) : [];
    if (under.length === 0) continue;
    add({
      key: `deck ${deck.id}`,
      act: 'bridge',
      words: `Set “${deck.name}” on ${under.map(({ name }) => name).join(', ')}`,
      title: deck.name,
      after: under.map((module) => `module ${module.id}`),
      modules: under.map(({ name }) => name),
      ...single,
    });
  }
  for (const plot of listOf(scene, 'plot')) {
    const base = baseOf(relief, plot);
    const isOnDeck = base.kind === 'deck' && scene.deck[base.id]?.loose === true;
    // What is pinned to a deck that lifts off travels with it.
    if (isOnDeck && !isLoose(plot) && plot.parts.length === 0) continue;
    const under = base.kind === 'plot' ? scene.plot[base.id] : undefined;
    const topmost = under && (under.parts.length > 0 ? `part ${under.id} 0` : `building ${under.id}`);
    // The panels of a wall over a seam are laid before what stands on it.
    const before =
      base.kind === 'deck' ? `deck ${base.id}` : base.kind === 'run' ? `bridge run ${base.id}` : topmost;
    buildingSteps(plot, modules, add, before ? [before] : []);
  }
  // A base that travels on its module has no step of its own.
  for (const step of steps.values()) step.after = step.after.filter((key) => steps.has(key));
  const farFirst = [...modules].sort((a, b) => (far.get(b.id) ?? 0) - (far.get(a.id) ?? 0));
  for (const module of farFirst) {
    const things = dressingOn(scene, module);
    if (things === 0) continue;
    const own = [...steps.values()].filter(
      (step) => step.act !== 'dressing' && step.modules.includes(module.name),
    );
    const farther = fartherThan(module).map(({ name }) => name);
    const beyond = [...steps.values()].filter((step) => step.modules.some((name) => farther.includes(name)));
    add({
      key: `dressing ${module.id}`,
      act: 'dressing',
      words: `Trees, figures, flags and signboards on ${module.name} (${countOf(things, 'thing')})`,
      title: `Trees and figures on ${module.name}`,
      after: [...own, ...beyond].map(({ key }) => key),
      modules: [module.name],
      pieces: [],
      things,
    });
  }
  const rankOf = ({ act, modules: on }: Step) => {
    const order = ['module', 'pin', 'bridge', 'building', 'part', 'dressing'].indexOf(act);
    const module = modules.find(({ name }) => name === on[0]);
    return [act === 'module' ? 0 : order, -(module ? (far.get(module.id) ?? 0) : 0)] as const;
  };
  const before = new Map([...steps.values()].map(({ key, after }) => [key, new Set(after)]));
  const ordered = orderOf(before, (a, b) => {
    const [p, q] = [steps.get(a), steps.get(b)];
    if (!p || !q) return 0;
    const [x, y] = [rankOf(p), rankOf(q)];
    return x[0] - y[0] || x[1] - y[1] || (a < b ? -1 : 1);
  });
  return ordered.ok
    ? { ok: true, steps: ordered.order.flatMap((key) => steps.get(key) ?? []) }
    : { ok: false, cycles: ordered.cycles.map((cycle) => cycle.map((key) => steps.get(key)?.words ?? key)) };
}

/** A pinned building travels on its module; others are stood on it. Parts that lift off go on from below. */
function buildingSteps(
  plot: Plot,
  modules: readonly Module[],
  add: (step: Step) => void,
  base: readonly string[],
): void {
  const under = on(modules, ...areaBounds(plot));
  if (under.length === 0) return;
  const stood = [...under.map((module) => `module ${module.id}`), ...base];
  const names = under.map(({ name }) => name);
  const stands = plot.mount !== 'pinned' || under.length > 1;
  const key = `building ${plot.id}`;
  if (stands)
    add({
      key,
      act: 'building',
      words: `Stand “${plot.name}” on ${names.join(', ')}`,
      title: plot.name,
      after: stood,
      modules: names,
      ...single,
    });
  let below = stands ? [key] : stood;
  // Parts are listed from the top down.
  for (const [i, part] of [...plot.parts.entries()].reverse()) {
    const step = `part ${plot.id} ${i}`;
    add({
      key: step,
      act: 'part',
      words: `Put “${part.name}” on “${plot.name}”`,
      title: `${part.name} of ${plot.name}`,
      after: below,
      modules: names,
      ...single,
    });
    below = [step];
  }
}

const on = (modules: readonly Module[], ...areas: readonly Rect[]) =>
  modules.filter((module) => areas.some((area) => intersection(module, area)));

/** Pieces of one thing that lie over seams, and the modules under them. */
interface LaidOverSeams {
  kind: Kind;
  id: string;
  pieces: readonly OverSeam[];
  under: Module[];
}

/** What is laid in pieces over seams, each thing with all of its pieces that are. */
function laidOverSeams(scene: Scene, relief: Relief): LaidOverSeams[] {
  const things = new Map<string, OverSeam[]>();
  for (const piece of loadsOf(scene, relief).overSeams) {
    const key = `${piece.ref.kind} ${piece.ref.id}`;
    things.set(key, [...(things.get(key) ?? []), piece]);
  }
  return [...things.values()].map((pieces) => {
    const under = new Set(pieces.flatMap(({ modules }) => modules));
    return { ...pieces[0].ref, pieces, under: listOf(scene, 'module').filter(({ id }) => under.has(id)) };
  });
}

function dressingOn(scene: Scene, module: Module): number {
  const spots: readonly { x: number; y: number }[] = [
    ...DRESSING.flatMap((kind) => listOf(scene, kind)),
    ...postedBoards(scene),
  ];
  return spots.filter(
    ({ x, y }) => x >= module.x && y >= module.y && x < module.x + module.w && y < module.y + module.d,
  ).length;
}

/** What must come off before a module can be lifted out. */
export interface Freed {
  /** In the order of taking off; the module itself is not among them. */
  off: { words: string; module: string | null }[];
  /** Modules that must be out of the way because they are too deep to reach over. */
  way: string[];
}

/**
 * The shortest list of things to take off before a module can be lifted out: what lies over its seams, what stands
 * on several modules with it, lift-off parts and what breaks on it; and, where its middle is farther than one may
 * reach, the neighbours one has to take out to come near, each freed likewise (the cheapest way by Dijkstra 1959).
 */
export function freeModule(scene: Scene, relief: Relief, reach: Reach, id: string): Freed | null {
  const modules = listOf(scene, 'module');
  const target = modules.find((module) => module.id === id);
  if (!target) return null;
  const pairs = neighboursOf(scene);
  const laid = laidOverSeams(scene, relief);
  const taken = (module: Module) => looseOn(scene, modules, laid, module);
  // Cost of taking a module out: itself and what is on it.
  const cost = (module: Module) => 1 + taken(module).length;
  const open = new Map<Module, { sum: number; path: Module[] }>([[target, { sum: 0, path: [] }]]);
  const done = new Set<Module>();
  let best: Module[] | null = null;
  while (open.size > 0) {
    const [here, { sum, path }] = [...open].reduce((a, b) => (b[1].sum < a[1].sum ? b : a));
    open.delete(here);
    done.add(here);
    if (nearest(reach, here) <= reach.ladder) {
      best = path;
      break;
    }
    for (const { a, b } of pairs) {
      const next = a === here ? b : b === here ? a : null;
      if (!next || done.has(next)) continue;
      const far = sum + cost(next);
      const known = open.get(next);
      if (!known || far < known.sum) open.set(next, { sum: far, path: [next, ...path] });
    }
  }
  const out = best ?? [];
  const off: Freed['off'] = [];
  const seen = new Set<string>();
  for (const module of [...out, target]) {
    for (const { key, words } of taken(module)) {
      if (seen.has(key)) continue;
      seen.add(key);
      off.push({ words, module: module.name });
    }
    if (module !== target) off.push({ words: `Lift out ${module.name}`, module: module.name });
  }
  return { off, way: out.map(({ name }) => name) };
}

/** How far the nearest stud of a module is from where one can stand, mm: from there it is taken by its edge. */
function nearest(reach: Reach, module: Module): number {
  let least = Infinity;
  for (let y = module.y; y < module.y + module.d; y++)
    for (let x = module.x; x < module.x + module.w; x++) {
      const [column, row] = [x - reach.x, y - reach.y];
      if (column < 0 || row < 0 || column >= reach.w || row >= reach.d) continue;
      const distance = reach.distance[row * reach.w + column];
      if (distance < least) least = distance;
    }
  return least;
}

function looseOn(
  scene: Scene,
  modules: readonly Module[],
  laid: readonly LaidOverSeams[],
  module: Module,
): { key: string; words: string }[] {
  const over = laid.flatMap(({ kind, id, pieces }) =>
    pieces
      .filter((piece) => piece.modules.includes(module.id))
      .map(({ index }) => ({
        key: `${kind} ${id} ${index}`,
        words: `Take up piece ${index + 1} of “${labelOf(scene, kind, id)}”`,
      })),
  );
  const plots = listOf(scene, 'plot').flatMap((plot) => {
    const under = on(modules, ...areaBounds(plot));
    if (!under.includes(module)) return [];
    const loose = plot.mount !== 'pinned' || under.length > 1;
    if (loose) return [{ key: `plot ${plot.id}`, words: `Take off “${plot.name}”` }];
    return plot.parts.map((part, i) => ({
      key: `part ${plot.id} ${i}`,
      words: `Lift off “${part.name}” of “${plot.name}”`,
    }));
  });
  const decks = listOf(scene, 'deck')
    .filter((deck) => deck.loose && on(modules, deck).includes(module))
    .map(({ id, name }) => ({ key: `deck ${id}`, words: `Lift off “${name}”` }));
  const fragile = dressingOn(scene, module);
  return [
    ...(fragile > 0
      ? [
          {
            key: `dressing ${module.id}`,
            words: `Take off what breaks on ${module.name}: ${countOf(fragile, 'thing')}, trees, figures, flags and signboards`,
          },
        ]
      : []),
    ...plots,
    ...decks,
    ...over,
  ];
}
