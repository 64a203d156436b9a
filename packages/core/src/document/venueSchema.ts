import { z } from 'zod';
import { millimetres, mmSize, name, reference } from './fields.ts';

// Where a display stands: rooms, furniture and the way into them, all in millimetres from a corner of the room,
// x east and y south on the survey. `place` names the room a thing belongs to; null: the default room.

const TURNS = [0, 90, 180, 270] as const;
export const TABLE_KINDS = ['table', 'shelf', 'floor'] as const;
export const PASSAGE_KINDS = ['door', 'corner', 'stair', 'lift', 'vehicle'] as const;
export const OPENING_USES = ['door', 'opening', 'window'] as const;

/** Corners of a room, in order round it. */
const corner = z.strictObject({ x: millimetres, y: millimetres });
const place = reference.default(null);

export const placeSchema = z.strictObject({
  name,
  /** The room's corners, in order round it; fewer than 3: no walls are known. */
  walls: z.array(corner).max(60).default([]),
  ceiling: mmSize.nullable().default(null),
  /** Where the scene's origin (stud 0, 0) lies, mm, and how far the scene is turned about it, clockwise. */
  sceneX: millimetres.default(0),
  sceneY: millimetres.default(0),
  turn: z.literal(TURNS).default(0),
  /** How far an arm reaches from the edge, and from where on it takes a step ladder (common practice). */
  armReach: mmSize.max(3000).default(750),
  ladderReach: mmSize.max(3000).default(1000),
  /** The depth of floor a person needs to stand at an edge (a default of ours, no source). */
  standDepth: mmSize.max(3000).default(600),
  /** Least clear width for the public: 36 in as one published example (2010 ADA Standards, 403.5.1). */
  aisle: mmSize.max(10_000).default(915),
  /** Eye heights above the floor (from memory). */
  eyeAdult: mmSize.max(2500).default(1600),
  eyeSeated: mmSize.max(2500).default(1200),
  eyeChild: mmSize.max(2500).default(1050),
});

export const tableSchema = z.strictObject({
  name,
  x: millimetres,
  y: millimetres,
  w: mmSize,
  d: mmSize,
  height: z.number().min(0).max(3000).default(740),
  ratedKg: z.number().min(0).max(5000).nullable().default(null),
  place,
  kind: z.enum(TABLE_KINDS).default('table'),
  /** Leaves along its longer side, and the gap between two of them, mm. */
  leaves: z.int().min(1).max(12).default(1),
  leafGap: z.number().min(0).max(500).default(0),
});

/** One step of the way from the workshop to the place. */
export const passageSchema = z.strictObject({
  name,
  /** Clear width and height; for a corner or a stair with a turn, the width before it. */
  width: mmSize,
  height: mmSize,
  place,
  kind: z.enum(PASSAGE_KINDS).default('door'),
  order: z.int().min(0).max(100_000).default(0),
  /** Clear width after a right-angled turn; null: as before it, and for a stair none. */
  width2: mmSize.nullable().default(null),
  /** Pitch of a stair, degrees. */
  pitch: z.number().min(0).max(60).default(0),
  /** Room inside a lift or a vehicle; null: not known, taken as no limit. */
  insideW: mmSize.nullable().default(null),
  insideD: mmSize.nullable().default(null),
  insideH: mmSize.nullable().default(null),
});

/** A door, window or open way in a wall: `wall` counts the room's sides from 0, `at` runs along it from its first corner. */
export const openingSchema = z.strictObject({
  name,
  place,
  use: z.enum(OPENING_USES).default('door'),
  wall: z.int().min(0).max(59),
  at: z.number().min(0).max(40_000),
  width: mmSize,
  height: mmSize.default(2000),
});

export const obstacleSchema = z.strictObject({
  name,
  place,
  x: millimetres,
  y: millimetres,
  w: mmSize,
  d: mmSize,
  height: mmSize.default(2000),
});

export const socketSchema = z.strictObject({ name, place, x: millimetres, y: millimetres });

/** The line that keeps the public off the display. */
export const barrierSchema = z.strictObject({
  name,
  place,
  x1: millimetres,
  y1: millimetres,
  x2: millimetres,
  y2: millimetres,
});
