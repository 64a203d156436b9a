/** `npm run backup -- copy.sqlite [--data folder]`: a whole copy of the database, while the server runs. */
import { resolve } from 'node:path';
import { build, hand } from './prepare.mjs';

const [target, ...rest] = process.argv.slice(2);
if (!target || target.startsWith('--')) {
  process.stderr.write('Name the file to copy to: npm run backup -- copy.sqlite\n');
  process.exit(2);
}
build('server');
hand('apps/server/dist/main.js', ['--backup', resolve(target), ...rest]);
