/**
 * `npm run soak`: what takes too long for each change. Properties with twelve times their runs, ten thousand batches of
 * nonsense, a hundred power cuts, the rules that need types on all code. For a person before a release, or a night.
 */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT, build, install, script, together } from './prepare.mjs';

/** Longest that one property may take, ms: an hour. */
const LONGEST_MS = '3600000';

install();
const typed = await together({ typed: script('lint:types') });
build('web', 'server', 'cli');
const { status } = spawnSync(
  process.execPath,
  [
    join(ROOT, 'node_modules', 'jest', 'bin', 'jest.js'),
    ...['--testTimeout', LONGEST_MS, '--testPathPatterns', 'packages/', 'apps/web/', 'faults', 'power-cut'],
    ...process.argv.slice(2),
  ],
  { cwd: ROOT, stdio: 'inherit', env: { ...process.env, QUARRY_EXTENT: 'soak' } },
);
process.exitCode = (status ?? 1) || typed.length;
