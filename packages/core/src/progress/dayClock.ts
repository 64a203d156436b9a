import { listOf, type Scene, type Slot } from '../scene/index.ts';
import { bestEvening } from './tonight.ts';

/** A build that is boxed in one day: planned slots against what they take, and what to drop when time runs out. */

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
  /** Minutes taken for each minute planned, of the slots that are over; null: none is yet. */
  pace: number | null;
  /** When all is over, as it goes: ms since the epoch. */
  ends: number;
  /** Minutes after the end that was set; negative: so much is in hand; null: no end was set. */
  late: number | null;
  /** What to drop so that the rest is done in time: of least worth together. */
  drop: Slot[];
  /** Whether that is enough. */
  fits: boolean;
}

/** The slots of a day in their turn. */
export const slotsOf = (scene: Scene, day: string): Slot[] =>
  listOf(scene, 'slot')
    .filter((slot) => slot.day === day)
    .toSorted((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));

/**
 * Where a day stands. What is still to come takes its planned minutes at the pace of what is over.
 * @param now and @param end ms since the epoch; null: no end was set
 */
export function dayClock(slots: readonly Slot[], now: number, end: number | null): DayClock {
  const taken = (slot: Slot) =>
    slot.began === null
      ? 0
      : Math.max(0, (slot.ended ? Date.parse(slot.ended) : now) - Date.parse(slot.began)) / MINUTE_MS;
  const over = slots.filter(({ ended, dropped }) => ended !== null && !dropped);
  const planned = over.reduce((sum, { minutes }) => sum + minutes, 0);
  const pace = planned > 0 ? over.reduce((sum, slot) => sum + taken(slot), 0) / planned : null;
  const expected = ({ minutes }: Slot) => minutes * (pace ?? 1);
  let at = now;
  const rows = slots.map((slot): ClockRow => {
    if (slot.dropped) return { slot, state: 'dropped', took: slot.began ? taken(slot) : null, ends: null };
    if (slot.ended !== null) return { slot, state: 'over', took: taken(slot), ends: Date.parse(slot.ended) };
    at += Math.max(0, expected(slot) - taken(slot)) * MINUTE_MS;
    if (slot.began !== null) return { slot, state: 'runs', took: taken(slot), ends: at };
    return { slot, state: 'waits', took: null, ends: at };
  });
  const late = end === null ? null : (at - end) / MINUTE_MS;
  if (late === null || late <= 0) return { rows, pace, ends: at, late, drop: [], fits: true };
  const may = rows.flatMap(({ slot, state }) => (state === 'waits' && !slot.must ? [slot] : []));
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
  return { rows, pace, ends: at, late, drop: may.filter(({ id }) => !keep.has(id)), fits: room >= 0 };
}
