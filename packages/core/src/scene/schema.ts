import { z } from 'zod';

/**
 * The display document, version 1: small flat entities with ids, grouped by kind.
 *
 * Horizontal positions and sizes of what is built are in studs, halves allowed (jumpers), x east and y south of
 * the display's north-west corner. Furniture is in millimetres from the same corner. Heights are in plates above
 * the display's datum (the table top), because a plate is the smallest step a builder can make.
 * New fields get a default so that older files still open; anything else needs a step in `file.ts`.
 */

/** No display is larger than this many studs a side (4,096 studs = 32.8 m). */
export const MAX_STUDS = 4096;
const MAX_MM = 40_000;
const MAX_PLATES = 3000;

export const idSchema = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,39}$/, 'an id is 1 to 40 small letters, digits or hyphens');
const name = z.string().trim().min(1, 'a name is needed').max(80, 'a name has at most 80 characters');
const text = z.string().max(2000, 'a text has at most 2,000 characters');
const halfStud = z.number().multipleOf(0.5, 'positions stand on half studs');
const position = halfStud.min(-MAX_STUDS).max(MAX_STUDS);
const size = halfStud.min(0.5).max(MAX_STUDS);
const mm = z.number().min(-MAX_MM).max(MAX_MM);
const mmSize = z.number().min(1).max(MAX_MM);
const plates = z.int().min(-MAX_PLATES).max(MAX_PLATES);
const money = z.number().min(0).max(1_000_000);
const reference = idSchema.nullable();
const date = z.iso.date().nullable();
const studArea = { x: position, y: position, w: size, d: size };
const wholeStud = z.int().min(-MAX_STUDS).max(MAX_STUDS);
const wholeSize = z.int().min(1).max(MAX_STUDS);

export const KINDS_OF_DISPLAY = ['city', 'diorama', 'vignette'] as const;
export const SCHOOLS = ['height', 'width', 'rail', 'small', 'eye'] as const;
export const GROUNDS = ['grass', 'rock', 'soil', 'sand', 'paving', 'road', 'ballast', 'water'] as const;
export const STAGES = [
  'planned',
  'supported',
  'ground',
  'structures',
  'dressed',
  'lit',
  'peopled',
  'done',
] as const;
export type Stage = (typeof STAGES)[number];
export type Ground = (typeof GROUNDS)[number];

const displaySchema = z.strictObject({
  name,
  kind: z.enum(KINDS_OF_DISPLAY),
  /** How the scale is chosen, and the ratio 1 : n. */
  school: z.enum(SCHOOLS).default('height'),
  ratio: z.number().min(1).max(2000).default(45),
  startDate: date.default(null),
  showDate: date.default(null),
  showName: z.string().max(80).default(''),
  /** Footprint and height the rules or the place allow; null: no limit. Studs and plates. */
  limitW: wholeSize.nullable().default(null),
  limitD: wholeSize.nullable().default(null),
  limitHeight: plates.min(1).nullable().default(null),
  /** Largest module, either way round, studs. */
  moduleMaxW: wholeSize.default(96),
  moduleMaxD: wholeSize.default(48),
  /** How far the scene may hang over a table edge, studs (common practice: about 6). */
  overhang: z.number().min(0).max(64).default(6),
  /** The agreed step between named levels, plates (common practice: 5 or 6 bricks); null: none agreed. */
  levelStep: plates.min(1).nullable().default(null),
  /** What one more module and one stud of seam are worth, in money: the weights of a cutting. */
  moduleWeight: money.default(5),
  seamWeight: money.default(0.05),
  currency: z.string().trim().min(1).max(4).default('¤'),
  notes: text.default(''),
});

const levelSchema = z.strictObject({ name, height: plates });

const footprintSchema = z.strictObject({ name, x: wholeStud, y: wholeStud, w: wholeSize, d: wholeSize });

const tableSchema = z.strictObject({
  name,
  x: mm,
  y: mm,
  w: mmSize,
  d: mmSize,
  height: z.number().min(0).max(3000).default(740),
  ratedKg: z.number().min(0).max(5000).nullable().default(null),
});

const passageSchema = z.strictObject({ name, width: mmSize, height: mmSize });

const padSchema = z.strictObject({
  name,
  ...studArea,
  shape: z.enum(['rect', 'oval']).default('rect'),
  level: idSchema,
  /** Plates above the level. */
  offset: plates.default(0),
  ground: z.enum(GROUNDS),
  /** Pads are laid in this order, then by id; a later one covers an earlier one. */
  order: z.int().min(0).max(100_000).default(0),
});

const plotSchema = z.strictObject({
  name,
  ...studArea,
  /** Height of the building above the ground it stands on, plates. */
  height: plates.min(1),
  storeys: z.int().min(0).max(60).default(1),
  mount: z.enum(['pinned', 'jumpers', 'loose']).default('pinned'),
  mayCut: z.boolean().default(false),
  notes: text.default(''),
});

const personSchema = z.strictObject({
  name,
  initials: z.string().trim().min(1).max(3),
  town: z.string().max(80).default(''),
});

const sectionSchema = z.strictObject({
  letter: z.string().trim().min(1).max(2),
  name,
  ...studArea,
  owner: reference.default(null),
  stage: z.enum(STAGES).default('planned'),
  /** Share of the current stage that is done, percent. */
  stageDone: z.int().min(0).max(100).default(0),
  notes: text.default(''),
});

const baseTypeSchema = z.strictObject({
  w: wholeSize,
  d: wholeSize,
  price: money,
  stock: z.int().min(0).max(10_000),
  /** The most that can be had in all; null: as many as one buys. */
  max: z.int().min(0).max(10_000).nullable().default(null),
});

const moduleSchema = z.strictObject({
  name,
  x: wholeStud,
  y: wholeStud,
  w: wholeSize,
  d: wholeSize,
  bases: z.array(z.strictObject({ x: wholeStud, y: wholeStud, w: wholeSize, d: wholeSize })).max(2000),
});

/** A finding somebody looked at and keeps. It holds only while the finding still says what it said then. */
const acceptanceSchema = z.strictObject({
  finding: z.string().min(1).max(200),
  fingerprint: z.string().max(200),
  reason: z.string().trim().min(1, 'say why this finding is kept').max(500),
  by: z.string().max(80).default(''),
  at: z.iso.datetime().nullable().default(null),
});

export const kindSchema = z.enum([
  'display',
  'level',
  'footprint',
  'table',
  'passage',
  'pad',
  'plot',
  'person',
  'section',
  'baseType',
  'module',
  'acceptance',
]);
export type Kind = z.infer<typeof kindSchema>;
export const KIND_NAMES = kindSchema.options;

/** Every kind of entity with its schema, the key of its group in a file, and the word for it. */
export const KINDS = {
  display: { schema: displaySchema, group: 'display', word: 'display' },
  level: { schema: levelSchema, group: 'levels', word: 'level' },
  footprint: { schema: footprintSchema, group: 'footprint', word: 'footprint part' },
  table: { schema: tableSchema, group: 'tables', word: 'table' },
  passage: { schema: passageSchema, group: 'passages', word: 'passage' },
  pad: { schema: padSchema, group: 'pads', word: 'pad' },
  plot: { schema: plotSchema, group: 'plots', word: 'plot' },
  person: { schema: personSchema, group: 'people', word: 'person' },
  section: { schema: sectionSchema, group: 'sections', word: 'section' },
  baseType: { schema: baseTypeSchema, group: 'bases', word: 'base size' },
  module: { schema: moduleSchema, group: 'modules', word: 'module' },
  acceptance: { schema: acceptanceSchema, group: 'acceptances', word: 'acceptance' },
} as const satisfies Record<Kind, { schema: z.ZodObject; group: string; word: string }>;

/** What an entity of a kind says, without its id and version. */
export type DataOf<K extends Kind> = z.output<(typeof KINDS)[K]['schema']>;
/** An entity as it stands in a scene: `v` counts its changes, from 1. */
export type Entity<K extends Kind> = DataOf<K> & { readonly id: string; readonly v: number };

export type Display = Entity<'display'>;
export type Level = Entity<'level'>;
export type Table = Entity<'table'>;
export type Pad = Entity<'pad'>;
export type Plot = Entity<'plot'>;
export type Section = Entity<'section'>;
export type BaseType = Entity<'baseType'>;
export type Module = Entity<'module'>;

/** The id of the one display entity of each scene. */
export const DISPLAY_ID = 'display';

/** Fields of an entity that name another one: the scene never holds a dangling name. */
export const REFERENCES: readonly { kind: Kind; field: string; to: Kind }[] = [
  { kind: 'pad', field: 'level', to: 'level' },
  { kind: 'section', field: 'owner', to: 'person' },
];

/** How many entities of one kind a scene may hold. */
export const MAX_ENTITIES = 5000;
