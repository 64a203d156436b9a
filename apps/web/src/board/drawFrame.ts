import { MONO, RULER, SANS, halo, type Picture } from './ink.ts';
import { toScreen, toStuds } from './viewport.ts';

/** Draws what stays where it is on the screen: rulers, scale bar and north. */
export function drawFrame(ctx: CanvasRenderingContext2D, picture: Picture): void {
  ctx.save();
  drawRulers(ctx, picture);
  drawScale(ctx, picture);
  ctx.restore();
}

export function drawCutRow(
  ctx: CanvasRenderingContext2D,
  { palette, view, width, art }: Picture,
  row: number,
): void {
  if (!art) return;
  const { y } = toScreen(view, 0, row + 0.5);
  const from = Math.max(RULER, toScreen(view, art.relief.x, 0).x - 12);
  const to = Math.min(width - 8, toScreen(view, art.relief.x + art.relief.w, 0).x + 12);
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 1;
  ctx.setLineDash([6, 4]);
  ctx.beginPath();
  ctx.moveTo(from, y);
  ctx.lineTo(to, y);
  ctx.stroke();
  ctx.setLineDash([]);
  ctx.font = `600 11px ${SANS}`;
  ctx.textAlign = 'center';
  ctx.textBaseline = 'bottom';
  halo(ctx, 'S', from + 5, y - 1, palette.ink, palette.paper);
  halo(ctx, 'S′', to - 5, y - 1, palette.ink, palette.paper);
}

/** A step of 8 × 1, 2, 3, 6, 12 … studs whose ticks are far enough apart to be labelled. */
function tickStep(scale: number): number {
  return [1, 4, 8, 16, 48, 96, 192, 384, 768].find((step) => step * scale >= 44) ?? 1536;
}

function drawRulers(ctx: CanvasRenderingContext2D, { palette, view, width, height }: Picture): void {
  ctx.fillStyle = palette.sheet;
  ctx.fillRect(0, 0, width, RULER);
  ctx.fillRect(0, 0, RULER, height);
  ctx.strokeStyle = palette.line;
  ctx.lineWidth = 1;
  ctx.beginPath();
  ctx.moveTo(0, RULER + 0.5);
  ctx.lineTo(width, RULER + 0.5);
  ctx.moveTo(RULER + 0.5, 0);
  ctx.lineTo(RULER + 0.5, height);
  ctx.stroke();
  const step = tickStep(view.scale);
  ctx.fillStyle = palette.ink2;
  ctx.strokeStyle = palette.ink2;
  ctx.font = `10px ${MONO}`;
  const from = toStuds(view, RULER, RULER);
  const to = toStuds(view, width, height);
  ctx.beginPath();
  ctx.textBaseline = 'middle';
  ctx.textAlign = 'left';
  for (let stud = Math.ceil(from.x / step) * step; stud <= to.x; stud += step) {
    const { x } = toScreen(view, stud, 0);
    ctx.moveTo(x + 0.5, RULER - 6);
    ctx.lineTo(x + 0.5, RULER);
    ctx.fillText(String(stud), x + 3, 9);
  }
  for (let stud = Math.ceil(from.y / step) * step; stud <= to.y; stud += step) {
    const { y } = toScreen(view, 0, stud);
    ctx.moveTo(RULER - 6, y + 0.5);
    ctx.lineTo(RULER, y + 0.5);
    ctx.save();
    ctx.translate(9, y + 3);
    ctx.rotate(Math.PI / 2);
    ctx.fillText(String(stud), 0, 0);
    ctx.restore();
  }
  ctx.stroke();
  ctx.fillStyle = palette.sheet;
  ctx.fillRect(0, 0, RULER, RULER);
}

function drawScale(ctx: CanvasRenderingContext2D, { palette, view, width, height }: Picture): void {
  const step = tickStep(view.scale / 2);
  const length = step * view.scale;
  const right = width - 14;
  const y = height - 22;
  ctx.fillStyle = palette.sheet;
  ctx.strokeStyle = palette.line;
  ctx.lineWidth = 1;
  ctx.fillRect(right - length - 46, y - 14, length + 54, 31);
  ctx.strokeRect(right - length - 45.5, y - 13.5, length + 54, 31);
  ctx.fillStyle = palette.ink;
  ctx.strokeStyle = palette.ink;
  ctx.fillRect(right - length, y - 6, length / 2, 4);
  ctx.strokeRect(right - length, y - 6, length, 4);
  ctx.font = `10px ${MONO}`;
  ctx.textBaseline = 'top';
  ctx.textAlign = 'right';
  ctx.fillText(`${step} st · ${((step * 8) / 10).toFixed(1)} cm`, right, y + 2);
  // North: the far edge is at the top of the sheet.
  const n = right - length - 30;
  ctx.beginPath();
  ctx.moveTo(n, y + 12);
  ctx.lineTo(n, y - 8);
  ctx.moveTo(n - 4, y - 3);
  ctx.lineTo(n, y - 9);
  ctx.lineTo(n + 4, y - 3);
  ctx.stroke();
  ctx.textAlign = 'left';
  ctx.font = `600 10px ${SANS}`;
  ctx.fillText('N', n + 6, y);
}
