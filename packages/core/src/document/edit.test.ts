import fc from 'fast-check';
import {
  DISPLAY_ID,
  MAX_PAD_ORDER,
  alignAll,
  boundsOfAll,
  copyAlong,
  deltaOf,
  distributeAll,
  emptyScene,
  moveAll,
  padLaid,
  padsInOrder,
  pieceOf,
  placeIn,
  reduce,
  sceneFrom,
  readPieceFile,
  removeAll,
  setOut,
  unhung,
  withDelta,
  writeFile,
  writePieceFile,
  type Change,
  type EntityRef,
  type Scene,
} from './index.ts';
import { runs } from '../../test/runs.ts';

const scene = sceneFrom({
  display: { name: 'Many', kind: 'city' },
  levels: [{ id: 'l', name: 'Street', height: 18 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  pads: [{ id: 'p', name: 'Yard', x: 10, y: 4, w: 20, d: 8, level: 'l', ground: 'paving' }],
  plots: [
    { id: 'a', name: 'A', x: 0, y: 0, w: 8, d: 8, height: 9 },
    { id: 'b', name: 'B', x: 30.5, y: 6, w: 16, d: 8, height: 9 },
    { id: 'c', name: 'C', x: 70, y: 20, w: 10, d: 6, height: 9 },
  ],
  ways: [
    {
      id: 'w',
      name: 'Lane',
      points: [
        { x: 4, y: 30 },
        { x: 40, y: 34, z: 20 },
      ],
    },
  ],
  trees: [{ id: 't', name: 'Larch', x: 50, y: 40, crown: 6 }],
  tracks: [{ id: 'r', name: 'Line', x: 0, y: 44, level: 'l', pieces: [{ go: 'straight' }, { go: 'left' }] }],
});
const all: EntityRef[] = [
  ...['a', 'b', 'c'].map((id) => ({ kind: 'plot' as const, id })),
  { kind: 'way', id: 'w' },
  { kind: 'tree', id: 't' },
  { kind: 'track', id: 'r' },
];
const done = (changes: Change[], on: Scene = scene): Scene => {
  const next = reduce(on, changes);
  if (!next.ok) throw new Error(next.refusal.sentence);
  return next.scene;
};
const places = (on: Scene, picks = all) => picks.map(({ kind, id }) => placeIn(on, kind, id));
let count = 0;
const fresh = () => `n${count++}`;

test('all kinds move together, lines with their heights, and back again', () => {
  const moved = done(moveAll(scene, all, 3, -1.5));
  places(moved).forEach((place, i) => {
    const before = places(scene)[i];
    expect(place).toMatchObject({ x: (before?.x ?? 0) + 3, w: before?.w });
  });
  expect(moved.way.w.points).toEqual([
    { x: 7, y: 28.5, z: null },
    { x: 43, y: 32.5, z: 20 },
  ]);
  expect(places(done(moveAll(moved, all, -3, 1.5), moved))).toEqual(places(scene));
});
test('lined up on one side nothing leaves the rectangle that held it; spread, all gaps are equal', () => {
  const plots = all.slice(0, 3);
  const bounds = boundsOfAll(scene, plots);
  const east = done(alignAll(scene, plots, 'east'));
  expect(places(east, plots).map((place) => (place?.x ?? 0) + (place?.w ?? 0))).toEqual([80, 80, 80]);
  expect(boundsOfAll(done(alignAll(scene, plots, 'centre')), plots)?.d).toBeLessThanOrEqual(bounds?.d ?? 0);
  const [a, b, c] = places(done(distributeAll(scene, plots, 'x')), plots);
  // 70 − 8 studs between the outer two, 16 of them taken: 23 on either side.
  expect([a?.x, b?.x, c?.x]).toEqual([0, 31, 70]);
});
test('a pad is laid first or last whatever numbers there are; the others keep their order (property)', () => {
  const order = fc.oneof(fc.constantFrom(0, 0, 1, MAX_PAD_ORDER), fc.integer({ min: 0, max: MAX_PAD_ORDER }));
  fc.assert(
    fc.property(
      fc.array(order, { minLength: 1, maxLength: 6 }),
      fc.nat(5),
      fc.constantFrom('first' as const, 'last' as const),
      (orders, which, to) => {
        const laid = sceneFrom({
          display: { name: 'Many', kind: 'city' },
          levels: [{ id: 'l', name: 'Street', height: 18 }],
          pads: orders.map((at, i) => ({
            ...{ id: `p${i}`, name: `P${i}`, x: 0, y: 0, w: 4, d: 4, level: 'l', ground: 'paving' as const },
            order: at,
          })),
        });
        const id = `p${which % orders.length}`;
        const before = padsInOrder(laid).map((pad) => pad.id);
        const done = reduce(laid, padLaid(laid, id, to));
        if (!done.ok) throw new Error(done.refusal.sentence);
        const others = before.filter((one) => one !== id);
        expect(padsInOrder(done.scene).map((pad) => pad.id)).toEqual(
          to === 'first' ? [id, ...others] : [...others, id],
        );
      },
    ),
    { numRuns: runs(200) },
  );
  expect(padLaid(scene, 'p', 'first')).toEqual([]);
  expect(padLaid(scene, 'gone', 'last')).toEqual([]);
});

test('copies stand one step further each; a piece set out is what was kept, elsewhere', () => {
  const copies = copyAlong(scene, [{ kind: 'plot', id: 'a' }], { count: 3, dx: 8, dy: 0 }, fresh);
  expect(places(done(copies.changes), copies.picks).map((place) => place?.x)).toEqual([8, 16, 24]);
  const kept = pieceOf(scene, [...all, { kind: 'pad', id: 'p' }], 'Corner');
  const withPiece = done([{ op: 'add', kind: 'piece', id: 'piece', data: kept ?? {} }]);
  const out = setOut(withPiece, 'piece', { x: 100, y: 200 }, null, fresh);
  if (!out.ok) throw new Error(out.error);
  const set = done(out.changes, withPiece);
  const bounds = boundsOfAll(scene, [...all, { kind: 'pad', id: 'p' }]);
  expect(boundsOfAll(set, out.picks)).toEqual({ ...bounds, x: 100, y: 200 });
  // A level that is gone is told, or replaced where another is named.
  const levelless = done(
    [
      { op: 'remove', kind: 'pad', id: 'p', v: 1 },
      { op: 'remove', kind: 'track', id: 'r', v: 1 },
      { op: 'remove', kind: 'level', id: 'l', v: 1 },
    ],
    withPiece,
  );
  expect(setOut(levelless, 'piece', { x: 0, y: 0 }, null, fresh)).toMatchObject({
    ok: false,
    error: expect.stringContaining('level'),
  });
});
test('a piece goes through its file into another display; what is wrong in a file is named', () => {
  const kept = pieceOf(scene, [...all, { kind: 'pad', id: 'p' }], 'Corner');
  const withPiece = done([{ op: 'add', kind: 'piece', id: 'piece', data: kept ?? {} }]);
  const text = writePieceFile(withPiece.piece.piece);
  const read = readPieceFile(text);
  if (!read.ok) throw new Error(read.error);
  const other = done(
    [
      { op: 'add', kind: 'display', id: DISPLAY_ID, data: { name: 'Other', kind: 'city' } },
      { op: 'add', kind: 'level', id: 'street', data: { name: 'Street', height: 6 } },
      { op: 'add', kind: 'piece', id: 'piece', data: read.piece },
    ],
    emptyScene(),
  );
  const out = setOut(other, 'piece', { x: 10, y: 20 }, 'street', fresh);
  if (!out.ok) throw new Error(out.error);
  const set = done(out.changes, other);
  const bounds = boundsOfAll(scene, [...all, { kind: 'pad', id: 'p' }]);
  expect(boundsOfAll(set, out.picks)).toEqual({ ...bounds, x: 10, y: 20 });
  const wrong = (change: (file: Record<string, unknown>) => void): string => {
    const file = JSON.parse(text);
    change(file);
    const reading = readPieceFile(JSON.stringify(file));
    return reading.ok ? 'read' : reading.error;
  };
  expect(wrong(() => undefined)).toBe('read');
  expect(wrong((file) => (file.format = 'open-quarry-display'))).toContain('This is no piece');
  expect(wrong((file) => (file.things = [{ kind: 'person', data: { name: 'Iva' } }]))).toBe(
    'A piece holds no “person”.',
  );
  expect(
    wrong(
      (file) =>
        (file.things = [{ kind: 'plot', data: { name: 'Mill', x: 0, y: 0, w: -3, d: 8, height: 9 } }]),
    ),
  ).toContain('The plot “Mill”, field “w”');
  expect(wrong((file) => (file.extra = 1))).toContain('extra');
  expect(readPieceFile('{')).toMatchObject({ ok: false, error: expect.stringContaining('not JSON') });
  expect(readPieceFile(`${'['.repeat(99)}${']'.repeat(99)}`)).toMatchObject({
    ok: false,
    error: expect.stringContaining('nested'),
  });
});
test('a copy of a scene kept up by differences says what the scene says', () => {
  const step = fc.record({
    id: fc.constantFrom('a', 'b', 'c'),
    dx: fc.integer({ min: -9, max: 9 }),
    gone: fc.boolean(),
  });
  fc.assert(
    fc.property(fc.array(step, { maxLength: 6 }), (steps) => {
      let now = scene;
      let copy = withDelta(emptyScene(), deltaOf(emptyScene(), scene));
      for (const { id, dx, gone } of steps) {
        const plot = now.plot[id];
        if (!plot) continue;
        const next = done(
          gone
            ? [{ op: 'remove', kind: 'plot', id, v: plot.v }]
            : moveAll(now, [{ kind: 'plot', id }], dx, 0),
          now,
        );
        copy = withDelta(copy, deltaOf(now, next));
        now = next;
      }
      return writeFile(copy) === writeFile(now) && deltaOf(now, now).length === 0;
    }),
  );
});
test('a file of 5 MB comes back byte for byte', () => {
  const plots = Array.from({ length: 5000 }, (_, i) => ({
    id: `p${i}`,
    name: `House ${i}`,
    x: (i % 100) * 4,
    y: Math.trunc(i / 100) * 4,
    w: 3.5,
    d: 3,
    height: 9,
    notes: 'n'.repeat(520),
  }));
  const text = writeFile(sceneFrom({ display: { name: 'Big', kind: 'city' }, plots }));
  expect(text.length).toBeGreaterThan(5_000_000);
  const again = sceneFrom(JSON.parse(text));
  expect(writeFile(again) === text).toBe(true);
});

describe('what hangs on things that go', () => {
  const lit = sceneFrom({
    display: { name: 'Lit', kind: 'city' },
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 48 }],
    supplies: [{ id: 's', name: 'Cell', x: 0, y: 0 }],
    circuits: [{ id: 'c', name: 'Lamps', supply: 's' }],
    devices: [{ id: 'l', name: 'Lamp', x: 4, y: 4, circuit: 'c' }],
    tasks: [{ id: 't', name: 'Mend' }],
    incidents: [{ id: 'i', use: 'broke', what: 'Crane', at: '2031-01-01T10:00:00.000Z', task: 't' }],
  });
  const gone = (kind: 'circuit' | 'task'): Scene => {
    const { v } = kind === 'circuit' ? lit.circuit.c : lit.task.t;
    const id = kind === 'circuit' ? 'c' : 't';
    return done([...unhung(lit, [{ kind, id }]), { op: 'remove', kind, id, v }], lit);
  };
  test('hangs on nothing, and the removal is not refused', () => {
    expect(gone('circuit').device.l.circuit).toBeNull();
    expect(gone('task').incident.i.task).toBeNull();
    expect(done(removeAll(lit, [{ kind: 'supply', id: 's' }]), lit).circuit.c.supply).toBeNull();
  });
  test('a light kept as a piece knows no circuit', () => {
    const piece = pieceOf(lit, [{ kind: 'device', id: 'l' }], 'Lamp');
    expect(piece?.things).toEqual([
      { kind: 'device', data: expect.objectContaining({ circuit: null }) as unknown },
    ]);
  });
});
