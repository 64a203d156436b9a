import fc from 'fast-check';
import {
  FIGURE_MM,
  NEM_010,
  SCHOOL_LIST,
  TRUE_SIZES,
  buildable,
  fitLength,
  judgeFurniture,
  metresOf,
  nearestRailScale,
  platesFor,
  scaleOf,
  spaceBudget,
  studsFor,
  vehicleShare,
} from './index.ts';
import { runs } from '../../test/runs.ts';

test('the nominal scales of NEM 010 are nearest to themselves; between two, proportion decides', () => {
  for (const scale of NEM_010) expect(nearestRailScale(scale)).toBe(scale);
  // √(32 × 45) = 37.95: the middle by proportion lies below the middle by difference, 38.5.
  expect([nearestRailScale(37.9), nearestRailScale(38.2)]).toEqual([32, 45]);
});
test('a figure of 40 mm at 1:45 stands for 1.80 m; a stud for 36 cm (by hand)', () => {
  expect((FIGURE_MM * 45) / 1000).toBeCloseTo(1.8, 12);
  expect(metresOf(1, 45)).toBeCloseTo(0.36, 12);
  expect(platesFor(2, 45)).toBeCloseTo(2000 / 45 / 3.2, 12);
});
test('studs to metres and back', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.5, max: 4096, noNaN: true }),
      fc.double({ min: 1, max: 2000, noNaN: true }),
      (studs, ratio) => Math.abs(studsFor(metresOf(studs, ratio), ratio) - studs) < 1e-6,
    ),
  );
});
test('the schools lead to the ratios in use: 1:42 to 1:48 by height, about 1:30 by width (common practice, no source)', () => {
  for (const { ratio, range } of Object.values(SCHOOL_LIST)) {
    expect(ratio).toBeGreaterThanOrEqual(range[0]);
    expect(ratio).toBeLessThanOrEqual(range[1]);
  }
  expect(SCHOOL_LIST.width.ratio).toBeCloseTo(30, 6);
});

describe('a real thing on the lattice', () => {
  test('a door leaf of 860 × 1985 mm (DIN 18101, recalled) at 1:45 is 2 studs wide and 4b2p high', () => {
    const door = TRUE_SIZES.find(({ id }) => id === 'door');
    // 860 ÷ 45 ÷ 8 = 2.39; 1985 ÷ 45 ÷ 3.2 = 13.78.
    expect(fitLength(door?.length ?? 0, 45, 'stud')).toMatchObject({ count: 2 });
    expect(fitLength(door?.height ?? 0, 45, 'plate')).toMatchObject({ count: 14 });
  });
  test('a bus 2.55 m wide (Directive 96/53/EC) at 1:45: 7.08 studs, 7 odd, 8 even', () => {
    const bus = { length: 12, width: 2.55 };
    expect(buildable(bus, 45)[0].width).toMatchObject({ count: 7 });
    expect(buildable(bus, 45, { parity: 'even' })[0].width).toMatchObject({ count: 8 });
    expect(buildable(bus, 45, { parity: 'odd' })[0].width).toMatchObject({ count: 7 });
    // 8 studs for 7.08 are 13 % too wide: within a spread of 15 %, not of 10 %.
    expect(buildable(bus, 45, { parity: 'even', spread: 0.15 })[0].within).toBe(true);
    expect(buildable(bus, 45, { parity: 'even', spread: 0.1 })[0].within).toBe(false);
  });
  test('no size of that parity is nearer: brute force over the lattice', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 30, noNaN: true }),
        fc.double({ min: 0.2, max: 30, noNaN: true }),
        fc.double({ min: 0.2, max: 30, noNaN: true }),
        fc.constantFrom(22.5, 30, 45, 87, 200),
        fc.constantFrom('any' as const, 'even' as const, 'odd' as const),
        (length, width, height, ratio, parity) => {
          const [best] = buildable({ length, width, height }, ratio, { parity });
          const off = (metres: number, step: number, count: number) =>
            Math.abs((count * step * ratio) / 1000 / metres - 1);
          const least = (metres: number, step: number, from: number, by: number) => {
            let nearest = Infinity;
            for (let n = from; n < 900; n += by) nearest = Math.min(nearest, off(metres, step, n));
            return nearest;
          };
          const [from, by] = parity === 'even' ? [2, 2] : parity === 'odd' ? [1, 2] : [1, 1];
          const brute = Math.max(
            least(length, 8, from, by),
            least(width, 8, from, by),
            least(height, 3.2, 1, 1),
          );
          return Math.abs(best.worst - brute) < 1e-9;
        },
      ),
      { numRuns: runs(60) },
    );
  });
});

test('what scale is this: a car 16 × 6 studs and 12 plates for 4.3 × 1.8 × 1.5 m (by hand)', () => {
  const reading = scaleOf({ length: 16, width: 6, height: 12 }, { length: 4.3, width: 1.8, height: 1.5 }, 45);
  expect(reading.length).toBeCloseTo(4300 / 128, 9); // 33.6
  expect(reading.width).toBeCloseTo(1800 / 48, 9); // 37.5
  expect(reading.height).toBeCloseTo(1500 / 38.4, 9); // 39.1
  expect(reading.disagreement).toBeCloseTo(1500 / 38.4 / (4300 / 128) - 1, 9);
  expect(reading.beside).toBeCloseTo(45 / Math.cbrt((4300 / 128) * (1800 / 48) * (1500 / 38.4)) - 1, 9);
});
test('reading a built size gives back the ratio it was built at', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 40, noNaN: true }),
      fc.integer({ min: 20, max: 220 }),
      (length, ratio) => {
        const { count, ratio: own } = fitLength(length, ratio, 'stud');
        return Math.abs(scaleOf({ length: count }, { length }, ratio).mean - own) < 1e-9;
      },
    ),
  );
});

describe('space budget', () => {
  test('an 8 × 8 house with walls of one stud has 36 studs inside (common practice, no source)', () => {
    // A true room of 6 × 6 studs at 1:45 = 2.16 m square fits it exactly.
    const { spaces } = spaceBudget([{ id: 'hut', w: 2.16, d: 2.16, wall: 1, plot: { w: 8, d: 8 } }], 45);
    expect(spaces[0]).toMatchObject({ need: { w: 8, d: 8 }, fits: true });
    expect(spaces[0].share).toBeCloseTo(1, 9);
  });
  test('a room fits exactly when its whole studs and walls go into the plot, one way or the other (brute force)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 100, max: 2500 }),
        fc.integer({ min: 100, max: 2500 }),
        fc.constantFrom(0, 0.5, 1, 2),
        fc.integer({ min: 4, max: 64 }),
        fc.integer({ min: 4, max: 64 }),
        (w, d, wall, plotW, plotD) => {
          const [space] = spaceBudget(
            [{ id: 'a', w: w / 100, d: d / 100, wall, plot: { w: plotW, d: plotD } }],
            45,
          ).spaces;
          // The least count of studs whose true length covers the room: 1 stud is 36 cm at 1:45.
          const count = (centimetres: number) => {
            let studs = 1;
            while (studs * 36 < centimetres) studs++;
            return studs + 2 * wall;
          };
          const [a, b] = [count(w), count(d)];
          expect(space.fits).toBe(
            plotW > 2 * wall &&
              plotD > 2 * wall &&
              ((a <= plotW && b <= plotD) || (b <= plotW && a <= plotD)),
          );
          expect([space.need.w, space.need.d].sort()).toEqual([a, b].sort());
        },
      ),
    );
  });
  test('the worst comes first, and at the ratio given for all every room fits, just below it one does not', () => {
    const asked = fc.array(
      fc.record({
        id: fc.uuid(),
        w: fc.double({ min: 1, max: 40, noNaN: true }),
        d: fc.double({ min: 1, max: 40, noNaN: true }),
        wall: fc.constantFrom(0, 1),
        plot: fc.record({ w: fc.integer({ min: 4, max: 64 }), d: fc.integer({ min: 4, max: 64 }) }),
      }),
      { minLength: 1, maxLength: 5 },
    );
    fc.assert(
      fc.property(asked, (list) => {
        const { spaces, ratio } = spaceBudget(list, 45);
        const shares = spaces.map(({ share }) => share ?? 0);
        expect(shares).toEqual([...shares].sort((a, b) => a - b));
        const all = (at: number) => spaceBudget(list, at).spaces.every(({ fits }) => fits);
        expect(ratio).not.toBeNull();
        expect(all((ratio ?? 0) * 1.000001)).toBe(true);
        expect(all((ratio ?? 0) * 0.999)).toBe(false);
      }),
    );
  });
});

test('vehicles: 2 buses of 24 × 6 on 96 × 48 studs cover 6.25 %; 12 m on 24 studs is 1:62.5', () => {
  const { share, vehicles } = vehicleShare(
    [{ id: 'b', count: 2, length: 24, width: 6, trueLength: 12 }],
    96 * 48,
    43.75,
  );
  expect(share).toBeCloseTo(0.0625, 12);
  expect(vehicles[0].ratio).toBeCloseTo(62.5, 12);
  expect(vehicles[0].beside).toBeCloseTo(43.75 / 62.5 - 1, 12);
});

test('furniture against a figure: a seat of 3 plates fits, one of 4 bricks does not and reaches no chest; 9 bricks do', () => {
  // 17 to 19 in of 1.75 m (2010 ADA Standards 903.5) on a figure of 40 mm: 9.9 to 11.0 mm, 3.1 to 3.4 plates.
  expect(judgeFurniture('seat', 3)).toMatchObject({ verdict: 'fits', least: 3, most: 4 });
  expect(judgeFurniture('seat', 8)).toMatchObject({ verdict: 'high', chest: false });
  expect(judgeFurniture('seat', 9)).toMatchObject({ verdict: 'high', chest: true }); // 28.8 of 40 mm
  expect(judgeFurniture('doorway', 12)).toMatchObject({ verdict: 'low' });
});
