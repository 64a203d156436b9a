import fc from 'fast-check';
import { runs } from '../../test/runs.ts';
import { PAPERS } from './planLayout.ts';
import { BUILT_WAYS, ENLARGED_MARGIN, enlargedPages, enlargedTo, rowMm } from './enlarged.ts';

test('a drawing of 3 : 1 at 48 studs, by hand: 384 × 128 mm, 16 rows of studs, or 40 plates upright', () => {
  const drawing = { width: 900, height: 300 };
  expect(enlargedTo(drawing, 'lying', 48)).toEqual({
    ...{ way: 'lying', studs: 48, rows: 16, wMm: 384, dMm: 128 },
  });
  expect(enlargedTo(drawing, 'upright', 48)).toMatchObject({ rows: 40, dMm: 128 });
  // 384 × 100 / 300 = 128; 129 of 300 px are 165.12 mm, 51.6 plates: 52 rows hold it.
  expect(enlargedTo({ width: 300, height: 129 }, 'upright', 48).rows).toBe(52);
});
test('A4 takes 22 studs across, 31 rows of studs or 26 bricks down: 48 studs are three pages, 40 plates one row of them', () => {
  const { columns, lines, pages } = enlargedPages({ way: 'upright', studs: 48, rows: 40 }, 'a4');
  expect([columns, lines]).toEqual([3, 1]);
  expect(pages.map(({ stud, studs, from, rows }) => [stud, studs, from, rows])).toEqual([
    [0, 22, 0, 40],
    [22, 22, 0, 40],
    [44, 4, 0, 40],
  ]);
  expect(enlargedPages({ way: 'lying', studs: 22, rows: 32 }, 'a4').pages.map(({ rows }) => rows)).toEqual([
    31, 1,
  ]);
});
test('the pages hold each stud and row once, in whole bricks, and lie on their paper (property)', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...BUILT_WAYS),
      fc.constantFrom('a4' as const, 'letter' as const),
      fc.integer({ min: 1, max: 100 }),
      fc.integer({ min: 1, max: 200 }),
      (way, paper, studs, rows) => {
        const { pages } = enlargedPages({ way, studs, rows }, paper);
        const seen = new Uint8Array(studs * rows);
        for (const page of pages) {
          for (let y = 0; y < page.rows; y++)
            for (let x = 0; x < page.studs; x++) seen[(page.from + y) * studs + page.stud + x]++;
          if (way === 'upright') expect(page.from % 3).toBe(0);
          const { w: long, d: short } = PAPERS[paper];
          expect(page.studs * 8 + 2 * ENLARGED_MARGIN.side).toBeLessThanOrEqual(short);
          expect(page.rows * rowMm(way) + ENLARGED_MARGIN.top + ENLARGED_MARGIN.foot).toBeLessThanOrEqual(
            long + 1e-9,
          );
        }
        expect(seen.every((times) => times === 1)).toBe(true);
      },
    ),
    { numRuns: runs(40) },
  );
});
