import { randomUUID } from 'node:crypto';
import { cpSync, existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import 'reflect-metadata';
import { createApp, type Running } from '../src/app.ts';
import type { Config } from '../src/config.ts';
import { DemoService } from '../src/demo/demo.service.ts';

// Real HTTP against a real SQLite file, in a folder of its own.

const FONTS = join(__dirname, '../../../node_modules');
/** As `buildWorker.mjs` left it. */
const WORKER = join(__dirname, '../node_modules/.worker/sheets.worker.js');
export const MIGRATIONS = join(__dirname, '..', 'drizzle');
const DEMO = join(__dirname, '..', '..', '..', 'demo');

export interface Answer {
  status: number;
  body: Record<string, unknown>;
}
/** Somebody with a cookie jar of one cookie. */
export interface Client {
  (method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<Answer>;
  cookie: string;
}

export function clientOf(url: () => string): Client {
  const client: Client = Object.assign(
    async (method: string, path: string, body?: unknown, headers: Record<string, string> = {}) => {
      const response = await fetch(url() + path, {
        method,
        headers: {
          cookie: client.cookie,
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
          ...headers,
        },
        ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
      });
      const [cookie] = response.headers.getSetCookie();
      if (cookie) client.cookie = cookie.split(';')[0];
      const text = await response.text();
      return {
        status: response.status,
        body: text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : { text },
      };
    },
    { cookie: '' },
  );
  return client;
}

/** A folder with servers in it, and what tests ask of them. */
export class Harness {
  readonly folder = mkdtempSync(join(tmpdir(), 'quarry-server-'));
  running: Running | null = null;
  url = '';

  config(name: string, more: Partial<Config> = {}): Config {
    const database = join(this.folder, name, 'quarry.sqlite');
    return {
      database,
      migrations: MIGRATIONS,
      fonts: FONTS,
      worker: WORKER,
      web: null,
      demo: true,
      hosts: [],
      behindProxy: false,
      signInLimit: 5,
      logLevel: 'silent',
      ...more,
    };
  }

  /** Starts a server; the caller closes it. */
  async listen(settings: Config): Promise<{ running: Running; url: string }> {
    const running = await createApp(settings);
    await running.app.listen(0, '127.0.0.1');
    return { running, url: await running.app.getUrl() };
  }

  /** Starts, or starts again, the demo server that `url` and `as` speak to. */
  async start(more: Partial<Config> = {}): Promise<void> {
    await this.running?.close();
    const main = join(this.folder, 'main');
    if (!existsSync(main)) cpSync(await this.seeded(), main, { recursive: true });
    Object.assign(this, await this.listen(this.config('main', more)));
  }

  /** The folder of a server that was closed with the demo in it: seeded once, copied for each that begins again. */
  private async seeded(): Promise<string> {
    const folder = join(this.folder, 'seeded');
    if (!existsSync(folder)) {
      const running = await createApp(this.config('seeded'));
      await running.app.get(DemoService).seed(DEMO, new Date('2031-05-01T12:00:00Z'));
      await running.close();
    }
    return folder;
  }

  async stop(): Promise<void> {
    await this.running?.close();
    this.running = null;
  }

  /** Throws the demo's data away and seeds it again. */
  async reseed(more: Partial<Config> = {}): Promise<void> {
    await this.stop();
    rmSync(join(this.folder, 'main'), { recursive: true, force: true });
    await this.start(more);
  }

  async end(): Promise<void> {
    await this.running?.close();
    rmSync(this.folder, { recursive: true, force: true });
  }

  async as(login: string): Promise<Client> {
    const client = clientOf(() => this.url);
    expect((await client('POST', '/api/demo/session', { login })).status).toBe(200);
    return client;
  }
}

export async function displayOf(client: Client, name: string): Promise<string> {
  const { body } = await client('GET', '/api/displays');
  const line = (Object.values(body) as { id: string; name: string }[]).find((entry) => entry.name === name);
  if (!line) throw new Error(`no ${name}`);
  return line.id;
}
export const valleyOf = (client: Client) => displayOf(client, 'Skarn Edge');

/** A vignette of 16 × 16 studs, a brick high. */
export const SMALL_START = { kind: 'vignette', w: 16, d: 16, isLimit: true, deck: 3 } as const;

/** Whoever joins by a link and has no account yet. */
export const newcomer = (login: string) => ({ login, name: 'Nell Hythe', password: 'a long enough one' });
/** A small display of somebody's own. @returns its id */
export const newDisplay = async (owner: Client, name: string): Promise<string> =>
  String((await owner('POST', '/api/displays', { name, start: SMALL_START })).body.id);

/** A link by which somebody may join a display. */
export const invite = async (owner: Client, id: string, more: object = {}) => {
  const { body } = await owner('POST', `/api/displays/${id}/invitations`, { role: 'builder', ...more });
  return { token: String(body.token), id: String(body.id) };
};

export type Row = { kind: string; id: string; v: number; data: Record<string, unknown> | null };
export async function rowOf(
  client: Client,
  id: string,
  kind: string,
  entity: string,
): Promise<Row | undefined> {
  const { body } = await client('GET', `/api/displays/${id}`);
  return (body.rows as Row[]).find((row) => row.kind === kind && row.id === entity);
}
export const batch = (...changes: object[]) => ({ id: randomUUID(), label: 'test', changes });
export const patch = (kind: string, id: string, v: number, set: object) => ({
  op: 'patch',
  kind,
  id,
  v,
  set,
});

/** A window that listens to an event stream. */
export interface Ear {
  /** What was heard, in order: the event's name (`message` for batches), its number and its data. */
  heard: { event: string; id: number | null; data: unknown }[];
  /** Waits until something like this has been heard. @throws after five seconds */
  until(like: (one: { event: string; data: unknown }) => boolean): Promise<void>;
  /** Whether the server has ended the stream. */
  ended: boolean;
  close(): void;
}

export async function listen(client: Client, url: string): Promise<Ear> {
  const abort = new AbortController();
  const answer = await fetch(url, { headers: { cookie: client.cookie }, signal: abort.signal });
  if (!answer.ok || !answer.body) throw new Error(`the stream answered ${answer.status}`);
  const ear: Ear = {
    heard: [],
    ended: false,
    close: () => abort.abort(),
    async until(like) {
      for (let i = 0; i < 500 && !ear.heard.some(like); i++) await new Promise((go) => setTimeout(go, 10));
      if (!ear.heard.some(like))
        throw new Error(`not heard; only ${JSON.stringify(ear.heard).slice(0, 500)}`);
    },
  };
  const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader();
  const read = async () => {
    let text = '';
    for (;;) {
      const { value, done } = await reader.read();
      if (done) break;
      text += value;
      const blocks = text.split('\n\n');
      text = blocks.pop() ?? '';
      for (const block of blocks) {
        const field = (name: string) => new RegExp(`^${name}: (.*)$`, 'm').exec(block)?.[1];
        const data = field('data');
        if (data === undefined) continue;
        const id = field('id');
        ear.heard.push({
          event: field('event') ?? 'message',
          id: id === undefined ? null : Number(id),
          data: JSON.parse(data),
        });
      }
    }
    ear.ended = true;
  };
  read().catch(() => (ear.ended = true));
  return ear;
}
