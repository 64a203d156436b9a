import { ANY_COLOUR, PALETTE, partName, type Part } from '@quarry/core/catalogue';
import { formatPlates, present } from '@quarry/core/grid';
import {
  MAX_STUDS,
  fixedGround,
  groundName,
  groundsOf,
  LEAF_SEASONS,
  PROFILES,
  SHAPES,
  listOf,
  type Scene,
} from '@quarry/core/document';
import type { Measure } from './quantity.ts';
import { capital } from './words.ts';

// The fields of a kind of entity, as its form lists them: tables instead of forms written by hand.

type Data = Readonly<Record<string, unknown>>;
interface Common {
  key: string;
  label: string;
  /** Hidden where it has no meaning. */
  when?: (data: Data) => boolean;
  /** Where more choices are made: a page of the display, with its sheet. */
  more?: { word: string; at: string };
}
interface Choice {
  value: string;
  word: string;
}
/** What choices may hang on. */
export interface ChoiceContext {
  scene: Pick<Scene, 'level' | 'place' | 'circuit' | 'supply' | 'customGround'>;
  data: Data;
  /** A length in the reader's unit. */
  say: (value: number, measure: Measure) => string;
}
/** One field of a form. Limits are those of its schema, which a test compares. */
export type FieldSpec =
  | (Common & { as: 'text' | 'check' | 'sides' })
  /** A text of several lines. @property max letters */
  | (Common & { as: 'long'; max: number })
  | (Common & {
      as: 'length';
      measure: 'studs' | 'plates' | 'mm';
      min: number;
      max: number;
      step?: number;
      /** It may be unknown (null): what stands in its place. */
      optional?: string;
    })
  | (Common & {
      as: 'number';
      min: number;
      max: number;
      whole?: boolean;
      unit?: string;
      /** It may be unknown (null): what stands in its place. */
      optional?: string;
    })
  | (Common & {
      as: 'choice';
      options: readonly Choice[] | ((context: ChoiceContext) => readonly Choice[]);
      /** Its value is a whole number. */
      whole?: true;
      /** The word for no choice, null. */
      optional?: string;
    });

type When = Common['when'];
type Words = Readonly<Record<string, string>>;

const choice = (
  key: string,
  label: string,
  values: readonly string[],
  words: Words = {},
  when?: When,
): FieldSpec => ({
  as: 'choice',
  key,
  label,
  options: values.map((value) => ({ value, word: capital(words[value] ?? value) })),
  when,
});
const LEAF_WORDS: Words = { any: 'any season', month: 'the month shown' };
/** Which leaves a tree or plant may have. */
export const LEAF_CHOICES: readonly Choice[] = LEAF_SEASONS.map((value) => ({
  value,
  word: capital(LEAF_WORDS[value] ?? value),
}));
/** A length in studs. @param step the least difference, studs */
const studs = (key: string, label: string, min: number, max: number, step = 0.5, when?: When): FieldSpec => ({
  as: 'length',
  measure: 'studs',
  key,
  label,
  min,
  max,
  step,
  when,
});
const plates = (key: string, label: string, min: number, max = 3000, when?: When): FieldSpec => ({
  as: 'length',
  measure: 'plates',
  key,
  label,
  min,
  max,
  when,
});
/** A place or size in the room. */
const mm = (key: string, label: string, min = -40_000, max = 40_000, when?: When): FieldSpec => ({
  as: 'length',
  measure: 'mm',
  key,
  label,
  min,
  max,
  when,
});
const number = (
  key: string,
  label: string,
  min: number,
  max: number,
  rest: { whole?: boolean; unit?: string; when?: When; optional?: string } = {},
): FieldSpec => ({ as: 'number', key, label, min, max, ...rest });
/** Each colour of the palette. */
export const PALETTE_CHOICES: readonly Choice[] = PALETTE.map(({ id, name }) => ({ value: id, word: name }));
/** What a choice of a colour begins with. */
export const FIRST_COLOUR = present(PALETTE[0], 'a colour').id;
/** Any colour, and each of the palette. */
export const COLOUR_CHOICES: readonly Choice[] = [
  { value: ANY_COLOUR, word: 'Any colour' },
  ...PALETTE_CHOICES,
];
/** The grounds that a thing may have, custom ones by their names. */
export const groundChoices = (scene: Pick<Scene, 'customGround'>): Choice[] =>
  groundsOf(scene).map((value) => ({ value, word: capital(groundName(scene, value)) }));
const ground = (key: string, label: string, when?: When): FieldSpec => ({
  ...{ as: 'choice', key, label, when },
  // Once for a thing is enough.
  ...(key === 'ground'
    ? { more: { word: 'Describe a ground', at: 'stockpile?sheet=colours&part=grounds' } }
    : {}),
  options: ({ scene }) => groundChoices(scene),
});
/** Grounds that are judged as water, and the one it is of. */
const liquid = (key: string, label: string): FieldSpec => ({
  ...{ as: 'choice', key, label },
  options: ({ scene, data }) => {
    const liquids: readonly string[] = groundsOf(scene).filter((one) => fixedGround(scene, one) === 'water');
    return groundChoices(scene).filter(({ value }) => value === data[key] || liquids.includes(value));
  },
});

/** The parts that may be chosen, and the one that is where a file brought another. */
export function partChoices(parts: readonly Part[], own: unknown): Choice[] {
  const ids = parts.map(({ id }) => id);
  const all = typeof own !== 'string' || ids.includes(own) ? ids : [...ids, own];
  return all.map((id) => ({ value: id, word: capital(partName(id)) }));
}

/** What the tables of fields are made of. */
export const field = {
  choice,
  studs,
  plates,
  mm,
  number,
  ground,
  liquid,
  text: (key: string, label: string): FieldSpec => ({ as: 'text', key, label }),
  long: (key: string, label: string, max = 2000): FieldSpec => ({ as: 'long', key, label, max }),
  check: (key: string, label: string, when?: When): FieldSpec => ({ as: 'check', key, label, when }),
  sides: (key: string, label: string): FieldSpec => ({ as: 'sides', key, label }),
  /** Size and place of an area. @param step studs */
  area: (step: number): FieldSpec[] => [
    studs('w', 'Width, east', step, MAX_STUDS, step),
    studs('d', 'Depth, south', step, MAX_STUDS, step),
    studs('x', 'From west', -MAX_STUDS, MAX_STUDS, step),
    studs('y', 'From north', -MAX_STUDS, MAX_STUDS, step),
  ],
  /** Size and place of a rectangle in the room. */
  roomArea: (): FieldSpec[] => [
    mm('w', 'Width, east', 1),
    mm('d', 'Depth, south', 1),
    mm('x', 'From west'),
    mm('y', 'From north'),
  ],
  /** Place of a spot. */
  spot: (): FieldSpec[] => [
    studs('x', 'From west', -MAX_STUDS, MAX_STUDS),
    studs('y', 'From north', -MAX_STUDS, MAX_STUDS),
  ],
  /** @param optional what no colour of its own means */
  colour: (key: string, label: string, optional?: string, when?: When): FieldSpec => ({
    ...{ as: 'choice', key, label, optional, when },
    options: COLOUR_CHOICES,
  }),
  /** One of some parts, or none; one that a file brought stays among them. */
  part: (key: string, label: string, parts: readonly Part[], optional: string, when?: When): FieldSpec => ({
    ...{ as: 'choice', key, label, optional, when },
    options: ({ data }) => partChoices(parts, data[key]),
  }),
  /** The level that a thing lies on, and how far above it. */
  level: (): FieldSpec[] => [
    {
      as: 'choice',
      key: 'level',
      label: 'Level',
      options: ({ scene }) =>
        listOf(scene, 'level').map(({ id, name, height }) => ({
          value: id,
          word: `${name}, ${formatPlates(height)}`,
        })),
    },
    plates('offset', 'Above it', -3000),
  ],
  shape: (): FieldSpec => choice('shape', 'Shape', SHAPES, { rect: 'Rectangle' }),
  grade: (max: number): FieldSpec => number('maxGrade', 'Steepest', 0.5, max, { unit: '%' }),
  season: (): FieldSpec => ({ as: 'choice', key: 'season', label: 'Leaves of', options: LEAF_CHOICES }),
  /** How a hill rises, or a hollow falls. */
  rising: (): FieldSpec[] => [
    choice('profile', 'Slope', PROFILES, {
      even: 'Even',
      convex: 'Convex, a dome',
      concave: 'Concave, a horn',
      sheer: 'Sheer, flat top',
    }),
    plates('terrace', 'Terraces of', 0),
    { as: 'sides', key: 'faces', label: 'Rock faces' },
    ground('ground', 'Ground'),
  ],
};
