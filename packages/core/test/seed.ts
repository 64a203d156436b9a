// Each file of tests sees the same random cases in each `npm test`, so that a change fails by what it changed. `npm run soak`
// tries new seeds, with many more runs; a failure there prints its seed.
import fc from 'fast-check';
import { isSoak } from './runs.ts';

if (!isSoak) fc.configureGlobal({ seed: 20260901 });
