import { z } from 'zod';
import { STAND_REFS, halfStud, linePoints, name, plates, size, standFields } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const RUN_USES = ['wall', 'fence', 'hedge', 'railing'] as const;

export const runKind = defineKind({
  schema: z.strictObject({
    name,
    use: z.enum(RUN_USES).default('wall'),
    points: linePoints,
    height: plates.min(1).default(9),
    thick: size.max(16).default(1),
    /** Length of the panels it is made in, studs: one over a seam comes off. 0: built in, it ends at each seam. */
    panel: halfStud.min(0).max(256).default(0),
    ...standFields,
  }),
  group: 'runs',
  word: 'wall or fence',
  public: true,
  refs: STAND_REFS,
  outline: 12,
  relief: 'top',
  beyond: ({ thick }) => Math.max(0.5, thick / 2),
});
