import { listOf } from '@quarry/core/document';
import { MONO, visible, type Picture } from '../ink.ts';
import { rectToScreen } from '../viewport.ts';
import type { BoardKind } from './kind.ts';

export const moduleBoard: BoardKind = {
  drawings: [{ rank: 120, draw: drawModules }],
  layer: 'modules',
  picked: 10,
  // By its flag alone.
  hit: (scene, id, { px, py, view }) => {
    const on = rectToScreen(view, scene.module[id]);
    return px >= on.x + 4 && px <= on.x + 36 && py >= on.y + 4 && py <= on.y + 20;
  },
  // A module's place is that of its bases: it changes on Cut.
  step: 0,
  snaps: true,
};

function drawModules(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette } = picture;
  const modules = listOf(picture.scene, 'module').flatMap((module) => {
    const on = visible(picture, module);
    return on ? [{ name: module.name, on }] : [];
  });
  ctx.strokeStyle = palette.iron;
  ctx.lineWidth = 1.3;
  ctx.setLineDash([12, 4, 2, 4]);
  ctx.beginPath();
  for (const { on } of modules) ctx.rect(on.x, on.y, on.w, on.d);
  ctx.stroke();
  ctx.setLineDash([]);
  ctx.font = `500 10.5px ${MONO}`;
  ctx.textAlign = 'left';
  ctx.textBaseline = 'middle';
  for (const { name, on } of modules) {
    if (on.w < 30 || on.d < 22) continue;
    const width = ctx.measureText(name).width + 8;
    ctx.fillStyle = palette.iron;
    ctx.fillRect(on.x + 5, on.y + 5, width, 14);
    ctx.fillStyle = palette.onIron;
    ctx.fillText(name, on.x + 9, on.y + 12.5);
  }
}
