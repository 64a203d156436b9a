import { countOf, formatKg, intersection, type Rect } from '../grid/index.ts';
import {
  labelOf,
  listOf,
  plotBounds,
  influenceBounds,
  type Kind,
  type Module,
  type Plot,
  type Scene,
} from '../document/index.ts';
import { membersOf, type Relief } from '../terrain/index.ts';
import { moduleLoads, neighboursOf } from '../cut/index.ts';
import { shareOf, type Reach } from '../reach/index.ts';
import { orderOf } from './graph.ts';

/** One act of building up, as it is printed on the list. */
export interface Step {
  key: string;
  act: 'module' | 'pin' | 'bridge' | 'building' | 'part' | 'dressing';
  words: string;
  /** Why it comes no earlier: what must be done before it. */
  after: string[];
  /** The modules it is done on. */
  modules: string[];
}

/** The order in which everything goes on, or the circles that forbid one, in words. */
export type BuildUp = { ok: true; steps: Step[] } | { ok: false; cycles: string[][] };

/** A neighbour this much nearer to where one stands is in the way of the farther one, mm. */
const NEARER = 100;

/** The lines that lie over seams and are laid once both sides stand. */
const BRIDGING: readonly Kind[] = ['track', 'run', 'repeat'];
/** What breaks first and is touched last. */
const DRESSING: readonly Kind[] = ['tree', 'figure', 'flag'];

/**
 * Works out the order of building up: a module before what stands on it; of two neighbours the one farther from
 * where one can stand first, so that no builder leans over finished modules; seams pinned once both sides stand, then what
 * lies over them; loose buildings, then their parts from below; trees, figures and flags last, the far ones first.
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
      after: fartherThan(module).map(({ id }) => `module ${id}`),
      modules: [module.name],
    });
  for (const { a, b } of pairs)
    add({
      key: `pin ${a.id} ${b.id}`,
      act: 'pin',
      words: `Pin ${a.name} to ${b.name}`,
      after: [`module ${a.id}`, `module ${b.id}`],
      modules: [a.name, b.name],
    });
  for (const { kind, id, under } of bridges(scene))
    add({
      key: `bridge ${kind} ${id}`,
      act: 'bridge',
      words: `Lay “${labelOf(scene, kind, id)}” over ${under.map(({ name }) => name).join(', ')}`,
      after: pairs
        .filter(({ a, b }) => under.includes(a) && under.includes(b))
        .map(({ a, b }) => `pin ${a.id} ${b.id}`)
        .concat(under.map((module) => `module ${module.id}`)),
      modules: under.map(({ name }) => name),
    });
  for (const plot of listOf(scene, 'plot')) buildingSteps(plot, modules, add);
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
      words: `Trees, figures and flags on ${module.name} (${countOf(things, 'thing')})`,
      after: [...own, ...beyond].map(({ key }) => key),
      modules: [module.name],
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
function buildingSteps(plot: Plot, modules: readonly Module[], add: (step: Step) => void): void {
  const under = on(modules, plotBounds(plot));
  if (under.length === 0) return;
  const base = under.map((module) => `module ${module.id}`);
  const names = under.map(({ name }) => name);
  const stands = plot.mount !== 'pinned' || under.length > 1;
  const key = `building ${plot.id}`;
  if (stands)
    add({
      key,
      act: 'building',
      words: `Stand “${plot.name}” on ${names.join(', ')}`,
      after: base,
      modules: names,
    });
  let below = stands ? [key] : base;
  // Parts are listed from the top down.
  for (const [i, part] of [...plot.parts.entries()].reverse()) {
    const step = `part ${plot.id} ${i}`;
    add({
      key: step,
      act: 'part',
      words: `Put “${part.name}” on “${plot.name}”`,
      after: below,
      modules: names,
    });
    below = [step];
  }
}

const on = (modules: readonly Module[], area: Rect) => modules.filter((module) => intersection(module, area));

/** What lies over more than one module and is not ground. */
function bridges(scene: Scene): { kind: Kind; id: string; under: Module[] }[] {
  const modules = listOf(scene, 'module');
  return BRIDGING.flatMap((kind) =>
    listOf(scene, kind).flatMap((thing) => {
      const area = influenceBounds(kind, thing);
      const all = area ? on(modules, area) : [];
      // Of a repeat each member belongs to its module: only those that stand on two are laid over a seam.
      const under = kind === 'repeat' ? straddled(scene, thing.id, all) : all;
      return under.length > 1 ? [{ kind, id: thing.id, under }] : [];
    }),
  );
}

/** The modules over whose seams a member of a repeat lies. */
function straddled(scene: Scene, id: string, modules: readonly Module[]): Module[] {
  const repeat = scene.repeat[id];
  const over = new Set<Module>();
  for (const { x, y, angle } of membersOf(repeat, listOf(scene, 'module')).members) {
    const [u, v] = [
      Math.max(0.5, (Math.abs(Math.cos(angle)) * repeat.length) / 2),
      Math.max(0.5, (Math.abs(Math.sin(angle)) * repeat.length) / 2),
    ];
    const under = on(modules, { x: x - u, y: y - v, w: 2 * u, d: 2 * v });
    if (under.length > 1) for (const module of under) over.add(module);
  }
  return [...over];
}

function dressingOn(scene: Scene, module: Module): number {
  return DRESSING.flatMap((kind) => listOf(scene, kind)).filter((thing) => {
    const spot: Record<string, unknown> = { ...thing };
    const { x, y } = spot;
    return (
      typeof x === 'number' &&
      typeof y === 'number' &&
      x >= module.x &&
      y >= module.y &&
      x < module.x + module.w &&
      y < module.y + module.d
    );
  }).length;
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
export function freeModule(scene: Scene, reach: Reach, id: string): Freed | null {
  const modules = listOf(scene, 'module');
  const target = modules.find((module) => module.id === id);
  if (!target) return null;
  const pairs = neighboursOf(scene);
  const taken = (module: Module) => looseOn(scene, modules, module);
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

function looseOn(scene: Scene, modules: readonly Module[], module: Module): { key: string; words: string }[] {
  const over = bridges(scene)
    .filter(({ under }) => under.includes(module))
    .map(({ kind, id }) => ({ key: `${kind} ${id}`, words: `Take up “${labelOf(scene, kind, id)}”` }));
  const plots = listOf(scene, 'plot').flatMap((plot) => {
    const under = on(modules, plotBounds(plot));
    if (!under.includes(module)) return [];
    const loose = plot.mount !== 'pinned' || under.length > 1;
    if (loose) return [{ key: `plot ${plot.id}`, words: `Take off “${plot.name}”` }];
    return plot.parts.map((part, i) => ({
      key: `part ${plot.id} ${i}`,
      words: `Lift off “${part.name}” of “${plot.name}”`,
    }));
  });
  const fragile = dressingOn(scene, module);
  return [
    ...(fragile > 0
      ? [
          {
            key: `dressing ${module.id}`,
            words: `Take off what breaks on ${module.name}: ${countOf(fragile, 'thing')}, trees, figures and flags`,
          },
        ]
      : []),
    ...plots,
    ...over,
  ];
}
