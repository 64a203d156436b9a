/** `npm run -s quarry -- <verb> …`: a stage of the core on open files. */
import { build, hand } from './prepare.mjs';

build('cli');
hand('apps/cli/dist/main.js', process.argv.slice(2));
