import { z } from 'zod';
import { line, startSchema, rowSchema } from '@quarry/core/document';
import { roleSchema } from './displays.ts';

// A whole display: how one begins, and its rows. Apart from the list, which needs to know no kinds of things.

export const createDisplaySchema = z.strictObject({
  name: line().trim().min(1, 'a name is needed').max(80),
  start: startSchema,
});

export const copyDisplaySchema = z.strictObject({ name: createDisplaySchema.shape.name });

/** A whole display: its rows at a sequence number of the log, and who the user is on it. */
export const displayDocumentSchema = z.object({
  id: z.string(),
  epoch: z.int(),
  seq: z.int(),
  actor: z.object({ role: roleSchema, person: z.string().nullable() }),
  rows: z.array(rowSchema),
});
export type DisplayDocument = z.infer<typeof displayDocumentSchema>;
