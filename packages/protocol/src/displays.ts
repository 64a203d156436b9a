import { z } from 'zod';
import { ROLES, line, startSchema, rowSchema } from '@quarry/core/document';

// Displays: requests and answers of `/api/displays`.

export const roleSchema = z.enum(ROLES);

export const createDisplaySchema = z.strictObject({
  name: line().trim().min(1, 'a name is needed').max(80),
  start: startSchema,
});

export const copyDisplaySchema = z.strictObject({ name: createDisplaySchema.shape.name });

/** The answer to what makes a display. */
export const createdDisplaySchema = z.object({ id: z.string() });
export type CreatedDisplay = z.infer<typeof createdDisplaySchema>;

/** One line of the list of displays, as this user sees it; `changedAt` in ms since the epoch. */
export const displayLineSchema = z.object({
  id: z.string(),
  name: z.string(),
  kind: z.string(),
  role: roleSchema,
  /** Number of the last batch in its log. */
  seq: z.int(),
  changedAt: z.number(),
  /** Who made the last change; null: nothing has been changed yet. */
  changedBy: z.string().nullable(),
  showDate: z.iso.date().nullable(),
  /** Size of its footprint, studs; null: it has none. */
  size: z.object({ w: z.number(), d: z.number() }).nullable(),
  /** Share of the work done, 0 to 1. */
  done: z.number(),
  /** Threads of advice with messages that this user has not read. */
  unread: z.int(),
});
export type DisplayLine = z.infer<typeof displayLineSchema>;

/** A piece that is kept in a display of this user. */
export const keptPieceSchema = z.object({
  display: z.string(),
  displayName: z.string(),
  id: z.string(),
  /** Its name, its sides in studs and how many things are in it; null: it is too large to be looked into for a list. */
  card: z.object({ name: z.string(), w: z.number(), d: z.number(), things: z.int() }).nullable(),
});
export type KeptPiece = z.infer<typeof keptPieceSchema>;

/** A piece as its file. */
export const pieceTextSchema = z.object({ text: z.string() });
export type PieceText = z.infer<typeof pieceTextSchema>;

/** A whole display: its rows at a sequence number of the log, and who the user is on it. */
export const displayDocumentSchema = z.object({
  id: z.string(),
  epoch: z.int(),
  seq: z.int(),
  actor: z.object({ role: roleSchema, person: z.string().nullable() }),
  rows: z.array(rowSchema),
});
export type DisplayDocument = z.infer<typeof displayDocumentSchema>;
