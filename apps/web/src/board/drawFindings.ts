import { SANS, visible, type Picture } from './ink.ts';
import { toScreen } from './viewport.ts';

/** Marks closer than this are drawn as one with their count, px. */
const CROWD = 24;

export function drawFindings(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, view } = picture;
  const marks = new Map<string, { x: number; y: number; grave: boolean; count: number }>();
  for (const { place, severity, accepted } of picture.findings) {
    if (!place || accepted || severity === 'note') continue;
    if (!visible(picture, { ...place, w: 0, d: 0 }, 2 * CROWD)) continue;
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
