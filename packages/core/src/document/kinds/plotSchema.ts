import { z } from 'zod';
import { ANY_COLOUR } from '../../catalogue/index.ts';
import { MAX_STUDS, halfStud, name, plates, size, standFields, studArea, text } from '../fields.ts';
import { colourField, partField } from '../partLines.ts';
import { CORNERS, SIDES } from '../vocabulary.ts';

export const MOUNTS = ['pinned', 'jumpers', 'loose', 'turntable'] as const;
export const PART_USES = ['roof', 'floor', 'wing', 'other'] as const;
export const MOVES = ['none', 'swing', 'slide', 'rise', 'lower'] as const;
export const PLOT_SHAPES = ['box', 'round'] as const;
export const ROUND_ROOFS = ['cone', 'dome'] as const;
export const ROOF_FORMS = ['gable', 'hip', 'lean-to', 'stepped'] as const;
export const FITTING_USES = ['furniture', 'stair'] as const;
export const MIXED = ['wall', 'roof'] as const;
export const STAIR_ENDS = ['start', 'end'] as const;
export const CONNECTORS = ['unsaid', 'standard', 'none'] as const;

/** Parts of its sides that may stand back. */
export const MAX_RECESSES = 8;

/** One bay of a front: how wide it is, and what is let into the middle of it. */
const baySchema = z.strictObject({
  /** Studs. */
  wide: z.int().min(1).max(64),
  /** A window, a door or an arch of the catalogue; null: plain wall. */
  part: partField.nullable().default(null),
  /** Courses of bricks below it. */
  sill: z.int().min(0).max(40).default(0),
  /** Height of an opening under an arch, the arch with it, courses of bricks. */
  high: z.int().min(1).max(40).default(6),
});
const frontSchema = z.strictObject({
  side: z.enum(SIDES),
  /** In a recess, by its number from 1, the wall across it that faces the side; null: the outer walls of the side. */
  recess: z.int().min(1).max(MAX_RECESSES).nullable().default(null),
  /** 1: on the ground. */
  storey: z.int().min(1).max(60),
  bays: z.array(baySchema).min(1).max(64),
});

const out = halfStud.min(0).max(64).default(0);

export const plotSchema = z.strictObject({
  name,
  ...studArea,
  /** Its walls go round the rectangle, or round the oval in it: the studs whose middle lies in that. */
  shape: z.enum(PLOT_SHAPES).default('box'),
  /** Corners left out of a box, studs along x and y of the unturned building: one makes an L, two a T or a Z. */
  notches: z
    .array(
      z.strictObject({
        corner: z.enum(CORNERS),
        w: z.int().min(1).max(256),
        d: z.int().min(1).max(256),
      }),
    )
    .max(4)
    .refine(
      (notches) => new Set(notches.map(({ corner }) => corner)).size === notches.length,
      'a corner is left out once',
    )
    .default([]),
  /** Stretches of its sides that stand back, studs of the unturned building: one makes a U, two an H or an E. */
  recesses: z
    .array(
      z.strictObject({
        side: z.enum(SIDES),
        /** From the west or north end of the side. */
        at: z.int().min(0).max(MAX_STUDS),
        /** Along the side, and how far it stands back. */
        wide: z.int().min(1).max(256),
        deep: z.int().min(1).max(256),
      }),
    )
    .max(MAX_RECESSES)
    .default([]),
  /** Turned about its middle, degrees clockwise; its footprint is every stud that the turned walls touch. */
  turn: z.number().min(0).lt(360).default(0),
  /** Height of the building above the ground it stands on, plates. */
  height: plates.min(1),
  storeys: z.int().min(0).max(60).default(1),
  /** Heights of its storeys from the ground up, plates; null, and those that are not named: an even share of the rest. */
  storeyHeights: z.array(plates.min(1).nullable()).max(60).default([]),
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
  /** Sides of the unturned building that nobody sees: their walls are of any colour. */
  bareSides: z.array(z.enum(SIDES)).max(4).default([]),
  /** Depth of its pavement, studs; null: unknown. */
  pavement: halfStud.min(0).max(64).nullable().default(null),
  connectors: z.enum(CONNECTORS).default('unsaid'),
  /** Height of the roof's inside at the eaves, plates above the ground; null: a flat roof. */
  eaves: plates.min(0).nullable().default(null),
  /**
   * How its roof rises over the eaves: to two sides with walls at its ends, to all sides, to its front alone, or with corners
   * left out in rings of bricks.
   */
  roofForm: z.enum(ROOF_FORMS).default('gable'),
  /** How rings of bricks draw in over the eaves. */
  roundRoof: z.enum(ROUND_ROOFS).default('cone'),
  /** The slopes it is roofed with; null: those whose ridge comes nearest to its height. */
  slope: partField.nullable().default(null),
  /** Steeper slopes below those, as a mansard has them, and how many courses of them; null: one pitch. */
  lowerSlope: partField.nullable().default(null),
  lowerCourses: z.int().min(1).max(40).default(1),
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
        /** From the inside of the eaves wall to its nearer side, studs, where it has no place of its own. */
        fromWall: halfStud.min(0).max(256).default(0),
        /** A stair leads from its floor up to the next. */
        use: z.enum(FITTING_USES).default('furniture'),
        /** The end of a stair that is up: its west or north one, or the other. */
        climbsTo: z.enum(STAIR_ENDS).default('start'),
        /** On its floor: studs from the inside of the north-west corner, unturned; below 0 it is set into a wall. */
        place: z
          .strictObject({
            x: halfStud.min(-8).max(MAX_STUDS),
            y: halfStud.min(-8).max(MAX_STUDS),
            w: size.max(256),
            d: size.max(256),
          })
          .nullable()
          .default(null),
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
  ...standFields,
  /** How far it leans, degrees from upright, and the bearing it leans to, degrees clockwise from north. */
  lean: z.number().min(0).max(45).default(0),
  leanTo: z.number().min(0).lt(360).default(0),
  /** A rigid tie each so many studs along it; null: none. */
  tieEvery: halfStud.min(1).max(64).nullable().default(null),
  /** How it moves when it is shown: a gate swings about a corner, a wagon slides, a boat rises, a ramp is let down. */
  moves: z.enum(MOVES).default('none'),
  /** The corner of the unturned building that it swings about, and by how many degrees, clockwise. */
  hinge: z.enum(CORNERS).default('nw'),
  swingBy: z.number().min(-360).max(360).default(90),
  /** How far it slides, studs east and south. */
  slideX: halfStud.min(-256).max(256).default(0),
  slideY: halfStud.min(-256).max(256).default(0),
  /** How far it rises, plates. */
  riseBy: plates.min(1).max(600).default(9),
  /** The side of the unturned building about whose foot it is let down, and by how many degrees: a ramp, a drawbridge. */
  downTo: z.enum(SIDES).default('s'),
  downBy: z.number().min(1).max(90).default(90),
  /** How its fronts are divided: the bays of one side on one storey, from the left as seen from outside. */
  bays: z
    .array(frontSchema)
    .max(240)
    .refine(
      (fronts) =>
        new Set(fronts.map(({ side, recess, storey }) => `${side} ${recess} ${storey}`)).size ===
        fronts.length,
      'a side has one row of bays on a storey',
    )
    .default([]),
  /** The longest brick that its walls are laid with, studs: short ones show more joints. */
  wallBrick: z.int().min(1).max(4).default(4),
  /** Of the bricks 1 × 2 of its walls so many percent are scored, which shows a joint more in each; not where nobody sees. */
  scored: z.number().min(0).max(100).default(0),
  /** And so many have studs on their side, which stand out of the wall; the rest is smooth. */
  sideStudded: z.number().min(0).max(100).default(0),
  /** Colours of its walls, of its roof, and of what is let into its walls. */
  wallColour: colourField.default(ANY_COLOUR),
  roofColour: colourField.default(ANY_COLOUR),
  letInColour: colourField.default(ANY_COLOUR),
  /** Of the pieces of its walls or its roof so many percent are of another colour, in even scatter. */
  mixes: z
    .array(
      z.strictObject({
        of: z.enum(MIXED),
        colour: colourField,
        percent: z.number().min(1).max(99),
      }),
    )
    .max(8)
    .refine(
      (mixes) =>
        MIXED.every((use) => mixes.reduce((sum, one) => sum + (one.of === use ? one.percent : 0), 0) < 100),
      'what is mixed in is less than 100 % of the walls, and of the roof',
    )
    .default([]),
  /** Pieces of ornament over its plain shell, percent of those of the shell: a guess until a parts list counts it. */
  ornament: z.int().min(0).max(400).default(0),
  notes: text.default(''),
});
/** The fields of a plot: of the entity without its id. */
export type PlotFields = z.output<typeof plotSchema>;
