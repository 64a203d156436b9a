import type { Rect } from '@quarry/core/grid';
import type { Hill } from '@quarry/core/document';
import type { Picked } from '../data/view.ts';
import type { DrawnShape, Placed } from './kinds/index.ts';

/** What one may do on a board; a board without it is to be looked at only. */
export interface BoardActs {
  mayEdit: (picked: Picked) => boolean;
  /** The least step of moving and drawing, studs. */
  snap: number;
  place: (picked: Picked, rect: Rect) => void;
  shape: (picked: Picked, points: { x: number; y: number }[]) => void;
  ridge: (picked: Picked, ridge: Hill['ridge']) => void;
  move: (picks: readonly Picked[], dx: number, dy: number) => void;
  draw: (kind: Placed, shape: DrawnShape) => void;
}
