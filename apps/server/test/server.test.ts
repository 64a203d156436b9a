import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { readPieceFile } from '@quarry/core/document';
import { keptPieceSchema, pieceTextSchema } from '@quarry/protocol/displays';
import { AccountsService } from '../src/accounts/accounts.service.ts';
import { backupStore } from '../src/store/copies.ts';
import { openStore } from '../src/store/database.ts';
import {
  Harness,
  MIGRATIONS,
  batch,
  clientOf,
  patch,
  newDisplay,
  rowOf,
  valleyOf,
  type Client,
  SMALL_START,
} from './harness.ts';

const harness = new Harness();
const as = (login: string) => harness.as(login);
beforeAll(() => harness.start());
afterAll(() => harness.end());

describe('accounts', () => {
  test('the first account needs the printed code, once; a wrong password and an unknown name sound the same', async () => {
    const { running: fresh, url: address } = await harness.listen(
      harness.config('fresh', { demo: false, signInLimit: 6 }),
    );
    try {
      const client = clientOf(() => address);
      const code = fresh.app.get(AccountsService).openSetup();
      const account = { login: 'ada', name: 'Ada Fenn', password: 'a long enough one' };
      expect((await client('POST', '/api/setup', { code: 'WRONG', ...account })).body).toMatchObject({
        code: 'wrong-code',
      });
      expect(
        (await client('POST', '/api/setup', { code, ...account, password: 'short' })).body.message,
      ).toContain('at least 12');
      expect((await client('POST', '/api/setup', { code, ...account })).status).toBe(201);
      expect((await client('POST', '/api/setup', { code, ...account, login: 'eve' })).status).toBe(409);
      expect((await client('GET', '/api/me')).body).toMatchObject({ login: 'ada' });
      await client('DELETE', '/api/session');
      expect((await client('GET', '/api/me')).status).toBe(401);
      const wrong = await client('POST', '/api/session', { login: 'ada', password: 'not it' });
      const unknown = await client('POST', '/api/session', { login: 'nobody', password: 'not it' });
      expect([wrong.status, wrong.body]).toEqual([unknown.status, unknown.body]);
      expect((await client('POST', '/api/demo/session', { login: 'ada' })).status).toBe(404);
      expect(
        (await client('POST', '/api/session', { login: 'ada', password: account.password })).status,
      ).toBe(200);
      // The demo's door and the front door each count by themselves; six attempts a minute, then no more.
      for (let i = 0; i < 4; i++) await client('POST', '/api/session', { login: 'ada', password: 'not it' });
      expect(
        (await client('POST', '/api/session', { login: 'ada', password: account.password })).status,
      ).toBe(429);
    } finally {
      await fresh.close();
    }
  });

  test('another site’s page changes nothing, and answers carry the security headers', async () => {
    const client = await as('iva');
    const foreign = await client(
      'POST',
      '/api/displays',
      { name: 'X', start: { kind: 'city', w: 288, d: 96 } },
      { origin: 'https://elsewhere.example' },
    );
    expect(foreign).toMatchObject({
      status: 403,
      body: { message: expect.stringContaining('another site') },
    });
    const { headers } = await fetch(`${harness.url}/api/health`);
    expect(headers.get('content-security-policy')).toContain("default-src 'self'");
    expect(headers.get('x-content-type-options')).toBe('nosniff');
  });
});

describe('roles on every route', () => {
  const people = ['iva', 'tobin', 'brenna', 'suri'] as const;
  // Rows: route; columns: owner, planner, builder (owns Mill street), viewer.
  const section = (set: object) => async (client: Client, id: string) => {
    const row = await rowOf(client, id, 'section', 'street-b');
    return client(
      'POST',
      `/api/displays/${id}/batches`,
      batch(patch('section', 'street-b', row?.v ?? 1, set)),
    );
  };
  const matrix: [string, (client: Client, id: string) => Promise<{ status: number }>, number[]][] = [
    ['read', (client, id) => client('GET', `/api/displays/${id}`), [200, 200, 200, 200]],
    ['file', (client, id) => client('GET', `/api/displays/${id}/file`), [200, 200, 200, 200]],
    [
      'survey sheet',
      (client, id) => client('GET', `/api/displays/${id}/sheets/survey.svg`),
      [200, 200, 200, 200],
    ],
    ['log', (client, id) => client('GET', `/api/displays/${id}/batches`), [200, 200, 200, 200]],
    ['stage of section B', section({ stage: 'lit' }), [200, 200, 200, 403]],
    ['owner of section B', section({ owner: 'mads' }), [200, 200, 403, 403]],
    [
      'the house rules',
      async (client, id) => {
        const row = await rowOf(client, id, 'display', 'display');
        return client(
          'POST',
          `/api/displays/${id}/batches`,
          batch(patch('display', 'display', row?.v ?? 1, { notes: randomUUID() })),
        );
      },
      [200, 200, 403, 403],
    ],
    [
      'a table of the workshop',
      async (client, id) => {
        const row = await rowOf(client, id, 'table', 't1');
        const x = Number(row?.data?.x) + 10;
        return client('POST', `/api/displays/${id}/batches`, batch(patch('table', 't1', row?.v ?? 1, { x })));
      },
      [200, 200, 403, 403],
    ],
    ['delete', (client, id) => client('DELETE', `/api/displays/${id}`), [204, 403, 403, 403]],
  ];
  test.each(matrix)('%s', async (_, call, expected) => {
    // Backwards, so that the owner deletes last; each role starts from section B owned by its builder.
    const owner = await as('iva');
    const statuses: number[] = [];
    for (const login of [...people].reverse()) {
      const id = await valleyOf(owner);
      const row = await rowOf(owner, id, 'section', 'street-b');
      if (row?.data?.owner !== 'brenna')
        await owner(
          'POST',
          `/api/displays/${id}/batches`,
          batch(patch('section', 'street-b', row?.v ?? 1, { owner: 'brenna' })),
        );
      statuses.unshift((await call(await as(login), id)).status);
    }
    expect(statuses).toEqual(expected);
    if (expected[0] === 204) await harness.reseed();
  });

  test('strangers and the signed-out get nothing, from the stream either', async () => {
    const owner = await as('iva');
    const id = await valleyOf(owner);
    const { body } = await owner('POST', '/api/displays', { name: 'Mine alone', start: SMALL_START });
    const other = await as('tobin');
    const nobody = clientOf(() => harness.url);
    for (const path of ['', '/file', '/batches', '/stream', '/sheets/survey.pdf', '/sheets/rules.pdf']) {
      expect((await other('GET', `/api/displays/${String(body.id)}${path}`)).status).toBe(404);
      expect((await nobody('GET', `/api/displays/${id}${path}`)).status).toBe(401);
    }
    expect(
      (
        await other(
          'POST',
          `/api/displays/${String(body.id)}/batches`,
          batch(patch('table', 'table', 1, { x: 0 })),
        )
      ).status,
    ).toBe(404);
  });
});

describe('pieces kept in one’s displays', () => {
  const listOf = async (client: Client) =>
    keptPieceSchema.array().parse((await client('GET', '/api/displays/pieces')).body);
  test('are listed over all of them and read by another display; nobody else sees them', async () => {
    const owner = await as('iva');
    const { body } = await owner('POST', '/api/displays', { name: 'Yard', start: SMALL_START });
    const yard = String(body.id);
    const tree = { kind: 'tree', data: { name: 'Larch', x: 1, y: 1 } };
    const stall = { name: 'Stall', w: 8, d: 6, things: [tree, { ...tree, data: { ...tree.data, x: 3 } }] };
    // Things with long notes, so that nobody looks into them for a list.
    const heap = {
      ...{ name: 'Heap', w: 4, d: 4 },
      things: Array.from({ length: 120 }, () => ({
        kind: 'plot',
        data: { name: 'Shed', x: 0, y: 0, w: 2, d: 2, height: 9, notes: 'x'.repeat(1900) },
      })),
    };
    const kept = await owner(
      'POST',
      `/api/displays/${yard}/batches`,
      batch(
        { op: 'add', kind: 'piece', id: 'stall', data: stall },
        { op: 'add', kind: 'piece', id: 'heap', data: heap },
      ),
    );
    expect(kept.status).toBe(200);
    const own = (await listOf(owner)).filter(({ display }) => display === yard);
    expect(own).toEqual([
      { display: yard, displayName: 'Yard', id: 'heap', card: null },
      { display: yard, displayName: 'Yard', id: 'stall', card: { name: 'Stall', w: 8, d: 6, things: 2 } },
    ]);
    for (const [id, data] of [
      ['stall', stall],
      ['heap', heap],
    ] as const) {
      const { text } = pieceTextSchema.parse((await owner('GET', `/api/displays/${yard}/pieces/${id}`)).body);
      expect(readPieceFile(text)).toMatchObject({
        ok: true,
        piece: { name: data.name, w: data.w, d: data.d },
      });
    }
    for (const id of ['none', 'constructor'])
      expect((await owner('GET', `/api/displays/${yard}/pieces/${id}`)).status).toBe(404);
    const other = await as('tobin');
    expect((await listOf(other)).filter(({ display }) => display === yard)).toEqual([]);
    expect((await other('GET', `/api/displays/${yard}/pieces/stall`)).status).toBe(404);
    expect((await clientOf(() => harness.url)('GET', '/api/displays/pieces')).status).toBe(401);
  });
});

describe('the list of displays', () => {
  const lineOf = async (client: Client, id: string) =>
    [(await client('GET', '/api/displays')).body]
      .flat()
      .map((line) => Object(line))
      .find((line) => line.id === id);

  test('tells size, day, how far, last change and unread advice, each as the display itself has it', async () => {
    const [owner, builder] = [await as('iva'), await as('brenna')];
    const id = await valleyOf(owner);
    const display = await rowOf(owner, id, 'display', 'display');
    const line = await lineOf(owner, id);
    expect(line).toMatchObject({
      ...{ role: 'owner', size: { w: 240, d: 144 }, showDate: display?.data?.showDate },
    });
    // By hand: of four equal parts of a display that is one section, one stage of weight 5 of 100 is done.
    const small = await newDisplay(owner, 'One stage');
    const stage = batch(patch('section', 'section-a', 1, { stage: 'supported' }));
    await owner('POST', `/api/displays/${small}/batches`, stage);
    expect(await lineOf(owner, small)).toMatchObject({
      ...{ size: { w: 16, d: 16 }, done: 0.05, changedBy: 'Iva Thorsby', seq: 1, unread: 0 },
    });
    // Advice of another is unread until it is marked.
    const { unread } = await lineOf(builder, id);
    const thread = { title: 'Taller', text: 'The crest could be taller.', by: 'iva' };
    const add = batch({ op: 'add', kind: 'thread', id: 'taller', data: thread });
    expect((await owner('POST', `/api/displays/${id}/batches`, add)).status).toBe(200);
    expect((await lineOf(builder, id)).unread).toBe(unread + 1);
    await builder('PUT', `/api/displays/${id}/marks`, { what: 'taller', upTo: 1e9 });
    expect((await lineOf(builder, id)).unread).toBe(unread);
  });

  test('a copy is a display of its own, with its photos; its picture is drawn', async () => {
    const owner = await as('iva');
    const id = await valleyOf(owner);
    const { body } = await owner('POST', `/api/displays/${id}/copy`, { name: 'Skarn, second go' });
    const copy = String(body.id);
    const entities = async (of: string) => {
      const { rows } = Object((await owner('GET', `/api/displays/${of}`)).body);
      return rows.filter(({ kind }: { kind: string }) => kind !== 'display');
    };
    expect(await entities(copy)).toEqual(await entities(id));
    const [photo] = (await entities(copy)).filter(({ kind }: { kind: string }) => kind === 'photo');
    expect((await owner('GET', `/api/displays/${copy}/photos/${photo.data.file}`)).status).toBe(200);
    await owner('DELETE', `/api/displays/${copy}`);
    expect((await owner('GET', `/api/displays/${id}/photos/${photo.data.file}`)).status).toBe(200);
    const { text } = (await owner('GET', `/api/displays/${id}/picture?seq=1`)).body;
    expect(text).toMatch(/^<svg [\s\S]*<\/svg>\s*$/);
    expect(text).not.toContain('<text');
  });
});

describe('places', () => {
  test('a place in use is not removed from under its tables; with them, in one batch, it goes', async () => {
    const client = await as('iva');
    const id = await valleyOf(client);
    const path = `/api/displays/${id}/batches`;
    const place = await rowOf(client, id, 'place', 'larkmoor');
    const remove = { op: 'remove', kind: 'place', id: 'larkmoor', v: place?.v ?? 1 };
    const refused = await client('POST', path, batch(remove));
    expect(refused).toMatchObject({ status: 409, body: { code: 'in-use' } });
    expect(String(refused.body.message)).toContain('still names the place “larkmoor”');
    const { body } = await client('GET', `/api/displays/${id}`);
    const inside = (
      body.rows as { kind: string; id: string; v: number; data: Record<string, unknown> | null }[]
    ).filter(({ kind, data }) => kind !== 'display' && data?.place === 'larkmoor');
    expect(inside.length).toBeGreaterThan(8);
    // The show is to be there, too.
    const display = await rowOf(client, id, 'display', 'display');
    const whole = batch(
      { op: 'patch', kind: 'display', id: 'display', v: display?.v ?? 1, set: { showPlace: null } },
      ...inside.map(({ kind, id: thing, v }) => ({ op: 'remove', kind, id: thing, v })),
      remove,
    );
    expect((await client('POST', path, whole)).status).toBe(200);
    expect((await rowOf(client, id, 'place', 'larkmoor'))?.data ?? null).toBeNull();
    await harness.reseed();
  });
  test('a room is checked at the border: corners, sizes and turns name the field and the limit', async () => {
    const client = await as('iva');
    const id = await valleyOf(client);
    const path = `/api/displays/${id}/batches`;
    const v = (await rowOf(client, id, 'place', 'workshop'))?.v ?? 1;
    for (const [set, field] of [
      [{ walls: Array.from({ length: 61 }, (_, i) => ({ x: i, y: 0 })) }, 'walls'],
      [{ walls: [{ x: 0, y: 99_999 }] }, 'walls.0.y'],
      [{ turn: 45 }, 'turn'],
      [{ armReach: 0 }, 'armReach'],
    ] as const) {
      const { status, body } = await client('POST', path, batch(patch('place', 'workshop', v, set)));
      expect([status, body.code]).toEqual([422, 'invalid']);
      expect(String(body.message)).toContain(`“workshop”, field “${field}”`);
    }
    expect((await rowOf(client, id, 'place', 'workshop'))?.v).toBe(v);
  });
  test('the demo’s dates move together: milestones keep their distance to the show', async () => {
    const client = await as('suri');
    const id = await valleyOf(client);
    const show = String((await rowOf(client, id, 'display', 'display'))?.data?.showDate);
    const loaded = String((await rowOf(client, id, 'milestone', 'load'))?.data?.date);
    expect(Date.parse(show) - Date.parse(loaded)).toBe(86_400_000);
  });
});

describe('changes', () => {
  test('a batch sent twice lands once; a stale one is refused with what stands; an invalid one names the fault', async () => {
    const client = await as('iva');
    const id = await valleyOf(client);
    const path = `/api/displays/${id}/batches`;
    const v = (await rowOf(client, id, 'table', 't1'))?.v ?? 0;
    const move = batch(patch('table', 't1', v, { x: -40 }));
    const first = await client('POST', path, move);
    expect(await client('POST', path, move)).toEqual(first);
    expect(await rowOf(client, id, 'table', 't1')).toMatchObject({ v: v + 1, data: { x: -40 } });
    expect(await client('POST', path, batch(patch('table', 't1', v, { x: 0 })))).toMatchObject({
      status: 409,
      body: { code: 'stale', current: { x: -40, v: v + 1 } },
    });
    expect(await client('POST', path, batch(patch('table', 't1', v + 1, { w: 1e9 })))).toMatchObject({
      status: 422,
      body: { message: expect.stringContaining('40000') },
    });
    expect(await client('POST', path, batch(patch('table', 'nowhere', 1, { x: 0 })))).toMatchObject({
      status: 409,
      body: { code: 'unknown' },
    });
    expect(await client('POST', path, { id: 'x', changes: [] })).toMatchObject({
      status: 422,
      body: { message: expect.stringContaining('“id”') },
    });
    expect(await client('POST', path, '{"broken"')).toMatchObject({ status: 400 });
    expect(await client('POST', path, `"${'x'.repeat(5_000_000)}"`)).toMatchObject({ status: 413 });
    // Whole or not at all: the first change of a refused batch is not there.
    expect(
      (
        await client(
          'POST',
          path,
          batch(patch('table', 't1', v + 1, { x: 5 }), patch('table', 't2', 99, { x: 5 })),
        )
      ).status,
    ).toBe(409);
    expect(await rowOf(client, id, 'table', 't1')).toMatchObject({ data: { x: -40 } });
  });

  test('the stream brings what was missed, then each batch as it lands', async () => {
    const client = await as('iva');
    const id = await valleyOf(client);
    const { body: before } = await client('GET', `/api/displays/${id}`);
    const say = async (notes: string) => {
      const row = await rowOf(client, id, 'display', 'display');
      await client(
        'POST',
        `/api/displays/${id}/batches`,
        batch(patch('display', 'display', row?.v ?? 1, { notes })),
      );
    };
    await say('missed');
    const abort = new AbortController();
    const stream = await fetch(`${harness.url}/api/displays/${id}/stream?after=${Number(before.seq)}`, {
      headers: { cookie: client.cookie },
      signal: abort.signal,
    });
    const reader = stream.body?.pipeThrough(new TextDecoderStream()).getReader();
    let heard = '';
    const until = async (word: string) => {
      while (reader && !heard.includes(word)) heard += (await reader.read()).value ?? '';
    };
    await until('missed');
    await say('live');
    await until('live');
    expect(heard.indexOf('missed')).toBeLessThan(heard.indexOf('live'));
    expect([...heard.matchAll(/^id: (\d+)$/gm)].map(([, seq]) => Number(seq))).toEqual([
      Number(before.seq) + 1,
      Number(before.seq) + 2,
    ]);
    abort.abort();
  });

  test('thirty at once on one display: every acknowledgement is in the log, once and in order', async () => {
    const client = await as('iva');
    const { body } = await client('POST', '/api/displays', { name: 'Busy', start: SMALL_START });
    const path = `/api/displays/${String(body.id)}/batches`;
    const level = (i: number) => ({
      op: 'add',
      kind: 'level',
      id: `level-${i}`,
      data: { name: `L${i}`, height: i },
    });
    const seqs = await Promise.all(
      Array.from({ length: 90 }, (_, i) =>
        client('POST', path, batch(level(i))).then((answer) => Number(answer.body.seq)),
      ),
    );
    expect([...seqs].sort((a, b) => a - b)).toEqual(Array.from({ length: 90 }, (_, i) => i + 1));
    const log = Object.values((await client('GET', path)).body) as { seq: number }[];
    expect(log.map(({ seq }) => seq)).toEqual(Array.from({ length: 90 }, (_, i) => i + 1));
  });
});

describe('files', () => {
  test('a display goes out and comes in the same; hostile files are refused with the reason', async () => {
    const client = await as('iva');
    const id = await valleyOf(client);
    const text = await (
      await fetch(`${harness.url}/api/displays/${id}/file`, { headers: { cookie: client.cookie } })
    ).text();
    const { status, body } = await client('POST', '/api/displays/import', text);
    expect(status).toBe(201);
    const again = await (
      await fetch(`${harness.url}/api/displays/${String(body.id)}/file`, {
        headers: { cookie: client.cookie },
      })
    ).text();
    expect(again).toBe(text);
    const refused = async (file: string, words: string, code = 422) => {
      expect(await client('POST', '/api/displays/import', file)).toMatchObject({
        status: code,
        body: { message: expect.stringContaining(words) },
      });
    };
    await refused('['.repeat(100_000), 'more than 32 deep');
    await refused(text.replace('"version": 1', '"version": 7'), 'version 7');
    await refused(text.replace('"w": 240', '"w": 1000000000'), '4096');
    await refused(text.replace('"tables"', '"stables"'), 'unknown key “stables”');
    await refused('x'.repeat(20_000_001), 'larger than this server takes', 413);
  });
});

describe('the store', () => {
  test('a second server is kept off the file; a backup is a whole database', () => {
    const { database } = harness.config('main');
    expect(() => openStore(database, MIGRATIONS)).toThrow('Another server is using');
    const copy = join(harness.folder, 'copy.sqlite');
    backupStore(database, copy);
    expect(() => backupStore(database, copy)).toThrow('never overwrites');
    const restored = openStore(copy, MIGRATIONS);
    expect(restored.client.prepare('SELECT count(*) AS n FROM displays').get()).toMatchObject({
      n: expect.any(Number),
    });
    restored.close();
  });

  test('a full disk refuses with a sentence, and nothing is half-written', async () => {
    const client = await as('iva');
    const id = await valleyOf(client);
    const before = await client('GET', `/api/displays/${id}`);
    const sql = harness.running?.store.client;
    if (!sql) throw new Error('no server');
    const pages: unknown = sql.prepare('PRAGMA page_count').get();
    const count = typeof pages === 'object' && pages !== null ? Number(Object.values(pages)[0]) : 0;
    sql.exec(`PRAGMA max_page_count = ${count}`);
    try {
      const pad = (i: number) => ({
        op: 'add',
        kind: 'plot',
        id: `big-${i}`,
        data: { name: 'Big', x: 0, y: 0, w: 1, d: 1, height: 1, notes: 'x'.repeat(1900) },
      });
      const answer = await client(
        'POST',
        `/api/displays/${id}/batches`,
        batch(...Array.from({ length: 500 }, (_, i) => pad(i))),
      );
      expect(answer).toMatchObject({
        status: 507,
        body: { code: 'disk-full', message: expect.stringContaining('nothing was saved') },
      });
      expect(await client('GET', `/api/displays/${id}`)).toEqual(before);
    } finally {
      sql.exec('PRAGMA max_page_count = 1073741823');
    }
    const row = await rowOf(client, id, 'table', 't2');
    expect(
      (
        await client(
          'POST',
          `/api/displays/${id}/batches`,
          batch(patch('table', 't2', row?.v ?? 1, { x: 931 })),
        )
      ).status,
    ).toBe(200);
  });

  test('the interface describes itself', async () => {
    const { body } = await (await as('iva'))('GET', '/api/docs.json');
    expect(Object.keys(body.paths as object)).toEqual(
      expect.arrayContaining(['/api/displays/{id}/batches', '/api/displays/{id}/stream', '/api/session']),
    );
  });
});
