import { z } from 'zod';
import {
  GROUND_REFS,
  areaFields,
  borderPoints,
  groundField,
  levelFields,
  name,
  plates,
  size,
} from '../fields.ts';
import { defineKind } from '../kind.ts';

export const DECK_SUPPORTS = ['pillars', 'walls', 'arches', 'ends'] as const;

/** A second surface over the ground: a mezzanine, a quay on piles, a raised yard, an upper level. Its level is its top. */
export const deckKind = defineKind({
  schema: z.strictObject({
    name,
    ...areaFields,
    ...levelFields,
    /** How thick it is, plates. */
    thick: plates.min(1).max(60).default(2),
    ground: groundField.default('paving'),
    /** What carries it: pillars, walls along its edges and across it, arches from pier to pier across it, or its two ends alone. */
    support: z.enum(DECK_SUPPORTS).default('pillars'),
    /** From the middle of one pillar, wall or pier to the next, at most, studs; and how thick each is. */
    spacing: size.min(1).max(64).default(8),
    pillar: size.min(1).max(16).default(2),
    /** It is lifted off and carried by itself. */
    loose: z.boolean().default(false),
  }),
  group: 'decks',
  word: 'deck',
  public: true,
  refs: { level: 'level', ...GROUND_REFS },
  outline: 10.2,
  relief: 'way',
  marks: (deck) => [{ points: borderPoints(deck), words: deck.name, outlines: 'deck' }],
});
