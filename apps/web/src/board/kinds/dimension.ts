import { lengthOfLine } from '@quarry/core/grid';
import { atAlong } from '@quarry/core/terrain';
import { listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { formatMeasure, formatOtherMeasure } from '../../ui/quantity.ts';
import { MONO, type Picture } from '../ink.ts';
import { LABEL_RANKS, textLabel, type BoardLabel } from '../labels.ts';
import { toScreen } from '../viewport.ts';
import type { BoardKind } from './kind.ts';
import { trace, upright } from './strokes.ts';

export const dimensionBoard: BoardKind = {
  drawings: [{ rank: 96, draw: drawDimensions }],
  labels: (picture) => dimensionLabels(picture),
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
function drawDimensions(ctx: CanvasRenderingContext2D, { palette, scene, view }: Picture): void {
  ctx.strokeStyle = palette.tarn;
  ctx.lineWidth = 1.2;
  for (const { points } of listOf(scene, 'dimension')) {
    const onScreen = points.map(({ x, y }) => toScreen(view, x, y));
    trace(ctx, onScreen);
    const ends = [onScreen.slice(0, 2), onScreen.slice(-2).reverse()];
    for (const [end, next] of ends) {
      if (!end || !next) continue;
      const angle = Math.atan2(next.y - end.y, next.x - end.x) + Math.PI / 2;
      const [u, v] = [Math.cos(angle) * END, Math.sin(angle) * END];
      ctx.moveTo(end.x - u, end.y - v);
      ctx.lineTo(end.x + u, end.y + v);
    }
    ctx.strokeStyle = palette.tarn;
    ctx.lineWidth = 1.2;
    ctx.stroke();
  }
}

/** The length of each at its middle, in both units. */
const dimensionLabels = (picture: Picture): BoardLabel[] =>
  listOf(picture.scene, 'dimension').flatMap(({ points }) => {
    const { palette, view, metric } = picture;
    const onScreen = points.map(({ x, y }) => toScreen(view, x, y));
    const studs = lengthOfLine(points);
    const words = `${formatMeasure(studs, 'studs', metric)} · ${formatOtherMeasure(studs, 'studs', metric)}`;
    const long = lengthOfLine(onScreen);
    if (long < LETTER * words.length + 16) return [];
    const middle = atAlong(onScreen, long / 2);
    const angle = upright(middle.angle);
    const beside = (by: number) => ({
      x: middle.x - by * Math.sin(angle),
      y: middle.y + by * Math.cos(angle),
    });
    return [
      textLabel(picture, LABEL_RANKS.measure, words, [beside(0), beside(-14), beside(14)], {
        ...{ font: `500 10.5px ${MONO}`, ink: palette.tarn, angle },
      }),
    ];
  });
/** Usual width of a letter of the figures, px. */
const LETTER = 6.3;
