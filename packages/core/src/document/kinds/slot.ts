import { z } from 'zod';
import { name, reference, workField } from '../fields.ts';
import { DRYINGS } from '../vocabulary.ts';
import { defineKind } from '../kind.ts';

/** A part of a day that is boxed in time: what is planned for it and what it took. */
export const slotKind = defineKind({
  schema: z.strictObject({
    name,
    day: z.iso.date(),
    /** Its turn in the day, from 0. */
    order: z.int().min(0).max(1000).default(0),
    minutes: z.int().min(1).max(1440, 'a slot has at most 1,440 minutes'),
    section: reference.default(null),
    /** What may be dropped when time runs out: nothing (must), or by its worth, 1 the least. */
    must: z.boolean().default(false),
    worth: z.int().min(1).max(10).default(5),
    work: workField,
    /** It goes on by itself while others are worked on (drying), and what for. */
    unattended: z.boolean().default(false),
    drying: z.enum(DRYINGS).nullable().default(null),
    /** The slot that must be over before it begins; null: the turn decides. */
    after: reference.default(null),
    /** Minutes it really took, overriding the clock; null: as clocked. */
    took: z.int().min(0).max(1440).nullable().default(null),
    began: z.iso.datetime().nullable().default(null),
    ended: z.iso.datetime().nullable().default(null),
    dropped: z.boolean().default(false),
  }),
  group: 'slots',
  word: 'slot',
  refs: { after: 'slot', section: 'section' },
  ownBy: [],
});
