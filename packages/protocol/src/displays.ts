import { z } from 'zod';
import { ROLES, line, presetSchema, rowSchema } from '@quarry/core/document';

// Displays: requests and answers of `/api/displays`.

export const roleSchema = z.enum(ROLES);

export const createDisplaySchema = z.strictObject({
  name: line().trim().min(1, 'a name is needed').max(80),
  preset: presetSchema,
});

/** One line of the list of displays; `changedAt` in ms since the epoch. */
export const displayLineSchema = z.object({
  id: z.string(),
  name: z.string(),
  kind: z.string(),
  role: roleSchema,
  changedAt: z.number(),
});
export type DisplayLine = z.infer<typeof displayLineSchema>;

/** A whole display: its rows at a sequence number of the log, and who the user is on it. */
export const displayDocumentSchema = z.object({
  id: z.string(),
  epoch: z.int(),
  seq: z.int(),
  actor: z.object({ role: roleSchema, person: z.string().nullable() }),
  rows: z.array(rowSchema),
});
export type DisplayDocument = z.infer<typeof displayDocumentSchema>;
