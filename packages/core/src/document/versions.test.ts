import fc from 'fast-check';
import { runs } from '../../test/runs.ts';
import {
  VERSIONED_KINDS,
  adoptVersion,
  changesInVersion,
  copyVersion,
  deltaOf,
  differencesOf,
  isVersioned,
  listOf,
  reduce,
  removeVersion,
  sceneFrom,
  sceneInVersion,
  takeBack,
  undoable,
  versionKeeper,
  type Change,
  type Kind,
  type Scene,
} from './index.ts';

const start = () =>
  sceneFrom({
    display: { name: 'Quay', kind: 'diorama', season: 'autumn' },
    levels: [
      { id: 'low', name: 'Low', height: 3 },
      { id: 'high', name: 'High', height: 18 },
    ],
    people: [{ id: 'ada', name: 'Ada', initials: 'A' }],
    pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 32, d: 32, level: 'low', ground: 'grass' }],
    plots: [{ id: 'h', name: 'House', x: 4, y: 4, w: 8, d: 8, height: 18 }],
    figures: [{ id: 'q', name: 'Queue', x: 20, y: 20, cast: 3, onPlot: 'h' }],
    trees: [{ id: 't', name: 'Oak', x: 26, y: 6, crown: 4, height: 12 }],
    versions: [
      { id: 'snow', name: 'First snow' },
      { id: 'fair', name: 'Fair' },
    ],
  });

const apply = (scene: Scene, changes: readonly Change[]): Scene => {
  const done = reduce(scene, changes);
  if (!done.ok) throw new Error(done.refusal.sentence);
  return done.scene;
};
const act = (
  base: Scene,
  version: string,
  changes: readonly Change[],
  scope: 'version' | 'all' = 'version',
) => {
  const made = changesInVersion(base, version, changes, scope);
  if (!made.ok) throw new Error(made.sentence);
  return apply(base, made.changes);
};
/** Entities by kind and id without their versions. */
const plain = (scene: Scene, kinds: readonly Kind[]) =>
  kinds.map((kind) => listOf(scene, kind).map(({ v: _v, ...fields }) => ({ kind, ...fields })));
const SHOWN: readonly Kind[] = ['display', ...VERSIONED_KINDS];
const shownIn = (base: Scene, version: string) => sceneInVersion(base, version).scene;

test('a tree turns bare, a stall is added and the queue stays at home in one version only', () => {
  const base = start();
  const winter = act(base, 'snow', [
    { op: 'patch', kind: 'tree', id: 't', v: 1, set: { height: 9 } },
    { op: 'add', kind: 'plot', id: 'stall', data: { name: 'Stall', x: 16, y: 4, w: 4, d: 4, height: 6 } },
    { op: 'remove', kind: 'figure', id: 'q', v: 1 },
    { op: 'patch', kind: 'display', id: 'display', v: 1, set: { season: 'winter', name: 'Harbour' } },
    { op: 'add', kind: 'task', id: 'k', data: { name: 'Sweep' } },
  ]);
  // The name and the task are those of the display; the rest is the version’s.
  expect(winter.display.display).toMatchObject({ season: 'autumn', name: 'Harbour' });
  expect(winter.task.k).toBeDefined();
  expect(winter.tree.t.height).toBe(12);
  expect(Object.keys(winter.plot)).toEqual(['h']);
  const shown = shownIn(winter, 'snow');
  expect(shown.display.display).toMatchObject({ season: 'winter', name: 'Harbour' });
  expect([shown.tree.t.height, Object.keys(shown.plot), Object.keys(shown.figure)]).toEqual([
    9,
    ['h', 'stall'],
    [],
  ]);
  expect(
    differencesOf(winter, 'snow')
      .map(({ of, how }) => `${how} ${of}`)
      .toSorted(),
  ).toEqual(['added plot', 'changed display', 'changed tree', 'gone figure']);
  expect(plain(shownIn(winter, 'fair'), SHOWN)).toEqual(plain(winter, SHOWN));
});

test('what is changed for all is so in each version, and differs no longer', () => {
  const own = act(start(), 'snow', [{ op: 'patch', kind: 'tree', id: 't', v: 1, set: { height: 9 } }]);
  const other = act(own, 'fair', [{ op: 'patch', kind: 'tree', id: 't', v: 1, set: { height: 30 } }]);
  const { v } = shownIn(other, 'snow').tree.t;
  const all = act(
    other,
    'snow',
    [{ op: 'patch', kind: 'tree', id: 't', v, set: { height: 15, crown: 6 } }],
    'all',
  );
  expect(all.tree.t).toMatchObject({ height: 15, crown: 6 });
  expect(differencesOf(all, 'snow')).toEqual([]);
  // The other version said its own height, and takes the crown.
  expect(shownIn(all, 'fair').tree.t).toMatchObject({ height: 30, crown: 6 });
});

test('as in the base again is no difference; a thing of the version alone is changed in it whatever the scope', () => {
  const once = act(start(), 'snow', [{ op: 'patch', kind: 'tree', id: 't', v: 1, set: { height: 9 } }]);
  const { v } = shownIn(once, 'snow').tree.t;
  const back = act(once, 'snow', [{ op: 'patch', kind: 'tree', id: 't', v, set: { height: 12 } }]);
  expect(differencesOf(back, 'snow')).toEqual([]);
  const added = act(start(), 'snow', [
    { op: 'add', kind: 'tree', id: 'u', data: { name: 'Fir', x: 2, y: 28, crown: 2, height: 9 } },
  ]);
  const taller = act(
    added,
    'snow',
    [{ op: 'patch', kind: 'tree', id: 'u', v: 1, set: { height: 12 } }],
    'all',
  );
  expect([Object.keys(taller.tree), shownIn(taller, 'snow').tree.u.height]).toEqual([['t'], 12]);
});

test('what fits the base no more is told, and fits again when the base does', () => {
  const own = act(start(), 'snow', [
    { op: 'patch', kind: 'tree', id: 't', v: 1, set: { height: 9 } },
    {
      op: 'add',
      kind: 'pad',
      id: 'hill',
      data: { name: 'Hill', x: 4, y: 20, w: 4, d: 4, level: 'high', ground: 'rock' },
    },
    { op: 'patch', kind: 'plot', id: 'h', v: 1, set: { height: 24 } },
  ]);
  const without = apply(own, [
    { op: 'remove', kind: 'tree', id: 't', v: 1 },
    { op: 'remove', kind: 'level', id: 'high', v: 1 },
  ]);
  const { scene, lost } = sceneInVersion(without, 'snow');
  expect(lost.map(({ thing }) => thing).toSorted()).toEqual(['hill', 't']);
  expect([scene.plot.h.height, scene.pad.hill]).toEqual([24, undefined]);
  // Work goes on in the version, and what is lost stays known.
  const worked = act(without, 'snow', [
    { op: 'patch', kind: 'plot', id: 'h', v: scene.plot.h.v, set: { height: 30 } },
  ]);
  const again = apply(worked, [{ op: 'add', kind: 'level', id: 'high', data: { name: 'High', height: 20 } }]);
  const restored = sceneInVersion(again, 'snow');
  expect([restored.scene.pad.hill?.level, restored.lost.map(({ thing }) => thing)]).toEqual(['high', ['t']]);
});

test('what may not differ differs in no version, whoever wrote it', () => {
  const forged = apply(
    start(),
    [
      { of: 'person', thing: 'ada', how: 'changed', fields: { name: 'Eve' } },
      { of: 'display', thing: 'display', how: 'changed', fields: { name: 'Mine', season: 'winter' } },
      { of: 'version', thing: 'fair', how: 'gone', fields: {} },
      { of: 'nothing', thing: 'x', how: 'added', fields: { a: 1 } },
      { of: 'tree', thing: 't', how: 'changed', fields: { height: -4 } },
      { of: 'tree', thing: 'u', how: 'added', fields: { name: 'Fir', x: 2, y: 28, crown: 2, height: 9 } },
    ].map((data, i): Change => ({
      ...{ op: 'add', kind: 'difference', id: `d${i}` },
      data: { version: 'snow', ...data },
    })),
  );
  const { scene, lost } = sceneInVersion(forged, 'snow');
  expect(lost.map(({ id }) => id).toSorted()).toEqual(['d0', 'd1', 'd2', 'd3', 'd4']);
  expect(scene.tree.u).toBeDefined();
  expect([scene.person.ada.name, scene.display.display.name, scene.tree.t.height]).toEqual([
    'Ada',
    'Quay',
    12,
  ]);
});

test('a version is copied, and goes with all its differences', () => {
  const own = act(start(), 'snow', [{ op: 'remove', kind: 'figure', id: 'q', v: 1 }]);
  const copied = apply(own, copyVersion(own, 'snow', 'deep', 'Deep snow'));
  expect(plain(shownIn(copied, 'deep'), SHOWN)).toEqual(plain(shownIn(copied, 'snow'), SHOWN));
  const gone = apply(copied, removeVersion(copied, 'snow'));
  expect([Object.keys(gone.version).toSorted(), Object.keys(gone.difference)]).toEqual([
    ['deep', 'fair'],
    differencesOf(copied, 'deep').map(({ id }) => id),
  ]);
});

/** What somebody may try, on the things that are there. */
const attempt = fc.record({
  what: fc.constantFrom('patch', 'patch', 'add', 'remove', 'task', 'season', 'name'),
  kind: fc.constantFrom(
    'tree' as const,
    'plot' as const,
    'pad' as const,
    'figure' as const,
    'level' as const,
  ),
  at: fc.nat(6),
  value: fc.integer({ min: 1, max: 20 }),
});
type Attempt = typeof attempt extends fc.Arbitrary<infer T> ? T : never;
function changesOf(scene: Scene, { what, kind, at, value }: Attempt): Change[] {
  const list = listOf(scene, kind);
  const one = list[at % Math.max(1, list.length)];
  const { v } = scene.display.display;
  const display = (set: Record<string, unknown>): Change[] => [
    { op: 'patch', kind: 'display', id: 'display', v, set },
  ];
  if (what === 'season') return display({ season: value > 10 ? 'winter' : 'autumn' });
  if (what === 'name') return display({ name: `Quay ${value}`, season: 'spring' });
  if (what === 'task') return [{ op: 'add', kind: 'task', id: `task-${value}`, data: { name: 'Sweep' } }];
  if (what === 'add')
    return [
      {
        ...{ op: 'add', kind: 'tree', id: `tree-${value}` },
        data: { name: 'Fir', x: value, y: at, crown: 2, height: 6 },
      },
    ];
  if (!one) return [];
  if (what === 'remove') return [{ op: 'remove', kind, id: one.id, v: one.v }];
  const set = kind === 'pad' ? { w: value } : kind === 'figure' ? { cast: value } : { height: value };
  return [{ op: 'patch', kind, id: one.id, v: one.v, set }];
}

test('random work in versions: each shows what was done in it, the base stays, and what is taken back leaves it as it was', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          version: fc.constantFrom('snow', 'fair', null),
          scope: fc.constantFrom('version' as const, 'version' as const, 'all' as const),
          tries: fc.array(attempt, { minLength: 1, maxLength: 3 }),
        }),
        { maxLength: 14 },
      ),
      (acts) => {
        let base = start();
        const keep = versionKeeper();
        for (const { version, scope, tries } of acts) {
          const shown = version === null ? base : shownIn(base, version);
          // Each try meets what the one before it left.
          let then = shown;
          const changes = tries.flatMap((one) => {
            const list = changesOf(then, one);
            const step = reduce(then, list);
            if (step.ok) then = step.scene;
            return step.ok ? list : [];
          });
          const made =
            version === null
              ? { ok: true as const, changes }
              : changesInVersion(base, version, changes, scope);
          if (!made.ok) continue;
          const step = reduce(base, made.changes);
          if (!step.ok && version === null) continue;
          if (!step.ok) throw new Error(step.refusal.sentence);
          const next = step.scene;
          if (version !== null) {
            // What is shown is what was done; what is lost may come back by it.
            if (sceneInVersion(base, version).lost.length === 0)
              expect(plain(shownIn(next, version), SHOWN)).toEqual(plain(then, SHOWN));
            expect(plain(next, ['task', 'person'])).toEqual(plain(then, ['task', 'person']));
            if (scope === 'version') {
              const before = plain(base, VERSIONED_KINDS);
              expect(plain(next, VERSIONED_KINDS)).toEqual(before);
              expect(next.display.display.season).toBe(base.display.display.season);
            }
            // Nothing is kept that is no difference.
            for (const { how, fields } of differencesOf(next, version))
              expect(how !== 'changed' || Object.keys(fields).length > 0).toBe(true);
          }
          // Taken back it is as it was, in the base and in each version.
          const back = takeBack(next, undoable('', step.inverse, next));
          if (!back.ok) throw new Error(back.sentence);
          const undone = apply(next, back.changes);
          for (const id of ['snow', 'fair'])
            expect(plain(shownIn(undone, id), SHOWN)).toEqual(plain(shownIn(base, id), SHOWN));
          expect(plain(undone, ['difference', ...SHOWN])).toEqual(plain(base, ['difference', ...SHOWN]));
          base = next;
          // What is kept of a version is what it is.
          expect(deltaOf(shownIn(base, 'snow'), keep(base, 'snow').scene)).toEqual([]);
        }
      },
    ),
    { numRuns: runs(80) },
  );
});

test('a version that is decided on becomes the base; the base until now and all others stay what they show', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ version: fc.constantFrom('snow', 'snow', 'fair', null), one: attempt }), {
        maxLength: 12,
      }),
      fc.constantFrom(null, 'snow', 'fair'),
      (acts, stands) => {
        let base = apply(start(), [{ op: 'patch', kind: 'display', id: 'display', v: 1, set: { stands } }]);
        for (const { version, one } of acts) {
          const changes = changesOf(version === null ? base : shownIn(base, version), one);
          const made = version === null ? null : changesInVersion(base, version, changes, 'version');
          if (made && !made.ok) continue;
          const step = reduce(base, made ? made.changes : changes);
          if (step.ok) base = step.scene;
        }
        if (['snow', 'fair'].some((id) => sceneInVersion(base, id).lost.length > 0)) return;
        const done = adoptVersion(base, 'snow', { id: 'old', name: 'Until now', note: 'the crew chose' });
        if (!done.ok) throw new Error(done.sentence);
        const step = reduce(base, done.changes);
        if (!step.ok) throw new Error(step.refusal.sentence);
        const after = step.scene;
        expect(plain(after, VERSIONED_KINDS)).toEqual(plain(shownIn(base, 'snow'), VERSIONED_KINDS));
        expect(plain(shownIn(after, 'fair'), VERSIONED_KINDS)).toEqual(
          plain(shownIn(base, 'fair'), VERSIONED_KINDS),
        );
        expect(plain(shownIn(after, 'old'), VERSIONED_KINDS)).toEqual(plain(base, VERSIONED_KINDS));
        expect([Object.keys(after.version).toSorted(), after.display.display.stands]).toEqual([
          ['fair', 'old'],
          stands === 'snow' ? null : (stands ?? 'old'),
        ]);
        const back = takeBack(after, undoable('', step.inverse, after));
        if (!back.ok) throw new Error(back.sentence);
        expect(plain(apply(after, back.changes), ['difference', 'version', ...SHOWN])).toEqual(
          plain(base, ['difference', 'version', ...SHOWN]),
        );
      },
    ),
    { numRuns: runs(80) },
  );
});

test('people, stock, work and shows are those of the display', () => {
  const about = (kind: Kind): Change => ({ op: 'remove', kind, id: 'x', v: 1 });
  for (const kind of ['person', 'task', 'lot', 'order', 'module', 'section', 'table', 'handling'] as const)
    expect(isVersioned(about(kind))).toBe(false);
  const display = (set: Record<string, unknown>): Change => ({
    op: 'patch',
    kind: 'display',
    id: 'display',
    v: 1,
    set,
  });
  expect(isVersioned(display({ season: 'winter' }))).toBe(true);
  expect(isVersioned(display({ season: 'winter', name: 'x' }))).toBe(false);
});
