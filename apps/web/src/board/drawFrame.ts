import { MM_PER_STUD } from '@quarry/core/grid';
import type { CutLine } from '../data/view.ts';
import { MONO, RULER, SANS, type Picture } from './ink.ts';
import { toScreen } from './viewport.ts';

/** Draws what stays where it is on the screen: rulers, scale bar and north. */
export function drawFrame(ctx: CanvasRenderingContext2D, picture: Picture): void {
  ctx.save();
  drawRulers(ctx, picture);
  drawScale(ctx, picture);
  ctx.restore();
}

/** The line of the section cut. */
export function drawCut(ctx: CanvasRenderingContext2D, { palette, view }: Picture, { a, b }: CutLine): void {
  const from = toScreen(view, a.x, a.y);
  const to = toScreen(view, b.x, b.y);
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const [u, v] = [(to.x - from.x) / length, (to.y - from.y) / length];
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 1;
  ctx.setLineDash([6, 4]);
  ctx.beginPath();
  ctx.moveTo(from.x - 12 * u, from.y - 12 * v);
  ctx.lineTo(to.x + 12 * u, to.y + 12 * v);
  ctx.stroke();
  ctx.setLineDash([]);
}

/** The least step of a scale whose ticks are far enough apart to be labelled. @param pixels px a unit of the scale */
const stepOf = (steps: readonly number[], pixels: number) =>
  steps.find((step) => step * pixels >= 44) ?? Math.max(...steps);

/** Steps that fit the grid (studs) and the tape (centimetres, inches). */
const STUD_STEPS = [1, 4, 8, 16, 48, 96, 192, 384, 768, 1536];
const TAPE_STEPS = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000];

/** Studs along the far and west sides, the tape along the near and east sides. */
function drawRulers(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, width, height, metric } = picture;
  const tape =
    metric === 'in' ? { studs: 25.4 / MM_PER_STUD, word: 'in' } : { studs: 10 / MM_PER_STUD, word: 'cm' };
  ruler(ctx, picture, { across: true, at: 0, unit: 1, steps: STUD_STEPS });
  ruler(ctx, picture, { across: false, at: 0, unit: 1, steps: STUD_STEPS });
  ruler(ctx, picture, { across: true, at: height - RULER, unit: tape.studs, steps: TAPE_STEPS });
  ruler(ctx, picture, { across: false, at: width - RULER, unit: tape.studs, steps: TAPE_STEPS });
  ctx.font = `10px ${MONO}`;
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  for (const [x, y, word] of [
    [0, 0, 'st'],
    [width - RULER, height - RULER, tape.word],
    [width - RULER, 0, ''],
    [0, height - RULER, ''],
  ] as const) {
    ctx.fillStyle = palette.sheet;
    ctx.fillRect(x, y, RULER, RULER);
    ctx.fillStyle = palette.ink2;
    ctx.fillText(word, x + RULER / 2, y + RULER / 2);
  }
}

interface Ruler {
  across: boolean;
  /** Screen place of its near side, px. */
  at: number;
  /** Studs in one unit of its scale. */
  unit: number;
  steps: readonly number[];
}

function ruler(
  ctx: CanvasRenderingContext2D,
  { palette, view, width, height }: Picture,
  { across, at, unit, steps }: Ruler,
): void {
  const length = across ? width : height;
  const origin = across ? view.x : view.y;
  const pixels = unit * view.scale;
  const step = stepOf(steps, pixels);
  // Ticks stand on the side towards the plan.
  const [inner, outer] = at === 0 ? [RULER - 6, RULER] : [at, at + 6];
  const line = (a: number, b: number, c: number, d: number) => {
    ctx.moveTo(across ? a : b, across ? b : a);
    ctx.lineTo(across ? c : d, across ? d : c);
  };
  ctx.fillStyle = palette.sheet;
  ctx.fillRect(across ? 0 : at, across ? at : 0, across ? width : RULER, across ? RULER : height);
  ctx.lineWidth = 1;
  ctx.strokeStyle = palette.line;
  ctx.beginPath();
  const edge = (at === 0 ? RULER : at) + 0.5;
  line(0, edge, length, edge);
  ctx.stroke();
  ctx.strokeStyle = palette.ink2;
  ctx.fillStyle = palette.ink2;
  ctx.font = `10px ${MONO}`;
  ctx.textAlign = 'left';
  ctx.textBaseline = 'middle';
  ctx.beginPath();
  for (
    let tick = Math.ceil((RULER - origin) / pixels / step);
    tick * step * pixels + origin <= length - RULER;
    tick++
  ) {
    const along = tick * step * pixels + origin;
    line(along + 0.5, inner, along + 0.5, outer);
    ctx.save();
    const middle = at === 0 ? 9 : at + 12;
    ctx.translate(across ? along + 3 : middle, across ? middle : along + 3);
    if (!across) ctx.rotate(Math.PI / 2);
    const label = String(tick * step);
    // A label that would run into the corner is left out; its tick stays.
    if (along + 3 + ctx.measureText(label).width < length - RULER) ctx.fillText(label, 0, 0);
    ctx.restore();
  }
  ctx.stroke();
}

function drawScale(ctx: CanvasRenderingContext2D, { palette, view, width, height }: Picture): void {
  const step = stepOf(STUD_STEPS, view.scale / 2);
  const length = step * view.scale;
  const right = width - 14 - RULER;
  const y = height - 22 - RULER;
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
  ctx.fillText(`${step} st · ${((step * MM_PER_STUD) / 10).toFixed(1)} cm`, right, y + 2);
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
