import { randomUUID } from 'node:crypto';
import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { byExtent } from '../../../packages/core/test/runs.ts';
import {
  reduce,
  fromRows,
  toRows,
  writeFile,
  type Batch,
  type Change,
  type Scene,
} from '@quarry/core/document';
import {
  Harness,
  batch,
  clientOf,
  listen,
  rowOf,
  valleyOf,
  type Client,
  type Ear,
  SMALL_START,
} from './harness.ts';

/** What goes wrong between people and the server, and what people may try on purpose. */
const harness = new Harness();
beforeAll(() => harness.start({ signInLimit: 10_000 }));
afterAll(() => harness.end());

/** A small repeatable source of chance (a linear congruential generator; Numerical Recipes' constants). */
const chance = (seed: number) => {
  let state = seed;
  return (below: number) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return Math.floor((state / 4_294_967_296) * below);
  };
};
const sceneOf = async (client: Client, id: string): Promise<{ scene: Scene; seq: number }> => {
  const { body } = await client('GET', `/api/displays/${id}`);
  return { scene: fromRows(body.rows as Parameters<typeof fromRows>[0]), seq: Number(body.seq) };
};

/** A line between browsers and the server that drops requests on the way there, and answers on the way back. */
function badLine(to: string, draw: (below: number) => number): Promise<{ url: string; server: Server }> {
  const server = createServer((incoming, outgoing) => {
    const fate = draw(4);
    if (fate === 0) return void incoming.socket.destroy();
    const onward = request(
      to + incoming.url,
      { method: incoming.method, headers: incoming.headers },
      (answer) => {
        // The batch has landed; whoever sent it does not know.
        if (fate === 1) return void incoming.socket.destroy();
        outgoing.writeHead(answer.statusCode ?? 500, answer.headers);
        answer.pipe(outgoing);
      },
    );
    onward.on('error', () => incoming.socket.destroy());
    incoming.pipe(onward);
  });
  return new Promise((resolve) =>
    server.listen(0, '127.0.0.1', () =>
      resolve({ url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, server }),
    ),
  );
}

/** A browser in small: its own scene, its own stream, batches sent until they are answered. */
class Browser {
  scene!: Scene;
  seq = 0;
  ear!: Ear;
  taken = 0;
  readonly landed: string[] = [];

  constructor(
    private readonly client: Client,
    private readonly line: Client,
    private readonly id: string,
  ) {}

  async listen(): Promise<void> {
    this.ear?.close();
    this.ear = await listen(this.client, `${harness.url}/api/displays/${this.id}/stream?after=${this.seq}`);
    this.taken = 0;
  }
  async begin(): Promise<void> {
    Object.assign(this, await sceneOf(this.client, this.id));
    await this.listen();
  }
  /** Takes in what the stream has brought, each number once and in order. */
  follow(): void {
    for (; this.taken < this.ear.heard.length; this.taken++) {
      const { event, id, data } = this.ear.heard[this.taken];
      if (event !== 'message' || id === null || id <= this.seq) continue;
      expect(id).toBe(this.seq + 1);
      const reduction = reduce(this.scene, (data as Batch).changes);
      if (!reduction.ok) throw new Error(reduction.refusal.sentence);
      Object.assign(this, { scene: reduction.scene, seq: id });
    }
  }
  async send(change: Change): Promise<void> {
    const body = batch(change);
    for (;;) {
      const answer = await this.line('POST', `/api/displays/${this.id}/batches`, body).catch(() => null);
      if (!answer) continue;
      if (answer.status === 200) this.landed.push(body.id);
      else expect(answer.body.code).toMatch(/stale|unknown|duplicate/);
      return;
    }
  }
}

test('five browsers race on few things over a line that drops a quarter each way, streams cut and taken up: all equal the server', async () => {
  const owner = await harness.as('iva');
  const id = String((await owner('POST', '/api/displays', { name: 'Race', start: SMALL_START })).body.id);
  const draw = chance(11);
  const { url, server } = await badLine(harness.url, draw);
  try {
    const browsers = await Promise.all(
      Array.from({ length: 5 }, async () => {
        const line = clientOf(() => url);
        line.cookie = owner.cookie;
        const browser = new Browser(owner, line, id);
        await browser.begin();
        return browser;
      }),
    );
    await Promise.all(
      browsers.map(async (browser) => {
        for (let i = 0; i < 60; i++) {
          browser.follow();
          if (draw(12) === 0) await browser.listen();
          const plot = `plot-${draw(4)}`;
          const stands = browser.scene.plot[plot];
          const data = { name: 'P', x: draw(12), y: 0, w: 2, d: 2, height: 3 };
          await browser.send(
            !stands
              ? { op: 'add', kind: 'plot', id: plot, data }
              : draw(6) === 0
                ? { op: 'remove', kind: 'plot', id: plot, v: stands.v }
                : { op: 'patch', kind: 'plot', id: plot, v: stands.v, set: { x: draw(12) } },
          );
        }
      }),
    );
    const end = await sceneOf(owner, id);
    for (const browser of browsers) {
      await browser.ear.until(({ event }) => event === 'here');
      for (let i = 0; i < 200 && browser.seq < end.seq; i++) {
        await new Promise((go) => setTimeout(go, 10));
        browser.follow();
      }
      expect(writeFile(browser.scene)).toBe(writeFile(end.scene));
      expect(toRows(browser.scene)).toEqual(toRows(end.scene));
      browser.ear.close();
    }
    const log = Object.values((await owner('GET', `/api/displays/${id}/batches`)).body) as unknown as Batch[];
    const ids = log.map((one) => one.id);
    expect(new Set(ids).size).toBe(ids.length);
    const acknowledged = browsers.flatMap(({ landed }) => landed);
    expect(acknowledged.length).toBeGreaterThan(100);
    expect(acknowledged.filter((one) => !ids.includes(one))).toEqual([]);
  } finally {
    server.close();
  }
});

test('a clock that is set back does not turn the log round', async () => {
  const owner = await harness.as('iva');
  const id = String((await owner('POST', '/api/displays', { name: 'Clock', start: SMALL_START })).body.id);
  const land = (n: number) =>
    owner(
      'POST',
      `/api/displays/${id}/batches`,
      batch({ op: 'add', kind: 'level', id: `l${n}`, data: { name: 'L', height: n } }),
    );
  await land(1);
  const clock = jest.spyOn(Date, 'now').mockReturnValue(Date.now() - 86_400_000);
  try {
    expect((await land(2)).status).toBe(200);
  } finally {
    clock.mockRestore();
  }
  await land(3);
  const log = Object.values((await owner('GET', `/api/displays/${id}/batches`)).body) as unknown as {
    seq: number;
    at: number;
  }[];
  expect(log.map(({ seq }) => seq)).toEqual([1, 2, 3]);
  for (let i = 1; i < log.length; i++) expect(log[i].at).toBeGreaterThanOrEqual(log[i - 1].at);
});

test('who has missed too much is told so and reads the display again', async () => {
  const owner = await harness.as('iva');
  const id = String((await owner('POST', '/api/displays', { name: 'Missed', start: SMALL_START })).body.id);
  const add = (n: number) => batch({ op: 'add', kind: 'level', id: `l${n}`, data: { name: 'L', height: n } });
  for (let n = 0; n < 1010; n += 101)
    await Promise.all(
      Array.from({ length: 101 }, (_, i) => owner('POST', `/api/displays/${id}/batches`, add(n + i))),
    );
  const ear = await listen(owner, `${harness.url}/api/displays/${id}/stream?after=0`);
  await ear.until(({ event }) => event === 'behind');
  expect(ear.heard.filter(({ event }) => event === 'message')).toEqual([]);
  await owner('POST', `/api/displays/${id}/batches`, add(2000));
  await ear.until(({ event }) => event === 'message');
  ear.close();
});

/** Values that nobody sends by mistake. */
const STRANGE: readonly unknown[] = [
  ...[
    null,
    true,
    -1,
    1e308,
    0.1,
    '',
    'x'.repeat(3000),
    '\u0000',
    '<img src=x onerror=alert(1)>',
    '../../etc/passwd',
  ],
  ...["' OR 1=1 --", '__proto__', {}, [], [[[]]], { constructor: { prototype: 1 } }, NaN, '💥', 'a\u202Eb'],
];

/** `npm run soak` sends ten thousand. */
const BATCHES = byExtent({ check: 1000, test: 1000, all: 1000, soak: 10_000 });
test(`${BATCHES} batches of nonsense: refused in words or landed whole, never a fault, and the display still reads`, async () => {
  const owner = await harness.as('iva');
  const viewer = await harness.as('suri');
  const id = await valleyOf(owner);
  const draw = chance(5);
  const { scene } = await sceneOf(owner, id);
  const kinds = [
    'pad',
    'plot',
    'section',
    'display',
    'person',
    'thread',
    'reply',
    'report',
    'lot',
    'seam',
    'castle',
    '__proto__',
  ];
  const strange = () => STRANGE[draw(STRANGE.length)];
  const change = (): object => {
    const kind = kinds[draw(kinds.length)];
    const group: Readonly<Record<string, { v: number }>> = { ...scene[kind as 'pad'] };
    const known = Object.keys(group);
    const target = draw(3) === 0 ? strange() : (known[draw(known.length)] ?? 'none');
    const fields = [
      'name',
      'x',
      'w',
      'height',
      'owner',
      'notes',
      'text',
      'level',
      'points',
      '__proto__',
      'id',
      'v',
    ];
    const set = Object.fromEntries(
      Array.from({ length: 1 + draw(3) }, () => [fields[draw(fields.length)], strange()]),
    );
    const v = draw(4) === 0 ? strange() : (group[String(target)]?.v ?? draw(3));
    return [
      { op: 'add', kind, id: draw(2) === 0 ? `f-${draw(50)}` : target, data: set },
      { op: 'patch', kind, id: target, v, set },
      { op: 'remove', kind, id: target, v: strange() },
      { op: strange(), kind: strange(), id: strange() },
    ][draw(4)];
  };
  const statuses = new Map<number, number>();
  const one = async () => {
    const body =
      draw(20) === 0
        ? strange()
        : {
            ...batch(change(), ...(draw(3) === 0 ? [change()] : [])),
            ...(draw(10) === 0 ? { id: strange() } : {}),
          };
    const { status, body: answer } = await owner(
      'POST',
      `/api/displays/${id}/batches`,
      JSON.stringify(body ?? null),
    );
    statuses.set(status, (statuses.get(status) ?? 0) + 1);
    if (status !== 200) expect(typeof answer.message).toBe('string');
  };
  for (let n = 0; n < BATCHES; n += 50) await Promise.all(Array.from({ length: 50 }, one));
  expect([...statuses.keys()].filter((status) => ![200, 400, 409, 422].includes(status))).toEqual([]);
  expect(statuses.get(422)).toBeGreaterThan(BATCHES / 5);
  const after = await sceneOf(viewer, id);
  expect(Object.keys(after.scene.display)).toEqual(['display']);
  expect(({} as Record<string, unknown>).constructor).toBe(Object);
  const check: unknown = harness.running?.store.client.prepare('PRAGMA integrity_check').get();
  expect(Object.values(Object(check))[0]).toBe('ok');
});

test('ids of other displays, paths in names and oversized texts open nothing', async () => {
  const [iva, brenna] = [await harness.as('iva'), await harness.as('brenna')];
  const secret = String((await iva('POST', '/api/displays', { name: 'Secret', start: SMALL_START })).body.id);
  for (const path of [
    '',
    '/file',
    '/batches',
    '/history',
    '/history/0',
    '/members',
    '/share',
    '/marks',
    '/invitations',
    '/sheets/plan.pdf',
    '/history/0/back',
  ])
    expect([path, (await brenna('GET', `/api/displays/${secret}${path}`)).status]).toEqual([path, 404]);
  for (const path of [
    '/api/displays/..%2f..%2fetc/file',
    '/s/..%2f..%2fquarry.sqlite',
    '/api/join/%00',
    '/assets/..%2f..%2fpackage.json',
    '/api/displays/%2e%2e/sheets/plan.pdf',
  ])
    expect([404, 400]).toContain((await brenna('GET', path)).status);
  const id = await valleyOf(brenna);
  for (const file of ['..%2f..%2fplan.pdf', 'quarry.sqlite', '__proto__'])
    expect((await brenna('GET', `/api/displays/${id}/sheets/${file}`)).status).toBe(404);
  expect(
    (
      await brenna('POST', `/api/displays/${id}/here`, {
        client: randomUUID(),
        page: 'x'.repeat(999),
        section: null,
        picked: [],
      })
    ).status,
  ).toBe(422);
  // A builder cannot reach into another's section by naming two things in one batch.
  const baker = await rowOf(brenna, id, 'plot', 'baker');
  const winding = await rowOf(brenna, id, 'plot', 'winding');
  const both = batch(
    { op: 'patch', kind: 'plot', id: 'baker', v: baker?.v, set: { height: 40 } },
    { op: 'patch', kind: 'plot', id: 'winding', v: winding?.v, set: { height: 31 } },
  );
  expect((await brenna('POST', `/api/displays/${id}/batches`, both)).status).toBe(403);
  expect((await rowOf(brenna, id, 'plot', 'baker'))?.v).toBe(baker?.v);
  // From another site's page nothing is written, whatever the route.
  const origin = { origin: 'https://elsewhere.example' };
  for (const [method, path] of [
    ['POST', `/api/displays/${id}/batches`],
    ['PUT', `/api/displays/${id}/share`],
    ['DELETE', '/api/me'],
    ['POST', '/api/reset/ask'],
    ['PUT', '/api/me/password'],
  ])
    expect((await iva(method, path, {}, origin)).status).toBe(403);
});
