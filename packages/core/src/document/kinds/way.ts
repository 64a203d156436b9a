import { z } from 'zod';
import { GROUND_REFS, bridgeFields, groundField, heightPoints, name, plates, size } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const WAY_USES = ['road', 'path', 'pavement', 'kerb'] as const;
export const ON_STEEP = ['follow', 'ramp', 'steps'] as const;

export const wayKind = defineKind({
  schema: z.strictObject({
    name,
    use: z.enum(WAY_USES).default('road'),
    points: heightPoints,
    width: size.max(128).default(14),
    ground: groundField.default('road'),
    /** Above the ground it follows, plates. Points with a height are held instead, evenly from one to the next. */
    rise: plates.min(-30).max(30).default(0),
    /** Steepest grade, percent (height over length); common practice, no source: change it. */
    maxGrade: z.number().min(0.5).max(200).default(15),
    /** Where the ground is steeper than that: follow it, level it to a ramp, or build steps. */
    onSteep: z.enum(ON_STEEP).default('follow'),
    ...bridgeFields,
  }),
  group: 'ways',
  word: 'way',
  public: true,
  refs: GROUND_REFS,
  outline: 9,
  relief: 'way',
  beyond: ({ width }) => width / 2,
});
