/**
 * The order of files of tests: the longest ones first, so that no worker is left alone with one at the end. Jest knows how
 * long they take only where they have run before, and goes by their size on a fresh clone.
 */
import Sequencer from '@jest/test-sequencer';

/** By their end, longest first: files that take more than half a minute. */
const LONGEST = [
  ...['e2e/pages.test.ts', 'e2e/journeys.test.ts', 'e2e/crew.test.ts', 'e2e/people.test.ts'],
  ...['server/test/sheets.test.ts', 'server/test/hostile.test.ts', 'server/test/crew.test.ts'],
  ...['apps/cli/src/cli.test.ts', 'server/test/faults.test.ts'],
];

export default class LongestFirst extends Sequencer {
  sort(tests) {
    const rank = ({ path }) => {
      const at = LONGEST.findIndex((end) => path.endsWith(end));
      return at < 0 ? LONGEST.length : at;
    };
    return super.sort(tests).toSorted((a, b) => rank(a) - rank(b));
  }
}
