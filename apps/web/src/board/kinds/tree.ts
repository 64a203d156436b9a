import { listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { inStuds } from '../ink.ts';
import { ofLevel } from '../drawSlabs.ts';
import type { BoardKind } from './kind.ts';
import { crown } from './strokes.ts';

export const treeBoard: BoardKind = {
  drawings: [
    {
      rank: 61,
      draw: (ctx, picture) =>
        inStuds(ctx, picture, () => {
          ctx.strokeStyle = picture.palette.ink;
          ctx.fillStyle = picture.palette.sheet;
          ctx.lineWidth = 0.8 / picture.view.scale;
          for (const tree of ofLevel(picture, listOf(picture.scene, 'tree')))
            crown(ctx, picture, tree.x, tree.y, tree.crown);
        }),
    },
  ],
  layer: 'dressing',
  picked: 50,
  boxed: true,
  tool: {
    draws: 'spot',
    key: 'e',
    more: true,
    make: (_scene, at, name) => ({ words: 'a tree', data: { name: name('Tree'), ...at } }),
  },
  fields: [
    field.text('name', 'Name'),
    ...field.spot(),
    field.plates('height', 'Height', 1),
    field.studs('crown', 'Crown', 0.5, 64),
    field.season(),
  ],
};
