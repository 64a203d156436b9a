import { randomUUID } from 'node:crypto';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fromRows, reduce, toRows, writeFile, type Batch, type Scene } from '@quarry/core/document';
import {
  Harness,
  batch,
  clientOf,
  displayOf,
  patch,
  rowOf,
  valleyOf,
  type Client,
  SMALL_START,
} from './harness.ts';

const harness = new Harness();
beforeAll(() => harness.start());
afterAll(() => harness.end());

const sceneOf = async (client: Client, id: string): Promise<Scene> =>
  fromRows((await client('GET', `/api/displays/${id}`)).body.rows as Parameters<typeof fromRows>[0]);
/** A small repeatable source of chance (a linear congruential generator; Numerical Recipes' constants). */
const chance = (seed: number) => {
  let state = seed;
  return (below: number) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return Math.floor((state / 4_294_967_296) * below);
  };
};

test('the log, replayed from the beginning, gives the rows; a restart changes nothing', async () => {
  const client = await harness.as('iva');
  const { body } = await client('POST', '/api/displays', {
    name: 'Log',
    start: { kind: 'diorama', w: 96, d: 48 },
  });
  const id = String(body.id);
  const first = await sceneOf(client, id);
  const draw = chance(7);
  for (let i = 0; i < 120; i++) {
    const now = await sceneOf(client, id);
    const plots = Object.values(now.plot);
    const plot = plots[draw(Math.max(1, plots.length))];
    const add = {
      op: 'add',
      kind: 'plot',
      id: `plot-${draw(12)}`,
      data: { name: `P${i}`, x: draw(40), y: draw(30), w: 4, d: 4, height: 9 },
    };
    const change =
      !plot || draw(3) === 0
        ? add
        : draw(4) === 0
          ? { op: 'remove', kind: 'plot', id: plot.id, v: plot.v }
          : patch('plot', plot.id, plot.v, { x: draw(60) });
    const { status } = await client('POST', `/api/displays/${id}/batches`, batch(change));
    // Adding an id that stands already is refused, and refused changes are not in the log.
    expect([200, 409]).toContain(status);
  }
  const log = Object.values((await client('GET', `/api/displays/${id}/batches`)).body) as unknown as Batch[];
  expect(log.length).toBeGreaterThan(60);
  const replayed = log.reduce<Scene>((scene, { changes }) => {
    const reduction = reduce(scene, changes);
    if (!reduction.ok) throw new Error(reduction.refusal.sentence);
    return reduction.scene;
  }, first);
  const before = await sceneOf(client, id);
  expect(toRows(before)).toEqual(toRows(replayed));
  await harness.start();
  const again = await harness.as('iva');
  expect(writeFile(await sceneOf(again, id))).toBe(writeFile(before));
  expect(toRows(await sceneOf(again, id))).toEqual(toRows(before));
  // A removed id that comes back after the restart still starts above its last version.
  const gone = Object.entries(before.removed).find(
    ([key]) => key.startsWith('plot/') && !before.plot[key.slice(5)],
  );
  if (!gone) throw new Error('nothing was removed');
  const [key, version] = gone;
  await again(
    'POST',
    `/api/displays/${id}/batches`,
    batch({
      op: 'add',
      kind: 'plot',
      id: key.slice(5),
      data: { name: 'Back', x: 0, y: 0, w: 1, d: 1, height: 1 },
    }),
  );
  expect((await rowOf(again, id, 'plot', key.slice(5)))?.v).toBe(version + 1);
});

test('dates of the demo stand ten weeks ahead, in every display, and people are their accounts', async () => {
  const client = await harness.as('brenna');
  const id = await valleyOf(client);
  const { body } = await client('GET', `/api/displays/${id}`);
  expect(body.actor).toEqual({ role: 'builder', person: 'brenna' });
  expect((await rowOf(client, id, 'display', 'display'))?.data?.showDate).toBe('2031-07-10');
  const owner = await harness.as('iva');
  const other = await displayOf(owner, 'Heron at the weir');
  expect((await rowOf(owner, other, 'display', 'display'))?.data?.showDate).toBe('2031-07-10');
  expect((await client('GET', `/api/displays/${other}`)).status).toBe(404);
});

test('the stream takes up after the last event a browser names, and ends for a display that is deleted from under it', async () => {
  const client = await harness.as('iva');
  const { body } = await client('POST', '/api/displays', { name: 'Stream', start: SMALL_START });
  const path = `/api/displays/${String(body.id)}`;
  for (let i = 0; i < 4; i++)
    await client(
      'POST',
      `${path}/batches`,
      batch({ op: 'add', kind: 'level', id: `l${i}`, data: { name: `L${i}`, height: i } }),
    );
  const abort = new AbortController();
  const stream = await fetch(`${harness.url}${path}/stream?after=0`, {
    headers: { cookie: client.cookie, 'last-event-id': '2' },
    signal: abort.signal,
  });
  const reader = stream.body?.pipeThrough(new TextDecoderStream()).getReader();
  let heard = '';
  while (reader && !heard.includes('id: 4')) heard += (await reader.read()).value ?? '';
  expect([...heard.matchAll(/^id: (\d+)$/gm)].map(([, seq]) => seq)).toEqual(['3', '4']);
  expect(stream.headers.get('content-type')).toBe('text/event-stream');
  abort.abort();
});

test('one batch may carry a whole new cutting; two displays never mix', async () => {
  const client = await harness.as('iva');
  const [one, two] = await Promise.all(
    ['One', 'Two'].map(async (name) =>
      String(
        (await client('POST', '/api/displays', { name, start: { kind: 'city', w: 288, d: 96 } })).body.id,
      ),
    ),
  );
  const modules = Array.from({ length: 1500 }, (_, i) => ({
    op: 'add',
    kind: 'module',
    id: `module-${i}`,
    data: {
      name: `M${i}`,
      x: (i % 36) * 8,
      y: 0,
      w: 8,
      d: 8,
      bases: [{ x: (i % 36) * 8, y: 0, w: 8, d: 8 }],
    },
  }));
  expect((await client('POST', `/api/displays/${one}/batches`, batch(...modules))).status).toBe(200);
  expect(Object.keys((await sceneOf(client, one)).module)).toHaveLength(1500);
  expect(Object.keys((await sceneOf(client, two)).module)).toHaveLength(0);
  const tooMany = Array.from({ length: 5001 }, (_, i) => ({
    op: 'add',
    kind: 'level',
    id: `l${i}`,
    data: { name: 'L', height: 0 },
  }));
  expect(await client('POST', `/api/displays/${two}/batches`, batch(...tooMany))).toMatchObject({
    status: 422,
    body: { message: expect.stringContaining('5000') },
  });
});

test('ids and versions from outside are judged as data: hostile ones are refused by name', async () => {
  const client = await harness.as('iva');
  const id = await valleyOf(client);
  const land = (change: object) => client('POST', `/api/displays/${id}/batches`, batch(change));
  for (const [change, words] of [
    [{ op: 'add', kind: 'pad', id: '__proto__', data: {} }, 'an id is'],
    [{ op: 'add', kind: 'pad', id: 'a'.repeat(41), data: {} }, 'an id is'],
    [{ op: 'add', kind: 'castle', id: 'a', data: {} }, 'Invalid option'],
    [{ op: 'rename', kind: 'pad', id: 'a', v: 1, set: {} }, 'op'],
    [{ op: 'patch', kind: 'pad', id: 'meadow', v: 0, set: {} }, '>=1'],
    [{ op: 'patch', kind: 'pad', id: 'meadow', v: 1, set: {}, also: 1 }, 'also'],
  ] as const)
    expect(await land(change)).toMatchObject({
      status: 422,
      body: { message: expect.stringContaining(words) },
    });
  expect(await land({ op: 'patch', kind: 'pad', id: 'meadow', v: 1, set: { constructor: 1 } })).toMatchObject(
    { status: 422, body: { message: expect.stringContaining('no “constructor”') } },
  );
});

describe('sessions', () => {
  test('signing out ends the session for good; a made-up cookie is nobody', async () => {
    const client = await harness.as('iva');
    const { cookie } = client;
    await client('DELETE', '/api/session');
    client.cookie = cookie;
    expect(await client('GET', '/api/me')).toMatchObject({ status: 401, body: { code: 'signed-out' } });
    client.cookie = `quarry_session=${randomUUID()}`;
    expect((await client('GET', '/api/displays')).status).toBe(401);
  });
  test('the cookie is out of reach of scripts and other sites', async () => {
    const answer = await fetch(`${harness.url}/api/demo/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{"login":"iva"}',
    });
    const [cookie] = answer.headers.getSetCookie();
    for (const word of ['HttpOnly', 'SameSite=Strict', 'Path=/']) expect(cookie).toContain(word);
    const rows: unknown = harness.running?.store.client.prepare('SELECT tokenHash FROM sessions').all();
    expect(JSON.stringify(rows)).not.toContain(cookie.split(/[=;]/)[1]);
  });
});

test('pages: every address of its own gives the page, assets are kept, unknown interface addresses are JSON', async () => {
  const web = join(harness.folder, 'web');
  for (const folder of ['assets', '.vite']) mkdirSync(join(web, folder), { recursive: true });
  writeFileSync(
    join(web, 'index.html'),
    '<title>Open Quarry</title><script src="/assets/main-1.js"></script></head>',
  );
  const [entry, display] = ['src/main.tsx', 'src/DisplayPages.tsx'];
  writeFileSync(
    join(web, '.vite', 'manifest.json'),
    JSON.stringify({
      [entry]: { file: 'assets/main-1.js', imports: ['_shared.js'] },
      [display]: { file: 'assets/display-1.js', imports: [entry, '_shared.js'] },
      'src/pages/plan/PlanPage.tsx': { file: 'assets/plan-1.js', imports: ['_board.js'] },
      'src/pages/crew/CrewPage.tsx': { file: 'assets/crew-1.js' },
      '_shared.js': { file: 'assets/shared-1.js' },
      '_board.js': { file: 'assets/board-1.js', imports: ['_shared.js'] },
    }),
  );
  writeFileSync(join(web, 'publicPage.html'), '<!-- title -->');
  writeFileSync(join(web, 'assets', 'a-1.js'), '1');
  const { running, url } = await harness.listen(harness.config('pages', { web }));
  try {
    // A page of a display names its files too, each once; those that every page has are there already.
    for (const [path, files] of [
      ['/', []],
      ['/setup', []],
      ['/d/some-display/nothing', []],
      ['/d/some-display/plan', ['board', 'display', 'plan', 'shared']],
      ['/d/some-display', ['board', 'display', 'plan', 'shared']],
      ['/d/some-display/crew', ['crew', 'display', 'shared']],
    ] as const) {
      const answer = await fetch(url + path);
      const html = await answer.text();
      const named = [...html.matchAll(/<link rel="modulepreload" crossorigin href="\/assets\/(\w+)-1.js">/g)];
      const told = [path, answer.headers.get('cache-control'), named.map(([, name]) => name).sort()];
      expect(told).toEqual([path, 'no-cache', files]);
      expect(html).toMatch(/^<title>Open Quarry<.*<\/head>$/s);
    }
    expect((await fetch(`${url}/.vite/manifest.json`)).headers.get('content-type')).toContain('html');
    const nobody = await fetch(`${url}/s/some-token`);
    expect([nobody.status, await nobody.text()]).toEqual([404, '<title>Nothing to see here</title>']);
    expect((await fetch(`${url}/assets/a-1.js`)).headers.get('cache-control')).toContain('immutable');
    const client = clientOf(() => url);
    expect(await client('GET', '/api/nothing')).toMatchObject({ status: 404, body: { code: 'not-found' } });
    expect(await client('GET', '/api/health')).toEqual({ status: 200, body: { status: 'ok' } });
    expect((await client('GET', '/api/welcome')).body).toEqual({ setupNeeded: false, demo: true });
  } finally {
    await running.close();
  }
});
