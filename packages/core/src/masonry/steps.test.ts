import fc from 'fast-check';
import { compile } from '../terrain/index.ts';
import { randomDisplays } from '../../test/randomDisplays.ts';
import { CountCache, buildSteps, builtBlocks, laidBelow, markOf, stepCounts } from './index.ts';
import { runs } from '../../test/runs.ts';

test('every counted piece is laid in one step, once: lines and steps add up to the count of each block', () => {
  fc.assert(
    fc.property(randomDisplays, (scene) => {
      const compiled = compile(scene);
      const count = new CountCache().count(scene, compiled);
      if (!count) throw new Error('the count was ended');
      const tally = (lines: readonly { part: string; colour: string; qty: number }[]) => {
        const sums = new Map<string, number>();
        for (const { part, colour, qty } of lines)
          sums.set(`${part} ${colour}`, (sums.get(`${part} ${colour}`) ?? 0) + qty);
        return Object.fromEntries([...sums].sort(([a], [b]) => (a < b ? -1 : 1)));
      };
      for (const built of builtBlocks(scene, compiled, () => true)) {
        const steps = buildSteps(built);
        const counted = count.blocks.find(({ block }) => block.id === built.ground.block.id);
        const laid = steps.steps.flatMap(({ pieces }) => stepCounts(steps.lines, pieces));
        expect(tally(laid)).toEqual(tally(counted?.lines ?? []));
        expect(tally(steps.lines)).toEqual(tally(counted?.lines ?? []));
        // What a step is laid on stands already: nothing hangs in the air but what lies on the floor.
        steps.steps.forEach(({ z, pieces }, step) => {
          if (z === null || z === 0) return;
          const below = laidBelow(steps, step);
          for (const { x, y, w, d } of pieces)
            expect(
              below.some((b) => b.x < x + w && x < b.x + b.w && b.y < y + d && y < b.y + b.d) ||
                pieces.some((b) => b.z < z && b.x < x + w && x < b.x + b.w && b.y < y + d && y < b.y + b.d),
            ).toBe(true);
        });
      }
    }),
    { numRuns: runs(25) },
  );
});

test('marks: letters without I and O, then pairs of them, none twice', () => {
  expect([0, 7, 8, 23, 24, 47, 48].map(markOf)).toEqual(['A', 'H', 'J', 'Z', 'AA', 'AZ', 'BA']);
  expect(new Set(Array.from({ length: 700 }, (_, i) => markOf(i))).size).toBe(700);
});
