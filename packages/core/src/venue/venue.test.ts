import { quadOf } from '../grid/index.ts';
import fc from 'fast-check';
import { compileRelief } from '../terrain/index.ts';
import { sceneFrom, type Passage } from '../document/index.ts';
import {
  cardOf,
  evaluateCard,
  clearances,
  frameOf,
  currentContents,
  insideRoom,
  tableJoints,
  evaluateBarriers,
  evaluateSightLines,
  evaluatePassage,
  largestModule,
  leafGaps,
  leavesRoom,
  longestFor,
  longestRoundCorner,
  moduleLimits,
  openingFloor,
  openingLine,
  overlapDepth,
  pointToRoom,
  pointToScene,
  rectToRoom,
  rectToScene,
  roomToGrow,
  streetFrontLength,
  sidesOf,
  signedArea,
  snapTo,
  supportOf,
  hangingStuds,
  tableLoads,
} from './index.ts';
import { runs } from '../../test/runs.ts';

const passage = (set: Partial<Passage>): Passage => ({
  id: 'p',
  v: 1,
  name: 'door',
  place: null,
  kind: 'door',
  order: 0,
  width: 830,
  height: 2000,
  width2: null,
  pitch: 0,
  insideW: null,
  insideD: null,
  insideH: null,
  maxKg: null,
  ...{ archFrom: 0, archW: 0, archD: 0, archH: 0 },
  trips: 1,
  driver: null,
  ...set,
});

describe('a rectangle round a corner', () => {
  const widths = fc.double({ min: 300, max: 3000, noNaN: true });

  test('a thin rod: (a^⅔ + b^⅔)^(3/2), the longest ladder round a corner (textbook calculus)', () => {
    expect(longestRoundCorner(8, 27, 0)).toBeCloseTo(13 ** 1.5, 6); // 4 + 9 = 13
    fc.assert(
      fc.property(widths, widths, (a, b) => {
        const rod = (a ** (2 / 3) + b ** (2 / 3)) ** 1.5;
        return Math.abs(longestRoundCorner(a, b, 0) - rod) < rod * 1e-9;
      }),
    );
  });

  /**
   * Brute force, by another way than the formula: the rectangle is moved in small steps of its angle; at each its
   * outer side is pressed into the outer corner (walls x = 0 and y = 0, corridors x < b and y < a beyond the inner
   * corner (b, a)), and the inner corner must not lie inside it.
   */
  const turns = (a: number, b: number, w: number, length: number) => {
    for (let i = 0; i <= 3000; i++) {
      const t = ((Math.PI / 2) * i) / 3000;
      const foot = { x: length * Math.cos(t), y: 0 };
      const along = { x: -Math.cos(t), y: Math.sin(t) };
      const inward = { x: Math.sin(t), y: Math.cos(t) };
      const [u, v] = [
        (b - foot.x) * along.x + (a - foot.y) * along.y,
        (b - foot.x) * inward.x + (a - foot.y) * inward.y,
      ];
      if (u > 0 && u < length && v > -1e-9 && v < w - 1e-9) return false;
      if (u > 0 && u < length && v <= -1e-9) return false;
    }
    return true;
  };
  test('the longest that turns is the longest that a search step by step lets through', () => {
    fc.assert(
      fc.property(widths, widths, fc.double({ min: 0.05, max: 0.95, noNaN: true }), (a, b, part) => {
        const w = part * Math.min(a, b);
        const longest = longestRoundCorner(a, b, w);
        // Pushed round without turning is the other way; the search knows only turning.
        fc.pre(longest > Math.max(a, b) + 1);
        return turns(a, b, w, longest * 0.999) && !turns(a, b, w, longest * 1.002);
      }),
      { numRuns: runs(40) },
    );
  });
  test('a wider one is never longer, and what is as wide as the corridor is pushed round', () => {
    fc.assert(
      fc.property(widths, widths, fc.double({ min: 0, max: 1, noNaN: true }), (a, b, part) => {
        const w = part * Math.min(a, b);
        return longestRoundCorner(a, b, w) <= longestRoundCorner(a, b, w * 0.9) + 1e-6;
      }),
    );
    expect(longestRoundCorner(900, 1200, 1000)).toBe(0); // wider than one corridor: 1000 × 900 goes as 900 × 1000
    expect(longestRoundCorner(900, 1200, 900)).toBeCloseTo(1200, 3);
    expect(longestRoundCorner(900, 1200, 1300)).toBe(0);
  });
});

describe('passages, by hand', () => {
  test('a door counts the narrow side, whatever the length', () => {
    expect(evaluatePassage(passage({}), { short: 830, long: 5000, height: 1900 }).passes).toBe(true);
    expect(evaluatePassage(passage({}), { short: 831, long: 900, height: 10 })).toMatchObject({
      by: 'width',
      limit: 830,
    });
    expect(evaluatePassage(passage({}), { short: 10, long: 10, height: 2001 })).toMatchObject({
      by: 'height',
    });
  });
  test('a lift: through the opening, then inside, long ways or broadside', () => {
    const lift = passage({ kind: 'lift', width: 800, insideW: 1100, insideD: 700, insideH: 1900 });
    expect(longestFor(lift, 600, 1000)).toBe(800); // broadside: 800 through the opening, 600 deep of 700
    expect(longestFor(lift, 750, 1000)).toBe(700); // long ways: 750 across, 700 deep: not even square
    expect(evaluatePassage(lift, { short: 600, long: 801, height: 1000 })).toMatchObject({
      by: 'length',
      limit: 800,
    });
    expect(evaluatePassage(lift, { short: 600, long: 800, height: 1901 })).toMatchObject({
      by: 'height',
      limit: 1900,
    });
  });
  test('a stair of 45°: level under 2,000 mm of headroom, 500 tall is 1,500 long; its landing is a corner', () => {
    expect(longestFor(passage({ kind: 'stair', pitch: 45 }), 400, 500)).toBeCloseTo(1500, 6);
    const turning = passage({ kind: 'stair', pitch: 10, width: 1000, width2: 1000 });
    expect(longestFor(turning, 400, 500)).toBeCloseTo(longestRoundCorner(1000, 1000, 400), 6);
  });
  test('the largest module comes from the tightest passage, and it is named', () => {
    const way = [
      passage({ id: 'a', name: 'hall door' }),
      passage({ id: 'b', name: 'goods lift', kind: 'lift', width: 800, insideW: 1100, insideD: 700 }),
    ];
    const best = largestModule(way, 300, 192);
    // 800 ÷ 8 = 100 → 96 studs; 700 ÷ 8 = 87 → 80 studs.
    expect(best).toMatchObject({ long: 96, short: 80, tightest: { name: 'goods lift' } });
    expect(largestModule([way[0]], 300, 192)).toMatchObject({
      long: 192,
      short: 96,
      tightest: { name: 'hall door' },
    });
    expect(largestModule([passage({ width: 50 })], 10, 192)).toBeNull();
  });
  test('every limit passes and the next step does not', () => {
    fc.assert(
      fc.property(
        fc.record({
          kind: fc.constantFrom('door' as const, 'corner' as const, 'lift' as const, 'stair' as const),
          width: fc.integer({ min: 100, max: 1500 }),
          width2: fc.option(fc.integer({ min: 100, max: 1500 })),
          insideW: fc.option(fc.integer({ min: 100, max: 2000 })),
          insideD: fc.option(fc.integer({ min: 100, max: 2000 })),
          pitch: fc.integer({ min: 0, max: 45 }),
        }),
        (set) => {
          const one = passage(set);
          return moduleLimits([one], 400, 192).every(({ short, long, stops }) => {
            const box = (studs: number) => ({ short: short * 8 - 0.2, long: studs * 8 - 0.2, height: 400 });
            return (
              evaluatePassage(one, box(long)).passes &&
              (stops === null || !evaluatePassage(one, box(long + 8)).passes)
            );
          });
        },
      ),
    );
  });
});

describe('the largest module of a whole way', () => {
  const step = fc.record({
    kind: fc.constantFrom(
      'door' as const,
      'corner' as const,
      'lift' as const,
      'stair' as const,
      'vehicle' as const,
    ),
    width: fc.integer({ min: 150, max: 1500 }),
    height: fc.integer({ min: 300, max: 2200 }),
    width2: fc.option(fc.integer({ min: 150, max: 1500 })),
    insideW: fc.option(fc.integer({ min: 150, max: 2000 })),
    insideD: fc.option(fc.integer({ min: 150, max: 2000 })),
    insideH: fc.option(fc.integer({ min: 300, max: 2200 })),
    pitch: fc.integer({ min: 0, max: 50 }),
  });
  const way = fc
    .array(step, { minLength: 1, maxLength: 4 })
    .map((steps) => steps.map((set, i) => passage({ id: `p${i}`, name: `passage ${i}`, ...set })));
  /** Of vehicles that follow one another a box travels in one. */
  const passesAll = (steps: Passage[], short: number, long: number, height: number) => {
    const passes = (one: Passage) =>
      evaluatePassage(one, { short: short * 8 - 0.2, long: long * 8 - 0.2, height }).passes;
    return steps.every((one, i) => {
      if (passes(one)) return true;
      if (one.kind !== 'vehicle') return false;
      const isVehicle = (at: number) => steps[at]?.kind === 'vehicle';
      let [from, to] = [i, i];
      while (isVehicle(from - 1)) from--;
      while (isVehicle(to + 1)) to++;
      return steps.slice(from, to + 1).some(passes);
    });
  };

  test('no module on steps of 8 studs is larger (brute force over all of them), and its reason is true', () => {
    fc.assert(
      fc.property(way, fc.integer({ min: 50, max: 900 }), (steps, height) => {
        let most = 0;
        for (let short = 8; short <= 96; short += 8)
          for (let long = short; long <= 96; long += 8)
            if (passesAll(steps, short, long, height)) most = Math.max(most, short * long);
        const best = largestModule(steps, height, 96);
        expect(best ? best.short * best.long : 0).toBe(most);
        if (!best) return;
        expect(passesAll(steps, best.short, best.long, height)).toBe(true);
        if (best.tightest) {
          const [, long, short] = /because (\d+) × (\d+)/.exec(best.reason) ?? [];
          const box = { short: Number(short) * 8 - 0.2, long: Number(long) * 8 - 0.2, height };
          expect(evaluatePassage(best.tightest, box).passes).toBe(false);
        } else expect(passesAll(steps, 96, 96, height)).toBe(true);
      }),
      { numRuns: runs(150) },
    );
  });
  test('what passes still passes when it is made shorter, narrower or lower', () => {
    fc.assert(
      fc.property(
        way,
        fc.integer({ min: 100, max: 900 }),
        fc.integer({ min: 100, max: 1800 }),
        fc.integer({ min: 50, max: 900 }),
        fc.double({ min: 0.5, max: 1, noNaN: true }),
        (steps, a, b, height, part) => {
          const box = { short: Math.min(a, b), long: Math.max(a, b), height };
          fc.pre(steps.every((one) => evaluatePassage(one, box).passes));
          const lower = { ...box, height: height * part };
          const shorter = { ...box, long: Math.max(box.short, box.long * part) };
          const narrower = { ...box, short: box.short * part };
          return steps.every((one) =>
            [lower, shorter, narrower].every((less) => evaluatePassage(one, less).passes),
          );
        },
      ),
    );
  });
});

const hall = (set: object = {}, more: object = {}) =>
  sceneFrom({
    display: { name: 'Hall', kind: 'diorama', place: 'hall' },
    places: [
      {
        id: 'hall',
        name: 'Hall',
        walls: [
          { x: 0, y: 0 },
          { x: 6000, y: 0 },
          { x: 6000, y: 4000 },
          { x: 0, y: 4000 },
        ],
        sceneX: 2000,
        sceneY: 1000,
        ...set,
      },
    ],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 100, d: 50 }],
    tables: [
      { id: 'a', name: 'A', place: 'hall', x: 2000, y: 1000, w: 380, d: 400, height: 740 },
      { id: 'b', name: 'B', place: 'hall', x: 2420, y: 1000, w: 380, d: 400, height: 730 },
      { id: 'home', name: 'Elsewhere', x: 2000, y: 1000, w: 800, d: 400 },
    ],
    ...more,
  });

describe('the scene in its room', () => {
  test('points go there and back, turned by quarter turns; a rectangle keeps its size', () => {
    const turns = fc.constantFrom(0 as const, 90 as const, 180 as const, 270 as const);
    const at = fc.integer({ min: -2000, max: 2000 });
    fc.assert(
      fc.property(turns, at, at, at, at, (turn, x, y, u, v) => {
        const frame = { x, y, turn };
        const back = pointToScene(frame, pointToRoom(frame, { x: u, y: v }));
        expect([back.x, back.y]).toEqual([u + 0, v + 0]);
        const rect = { x: u, y: v, w: 12, d: 30 };
        expect(rectToScene(frame, rectToRoom(frame, rect))).toEqual(rect);
      }),
    );
    // Turned clockwise a quarter, what lay to the east lies to the south.
    expect(pointToRoom({ x: 100, y: 100, turn: 90 }, { x: 10, y: 0 })).toEqual({ x: 100, y: 180 });
  });
  test('only the tables of the place count; a gap, its length and the shim are told', () => {
    const scene = hall();
    expect(currentContents(scene, 'table').map(({ id }) => id)).toEqual(['a', 'b']);
    const [joint] = tableJoints(scene);
    // 740 − 730 = 10 mm = 3 plates and 0.4 mm.
    expect(joint).toMatchObject({ gap: 40, length: 400, step: 10, shim: { plates: 3, under: { id: 'b' } } });
    expect(joint.shim.rest).toBeCloseTo(0.4, 9);
    const relief = compileRelief(scene);
    const standing = supportOf(relief, hangingStuds(scene, relief));
    // 40 mm of gap: centres strictly between 380 and 420 mm are 388, 396, 404 and 412: 4 columns of 50.
    expect(standing).toMatchObject({ studs: 5000, carried: 4800 });
    const loads = tableLoads(scene, relief);
    expect(loads.map(({ studs }) => studs)).toEqual([2500, 2500]);
  });
  test('the same scene turned in the room hangs over other sides', () => {
    const turned = hall({ turn: 90, sceneX: 2400, sceneY: 1000 });
    expect(frameOf(turned).turn).toBe(90);
    const relief = compileRelief(turned);
    const { overhang } = supportOf(relief, hangingStuds(turned, relief));
    // It lies 400 wide and 800 deep at (2000, 1000): past the tables' south edge at 1,400, which is its east.
    expect(overhang.e).toBeCloseTo(50, 6);
  });
  test('two leaves with a gap of 20 mm on a table of 1,820 mm: each 900', () => {
    const [gap] = leafGaps({ ...hall().table.a, x: 0, y: 0, w: 1820, d: 760, leaves: 2, leafGap: 20 });
    expect(gap).toEqual({ x: 900, y: 0, w: 20, d: 760 });
  });
});

test('what each table bears and what hangs over is what a look at each stud finds (brute force)', () => {
  const at = fc.integer({ min: -300, max: 700 });
  const size = fc.integer({ min: 40, max: 600 });
  fc.assert(
    fc.property(
      fc.array(fc.record({ x: at, y: at, w: size, d: size }), { minLength: 1, maxLength: 4 }),
      fc.integer({ min: 1, max: 70 }),
      fc.integer({ min: 1, max: 50 }),
      (tables, w, d) => {
        const scene = sceneFrom({
          display: { name: 'Any', kind: 'diorama' },
          footprint: [{ id: 'f', name: 'All', x: -2, y: 1, w, d }],
          tables: tables.map((table, i) => ({ id: `t${i}`, name: 'T', ...table })),
        });
        const relief = compileRelief(scene);
        const counts = tables.map(() => 0);
        const hanging: { x: number; y: number; by: number }[] = [];
        for (let y = 1.5; y < 1 + d; y++)
          for (let x = -1.5; x < w - 2; x++) {
            const away = tables.map((table) =>
              Math.max(
                table.x / 8 - x,
                x - (table.x + table.w) / 8,
                table.y / 8 - y,
                y - (table.y + table.d) / 8,
                0,
              ),
            );
            const least = Math.min(...away);
            counts[away.indexOf(least)]++;
            if (least > 0) hanging.push({ x, y, by: least + 0.5 });
          }
        const found = hangingStuds(scene, relief);
        expect(found.map(({ x, y }) => [x, y])).toEqual(hanging.map(({ x, y }) => [x, y]));
        found.forEach(({ by }, i) => expect(by).toBeCloseTo(hanging[i].by, 9));
        expect(tableLoads(scene, relief).map(({ studs }) => studs)).toEqual(counts);
      },
    ),
    { numRuns: runs(60) },
  );
});

describe('room to grow', () => {
  const city = (w: number, tables: { x: number; y: number; w: number; d: number }[]) =>
    sceneFrom({
      display: { name: 'City', kind: 'city' },
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w, d: 48 }],
      tables: tables.map((table, i) => ({ id: `t${i}`, name: 'T', ...table })),
    });
  test('the widest strip on tables along each side, in steps of 8 studs (by hand)', () => {
    // 150 mm west: 18 studs, so 16; 400 mm east: 50, so 48; the table ends level with the scene in the south.
    const scene = city(96, [{ x: -150, y: 0, w: 768 + 150 + 400, d: 384 }]);
    expect(roomToGrow(scene)).toEqual({ n: 0, e: 48, s: 0, w: 16 });
  });
  test('two tables together carry a strip that neither carries alone; a gap stops it', () => {
    const touching = [
      { x: 0, y: 0, w: 400, d: 800 },
      { x: 400, y: 0, w: 400, d: 800 },
    ];
    expect(roomToGrow(city(96, touching)).s).toBe(48);
    expect(roomToGrow(city(96, [touching[0], { ...touching[1], x: 420 }])).s).toBe(0);
  });
  test('a strip it promises is carried, and one step more is not (property)', () => {
    const length = fc.integer({ min: 0, max: 60 });
    fc.assert(
      fc.property(length, length, length, length, (n, e, s, w) => {
        const scene = city(32, [{ x: -w * 8, y: -n * 8, w: (32 + w + e) * 8, d: (48 + n + s) * 8 }]);
        const down = (studs: number) => studs - (studs % 8);
        expect(roomToGrow(scene)).toEqual({ n: down(n), e: down(e), s: down(s), w: down(w) });
      }),
      { numRuns: runs(30) },
    );
  });
  test('a street front counts with the side of its door, however deep it is (common practice: 16 wide, 32 deep)', () => {
    const front = (id: string, w: number, d: number, more: object = {}) => ({
      ...{ id, name: id, x: 0, y: 0, w, d, height: 30, streetFront: true, ...more },
    });
    const scene = sceneFrom({
      display: { name: 'City', kind: 'city' },
      plots: [
        front('narrow', 16, 32),
        front('wide', 64, 32),
        front('round-the-corner', 32, 16, { front: 'e' }),
        front('shed', 40, 8, { streetFront: false }),
      ],
    });
    expect(streetFrontLength(scene)).toBe(16 + 64 + 16);
  });
  test('without a table or a footprint there is none', () => {
    expect(roomToGrow(city(96, []))).toEqual({ n: 0, e: 0, s: 0, w: 0 });
    expect(roomToGrow(sceneFrom({ display: { name: 'None', kind: 'city' } }))).toEqual({
      n: 0,
      e: 0,
      s: 0,
      w: 0,
    });
  });
});

describe('rooms', () => {
  const ell = [
    { x: 0, y: 0 },
    { x: 4000, y: 0 },
    { x: 4000, y: 2000 },
    { x: 2000, y: 2000 },
    { x: 2000, y: 4000 },
    { x: 0, y: 4000 },
  ];
  test('an L: 12 m², what is inside, how far something leaves it', () => {
    expect(signedArea(ell)).toBe(12_000_000);
    expect([insideRoom(ell, { x: 1000, y: 3000 }), insideRoom(ell, { x: 3000, y: 3000 })]).toEqual([
      true,
      false,
    ]);
    expect(leavesRoom(ell, { x: 100, y: 100, w: 1900, d: 3000 })).toBe(0);
    expect(leavesRoom(ell, { x: 1000, y: 1000, w: 1500, d: 1500 })).toBe(500);
    expect(leavesRoom([], { x: 0, y: 0, w: 1, d: 1 })).toBe(0);
  });
  test('a door keeps floor inside the room, whichever way round the corners run', () => {
    for (const walls of [ell, [...ell].reverse()]) {
      const wall = sidesOf(walls).findIndex(({ a, b }) => a.y === 0 && b.y === 0);
      const line = openingLine(walls, { wall, at: 1000, width: 900 });
      expect(line).not.toBeNull();
      const floor = line ? openingFloor(walls, line, 900) : [];
      expect(Math.max(...floor.map(({ y }) => y))).toBe(900);
      expect(overlapDepth(floor, quadOf({ x: 0, y: 700, w: 4000, d: 500 }))).toBeCloseTo(200, 9);
      expect(overlapDepth(floor, quadOf({ x: 0, y: 900, w: 4000, d: 500 }))).toBe(0);
    }
  });
  test('clear distances to walls and things; snapping to edges, middles and walls, and to nothing far away', () => {
    const table = { x: 1000, y: 500, w: 800, d: 600 };
    const other = { x: 2500, y: 600, w: 500, d: 300 };
    expect(clearances(table, [other], sidesOf(ell))).toEqual({ n: 500, e: 700, s: 2900, w: 1000 });
    const near = snapTo({ ...table, x: 1720, y: 570 }, [other], sidesOf(ell), 50);
    expect(near.rect).toMatchObject({ x: 1700, y: 600 });
    expect(near.guides).toEqual([
      { axis: 'x', at: 2500 },
      { axis: 'y', at: 600 },
    ]);
    expect(snapTo(table, [other], sidesOf(ell), 5)).toEqual({ rect: table, guides: [] });
  });
});

describe('the public side', () => {
  test('a barrier 700 mm before the scene, with 1,900 mm behind it and a pillar that leaves 850', () => {
    const barrier = { id: 'r', name: 'Rope', place: 'hall', x1: 1500, y1: 2100, x2: 3500, y2: 2100 };
    expect(evaluateBarriers(hall({}, { barriers: [barrier] }))[0]).toMatchObject({
      toScene: 700,
      aisle: 1900,
    });
    const pillar = { id: 'p', name: 'Pillar', place: 'hall', x: 3300, y: 2950, w: 300, d: 300 };
    expect(evaluateBarriers(hall({}, { barriers: [barrier], obstacles: [pillar] }))[0].aisle).toBeCloseTo(
      850,
      6,
    );
  });
  test('what a front hides, by similar triangles', () => {
    // Eye 860 mm over the top, front 960 ÷ 10 … 30 plates = 96 mm: 1000 × 96 ÷ (860 − 96).
    const eyes = evaluateSightLines(
      { eyeAdult: 1600, eyeSeated: 836, eyeChild: 700, eyeShoulders: 1700 },
      ...([740, 1000, 30] as const),
    );
    expect(eyes[0].hidden).toBeCloseTo((1000 * 96) / 764, 9);
    expect(eyes[1]).toMatchObject({ above: 96, hidden: null });
    expect(eyes[2].above).toBe(-40);
    expect(eyes[3]).toMatchObject({ who: 'shoulders', above: 960 });
  });
});

test('a rule card is held against everything placed: box, overhang by side, height', () => {
  const scene = sceneFrom({
    display: {
      name: 'Square',
      kind: 'vignette',
      limitW: 16,
      limitD: 16,
      cardOverhang: 2,
      cardOverhangFrom: 6,
    },
    footprint: [{ id: 'f', name: 'Square', x: 0, y: 0, w: 16, d: 16 }],
    levels: [{ id: 'l', name: 'Bank', height: 3 }],
    pads: [{ id: 'p', name: 'Bank', x: 0, y: 0, w: 16, d: 16, level: 'l', ground: 'grass' }],
    plots: [{ id: 'h', name: 'Hut', x: 12, y: 2, w: 6.5, d: 6, height: 20, overhangFrom: 4 }],
  });
  expect(cardOf(scene, compileRelief(scene))).toMatchObject({
    base: { w: 16, d: 16 },
    tallest: { kind: 'plot', id: 'h' },
    w: 18.5,
    d: 16,
    height: 23,
    overhang: { n: 0, e: 2.5, s: 0, w: 0 },
    over: [{ kind: 'plot', id: 'h', by: 2.5, side: 'east', begins: 7 }],
  });
});

test('the card measures what is turned as it is turned, and all that stands, from where it stands out', () => {
  const ten = (more: object) =>
    sceneFrom({
      display: { name: 'V', kind: 'vignette', limitW: 10, limitD: 10, limitHeight: 36, cardOverhang: 1 },
      footprint: [{ id: 'f', name: 'Square', x: 0, y: 0, w: 10, d: 10 }],
      ...more,
    });
  const card = (more: object) => {
    const scene = ten(more);
    const state = cardOf(scene, compileRelief(scene));
    return { ...state, kept: evaluateCard(scene, state) };
  };
  const house = { id: 'h', name: 'H', x: 0, y: 0, w: 9, d: 3, height: 20 };
  // Turned by a quarter about its middle at 4.5, 1.5 it lies from −3 to 6 along y.
  expect(card({ plots: [{ ...house, turn: 90 }] }).overhang).toEqual({ n: 3, e: 0, s: 0, w: 0 });
  // Turned by an eighth its corners lie (9 + 3) / 2 √2 = 4.24 from its middle.
  expect(card({ plots: [{ ...house, turn: 45 }] }).overhang).toEqual({ n: 2.74, e: 0, s: 0, w: 0 });
  const eaves = { ...house, x: 0, overhang: { w: 1 }, overhangFrom: 9 };
  expect(card({ plots: [eaves] })).toMatchObject({
    overhang: { n: 0, e: 0, s: 0, w: 1 },
    over: [{ by: 1, side: 'west', begins: 9 }],
    kept: { base: true, all: { w: 12, d: 12, kept: true }, over: true },
  });
  const things: [object, object, string][] = [
    [{ trees: [{ id: 't', name: 'T', x: 0, y: 8, crown: 6 }] }, { n: 0, e: 0, s: 1, w: 3 }, 'tree'],
    [
      {
        runs: [
          {
            id: 'r',
            name: 'R',
            points: [
              { x: 5, y: 5 },
              { x: 12, y: 5 },
            ],
          },
        ],
      },
      { n: 0, e: 2, s: 0, w: 0 },
      'run',
    ],
    [{ flags: [{ id: 'g', name: 'G', x: 0, y: 5, height: 40 }] }, { n: 0, e: 0, s: 0, w: 0.5 }, 'flag'],
    [{ figures: [{ id: 'g', name: 'G', x: 9.5, y: 5 }] }, { n: 0, e: 0.5, s: 0, w: 0 }, 'figure'],
  ];
  for (const [more, overhang, kind] of things) {
    const state = card(more);
    expect(state.overhang).toEqual(overhang);
    expect(state.over[0].kind).toBe(kind);
    expect(state.kept.height).toBe(kind !== 'flag');
  }
});
