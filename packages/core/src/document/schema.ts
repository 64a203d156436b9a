import { z } from 'zod';
import {
  date,
  idSchema,
  line,
  MAX_STUDS,
  money,
  name,
  plates,
  prose,
  reference,
  studArea,
  text,
  wholeSize,
} from './fields.ts';
import {
  furnishingSchema,
  milestoneSchema,
  requirementSchema,
  spaceSchema,
  vehicleSchema,
} from './briefSchema.ts';
import { replySchema, reportSchema, threadSchema } from './crewSchema.ts';
import { baseTypeSchema, moduleSchema, seamSchema } from './cutSchema.ts';
import {
  SEASONS,
  WINDS,
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
  METHODS,
  SIDES,
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
import { STAGES, calendarSchema, photoSchema, sessionSchema, slotSchema, taskSchema } from './workSchema.ts';

export { MAX_STUDS, idSchema } from './fields.ts';

// The display document, version 1: small flat entities with ids, grouped by kind.
//
// Horizontal positions and sizes of what is built are in studs, halves allowed (jumpers), x east and y south of
// the display's north-west corner. Furniture is in millimetres from the same corner. Heights are in plates above
// the display's datum (the table top), because a plate is the smallest step a builder can make.
// New fields get a default so that older files still open; anything else needs a step in `file.ts`.

export const KINDS_OF_DISPLAY = ['city', 'diorama', 'vignette'] as const;
export const SCHOOLS = ['height', 'width', 'rail', 'small', 'eye'] as const;
/** How a vignette is shown. */
export const STANCES = ['standing', 'lying', 'hung'] as const;
/** Where parts may come from. */
export const SOURCE_RULES = ['any', 'own', 'kit'] as const;
export const COLOUR_POLICIES = ['strict', 'aged', 'free'] as const;
export const BACKS = ['bare', 'plain', 'finished'] as const;
export const GLUES = ['none', 'hidden', 'allowed'] as const;
export const PLACEHOLDERS = ['none', 'listed', 'allowed'] as const;
export const RIMS = ['plates', 'bare'] as const;
export const RHYTHMS = ['none', 'weekly', 'fortnightly', 'days'] as const;
const displaySchema = z.strictObject({
  name,
  kind: z.enum(KINDS_OF_DISPLAY),
  /** How the scale is chosen, and the ratio 1 : n. */
  school: z.enum(SCHOOLS).default('height'),
  ratio: z.number().min(1).max(2000).default(45),
  startDate: date.default(null),
  showDate: date.default(null),
  showName: line().max(80).default(''),
  /** Footprint and height the rules or the place allow; null: no limit. Studs and plates. */
  limitW: wholeSize.nullable().default(null),
  limitD: wholeSize.nullable().default(null),
  limitHeight: plates.min(1).nullable().default(null),
  /** Largest module, either way round, studs. */
  moduleMaxW: wholeSize.default(96),
  moduleMaxD: wholeSize.default(48),
  /** How far the scene may hang over a table edge, studs (common practice: about 6). */
  overhang: z.number().min(0).max(64).default(6),
  /** What leans less than this before it tips is found, degrees (common practice toward visitors, no source). */
  tipLimit: z.number().min(1).max(45).default(10),
  /** The agreed step between named levels, plates (common practice: 5 or 6 bricks); null: none agreed. */
  levelStep: plates.min(1).nullable().default(null),
  /** What one more module and one stud of seam are worth, in money: the weights of a cutting. */
  moduleWeight: money.default(5),
  seamWeight: money.default(0.05),
  /** The most a module may weigh, kg; null: no limit. */
  moduleMaxKg: z.number().positive().max(1000).nullable().default(null),
  /** What bases cannot cover at the edge of the footprint: laid with plates as part of its modules, or left bare. */
  rim: z.enum(RIMS).default('plates'),
  /** Modules keep to one section: where a border lies on the bases' steps a seam must be. */
  cutAtSections: z.boolean().default(true),
  currency: line().trim().min(1).max(4).default('¤'),
  notes: text.default(''),
  /** Where the display stands now: the place whose tables and room are judged; null: tables of no place. */
  place: reference.default(null),
  /** Why the largest module is what it is, such as the passage that sets it. */
  moduleReason: text.default(''),

  /** The rule card: how far parts may stand out over the base's sides, studs, and above which height, plates. */
  cardOverhang: z.number().min(0).max(64).default(0),
  cardOverhangFrom: plates.min(0).default(0),
  stance: z.enum(STANCES).default('standing'),
  sourceRule: z.enum(SOURCE_RULES).default('any'),
  kitName: line().max(80).default(''),
  kitCopies: z.int().min(1).max(1000).default(1),
  /** The sides from which the display is looked at. */
  viewedSides: z.array(z.enum(SIDES)).max(4).default([]),
  /** How much street front is still to come, studs. */
  growth: z.int().min(0).max(MAX_STUDS).default(0),

  /** How far a thing's own scale may lie from the display's, percent. */
  scaleSpread: z.number().min(0).max(100).default(15),
  /** How much of the ground vehicles may cover, percent (a default of ours, no source). */
  vehicleShare: z.number().min(0).max(100).default(10),

  /** House rules. */
  wind: z.enum(WINDS).nullable().default(null),
  season: z.enum(SEASONS).nullable().default(null),
  datum: line().max(80).default('table top'),
  streetDepth: wholeSize.nullable().default(null),
  streetWidths: z.array(wholeSize).max(12).default([16, 32, 48, 64]),
  colourSeen: z.enum(COLOUR_POLICIES).default('strict'),
  colourHidden: z.enum(COLOUR_POLICIES).default('free'),
  backs: z.enum(BACKS).default('bare'),
  glue: z.enum(GLUES).default('none'),
  placeholders: z.enum(PLACEHOLDERS).default('listed'),
  rhythm: z.enum(RHYTHMS).default('fortnightly'),
  /** Days from one update to the next, where the rhythm is of days. */
  rhythmDays: z.int().min(1).max(365).default(10),

  /** What share of a section's work each stage before «done» is, by parts of the whole (a default of ours, no source). */
  stageWeights: z.array(z.number().min(0).max(1000)).length(7).default([5, 10, 30, 30, 15, 5, 5]),
  /** What this display calls its stages, in their order. */
  stageNames: z
    .array(line().trim().min(1, 'a stage needs a name').max(24))
    .length(8)
    .default([...STAGES]),
  /** When a build that is boxed in one day must be over; null: unknown. */
  clockEnd: z.iso.datetime().nullable().default(null),

  /** Default method of filling ground; the largest plate of a deck and its free span, studs. */
  method: z.enum(METHODS).default('raft'),
  deckMost: z.int().min(2).max(16).default(16),
  deckSpan: z.int().min(2).max(14).default(8),
  /** Base sheets may lie in decks, level with the plates. */
  deckSheets: z.boolean().default(false),
  /** Bought over the count, percent, where a family has no figure of its own; null: each family's usual one. */
  spares: z.number().min(0).max(100).nullable().default(null),
});

const levelSchema = z.strictObject({ name, height: plates });

const personSchema = z.strictObject({
  name,
  initials: line().trim().min(1).max(3),
  town: line().max(80).default(''),
});

const sectionSchema = z.strictObject({
  letter: line().trim().min(1).max(2),
  name,
  ...studArea,
  owner: reference.default(null),
  /** Who else builds here: they may do what its owner may. */
  helpers: z.array(idSchema).max(20).default([]),
  stage: z.enum(STAGES).default('planned'),
  /** Share of the current stage that is done, percent. */
  stageDone: z.int().min(0).max(100).default(0),
  /** Guess of its total work, hours; null: not guessed. */
  hours: z.number().min(0).max(100_000).nullable().default(null),
  /** How its ground is filled; null: as the display's. */
  method: z.enum(METHODS).nullable().default(null),
  /** The day its parts are needed; null: by the show. */
  partsBy: date.default(null),
  /** A colour policy of its own; null: the house rules'. */
  colour: z.enum(COLOUR_POLICIES).nullable().default(null),
  notes: text.default(''),
});

/** An accepted finding. It lapses when the finding's numbers change. */
const acceptanceSchema = z.strictObject({
  finding: z.string().min(1).max(200),
  fingerprint: z.string().max(200),
  reason: prose().trim().min(1, 'say why this finding is kept').max(500),
  by: line().max(80).default(''),
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
  seam: { schema: seamSchema, group: 'seams', word: 'seam' },
  acceptance: { schema: acceptanceSchema, group: 'acceptances', word: 'acceptance' },
  place: { schema: placeSchema, group: 'places', word: 'place' },
  opening: { schema: openingSchema, group: 'openings', word: 'opening' },
  obstacle: { schema: obstacleSchema, group: 'obstacles', word: 'obstacle' },
  socket: { schema: socketSchema, group: 'sockets', word: 'socket' },
  barrier: { schema: barrierSchema, group: 'barriers', word: 'barrier' },
  requirement: { schema: requirementSchema, group: 'requirements', word: 'required piece' },
  milestone: { schema: milestoneSchema, group: 'milestones', word: 'milestone' },
  space: { schema: spaceSchema, group: 'spaces', word: 'room or yard' },
  vehicle: { schema: vehicleSchema, group: 'vehicles', word: 'vehicle' },
  furnishing: { schema: furnishingSchema, group: 'furnishings', word: 'furnishing' },
  terrain: { schema: terrainSchema, group: 'terrains', word: 'imported ground' },
  hill: { schema: hillSchema, group: 'hills', word: 'hill' },
  hollow: { schema: hollowSchema, group: 'hollows', word: 'hollow' },
  water: { schema: waterSchema, group: 'waters', word: 'water' },
  stream: { schema: streamSchema, group: 'streams', word: 'stream' },
  way: { schema: waySchema, group: 'ways', word: 'way' },
  track: { schema: trackSchema, group: 'tracks', word: 'track' },
  run: { schema: runSchema, group: 'runs', word: 'wall or fence' },
  repeat: { schema: repeatSchema, group: 'repeats', word: 'repeat' },
  planting: { schema: plantingSchema, group: 'plantings', word: 'planting' },
  tree: { schema: treeSchema, group: 'trees', word: 'tree' },
  figure: { schema: figureSchema, group: 'figures', word: 'small scene' },
  flag: { schema: flagSchema, group: 'flags', word: 'flag' },
  marker: { schema: markerSchema, group: 'markers', word: 'marker' },
  reserved: { schema: reservedSchema, group: 'reserved', word: 'reserved ground' },
  note: { schema: noteSchema, group: 'notes', word: 'note' },
  picture: { schema: pictureSchema, group: 'pictures', word: 'picture' },
  piece: { schema: pieceSchema, group: 'pieces', word: 'piece' },
  partType: { schema: partTypeSchema, group: 'partTypes', word: 'part' },
  recipe: { schema: recipeSchema, group: 'recipes', word: 'recipe' },
  partList: { schema: partListSchema, group: 'partLists', word: 'parts list' },
  lot: { schema: lotSchema, group: 'lots', word: 'stock' },
  loan: { schema: loanSchema, group: 'loans', word: 'loan' },
  order: { schema: orderSchema, group: 'orders', word: 'order' },
  placeholder: { schema: placeholderSchema, group: 'placeholders', word: 'placeholder' },
  substitute: { schema: substituteSchema, group: 'substitutes', word: 'substitute' },
  promise: { schema: promiseSchema, group: 'promises', word: 'promise' },
  alias: { schema: aliasSchema, group: 'aliases', word: 'alias' },
  thread: { schema: threadSchema, group: 'threads', word: 'advice' },
  reply: { schema: replySchema, group: 'replies', word: 'answer' },
  report: { schema: reportSchema, group: 'reports', word: 'report' },
  session: { schema: sessionSchema, group: 'sessions', word: 'session' },
  task: { schema: taskSchema, group: 'tasks', word: 'task' },
  calendar: { schema: calendarSchema, group: 'calendars', word: 'calendar' },
  photo: { schema: photoSchema, group: 'photos', word: 'photo' },
  slot: { schema: slotSchema, group: 'slots', word: 'slot' },
} as const satisfies Record<Kind, { schema: z.ZodObject; group: string; word: string }>;

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
export const REFERENCES: readonly { kind: Kind; field: string; to: Kind }[] = [
  ...(['pad', 'hill', 'hollow', 'water', 'stream', 'track', 'terrain'] as const).map((kind) => ({
    kind,
    field: 'level',
    to: 'level' as const,
  })),
  { kind: 'section', field: 'owner', to: 'person' },
  { kind: 'section', field: 'helpers', to: 'person' },
  { kind: 'reply', field: 'thread', to: 'thread' },
  { kind: 'task', field: 'after', to: 'task' },
  { kind: 'slot', field: 'after', to: 'slot' },
  { kind: 'session', field: 'ticked', to: 'task' },
  { kind: 'display', field: 'place', to: 'place' },
  ...(['table', 'passage', 'opening', 'obstacle', 'socket', 'barrier'] as const).map((kind) => ({
    kind,
    field: 'place',
    to: 'place' as const,
  })),
  { kind: 'space', field: 'plot', to: 'plot' },
  { kind: 'partList', field: 'plot', to: 'plot' },
  ...(
    [
      'recipe',
      'partList',
      'placeholder',
      'substitute',
      'promise',
      'thread',
      'report',
      'session',
      'task',
      'photo',
      'slot',
    ] as const
  ).map((kind) => ({
    kind,
    field: 'section',
    to: 'section' as const,
  })),
  ...(
    [
      ['partList', 'owner'],
      ['lot', 'owner'],
      ['loan', 'from'],
      ['loan', 'to'],
      ['order', 'by'],
      ['promise', 'person'],
      ['thread', 'by'],
      ['reply', 'by'],
      ['session', 'person'],
      ['task', 'owner'],
      ['calendar', 'person'],
      ['photo', 'by'],
    ] as const
  ).map(([kind, field]) => ({ kind, field, to: 'person' as const })),
];

/** How many entities of one kind a scene may hold; of stock as many as a long list of drawers. */
export const maxCount = (kind: Kind): number => (kind === 'lot' ? 20_000 : 5000);
