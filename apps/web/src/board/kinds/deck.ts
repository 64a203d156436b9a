import { formatPlates, PLATES_PER_BRICK } from '@quarry/core/grid';
import { DECK_SUPPORTS, listOf } from '@quarry/core/document';
import { levelHeight } from '@quarry/core/terrain';
import { field } from '../../ui/fieldSpec.ts';
import { drawDecks } from '../drawSlabs.ts';
import type { BoardKind } from './kind.ts';
import { defaultLevel } from './make.ts';
import { areaLabel } from './names.ts';

/** A drawn deck lies this much over its level: room for a figure under it. */
const OVER = 6 * PLATES_PER_BRICK;

export const deckBoard: BoardKind = {
  drawings: [{ rank: 22, draw: drawDecks }],
  labels: (picture) =>
    listOf(picture.scene, 'deck').flatMap((deck) =>
      areaLabel(picture, deck, `deck ${formatPlates(levelHeight(picture.scene, deck))}`),
    ),
  picked: 105,
  boxed: true,
  snaps: true,
  tool: {
    draws: 'area',
    key: '2',
    more: true,
    make: (scene, rect, name) => {
      const { id: level, before } = defaultLevel(scene);
      return { words: 'a deck', data: { name: name('Deck'), ...rect, level, offset: OVER }, before };
    },
  },
  fields: [
    field.text('name', 'Name'),
    ...field.area(0.5),
    ...field.level(),
    field.plates('thick', 'Thick', 1, 60),
    field.ground('ground', 'Cover'),
    field.shape(),
    field.choice('support', 'Supports', DECK_SUPPORTS, {
      pillars: 'Pillars',
      walls: 'Walls',
      arches: 'Arches',
      ends: 'Its two ends',
    }),
    field.studs('spacing', 'Spacing', 1, 64, 0.5, ({ support }) => support !== 'ends'),
    field.studs('pillar', 'Pillar size', 1, 16),
    field.check('loose', 'Lifts off by itself'),
  ],
};
