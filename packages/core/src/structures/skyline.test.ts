import fc from 'fast-check';
import { sceneFrom, type Side } from '../document/index.ts';
import { compileRelief } from '../terrain/index.ts';
import { runs } from '../../test/runs.ts';
import { skylineOf } from './index.ts';

const sceneWith = (plots: object[], more: object = {}) =>
  sceneFrom({
    display: { name: 'Row', kind: 'city' },
    footprint: [{ id: 'f', name: 'All', x: 4, y: 2, w: 60, d: 40 }],
    plots: plots.map((plot, i) => ({
      ...{
        id: `p${i}`,
        name: `House ${i}`,
        x: 10,
        y: 10,
        w: 10,
        d: 8,
        height: 20,
        storeys: 1,
        overhangFrom: 0,
      },
      ...plot,
    })),
    ...more,
  });
const skyline = (plots: object[], side: Side, more: object = {}) => {
  const scene = sceneWith(plots, more);
  return skylineOf(scene, compileRelief(scene), side);
};

test('two houses from each side by hand: the nearer hides what is behind it, as high as it is', () => {
  // The second stands 20 studs south of the first and 4 east: from the south it hides 6 of the first's 10 studs.
  const plots = [{ height: 29 }, { x: 14, y: 30, height: 14 }];
  const from = (side: Side) =>
    skyline(plots, side).fronts.map(({ id, left, off, ridge, seen }) => [
      id,
      left,
      off,
      ridge,
      Number(seen.toFixed(4)),
    ]);
  // Roofs lie a plate over the height: ridges at 30 and 15, so that half of 6 studs of 10 is hidden.
  expect(from('s')).toEqual([
    ['p0', 6, 24, 30, 0.7],
    ['p1', 10, 4, 15, 1],
  ]);
  // From the north the higher hides the lower wholly where it stands before it: 6 of its 10 studs.
  expect(from('n')).toEqual([
    ['p1', 40, 28, 15, 0.4],
    ['p0', 44, 8, 30, 1],
  ]);
  // From the west and the east they stand beside each other.
  expect(from('w').map(([id, left, , , seen]) => [id, left, seen])).toEqual([
    ['p1', 28, 1],
    ['p0', 8, 1],
  ]);
  expect(skyline(plots, 's')).toMatchObject({ length: 60, high: 30 });
});

test('a quarter turn shows the side that it brings round; off the grid a building is drawn plain', () => {
  const bays = [{ side: 's', storey: 1, bays: [{ wide: 4, part: 'window-2x1', sill: 1 }] }];
  const windows = (turn: number) =>
    (['n', 'e', 's', 'w'] as const).filter((side) =>
      skyline([{ w: 8, turn, bays }], side).fronts[0].pieces.some(({ part }) => part === 'window-2x1'),
    );
  // Turned clockwise by a quarter the south front looks west.
  expect([0, 90, 180, 270, 30].map(windows)).toEqual([['s'], ['w'], ['n'], ['e'], []]);
});

test('ground behind and at the edge is the highest of each line of studs', () => {
  const pads = [
    { id: 'a', name: 'Low', x: 4, y: 2, w: 60, d: 40, level: 'l', offset: 3, ground: 'grass' },
    { id: 'b', name: 'High', x: 20, y: 10, w: 8, d: 8, level: 'l', offset: 12, order: 1, ground: 'grass' },
  ];
  const levels = [{ id: 'l', name: 'Low', height: 0 }];
  const { ground, edge, fronts } = skyline([{ x: 22, y: 11, w: 4, d: 4 }], 'n', { pads, levels });
  expect(new Set(edge)).toEqual(new Set([3]));
  // From the north the east is at the left: 64 − 28 = 36 to 44.
  expect(ground.flatMap((height, i) => (height === 12 ? [i] : []))).toEqual([36, 37, 38, 39, 40, 41, 42, 43]);
  expect(fronts[0]).toMatchObject({ foot: 12, walls: 32, ridge: 33 });
});

test('what is seen of fronts agrees with asking each stud and plate by itself', () => {
  const plot = fc.record({
    x: fc.integer({ min: 4, max: 50 }),
    y: fc.integer({ min: 2, max: 34 }),
    w: fc.integer({ min: 2, max: 12 }),
    d: fc.integer({ min: 2, max: 8 }),
    height: fc.integer({ min: 3, max: 24 }),
    onGround: fc.constant(true),
  });
  fc.assert(
    fc.property(
      fc.array(plot, { minLength: 1, maxLength: 6 }),
      fc.constantFrom<Side>('n', 'e', 's', 'w'),
      (plots, side) => {
        for (const front of skyline(plots, side).fronts) {
          const all = skyline(plots, side).fronts;
          let [seen, whole] = [0, 0];
          for (let at = front.left; at < front.left + front.length; at++)
            for (let z = front.foot; z < front.ridge; z++) {
              whole++;
              const hidden = all.some(
                (one) =>
                  one.off < front.off &&
                  at >= one.left &&
                  at < one.left + one.length &&
                  z >= one.foot &&
                  z < one.ridge,
              );
              if (!hidden) seen++;
            }
          expect(front.seen).toBeCloseTo(seen / whole, 9);
        }
      },
    ),
    { numRuns: runs(25) },
  );
});
