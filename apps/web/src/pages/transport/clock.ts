import { addDays, formatISO, parseISO } from 'date-fns';
import { minutesOf } from '@quarry/core/transport';

const DAY_MINUTES = 24 * 60;

/** The moment of a time of day on a date, by this machine’s clock, ms since 1970. */
export const showInstant = (date: string, clock: string): number => new Date(`${date}T${clock}:00`).getTime();

/** A time of day so many minutes after another: “09:06”; on the next day “00:10 +1”. */
export function clockAfter(from: string, minutes: number): string {
  const all = minutesOf(from) + Math.round(minutes);
  const [days, left] = [Math.floor(all / DAY_MINUTES), ((all % DAY_MINUTES) + DAY_MINUTES) % DAY_MINUTES];
  const two = (n: number) => String(n).padStart(2, '0');
  return `${two(Math.floor(left / 60))}:${two(left % 60)}${days > 0 ? ` +${days}` : ''}`;
}

/** An ISO date so many days after another. */
export const dayAfter = (date: string, days: number): string =>
  formatISO(addDays(parseISO(date), days), { representation: 'date' });
