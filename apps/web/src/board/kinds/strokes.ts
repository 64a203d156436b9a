import { lengthOfLine } from '@quarry/core/grid';
import { atAlong } from '@quarry/core/terrain';
import { visible, type Picture } from '../ink.ts';

// Strokes that several kinds are drawn with.

type Ctx = CanvasRenderingContext2D;

/** Short strokes across a line, evenly along it. */
export function sleepers(
  ctx: CanvasRenderingContext2D,
  line: readonly { x: number; y: number }[],
  half: number,
  step: number,
): void {
  const long = lengthOfLine(line);
  ctx.beginPath();
  for (let along = step / 2; along < long; along += step) {
    const { x, y, angle } = atAlong(line, along);
    const [u, v] = [-Math.sin(angle) * half, Math.cos(angle) * half];
    ctx.moveTo(x - u, y - v);
    ctx.lineTo(x + u, y + v);
  }
  ctx.stroke();
}

/** Begins a path along points. */
export function trace(ctx: CanvasRenderingContext2D, points: readonly { x: number; y: number }[]): void {
  ctx.beginPath();
  points.forEach(({ x, y }, i) => (i === 0 ? ctx.moveTo(x, y) : ctx.lineTo(x, y)));
}

/** The crown of a plant from above, in stud space. @param width studs */
export function crown(ctx: Ctx, picture: Picture, x: number, y: number, width: number): void {
  const { view } = picture;
  const px = 1 / view.scale;
  if (
    !visible(picture, { x: x - width / 2 - px, y: y - width / 2 - px, w: width + 2 * px, d: width + 2 * px })
  )
    return;
  ctx.beginPath();
  ctx.arc(x, y, Math.max(width / 2, 1.5 * px), 0, Math.PI * 2);
  if (width * view.scale > 5) ctx.fill();
  ctx.stroke();
  if (width * view.scale < 8) return;
  ctx.beginPath();
  for (const lean of [1, -1]) {
    ctx.moveTo(x - width * 0.18, y - width * 0.18 * lean);
    ctx.lineTo(x + width * 0.18, y + width * 0.18 * lean);
  }
  ctx.stroke();
}

/** The angle of a text along a line, radians: never upside down. */
export const upright = (angle: number): number => (Math.abs(angle) > Math.PI / 2 ? angle + Math.PI : angle);
