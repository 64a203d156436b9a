import { listOf, type Scene, type Slot, type Work } from '../document/index.ts';
import { bestEvening } from './tonight.ts';

// A build that is boxed in one day: planned slots against what they take, and what to drop when time runs out.

const MINUTE_MS = 60_000;

export interface ClockRow {
  slot: Slot;
  state: 'waits' | 'runs' | 'over' | 'dropped';
  /** Minutes it took, or has taken so far. */
  took: number | null;
  /** When it is over, as it goes: ms since the epoch; null: dropped. */
  ends: number | null;
}
export interface DayClock {
  rows: ClockRow[];
  /** Minutes taken for each minute planned by kind of work, of the slots that are over, kept within bounds. */
  paces: { work: Work; pace: number; slots: number }[];
  /** When all is over, as it goes: ms since the epoch. */
  ends: number;
  /** Minutes after the end that was set; negative: so much is in hand; null: no end was set. */
  late: number | null;
  /** What to drop so that the rest is done in time: of least worth together. */
  drop: Slot[];
  /** Whether that is enough. */
  fits: boolean;
}

/** Bounds on how far past slots change the pace of the rest (ours, no source). */
export const PACE_BOUNDS = { least: 0.5, most: 2 };

/** The slots of a day in their turn. */
export const slotsOf = (scene: Scene, day: string): Slot[] =>
  listOf(scene, 'slot')
    .filter((slot) => slot.day === day)
    .toSorted((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));

/**
 * Where a day stands. What is still to come takes its planned minutes at the pace of what is over of the same kind of
 * work; of a kind of which nothing is over, and of what goes on by itself, the minutes planned. What goes on by itself
 * delays only its successors.
 * @param now and @param end ms since the epoch; null: no end was set
 */
export function dayClock(slots: readonly Slot[], now: number, end: number | null): DayClock {
  const taken = (slot: Slot) =>
    slot.took !== null && slot.ended !== null
      ? slot.took
      : slot.began === null
        ? 0
        : Math.max(0, (slot.ended ? Date.parse(slot.ended) : now) - Date.parse(slot.began)) / MINUTE_MS;
  const over = slots.filter(({ ended, dropped, unattended }) => ended !== null && !dropped && !unattended);
  const paces = [...new Set(over.map(({ work }) => work))].map((work) => {
    const own = over.filter((slot) => slot.work === work);
    const pace =
      own.reduce((sum, slot) => sum + taken(slot), 0) / own.reduce((sum, { minutes }) => sum + minutes, 0);
    return { work, pace: Math.min(PACE_BOUNDS.most, Math.max(PACE_BOUNDS.least, pace)), slots: own.length };
  });
  const expected = ({ minutes, work, unattended }: Slot) =>
    minutes * (unattended ? 1 : (paces.find((one) => one.work === work)?.pace ?? 1));
  let hands = now;
  let all = now;
  const ends = new Map<string, number>();
  const rows = slots.map((slot): ClockRow => {
    if (slot.dropped) return { slot, state: 'dropped', took: slot.began ? taken(slot) : null, ends: null };
    if (slot.ended !== null) {
      ends.set(slot.id, Date.parse(slot.ended));
      return { slot, state: 'over', took: taken(slot), ends: Date.parse(slot.ended) };
    }
    const waits = slot.after === null ? 0 : (ends.get(slot.after) ?? 0);
    const begins = slot.began !== null ? now : Math.max(hands, waits);
    const done = begins + Math.max(0, expected(slot) - taken(slot)) * MINUTE_MS;
    if (!slot.unattended) hands = done;
    all = Math.max(all, done);
    ends.set(slot.id, done);
    if (slot.began !== null) return { slot, state: 'runs', took: taken(slot), ends: done };
    return { slot, state: 'waits', took: null, ends: done };
  });
  const at = all;
  const late = end === null ? null : (at - end) / MINUTE_MS;
  if (late === null || late <= 0) return { rows, paces, ends: at, late, drop: [], fits: true };
  const may = rows.flatMap(({ slot, state }) =>
    state === 'waits' && !slot.must && !slot.unattended ? [slot] : [],
  );
  const whole = may.reduce((sum, slot) => sum + expected(slot), 0);
  const room = whole - late;
  const keep = new Set(
    room < 0
      ? []
      : bestEvening(
          may.map((slot) => ({ id: slot.id, minutes: expected(slot), value: slot.worth, after: [] })),
          room,
        ).map((i) => may[i].id),
  );
  return { rows, paces, ends: at, late, drop: may.filter(({ id }) => !keep.has(id)), fits: room >= 0 };
}
