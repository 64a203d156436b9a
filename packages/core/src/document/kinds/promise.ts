import { z } from 'zod';
import { line, reference } from '../fields.ts';
import { colourField, partField, quantity } from '../partLines.ts';
import { defineKind } from '../kind.ts';
import { ofPart } from '../partLines.ts';

/** Somebody's parts put by for a section. */
export const promiseKind = defineKind({
  schema: z.strictObject({
    part: partField,
    colour: colourField,
    qty: quantity.min(1),
    person: reference,
    section: reference,
    note: line().max(200).default(''),
  }),
  group: 'promises',
  word: 'promise',
  label: (of) => `promise${ofPart(of)}`,
  refs: { section: 'section', person: 'person' },
  ownBy: ['person'],
});
