import { centreOf, containsPoint } from '../grid/index.ts';
import { idFor, listOf, type Chore, type Passage, type Scene } from '../document/index.ts';
import type { BuildUp, Step } from '../assembly/index.ts';
import { currentContents, currentPlace, wayOf } from '../venue/index.ts';
import { isAtHome, type ShowPhase } from './phases.ts';
import type { LoadUnit, Shipment } from './shipment.ts';

// What is done at the place, from the empty hall to the first visitor, or back: tasks with minutes and hands.

/** A task of setting up or taking down. */
export interface ShowTask {
  /** `table …`, `carry …`, `module …`, `pin …` and the like; the same as long as the plan is. */
  key: string;
  title: string;
  minutes: number;
  hands: number;
  /** What its hands bear together, kg; 0: nothing that counts. */
  kg: number;
  /** Keys of the tasks that end before it begins. */
  after: string[];
  /** It comes from the plan, or is one of one's own. */
  isOwn: boolean;
  /** Minutes and hands are this program's guess. */
  isGuess: boolean;
  /** May be left out when time is short. */
  canDrop: boolean;
  /** What is known of it: how it was changed, when it began and ended. */
  chore: Chore | null;
  /** Owner of the section it is done in; null: nobody's. */
  owner: string | null;
}

/** Minutes of each act (guesses of ours, no source; each can be typed over). */
const MINUTES = {
  ...{ table: 4, barrier: 5, module: 3, pin: 1, bridge: 2, building: 3, part: 1, thing: 0.5, own: 10 },
  /** A cable on its supply, and each of its connectors. */
  ...{ circuit: 2, connector: 0.5 },
  /** Into and out of the vehicle, and for each door and stair or lift on the way, there and back. */
  ...{ load: 1, door: 0.5, stair: 2, lift: 4 },
} as const;
/** Pace of one who carries, m a minute: 3 km/h (a guess of ours). */
const PACE = 50;
/** What is longer takes two, whatever it weighs, mm (a guess of ours). */
const ONE_PERSON_LENGTH = 1000;
const MAX_CARRIERS = 8;

/** What is passed between the vehicle and the tables: behind the vehicle in the hall, before it at home. */
function passedTo(scene: Scene, isHome: boolean): Passage[] {
  const way = wayOf(scene);
  const isVehicle = ({ kind }: Passage) => kind === 'vehicle';
  const first = way.findIndex(isVehicle);
  if (isHome) return first < 0 ? [] : way.slice(0, first);
  return way.slice(way.findLastIndex(isVehicle) + 1);
}

/** Minutes from the vehicle to the tables and back, with what is on the way. @param isHome where the display comes from */
export function carryMinutes(scene: Scene, isHome = false): number {
  const passed = passedTo(scene, isHome).reduce((sum, { kind }) => {
    if (kind === 'stair') return sum + MINUTES.stair;
    if (kind === 'lift') return sum + MINUTES.lift;
    return sum + MINUTES.door;
  }, 0);
  const metres = currentPlace(scene)?.carryMetres ?? 0;
  return MINUTES.load + passed + (2 * metres) / PACE;
}

/** The lift index of one, and of each of two. */
type LiftIndices = Record<'one' | 'two', { index: number }>;

/** How many carry a thing: one or two while the lift index stays at 1 or below, more above. */
export function handsToCarry({ one, two }: LiftIndices, length: number): number {
  if (one.index <= 1 && length <= ONE_PERSON_LENGTH) return 1;
  if (two.index <= 1) return 2;
  return Math.min(MAX_CARRIERS, Math.ceil(2 * two.index));
}

/** The id of what is known of a task from the plan. */
export const choreId = (phase: ShowPhase, key: string): string => idFor('chore', `${phase} ${key}`);

/** Phases that take down what another sets up. */
const BACKWARDS: ReadonlySet<ShowPhase> = new Set<ShowPhase>(['takedown', 'leave']);

/**
 * All tasks of setting up in the display's place (see `sceneAtShow`), or of taking down: the same backwards,
 * which take as long. At home the tables stay.
 * @param order of building up
 */
export function showTasks(scene: Scene, shipment: Shipment, order: BuildUp, phase: ShowPhase): ShowTask[] {
  const chores = listOf(scene, 'chore').filter((chore) => chore.phase === phase);
  const known = new Map(chores.filter(({ task }) => task !== '').map((chore) => [chore.task, chore]));
  const tasks = fromPlan(scene, shipment, order, phase).map(({ minutes, hands, ...task }): ShowTask => {
    const chore = known.get(task.key) ?? null;
    return {
      ...task,
      minutes: chore?.minutes ?? Math.max(1, Math.round(minutes)),
      hands: chore?.hands ?? hands,
      isOwn: false,
      isGuess: chore === null || chore.minutes === null || chore.hands === null,
      chore,
    };
  });
  const forth = [...tasks, ...ownTasks(chores, tasks, phase)];
  return inTurn(BACKWARDS.has(phase) ? backwards(forth) : forth);
}

type Plain = Omit<ShowTask, 'isOwn' | 'isGuess' | 'chore'>;

function fromPlan(scene: Scene, { units }: Shipment, order: BuildUp, phase: ShowPhase): Plain[] {
  const isHome = isAtHome(phase);
  const carry = carryMinutes(scene, isHome);
  const isLevel = passedTo(scene, isHome).every(({ kind }) => kind !== 'stair');
  const rolls = (unit: LoadUnit) => unit.wheels && isLevel;
  const crateOf = new Map(units.flatMap(({ key, holds }) => holds.map((content) => [content.key, key])));
  const bare = new Map(units.filter(({ holds }) => holds.length === 0).map((unit) => [unit.key, unit]));
  const tables = isHome ? [] : currentContents(scene, 'table').filter(({ kind }) => kind === 'table');
  const owners = ownersByModule(scene);
  const neededOf = new Map(listOf(scene, 'cargo').map(({ id, needed }) => [id, needed]));
  // What is needed before the modules is there before the first table stands.
  const first = units
    .filter(({ ref }) => ref?.kind === 'cargo' && neededOf.get(ref.id) === 'first')
    .map(({ key }) => `carry ${key}`);
  const carried = units.filter(({ key, holds }) => holds.length > 0 || key.startsWith('cargo-'));
  const steps = order.ok ? order.steps : [];
  return [
    ...tables.map((table): Plain => ({
      ...{ key: `table ${table.id}`, title: table.name, minutes: MINUTES.table, hands: 2 },
      ...{ after: first, canDrop: false, owner: null, kg: 0 },
    })),
    ...carried.map((unit): Plain => ({
      ...{
        key: `carry ${unit.key}`,
        title: `${rolls(unit) ? 'Roll' : 'Carry'} ${unit.name}`,
        minutes: carry,
      },
      ...(rolls(unit) ? { hands: 1, kg: 0 } : { hands: handsOf(unit), kg: unit.grams / 1000 }),
      ...{ after: [], canDrop: false, owner: null },
    })),
    ...steps.map((step): Plain => {
      const pieces = piecesOf(step);
      const crates = [...new Set(pieces.flatMap((key) => crateOf.get(key) ?? []))];
      const own = pieces.flatMap((key) => bare.get(key) ?? []);
      const under = step.act === 'module' ? [...first, ...tables.map(({ id }) => `table ${id}`)] : [];
      return {
        key: step.key,
        title: step.title,
        minutes: MINUTES[step.act === 'dressing' ? 'thing' : step.act] * countIn(step) + own.length * carry,
        hands: Math.max(1, ...own.map(handsOf)),
        kg: Math.max(0, ...own.map(({ grams }) => grams / 1000)),
        after: [...step.after, ...crates.map((key) => `carry ${key}`), ...under],
        canDrop: step.act === 'dressing',
        owner: owners.get(step.modules[0] ?? '') ?? null,
      };
    }),
    ...circuitTasks(
      scene,
      steps.flatMap(({ key, act }) => (act === 'module' ? [key] : [])),
      BACKWARDS.has(phase) ? 'Disconnect' : 'Connect',
    ),
    ...(isHome ? [] : currentContents(scene, 'barrier')).map((barrier): Plain => ({
      ...{ key: `barrier ${barrier.id}`, title: barrier.name, minutes: MINUTES.barrier, hands: 1 },
      ...{ after: [], canDrop: false, owner: null, kg: 0 },
    })),
  ];
}

/** Each cable that feeds something is joined once all modules stand; what need not stay on may be left dark. */
function circuitTasks(scene: Scene, modules: readonly string[], verb: string): Plain[] {
  const fed = new Set(listOf(scene, 'device').map(({ circuit }) => circuit));
  return listOf(scene, 'circuit')
    .filter(({ id, supply }) => supply !== null && fed.has(id))
    .map(({ id, name, connectors, essential }): Plain => ({
      ...{ key: `circuit ${id}`, title: `${verb} ${name}` },
      minutes: MINUTES.circuit + MINUTES.connector * connectors.length,
      ...{ hands: 1, after: [...modules], canDrop: !essential, owner: null, kg: 0 },
    }));
}

/** How many carry a thing that is loaded. */
export const handsOf = ({ lift, w, d }: LoadUnit): number => handsToCarry(lift, Math.max(w, d));

/** What each of the hands of a task bears, kg. */
export const loadOf = ({ kg, hands }: Pick<ShowTask, 'kg' | 'hands'>): number => (hands > 0 ? kg / hands : 0);

/** Keys of the carried pieces that a step sets down. */
function piecesOf({ key, act, pieces }: Step): string[] {
  const [, ...words] = key.split(' ');
  if (act === 'module') return [`module-${words[0]}`];
  if (act === 'building') return [`building-${words[0]}`];
  if (act === 'part') return [`part-${words[0]}-${Number(words[1]) + 1}`];
  if (key.startsWith('deck ')) return [`deck-${words[0]}`];
  if (act === 'bridge') return pieces.map((index) => `${words[0]}-${words[1]}-${index + 1}`);
  return [];
}

/** How often an act is done in a step. */
const countIn = ({ act, pieces, things }: Step): number =>
  act === 'dressing' ? things : act === 'bridge' ? Math.max(1, pieces.length) : 1;

/** By module name the owner of the section its middle lies in. */
function ownersByModule(scene: Scene): ReadonlyMap<string, string> {
  const sections = listOf(scene, 'section');
  return new Map(
    listOf(scene, 'module').flatMap((module) => {
      const { x, y } = centreOf(module);
      const owner = sections.find((section) => containsPoint(section, x, y))?.owner;
      return owner ? [[module.name, owner] as const] : [];
    }),
  );
}

/** Tasks of one's own, before everything, once all modules stand, or after everything. */
function ownTasks(chores: readonly Chore[], planned: readonly ShowTask[], phase: ShowPhase): ShowTask[] {
  // Taking down is turned round afterwards.
  const turned = { first: 'last', modules: 'modules', last: 'first' } as const;
  const own = chores
    .filter(({ task }) => task === '')
    .map((chore) => ({ id: chore.id, turn: BACKWARDS.has(phase) ? turned[chore.turn] : chore.turn, chore }));
  const first = own.filter(({ turn }) => turn === 'first').map(({ id }) => `own ${id}`);
  const modules = planned.filter(({ key }) => key.startsWith('module ')).map(({ key }) => key);
  const all = planned.map(({ key }) => key);
  for (const task of planned) task.after = [...task.after, ...first];
  return own.map(({ id, turn, chore }): ShowTask => {
    const others = own.filter((one) => one.turn !== 'last' && one.turn !== turn);
    return {
      ...{ key: `own ${id}`, title: chore.name, minutes: chore.minutes ?? MINUTES.own },
      ...{ hands: chore.hands ?? 1, isOwn: true, isGuess: chore.minutes === null, canDrop: true },
      ...{ chore, owner: null, kg: 0 },
      after:
        turn === 'first'
          ? []
          : [...(turn === 'modules' ? modules : all), ...others.map((one) => `own ${one.id}`)],
    };
  });
}

/** What was first is last. */
function backwards(tasks: readonly ShowTask[]): ShowTask[] {
  const after = new Map(tasks.map(({ key }): [string, string[]] => [key, []]));
  for (const { key, after: before } of tasks) for (const one of before) after.get(one)?.push(key);
  return tasks.map((task) => ({ ...task, after: after.get(task.key) ?? [] }));
}

/** Without those that are left out: what waited for one waits for what that waited for. */
function inTurn(tasks: readonly ShowTask[]): ShowTask[] {
  const byKey = new Map(tasks.map((task) => [task.key, task]));
  const resolved = new Map<string, string[]>();
  const waitsFor = (key: string): string[] => {
    const done = resolved.get(key);
    if (done) return done;
    resolved.set(key, []);
    const task = byKey.get(key);
    const list = (task?.after ?? []).flatMap((one) => {
      const before = byKey.get(one);
      if (!before) return [];
      return before.chore?.dropped ? waitsFor(one) : [one];
    });
    const unique = [...new Set(list)];
    resolved.set(key, unique);
    return unique;
  };
  return tasks.map((task) => ({ ...task, after: waitsFor(task.key) }));
}
