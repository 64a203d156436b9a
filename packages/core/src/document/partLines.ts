import { z } from 'zod';
import { colourName, partName } from '../catalogue/index.ts';

// A number of pieces of one part in one colour, and lists of them.

/** Ids of parts are made of family and size; any other id is a part type that a person added. */
export const partField = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,39}$/, 'a part is told as family and size, such as brick-2x4');

export const colourField = z.string().regex(/^[a-z0-9-]{1,40}$/, 'a colour is told by its id, such as slate');
/** The most colours that one mix holds. */
export const MAX_TONES = 8;
/** Colours by parts of the whole. @param empty what is said where there is none */
export const tonesField = (empty: string) =>
  z
    .array(z.strictObject({ colour: colourField, share: z.number().min(0).max(1000).default(1) }))
    .min(1, empty)
    .max(MAX_TONES);
export const quantity = z.int('parts are counted whole').min(0).max(1_000_000);
export const lineSchema = z.strictObject({ part: partField, colour: colourField, qty: quantity });
export type PartLine = z.infer<typeof lineSchema>;

/** One name for a part in a colour. */
export const lineKey = ({ part, colour }: { part: string; colour: string }): string => `${part} ${colour}`;

/** The most lines one list holds: each part and colour stands once. */
export const MAX_LINES = 5000;
export const linesField = z.array(lineSchema).max(MAX_LINES, 'a list has at most 5,000 lines');

/** Each part and colour once, in the order in which they first come. */
export function mergeLines(lines: readonly PartLine[]): PartLine[] {
  const merged = new Map<string, PartLine>();
  for (const { part, colour, qty } of lines) {
    const line = merged.get(lineKey({ part, colour }));
    if (line) line.qty += qty;
    else merged.set(lineKey({ part, colour }), { part, colour, qty });
  }
  return [...merged.values()];
}

/** What follows the word of a kind of parts: “: brick 2×4 in Slate”. */
export const ofPart = ({ part, colour }: { part: string; colour: string }): string =>
  `: ${partName(part)} in ${colourName(colour)}`;
