/** `npm run bench [-- cut server web]`: a table of measured figures beside their aims. */
import { build, run } from './prepare.mjs';

build('web', 'server');
run(process.execPath, ['--import', 'tsx', 'bench/main.ts', ...process.argv.slice(2)]);
