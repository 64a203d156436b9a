import { listOf, reduce, sceneFrom, type Scene } from '../document/index.ts';
import { listedMass } from '../terrain/index.ts';
import { gramsOfPart } from '../catalogue/index.ts';
import { listOfBuilding, shellList, shellName, unlistedBuildings } from './index.ts';

const line = { part: 'brick-2x4', colour: 'any', qty: 10 };
const street = (partLists: object[]): Scene =>
  sceneFrom({
    display: { name: 'Street', kind: 'city' },
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
    sections: [
      { id: 's', letter: 'A', name: 'West', x: 0, y: 0, w: 48, d: 48 },
      { id: 'u', letter: 'B', name: 'East', x: 48, y: 0, w: 48, d: 48 },
    ],
    plots: ['a', 'b', 'c'].map((id, i) => ({
      ...{ id, name: id.toUpperCase(), x: 8 + 32 * i, y: 8, w: 16, d: 12, height: 30, storeys: 2 },
    })),
    partLists: partLists.map((list, i) => ({ id: `l${i}`, name: `L${i}`, lines: [line], ...list })),
  });

test('a list of its own counts a building, one that names none all of its section, one without a section all', () => {
  const scene = street([{ plot: 'a' }, { section: 'u' }]);
  expect(listOfBuilding(scene, scene.plot.a)).toMatchObject({ list: { id: 'l0' }, isOwn: true });
  // B’s middle lies at 48: on the border, of the section that begins there.
  expect(listOfBuilding(scene, scene.plot.b)).toMatchObject({ list: { id: 'l1' }, isOwn: false });
  expect(unlistedBuildings(scene)).toEqual([]);
  expect(unlistedBuildings(street([{ section: 's' }])).map(({ id }) => id)).toEqual(['b', 'c']);
  expect(unlistedBuildings(street([{}]))).toEqual([]);
  // What is no building’s list, or no need, counts none.
  expect(unlistedBuildings(street([{ purpose: 'other' }, { use: 'kit' }]))).toHaveLength(3);
});

test('who counts a building is told as its mass is: by its own list, by a share, or by its shell', () => {
  for (const lists of [[], [{ plot: 'b' }], [{ section: 's' }, { plot: 'c' }], [{}]]) {
    const scene = street(lists);
    const weighed = new Set(listedMass(scene).plots.keys());
    for (const plot of listOf(scene, 'plot'))
      expect([plot.id, weighed.has(plot.id)]).toEqual([plot.id, listOfBuilding(scene, plot) !== null]);
  }
});

test('the lists of shells are taken as they are: then every building is counted and weighed by its own', () => {
  const scene = street([]);
  const done = reduce(
    scene,
    listOf(scene, 'plot').map((plot) => ({
      ...{ op: 'add' as const, kind: 'partList' as const, id: `shell-${plot.id}` },
      data: shellList(scene, plot),
    })),
  );
  if (!done.ok) throw new Error(done.refusal.sentence);
  expect(unlistedBuildings(done.scene)).toEqual([]);
  const { plots } = listedMass(done.scene);
  for (const plot of listOf(done.scene, 'plot')) {
    const { lines, name } = shellList(done.scene, plot);
    expect(name).toBe(shellName(plot));
    const grams = lines.reduce((sum, { part, qty }) => sum + qty * gramsOfPart(part, {}), 0);
    expect(plots.get(plot.id)).toBeCloseTo(grams, 6);
  }
  expect(done.scene.partList['shell-c']).toMatchObject({ section: 'u', plot: 'c', copies: 1 });
});
