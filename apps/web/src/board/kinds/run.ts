import { CATALOGUE } from '@quarry/core/catalogue';
import { ARCH_SIDES, RUN_USES, listOf, wallStraights, type Entity } from '@quarry/core/document';
import { panelsOf, wallBlocks } from '@quarry/core/terrain';
import { field } from '../../ui/fieldSpec.ts';
import { inStuds, type Picture } from '../ink.ts';
import { ofLevel } from '../drawSlabs.ts';
import type { BoardKind } from './kind.ts';
import { trace } from './strokes.ts';

const ARCHES = CATALOGUE.filter(({ family }) => family === 'arch');
/** Whether a form is of a wall that is to have arches. */
const isArched = ({ use, arches }: Readonly<Record<string, unknown>>): boolean =>
  use === 'wall' && arches !== null;
/** Whether something is let into a wall. */
const isLetIn = ({ use, openings }: Readonly<Record<string, unknown>>): boolean =>
  use === 'wall' && Array.isArray(openings) && openings.length > 0;
/** Whether the two faces of a wall differ: arches and what is let in stand at one. */
const hasFace = (data: Readonly<Record<string, unknown>>): boolean => isArched(data) || isLetIn(data);

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
    field.studs('panel', 'Panels of, 0 none', 0, 256),
    field.number('ring', 'Closed as a ring of', 3, 120, {
      ...{ whole: true, unit: 'panels', optional: 'No ring' },
      when: ({ use }) => use === 'wall' || use === 'fence' || use === 'railing',
    }),
    field.colour('colour', 'Colour', 'As usual'),
    field.part('arches', 'Arches at its face', ARCHES, 'None', ({ use }) => use === 'wall'),
    field.choice(
      'archSide',
      'On its',
      ARCH_SIDES,
      { left: 'Left, along the line', right: 'Right, along the line' },
      hasFace,
    ),
    field.colour('archColour', 'Arches in', 'As the wall', hasFace),
    field.colour('letInColour', 'Windows and doors in', undefined, isLetIn),
    field.check('topFence', 'A fence on it', ({ use }) => use === 'wall'),
  ],
};

/** Walls as wide as they are, with the bays under their arches; hedges broken, fences dashed; a tick where a panel ends. */
function drawRuns(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, scene, view } = picture;
  const px = 1 / view.scale;
  inStuds(ctx, picture, () => {
    for (const run of ofLevel(picture, listOf(scene, 'run'))) {
      const { use, thick } = run;
      ctx.lineWidth = Math.max(use === 'wall' || use === 'hedge' ? thick : 0, 1.6 * px);
      ctx.strokeStyle = use === 'hedge' ? palette.ink2 : palette.ink;
      ctx.setLineDash(use === 'hedge' ? [2.5 * px, 1.5 * px] : use === 'fence' ? [5 * px, 2 * px] : []);
      if (run.ring === null) {
        trace(ctx, run.points);
        ctx.stroke();
      } else
        for (const { from, to } of wallStraights(run)) {
          trace(ctx, [from, to]);
          ctx.stroke();
        }
      ctx.setLineDash([]);
      ctx.lineWidth = px;
      drawBays(ctx, run, picture);
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

/** What is open under the arches of a wall and what is let into it, light in its line; what is let in with a line through. */
function drawBays(ctx: CanvasRenderingContext2D, run: Entity<'run'>, { palette }: Picture): void {
  const { thick, archSide } = run;
  ctx.fillStyle = palette.sheet;
  for (const straight of wallStraights(run)) {
    const { from, to } = straight;
    ctx.save();
    ctx.translate(from.x, from.y);
    ctx.rotate(Math.atan2(to.y - from.y, to.x - from.x));
    // Along the line the left is above it.
    if (archSide === 'right') ctx.scale(1, -1);
    for (const { from: a, to: b, near, far, low, of } of wallBlocks(run, straight)) {
      if (of === 'front' && low > 0) ctx.fillRect(a + 1, near - thick / 2, b - a - 2, Math.min(far, 0.7));
      if (of !== 'opening') continue;
      ctx.fillRect(a, -thick / 2, b - a, thick);
      ctx.strokeRect(a, -thick / 2, b - a, Math.min(far, thick));
    }
    ctx.restore();
  }
}
