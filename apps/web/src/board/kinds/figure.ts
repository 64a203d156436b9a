import { FIGURE_STATES, listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { MONO, type Picture } from '../ink.ts';
import { LABEL_RANKS, type BoardLabel } from '../labels.ts';
import { toScreen } from '../viewport.ts';
import { ofLevel } from '../drawSlabs.ts';
import type { BoardKind } from './kind.ts';

export const figureBoard: BoardKind = {
  labels: (picture) => figureLabels(picture),
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
    field.number('cast', 'Cast', 1, 500, { whole: true, unit: 'figures' }),
    field.choice('state', 'State', FIGURE_STATES),
    field.long('story', 'What happens', 200),
  ],
};

/** The size of each cast in a circle: filled when it is placed, dashed while it is an idea. */
const figureLabels = (picture: Picture): BoardLabel[] =>
  ofLevel(picture, listOf(picture.scene, 'figure')).map((figure) => {
    const { palette, view } = picture;
    const isPlaced = figure.state === 'placed';
    const [paper, ink] = isPlaced ? [palette.ink, palette.sheet] : [palette.sheet, palette.ink];
    const { x, y } = toScreen(view, figure.x, figure.y);
    return {
      rank: LABEL_RANKS.figure,
      says: [[{ text: String(figure.cast), font: `600 10px ${MONO}`, ink }]],
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
