import { FIGURE_STATES, listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { MONO, type Picture } from '../ink.ts';
import { toScreen } from '../viewport.ts';
import type { BoardKind } from './kind.ts';

export const figureBoard: BoardKind = {
  drawings: [{ rank: 70, draw: drawFigures }],
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
function drawFigures(ctx: CanvasRenderingContext2D, { palette, scene, view }: Picture): void {
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  ctx.font = `600 10px ${MONO}`;
  for (const figure of listOf(scene, 'figure')) {
    const { x, y } = toScreen(view, figure.x, figure.y);
    ctx.beginPath();
    ctx.arc(x, y, 8, 0, Math.PI * 2);
    ctx.fillStyle = figure.state === 'placed' ? palette.ink : palette.sheet;
    ctx.fill();
    ctx.lineWidth = 1.2;
    ctx.setLineDash(figure.state === 'idea' ? [2, 2] : []);
    ctx.strokeStyle = palette.ink;
    ctx.stroke();
    ctx.setLineDash([]);
    ctx.fillStyle = figure.state === 'placed' ? palette.sheet : palette.ink;
    ctx.fillText(String(figure.cast), x, y + 0.5);
  }
}
