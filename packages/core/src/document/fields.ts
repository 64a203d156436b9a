import { z } from 'zod';
import { depthOf } from './nesting.ts';
import { GROUNDS, METHODS, PROFILES, SHAPES, SIDES, WORKS } from './vocabulary.ts';

// The fields that the schemas of the document are made of, each with its limits.

/** No display is larger than this many studs a side (4,096 studs = 32.8 m). */
export const MAX_STUDS = 4096;
/** Nor has its footprint, from corner to corner, more studs than this (2,048 × 2,048). */
export const MAX_FOOTPRINT = 4_194_304;
const MAX_MM = 40_000;
const MAX_PLATES = 3000;

export const idSchema = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,39}$/, 'an id is 1 to 40 small letters, digits or hyphens');
/**
 * Control characters, line separators and marks that turn the direction of writing: what stands in one line of a name
 * must not end that line in a calendar or a log, nor read backwards. Each run of them becomes a space.
 */
const UNSEEN = /[\p{Cc}\u2028\u2029\u202a-\u202e\u2066-\u2069\ufeff]+/gu;
/** The same in texts of several lines, whose line ends and tabs stay. */
const UNSEEN_IN_TEXT = /(?:(?![\n\t])[\p{Cc}\u202a-\u202e\u2066-\u2069\ufeff])+/gu;

/** Words in one line. */
export const line = () => z.string().overwrite((words) => words.replace(UNSEEN, ' '));
/** Words in several lines, which end as on every system. */
export const prose = () =>
  z.string().overwrite((words) => words.replace(/\r\n?/g, '\n').replace(UNSEEN_IN_TEXT, ' '));
/** The longest name, characters. */
export const MAX_NAME = 80;
export const name = line()
  .trim()
  .min(1, 'a name is needed')
  .max(MAX_NAME, `a name has at most ${MAX_NAME} characters`);
export const text = prose().max(2000, 'a text has at most 2,000 characters');
export const halfStud = z.number().multipleOf(0.5, 'positions stand on half studs');
export const position = halfStud.min(-MAX_STUDS).max(MAX_STUDS);
export const size = halfStud.min(0.5).max(MAX_STUDS);
export const millimetres = z.number().min(-MAX_MM).max(MAX_MM);
export const mmSize = z.number().min(1).max(MAX_MM);
export const plates = z.int().min(-MAX_PLATES).max(MAX_PLATES);
export const clockTime = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'a time of day is told as 19:30');
/**
 * What is kept as it comes, without a schema of its own, with bounds on how deep and how long it is.
 * @param word what it is, for the sentence that refuses it
 * @param bounds.letters as JSON; what is too deep is not written out
 */
export const bounded = <S extends z.ZodType>(
  schema: S,
  word: string,
  { nesting, letters }: { nesting: number; letters: number },
) =>
  schema
    .refine((value) => depthOf(value) <= nesting, `${word} is nested at most ${nesting} deep`)
    .refine(
      (value) => depthOf(value) > nesting || JSON.stringify(value).length <= letters,
      `${word} has at most ${letters.toLocaleString('en')} letters as JSON`,
    );
/** A time of day that need not be known. */
const clock = clockTime.nullable().default(null);
/** The hours of a show by the clock of its hall: of one that is prepared now, and of those after it. */
export const showTimes = {
  /** Days on which visitors come, one after another. */
  showDays: z.int().min(1).max(30).default(1),
  /** Builders may come in, visitors come, they leave, the hall is to be empty. */
  accessFrom: clock,
  opensAt: clock,
  closesAt: clock,
  clearBy: clock,
  /** On the evening before the first day builders may come in; null: they may not. */
  eveFrom: clock,
  eveTo: clock,
  /** On the day after the last one they may go on taking down; null: they may not. */
  morrowFrom: clock,
  morrowTo: clock,
  /** From home to the hall, minutes; null: not known. */
  driveMinutes: z.int().min(0).max(2880).nullable().default(null),
};
export const money = z.number().min(0).max(1_000_000);
export const reference = idSchema.nullable();
export const date = z.iso.date().nullable();
export const studArea = { x: position, y: position, w: size, d: size };
export const wholeStud = z.int().min(-MAX_STUDS).max(MAX_STUDS);
export const wholeSize = z.int().min(1).max(MAX_STUDS);

/** A true length, m. */
export const metres = z.number().min(0.01).max(10_000);
export const message = prose()
  .trim()
  .min(1, 'say something')
  .max(4000, 'a message has at most 4,000 characters');
export const instant = z.iso.datetime().nullable().default(null);

/** Whom it names: they hear of it. */
export const mentionsField = z.array(idSchema).max(20).default([]);
export const spotFields = { x: position, y: position };

/** A method of its own; null: as its section's. */
export const methodField = z.enum(METHODS).nullable().default(null);
export const groundField = z.enum(GROUNDS);
/** Fields that name a ground: where it is no ground of every display, the display describes it. */
export const GROUND_REFS = { ground: 'customGround' } as const;
export const BANK_REFS = { ...GROUND_REFS, bankGround: 'customGround' } as const;

const fraction = z.number().min(0).max(1);

export const levelFields = { level: idSchema, offset: plates.default(0) };

/** An area on the plan: a rectangle, the oval in it, or an outline whose corners are shares of its width and depth. */
export const areaFields = {
  ...studArea,
  shape: z.enum(SHAPES).default('rect'),
  outline: z
    .array(z.strictObject({ x: fraction, y: fraction }))
    .max(400)
    .default([]),
};

/** Sides of the polygon that stands for an oval. */
const OVAL_SIDES = 32;

/** The border of an area as a closed line, studs: ovals as a polygon of 32 sides. */
export function borderPoints({
  x,
  y,
  w,
  d,
  shape,
  outline,
}: {
  x: number;
  y: number;
  w: number;
  d: number;
  shape: (typeof SHAPES)[number];
  outline: readonly { x: number; y: number }[];
}): { x: number; y: number }[] {
  const shares =
    shape === 'outline' && outline.length > 2
      ? outline
      : shape === 'oval'
        ? Array.from({ length: OVAL_SIDES }, (_, i) => ({
            x: (1 + Math.cos((2 * Math.PI * i) / OVAL_SIDES)) / 2,
            y: (1 + Math.sin((2 * Math.PI * i) / OVAL_SIDES)) / 2,
          }))
        : [
            { x: 0, y: 0 },
            { x: 1, y: 0 },
            { x: 1, y: 1 },
            { x: 0, y: 1 },
          ];
  return [...shares, shares[0]].map((share) => ({ x: x + share.x * w, y: y + share.y * d }));
}

/** Points of a line across the plan, studs; with heights where the line holds one. */
export const linePoints = z
  .array(z.strictObject({ x: position, y: position }))
  .min(2, 'a line needs two points')
  .max(200);

export const heightPoints = z
  .array(z.strictObject({ x: position, y: position, z: plates.nullable().default(null) }))
  .min(2, 'a line needs two points')
  .max(200);

export const risingFields = {
  name,
  ...areaFields,
  ...levelFields,
  /** The ridge or, where both ends meet, the peak (of a hollow: the deepest line), as shares of width and depth. */
  ridge: z
    .strictObject({ x1: fraction, y1: fraction, x2: fraction, y2: fraction })
    .prefault({ x1: 0.5, y1: 0.5, x2: 0.5, y2: 0.5 }),
  profile: z.enum(PROFILES).default('even'),
  /** Height of each terrace, plates; 0: as smooth as plates allow. */
  terrace: plates.min(0).default(0),
  /** Sides that fall steeply, as rock. */
  faces: z.array(z.enum(SIDES)).max(4).default([]),
  ground: groundField.default('grass'),
};

/** What a thing stands on; all empty: the highest surface under it. At most one of them counts, in this order. */
export const standFields = {
  onGround: z.boolean().default(false),
  onDeck: reference.default(null),
  inCavity: reference.default(null),
  onPlot: reference.default(null),
  /** On a wall or fence: on its top. */
  onRun: reference.default(null),
};
export const STAND_REFS = { onDeck: 'deck', inCavity: 'cavity', onPlot: 'plot', onRun: 'run' } as const;

/** A way or track that makes a deck of its own where it lies over the ground, instead of a bank. */
export const bridgeFields = {
  bridges: z.boolean().default(false),
  /** How thick that deck is, plates. */
  bridgeThick: plates.min(1).max(60).default(2),
  /** From the middle of one pier to the next, studs. */
  pierEvery: size.min(2).max(256).default(8),
};

export const placeField = reference.default(null);
export const workField = z.enum(WORKS).default('other');
export const pieceCount = z.int('pieces are counted whole').min(0).max(1_000_000);
