import fc from 'fast-check';
import { reduce, sceneFrom, sceneInVersion } from '../document/index.ts';
import { thingLines } from '../materials/index.ts';
import { walkMesh } from '../visibility/index.ts';
import { compileRelief, leavesOf, plantsOf } from './index.ts';

// Leaves by month: shares by hand, and counted again in needs and in the walk.

const tree = (id: string, season: string) => ({ id, name: id, x: 4 * Number(id), y: 20, season });
const wood = (display: object, mix: object[] = [{ name: 'Beech', season: 'month' }], more: object = {}) =>
  sceneFrom({
    display: { name: 'Wood', kind: 'diorama', ...display },
    levels: [{ id: 'l', name: 'Low', height: 3 }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 32 }],
    pads: [{ id: 'p', name: 'Field', x: 0, y: 0, w: 48, d: 32, level: 'l', ground: 'grass' }],
    plantings: [{ id: 'g', name: 'Wood', x: 20, y: 0, w: 20, d: 20, density: 5, mix }],
    ...more,
  } as never);
const October = {
  month: 10,
  tones: [
    { colour: 'rust', share: 2 },
    { colour: 'ochre', share: 1 },
  ],
};
const counted = (colours: Iterable<string>): [string, number][] => {
  const counts = new Map<string, number>();
  for (const colour of colours) counts.set(colour, (counts.get(colour) ?? 0) + 1);
  return [...counts].toSorted();
};

test('20 plants and a tree by month, two parts to one: 14 and 7, each third of another colour; others keep their season', () => {
  const scene = wood(
    { season: 'autumn', month: 10, leaves: [October] },
    [{ name: 'Beech', season: 'month' }],
    { trees: [tree('1', 'month'), tree('2', 'winter'), tree('3', 'any')] },
  );
  const { byMonth, plants, trees } = leavesOf(scene);
  // 20 × 20 studs, 5 to 100: 20 plants.
  expect(plants.get('g')).toHaveLength(20);
  expect(byMonth).toEqual({
    count: 21,
    colours: [
      { colour: 'rust', qty: 14 },
      { colour: 'ochre', qty: 7 },
    ],
  });
  const order = [...(plants.get('g') ?? []), trees.get('1')];
  // Of each three in a row two are rust.
  for (let i = 0; i < 21; i += 3)
    expect(order.slice(i, i + 3).filter((colour) => colour === 'rust')).toHaveLength(2);
  expect([trees.get('2'), trees.get('3')]).toEqual(['bark', 'fern']);
  // Needs count the same, and the walk draws each tree in its colour.
  expect(counted(thingLines(scene).map(({ colour }) => colour))).toEqual([
    ['bark', 1],
    ['fern', 1],
    ['ochre', 7],
    ['rust', 14],
  ]);
  const materials = walkMesh(scene, compileRelief(scene))?.parts.map(({ material }) => material) ?? [];
  expect(
    ['leaf', 'colour bark', 'colour ochre', 'colour rust'].filter((one) => !materials.includes(one)),
  ).toEqual([]);
});

test('without a month, or without leaves for it, plants by month have the colour of the season', () => {
  for (const [display, colour] of [
    [{ month: 10, season: 'spring' }, 'willow'],
    [{ season: 'autumn', leaves: [October] }, 'rust'],
    [{ month: 9, leaves: [October] }, 'fern'],
  ] as const)
    expect(leavesOf(wood(display)).byMonth).toEqual({ count: 20, colours: [{ colour, qty: 20 }] });
});

test('a version in another month has other leaves, and the base keeps its own', () => {
  const base = wood({ month: 10, leaves: [October] }, undefined, {
    versions: [{ id: 'may', name: 'In May' }],
    differences: [
      { id: 'd', version: 'may', of: 'display', thing: 'display', how: 'changed', fields: { month: 5 } },
    ],
  });
  expect(leavesOf(base).byMonth.colours.map(({ qty }) => qty)).toEqual([13, 7]);
  expect(leavesOf(sceneInVersion(base, 'may').scene).byMonth.colours).toEqual([{ colour: 'fern', qty: 20 }]);
});

test('two mixes for one month are refused', () => {
  const scene = wood({});
  const twice = reduce(scene, [
    {
      op: 'patch',
      kind: 'display',
      id: 'display',
      v: scene.display.display.v,
      set: { leaves: [October, October] },
    },
  ]);
  expect(twice.ok ? 'taken' : twice.refusal.sentence).toContain('a month has one mix of leaves');
});

test('any mix: each colour within one plant of its share, and never more than its tones ahead on the way', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 1, maxLength: 5 }),
      fc.integer({ min: 1, max: 12 }),
      (shares, density) => {
        const tones = shares.map((share, i) => ({
          colour: ['rust', 'ochre', 'fern', 'moss', 'bark'][i],
          share,
        }));
        const scene = wood({ month: 1, leaves: [{ month: 1, tones }] }, undefined, {
          plantings: [
            {
              ...{ id: 'g', name: 'Wood', x: 0, y: 0, w: 20, d: 20, density },
              mix: [{ name: 'Beech', season: 'month' }],
            },
          ],
        });
        const colours = leavesOf(scene).plants.get('g') ?? [];
        expect(colours).toHaveLength(plantsOf(scene.planting.g).length);
        const whole = shares.reduce((sum, share) => sum + share, 0);
        tones.forEach(({ colour, share }) => {
          const part = whole > 0 ? share / whole : 1 / tones.length;
          let met = 0;
          colours.forEach((one, i) => {
            if (one === colour) met++;
            expect(Math.abs(met - part * (i + 1))).toBeLessThanOrEqual(tones.length);
          });
          expect(Math.abs(met - part * colours.length)).toBeLessThan(1);
        });
      },
    ),
    { numRuns: 60 },
  );
});
