import type { Rect } from '@quarry/core/grid';
import { listOf } from '@quarry/core/document';
import { MONO, SANS, visible, type Picture } from './ink.ts';

export function drawModules(ctx: CanvasRenderingContext2D, picture: Picture): void {
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

export function drawSections(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette } = picture;
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  for (const section of listOf(picture.scene, 'section')) {
    const on = visible(picture, section);
    if (!on) continue;
    ctx.strokeStyle = palette.ink;
    ctx.lineWidth = 0.9;
    ctx.setLineDash([2, 3]);
    ctx.strokeRect(on.x, on.y, on.w, on.d);
    ctx.setLineDash([]);
    const { x, y } = sectionMark(on);
    ctx.beginPath();
    ctx.arc(x, y, 10, 0, Math.PI * 2);
    ctx.fillStyle = palette.sheet;
    ctx.fill();
    ctx.lineWidth = 1.4;
    ctx.stroke();
    ctx.fillStyle = palette.ink;
    ctx.font = `600 11px ${SANS}`;
    ctx.fillText(section.letter, x, y + 0.5);
  }
}

/** Where a section's letter stands on the screen: in the far corner that the module flags leave free. */
export const sectionMark = (on: Rect) => ({
  x: on.x + on.w - Math.min(18, on.w / 2),
  y: on.y + Math.min(18, on.d / 2),
});
