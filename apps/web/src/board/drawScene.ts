import { drawCut } from './drawFrame.ts';
import { drawContours, drawGround, drawStudGrid } from './drawGround.ts';
import type { Picture } from './ink.ts';
import { DRAWINGS } from './kinds/index.ts';

/** What has a lower rank lies under the ground. */
const GROUND_RANK = 5;
const UNDER = DRAWINGS.filter(({ rank }) => rank < GROUND_RANK);
const OVER = DRAWINGS.filter(({ rank }) => rank >= GROUND_RANK);

/** Draws all that moves with the ground, on a 2D context whose unit is a CSS pixel. */
export function drawScene(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, width, height, hidden } = picture;
  const run = (drawings: typeof DRAWINGS) => {
    for (const { layer, draw } of drawings) if (!layer || !hidden.has(layer)) draw(ctx, picture);
  };
  ctx.save();
  ctx.fillStyle = palette.paper;
  ctx.fillRect(0, 0, width, height);
  ctx.lineJoin = 'round';
  run(UNDER);
  if (picture.art) {
    drawGround(ctx, picture, picture.art);
    drawStudGrid(ctx, picture, picture.art);
    if (!hidden.has('contours')) drawContours(ctx, picture, picture.art);
  }
  run(OVER);
  if (picture.cut) drawCut(ctx, picture, picture.cut);
  ctx.restore();
}
