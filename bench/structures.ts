/** Buildings in pieces: a city of three storeys that all differ, and a bay of one of them changed. */
import { CATALOGUE } from '../packages/core/src/catalogue/index.ts';
import { listOf, sceneFrom } from '../packages/core/src/document/index.ts';
import { shellPieces } from '../packages/core/src/structures/index.ts';
import type { Row } from './table.ts';

type Given = Parameters<typeof sceneFrom>[0];
type GivenPlot = NonNullable<Given['plots']>[number];
const COUNT = 200;
const STOREYS = 3;
/** Plates of a storey, and of the roof over the uppermost one. */
const STOREY = 30;
const ROOF = 40;

const window = CATALOGUE.find(({ family, w }) => family === 'window' && w === 2)?.id ?? null;
const FORMS: Partial<GivenPlot>[] = [
  { eaves: null },
  { eaves: STOREYS * STOREY, roofForm: 'gable' },
  { eaves: STOREYS * STOREY, roofForm: 'hip' },
  { shape: 'round', eaves: STOREYS * STOREY },
  { notches: [{ corner: 'ne', w: 6, d: 6 }] },
  { recesses: [{ side: 'n', at: 6, wide: 5, deep: 8 }], eaves: STOREYS * STOREY },
];

/** A building like no other: its size, its shape, its roof and a row of windows on every storey of two sides. */
function houseOf(i: number): GivenPlot {
  const [w, d] = [16 + (i % 17), 16 + (i % 13)];
  const form = FORMS[i % FORMS.length];
  const row = { bays: Array.from({ length: Math.floor(w / 4) }, () => ({ wide: 4, part: window, sill: 2 })) };
  return {
    ...{ id: `h${i}`, name: `House ${i}`, x: 40 * (i % 20), y: 40 * Math.floor(i / 20), w, d },
    ...{ storeys: STOREYS, height: STOREYS * STOREY + (form.eaves ? ROOF : 1) },
    ...form,
    bays: (['n', 's'] as const).flatMap((side) =>
      Array.from({ length: STOREYS }, (_, storey) => ({ side, storey: storey + 1, ...row })),
    ),
  };
}

export function benchStructures(): Row[] {
  const city = (plots: GivenPlot[]) =>
    listOf(sceneFrom({ display: { name: 'City', kind: 'city' }, plots }), 'plot');
  const street = { pavementLight: 'mist', pavementDark: 'slate' };
  const houses = city(Array.from({ length: COUNT }, (_, i) => houseOf(i)));
  const counted = (plots: typeof houses) => {
    const began = performance.now();
    const pieces = plots.reduce(
      (sum, plot) => sum + shellPieces(plot, street).reduce((all, { qty }) => all + qty, 0),
      0,
    );
    return { pieces, ms: performance.now() - began };
  };
  const all = counted(houses);
  // One bay wider and the next one narrower, of each kind of building once: the slowest counts.
  const edited = FORMS.map((_, i) => {
    const house = houseOf(i);
    const [first, second, ...rest] = house.bays?.[0].bays ?? [];
    const bays = [{ ...first, wide: 5 }, { ...second, wide: 3 }, ...rest];
    const [changed] = city([{ ...house, bays: [{ ...house.bays?.[0], side: 'n', storey: 1, bays }] }]);
    return counted([changed]).ms;
  });
  return [
    {
      what: `${COUNT} buildings of ${STOREYS} storeys, no two alike, counted: ${all.pieces.toLocaleString('en')} pieces`,
      measured: all.ms / 1000,
      unit: 's',
      aim: 3,
      better: 'less',
    },
    {
      what: 'a bay of one of them changed, the slowest of six kinds',
      measured: Math.max(...edited),
      unit: 'ms',
      aim: 100,
      better: 'less',
    },
  ];
}
