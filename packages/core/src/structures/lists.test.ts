import { gramsOfLines, gramsOfPart } from '../catalogue/index.ts';
import { listOf, reduce, sceneFrom, shellName, type Scene } from '../document/index.ts';
import { effortOf } from '../progress/index.ts';
import { listedMass, weightOf } from '../terrain/index.ts';
import { listOfBuilding, shellList, unlistedBuildings } from './index.ts';

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

test('ornament adds to mass and hours as many percent of the shell as are guessed, until a list of one’s own counts it', () => {
  const plain = street([]);
  const plot = { ...plain.plot.a, ornament: 60 };
  const scene: Scene = { ...plain, plot: { ...plain.plot, a: plot } };
  const of = (one: Scene) => ({
    mass: weightOf(one.plot.a, listedMass(one)),
    hours: effortOf(one, { ...one.section.s, hours: null, owner: null }, {}).guessed.find(
      ({ plot: id }) => id === 'a',
    ),
  });
  const [before, after] = [of(plain), of(scene)];
  expect(after.mass.grams / before.mass.grams).toBeCloseTo(1.6, 6);
  expect(after.mass.z).toBe(before.mass.z);
  expect((after.hours?.pieces ?? 0) / (before.hours?.pieces ?? 1)).toBeCloseTo(1.6, 1);
  // Its shell as its list: those pieces are counted, the ornament is guessed beside them.
  const shell = shellList(scene, scene.plot.a);
  const listed = (list: object) => {
    const done = reduce(scene, [{ op: 'add', kind: 'partList', id: 'own', data: { ...shell, ...list } }]);
    if (!done.ok) throw new Error(done.refusal.sentence);
    return of(done.scene);
  };
  const grams = gramsOfLines(shell.lines, {});
  const pieces = shell.lines.reduce((sum, { qty }) => sum + qty, 0);
  expect(listed({}).mass.grams).toBeCloseTo(1.6 * grams, 6);
  expect(listed({}).hours).toMatchObject({ name: 'A, ornament', pieces: Math.ceil(0.6 * pieces) });
  // Any other list counts all of it.
  expect(listed({ name: 'As built' }).mass.grams).toBeCloseTo(grams, 6);
  expect(listed({ name: 'As built' }).hours).toBeUndefined();
});
