import { formatISO, parseISO } from 'date-fns';
import { useEffect, useState } from 'react';

/** How often the clock of the day is read, ms. */
const TICK_MS = 15_000;

/** The moment, ms since 1970; it moves on by itself. */
export function useNow(): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, []);
  return now;
}

/** The zone of this machine’s clock, an IANA name. */
export const localZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** The day of a moment by this machine’s clock, ISO date. */
export const localDay = (instant: string): string => formatISO(parseISO(instant), { representation: 'date' });

/** Minutes as people say them: “45 min”, “2 h 05”. */
export const spanWord = (minutes: number): string => {
  const whole = Math.round(Math.abs(minutes));
  return whole < 60 ? `${whole} min` : `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, '0')}`;
};
