import { METHOD_SPECS } from '../masonry/index.ts';
import { displayOf, listOf, type Method, type Scene, type Session, type Work } from '../document/index.ts';

// What people's sessions say of how fast they build.

/** Pieces an hour where too few sessions are logged: guesses of ours, no source; shown as such. */
export const DEFAULT_RATES: Readonly<Record<Work, number>> = {
  planning: 0,
  sorting: 900,
  ground: 300,
  structures: 150,
  dressing: 200,
  lights: 30,
  figures: 60,
  other: 150,
};
/** A rate is learnt from this many counted sessions on. */
export const MIN_SESSIONS = 3;
/** Default spread of a rate: the standard deviation of its logarithm (ours, no source). */
export const DEFAULT_SPREAD = 0.5;

export interface Rate {
  /** Pieces an hour. */
  perHour: number;
  /** Standard deviation of the logarithm of the sessions' rates. */
  spread: number;
  sessions: number;
  hours: number;
  pieces: number;
  learnt: boolean;
}

/** Sessions that are over and have their pieces counted. */
const counts = (session: Session): session is Session & { minutes: number; pieces: number } =>
  session.minutes !== null && session.minutes > 0 && session.pieces !== null && session.pieces > 0;

/**
 * A person's rate at a kind of work: total pieces over total hours, with the scatter of sessions.
 * With fewer than three counted sessions the default stands. Ground goes at another pace by each method: where three
 * counted sessions were of the one that is asked for, they alone say how fast.
 * @param person null: everybody together
 * @param method of ground only; null: all methods together
 */
export function rateOf(scene: Scene, person: string | null, work: Work, method: Method | null = null): Rate {
  const all = listOf(scene, 'session')
    .filter(counts)
    .filter((session) => session.work === work && (person === null || session.person === person));
  const alike =
    work === 'ground' && method !== null
      ? all.filter((session) => (session.method ?? methodOf(scene, session.section)) === method)
      : [];
  const mine = alike.length >= MIN_SESSIONS ? alike : all;
  const minutes = mine.reduce((sum, session) => sum + session.minutes, 0);
  const pieces = mine.reduce((sum, session) => sum + session.pieces, 0);
  const summary = { sessions: mine.length, hours: minutes / 60, pieces };
  if (mine.length < MIN_SESSIONS)
    return { perHour: defaultRate(work, method), spread: DEFAULT_SPREAD, ...summary, learnt: false };
  return { perHour: (60 * pieces) / minutes, spread: scatterOf(mine), ...summary, learnt: true };
}

/** Ground at the rate of its method, as where methods are compared; where nothing is laid as ground in general. */
const defaultRate = (work: Work, method: Method | null): number =>
  work === 'ground' && method !== null && method !== 'reuse'
    ? METHOD_SPECS[method].rate
    : DEFAULT_RATES[work];

/** How ground is built in a section, or where none is named. */
export const methodOf = (scene: Scene, section: string | null): Method =>
  scene.section[section ?? '']?.method ?? displayOf(scene).method;

/** Standard deviation of the logarithm of the sessions' rates. */
function scatterOf(sessions: readonly { minutes: number; pieces: number }[]): number {
  const logs = sessions.map(({ minutes, pieces }) => Math.log((60 * pieces) / minutes));
  const mean = logs.reduce((sum, log) => sum + log, 0) / logs.length;
  return Math.sqrt(logs.reduce((sum, log) => sum + (log - mean) ** 2, 0) / (logs.length - 1));
}

/**
 * Standard error of a builder's mean log rate: the scatter of sessions shrinks with their number, what remains is
 * the error of their mean. The default until there are three counted sessions.
 */
export function speedSpread(scene: Scene, person: string): number {
  const mine = listOf(scene, 'session')
    .filter(counts)
    .filter((session) => session.person === person);
  return mine.length < MIN_SESSIONS ? DEFAULT_SPREAD : scatterOf(mine) / Math.sqrt(mine.length);
}

/** Hours logged so far, by section; null: of no section. A running session counts only when `now` is given. */
export function hoursBySection(scene: Scene): Map<string | null, number> {
  const hours = new Map<string | null, number>();
  for (const { section, minutes } of listOf(scene, 'session'))
    if (minutes !== null) hours.set(section, (hours.get(section) ?? 0) + minutes / 60);
  return hours;
}

/** Pieces placed so far, by section. */
export function piecesBySection(scene: Scene): Map<string, number> {
  const placed = new Map<string, number>();
  for (const { section, pieces } of listOf(scene, 'session'))
    if (section !== null && pieces !== null) placed.set(section, (placed.get(section) ?? 0) + pieces);
  return placed;
}
