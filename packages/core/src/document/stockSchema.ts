import { z } from 'zod';
import { FAMILY_NAMES } from '../catalogue/index.ts';
import { date, line, money, name, position, reference, text } from './fields.ts';
import { GROUNDS } from './terrainSchema.ts';

// Parts, colours and who has what: the catalogue's own additions, recipes, needs, stock, loans and orders.

export const LIST_USES = ['need', 'kit'] as const;
export const LIST_PURPOSES = ['building', 'figures', 'ground', 'planting', 'lights', 'other'] as const;
export const ORDER_STATES = ['draft', 'sent', 'paid', 'mail', 'part', 'away'] as const;
export type OrderState = (typeof ORDER_STATES)[number];
export const ORDER_WORDS: Record<OrderState, string> = {
  draft: 'draft',
  sent: 'sent',
  paid: 'paid',
  mail: 'in the mail',
  part: 'arrived in part',
  away: 'put away',
};
/** Whether what has not come of an order is on its way. */
export const isComing = ({ state }: { state: OrderState }): boolean => state !== 'draft' && state !== 'away';
export const ALIAS_ABOUT = ['part', 'colour'] as const;

/** Ids of parts are made of family and size; any other id is a part type that a person added. */
const part = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,39}$/, 'a part is told as family and size, such as brick-2x4');
const colour = z.string().regex(/^[a-z0-9-]{1,40}$/, 'a colour is told by its id, such as slate');
const quantity = z.int('parts are counted whole').min(0).max(1_000_000);

export const lineSchema = z.strictObject({ part, colour, qty: quantity });
export type PartLine = z.infer<typeof lineSchema>;
/** One name for a part in a colour. */
export const lineKey = ({ part, colour }: { part: string; colour: string }): string => `${part} ${colour}`;
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
/** The most lines one list holds: each part and colour stands once. */
export const MAX_LINES = 5000;
const lines = z.array(lineSchema).max(MAX_LINES, 'a list has at most 5,000 lines');

/** What a builder knows of a part, listed or their own: its id is the part's. */
export const partTypeSchema = z.strictObject({
  name: line().trim().max(80).default(''),
  family: z.enum(FAMILY_NAMES),
  /** One piece as weighed, grams; null: by its volume. */
  grams: z.number().positive().max(5000).nullable().default(null),
  price: money.nullable().default(null),
  /** Colours it is known to come in; empty: not known. */
  colours: z.array(colour).max(100).default([]),
  /** Bought over the count, percent; null: the display's or the family's. */
  spares: z.number().min(0).max(100).nullable().default(null),
});

/** How ground looks: tones of its cover, and what lies on it in even, unpatterned scatter. */
export const recipeSchema = z.strictObject({
  name,
  ground: z.enum(GROUNDS),
  /** Where it holds; null: wherever no section has its own. */
  section: reference.default(null),
  /** The cover's colours by parts of the whole; the first is the base. */
  tones: z
    .array(z.strictObject({ colour, share: z.number().min(0).max(1000).default(1) }))
    .min(1, 'a recipe needs one tone')
    .max(8),
  /** The colour of the sides that show under it; null: its base. */
  side: colour.nullable().default(null),
  /** Laid on the cover: percent of its studs, in groups, no nearer to each other than `apart` studs. */
  accents: z
    .array(
      z.strictObject({
        part: part.default('plate-1x1'),
        colour,
        percent: z.number().min(0).max(60),
        group: z.int().min(1).max(5).default(1),
        apart: z.number().min(0).max(64).default(0),
      }),
    )
    .max(12)
    .default([]),
  /** How far it may bend to what is in stock, percent of the whole. */
  bend: z.number().min(0).max(100).default(0),
  seed: z.int().min(0).max(1_000_000).default(1),
});

/** A list of parts: what a building, a cast or a corner needs, or what a kit holds. */
export const partListSchema = z.strictObject({
  name,
  use: z.enum(LIST_USES).default('need'),
  purpose: z.enum(LIST_PURPOSES).default('building'),
  section: reference.default(null),
  /** Of needs: the building it is the list of; it then takes the place of what is estimated of that building. */
  plot: reference.default(null),
  /** How many of it: buildings of a kind, copies of a kit. */
  copies: z.int().min(1).max(1000).default(1),
  /** Of kits: whose, and what one cost. */
  owner: reference.default(null),
  price: money.default(0),
  /** Of needs: may only be built from kits. */
  kitsOnly: z.boolean().default(false),
  lines,
  notes: text.default(''),
});

/** Pieces of one part and colour in one place of one person. */
export const lotSchema = z.strictObject({
  part,
  colour,
  qty: quantity,
  owner: reference.default(null),
  /** The drawer or crate. */
  place: line().trim().max(80).default(''),
  /** Donated: it is not returned. */
  bulk: z.boolean().default(false),
});

export const loanSchema = z.strictObject({
  part,
  colour,
  qty: quantity.min(1),
  from: reference,
  to: reference,
  due: date.default(null),
  back: date.default(null),
});

export const orderSchema = z.strictObject({
  name,
  seller: line().trim().max(80).default(''),
  by: reference.default(null),
  state: z.enum(ORDER_STATES).default('draft'),
  expected: date.default(null),
  /** What was thought it would cost, and what it did in the end, with postage; null: not known yet. */
  guess: money.default(0),
  paid: money.nullable().default(null),
  postage: money.default(0),
  /** Who bears the cost, by parts of the whole; empty: who ordered. */
  shares: z
    .array(z.strictObject({ person: reference, share: z.number().min(0).max(1000) }))
    .max(30)
    .default([]),
  lines: z
    .array(
      z.strictObject({
        ...lineSchema.shape,
        price: money.default(0),
        /** How many of it came. */
        came: quantity.default(0),
        section: reference.default(null),
      }),
    )
    .max(MAX_LINES),
  notes: text.default(''),
});

/** Built in with what was at hand; to be swapped when the right one comes. */
export const placeholderSchema = z.strictObject({
  /** What it should be. */
  part,
  colour,
  qty: quantity.min(1).default(1),
  /** The colour it stands in. */
  stands: colour,
  section: reference.default(null),
  x: position,
  y: position,
  built: date.default(null),
  swapped: date.default(null),
  notes: text.default(''),
});

/** Pieces that may be used instead of another, in one section or always. */
export const substituteSchema = z.strictObject({
  part,
  colour,
  /** What makes one of it. */
  use: z.array(lineSchema).min(1).max(12),
  section: reference.default(null),
});

/** Somebody's parts put by for a section. */
export const promiseSchema = z.strictObject({
  part,
  colour,
  qty: quantity.min(1),
  person: reference,
  section: reference,
  note: line().max(200).default(''),
});

/** An alias: a word of an imported list and its meaning. */
export const aliasSchema = z.strictObject({
  about: z.enum(ALIAS_ABOUT),
  word: line().trim().min(1).max(120),
  means: z.string().min(1).max(40),
});
