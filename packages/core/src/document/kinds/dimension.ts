import { z } from 'zod';
import { MM, MM_PER_STUD, STUD, formatMm, formatStuds, lengthOfLine } from '../../grid/index.ts';
import { linePoints, name } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** A length that stays on the plan: measured again whenever its points are moved. */
export const dimensionKind = defineKind({
  schema: z.strictObject({ name, points: linePoints }),
  group: 'dimensions',
  word: 'dimension',
  outline: 22,
  marks: (dimension) => {
    const studs = lengthOfLine(dimension.points);
    const length = `${formatStuds(Math.round(studs * STUD))}, ${formatMm(Math.round(studs * MM_PER_STUD) * MM)}`;
    return [{ points: dimension.points, words: `${dimension.name}: ${length}` }];
  },
});
