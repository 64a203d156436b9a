import fc from 'fast-check';
import { reduce, sceneFrom, trackLine, type Scene } from '../document/index.ts';
import {
  BARE,
  OUTSIDE,
  compile,
  compileRelief,
  groundAt,
  heightRange,
  indexAt,
  membersOf,
  ownerAt,
  packSamples,
  plantsOf,
  readSamples,
  recompile,
  apportion,
  steepest,
  wayProfile,
  type Relief,
} from './index.ts';
import { slowRelief } from '../../test/slowRelief.ts';
import { runs } from '../../test/runs.ts';

const DISPLAY = { name: 'Test', kind: 'diorama' as const };
const LEVELS = [{ id: 'low', name: 'Low', height: 3 }];
type File = Parameters<typeof sceneFrom>[0];
const sceneOf = (w: number, d: number, more: Partial<File>): Scene =>
  sceneFrom({
    display: DISPLAY,
    levels: LEVELS,
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w, d }],
    ...more,
  });
const thing = { level: 'low', name: 'It' };
/** Plates of ground above the foot of a scene that has one level at 3 plates. */
const volume = ({ height, ground }: Relief) =>
  height.reduce((sum, plates, i) => sum + (ground[i] === BARE ? 0 : plates - 3), 0);

describe('volumes against closed forms', () => {
  // Heights are whole plates: rounding is even on average, so that the sums stay within half a percent.
  test('a cone: π r² h / 3', () => {
    const hill = { ...thing, id: 'h', x: 10, y: 10, w: 160, d: 160, shape: 'oval' as const, height: 90 };
    const made = volume(compileRelief(sceneOf(180, 180, { hills: [hill] })));
    expect(Math.abs(made / ((Math.PI * 80 ** 2 * 90) / 3) - 1)).toBeLessThan(0.005);
  });
  test('a pyramid: w d h / 3, also with its peak off the middle', () => {
    for (const at of [0.5, 0.2]) {
      const hill = {
        ...thing,
        id: 'h',
        x: 4,
        y: 4,
        w: 120,
        d: 90,
        height: 67,
        ridge: { x1: at, y1: 0.5, x2: at, y2: 0.5 },
      };
      const made = volume(compileRelief(sceneOf(130, 100, { hills: [hill] })));
      expect(Math.abs(made / ((120 * 90 * 67) / 3) - 1)).toBeLessThan(0.005);
    }
  });
  test('a ramp: w d h / 2, its ridge along one side', () => {
    const hill = {
      ...thing,
      id: 'h',
      x: 0,
      y: 0,
      w: 100,
      d: 40,
      height: 50,
      ridge: { x1: 1, y1: 0, x2: 1, y2: 1 },
    };
    const made = volume(compileRelief(sceneOf(100, 40, { hills: [hill] })));
    expect(Math.abs(made / ((100 * 40 * 50) / 2) - 1)).toBeLessThan(0.005);
  });
  test('a triangle as outline covers half its rectangle', () => {
    const pad = {
      ...thing,
      id: 'p',
      x: 0,
      y: 0,
      w: 64,
      d: 64,
      shape: 'outline' as const,
      outline: [
        { x: 0, y: 0 },
        { x: 1, y: 0 },
        { x: 0, y: 1 },
      ],
      offset: 1,
      ground: 'soil' as const,
    };
    expect(volume(compileRelief(sceneOf(64, 64, { pads: [pad] })))).toBe((64 * 63) / 2 + 32 - 32);
  });
  test('the area a contour encloses is the count of studs at or above it', () => {
    const hill = { ...thing, id: 'h', x: 0, y: 0, w: 90, d: 70, shape: 'oval' as const, height: 60 };
    const relief = compileRelief(sceneOf(96, 72, { hills: [hill] }));
    // A cone's contour at height z is its outline shrunk to 1 − z / h: its area shrinks by the square.
    for (const z of [12, 30, 48]) {
      const studs = relief.height.reduce((sum, plates) => sum + (plates - 3 >= z ? 1 : 0), 0);
      expect(Math.abs(studs - (Math.PI / 4) * 90 * 70 * (1 - (z - 0.5) / 60) ** 2)).toBeLessThan(25);
    }
  });
});

describe('what lies on what', () => {
  test('a terraced hill stands in steps of its terrace, a rock face is steep and of rock', () => {
    const hill = {
      ...thing,
      id: 'h',
      x: 0,
      y: 0,
      w: 64,
      d: 64,
      height: 30,
      terrace: 6,
      faces: ['s' as const],
      offset: 0,
    };
    const relief = compileRelief(sceneOf(64, 64, { hills: [hill] }));
    expect([...new Set(relief.height)].every((plates) => plates === 0 || (plates - 3) % 6 === 0)).toBe(true);
    const south = indexAt(relief, 32, 55);
    const north = indexAt(relief, 32, 8);
    expect([groundAt(relief, south), relief.height[south]]).toEqual(['rock', 33]);
    // Five terraces over 32 studs: the stud 8.5 from the border lies on the second.
    expect([groundAt(relief, north), relief.height[north]]).toEqual(['grass', 15]);
  });
  test('a hill or hollow of any form reaches what was typed and lies on its whole outline', () => {
    const side = fc.integer({ min: 3, max: 80 }).map((n) => n / 2);
    fc.assert(
      fc.property(
        side,
        side,
        fc.constantFrom('rect' as const, 'oval' as const),
        fc.constantFrom('even' as const, 'convex' as const, 'concave' as const, 'sheer' as const),
        fc.integer({ min: 0, max: 9 }),
        fc.integer({ min: 1, max: 60 }),
        fc.boolean(),
        fc.constantFrom(0, 0.5),
        (w, d, shape, profile, terrace, height, long, off) => {
          const ridge = long && shape === 'rect' ? { x1: 0, y1: 0.5, x2: 1, y2: 0.5 } : undefined;
          const form = { ...thing, id: 'h', x: 2 + off, y: 2, w, d, shape, profile, terrace, ridge };
          const pad = { ...thing, id: 'p', x: 2 + off, y: 2, w, d, shape };
          const scene = (more: Partial<File>) => compileRelief(sceneOf(50, 50, more));
          const outline = scene({ pads: [{ ...pad, offset: 1, ground: 'soil' }] });
          const hill = scene({ hills: [{ ...form, height }] });
          const hollow = scene({ hollows: [{ ...form, depth: height }], pads: [{ ...pad, ground: 'soil' }] });
          const least = terrace > 0 ? Math.min(terrace, height) : profile === 'sheer' ? height : 1;
          const studs = [...outline.ground.keys()].filter((i) => outline.ground[i] !== BARE);
          const ups = studs.map((i) => hill.height[i] - 3);
          const downs = studs.map((i) => 3 - hollow.height[i]);
          for (const rises of [ups, downs])
            if (studs.length > 0) {
              expect(Math.max(...rises)).toBe(height);
              expect(Math.min(...rises)).toBeGreaterThanOrEqual(least);
            }
        },
      ),
      { numRuns: runs(300) },
    );
  });
  test('a slope leads from a pad down to the ground, a terrace brick by brick, a corner in a mitre', () => {
    const pads = [
      { ...thing, id: 'a', x: 0, y: 0, w: 60, d: 60, ground: 'grass' as const },
      {
        ...thing,
        id: 'b',
        order: 1,
        x: 20,
        y: 20,
        w: 20,
        d: 20,
        offset: 12,
        ground: 'soil' as const,
        edges: { e: { kind: 'slope' as const, run: 3 }, s: { kind: 'terrace' as const, run: 2 } },
      },
    ];
    const relief = compileRelief(sceneOf(60, 60, { pads }));
    const row = (y: number, from: number, to: number) =>
      [...relief.height.subarray(y * 60 + from, y * 60 + to)].map((plates) => plates - 3);
    // One brick in three studs: 1 plate a stud.
    expect(row(30, 39, 53)).toEqual([12, 11, 10, 9, 8, 7, 6, 5, 4, 3, 2, 1, 0, 0]);
    expect(
      [20, 41, 42, 43, 44, 45, 46, 48].map((y) => relief.height[(y === 20 ? 20 : y - 1) * 60 + 30] - 3),
    ).toEqual([12, 9, 9, 6, 6, 3, 3, 0]);
    expect(relief.height[19 * 60 + 30] - 3).toBe(0);
  });
  test('a ramp keeps its grade, cutting as much as it fills; a held way runs evenly between its heights', () => {
    const pads = [
      { ...thing, id: 'a', x: 0, y: 0, w: 100, d: 30, ground: 'grass' as const },
      { ...thing, id: 'b', order: 1, x: 50, y: 0, w: 50, d: 30, offset: 12, ground: 'grass' as const },
    ];
    const way = {
      ...thing,
      id: 'w',
      points: [
        { x: 0, y: 15 },
        { x: 100, y: 15 },
      ],
      width: 6,
      maxGrade: 20,
      onSteep: 'ramp' as const,
    };
    const { level: _level, ...ramp } = way;
    const scene = sceneOf(100, 30, { pads, ways: [ramp] });
    const relief = compileRelief(scene);
    const middle = [...relief.height.subarray(15 * 100, 16 * 100)];
    // 20 % is half a plate a stud: 12 plates take 24 studs, half of them filled before the step, half cut behind it.
    expect([24, 36, 49, 50, 63, 75].map((x) => middle[x])).toEqual([3, 3, 9, 10, 15, 15]);
    expect(Math.max(...middle.map((z, x) => (x > 0 ? z - middle[x - 1] : 0)))).toBe(1);
    expect(relief.height[11 * 100 + 45]).toBe(3);
    const profile = wayProfile(scene.way.w, (x) => (x < 50 ? 3 : 15));
    expect(steepest(profile)?.grade).toBeLessThanOrEqual(20.001);
    const held = {
      ...ramp,
      points: [
        { x: 0, y: 15, z: 0 },
        { x: 100, y: 15, z: 50 },
      ],
    };
    const even = compileRelief(sceneOf(100, 30, { pads, ways: [held] }));
    expect([0, 20, 99].map((x) => even.height[15 * 100 + x])).toEqual([0, 10, 50]);
  });
  test('the bank of a lake of any outline lies all about it, and rises with the distance from its border', () => {
    const lake = {
      ...thing,
      id: 'w',
      x: 20,
      y: 20,
      w: 40,
      d: 40,
      bank: 6,
      shape: 'outline' as const,
      // An L with arms of 12 studs.
      outline: [
        { x: 0, y: 0 },
        { x: 0.3, y: 0 },
        { x: 0.3, y: 0.7 },
        { x: 1, y: 0.7 },
        { x: 1, y: 1 },
        { x: 0, y: 1 },
      ],
    };
    const arms = [
      { x: 20, y: 20, w: 12, d: 40 },
      { x: 20, y: 48, w: 40, d: 12 },
    ];
    const pads = [{ ...thing, id: 'a', x: 0, y: 0, w: 80, d: 80, offset: 6, ground: 'grass' as const }];
    const relief = compileRelief(sceneOf(80, 80, { pads, waters: [lake] }));
    for (let y = 0; y < 80; y++)
      for (let x = 0; x < 80; x++) {
        // How far a stud's centre is from two rectangles, by their sides.
        const off = Math.min(
          ...arms.map((arm) =>
            Math.hypot(
              Math.max(arm.x - x - 0.5, 0, x + 0.5 - arm.x - arm.w),
              Math.max(arm.y - y - 0.5, 0, y + 0.5 - arm.y - arm.d),
            ),
          ),
        );
        const up = off === 0 ? 0 : Math.floor(Math.min(off, 6) + 0.5 + 1e-7);
        expect([x, y, relief.height[y * 80 + x] - 3]).toEqual([x, y, up]);
      }
    const round = { ...lake, shape: 'oval' as const, w: 30, d: 30, outline: [] };
    const pond = compileRelief(sceneOf(80, 80, { pads, waters: [round] }));
    for (let x = 50; x < 60; x++) {
      // Eastward from its middle at 35, 35: the border lies 15 studs on.
      const off = Math.hypot(x + 0.5 - 35, 0.5) - 15;
      expect(pond.height[35 * 80 + x] - 3).toBe(Math.floor(Math.min(off, 6) + 0.5));
    }
  });
  test('steps climb a cliff by whole bricks on two studs, and leave what is gentle as it is', () => {
    const pads = [
      { ...thing, id: 'a', x: 0, y: 0, w: 100, d: 30, ground: 'grass' as const },
      { ...thing, id: 'b', order: 1, x: 50, y: 0, w: 50, d: 30, offset: 12, ground: 'grass' as const },
    ];
    const stair = {
      id: 'w',
      name: 'Stair',
      points: [
        { x: 0, y: 15 },
        { x: 100, y: 15 },
      ],
      width: 6,
      onSteep: 'steps' as const,
    };
    const middle = [...compileRelief(sceneOf(100, 30, { pads, ways: [stair] })).height.subarray(1500, 1600)];
    const climbs = middle.flatMap((z, x) => (x > 0 && z !== middle[x - 1] ? [[x, z - middle[x - 1]]] : []));
    // 12 plates are 4 bricks: 4 risers, 2 studs apart, half of them before the cliff at 50.
    expect(climbs).toEqual([
      [47, 3],
      [49, 3],
      [51, 3],
      [53, 3],
    ]);
    expect([middle[0], middle[99]]).toEqual([3, 15]);
  });
  test('sixteen curves of one radius close a circle (regular polygon); its bed is as wide as it says', () => {
    const pieces = Array.from({ length: 16 }, () => ({ go: 'right' as const }));
    const scene = sceneOf(120, 120, { tracks: [{ ...thing, id: 't', x: 60, y: 20, pieces }] });
    const { joints } = trackLine(scene.track.t, 3);
    const [first, last] = [joints[0], joints[16]];
    expect(Math.hypot(last.x - first.x, last.y - first.y)).toBeLessThan(1e-9);
    expect(last.heading).toBe(first.heading);
    // Four of them turn a right angle: one radius on, one radius down.
    expect([joints[4].x, joints[4].y].map(Math.round)).toEqual([100, 60]);
    const relief = compileRelief(scene);
    const bed = relief.ground.reduce((sum, code) => sum + (code === BARE ? 0 : 1), 0);
    expect(Math.abs(bed / (Math.PI * (44 ** 2 - 36 ** 2)) - 1)).toBeLessThan(0.015);
  });
  test('a stream falls evenly from point to point, or only at its points; its banks meet the ground', () => {
    const stream = (falls: 'even' | 'points') => ({
      ...thing,
      id: 's',
      points: [
        { x: 0, y: 20, z: 21 },
        { x: 50, y: 20, z: null },
        { x: 80, y: 20, z: 6 },
      ],
      width: 6,
      bank: 3,
      falls,
    });
    const pads = [{ ...thing, id: 'a', x: 0, y: 0, w: 80, d: 40, offset: 21, ground: 'grass' as const }];
    const along = (falls: 'even' | 'points') => {
      const relief = compileRelief(sceneOf(80, 40, { pads, streams: [stream(falls)] }));
      return [0, 40, 79].map((x) => relief.height[20 * 80 + x]);
    };
    expect(along('even')).toEqual([21, 13, 6]);
    expect(along('points')).toEqual([21, 21, 21]);
    const relief = compileRelief(sceneOf(80, 40, { pads, streams: [stream('even')] }));
    const across = [14, 15, 16, 17].map((y) => relief.height[y * 80 + 79]);
    expect(across[0]).toBeGreaterThan(across[1]);
    expect(groundAt(relief, 17 * 80 + 40)).toBe('water');
    expect(groundAt(relief, 16 * 80 + 40)).toBe('sand');
  });
  test('a turned building stands on every stud its walls touch, on the highest ground under it', () => {
    const pads = [{ ...thing, id: 'a', x: 0, y: 0, w: 40, d: 40, ground: 'grass' as const }];
    const plot = { id: 'h', name: 'House', x: 10, y: 10, w: 16, d: 8, height: 20 };
    const standing = (turn: number) => {
      const relief = compileRelief(sceneOf(40, 40, { pads, plots: [{ ...plot, turn }] }));
      return relief.top.reduce((sum, top) => sum + (top > 3 ? 1 : 0), 0);
    };
    expect([standing(0), standing(90), standing(180)]).toEqual([128, 128, 128]);
    expect(standing(45)).toBeGreaterThan(128);
    // A 3-4-5 triangle of turn: every stud that shares area with the turned rectangle, counted one by one.
    const turn = (Math.atan2(3, 4) * 180) / Math.PI;
    const slow = slowRelief(sceneOf(40, 40, { pads, plots: [{ ...plot, turn }] }));
    expect(standing(turn)).toBe(slow.top.reduce((sum: number, top: number) => sum + (top > 3 ? 1 : 0), 0));
  });
  test('imported samples come back as they were packed, and are spread from low to high', () => {
    const samples = Uint16Array.from([0, 65_535, 32_768, 258, 1, 99]);
    const terrain = { columns: 3, rows: 2, samples: packSamples(samples) };
    expect([...readSamples(terrain)]).toEqual([...samples]);
    const relief = compileRelief(
      sceneOf(6, 4, {
        terrains: [{ ...thing, ...terrain, id: 't', x: 0, y: 0, w: 6, d: 4, low: 0, high: 100 }],
      }),
    );
    expect([...relief.height.subarray(0, 6)]).toEqual([3, 3, 103, 103, 53, 53]);
  });
});

describe('many of a kind', () => {
  test('shares of a count add up to it and lie within one of their proportion', () => {
    fc.assert(
      fc.property(
        fc.nat(500),
        fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 8 }),
        (count, shares) => {
          const parts = apportion(count, shares);
          const whole = shares.reduce((a, b) => a + b);
          return (
            parts.reduce((a, b) => a + b) === count &&
            parts.every((part, i) => Math.abs(part - (count * shares[i]) / whole) < 1)
          );
        },
      ),
    );
  });
  test('plants stand in their area, each on a stud of its own, as many as the density says, more evenly than by chance', () => {
    const planting = {
      id: 'p',
      name: 'Wood',
      x: 2,
      y: 2,
      w: 60,
      d: 40,
      shape: 'oval' as const,
      density: 6,
      mix: [
        { name: 'Birch', share: 3 },
        { name: 'Fir', share: 1 },
      ],
    };
    const { planting: made } = sceneOf(64, 44, { plantings: [planting] });
    const plants = plantsOf(made.p);
    expect(Math.abs(plants.length / ((Math.PI / 4) * 60 * 40 * 0.06) - 1)).toBeLessThan(0.02);
    expect(new Set(plants.map(({ x, y }) => `${x} ${y}`)).size).toBe(plants.length);
    expect(Math.abs(plants.filter(({ kind }) => kind === 1).length - plants.length / 4)).toBeLessThan(1);
    expect(plants.every(({ x, y }) => ((x - 32) / 30) ** 2 + ((y - 22) / 20) ** 2 <= 1)).toBe(true);
    const nearest = plants.map((a) =>
      Math.min(...plants.filter((b) => b !== a).map((b) => Math.hypot(a.x - b.x, a.y - b.y))),
    );
    // Of points thrown at random the mean nearest distance is half the root of the area each has (Clark, Evans 1954).
    const mean = nearest.reduce((a, b) => a + b) / nearest.length;
    expect(mean).toBeGreaterThan(1.2 * 0.5 * Math.sqrt(100 / 6));
    expect(plantsOf(made.p)).toEqual(plants);
  });
  test('a repeat divides its line evenly, three bays to a base, and keeps off the seam', () => {
    const repeat = (more: object) => {
      const scene = sceneOf(96, 20, {
        repeats: [
          {
            id: 'r',
            name: 'Lamps',
            points: [
              { x: 0, y: 10 },
              { x: 96, y: 10 },
            ],
            ...more,
          },
        ],
      });
      return scene.repeat.r;
    };
    const xs = (more: object, modules: { x: number; y: number; w: number; d: number }[] = []) =>
      membersOf(repeat(more), modules).members.map(({ x }) => x);
    expect(xs({ spacing: 'count', count: 4 })).toEqual([12, 36, 60, 84]);
    expect(xs({ spacing: 'every', every: 20 })).toEqual([8, 28, 48, 68, 88]);
    expect(xs({ spacing: 'base', count: 3 })).toEqual([8, 24, 40, 56, 72, 88]);
    const modules = [
      { x: 0, y: 0, w: 48, d: 20 },
      { x: 48, y: 0, w: 48, d: 20 },
    ];
    // A line that begins 8 studs on has the bays of the bases all the same: those that lie wholly on it.
    const late = {
      spacing: 'base',
      count: 3,
      points: [
        { x: 8, y: 10 },
        { x: 95, y: 10 },
      ],
    };
    expect(xs(late)).toEqual([24, 40, 56, 72]);
    expect(xs(late, modules)).toEqual([24, 40, 56, 72]);
    const bases = [
      {
        x: 0,
        y: 0,
        w: 96,
        d: 20,
        bases: [
          { x: 0, y: 0, w: 32, d: 20 },
          { x: 32, y: 0, w: 64, d: 20 },
        ],
      },
    ];
    expect(xs({ spacing: 'base', count: 2 }, bases)).toEqual([8, 24, 48, 80]);
    const back = {
      spacing: 'base',
      count: 1,
      points: [
        { x: 96, y: 10 },
        { x: 0, y: 10 },
      ],
    };
    expect(xs(back, modules)).toEqual([72, 24]);
    expect(xs({ spacing: 'every', every: 20, keepOff: 2 }, modules)).toEqual([8, 28, 68, 88]);
  });
});

const half = (min: number, max: number) => fc.integer({ min: 2 * min, max: 2 * max }).map((n) => n / 2);
const areas = {
  x: half(-6, 30),
  y: half(-6, 24),
  w: half(1, 24),
  d: half(1, 20),
  shape: fc.constantFrom('rect' as const, 'oval' as const, 'outline' as const),
  outline: fc.array(
    fc.record({
      x: fc.integer({ min: 0, max: 16 }).map((n) => n / 16),
      y: fc.integer({ min: 0, max: 16 }).map((n) => n / 16),
    }),
    { minLength: 3, maxLength: 6 },
  ),
};
const named = { name: fc.constant('It') };
const onLevel = { ...named, level: fc.constant('low'), offset: fc.integer({ min: -4, max: 20 }) };
const grounds = fc.constantFrom('grass' as const, 'rock' as const, 'soil' as const);
const edge = fc.record({
  kind: fc.constantFrom('open' as const, 'slope' as const, 'terrace' as const, 'cliff' as const),
  run: fc.constantFrom(1, 2, 3.5),
});
const rise = {
  ridge: fc.record({
    x1: fc.constantFrom(0.25, 0.5),
    y1: fc.constantFrom(0.5, 0.75),
    x2: fc.constantFrom(0.5, 0.75),
    y2: fc.constant(0.5),
  }),
  profile: fc.constantFrom('even' as const, 'convex' as const, 'concave' as const, 'sheer' as const),
  terrace: fc.constantFrom(0, 3),
};
const line = fc.array(
  fc.record({ x: half(-4, 44), y: half(-4, 34), z: fc.option(fc.integer({ min: 0, max: 20 })) }),
  { minLength: 2, maxLength: 4 },
);
const random = {
  pad: fc.record({
    ...onLevel,
    ...areas,
    ground: grounds,
    order: fc.nat(5),
    edges: fc.record({ n: edge, e: edge, s: edge, w: edge }),
    reach: fc.constantFrom(0, 5, 12),
  }),
  hill: fc.record({ ...onLevel, ...areas, ...rise, height: fc.integer({ min: 1, max: 30 }) }),
  hollow: fc.record({ ...onLevel, ...areas, ...rise, depth: fc.integer({ min: 1, max: 30 }) }),
  way: fc.record({
    ...named,
    points: line,
    width: half(1, 8),
    rise: fc.constantFrom(0, 1),
    onSteep: fc.constantFrom('follow' as const, 'ramp' as const),
  }),
  plot: fc.record({
    ...named,
    x: areas.x,
    y: areas.y,
    w: half(1, 12),
    d: half(1, 12),
    turn: fc.constantFrom(0, 90, 30, 217.5),
    height: fc.integer({ min: 1, max: 40 }),
  }),
  tree: fc.record({
    ...named,
    x: areas.x,
    y: areas.y,
    crown: half(1, 8),
    height: fc.integer({ min: 1, max: 40 }),
  }),
};
type Change = Parameters<typeof reduce>[1][number];
const addOf = (kind: keyof typeof random) => random[kind].map((data) => ({ kind, data }));
const things = fc.array(
  fc.oneof(addOf('pad'), addOf('hill'), addOf('hollow'), addOf('way'), addOf('plot'), addOf('tree')),
  { minLength: 1, maxLength: 10 },
);
const added = (scene: Scene, list: readonly { kind: keyof typeof random; data: object }[]) => {
  const changes = list.map(({ kind, data }, i): Change => ({
    op: 'add',
    kind,
    id: `t${i}`,
    data: { ...data },
  }));
  const made = reduce(scene, changes);
  if (!made.ok) throw new Error(made.refusal.sentence);
  return made.scene;
};
const empty = sceneOf(40, 30, {});
const seen = (relief: Relief) =>
  [...relief.top]
    .map((top, i) => {
      const owner = ownerAt(relief, i);
      return `${relief.height[i]} ${relief.ground[i]} ${top} ${owner?.kind} ${owner?.id}`;
    })
    .join('\n');

describe('random scenes', () => {
  test('the relief is what slow, independent code makes of each stud', () => {
    fc.assert(
      fc.property(things, (list) => {
        const scene = added(empty, list);
        const { height, top } = compileRelief(scene);
        const slow = slowRelief(scene);
        // A way follows ground that may be either of two plates: what it comes to then is open too.
        fc.pre(slow.ties.size === 0 || !list.some(({ kind }) => kind === 'way'));
        const [fast, like] = [[...height], slow.height].map((list) =>
          list.map((plates, i) => (slow.ties.has(i) ? '±' : plates)).join(),
        );
        expect(fast).toBe(like);
        if (slow.ties.size === 0) expect([...top].join()).toBe(slow.top.join());
      }),
      { numRuns: runs(60) },
    );
  });
  test('compiled from the one before, a scene is the same as compiled whole; nothing outside the changed studs differs', () => {
    const edits = fc.array(
      fc.record({
        at: fc.nat(9),
        kind: fc.constantFrom('move', 'remove', 'raise'),
        dx: half(-9, 9),
        dy: half(-9, 9),
      }),
      { minLength: 1, maxLength: 5 },
    );
    fc.assert(
      fc.property(things, edits, (list, steps) => {
        let scene = added(empty, list);
        let compiled = compile(scene);
        for (const { at, kind, dx, dy } of steps) {
          const { kind: sort } = list[at % list.length];
          const id = `t${at % list.length}`;
          const now = scene[sort][id];
          if (!now) continue;
          const set: Record<string, unknown> =
            kind === 'raise'
              ? { name: 'Other', ...('height' in now ? { height: now.height + 3 } : {}) }
              : 'points' in now
                ? { points: now.points.map((point) => ({ ...point, x: point.x + dx, y: point.y + dy })) }
                : { x: now.x + dx, y: now.y + dy };
          const change: Change =
            kind === 'remove'
              ? { op: 'remove', kind: sort, id, v: now.v }
              : { op: 'patch', kind: sort, id, v: now.v, set };
          const next = reduce(scene, [change]);
          if (!next.ok) continue;
          const before = compiled.relief;
          const step = recompile(compiled, next.scene);
          ({ scene } = next);
          ({ compiled } = step);
          const whole = compileRelief(scene);
          expect(seen(compiled.relief)).toBe(seen(whole));
          const inside = (i: number) =>
            step.changed === null ||
            step.changed.some(({ x, y, w, d }) => {
              const [cx, cy] = [i % 40, Math.trunc(i / 40)];
              return cx >= x && cy >= y && cx < x + w && cy < y + d;
            });
          const astray = before.top.findIndex(
            (top, i) => !inside(i) && (top !== whole.top[i] || before.height[i] !== whole.height[i]),
          );
          expect(astray).toBe(-1);
        }
      }),
      { numRuns: runs(60) },
    );
  });
  test('a level raised raises all that lies on it, and nothing of the old relief is written to', () => {
    const scene = sceneOf(40, 30, {
      pads: [{ ...thing, id: 'a', x: 0, y: 0, w: 10, d: 10, ground: 'grass' }],
    });
    const before = compile(scene);
    const kept = [...before.relief.height];
    const next = reduce(scene, [{ op: 'patch', kind: 'level', id: 'low', v: 1, set: { height: 9 } }]);
    if (!next.ok) throw new Error(next.refusal.sentence);
    const { compiled, changed } = recompile(before, next.scene);
    expect(heightRange(compiled.relief, { x: 0, y: 0, w: 10, d: 10 })).toEqual({ low: 9, high: 9 });
    expect(changed).toEqual([{ x: 0, y: 0, w: 10, d: 10 }]);
    expect([...before.relief.height]).toEqual(kept);
    expect(before.relief.ground[39]).not.toBe(OUTSIDE);
  });
});
