import { z } from 'zod';
import { date, line, money, name, reference, text } from '../fields.ts';
import { MAX_LINES, lineSchema, quantity } from '../partLines.ts';
import { defineKind } from '../kind.ts';

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

export const orderKind = defineKind({
  schema: z.strictObject({
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
  }),
  group: 'orders',
  word: 'order',
  refs: { by: 'person' },
  ownBy: ['by'],
});
