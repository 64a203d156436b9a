import { z } from 'zod';
import {
  MAX_STUDS,
  halfStud,
  idSchema,
  name,
  plates,
  position,
  size,
  studArea,
  text,
  wholeStud,
  wholeSize,
} from './fields.ts';

// What the ground of a scene is made of. All of it is compiled to the relief, in the order of `terrain/rasterize.ts`.
// Heights are plates above datum, or above the level that a thing names.

export const GROUNDS = ['grass', 'rock', 'soil', 'sand', 'paving', 'road', 'ballast', 'water'] as const;
export type Ground = (typeof GROUNDS)[number];
/** Sides of the display, by the compass of its plan: north is the far edge. */
export const SIDES = ['n', 'e', 's', 'w'] as const;
export type Side = (typeof SIDES)[number];
export const SIDE_WORDS: Record<Side, string> = { n: 'north', e: 'east', s: 'south', w: 'west' };

export const SHAPES = ['rect', 'oval', 'outline'] as const;
/** How a pad ends on one side. */
export const EDGES = ['open', 'cliff', 'slope', 'wall', 'terrace'] as const;
export const PROFILES = ['even', 'convex', 'concave', 'sheer'] as const;
export const WAY_USES = ['road', 'path', 'pavement', 'kerb'] as const;
export const ON_STEEP = ['follow', 'ramp', 'steps'] as const;
export const FALLS = ['even', 'points'] as const;
export const TRACK_MOVES = ['straight', 'left', 'right'] as const;

/** How ground is filled under its skin: see `masonry`. */
export const METHODS = ['solid', 'raft', 'filler', 'stepped', 'frame', 'moulded', 'reuse'] as const;
export type Method = (typeof METHODS)[number];
/** A method of its own; null: as its section's. */
const method = z.enum(METHODS).nullable().default(null);

const ground = z.enum(GROUNDS);
const share = z.number().min(0).max(1);
const atLevel = { level: idSchema, offset: plates.default(0) };

/** An area on the plan: a rectangle, the oval in it, or an outline whose corners are shares of its width and depth. */
export const area = {
  ...studArea,
  shape: z.enum(SHAPES).default('rect'),
  outline: z
    .array(z.strictObject({ x: share, y: share }))
    .max(400)
    .default([]),
};
export interface Area {
  x: number;
  y: number;
  w: number;
  d: number;
  shape: (typeof SHAPES)[number];
  outline: readonly { x: number; y: number }[];
}

/** Points of a line across the plan, studs; with heights where the line holds one. */
export const linePoints = z
  .array(z.strictObject({ x: position, y: position }))
  .min(2, 'a line needs two points')
  .max(200);
const heightPoints = z
  .array(z.strictObject({ x: position, y: position, z: plates.nullable().default(null) }))
  .min(2, 'a line needs two points')
  .max(200);

export const footprintSchema = z.strictObject({
  name,
  x: wholeStud,
  y: wholeStud,
  w: wholeSize,
  d: wholeSize,
});

const edge = z
  .strictObject({
    kind: z.enum(EDGES).default('open'),
    /** Studs across for each brick of height, of slopes and terraces. */
    run: z.number().min(0.25).max(64).default(2),
  })
  .prefault({});

export const padSchema = z.strictObject({
  name,
  ...area,
  ...atLevel,
  ground,
  /** Pads are laid in this order, then by id; a later one covers an earlier one. */
  order: z.int().min(0).max(100_000).default(0),
  /** How each side of a rectangle meets the ground beyond it; slopes go no further than `reach` studs. */
  edges: z.strictObject({ n: edge, e: edge, s: edge, w: edge }).prefault({}),
  reach: z.number().min(0).max(256).default(16),
  method,
});

const rising = {
  name,
  ...area,
  ...atLevel,
  /** The ridge or, where both ends meet, the peak (of a hollow: the deepest line), as shares of width and depth. */
  ridge: z
    .strictObject({ x1: share, y1: share, x2: share, y2: share })
    .prefault({ x1: 0.5, y1: 0.5, x2: 0.5, y2: 0.5 }),
  profile: z.enum(PROFILES).default('even'),
  /** Height of each terrace, plates; 0: as smooth as plates allow. */
  terrace: plates.min(0).default(0),
  /** Sides that fall steeply, as rock. */
  faces: z.array(z.enum(SIDES)).max(4).default([]),
  ground: ground.default('grass'),
};
/** A hill rises from its level to `height` above it; where the ground is higher already, that stays. */
export const hillSchema = z.strictObject({ ...rising, height: plates.min(1), method });
/** A hollow is dug from its level to `depth` below it; where the ground is lower already, that stays. */
export const hollowSchema = z.strictObject({ ...rising, depth: plates.min(1) });

/** Still water at a level. */
export const waterSchema = z.strictObject({
  name,
  ...area,
  ...atLevel,
  /** From the surface down to the bed, plates. */
  depth: plates.min(1).default(1),
  /** The shore between the water and the ground, studs; it rises evenly. */
  bank: halfStud.min(0).max(64).default(0),
  bankGround: ground.default('sand'),
  /** Sides on which waves strike the shore; the others are sheltered. */
  struck: z.array(z.enum(SIDES)).max(4).default([]),
});

export const streamSchema = z.strictObject({
  name,
  points: heightPoints,
  ...atLevel,
  width: size.max(128).default(6),
  /** Between points of given height the surface falls evenly, or stays level and falls at the point. */
  falls: z.enum(FALLS).default('even'),
  depth: plates.min(1).default(1),
  bank: halfStud.min(0).max(64).default(1),
  bankGround: ground.default('sand'),
});

export const waySchema = z.strictObject({
  name,
  use: z.enum(WAY_USES).default('road'),
  points: heightPoints,
  width: size.max(128).default(14),
  ground: ground.default('road'),
  /** Above the ground it follows, plates. Points with a height are held instead, evenly from one to the next. */
  rise: plates.min(-30).max(30).default(0),
  /** Steepest grade, percent (height over length); common practice, no source: change it. */
  maxGrade: z.number().min(0.5).max(200).default(15),
  /** Where the ground is steeper than that: follow it, level it to a ramp, or build steps. */
  onSteep: z.enum(ON_STEEP).default('follow'),
});

const trackPiece = z.strictObject({
  go: z.enum(TRACK_MOVES),
  /** Length of a straight, studs. */
  length: size.max(256).default(16),
  /** Radius of a curve at the middle of the track, studs; each curve turns 22.5°. */
  radius: size.max(512).default(40),
  /** Plates this piece climbs. */
  rise: plates.min(-30).max(30).default(0),
});
export type TrackPiece = z.output<typeof trackPiece>;

export const trackSchema = z.strictObject({
  name,
  /** Middle of the track at its beginning, studs. */
  x: z.number().min(-MAX_STUDS).max(MAX_STUDS),
  y: z.number().min(-MAX_STUDS).max(MAX_STUDS),
  /** Direction at its beginning: sixteenths of a turn, 0 east, 4 south. */
  heading: z.int().min(0).max(15).default(0),
  ...atLevel,
  pieces: z.array(trackPiece).min(1, 'a track needs one piece').max(500),
  /** Width of the bed, studs. */
  bed: size.max(64).default(8),
  maxGrade: z.number().min(0.5).max(100).default(4),
  /** What must stay free: from the middle to each side, studs, and above the bed, plates. */
  clearSide: z.number().min(0).max(64).default(5),
  clearHeight: plates.min(0).default(33),
});

/** The most samples of one imported ground, a side; a larger one comes in parts. */
export const MAX_SAMPLES = 512;
/** Ground from a height file: samples of 16 bits, row by row from the north-west, spread from `low` to `high`. */
export const terrainSchema = z.strictObject({
  name,
  ...studArea,
  ...atLevel,
  low: plates.default(0),
  high: plates.default(30),
  ground: ground.default('grass'),
  columns: z.int().min(2).max(MAX_SAMPLES),
  rows: z.int().min(2).max(MAX_SAMPLES),
  /** Little-endian unsigned 16-bit samples as base64. */
  samples: z
    .string()
    .max(700_000)
    .regex(/^[A-Za-z0-9+/]*={0,2}$/, 'samples are base64'),
  /** Samples of 0 stand for no height: those studs stay as they are, and `low` begins at 1. */
  gaps: z.boolean().default(false),
  notes: text.default(''),
});
