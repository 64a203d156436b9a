import fc from 'fast-check';
import { compileRelief, massOf, tippingAngle, type Relief } from '../terrain/index.ts';
import { sceneFrom } from '../document/index.ts';
import { tableLoads } from '../venue/index.ts';
import { arrangementOf } from './arrangement.ts';
import { bulkOf, evaluateLift, massTable, moduleLift, moduleLoads } from './lifting.ts';
import { runs } from '../../test/runs.ts';

describe('the lifting equation', () => {
  const task = { kg: 10, horizontal: 25, vertical: 75, travel: 25, asymmetry: 0, coupling: 'good' as const };
  test('the best of lifts is limited to the load constant, 23 kg (DHHS (NIOSH) 94-110, eq. 1)', () => {
    expect(evaluateLift(task).limit).toBeCloseTo(23, 9);
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
    expect(evaluateLift({ ...task, ...change }).multipliers[which]).toBeGreaterThan(value - 0.0051);
    expect(evaluateLift({ ...task, ...change }).multipliers[which]).toBeLessThan(value + 0.0051);
  });
  test('the worked example “loading punch press stock” (94-110, example 1; from memory): 16.3 lb at the origin, index 2.7; 14.5 lb at the end, 3.0', () => {
    const lb = 0.45359237;
    const at = (vertical: number) =>
      evaluateLift({
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
    const bulk = bulkOf(scene, relief, { x: 0, y: 0, w: 32, d: 16 });
    if (!bulk) throw new Error('nothing there');
    // By hand: ground 512 × (0.18 + 2.3/24 × 0.4 × 18) g about x = 16; the house about x = 28: walls of 8 × 16 less
    // 6 × 14 = 44 studs by 30 plates, a floor of 84, a roof of 128 studs.
    const ground = 512 * (0.18 + (2.3 / 24) * 0.4 * 18);
    const [walls, floor, roof] = [44 * 30, 84, 128].map((studs) => (studs * 2.3) / 24);
    const house = walls + floor + roof;
    expect(bulk.kg * 1000).toBeCloseTo(ground + house, 2);
    expect(bulk.x).toBeCloseTo((ground * 16 + house * 28) / (ground + house), 4);
    expect(bulk.y).toBeCloseTo(8, 4);
    const soil = 512 * (2.3 / 24) * 0.4 * 18;
    const up = walls * (18 + 15) + floor * 18.5 + roof * 48;
    expect(bulk.z).toBeCloseTo(((soil * 9 + up) / (ground + house)) * 3.2, 3);
  });
  test('squares of the mass table sum to the whole', () => {
    const sum = massTable(scene, relief, 8)
      .flat()
      .reduce((a, b) => a + b, 0);
    expect(sum).toBeCloseTo(massOf(scene, relief).grams.reduce((a, b) => a + b, 0) / 1000, 3);
  });
  test('under 25 cm hands reach 5 cm further (NIOSH 94-110, section 1.1)', () => {
    // 48 × 48 studs are 38.4 cm deep: H = 25 + 19.2 below 25 cm, 20 + 19.2 from there on.
    expect(moduleLift(5, { w: 48, d: 48 }, 200).one.task.horizontal).toBeCloseTo(44.2, 9);
    expect(moduleLift(5, { w: 48, d: 48 }, 250).one.task.horizontal).toBeCloseTo(39.2, 9);
    // RWL at 20 cm: 23 × 25/44.2 × (1 − 0.003 × 55) × (0.82 + 4.5/55) × 0.90.
    const { one } = moduleLift(5, { w: 48, d: 48 }, 200);
    expect(one.limit).toBeCloseTo(23 * (25 / 44.2) * (1 - 0.003 * 55) * (0.82 + 4.5 / 55) * 0.9, 9);
  });
  test('a uniform block leans to atan(half base ÷ centre height)', () => {
    expect(tippingAngle(50, 50)).toBeCloseTo(45, 9);
    expect(tippingAngle(10, 10 * Math.sqrt(3))).toBeCloseTo(30, 9);
    expect(tippingAngle(10, 0)).toBe(90);
  });
});

describe('what is carried', () => {
  const side = fc.integer({ min: 4, max: 24 });
  const plots = fc.array(
    fc.record({
      x: fc.integer({ min: 0, max: 60 }),
      y: fc.integer({ min: 0, max: 20 }),
      w: side,
      d: side,
      turn: fc.constantFrom(0, 90, 30),
      height: fc.integer({ min: 3, max: 120 }),
      storeys: fc.integer({ min: 0, max: 4 }),
      mount: fc.constantFrom('pinned' as const, 'loose' as const, 'jumpers' as const, 'turntable' as const),
      off: fc.array(fc.integer({ min: 1, max: 40 }), { maxLength: 2 }),
    }),
    { maxLength: 5 },
  );
  interface Stood {
    x: number;
    y: number;
    w: number;
    d: number;
    height: number;
    off: number[];
  }
  const sceneOf = (list: readonly Stood[]) =>
    sceneFrom({
      display: { name: 'M', kind: 'diorama' },
      levels: [{ id: 'l', name: 'L', height: 6 }],
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
      tables: [{ id: 't', name: 'T', x: 0, y: 0, w: 768, d: 384, height: 740 }],
      pads: [{ id: 'p', name: 'P', x: 0, y: 0, w: 96, d: 48, level: 'l', ground: 'grass' }],
      modules: [
        { id: 'a', name: 'A1', x: 0, y: 0, w: 48, d: 48, bases: [] },
        { id: 'b', name: 'A2', x: 48, y: 0, w: 48, d: 48, bases: [] },
      ],
      passages: [{ id: 'door', name: 'door', width: 300, height: 200 }],
      plots: list.map(({ off, ...plot }, i) => ({
        ...plot,
        id: `p${i}`,
        name: `P${i}`,
        parts: off.map((height) => ({ name: 'Roof', height })),
      })),
    });
  const sum = (relief: Relief, grams: Float32Array, x: number, w: number) =>
    grams.reduce((all, each, i) => {
      const column = i % relief.w;
      return column >= x && column < x + w ? all + each : all;
    }, 0);
  test('tables bear all that stands, modules weigh it less what is taken off first, on every page alike', () => {
    fc.assert(
      fc.property(plots, (list) => {
        const scene = sceneOf(list);
        const relief = compileRelief(scene);
        const [a, b] = moduleLoads(scene, relief);
        const now = arrangementOf(scene, relief);
        expect(now.loads.map(({ bulk }) => bulk.kg)).toEqual([a.bulk.kg, b.bulk.kg]);
        const whole = massOf(scene, relief).grams;
        expect(tableLoads(scene, relief)[0].kg).toBeCloseTo(sum(relief, whole, 0, 96) / 1000, 3);
        expect(now.tables[0].kg).toBe(tableLoads(scene, relief)[0].kg);
        // Without all that lifts off, the same scene weighs as much standing as carried, and is as tall.
        const bare = sceneOf(
          list.flatMap(({ off, ...plot }) => {
            const height = plot.height - off.reduce((all, each) => all + each, 0);
            const stays = plot.mount !== 'loose' && plot.mount !== 'turntable' && height > 0;
            return stays ? [{ ...plot, height, off: [] }] : [];
          }),
        );
        const left = compileRelief(bare);
        [a, b].forEach((load, i) => {
          const studs = [...left.top.keys()].filter((at) => Math.trunc((at % 96) / 48) === i);
          expect(load.tall).toBeCloseTo(3.2 * Math.max(...studs.map((at) => left.top[at])), 6);
        });
        // A door: what is left of its width and height, whichever is less.
        const spare = Math.min(...[a, b].map(({ tall }) => Math.min(300 - (48 * 8 - 0.2), 200 - tall)));
        expect(now.tightest?.spare).toBeCloseTo(spare, 6);
      }),
      { numRuns: runs(60) },
    );
  });
  test('a building weighs the same whether it is pinned, loose or in parts: only who carries it differs', () => {
    const one = {
      x: 8,
      y: 8,
      w: 16,
      d: 8,
      turn: 0,
      height: 90,
      storeys: 3,
      mount: 'pinned' as const,
      off: [],
    };
    const weigh = (more: object) => {
      const scene = sceneOf([{ ...one, ...more }]);
      const relief = compileRelief(scene);
      return { all: tableLoads(scene, relief)[0].kg, module: moduleLoads(scene, relief)[0].bulk.kg };
    };
    const [pinned, loose, parted] = [{}, { mount: 'loose' }, { off: [60] }].map(weigh);
    expect(loose.all).toBeCloseTo(pinned.all, 4);
    expect(parted.all).toBeCloseTo(pinned.all, 4);
    expect(pinned.module).toBeCloseTo(parted.module + (60 * 44 + 84 * 2 + 128) * (2.3 / 24000), 4);
    expect(loose.module).toBeLessThan(parted.module);
  });
});
