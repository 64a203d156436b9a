import { TZDate } from '@date-fns/tz';

// Days of the calendar, and clocks in different towns.

/** Of an ISO date, Monday 0 to Sunday 6. */
export const weekdayOf = (date: string): number => (new Date(`${date}T00:00:00Z`).getUTCDay() + 6) % 7;

/**
 * The moment at which a clock in a zone shows a time on a day, ms since the epoch. A time that the clock leaps over in
 * spring is as much later; of one it shows twice in autumn the first.
 * @param date ISO date @param time as 19:30 @param zone IANA name; empty: UTC
 */
export function momentOf(date: string, time: string, zone: string): number {
  const [year, month, day] = date.split('-').map(Number);
  const [hour, minute] = time.split(':').map(Number);
  return new TZDate(year, month - 1, day, hour, minute, zone || 'UTC').getTime();
}

/** The ISO date that a calendar in a zone shows at a moment. @param moment ms since the epoch, or ISO */
export function dateIn(moment: number | string, zone: string): string {
  const at = new TZDate(new Date(moment).getTime(), zone || 'UTC');
  const two = (number: number) => String(number).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}

/** The time that a clock in a zone shows at a moment, as 19:30. */
export function clockIn(moment: number, zone: string): string {
  const at = new TZDate(moment, zone || 'UTC');
  return `${String(at.getHours()).padStart(2, '0')}:${String(at.getMinutes()).padStart(2, '0')}`;
}
