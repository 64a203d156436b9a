import { STAND_REFS } from '../fields.ts';
import { defineKind } from '../kind.ts';
import { reachCorners } from '../plotAreas.ts';
import { plotSchema } from './plotSchema.ts';

export const plotKind = defineKind({
  schema: plotSchema,
  group: 'plots',
  word: 'plot',
  public: true,
  refs: STAND_REFS,
  outline: 11,
  relief: 'top',
  influencePoints: (plot) => reachCorners(plot),
});
