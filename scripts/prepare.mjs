/**
 * What every command does first, with nothing but Node: install what is missing, build what is stale.
 * Both are skipped when a stamp in dist says that nothing has changed since.
 */
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..');
const NPM = process.platform === 'win32' ? 'npm.cmd' : 'npm';

/** Runs a command in the project's folder; ends this process with its code when it fails. */
export function run(command, args, { quiet = false } = {}) {
  const { status, stdout, stderr, error } = spawnSync(command, args, {
    cwd: ROOT,
    stdio: quiet ? 'pipe' : 'inherit',
    encoding: 'utf8',
  });
  if (status === 0) return;
  if (quiet) process.stderr.write(`${stdout ?? ''}${stderr ?? ''}`);
  process.stderr.write(`\n${command} ${args.join(' ')} failed${error ? `: ${error.message}` : ''}.\n`);
  process.exit(status ?? 1);
}

/**
 * Runs commands in the project's folder at the same time. What one prints is shown when it has failed, so that two never
 * mix.
 * @param commands each with its arguments
 * @returns the names of those that failed
 */
export async function together(commands) {
  const failed = [];
  await Promise.all(
    Object.entries(commands).map(
      ([name, [command, ...args]]) =>
        new Promise((resolve) => {
          const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
          let output = '';
          child.stdout.on('data', (chunk) => (output += chunk));
          child.stderr.on('data', (chunk) => (output += chunk));
          child.on('error', (error) => (output += error.message));
          child.on('close', (status) => {
            if (status !== 0) {
              failed.push(name);
              process.stderr.write(`\n${name} failed:\n${output}\n`);
            }
            resolve();
          });
        }),
    ),
  );
  return failed;
}

/** An npm script as a command for `together`. */
export const script = (name, ...args) => [NPM, 'run', '--silent', name, ...args];

function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major > 20 || (major === 20 && minor >= 19)) return;
  process.stderr.write(`Open Quarry needs Node 20.19 or newer; this is ${process.versions.node}.\n`);
  process.exit(1);
}

/** Installs exactly what the lock file says, when it is not there or the lock file has changed. */
export function install() {
  checkNode();
  const stamp = join(ROOT, 'node_modules', '.lock-hash');
  const hash = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return;
  process.stderr.write('Installing packages …\n');
  run(NPM, ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { quiet: true });
  writeFileSync(stamp, hash);
}

function* files(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (['node_modules', 'dist', '.git', '.data'].includes(entry.name)) continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* files(path);
    else yield path;
  }
}

/** What an app reads of another: the styles of the pages are made for the public page too. */
const ALSO = { web: ['server/src/share'] };

/** Builds the named apps whose sources have changed since their last build. */
export function build(...apps) {
  install();
  const shared = createHash('sha256');
  for (const path of [...files(join(ROOT, 'packages')), join(ROOT, 'package-lock.json')])
    shared.update(`${path} ${statSync(path).size} `).update(readFileSync(path));
  const common = shared.digest('hex');
  for (const app of apps) {
    const hash = createHash('sha256').update(common);
    for (const folder of [app, ...(ALSO[app] ?? [])])
      for (const path of files(join(ROOT, 'apps', folder))) hash.update(readFileSync(path));
    const digest = hash.digest('hex');
    const stamp = join(ROOT, 'apps', app, 'dist', '.source-hash');
    if (existsSync(stamp) && readFileSync(stamp, 'utf8') === digest) continue;
    process.stderr.write(`Building apps/${app} …\n`);
    run(NPM, ['run', 'build', '-w', `apps/${app}`, '--silent'], { quiet: true });
    mkdirSync(dirname(stamp), { recursive: true });
    writeFileSync(stamp, digest);
  }
}

/** Hands over to a built program with its arguments, signals and exit code. */
export function hand(program, args) {
  const { status, signal } = spawnSync(process.execPath, [join(ROOT, program), ...args], {
    stdio: 'inherit',
  });
  process.exitCode = status ?? (signal ? 1 : 0);
}
