import 'reflect-metadata';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { AccountsService } from './accounts/accounts.service.ts';
import { createApp } from './app.ts';
import { DemoService } from './demo/demo.service.ts';
import { backupStore, keepCopies, restoreStore } from './store/copies.ts';
import { StoreError } from './store/database.ts';

const HERE = dirname(fileURLToPath(import.meta.url));
const ROOT = join(HERE, '..', '..', '..');

const KEEP_ALIVE_MS = 65_000;

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

  const running = await createApp({
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
  });
  const { app } = running;
  if (values.demo) await app.get(DemoService).seed(join(ROOT, 'demo'), new Date());
  // A page that asks every twenty seconds keeps its line; a proxy's idle limit is usually a minute.
  app.getHttpServer().keepAliveTimeout = KEEP_ALIVE_MS;
  await app.listen(port, values.host).catch((error: unknown) => {
    throw new StoreError(notListening(error, port, values.host));
  });
  const address: unknown = app.getHttpServer().address();
  const bound =
    typeof address === 'object' && address !== null && 'port' in address ? Number(address.port) : port;
  const url = `http://${values.host === '0.0.0.0' || values.host === '127.0.0.1' ? 'localhost' : values.host}:${bound}`;
  process.stdout.write(`\nOpen Quarry is at ${url}\n`);
  if (values.demo)
    process.stdout.write('Demo: pick one of the crew on the first page; no password is needed.\n');
  else {
    const code = app.get(AccountsService).openSetup();
    if (code)
      process.stdout.write(
        `First start: make the first account at ${url}/setup with the one-time code ${code}\n`,
      );
  }

  // A demo is recreated at will: it needs no copies.
  if (!values.demo && copies > 0) scheduleCopies(database, join(data, 'copies'), copies, copyEvery);

  const stop = () => {
    process.off('SIGTERM', stop);
    process.off('SIGINT', stop);
    running.close().then(
      () => process.exit(0),
      () => process.exit(1),
    );
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
}

/** Why a port cannot be had, as a sentence. */
function notListening(error: unknown, port: number, host: string): string {
  const code = error instanceof Error && 'code' in error ? error.code : '';
  if (code === 'EADDRINUSE')
    return `Port ${port} of ${host} is in use: another program listens there. Choose another with --port.`;
  if (code === 'EACCES')
    return `Port ${port} may not be used by this account; choose one above 1023 with --port.`;
  return `${host}:${port} cannot be listened at: ${error instanceof Error ? error.message : String(error)}.`;
}

/** @throws StoreError naming the option, its value and the limits */
function wholeNumber(option: string, text: string, least: number, most: number): number {
  const value = Number(text);
  if (!Number.isInteger(value) || value < least || value > most)
    throw new StoreError(`--${option} ${text}: it is a whole number from ${least} to ${most}.`);
  return value;
}

/** Keeps copies of the database while the server runs. A failed copy is reported and tried again the next time. */
function scheduleCopies(database: string, folder: string, keep: number, hours: number): void {
  const copy = () => {
    try {
      keepCopies(database, folder, keep, new Date());
    } catch (error) {
      process.stderr.write(
        `No copy of the database was made: ${error instanceof Error ? error.message : String(error)}\n`,
      );
    }
  };
  copy();
  setInterval(copy, hours * 3_600_000).unref();
}

main().catch((error: unknown) => {
  process.stderr.write(
    `${error instanceof StoreError ? error.message : error instanceof Error ? error.stack : String(error)}\n`,
  );
  process.exit(1);
});
