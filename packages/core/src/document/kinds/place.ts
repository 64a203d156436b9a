import { z } from 'zod';
import { millimetres, mmSize, name } from '../fields.ts';
import { defineKind } from '../kind.ts';

const TURNS = [0, 90, 180, 270] as const;

/** Corners of a room, in order round it. */
const corner = z.strictObject({ x: millimetres, y: millimetres });

export const placeKind = defineKind({
  schema: z.strictObject({
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
    /** A small child's on an adult's shoulders: shoulders at 1,450 and 500 more (a guess). */
    eyeShoulders: mmSize.max(2500).default(1950),
    /** Of 100 visitors so many look from each of these heights, by parts of the whole (guesses); 0: none come. */
    shareAdult: z.number().min(0).max(100).default(60),
    shareSeated: z.number().min(0).max(100).default(5),
    shareChild: z.number().min(0).max(100).default(30),
    shareShoulders: z.number().min(0).max(100).default(5),
    /** How far things are carried from the vehicle to the tables, m (a default of ours, no source). */
    carryMetres: z.number().min(0).max(2000).default(40),
  }),
  group: 'places',
  word: 'place',
  inRoom: true,
});
