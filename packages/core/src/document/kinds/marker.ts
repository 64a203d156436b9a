import { z } from 'zod';
import { name, studArea, text } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const MARKER_STATES = ['open', 'decided'] as const;

export const markerKind = defineKind({
  schema: z.strictObject({
    name,
    ...studArea,
    state: z.enum(MARKER_STATES).default('open'),
    notes: text.default(''),
  }),
  group: 'markers',
  word: 'marker',
  outline: 18,
});
