import 'reflect-metadata';
import { dirname, join } from 'node:path';
import { AccountsService } from './accounts/accounts.service.ts';
import { createApp } from './app.ts';
import type { Config } from './config.ts';
import { DemoService } from './demo/demo.service.ts';
import { keepCopies } from './store/copies.ts';
import { StoreError } from './store/database.ts';

const KEEP_ALIVE_MS = 65_000;

/** What serving needs beside the settings of the app. */
interface Serving {
  port: number;
  host: string;
  /** Folder of the files that a demo is seeded from. */
  demoFiles: string;
  /** How many copies are kept; 0: none. */
  copies: number;
  /** Hours from one copy to the next. */
  copyEvery: number;
}

/**
 * Serves until it is told to stop, and prints where.
 * @throws StoreError when the port cannot be had or the database not be opened
 */
export async function serve(
  config: Config,
  { port, host, demoFiles, copies, copyEvery }: Serving,
): Promise<void> {
  const { demo, database } = config;
  const running = await createApp(config);
  const { app } = running;
  if (demo) await app.get(DemoService).seed(demoFiles, new Date());
  // A page that asks every twenty seconds keeps its line; a proxy's idle limit is usually a minute.
  app.getHttpServer().keepAliveTimeout = KEEP_ALIVE_MS;
  await app.listen(port, host).catch((error: unknown) => {
    throw new StoreError(notListening(error, port, host));
  });
  const address: unknown = app.getHttpServer().address();
  const bound =
    typeof address === 'object' && address !== null && 'port' in address ? Number(address.port) : port;
  const url = `http://${host === '0.0.0.0' || host === '127.0.0.1' ? 'localhost' : host}:${bound}`;
  process.stdout.write(`\nOpen Quarry is at ${url}\n`);
  if (demo) process.stdout.write('Demo: pick one of the crew on the first page; no password is needed.\n');
  else {
    const code = app.get(AccountsService).openSetup();
    if (code)
      process.stdout.write(
        `First start: make the first account at ${url}/setup with the one-time code ${code}\n`,
      );
  }

  // A demo is recreated at will: it needs no copies.
  if (!demo && copies > 0) scheduleCopies(database, join(dirname(database), 'copies'), copies, copyEvery);

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
