import { GROUNDS, groundName, listOf, type Ground, type Scene } from '@quarry/core/document';
import type { Relief } from '@quarry/core/terrain';
import { capital } from '../ui/words.ts';
import { HATCH_SCALE, groundTint, hatchOf, type Palette } from './palette.ts';

/** Size of a swatch of the key, px. */
export const SWATCH = { w: 34, h: 18 };

/** A line of the key: what a hatch or a line of the plan means. */
export interface LegendEntry {
  word: string;
  kind: 'ground' | 'line';
  /** Draws its swatch from the origin on, as large as SWATCH. */
  draw: (ctx: CanvasRenderingContext2D) => void;
}

/** The key of a plan: only what this scene has. */
export function legendEntries(scene: Scene, relief: Relief | null, palette: Palette): LegendEntry[] {
  const grounds = relief ? groundsIn(relief) : [];
  const line = (word: string, shown: boolean, draw: LegendEntry['draw']): LegendEntry[] =>
    shown ? [{ word, kind: 'line', draw }] : [];
  return [
    ...grounds.map((ground): LegendEntry => ({
      word: capital(groundName(scene, ground)),
      kind: 'ground',
      draw: (ctx) => fillGround(ctx, scene, ground, palette),
    })),
    ...line('contour, each brick; heavy each five', grounds.length > 0, (ctx) => {
      stroke(ctx, palette.contour, 0.8, [], 6);
      stroke(ctx, palette.contour, 1.6, [], 12);
    }),
    ...line('border of a section, its letter in a ring', listOf(scene, 'section').length > 0, (ctx) =>
      stroke(ctx, palette.ink, 1, [2, 3]),
    ),
    ...line('cut between modules, name in a flag', listOf(scene, 'module').length > 0, (ctx) =>
      stroke(ctx, palette.iron, 1.4, [12, 4, 2, 4]),
    ),
    ...line('cable, a dash for each circuit; box: connector', listOf(scene, 'circuit').length > 0, (ctx) =>
      stroke(ctx, palette.tarn, 1.6, [7, 3]),
    ),
  ];
}

/** The key's line of the section cut, which pictures that leave the program do not have. */
export const cutEntry = (palette: Palette): LegendEntry => ({
  word: 'line of the section cut',
  kind: 'line',
  draw: (ctx) => stroke(ctx, palette.ink, 1, [6, 4]),
});

/** Grounds that a relief has, in their own order. */
function groundsIn({ ground }: Relief): Ground[] {
  const seen = new Set<number>(ground);
  return GROUNDS.filter((_, code) => seen.has(code));
}

/** Fills a swatch as the plan fills a ground. */
export function fillGround(
  ctx: CanvasRenderingContext2D,
  scene: Pick<Scene, 'customGround'>,
  ground: Ground,
  palette: Palette,
): void {
  ctx.fillStyle = groundTint(palette, scene, ground) ?? palette.tints[0];
  ctx.fillRect(0, 0, SWATCH.w, SWATCH.h);
  const pattern = hatchOf(ground, scene, palette);
  if (pattern) {
    pattern.setTransform(new DOMMatrix().scale(HATCH_SCALE));
    ctx.fillStyle = pattern;
    ctx.fillRect(0, 0, SWATCH.w, SWATCH.h);
  }
  ctx.strokeStyle = palette.ink2;
  ctx.strokeRect(0.5, 0.5, SWATCH.w - 1, SWATCH.h - 1);
}

function stroke(
  ctx: CanvasRenderingContext2D,
  ink: string,
  width: number,
  dash: readonly number[],
  y = SWATCH.h / 2,
): void {
  ctx.strokeStyle = ink;
  ctx.lineWidth = width;
  ctx.setLineDash([...dash]);
  ctx.beginPath();
  ctx.moveTo(0, y);
  ctx.lineTo(SWATCH.w, y);
  ctx.stroke();
  ctx.setLineDash([]);
}
