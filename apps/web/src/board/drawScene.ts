import { drawCut } from './drawFrame.ts';
import { drawContours, drawGround, drawTables } from './drawGround.ts';
import { drawFindings } from './drawFindings.ts';
import { drawEdges, drawTerrainNames, drawPictures, drawReserved, drawWays } from './drawTerrain.ts';
import { drawModules, drawSections } from './drawSections.ts';
import { drawDressing, drawPlots, drawSigns } from './drawThings.ts';
import type { Picture } from './ink.ts';

/** Draws all that moves with the ground, on a 2D context whose unit is a CSS pixel. */
export function drawScene(ctx: CanvasRenderingContext2D, picture: Picture): void {
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
  // A faded picture lies over the tints, so that it can be drawn after.
  if (!hidden.has('pictures')) drawPictures(ctx, picture);
  if (!hidden.has('ground')) drawEdges(ctx, picture);
  if (!hidden.has('ways')) drawWays(ctx, picture);
  drawTerrainNames(ctx, picture);
  if (!hidden.has('plots')) drawPlots(ctx, picture);
  if (!hidden.has('dressing')) drawDressing(ctx, picture);
  if (!hidden.has('signs')) {
    drawReserved(ctx, picture);
    drawSigns(ctx, picture);
  }
  if (!hidden.has('modules')) drawModules(ctx, picture);
  if (!hidden.has('sections')) drawSections(ctx, picture);
  if (!hidden.has('findings')) drawFindings(ctx, picture);
  if (picture.cut) drawCut(ctx, picture, picture.cut);
  ctx.restore();
}
