import { listOf, displayOf, type Scene, type Section } from '../scene/index.ts';
import { chanceBy, dayOf, forecast, type Forecast, type LeftWork } from './forecast.ts';
import type { EarnedValue, ThreeGuesses } from './earned.ts';
import { hoursBySection, speedSpread } from './rates.ts';
import { STEPS, stepsDone } from './steps.ts';

/** From a scene to what can be said of its end: what is left, who does it, when they can. */

const DAY_MS = 86_400_000;
/** How far ahead a forecast looks, days. */
const HORIZON = 730;
/** Where only one guess is given: at best and at worst, as shares of it (ours, no source). */
const AT_BEST = 0.7;
const AT_WORST = 1.8;

/** Days from one ISO date to another. */
export const daysUntil = (from: string, to: string): number =>
  Math.round((Date.parse(to) - Date.parse(from)) / DAY_MS);
const isoAfter = (from: string, days: number): string =>
  new Date(Date.parse(from) + days * DAY_MS).toISOString().slice(0, 10);

/** The share of a section's work that is behind it, 0 to 1: stages by the display's weights, the present one in part. */
export function workDone(scene: Scene, section: Pick<Section, 'stage' | 'stageDone'>): number {
  const weights = displayOf(scene).stageWeights;
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  if (all === 0) return stepsDone(section) / STEPS;
  const steps = stepsDone(section);
  return weights.reduce((sum, weight, i) => sum + weight * Math.min(1, Math.max(0, steps - i)), 0) / all;
}

/** Earned value in hours over the sections whose work somebody has guessed; planned evenly from start to show. */
export function earnedValue(
  scene: Scene,
  today: string,
): EarnedValue & { sections: number; guessed: number } {
  const { startDate, showDate } = displayOf(scene);
  const sections = listOf(scene, 'section');
  const guessed = sections.filter(({ hours }) => hours !== null);
  const budget = guessed.reduce((sum, { hours }) => sum + (hours ?? 0), 0);
  const logged = hoursBySection(scene);
  const span = startDate && showDate ? daysUntil(startDate, showDate) : 0;
  const gone = startDate && span > 0 ? Math.min(1, Math.max(0, daysUntil(startDate, today) / span)) : 0;
  return {
    planned: budget * gone,
    earned: guessed.reduce((sum, section) => sum + (section.hours ?? 0) * workDone(scene, section), 0),
    actual: guessed.reduce((sum, { id }) => sum + (logged.get(id) ?? 0), 0),
    budget,
    sections: sections.length,
    guessed: guessed.length,
  };
}

/** What changes in a forecast when something is done about it. */
export interface Scenario {
  words: string;
  /** Sections whose work is shared with somebody else: by whom. */
  helper?: { section: string; person: string };
  /** A section whose work is made less, as a share of it. */
  simpler?: { section: string; by: number };
  /** Parts that come at once. */
  parts?: { section: string };
}

export interface Outlook {
  today: string;
  /** The day by which half and nine in ten of the runs are done, ISO dates; null: not within two years. */
  half: string | null;
  late: string | null;
  shows: { name: string; date: string; chance: number }[];
  sections: { id: string; half: string | null; critical: number }[];
  /** What moves the odds for the next show most, the best first. */
  moves: { words: string; chance: number }[];
  runs: number;
}
export type OutlookAnswer = { ok: true; outlook: Outlook } | { ok: false; missing: string[] };

/**
 * When the display will be done, with odds, from guesses of work, calendars and what was logged. It says what it lacks
 * instead of guessing: every section that is not done needs hours, an owner, and that owner a calendar.
 * @param today ISO date
 */
export function outlook(
  scene: Scene,
  today: string,
  { runs, seed }: { runs: number; seed: number },
): OutlookAnswer {
  const missing = lacking(scene);
  if (missing.length > 0) return { ok: false, missing };
  const shows = showsAfter(scene, today);
  const base = play(scene, today, runs, seed, {});
  const date = (day: number) => (day >= base.horizon ? null : isoAfter(today, day));
  const [next] = shows;
  const chance = (played: Forecast) => (next ? chanceBy(played.finish, daysUntil(today, next.date)) : 0);
  const now = chance(base);
  const moves = next
    ? scenarios(scene, today)
        .map((scenario) => ({
          words: scenario.words,
          chance: chance(play(scene, today, runs, seed, scenario)),
        }))
        .filter((move) => move.chance > now)
        .sort((a, b) => b.chance - a.chance || (a.words < b.words ? -1 : 1))
    : [];
  return {
    ok: true,
    outlook: {
      today,
      half: date(dayOf(base.finish, 0.5)),
      late: date(dayOf(base.finish, 0.9)),
      shows: shows.map((show) => ({ ...show, chance: chanceBy(base.finish, daysUntil(today, show.date)) })),
      sections: [...base.bySection].map(([id, finish]) => ({
        id,
        half: date(dayOf(finish, 0.5)),
        critical: (base.critical.get(id) ?? 0) / runs,
      })),
      moves: moves.slice(0, 6),
      runs,
    },
  };
}

const unfinished = (scene: Scene) => listOf(scene, 'section').filter(({ stage }) => stage !== 'done');

function lacking(scene: Scene): string[] {
  const has = new Set(listOf(scene, 'calendar').flatMap(({ person }) => (person === null ? [] : [person])));
  const missing: string[] = [];
  const sections = unfinished(scene);
  if (listOf(scene, 'section').length === 0) missing.push('There are no sections.');
  for (const { letter, hours, owner } of sections) {
    if (hours === null) missing.push(`Section ${letter}: how many hours in all?`);
    if (owner === null) missing.push(`Section ${letter}: who builds it?`);
  }
  for (const person of new Set(sections.flatMap(({ owner }) => (owner === null ? [] : [owner]))))
    if (!has.has(person))
      missing.push(`${scene.person[person]?.name ?? person}: on which days, how many hours?`);
  return missing;
}

function showsAfter(scene: Scene, today: string): { name: string; date: string }[] {
  const { showDate, showName } = displayOf(scene);
  return [
    ...(showDate ? [{ name: showName || 'the show', date: showDate }] : []),
    ...listOf(scene, 'milestone')
      .filter(({ show }) => show)
      .map(({ name, date }) => ({ name, date })),
  ]
    .filter(({ date }) => date >= today)
    .sort((a, b) => (a.date < b.date ? -1 : 1));
}

/** The hours somebody has on each day from a date on. */
export function hoursAhead(scene: Scene, person: string, from: string, days: number): number[] {
  const calendars = listOf(scene, 'calendar').filter((calendar) => calendar.person === person);
  return Array.from({ length: days }, (_, i) => {
    const date = isoAfter(from, i);
    // Monday first.
    const weekday = (new Date(`${date}T00:00:00Z`).getUTCDay() + 6) % 7;
    return calendars.reduce(
      (sum, { weekly, away }) =>
        sum + (away.some((gone) => gone.from <= date && date <= gone.to) ? 0 : weekly[weekday]),
      0,
    );
  });
}

function play(
  scene: Scene,
  today: string,
  runs: number,
  seed: number,
  scenario: Partial<Scenario>,
): Forecast {
  const people = [
    ...new Set(listOf(scene, 'calendar').flatMap(({ person }) => (person === null ? [] : [person]))),
  ];
  const { helper, simpler, parts } = scenario;
  const work: LeftWork[] = [];
  for (const section of unfinished(scene)) {
    const whole = (section.hours ?? 0) * (1 - workDone(scene, section));
    const left = simpler?.section === section.id ? whole * (1 - simpler.by) : whole;
    const ready = parts?.section === section.id ? 0 : partsDay(scene, section.id, today);
    const add = (id: string, person: string | null, hours: number) =>
      work.push({
        ...{ id, section: section.id, ready, after: [], guess: around(hours) },
        person: people.indexOf(person ?? ''),
      });
    const shared = helper?.section === section.id && people.includes(helper.person);
    add(section.id, section.owner, shared ? left / 2 : left);
    if (shared) add(`${section.id} helped`, helper.person, left / 2);
  }
  return forecast({
    work,
    people: people.map((person) => ({
      hours: hoursAhead(scene, person, today, HORIZON),
      spread: speedSpread(scene, person),
    })),
    ...{ runs, seed },
  });
}

/** Three guesses about one. */
const around = (hours: number): ThreeGuesses => ({
  low: hours * AT_BEST,
  likely: hours,
  high: hours * AT_WORST,
});

/** The day, from today, on which the last parcel for a section is expected. */
function partsDay(scene: Scene, section: string, today: string): number {
  const days = listOf(scene, 'order').flatMap(({ state, expected, lines }) =>
    expected && state !== 'away' && state !== 'draft' && lines.some((line) => line.section === section)
      ? [daysUntil(today, expected)]
      : [],
  );
  return Math.max(0, ...days);
}

/** What one could do about it: a helper for each section, a section made simpler, its parts at once. */
function scenarios(scene: Scene, today: string): Scenario[] {
  const people = listOf(scene, 'calendar').flatMap(({ person }) => (person === null ? [] : [person]));
  return unfinished(scene).flatMap(({ id, letter, owner }) => [
    ...people
      .filter((person) => person !== owner)
      .map((person) => ({
        words: `${scene.person[person]?.name ?? person} takes half of what is left of section ${letter}`,
        helper: { section: id, person },
      })),
    { words: `Section ${letter} made a quarter simpler`, simpler: { section: id, by: 0.25 } },
    ...(partsDay(scene, id, today) > 0
      ? [{ words: `The parts of section ${letter} are there at once`, parts: { section: id } }]
      : []),
  ]);
}
