import { moduleLift } from '../cut/index.ts';
import { loadHelps, loadPlanOf, type LoadUnit, type Shipment } from './index.ts';

/** A clock that goes on with each look: a hundred of them are looked for. */
const ticking = () => {
  let time = 0;
  return { seconds: 1, now: () => (time += 10) };
};
const unit = (key: string, w: number, d: number, h: number, more: Partial<LoadUnit> = {}): LoadUnit => ({
  ...{ key, name: key, ref: { kind: 'plot', id: key }, w, d, h, grams: 1000, bears: 0, order: 1 },
  ...{ lift: moduleLift(1, { w: 10, d: 10 }, 100), wheels: false, holds: [], handling: null },
  ...more,
});
/** A van of 1,000 × 1,000 mm and 500 mm high, its door as wide. */
const shipment = (units: LoadUnit[], trips = 1, gap = 0): Shipment => ({
  units,
  carriers: [
    { id: 'van', name: 'van', trips, driver: null, space: { w: 1000, d: 1000, h: 500, maxMass: null } },
  ],
  ...{ unknown: [], uncrated: [], gap },
});
const wordsOf = (of: Shipment) => loadHelps(of, ticking()).map(({ words, left }) => [words, left]);

it('nothing is to be helped where everything goes in', () => {
  expect(wordsOf(shipment([unit('a', 900, 900, 400)]))).toEqual([]);
});

it('what is too tall lies on its side, or wants a van that is higher by the least that does', () => {
  expect(wordsOf(shipment([unit('tower', 300, 300, 700)]))).toEqual([
    ['Lay tower on its side', 0],
    ['A vehicle 200 mm higher than the van, its door too', 0],
  ]);
  // A module never lies.
  const module = unit('m', 300, 300, 700, { ref: { kind: 'module', id: 'm' } });
  expect(wordsOf(shipment([module])).map(([words]) => words)).toEqual([
    'A vehicle 200 mm higher than the van, its door too',
  ]);
});

it('three that fill the floor take a third trip; of four one more trip leaves one over', () => {
  const boxes = (count: number) => Array.from({ length: count }, (_, i) => unit(`box ${i}`, 900, 900, 300));
  expect(wordsOf(shipment(boxes(3), 2))).toContainEqual(['Let the van go 3 times', 0]);
  expect(wordsOf(shipment(boxes(4), 2))).toContainEqual(['Let the van go 3 times', 1]);
});

it('less air about each does where that is what is missing', () => {
  // Two of 490 mm side by side with 20 mm each are 1,020; with 10 mm they are 1,000.
  const pair = [unit('a', 490, 950, 300), unit('b', 490, 950, 300)];
  expect(wordsOf(shipment(pair, 1, 20))).toContainEqual(['Keep 10 mm of air about each thing, not 20 mm', 0]);
});

it('each help that is offered has been loaded: after it as much is left over as it says', () => {
  const given = shipment([
    unit('wide', 1100, 1000, 300, { bears: 2000, order: 2 }),
    unit('a', 900, 900, 150),
  ]);
  const helps = loadHelps(given, ticking());
  expect(helps.map(({ words }) => words)).toContain('A vehicle 100 mm wider than the van, its door too');
  const [{ space }] = given.carriers;
  const wider = { ...given, carriers: [{ ...given.carriers[0], space: { ...space, w: 1100 } }] };
  const { left, tooLarge } = loadPlanOf(wider, ticking());
  expect(left.length + tooLarge.length).toBe(helps.find(({ words }) => words.includes('wider'))?.left);
});
