import { z } from 'zod';
import { halfStud, line, name, plates, position, size, studArea, text } from './fields.ts';
import { SIDES, area, linePoints } from './terrainSchema.ts';

// What stands on the ground: buildings, walls, repeats, planting, figures, and what people leave as signs.

export const WINDS = ['n', 'ne', 'e', 'se', 's', 'sw', 'w', 'nw'] as const;
export const WIND_WORDS: Record<(typeof WINDS)[number], string> = {
  n: 'north',
  ne: 'north-east',
  e: 'east',
  se: 'south-east',
  s: 'south',
  sw: 'south-west',
  w: 'west',
  nw: 'north-west',
};
export const SEASONS = ['spring', 'summer', 'autumn', 'winter'] as const;
export const MOUNTS = ['pinned', 'jumpers', 'loose', 'turntable'] as const;
export const PART_USES = ['roof', 'floor', 'wing', 'other'] as const;
export const CONNECTORS = ['unsaid', 'standard', 'none'] as const;
export const RUN_USES = ['wall', 'fence', 'hedge', 'railing'] as const;
export const REPEAT_USES = ['lamp', 'arch', 'panel', 'post', 'other'] as const;
export const SPACINGS = ['count', 'every', 'base'] as const;
export const FIGURE_STATES = ['idea', 'planned', 'built', 'placed'] as const;
export const MARKER_STATES = ['open', 'decided'] as const;
const PLANT_SEASONS = ['any', ...SEASONS] as const;

const out = halfStud.min(0).max(64).default(0);
export const plotSchema = z.strictObject({
  name,
  ...studArea,
  /** Turned about its middle, degrees clockwise; its footprint is every stud that the turned walls touch. */
  turn: z.number().min(0).lt(360).default(0),
  /** Height of the building above the ground it stands on, plates. */
  height: plates.min(1),
  storeys: z.int().min(0).max(60).default(1),
  /** Thickness of the outer walls, studs. */
  wall: size.max(8).default(1),
  mount: z.enum(MOUNTS).default('pinned'),
  mayCut: z.boolean().default(false),
  /** Where a seam may cut it, studs from its west or north wall; empty: anywhere. */
  cutAt: z
    .array(z.strictObject({ across: z.enum(['x', 'y']), at: halfStud.min(0).max(4096) }))
    .max(12)
    .default([]),
  /** Ground cover is laid under it too: what is uncovered when it is taken off. */
  coverUnder: z.boolean().default(false),
  /** A street front keeps the street standard of the house rules. */
  streetFront: z.boolean().default(false),
  /** The side with the street door; the sides that are worth showing. */
  front: z.enum(SIDES).default('s'),
  goodSides: z.array(z.enum(SIDES)).max(4).default([]),
  /** Depth of its pavement, studs; null: unknown. */
  pavement: halfStud.min(0).max(64).nullable().default(null),
  connectors: z.enum(CONNECTORS).default('unsaid'),
  /** Height of the roof's inside at the eaves, plates above the ground; null: a flat roof. */
  eaves: plates.min(0).nullable().default(null),
  /** What lifts off, from the top down: how tall each is and how much room it leaves below. */
  parts: z
    .array(
      z.strictObject({
        name,
        use: z.enum(PART_USES).default('floor'),
        height: plates.min(1),
        /** Clear height below it, plates. */
        clears: plates.min(0).default(0),
      }),
    )
    .max(24)
    .default([]),
  /** What stands or swings inside under the roof: furniture, an open door. */
  fittings: z
    .array(
      z.strictObject({
        name,
        /** Above the building's ground, plates: where it stands and how tall it is. */
        on: plates.min(0).default(0),
        height: plates.min(1),
        /** From the inside of the eaves wall to its nearer side, studs. */
        fromWall: halfStud.min(0).max(256).default(0),
      }),
    )
    .max(40)
    .default([]),
  /**
   * What stands out over the walls on each side of the unturned building (eaves, lights, oriels), studs, and how high
   * above the building's ground it begins, plates: below that there are the walls alone.
   */
  overhang: z.strictObject({ n: out, e: out, s: out, w: out }).prefault({}),
  overhangFrom: plates.min(0).default(0),
  notes: text.default(''),
});

export const runSchema = z.strictObject({
  name,
  use: z.enum(RUN_USES).default('wall'),
  points: linePoints,
  height: plates.min(1).default(9),
  thick: size.max(16).default(1),
});

export const repeatSchema = z.strictObject({
  name,
  use: z.enum(REPEAT_USES).default('lamp'),
  points: linePoints,
  /** A number of them, one every so many studs, or so many to each base. */
  spacing: z.enum(SPACINGS).default('every'),
  count: z.int().min(1).max(1000).default(4),
  every: size.max(512).default(16),
  base: size.max(512).default(48),
  /** Length of one along the line and its height. */
  length: size.max(256).default(1),
  height: plates.min(1).default(18),
  /** None stands nearer to a seam than this, studs. */
  keepOff: halfStud.min(0).max(64).default(0),
});

const plant = z.strictObject({
  name,
  /** Parts of the mix. */
  share: z.number().min(0).max(1000).default(1),
  low: plates.min(1).default(6),
  high: plates.min(1).default(12),
  /** Width of the crown, studs. */
  crown: size.max(64).default(2),
  /** The season its leaves show. */
  season: z.enum(PLANT_SEASONS).default('any'),
});
export const plantingSchema = z.strictObject({
  name,
  ...area,
  /** Plants to 100 studs. */
  density: z.number().min(0).max(100).default(2),
  mix: z.array(plant).min(1, 'a mix needs one plant').max(24),
  seed: z.int().min(0).max(1_000_000).default(1),
});

const spot = { x: position, y: position };
export const treeSchema = z.strictObject({
  name,
  ...spot,
  height: plates.min(1).default(24),
  crown: size.max(64).default(6),
  season: z.enum(PLANT_SEASONS).default('any'),
});
export const figureSchema = z.strictObject({
  name,
  ...spot,
  /** How many figures play in it. */
  cast: z.int().min(1).max(500).default(1),
  story: line().max(200).default(''),
  state: z.enum(FIGURE_STATES).default('idea'),
});
export const flagSchema = z.strictObject({
  name,
  ...spot,
  /** Where it points: downwind. */
  heading: z.enum(WINDS).default('e'),
  height: plates.min(1).default(24),
});
export const markerSchema = z.strictObject({
  name,
  ...studArea,
  state: z.enum(MARKER_STATES).default('open'),
  notes: text.default(''),
});
export const reservedSchema = z.strictObject({ name, ...studArea, notes: text.default('') });
export const noteSchema = z.strictObject({ name, ...spot, text: text.default('') });

/** The longest picture, characters: a drawing of about 1,600 × 1,200 px re-encoded. */
export const MAX_PICTURE = 1_400_000;
/** A picture under the plan, to draw after. */
export const pictureSchema = z.strictObject({
  name,
  x: z.number().min(-4096).max(4096),
  y: z.number().min(-4096).max(4096),
  w: z.number().min(0.5).max(4096),
  d: z.number().min(0.5).max(4096),
  /** How much of it shows, percent. */
  shows: z.int().min(5).max(100).default(50),
  /** JPEG, PNG or WebP, as a data address. */
  image: z
    .string()
    .max(MAX_PICTURE, 'the picture is too large')
    .regex(/^data:image\/(jpeg|png|webp);base64,[A-Za-z0-9+/]+={0,2}$/, 'a picture is JPEG, PNG or WebP'),
});

/** Things kept together to be set out again: a whole yard, a stall with its figures. */
export const pieceSchema = z.strictObject({
  name,
  w: size,
  d: size,
  /** Kind and data of each thing, placed from the piece's north-west corner. */
  things: z
    .array(z.strictObject({ kind: z.string().max(20), data: z.record(z.string().max(40), z.unknown()) }))
    .min(1)
    .max(200),
});
