import { PLATES_PER_BRICK } from '@quarry/core/grid';
import { field } from '../../ui/fieldSpec.ts';
import type { BoardKind } from './kind.ts';
import { defaultLevel } from './make.ts';
import { drawRisingNames } from './names.ts';

export const hillBoard: BoardKind = {
  drawings: [{ rank: 40, draw: (ctx, picture) => drawRisingNames(ctx, picture, 'hill') }],
  picked: 150,
  boxed: true,
  snaps: true,
  tool: {
    draws: 'area',
    key: 'h',
    make: (scene, rect, name) => {
      const { id: level, before } = defaultLevel(scene);
      return {
        words: 'a hill',
        data: {
          name: name('Hill'),
          ...rect,
          shape: 'oval',
          level,
          height: 18,
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
    field.plates('height', 'Height', 1),
    field.shape(),
    ...field.rising(),
  ],
};
