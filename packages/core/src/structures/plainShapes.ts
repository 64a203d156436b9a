import type { z } from 'zod';
import { partId } from '../catalogue/index.ts';
import { type KINDS, type Side } from '../document/index.ts';

// Plain shapes of buildings to begin with, of our own: each fits together, and is changed as one likes.

type PlotInput = z.input<typeof KINDS.plot.schema>;
type Bay = NonNullable<NonNullable<PlotInput['bays']>[number]['bays']>[number];

/** A building that another one may become: everything of it but its name and its place. */
export interface PlainShape {
  id: string;
  name: string;
  plot: Omit<PlotInput, 'name' | 'x' | 'y'>;
}

/** Plates of a storey with its floor: six courses of bricks, as high as a door. */
const STOREY = 19;
const WINDOW = partId('window', 2, 1, 9);
const WIDE_WINDOW = partId('window', 4, 1, 9);
const DOOR = partId('door', 2, 1, 18);
const WIDE_DOOR = partId('door', 4, 1, 18);
const ARCH = partId('arch', 1, 8, 3);

const window = (wide: number, part = WINDOW): Bay => ({ wide, part, sill: 2 });
const door = (wide: number, part = WIDE_DOOR): Bay => ({ wide, part });
const plain = (wide: number): Bay => ({ wide });
const row = (side: Side, storey: number, ...bays: Bay[]) => ({ side, storey, bays });
const times = (count: number, bay: Bay): Bay[] => Array.from({ length: count }, () => bay);

export const PLAIN_SHAPES: readonly PlainShape[] = [
  {
    id: 'house',
    name: 'House',
    plot: {
      ...{ w: 12, d: 10, storeys: 2, height: 2 * STOREY + 15, eaves: 2 * STOREY, roofForm: 'gable' },
      storeyHeights: [STOREY, STOREY],
      bays: [
        row('s', 1, window(4), door(4), window(4)),
        row('s', 2, ...times(3, window(4))),
        row('n', 1, ...times(3, window(4))),
        row('n', 2, ...times(3, window(4))),
        row('e', 1, window(4), plain(2), window(4)),
        row('w', 1, window(4), plain(2), window(4)),
      ],
    },
  },
  {
    id: 'shop-front',
    name: 'Shop front',
    plot: {
      ...{ w: 16, d: 32, storeys: 3, height: 3 * STOREY, streetFront: true, pavement: 8 },
      ...{ connectors: 'standard', goodSides: ['s'] },
      bays: [
        row('s', 1, window(6, WIDE_WINDOW), door(4), window(6, WIDE_WINDOW)),
        row('s', 2, ...times(2, window(8, WIDE_WINDOW))),
        row('s', 3, ...times(4, window(4))),
      ],
    },
  },
  {
    id: 'tower',
    name: 'Round tower',
    plot: {
      ...{ w: 12, d: 12, shape: 'round', storeys: 4, height: 4 * STOREY + 25, eaves: 4 * STOREY },
      storeyHeights: [STOREY, STOREY, STOREY, STOREY],
      bays: [
        row('s', 1, door(4, DOOR)),
        ...(['n', 'e', 's', 'w'] as const).map((side) => row(side, 3, window(4))),
      ],
    },
  },
  {
    id: 'hall',
    name: 'Hall',
    plot: {
      ...{ w: 32, d: 16, storeys: 1, height: 52, eaves: 28, roofForm: 'gable', front: 'w' },
      bays: [
        row('s', 1, ...times(4, window(8, WIDE_WINDOW))),
        row('n', 1, ...times(4, window(8, WIDE_WINDOW))),
        row('w', 1, plain(6), door(4), plain(6)),
      ],
    },
  },
  {
    id: 'gatehouse',
    name: 'Gatehouse',
    plot: {
      ...{ w: 16, d: 8, storeys: 2, storeyHeights: [28, STOREY], height: 28 + STOREY, wall: 2 },
      bays: (['s', 'n'] as const).flatMap((side) => [
        row(side, 1, plain(4), { wide: 8, part: ARCH, high: 8 }, plain(4)),
        row(side, 2, window(8), window(8)),
      ]),
    },
  },
  {
    id: 'shed',
    name: 'Shed',
    plot: {
      ...{ w: 8, d: 6, storeys: 1, height: 30, eaves: STOREY, roofForm: 'lean-to' },
      bays: [row('s', 1, plain(3), door(2, DOOR), plain(3))],
    },
  },
  {
    id: 'mill',
    name: 'Mill, an L',
    plot: {
      ...{ w: 20, d: 16, notches: [{ corner: 'ne', w: 8, d: 8 }] },
      ...{ storeys: 2, height: 2 * STOREY + 13, eaves: 2 * STOREY },
      storeyHeights: [STOREY, STOREY],
      bays: [
        row('s', 1, ...times(2, window(4)), door(4), ...times(2, window(4))),
        row('s', 2, ...times(5, window(4))),
        row('w', 1, ...times(4, window(4))),
        row('w', 2, ...times(4, window(4))),
        row('n', 2, ...times(5, window(4))),
      ],
    },
  },
  {
    id: 'inn',
    name: 'Inn round a court, a U',
    plot: {
      ...{ w: 32, d: 24, recesses: [{ side: 'n', at: 8, wide: 16, deep: 14 }] },
      ...{ storeys: 2, height: 2 * STOREY + 13, eaves: 2 * STOREY },
      storeyHeights: [STOREY, STOREY],
      bays: [
        row('s', 1, ...times(2, window(5)), window(4), door(4), window(4), ...times(2, window(5))),
        row('s', 2, ...times(8, window(4))),
        row('n', 1, window(8), plain(16), window(8)),
        row('n', 2, window(8), ...times(4, window(4)), window(8)),
        row('w', 1, ...times(6, window(4))),
        row('e', 1, ...times(6, window(4))),
        { ...row('e', 1, window(5), window(4), window(5)), recess: 1 },
        { ...row('w', 1, window(5), window(4), window(5)), recess: 1 },
      ],
    },
  },
  {
    id: 'crane',
    name: 'Quay crane',
    plot: {
      ...{ w: 8, d: 8, storeys: 2, height: 2 * STOREY, mount: 'turntable' },
      ...{ overhang: { n: 0, e: 4, s: 0, w: 0 }, overhangFrom: STOREY },
      bays: [row('s', 1, plain(3), door(2, DOOR), plain(3)), row('e', 2, window(8))],
    },
  },
];
