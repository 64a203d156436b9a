import { z } from 'zod';
import { halfStud, linePoints, name, plates, size } from '../fields.ts';
import { colourField } from '../partLines.ts';
import { defineKind } from '../kind.ts';

export const REPEAT_USES = ['lamp', 'arch', 'panel', 'post', 'other'] as const;
export const SPACINGS = ['count', 'every', 'base'] as const;

export const repeatKind = defineKind({
  schema: z.strictObject({
    name,
    use: z.enum(REPEAT_USES).default('lamp'),
    points: linePoints,
    /** A number of them, one every so many studs, or so many to each base. */
    spacing: z.enum(SPACINGS).default('every'),
    count: z.int().min(1).max(1000).default(4),
    every: size.max(512).default(16),
    base: size.max(512).default(48),
    /** Length of one along the line and its height. */
    length: size.max(256).default(1),
    height: plates.min(1).default(18),
    /** None stands nearer to a seam than this, studs. */
    keepOff: halfStud.min(0).max(64).default(0),
    /** Of its pieces; null: what is usual. */
    colour: colourField.nullable().default(null),
  }),
  group: 'repeats',
  word: 'repeat',
  public: true,
  outline: 13,
  relief: 'top',
  beyond: ({ length }) => length / 2 + 1,
});
