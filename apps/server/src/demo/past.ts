import { set as setTime, subDays } from 'date-fns';
import { z } from 'zod';
import { present } from '@quarry/core/grid';
import {
  idSchema,
  kindSchema,
  readFile,
  reduce,
  writeFile,
  type Change,
  type Entity,
  type Kind,
  type Scene,
} from '@quarry/core/document';

// The demo's history: batches before its first day, derived backwards from the demo file.

const logSchema = z.array(
  z.strictObject({
    by: z.string(),
    daysAgo: z.int().min(0),
    time: z.string().regex(/^\d\d:\d\d$/),
    label: z.string(),
    changes: z.array(
      z.union([
        z.strictObject({ kind: kindSchema, id: idSchema, added: z.literal(true) }),
        z.strictObject({ kind: kindSchema, id: idSchema, was: z.record(z.string(), z.unknown()) }),
      ]),
    ),
  }),
);

export interface PastBatch {
  /** Sign-in name of who did it. */
  by: string;
  at: Date;
  label: string;
  /** What it does to the scene it is made in. */
  changesIn(scene: Scene): Change[];
}

/**
 * Undoes a log, the last first, to find where it began.
 * @param scene what stands in the end
 * @param json what was done, the first first, each change with what was there before
 */
export function pastOf(scene: Scene, json: string, today: Date): { origin: Scene; batches: PastBatch[] } {
  const batches: PastBatch[] = [];
  let step = scene;
  for (const { by, daysAgo, time, label, changes } of logSchema.parse(JSON.parse(json)).toReversed()) {
    const [hours, minutes] = time.split(':').map(Number);
    const back: Change[] = [];
    const forth: ((now: Scene) => Change)[] = [];
    for (const change of changes) {
      const { kind, id } = change;
      const stands: Entity<Kind> = present<Entity<Kind>>(step[kind][id], `${kind} ${id}`);
      const { id: _id, v, ...data } = stands;
      if ('added' in change) {
        back.push({ op: 'remove', kind, id, v });
        forth.push(() => ({ op: 'add', kind, id, data }));
      } else {
        const now: Readonly<Record<string, unknown>> = data;
        const set = Object.fromEntries(Object.keys(change.was).map((key) => [key, now[key]]));
        back.push({ op: 'patch', kind, id, v, set: change.was });
        forth.push((before) => ({
          op: 'patch',
          kind,
          id,
          v: present<Entity<Kind>>(before[kind][id], id).v,
          set,
        }));
      }
    }
    const reduction = reduce(step, back);
    if (!reduction.ok) throw new Error(`${label}: ${reduction.refusal.sentence}`);
    step = reduction.scene;
    batches.unshift({
      by,
      label,
      at: setTime(subDays(today, daysAgo), { hours, minutes, seconds: 0, milliseconds: 0 }),
      changesIn: (now) => forth.map((make) => make(now)),
    });
  }
  // Parsed again, so that every version begins at 1.
  const reading = readFile(writeFile(step));
  if (!reading.ok) throw new Error(reading.error);
  return { origin: reading.scene, batches };
}
