import { z } from 'zod';
import { FAMILIES, partOf } from '../../catalogue/index.ts';
import { STAND_REFS, halfStud, linePoints, name, plates, size, standFields } from '../fields.ts';
import { colourField, partField } from '../partLines.ts';
import { defineKind } from '../kind.ts';

export const RUN_USES = ['wall', 'fence', 'hedge', 'railing'] as const;
export const ARCH_SIDES = ['left', 'right'] as const;

const runSchema = z.strictObject({
  name,
  use: z.enum(RUN_USES).default('wall'),
  points: linePoints,
  height: plates.min(1).default(9),
  thick: size.max(16).default(1),
  /** Length of the panels it is made in, studs: one over a seam comes off. 0: built in, it ends at each seam. */
  panel: halfStud.min(0).max(256).default(0),
  /** Of its pieces; null: what is usual for such a thing. */
  colour: colourField.nullable().default(null),
  /** Arches in a row at one face of a wall, in its outermost stud; what is behind them is plain. Null: none. */
  arches: partField.nullable().default(null),
  /** The face with the arches, as one walks along the line. */
  archSide: z.enum(ARCH_SIDES).default('left'),
  /** Of the row of arches with its piers; null: as the wall. */
  archColour: colourField.nullable().default(null),
  /** A fence stands on the wall. */
  topFence: z.boolean().default(false),
  ...standFields,
});
type Run = z.output<typeof runSchema>;

export const runKind = defineKind({
  schema: runSchema,
  group: 'runs',
  word: 'wall or fence',
  public: true,
  refs: STAND_REFS,
  outline: 12,
  relief: 'top',
  beyond: ({ thick }) => Math.max(0.5, thick / 2),
});

/** Height of a wall or fence with what stands on it, plates. */
export const runHigh = ({ use, height, topFence }: Pick<Run, 'use' | 'height' | 'topFence'>): number =>
  height + (use === 'wall' && topFence ? FAMILIES.fence.height : 0);

/** The arch of a row of arches; null where a wall has none, or names another part. */
export function archOf({
  use,
  arches,
}: Pick<Run, 'use' | 'arches'>): { span: number; high: number; part: string } | null {
  const part = use === 'wall' && arches !== null ? partOf(arches) : null;
  return part?.family === 'arch' ? { span: Math.max(part.w, part.d), high: part.h, part: part.id } : null;
}
