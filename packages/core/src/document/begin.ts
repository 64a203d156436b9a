import { z } from 'zod';
import { MM_PER_STUD } from '../grid/index.ts';
import { MAX_FOOTPRINT, line, mmSize, plates, wholeSize } from './fields.ts';
import { sceneFrom } from './file.ts';
import { KINDS_OF_DISPLAY } from './kinds/display.ts';
import { TABLE_KINDS } from './kinds/table.ts';
import type { Scene } from './scene.ts';

/** What a new display begins with. Sizes in studs, the table's in mm, the deck in plates above the base. */
export const startSchema = z
  .strictObject({
    kind: z.enum(KINDS_OF_DISPLAY),
    w: wholeSize,
    d: wholeSize,
    /** The size is a rule that the display is held to, not only where it begins. */
    isLimit: z.boolean().default(false),
    stand: z.enum(TABLE_KINDS).default('table'),
    /** The whole top that it stands on; null: a little more than the scene. */
    top: z.strictObject({ w: mmSize, d: mmSize }).nullable().default(null),
    /** Height of the ground above the base sheets: 0 is the bare base. */
    deck: plates.min(0).max(300).default(0),
    currency: line().trim().min(1).max(4).default('¤'),
  })
  .refine(({ w, d }) => w * d <= MAX_FOOTPRINT, {
    message: `a footprint has at most ${MAX_FOOTPRINT.toLocaleString('en')} studs`,
  });
export type Start = z.input<typeof startSchema>;

/** Common base sizes with a price guess in the display's currency (common practice, no source: change them). */
const BASES = [
  { id: 'base-48-48', w: 48, d: 48, price: 14, stock: 0 },
  { id: 'base-32-32', w: 32, d: 32, price: 7.5, stock: 0 },
  { id: 'base-16-32', w: 16, d: 32, price: 5, stock: 0 },
  { id: 'base-16-16', w: 16, d: 16, price: 3, stock: 0 },
  { id: 'base-8-8', w: 8, d: 8, price: 1.2, stock: 0 },
];
/** How far a table stands out beyond a scene whose table nobody measured, mm a side. */
const BEYOND = 40;
const STAND_WORDS = { table: 'Table', shelf: 'Shelf', floor: 'Floor' } as const;
/** Height of what it stands on, mm; a shelf at the eyes of a standing adult (both guesses, no source). */
const STAND_HEIGHTS = { table: 740, shelf: 1400, floor: 0 } as const;

/** A new display with one level, one pad over all of it, one section and what it stands on. */
export function blankDisplay(name: string, start: Start, owner: { name: string; initials: string }): Scene {
  const { kind, w, d, isLimit, stand, top, deck, currency } = startSchema.parse(start);
  const ground = { x: 0, y: 0, w, d };
  const [sceneW, sceneD] = [w * MM_PER_STUD, d * MM_PER_STUD];
  const table = top ?? { w: sceneW + 2 * BEYOND, d: sceneD + 2 * BEYOND };
  return sceneFrom({
    display: {
      ...{ name, kind, currency },
      limitW: isLimit ? w : null,
      limitD: isLimit ? d : null,
      moduleMaxW: 96,
      moduleMaxD: 48,
      // A shelf has a wall behind it.
      viewedSides: stand === 'shelf' ? ['s'] : [],
    },
    levels: [{ id: 'ground', name: 'Ground', height: deck }],
    footprint: [{ id: 'footprint', name: 'Footprint', ...ground }],
    tables: [
      {
        id: 'table',
        name: kind === 'vignette' && top === null ? 'Stand' : STAND_WORDS[stand],
        kind: stand,
        height: STAND_HEIGHTS[stand],
        x: (sceneW - table.w) / 2,
        y: (sceneD - table.d) / 2,
        ...table,
      },
    ],
    pads: [{ id: 'pad', name: 'Base ground', ...ground, level: 'ground', ground: 'grass' }],
    people: [{ id: 'me', ...owner }],
    sections: [{ id: 'section-a', letter: 'A', name: 'Whole display', ...ground, owner: 'me' }],
    passages: kind === 'vignette' ? [] : [{ id: 'door', name: 'house door', width: 830, height: 2000 }],
    bases: BASES,
  });
}
