/**
 * `npm run check`: what has changed since the last commit, in half a minute: types, the rules and the format of the
 * changed files, the tests in their folders. The server's and the browser's tests run when they themselves have changed.
 */
import { execFileSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { ROOT, install, script, together } from './prepare.mjs';

install();
const began = Date.now();
const git = (...args) =>
  execFileSync('git', args, { cwd: ROOT, encoding: 'utf8' })
    .split('\n')
    .filter((path) => path !== '' && existsSync(join(ROOT, path)));
const changed = [
  ...new Set([...git('diff', '--name-only', 'HEAD'), ...git('ls-files', '--others', '--exclude-standard')]),
];
const code = changed.filter((path) => /\.(ts|tsx|mjs|cjs)$/.test(path));
/** What the rules with types look at: see oxlint.types.json. */
const typed = code.filter(
  (path) => /^(packages|apps)\/[^/]+\/src\//.test(path) && !/\.test\.tsx?$/.test(path),
);
const beside = (path) =>
  readdirSync(join(ROOT, dirname(path)))
    .filter((name) => /\.test\.tsx?$/.test(name))
    .map((name) => join(dirname(path), name));
const tests = [...new Set(code.flatMap((path) => (/\.test\.tsx?$/.test(path) ? [path] : beside(path))))];

const bin = (name) => join(ROOT, 'node_modules', '.bin', name);
process.env.QUARRY_EXTENT = 'check';
const failed = await together({
  types: script('typecheck'),
  ...(code.length > 0 ? { rules: script('lint:rules') } : {}),
  ...(typed.length > 0
    ? { typed: [bin('oxlint'), '--type-aware', '-c', 'oxlint.types.json', ...typed] }
    : {}),
  ...(changed.length > 0
    ? { format: [bin('oxfmt'), '--check', '--no-error-on-unmatched-pattern', ...changed] }
    : {}),
  ...(tests.length > 0 ? { tests: [bin('jest'), '--silent', '--runTestsByPath', ...tests] } : {}),
});
process.stderr.write(
  `${changed.length} changed files, ${tests.length} files of tests: ${failed.length === 0 ? 'good' : `failed: ${failed.join(', ')}`} (${Math.round((Date.now() - began) / 1000)} s)\n`,
);
process.exitCode = failed.length === 0 ? 0 : 1;
