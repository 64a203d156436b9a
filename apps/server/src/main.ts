import 'reflect-metadata';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { AccountsService } from './accounts/accounts.service.ts';
import { createApp } from './app.ts';
import { DemoService } from './demo/demo.service.ts';
import { StoreError, backupStore } from './store/database.ts';

const HERE = dirname(fileURLToPath(import.meta.url));
const ROOT = join(HERE, '..', '..', '..');

const USAGE = `Open Quarry server

  --port 4310       port to listen on
  --host 127.0.0.1  address to listen on
  --data .data/main folder of the database
  --demo            seed and serve the demo, with one-click sign-in
  --backup FILE     copy the database of --data to FILE and end
`;

async function main(): Promise<void> {
  const { values } = parseArgs({
    options: {
      port: { type: 'string', default: '4310' },
      host: { type: 'string', default: '127.0.0.1' },
      data: { type: 'string' },
      demo: { type: 'boolean', default: false },
      backup: { type: 'string' },
      help: { type: 'boolean', default: false },
    },
  });
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
  const port = Number(values.port);
  if (!Number.isInteger(port) || port < 0 || port > 65_535)
    throw new StoreError(`--port ${values.port}: a port is a whole number from 0 to 65535.`);

  const running = await createApp({
    database,
    migrations: join(HERE, '..', 'drizzle'),
    fonts: join(ROOT, 'node_modules', '@fontsource', 'archivo', 'files'),
    web: join(ROOT, 'apps', 'web', 'dist'),
    demo: values.demo,
    signInLimit: 10,
    logLevel: process.env.LOG_LEVEL ?? 'warn',
  });
  const { app } = running;
  if (values.demo) await app.get(DemoService).seed(join(ROOT, 'demo'), new Date());
  await app.listen(port, values.host);
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

main().catch((error: unknown) => {
  process.stderr.write(
    `${error instanceof StoreError ? error.message : error instanceof Error ? error.stack : String(error)}\n`,
  );
  process.exitCode = 1;
});
