import { z } from 'zod';
import { name, plates } from '../fields.ts';
import { colourField } from '../partLines.ts';
import { FIXED_GROUNDS, COVER_SURFACES, GROUND_HATCHES, CUSTOM_GROUNDS } from '../vocabulary.ts';
import { defineKind } from '../kind.ts';

/** A ground that a display describes itself, such as snow, mud or molten rock. Its id is one of `CUSTOM_GROUNDS`. */
export const customGroundKind = defineKind({
  schema: z.strictObject({
    name,
    /** The ground it is judged as: water is level, a road is agreed exactly at seams. */
    like: z.enum(FIXED_GROUNDS).default('soil'),
    surface: z.enum(COVER_SURFACES).default('natural'),
    /** Of its cover, where no recipe is written for it. */
    colour: colourField,
    /** Of the sides that show under it; null: as its cover. */
    side: colourField.nullable().default(null),
    /** What lies under its cover, from the top down. */
    layers: z
      .array(
        z.strictObject({
          colour: colourField,
          plates: z.int().min(1).max(60),
          /**
           * It lies under ground at most so high above the datum, plates: snow is deeper below than on the tops; null: at
           * any height.
           */
          upTo: plates.nullable().default(null),
        }),
      )
      .max(6, 'a ground has at most 6 layers under its cover')
      .default([]),
    hatch: z.enum(GROUND_HATCHES).exclude(['dashes']).default('crosses'),
  }),
  group: 'customGrounds',
  word: 'custom ground',
  public: true,
  plannersOnly: true,
  ids: CUSTOM_GROUNDS,
  max: CUSTOM_GROUNDS.length,
});
