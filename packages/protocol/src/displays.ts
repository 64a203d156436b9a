import { z } from 'zod';
import { ROLES } from '@quarry/core/document';

// The list of displays: answers of `/api/displays`.

export const roleSchema = z.enum(ROLES);

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
