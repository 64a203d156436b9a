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

// From one version that stands to another: what is taken out and put in, in which order, and how long it takes.

/** Minutes of taking a thing out, and of putting one in, until they are learnt (common practice, no source). */
const SWAP_MINUTES = { out: 1, in: 5 } as const;

/** Kinds that are swapped as they are, in the order in which they come off: what may stand on another one first. */
const SWAPPED = [
  ...['figure', 'flag', 'tree', 'planting', 'device', 'supply', 'repeat', 'run', 'plot', 'deck'],
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
