import fc from 'fast-check';
import { intersection, type Rect } from '../grid/index.ts';
import { runs } from '../../test/runs.ts';
import { CELL } from './problem.ts';
import { baseGround, maskOf, withRim } from './rim.ts';

// Ground that bases of 8 studs cannot cover, against looks at each stud.

const rect = fc.record({
  x: fc.integer({ min: -6, max: 30 }),
  y: fc.integer({ min: -6, max: 30 }),
  w: fc.integer({ min: 1, max: 40 }),
  d: fc.integer({ min: 1, max: 40 }),
});
const isIn = (x: number, y: number) => (one: Rect) =>
  x >= one.x && y >= one.y && x < one.x + one.w && y < one.y + one.d;
/** The studs of some ground, as words. */
const studsOf = (parts: readonly Rect[]) => {
  const studs = new Set<string>();
  for (const { x, y, w, d } of parts)
    for (let row = y; row < y + d; row++)
      for (let column = x; column < x + w; column++) studs.add(`${column} ${row}`);
  return studs;
};

describe('a lattice of bases on any ground', () => {
  test('by hand: 20 × 17 studs hold two by two cells, begun in the corner; 4 studs are left in the east, 1 in the south', () => {
    const ground = baseGround(maskOf([{ x: 3, y: 5, w: 20, d: 17 }]));
    expect(ground.origin).toEqual({ x: 3, y: 5 });
    expect(ground.region).toEqual([{ x: 0, y: 0, w: 16, d: 16 }]);
    expect([ground.rim, ground.wide]).toEqual([20 * 17 - 256, { x: 4, y: 1 }]);
  });
  test('an L whose arm is shifted by 4 studs: no lattice covers both, the better one is taken', () => {
    // 32 × 16 over 32 × 8, four studs to the east: eight cells of the first, or three and six of the other lattice.
    const ground = baseGround(
      maskOf([
        { x: 0, y: 0, w: 32, d: 16 },
        { x: 4, y: 16, w: 32, d: 8 },
      ]),
    );
    expect(ground.region.reduce((sum, { w, d }) => sum + (w * d) / 64, 0)).toBe(8 + 3);
  });
  test('no other lattice holds more whole cells, and none of what it holds is off the ground (property)', () => {
    fc.assert(
      fc.property(fc.array(rect, { minLength: 1, maxLength: 3 }), (parts) => {
        const mask = maskOf(parts);
        const { origin, region, rim } = baseGround(mask);
        const studs = studsOf(parts);
        const cells = (fromX: number, fromY: number) => {
          let count = 0;
          for (let y = fromY; y + CELL <= mask.y + mask.d; y += CELL)
            for (let x = fromX; x + CELL <= mask.x + mask.w; x += CELL) {
              let isFull = true;
              for (let row = y; row < y + CELL && isFull; row++)
                for (let column = x; column < x + CELL && isFull; column++)
                  isFull = studs.has(`${column} ${row}`);
              if (isFull) count++;
            }
          return count;
        };
        let most = 0;
        for (let dy = 0; dy < CELL; dy++)
          for (let dx = 0; dx < CELL; dx++) most = Math.max(most, cells(mask.x + dx, mask.y + dy));
        const held = region.map((one) => ({ ...one, x: one.x + origin.x, y: one.y + origin.y }));
        const covered = studsOf(held);
        expect(covered.size).toBe(held.reduce((sum, { w, d }) => sum + w * d, 0));
        expect([...covered].every((stud) => studs.has(stud))).toBe(true);
        expect(covered.size).toBe(most * CELL * CELL);
        expect(rim).toBe(studs.size - covered.size);
      }),
      { numRuns: runs(120) },
    );
  });
});

test('modules grow to the edge within their limits, what is left becomes strips: each stud once, none twice (property)', () => {
  const limits = { long: 28, short: 20 };
  fc.assert(
    fc.property(fc.array(rect, { minLength: 1, maxLength: 3 }), (parts) => {
      const mask = maskOf(parts);
      const { origin, region } = baseGround(mask);
      const modules = region.flatMap(({ x, y, w, d }) => {
        const cells: (Rect & { bases: Rect[] })[] = [];
        for (let row = y; row < y + d; row += 2 * CELL)
          for (let column = x; column < x + w; column += 2 * CELL) {
            const module = {
              ...{ x: column + origin.x, y: row + origin.y },
              w: Math.min(2 * CELL, x + w - column),
              d: Math.min(2 * CELL, y + d - row),
            };
            cells.push({ ...module, bases: [module] });
          }
        return cells;
      });
      const after = withRim(modules, mask, limits);
      const studs = studsOf(parts);
      const covered = studsOf(after);
      expect(covered).toEqual(studs);
      expect(after.reduce((sum, { w, d }) => sum + w * d, 0)).toBe(studs.size);
      after.forEach((one, i) => {
        expect(Math.max(one.w, one.d)).toBeLessThanOrEqual(limits.long);
        expect(Math.min(one.w, one.d)).toBeLessThanOrEqual(limits.short);
        const before = modules[i];
        // A strip of plates alone, or a module that holds what it was.
        if (!before) return expect(one.bases).toEqual([]);
        expect(intersection(one, before)).toMatchObject({ w: before.w, d: before.d });
        expect(one.bases).toEqual(before.bases);
        for (const by of [before.x - one.x, before.y - one.y]) expect(by).toBeLessThan(CELL);
      });
      expect(after.every((one) => parts.some(isIn(one.x, one.y)))).toBe(true);
    }),
    { numRuns: runs(120) },
  );
});
