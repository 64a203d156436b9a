import { FIGURE_STATES, castSize, listOf, wantedAt } from '@quarry/core/document';
import { spotSize } from '@quarry/core/terrain';
import { field } from '../../ui/fieldSpec.ts';
import { MONO, inStuds, type Picture } from '../ink.ts';
import { LABEL_RANKS, type BoardLabel } from '../labels.ts';
import { toScreen } from '../viewport.ts';
import { ofLevel } from '../drawSlabs.ts';
import type { BoardKind } from './kind.ts';

export const figureBoard: BoardKind = {
  labels: (picture) => figureLabels(picture),
  drawings: [{ rank: 62, draw: drawSpots }],
  layer: 'dressing',
  picked: 30,
  boxed: true,
  tool: {
    draws: 'spot',
    key: 'i',
    more: true,
    make: (_scene, at, name) => ({ words: 'a small scene', data: { name: name('Scene'), ...at } }),
  },
  fields: [
    field.text('name', 'Name'),
    ...field.spot(),
    field.number('cast', 'Cast', 1, 500, {
      ...{ whole: true, unit: 'figures' },
      // Spots are counted instead: see Cast on the Brief.
      when: ({ spots }) => !Array.isArray(spots) || spots.length === 0,
    }),
    field.choice('state', 'State', FIGURE_STATES),
    field.long('story', 'What happens', 200),
  ],
};

/** Spots are drawn where a stud is so many px or more. */
const MIN_SCALE = 5;

/** Each spot as wide as what takes it, with a line to where it looks. */
function drawSpots(ctx: CanvasRenderingContext2D, picture: Picture): void {
  if (picture.view.scale < MIN_SCALE) return;
  inStuds(ctx, picture, () => {
    ctx.strokeStyle = picture.palette.ink;
    ctx.fillStyle = picture.palette.sheet;
    ctx.lineWidth = 1 / picture.view.scale;
    for (const figure of ofLevel(picture, listOf(picture.scene, 'figure')))
      for (const spot of figure.spots) {
        const { form } = wantedAt(picture.scene, spot);
        const { w, d } = spotSize(form, spot.pose);
        ctx.save();
        ctx.translate(figure.x + spot.dx, figure.y + spot.dy);
        ctx.rotate((spot.facing * Math.PI) / 180);
        ctx.beginPath();
        if (form === 'vehicle') ctx.rect(-w / 2, -d / 2, w, d);
        else ctx.ellipse(0, 0, 0.4 * w, 0.4 * d, 0, 0, 2 * Math.PI);
        ctx.fill();
        ctx.moveTo(0, 0);
        ctx.lineTo(0, -d / 2 - 0.4);
        ctx.stroke();
        ctx.restore();
      }
  });
}

/** The size of each cast in a circle: filled when it is placed, dashed while it is an idea. */
const figureLabels = (picture: Picture): BoardLabel[] =>
  ofLevel(picture, listOf(picture.scene, 'figure')).map((figure) => {
    const { palette, view } = picture;
    const isPlaced = figure.state === 'placed';
    const [paper, ink] = isPlaced ? [palette.ink, palette.sheet] : [palette.sheet, palette.ink];
    const { x, y } = toScreen(view, figure.x, figure.y);
    return {
      rank: LABEL_RANKS.figure,
      says: [[{ text: String(castSize(picture.scene, figure)), font: `600 10px ${MONO}`, ink }]],
      spots: [
        { x, y },
        { x: x + 12, y },
        { x: x - 12, y },
        { x, y: y - 12 },
        { x, y: y + 12 },
      ],
      air: 0,
      ground: {
        as: 'ring',
        ...{ paper, ink: palette.ink, radius: 8, width: 1.2 },
        dash: figure.state === 'idea' ? [2, 2] : [],
      },
    };
  });
