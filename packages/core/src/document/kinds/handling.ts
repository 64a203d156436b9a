import { z } from 'zod';
import { instant, line, reference } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** What a carried piece travels in. */
export const PACKED_AS = ['auto', 'bare', 'crate'] as const;

/** How one carried piece or crate travels, and how far it has come. */
export const handlingKind = defineKind({
  schema: z.strictObject({
    /** Its key among what is loaded, such as `module-a1` or `crate-tub-2`. */
    piece: line().trim().min(1).max(160),
    packing: z.enum(PACKED_AS).default('auto'),
    crate: reference.default(null),
    /** Laid on its side, as flat as it goes. */
    lying: z.boolean().default(false),
    /** What it bears on top, kg; 0: nothing may stand on it. */
    bearsKg: z.number().min(0).max(2000).default(0),
    /** When it was put into the vehicle, and when it arrived at the place. */
    loaded: instant,
    arrived: instant,
  }),
  group: 'handlings',
  word: 'note on carrying',
  label: ({ piece }) => `how ${piece ?? 'a piece'} is carried`,
  refs: { crate: 'crate' },
  ownBy: [],
});
