import { ON_STEEP, WAY_USES, listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { inStuds, type Picture } from '../ink.ts';
import { drawAbove } from '../drawSlabs.ts';
import type { BoardKind } from './kind.ts';
import { bridgeFieldSpecs, withHeights } from './make.ts';
import { lineLabels } from './names.ts';
import { sleepers, trace } from './strokes.ts';

export const wayBoard: BoardKind = {
  drawings: [{ rank: 25, draw: drawWays }],
  labels: (picture) => lineLabels(picture, 'way', 'ink'),
  layer: 'ways',
  picked: 110,
  boxed: true,
  tool: {
    draws: 'line',
    key: 'y',
    make: (_scene, points, name) => ({
      words: 'a way',
      data: { name: name('Way'), points: withHeights(points) },
    }),
  },
  fields: [
    field.text('name', 'Name'),
    field.choice('use', 'It is a', WAY_USES),
    field.studs('width', 'Width', 0.5, 128),
    field.ground('ground', 'Ground'),
    field.plates('rise', 'Above ground', -30, 30),
    field.grade(200),
    field.choice('onSteep', 'Where steeper', ON_STEEP, {
      follow: 'Follow the ground',
      ramp: 'Level to a ramp',
      steps: 'Build steps',
    }),
    ...bridgeFieldSpecs(),
  ],
};

/** The middle of each way dashed; steps across it. */
function drawWays(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, scene, view } = picture;
  inStuds(ctx, picture, () => {
    ctx.strokeStyle = palette.ink;
    ctx.lineWidth = 0.9 / view.scale;
    for (const { id, points, use, onSteep, width } of listOf(scene, 'way'))
      drawAbove(ctx, picture, 'way', id, points, () => {
        ctx.setLineDash(use === 'road' ? [8 / view.scale, 6 / view.scale] : [2 / view.scale, 4 / view.scale]);
        trace(ctx, points);
        ctx.stroke();
        ctx.setLineDash([]);
        if (onSteep === 'steps') sleepers(ctx, points, width * 0.35, Math.max(1.5, 4 / view.scale));
      });
  });
}
