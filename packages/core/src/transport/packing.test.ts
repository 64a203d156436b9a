import fc from 'fast-check';
import { runs } from '../../test/runs.ts';
import { packingFaults, packingOf, type Packed, type PackItem, type PackSpace } from './index.ts';

const piece = (id: string, w: number, d: number, h: number, more: Partial<PackItem> = {}): PackItem => ({
  ...{ id, w, d, h, mass: 1000, canTurn: false, bears: 0, order: 1 },
  ...more,
});
const still = { seconds: 60, now: () => 0 };
const space: PackSpace = { w: 10, d: 10, h: 10, maxMass: null };

/** Packs, and looks at each packing with the checker that knows nothing of the search. */
const packed = (
  items: readonly PackItem[],
  within: PackSpace | readonly PackSpace[],
  more: { maxTrips?: number } = {},
) => {
  const packing = packingOf(items, within, { ...still, ...more });
  expect(packingFaults(items, within, packing.packed)).toEqual([]);
  const all = [...packing.packed.map(({ id }) => id), ...packing.left, ...packing.tooLarge];
  expect(all.toSorted()).toEqual(items.map(({ id }) => id).toSorted());
  return packing;
};

/**
 * The fewest trips by brute force, of pieces of whole sizes in a small space: each piece at each whole place that is on
 * the floor or wholly on others, in every order of putting in, judged by the checker alone.
 */
function fewest(items: readonly PackItem[], within: PackSpace): number {
  const fits = (subset: readonly PackItem[]): boolean => {
    const visit = (rest: readonly PackItem[], at: readonly Packed[]): boolean =>
      rest.length === 0 ||
      rest.some((item) => {
        for (const [w, d] of item.canTurn
          ? [
              [item.w, item.d],
              [item.d, item.w],
            ]
          : [[item.w, item.d]])
          for (let x = 0; x + w <= within.w; x++)
            for (let y = 0; y + d <= within.d; y++)
              for (let z = 0; z + item.h <= within.h; z++) {
                const next = [...at, { trip: 1, id: item.id, x, y, z, w, d, h: item.h }];
                if (packingFaults(subset, within, next).length > 0) continue;
                if (
                  visit(
                    rest.filter((one) => one !== item),
                    next,
                  )
                )
                  return true;
              }
        return false;
      });
    return visit(subset, []);
  };
  let best = items.length;
  const share = (i: number, groups: readonly PackItem[][]): void => {
    if (groups.length >= best) return;
    if (i === items.length) {
      if (groups.every(fits)) best = groups.length;
      return;
    }
    for (let g = 0; g <= groups.length; g++)
      share(i + 1, g === groups.length ? [...groups, [items[i]]] : groups.with(g, [...groups[g], items[i]]));
  };
  share(0, []);
  return best;
}

/** In how many whole places a piece may stand by itself. */
function placesOf(item: PackItem, within: PackSpace): number {
  let count = 0;
  for (const [w, d] of [[item.w, item.d], ...(item.canTurn ? [[item.d, item.w]] : [])])
    for (let x = 0; x + w <= within.w; x++)
      for (let y = 0; y + d <= within.d; y++)
        for (let z = 0; z + item.h <= within.h; z++)
          if (
            packingFaults([item], within, [{ trip: 1, id: item.id, x, y, z, w, d, h: item.h }]).length === 0
          )
            count++;
  return count;
}

test('eight cubes of half a space fill it when they bear; when they do not, it takes two trips, by hand', () => {
  const cubes = (bears: number) => Array.from({ length: 8 }, (_, i) => piece(`c${i}`, 5, 5, 5, { bears }));
  expect(packed(cubes(1000), space)).toMatchObject({ trips: 1, bound: 1 });
  // Four stand on the floor.
  expect(packed(cubes(0), space)).toMatchObject({ trips: 2, bound: 2 });
  expect(packed(cubes(999), space)).toMatchObject({ trips: 2 });
  // 8 kg, 3 kg a trip.
  expect(packed(cubes(1000), { ...space, maxMass: 3000 })).toMatchObject({ trips: 3, bound: 3 });
});

test('what is needed first is never behind or under what is needed later', () => {
  const [first, second] = [piece('first', 10, 4, 10, { order: 1 }), piece('second', 10, 6, 10, { order: 2 })];
  expect(packed([first, second], space).packed).toEqual([
    { trip: 1, id: 'second', x: 0, y: 4, z: 0, w: 10, d: 6, h: 10 },
    { trip: 1, id: 'first', x: 0, y: 0, z: 0, w: 10, d: 4, h: 10 },
  ]);
  // The base bears, but it is needed first and what would stand on it later.
  const base = piece('base', 10, 10, 5, { bears: 5000 });
  expect(packed([base, piece('top', 10, 10, 5, { order: 2 })], space)).toMatchObject({ trips: 2, bound: 2 });
  expect(packed([{ ...base, order: 3 }, piece('top', 10, 10, 5, { order: 2 })], space).trips).toBe(1);
});

test('loads pass down to all below, shared by area', () => {
  // A beam over two posts, 3 and 1 parts of it: with 400 g on them they bear 300 and 100.
  const posts = (left: number, right: number) => [
    piece('left', 6, 10, 4, { bears: left }),
    piece('right', 4, 10, 4, { bears: right }),
    piece('beam', 10, 10, 3, { mass: 300, bears: 200 }),
    piece('top', 10, 10, 3, { mass: 200 }),
  ];
  expect(packed(posts(300, 200), space).trips).toBe(1);
  expect(packed(posts(299, 200), space).trips).toBe(2);
  expect(packed(posts(300, 199), space).trips).toBe(2);
});

test('a long piece is turned where it may be; what fits nowhere and what is left out is listed', () => {
  const long = piece('long', 12, 3, 3);
  const hall = { ...space, d: 15 };
  expect(packed([long], hall)).toMatchObject({ trips: 0, bound: 0, tooLarge: ['long'] });
  expect(packed([{ ...long, canTurn: true }], hall).packed).toEqual([
    { trip: 1, id: 'long', x: 0, y: 3, z: 0, w: 3, d: 12, h: 3 },
  ]);
  const big = ['a', 'b', 'c'].map((id) => piece(id, 9, 9, 9));
  expect(packed(big, space)).toMatchObject({ trips: 3, bound: 3 });
  const { trips, left, bound } = packed(big, space, { maxTrips: 2 });
  expect([trips, left.length, bound]).toEqual([2, 1, 3]);
  expect(() => packingOf([long, long], space, still)).toThrow('twice');
});

const side = fc.integer({ min: 1, max: 3 });
const smallItems = fc
  .array(
    fc.record({
      ...{ w: side, d: side, h: side, canTurn: fc.boolean() },
      mass: fc.integer({ min: 1, max: 4 }),
      bears: fc.constantFrom(0, 0, 3, 10),
      order: fc.integer({ min: 1, max: 3 }),
    }),
    { minLength: 1, maxLength: 4 },
  )
  .map((list) => list.map((one, i): PackItem => ({ id: `p${i}`, ...one })));

test('the fewest trips of a few pieces are those of brute force; the bound is never above them', () => {
  const within = { w: 4, d: 3, h: 3, maxMass: 9 };
  fc.assert(
    fc.property(smallItems, (items) => {
      const { trips, bound } = packed(items, within);
      const least = fewest(items, within);
      expect(bound).toBeLessThanOrEqual(least);
      expect(trips).toBe(least);
    }),
    { numRuns: runs(40) },
  );
});

test('a piece goes aside behind the door frame and between the wheel arches, by hand', () => {
  const box = (id: string, w: number, order: number) => piece(id, w, 5, 10, { order });
  const narrow = { ...space, door: { x: 2, w: 6 } };
  // 4 + 6 fill the width; both leave by a door of 6, the one that stands in front of it first.
  expect(packed([box('left', 4, 2), box('right', 6, 1)], narrow).trips).toBe(1);
  expect(packed([box('wide', 7, 1)], narrow).tooLarge).toEqual(['wide']);
  const arched = { ...space, arches: { from: 4, w: 2, d: 3, h: 4 } };
  // Behind the front of the arches at most 6 wide on the floor, before them 10; over them 10 again.
  expect(packed([piece('deep', 7, 6, 10)], arched).tooLarge).toEqual(['deep']);
  expect(packed([piece('deep', 6, 10, 10)], arched).trips).toBe(1);
  expect(packed([piece('near', 10, 4, 10)], arched).trips).toBe(1);
  const [low, top] = [piece('low', 6, 3, 4, { bears: 5000, order: 2 }), piece('top', 10, 3, 6)];
  const two = packed([low, top], arched).packed;
  expect(two.map(({ id, z }) => [id, z])).toEqual([
    ['low', 0],
    ['top', expect.any(Number)],
  ]);
});

test('vehicles of their own sizes: what is too large for one goes in the next', () => {
  const [car, van] = [
    { w: 4, d: 4, h: 4, maxMass: null },
    { w: 10, d: 10, h: 10, maxMass: null },
  ];
  expect(packed([piece('big', 8, 8, 8), piece('small', 3, 3, 3)], [car, van])).toMatchObject({
    trips: 2,
    packed: [
      { trip: 1, id: 'small' },
      { trip: 2, id: 'big' },
    ],
  });
  expect(packed([piece('big', 8, 8, 8)], [car])).toMatchObject({ tooLarge: ['big'], trips: 0 });
  expect(packed([piece('a', 8, 8, 8), piece('b', 8, 8, 8)], [car, van])).toMatchObject({ left: ['b'] });
});

const inside = fc.record({
  ...{ w: fc.integer({ min: 3, max: 5 }), d: fc.integer({ min: 2, max: 4 }), h: fc.constant(3) },
  maxMass: fc.constantFrom(null, 9),
  door: fc.option(fc.record({ x: fc.integer({ min: 0, max: 1 }), w: fc.integer({ min: 1, max: 2 }) }), {
    nil: undefined,
  }),
  arches: fc.option(
    fc.record({
      from: fc.integer({ min: 0, max: 2 }),
      w: fc.constant(1),
      d: fc.constant(1),
      h: fc.integer({ min: 1, max: 2 }),
    }),
    { nil: undefined },
  ),
});

test('doors and arches: the fewest trips are those of brute force, the bound is never above them', () => {
  fc.assert(
    fc.property(smallItems, inside, (items, { door, arches, ...within }) => {
      const there = { ...within, ...(door && { door }), ...(arches && { arches }) };
      const { trips, bound, tooLarge } = packed(items, there);
      const least = fewest(
        items.filter(({ id }) => !tooLarge.includes(id)),
        there,
      );
      expect(bound).toBeLessThanOrEqual(least);
      expect(trips).toBe(least);
      for (const item of items.filter(({ id }) => tooLarge.includes(id)))
        expect(placesOf(item, there)).toBe(0);
    }),
    { numRuns: runs(40) },
  );
});

test('many random pieces: each packing holds', () => {
  const size = fc.integer({ min: 100, max: 900 });
  const items = fc
    .array(
      fc.record({
        ...{ w: size, d: size, h: size, canTurn: fc.boolean() },
        mass: fc.integer({ min: 200, max: 12_000 }),
        bears: fc.constantFrom(0, 2_000, 30_000),
        order: fc.integer({ min: 1, max: 6 }),
      }),
      { maxLength: 40 },
    )
    .map((list) => list.map((one, i): PackItem => ({ id: `p${i}`, ...one })));
  fc.assert(
    fc.property(items, (list) => {
      let now = 0;
      const within = { w: 1200, d: 1700, h: 1100, maxMass: 60_000 };
      const packing = packingOf(list, within, { seconds: 5, now: () => (now += 500) });
      expect(packingFaults(list, within, packing.packed)).toEqual([]);
      expect(packing.packed).toHaveLength(list.length);
      expect(packing.trips).toBeGreaterThanOrEqual(packing.bound);
    }),
    { numRuns: runs(25) },
  );
});
