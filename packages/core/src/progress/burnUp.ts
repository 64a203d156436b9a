import { isoAfter, displayOf, listOf, type Scene } from '../document/index.ts';
import { dateIn, weekdayOf } from './days.ts';

// What was done, day by day, summed.

export interface BurnUp {
  /** ISO dates with work sessions, in order. */
  days: string[];
  /** Up to and with each of them. */
  hours: number[];
  pieces: number[];
  /** By week, from its Monday: hours of each person. */
  weeks: { monday: string; hours: Readonly<Record<string, number>> }[];
}

/** Hours and pieces of all sessions that are over, each on the day it began by its builder's own calendar. */
export function burnUp(scene: Scene): BurnUp {
  const zones = new Map(listOf(scene, 'calendar').map(({ person, zone }) => [person, zone]));
  const byDay = new Map<string, { hours: number; pieces: number }>();
  const byWeek = new Map<string, Record<string, number>>();
  for (const { person, start, minutes, pieces } of listOf(scene, 'session')) {
    if (minutes === null) continue;
    const date = dateIn(start, zones.get(person) ?? '');
    const day = byDay.get(date) ?? { hours: 0, pieces: 0 };
    byDay.set(date, { hours: day.hours + minutes / 60, pieces: day.pieces + (pieces ?? 0) });
    const monday = mondayOf(date);
    const week = byWeek.get(monday) ?? {};
    const who = person ?? '';
    byWeek.set(monday, { ...week, [who]: (week[who] ?? 0) + minutes / 60 });
  }
  const days = [...byDay.keys()].sort();
  let [hours, pieces] = [0, 0];
  const sums = days.map((day) => {
    hours += byDay.get(day)?.hours ?? 0;
    pieces += byDay.get(day)?.pieces ?? 0;
    return { hours, pieces };
  });
  return {
    days,
    hours: sums.map((sum) => sum.hours),
    pieces: sums.map((sum) => sum.pieces),
    weeks: [...byWeek].sort(([a], [b]) => (a < b ? -1 : 1)).map(([monday, hours]) => ({ monday, hours })),
  };
}

const mondayOf = (date: string): string => isoAfter(date, -weekdayOf(date));

/** The straight line from the first day to the show that a budget is planned along; null where a day is not set. */
export function plannedLine(scene: Scene, budget: number): { date: string; value: number }[] | null {
  const { startDate, showDate } = displayOf(scene);
  if (!startDate || !showDate || showDate <= startDate) return null;
  return [
    { date: startDate, value: 0 },
    { date: showDate, value: budget },
  ];
}
