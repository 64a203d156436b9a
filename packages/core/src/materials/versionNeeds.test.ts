import fc from 'fast-check';
import { runs } from '../../test/runs.ts';
import { needsOverVersions, swapBoxOf, type CountedPart } from './index.ts';

test('the most of each part, what only one version needs, and the swap box, by hand', () => {
  const needs = needsOverVersions([
    [
      { part: 'a', colour: 'moss', qty: 3 },
      { part: 'a', colour: 'moss', qty: 2 },
    ],
    [
      { part: 'a', colour: 'moss', qty: 4 },
      { part: 'b', colour: 'chalk', qty: 7 },
    ],
  ]);
  expect(needs).toEqual([
    { part: 'a', colour: 'moss', most: 5, by: [5, 4], only: null },
    { part: 'b', colour: 'chalk', most: 7, by: [0, 7], only: 1 },
  ]);
  expect(swapBoxOf(needs, 0)).toEqual([{ part: 'b', colour: 'chalk', qty: 7 }]);
  expect(swapBoxOf(needs, 1)).toEqual([{ part: 'a', colour: 'moss', qty: 1 }]);
});

test('no fewer pieces do for every version, by trying: with one less of any part one of them lacks it', () => {
  const line = fc.record({
    part: fc.constantFrom('a', 'b'),
    colour: fc.constantFrom('moss', 'chalk'),
    qty: fc.integer({ min: 0, max: 4 }),
  });
  fc.assert(
    fc.property(fc.array(fc.array(line, { maxLength: 5 }), { maxLength: 4 }), (versions) => {
      const needs = needsOverVersions(versions);
      const has = new Map(needs.map(({ part, colour, most }) => [`${part} ${colour}`, most]));
      const lacks = (stock: ReadonlyMap<string, number>) =>
        versions.some((list: readonly CountedPart[]) => {
          const left = new Map(stock);
          // Piece by piece out of the box.
          return list.some(({ part, colour, qty }) =>
            Array.from({ length: qty }).some(() => {
              const key = `${part} ${colour}`;
              const there = left.get(key) ?? 0;
              left.set(key, there - 1);
              return there < 1;
            }),
          );
        });
      expect(lacks(has)).toBe(false);
      for (const [key, most] of has) expect(lacks(new Map([...has, [key, most - 1]]))).toBe(true);
      versions.forEach((list, i) => {
        const needed = list.reduce((sum, { qty }) => sum + qty, 0);
        const boxed = swapBoxOf(needs, i).reduce((sum, { qty }) => sum + qty, 0);
        expect(needed + boxed).toBe([...has.values()].reduce((sum, most) => sum + most, 0));
      });
    }),
    { numRuns: runs(100) },
  );
});
