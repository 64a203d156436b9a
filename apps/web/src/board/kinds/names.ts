import { lengthOfLine, formatPlates } from '@quarry/core/grid';
import { atAlong } from '@quarry/core/terrain';
import { listOf } from '@quarry/core/document';
import { MONO, SANS, halo, visible, type Picture } from '../ink.ts';
import { lineOf, placeOf } from '../place.ts';
import { rectToScreen, toScreen } from '../viewport.ts';
import { upright } from './strokes.ts';

// Names on the plan, as on a map: spaced letters for water and heights, along the line for ways and streams.

type Ctx = CanvasRenderingContext2D;

/** The name of a sheet of water with its level, where both have room. */
export function drawWaterName(
  ctx: Ctx,
  picture: Picture,
  kind: 'water' | 'pad',
  { id, name, level, offset }: { id: string; name: string; level: string; offset: number },
): void {
  const { palette, scene } = picture;
  const place = placeOf(scene, { kind, id });
  const on = place && visible(picture, place);
  if (!on || on.w < 90 || on.d < 36) return;
  spacedName(ctx, name, on.x + on.w / 2, on.y + on.d / 2 - 7, palette.tarn, palette.water);
  ctx.font = `11px ${MONO}`;
  const words = `level ${formatPlates((scene.level[level]?.height ?? 0) + offset)}`;
  halo(ctx, words, on.x + on.w / 2, on.y + on.d / 2 + 9, palette.tarn, palette.water);
}

/** The names of hills or hollows at their ridges. */
export function drawRisingNames(ctx: Ctx, picture: Picture, kind: 'hill' | 'hollow'): void {
  const { palette, scene } = picture;
  for (const { name, ridge, ...form } of listOf(scene, kind)) {
    const on = visible(picture, form);
    if (!on || on.w < 110 || on.d < 50) continue;
    const at = {
      x: on.x + ((ridge.x1 + ridge.x2) / 2) * on.w,
      y: on.y + ((ridge.y1 + ridge.y2) / 2) * on.d,
    };
    const [x, y] = inScene(picture, ctx, name, at.x, at.y - 12);
    spacedName(ctx, name, x, y, palette.ink, palette.sheet);
  }
}

/** The names of lines along them, where they are long and wide enough. @param ink of which colour */
export function drawLineNames(
  ctx: Ctx,
  picture: Picture,
  kind: 'way' | 'stream' | 'track',
  ink: 'ink' | 'tarn',
): void {
  const { palette, scene, view } = picture;
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  ctx.font = `500 11px ${SANS}`;
  for (const { id, name } of listOf(scene, kind)) {
    const line = lineOf(scene, kind, id);
    if (!line) continue;
    const long = lengthOfLine(line.points);
    if (long * view.scale < ctx.measureText(name).width + 60 || line.width * view.scale < 13) continue;
    const at = atAlong(line.points, long * 0.3);
    const on = toScreen(view, at.x, at.y);
    ctx.save();
    ctx.translate(on.x, on.y);
    ctx.rotate(upright(at.angle));
    halo(ctx, name, 0, 0, palette[ink], ink === 'tarn' ? palette.water : palette.sheet);
    ctx.restore();
  }
}

/** Brings a name into the scene: a hill may have its top beyond the edge. */
function inScene(picture: Picture, ctx: Ctx, name: string, x: number, y: number): [number, number] {
  if (!picture.art) return [x, y];
  const on = rectToScreen(picture.view, picture.art.relief);
  ctx.font = `italic 500 12px ${SANS}`;
  const half = ctx.measureText(name.toUpperCase()).width / 2 + name.length + 8;
  return [
    Math.min(Math.max(x, on.x + half), Math.max(on.x + half, on.x + on.w - half)),
    Math.min(Math.max(y, on.y + 30), on.y + on.d - 12),
  ];
}

function spacedName(ctx: Ctx, name: string, x: number, y: number, ink: string, paper: string): void {
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  ctx.font = `italic 500 12px ${SANS}`;
  ctx.letterSpacing = '2px';
  halo(ctx, name.toUpperCase(), x, y, ink, paper);
  ctx.letterSpacing = '0px';
}
