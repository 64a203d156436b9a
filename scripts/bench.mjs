/** `npm run bench [-- cut server web]`: a table of measured figures beside their aims. */
import { build, run } from './prepare.mjs';

build('web', 'server');
run(process.execPath, [
  'node_modules/vite/bin/vite.js',
  'build',
  '--config',
  'bench/vite.config.ts',
  '--logLevel',
  'warn',
]);
run(process.execPath, ['node_modules/.cache/bench/main.mjs', ...process.argv.slice(2)]);
