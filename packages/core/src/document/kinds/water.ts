import { z } from 'zod';
import { areaFields, BANK_REFS, groundField, halfStud, levelFields, name, plates } from '../fields.ts';
import { SIDES } from '../vocabulary.ts';
import { defineKind } from '../kind.ts';

/** Still water at a level. */
export const waterKind = defineKind({
  schema: z.strictObject({
    name,
    ...areaFields,
    ...levelFields,
    ground: groundField.default('water'),
    /** From the surface down to the bed, plates. */
    depth: plates.min(1).default(1),
    /** The shore between the water and the ground, studs; it rises evenly. */
    bank: halfStud.min(0).max(64).default(0),
    bankGround: groundField.default('sand'),
    /** Sides on which waves strike the shore; the others are sheltered. */
    struck: z.array(z.enum(SIDES)).max(4).default([]),
  }),
  group: 'waters',
  word: 'water',
  public: true,
  refs: { level: 'level', ...BANK_REFS },
  outline: 6,
  relief: 'land',
  beyond: ({ bank }) => bank,
});
