import { z } from 'zod';
import { STAND_REFS, halfStud, line, name, plates, reference, spotFields, standFields } from '../fields.ts';
import { defineKind } from '../kind.ts';
import { CHARACTER_FORMS, ROLE_LENGTH } from './character.ts';

export const FIGURE_STATES = ['idea', 'planned', 'built', 'placed'] as const;
export const POSES = ['standing', 'walking', 'climbing', 'sitting', 'lying'] as const;

/** How far a spot may be from its small scene, studs. */
export const MAX_SPOT = 64;
const fromScene = halfStud.min(-MAX_SPOT).max(MAX_SPOT).default(0);

/** How far what takes a spot reaches about it, studs. */
const ABOUT = { figure: 1, animal: 1.5, vehicle: 4 } as const;

/** One place in a small scene, and who takes it. */
const spotSchema = z.strictObject({
  /** Who is meant to take it; null, or one that is gone: anybody of the role. */
  character: reference.default(null),
  form: z.enum(CHARACTER_FORMS).default('figure'),
  /** What is wanted there where nobody is named; empty: any of the form. */
  role: line().trim().max(ROLE_LENGTH).default(''),
  /** From the place of the scene, studs east and south. */
  dx: fromScene,
  dy: fromScene,
  /** Over what the scene stands on. */
  up: plates.min(0).default(0),
  /** Where it looks, degrees clockwise from north. */
  facing: z.int().min(0).max(359).default(180),
  pose: z.enum(POSES).default('standing'),
  /** Only the one who is named will do. */
  isFixed: z.boolean().default(false),
});
export type SceneSpot = z.output<typeof spotSchema>;

export const figureKind = defineKind({
  schema: z.strictObject({
    name,
    ...spotFields,
    /** How many figures play in it, while it has no spots. */
    cast: z.int().min(1).max(500).default(1),
    spots: z.array(spotSchema).max(200, 'a small scene has at most 200 spots').default([]),
    ...standFields,
    story: line().max(200).default(''),
    /** Its place in the story that visitors are told; null: it is not in it. */
    order: z.int().min(1).max(999).nullable().default(null),
    state: z.enum(FIGURE_STATES).default('idea'),
  }),
  group: 'figures',
  word: 'small scene',
  refs: STAND_REFS,
  outline: 16,
  influencePoints: ({ x, y, spots }) =>
    [{ dx: 0, dy: 0, by: 0.5 }, ...spots.map((spot) => ({ ...spot, by: ABOUT[spot.form] }))].flatMap(
      ({ dx, dy, by }) => [
        { x: x + dx - by, y: y + dy - by },
        { x: x + dx + by, y: y + dy + by },
      ],
    ),
});
