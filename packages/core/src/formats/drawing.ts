import type { Rect } from '../grid/index.ts';
import type { RoomPoint } from '../venue/index.ts';

/** Layers of a drawing, by what lies on them: the same names in every format. */
export const LAYERS = [
  'WALLS',
  'OPENINGS',
  'OBSTACLES',
  'TABLES',
  'SCENE',
  'SECTIONS',
  'SOCKETS',
  'BARRIERS',
  'DECKS',
  'CAVITIES',
  'DIMENSIONS',
  'FOOTPRINT',
  'PADS',
  'GROUND',
  'CONTOURS',
  'WAYS',
  'TRACKS',
  'PLOTS',
  'DRESSING',
  'MODULES',
  'CABLES',
  'NAMES',
] as const;
export type DrawingLayer = (typeof LAYERS)[number];

/** A line through points, mm. */
export interface DrawnLine {
  kind: 'line';
  layer: DrawingLayer;
  points: RoomPoint[];
  closed: boolean;
  dashed: boolean;
  /** 1 fine, 2 plain, 4 heavy. */
  weight: number;
  /** What it is the outline of, for formats that can say so. */
  name?: string;
  /** The thing itself, for formats that can be read back. */
  thing?: object;
}

/** A text, its middle on a point; `turn` degrees clockwise, `size` its height in mm of the drawing. */
export interface DrawnText {
  kind: 'text';
  layer: DrawingLayer;
  at: RoomPoint;
  text: string;
  size: number;
  turn: number;
  /** Who comes first where there is no room for all: the smallest. */
  rank?: number;
}

/** A drawing in true millimetres, x east and y south: what every writer of outlines starts from. */
export interface Drawing {
  title: string;
  /** What all items take in, dimensions included, mm. */
  bounds: Rect<'mm'>;
  items: (DrawnLine | DrawnText)[];
}
