import { createHash, randomUUID } from 'node:crypto';
import { unzipSync } from 'fflate';
import ICAL from 'ical.js';
import sharp from 'sharp';
import { listOf, readFile } from '@quarry/core/document';
import { RemindersService } from '../src/letters/reminders.service.ts';
import { Harness, batch, clientOf, patch, rowOf, valleyOf, type Client, SMALL_START } from './harness.ts';

/** Photos, agendas and reminders over real HTTP. */
const harness = new Harness();
const as = (login: string) => harness.as(login);
beforeAll(() => harness.start({ signInLimit: 100_000 }));
afterAll(() => harness.end());

interface Row {
  kind: string;
  id: string;
  v: number;
  data: Record<string, unknown>;
}
const photoOf = async (client: Client, id: string, body: Uint8Array, type = 'image/jpeg') => {
  const answer = await fetch(`${harness.url}/api/displays/${id}/photos`, {
    ...{ method: 'POST', headers: { cookie: client.cookie, 'content-type': type } },
    body: new Blob([new Uint8Array(body)]),
  });
  return { status: answer.status, body: (await answer.json()) as Record<string, unknown> };
};
const read = async (client: Client, id: string, file: string, more = '') => {
  const answer = await fetch(`${harness.url}/api/displays/${id}/photos/${file}${more}`, {
    headers: { cookie: client.cookie },
  });
  return {
    status: answer.status,
    type: answer.headers.get('content-type'),
    bytes: Buffer.from(await answer.arrayBuffer()),
  };
};
/** A picture lying on its side, with a place and a camera written into it. */
const snapshot = () =>
  sharp({ create: { width: 2400, height: 1200, channels: 3, background: '#556677' } })
    .jpeg()
    .withExif({
      IFD0: { Make: 'Camera of Somebody' },
      IFD3: {
        GPSLatitudeRef: 'N',
        GPSLatitude: '59/1 54/1 0/1',
        GPSLongitudeRef: 'E',
        GPSLongitude: '10/1 45/1 0/1',
      },
    })
    .withMetadata({ orientation: 6 })
    .toBuffer();

describe('photos', () => {
  test('are drawn again: upright, at most 1,600 px, without place or camera; the same one is kept once', async () => {
    const [mads, sent] = [await as('mads'), await snapshot()];
    const id = await valleyOf(mads);
    expect(sent.includes('Camera of Somebody')).toBe(true);
    const kept = await photoOf(mads, id, sent);
    expect(kept).toMatchObject({ status: 201, body: { width: 800, height: 1600 } });
    const { bytes, type } = await read(mads, id, String(kept.body.file));
    const inside = await sharp(bytes).metadata();
    expect([type, inside.format, inside.width, inside.height, inside.exif, inside.orientation]).toEqual([
      ...['image/jpeg', 'jpeg', 800, 1600, undefined, undefined],
    ]);
    expect(bytes.includes('Camera')).toBe(false);
    const small = await sharp((await read(mads, id, String(kept.body.file), '?small')).bytes).metadata();
    expect([small.width, small.height]).toEqual([120, 240]);
    expect((await photoOf(mads, id, sent)).body.file).toBe(kept.body.file);
  });
  test('are seen by nobody else, and added by nobody who only looks', async () => {
    const [mads, suri] = [await as('mads'), await as('suri')];
    const id = await valleyOf(mads);
    const { file } = (await photoOf(mads, id, await snapshot())).body;
    expect((await read(suri, id, String(file))).status).toBe(200);
    expect((await photoOf(suri, id, await snapshot())).status).toBe(403);
    expect(
      (
        await read(
          clientOf(() => harness.url),
          id,
          String(file),
        )
      ).status,
    ).toBe(401);
    const other = String((await mads('POST', '/api/displays', { name: 'Mine', start: SMALL_START })).body.id);
    // Its name elsewhere opens nothing, nor does a path.
    expect((await read(mads, other, String(file))).status).toBe(404);
    expect((await read(mads, id, '..%2F..%2Fquarry.sqlite')).status).toBe(422);
    expect((await read(suri, other, String(file))).status).toBe(404);
  });
  test('only who took one publishes it; then the public sees it, its notes never, until it is taken off again', async () => {
    const [iva, tobin, mads] = [await as('iva'), await as('tobin'), await as('mads')];
    const id = await valleyOf(iva);
    const rows = async () => (await iva('GET', `/api/displays/${id}`)).body.rows as Row[];
    const photo = (await rows()).find(({ kind, data }) => kind === 'photo' && data.by === 'mads');
    if (!photo) throw new Error('the demo has no photo by Mads');
    const publish = async (client: Client, published: boolean) => {
      const v = (await rows()).find(({ id: one }) => one === photo.id)?.v ?? 0;
      const change = patch('photo', photo.id, v, { published });
      return client('POST', `/api/displays/${id}/batches`, batch(change));
    };
    const { token } = (await iva('GET', `/api/displays/${id}/share`)).body;
    const url = `${harness.url}/s/${String(token)}`;
    const file = `${url}/photos/${String(photo.data.file)}`;
    const seen = await fetch(file);
    expect([seen.status, seen.headers.get('content-type')]).toEqual([200, 'image/jpeg']);
    expect(await (await fetch(url)).text()).not.toContain(photo.data.note);
    // A planner may take it off; nobody but who took it puts it on again.
    expect((await publish(tobin, false)).status).toBe(200);
    expect((await fetch(file)).status).toBe(404);
    expect(await publish(tobin, true)).toMatchObject({
      status: 403,
      body: { message: expect.stringContaining('Only Mads Elvery may publish this photo') },
    });
    expect((await fetch(file)).status).toBe(404);
    expect((await publish(iva, true)).status).toBe(403);
    expect((await publish(mads, true)).status).toBe(200);
    expect((await fetch(file)).status).toBe(200);
  });
  test('are in the archive with the display, byte for byte, and nobody from outside gets it', async () => {
    const [mads, suri] = [await as('mads'), await as('suri')];
    const id = await valleyOf(mads);
    const url = `${harness.url}/api/displays/${id}/photos`;
    const answer = await fetch(url, { headers: { cookie: suri.cookie } });
    expect(answer.headers.get('content-disposition')).toContain('skarn-edge.quarry.zip');
    const files = unzipSync(new Uint8Array(await answer.arrayBuffer()));
    const display = readFile(new TextDecoder().decode(files['display.quarry.json']));
    if (!display.ok) throw new Error(display.error);
    const digests = new Set(listOf(display.scene, 'photo').map(({ file }) => file));
    expect(Object.keys(files).sort()).toEqual(
      ['display.quarry.json', ...[...digests].map((digest) => `photos/${digest}.jpg`)].sort(),
    );
    for (const digest of digests)
      expect(createHash('sha256').update(files[`photos/${digest}.jpg`]).digest('hex')).toBe(digest);
    expect((await fetch(url)).status).toBe(401);
  });
  test.each([
    ['no picture at all', Buffer.from('hello'), 400, 'does not open as a picture'],
    [
      'a drawing with instructions',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'),
      400,
      'does not open',
    ],
    ['nothing', Buffer.alloc(0), 400, 'Send the picture itself'],
    ['more than 15 MB', Buffer.alloc(15_000_001, 7), 413, ''],
  ])('%s is refused in a sentence', async (_, sent, status, words) => {
    const mads = await as('mads');
    const answer = await photoOf(mads, await valleyOf(mads), sent);
    expect([answer.status, String(answer.body.message)]).toEqual([status, expect.stringContaining(words)]);
  });
  test('a picture of too many pixels is refused before it is opened', async () => {
    const mads = await as('mads');
    const vast = await sharp({ create: { width: 9000, height: 7000, channels: 3, background: '#000' } })
      .png()
      .toBuffer();
    const answer = await photoOf(mads, await valleyOf(mads), vast, 'image/png');
    expect(answer).toMatchObject({
      status: 400,
      body: { message: expect.stringContaining('60 million pixels') },
    });
  });
});

test('an agenda is one’s own, as iCalendar', async () => {
  const [brenna, mads] = [await as('brenna'), await as('mads')];
  const id = await valleyOf(brenna);
  const agenda = async (client: Client) => {
    const { status, body } = await client('GET', `/api/displays/${id}/sheets/agenda.ics`);
    expect(status).toBe(200);
    return new ICAL.Component(ICAL.parse(String(body.text)))
      .getAllSubcomponents('vevent')
      .map((event) => new ICAL.Event(event).uid);
  };
  const of = (uids: string[], person: string) =>
    uids.filter((uid) => uid.includes(`sitting-${person}-`)).length;
  const [hers, his] = [await agenda(brenna), await agenda(mads)];
  expect([of(hers, 'brenna') > 50, of(hers, 'mads'), of(his, 'brenna')]).toEqual([true, 0, 0]);
  expect((await clientOf(() => harness.url)('GET', `/api/displays/${id}/sheets/agenda.ics`)).status).toBe(
    401,
  );
});

test('how far the sections were goes back to where the log begins', async () => {
  const iva = await as('iva');
  const id = await valleyOf(iva);
  const shares = async () =>
    Object.values((await iva('GET', `/api/displays/${id}/shares`)).body) as unknown as {
      date: string;
      done: Record<string, number>;
    }[];
  const before = await shares();
  expect(before.length).toBeGreaterThan(5);
  expect(before[0].done['street-b']).toBe(0);
  const section = await rowOf(iva, id, 'section', 'street-b');
  await iva(
    'POST',
    `/api/displays/${id}/batches`,
    batch(patch('section', 'street-b', section?.v ?? 0, { stage: 'done' })),
  );
  expect((await shares()).at(-1)?.done['street-b']).toBe(1);
});

test('reminders: in the morning of one’s own clock, once a day, of what comes tomorrow and of shows ahead', async () => {
  const iva = await as('iva');
  const id = await valleyOf(iva);
  const add = (kind: string, data: object) => ({
    op: 'add',
    kind,
    id: `${kind}-${randomUUID().slice(0, 8)}`,
    data,
  });
  await iva(
    'POST',
    `/api/displays/${id}/batches`,
    batch(
      add('milestone', { name: 'Trial run', date: '2031-06-11' }),
      add('milestone', { name: 'Small fair', date: '2031-06-17', show: true }),
    ),
  );
  const service = harness.running?.app.get(RemindersService);
  const reminded = async (login: string) => {
    const { body } = await (await as(login))('GET', '/api/letters');
    return (Object.values(body) as { about: string; body: string }[]).filter(
      ({ about }) => about === 'reminder',
    );
  };
  // In June Iva's clock is two hours ahead of UTC and Mads's on it: 05:30 UTC is 07:30 for her, too early for him.
  service?.write(Date.parse('2031-06-10T05:30:00Z'));
  const [letter] = await reminded('iva');
  expect(letter.body.split('\n').slice(0, 2)).toEqual([
    'in 7 days: show “Small fair”',
    'tomorrow: milestone “Trial run”',
  ]);
  expect(await reminded('mads')).toEqual([]);
  service?.write(Date.parse('2031-06-10T09:00:00Z'));
  expect([(await reminded('iva')).length, (await reminded('mads')).length]).toEqual([1, 1]);
  service?.write(Date.parse('2031-06-11T09:00:00Z'));
  expect((await reminded('iva')).length).toBe(1);
});
