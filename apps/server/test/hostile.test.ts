import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { join } from 'node:path';
import { Logger } from '@nestjs/common';
import ICAL from 'ical.js';
import { LettersService } from '../src/letters/letters.service.ts';
import { backupStore, restoreStore } from '../src/store/copies.ts';
import { openStore, transact } from '../src/store/database.ts';
import {
  Harness,
  MIGRATIONS,
  batch,
  clientOf,
  displayOf,
  invite,
  listen,
  newDisplay,
  newcomer,
  patch,
  rowOf,
  valleyOf,
  type Client,
} from './harness.ts';

// What a member who means harm tries: to stop the server, to speak or act for another, to come back unasked.

const harness = new Harness();
const as = (login: string) => harness.as(login);
beforeEach(() => harness.reseed({ signInLimit: 100_000 }));
afterAll(() => harness.end());

const nobody = () => clientOf(() => harness.url);
const add = (kind: string, id: string, data: object) => ({ op: 'add', kind, id, data });
/** A link's token. */
const linkTo = async (owner: Client, id: string, more: object = {}) => (await invite(owner, id, more)).token;
/** Who somebody is on the shared display. */
const personOf = async (client: Client, id: string): Promise<string> => {
  const { body } = await client('GET', `/api/displays/${id}`);
  const { actor } = body as { actor: { person: string } };
  return actor.person;
};
/** The members of the demo's shared display by what they may do. */
async function crewOf(id: string, owner: Client) {
  const { body } = await owner('GET', `/api/displays/${id}/members`);
  const list = Object.values(body) as { login: string; role: string; person: string | null }[];
  const login = (role: string) => list.find((one) => one.role === role && one.person)?.login ?? '';
  return { planner: login('planner'), builder: login('builder'), viewer: login('viewer') };
}
async function stage() {
  const owner = await as('iva');
  const id = await valleyOf(owner);
  const names = await crewOf(id, owner);
  const [planner, builder, viewer] = await Promise.all([
    as(names.planner),
    as(names.builder),
    as(names.viewer),
  ]);
  const send = (client: Client, ...changes: object[]) =>
    client('POST', `/api/displays/${id}/batches`, batch(...changes));
  return { id, owner, planner, builder, viewer, send, url: `/api/displays/${id}/batches` };
}

describe('nobody stops the server', () => {
  test('a builder’s 5,000 changes are judged in slices: others are answered meanwhile, what follows them waits its turn', async () => {
    const { id, builder, owner, send, url } = await stage();
    const me = await personOf(builder, id);
    const lots = Array.from({ length: 5000 }, (_, i) =>
      add('lot', `lot-${i}-x`, { part: 'brick-2x4', colour: 'slate', qty: 1 + i, owner: me, place: 'shelf' }),
    );
    const answered: string[] = [];
    const note = async (what: string, answer: Promise<{ status: number }>) => {
      const { status } = await answer;
      answered.push(`${what} ${status}`);
    };
    const large = note('large', builder('POST', url, batch(...lots)));
    // As soon as it has arrived, and again and again while it is being judged.
    const health: Promise<void>[] = [];
    for (let i = 0; i < 12; i++) {
      await new Promise((go) => setTimeout(go, 15));
      health.push(note('health', owner('GET', '/api/health')));
    }
    const other = await displayOf(owner, 'Larch Lane');
    const elsewhere = note(
      'other',
      owner(
        'POST',
        `/api/displays/${other}/batches`,
        batch(patch('display', 'display', 1, { notes: 'meanwhile' })),
      ),
    );
    const after = note('after', send(builder, patch('lot', 'lot-7-x', 1, { qty: 5 })));
    await Promise.all([large, after, elsewhere, ...health]);
    expect(answered.filter((one) => one === 'health 200')).toHaveLength(12);
    expect(answered).toEqual(expect.arrayContaining(['large 200', 'after 200']));
    // The one that changes what the large one adds was judged behind it, and elsewhere nobody waited for either.
    expect(answered.indexOf('large 200')).toBeLessThan(answered.indexOf('after 200'));
    expect((await rowOf(owner, id, 'lot', 'lot-7-x'))?.data?.qty).toBe(5);
  }, 60_000);

  test('one bad change among thousands lands none of them and names itself', async () => {
    const { id, builder, owner, send } = await stage();
    const me = await personOf(builder, id);
    const lots = Array.from({ length: 400 }, (_, i) =>
      add('lot', `lot-${i}-x`, {
        ...{ part: 'brick-2x4', colour: 'slate', qty: 1 },
        owner: i === 300 ? 'iva' : me,
      }),
    );
    expect(await send(builder, ...lots)).toMatchObject({ status: 403, body: { index: 300 } });
    expect(await rowOf(owner, id, 'lot', 'lot-0-x')).toBeUndefined();
  });

  test('a proposal nested without end is refused, and nobody’s saving suffers', async () => {
    const { id, viewer, owner, url } = await stage();
    const me = await personOf(viewer, id);
    const deep = (depth: number) => `${'{"a":'.repeat(depth)}1${'}'.repeat(depth)}`;
    const body = (depth: number) =>
      `{"id":"${randomUUID()}","label":"","changes":[{"op":"add","kind":"thread","id":"deep-${depth}","data":{"title":"T","text":"T","by":"${me}","proposal":[${deep(depth)}]}}]}`;
    const other = await displayOf(owner, 'Larch Lane');
    const mine = Array.from({ length: 12 }, (_, i) =>
      owner(
        'POST',
        `/api/displays/${other}/batches`,
        batch(add('note', `note-${i}-x`, { name: `N${i}`, text: 'still here', x: i, y: 0 })),
      ),
    );
    const theirs = [20, 100, 5000, 50_000].map((depth) => viewer('POST', url, body(depth)));
    expect((await Promise.all(theirs)).map(({ status }) => status)).toEqual([422, 422, 422, 422]);
    expect((await Promise.all(mine)).map(({ status }) => status)).toEqual(new Array(12).fill(200));
    const huge = { title: 'T', text: 'T', by: me, proposal: [{ op: 'x'.repeat(250_000) }] };
    expect(await viewer('POST', url, batch(add('thread', 'huge', huge)))).toMatchObject({
      status: 422,
      body: { message: expect.stringContaining('200,000') },
    });
  });

  test('what nobody foresaw in one batch is that batch’s alone: its neighbours land, each by itself', async () => {
    const { id, owner, url } = await stage();
    const letters = harness.running?.app.get(LettersService);
    if (!letters) throw new Error('no server');
    const real = letters.afterBatch.bind(letters);
    const spy = jest.spyOn(letters, 'afterBatch').mockImplementation((...told) => {
      if (told[3].label === 'bad') throw new TypeError('nobody foresaw this');
      real(...told);
    });
    try {
      const answers = await Promise.all(
        Array.from({ length: 9 }, (_, i) =>
          owner('POST', url, {
            ...batch(add('note', `note-${i}-x`, { name: `N${i}`, text: 'words', x: i, y: 0 })),
            label: i === 4 ? 'bad' : 'good',
          }),
        ),
      );
      expect(answers.map(({ status }) => status)).toEqual([200, 200, 200, 200, 500, 200, 200, 200, 200]);
      const seqs = answers.flatMap(({ body }) => (typeof body.seq === 'number' ? [body.seq] : []));
      expect(new Set(seqs).size).toBe(8);
    } finally {
      spy.mockRestore();
    }
    expect(await rowOf(owner, id, 'note', 'note-4-x')).toBeUndefined();
    expect(await rowOf(owner, id, 'note', 'note-5-x')).toBeDefined();
  });
});

describe('floods are refused in a sentence', () => {
  test('advice, names and windows: so many of one person, and letters with them', async () => {
    const { id, owner, viewer, send } = await stage();
    const me = await personOf(viewer, id);
    const thread = (n: number, mentions: string[] = []) =>
      add('thread', `flood-${n}`, { title: 'T', text: 'T', by: me, mentions });
    const letters = async () => (await owner('GET', '/api/letters')).body;
    const before = JSON.stringify(await letters()).length;
    const many = Array.from({ length: 4000 }, (_, n) => thread(n, ['iva']));
    expect(await send(viewer, ...many)).toMatchObject({
      status: 422,
      body: { message: expect.stringContaining('40 pieces of advice') },
    });
    expect(JSON.stringify(await letters())).toHaveLength(before);
    expect((await send(viewer, ...many.slice(0, 38))).status).toBe(200);
    expect((await send(viewer, thread(50), thread(51))).status).toBe(200);
    expect((await send(viewer, thread(52))).status).toBe(429);
    const planned = Array.from({ length: 5 }, (_, n) =>
      add('thread', `named-${n}`, {
        title: 'T',
        text: 'T',
        by: 'iva',
        mentions: Array.from({ length: 13 }, (_x, i) => (i === 0 ? me : `nobody-${i}`)),
      }),
    );
    expect(await send(owner, ...planned)).toMatchObject({
      status: 422,
      body: { message: expect.stringContaining('name 60 people') },
    });
    const url = `${harness.url}/api/displays/${id}/stream`;
    const windows = await Promise.all(Array.from({ length: 20 }, () => listen(viewer, url)));
    await expect(listen(viewer, url)).rejects.toThrow('429');
    const moved = () =>
      windows[0].heard.flatMap(({ event, data }) =>
        event === 'moved' ? (data as { here: { name: string }[] }).here : [],
      );
    await windows[0].until(() => moved().length >= 20);
    // Another person’s window opens all the same; who comes hears of all, the others only of who came.
    const theirs = await listen(owner, url);
    await theirs.until(({ event, data }) => event === 'here' && Array.isArray(data) && data.length === 21);
    await windows[0].until(() => moved().some(({ name }) => name.startsWith('Iva')));
    expect(moved()).toHaveLength(21);
    for (const one of [...windows, theirs]) one.close();
  });

  test('sheets: four of one person at a time; others are answered meanwhile; what nobody waits for is given up', async () => {
    const { id, owner, viewer } = await stage();
    const sheet = (client: Client, file: string) => client('GET', `/api/displays/${id}/sheets/${file}`);
    // The first one starts the worker.
    expect((await sheet(owner, 'plan.svg')).status).toBe(200);
    const order: string[] = [];
    const tiles = Array.from({ length: 6 }, async () => {
      const { status } = await sheet(viewer, 'tiles.pdf');
      order.push(`tiles ${status}`);
    });
    await new Promise((go) => setTimeout(go, 60));
    const health = await owner('GET', '/api/health');
    order.push(`health ${health.status}`);
    await Promise.all(tiles);
    expect(order.filter((one) => one === 'tiles 429')).toHaveLength(2);
    expect(order.filter((one) => one === 'tiles 200')).toHaveLength(4);
    expect(order.indexOf('health 200')).toBeLessThan(order.indexOf('tiles 200'));
    const gone = new AbortController();
    const asked = Array.from({ length: 4 }, () =>
      fetch(`${harness.url}/api/displays/${id}/sheets/tiles.pdf`, {
        headers: { cookie: viewer.cookie },
        signal: gone.signal,
      }).catch(() => null),
    );
    await new Promise((go) => setTimeout(go, 60));
    gone.abort();
    await Promise.all(asked);
    await new Promise((go) => setTimeout(go, 60));
    expect((await sheet(viewer, 'plan.svg')).status).toBe(200);
    for (const query of ['place=constructor', 'module=constructor'])
      expect((await sheet(owner, `tiles.pdf?${query}`)).status).toBe(404);
  }, 60_000);

  test('a footprint that cannot be worked out is refused where it is drawn', async () => {
    const { owner } = await stage();
    const id = await newDisplay(owner, 'Wide');
    const wide = add('footprint', 'wide', { name: 'Wide', x: 0, y: 0, w: 4096, d: 4096 });
    expect(await owner('POST', `/api/displays/${id}/batches`, batch(wide))).toMatchObject({
      status: 422,
      body: { message: expect.stringContaining('the most is 4,194,304') },
    });
  });
});

describe('nobody speaks or acts for another', () => {
  test('a thread, an answer, a report and an acceptance stay the word of whoever said it, whatever is sent', async () => {
    const { id, owner, planner, builder, viewer, send } = await stage();
    const [v, p] = [await personOf(viewer, id), await personOf(planner, id)];
    const row = async (kind: string, entity: string) => (await rowOf(owner, id, kind, entity))?.data;
    const before = Date.now();
    await send(
      viewer,
      add('thread', 'mine', { title: 'Rail', text: 'Lower it', by: v, at: '1999-01-01T00:00:00Z' }),
    );
    expect((await row('thread', 'mine'))?.by).toBe(v);
    expect(Date.parse(String((await row('thread', 'mine'))?.at))).toBeGreaterThanOrEqual(before - 1000);
    await send(viewer, add('reply', 'r', { thread: 'mine', text: 'I mean it', by: v }));
    // Each of these once stood as another's word.
    const forged: [Client, object[]][] = [
      [viewer, [patch('reply', 'r', 1, { by: 'iva', text: 'I, Iva, approve.' })]],
      [viewer, [patch('reply', 'r', 1, { at: '1999-01-01T00:00:00Z' })]],
      [viewer, [patch('reply', 'r', 1, { thread: 'other' })]],
      [viewer, [patch('thread', 'mine', 1, { by: 'iva' })]],
      [
        viewer,
        [
          add('thread', 't2', { title: 'Buy', text: 'Buy it', by: v }),
          patch('thread', 't2', 1, { by: 'iva', state: 'accepted', answeredBy: 'tobin', reason: 'yes' }),
        ],
      ],
      [viewer, [add('thread', 't3', { title: 'B', text: 'B', by: v, answeredBy: 'iva', reason: 'yes' })]],
      [viewer, [add('thread', 't4', { title: 'B', text: 'B', by: 'iva' })]],
      [builder, [patch('reply', 'r', 1, { text: 'not what they said' })]],
      [planner, [patch('reply', 'r', 1, { by: p })]],
      [owner, [patch('thread', 'mine', 1, { at: '1999-01-01T00:00:00Z' })]],
    ];
    for (const [client, changes] of forged) expect((await send(client, ...changes)).status).toBe(403);
    expect(await row('reply', 'r')).toMatchObject({ by: v, text: 'I mean it' });
    // Planners too are who they are: what they add in another's name is theirs.
    await send(planner, add('thread', 't5', { title: 'B', text: 'B', by: v }));
    expect((await row('thread', 't5'))?.by).toBe(p);
    await send(planner, patch('thread', 'mine', 1, { state: 'accepted', answeredBy: v, reason: 'ok' }));
    expect(await row('thread', 'mine')).toMatchObject({ state: 'accepted', answeredBy: p });
    const accepted = { finding: 'x', fingerprint: 'y', reason: 'so be it', by: 'Somebody Else' };
    await send(planner, add('acceptance', 'acc', accepted));
    expect((await row('acceptance', 'acc'))?.by).not.toBe('Somebody Else');
    // What a planner takes away and brings back is still the word of whoever said it.
    await send(planner, { op: 'remove', kind: 'reply', id: 'r', v: 1 });
    await send(planner, add('reply', 'r', { thread: 'mine', text: 'I mean it', by: p }));
    expect((await row('reply', 'r'))?.by).toBe(v);
  });

  test('a builder bills nobody, and neither invents nor forgives a loan', async () => {
    const { id, owner, planner, builder, send } = await stage();
    const me = await personOf(builder, id);
    const order = { name: 'Greys', by: me, postage: 9999, lines: [] };
    const brick = { part: 'brick-2x4', colour: 'slate', qty: 6 };
    const tried: [object, number][] = [
      [add('order', 'o1', { ...order, shares: [{ person: 'iva', share: 1 }] }), 403],
      [add('order', 'o2', { ...order, shares: [{ person: me, share: 1 }] }), 200],
      [
        patch('order', 'o2', 1, {
          shares: [
            { person: me, share: 1 },
            { person: 'iva', share: 9 },
          ],
        }),
        403,
      ],
      [add('loan', 'l1', { ...brick, from: me, to: 'iva' }), 403],
      [add('loan', 'l2', { ...brick, from: 'iva', to: me }), 200],
      [patch('loan', 'l2', 1, { back: '2031-05-01' }), 403],
      [patch('loan', 'l2', 1, { qty: 1 }), 403],
      [{ op: 'remove', kind: 'loan', id: 'l2', v: 1 }, 403],
    ];
    for (const [change, status] of tried)
      expect([change, (await send(builder, change)).status]).toEqual([change, status]);
    // A planner shares it; what is shared stays as it is, and the buyer still says what was paid.
    expect(
      (
        await send(
          planner,
          patch('order', 'o2', 1, {
            shares: [
              { person: me, share: 1 },
              { person: 'iva', share: 1 },
            ],
          }),
        )
      ).status,
    ).toBe(200);
    expect((await send(builder, patch('order', 'o2', 2, { paid: 12 }))).status).toBe(200);
    expect(
      (await send(builder, patch('order', 'o2', 3, { shares: [{ person: 'iva', share: 1 }] }))).status,
    ).toBe(403);
    // The lender says that it is back.
    expect((await send(owner, patch('loan', 'l2', 1, { back: '2031-05-01' }))).status).toBe(200);
  });

  test('a batch’s id is its sender’s and its content’s', async () => {
    const { owner, planner, url } = await stage();
    const first = batch(add('note', 'once', { name: 'Once', text: 'first', x: 1, y: 1 }));
    const landed = await owner('POST', url, first);
    expect((await owner('POST', url, first)).body.seq).toBe(landed.body.seq);
    const other = {
      ...first,
      changes: [add('note', 'twice', { name: 'Twice', text: 'second', x: 1, y: 1 })],
    };
    const answer = await owner('POST', url, other);
    expect(answer).toMatchObject({ status: 409, body: { landed: first.changes, sent: other.changes } });
    const theirs = await planner('POST', url, first);
    expect(theirs.status).toBe(409);
    expect(theirs.body.landed).toBeUndefined();
  });

  test('names keep no line ends nor turned writing: no event is forged through a display’s name', async () => {
    const owner = await as('iva');
    const forged = 'X\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART:20270101\r\nSUMMARY:Pay Bob\r\nEND:VEVENT';
    const id = await newDisplay(owner, forged);
    const { body } = await owner('GET', `/api/displays/${id}/sheets/agenda.ics`);
    const calendar = new ICAL.Component(ICAL.parse(String(body.text)));
    const summaries = calendar
      .getAllSubcomponents('vevent')
      .map((one) => one.getFirstPropertyValue('summary'));
    expect(summaries).not.toContain('Pay Bob');
    const client = nobody();
    const joined = await client('POST', `/api/join/${await linkTo(owner, id)}`, {
      ...newcomer('turned'),
      name: 'A\r\nB\u202E\u0000C',
    });
    expect(joined.status).toBe(200);
    expect((await client('GET', '/api/me')).body).toMatchObject({ name: 'A B C' });
  });
});

describe('nobody comes in who was not asked', () => {
  test('a removed owner’s own link opens nothing, nor that of one who went or is owner no longer', async () => {
    const owner = await as('iva');
    const id = await newDisplay(owner, 'Ours');
    const bo = nobody();
    await bo('POST', `/api/join/${await linkTo(owner, id, { role: 'planner' })}`, newcomer('bo-marl'));
    const { body } = await owner('GET', `/api/displays/${id}/members`);
    const member = (Object.values(body) as { userId: string; login: string }[]).find(
      ({ login }) => login === 'bo-marl',
    );
    const path = `/api/displays/${id}/members/${member?.userId}`;
    await owner('PATCH', path, { role: 'owner' });
    const kept = [await linkTo(bo, id), await linkTo(bo, id)];
    expect((await nobody()('GET', `/api/join/${kept[0]}`)).status).toBe(200);
    await owner('PATCH', path, { role: 'planner' });
    expect((await nobody()('GET', `/api/join/${kept[0]}`)).status).toBe(404);
    await owner('PATCH', path, { role: 'owner' });
    // Links do not come back to life with the right.
    expect((await nobody()('GET', `/api/join/${kept[0]}`)).status).toBe(404);
    const last = await linkTo(bo, id);
    expect((await owner('DELETE', path)).status).toBe(204);
    expect((await bo('POST', `/api/join/${last}`)).status).toBe(404);
    expect((await bo('GET', `/api/displays/${id}`)).status).toBe(404);
  });

  test('one link makes one account, however many come at once; two links for one person make one of them', async () => {
    const owner = await as('iva');
    const id = await newDisplay(owner, 'Ours');
    const token = await linkTo(owner, id);
    const clients = Array.from({ length: 4 }, () => nobody());
    const answers = await Promise.all(
      clients.map((client, i) => client('POST', `/api/join/${token}`, newcomer(`racer-${i}`))),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 404, 404, 404]);
    const signedIn = await Promise.all(
      [0, 1, 2, 3].map((i) =>
        nobody()('POST', '/api/session', { login: `racer-${i}`, password: 'a long enough one' }),
      ),
    );
    expect(signedIn.filter(({ status }) => status < 300)).toHaveLength(1);
    await owner(
      'POST',
      `/api/displays/${id}/batches`,
      batch(add('person', 'extra', { name: 'Extra', initials: 'EX' })),
    );
    const links = [
      await linkTo(owner, id, { person: 'extra' }),
      await linkTo(owner, id, { person: 'extra' }),
    ];
    const two = await Promise.all(
      links.map((link, i) => nobody()('POST', `/api/join/${link}`, newcomer(`extra-${i}`))),
    );
    expect(two.map(({ status }) => status).sort()).toEqual([200, 409]);
  });
});

describe('at the door', () => {
  const PASSWORD = 'a long enough one';
  const attempt = (login: string, password: string, headers: Record<string, string> = {}) =>
    nobody()('POST', '/api/session', { login, password }, headers);

  test('guessing is slowed by account and address: the rest of a hall signs in from the same address', async () => {
    await harness.reseed({ signInLimit: 4 });
    const tried = [];
    for (let i = 0; i < 6; i++) tried.push((await attempt('iva', `guess ${i} of many`)).status);
    expect(tried).toEqual([401, 401, 401, 401, 429, 429]);
    // Another account of that address is not held up by it.
    expect((await attempt('brenna', 'not theirs at all')).status).toBe(401);
    // Many accounts from one address are.
    const spray = [];
    for (let i = 0; i < 90; i++) spray.push((await attempt(`nobody-${i}`, 'Summer of 2031')).status);
    expect(spray.at(-1)).toBe(429);
  }, 60_000);

  test('who was refused what, and from where, stands in the log; the password does not', async () => {
    await harness.reseed({ signInLimit: 100_000 });
    const { viewer, send } = await stage();
    const warned = jest.spyOn(Logger.prototype, 'warn').mockImplementation(() => undefined);
    try {
      await attempt('iva', 'not the password');
      await send(viewer, add('note', 'no', { name: 'No', text: 'no', x: 1, y: 1 }));
      const lines = warned.mock.calls.map(([line]) => String(line));
      expect(lines).toEqual(
        expect.arrayContaining([
          expect.stringMatching(/refused 401 .*\/api\/session by “iva” \(not signed in\) from [\d.:a-f]+$/),
          expect.stringMatching(/refused 403 forbidden: POST \/api\/displays\/.*\/batches by \w+ from /),
        ]),
      );
      expect(lines.join(' ')).not.toContain('not the password');
    } finally {
      warned.mockRestore();
    }
  });

  test('behind a proxy: its word about address and TLS is taken, of one hop; a cookie is Secure then', async () => {
    await harness.reseed({ signInLimit: 3, behindProxy: true, hosts: ['quarry.example'] });
    const from = (address: string) => ({
      'x-forwarded-for': `1.2.3.4, ${address}`,
      'x-forwarded-proto': 'https',
    });
    for (let i = 0; i < 4; i++) await attempt('iva', `guess ${i} of many`, from('10.0.0.1'));
    expect((await attempt('iva', 'guess again', from('10.0.0.1'))).status).toBe(429);
    expect((await attempt('iva', 'guess again', from('10.0.0.2'))).status).toBe(401);
    const signedIn = await fetch(`${harness.url}/api/demo/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...from('10.0.0.3') },
      body: '{"login":"iva"}',
    });
    expect(signedIn.headers.get('set-cookie')).toMatch(/; Secure/);
    expect(signedIn.headers.get('strict-transport-security')).toMatch(/max-age=\d+/);
    await harness.reseed({ signInLimit: 100_000 });
    const plain = await fetch(`${harness.url}/api/demo/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-forwarded-proto': 'https' },
      body: '{"login":"iva"}',
    });
    expect(plain.headers.get('set-cookie')).not.toMatch(/; Secure/);
  });

  test('it answers to its own names only: no other name that points here is taken', async () => {
    await harness.reseed({ signInLimit: 100_000, hosts: ['quarry.example'] });
    const { port } = new URL(harness.url);
    const asked = (host: string) =>
      new Promise<number>((resolve, reject) => {
        request(
          { host: new URL(harness.url).hostname, port, path: '/api/welcome', headers: { host } },
          (answer) => {
            answer.resume();
            resolve(answer.statusCode ?? 0);
          },
        )
          .on('error', reject)
          .end();
      });
    expect(await asked(`quarry.example:${port}`)).toBe(200);
    expect(await asked(`localhost:${port}`)).toBe(200);
    expect(await asked('192.168.1.20')).toBe(200);
    expect(await asked('[::1]:80')).toBe(200);
    expect(await asked('evil.example')).toBe(421);
  });

  test('passwords: twelve characters at least, none of the common ones; a change writes to its owner', async () => {
    const owner = await as('iva');
    const id = await newDisplay(owner, 'Ours');
    const token = await linkTo(owner, id);
    const asked = async (password: string) =>
      (await nobody()('POST', `/api/join/${token}`, { ...newcomer('careful'), password })).status;
    for (const password of [
      '0123456789',
      'aaaaaaaaaaaa',
      '012345678901',
      'Password1234!',
      'qwertyuiop12',
      'dragondragon',
    ])
      expect([password, await asked(password)]).toEqual([password, 422]);
    const client = nobody();
    expect((await client('POST', `/api/join/${token}`, newcomer('careful'))).status).toBe(200);
    const changed = { old: PASSWORD, password: 'another good long one' };
    expect((await client('PUT', '/api/me/password', changed)).status).toBe(204);
    const { body } = await client('GET', '/api/letters');
    expect(JSON.stringify(body)).toContain('Your password was changed');
    // One unread letter asks for a new password as well as many.
    for (let i = 0; i < 5; i++) await nobody()('POST', '/api/reset/ask', { login: 'careful' });
    const asks = JSON.stringify((await owner('GET', '/api/letters')).body).split('asks for a new password');
    expect(asks).toHaveLength(2);
  });

  test('what is one’s own is kept by no cache; a session that nobody uses ends', async () => {
    const owner = await as('iva');
    const kept = await fetch(`${harness.url}/api/me`, { headers: { cookie: owner.cookie } });
    expect(kept.headers.get('cache-control')).toBe('no-store');
    const now = Date.now();
    const clock = jest.spyOn(Date, 'now').mockReturnValue(now + 15 * 24 * 3_600_000);
    try {
      expect((await owner('GET', '/api/me')).status).toBe(401);
    } finally {
      clock.mockRestore();
    }
  });

  test('a photo that was taken away is gone, bytes and all, unless another shows the same picture', async () => {
    const { id, owner, send } = await stage();
    const { body } = await owner('GET', `/api/displays/${id}`);
    const [photo] = (
      body.rows as { kind: string; id: string; v: number; data: Record<string, unknown> | null }[]
    ).filter(({ kind, data }) => kind === 'photo' && data !== null);
    const status = async () =>
      (await owner('GET', `/api/displays/${id}/photos/${String(photo.data?.file)}`)).status;
    expect(await status()).toBe(200);
    await send(owner, add('photo', 'twin', photo.data ?? {}));
    await send(owner, { op: 'remove', kind: 'photo', id: photo.id, v: photo.v });
    expect(await status()).toBe(200);
    await send(owner, { op: 'remove', kind: 'photo', id: 'twin', v: 1 });
    expect(await status()).toBe(404);
  });
});

describe('at the start', () => {
  const started = (...options: string[]) =>
    new Promise<{ code: number | null; told: string }>((resolve) => {
      const main = join(__dirname, '..', 'src', 'main.ts');
      const child = spawn(process.execPath, ['--import', 'tsx', main, ...options], {
        cwd: join(__dirname, '..'),
      });
      let told = '';
      child.stderr.on('data', (text: Buffer) => (told += text.toString()));
      child.on('exit', (code) => resolve({ code, told }));
    });

  test('an option that there is not, a port in use and a folder that cannot be written end in a sentence', async () => {
    const { port } = new URL(harness.url);
    const folder = join(harness.folder, 'elsewhere');
    const file = join(harness.folder, 'a-file');
    writeFileSync(file, 'no folder');
    const [option, taken, blocked] = await Promise.all([
      started('--colour', 'red'),
      started(
        '--port',
        port,
        '--host',
        new URL(harness.url).hostname.replace(/^\[|\]$/g, ''),
        '--data',
        folder,
        '--copies',
        '0',
      ),
      started('--data', join(file, 'below')),
    ]);
    expect(option).toMatchObject({ code: 1, told: expect.stringContaining('--colour') });
    expect(taken).toMatchObject({ code: 1, told: expect.stringContaining(`Port ${port}`) });
    expect(blocked).toMatchObject({ code: 1, told: expect.stringContaining('cannot be written') });
    for (const { told } of [option, taken, blocked]) expect(told).not.toMatch(/\n\s+at /);
  }, 60_000);
});

test('a commit that fails is told by its own reason, and nothing of it stays', () => {
  const store = openStore(join(harness.folder, 'commit', 'quarry.sqlite'), MIGRATIONS);
  try {
    store.client.exec(
      'CREATE TABLE of_it (id INTEGER PRIMARY KEY); CREATE TABLE refers (id INTEGER REFERENCES of_it(id) DEFERRABLE INITIALLY DEFERRED);',
    );
    // A reference that is looked at only when all is committed: it fails there, as a full disk does.
    const fail = () => transact(store.db, () => store.client.exec('INSERT INTO refers VALUES (7)'));
    expect(fail).toThrow(/FOREIGN KEY/);
    transact(store.db, () => store.client.exec('INSERT INTO of_it VALUES (1)'));
    expect(store.client.prepare('SELECT count(*) AS n FROM refers').get()).toMatchObject({ n: 0 });
    expect(store.client.prepare('SELECT count(*) AS n FROM of_it').get()).toMatchObject({ n: 1 });
  } finally {
    store.close();
  }
});

test('after a copy was put back, a page that knows more is told to read again, and so is one of the same number', async () => {
  const { id, owner, send } = await stage();
  const copy = join(harness.folder, 'copy.sqlite');
  const database = harness.config('main').database;
  backupStore(database, copy);
  const { body } = await owner('GET', `/api/displays/${id}`);
  await send(owner, add('note', 'lost', { name: 'Lost', text: 'x', x: 1, y: 1 }));
  await harness.stop();
  restoreStore(copy, database, MIGRATIONS, new Date('2031-06-01T00:00:00Z'));
  Object.assign(harness, await harness.listen(harness.config('main', { signInLimit: 100_000 })));
  const again = await as('iva');
  const now = (await again('GET', `/api/displays/${id}`)).body;
  expect(now.seq).toBe(body.seq);
  expect(now.epoch).not.toBe(body.epoch);
  const isBehind = async (query: string) => {
    const ear = await listen(again, `${harness.url}/api/displays/${id}/stream?${query}`);
    await ear.until(({ event }) => event === 'here' || event === 'behind');
    ear.close();
    return ear.heard.some(({ event }) => event === 'behind');
  };
  expect(await isBehind(`epoch=${String(body.epoch)}&after=${String(body.seq)}`)).toBe(true);
  expect(await isBehind(`epoch=${String(now.epoch)}&after=${Number(body.seq) + 1}`)).toBe(true);
  expect(await isBehind(`epoch=${String(now.epoch)}&after=${String(now.seq)}`)).toBe(false);
});
