import fc from 'fast-check';
import { sceneFrom, type Scene } from '../document/index.ts';
import { runs } from '../../test/runs.ts';
import {
  NO_SLAB,
  bodiesOf,
  cavityCard,
  clearOver,
  columnsOf,
  compile,
  compileRelief,
  indexAt,
  recompile,
  slabCard,
  spanOf,
  standsOn,
  type Interval,
} from './index.ts';

type Given = Parameters<typeof sceneFrom>[0];
const BASE: Given = {
  display: { name: 'Test', kind: 'diorama' },
  levels: [
    { id: 'low', name: 'Low', height: 0 },
    { id: 'quay', name: 'Quay', height: 12 },
  ],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 24, d: 16 }],
};
const pad = (id: string, offset: number, more: object = {}) => ({
  ...{ id, name: id, x: 0, y: 0, w: 24, d: 16, level: 'low', offset, ground: 'grass' as const },
  ...more,
});
const house = (id: string, more: object) => ({ id, name: id, x: 4, y: 4, w: 4, d: 4, height: 9, ...more });
const told = (pieces: readonly Interval[]) =>
  pieces.map(({ from, to, owner }) => `${from}–${to} ${owner?.id ?? 'ground'}`);
const columnAt = (scene: Scene, x: number, y: number) =>
  told(columnsOf(scene, compileRelief(scene)).at(x, y));

describe('columns by hand', () => {
  test('a quay on pillars over water: the water stays, pillars stand at both ends and each 8 studs', () => {
    const scene = sceneFrom({
      ...BASE,
      pads: [pad('sea', 3, { ground: 'water' })],
      decks: [{ id: 'd', name: 'Quay', x: 2, y: 2, w: 18, d: 10, level: 'quay', thick: 2 }],
    });
    // From 2 to 20: pillars of 2 begin at 2, 10 and 18; from 2 to 12: at 2 and 10.
    expect(columnAt(scene, 2, 2)).toEqual(['0–3 ground', '3–10 d', '10–12 d']);
    expect(columnAt(scene, 11, 3)).toEqual(['0–3 ground', '3–10 d', '10–12 d']);
    expect(columnAt(scene, 6, 6)).toEqual(['0–3 ground', '10–12 d']);
    expect(columnAt(scene, 1, 2)).toEqual(['0–3 ground']);
    const { slabs } = compileRelief(scene);
    // Between pillars that leave 6 studs free the farthest is 3 from one; in the middle of four of them it is no farther.
    expect(spanOf(slabs[0]).far).toBe(3);
    expect(clearOver(columnsOf(scene, compileRelief(scene)).at(6, 6), 3)).toBe(7);
  });
  test('arches of a viaduct: half round where there is height, in courses of bricks, open for a road below', () => {
    const given = (top: number, more: object = {}) =>
      sceneFrom({
        ...BASE,
        decks: [
          {
            ...{ id: 'd', name: 'Viaduct', x: 0, y: 2, w: 22, d: 4, level: 'low', offset: top, thick: 2 },
            ...{ support: 'arches', spacing: 20, pillar: 2 },
          },
        ],
        ...more,
      });
    const tall = given(42);
    // Piers on studs 0, 1 and 20, 21. A circle of 9 studs (72 mm), its crown a brick under the deck's underside at 40:
    // 68 mm off its middle it is 23.7 mm (7.4 plates) over its springing at 14.5 plates, so at the course of 21 plates.
    expect(columnAt(tall, 1, 3)).toEqual(['0–40 d', '40–42 d']);
    expect(columnAt(tall, 2, 3)).toEqual(['21–40 d', '40–42 d']);
    expect(columnAt(tall, 19, 3)).toEqual(['21–40 d', '40–42 d']);
    expect(columnAt(tall, 10, 3)).toEqual(['36–40 d', '40–42 d']);
    const { slabs } = compileRelief(tall);
    expect(spanOf(slabs[0]).far).toBe(0);
    // With 12 plates under the deck 9 are left for a rise of 45: it is too flat to carry.
    expect(spanOf(compileRelief(given(14)).slabs[0]).far).toBe(9);
    expect(columnAt(given(14), 10, 3)).toEqual(['9–12 d', '12–14 d']);
    // A road runs through below; the pier that would stand on one is left away, and its arches with it.
    const road = (x: number) => ({
      ways: [
        {
          ...{ id: 'w', name: 'Road', width: 4, ground: 'road' as const },
          points: [
            { x, y: 0, z: 0 },
            { x, y: 16, z: 0 },
          ],
        },
      ],
    });
    expect(columnAt(given(42, road(11)), 10, 3)).toEqual(['36–40 d', '40–42 d']);
    expect(spanOf(compileRelief(given(42, road(20))).slabs[0]).far).toBe(20);
  });
  test('half on the yard: where the ground meets the deck, that carries it', () => {
    const scene = sceneFrom({
      ...BASE,
      pads: [pad('yard', 11, { w: 12 })],
      decks: [{ id: 'd', name: 'Quay', x: 8, y: 0, w: 12, d: 4, level: 'quay', thick: 3, support: 'ends' }],
    });
    expect(columnAt(scene, 9, 1)).toEqual(['0–11 ground', '11–12 d']);
    expect(columnAt(scene, 15, 1)).toEqual(['9–12 d']);
    // The far end stands on studs 18 and 19; from 12 to 17 it hangs: 3 studs from either side.
    expect(spanOf(compileRelief(scene).slabs[0])).toEqual({ far: 3, at: { x: 14.5, y: 0.5 } });
  });
  test('a cellar under a house: the ground over it is its roof, and the house stands on that', () => {
    const scene = sceneFrom({
      ...BASE,
      pads: [pad('hill', 20)],
      cavities: [{ id: 'c', name: 'Cellar', x: 4, y: 4, w: 6, d: 6, level: 'low', offset: 3, clear: 12 }],
      plots: [house('h', {}), house('barrel', { x: 5, y: 5, w: 2, d: 2, height: 6, inCavity: 'c' })],
    });
    expect(columnAt(scene, 4, 4)).toEqual(['0–3 ground', '15–20 ground', '20–29 h']);
    expect(columnAt(scene, 5, 5)).toEqual(['0–3 ground', '3–9 barrel', '15–20 ground', '20–29 h']);
    expect(columnAt(scene, 3, 4)).toEqual(['0–20 ground']);
  });
  test('a tunnel: closed under the hill, cut open where the ground is no higher than its ceiling', () => {
    const scene = sceneFrom({
      ...BASE,
      pads: [
        pad('flat', 3),
        pad('bank', 8, { x: 6, w: 3, order: 1 }),
        pad('hill', 30, { x: 9, w: 9, order: 2 }),
      ],
      cavities: [
        {
          id: 't',
          name: 'Tunnel',
          use: 'tunnel',
          x: 0,
          y: 4,
          w: 24,
          d: 6,
          level: 'low',
          offset: 3,
          clear: 12,
        },
      ],
      ways: [
        {
          ...{ id: 'w', name: 'Road', width: 4, ground: 'road' },
          points: [
            { x: 0, y: 7, z: 3 },
            { x: 24, y: 7, z: 3 },
          ],
        },
      ],
    });
    expect(columnAt(scene, 12, 7)).toEqual(['0–3 ground', '15–30 ground']);
    expect(columnAt(scene, 7, 4)).toEqual(['0–3 ground']);
    expect(columnAt(scene, 7, 3)).toEqual(['0–8 ground']);
    const relief = compileRelief(scene);
    // The road goes through: the hill over it is not cut down to it.
    expect(relief.height[indexAt(relief, 12, 7)]).toBe(30);
    expect(relief.height[indexAt(relief, 2, 7)]).toBe(3);
  });
  test('a road bridge over a beck: the beck stays, the banks carry its ends, piers stand where asked', () => {
    const points = [
      { x: 0, y: 8, z: 12 },
      { x: 24, y: 8, z: 12 },
    ];
    const way = { id: 'w', name: 'Road', width: 6, ground: 'road' as const, points };
    const pads = [pad('banks', 11), pad('beck', 2, { x: 8, w: 8, order: 1, ground: 'water' as const })];
    const bank = compileRelief(sceneFrom({ ...BASE, pads, ways: [way] }));
    expect(bank.height[indexAt(bank, 12, 8)]).toBe(12);
    const scene = sceneFrom({ ...BASE, pads, ways: [{ ...way, bridges: true, pierEvery: 24 }] });
    const relief = compileRelief(scene);
    expect(relief.height[indexAt(relief, 12, 8)]).toBe(2);
    expect(columnAt(scene, 12, 8)).toEqual(['0–2 ground', '10–12 w']);
    expect(columnAt(scene, 4, 8)).toEqual(['0–12 ground']);
    // Eight studs between the banks: the outermost are borne by them, the middle two are 3 steps off.
    expect(spanOf(relief.slabs[0]).far).toBe(3);
    const pier = sceneFrom({ ...BASE, pads, ways: [{ ...way, bridges: true, pierEvery: 12 }] });
    expect(columnAt(pier, 12, 8)).toEqual(['0–2 ground', '2–10 w', '10–12 w']);
  });
  test('on a deck, under it, on a roof: moving what is below carries the height', () => {
    const scene = (deck: number) =>
      sceneFrom({
        ...BASE,
        levels: [
          { id: 'low', name: 'Low', height: 0 },
          { id: 'quay', name: 'Quay', height: deck },
        ],
        pads: [pad('a', 3)],
        decks: [{ id: 'd', name: 'Quay', x: 0, y: 0, w: 16, d: 16, level: 'quay' }],
        plots: [
          house('on', {}),
          house('under', { x: 10, height: 3, onGround: true }),
          house('tower', { x: 5, y: 5, w: 2, d: 2, height: 6, onPlot: 'on' }),
        ],
        trees: [{ id: 't', name: 'Tree', x: 1.5, y: 1.5, crown: 1, height: 5, onDeck: 'd' }],
      });
    for (const deck of [12, 17]) {
      const relief = compileRelief(scene(deck));
      const foot = (id: string) => standsOn(scene(deck), relief, scene(deck).plot[id]);
      expect([foot('on'), foot('under'), foot('tower')]).toEqual([deck, 3, deck + 9]);
      expect(relief.top[indexAt(relief, 5, 5)]).toBe(deck + 15);
      expect(relief.top[indexAt(relief, 11, 5)]).toBe(deck);
      expect(bodiesOf(scene(deck), relief).find(({ id }) => id === 't')?.ground).toBe(deck);
    }
  });
  test('on a wall things stand on its top: on level ground, down a slope where they are, and on what stands on it', () => {
    const line = (id: string, more: object) => ({
      ...{ id, name: id, use: 'wall' as const, height: 15, thick: 2 },
      points: [
        { x: 0, y: 8 },
        { x: 24, y: 8 },
      ],
      ...more,
    });
    const scene = sceneFrom({
      ...BASE,
      // The wall steps up with the ground at stud 12.
      pads: [pad('a', 3), pad('b', 9, { x: 12, order: 1 })],
      runs: [line('wall', {}), line('fence', { onRun: 'wall', thick: 1, height: 4 })],
      plots: [
        house('low', { x: 2, y: 7, w: 2, d: 2, onRun: 'wall' }),
        house('high', { x: 20, y: 7, w: 2, d: 2, onRun: 'wall' }),
        house('flag', { x: 2, y: 7, w: 2, d: 2, height: 2, onPlot: 'low' }),
      ],
      trees: [
        { id: 't', name: 'Tree', x: 8.5, y: 7.5, crown: 1, height: 5, onRun: 'wall' },
        // Beside the wall there is nothing of it: the highest of it counts, and the rule tells that it is not under it.
        { id: 'off', name: 'Off', x: 8.5, y: 2.5, crown: 1, height: 5, onRun: 'wall' },
      ],
    });
    const relief = compileRelief(scene);
    const foot = (id: string) => standsOn(scene, relief, scene.plot[id]);
    expect([foot('low'), foot('high'), foot('flag')]).toEqual([3 + 15, 9 + 15, 3 + 15 + 9]);
    expect(columnAt(scene, 2, 7)).toEqual(['0–3 ground', '3–18 wall', '18–27 low', '27–29 flag']);
    const grounds = bodiesOf(scene, relief).filter(({ kind }) => kind === 'tree');
    expect(grounds.map(({ id, ground }) => [id, ground])).toEqual([
      ['off', 24],
      ['t', 18],
    ]);
    // A wall on a wall is built level, on the highest of it.
    expect(bodiesOf(scene, relief).find(({ id }) => id === 'fence')?.begins).toBe(24);
    expect(
      compileRelief(sceneFrom({ ...BASE, runs: [line('a', { onRun: 'a' })] })).top.every((z) => z <= 15),
    ).toBe(true);
  });
  test('in a circle nothing stands on itself: it comes back to the surface', () => {
    const scene = sceneFrom({
      ...BASE,
      pads: [pad('a', 3)],
      plots: [house('a', { onPlot: 'b' }), house('b', { onPlot: 'a', x: 12 })],
    });
    expect(columnAt(scene, 20, 1)).toEqual(['0–3 ground']);
    expect(compileRelief(scene).top.every(Number.isFinite)).toBe(true);
  });
});

const half = (min: number, max: number) => fc.integer({ min: 2 * min, max: 2 * max }).map((n) => n / 2);
const area = fc.record({ x: half(-2, 20), y: half(-2, 12), w: half(1, 14), d: half(1, 10) });
const some = <T>(one: fc.Arbitrary<T>, most: number) => fc.array(one, { maxLength: most });
/** Displays of pads, decks, cavities, a way that bridges, and buildings that stand anywhere. */
const displays = fc
  .record({
    pads: some(fc.record({ area, offset: fc.integer({ min: -3, max: 24 }) }), 3),
    decks: some(
      fc.record({
        area,
        offset: fc.integer({ min: 2, max: 26 }),
        thick: fc.integer({ min: 1, max: 4 }),
        support: fc.constantFrom('pillars', 'walls', 'ends', 'arches'),
        spacing: fc.integer({ min: 3, max: 9 }),
        pillar: fc.integer({ min: 1, max: 3 }),
      }),
      3,
    ),
    cavities: some(
      fc.record({ area, offset: fc.integer({ min: 0, max: 10 }), clear: fc.integer({ min: 2, max: 9 }) }),
      3,
    ),
    plots: some(
      fc.record({
        area,
        height: fc.integer({ min: 1, max: 12 }),
        out: fc.integer({ min: 0, max: 2 }),
        from: fc.integer({ min: 0, max: 4 }),
        on: fc.integer({ min: 0, max: 10 }),
      }),
      3,
    ),
    runs: some(
      fc.record({
        at: half(0, 12),
        turned: fc.boolean(),
        height: fc.integer({ min: 1, max: 9 }),
        thick: half(1, 3),
        on: fc.integer({ min: 0, max: 5 }),
        ring: fc.option(fc.integer({ min: 3, max: 6 })),
      }),
      3,
    ),
    road: fc.option(fc.record({ y: half(1, 14), z: fc.integer({ min: 1, max: 20 }), bridges: fc.boolean() })),
  })
  .map(({ pads, decks, cavities, plots, road, runs: walls }): Given => ({
    ...BASE,
    pads: pads.map((one, i) => pad(`p${i}`, one.offset, { ...one.area, order: i })),
    decks: decks.map(({ area: at, ...one }, i) => ({
      id: `d${i}`,
      name: `D${i}`,
      level: 'low',
      ...at,
      ...one,
    })),
    cavities: cavities.map(({ area: at, ...one }, i) => ({
      ...{ id: `c${i}`, name: `C${i}`, level: 'low' },
      ...at,
      ...one,
    })),
    plots: plots.map(({ area: at, height, out, from, on }, i) => ({
      ...{ id: `h${i}`, name: `H${i}`, height },
      ...at,
      ...{ overhang: { n: out, e: 0, s: 0, w: out }, overhangFrom: Math.min(from, height - 1) },
      onGround: on === 1,
      ...(on >= 2 && on <= 4 && decks.length > 0 ? { onDeck: `d${on % decks.length}` } : {}),
      ...(on >= 5 && on <= 6 && cavities.length > 0 ? { inCavity: `c${on % cavities.length}` } : {}),
      ...(on >= 7 && on <= 8 && i > 0 ? { onPlot: `h${i - 1}` } : {}),
      ...(on >= 9 && walls.length > 0 ? { onRun: `r${on % walls.length}` } : {}),
    })),
    runs: walls.map(({ at, turned, height, thick, on, ring }, i) => ({
      ...{ id: `r${i}`, name: `R${i}`, use: 'wall', height, thick, ring },
      points: turned
        ? [
            { x: at, y: 2 },
            { x: at, y: 14 },
          ]
        : [
            { x: 3, y: at },
            { x: 20, y: at },
          ],
      ...(on >= 3 && i > 0 ? { onRun: `r${i - 1}` } : {}),
      ...(on === 2 && plots.length > 0 ? { onPlot: 'h0' } : {}),
    })),
    ways: road
      ? [
          {
            ...{ id: 'w', name: 'Road', width: 3, ground: 'road', bridges: road.bridges, pierEvery: 7 },
            points: [
              { x: 0, y: road.y, z: road.z },
              { x: 24, y: road.y, z: road.z },
            ],
          },
        ]
      : [],
  }));

/**
 * Which thing fills each plate over each stud, asked one by one of the document: nothing of the compiler is used but the
 * ground's height and on which slab a stud of a way lies.
 */
function slowly(scene: Scene, x: number, y: number): Map<number, string> {
  const relief = compileRelief(scene);
  const ground = relief.height[indexAt(relief, x, y)];
  const isIn = (one: { x: number; y: number; w: number; d: number }) =>
    x + 0.5 >= one.x && x + 0.5 < one.x + one.w && y + 0.5 >= one.y && y + 0.5 < one.y + one.d;
  const solid = new Map<number, string>();
  const cavities = Object.values(scene.cavity).filter((one) => isIn(one) && ground > one.offset + one.clear);
  for (let z = 0; z < ground; z++)
    if (!cavities.some(({ offset, clear }) => z >= offset && z < offset + clear)) solid.set(z, 'ground');
  const take = (from: number, to: number, id: string) => {
    for (let z = from; z < to; z++) if (!solid.has(z)) solid.set(z, id);
  };
  const lower = Object.values(scene.deck).toSorted((a, b) => a.offset - b.offset);
  for (const deck of lower)
    if (isIn(deck) && ground < deck.offset)
      take(Math.max(ground, deck.offset - deck.thick), deck.offset, deck.id);
  return solid;
}

test('a pavement is a plate high before its building, and what stands out lies over it from its height on', () => {
  const front = (more: object) =>
    sceneFrom({
      ...BASE,
      plots: [
        {
          ...{ id: 'h', name: 'Shop', x: 4, y: 2, w: 8, d: 12, height: 30, streetFront: true, pavement: 4 },
          ...{ front: 's', ...more },
        },
      ],
    });
  const at = (scene: Scene, x: number, y: number) =>
    columnsOf(scene, compileRelief(scene))
      .at(x, y)
      .filter(({ owner }) => owner?.id === 'h')
      .map(({ from, to }) => [from, to]);
  const [plain, ground] = [
    front({}),
    compileRelief(front({})).height[indexAt(compileRelief(front({})), 5, 3)],
  ];
  expect([at(plain, 5, 9), at(plain, 5, 10), at(plain, 5, 13), at(plain, 5, 14)]).toEqual([
    [[ground, ground + 30]],
    [[ground, ground + 1]],
    [[ground, ground + 1]],
    [],
  ]);
  // An oriel of 2 studs over the pavement, from 12 plates up.
  const jettied = front({ overhang: { s: 2 }, overhangFrom: 12 });
  expect([at(jettied, 5, 11), at(jettied, 5, 12)]).toEqual([
    [
      [ground, ground + 1],
      [ground + 12, ground + 30],
    ],
    [[ground, ground + 1]],
  ]);
  // Turned by a quarter its pavement lies west.
  const turned = front({ turn: 90 });
  expect([at(turned, 3, 8), at(turned, 9, 8)]).toEqual([[[ground, ground + 1]], [[ground, ground + 30]]]);
});

describe('columns of random displays', () => {
  test('ground, cavities and decks are those that each plate, asked by itself, is in', () => {
    fc.assert(
      fc.property(displays, (given) => {
        const scene = sceneFrom({ ...given, plots: [], ways: [], runs: [] });
        const columns = columnsOf(scene, compileRelief(scene));
        for (let y = 0; y < 16; y += 3)
          for (let x = 0; x < 24; x += 2) {
            const slow = slowly(scene, x, y);
            const feet = columns.at(x, y);
            const found = new Map<number, string>();
            for (const { from, to, owner } of feet)
              for (let z = from; z < to; z++) found.set(z, owner?.id ?? 'ground');
            // Of two decks in one place either may be told: the pillar of one stands in the other.
            const kindOf = (id: string | undefined) => (id?.startsWith('d') ? 'deck' : id);
            for (const [z, id] of slow)
              expect({ x, y, z, is: kindOf(found.get(z)) }).toEqual({ x, y, z, is: kindOf(id) });
            // What is solid beside them is a pillar: it reaches from something solid to its own deck.
            for (const [z, id] of found)
              if (!slow.has(z)) {
                const deck = scene.deck[id];
                expect(deck && z < deck.offset - deck.thick).toBe(true);
                // An arch begins over air; where a pier has no room for bricks it is a plate.
                expect(z <= 0 || found.has(z - 1) || deck.support === 'arches').toBe(true);
                expect(found.has(z + 1)).toBe(true);
              }
          }
      }),
      { numRuns: runs(60) },
    );
  });
  test('pieces of a stud never overlap, and the surface is the top of the ground or of what lies over it', () => {
    fc.assert(
      fc.property(displays, (given) => {
        const scene = sceneFrom(given);
        const relief = compileRelief(scene);
        const columns = columnsOf(scene, relief);
        for (let y = 0; y < 16; y++)
          for (let x = 0; x < 24; x++) {
            const pieces = columns.at(x, y);
            pieces.forEach(({ from, to }, i) => {
              expect(from).toBeLessThan(to);
              if (i > 0) expect(from).toBeGreaterThanOrEqual(pieces[i - 1].to);
            });
            const laid = pieces.filter(
              ({ owner }) => owner === null || !['plot', 'run'].includes(owner.kind),
            );
            const i = indexAt(relief, x, y);
            const highest = Math.max(relief.height[i], ...laid.map(({ to }) => to));
            expect({ x, y, surface: relief.surface[i] }).toEqual({ x, y, surface: highest });
          }
      }),
      { numRuns: runs(60) },
    );
  });
  test('a scene compiled from the one before it is the scene compiled afresh', () => {
    fc.assert(
      fc.property(
        displays,
        displays,
        fc.array(fc.boolean(), { minLength: 6, maxLength: 6 }),
        (a, b, takes) => {
          const groups = ['pads', 'decks', 'cavities', 'plots', 'ways', 'runs'] as const;
          // On wide ground what changes is a small part of it, and the rest is kept.
          const wide = { footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 64 }] };
          const mixed = { ...a, ...wide };
          groups.forEach((group, i) => takes[i] && Object.assign(mixed, { [group]: b[group] }));
          let before: Scene;
          let after: Scene;
          try {
            before = sceneFrom({ ...a, ...wide });
            after = sceneFrom(mixed);
          } catch {
            // A building that names a deck the other display does not have.
            return;
          }
          // What did not change is the same object, as after a batch.
          for (const kind of ['pad', 'deck', 'cavity', 'plot', 'way', 'run', 'level', 'footprint'] as const)
            for (const id of Object.keys(after[kind]))
              if (JSON.stringify(after[kind][id]) === JSON.stringify(before[kind][id]))
                Object.assign(after[kind], { [id]: before[kind][id] });
          after = { ...after, footprint: before.footprint, level: before.level };
          const fresh = compile(after).relief;
          const { relief } = recompile(compile(before), after).compiled;
          expect(relief.height).toEqual(fresh.height);
          expect(relief.ground).toEqual(fresh.ground);
          expect(relief.surface).toEqual(fresh.surface);
          expect(relief.top).toEqual(fresh.top);
          expect(relief.slabs).toEqual(fresh.slabs);
          const ownerOf = ({ things, owner }: typeof relief) =>
            Array.from(owner, (number) =>
              number === 0 ? '' : `${things[number - 1].kind} ${things[number - 1].id}`,
            );
          expect(ownerOf(relief)).toEqual(ownerOf(fresh));
        },
      ),
      { numRuns: runs(120) },
    );
  });
  test('ground that changes under one end of a deck leaves the ways on its other end where they are', () => {
    const given: Given = {
      ...BASE,
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 64 }],
      pads: [pad('sea', 3, { w: 96, d: 64 })],
      decks: [{ id: 'd', name: 'Quay', x: 2, y: 20, w: 60, d: 8, level: 'quay' }],
      ways: [false, true].map((bridges, i) => ({
        ...{ id: `w${i}`, name: 'Lane', width: 4, bridges },
        points: [
          { x: 48 + 6 * i, y: 8, z: bridges ? 12 : null },
          { x: 48 + 6 * i, y: 40, z: 12 },
        ],
      })),
    };
    const before = sceneFrom(given);
    const after = {
      ...before,
      hill: sceneFrom({
        ...given,
        hills: [{ id: 'h', name: 'Rock', x: 4, y: 22, w: 4, d: 4, level: 'low', height: 6 }],
      }).hill,
    };
    const { compiled, changed } = recompile(compile(before), after);
    expect(changed).not.toBeNull();
    expect(compiled.relief.slabs).toEqual(compile(after).relief.slabs);
    expect(compiled.relief.slabs.find(({ kind }) => kind === 'deck')?.way).toContain(1);
  });
  test('without decks, cavities and bridges nothing is made for them', () => {
    const relief = compileRelief(sceneFrom({ ...BASE, pads: [pad('a', 3)] }));
    expect(relief.slabs).toEqual([]);
    expect(relief.surface).toBe(relief.height);
    expect(relief.surface.includes(NO_SLAB)).toBe(false);
  });
});

describe('the cards of decks and cavities tell what their columns show (random displays)', () => {
  /** Each stud of the footprint with what is solid there. */
  const studsOf = (scene: Scene) => {
    const columns = columnsOf(scene, compileRelief(scene));
    return Array.from({ length: 24 * 16 }, (_, i) => {
      const [x, y] = [i % 24, Math.trunc(i / 24)];
      return { x, y, pieces: columns.at(x, y) };
    });
  };
  test('a deck: its studs, its least air and where that is', () => {
    fc.assert(
      fc.property(displays, (given) => {
        // Under arches the air ends at them: those are tested by hand above.
        const plain = (given.decks ?? []).map((deck) =>
          deck.support === 'arches' ? { ...deck, support: 'pillars' as const } : deck,
        );
        // Of two that lie in one another one alone has the stud.
        const ranges = plain.map(({ offset = 0, thick = 2 }) => ({ from: offset - thick, to: offset }));
        const decks = plain.filter((_, i) =>
          ranges.slice(0, i).every(({ from, to }) => ranges[i].from >= to || ranges[i].to <= from),
        );
        const scene = sceneFrom({ ...given, decks, plots: [], runs: [], ways: [] });
        const relief = compileRelief(scene);
        const studs = studsOf(scene);
        for (const deck of Object.values(scene.deck)) {
          const card = slabCard(relief, 'deck', deck.id);
          // What carries it ends below it: its cover is what ends at its top.
          const over = studs.flatMap(({ x, y, pieces }) => {
            const cover = pieces.find(({ owner, to }) => owner?.id === deck.id && to === deck.offset);
            const below = pieces.filter(({ owner, to }) => owner?.id !== deck.id && to < deck.offset);
            const floor = Math.max(relief.height[indexAt(relief, x, y)], ...below.map(({ to }) => to));
            return cover ? [{ x: x + 0.5, y: y + 0.5, floor }] : [];
          });
          if (!card) {
            expect(over).toEqual([]);
            continue;
          }
          expect(card.studs).toBe(over.length);
          const airs = over.map(({ floor }) => deck.offset - deck.thick - floor).filter((air) => air > 0);
          expect(card.clear?.plates ?? null).toBe(airs.length > 0 ? Math.min(...airs) : null);
          const at = over.find(({ x, y }) => x === card.clear?.at.x && y === card.clear.at.y);
          if (card.clear) expect(deck.offset - deck.thick - (at?.floor ?? NaN)).toBe(card.clear.plates);
        }
      }),
      { numRuns: runs(120) },
    );
  });
  test('a cavity: what of it has a roof, and how thin that is', () => {
    fc.assert(
      fc.property(displays, (given) => {
        // One by itself: several may take the same ground away.
        const scene = sceneFrom({
          ...{ ...given, plots: [], runs: [], ways: [], decks: [] },
          cavities: given.cavities?.slice(0, 1),
        });
        const [cavity] = Object.values(scene.cavity);
        if (!cavity) return;
        const relief = compileRelief(scene);
        const card = cavityCard(scene, relief, cavity.id);
        const ceiling = cavity.offset + cavity.clear;
        // Under a roof the ground goes on at the ceiling.
        const roofs = studsOf(scene).flatMap(({ pieces }) => {
          const roof = pieces.find(({ from, owner }) => owner === null && from === ceiling);
          return roof ? [roof.to - roof.from] : [];
        });
        expect(card?.roofed ?? 0).toBe(roofs.length);
        expect(card?.roof?.plates ?? null).toBe(roofs.length > 0 ? Math.min(...roofs) : null);
      }),
      { numRuns: runs(120) },
    );
  });
});
