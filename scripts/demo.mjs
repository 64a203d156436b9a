/**
 * `npm run demo`: the demo displays and crew on one port. What one changes stays for the next start;
 * `npm run demo -- --fresh` begins again, as does a start two weeks after the last seeding (its dates would be stale).
 */
import { existsSync, renameSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, build, hand } from './prepare.mjs';

const FORTNIGHT_MS = 14 * 24 * 3_600_000;

const args = process.argv.slice(2);
const fresh = args.includes('--fresh');
build('web', 'server');

const folder = join(ROOT, '.data', 'demo');
if (!args.includes('--data') && existsSync(folder)) {
  const age = Date.now() - statSync(folder).birthtimeMs;
  // Set aside, never deleted: somebody may have built on it.
  if (fresh || age > FORTNIGHT_MS)
    renameSync(folder, `${folder}-before-${new Date().toISOString().replace(/[:.]/g, '-')}`);
}
hand('apps/server/dist/main.js', ['--demo', ...args.filter((arg) => arg !== '--fresh')]);
