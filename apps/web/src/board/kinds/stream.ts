import { FALLS } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import type { BoardKind } from './kind.ts';
import { defaultLevel, withHeights } from './make.ts';
import { lineLabels } from './names.ts';

export const streamBoard: BoardKind = {
  drawings: [],
  labels: (picture) => lineLabels(picture, 'stream', 'tarn').map((label) => ({ layer: 'ways', ...label })),
  picked: 120,
  boxed: true,
  tool: {
    draws: 'line',
    key: 'v',
    more: true,
    make: (scene, points, name) => {
      const { id: level, before } = defaultLevel(scene);
      return {
        words: 'a stream',
        data: { name: name('Stream'), points: withHeights(points), level, offset: -1 },
        before,
      };
    },
  },
  fields: [
    field.text('name', 'Name'),
    ...field.level(),
    field.studs('width', 'Width', 0.5, 128),
    field.liquid('ground', 'Of'),
    field.plates('depth', 'Deep', 1),
    field.choice('falls', 'Falls', FALLS, { even: 'Evenly', points: 'At its points' }),
    field.studs('bank', 'Banks', 0, 64),
    field.ground('bankGround', 'Bank ground', ({ bank }) => bank !== 0),
  ],
};
