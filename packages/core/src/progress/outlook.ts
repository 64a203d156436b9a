import {
  isoAfter,
  displayOf,
  listOf,
  type Scene,
  type Section,
  type Task,
  daysBetween,
} from '../document/index.ts';
import { weekdayOf } from './days.ts';
import type { ThreeGuesses } from './earned.ts';
import { effortOf, type PieceCounts } from './effort.ts';
import {
  RandomDraws,
  chanceBy,
  dayOf,
  forecast,
  type Forecast,
  type ForecastProblem,
  type LeftWork,
} from './forecast.ts';
import { methodOf, rateOf, speedSpread } from './rates.ts';
import { workDone } from './steps.ts';

// Builds the forecast of a scene: work left, builders and their calendars.

/** How far ahead a forecast looks, days. */
const HORIZON = 730;
/** Where only one guess is given: at best and at worst, as shares of it (ours, no source). */
const AT_BEST = 0.7;
const AT_WORST = 1.8;

/** What an idea is tried with: fewer runs, of the sections that can matter, the most critical first. */
const MOVE_RUNS = 400;
const MOVE_SECTIONS = 6;

/** What changes in a forecast when something is done about it. */
export interface ForecastScenario {
  words: string;
  /** Helpers of sections, by section. */
  helper?: { section: string; person: string };
  /** A section whose work is made less, as a share of it. */
  simpler?: { section: string; by: number };
  /** Parts that come at once: of one order, or of all for a section. */
  parts?: { section: string } | { order: string };
}

export interface Outlook {
  today: string;
  /** The day by which half and nine in ten of the runs are done, ISO dates; null: not within two years. */
  half: string | null;
  late: string | null;
  shows: { name: string; date: string; chance: number }[];
  sections: { id: string; half: string | null; late: string | null; critical: number }[];
  /**
   * What moves the odds for the next show most, the best first: the chance with it and without, and by how many days
   * the middle of the runs ends sooner.
   */
  moves: { words: string; chance: number; now: number; sooner: number }[];
  runs: number;
  /** What is not known, and the letters of the sections that are left out of all this for it. */
  missing: string[];
  without: string[];
}
export type OutlookAnswer = { ok: true; outlook: Outlook } | { ok: false; missing: string[] };

/**
 * When the display will be done, with odds, from guesses of work, tasks, calendars and logged sessions. It names what it
 * lacks instead of guessing: every section that is not done needs hours or counted pieces, an owner, and everybody who
 * builds a calendar. Sections that lack any are left out and named; when none is left there is no forecast.
 * @param today ISO date
 * @param options.counts pieces of each section, for those without typed hours
 */
export function outlook(
  scene: Scene,
  today: string,
  { runs, seed, counts }: { runs: number; seed: number; counts: PieceCounts },
): OutlookAnswer {
  const { missing, without } = lacking(scene, counts);
  const known = unfinished(scene).filter(({ id }) => !without.has(id));
  if (missing.length > 0 && known.length === 0) return { ok: false, missing };
  const shows = showsOf(scene).filter(({ date }) => date >= today);
  const plan = {
    scene,
    today,
    counts,
    without,
    luck: new RandomDraws(runs, seed),
    ...peopleOf(scene, today),
  };
  const base = play(plan, runs, {});
  const date = (day: number) => (day >= base.horizon ? null : isoAfter(today, Math.max(0, day)));
  const [next] = shows;
  const moves = next ? movesFor(plan, next.date, Math.min(runs, MOVE_RUNS)) : [];
  return {
    ok: true,
    outlook: {
      today,
      half: date(dayOf(base.finish, 0.5)),
      late: date(dayOf(base.finish, 0.9)),
      shows: shows.map((show) => ({ ...show, chance: readyBy(base.finish, today, show.date) })),
      sections: [...base.bySection].map(([id, finish]) => ({
        id,
        half: date(dayOf(finish, 0.5)),
        late: date(dayOf(finish, 0.9)),
        critical: (base.critical.get(id) ?? 0) / runs,
      })),
      moves,
      runs,
      missing,
      without: [...without].map((id) => scene.section[id].letter).sort(),
    },
  };
}

interface Plan {
  scene: Scene;
  today: string;
  counts: PieceCounts;
  luck: RandomDraws;
  /** Sections that are left out, with their tasks. */
  without: ReadonlySet<string>;
  /** Everybody with a calendar: their ids, and their hours on each day with how their speed scatters. */
  ids: readonly string[];
  people: ForecastProblem['people'];
}

function peopleOf(scene: Scene, today: string): Pick<Plan, 'ids' | 'people'> {
  const ids = [
    ...new Set(listOf(scene, 'calendar').flatMap(({ person }) => (person === null ? [] : [person]))),
  ];
  return {
    ids,
    people: ids.map((person) => ({
      hours: hoursAhead(scene, person, today, HORIZON),
      spread: speedSpread(scene, person),
    })),
  };
}

/** The share of runs that are done before the day of a show: what its own evening would still give comes too late. */
const readyBy = (finish: Int32Array, today: string, show: string): number =>
  chanceBy(finish, daysBetween(today, show) - 1);

/** Every idea played with the same luck; those that help, the best first. */
function movesFor(plan: Plan, show: string, runs: number): Outlook['moves'] {
  const base = play(plan, runs, {});
  const now = readyBy(base.finish, plan.today, show);
  const half = dayOf(base.finish, 0.5);
  return scenarios(plan, base)
    .map((scenario) => {
      const { finish } = play(plan, runs, scenario);
      return {
        words: scenario.words,
        ...{ chance: readyBy(finish, plan.today, show), now, sooner: half - dayOf(finish, 0.5) },
      };
    })
    .filter((move) => move.chance > move.now || move.sooner > 0)
    .sort((a, b) => b.chance - a.chance || b.sooner - a.sooner || (a.words < b.words ? -1 : 1))
    .slice(0, 6);
}

const unfinished = (scene: Scene) => listOf(scene, 'section').filter(({ stage }) => stage !== 'done');

/** Tasks that are not done and with guessed or counted work, three estimates each. */
function guessedTasks(scene: Scene): { task: Task; guess: ThreeGuesses; owner: string | null }[] {
  return listOf(scene, 'task').flatMap((task) => {
    const section = task.section === null ? undefined : scene.section[task.section];
    if (task.done !== null || section?.stage === 'done') return [];
    const owner = task.owner ?? section?.owner ?? null;
    const guess = guessOf(scene, task, owner);
    return guess ? [{ task, guess, owner }] : [];
  });
}

/** Three guesses of a task, hours: as typed; else spread about its single guess or its counted pieces; null: unknown. */
export function guessOf(
  scene: Scene,
  {
    low,
    likely,
    high,
    pieces,
    work,
    section,
  }: Pick<Task, 'low' | 'likely' | 'high' | 'pieces' | 'work' | 'section'>,
  person: string | null,
): ThreeGuesses | null {
  const { perHour } = rateOf(scene, person, work, methodOf(scene, section));
  const middle = likely ?? (pieces !== null && perHour > 0 ? pieces / perHour : null);
  if (middle === null) return null;
  const about = around(middle);
  return {
    low: Math.min(middle, low ?? about.low),
    likely: middle,
    high: Math.max(middle, high ?? about.high),
  };
}

/** Tasks that come, round about, after themselves. */
export function circleOf(tasks: readonly Pick<Task, 'id' | 'after'>[]): string[] {
  const by = new Map(tasks.map((task) => [task.id, task]));
  const state = new Map<string, 'open' | 'clear'>();
  const visit = (id: string, path: string[]): string[] | null => {
    if (state.get(id) === 'clear') return null;
    if (state.get(id) === 'open') return path.slice(path.indexOf(id));
    state.set(id, 'open');
    for (const before of by.get(id)?.after ?? []) {
      const circle = visit(before, [...path, id]);
      if (circle) return circle;
    }
    state.set(id, 'clear');
    return null;
  };
  for (const { id } of tasks) {
    const circle = visit(id, []);
    if (circle) return circle;
  }
  return [];
}

/** Missing inputs, and the sections without a forecast because of them. */
function lacking(scene: Scene, counts: PieceCounts): { missing: string[]; without: Set<string> } {
  const has = new Set(listOf(scene, 'calendar').flatMap(({ person }) => (person === null ? [] : [person])));
  const missing: string[] = [];
  const without = new Set<string>();
  const sections = unfinished(scene);
  const lack = (section: string | null, words: string) => {
    if (!missing.includes(words)) missing.push(words);
    if (section !== null) without.add(section);
  };
  const builder = (section: string | null, person: string) => {
    if (!has.has(person))
      lack(section, `${scene.person[person]?.name ?? person}: on which days, how many hours?`);
  };
  if (listOf(scene, 'section').length === 0) missing.push('There are no sections.');
  for (const section of sections) {
    const { id, letter, owner } = section;
    const { hours, guessed } = effortOf(scene, section, counts);
    if (hours === null)
      lack(id, `Section ${letter}: how many hours in all? Nothing is counted for it either.`);
    if (guessed.length > 0)
      lack(
        null,
        `Section ${letter}: ${guessed.map(({ name, hours: each }) => `“${name}” ${each.toFixed(1)} h`).join(', ')} by ${guessed.length === 1 ? 'its plain shell' : 'their plain shells'}, a guess; ${guessed.length === 1 ? 'it has' : 'they have'} no parts list.`,
      );
    if (owner === null) lack(id, `Section ${letter}: who builds it?`);
    else builder(id, owner);
  }
  const circle = circleOf(listOf(scene, 'task'));
  if (circle.length > 0) {
    const names = circle.map((task) => `“${scene.task[task]?.name ?? task}”`);
    lack(null, `These tasks come after each other in a circle: ${names.join(', ')}.`);
    // Nothing can be played in a circle.
    for (const { id } of sections) without.add(id);
  }
  for (const { task, owner } of guessedTasks(scene)) {
    if (owner === null) lack(task.section, `Task “${task.name}”: who does it?`);
    else builder(task.section, owner);
  }
  return { missing, without };
}

/** The shows a display is built for, by their dates. */
export function showsOf(scene: Scene): { name: string; date: string }[] {
  const { showDate, showName } = displayOf(scene);
  return [
    ...(showDate ? [{ name: showName || 'the show', date: showDate }] : []),
    ...listOf(scene, 'milestone')
      .filter(({ show }) => show)
      .map(({ name, date }) => ({ name, date })),
  ].sort((a, b) => (a.date < b.date ? -1 : 1));
}

/** Hours a person has on each day from a date on. */
export function hoursAhead(scene: Scene, person: string, from: string, days: number): number[] {
  const calendars = listOf(scene, 'calendar').filter((calendar) => calendar.person === person);
  return Array.from({ length: days }, (_, i) => {
    const date = isoAfter(from, i);
    const weekday = weekdayOf(date);
    return calendars.reduce(
      (sum, { weekly, away }) =>
        sum + (away.some((gone) => gone.from <= date && date <= gone.to) ? 0 : weekly[weekday]),
      0,
    );
  });
}

function play(plan: Plan, runs: number, scenario: Partial<ForecastScenario>): Forecast {
  const { scene, today, counts, without, ids, people, luck } = plan;
  const { helper, simpler, parts } = scenario;
  const work: LeftWork[] = [];
  const add = (one: Omit<LeftWork, 'person'>, person: string | null) =>
    work.push({ ...one, person: ids.indexOf(person ?? '') });
  const tasks = guessedTasks(scene).filter(
    ({ task, owner }) => ids.includes(owner ?? '') && !without.has(task.section ?? ''),
  );
  const indices = new Map(tasks.map(({ task }, i) => [task.id, i]));
  const share = (section: string | null) => (simpler?.section === section ? 1 - simpler.by : 1);
  const inTasks = new Map<string, number>();
  for (const { task, guess, owner } of tasks) {
    const here = task.section !== null && scene.section[task.section] ? task.section : null;
    const less = share(here);
    if (here !== null) inTasks.set(here, (inTasks.get(here) ?? 0) + guess.likely);
    const arrives = task.parts === null ? 0 : Math.max(0, daysBetween(today, task.parts));
    add(
      {
        id: task.id,
        section: here ?? '',
        ready: parts && 'section' in parts && parts.section === here ? 0 : arrives,
        after: task.after.flatMap((id) => indices.get(id) ?? []),
        guess: { low: guess.low * less, likely: guess.likely * less, high: guess.high * less },
        rests: task.rests / 24,
      },
      owner,
    );
  }
  for (const section of unfinished(scene).filter(({ id }) => !without.has(id))) {
    const whole = (effortOf(scene, section, counts).hours ?? 0) * (1 - workDone(scene, section));
    // What its tasks do not say of it is left besides them.
    const left = Math.max(0, whole - (inTasks.get(section.id) ?? 0)) * share(section.id);
    const ready = partsDay(scene, section.id, today, parts);
    const shared = helper?.section === section.id && ids.includes(helper.person);
    const piece = { section: section.id, ready, after: [], guess: around(shared ? left / 2 : left) };
    add({ id: section.id, ...piece }, section.owner);
    if (shared) add({ id: `${section.id} helped`, ...piece }, helper.person);
  }
  return forecast({ work, people, runs, luck });
}

/** Three guesses about one. */
const around = (hours: number): ThreeGuesses => ({
  low: hours * AT_BEST,
  likely: hours,
  high: hours * AT_WORST,
});

const awaited = (scene: Scene, section: string) =>
  listOf(scene, 'order').flatMap(({ id, name, state, expected, lines }) =>
    expected && state !== 'away' && lines.some((line) => line.section === section && line.came < line.qty)
      ? [{ id, name, state, expected }]
      : [],
  );

/** The day, from today, on which the last parcel for a section is expected; a draft order counts from today. */
function partsDay(
  scene: Scene,
  section: string,
  today: string,
  at: ForecastScenario['parts'] | undefined,
): number {
  if (at && 'section' in at && at.section === section) return 0;
  const days = awaited(scene, section)
    .filter(({ id }) => !(at && 'order' in at && at.order === id))
    .map(({ expected }) => daysBetween(today, expected));
  return Math.max(0, ...days);
}

/** What one could do about it, for the sections of those on whom the end hangs. */
function scenarios({ scene, today, without, ids }: Plan, base: Forecast): ForecastScenario[] {
  const critical = ({ id }: Section) => base.critical.get(id) ?? 0;
  const hangs = new Map<string | null, number>();
  for (const section of unfinished(scene))
    hangs.set(section.owner, Math.max(hangs.get(section.owner) ?? 0, critical(section)));
  const sections = unfinished(scene)
    .filter(({ id, owner }) => !without.has(id) && (hangs.get(owner) ?? 0) > 0)
    .toSorted((a, b) => (hangs.get(b.owner) ?? 0) - (hangs.get(a.owner) ?? 0) || critical(b) - critical(a))
    .slice(0, MOVE_SECTIONS);
  const orders = new Map(sections.flatMap(({ id }) => awaited(scene, id).map((order) => [order.id, order])));
  return [
    ...sections.flatMap(({ id, letter, owner }) => [
      ...ids
        .filter((person) => person !== owner)
        .map((person) => ({
          words: `${scene.person[person]?.name ?? person} takes half of what is left of section ${letter}`,
          helper: { section: id, person },
        })),
      { words: `Section ${letter} made a quarter simpler`, simpler: { section: id, by: 0.25 } },
      ...(partsDay(scene, id, today, undefined) > 0
        ? [{ words: `The parts of section ${letter} are there at once`, parts: { section: id } }]
        : []),
    ]),
    ...[...orders.values()]
      .filter(({ expected }) => expected > today)
      .map(({ id, name, state }) => ({
        words:
          state === 'draft'
            ? `Order “${name}”, a draft yet, sent and here today`
            : `Order “${name}” here today`,
        parts: { order: id },
      })),
  ];
}
