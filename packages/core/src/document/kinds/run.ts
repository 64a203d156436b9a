import { z } from 'zod';
import { linePoints, name, plates, size } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const RUN_USES = ['wall', 'fence', 'hedge', 'railing'] as const;

export const runKind = defineKind({
  schema: z.strictObject({
    name,
    use: z.enum(RUN_USES).default('wall'),
    points: linePoints,
    height: plates.min(1).default(9),
    thick: size.max(16).default(1),
  }),
  group: 'runs',
  word: 'wall or fence',
  public: true,
  outline: 12,
  relief: 'top',
  beyond: ({ thick }) => Math.max(0.5, thick / 2),
});
