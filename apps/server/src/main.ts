import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { backupStore, restoreStore } from './store/copies.ts';
import { StoreError } from './store/database.ts';

const HERE = dirname(fileURLToPath(import.meta.url));
const ROOT = join(HERE, '..', '..', '..');

const USAGE = `Open Quarry server

  --port 4310       port to listen on
  --host 127.0.0.1  address to listen on
  --data .data/main folder of the database
  --host-name NAMES names under which browsers ask for it, besides localhost and addresses, with commas between them
  --behind-proxy    it stands behind one proxy that speaks TLS: cookies are Secure, and the proxy says who asks
  --demo            seed and serve the demo, with one-click sign-in
  --backup FILE     copy the database of --data to FILE and end; a server may be running
  --restore FILE    put the copy FILE in the place of the database of --data and end; no server may be running
  --copies 7        how many copies stay in the folder “copies” beside the database; 0: make none
  --copy-every 24   hours from one copy to the next
`;

const OPTIONS = {
  port: { type: 'string', default: '4310' },
  host: { type: 'string', default: '127.0.0.1' },
  data: { type: 'string' },
  'host-name': { type: 'string', default: '' },
  'behind-proxy': { type: 'boolean', default: false },
  demo: { type: 'boolean', default: false },
  backup: { type: 'string' },
  restore: { type: 'string' },
  copies: { type: 'string', default: '7' },
  'copy-every': { type: 'string', default: '24' },
  help: { type: 'boolean', default: false },
} as const;

/** @throws StoreError naming an option that there is not, or one without its value */
function optionsGiven() {
  try {
    return parseArgs({ options: OPTIONS }).values;
  } catch (error) {
    throw new StoreError(`${error instanceof Error ? error.message : String(error)}\n\n${USAGE}`);
  }
}

async function main(): Promise<void> {
  const values = optionsGiven();
  if (values.help) {
    process.stdout.write(USAGE);
    return;
  }
  const data = resolve(values.data ?? join(ROOT, '.data', values.demo ? 'demo' : 'main'));
  const database = join(data, 'quarry.sqlite');
  if (values.backup !== undefined) {
    backupStore(database, resolve(values.backup));
    process.stdout.write(`Copied ${database} to ${resolve(values.backup)}.\n`);
    return;
  }
  const migrations = join(HERE, '..', 'drizzle');
  if (values.restore !== undefined) {
    const aside = restoreStore(resolve(values.restore), database, migrations, new Date());
    process.stdout.write(
      `Restored ${database} from ${resolve(values.restore)}.${aside ? ` What stood there is kept as ${aside}.` : ''}\n`,
    );
    return;
  }
  const port = wholeNumber('port', values.port, 0, 65_535);
  const copies = wholeNumber('copies', values.copies, 0, 1000);
  const copyEvery = wholeNumber('copy-every', values['copy-every'], 1, 24 * 365);

  // Only now: what is asked for wrongly is told before all of the server is read.
  const { serve } = await import('./serve.ts');
  await serve(
    {
      database,
      migrations,
      worker: join(HERE, 'sheets.worker.js'),
      fonts: join(ROOT, 'node_modules'),
      web: join(ROOT, 'apps', 'web', 'dist'),
      demo: values.demo,
      hosts: values['host-name']
        .split(',')
        .map((name) => name.trim().toLowerCase())
        .filter((name) => name !== ''),
      behindProxy: values['behind-proxy'],
      signInLimit: 10,
      logLevel: process.env.LOG_LEVEL ?? 'warn',
    },
    { port, host: values.host, demoFiles: join(ROOT, 'demo'), copies, copyEvery },
  );
}

/** @throws StoreError naming the option, its value and the limits */
function wholeNumber(option: string, text: string, least: number, most: number): number {
  const value = Number(text);
  if (!Number.isInteger(value) || value < least || value > most)
    throw new StoreError(`--${option} ${text}: it is a whole number from ${least} to ${most}.`);
  return value;
}

main().catch((error: unknown) => {
  process.stderr.write(
    `${error instanceof StoreError ? error.message : error instanceof Error ? error.stack : String(error)}\n`,
  );
  process.exit(1);
});
