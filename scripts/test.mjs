/**
 * `npm test`: everything that must hold. Lint and types, a fresh build, then the core, the server over real HTTP and
 * the browser's journeys. Arguments go to Jest: `npm test -- --selectProjects core`.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT, build, install, run } from './prepare.mjs';

const began = Date.now();
const step = (name) => process.stderr.write(`\n── ${name} (${Math.round((Date.now() - began) / 1000)} s)\n`);
const npm = (...args) => run('npm', ['run', '--silent', ...args]);
const args = process.argv.slice(2);

function ensureChromium() {
  if (['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'].some(existsSync)) return;
  if (process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) {
    process.stderr.write(
      'The browser tests need Chromium: install it (on Debian: apt-get install chromium) and run this again.\n',
    );
    process.exit(1);
  }
  process.stderr.write('Installing Chromium …\n');
  run('apt-get', ['update', '-qq'], { quiet: true });
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], { quiet: true });
}

install();
ensureChromium();
step('lint: the rules, the format, the stair, nothing unused');
npm('lint');
step('types');
npm('typecheck');
step('build');
build('web', 'server', 'cli');
step('tests');
const folder = mkdtempSync(join(tmpdir(), 'quarry-test-'));
const report = join(folder, 'report.json');
const { status } = spawnSync(
  process.execPath,
  [join(ROOT, 'node_modules', 'jest', 'bin', 'jest.js'), '--json', `--outputFile=${report}`, ...args],
  {
    cwd: ROOT,
    stdio: ['inherit', 'ignore', 'inherit'],
  },
);
if (existsSync(report)) {
  const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(report, 'utf8'));
  step('done');
  process.stdout.write(`${numPassedTests} passed, ${numFailedTests} failed\n`);
}
rmSync(folder, { recursive: true, force: true });
process.exitCode = status ?? 1;
