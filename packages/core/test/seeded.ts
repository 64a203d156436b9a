// fast-check as Jest gives it to tests: the same random runs in each `npm test`, so that a change fails by what it changed.
// `npm run soak` tries new seeds, with many more runs; a failure there prints its seed.
import fc from '../../../node_modules/fast-check/lib/cjs/fast-check.js';
import { isSoak } from './runs.ts';

if (!isSoak) fc.configureGlobal({ seed: 20260901 });

export default fc;
