import type { Rect } from '@quarry/core/grid';
import type { Change, PlanKind, Scene } from '@quarry/core/document';
import type { BoardLayer } from '../../data/view.ts';
import type { FieldSpec } from '../../ui/fieldSpec.ts';
import type { Picture } from '../ink.ts';
import type { BoardLabel } from '../labels.ts';
import type { Viewport } from '../viewport.ts';

/** Kinds that stand on the board. */
export type Placed = PlanKind | 'table';

type Point = { x: number; y: number };

/** What a tool has drawn, as the entity it becomes. */
export interface DrawnThing {
  /** For the history: “a hill”. */
  words: string;
  data: Record<string, unknown>;
  /** Changes that must come first, such as a level for the first pad. */
  before?: Change[];
}
/** @param name the next free name: its words with a number */
type Make<D> = (scene: Scene, drawn: D, name: (words: string) => string) => DrawnThing;

interface ToolWords {
  /** Letter that takes it up on the plan. */
  key: string;
  /** Left out: the kind's own word. */
  word?: string;
  /** It stands under “More”. */
  more?: true;
  /** It plans the whole display: not for builders. */
  planners?: true;
}
/** A tool draws an area, a line point by point, or sets one spot. */
export type KindTool = ToolWords &
  (
    | { draws: 'area'; make: Make<Rect> }
    | { draws: 'line'; make: Make<readonly Point[]> }
    | { draws: 'spot'; make: Make<Point> }
  );

/** A point of the board that is asked for what lies there. */
export interface PointedAt {
  /** Pixels of the screen. */
  px: number;
  py: number;
  /** The same, studs. */
  at: Point;
  view: Viewport;
}

/** One pass over all entities of a kind. */
export interface DrawingPass {
  /** Rank among all drawings: what has a higher one lies above. */
  rank: number;
  /** The layer that hides it; left out: that of its kind, if any. */
  layer?: BoardLayer;
  draw: (ctx: CanvasRenderingContext2D, picture: Picture) => void;
}

/** What the plan board knows of a kind: how it is drawn, found under the pointer, made by a tool and edited. */
export interface BoardKind {
  drawings?: readonly DrawingPass[];
  /** What is written of it: placed with the labels of all kinds, so that none lies on another. */
  labels?: (picture: Picture) => readonly BoardLabel[];
  /** The layer that hides it and keeps it from being picked. */
  layer?: BoardLayer;
  /** Rank under the pointer: the lowest is picked first. Signs are before walls, small things before what carries them. */
  picked: number;
  /** Entities that can be picked, the lowest first; left out: all, by id. */
  list?: (scene: Scene) => readonly { id: string }[];
  /** Whether a point belongs to it; left out: by its area, line or spot. */
  hit?: (scene: Scene, id: string, spot: PointedAt) => boolean;
  /** A box picks it too. */
  boxed?: true;
  /** The least step on which a person moves it by hand, studs; 0: it is not moved; left out: that of the board. */
  step?: number;
  /** Edges and middles of other things snap to its own. */
  snaps?: true;
  tool?: KindTool;
  fields?: readonly FieldSpec[];
}

/** Every kind that stands on the board: the compiler asks for each. */
export type BoardKinds = { readonly [K in Placed]: BoardKind };
