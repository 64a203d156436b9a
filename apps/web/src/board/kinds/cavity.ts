import { formatPlates, PLATES_PER_BRICK } from '@quarry/core/grid';
import { CAVITY_USES, listOf } from '@quarry/core/document';
import { levelHeight } from '@quarry/core/terrain';
import { field } from '../../ui/fieldSpec.ts';
import { drawCavities, drawFade } from '../drawSlabs.ts';
import type { BoardKind } from './kind.ts';
import { defaultLevel } from './make.ts';
import { areaLabel } from './names.ts';

/** A drawn cavity is as high as a figure with a brick to spare, and lies under two plates of ground at its level. */
const CLEAR = 5 * PLATES_PER_BRICK;
const ROOF = 2;

export const cavityBoard: BoardKind = {
  drawings: [
    { rank: 199, draw: drawFade },
    { rank: 23, draw: drawCavities },
  ],
  labels: (picture) =>
    listOf(picture.scene, 'cavity').flatMap((cavity) =>
      areaLabel(picture, cavity, `${cavity.use}, floor ${formatPlates(levelHeight(picture.scene, cavity))}`),
    ),
  picked: 106,
  boxed: true,
  snaps: true,
  tool: {
    draws: 'area',
    key: '3',
    more: true,
    make: (scene, rect, name) => {
      const { id: level, before } = defaultLevel(scene);
      return {
        words: 'a cavity',
        data: { name: name('Cellar'), ...rect, level, offset: -CLEAR - ROOF, clear: CLEAR },
        before,
      };
    },
  },
  fields: [
    field.text('name', 'Name'),
    field.choice('use', 'It is a', CAVITY_USES, { mechanism: 'Space for a mechanism' }),
    ...field.area(0.5),
    ...field.level(),
    field.plates('clear', 'Clear height', 1, 600),
    field.ground('ground', 'Its floor'),
    field.shape(),
  ],
};
