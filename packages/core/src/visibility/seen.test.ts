import fc from 'fast-check';
import { runs } from '../../test/runs.ts';
import { columnHides, slowSeenCounts } from '../../test/slowSeen.ts';
import { FREE, NO_COLUMN, firstHider, peaksOf, seenCounts, type Eye, type HeightField } from './index.ts';

const fieldOf = (rows: number[][]): HeightField => ({
  w: rows[0].length,
  d: rows.length,
  heights: Float64Array.from(rows.flat()),
});
const countsOf = (field: HeightField, eyes: Eye[]) => [...seenCounts(field, eyes)];

describe('what eyes see of a height field', () => {
  test('a wall hides what lies in its shadow, by similar triangles', () => {
    // An eye 10 studs before a row, at 100 mm; a wall of 50 mm at the fifth stud.
    const heights = [0, 0, 0, 0, 50, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0];
    const eye = { x: -10, y: 0.5, z: 100 };
    // Its far edge lies 15 studs from the eye: the line over it comes down to 0 at 30 studs, 20 into the row. The middle
    // of the twentieth stud is at 29.5: hidden yet.
    const seen = countsOf(fieldOf([heights]), [eye]);
    expect(seen).toEqual([1, 1, 1, 1, 1, ...Array.from({ length: 15 }, () => 0)]);
    // 80 mm higher it comes down at 15 × 180 ÷ 130 = 20.8 studs: 10.8 into the row, so that the middle of the twelfth is seen.
    expect(countsOf(fieldOf([heights]), [{ ...eye, z: 180 }]).indexOf(1, 5)).toBe(11);
  });
  test('an even plane is seen by every eye above it and in it, by none below', () => {
    const plane = fieldOf(Array.from({ length: 5 }, () => [32, 32, 32, 32]));
    const at = (z: number): Eye => ({ x: -7, y: 20, z });
    expect(new Set(countsOf(plane, [at(33), at(32), at(31.9)]))).toEqual(new Set([2]));
  });
  test('a pyramid from straight above: all of it; from its foot: the near side alone', () => {
    const rows = Array.from({ length: 7 }, (_, y) =>
      Array.from({ length: 7 }, (_, x) => 10 * Math.min(x + 1, y + 1, 7 - x, 7 - y)),
    );
    const pyramid = fieldOf(rows);
    expect(countsOf(pyramid, [{ x: 3.5, y: 3.5, z: 5000 }]).every((count) => count === 1)).toBe(true);
    const south = countsOf(pyramid, [{ x: 3.5, y: -1, z: 41 }]);
    expect(south[6 * 7 + 3]).toBe(1);
    expect(south[3]).toBe(0);
  });
  test('what only touches does not hide: corners, edges, tops; an eye within a column sees nothing', () => {
    // Towards the north-east over the corner where two towers meet.
    const corner = fieldOf([
      [90, 0],
      [0, 90],
    ]);
    expect(countsOf(corner, [{ x: -5, y: -5, z: 10 }])).toEqual([0, 1, 1, 0]);
    // In the plane of a top.
    expect(countsOf(fieldOf([[10, 10, 10]]), [{ x: -4, y: 0.5, z: 10 }])).toEqual([1, 1, 1]);
    expect(countsOf(fieldOf([[10, 40, 10]]), [{ x: 1.5, y: 0.5, z: 30 }])).toEqual([0, 0, 0]);
    // Where there is no column nothing hides, and nothing is seen.
    expect(countsOf(fieldOf([[0, NaN, 0]]), [{ x: -4, y: 0.5, z: 5 }])).toEqual([1, NO_COLUMN, 1]);
  });
  test('two studs at one height see one another or neither does', () => {
    const heights = fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 36, maxLength: 36 });
    fc.assert(
      fc.property(heights, fc.nat(35), fc.nat(35), (values, a, b) => {
        fc.pre(a !== b);
        const own = values.map((value, i) => (i === a || i === b ? 30 : value));
        const field = { w: 6, d: 6, heights: Float64Array.from(own) };
        const eyeOn = (i: number): Eye => ({ x: (i % 6) + 0.5, y: 6 - Math.trunc(i / 6) - 0.5, z: 30 });
        expect(seenCounts(field, [eyeOn(a)])[b]).toBe(seenCounts(field, [eyeOn(b)])[a]);
      }),
      { numRuns: runs(100) },
    );
  });
  test('random fields and eyes, on and off the lines of the grid, agree with each column asked by itself', () => {
    const size = fc.integer({ min: 1, max: 8 });
    const at = fc.oneof(
      fc.integer({ min: -20, max: 28 }).map((n) => n / 2),
      fc.double({ min: -12, max: 20, noNaN: true }),
    );
    const eye = fc.record({
      x: at,
      y: at,
      z: fc.oneof(
        fc.integer({ min: 0, max: 30 }).map((n) => n * 3.2),
        fc.constant(400),
      ),
    });
    fc.assert(
      fc.property(
        size,
        size,
        fc.array(eye, { maxLength: 5 }),
        fc.infiniteStream(fc.integer({ min: -1, max: 24 })),
        (w, d, eyes, stream) => {
          const heights = Float64Array.from({ length: w * d }, () => {
            const value = Number(stream.next().value);
            return value < 0 ? NaN : value * 3.2;
          });
          const field = { w, d, heights };
          expect(countsOf(field, eyes)).toEqual(slowSeenCounts(field, eyes));
        },
      ),
      { numRuns: runs(300) },
    );
  });
  test('along a row of studs: the first column of a square hides as any other', () => {
    // Once a line along one axis came to 0 × ∞ where it was to leave a square at once.
    const field = { w: 26, d: 19, heights: new Float64Array(26 * 19) };
    field.heights[26 * 8 + 24] = 3.2;
    const eyes = [{ x: 24.5, y: 0, z: 1.6 }];
    expect(countsOf(field, eyes)).toEqual(slowSeenCounts(field, eyes));
    expect(seenCounts(field, eyes)[24]).toBe(0);
  });
  test('large fields of few tall columns, most squares low, agree too', () => {
    const tower = fc.record({ x: fc.nat(25), y: fc.nat(18), height: fc.integer({ min: 1, max: 40 }) });
    const eye = fc.record({
      x: fc.integer({ min: -60, max: 140 }).map((n) => n / 2),
      y: fc.integer({ min: -80, max: 60 }).map((n) => n / 4),
      z: fc.integer({ min: 0, max: 100 }).map((n) => n * 1.6),
    });
    fc.assert(
      fc.property(fc.array(tower, { maxLength: 12 }), fc.array(eye, { maxLength: 2 }), (towers, eyes) => {
        const field = { w: 26, d: 19, heights: new Float64Array(26 * 19) };
        for (const { x, y, height } of towers) field.heights[26 * y + x] = 3.2 * height;
        expect(countsOf(field, eyes)).toEqual(slowSeenCounts(field, eyes));
      }),
      { numRuns: runs(40) },
    );
  });
  test('lines pass under decks and through tunnels: random columns with open stretches agree with each piece asked by itself', () => {
    const column = fc.record({
      height: fc.integer({ min: 0, max: 16 }),
      open: fc.array(fc.integer({ min: 0, max: 15 }), { minLength: 4, maxLength: 4 }),
    });
    const eye = fc.record({
      x: fc.integer({ min: -16, max: 32 }).map((n) => n / 2),
      y: fc.integer({ min: -16, max: 24 }).map((n) => n / 2),
      z: fc.integer({ min: 0, max: 40 }).map((n) => n * 1.6),
    });
    let through = 0;
    fc.assert(
      fc.property(
        fc.array(column, { minLength: 48, maxLength: 48 }),
        fc.array(eye, { maxLength: 4 }),
        (columns, eyes) => {
          const heights = Float64Array.from(columns, ({ height }) => 3.2 * height);
          const voids = new Map(
            columns.flatMap(({ height, open }, i) => {
              // Up to two open stretches with solid between them and over them.
              const [a, b, c, e] = open.toSorted((one, other) => one - other).map((n) => 3.2 * n);
              const stretches = [
                { from: a, to: b },
                { from: c, to: e },
              ].filter(({ from, to }) => to > from && to < 3.2 * height);
              return stretches.length === 0 || b === c ? [] : [[i, stretches] as const];
            }),
          );
          const field = { w: 8, d: 6, heights, voids };
          const counts = countsOf(field, eyes);
          expect(counts).toEqual(slowSeenCounts(field, eyes));
          const closed = countsOf({ ...field, voids: undefined }, eyes);
          if (counts.some((count, i) => count > closed[i])) through++;
        },
      ),
      { numRuns: runs(300) },
    );
    expect(through).toBeGreaterThan(30);
  });
  test('the first column in the way of any point, within the field or outside it, is one that hides it; without one none does', () => {
    const at = fc.integer({ min: -6, max: 22 }).map((n) => n / 2);
    const z = fc.integer({ min: 0, max: 20 }).map((n) => n * 1.6);
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -1, max: 8 }), { minLength: 48, maxLength: 48 }),
        fc.record({ x: at, y: at, z }),
        fc.record({
          x: fc.integer({ min: -9000, max: 18_000 }).map((n) => n / 1000),
          y: at,
          z: z.map((n) => 2 * n),
        }),
        (values, point, eye) => {
          const field = {
            ...{ w: 8, d: 6 },
            heights: Float64Array.from(values, (plates) => (plates < 0 ? NaN : plates * 3.2)),
          };
          fc.pre(Math.hypot(point.x - eye.x, point.y - eye.y) > 0.01);
          const hiding = values.flatMap((_, j) => (columnHides(field, j, point, eye) ? [j] : []));
          const found = firstHider(field, peaksOf(field), point, eye);
          if (found === FREE) expect(hiding).toEqual([]);
          else expect(hiding).toContain(found);
        },
      ),
      { numRuns: runs(2000) },
    );
  });
});
