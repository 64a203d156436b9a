// The words that fields of several kinds choose from.

export const COLOUR_POLICIES = ['strict', 'aged', 'free'] as const;
export const WINDS = ['n', 'ne', 'e', 'se', 's', 'sw', 'w', 'nw'] as const;

export const WIND_WORDS: Record<(typeof WINDS)[number], string> = {
  n: 'north',
  ne: 'north-east',
  e: 'east',
  se: 'south-east',
  s: 'south',
  sw: 'south-west',
  w: 'west',
  nw: 'north-west',
};

export const SEASONS = ['spring', 'summer', 'autumn', 'winter'] as const;
export const PLANT_SEASONS = ['any', ...SEASONS] as const;
/** Which leaves a plant has: of a season, or as the display has them in the month it shows. */
export const LEAF_SEASONS = [...PLANT_SEASONS, 'month'] as const;
/** Months by number, the first is 1. */
export const MONTH_WORDS = [
  ...['January', 'February', 'March', 'April', 'May', 'June'],
  ...['July', 'August', 'September', 'October', 'November', 'December'],
] as const;
/** The name of a month. @param month from 1; null: none */
export const monthWord = (month: number | null): string | null =>
  month === null ? null : (MONTH_WORDS[month - 1] ?? null);
/** Fixed grounds: those of every display. */
export const FIXED_GROUNDS = ['grass', 'rock', 'soil', 'sand', 'paving', 'road', 'ballast', 'water'] as const;
export type FixedGround = (typeof FIXED_GROUNDS)[number];

/** Grounds that a display may describe itself: each is the id of an entity of the kind `customGround`. */
export const CUSTOM_GROUNDS = [
  'custom-1',
  'custom-2',
  'custom-3',
  'custom-4',
  'custom-5',
  'custom-6',
  'custom-7',
  'custom-8',
  'custom-9',
  'custom-10',
  'custom-11',
  'custom-12',
] as const;

/** Every ground that a thing may have; rasters hold the index in this list. */
export const GROUNDS = [...FIXED_GROUNDS, ...CUSTOM_GROUNDS] as const;
export type Ground = (typeof GROUNDS)[number];

/** How ground is covered: plates with slopes where it falls, plates alone, or tiles. */
export const COVER_SURFACES = ['natural', 'plates', 'tiles'] as const;
export type CoverSurface = (typeof COVER_SURFACES)[number];

/** Hatches that tell grounds apart without colour. */
export const GROUND_HATCHES = [
  'ticks',
  'chevrons',
  'strokes',
  'grains',
  'bricks',
  'dashes',
  'stones',
  'waves',
  'crosses',
  'rings',
  'diagonals',
  'flakes',
] as const;
export type GroundHatch = (typeof GROUND_HATCHES)[number];

/** Sides of the display, by the compass of its plan: north is the far edge. */
export const SIDES = ['n', 'e', 's', 'w'] as const;
export type Side = (typeof SIDES)[number];

/** Whether a side runs from west to east: the north and the south one. */
export const runsEast = (side: Side): boolean => side === 'n' || side === 's';

/** Corners of an unturned building. */
export const CORNERS = ['nw', 'ne', 'se', 'sw'] as const;
export const CORNER_WORDS: Record<(typeof CORNERS)[number], string> = {
  nw: 'north-west',
  ne: 'north-east',
  se: 'south-east',
  sw: 'south-west',
};

export const SIDE_WORDS: Record<Side, string> = { n: 'north', e: 'east', s: 'south', w: 'west' };

export const SHAPES = ['rect', 'oval', 'outline'] as const;
export const PROFILES = ['even', 'convex', 'concave', 'sheer'] as const;

/** How ground is filled under its skin: see `masonry`. */
export const METHODS = ['solid', 'raft', 'filler', 'stepped', 'frame', 'moulded', 'reuse'] as const;
export type Method = (typeof METHODS)[number];

export interface Area {
  x: number;
  y: number;
  w: number;
  d: number;
  shape: (typeof SHAPES)[number];
  outline: readonly { x: number; y: number }[];
}

/** What a section goes through, from the first to the last. */
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

/** Kinds of work, each with a rate of its own. */
export const WORKS = [
  'planning',
  'sorting',
  'ground',
  'structures',
  'dressing',
  'lights',
  'figures',
  'other',
] as const;
export type Work = (typeof WORKS)[number];

/** What dries before work goes on. */
export const DRYINGS = ['glue', 'sealant', 'decals', 'paint'] as const;
export type Drying = (typeof DRYINGS)[number];

/** The side that one becomes when what it belongs to is turned, degrees clockwise; the nearest where it is askew. */
export const turnedSide = (side: Side, turn: number): Side =>
  SIDES[(SIDES.indexOf(side) + Math.round(turn / 90)) % 4];
