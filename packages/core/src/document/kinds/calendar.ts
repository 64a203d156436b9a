import { z } from 'zod';
import { clockTime, reference } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** Whether a clock's zone is known; empty: unknown. */
export function isZone(zone: string): boolean {
  if (zone === '') return true;
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

/** A zone by its IANA name; empty: unknown. */
export const zoneSchema = z
  .string()
  .max(60)
  .refine(isZone, {
    error: ({ input }) => `“${String(input)}” is no zone: it is told by its IANA name, such as Europe/Oslo`,
  })
  .default('');

/** When a person can build: hours on each day of the week from Monday, days away, and where their clock stands. */
export const calendarKind = defineKind({
  schema: z.strictObject({
    person: reference,
    weekly: z.array(z.number().min(0).max(24)).length(7),
    /** When a session begins, by their own clock. */
    from: clockTime.default('19:00'),
    /** When it begins on a day of the week, from Monday; null: as on the others. */
    starts: z.array(clockTime.nullable()).length(7).default([null, null, null, null, null, null, null]),
    away: z
      .array(z.strictObject({ from: z.iso.date(), to: z.iso.date() }))
      .max(60)
      .default([]),
    zone: zoneSchema,
  }),
  group: 'calendars',
  word: 'calendar',
  label: ({ person }, fieldOf) => `calendar of ${fieldOf('person', person, 'name') ?? person ?? 'somebody'}`,
  refs: { person: 'person' },
  ownBy: ['person'],
});
