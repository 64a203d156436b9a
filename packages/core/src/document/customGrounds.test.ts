import {
  FIXED_GROUNDS,
  DISPLAY_ID,
  CUSTOM_GROUNDS,
  fixedGround,
  emptyScene,
  freeGroundId,
  groundName,
  groundsOf,
  pieceOf,
  readFile,
  reduce,
  sceneFrom,
  setOut,
  unhung,
  writeFile,
  type Change,
  type Scene,
} from './index.ts';

const rect = { x: 0, y: 0, w: 16, d: 16, level: 'l' };
const scene = sceneFrom({
  display: { name: 'Winter', kind: 'diorama' },
  levels: [{ id: 'l', name: 'Street', height: 6 }],
  customGrounds: [
    { id: 'custom-1', name: 'Snow', colour: 'chalk', layers: [{ colour: 'chalk', plates: 2 }] },
    { id: 'custom-3', name: 'Molten rock', like: 'water', surface: 'tiles', colour: 'poppy' },
  ],
  pads: [{ id: 'p', name: 'Field', ...rect, ground: 'custom-1' }],
  waters: [{ id: 'w', name: 'Glow', ...rect, ground: 'custom-3', bank: 1, bankGround: 'custom-1' }],
  recipes: [{ id: 'r', name: 'Fresh', ground: 'custom-1', tones: [{ colour: 'chalk', share: 1 }] }],
});
const changed = (on: Scene, ...changes: Change[]) => reduce(on, changes);
const done = (on: Scene, ...changes: Change[]): Scene => {
  const next = reduce(on, changes);
  if (!next.ok) throw new Error(next.refusal.sentence);
  return next.scene;
};
const whyNot = (result: ReturnType<typeof reduce>) => (result.ok ? 'taken' : result.refusal.sentence);
const snow = { name: 'Snow', colour: 'chalk' };

test('a custom ground has a name, is judged as a fixed one, and the next finds a free id', () => {
  expect(groundsOf(scene)).toEqual([...FIXED_GROUNDS, 'custom-1', 'custom-3']);
  expect([groundName(scene, 'custom-3'), groundName(scene, 'rock'), groundName(scene, 'bare')]).toEqual([
    'Molten rock',
    'rock',
    'bare',
  ]);
  expect([
    fixedGround(scene, 'custom-3'),
    fixedGround(scene, 'custom-1'),
    fixedGround(scene, 'sand'),
  ]).toEqual(['water', 'soil', 'sand']);
  expect(freeGroundId(scene)).toBe('custom-2');
  const full = CUSTOM_GROUNDS.filter((id) => !scene.customGround[id]).map((id): Change => ({
    ...{ op: 'add', kind: 'customGround', id, data: { ...snow, name: id } },
  }));
  expect(freeGroundId(done(scene, ...full))).toBeNull();
  const read = readFile(writeFile(scene));
  expect(read.ok && read.scene.customGround).toEqual(scene.customGround);
});
test('only its ids are taken, and nothing names a ground that is not described', () => {
  expect(whyNot(changed(scene, { op: 'add', kind: 'customGround', id: 'snow', data: snow }))).toMatch(
    /^The id of a custom ground is one of custom-1, custom-2, .*; “snow” is not\.$/,
  );
  expect(
    whyNot(changed(scene, { op: 'patch', kind: 'pad', id: 'p', v: 1, set: { ground: 'custom-2' } })),
  ).toBe('Field still names the custom ground “custom-2” as its ground; give it another first.');
  expect(whyNot(changed(scene, { op: 'patch', kind: 'pad', id: 'p', v: 1, set: { ground: 'sand' } }))).toBe(
    'taken',
  );
  expect(whyNot(changed(scene, { op: 'remove', kind: 'customGround', id: 'custom-3', v: 1 }))).toContain(
    'Glow still names',
  );
});
test('what had a ground that is removed has what it was like; its recipes go; undo brings all back', () => {
  const changes: Change[] = [
    ...unhung(scene, [{ kind: 'customGround', id: 'custom-1' }]),
    { op: 'remove', kind: 'customGround', id: 'custom-1', v: 1 },
  ];
  const without = reduce(scene, changes);
  if (!without.ok) throw new Error(without.refusal.sentence);
  expect(without.scene.pad.p.ground).toBe('soil');
  expect(without.scene.water.w).toMatchObject({ ground: 'custom-3', bankGround: 'soil' });
  expect(without.scene.recipe).toEqual({});
  const back = done(without.scene, ...without.inverse);
  expect([back.pad.p.ground, back.water.w.bankGround, Object.keys(back.recipe)]).toEqual([
    'custom-1',
    'custom-1',
    ['r'],
  ]);
});
test('a piece takes its grounds along: into those of the same name, else into free ones, else it says so', () => {
  const data =
    pieceOf(
      scene,
      [
        { kind: 'pad', id: 'p' },
        { kind: 'water', id: 'w' },
      ],
      'Corner',
    ) ?? {};
  const other = (own: Record<string, object>) =>
    done(
      emptyScene(),
      { op: 'add', kind: 'display', id: DISPLAY_ID, data: { name: 'Other', kind: 'city' } },
      { op: 'add', kind: 'level', id: 'l', data: { name: 'Street', height: 6 } },
      { op: 'add', kind: 'piece', id: 'piece', data },
      ...Object.entries(own).map(([id, ground]): Change => ({
        ...{ op: 'add', kind: 'customGround', id, data: { ...ground } },
      })),
    );
  let count = 0;
  const out = (on: Scene) => setOut(on, 'piece', { x: 0, y: 0 }, null, () => `n${count++}`);
  const fresh = other({});
  const first = out(fresh);
  if (!first.ok) throw new Error(first.error);
  const set = done(fresh, ...first.changes);
  expect([set.pad.n0.ground, set.water.n1.ground, set.water.n1.bankGround]).toEqual([
    'custom-1',
    'custom-2',
    'custom-1',
  ]);
  expect(set.customGround['custom-2']).toMatchObject({ name: 'Molten rock', like: 'water' });
  // There snow is another one, and keeps its looks; only molten rock is new.
  const known = other({ 'custom-1': { ...snow, name: 'Mud' }, 'custom-4': { name: 'snow', colour: 'ice' } });
  const second = out(known);
  if (!second.ok) throw new Error(second.error);
  const joined = done(known, ...second.changes);
  expect([joined.pad.n2.ground, joined.water.n3.ground]).toEqual(['custom-4', 'custom-2']);
  expect(joined.customGround['custom-4'].colour).toBe('ice');
  const full = other(Object.fromEntries(CUSTOM_GROUNDS.map((id) => [id, { ...snow, name: id }])));
  expect(out(full)).toEqual({
    ok: false,
    error: 'The display has 12 custom grounds, the most it can have; “Snow” finds no room.',
  });
});
