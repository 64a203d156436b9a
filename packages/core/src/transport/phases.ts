import { displayOf, listOf, type Chore, type Scene } from '../document/index.ts';

// The hours of a show: when people may work at home and in the hall, and the hour that counts.

export type ShowPhase = Chore['phase'];

/** A time within which a phase goes on. */
export interface PhaseTimes {
  /** Days from the first day of the show to the one on which it begins. */
  day: number;
  /** By the clock of that day: minute 0. */
  from: string;
  /** When people may be there, minutes: the first from 0, one after another. */
  windows: readonly { start: number; end: number }[];
  /** The hour that counts, by the clock: visitors come, the hall is to be empty, the vehicle leaves. */
  to: string;
  /** The same in minutes. */
  until: number;
  /** One of its hours is a guess. */
  isGuess: boolean;
}

/** When nobody may be there, minutes. */
export interface Closing {
  from: number;
  until: number;
}

/** Hours of the show day where none is typed (guesses of ours). */
export const SHOW_HOURS = {
  accessFrom: '07:00',
  opensAt: '10:00',
  closesAt: '17:00',
  clearBy: '19:00',
  eveTo: '22:00',
  morrowTo: '12:00',
  leaveFrom: '18:00',
  rebuildFrom: '10:00',
  rebuildBy: '20:00',
} as const;

/** The way from home to the hall where none is typed, minutes (a guess of ours). */
export const DRIVE_MINUTES = 30;

const DAY = 24 * 60;

/** Minutes since midnight of a time of day such as 19:30. */
export function minutesOf(clock: string): number {
  const [hours, minutes] = clock.split(':').map(Number);
  return 60 * hours + minutes;
}

/** The time of day so many minutes after a midnight. */
export function clockOf(minutes: number): string {
  const of = ((Math.round(minutes) % DAY) + DAY) % DAY;
  return `${String(Math.floor(of / 60)).padStart(2, '0')}:${String(of % 60).padStart(2, '0')}`;
}

/** The hours of a phase; those not typed are guesses. */
export function phaseTimes(scene: Scene, phase: ShowPhase): PhaseTimes {
  const display = displayOf(scene);
  const { showDays, eveFrom, morrowFrom } = display;
  const last = showDays - 1;
  switch (phase) {
    case 'setup':
      return timesOf([
        ...(eveFrom === null
          ? []
          : [span(-1, { clock: eveFrom, isGuess: false }, typed(display.eveTo, SHOW_HOURS.eveTo))]),
        span(0, typed(display.accessFrom, SHOW_HOURS.accessFrom), typed(display.opensAt, SHOW_HOURS.opensAt)),
      ]);
    case 'takedown':
      return timesOf([
        span(last, typed(display.closesAt, SHOW_HOURS.closesAt), typed(display.clearBy, SHOW_HOURS.clearBy)),
        ...(morrowFrom === null
          ? []
          : [
              span(
                last + 1,
                { clock: morrowFrom, isGuess: false },
                typed(display.morrowTo, SHOW_HOURS.morrowTo),
              ),
            ]),
      ]);
    case 'leave': {
      const leaves = departureOf(scene);
      const from = typed(display.leaveFrom, SHOW_HOURS.leaveFrom);
      const clock = minutesOf(from.clock);
      // The last such time of day before the vehicle leaves.
      const start = clock + DAY * Math.floor((leaves.at - clock - 1) / DAY);
      return timesOf([{ start, end: leaves.at, isGuess: from.isGuess || leaves.isGuess }]);
    }
    case 'rebuild': {
      const down = phaseTimes(scene, 'takedown');
      const back = DAY * down.day + minutesOf(down.from) + down.until + driveOf(scene).minutes;
      const from = typed(display.rebuildFrom, SHOW_HOURS.rebuildFrom);
      const clock = minutesOf(from.clock);
      // The first such time of day after the vehicle is back.
      const start = clock + DAY * Math.ceil((back - clock) / DAY);
      const to = typed(display.rebuildBy, SHOW_HOURS.rebuildBy);
      const by = minutesOf(to.clock);
      const end = by + DAY * (Math.floor((start - by) / DAY) + 1);
      return timesOf([{ start, end, isGuess: from.isGuess || to.isGuess || down.isGuess }]);
    }
  }
}

interface Span {
  /** Minutes after the midnight that begins the first day of the show. */
  start: number;
  end: number;
  isGuess: boolean;
}

interface Typed {
  clock: string;
  isGuess: boolean;
}

const typed = (clock: string | null, usual: string): Typed => ({
  clock: clock ?? usual,
  isGuess: clock === null,
});

/** What ends before it begins ends on the next day. */
function span(day: number, from: Typed, to: Typed): Span {
  const start = DAY * day + minutesOf(from.clock);
  const end = DAY * day + minutesOf(to.clock);
  return { start, end: end > start ? end : end + DAY, isGuess: from.isGuess || to.isGuess };
}

/** Spans one after another; those that meet or overlap are one. */
function timesOf(spans: readonly Span[]): PhaseTimes {
  const first = spans[0];
  const windows: { start: number; end: number }[] = [];
  for (const { start, end } of spans) {
    const before = windows.at(-1);
    if (before && start - first.start <= before.end) before.end = Math.max(before.end, end - first.start);
    else windows.push({ start: start - first.start, end: end - first.start });
  }
  const until = windows[windows.length - 1].end;
  const day = Math.floor(first.start / DAY);
  return {
    ...{ day, windows, until },
    from: clockOf(first.start),
    to: clockOf(first.start + until),
    isGuess: spans.some(({ isGuess }) => isGuess),
  };
}

/** From home to the hall, minutes. */
export function driveOf(scene: Scene): { minutes: number; isGuess: boolean } {
  const { driveMinutes } = displayOf(scene);
  return { minutes: driveMinutes ?? DRIVE_MINUTES, isGuess: driveMinutes === null };
}

/** When the vehicle leaves home so that it is there as the hall opens to builders; minutes after the midnight of the first day. */
function departureOf(scene: Scene): { at: number; isGuess: boolean } {
  const setup = phaseTimes(scene, 'setup');
  const drive = driveOf(scene);
  return {
    at: DAY * setup.day + minutesOf(setup.from) - drive.minutes,
    isGuess: setup.isGuess || drive.isGuess,
  };
}

/** Between the windows of a phase nobody may be there. */
export const closingsOf = ({ windows }: PhaseTimes): Closing[] =>
  windows.slice(1).map(({ start }, i) => ({ from: windows[i].end, until: start }));

/** Minutes in which people may be there until the hour that counts. */
export const openMinutes = ({ windows }: PhaseTimes): number =>
  windows.reduce((sum, { start, end }) => sum + end - start, 0);

/** Nights that the display stands in the hall. */
export function nightsOf(scene: Scene): number {
  const { showDays, eveFrom, morrowFrom } = displayOf(scene);
  return showDays - 1 + (eveFrom === null ? 0 : 1) + (morrowFrom === null ? 0 : 1);
}

/** Phases that there are: those at home only where the display comes from another place. */
export function phasesOf(scene: Scene): ShowPhase[] {
  const { place, showPlace } = displayOf(scene);
  const isAway = place !== null && showPlace !== null && place !== showPlace;
  return isAway ? ['leave', 'setup', 'takedown', 'rebuild'] : ['setup', 'takedown'];
}

/** Whether a phase goes on at home. */
export const isAtHome = (phase: ShowPhase): boolean => phase === 'leave' || phase === 'rebuild';

/** Someone who comes, and what is known of their help. */
export interface ShowHelper {
  id: string;
  name: string;
  /** Minutes after the phase begins. */
  arrives: number;
  carriesKg: number | null;
}

/** The people who help in a phase. When they come is told of the day on which the hall is set up. */
export function helpersOf(scene: Scene, phase: ShowPhase): ShowHelper[] {
  const { from, windows } = phaseTimes(scene, phase);
  return listOf(scene, 'person')
    .filter(({ comes }) => comes)
    .map(({ id, name, arrives, eve, carriesKg }): ShowHelper => {
      if (phase !== 'setup') return { id, name, arrives: 0, carriesKg };
      const isLater = !eve && windows.length > 1;
      const begin = isLater ? windows[1].start : 0;
      const clock =
        arrives === null ? null : minutesOf(arrives) - minutesOf(clockOf(minutesOf(from) + begin));
      return { id, name, arrives: begin + Math.max(0, clock ?? 0), carriesKg };
    })
    .sort((a, b) => a.arrives - b.arrives || (a.name < b.name ? -1 : 1));
}
