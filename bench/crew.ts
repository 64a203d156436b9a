// The load of a show weekend: thirty editors at a change a second each, every one of them listening, 1,200 visitors who
// look at the public page, a builder who takes in a list of 5,000 lines and a viewer who prints the plan at 1 : 1 again
// and again. Talks only to a server it starts itself.
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { Agent, get, request, type IncomingMessage } from 'node:http';
import { startServer } from '../e2e/stage.ts';
import type { Row } from './table.ts';

const EDITORS = 30;
const VISITORS = 1200;
/** How often a page of the public asks again, ms: the page itself asks every 20 s. */
const VISIT_MS = 10_000;
const SECONDS = 30;
/** Lines of the list that is taken in at once, and pages of one print of the demo's plan at 1 : 1. */
const LINES = 5000;
const PAGES = 55;
/** Not counted: connections are opened and the server is compiled to speed. */
const WARM_UP_SECONDS = 12;

export async function benchCrew(): Promise<Row[]> {
  const server = await startServer({ demo: true });
  const agent = new Agent({ keepAlive: true, maxSockets: EDITORS * 2 + VISITORS });
  const closing: (() => void)[] = [];
  try {
    const cookie = await signIn(server.url);
    const json = { 'content-type': 'application/json', cookie };
    const displays = await ask(agent, server.url, 'GET', '/api/displays', json);
    const { id } = (JSON.parse(displays.text) as { id: string; name: string }[]).filter(
      ({ name }) => name === 'Skarn Edge',
    )[0];
    const { token } = JSON.parse(
      (await ask(agent, server.url, 'GET', `/api/displays/${id}/share`, json)).text,
    ) as { token: string };
    const began = performance.now();
    const counted = began + WARM_UP_SECONDS * 1000;
    const end = counted + SECONDS * 1000;
    const acknowledged: number[] = [];
    const heard: number[] = [];
    const sent = new Map<string, number>();
    let errors = 0;
    let visits = 0;

    for (let n = 0; n < EDITORS; n++) {
      const stream = await listen(
        `${server.url}/api/displays/${id}/stream?after=1000000&client=${randomUUID()}`,
        cookie,
      );
      closing.push(() => stream.destroy());
      stream.on('data', (chunk: Buffer) => {
        const now = performance.now();
        for (const [, batchId] of chunk.toString().matchAll(/"id":"([0-9a-f-]{36})"/g)) {
          const at = sent.get(batchId);
          if (at !== undefined && at >= counted) heard.push(now - at);
        }
      });
    }
    const editor = async (n: number) => {
      const path = `/api/displays/${id}/batches`;
      const land = async (change: object) => {
        const body = { id: randomUUID(), label: 'bench', changes: [change] };
        const at = performance.now();
        sent.set(body.id, at);
        const { status } = await ask(agent, server.url, 'POST', path, json, JSON.stringify(body));
        if (status !== 200) errors++;
        else if (at >= counted) acknowledged.push(performance.now() - at);
      };
      const data = { name: `Bench ${n}`, x: 0, y: 0, w: 2, d: 2, height: 9 };
      await land({ op: 'add', kind: 'plot', id: `bench-${n}`, data });
      for (let v = 1; performance.now() < end; v++) {
        await sleep(began + (v + n / EDITORS) * 1000 - performance.now());
        await land({ op: 'patch', kind: 'plot', id: `bench-${n}`, v, set: { x: v % 200 } });
      }
    };
    const visitor = async (n: number) => {
      let etag = '';
      for (let v = 0; performance.now() < end; v++) {
        await sleep(began + (v + n / VISITORS) * VISIT_MS - performance.now());
        const answer = await ask(
          agent,
          server.url,
          'GET',
          `/s/${token}`,
          etag ? { 'if-none-match': etag } : {},
        );
        if (answer.status !== 200 && answer.status !== 304) errors++;
        etag = answer.etag;
        visits++;
      }
    };
    let printed = 0;
    const printer = async () => {
      const viewer = { cookie: await signIn(server.url, 'suri') };
      while (performance.now() < end) {
        const { status } = await ask(
          agent,
          server.url,
          'GET',
          `/api/displays/${id}/sheets/tiles.pdf`,
          viewer,
        );
        if (status === 200) printed += PAGES;
        else errors++;
      }
    };
    let taken = Infinity;
    const importer = async () => {
      await sleep(counted + (SECONDS * 1000) / 3 - performance.now());
      const headers = { ...json, cookie: await signIn(server.url, 'brenna') };
      const changes = Array.from({ length: LINES }, (_, i) => ({
        ...{ op: 'add', kind: 'lot', id: `bench-lot-${i}` },
        data: { part: 'brick-2x4', colour: 'slate', qty: 4, owner: 'brenna', place: `drawer ${i}` },
      }));
      const body = JSON.stringify({ id: randomUUID(), label: 'bench', changes });
      const at = performance.now();
      const { status } = await ask(agent, server.url, 'POST', `/api/displays/${id}/batches`, headers, body);
      if (status === 200) taken = performance.now() - at;
      else errors++;
    };
    const memory: number[] = [];
    const watch = setInterval(() => memory.push(megabytes(server.pid)), 1000);
    closing.push(() => clearInterval(watch));
    await Promise.all([
      ...Array.from({ length: EDITORS }, (_, n) => editor(n)),
      ...Array.from({ length: VISITORS }, (_, n) => visitor(n)),
      printer(),
      importer(),
    ]);
    const what = `${EDITORS} editors, ${VISITORS} visitors, ${printed} pages printed, ${LINES} lines taken in`;
    return [
      {
        what: `${what}: errors in ${visits} visits, ${acknowledged.length} changes`,
        measured: errors,
        unit: '',
        aim: 0,
        better: 'less',
      },
      {
        what: `${what}: 95th percentile until acknowledged`,
        measured: p95(acknowledged),
        unit: 'ms',
        aim: 100,
        better: 'less',
      },
      {
        what: `${what}: longest until acknowledged, but for the list`,
        measured: Math.max(...acknowledged),
        unit: 'ms',
        better: 'less',
      },
      {
        what: `${what}: the list until acknowledged`,
        measured: taken,
        unit: 'ms',
        aim: 1000,
        better: 'less',
      },
      {
        what: `${what}: 95th percentile until others hear`,
        measured: p95(heard),
        unit: 'ms',
        aim: 1000,
        better: 'less',
      },
      // The memory bound is ours: the most in the last ten seconds against the most in the ten before the count.
      {
        what: `${what}: most memory of the server`,
        measured: Math.max(...memory),
        unit: 'MB',
        aim: 700,
        better: 'less',
      },
    ];
  } finally {
    closing.forEach((close) => close());
    agent.destroy();
    await server.remove();
  }
}

const sleep = (ms: number) => new Promise<void>((go) => setTimeout(go, Math.max(0, ms)));
function p95(values: number[]): number {
  const sorted = values.toSorted((a, b) => a - b);
  return sorted[Math.floor(sorted.length * 0.95)] ?? Infinity;
}
const megabytes = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;

async function signIn(url: string, login = 'iva'): Promise<string> {
  const answer = await fetch(`${url}/api/demo/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ login }),
  });
  return answer.headers.getSetCookie()[0].split(';')[0];
}

/** A plain request on a kept connection: `fetch` would cost the cores that the server needs. */
function ask(
  agent: Agent,
  url: string,
  method: string,
  path: string,
  headers: Record<string, string>,
  body?: string,
): Promise<{ status: number; text: string; etag: string }> {
  return new Promise((resolve) => {
    const length = body === undefined ? {} : { 'content-length': Buffer.byteLength(body) };
    const asked = request(url + path, { method, agent, headers: { ...headers, ...length } }, (answer) => {
      let text = '';
      answer.setEncoding('utf8');
      answer.on('data', (chunk: string) => (text += chunk));
      answer.on('end', () =>
        resolve({ status: answer.statusCode ?? 0, text, etag: String(answer.headers.etag ?? '') }),
      );
    });
    // A line that breaks is an error of the bench's count, not its end.
    asked.on('error', () => resolve({ status: 0, text: '', etag: '' }));
    asked.end(body);
  });
}

const listen = (url: string, cookie: string): Promise<IncomingMessage> =>
  new Promise((resolve, reject) =>
    get(url, { headers: { cookie }, agent: false }, resolve).on('error', reject),
  );
