import { z } from 'zod';
import { GROUND_REFS, areaFields, borderPoints, groundField, levelFields, name, plates } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const CAVITY_USES = ['cellar', 'tunnel', 'cave', 'mechanism'] as const;

/**
 * Ground taken away under a surface. Its level is its floor; where the ground over it is no higher than its clear
 * height, it is open to the sky and the ground is cut down to the floor.
 */
export const cavityKind = defineKind({
  schema: z.strictObject({
    name,
    use: z.enum(CAVITY_USES).default('cellar'),
    ...areaFields,
    ...levelFields,
    /** From its floor to its ceiling, plates. */
    clear: plates.min(1).max(600).default(15),
    /** What its floor is covered with. */
    ground: groundField.default('rock'),
  }),
  group: 'cavities',
  word: 'cavity',
  public: true,
  refs: { level: 'level', ...GROUND_REFS },
  outline: 10.4,
  relief: 'land',
  marks: (cavity) => [
    { points: borderPoints(cavity), words: `${cavity.name} (${cavity.use})`, outlines: 'cavity' },
  ],
});
