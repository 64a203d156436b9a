/**
 * `npm test`: types beside lint and a fresh build, then the core, the pages and the server over real HTTP, then every page
 * and the shortest ways through in a browser. `npm test -- --all` walks all journeys (e2e/further) and looks at every sheet on
 * every screen and paper: what has to hold before something lands. Other arguments go to Jest, which runs once then:
 * `npm test -- --selectProjects core`.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT, install, run, script, together } from './prepare.mjs';

const began = Date.now();
const step = (name) => process.stderr.write(`\n── ${name} (${Math.round((Date.now() - began) / 1000)} s)\n`);
const args = process.argv.slice(2).filter((arg) => arg !== '--all');
const isAll = args.length > 0 || process.argv.includes('--all');
process.env.QUARRY_EXTENT = isAll ? 'all' : 'test';

function ensureChromium() {
  const places = JSON.parse(readFileSync(join(ROOT, 'scripts', 'chromium.json'), 'utf8'));
  if (places.some((path) => existsSync(path))) return;
  if (process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) {
    process.stderr.write(
      'The browser tests need Chromium: install it (on Debian: apt-get install chromium-headless-shell) and run this again.\n',
    );
    process.exit(1);
  }
  process.stderr.write('Installing Chromium …\n');
  run('apt-get', ['update', '-qq'], { quiet: true });
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium-headless-shell'], {
    quiet: true,
  });
}

install();
ensureChromium();
step(`types, lint (the rules, the format, the stair${isAll ? ', nothing unread or unused' : ''}) and build`);
const failed = await together({
  types: script('typecheck'),
  rules: script('lint:rules'),
  house: script('lint:house'),
  ...(isAll ? { unused: script('lint:unused') } : {}),
  build: [process.execPath, join(ROOT, 'scripts', 'build.mjs'), 'web', 'server', 'cli'],
});
if (failed.length > 0) process.exit(1);

/** What hangs is ended, ms: an hour is several times what a busy machine takes for either part. */
const LONGEST_MS = 3_600_000;

/** Runs Jest once. @returns how many tests passed and failed, and its exit code */
function jest(...more) {
  const folder = mkdtempSync(join(tmpdir(), 'quarry-test-'));
  const report = join(folder, 'report.json');
  const { status } = spawnSync(
    process.execPath,
    [join(ROOT, 'node_modules', 'jest', 'bin', 'jest.js'), '--json', `--outputFile=${report}`, ...more],
    { cwd: ROOT, stdio: ['inherit', 'ignore', 'inherit'], timeout: LONGEST_MS },
  );
  const { numPassedTests, numFailedTests } = existsSync(report)
    ? JSON.parse(readFileSync(report, 'utf8'))
    : { numPassedTests: 0, numFailedTests: 0 };
  rmSync(folder, { recursive: true, force: true });
  return { passed: numPassedTests, failed: numFailedTests, status: status ?? 1 };
}

// Journeys wait for a browser that answers: nothing else computes beside them.
const parts =
  args.length > 0
    ? [args]
    : [
        ['--selectProjects', 'core', 'web', 'components', 'server'],
        ['--selectProjects', 'browser'],
      ];
const results = parts.map((part) => {
  step(args.length > 0 ? 'tests' : part.slice(1).join(', '));
  return jest(...part);
});
step('done');
const sum = (of) => results.reduce((all, result) => all + result[of], 0);
process.stdout.write(`${sum('passed')} passed, ${sum('failed')} failed\n`);
process.exitCode = results.find(({ status }) => status !== 0)?.status ?? 0;
