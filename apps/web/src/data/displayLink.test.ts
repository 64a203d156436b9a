import {
  fromRows,
  reduce,
  sceneFrom,
  toRows,
  writeFile,
  type Batch,
  type Change,
  type Scene,
} from '@quarry/core/document';

/** What a browser's slow disk waits for before it has stored anything. */
const mockDisk = { ready: Promise.resolve() };
/** IndexedDB in small: one map a store for all links of a test, as one browser has. */
jest.mock('idb-keyval', () => {
  const stores: Record<string, Map<string, unknown>> = { outbox: new Map(), documents: new Map() };
  return {
    createStore: (_database: string, name: string) => stores[name],
    get: async (key: string, store: Map<string, unknown>) => store.get(key),
    set: async (key: string, value: unknown, store: Map<string, unknown>) => {
      await mockDisk.ready;
      store.set(key, structuredClone(value));
    },
    del: async (key: string, store: Map<string, unknown>) => void store.delete(key),
    clear: async (store: Map<string, unknown>) => store.clear(),
    entries: async (store: Map<string, unknown>) => [...store.entries()],
  };
});

import { createStore } from 'idb-keyval';
import { queryClient } from './api.ts';
import { DisplayLink } from './displayLink.ts';

/** The server in small: the same core, the same answers, and a plug one can pull. */
class FakeServer {
  scene: Scene = sceneFrom({
    display: { name: 'Shared', kind: 'vignette' },
    levels: [{ id: 'low', name: 'Low', height: 3 }],
    pads: [{ id: 'pad', name: 'Green', x: 0, y: 0, w: 8, d: 8, level: 'low', ground: 'grass' }],
  });
  log: (Batch & { seq: number; author: string; at: number })[] = [];
  epoch = 1;
  plugged = true;
  /** Answers that get lost on the way back: the batch has landed, the page does not know. */
  loseAnswers = 0;
  /** So many batches are refused, whatever is in them. */
  refuse = 0;
  streams: FakeStream[] = [];

  land(batch: Batch, author: string): { status: number; body: unknown } {
    const before = this.log.find(({ id }) => id === batch.id);
    if (before) return { status: 200, body: { seq: before.seq } };
    if (this.refuse > 0) {
      this.refuse--;
      return { status: 403, body: { code: 'forbidden', message: 'Not yours.' } };
    }
    const reduction = reduce(this.scene, batch.changes);
    if (!reduction.ok) {
      const { reason, sentence, current } = reduction.refusal;
      return {
        status: reason === 'invalid' ? 422 : 409,
        body: { code: reason, message: sentence, current: current ?? null },
      };
    }
    this.scene = reduction.scene;
    const landed = { ...batch, seq: this.log.length + 1, author, at: 0 };
    this.log.push(landed);
    for (const stream of this.streams) stream.deliver(landed);
    return { status: 200, body: { seq: landed.seq } };
  }

  /** Somebody else's change, made elsewhere. */
  other(...changes: Change[]): void {
    expect(
      this.land({ id: crypto.randomUUID(), label: 'moved something', changes }, 'Somebody else').status,
    ).toBe(200);
  }

  fetch = async (_url: string, init: { method?: string; body?: string } = {}): Promise<Response> => {
    const reached = this.plugged;
    // A network takes its time.
    await new Promise((resolve) => setImmediate(resolve));
    if (!reached) throw new TypeError('network');
    if (init.method !== 'POST')
      return Response.json({
        id: 'd',
        epoch: this.epoch,
        seq: this.log.length,
        actor: { role: 'owner', person: null },
        rows: toRows(this.scene),
      });
    const { status, body } = this.land(JSON.parse(String(init.body)), 'Me');
    if (this.loseAnswers > 0) {
      this.loseAnswers--;
      throw new TypeError('the line dropped');
    }
    return Response.json(body, { status });
  };
}

class FakeStream {
  static readonly CLOSED = 2;
  readyState = 1;
  private readonly handlers = new Map<string, (event: { data: string }) => void>();
  constructor() {
    server.streams.push(this);
  }
  addEventListener(name: string, handler: (event: { data: string }) => void): void {
    this.handlers.set(name, handler);
  }
  deliver(landed: object): void {
    if (this.readyState === 1 && server.plugged)
      this.handlers.get('message')?.({ data: JSON.stringify(landed) });
  }
  close(): void {
    this.readyState = FakeStream.CLOSED;
  }
}

const storeOf = (name: string) => createStore('', name) as unknown as Map<string, unknown>;
const [kept, documents] = ['outbox', 'documents'].map(storeOf);
let server: FakeServer;
let troubles: string[];
const told = new Map<string, () => void>();
const links: DisplayLink[] = [];
beforeEach(() => {
  server = new FakeServer();
  troubles = [];
  kept.clear();
  documents.clear();
  queryClient.clear();
  const events = {
    addEventListener: (name: string, handler: () => void) => told.set(name, handler),
    removeEventListener: () => undefined,
  };
  Object.assign(globalThis, {
    fetch: server.fetch,
    EventSource: FakeStream,
    window: events,
    document: { ...events, visibilityState: 'visible' },
  });
});
afterEach(() => {
  for (const link of links.splice(0)) link.close();
  queryClient.clear();
});

const open = async (user = 'ann') => {
  const link = await DisplayLink.open('d', user, (message) => troubles.push(message));
  links.push(link);
  return link;
};
const pad = (link: DisplayLink) => link.getState().scene.pad.pad;
const move = (link: DisplayLink, set: Record<string, unknown>, label = 'moved Green') =>
  link.change(label, [{ op: 'patch', kind: 'pad', id: 'pad', v: pad(link)?.v ?? 1, set }]);
/** Lets promises and their timers of this turn run. */
const settle = async () => {
  for (let i = 0; i < 20; i++) await new Promise((resolve) => setImmediate(resolve));
};
const same = (link: DisplayLink) => expect(writeFile(link.getState().scene)).toBe(writeFile(server.scene));

test('a change is on the screen at once, is saved, and the stream’s echo changes nothing', async () => {
  const link = await open();
  expect(move(link, { x: 4 })).toBe(true);
  expect([pad(link).x, link.getState().save]).toEqual([4, { state: 'saving' }]);
  const shown = link.getState().scene;
  await settle();
  expect(link.getState().save).toEqual({ state: 'saved' });
  same(link);
  // The very object: nothing that is drawn from it is drawn again.
  expect(link.getState().scene).toBe(shown);
  expect([pad(link).v, kept.size, link.getState().heard]).toEqual([2, 0, null]);
});

test('somebody else’s change arrives, with who made it', async () => {
  const link = await open();
  server.other({ op: 'patch', kind: 'pad', id: 'pad', v: 1, set: { w: 12 } });
  expect([pad(link).w, link.getState().heard?.author]).toEqual([12, 'Somebody else']);
});

test('what does not fit is refused before it is sent, in a sentence', async () => {
  const link = await open();
  expect(move(link, { w: -3 })).toBe(false);
  expect(troubles[0]).toContain('field “w”');
  expect(server.log).toHaveLength(0);
});

test('an answer that gets lost: the batch is sent again and lands once', async () => {
  const link = await open();
  server.loseAnswers = 1;
  move(link, { x: 4 });
  await settle();
  told.get('online')?.();
  await settle();
  expect(server.log).toHaveLength(1);
  expect(link.getState().save).toEqual({ state: 'saved' });
  same(link);
});

test('a change is told to wait only when this browser has stored it: until then a reload could lose it', async () => {
  const link = await open();
  server.plugged = false;
  move(link, { x: 1 });
  await settle();
  expect(link.getState().save).toMatchObject({ state: 'waiting', count: 1 });
  let isWritten = () => {};
  mockDisk.ready = new Promise((resolve) => (isWritten = resolve));
  move(link, { x: 2 });
  await settle();
  expect(link.getState().save).toEqual({ state: 'saving' });
  expect(kept.size).toBe(1);
  isWritten();
  await settle();
  expect(kept.size).toBe(2);
  expect(link.getState().save).toMatchObject({ state: 'waiting', count: 2 });
});

test('without a server one goes on; a reload keeps the changes, and all land in order when it is back', async () => {
  const link = await open();
  server.plugged = false;
  for (const x of [1, 2, 3]) move(link, { x });
  await settle();
  expect(link.getState().save).toMatchObject({
    state: 'waiting',
    count: 3,
    why: expect.stringContaining('cannot be reached'),
  });
  expect(kept.size).toBe(3);
  link.close();
  server.plugged = true;
  const again = await open();
  expect(pad(again).x).toBe(3);
  await settle();
  expect(server.log.map(({ changes: [change] }) => change.op === 'patch' && change.set)).toEqual([
    { x: 1 },
    { x: 2 },
    { x: 3 },
  ]);
  expect([again.getState().save.state, kept.size]).toEqual(['saved', 0]);
  same(again);
});

describe('a change that comes too late', () => {
  const late = async () => {
    const link = await open();
    server.plugged = false;
    move(link, { w: 10 });
    await settle();
    server.plugged = true;
    server.streams.forEach((stream) => stream.close());
    server.other({ op: 'patch', kind: 'pad', id: 'pad', v: 1, set: { w: 12, name: 'Lawn' } });
    told.get('online')?.();
    await settle();
    return link;
  };
  test('is shown with both versions; putting mine on top keeps the other fields theirs', async () => {
    const link = await late();
    expect(link.getState().conflict).toMatchObject({
      fields: [{ kind: 'pad', id: 'pad', field: 'w', was: 8, mine: 10, theirs: 12, clash: true }],
    });
    expect(pad(link).w).toBe(12);
    link.resolveWithMine();
    await settle();
    expect(pad(link)).toMatchObject({ w: 10, name: 'Lawn' });
    expect(link.getState().conflict).toBeNull();
    same(link);
  });
  test('keeping theirs leaves everything as it stands, and nothing to undo', async () => {
    const link = await late();
    link.resolveWithTheirs();
    await settle();
    expect([pad(link).w, link.getState().conflict, link.getState().canUndo]).toEqual([12, null, null]);
    same(link);
  });
  test('field by field: what they changed may stay theirs while the rest of the act lands', async () => {
    const link = await open();
    server.plugged = false;
    move(link, { w: 10, d: 10 });
    await settle();
    server.plugged = true;
    server.streams.forEach((stream) => stream.close());
    server.other({ op: 'patch', kind: 'pad', id: 'pad', v: 1, set: { w: 12 } });
    told.get('online')?.();
    await settle();
    expect(link.getState().conflict?.fields.map(({ field, clash }) => [field, clash])).toEqual([
      ['w', true],
      ['d', false],
    ]);
    link.decide(new Set(['pad/pad w']));
    await settle();
    expect(pad(link)).toMatchObject({ w: 12, d: 10 });
    same(link);
  });
  test('where nobody touched the same field there is nothing to ask: both changes stand', async () => {
    const link = await open();
    server.plugged = false;
    move(link, { w: 10 });
    await settle();
    server.plugged = true;
    server.streams.forEach((stream) => stream.close());
    server.other({ op: 'patch', kind: 'pad', id: 'pad', v: 1, set: { name: 'Lawn' } });
    told.get('online')?.();
    await settle();
    expect([pad(link).w, pad(link).name, link.getState().conflict, troubles]).toEqual([10, 'Lawn', null, []]);
    same(link);
  });
  test('later changes to the same thing do not land unseen over theirs; the first value was what it was', async () => {
    const link = await open();
    server.plugged = false;
    move(link, { w: 10 });
    move(link, { w: 11 });
    link.change('raised Low', [{ op: 'patch', kind: 'level', id: 'low', v: 1, set: { height: 6 } }]);
    await settle();
    server.plugged = true;
    server.streams.forEach((stream) => stream.close());
    server.other({ op: 'patch', kind: 'pad', id: 'pad', v: 1, set: { w: 12 } });
    told.get('online')?.();
    await settle();
    // The level is another matter and has landed; of the pad nothing has.
    expect([server.scene.level.low.height, server.scene.pad.pad.w]).toEqual([6, 12]);
    expect(link.getState().conflict?.fields).toMatchObject([{ was: 8, mine: 11, theirs: 12 }]);
    // Undecided, they are still kept: a reload asks again.
    expect(kept.size).toBe(2);
    link.close();
    const again = await open();
    await settle();
    expect(again.getState().conflict?.fields).toMatchObject([{ was: 8, mine: 11, theirs: 12 }]);
    again.resolveWithMine();
    await settle();
    expect([server.scene.pad.pad.w, kept.size]).toEqual([11, 0]);
    same(again);
  });
  test('several are asked one after the other', async () => {
    const link = await open();
    server.plugged = false;
    move(link, { w: 10 });
    link.change('raised Low', [{ op: 'patch', kind: 'level', id: 'low', v: 1, set: { height: 6 } }]);
    await settle();
    server.plugged = true;
    server.streams.forEach((stream) => stream.close());
    server.other({ op: 'patch', kind: 'pad', id: 'pad', v: 1, set: { w: 12 } });
    server.other({ op: 'patch', kind: 'level', id: 'low', v: 1, set: { height: 9 } });
    told.get('online')?.();
    await settle();
    expect(link.getState().conflicts).toBe(2);
    link.resolveWithTheirs();
    expect(link.getState().conflict?.fields[0]).toMatchObject({ kind: 'level', mine: 6, theirs: 9 });
    link.resolveWithMine();
    await settle();
    expect([server.scene.pad.pad.w, server.scene.level.low.height, link.getState().conflicts]).toEqual([
      12, 6, 0,
    ]);
    same(link);
  });
  test('on something that was removed says so', async () => {
    const link = await open();
    server.plugged = false;
    move(link, { w: 10 });
    await settle();
    server.plugged = true;
    server.streams.forEach((stream) => stream.close());
    server.other({ op: 'remove', kind: 'pad', id: 'pad', v: 1 });
    told.get('online')?.();
    await settle();
    expect(troubles).toEqual([expect.stringContaining('Not saved: The pad “pad” is not in this display')]);
    same(link);
  });
});

test('without a server at the start the display opens as it was last seen; nobody sends another’s changes', async () => {
  const link = await open();
  move(link, { x: 1 });
  await settle();
  server.plugged = false;
  move(link, { x: 2 });
  await settle();
  // What is kept for a start without the server is kept as soon as it is missed.
  await new Promise((resolve) => setTimeout(resolve, 20));
  link.close();
  queryClient.clear();
  await expect(open('ben')).rejects.toThrow('cannot be reached');
  const alone = await open();
  expect([pad(alone).x, pad(alone).v]).toEqual([2, 3]);
  await settle();
  expect(alone.getState().save).toMatchObject({ state: 'waiting', count: 1 });
  alone.close();
  server.plugged = true;
  const other = await open('ben');
  await settle();
  expect([pad(other).x, server.log.length]).toEqual([1, 1]);
  const back = await open();
  await settle();
  expect(server.scene.pad.pad.x).toBe(2);
  same(back);
});

test('a proposal is on one’s own screen only, can be undone step by step, and is handed over whole', async () => {
  const link = await open();
  link.beginDraft();
  expect([move(link, { x: 4 }), move(link, { x: 6 }), move(link, { w: -1 })]).toEqual([true, true, false]);
  await settle();
  expect([pad(link).x, server.scene.pad.pad.x, kept.size]).toEqual([6, 0, 0]);
  link.undo();
  expect([pad(link).x, link.getState().canUndo]).toEqual([4, 'moved Green']);
  expect(link.endDraft()).toEqual([{ op: 'patch', kind: 'pad', id: 'pad', v: 1, set: { x: 4 } }]);
  expect([pad(link).x, link.getState().draft]).toEqual([0, null]);
});

test('in a version a change is a difference that others see in it, is taken back by undo, and the base stays', async () => {
  server.other(
    { op: 'add', kind: 'version', id: 'snow', data: { name: 'First snow' } },
    { op: 'add', kind: 'task', id: 'k', data: { name: 'Sweep' } },
  );
  const [mine, theirs] = [await open(), await open('bob')];
  mine.showVersion('snow');
  theirs.showVersion('snow');
  expect(mine.change('widened', [{ op: 'patch', kind: 'pad', id: 'pad', v: 1, set: { w: 12 } }])).toBe(true);
  expect([mine.getState().scene.pad.pad.w, mine.getState().base.pad.pad.w]).toEqual([12, 8]);
  await settle();
  expect(theirs.getState().scene.pad.pad.w).toBe(12);
  expect(server.scene.pad.pad.w).toBe(8);
  // What is no part of the picture is the display’s.
  mine.change('done', [{ op: 'patch', kind: 'task', id: 'k', v: 1, set: { name: 'Sweep twice' } }]);
  mine.showVersion('snow', 'all');
  const { v } = mine.getState().scene.pad.pad;
  mine.change('narrowed', [{ op: 'patch', kind: 'pad', id: 'pad', v, set: { w: 10 } }]);
  await settle();
  expect([server.scene.task.k.name, server.scene.pad.pad.w, Object.keys(server.scene.difference)]).toEqual([
    'Sweep twice',
    10,
    [],
  ]);
  mine.undo();
  await settle();
  expect([mine.getState().scene.pad.pad.w, server.scene.pad.pad.w]).toEqual([12, 8]);
  theirs.showVersion(null);
  expect(theirs.getState().scene.pad.pad.w).toBe(8);
  // A version that somebody removes is shown no longer.
  const { v: of } = server.scene.version.snow;
  const gone = Object.values(server.scene.difference).map(({ id, v: at }) => ({
    ...{ op: 'remove' as const, kind: 'difference' as const, id, v: at },
  }));
  server.other(...gone, { op: 'remove', kind: 'version', id: 'snow', v: of });
  await settle();
  expect([mine.getState().version, mine.getState().scene.pad.pad.w]).toEqual([null, 8]);
});

describe('undo', () => {
  test('takes back one’s own acts, last first, and redo does them again', async () => {
    const link = await open();
    move(link, { x: 1 }, 'first');
    move(link, { x: 2 }, 'second');
    await settle();
    expect(link.getState().canUndo).toBe('second');
    link.undo();
    link.undo();
    expect([pad(link).x, link.getState().canUndo, link.getState().canRedo]).toEqual([0, null, 'first']);
    link.redo();
    await settle();
    expect([pad(link).x, link.getState().canUndo, link.getState().canRedo]).toEqual([1, 'first', 'second']);
    same(link);
  });
  test('a removal comes back; what another has changed since stays theirs, and a sentence says so', async () => {
    const link = await open();
    link.change('removed Green', [{ op: 'remove', kind: 'pad', id: 'pad', v: 1 }]);
    link.undo();
    await settle();
    expect(pad(link)).toMatchObject({ name: 'Green', v: 2 });
    move(link, { w: 4 });
    await settle();
    server.other({ op: 'patch', kind: 'pad', id: 'pad', v: 3, set: { w: 6 } });
    link.undo();
    await settle();
    expect(pad(link).w).toBe(6);
    expect(troubles).toEqual([expect.stringContaining('had its w changed since')]);
  });
  test('an undo that is refused cannot be redone, and the act before it, of the same name, can still be undone', async () => {
    const link = await open();
    move(link, { x: 1 });
    move(link, { y: 2 });
    await settle();
    server.refuse = 1;
    link.undo();
    await settle();
    expect([pad(link).y, link.getState().canUndo, link.getState().canRedo]).toEqual([2, 'moved Green', null]);
    expect(troubles).toEqual([expect.stringContaining('Not yours.')]);
    link.undo();
    await settle();
    expect([pad(link).x, pad(link).y]).toEqual([0, 2]);
    same(link);
  });
  test('a new act ends what could be redone', async () => {
    const link = await open();
    move(link, { x: 1 });
    link.undo();
    move(link, { x: 5 });
    expect(link.getState().canRedo).toBeNull();
    await settle();
    same(link);
  });
});

test('a gap in the stream is filled by reading the display again', async () => {
  const link = await open();
  const [stream] = server.streams;
  server.streams = [];
  server.other({ op: 'patch', kind: 'pad', id: 'pad', v: 1, set: { x: 1 } });
  server.streams = [stream];
  server.other({ op: 'patch', kind: 'pad', id: 'pad', v: 2, set: { x: 2 } });
  await settle();
  expect(pad(link).x).toBe(2);
  same(link);
  expect(fromRows(toRows(link.getState().scene)).pad.pad.v).toBe(3);
});

test('a page that is left gives its line back; come back to, it hears what it missed', async () => {
  const link = await open();
  told.get('pagehide')?.();
  expect(server.streams.map(({ readyState }) => readyState)).toEqual([FakeStream.CLOSED]);
  server.other({ op: 'patch', kind: 'pad', id: 'pad', v: 1, set: { x: 1 } });
  told.get('pageshow')?.();
  expect(server.streams.map(({ readyState }) => readyState)).toEqual([FakeStream.CLOSED, 1]);
  server.other({ op: 'patch', kind: 'pad', id: 'pad', v: 2, set: { x: 2 } });
  await settle();
  same(link);
});
