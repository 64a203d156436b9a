import { PLATES_PER_BRICK } from '@quarry/core/grid';
import { listOf, type Scene } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import type { BoardKind } from './kind.ts';
import { defaultLevel } from './make.ts';
import { waterLabel } from './names.ts';

export const waterBoard: BoardKind = {
  labels: (picture) => listOf(picture.scene, 'water').flatMap((water) => waterLabel(picture, 'water', water)),
  picked: 130,
  boxed: true,
  snaps: true,
  tool: {
    draws: 'area',
    key: 'w',
    make: (scene, rect, name) => {
      const { id: level, before } = defaultLevel(scene);
      return {
        words: 'water',
        data: {
          name: name('Water'),
          ...rect,
          shape: 'oval',
          level,
          offset: surfaceUnder(scene, level),
          bank: 3,
        },
        before,
      };
    },
  },
  fields: [
    field.text('name', 'Name'),
    ...field.area(0.5),
    ...field.level(),
    field.liquid('ground', 'Of'),
    field.plates('depth', 'Deep', 1),
    field.shape(),
    field.studs('bank', 'Shore', 0, 64),
    field.ground('bankGround', 'Shore ground', ({ bank }) => bank !== 0),
    field.sides('struck', 'Waves strike'),
  ],
};

/** A brick under its level, or as far as leaves a plate for the water itself. */
const surfaceUnder = (scene: Scene, level: string): number =>
  Math.max(-PLATES_PER_BRICK, Math.min(0, 1 - (scene.level[level]?.height ?? PLATES_PER_BRICK)));
