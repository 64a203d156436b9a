import { countOf } from '../grid/index.ts';
import type { Display } from './schema.ts';

const DAY_MS = 86_400_000;

/** The ISO date so many days after another. */
export const isoAfter = (from: string, days: number): string =>
  new Date(Date.parse(from) + days * DAY_MS).toISOString().slice(0, 10);

/** Whole days from one ISO date to another, by UTC midnights; negative when the second is earlier. */
export const daysBetween = (from: string, to: string): number =>
  Math.round(
    (Date.parse(`${to.slice(0, 10)}T00:00:00Z`) - Date.parse(`${from.slice(0, 10)}T00:00:00Z`)) / DAY_MS,
  );

/** “in 3 days”, “today”; empty when the day is over. @param days from today to it */
export const untilWords = (days: number): string =>
  days < 0 ? '' : days === 0 ? 'today' : `in ${countOf(days, 'day')}`;

/** Days from one update of a display to the next; null: none are agreed. */
export const updateDays = ({ rhythm, rhythmDays }: Pick<Display, 'rhythm' | 'rhythmDays'>): number | null =>
  ({ none: null, weekly: 7, fortnightly: 14, days: rhythmDays })[rhythm];

/** The day of the first update after a day, counted in whole rhythms from the start; null: none are agreed. */
export function nextUpdate(
  display: Pick<Display, 'rhythm' | 'rhythmDays' | 'startDate'>,
  today: string,
): string | null {
  const step = updateDays(display);
  if (step === null) return null;
  const from = display.startDate ?? today;
  const gone = Math.max(0, daysBetween(from, today));
  return isoAfter(from, (Math.floor(gone / step) + 1) * step);
}
