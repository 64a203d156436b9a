import { useEffect, useState } from 'react';
import { minutesOf } from '@quarry/core/transport';

/** How often the clock of the day is read, ms. */
const TICK_MS = 15_000;
const DAY_MINUTES = 24 * 60;

/** The moment, ms since 1970; it moves on by itself. */
export function useNow(): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, []);
  return now;
}

/** The moment of a time of day on a date, by this machine’s clock, ms since 1970. */
export const showInstant = (date: string, clock: string): number => new Date(`${date}T${clock}:00`).getTime();

/** A time of day so many minutes after another: “09:06”; on the next day “00:10 +1”. */
export function clockAfter(from: string, minutes: number): string {
  const all = minutesOf(from) + Math.round(minutes);
  const [days, left] = [Math.floor(all / DAY_MINUTES), ((all % DAY_MINUTES) + DAY_MINUTES) % DAY_MINUTES];
  const two = (n: number) => String(n).padStart(2, '0');
  return `${two(Math.floor(left / 60))}:${two(left % 60)}${days > 0 ? ` +${days}` : ''}`;
}

/** Minutes as people say them: “45 min”, “2 h 05”. */
export const spanWord = (minutes: number): string => {
  const whole = Math.round(Math.abs(minutes));
  return whole < 60 ? `${whole} min` : `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, '0')}`;
};
