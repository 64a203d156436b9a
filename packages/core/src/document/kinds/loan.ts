import { z } from 'zod';
import { date, reference } from '../fields.ts';
import { colourField, partField, quantity } from '../partLines.ts';
import { defineKind } from '../kind.ts';
import { ofPart } from '../partLines.ts';

export const loanKind = defineKind({
  schema: z.strictObject({
    part: partField,
    colour: colourField,
    qty: quantity.min(1),
    from: reference,
    to: reference,
    due: date.default(null),
    back: date.default(null),
  }),
  group: 'loans',
  word: 'loan',
  label: (of) => `loan${ofPart(of)}`,
  refs: { from: 'person', to: 'person' },
});
