import { writeCsv } from '@quarry/core/formats';
import {
  packingFaults,
  packingOf,
  timetableFaults,
  timetableOf,
  type PackItem,
  type PackSpace,
  type TimedTask,
} from '@quarry/core/transport';
import { BadInput, complain } from './input.ts';
import { amount, table } from './materials.ts';

/** The most pieces and tasks that are read. */
const MAX_ROWS = 5_000;

/** Rows of a table with unique ids, few enough. */
function rowsById<C extends string>(
  path: string,
  columns: readonly ('id' | C)[],
): Record<'id' | C, string>[] {
  const rows = table(path, columns);
  if (rows.length > MAX_ROWS) throw new BadInput(`${path}: ${rows.length} rows; the most is ${MAX_ROWS}.`);
  const seen = new Set<string>();
  rows.forEach(({ id }, i) => {
    if (id.trim() === '') throw new BadInput(`${path}: row ${i + 2}: the id is blank.`);
    if (seen.has(id)) throw new BadInput(`${path}: row ${i + 2}: the id “${id}” is there twice.`);
    seen.add(id);
  });
  return rows;
}

/** An option that is a whole number from 1. */
function count(name: string, text: string | undefined, most: number): number {
  const value = Number(text);
  if (text === undefined || !Number.isInteger(value) || value < 1 || value > most)
    throw new BadInput(`${name} ${text ?? '(missing)'}: must be a whole number from 1 to ${most}.`);
  return value;
}

/** Pieces into trips: `trip,id,x,y,z,w,d,h`; `trips N bound M` ends standard error. */
export function pack(
  path: string,
  options: { space?: string; maxKg?: string; trips?: string; seconds: number; seed: number },
): number {
  const sides = (options.space ?? '').split(',').map((side) => (side.trim() === '' ? NaN : Number(side)));
  if (sides.length !== 3 || !sides.every((side) => side > 0 && side <= 1e6))
    throw new BadInput(
      `--space ${options.space ?? '(missing)'}: must be width, depth and height in mm, such as 1600,2400,1200.`,
    );
  const [w = 0, d = 0, h = 0] = sides;
  const maxKg = options.maxKg === undefined ? null : Number(options.maxKg);
  if (maxKg !== null && !(maxKg > 0 && maxKg <= 1e6))
    throw new BadInput(`--max-kg ${options.maxKg}: must be above 0 and at most 1000000.`);
  const space: PackSpace = { w, d, h, maxMass: maxKg === null ? null : 1000 * maxKg };
  const columns = ['id', 'w', 'd', 'h', 'mass_g', 'turn', 'stack', 'order'] as const;
  const items = rowsById(path, columns).map((row, i): PackItem => {
    const at = i + 2;
    const side = (name: 'w' | 'd' | 'h') => {
      const value = amount(path, at, name, row[name], false);
      if (value === 0) throw new BadInput(`${path}: row ${at}: ${name} of “${row.id}” must be above 0 mm.`);
      return value;
    };
    if (row.turn !== 'yes' && row.turn !== 'no')
      throw new BadInput(`${path}: row ${at}: turn “${row.turn}” must be yes or no.`);
    if (!/^-?\d{1,9}$/.test(row.order.trim()))
      throw new BadInput(`${path}: row ${at}: order “${row.order}” must be a whole number.`);
    return {
      ...{ id: row.id, w: side('w'), d: side('d'), h: side('h') },
      mass: amount(path, at, 'mass_g', row.mass_g, false),
      canTurn: row.turn === 'yes',
      bears: amount(path, at, 'stack', row.stack, false),
      order: Number(row.order),
    };
  });
  const packing = packingOf(items, space, {
    ...{ seconds: options.seconds, seed: options.seed, now: () => performance.now() },
    ...(options.trips === undefined ? {} : { maxTrips: count('--trips', options.trips, MAX_ROWS) }),
  });
  const faults = packingFaults(items, space, packing.packed);
  if (faults.length > 0) throw new Error(`The packing does not hold: ${faults.join(' ')}`);
  process.stdout.write(
    writeCsv([
      ['trip', 'id', 'x', 'y', 'z', 'w', 'd', 'h'],
      ...packing.packed.map((row) => [row.trip, row.id, row.x, row.y, row.z, row.w, row.d, row.h]),
    ]),
  );
  const reasons = [
    ...packing.tooLarge.map((id) => `fits nowhere: ${id}`),
    ...packing.left.map((id) => `not packed in ${options.trips} trips: ${id}`),
  ];
  complain([...reasons, `trips ${packing.trips} bound ${packing.bound}`]);
  return reasons.length > 0 ? 1 : 0;
}

/** Tasks into a day: `id,start,end` in minutes; `length N bound M` ends standard error. */
export function schedule(path: string, handsText: string | undefined, seed: number): number {
  const hands = count('--hands', handsText, 10_000);
  const rows = rowsById(path, ['id', 'minutes', 'hands', 'after'] as const);
  const ids = new Set(rows.map(({ id }) => id));
  const tasks = rows.map((row, i): TimedTask => {
    const minutes = amount(path, i + 2, 'minutes', row.minutes, true);
    if (minutes === 0) throw new BadInput(`${path}: row ${i + 2}: minutes of “${row.id}” must be 1 or more.`);
    const after = row.after.split(/\s+/).filter((id) => id !== '');
    const unknown = after.find((id) => !ids.has(id));
    if (unknown !== undefined)
      throw new BadInput(`${path}: row ${i + 2}: “${row.id}” is after “${unknown}”, which is no task.`);
    return { id: row.id, minutes, hands: amount(path, i + 2, 'hands', row.hands, true), after };
  });
  const answer = timetableOf(tasks, hands, { seed });
  if (!answer.ok) return complain(answer.reasons);
  const { rows: timed, length, bound } = answer.timetable;
  const faults = timetableFaults(tasks, hands, timed);
  if (faults.length > 0) throw new Error(`The timetable does not hold: ${faults.join(' ')}`);
  process.stdout.write(
    writeCsv([['id', 'start', 'end'], ...timed.map(({ id, start, end }) => [id, start, end])]),
  );
  complain([`length ${length} bound ${bound}`]);
  return 0;
}
