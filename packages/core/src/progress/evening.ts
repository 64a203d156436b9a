import { countOf } from '../grid/index.ts';
import type { Transfer, Netted } from '../materials/index.ts';
import { isoAfter, listOf, sectionsOf, type Scene, type Task } from '../document/index.ts';
import { pert } from './earned.ts';
import { WORK_OF } from './effort.ts';
import { guessOf, hoursAhead } from './outlook.ts';
import { rateOf } from './rates.ts';
import { bestEvening, type EveningTask } from './tonight.ts';

// Tonight: tasks that a person can finish in the given time with all parts at hand.

export interface EveningAsk {
  person: string;
  minutes: number;
  /** Only this section; null: all of theirs. */
  section: string | null;
  /** ISO date. */
  today: string;
}
export interface EveningKnown {
  netted: readonly Netted[] | null;
  handOvers: readonly Transfer[] | null;
}
export interface Evening {
  chosen: { task: Task; minutes: number }[];
  spent: number;
  /** What is not for tonight, and why. */
  not: { task: Task; minutes: number | null; why: string }[];
  /** Pieces to order, for their sections. */
  order: { part: string; colour: string; qty: number }[];
  /** When they can next build after today, ISO date; null: not within four weeks. */
  next: string | null;
  bring: Transfer[];
  fetch: Transfer[];
  seams: Task[];
}

/** What it is worth, in minutes, to bring everything open in a stage of a section to its end: a choice of ours. */
const WHOLE = 60;
/** Searching stays exact and quick up to so many; of more, those of most worth a minute. */
const MAX_DOABLE = 40;
const MAX_ORDER = 60;
const AHEAD_DAYS = 28;

/**
 * The best use of an evening. Each task takes its mean by PERT and one deviation more (so that about five in six are
 * done in time), by the builder's own rates; it counts as much as it usually takes, and finishing all that is open
 * in a stage of a section counts an hour besides, shared among its tasks.
 */
export function eveningOf(
  scene: Scene,
  { person, minutes, section, today }: EveningAsk,
  known: EveningKnown,
): Evening {
  const own = new Set(sectionsOf(scene, person).map(({ id }) => id));
  const mine = listOf(scene, 'task').filter(
    (task) =>
      task.done === null &&
      (section === null || task.section === section) &&
      (task.owner === person || (task.owner === null && task.section !== null && own.has(task.section))),
  );
  const groups = new Map<string, number>();
  const group = (task: Task) => `${task.section ?? ''} ${task.stage ?? ''}`;
  for (const task of mine) groups.set(group(task), (groups.get(group(task)) ?? 0) + 1);
  const not: Evening['not'] = [];
  const ready: { task: Task; minutes: number; value: number }[] = [];
  for (const task of mine) {
    const guess = guessOf(scene, task, person);
    const takes = guess && carefully(scene, task, person, guess);
    const why = stops(scene, task, today, known.netted, mine);
    if (why) not.push({ task, minutes: takes, why });
    else if (guess === null || takes === null)
      not.push({ task, minutes: null, why: 'no estimate, and nothing is counted' });
    else if (takes > minutes) not.push({ task, minutes: takes, why: 'takes longer than there is tonight' });
    else
      ready.push({
        ...{ task, minutes: takes },
        value: 60 * pert(guess).mean + WHOLE / (groups.get(group(task)) ?? 1),
      });
  }
  const kept = withWhatComesBefore(scene, mostWorth(ready));
  const at = new Map(kept.map(({ task }, i) => [task.id, i]));
  const doable: EveningTask[] = kept.map(({ task, minutes: takes, value }) => ({
    ...{ id: task.id, minutes: takes, value },
    after: task.after.flatMap((id) => at.get(id) ?? []),
  }));
  const order = bestEvening(doable, minutes);
  const picked = new Set(order.map((i) => kept[i].task.id));
  for (const one of ready)
    if (!picked.has(one.task.id))
      not.push({
        ...{ task: one.task, minutes: one.minutes },
        why: !at.has(one.task.id)
          ? 'comes after something that cannot be done tonight'
          : 'the others are worth more',
      });
  const chosen = order.map((i) => ({ task: kept[i].task, minutes: kept[i].minutes }));
  const sections = section === null ? own : new Set([section]);
  const concerns = ({ section: of }: { section: string | null }) => of !== null && sections.has(of);
  const days = hoursAhead(scene, person, isoAfter(today, 1), AHEAD_DAYS);
  const next = days.findIndex((hours) => hours > 0);
  return {
    chosen,
    spent: chosen.reduce((sum, one) => sum + one.minutes, 0),
    not,
    order: (known.netted ?? [])
      .filter(({ short, demand }) => short > 0 && concerns(demand))
      .map(({ short, demand: { part, colour } }) => ({ part, colour, qty: short }))
      .toSorted((a, b) => b.qty - a.qty || (a.part + a.colour < b.part + b.colour ? -1 : 1))
      .slice(0, MAX_ORDER),
    next: next < 0 ? null : isoAfter(today, next + 1),
    bring: (known.handOvers ?? []).filter((one) => one.from === person && one.to !== person),
    fetch: (known.handOvers ?? []).filter((one) => one.to === person && one.from !== person && concerns(one)),
    seams: mine.filter(({ source }) => source.startsWith('seam:')),
  };
}

/** Minutes that a task is given: mean and one deviation of its guesses, widened by the scatter of its builder's rate. */
function carefully(scene: Scene, task: Task, person: string, guess: Parameters<typeof pert>[0]): number {
  const { mean, variance } = pert(guess);
  const byRate =
    task.likely === null ? Math.max(0, Math.exp(rateOf(scene, person, task.work).spread) - 1) : 0;
  const hours = mean + Math.max(Math.sqrt(variance), mean * byRate);
  // The table is laid in fives.
  return Math.max(5, Math.ceil((60 * hours) / 5) * 5);
}

/** Why a task cannot be done tonight, or null. */
function stops(
  scene: Scene,
  task: Task,
  today: string,
  netted: readonly Netted[] | null,
  mine: readonly Task[],
): string | null {
  if (task.parts !== null && task.parts > today) return `its parts come on ${task.parts}`;
  const ids = new Set(mine.map(({ id }) => id));
  const waits = task.after
    .map((id) => scene.task[id])
    .find((one) => one && one.done === null && !ids.has(one.id));
  if (waits) {
    const who = waits.owner ? ` of ${scene.person[waits.owner]?.name ?? waits.owner}` : '';
    return `comes after “${waits.name}”${who}`;
  }
  const missing = missingFor(scene, task, netted);
  return missing > 0 ? `${countOf(missing, 'piece')} of it not here yet` : null;
}

/** Pieces of what a task lays that are neither in the person's drawers nor at hand. */
function missingFor(scene: Scene, task: Task, netted: readonly Netted[] | null): number {
  const [kind, id] = task.source.split(':');
  const from =
    kind === 'block'
      ? (scene.module[id]?.name ?? null)
      : kind === 'list'
        ? (scene.partList[id]?.name ?? null)
        : null;
  if (from === null || task.pieces === null) return 0;
  return (netted ?? []).reduce((sum, { demand, short, late, ordered }) => {
    const touches = demand.needs.some(
      (need) => WORK_OF[need.purpose] === task.work && need.from.includes(from),
    );
    return demand.section === task.section && touches ? sum + short + late + ordered : sum;
  }, 0);
}

function mostWorth<T extends { task: Task; minutes: number; value: number }>(ready: readonly T[]): T[] {
  if (ready.length <= MAX_DOABLE) return [...ready];
  return ready.toSorted((a, b) => b.value / b.minutes - a.value / a.minutes).slice(0, MAX_DOABLE);
}

/** Without tasks that wait for something that cannot be done in the same evening. */
function withWhatComesBefore<T extends { task: Task }>(scene: Scene, list: readonly T[]): T[] {
  const ids = new Set(list.map(({ task }) => task.id));
  const free = list.filter(({ task }) =>
    task.after.every((id) => ids.has(id) || scene.task[id] === undefined || scene.task[id].done !== null),
  );
  return free.length === list.length ? free : withWhatComesBefore(scene, free);
}
