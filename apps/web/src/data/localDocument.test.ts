import fc from 'fast-check';
import { reduce, sceneFrom, type Batch, type Scene } from '@quarry/core/document';
import type { CommittedBatch } from '@quarry/protocol/changes';
import { LocalDocument } from './localDocument.ts';

// The document of a window, without a browser and without a server of its own.

const start = (): Scene =>
  sceneFrom({
    display: { name: 'Quay', kind: 'diorama' },
    levels: [{ id: 'low', name: 'Low', height: 3 }],
    footprint: [{ id: 'f', name: 'Ground', x: 0, y: 0, w: 32, d: 32 }],
    pads: ['a', 'b'].map((id) => ({
      ...{ id, name: id, x: id === 'a' ? 0 : 8, y: 0, w: 8, d: 8 },
      ...{ level: 'low', ground: 'grass' as const },
    })),
  });
const documentOf = (scene: Scene) => ({
  ...{ scene, epoch: 1, seq: 0 },
  actor: { role: 'planner' as const, person: null },
});
function windowOn(scene: Scene, name = 'mine'): LocalDocument {
  let made = 0;
  return new LocalDocument(documentOf(scene), () => `${name}-${(made += 1)}`);
}
/** Moves a pad east as a window sees it. */
function move(local: LocalDocument, id: string, by: number): Batch {
  const pad = local.unsent.pad[id];
  const done = local.change(`moved ${id}`, [
    { op: 'patch', kind: 'pad', id, v: pad.v, set: { x: pad.x + by } },
  ]);
  if (!done.ok) throw new Error(done.sentence);
  return done.made.batch;
}
const committed = (batch: Batch, seq: number): CommittedBatch => ({ ...batch, seq, author: 'Bo', at: seq });

describe('a local document', () => {
  test('keeps the very scene when an own batch is committed, and tells whose a batch is', () => {
    const local = windowOn(start());
    const batch = move(local, 'a', 2);
    const shown = local.scene;
    expect([local.pending.length, local.server.scene.pad.a.x, shown.pad.a.x]).toEqual([1, 0, 2]);
    expect(local.acknowledge(batch, 1, undefined)).toBe(true);
    expect(local.scene).toBe(shown);
    expect(local.receive(committed(batch, 1))).toBe('known');
    const other = windowOn(local.server.scene, 'theirs');
    expect(local.receive(committed(move(other, 'b', 1), 2))).toBe('others');
    expect(local.receive(committed(move(other, 'b', 1), 9))).toBe('gap');
  });

  test('what was refused is neither shown nor taken back; the act before it, of the same label, is', () => {
    const local = windowOn(start());
    const first = move(local, 'a', 2);
    expect(local.acknowledge(first, 1, undefined)).toBe(true);
    const refused = move(local, 'a', 2);
    local.discard(refused);
    expect([local.scene.pad.a.x, local.canUndo]).toEqual([2, 'moved a']);
    expect(local.undo()).toMatchObject({ ok: true });
    expect([local.scene.pad.a.x, local.canUndo, local.canRedo]).toEqual([0, null, 'moved a']);
  });

  test('a batch that came too late takes later ones on the same entity with it; the first base value counts', () => {
    const local = windowOn(start());
    move(local, 'a', 2);
    move(local, 'a', 2);
    const apart = move(local, 'b', 1);
    const theirs = reduce(start(), [{ op: 'patch', kind: 'pad', id: 'a', v: 1, set: { x: 7 } }]);
    if (!theirs.ok) throw new Error('the change of the others fits');
    const [late] = local.pending;
    local.discard(late.batch);
    local.replace({ ...documentOf(theirs.scene), seq: 1 });
    const conflict = local.takeOutLate(late, 'too late');
    expect(conflict.fields).toEqual([
      { kind: 'pad', id: 'a', field: 'x', was: 0, mine: 4, theirs: 7, clash: true },
    ]);
    expect(local.pending.map(({ batch }) => batch)).toEqual([apart]);
    expect(local.replace(documentOf(start()))).toBe(false);
  });

  test('a proposal is applied here only, step by step, and handed over whole', () => {
    const local = windowOn(start());
    local.beginDraft();
    const step = (v: number, x: number) => ({
      label: `x ${x}`,
      changes: [{ op: 'patch' as const, kind: 'pad' as const, id: 'a', v, set: { x } }],
    });
    expect(local.addToDraft(step(1, 3))).toBeNull();
    expect(local.addToDraft(step(2, 5))).toBeNull();
    expect(local.addToDraft(step(1, 9))).toMatchObject({ reason: 'stale' });
    expect([local.scene.pad.a.x, local.unsent.pad.a.x, local.canUndo]).toEqual([5, 0, 'x 5']);
    expect(local.undo()).toBeNull();
    expect(local.endDraft()).toEqual(step(1, 3).changes);
    expect([local.scene.pad.a.x, local.pending]).toEqual([0, []]);
  });

  test('two windows that act as they like end with the server’s scene, whatever order things come in', () => {
    const act = fc.record({
      who: fc.nat(1),
      what: fc.constantFrom('move', 'send', 'hear', 'undo', 'redo'),
      pad: fc.constantFrom('a', 'b'),
      by: fc.integer({ min: 1, max: 5 }),
    });
    fc.assert(
      fc.property(fc.array(act, { maxLength: 40 }), (acts) => {
        let scene = start();
        const log: CommittedBatch[] = [];
        const windows = [windowOn(start(), 'one'), windowOn(start(), 'two')];
        const hear = (local: LocalDocument) => {
          for (const batch of log.slice(local.server.seq)) local.receive(batch);
        };
        const send = (local: LocalDocument) => {
          const [waiting] = local.pending;
          if (!waiting) return;
          const done = reduce(scene, waiting.batch.changes);
          if (!done.ok) {
            local.discard(waiting.batch);
            local.replace({ ...documentOf(scene), seq: log.length });
            local.takeOutLate(waiting, done.refusal.sentence);
            return;
          }
          ({ scene } = done);
          log.push(committed(waiting.batch, log.length + 1));
          if (!local.acknowledge(waiting.batch, log.length, undefined))
            local.replace({ ...documentOf(scene), seq: log.length });
        };
        for (const { who, what, pad, by } of acts) {
          const local = windows[who];
          if (what === 'move') move(local, pad, by);
          else if (what === 'send') send(local);
          else if (what === 'hear') hear(local);
          else if (what === 'undo') local.undo();
          else local.redo();
        }
        for (const local of [...windows, ...windows]) while (local.pending.length > 0) send(local);
        for (const local of windows) {
          hear(local);
          expect(local.server.seq).toBe(log.length);
          expect(local.scene).toEqual(scene);
        }
      }),
      { numRuns: 300 },
    );
  });
});
