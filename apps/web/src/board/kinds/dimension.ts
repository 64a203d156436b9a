import { lengthOfLine } from '@quarry/core/grid';
import { atAlong } from '@quarry/core/terrain';
import { listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { formatMeasure, formatOtherMeasure } from '../../ui/quantity.ts';
import { MONO, halo, type Picture } from '../ink.ts';
import { toScreen } from '../viewport.ts';
import type { BoardKind } from './kind.ts';
import { trace, upright } from './strokes.ts';

export const dimensionBoard: BoardKind = {
  drawings: [{ rank: 96, draw: drawDimensions }],
  layer: 'signs',
  picked: 22,
  boxed: true,
  tool: {
    draws: 'line',
    key: 'z',
    more: true,
    make: (_scene, points, name) => ({ words: 'a dimension', data: { name: name('Dimension'), points } }),
  },
  fields: [field.text('name', 'Name')],
};

/** Length of the strokes across its ends, px. */
const END = 5;

/** A thin line with a stroke across each end, and its length at the middle in both units. */
function drawDimensions(ctx: CanvasRenderingContext2D, { palette, scene, view, metric }: Picture): void {
  ctx.strokeStyle = palette.tarn;
  ctx.lineWidth = 1.2;
  ctx.font = `500 10.5px ${MONO}`;
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  for (const { points } of listOf(scene, 'dimension')) {
    const onScreen = points.map(({ x, y }) => toScreen(view, x, y));
    trace(ctx, onScreen);
    const ends = [onScreen.slice(0, 2), onScreen.slice(-2).reverse()];
    for (const [end, next] of ends) {
      const angle = Math.atan2(next.y - end.y, next.x - end.x) + Math.PI / 2;
      const [u, v] = [Math.cos(angle) * END, Math.sin(angle) * END];
      ctx.moveTo(end.x - u, end.y - v);
      ctx.lineTo(end.x + u, end.y + v);
    }
    ctx.strokeStyle = palette.tarn;
    ctx.lineWidth = 1.2;
    ctx.stroke();
    const studs = lengthOfLine(points);
    const words = `${formatMeasure(studs, 'studs', metric)} · ${formatOtherMeasure(studs, 'studs', metric)}`;
    if (lengthOfLine(onScreen) < ctx.measureText(words).width + 16) continue;
    const middle = atAlong(onScreen, lengthOfLine(onScreen) / 2);
    ctx.save();
    ctx.translate(middle.x, middle.y);
    ctx.rotate(upright(middle.angle));
    halo(ctx, words, 0, 0, palette.tarn, palette.sheet);
    ctx.restore();
  }
}
