import { intersection, type Rect } from '@quarry/core/grid';
import { contoursOf, type Contour, type Relief } from '@quarry/core/terrain';

/** A square of the relief with its contours: redrawn when something in it changes. */
export interface Tile extends Rect {
  contours: Contour[];
}

/** The compiled ground and the tiles that are not as they were; `whole`: these are all there are. */
export interface GroundStep {
  relief: Relief;
  tiles: Tile[];
  whole: boolean;
}

/** Side of a tile, studs. */
const TILE = 32;

/** The tiles of a relief that a change touches. @param changed rectangles of studs; null: everywhere */
export function tilesOf(relief: Relief, changed: readonly Rect[] | null): Tile[] {
  const tiles: Tile[] = [];
  for (let y = relief.y; y < relief.y + relief.d; y += TILE)
    for (let x = relief.x; x < relief.x + relief.w; x += TILE) {
      const square = {
        x,
        y,
        w: Math.min(TILE, relief.x + relief.w - x),
        d: Math.min(TILE, relief.y + relief.d - y),
      };
      // A tile draws the edges towards its east and south neighbours too.
      const near = { x: x - 1, y: y - 1, w: square.w + 2, d: square.d + 2 };
      if (changed && !changed.some((rect) => intersection(rect, near))) continue;
      tiles.push({ ...square, contours: contoursOf(relief, square) });
    }
  return tiles;
}
