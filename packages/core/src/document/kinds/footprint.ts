import { z } from 'zod';
import { name, wholeSize, wholeStud } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const footprintKind = defineKind({
  schema: z.strictObject({
    name,
    x: wholeStud,
    y: wholeStud,
    w: wholeSize,
    d: wholeSize,
  }),
  group: 'footprint',
  word: 'footprint part',
  public: true,
  outline: 0,
  plannersOnly: true,
});
