import { compileRelief, massOf } from '../relief/index.ts';
import { sceneFrom } from '../scene/index.ts';
import { bulkOf, judgeLift, massTable, moduleLift, tippingAngle } from './lifting.ts';

describe('the lifting equation', () => {
  const task = { kg: 10, horizontal: 25, vertical: 75, travel: 25, asymmetry: 0, coupling: 'good' as const };
  test('the best of lifts is limited to the load constant, 23 kg (DHHS (NIOSH) 94-110, eq. 1)', () => {
    expect(judgeLift(task).limit).toBeCloseTo(23, 9);
  });
  // The multipliers' tables of DHHS (NIOSH) 94-110 (tables 1 to 4 and 7, metric; from memory).
  test.each([
    ['horizontal', { horizontal: 40 }, 0.63],
    ['horizontal', { horizontal: 63 }, 0.4],
    ['horizontal', { horizontal: 64 }, 0],
    ['vertical', { vertical: 0 }, 0.78],
    ['vertical', { vertical: 110 }, 0.9],
    ['vertical', { vertical: 176 }, 0],
    ['distance', { travel: 40 }, 0.93],
    ['distance', { travel: 70 }, 0.88],
    ['distance', { travel: 176 }, 0],
    ['asymmetry', { asymmetry: 45 }, 0.86],
    ['asymmetry', { asymmetry: 90 }, 0.71],
    ['asymmetry', { asymmetry: 136 }, 0],
    ['coupling', { coupling: 'fair' as const, vertical: 70 }, 0.95],
    ['coupling', { coupling: 'fair' as const, vertical: 80 }, 1],
    ['coupling', { coupling: 'poor' as const }, 0.9],
  ] as const)('the %s multiplier of %j is %d', (which, change, value) => {
    expect(judgeLift({ ...task, ...change }).multipliers[which]).toBeGreaterThan(value - 0.0051);
    expect(judgeLift({ ...task, ...change }).multipliers[which]).toBeLessThan(value + 0.0051);
  });
  test('the worked example «loading punch press stock» (94-110, example 1; from memory): 16.3 lb at the origin, index 2.7; 14.5 lb at the end, 3.0', () => {
    const lb = 0.45359237;
    const at = (vertical: number) =>
      judgeLift({
        kg: 44 * lb,
        horizontal: 23 * 2.54,
        vertical: vertical * 2.54,
        travel: 48 * 2.54,
        asymmetry: 0,
        coupling: 'fair',
      });
    // The example multiplies figures rounded to two places, in pounds and inches: within 7 % of the metric equation.
    const [from, to] = [at(15), at(63)];
    for (const [value, said] of [
      [from.limit / lb, 16.3],
      [from.index, 2.7],
      [to.limit / lb, 14.5],
      [to.index, 3],
    ])
      expect(Math.abs(value / said - 1)).toBeLessThan(0.07);
  });
  test('a wide module is worse for one than its half for each of two', () => {
    const { one, two } = moduleLift(12, { w: 96, d: 48 }, 740);
    expect(one.task.horizontal).toBeCloseTo(20 + 19.2, 9);
    expect(one.index).toBeGreaterThan(two.index);
    expect(two.task.kg).toBe(6);
  });
});

describe('masses and leaning', () => {
  const scene = sceneFrom({
    display: { name: 'M', kind: 'diorama' },
    levels: [{ id: 'l', name: 'L', height: 18 }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 32, d: 16 }],
    pads: [{ id: 'p', name: 'P', x: 0, y: 0, w: 32, d: 16, level: 'l', ground: 'grass' }],
    plots: [{ id: 'h', name: 'H', x: 24, y: 0, w: 8, d: 16, height: 30 }],
  });
  const relief = compileRelief(scene);
  test('the centre of two blocks is where levers balance', () => {
    const bulk = bulkOf(relief, { x: 0, y: 0, w: 32, d: 16 });
    if (!bulk) throw new Error('nothing there');
    // By hand: ground 512 × (0.18 + 2.3/24 × 0.4 × 18) g about x = 16, the house 128 × 2.3/24 × 0.2 × 30 g about x = 28.
    const ground = 512 * (0.18 + (2.3 / 24) * 0.4 * 18);
    const house = 128 * (2.3 / 24) * 0.2 * 30;
    expect(bulk.kg * 1000).toBeCloseTo(ground + house, 6);
    expect(bulk.x).toBeCloseTo((ground * 16 + house * 28) / (ground + house), 6);
    expect(bulk.y).toBeCloseTo(8, 6);
    const soil = 512 * (2.3 / 24) * 0.4 * 18;
    expect(bulk.z).toBeCloseTo(((soil * 9 + house * 33) / (ground + house)) * 3.2, 6);
  });
  test('squares of the mass table sum to the whole', () => {
    const sum = massTable(relief, 8)
      .flat()
      .reduce((a, b) => a + b, 0);
    expect(sum).toBeCloseTo(massOf(relief).reduce((a, b) => a + b, 0) / 1000, 3);
  });
  test('a uniform block leans to atan(half base ÷ centre height)', () => {
    expect(tippingAngle(50, 50)).toBeCloseTo(45, 9);
    expect(tippingAngle(10, 10 * Math.sqrt(3))).toBeCloseTo(30, 9);
    expect(tippingAngle(10, 0)).toBe(90);
  });
});
