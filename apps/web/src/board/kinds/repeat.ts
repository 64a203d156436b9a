import { membersOf } from '@quarry/core/terrain';
import { REPEAT_USES, SPACINGS, listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { inStuds, type Picture } from '../ink.ts';
import type { BoardKind } from './kind.ts';
import { trace } from './strokes.ts';

export const repeatBoard: BoardKind = {
  drawings: [{ rank: 64, draw: drawRepeats }],
  layer: 'dressing',
  picked: 60,
  boxed: true,
  tool: {
    draws: 'line',
    key: 'r',
    make: (_scene, points, name) => ({ words: 'a repeat', data: { name: name('Lamps'), points } }),
  },
  fields: [
    field.text('name', 'Name'),
    field.choice('use', 'Of', REPEAT_USES, {
      lamp: 'Lamps',
      arch: 'Arches',
      panel: 'Panels',
      post: 'Posts',
      other: 'Other things',
    }),
    field.choice('spacing', 'Set', SPACINGS, {
      count: 'A number, evenly',
      every: 'One every so far',
      base: 'So many to a base',
    }),
    field.number('count', 'How many', 1, 1000, { whole: true, when: ({ spacing }) => spacing !== 'every' }),
    field.studs('every', 'Every', 0.5, 512, 0.5, ({ spacing }) => spacing === 'every'),
    field.studs('base', 'Base length', 0.5, 512, 0.5, ({ spacing }) => spacing === 'base'),
    field.studs('length', 'Each long', 0.5, 256),
    field.plates('height', 'Each high', 1),
    field.studs('keepOff', 'Off seams by', 0, 64),
    field.colour('colour', 'Colour', 'As usual', ({ use }) => use !== 'other'),
  ],
};

/** Each member of a repeat on its dotted line; one that keeps off a seam is a cross where it would have stood. */
function drawRepeats(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, scene, view } = picture;
  const px = 1 / view.scale;
  const modules = listOf(scene, 'module');
  inStuds(ctx, picture, () => {
    ctx.lineWidth = 1.2 * px;
    ctx.strokeStyle = palette.ink;
    ctx.fillStyle = palette.sheet;
    for (const repeat of listOf(scene, 'repeat')) {
      ctx.setLineDash([1 * px, 3 * px]);
      trace(ctx, repeat.points);
      ctx.stroke();
      ctx.setLineDash([]);
      const { members, dropped } = membersOf(repeat, modules);
      for (const { x, y, angle } of members) {
        ctx.save();
        ctx.translate(x, y);
        ctx.rotate(angle);
        const [w, d] = [Math.max(repeat.length, 4 * px), Math.max(1, 4 * px)];
        ctx.fillRect(-w / 2, -d / 2, w, d);
        ctx.strokeRect(-w / 2, -d / 2, w, d);
        ctx.restore();
      }
      ctx.beginPath();
      for (const { x, y } of dropped)
        for (const lean of [1, -1]) {
          ctx.moveTo(x - 3 * px, y - 3 * px * lean);
          ctx.lineTo(x + 3 * px, y + 3 * px * lean);
        }
      ctx.stroke();
    }
  });
}
