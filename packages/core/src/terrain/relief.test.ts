import fc from 'fast-check';
import { gramsOfPart } from '../catalogue/index.ts';
import { sceneFrom } from '../document/index.ts';
import {
  BASE_GRAMS,
  GRAMS_PER_STUD_PLATE,
  GROUND_FILL,
  OUTSIDE,
  compileRelief,
  contoursOf,
  groundAt,
  groundDifference,
  heightRange,
  indexAt,
  massOf,
  shellOf,
  type Relief,
} from './index.ts';

const DISPLAY = { name: 'Test', kind: 'diorama' as const };
const LEVELS = [{ id: 'low', name: 'Low', height: 3 }];
const FOOTPRINT = [{ id: 'f', name: 'All', x: 0, y: 0, w: 32, d: 16 }];
const pad = (id: string, more: object) => ({
  id,
  name: id,
  x: 0,
  y: 0,
  w: 32,
  d: 16,
  level: 'low',
  ground: 'grass' as const,
  ...more,
});
const at = (relief: Relief, x: number, y: number) => {
  const i = indexAt(relief, x, y);
  return { height: relief.height[i], top: relief.top[i], ground: groundAt(relief, i) };
};

describe('the relief', () => {
  test('later pads cover earlier ones, plots stand on the highest ground under them', () => {
    const relief = compileRelief(
      sceneFrom({
        display: DISPLAY,
        levels: LEVELS,
        footprint: FOOTPRINT,
        pads: [pad('b', { order: 1 }), pad('a', { order: 2, x: 8, w: 8, offset: 6, ground: 'rock' })],
        plots: [{ id: 'house', name: 'House', x: 4, y: 0, w: 8, d: 8, height: 9 }],
      }),
    );
    expect(at(relief, 0, 0)).toEqual({ height: 3, top: 3, ground: 'grass' });
    expect(at(relief, 8, 0)).toEqual({ height: 9, top: 18, ground: 'rock' });
    expect(at(relief, 4, 0)).toEqual({ height: 3, top: 18, ground: 'grass' });
    expect(heightRange(relief, { x: 4, y: 0, w: 8, d: 8 })).toEqual({ low: 3, high: 9 });
    expect(indexAt(relief, 32, 0)).toBe(-1);
  });

  test('what was raised and dug out since is told in stud-plates (a prism: area times height)', () => {
    const before = compileRelief(
      sceneFrom({ display: DISPLAY, levels: LEVELS, footprint: FOOTPRINT, pads: [pad('a', {})] }),
    );
    const now = compileRelief(
      sceneFrom({
        display: DISPLAY,
        levels: LEVELS,
        footprint: FOOTPRINT,
        pads: [
          pad('a', {}),
          pad('b', { order: 1, w: 5, d: 4, offset: 6 }),
          pad('c', { order: 2, x: 20, w: 3, d: 3, offset: -2 }),
        ],
      }),
    );
    expect(groundDifference(before, now)).toEqual({ raised: 20, lowered: 9, volume: 20 * 6 - 9 * 2 });
    const wider = [...FOOTPRINT, { id: 'g', name: 'More', x: 32, y: 0, w: 8, d: 8 }];
    expect(
      groundDifference(
        before,
        compileRelief(sceneFrom({ display: DISPLAY, levels: LEVELS, footprint: wider })),
      ),
    ).toBeNull();
  });

  test('an L of footprint parts leaves its corner outside', () => {
    const relief = compileRelief(
      sceneFrom({
        display: DISPLAY,
        levels: LEVELS,
        footprint: [...FOOTPRINT, { id: 'g', name: 'Leg', x: 0, y: 16, w: 8, d: 8 }],
        pads: [pad('a', {})],
      }),
    );
    expect(at(relief, 20, 20).ground).toBeNull();
    expect(at(relief, 4, 20).ground).toBe('bare');
  });

  test('an oval pad covers the studs whose centres lie in the ellipse (brute force)', () => {
    const halves = fc.integer({ min: 1, max: 40 });
    fc.assert(
      fc.property(halves, halves, halves, halves, (x, y, w, d) => {
        const oval = { x: x / 2, y: y / 2, w: w / 2, d: d / 2 };
        const relief = compileRelief(
          sceneFrom({
            display: DISPLAY,
            levels: LEVELS,
            footprint: FOOTPRINT,
            pads: [pad('o', { ...oval, shape: 'oval' })],
          }),
        );
        for (let row = 0; row < 16; row++)
          for (let column = 0; column < 32; column++) {
            const u = (column + 0.5 - oval.x - oval.w / 2) / (oval.w / 2);
            const v = (row + 0.5 - oval.y - oval.d / 2) / (oval.d / 2);
            const r = u * u + v * v;
            if (Math.abs(r - 1) < 1e-9) continue;
            if ((relief.height[row * 32 + column] === 3) !== r < 1) return false;
          }
        return true;
      }),
    );
  });

  test('a footprint that would not fit in memory is refused with its size', () => {
    const wide = (w: number, d: number) =>
      sceneFrom({
        display: DISPLAY,
        footprint: [
          { id: 'f', name: 'All', x: 0, y: 0, w: 16, d: 16 },
          { id: 'g', name: 'Far', x: w - 16, y: d - 16, w: 16, d: 16 },
        ],
      });
    expect(() => wide(4096, 4096)).toThrow('4096 × 4096 = 16,777,216 studs; the most is 4,194,304');
    expect(compileRelief(wide(1024, 512)).ground).toHaveLength(1024 * 512);
  });
});

describe('contours', () => {
  test('one stud a brick higher is ringed by one square, its fifth brick heavier', () => {
    const relief = compileRelief(
      sceneFrom({
        display: DISPLAY,
        levels: LEVELS,
        footprint: FOOTPRINT,
        pads: [pad('p', { x: 4, y: 4, w: 2, d: 1, offset: 12 })],
      }),
    );
    const contours = contoursOf(relief);
    expect(contours.map(({ height, index }) => [height, index])).toEqual([
      [3, false],
      [6, false],
      [9, false],
      [12, false],
      [15, true],
    ]);
    const [line] = contours[0].lines;
    expect(contours[0].lines).toHaveLength(1);
    const corners = Array.from({ length: line.length / 2 }, (_, i) => `${line[2 * i]},${line[2 * i + 1]}`);
    expect(new Set(corners)).toEqual(new Set(['4,4', '6,4', '6,5', '4,5'].concat(corners[0])));
  });

  test('their length, whole or window by window, is the count of stud edges where the ground passes the height', () => {
    const heights = fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 48, maxLength: 48 });
    fc.assert(
      fc.property(heights, fc.boolean(), (list, whole) => {
        const relief: Relief = {
          x: 0,
          y: 0,
          w: 8,
          d: 6,
          things: [],
          owner: new Uint16Array(48),
          top: new Int16Array(48),
          height: Int16Array.from(list),
          ground: new Uint8Array(48).fill(0).map((_, i) => (i % 11 === 5 ? OUTSIDE : 0)),
          surface: Int16Array.from(list),
          slabs: [],
        };
        const drawn = new Map<number, number>();
        const quarters = [0, 4].flatMap((x) => [0, 3].map((y) => ({ x, y, w: 4, d: 3 })));
        for (const { height, lines } of (whole ? [relief] : quarters).flatMap((part) =>
          contoursOf(relief, part),
        ))
          for (const line of lines)
            for (let i = 2; i < line.length; i += 2)
              drawn.set(
                height,
                (drawn.get(height) ?? 0) +
                  Math.abs(line[i] - line[i - 2]) +
                  Math.abs(line[i + 1] - line[i - 1]),
              );
        for (const level of [3, 6, 9]) {
          let edges = 0;
          for (let i = 0; i < 48; i++)
            for (const [j, joined] of [
              [i + 1, i % 8 < 7],
              [i + 8, i < 40],
            ] as const)
              if (
                joined &&
                relief.ground[i] !== OUTSIDE &&
                relief.ground[j] !== OUTSIDE &&
                list[i] >= level !== list[j] >= level
              )
                edges++;
          if ((drawn.get(level) ?? 0) !== edges) return false;
        }
        return true;
      }),
    );
  });
});

describe('mass by area', () => {
  const scene = (more: object) =>
    sceneFrom({ display: DISPLAY, levels: LEVELS, footprint: FOOTPRINT, ...more });
  const kg = (more: object) => {
    const made = scene(more);
    return massOf(made, compileRelief(made)).grams.reduce((sum, grams) => sum + grams, 0) / 1000;
  };

  test('solid ground weighs what its bricks weigh (brick 2×4 about 2.3 g, from memory)', () => {
    // 32 × 16 studs, 3 plates high: 64 bricks of 2×4 if solid, 40 % of it by default, and a base of 0.18 g a stud.
    expect(kg({ pads: [pad('a', {})] })).toBeCloseTo((64 * 2.3 * GROUND_FILL + 512 * BASE_GRAMS) / 1000, 6);
  });
  test('a building weighs its walls, floors and roof, wherever it stands', () => {
    // By hand: an 8 × 8 shell of one-stud walls has 28 studs a course: 30 plates of that, two floors of 36 and a roof
    // of 64 studs, a plate each.
    const house = { id: 'h', name: 'House', x: 4, y: 4, w: 8, d: 8, height: 30, storeys: 2 };
    const plain = kg({ pads: [pad('a', {})] });
    const by = kg({ pads: [pad('a', {})], plots: [house] }) - plain;
    expect(by).toBeCloseTo(((28 * 30 + 2 * 36 + 64) * GRAMS_PER_STUD_PLATE) / 1000, 4);
    // Half over the edge of the scene it weighs as much: what stands out hangs on the rest.
    const out = kg({ pads: [pad('a', {})], plots: [{ ...house, x: -4 }] }) - plain;
    expect(out).toBeCloseTo(by, 4);
  });
  test('a list of parts takes the place of the shell, shared by the buildings that have no list of their own', () => {
    const houses = [
      { id: 'a', name: 'A', x: 0, y: 0, w: 8, d: 8, height: 30 },
      { id: 'b', name: 'B', x: 16, y: 0, w: 8, d: 8, height: 30 },
    ];
    const sections = [{ id: 's', letter: 'S', name: 'All', x: 0, y: 0, w: 32, d: 16 }];
    const list = {
      id: 'l',
      name: 'Parts',
      section: 's',
      lines: [{ part: 'brick-2x4', colour: 'slate', qty: 1000 }],
    };
    const plain = kg({ sections });
    expect(kg({ sections, plots: houses, partLists: [list] }) - plain).toBeCloseTo(
      (1000 * gramsOfPart('brick-2x4')) / 1000,
      3,
    );
    const own = kg({ sections, plots: houses, partLists: [{ ...list, plot: 'a', copies: 2 }] }) - plain;
    expect(own * 1000).toBeCloseTo(
      2000 * gramsOfPart('brick-2x4') + shellOf(scene({ plots: houses }).plot.b).grams,
      1,
    );
    // No building is there to be it: it lies somewhere in its section.
    expect(kg({ sections, partLists: [list] }) - plain).toBeCloseTo(
      (1000 * gramsOfPart('brick-2x4')) / 1000,
      3,
    );
  });
  test('bare studs carry a base and no ground', () => {
    expect(kg({})).toBeCloseTo((512 * BASE_GRAMS) / 1000, 6);
  });
});
