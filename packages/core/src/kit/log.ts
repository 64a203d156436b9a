import { daysBetween, displayOf, listOf, type Entity, type Scene } from '../document/index.ts';
import { daysAt, furtherShows } from '../transport/index.ts';

// What was noted at the show.

/** Visitors of one hour. */
export interface VisitorHour {
  /** ISO moment of its beginning. */
  at: string;
  count: number;
}

export interface ShowLog {
  /** Counted at this show, and at those before it. */
  visitors: number;
  earlier: number;
  /** Of this show by hour, the first first; several who count at once are added up. */
  hours: VisitorHour[];
  broke: Entity<'incident'>[];
  /** What is lent and not back. */
  out: Entity<'incident'>[];
  /** What came back. */
  back: Entity<'incident'>[];
  changes: Entity<'incident'>[];
}

/** Everything noted, the latest first. */
export function showLog(scene: Scene): ShowLog {
  const all = listOf(scene, 'incident').toSorted((a, b) => (a.at === b.at ? 0 : a.at < b.at ? 1 : -1));
  const of = (use: Entity<'incident'>['use']) => all.filter((one) => one.use === use);
  const display = displayOf(scene);
  const isNow = (at: string) =>
    (display.showDate !== null && isAbout(at, daysAt(display, display.showDate))) ||
    !furtherShows(scene).some((show) => isAbout(at, daysAt(show, show.date)));
  const hours = new Map<string, number>();
  let earlier = 0;
  for (const { at, count } of of('visitors'))
    if (isNow(at)) hours.set(at, (hours.get(at) ?? 0) + count);
    else earlier += count;
  return {
    visitors: [...hours.values()].reduce((sum, one) => sum + one, 0),
    earlier,
    hours: [...hours].map(([at, count]) => ({ at, count })).sort((a, b) => (a.at < b.at ? -1 : 1)),
    broke: of('broke'),
    out: of('lent').filter(({ ended }) => ended === null),
    back: of('lent').filter(({ ended }) => ended !== null),
    changes: of('change'),
  };
}

/** Whether a moment lies in some days; one off, since it is another day elsewhere on earth. */
const isAbout = (at: string, { from, to }: { from: string; to: string }): boolean =>
  daysBetween(from, at) >= -1 && daysBetween(at, to) >= -1;

/** Things by how often they broke, the most often first. */
export function brokenThings(scene: Scene): { what: string; times: number }[] {
  const times = new Map<string, number>();
  for (const { use, what } of listOf(scene, 'incident'))
    if (use === 'broke') times.set(what, (times.get(what) ?? 0) + 1);
  return [...times]
    .map(([what, count]) => ({ what, times: count }))
    .sort((a, b) => b.times - a.times || (a.what < b.what ? -1 : 1));
}
