import { PLATES_PER_BRICK } from '@quarry/core/grid';
import { field } from '../../ui/fieldSpec.ts';
import type { BoardKind } from './kind.ts';
import { defaultLevel } from './make.ts';
import { drawRisingNames } from './names.ts';

export const hollowBoard: BoardKind = {
  drawings: [{ rank: 40, draw: (ctx, picture) => drawRisingNames(ctx, picture, 'hollow') }],
  picked: 140,
  boxed: true,
  snaps: true,
  tool: {
    draws: 'area',
    key: 'o',
    more: true,
    make: (scene, rect, name) => {
      const { id: level, before } = defaultLevel(scene);
      return {
        words: 'a hollow',
        data: {
          name: name('Hollow'),
          ...rect,
          shape: 'oval',
          level,
          depth: 6,
          terrace: PLATES_PER_BRICK,
        },
        before,
      };
    },
  },
  fields: [
    field.text('name', 'Name'),
    ...field.area(0.5),
    ...field.level(),
    field.plates('depth', 'Depth', 1),
    field.shape(),
    ...field.rising(),
  ],
};
