import { isoAfter, displayOf, isComing, listOf, sectionsOf, type Scene } from '../document/index.ts';
import { momentOf, weekdayOf } from './days.ts';

// Who sits down when, in their own towns, and the days that are waited for.

const HOUR_MS = 3_600_000;

/** A session in a person's calendar. */
export interface Sitting {
  person: string;
  /** The date by their own calendar. */
  date: string;
  /** ms since the epoch. */
  start: number;
  end: number;
}

/** The sittings of every calendar from one date to another, both within, by their start: clocks as in each zone. */
export function sittings(scene: Scene, from: string, to: string): Sitting[] {
  const found: Sitting[] = [];
  for (const { person, weekly, away, zone, from: begins, starts } of listOf(scene, 'calendar')) {
    if (person === null) continue;
    for (let date = from; date <= to; date = isoAfter(date, 1)) {
      const weekday = weekdayOf(date);
      const hours = weekly[weekday];
      if (hours === 0 || away.some((gone) => gone.from <= date && date <= gone.to)) continue;
      const start = momentOf(date, starts[weekday] ?? begins, zone);
      found.push({ person, date, start, end: start + hours * HOUR_MS });
    }
  }
  return found.sort((a, b) => a.start - b.start || (a.person < b.person ? -1 : 1));
}

/** A time in which several sit at their tables at once. */
export interface Together {
  start: number;
  end: number;
  people: string[];
}

/** The times with the most people at once, longest first among equals; empty when no two people overlap. */
export function together(all: readonly Sitting[], least = 2): Together[] {
  const edges = [...new Set(all.flatMap(({ start, end }) => [start, end]))].sort((a, b) => a - b);
  const times: Together[] = [];
  for (let i = 0; i + 1 < edges.length; i++) {
    const [start, end] = [edges[i], edges[i + 1]];
    const people = [
      ...new Set(all.filter((one) => one.start <= start && one.end >= end).map(({ person }) => person)),
    ].sort();
    const last = times.at(-1);
    if (people.length < least) continue;
    if (last?.end === start && last.people.join() === people.join()) last.end = end;
    else times.push({ start, end, people });
  }
  return times.sort(
    (a, b) => b.people.length - a.people.length || b.end - b.start - (a.end - a.start) || a.start - b.start,
  );
}

/** What a whole day is waited for, in words. */
export const DAY_WORDS = {
  show: 'show',
  milestone: 'milestone',
  parcel: 'parcel due',
  parts: 'parts wanted',
  task: 'task due',
} as const;

/** A whole day that is waited for. */
export interface Day {
  date: string;
  what: keyof typeof DAY_WORDS;
  name: string;
  /** Of the thing it comes from. */
  id: string;
}

/** Such as “Task due: letter the signs”. */
export const dayLine = ({ what, name }: Day): string =>
  `${DAY_WORDS[what].charAt(0).toUpperCase()}${DAY_WORDS[what].slice(1)}: ${name}`;

/** Whether a day concerns a person: the parts of their own sections, tasks of theirs, and what concerns all. */
export function concerns(scene: Scene, { what, id }: Day, person: string | null): boolean {
  if (what === 'parts')
    return sectionsOf(scene, person).some((section) => section.id === id && section.stage !== 'done');
  if (what !== 'task') return true;
  const task = scene.task[id];
  // A task is its owner's, or else its section's builder's.
  return (task?.owner ?? scene.section[task?.section ?? '']?.owner ?? null) === person;
}

/** Each day of a show, told which one it is where there are several. */
const showDaysOf = (from: string, days: number, name: string, id: string): Day[] =>
  Array.from({ length: days }, (_, i) => ({
    date: isoAfter(from, i),
    what: 'show',
    name: days === 1 ? name : `${name}, day ${i + 1} of ${days}`,
    id: i === 0 ? id : `${id}-${i + 1}`,
  }));

/** Shows, milestones, parcels on their way, tasks with a day, and the days by which sections want their parts; by date. */
export function daysAhead(scene: Scene, from: string, to: string): Day[] {
  const { showDate, showName, showDays } = displayOf(scene);
  const days: Day[] = [
    ...(showDate ? showDaysOf(showDate, showDays, showName || 'The show', 'show') : []),
    ...listOf(scene, 'milestone').flatMap(({ id, date, name, show, showDays: long }) =>
      show ? showDaysOf(date, long, name, id) : [{ date, name, id, what: 'milestone' as const }],
    ),
    ...listOf(scene, 'order').flatMap((order) =>
      order.expected && isComing(order)
        ? [{ date: order.expected, what: 'parcel' as const, name: order.name, id: order.id }]
        : [],
    ),
    ...listOf(scene, 'task').flatMap(({ id, name, due, done }) =>
      due && done === null ? [{ date: due, what: 'task' as const, name, id }] : [],
    ),
    ...listOf(scene, 'section').flatMap(({ id, letter, partsBy }) =>
      partsBy
        ? [{ date: partsBy, what: 'parts' as const, name: `Parts of section ${letter} wanted`, id }]
        : [],
    ),
  ];
  return days
    .filter(({ date }) => from <= date && date <= to)
    .sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : a.id < b.id ? -1 : 1));
}
