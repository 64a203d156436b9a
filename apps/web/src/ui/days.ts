import { differenceInCalendarDays, formatISO, parseISO } from 'date-fns';
import { countOf } from '@quarry/core/grid';

/** The day of who reads, ISO. */
export const today = () => formatISO(new Date(), { representation: 'date' });

/** Days from today to a day, less than 0 when it is over. @param date ISO */
export const daysTo = (date: string) => differenceInCalendarDays(parseISO(date), new Date());

/** Below so many days they are counted one by one. */
const IN_DAYS = 14;

/** How long it is to the show: `3 days to the show`, `12 weeks to the show`; null where no day is set. */
export function timeToShow(showDate: string | null): string | null {
  if (showDate === null) return null;
  const days = daysTo(showDate);
  if (days < 0) return 'the show is over';
  if (days === 0) return 'the show is today';
  return `${days < IN_DAYS ? countOf(days, 'day') : countOf(Math.floor(days / 7), 'week')} to the show`;
}
