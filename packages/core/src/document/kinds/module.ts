import { z } from 'zod';
import { name, wholeSize, wholeStud } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const moduleKind = defineKind({
  schema: z.strictObject({
    name,
    x: wholeStud,
    y: wholeStud,
    w: wholeSize,
    d: wholeSize,
    bases: z.array(z.strictObject({ x: wholeStud, y: wholeStud, w: wholeSize, d: wholeSize })).max(2000),
    /** A locked module is kept when the rest is cut again. */
    locked: z.boolean().default(false),
  }),
  group: 'modules',
  word: 'module',
  label: (module) => `module ${module.name}`,
  public: true,
  outline: 2,
  plannersOnly: true,
});
