import {
  DISPLAY_ID,
  carriedBy,
  differencesBetween,
  displayOf,
  idFor,
  keyOf,
  kindSchema,
  labelOf,
  listOf,
  sceneInVersion,
  sectionOfEntity,
  standingOf,
  type Change,
  type Entity,
  type Kind,
  type Scene,
} from '../document/index.ts';
import { carriedPieces, type CarriedPiece } from '../cut/index.ts';
import { present } from '../grid/index.ts';
import { compileRelief, leavesOf } from '../terrain/index.ts';
import { handsToCarry } from './showTasks.ts';

// From one version that stands to another: what is taken out and put in, in which order, and how long it takes.

/** Minutes of taking a thing out, and of putting one in, until they are learnt (common practice, no source). */
const SWAP_MINUTES = { out: 1, in: 5 } as const;

/** Kinds that are swapped as they are, in the order in which they come off: what may stand on another one first. */
const SWAPPED = [
  ...['figure', 'flag', 'signboard', 'tree', 'planting', 'device', 'supply', 'repeat', 'run', 'plot', 'deck'],
] as const satisfies readonly Kind[];
const RANKS = new Map<string, number>(SWAPPED.map((kind, i) => [kind, i]));

/** Fields whose change leaves a thing as it stands. */
const TOLD_ONLY: ReadonlySet<string> = new Set([
  'name',
  'story',
  'order',
  'notes',
  'state',
  'circuit',
  'stage',
]);

export interface SwapStep {
  /** The same in each swap to that version. */
  key: string;
  act: 'out' | 'in';
  ref: { kind: Kind; id: string };
  name: string;
  /** It stands in both versions, on something that is swapped. */
  isMoved: boolean;
  minutes: number;
  /** Its minutes are those that it took before. */
  isLearnt: boolean;
  /** Who builds the section that it stands in; null: nobody. */
  owner: string | null;
  /** When it was done; null: not yet. */
  done: string | null;
}

export interface SwapPlan {
  /** What is taken out, then what is put in. */
  steps: SwapStep[];
  /** Minutes of all steps, and of those left. */
  minutes: number;
  left: number;
  /** What is no swap: ground, levels, ways and recipes are built otherwise. */
  rebuilt: string[];
}

/** The display as it stands in a version, or in the base. */
const shownIn = (base: Scene, version: string | null): Scene =>
  version === null ? base : sceneInVersion(base, version).scene;

/** The version that stands: as the display says, if there is one of that id. */
export function standingVersion(base: Scene): string | null {
  const { stands } = displayOf(base);
  return stands !== null && base.version[stands] ? stands : null;
}

/**
 * What turns the version that stands into another one.
 * @param to null: the base
 */
export function swapPlan(base: Scene, to: string | null): SwapPlan {
  const before = shownIn(base, standingVersion(base));
  const after = shownIn(base, to);
  const outs = new Map<string, { kind: Kind; id: string; isMoved: boolean }>();
  const ins = new Map<string, { kind: Kind; id: string; isMoved: boolean }>();
  const rebuilt: string[] = [];
  for (const { of, thing: id, how, fields } of differencesBetween(before, after)) {
    const kind = kindSchema.parse(of);
    if (kind === 'display' || kind === 'circuit' || kind === 'partList') continue;
    const scene = how === 'added' ? after : before;
    if (!RANKS.has(kind)) {
      rebuilt.push(labelOf(scene, kind, id));
      continue;
    }
    if (how === 'changed' && Object.keys(fields).every((field) => TOLD_ONLY.has(field))) continue;
    const ref = { kind, id, isMoved: false };
    if (how !== 'added') outs.set(keyOf(kind, id), ref);
    if (how !== 'gone') ins.set(keyOf(kind, id), ref);
  }
  // In another month other leaves: the tree is another one to put in.
  for (const [key, ref] of otherLeaves(before, after)) {
    if (!outs.has(key)) outs.set(key, { ...ref, isMoved: false });
    if (!ins.has(key)) ins.set(key, { ...ref, isMoved: false });
  }
  // What stands on a thing that goes out goes out before it, and comes back.
  const follow = (scene: Scene, from: Map<string, { kind: Kind; id: string; isMoved: boolean }>) => {
    for (const one of [...from.values()])
      for (const { kind, id } of carriedBy(scene, one)) {
        const key = keyOf(kind, id);
        const isInBoth = before[kind][id] !== undefined && after[kind][id] !== undefined;
        if (!isInBoth) continue;
        if (!outs.has(key)) outs.set(key, { kind, id, isMoved: true });
        if (!ins.has(key)) ins.set(key, { kind, id, isMoved: true });
      }
  };
  follow(before, outs);
  follow(after, ins);
  const target = to ?? 'base';
  const known = new Map(listOf(base, 'swap').map((one) => [one.step, one]));
  const stepsOf = (
    act: 'out' | 'in',
    scene: Scene,
    refs: Iterable<{ kind: Kind; id: string; isMoved: boolean }>,
  ) =>
    [...refs].map(({ kind, id, isMoved }): SwapStep => {
      const key = `${target} ${act} ${keyOf(kind, id)}`.slice(0, 160);
      const record = known.get(key);
      const section = sectionOfEntity(scene, kind, id);
      return {
        ...{ key, act, ref: { kind, id }, isMoved, name: labelOf(scene, kind, id) },
        minutes: record?.minutes ?? SWAP_MINUTES[act],
        isLearnt: typeof record?.minutes === 'number',
        owner: section === null ? null : (scene.section[section]?.owner ?? null),
        done: record?.done ?? null,
      };
    });
  const steps = [
    ...inOrder(stepsOf('out', before, outs.values()), before),
    ...inOrder(stepsOf('in', after, ins.values()), after).toReversed(),
  ];
  const sum = (list: readonly SwapStep[]) => list.reduce((total, { minutes }) => total + minutes, 0);
  return { steps, minutes: sum(steps), left: sum(steps.filter(({ done }) => done === null)), rebuilt };
}

/** Trees and plantings that stand in both with leaves of other colours, by key. */
function otherLeaves(before: Scene, after: Scene): Map<string, { kind: Kind; id: string }> {
  const [was, is] = [leavesOf(before), leavesOf(after)];
  const changed = new Map<string, { kind: Kind; id: string }>();
  for (const [id, colour] of was.trees)
    if (is.trees.has(id) && is.trees.get(id) !== colour) changed.set(keyOf('tree', id), { kind: 'tree', id });
  for (const [id, colours] of was.plants)
    if (is.plants.has(id) && is.plants.get(id)?.join() !== colours.join())
      changed.set(keyOf('planting', id), { kind: 'planting', id });
  return changed;
}

/** One thing that is carried in a step of a swap. */
export interface SwapPiece {
  /** “roof of Hall”. */
  title: string;
  grams: number;
  /** How many carry it. */
  hands: number;
}

/**
 * What is carried in each step of a swap, by its key: a building goes out part by part as it comes off, and comes in the
 * other way round. Steps whose thing is no carried piece of its own (figures, trees, what is built into a module) are not
 * among them.
 */
export function swapPieces(base: Scene, to: string | null): ReadonlyMap<string, readonly SwapPiece[]> {
  const { steps } = swapPlan(base, to);
  const carriedIn = (scene: Scene) => carriedPieces(scene, compileRelief(scene));
  const pieces = {
    out: carriedIn(shownIn(base, standingVersion(base))),
    in: carriedIn(shownIn(base, to)),
  };
  return new Map(
    steps.flatMap(({ key, act, ref }): [string, SwapPiece[]][] => {
      const own = pieces[act].filter((one) => one.ref.kind === ref.kind && one.ref.id === ref.id);
      if (own.length === 0) return [];
      const off = inOrderOff(own);
      return [
        [
          key,
          (act === 'out' ? off : off.toReversed()).map(({ title, grams, lift, w, d }) => ({
            ...{ title, grams, hands: handsToCarry(lift, Math.max(w, d)) },
          })),
        ],
      ];
    }),
  );
}

/** Pieces of one thing as they come off: what must be off before others first. */
function inOrderOff(pieces: readonly CarriedPiece[]): CarriedPiece[] {
  const left = new Map(pieces.map((piece) => [piece.id, piece]));
  const ordered: CarriedPiece[] = [];
  while (left.size > 0) {
    const [next] = [...left.values()].filter(({ first }) => first.every((id) => !left.has(id)));
    // A circle has no first one: any will do.
    const piece = next ?? present([...left.values()][0], 'a piece that is left');
    left.delete(piece.id);
    ordered.push(piece);
  }
  return ordered;
}

/** As they come off: what stands on others first. */
const inOrder = (steps: SwapStep[], scene: Scene): SwapStep[] =>
  steps
    .map((step) => ({ step, depth: depthOn(scene, step.ref), rank: RANKS.get(step.ref.kind) ?? 0 }))
    .sort((a, b) => b.depth - a.depth || a.rank - b.rank || (a.step.key < b.step.key ? -1 : 1))
    .map(({ step }) => step);

/** How many things a thing stands on, one on the other. */
function depthOn(scene: Scene, { kind, id }: { kind: Kind; id: string }, seen = new Set<string>()): number {
  const key = keyOf(kind, id);
  const thing: Entity<Kind> | undefined = scene[kind][id];
  if (!thing || seen.has(key) || !('onPlot' in thing)) return 0;
  seen.add(key);
  const on = standingOf(thing);
  return on === null || on.kind === 'ground' ? 0 : 1 + depthOn(scene, on, seen);
}

/** The id of what is known of a step. */
const swapId = (key: string): string => idFor('swap', key);

/** Longer than this no step goes on: somebody forgot to tick it, minutes. */
const MAX_STEP = 60;
const MINUTE_MS = 60_000;

/**
 * A step is done, or not. Its time since the step ticked before it is kept for the next swap.
 * @param now ISO moment; null: it is not done
 */
export function tickSwap(base: Scene, plan: SwapPlan, key: string, now: string | null): Change[] {
  const id = swapId(key);
  const known: Entity<'swap'> | undefined = base.swap[id];
  const last = plan.steps.reduce<string | null>(
    (latest, { done }) => (done !== null && (latest === null || done > latest) ? done : latest),
    null,
  );
  const took =
    now === null || last === null ? null : Math.round((Date.parse(now) - Date.parse(last)) / MINUTE_MS);
  const minutes = took !== null && took <= MAX_STEP ? Math.max(1, took) : (known?.minutes ?? null);
  const kind = 'swap' as const;
  return known
    ? [{ op: 'patch', kind, id, v: known.v, set: { done: now, minutes } }]
    : [{ op: 'add', kind, id, data: { step: key, done: now, minutes } }];
}

/** Another version stands now: what was ticked is over. */
export function finishSwap(base: Scene, to: string | null): Change[] {
  const { v } = displayOf(base);
  return [
    { op: 'patch', kind: 'display', id: DISPLAY_ID, v, set: { stands: to } },
    ...listOf(base, 'swap')
      .filter(({ done }) => done !== null)
      .map(({ id, v: at }): Change => ({ op: 'patch', kind: 'swap', id, v: at, set: { done: null } })),
  ];
}
