import fc from 'fast-check';
import { METHODS, mergeLines, sceneFrom } from '../src/document/index.ts';

const half = (min: number, max: number) => fc.integer({ min: 2 * min, max: 2 * max }).map((n) => n / 2);
const many = <T extends object>(kind: string, shape: { [K in keyof T]: fc.Arbitrary<T[K]> }, most: number) =>
  fc
    .array(fc.record(shape), { maxLength: most })
    .map((list) => list.map((one, i) => ({ ...one, id: `${kind}-${i}`, name: `Thing ${i}` })));
const place = { x: half(-4, 70), y: half(-4, 44) };
const size = { w: half(1, 24), d: half(1, 20) };
const line = fc.array(fc.record({ x: half(-2, 66), y: half(-2, 42) }), { minLength: 2, maxLength: 4 });
const side = fc.constantFrom('n' as const, 'e' as const, 's' as const, 'w' as const);
const method = fc.constantFrom(...METHODS, null);
const partLine = {
  part: fc.constantFrom('brick-2x4', 'brick-1x2', 'plate-2x4', 'plate-4x8', 'tile-2x2'),
  colour: fc.constantFrom('any', 'slate', 'moss'),
  qty: fc.integer({ min: 1, max: 90 }),
};
const lines = fc.array(fc.record(partLine), { minLength: 1, maxLength: 4 }).map((list) => mergeLines(list));
const onLevel = { level: fc.constant('low'), offset: fc.integer({ min: -3, max: 12 }) };

/**
 * Random displays of 64 × 40 studs in two modules and two sections: everything that has a place lies anywhere on them
 * or beside, on half studs, turned or not.
 */
export const randomDisplays = fc
  .record({
    pads: many(
      'pads',
      {
        ...place,
        ...size,
        ...onLevel,
        ground: fc.constantFrom('grass' as const, 'water' as const, 'custom-1' as const),
      },
      4,
    ),
    waters: many(
      'waters',
      {
        ...{ ...place, ...size, ...onLevel },
        depth: fc.integer({ min: 1, max: 9 }),
        ground: fc.constantFrom('water' as const, 'custom-2' as const),
      },
      3,
    ),
    plots: many(
      'plots',
      {
        ...{ ...place, ...size },
        turn: fc.constantFrom(0, 30, 90),
        shape: fc.constantFrom('box' as const, 'box' as const, 'round' as const),
        notches: fc.uniqueArray(
          fc.record({
            corner: fc.constantFrom('nw' as const, 'ne' as const, 'se' as const, 'sw' as const),
            w: fc.integer({ min: 1, max: 9 }),
            d: fc.integer({ min: 1, max: 9 }),
          }),
          { selector: ({ corner }) => corner, maxLength: 2 },
        ),
        recesses: fc.array(
          fc.record({
            side,
            at: fc.integer({ min: 0, max: 12 }),
            wide: fc.integer({ min: 1, max: 9 }),
            deep: fc.integer({ min: 1, max: 9 }),
          }),
          { maxLength: 2 },
        ),
        height: fc.integer({ min: 1, max: 60 }),
        lean: fc.constantFrom(0, 0, 12),
        moves: fc.constantFrom('none' as const, 'none' as const, 'lower' as const, 'swing' as const),
        leanTo: fc.constantFrom(0, 90, 225),
        mount: fc.constantFrom('pinned' as const, 'loose' as const, 'turntable' as const),
        streetFront: fc.boolean(),
        goodSides: fc.uniqueArray(side, { maxLength: 2 }),
      },
      7,
    ),
    ways: many(
      'ways',
      { points: line, width: half(1, 10), onSteep: fc.constantFrom('follow' as const, 'ramp' as const) },
      3,
    ),
    runs: many(
      'runs',
      {
        ...{ points: line, height: fc.integer({ min: 1, max: 20 }), panel: fc.constantFrom(0, 7.5, 16) },
        thick: fc.constantFrom(1, 1, 2),
        ring: fc.constantFrom(null, null, 5, 12),
        openings: fc.uniqueArray(
          fc.record({
            at: fc.integer({ min: 1, max: 6 }),
            part: fc.constantFrom('window-2x1x2', 'door-2x1', 'arch-1x4'),
            sill: fc.nat(2),
          }),
          { selector: ({ at }) => at, maxLength: 3 },
        ),
      },
      2,
    ),
    tracks: many(
      'tracks',
      {
        ...place,
        ...onLevel,
        heading: fc.nat(15),
        pieces: fc.array(fc.record({ go: fc.constantFrom('straight' as const, 'left' as const) }), {
          minLength: 1,
          maxLength: 4,
        }),
      },
      2,
    ),
    trees: many('trees', { ...place, crown: half(1, 8), height: fc.integer({ min: 1, max: 40 }) }, 3),
    hills: many(
      'hills',
      { ...place, ...size, ...onLevel, height: fc.integer({ min: 1, max: 40 }), method },
      2,
    ),
    partLists: many(
      'lists',
      {
        use: fc.constantFrom('need' as const, 'kit' as const),
        section: fc.constantFrom('s', 'u', null),
        plot: fc.constantFrom('plots-0', null),
        copies: fc.integer({ min: 1, max: 3 }),
        kitsOnly: fc.boolean(),
        lines: lines,
      },
      3,
    ).map((lists) =>
      lists.map((list) =>
        list.use === 'need' ? list : { ...list, plot: null, kitsOnly: false, section: null },
      ),
    ),
    lots: fc
      .array(fc.record({ ...partLine, owner: fc.constantFrom('ada', 'bo', null) }), { maxLength: 5 })
      .map((lots) => lots.map((lot, i) => ({ ...lot, id: `lot-${i}` }))),
    viewedSides: fc.uniqueArray(side, { maxLength: 3 }),
  })
  .map((all) => ({
    ...all,
    partLists: all.partLists.map((list) => (all.plots.length > 0 ? list : { ...list, plot: null })),
  }))
  .map(({ viewedSides, ...things }) =>
    sceneFrom({
      display: { name: 'Any', kind: 'diorama', limitHeight: 40, levelStep: 4, streetDepth: 16, viewedSides },
      levels: [
        { id: 'low', name: 'Low', height: 3 },
        { id: 'high', name: 'High', height: 11 },
      ],
      customGrounds: [
        {
          ...{ id: 'custom-1', name: 'Snow', colour: 'chalk' },
          layers: [
            { colour: 'chalk', plates: 1 },
            { colour: 'ice', plates: 4, upTo: 12 },
          ],
        },
        { id: 'custom-2', name: 'Molten rock', like: 'water', surface: 'tiles', colour: 'poppy' },
      ],
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 64, d: 40 }],
      tables: [{ id: 't', name: 'Table', x: 0, y: 0, w: 400, d: 300, height: 700 }],
      people: [
        { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
        { id: 'bo', name: 'Bo Marl', initials: 'BM' },
      ],
      sections: [
        { id: 's', letter: 'A', name: 'West', x: 0, y: 0, w: 32, d: 40, owner: 'ada' },
        { id: 'u', letter: 'B', name: 'East', x: 32, y: 0, w: 24, d: 40, owner: 'bo' },
      ],
      modules: [0, 32].map((x, i) => ({
        ...{ id: `m${i}`, name: `A${i}`, x, y: 0, w: 32, d: 40 },
        bases: [{ x, y: 0, w: 32, d: 40 }],
      })),
      ...things,
    }),
  );
