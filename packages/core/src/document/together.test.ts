import fc from 'fast-check';
import { contains, intersection } from '../grid/index.ts';
import {
  denialReason,
  fromRows,
  listOf,
  reduce,
  sceneFrom,
  takeBack,
  toRows,
  undoable,
  writeFile,
  type Change,
  type Scene,
} from './index.ts';
import { runs } from '../../test/runs.ts';

/** Several people on one scene: what each may do, and what becomes of changes that cross. */
const start = () =>
  sceneFrom({
    display: { name: 'Shared', kind: 'diorama' },
    levels: [{ id: 'low', name: 'Low', height: 3 }],
    people: [
      { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
      { id: 'bo', name: 'Bo Lind', initials: 'BL' },
    ],
    sections: [
      { id: 'west', letter: 'W', name: 'West', x: 0, y: 0, w: 16, d: 16, owner: 'ada' },
      { id: 'east', letter: 'E', name: 'East', x: 16, y: 0, w: 16, d: 16, owner: 'bo' },
    ],
    pads: [
      { id: 'pw', name: 'West pad', x: 2, y: 2, w: 8, d: 8, level: 'low', ground: 'grass' },
      { id: 'pe', name: 'East pad', x: 20, y: 2, w: 8, d: 8, level: 'low', ground: 'rock' },
    ],
    plots: [{ id: 'across', name: 'Across', x: 12, y: 2, w: 8, d: 8, height: 9 }],
  });

const place = fc.record({
  x: fc.integer({ min: -4, max: 30 }),
  y: fc.integer({ min: -4, max: 16 }),
  w: fc.integer({ min: 1, max: 20 }),
  d: fc.integer({ min: 1, max: 16 }),
});
const targets = [
  ['pad', 'pw'],
  ['pad', 'pe'],
  ['plot', 'across'],
  ['section', 'west'],
  ['section', 'east'],
  ['level', 'low'],
] as const;
/** A change somebody might try: anything, anywhere, most of it not allowed. */
const attempt = fc.oneof(
  fc.record({ op: fc.constant('patch'), target: fc.constantFrom(...targets), place }),
  fc.record({ op: fc.constant('remove'), target: fc.constantFrom(...targets), place }),
  fc.record({ op: fc.constant('add'), target: fc.constantFrom(...targets), place }),
  fc.record({ op: fc.constant('stage'), target: fc.constantFrom(...targets), place }),
);
const changeOf = (
  scene: Scene,
  {
    op,
    target: [kind, id],
    place: at,
  }: { op: string; target: (typeof targets)[number]; place: Record<string, number> },
  n: number,
): Change | null => {
  const v = scene[kind][id]?.v;
  if (op === 'add')
    return kind === 'pad'
      ? { op: 'add', kind, id: `new-${n}`, data: { name: 'New', ...at, level: 'low', ground: 'sand' } }
      : { op: 'add', kind: 'plot', id: `new-${n}`, data: { name: 'New', ...at, height: 3 } };
  if (v === undefined) return null;
  if (op === 'remove') return { op: 'remove', kind, id, v };
  if (op === 'stage')
    return {
      op: 'patch',
      kind: 'section',
      id: kind === 'section' ? id : 'west',
      v: scene.section[kind === 'section' ? id : 'west']?.v ?? 1,
      set: { stage: 'ground' },
    };
  return { op: 'patch', kind, id, v, set: kind === 'level' ? { height: 9 } : at };
};

test('whatever a builder gets through, nothing outside the own section is touched', () => {
  fc.assert(
    fc.property(fc.array(attempt, { maxLength: 25 }), (attempts) => {
      let scene = start();
      const own = scene.section.west;
      attempts.forEach((entry, n) => {
        const change = changeOf(scene, entry, n);
        if (!change || denialReason({ role: 'builder', person: 'ada' }, scene, change)) return;
        const reduction = reduce(scene, [change]);
        if (reduction.ok) scene = reduction.scene;
      });
      const before = start();
      const { stage: _stage, v: _v, ...westPlace } = scene.section.west;
      const { stage: _was, v: _w, ...westBefore } = before.section.west;
      expect(westPlace).toEqual(westBefore);
      expect([scene.section.east, scene.pad.pe, scene.plot.across, scene.level, scene.person]).toEqual([
        before.section.east,
        before.pad.pe,
        before.plot.across,
        before.level,
        before.person,
      ]);
      for (const thing of [...listOf(scene, 'pad'), ...listOf(scene, 'plot')])
        if (!before.pad[thing.id] && !before.plot[thing.id]) expect(contains(own, thing)).toBe(true);
      expect(intersection(scene.section.west, scene.section.east)).toBeNull();
    }),
  );
});

/**
 * A server in small, as the real one and the pages use the core: it takes batches in the order they come; each client
 * keeps its unsent ones on top of what it has heard.
 */
interface Client {
  heard: number;
  base: Scene;
  pending: { id: number; changes: Change[] }[];
}
const shown = ({ base, pending }: Client) =>
  pending.reduce((scene, { changes }) => {
    const reduction = reduce(scene, changes);
    return reduction.ok ? reduction.scene : scene;
  }, base);

const step = fc.oneof(
  fc.record({ do: fc.constant('edit' as const), who: fc.integer({ min: 0, max: 2 }), entry: attempt }),
  fc.record({ do: fc.constant('send' as const), who: fc.integer({ min: 0, max: 2 }), lost: fc.boolean() }),
  fc.record({ do: fc.constant('hear' as const), who: fc.integer({ min: 0, max: 2 }) }),
);

test('three clients with lost answers, repeats and late news end with the same scene, and each batch lands once', () => {
  fc.assert(
    fc.property(fc.array(step, { maxLength: 60 }), (steps) => {
      const log: { id: number; changes: Change[] }[] = [];
      let truth = start();
      const land = (batch: { id: number; changes: Change[] }): boolean => {
        if (log.some(({ id }) => id === batch.id)) return true;
        const reduction = reduce(truth, batch.changes);
        if (!reduction.ok) return false;
        truth = reduction.scene;
        log.push(batch);
        return true;
      };
      const clients: Client[] = [0, 1, 2].map(() => ({ heard: 0, base: start(), pending: [] }));
      const hear = (client: Client) => {
        const next = log[client.heard];
        if (!next) return false;
        const reduction = reduce(client.base, next.changes);
        if (!reduction.ok) throw new Error(reduction.refusal.sentence);
        client.base = reduction.scene;
        client.heard++;
        client.pending = client.pending.filter(({ id }) => id !== next.id);
        return true;
      };
      const send = (client: Client, lost: boolean) => {
        const [batch] = client.pending;
        if (!batch) return;
        const landed = land(batch);
        // A lost answer leaves the batch waiting: it will be sent again. A refusal takes it off.
        if (!lost && !landed) client.pending = client.pending.slice(1);
        if (!lost && landed) while (client.pending.some(({ id }) => id === batch.id) && hear(client));
      };
      let made = 0;
      for (const move of steps) {
        const client = clients[move.who];
        if (move.do === 'hear') hear(client);
        else if (move.do === 'send') send(client, move.lost);
        else {
          const change = changeOf(shown(client), move.entry, made++);
          if (change && reduce(shown(client), [change]).ok)
            client.pending.push({ id: made, changes: [change] });
        }
      }
      for (const client of clients) while (client.pending.length > 0) send(client, false);
      for (const client of clients) while (hear(client));
      expect(new Set(log.map(({ id }) => id)).size).toBe(log.length);
      for (const client of clients) expect(writeFile(shown(client))).toBe(writeFile(truth));
      // What the server stores is what it holds: rows there and back, removed ones included.
      expect(toRows(fromRows(toRows(truth)))).toEqual(toRows(truth));
    }),
    { numRuns: runs(150) },
  );
});

test('undo by one while another works elsewhere takes back one’s own act and nothing else', () => {
  fc.assert(
    fc.property(place, fc.array(attempt, { maxLength: 6 }), (at, others) => {
      const mine = reduce(start(), [{ op: 'patch', kind: 'pad', id: 'pw', v: 1, set: at }]);
      if (!mine.ok) return;
      const entry = undoable('moved', mine.inverse, mine.scene);
      let scene = mine.scene;
      others.forEach((other, n) => {
        const change = changeOf(scene, other, n);
        if (!change || (change.kind === 'pad' && change.id === 'pw')) return;
        const reduction = reduce(scene, [change]);
        if (reduction.ok) scene = reduction.scene;
      });
      const back = takeBack(scene, entry);
      if (!back.ok) throw new Error(back.sentence);
      const undone = reduce(scene, back.changes);
      if (!undone.ok) throw new Error(undone.refusal.sentence);
      const { v: _v, ...restored } = undone.scene.pad.pw;
      const { v: _w, ...original } = start().pad.pw;
      expect(restored).toEqual(original);
      expect({ ...undone.scene, pad: null }).toEqual({ ...scene, pad: null });
    }),
  );
});
