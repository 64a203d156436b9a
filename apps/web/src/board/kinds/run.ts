import { RUN_USES, listOf } from '@quarry/core/document';
import { panelsOf } from '@quarry/core/terrain';
import { field } from '../../ui/fieldSpec.ts';
import { inStuds, type Picture } from '../ink.ts';
import { ofLevel } from '../drawSlabs.ts';
import type { BoardKind } from './kind.ts';
import { trace } from './strokes.ts';

export const runBoard: BoardKind = {
  drawings: [{ rank: 62, draw: drawRuns }],
  layer: 'dressing',
  picked: 70,
  boxed: true,
  tool: {
    draws: 'line',
    key: 'a',
    more: true,
    make: (_scene, points, name) => ({ words: 'a wall', data: { name: name('Wall'), points } }),
  },
  fields: [
    field.text('name', 'Name'),
    field.choice('use', 'It is a', RUN_USES),
    field.plates('height', 'Height', 1),
    field.studs('thick', 'Thick', 0.5, 16),
    field.studs('panel', 'Panel length, 0 built in', 0, 256),
  ],
};

/** Walls as wide as they are, hedges broken, fences dashed; a tick where a panel ends. */
function drawRuns(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, scene, view } = picture;
  const px = 1 / view.scale;
  inStuds(ctx, picture, () => {
    for (const run of ofLevel(picture, listOf(scene, 'run'))) {
      const { use, thick, points } = run;
      ctx.lineWidth = Math.max(use === 'wall' || use === 'hedge' ? thick : 0, 1.6 * px);
      ctx.strokeStyle = use === 'hedge' ? palette.ink2 : palette.ink;
      ctx.setLineDash(use === 'hedge' ? [2.5 * px, 1.5 * px] : use === 'fence' ? [5 * px, 2 * px] : []);
      trace(ctx, points);
      ctx.stroke();
      ctx.setLineDash([]);
      ctx.lineWidth = px;
      for (const [from, to] of panelsOf(run)) {
        const half = (thick / 2 + 0.5) / Math.hypot(to.x - from.x, to.y - from.y);
        const [u, v] = [(from.y - to.y) * half, (to.x - from.x) * half];
        trace(ctx, [
          { x: to.x - u, y: to.y - v },
          { x: to.x + u, y: to.y + v },
        ]);
        ctx.stroke();
      }
    }
  });
}
