import fc from 'fast-check';
import { compileRelief } from '../terrain/index.ts';
import { sceneFrom } from '../document/index.ts';
import { reachOf } from '../reach/index.ts';
import { buildUp, freeModule, orderOf } from './index.ts';

describe('orders', () => {
  const graph = fc
    .integer({ min: 1, max: 9 })
    .chain((n) =>
      fc.array(fc.tuple(fc.nat(n - 1), fc.nat(n - 1)), { maxLength: 14 }).map((edges) => ({ n, edges })),
    );
  test('property: everything comes after what is before it, or a circle is shown that is one', () => {
    fc.assert(
      fc.property(graph, ({ n, edges }) => {
        const before = new Map(Array.from({ length: n }, (_, i) => [`${i}`, new Set<string>()]));
        for (const [from, to] of edges) before.get(`${to}`)?.add(`${from}`);
        const answer = orderOf(before, (a, b) => (a < b ? -1 : 1));
        if (answer.ok) {
          expect([...answer.order].sort()).toEqual([...before.keys()].sort());
          for (const [key, list] of before)
            for (const one of list) expect(answer.order.indexOf(one)).toBeLessThan(answer.order.indexOf(key));
          return;
        }
        expect(answer.cycles.length).toBeGreaterThan(0);
        for (const cycle of answer.cycles) {
          // From each of a circle each other can be reached by waiting.
          const inside = new Set(cycle);
          for (const start of cycle) {
            const reached = new Set<string>();
            const next = [start];
            for (const at of next)
              for (const one of before.get(at) ?? [])
                if (inside.has(one) && !reached.has(one)) {
                  reached.add(one);
                  next.push(one);
                }
            expect([...reached].sort()).toEqual([...inside].sort());
          }
        }
      }),
    );
  });
});

describe('building up', () => {
  const at = (x: number, y: number) => ({ x, y });
  /** Three rows of modules on a table against the north wall: one stands in the south only. */
  const scene = sceneFrom({
    display: { name: 'Wall', kind: 'diorama', place: 'room' },
    levels: [{ id: 'l', name: 'L', height: 3 }],
    places: [{ id: 'room', name: 'Room', walls: [at(0, 0), at(384, 0), at(384, 3000), at(0, 3000)] }],
    tables: [{ id: 't', name: 'T', x: 0, y: 0, w: 384, d: 1536, place: 'room' }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 192 }],
    pads: [{ id: 'p', name: 'P', x: 0, y: 0, w: 48, d: 192, level: 'l', ground: 'grass' }],
    modules: ['A1', 'B1', 'C1'].map((name, row) => ({
      id: `module-${name.toLowerCase()}`,
      name,
      ...{ x: 0, y: row * 64, w: 48, d: 64 },
      bases: [{ x: 0, y: row * 64, w: 48, d: 64 }],
    })),
    plots: [
      {
        id: 'mill',
        name: 'Mill',
        x: 4,
        y: 4,
        w: 8,
        d: 8,
        height: 20,
        parts: [
          { name: 'Roof', height: 6 },
          { name: 'Loft', height: 6 },
        ],
      },
      { id: 'hut', name: 'Hut', x: 20, y: 70, w: 8, d: 8, height: 9, mount: 'loose' },
    ],
    runs: [{ id: 'wall', name: 'Long wall', points: [at(40, 40), at(40, 80)], height: 6, panel: 16 }],
    trees: [
      { id: 'oak', name: 'Oak', x: 30, y: 20, crown: 5, height: 20 },
      { id: 'ash', name: 'Ash', x: 30, y: 150, crown: 5, height: 20 },
    ],
  });
  const relief = compileRelief(scene);
  const reach = reachOf(scene, relief);
  const built = buildUp(scene, relief, reach);
  const words = built.ok ? built.steps.map((step) => step.words) : [];
  const place = (start: string) => words.findIndex((one) => one.startsWith(start));
  test('the far module first, what bridges a seam after both sides, parts from below, what breaks last', () => {
    for (const [first, then] of [
      ['Set down A1', 'Set down B1'],
      ['Set down B1', 'Set down C1'],
      ['Set down B1', 'Pin A1 to B1'],
      ['Pin A1 to B1', 'Lay 1 piece of “Long wall” over A1, B1'],
      ['Set down B1', 'Stand “Hut” on B1'],
      ['Set down A1', 'Put “Loft” on “Mill”'],
      ['Put “Loft”', 'Put “Roof”'],
      ['Put “Roof”', 'Trees, figures, flags and signboards on A1 (1 thing)'],
      ['Trees, figures, flags and signboards on A1', 'Trees, figures, flags and signboards on C1'],
    ]) {
      expect(place(first)).toBeGreaterThanOrEqual(0);
      expect(place(first)).toBeLessThan(place(then));
    }
  });
  test('every step comes after what it waits for', () => {
    const keys = built.ok ? built.steps.map(({ key }) => key) : [];
    for (const step of built.ok ? built.steps : [])
      for (const key of step.after) expect(keys.indexOf(key)).toBeLessThan(keys.indexOf(step.key));
  });
  test('free C1: what is on it; free A1: nearer ones first, since nobody reaches over 1,024 mm', () => {
    expect(freeModule(scene, relief, reach, 'module-c1')).toMatchObject({ way: [], off: [{ module: 'C1' }] });
    const a1 = freeModule(scene, relief, reach, 'module-a1');
    expect(reach.ladder).toBeLessThan(1024);
    expect(a1?.way).toEqual(['B1']);
    const off = a1?.off.map((one) => one.words) ?? [];
    expect(off).toEqual(
      expect.arrayContaining([
        'Take off “Hut”',
        'Take up piece 2 of “Long wall”',
        'Lift out B1',
        'Lift off “Roof” of “Mill”',
      ]),
    );
    expect(off.filter((one) => one === 'Take up piece 2 of “Long wall”')).toHaveLength(1);
    expect(freeModule(scene, relief, reach, 'nobody')).toBeNull();
  });
});
