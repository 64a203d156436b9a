import { field } from '../../ui/fieldSpec.ts';
import type { BoardKind } from './kind.ts';

export const footprintBoard: BoardKind = {
  picked: 200,
  step: 1,
  snaps: true,
  tool: {
    draws: 'area',
    key: 'f',
    word: 'footprint',
    more: true,
    planners: true,
    make: (_scene, rect, name) => ({ words: 'a footprint part', data: { name: name('Part'), ...rect } }),
  },
  fields: [field.text('name', 'Name'), ...field.area(1)],
};
