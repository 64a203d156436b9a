import fc from 'fast-check';
import { runs } from '../../test/runs.ts';
import {
  changesInVersion,
  reduce,
  removeVersion,
  sceneFrom,
  sceneInVersion,
  type Change,
  type Kind,
  type Scene,
} from '../document/index.ts';
import { carriedPieces } from '../cut/index.ts';
import { compileRelief } from '../terrain/index.ts';
import { finishSwap, standingVersion, swapPieces, swapPlan, tickSwap } from './index.ts';

const start = () =>
  sceneFrom({
    display: { name: 'Quay', kind: 'diorama' },
    levels: [{ id: 'low', name: 'Low', height: 3 }],
    people: [{ id: 'ada', name: 'Ada', initials: 'A' }],
    sections: [{ id: 's', letter: 'S', name: 'Quay', x: 0, y: 0, w: 48, d: 48, owner: 'ada' }],
    pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 48, d: 48, level: 'low', ground: 'grass' }],
    plots: [
      { id: 'hall', name: 'Hall', x: 4, y: 4, w: 12, d: 12, height: 18 },
      { id: 'tower', name: 'Tower', x: 6, y: 6, w: 4, d: 4, height: 18, onPlot: 'hall' },
    ],
    figures: [
      { id: 'guard', name: 'Guard', x: 8, y: 8, cast: 1, onPlot: 'tower' },
      { id: 'queue', name: 'Queue', x: 30, y: 30, cast: 4 },
    ],
    trees: [{ id: 'oak', name: 'Oak', x: 40, y: 6, crown: 4, height: 12 }],
    versions: [{ id: 'snow', name: 'First snow' }],
  });
const apply = (scene: Scene, changes: readonly Change[]): Scene => {
  const done = reduce(scene, changes);
  if (!done.ok) throw new Error(done.refusal.sentence);
  return done.scene;
};
const inSnow = (base: Scene, changes: readonly Change[]): Scene => {
  const made = changesInVersion(base, 'snow', changes, 'version');
  if (!made.ok) throw new Error(made.sentence);
  return apply(base, made.changes);
};
const words = (base: Scene, to: string | null) =>
  swapPlan(base, to).steps.map(({ act, name, isMoved }) => `${act} ${name}${isMoved ? ' (back)' : ''}`);

test('another hall: what stands on it comes off first and goes back last; a tree grows, a stall comes', () => {
  const base = inSnow(start(), [
    { op: 'patch', kind: 'plot', id: 'hall', v: 1, set: { height: 24 } },
    { op: 'patch', kind: 'tree', id: 'oak', v: 1, set: { season: 'winter' } },
    { op: 'patch', kind: 'figure', id: 'queue', v: 1, set: { story: 'They freeze' } },
    { op: 'add', kind: 'plot', id: 'stall', data: { name: 'Stall', x: 30, y: 8, w: 4, d: 4, height: 6 } },
    { op: 'patch', kind: 'pad', id: 'p', v: 1, set: { ground: 'sand' } },
  ]);
  expect(words(base, 'snow')).toEqual([
    // The guard stands on the tower, the tower on the hall.
    ...['out Guard (back)', 'out Tower (back)', 'out Oak', 'out Hall'],
    ...['in Stall', 'in Hall', 'in Oak', 'in Tower (back)', 'in Guard (back)'],
  ]);
  const plan = swapPlan(base, 'snow');
  // 4 out at 1 min, 5 in at 5; another story is no swap, another ground is built again.
  expect([plan.minutes, plan.left, plan.rebuilt]).toEqual([29, 29, ['Yard']]);
  expect(new Set(plan.steps.map(({ owner }) => owner))).toEqual(new Set(['ada']));
});

test('ticks teach how long a step takes; what stands is said at the end, and the way back is a plan of its own', () => {
  let base = inSnow(start(), [
    { op: 'patch', kind: 'tree', id: 'oak', v: 1, set: { season: 'winter' } },
    { op: 'remove', kind: 'figure', id: 'queue', v: 1 },
  ]);
  const tick = (minute: number | null, at: number) => {
    const plan = swapPlan(base, 'snow');
    const now = minute === null ? null : new Date(Date.UTC(2031, 0, 1, 9, minute)).toISOString();
    base = apply(base, tickSwap(base, plan, plan.steps[at].key, now));
  };
  expect(words(base, 'snow')).toEqual(['out Queue', 'out Oak', 'in Oak']);
  // The first tick has none before it; the second comes 3 min later, the third 2 h after that.
  tick(0, 0);
  tick(3, 1);
  tick(123, 2);
  const ticked = swapPlan(base, 'snow');
  expect(ticked.steps.map(({ minutes, isLearnt }) => [minutes, isLearnt])).toEqual([
    [1, false],
    [3, true],
    [5, false],
  ]);
  expect([ticked.minutes, ticked.left]).toEqual([9, 0]);
  tick(null, 2);
  expect(swapPlan(base, 'snow').left).toBe(5);
  base = apply(base, finishSwap(base, 'snow'));
  expect([standingVersion(base), words(base, 'snow')]).toEqual(['snow', []]);
  expect(words(base, null)).toEqual(['out Oak', 'in Oak', 'in Queue']);
  // Back again its own time is known, and nothing is ticked.
  base = apply(base, finishSwap(base, null));
  const again = swapPlan(base, 'snow');
  expect(again.steps.map(({ minutes, done }) => [minutes, done])).toEqual([
    [1, null],
    [3, null],
    [5, null],
  ]);
  base = apply(base, finishSwap(base, 'snow'));
  base = apply(base, removeVersion(base, 'snow'));
  expect(standingVersion(base)).toBeNull();
});
test('in another month the trees that follow it are swapped, and what stands on them; others stay', () => {
  const month = (number: number, colour: string) => ({ month: number, tones: [{ colour, share: 1 }] });
  const base = inSnow(
    apply(start(), [
      {
        ...{ op: 'patch', kind: 'display', id: 'display', v: 1 },
        set: { month: 10, leaves: [month(10, 'rust'), month(12, 'bark')] },
      },
      { op: 'patch', kind: 'tree', id: 'oak', v: 1, set: { season: 'month' } },
      { op: 'add', kind: 'tree', id: 'fir', data: { name: 'Fir', x: 44, y: 40, crown: 2, height: 9 } },
      {
        ...{ op: 'add', kind: 'planting', id: 'wood' },
        data: {
          name: 'Wood',
          x: 20,
          y: 38,
          w: 8,
          d: 8,
          density: 20,
          mix: [{ name: 'Beech', season: 'month' }],
        },
      },
    ]),
    [{ op: 'patch', kind: 'display', id: 'display', v: 2, set: { month: 12 } }],
  );
  expect(words(base, 'snow')).toEqual(['out Oak', 'out Wood', 'in Wood', 'in Oak']);
  // The month alone is no swap where its leaves are the same.
  const same = apply(base, [
    {
      ...{ op: 'patch', kind: 'display', id: 'display', v: 2 },
      set: { leaves: [month(10, 'rust'), month(12, 'rust')] },
    },
  ]);
  expect(words(same, 'snow')).toEqual([]);
});

test('a loose building goes out part by part as it comes off, and in the other way round, with who carries it', () => {
  const base = inSnow(
    apply(start(), [
      {
        ...{ op: 'patch', kind: 'plot', id: 'hall', v: 1 },
        set: {
          mount: 'loose',
          parts: [
            { name: 'roof', use: 'roof', height: 6 },
            { name: 'upper floor', height: 6 },
          ],
        },
      },
    ]),
    [{ op: 'patch', kind: 'plot', id: 'hall', v: 2, set: { wallColour: 'chalk' } }],
  );
  const pieces = swapPieces(base, 'snow');
  const told = (act: 'out' | 'in') => pieces.get(`snow ${act} plot/hall`)?.map(({ title }) => title);
  expect(told('out')).toEqual(['roof of Hall', 'upper floor of Hall', 'Hall']);
  expect(told('in')).toEqual(told('out')?.toReversed());
  const hall = carriedPieces(sceneInVersion(base, 'snow').scene, compileRelief(base));
  for (const { title, grams, hands } of pieces.get('snow in plot/hall') ?? []) {
    expect([title, grams]).toEqual([title, hall.find((one) => one.title === title)?.grams]);
    expect(hands).toBe(1);
  }
  // Figures are taken in the hand.
  expect([...pieces.keys()].filter((key) => key.includes('figure'))).toEqual([]);
});

const KINDS: readonly Kind[] = ['plot', 'figure', 'tree'];
test('random versions: what is taken out and put in leads from the one to the other, nothing stands on air meanwhile', () => {
  const act = fc.record({
    kind: fc.constantFrom('plot' as const, 'figure' as const, 'tree' as const),
    at: fc.nat(3),
    what: fc.constantFrom('gone', 'changed', 'added'),
    value: fc.integer({ min: 1, max: 30 }),
  });
  fc.assert(
    fc.property(fc.array(act, { maxLength: 6 }), (acts) => {
      let base = start();
      for (const { kind, at, what, value } of acts) {
        const shown = sceneInVersion(base, 'snow').scene;
        const list = Object.values(shown[kind]);
        const one = list[at % Math.max(1, list.length)];
        const id = `new-${value}`;
        const change: Change | null =
          what === 'added'
            ? {
                op: 'add',
                kind: 'figure',
                id,
                data: { name: 'New', x: 20, y: 20, cast: 1, onPlot: shown.plot.hall ? 'hall' : null },
              }
            : !one
              ? null
              : what === 'gone'
                ? { op: 'remove', kind, id: one.id, v: one.v }
                : { op: 'patch', kind, id: one.id, v: one.v, set: { x: value } };
        if (!change) continue;
        const made = changesInVersion(base, 'snow', [change], 'version');
        const step = made.ok ? reduce(base, made.changes) : null;
        if (step?.ok) base = step.scene;
      }
      const after = sceneInVersion(base, 'snow').scene;
      const stands = new Set(KINDS.flatMap((kind) => Object.keys(base[kind]).map((id) => `${kind}/${id}`)));
      const under = (scene: Scene, key: string) => {
        const [kind, id] = key.split('/');
        const thing =
          kind === 'plot' ? scene.plot[id] : kind === 'figure' ? scene.figure[id] : scene.tree[id];
        return thing?.onPlot ? `plot/${thing.onPlot}` : null;
      };
      const { steps } = swapPlan(base, 'snow');
      for (const { act: way, ref } of steps) {
        const key = `${ref.kind}/${ref.id}`;
        if (way === 'out') {
          // Nothing that stands now stands on it.
          for (const other of stands) expect(under(base, other)).not.toBe(key);
          expect(stands.delete(key)).toBe(true);
        } else {
          const on = under(after, key);
          if (on) expect(stands.has(on)).toBe(true);
          expect(stands.has(key)).toBe(false);
          stands.add(key);
        }
      }
      expect([...stands].toSorted()).toEqual(
        KINDS.flatMap((kind) => Object.keys(after[kind]).map((id) => `${kind}/${id}`)).toSorted(),
      );
      // What stayed was the same in both.
      const touched = new Set(steps.map(({ ref }) => `${ref.kind}/${ref.id}`));
      for (const kind of KINDS)
        for (const id of Object.keys(base[kind]))
          if (!touched.has(`${kind}/${id}`)) {
            const { v: _a, ...was } = base[kind][id];
            const { v: _b, ...is } = after[kind][id];
            expect(is).toEqual(was);
          }
    }),
    { numRuns: runs(80) },
  );
});
