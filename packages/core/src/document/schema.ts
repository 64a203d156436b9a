import { z } from 'zod';
import {
  furnishingSchema,
  milestoneSchema,
  requirementSchema,
  spaceSchema,
  vehicleSchema,
} from './briefSchema.ts';
import {
  acceptanceSchema,
  displaySchema,
  levelSchema,
  personSchema,
  sectionSchema,
} from './displaySchema.ts';
import { replySchema, reportSchema, threadSchema } from './crewSchema.ts';
import { baseTypeSchema, moduleSchema, seamSchema } from './cutSchema.ts';
import {
  figureSchema,
  flagSchema,
  markerSchema,
  noteSchema,
  pictureSchema,
  pieceSchema,
  plantingSchema,
  plotSchema,
  repeatSchema,
  reservedSchema,
  runSchema,
  treeSchema,
} from './dressSchema.ts';
import {
  footprintSchema,
  hillSchema,
  hollowSchema,
  padSchema,
  streamSchema,
  terrainSchema,
  trackSchema,
  waterSchema,
  waySchema,
} from './terrainSchema.ts';
import {
  barrierSchema,
  obstacleSchema,
  openingSchema,
  passageSchema,
  placeSchema,
  socketSchema,
  tableSchema,
} from './venueSchema.ts';
import {
  aliasSchema,
  loanSchema,
  lotSchema,
  orderSchema,
  partListSchema,
  partTypeSchema,
  placeholderSchema,
  promiseSchema,
  recipeSchema,
  substituteSchema,
} from './stockSchema.ts';
import { calendarSchema, photoSchema, sessionSchema, slotSchema, taskSchema } from './workSchema.ts';

export { MAX_STUDS, idSchema } from './fields.ts';

// The display document, version 1: small flat entities with ids, grouped by kind.
//
// Horizontal positions and sizes of what is built are in studs, halves allowed (jumpers), x east and y south of
// the display's north-west corner. Furniture is in millimetres from the same corner. Heights are in plates above
// the display's datum (the table top), because a plate is the smallest step a builder can make.
// New fields get a default so that older files still open; anything else needs a step in `file.ts`.

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
  'seam',
  'acceptance',
  'place',
  'opening',
  'obstacle',
  'socket',
  'barrier',
  'requirement',
  'milestone',
  'space',
  'vehicle',
  'furnishing',
  'terrain',
  'hill',
  'hollow',
  'water',
  'stream',
  'way',
  'track',
  'run',
  'repeat',
  'planting',
  'tree',
  'figure',
  'flag',
  'marker',
  'reserved',
  'note',
  'picture',
  'piece',
  'partType',
  'recipe',
  'partList',
  'lot',
  'loan',
  'order',
  'placeholder',
  'substitute',
  'promise',
  'alias',
  'thread',
  'reply',
  'report',
  'session',
  'task',
  'calendar',
  'photo',
  'slot',
]);
export type Kind = z.infer<typeof kindSchema>;
export const KIND_NAMES = kindSchema.options;

/** What the core knows of a kind: one declaration, from which lists and decisions derive. */
interface KindSpec {
  schema: z.ZodObject;
  /** Key of its group in a display file. */
  group: string;
  word: string;
  /** Fields that name another entity, or list others, with the kind they name: a scene never holds a dangling name. */
  refs?: Readonly<Record<string, Kind>>;
  /** Rank in the outline of what stands on the plan, in studs; left out: it does not. */
  outline?: number;
  /** Its lengths are millimetres of a room. */
  inRoom?: true;
  /** Part of the relief that it changes first. */
  relief?: 'land' | 'way' | 'top';
  /** How far it goes beyond its extent on each side, studs: banks, slopes, half a line's width. */
  beyond?: (thing: Readonly<Record<string, unknown>>) => number;
  /** Stands on the plan and is yet no builder's work: how the plan is divided, pictures and heights brought in. */
  plannersOnly?: true;
  /** Fields that make it a builder's own: one of them names the person, or their section; empty: every builder's. */
  ownBy?: readonly string[];
  /** How many a scene may hold, where it is not the usual number. */
  max?: number;
}

/** A function of a kind's fields for a thing that may not be valid yet: of an invalid one 0. */
const typed =
  <S extends z.ZodObject>(schema: S, compute: (thing: z.output<S>) => number) =>
  ({ id: _id, v: _v, ...fields }: Readonly<Record<string, unknown>>): number => {
    const read = schema.safeParse(fields);
    return read.success ? compute(read.data) : 0;
  };

/** Every kind of entity. */
export const KINDS = {
  display: { schema: displaySchema, group: 'display', word: 'display', refs: { place: 'place' } },
  level: { schema: levelSchema, group: 'levels', word: 'level' },
  footprint: {
    schema: footprintSchema,
    group: 'footprint',
    word: 'footprint part',
    outline: 0,
    plannersOnly: true,
  },
  table: { schema: tableSchema, group: 'tables', word: 'table', refs: { place: 'place' }, inRoom: true },
  passage: {
    schema: passageSchema,
    group: 'passages',
    word: 'passage',
    refs: { place: 'place' },
    inRoom: true,
  },
  pad: {
    schema: padSchema,
    group: 'pads',
    word: 'pad',
    refs: { level: 'level' },
    outline: 3,
    relief: 'land',
    beyond: typed(padSchema, ({ edges, reach }) =>
      Object.values(edges).some(({ kind }) => kind === 'slope' || kind === 'terrace') ? reach : 0,
    ),
  },
  plot: { schema: plotSchema, group: 'plots', word: 'plot', outline: 11, relief: 'top' },
  person: { schema: personSchema, group: 'people', word: 'person' },
  section: {
    schema: sectionSchema,
    group: 'sections',
    word: 'section',
    refs: { owner: 'person', helpers: 'person' },
    outline: 1,
    plannersOnly: true,
  },
  baseType: { schema: baseTypeSchema, group: 'bases', word: 'base size' },
  module: { schema: moduleSchema, group: 'modules', word: 'module', outline: 2, plannersOnly: true },
  seam: { schema: seamSchema, group: 'seams', word: 'seam' },
  acceptance: { schema: acceptanceSchema, group: 'acceptances', word: 'acceptance' },
  place: { schema: placeSchema, group: 'places', word: 'place', inRoom: true },
  opening: {
    schema: openingSchema,
    group: 'openings',
    word: 'opening',
    refs: { place: 'place' },
    inRoom: true,
  },
  obstacle: {
    schema: obstacleSchema,
    group: 'obstacles',
    word: 'obstacle',
    refs: { place: 'place' },
    inRoom: true,
  },
  socket: { schema: socketSchema, group: 'sockets', word: 'socket', refs: { place: 'place' }, inRoom: true },
  barrier: {
    schema: barrierSchema,
    group: 'barriers',
    word: 'barrier',
    refs: { place: 'place' },
    inRoom: true,
  },
  requirement: { schema: requirementSchema, group: 'requirements', word: 'required piece' },
  milestone: { schema: milestoneSchema, group: 'milestones', word: 'milestone' },
  space: { schema: spaceSchema, group: 'spaces', word: 'room or yard', refs: { plot: 'plot' } },
  vehicle: { schema: vehicleSchema, group: 'vehicles', word: 'vehicle' },
  furnishing: { schema: furnishingSchema, group: 'furnishings', word: 'furnishing' },
  terrain: {
    schema: terrainSchema,
    group: 'terrains',
    word: 'imported ground',
    refs: { level: 'level' },
    outline: 8,
    relief: 'land',
    plannersOnly: true,
  },
  hill: {
    schema: hillSchema,
    group: 'hills',
    word: 'hill',
    refs: { level: 'level' },
    outline: 4,
    relief: 'land',
  },
  hollow: {
    schema: hollowSchema,
    group: 'hollows',
    word: 'hollow',
    refs: { level: 'level' },
    outline: 5,
    relief: 'land',
  },
  water: {
    schema: waterSchema,
    group: 'waters',
    word: 'water',
    refs: { level: 'level' },
    outline: 6,
    relief: 'land',
    beyond: typed(waterSchema, ({ bank }) => bank),
  },
  stream: {
    schema: streamSchema,
    group: 'streams',
    word: 'stream',
    refs: { level: 'level' },
    outline: 7,
    relief: 'land',
    beyond: typed(streamSchema, ({ width, bank }) => width / 2 + bank),
  },
  way: {
    schema: waySchema,
    group: 'ways',
    word: 'way',
    outline: 9,
    relief: 'way',
    beyond: typed(waySchema, ({ width }) => width / 2),
  },
  track: {
    schema: trackSchema,
    group: 'tracks',
    word: 'track',
    refs: { level: 'level' },
    outline: 10,
    relief: 'way',
    beyond: typed(trackSchema, ({ bed }) => bed / 2),
  },
  run: {
    schema: runSchema,
    group: 'runs',
    word: 'wall or fence',
    outline: 12,
    relief: 'top',
    beyond: typed(runSchema, ({ thick }) => Math.max(0.5, thick / 2)),
  },
  repeat: {
    schema: repeatSchema,
    group: 'repeats',
    word: 'repeat',
    outline: 13,
    relief: 'top',
    beyond: typed(repeatSchema, ({ length }) => length / 2 + 1),
  },
  planting: {
    schema: plantingSchema,
    group: 'plantings',
    word: 'planting',
    outline: 14,
    relief: 'top',
    beyond: typed(plantingSchema, ({ mix }) => Math.max(0, ...mix.map(({ crown }) => crown)) / 2 + 1),
  },
  tree: {
    schema: treeSchema,
    group: 'trees',
    word: 'tree',
    outline: 15,
    relief: 'top',
    beyond: typed(treeSchema, () => 1),
  },
  figure: { schema: figureSchema, group: 'figures', word: 'small scene', outline: 16 },
  flag: { schema: flagSchema, group: 'flags', word: 'flag', outline: 17 },
  marker: { schema: markerSchema, group: 'markers', word: 'marker', outline: 18 },
  reserved: { schema: reservedSchema, group: 'reserved', word: 'reserved ground', outline: 19 },
  note: { schema: noteSchema, group: 'notes', word: 'note', outline: 20 },
  picture: { schema: pictureSchema, group: 'pictures', word: 'picture', outline: 21, plannersOnly: true },
  piece: { schema: pieceSchema, group: 'pieces', word: 'piece' },
  partType: { schema: partTypeSchema, group: 'partTypes', word: 'part', ownBy: [] },
  recipe: { schema: recipeSchema, group: 'recipes', word: 'recipe', refs: { section: 'section' } },
  partList: {
    schema: partListSchema,
    group: 'partLists',
    word: 'parts list',
    refs: { plot: 'plot', section: 'section', owner: 'person' },
  },
  lot: {
    schema: lotSchema,
    group: 'lots',
    word: 'stock',
    refs: { owner: 'person' },
    ownBy: ['owner'],
    max: 20_000,
  },
  loan: { schema: loanSchema, group: 'loans', word: 'loan', refs: { from: 'person', to: 'person' } },
  order: { schema: orderSchema, group: 'orders', word: 'order', refs: { by: 'person' }, ownBy: ['by'] },
  placeholder: {
    schema: placeholderSchema,
    group: 'placeholders',
    word: 'placeholder',
    refs: { section: 'section' },
    ownBy: ['section'],
  },
  substitute: {
    schema: substituteSchema,
    group: 'substitutes',
    word: 'substitute',
    refs: { section: 'section' },
  },
  promise: {
    schema: promiseSchema,
    group: 'promises',
    word: 'promise',
    refs: { section: 'section', person: 'person' },
    ownBy: ['person'],
  },
  alias: { schema: aliasSchema, group: 'aliases', word: 'alias', ownBy: [] },
  thread: {
    schema: threadSchema,
    group: 'threads',
    word: 'advice',
    refs: { section: 'section', by: 'person' },
  },
  reply: { schema: replySchema, group: 'replies', word: 'answer', refs: { thread: 'thread', by: 'person' } },
  report: { schema: reportSchema, group: 'reports', word: 'report', refs: { section: 'section' } },
  session: {
    schema: sessionSchema,
    group: 'sessions',
    word: 'session',
    refs: { ticked: 'task', section: 'section', person: 'person' },
    ownBy: ['person'],
  },
  task: {
    schema: taskSchema,
    group: 'tasks',
    word: 'task',
    refs: { after: 'task', section: 'section', owner: 'person' },
    ownBy: ['owner', 'section'],
  },
  calendar: {
    schema: calendarSchema,
    group: 'calendars',
    word: 'calendar',
    refs: { person: 'person' },
    ownBy: ['person'],
  },
  photo: {
    schema: photoSchema,
    group: 'photos',
    word: 'photo',
    refs: { section: 'section', by: 'person' },
    ownBy: ['by'],
  },
  slot: {
    schema: slotSchema,
    group: 'slots',
    word: 'slot',
    refs: { after: 'slot', section: 'section' },
    ownBy: [],
  },
} as const satisfies Record<Kind, KindSpec>;
/** The declaration of a kind, for what asks any of them alike. */
export const specOf = (kind: Kind): KindSpec => KINDS[kind];

/** The fields of an entity of a kind, without id and version. */
export type DataOf<K extends Kind> = z.output<(typeof KINDS)[K]['schema']>;
/** An entity as it stands in a scene: `v` counts its changes, from 1. */
export type Entity<K extends Kind> = DataOf<K> & { readonly id: string; readonly v: number };

export type Display = Entity<'display'>;
export type Level = Entity<'level'>;
export type Table = Entity<'table'>;
export type Passage = Entity<'passage'>;
export type Place = Entity<'place'>;
export type Opening = Entity<'opening'>;
export type Pad = Entity<'pad'>;
export type Plot = Entity<'plot'>;
export type Section = Entity<'section'>;
export type BaseType = Entity<'baseType'>;
export type Module = Entity<'module'>;
export type Seam = Entity<'seam'>;
export type Hill = Entity<'hill'>;
export type Hollow = Entity<'hollow'>;
export type Water = Entity<'water'>;
export type Stream = Entity<'stream'>;
export type Way = Entity<'way'>;
export type Track = Entity<'track'>;
export type Repeat = Entity<'repeat'>;
export type Planting = Entity<'planting'>;
export type Terrain = Entity<'terrain'>;
export type PartType = Entity<'partType'>;
export type Recipe = Entity<'recipe'>;
export type PartList = Entity<'partList'>;
export type Lot = Entity<'lot'>;
export type Loan = Entity<'loan'>;
export type Order = Entity<'order'>;
export type Placeholder = Entity<'placeholder'>;
export type Substitute = Entity<'substitute'>;
export type Promised = Entity<'promise'>;
export type Thread = Entity<'thread'>;
export type Reply = Entity<'reply'>;
export type Report = Entity<'report'>;
export type Session = Entity<'session'>;
export type Task = Entity<'task'>;
export type Calendar = Entity<'calendar'>;
export type Photo = Entity<'photo'>;
export type Slot = Entity<'slot'>;

/** The id of the one display entity of each scene. */
export const DISPLAY_ID = 'display';

/** Fields of an entity that name another one, or a list of others: the scene never holds a dangling name. */
export const REFERENCES: readonly { kind: Kind; field: string; to: Kind }[] = KIND_NAMES.flatMap((kind) =>
  Object.entries(specOf(kind).refs ?? {}).map(([field, to]) => ({ kind, field, to })),
);

/** Largest number of entities of a kind in a scene; of stock as many as a long list of drawers. */
export const maxCount = (kind: Kind): number => specOf(kind).max ?? 5000;

type KindsWith<P extends keyof KindSpec> = {
  [K in Kind]: P extends keyof (typeof KINDS)[K] ? K : never;
}[Kind];
const hasSpec = <P extends keyof KindSpec>(kind: Kind, part: P): kind is KindsWith<P> => part in KINDS[kind];

/** Kinds that stand on the plan in studs, in the order of the outline. Tables stand in the room: see `venue`. */
export type PlanKind = KindsWith<'outline'>;
export const isPlanKind = (kind: Kind): kind is PlanKind => hasSpec(kind, 'outline');
export const PLAN_KINDS: readonly PlanKind[] = KIND_NAMES.filter(isPlanKind).sort(
  (a, b) => KINDS[a].outline - KINDS[b].outline,
);

/** Kinds that change a part of the relief first. */
export const kindsOfRelief = (part: NonNullable<KindSpec['relief']>): readonly Kind[] =>
  KIND_NAMES.filter((kind) => specOf(kind).relief === part);
