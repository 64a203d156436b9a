import { drawCutRow } from './drawFrame.ts';
import { drawContours, drawGround, drawTables, drawWaterNames } from './drawGround.ts';
import { drawFindings, drawModules, drawPlots, drawSections } from './drawThings.ts';
import type { Picture } from './ink.ts';

/** Draws all that moves with the ground, on a 2D context whose unit is a CSS pixel. */
export function drawSheet(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, width, height, hidden } = picture;
  ctx.save();
  ctx.fillStyle = palette.paper;
  ctx.fillRect(0, 0, width, height);
  ctx.lineJoin = 'round';
  if (!hidden.has('tables')) drawTables(ctx, picture);
  if (picture.art) {
    drawGround(ctx, picture, picture.art);
    if (!hidden.has('contours')) drawContours(ctx, picture, picture.art);
  }
  drawWaterNames(ctx, picture);
  if (!hidden.has('plots')) drawPlots(ctx, picture);
  if (!hidden.has('modules')) drawModules(ctx, picture);
  if (!hidden.has('sections')) drawSections(ctx, picture);
  if (!hidden.has('findings')) drawFindings(ctx, picture);
  if (picture.cutRow !== null) drawCutRow(ctx, picture, picture.cutRow);
  ctx.restore();
}
