/** Durable batches a second with 30 clients and what each waits. Talks only to a server it starts itself. */
import { randomUUID } from 'node:crypto';
import { Agent, request } from 'node:http';
import { z } from 'zod';
import { startServer } from '../e2e/stage.ts';
import type { Row } from './table.ts';

const CLIENTS = 30;
const SECONDS = 5;
/** Not counted: a server that has just started has not been compiled to speed yet. */
const WARM_UP_SECONDS = 2;
/** The load the design names, batches a second. */
const PACE = 300;

export async function benchServer(): Promise<Row[]> {
  const server = await startServer({ demo: true });
  try {
    const signIn = await fetch(`${server.url}/api/demo/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{"login":"iva"}',
    });
    const headers = {
      'content-type': 'application/json',
      cookie: signIn.headers.getSetCookie()[0].split(';')[0],
    };
    const load = async (perClientMs: number) => {
      const made = await fetch(`${server.url}/api/displays`, {
        method: 'POST',
        headers,
        body: '{"name":"Bench","start":{"kind":"city","w":288,"d":96}}',
      });
      const { id } = (await made.json()) as { id: string };
      return drive(`${server.url}/api/displays/${id}/batches`, headers, perClientMs);
    };
    const flatOut = await load(0);
    const paced = await load((CLIENTS * 1000) / PACE);
    const list = await longBatch(server.url);
    return [
      {
        what: `durable batches a second, ${CLIENTS} clients flat out`,
        measured: flatOut.length / SECONDS,
        unit: '/s',
        aim: PACE,
        better: 'more',
      },
      {
        what: `95th percentile of the wait at ${PACE} a second`,
        measured: percentile(paced, 0.95),
        unit: 'ms',
        aim: 60,
        better: 'less',
      },
      {
        what: '95th percentile of the wait flat out',
        measured: percentile(flatOut, 0.95),
        unit: 'ms',
        aim: 60,
        better: 'less',
      },
      {
        what: `${LONG.toLocaleString('en')} changes of a builder in one batch, acknowledged after`,
        measured: list.taken,
        unit: 'ms',
        aim: 1000,
        better: 'less',
      },
      {
        what: 'longest wait of others for a plain answer meanwhile',
        measured: list.others,
        unit: 'ms',
        aim: 100,
        better: 'less',
      },
    ];
  } finally {
    await server.remove();
  }
}

/** Thirty clients, each with its own plot, one change after the other. @returns the waits counted, ms, sorted */
async function drive(url: string, headers: Record<string, string>, perClientMs: number): Promise<number[]> {
  const times: number[] = [];
  const began = performance.now();
  const counted = began + WARM_UP_SECONDS * 1000;
  const end = counted + SECONDS * 1000;
  const client = async (n: number) => {
    const agent = new Agent({ keepAlive: true, maxSockets: 1 });
    const land = (changes: object[]) =>
      post(url, agent, headers, { id: randomUUID(), label: 'bench', changes });
    await land([
      { op: 'add', kind: 'plot', id: `plot-${n}`, data: { name: 'P', x: 0, y: 0, w: 8, d: 8, height: 9 } },
    ]);
    for (let v = 1; performance.now() < end; v++) {
      const due = began + (v + n / CLIENTS) * perClientMs;
      if (due > performance.now())
        await new Promise((resolve) => setTimeout(resolve, due - performance.now()));
      const sent = performance.now();
      await land([{ op: 'patch', kind: 'plot', id: `plot-${n}`, v, set: { x: v % 200 } }]);
      if (sent >= counted) times.push(performance.now() - sent);
    }
    agent.destroy();
  };
  await Promise.all(Array.from({ length: CLIENTS }, (_, n) => client(n)));
  return times.sort((a, b) => a - b);
}

/** The largest batch there is. */
const LONG = 5000;

/** A builder of the demo takes a long list of drawers in, and others ask for something small all the while. */
async function longBatch(url: string): Promise<{ taken: number; others: number }> {
  const json = { 'content-type': 'application/json' };
  const cookieOf = async (login: string) => {
    const answer = await fetch(`${url}/api/demo/session`, {
      method: 'POST',
      headers: json,
      body: JSON.stringify({ login }),
    });
    return answer.headers.getSetCookie()[0].split(';')[0];
  };
  const read = async (path: string, cookie: string): Promise<unknown> =>
    (await fetch(url + path, { headers: { cookie } })).json();
  const owner = await cookieOf('iva');
  const [display] = listSchema
    .parse(await read('/api/displays', owner))
    .filter(({ name }) => name === 'Skarn Edge');
  const crew = crewSchema.parse(await read(`/api/displays/${display.id}/members`, owner));
  const builder = crew.find(({ role, person, login }) => role === 'builder' && person && login);
  if (!builder?.login) throw new Error('the demo has no builder');
  const cookie = await cookieOf(builder.login);
  const send = async (name: string, count: number): Promise<number> => {
    const changes = Array.from({ length: count }, (_, i) => ({
      ...{ op: 'add', kind: 'lot', id: `${name}-${i}` },
      data: { part: 'brick-2x4', colour: 'slate', qty: 1 + i, owner: builder.person, place: `drawer ${i}` },
    }));
    const body = JSON.stringify({ id: randomUUID(), label: 'bench', changes });
    const began = performance.now();
    const answer = await fetch(`${url}/api/displays/${display.id}/batches`, {
      ...{ method: 'POST', body },
      headers: { ...json, cookie },
    });
    if (answer.status !== 200) throw new Error(`refused with ${answer.status}`);
    return performance.now() - began;
  };
  await send('warm', 300);
  let pending = true;
  let others = 0;
  const ask = async () => {
    while (pending) {
      const began = performance.now();
      await (await fetch(`${url}/api/health`)).text();
      others = Math.max(others, performance.now() - began);
      await new Promise((go) => setTimeout(go, 5));
    }
  };
  const asking = ask();
  const taken = await send('list', LONG);
  pending = false;
  await asking;
  return { taken, others };
}
const listSchema = z.array(z.object({ id: z.string(), name: z.string() }));
const crewSchema = z.array(
  z.object({ role: z.string(), person: z.string().nullable(), login: z.string().nullable() }),
);

const percentile = (sorted: number[], share: number) => sorted[Math.floor(sorted.length * share)];

/** A plain request on a kept connection: `fetch` would cost the one core the clients share more than the server does. */
function post(url: string, agent: Agent, headers: Record<string, string>, body: object): Promise<void> {
  return new Promise((resolve, reject) => {
    const text = JSON.stringify(body);
    const asked = request(
      url,
      { method: 'POST', agent, headers: { ...headers, 'content-length': Buffer.byteLength(text) } },
      (answer) => {
        answer.resume();
        answer.on('end', () =>
          answer.statusCode === 200 ? resolve() : reject(new Error(`refused with ${answer.statusCode}`)),
        );
      },
    );
    asked.on('error', reject);
    asked.end(text);
  });
}
