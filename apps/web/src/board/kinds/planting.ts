import { plantsOf } from '@quarry/core/terrain';
import { listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { inStuds, visible, type Picture } from '../ink.ts';
import type { BoardKind } from './kind.ts';
import { crown } from './strokes.ts';

export const plantingBoard: BoardKind = {
  drawings: [{ rank: 60, draw: drawPlantings }],
  layer: 'dressing',
  picked: 90,
  boxed: true,
  tool: {
    draws: 'area',
    key: 'j',
    make: (_scene, rect, name) => ({
      words: 'a planting',
      data: {
        name: name('Planting'),
        ...rect,
        mix: [
          { name: 'Birch', share: 2, low: 15, high: 24, crown: 4 },
          { name: 'Gorse', share: 3, low: 2, high: 5 },
        ],
      },
    }),
  },
  fields: [
    field.text('name', 'Name'),
    ...field.area(0.5),
    field.shape(),
    field.number('density', 'To 100 studs', 0, 100, { unit: 'plants' }),
    field.number('seed', 'Pattern number', 0, 1_000_000, { whole: true }),
  ],
};

function drawPlantings(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, scene, view } = picture;
  const px = 1 / view.scale;
  inStuds(ctx, picture, () => {
    ctx.strokeStyle = palette.ink;
    ctx.fillStyle = palette.sheet;
    ctx.lineWidth = 0.8 * px;
    for (const planting of listOf(scene, 'planting')) {
      if (!visible(picture, planting)) continue;
      ctx.setLineDash([1 * px, 3 * px]);
      ctx.strokeRect(planting.x, planting.y, planting.w, planting.d);
      ctx.setLineDash([]);
      for (const plant of plantsOf(planting)) crown(ctx, picture, plant.x, plant.y, plant.crown);
    }
  });
}
