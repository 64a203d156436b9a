import { formatPlates, type Rect } from '@quarry/core/lattice';
import { listOf } from '@quarry/core/scene';
import { MONO, SANS, hatch, plate, visible, wrap, type Picture } from './ink.ts';
import { toScreen } from './viewport.ts';

export function drawPlots(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, view } = picture;
  const fills = new Path2D();
  const walls = new Path2D();
  const labelled: { name: string; on: Rect; note: string }[] = [];
  // Walls are one stud thick; too thin to see, they are left out.
  const wall = view.scale > 1.2 ? view.scale : 0;
  for (const plot of listOf(picture.scene, 'plot')) {
    const on = visible(picture, plot);
    if (!on) continue;
    fills.rect(on.x, on.y, on.w, on.d);
    if (wall > 0 && on.w > 4 * wall && on.d > 4 * wall)
      walls.rect(on.x + wall, on.y + wall, on.w - 2 * wall, on.d - 2 * wall);
    if (on.w > 26 && on.d > 12)
      labelled.push({ name: plot.name, on, note: `${formatPlates(plot.height)} tall` });
  }
  ctx.fillStyle = palette.sheet;
  ctx.fill(fills);
  ctx.strokeStyle = palette.line;
  ctx.lineWidth = 0.7;
  ctx.beginPath();
  for (const { on } of labelled)
    hatch(ctx, { x: on.x + wall, y: on.y + wall, w: on.w - 2 * wall, d: on.d - 2 * wall });
  ctx.stroke();
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 1.2;
  ctx.stroke(fills);
  ctx.lineWidth = 0.6;
  ctx.stroke(walls);
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  for (const { name, on, note } of labelled) {
    ctx.font = `500 11px ${SANS}`;
    const lines = wrap(ctx, name, on.w - 8, Math.trunc((on.d - 4) / 13));
    const tall = on.d > lines.length * 13 + 22 && on.w > 56;
    const top = on.y + on.d / 2 - ((lines.length - 1) * 13) / 2 - (tall ? 6 : 0);
    lines.forEach((line, i) => plate(ctx, line, on.x + on.w / 2, top + i * 13, palette.ink, palette.sheet));
    if (!tall) continue;
    ctx.font = `10px ${MONO}`;
    plate(ctx, note, on.x + on.w / 2, top + lines.length * 13, palette.ink2, palette.sheet);
  }
}

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

/** Marks closer than this are drawn as one with their count, px. */
const CROWD = 24;

export function drawFindings(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, view } = picture;
  const marks = new Map<string, { x: number; y: number; grave: boolean; count: number }>();
  for (const { place, severity, accepted } of picture.findings) {
    if (!place || accepted || severity === 'note') continue;
    const { x, y } = toScreen(view, place.x, place.y);
    const grave = severity === 'error';
    // Errors and warnings of one place stand side by side.
    const key = `${Math.round(x / CROWD)} ${Math.round(y / CROWD)} ${grave}`;
    const mark = marks.get(key);
    if (mark) mark.count++;
    else
      marks.set(key, {
        x: grave || !marks.has(key.replace('false', 'true')) ? x : x + 18,
        y,
        grave,
        count: 1,
      });
  }
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  ctx.font = `700 11px ${SANS}`;
  for (const { x, y, grave, count } of marks.values()) {
    ctx.beginPath();
    if (grave) ctx.arc(x, y, 8, 0, Math.PI * 2);
    else {
      ctx.moveTo(x, y - 9);
      ctx.lineTo(x + 9, y + 6.5);
      ctx.lineTo(x - 9, y + 6.5);
      ctx.closePath();
    }
    ctx.fillStyle = grave ? palette.iron : palette.ochre;
    ctx.fill();
    ctx.strokeStyle = palette.sheet;
    ctx.lineWidth = 1.5;
    ctx.stroke();
    ctx.fillStyle = palette.onIron;
    ctx.fillText(count === 1 ? '!' : String(Math.min(count, 99)), x, y + (grave ? 0.5 : 1.5));
  }
}
