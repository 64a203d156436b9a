import fc from 'fast-check';
import { randomDisplays } from '../../test/randomDisplays.ts';
import { evaluateRules } from './index.ts';
import { runs } from '../../test/runs.ts';

// A finding is kept by its key: two findings of one key would be kept, and forgotten, as one.

test('no two findings of a random display have one key', () => {
  fc.assert(
    fc.property(randomDisplays, (scene) => {
      const seen = new Set<string>();
      for (const { key, sentence } of evaluateRules(scene, { today: '2031-06-01' })) {
        expect([seen.has(key), key, sentence]).toEqual([false, key, sentence]);
        seen.add(key);
      }
    }),
    { numRuns: runs(25) },
  );
});
