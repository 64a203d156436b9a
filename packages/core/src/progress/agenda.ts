import { displayOf, isComing, listOf, type Scene } from '../scene/index.ts';
import { isoAfter, momentOf, weekdayOf } from './days.ts';

/** Who sits down when, in their own towns, and the days that are waited for. */

const HOUR_MS = 3_600_000;

/** A session somebody's calendar holds. */
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
  for (const { person, weekly, away, zone, from: begins } of listOf(scene, 'calendar')) {
    if (person === null) continue;
    for (let date = from; date <= to; date = isoAfter(date, 1)) {
      const hours = weekly[weekdayOf(date)];
      if (hours === 0 || away.some((gone) => gone.from <= date && date <= gone.to)) continue;
      const start = momentOf(date, begins, zone);
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

/** The times with the most people at once, longest first among equals; none where nobody ever meets. */
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

/** A whole day that is waited for. */
export interface Day {
  date: string;
  what: 'show' | 'milestone' | 'parcel' | 'parts';
  name: string;
  /** Of the thing it comes from. */
  id: string;
}

/** Shows, milestones, parcels on their way, and the days by which sections want their parts; by date. */
export function daysAhead(scene: Scene, from: string, to: string): Day[] {
  const { showDate, showName } = displayOf(scene);
  const days: Day[] = [
    ...(showDate
      ? [{ date: showDate, what: 'show' as const, name: showName || 'The show', id: 'show' }]
      : []),
    ...listOf(scene, 'milestone').map(({ id, date, name, show }) => ({
      ...{ date, name, id },
      what: show ? ('show' as const) : ('milestone' as const),
    })),
    ...listOf(scene, 'order').flatMap((order) =>
      order.expected && isComing(order)
        ? [{ date: order.expected, what: 'parcel' as const, name: order.name, id: order.id }]
        : [],
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
