import { randomUUID } from 'node:crypto';
import { unzipSync } from 'fflate';
import { existsSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { longTest } from '../../../packages/core/test/runs.ts';
import { DEMO_PASSWORD } from '../src/demo/demo.service.ts';
import { LettersService } from '../src/letters/letters.service.ts';
import { keepCopies, restoreStore } from '../src/store/copies.ts';
import { openStore } from '../src/store/database.ts';
import {
  Harness,
  MIGRATIONS,
  batch,
  clientOf,
  invite,
  listen,
  newDisplay,
  newcomer,
  patch,
  rowOf,
  valleyOf,
  type Client,
} from './harness.ts';

/** People on a display: joining, leaving, what each may do, and what each may see. */
const MANY = { signInLimit: 100_000 };
const harness = new Harness();
const as = (login: string) => harness.as(login);
beforeAll(() => harness.start(MANY));
afterAll(() => harness.end());

interface MemberLine {
  userId: string;
  login: string | null;
  role: string;
  person: string | null;
  mayReset: boolean;
  here: boolean;
}
const membersOf = async (client: Client, id: string) =>
  Object.values((await client('GET', `/api/displays/${id}/members`)).body) as unknown as MemberLine[];
const memberOf = async (owner: Client, id: string, login: string): Promise<MemberLine> => {
  const found = (await membersOf(owner, id)).find((one) => one.login === login);
  if (!found) throw new Error(`no ${login}`);
  return found;
};
const nobody = () => clientOf(() => harness.url);
/** Somebody new on a display. */
const joined = async (owner: Client, id: string, login: string, more: object = {}): Promise<Client> => {
  const client = nobody();
  const { token } = await invite(owner, id, more);
  expect(await client('POST', `/api/join/${token}`, newcomer(login))).toMatchObject({
    status: 200,
    body: { display: id },
  });
  return client;
};
const letters = async (client: Client) =>
  Object.values((await client('GET', '/api/letters')).body) as unknown as {
    id: number;
    subject: string;
    body: string;
    readAt: number | null;
  }[];

describe('what each role may do of the crew’s affairs', () => {
  type Call = (client: Client, id: string, other: string) => Promise<{ status: number }>;
  const at =
    (method: string, path: string, body?: object): Call =>
    (client, id, other) =>
      client(method, `/api/displays/${id}${path.replace(':other', other)}`, body);
  const advice =
    (by: string | null): Call =>
    async (client, id) => {
      const { body } = await client('GET', `/api/displays/${id}`);
      const data = { title: 'T', text: 'T', by: by ?? Object(body.actor).person ?? null };
      const thread = `thread-${randomUUID().slice(0, 8)}`;
      return client(
        'POST',
        `/api/displays/${id}/batches`,
        batch({ op: 'add', kind: 'thread', id: thread, data }),
      );
    };
  const here = { client: randomUUID(), page: 'plan', section: null, picked: [] };
  const restore: Call = (client, id) =>
    client('POST', `/api/displays/${id}/history/3/restore`, { id: randomUUID() });
  // Columns: planner, builder, viewer, stranger, signed out, and the owner last, since some acts end what they act on.
  const matrix: [string, Call, number[]][] = [
    ['members', at('GET', '/members'), [200, 200, 200, 404, 401, 200]],
    ['password code', at('POST', '/members/:other/reset'), [403, 403, 403, 404, 401, 201]],
    ['invite', at('POST', '/invitations', { role: 'viewer' }), [403, 403, 403, 404, 401, 201]],
    ['invitations', at('GET', '/invitations'), [403, 403, 403, 404, 401, 200]],
    ['take back an invitation', at('DELETE', '/invitations/none'), [403, 403, 403, 404, 401, 404]],
    ['public page: state', at('GET', '/share'), [200, 200, 200, 404, 401, 200]],
    ['public page: switch', at('PUT', '/share', { names: true }), [403, 403, 403, 404, 401, 200]],
    ['public page: off', at('DELETE', '/share'), [403, 403, 403, 404, 401, 204]],
    ['marks', at('GET', '/marks'), [200, 200, 200, 404, 401, 200]],
    ['marking', at('PUT', '/marks', { what: 'log', upTo: 3 }), [204, 204, 204, 404, 401, 204]],
    ['whereabouts', at('POST', '/here', here), [204, 204, 204, 404, 401, 204]],
    ['history', at('GET', '/history'), [200, 200, 200, 404, 401, 200]],
    ['the past', at('GET', '/history/3'), [200, 200, 200, 404, 401, 200]],
    ['a moment', at('GET', '/moment?at=0'), [200, 200, 200, 404, 401, 200]],
    ['taking back the owner’s change', at('GET', '/history/1/back'), [200, 403, 403, 404, 401, 200]],
    ['what restoring would do', at('GET', '/history/3/restoring'), [200, 200, 200, 404, 401, 200]],
    ['restoring', restore, [200, 403, 403, 404, 401, 200]],
    ['photos with the display', at('GET', '/photos'), [200, 200, 200, 404, 401, 200]],
    ['the plan as a picture', at('GET', '/picture'), [200, 200, 200, 404, 401, 200]],
    ['copying it', at('POST', '/copy', { name: 'Copy' }), [201, 201, 201, 404, 401, 201]],
    ['how far the sections were', at('GET', '/shares'), [200, 200, 200, 404, 401, 200]],
    ['agenda', at('GET', '/sheets/agenda.ics'), [200, 200, 200, 404, 401, 200]],
    ['adding a photo', at('POST', '/photos', {}), [400, 400, 403, 404, 401, 400]],
    ['a photo', at('GET', `/photos/${'a'.repeat(64)}`), [404, 404, 404, 404, 401, 404]],
    ['pick list', at('POST', '/sheets/pick.pdf', { lines: [] }), [422, 422, 422, 404, 401, 422]],
    ['report on paper', at('POST', '/sheets/report.pdf', {}), [422, 422, 422, 404, 401, 422]],
    ['advice in one’s own name', advice(null), [200, 200, 200, 404, 401, 200]],
    ['advice in another’s name', advice('mads'), [200, 403, 403, 404, 401, 200]],
    ['making a stranger owner', at('PUT', '/owner', { userId: 'none' }), [403, 403, 403, 404, 401, 404]],
    ['role of another', at('PATCH', '/members/:other', { role: 'viewer' }), [403, 403, 403, 404, 401, 204]],
    ['taking another off', at('DELETE', '/members/:other'), [403, 403, 403, 404, 401, 204]],
  ];
  let stranger: Client;
  beforeAll(async () => {
    await harness.reseed(MANY);
    const owner = await as('iva');
    stranger = await joined(owner, await newDisplay(owner, 'Elsewhere'), 'nell');
  });
  test.each(matrix)('%s', async (_, call, expected) => {
    const owner = await as('iva');
    const id = await valleyOf(owner);
    const { userId: other } = await memberOf(owner, id, 'mads');
    const clients = [await as('tobin'), await as('brenna'), await as('suri'), stranger, nobody(), owner];
    const statuses: number[] = [];
    for (const client of clients) statuses.push((await call(client, id, other)).status);
    expect(statuses).toEqual(expected);
  });
});

describe('joining and leaving', () => {
  beforeAll(() => harness.reseed(MANY));
  test('a link lets one person in, once; taken back, used or old, it opens nothing and says the same', async () => {
    const owner = await as('iva');
    const id = await newDisplay(owner, 'Joining');
    const { token } = await invite(owner, id, { note: 'Come and build', days: 3 });
    const first = nobody();
    expect((await first('GET', `/api/join/${token}`)).body).toMatchObject({
      ...{ display: 'Joining', role: 'builder', by: 'Iva Thorsby', note: 'Come and build' },
    });
    // Two who race for it: one is in, the other hears that it is used.
    const second = nobody();
    const answers = await Promise.all([
      first('POST', `/api/join/${token}`, newcomer('first')),
      second('POST', `/api/join/${token}`, newcomer('second')),
    ]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 404]);
    const winner = answers[0].status === 200 ? first : second;
    const { body } = await winner('GET', `/api/displays/${id}`);
    const { person } = Object(body.actor);
    expect((await rowOf(winner, id, 'person', person))?.data).toMatchObject({
      name: 'Nell Hythe',
      initials: 'NH',
    });
    const used = await nobody()('GET', `/api/join/${token}`);
    const { token: another, id: invitation } = await invite(owner, id);
    expect((await owner('DELETE', `/api/displays/${id}/invitations/${invitation}`)).status).toBe(204);
    const revoked = await nobody()('GET', `/api/join/${another}`);
    const { token: old } = await invite(owner, id);
    harness.running?.store.client.exec(`UPDATE invitations SET expiresAt = 1 WHERE usedAt IS NULL`);
    const late = await nobody()('POST', `/api/join/${old}`, newcomer('late'));
    expect([used, revoked, late]).toEqual([used, used, used]);
    expect(used).toMatchObject({ status: 404, body: { code: 'no-invitation' } });
    const lines = Object.values((await owner('GET', `/api/displays/${id}/invitations`)).body) as unknown as {
      state: string;
    }[];
    expect(lines.map(({ state }) => state).sort()).toEqual(['expired', 'revoked', 'used']);
    // The database holds digests, never the links themselves.
    const rows: unknown = harness.running?.store.client.prepare('SELECT * FROM invitations').all();
    for (const secret of [token, another, old]) expect(JSON.stringify(rows)).not.toContain(secret);
  });

  test('somebody signed in joins as they are; being on it already uses nothing up; a person is one account’s', async () => {
    const owner = await as('iva');
    const id = await newDisplay(owner, 'Again');
    const { token } = await invite(owner, id, { role: 'viewer' });
    expect(await owner('POST', `/api/join/${token}`)).toMatchObject({ status: 409, body: { code: 'on-it' } });
    const tobin = await as('tobin');
    expect((await tobin('POST', `/api/join/${token}`)).status).toBe(200);
    const { person } = (await membersOf(owner, id)).find(({ role }) => role === 'viewer') ?? { person: null };
    expect(await owner('POST', `/api/displays/${id}/invitations`, { role: 'builder', person })).toMatchObject(
      {
        status: 409,
        body: { code: 'person-taken' },
      },
    );
  });

  test('a display keeps an owner; ownership changes hands; who leaves is out at once, streams too', async () => {
    const owner = await as('iva');
    const id = await newDisplay(owner, 'Hands');
    const builder = await joined(owner, id, 'hand');
    const { userId: me } = await memberOf(owner, id, 'iva');
    const { userId } = await memberOf(owner, id, 'hand');
    const path = `/api/displays/${id}`;
    expect(await owner('DELETE', `${path}/members/${me}`)).toMatchObject({
      status: 409,
      body: { code: 'last-owner' },
    });
    expect((await owner('PATCH', `${path}/members/${me}`, { role: 'viewer' })).body.code).toBe('last-owner');
    expect((await owner('PUT', `${path}/owner`, { userId })).status).toBe(204);
    expect((await owner('GET', path)).body.actor).toMatchObject({ role: 'planner' });
    const ear = await listen(owner, `${harness.url}${path}/stream?after=0&client=${randomUUID()}`);
    // A change of role in mid-session holds for the very next request, and the open window is told.
    expect((await builder('PATCH', `${path}/members/${me}`, { role: 'viewer' })).status).toBe(204);
    await ear.until(({ event }) => event === 'membership-changed');
    const level = { op: 'add', kind: 'level', id: 'x', data: { name: 'X', height: 1 } };
    expect((await owner('POST', `${path}/batches`, batch(level))).status).toBe(403);
    expect((await builder('DELETE', `${path}/members/${me}`)).status).toBe(204);
    await ear.until(({ event }) => event === 'gone');
    for (let i = 0; i < 100 && !ear.ended; i++) await new Promise((go) => setTimeout(go, 10));
    expect([ear.ended, (await owner('GET', path)).status]).toEqual([true, 404]);
  });

  test('an account that is the only owner of something stays; when it goes, its work and its name in the log stay', async () => {
    const owner = await as('iva');
    const id = await newDisplay(owner, 'Work');
    const builder = await joined(owner, id, 'worker', { role: 'planner' });
    const level = { op: 'add', kind: 'level', id: 'mine', data: { name: 'Mine', height: 3 } };
    expect((await builder('POST', `/api/displays/${id}/batches`, batch(level))).status).toBe(200);
    const own = await newDisplay(builder, 'Own');
    const password = 'a long enough one';
    expect(await builder('DELETE', '/api/me', { password: 'not it at all' })).toMatchObject({ status: 403 });
    expect(await builder('DELETE', '/api/me', { password })).toMatchObject({
      status: 409,
      body: { message: expect.stringContaining('“Own”') },
    });
    await builder('DELETE', `/api/displays/${own}`);
    expect((await builder('DELETE', '/api/me', { password })).status).toBe(204);
    expect((await nobody()('POST', '/api/session', { login: 'worker', password })).status).toBe(401);
    expect(await rowOf(owner, id, 'level', 'mine')).toMatchObject({ data: { name: 'Mine' } });
    const [line] = (await owner('GET', `/api/displays/${id}/history`)).body.lines as { author: string }[];
    expect(line.author).toBe('Nell Hythe');
  });
});

describe('passwords and sessions', () => {
  beforeAll(() => harness.reseed(MANY));
  test('a changed password ends every other session and its streams; sessions are listed and ended one by one', async () => {
    const here = await as('mads');
    const elsewhere = await as('mads');
    const third = await as('mads');
    const id = await valleyOf(here);
    const listed = Object.values((await here('GET', '/api/sessions')).body) as unknown as {
      id: string;
      here: boolean;
    }[];
    expect(listed.filter((line) => line.here)).toHaveLength(1);
    expect(listed.length).toBeGreaterThanOrEqual(3);
    const ear = await listen(elsewhere, `${harness.url}/api/displays/${id}/stream?client=${randomUUID()}`);
    expect(
      (await here('PUT', '/api/me/password', { old: 'wrong', password: 'another long one' })).status,
    ).toBe(403);
    expect((await here('PUT', '/api/me/password', { old: DEMO_PASSWORD, password: 'short' })).status).toBe(
      422,
    );
    expect(
      (await here('PUT', '/api/me/password', { old: DEMO_PASSWORD, password: 'another long one' })).status,
    ).toBe(204);
    await ear.until(({ event }) => event === 'gone');
    expect([(await third('GET', '/api/me')).status, (await here('GET', '/api/me')).status]).toEqual([
      401, 200,
    ]);
    const again = nobody();
    expect(
      (await again('POST', '/api/session', { login: 'mads', password: 'another long one' })).status,
    ).toBe(200);
    const others = Object.values((await here('GET', '/api/sessions')).body) as unknown as {
      id: string;
      here: boolean;
    }[];
    const other = others.find((line) => !line.here);
    // Nobody ends another's session by its name.
    expect((await (await as('suri'))('DELETE', `/api/sessions/${other?.id}`)).status).toBe(404);
    expect((await here('DELETE', `/api/sessions/${other?.id}`)).status).toBe(204);
    expect((await again('GET', '/api/me')).status).toBe(401);
  });

  test('a forgotten password: asking tells nothing; a code is for one, once; no owner can open an account that holds more', async () => {
    const keeper = await as('iva');
    const id = await newDisplay(keeper, 'Codes');
    const builder = await joined(keeper, id, 'coder', { role: 'planner' });
    const known = await nobody()('POST', '/api/reset/ask', { login: 'coder' });
    expect(await nobody()('POST', '/api/reset/ask', { login: 'nobody-at-all' })).toEqual(known);
    expect((await letters(keeper))[0]).toMatchObject({
      subject: 'Nell Hythe (coder) asks for a new password',
    });
    const { userId } = await memberOf(keeper, id, 'coder');
    const { body } = await keeper('POST', `/api/displays/${id}/members/${userId}/reset`);
    const code = String(body.code);
    const password = 'a fresh long one';
    const wrong = await nobody()('POST', '/api/reset', { login: 'tobin', code, password });
    expect(wrong).toMatchObject({ status: 403, body: { code: 'wrong-code' } });
    expect(await nobody()('POST', '/api/reset', { login: 'nobody-at-all', code, password })).toEqual(wrong);
    const back = nobody();
    expect(
      (await back('POST', '/api/reset', { login: 'coder', code: code.toLowerCase(), password })).status,
    ).toBe(200);
    expect((await builder('GET', '/api/me')).status).toBe(401);
    expect((await nobody()('POST', '/api/reset', { login: 'coder', code, password })).status).toBe(403);
    // The coder owns a display and takes the keeper and a guest on: a code for either would open more than that.
    const own = await newDisplay(back, 'Mine');
    const guest = await as('suri');
    for (const client of [keeper, guest])
      await client('POST', `/api/join/${(await invite(back, own)).token}`);
    for (const login of ['iva', 'suri']) {
      const member = await memberOf(back, own, login);
      expect(member.mayReset).toBe(false);
      expect((await back('POST', `/api/displays/${own}/members/${member.userId}/reset`)).status).toBe(403);
    }
  });
});

describe('history', () => {
  beforeAll(() => harness.reseed(MANY));
  test('is descriptions in sentences, filtered; any moment can be looked at; a batch is taken back or says what depends on it', async () => {
    const owner = await as('iva');
    const builder = await as('brenna');
    const id = await valleyOf(owner);
    const path = `/api/displays/${id}`;
    const page = async (query: string) =>
      (await owner('GET', `${path}/history?${query}`)).body as {
        lines: {
          seq: number;
          author: string;
          descriptions: { sentence: string; section: string | null }[];
        }[];
        seq: number;
      };
    const all = await page('limit=500');
    expect(all.lines.map(({ seq }) => seq)).toEqual(Array.from({ length: all.seq }, (_, i) => all.seq - i));
    expect(all.lines.flatMap(({ descriptions }) => descriptions.map(({ sentence }) => sentence))).toEqual(
      expect.arrayContaining([
        'lowered the level Upper yard from 12b to 11b',
        'moved section B from ground to structures',
      ]),
    );
    for (const { author } of (await page('author=Mads%20Elvery')).lines) expect(author).toBe('Mads Elvery');
    const ofB = (await page('section=street-b')).lines;
    expect(ofB.length).toBeGreaterThan(4);
    for (const { descriptions } of ofB)
      expect(descriptions.some(({ section }) => section === 'street-b')).toBe(true);
    expect((await page('kind=water')).lines).toHaveLength(1);
    expect(
      (await page(`from=${Date.parse('2031-05-01')}&to=${Date.parse('2031-05-02')}`)).lines,
    ).toHaveLength(0);

    // The builder raises the baker twice; the first raise cannot go without the second.
    const raise = async (client: Client, height: number) => {
      const row = await rowOf(client, id, 'plot', 'baker');
      const { body } = await client(
        'POST',
        `${path}/batches`,
        batch(patch('plot', 'baker', row?.v ?? 0, { height })),
      );
      return Number(body.seq);
    };
    const first = await raise(builder, 45);
    const second = await raise(builder, 48);
    const blocked = (await builder('GET', `${path}/history/${first}/back`)).body;
    expect(blocked).toMatchObject({ ok: false, later: [{ seq: second, author: 'Brenna Rook' }] });
    const back = (await builder('GET', `${path}/history/${second}/back`)).body;
    expect((await builder('POST', `${path}/batches`, batch(...(back.changes as object[])))).status).toBe(200);
    expect((await rowOf(owner, id, 'plot', 'baker'))?.data?.height).toBe(45);

    const past = (await owner('GET', `${path}/history/${first - 1}`)).body as {
      rows: { id: string; kind: string; data: { height: number } }[];
    };
    expect(past.rows.find(({ kind, id: of }) => kind === 'plot' && of === 'baker')?.data.height).toBe(42);
    expect(await owner('GET', `${path}/history/999999`)).toMatchObject({
      status: 404,
      body: { message: expect.stringContaining('goes from 0 to') },
    });
    // Brought back to where the log begins: one new batch, and the log is longer, not shorter.
    const before = (await page('limit=1')).seq;
    const restore = { id: randomUUID() };
    const { body: restored } = await owner('POST', `${path}/history/0/restore`, restore);
    expect(restored.seq).toBe(before + 1);
    expect((await owner('POST', `${path}/history/0/restore`, restore)).body).toEqual({ seq: null });
    expect((await rowOf(owner, id, 'level', 'yard'))?.data?.height).toBe(36);
    expect((await rowOf(owner, id, 'thread', 'pillar'))?.data).not.toBeNull();
  });

  longTest('checkpoints along a long log lead to the same past as a replay from its beginning', async () => {
    const owner = await as('iva');
    const id = await newDisplay(owner, 'Long');
    const path = `/api/displays/${id}`;
    await owner(
      'POST',
      `${path}/batches`,
      batch({ op: 'add', kind: 'level', id: 'l', data: { name: 'L', height: 0 } }),
    );
    for (let v = 1; v < 520; v += 40)
      await Promise.all(
        Array.from({ length: 40 }, (_, i) =>
          owner(
            'POST',
            `${path}/batches`,
            batch({
              op: 'add',
              kind: 'plot',
              id: `p-${v + i}`,
              data: { name: `P${v + i}`, x: i, y: 0, w: 1, d: 1, height: 3 },
            }),
          ),
        ),
      );
    const count: unknown = harness.running?.store.client
      .prepare('SELECT count(*) AS n FROM checkpoints WHERE displayId = ?')
      .get(id);
    expect(count).toMatchObject({ n: 2 });
    const plots = async (seq: number) =>
      ((await owner('GET', `${path}/history/${seq}`)).body.rows as { kind: string }[]).filter(
        ({ kind }) => kind === 'plot',
      ).length;
    expect([await plots(499), await plots(500), await plots(501), await plots(2)]).toEqual([
      498, 499, 500, 1,
    ]);
  });
});

describe('the public page', () => {
  beforeAll(() => harness.reseed(MANY));
  test('shows plan and progress to anybody with the address, names only when allowed, and nothing once it is off', async () => {
    const owner = await as('iva');
    const id = await valleyOf(owner);
    const { token } = (await owner('GET', `/api/displays/${id}/share`)).body;
    const url = `${harness.url}/s/${String(token)}`;
    const answer = await fetch(url);
    const html = await answer.text();
    expect([answer.status, answer.headers.get('x-robots-tag')]).toEqual([200, 'noindex']);
    expect(answer.headers.get('content-type')).toBe('text/html; charset=utf-8');
    // Compressed once for all; who cannot read that gets the same.
    expect(answer.headers.get('content-encoding')).toBe('gzip');
    const plain = await fetch(url, { headers: { 'accept-encoding': 'identity' } });
    expect([plain.headers.get('content-encoding'), await plain.text()]).toEqual([null, html]);
    const text = html.replace(/<[^>]*>/g, ' ').replace(/\s+/g, ' ');
    for (const seen of ['Skarn Edge', 'Larkmoor Brick Show', 'figures in scenes 21', 'cats 1'])
      expect(text).toContain(seen);
    expect(html).toContain('src="data:image/svg+xml;charset=utf-8,%3Csvg');
    for (const secret of ['Brenna', 'Thorsby', 'pump', 'pillar', 'Greys, first', 'spare', 'Oxtarn'])
      expect(html).not.toContain(secret);
    // Numbers, the story, and names that are marked; where things are to be found stays with the crew.
    expect(text).toMatch(/The story 1 Market morning .* With Old Wenna, Nan Quill 2 .* 3 .* 4 .* 5 .* 6 /);
    expect(text).toMatch(/Also shown as First snow.* Founders’ night.* Market day/);
    for (const unmarked of ['Bettany', 'Lise Marrow', 'Fell grass', 'For Frostwick'])
      expect(html).not.toContain(unmarked);
    const same = await fetch(url, { headers: { 'if-none-match': answer.headers.get('etag') ?? '' } });
    expect(same.status).toBe(304);
    await owner('PUT', `/api/displays/${id}/share`, { names: true });
    expect(await (await fetch(url)).text()).toContain('Brenna Rook');
    const { body: fresh } = await owner('PUT', `/api/displays/${id}/share`, { names: false, fresh: true });
    const gone = await fetch(url);
    expect([gone.status, await gone.text()]).toEqual([404, expect.stringContaining('nothing to see here')]);
    const moved = `${harness.url}/s/${String(fresh.token)}`;
    expect((await fetch(moved)).status).toBe(200);
    await owner('DELETE', `/api/displays/${id}/share`);
    expect((await fetch(moved)).status).toBe(404);
  });
});

describe('hearing of each other', () => {
  beforeAll(() => harness.reseed(MANY));
  test('who is here is told within a second, with page and what is picked, and forgotten when they go', async () => {
    const [iva, brenna] = [await as('iva'), await as('brenna')];
    const id = await valleyOf(iva);
    const stream = (client: string) => `${harness.url}/api/displays/${id}/stream?after=0&client=${client}`;
    const [one, two] = [randomUUID(), randomUUID()];
    const ear = await listen(iva, stream(one));
    const other = await listen(brenna, stream(two));
    const where = { page: 'plan', section: 'street-b', picked: [{ kind: 'plot', id: 'baker' }] };
    await brenna('POST', `/api/displays/${id}/here`, { client: two, ...where });
    await ear.until(({ event, data }) => event === 'moved' && JSON.stringify(data).includes('"baker"'));
    // Nobody moves another's window.
    await iva('POST', `/api/displays/${id}/here`, { client: two, ...where, page: 'forged' });
    other.close();
    await ear.until(
      ({ event, data }) =>
        event === 'moved' && JSON.stringify(data) === JSON.stringify({ here: [], gone: [two] }),
    );
    expect(JSON.stringify(ear.heard)).not.toContain('forged');
    ear.close();
  });

  test('a mention and an answer make letters, to those concerned and nobody else; a digest comes once a day', async () => {
    const [iva, brenna, suri] = [await as('iva'), await as('brenna'), await as('suri')];
    const id = await valleyOf(iva);
    const path = `/api/displays/${id}/batches`;
    const before = (await letters(suri)).length;
    const { body: now } = await iva('GET', `/api/displays/${id}`);
    await iva('PUT', `/api/displays/${id}/marks`, { what: 'log', upTo: now.seq });
    const thread = { title: 'Lamps', text: '@Suri, which sockets?', by: 'brenna', mentions: ['suri'] };
    await brenna('POST', path, batch({ op: 'add', kind: 'thread', id: 'lamps', data: thread }));
    const reply = { thread: 'lamps', text: 'Two in the east', by: 'suri' };
    await suri('POST', path, batch({ op: 'add', kind: 'reply', id: 'lamps-1', data: reply }));
    const [mention] = await letters(suri);
    expect([(await letters(suri)).length - before, mention.subject]).toEqual([
      1,
      'Brenna Rook names you in “Lamps” (Skarn Edge)',
    ]);
    expect((await letters(brenna))[0]).toMatchObject({
      subject: 'Suri Vale answered “Lamps” (Skarn Edge)',
      body: 'Two in the east',
    });
    expect((await iva('POST', `/api/letters/${mention.id}/read`)).status).toBe(404);
    expect((await suri('POST', `/api/letters/${mention.id}/read`)).status).toBe(204);
    expect((await letters(suri))[0].readAt).not.toBeNull();

    const service = harness.running?.app.get(LettersService);
    const digests = async () =>
      (await letters(iva)).filter(({ subject }) => subject.startsWith('What the crew did'));
    service?.writeDigests(Date.now());
    service?.writeDigests(Date.now() + 3_600_000);
    expect(await digests()).toMatchObject([{ body: 'Skarn Edge: 2 changes by Brenna Rook, Suri Vale' }]);
    // Whoever has looked meanwhile hears nothing more.
    await iva('PUT', `/api/displays/${id}/marks`, { what: 'log', upTo: 1_000_000 });
    service?.writeDigests(Date.now() + 2 * 86_400_000);
    expect(await digests()).toHaveLength(1);
  });

  test('marks are one’s own and never go back', async () => {
    const [iva, brenna] = [await as('iva'), await as('brenna')];
    const path = `/api/displays/${await valleyOf(iva)}/marks`;
    await brenna('PUT', path, { what: 'lower-dam', upTo: 5 });
    await brenna('PUT', path, { what: 'lower-dam', upTo: 3 });
    expect((await brenna('GET', path)).body).toMatchObject({ 'lower-dam': 5 });
    expect((await iva('GET', path)).body).not.toHaveProperty('lower-dam');
    expect((await brenna('PUT', path, { what: 'no-such-thread', upTo: 1 })).status).toBe(404);
  });
});

describe('keeping', () => {
  test('everything one may see goes out in one archive, photos too, and nothing else', async () => {
    const suri = await as('suri');
    const answer = await fetch(`${harness.url}/api/me/export`, { headers: { cookie: suri.cookie } });
    const files = unzipSync(new Uint8Array(await answer.arrayBuffer()));
    const text = (name: string) => new TextDecoder().decode(files[name]);
    expect(JSON.parse(text('account.json')).account).toMatchObject({ login: 'suri' });
    const folder = '1-skarn-edge.viewer';
    expect(JSON.parse(text(`${folder}/display.quarry.json`)).display.name).toBe('Skarn Edge');
    expect(JSON.parse(text(`${folder}/log.json`)).length).toBeGreaterThan(40);
    expect(Object.keys(files).filter((name) => name.startsWith(`${folder}/photos/`))).toHaveLength(3);
    expect(Object.keys(files)).toHaveLength(1 + 2 + 3);
    for (const name of Object.keys(files).filter((one) => one.endsWith('.json')))
      expect(text(name)).not.toMatch(/passwordHash|argon2|Larch Lane/);
    expect((await nobody()('GET', '/api/me/export')).status).toBe(401);
  });

  test('copies are kept to a number; one is put back with no server running; a newer or broken one is refused', async () => {
    const { database } = harness.config('main');
    const folder = join(harness.folder, 'copies');
    const day = (n: number) => new Date(Date.UTC(2031, 4, n));
    for (let n = 1; n <= 5; n++) keepCopies(database, folder, 3, day(n));
    expect(readdirSync(folder)).toEqual([3, 4, 5].map((n) => `quarry-2031050${n}-000000.sqlite`));
    const copy = join(folder, 'quarry-20310505-000000.sqlite');
    expect(() => restoreStore(copy, database, MIGRATIONS, day(6))).toThrow('Another server is using');
    await harness.stop();
    const aside = restoreStore(copy, database, MIGRATIONS, day(6));
    expect([aside !== null && existsSync(aside), existsSync(`${database}.restoring`)]).toEqual([true, false]);
    await harness.start(MANY);
    expect((await (await as('iva'))('GET', `/api/displays/${await valleyOf(await as('iva'))}`)).status).toBe(
      200,
    );
    await harness.stop();
    const newer = openStore(copy, MIGRATIONS);
    newer.client.exec("INSERT INTO __drizzle_migrations (hash, created_at) VALUES ('later', 9999999999999)");
    newer.close();
    expect(() => openStore(copy, MIGRATIONS)).toThrow('newer version of Open Quarry');
    expect(() => restoreStore(copy, database, MIGRATIONS, day(7))).toThrow('newer version of Open Quarry');
    writeFileSync(`${copy}.broken`, 'not a database at all');
    expect(() => restoreStore(`${copy}.broken`, database, MIGRATIONS, day(7))).toThrow(
      'cannot be read as a database',
    );
    await harness.start(MANY);
  });
});
