import { listOf, reduce, sceneFrom, trackLine, type Scene } from '@quarry/core/document';
import {
  BOARD_KINDS,
  DRAWINGS,
  PICK_ORDER,
  PLACED,
  TOOLS,
  boardKindOf,
  shapeAt,
  thingFrom,
  toolOf,
  type DrawnShape,
  type Placed,
} from '../../board/kinds/index.ts';
import { defaultLevel } from '../../board/kinds/make.ts';
import { fieldFaults } from '../../../test/fieldFaults.ts';
import { extendTrack } from './track.ts';

const scene = sceneFrom({
  display: { name: 'Plan', kind: 'diorama', wind: 'nw' },
  levels: [
    { id: 'low', name: 'Low', height: 3 },
    { id: 'street', name: 'Street', height: 18 },
  ],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  pads: [
    { id: 'small', name: 'Small', x: 0, y: 0, w: 8, d: 8, level: 'low', ground: 'grass', order: 70 },
    { id: 'large', name: 'Large', x: 0, y: 0, w: 60, d: 40, level: 'street', ground: 'grass' },
  ],
  tracks: [
    { id: 'main', name: 'Main', x: 10, y: 20, level: 'street', offset: 1, pieces: [{ go: 'straight' }] },
  ],
});
const rect = { x: 4, y: 4, w: 16, d: 12 };
const made = (on: Scene, kind: Placed, shape?: DrawnShape) => {
  const tool = toolOf(kind);
  const thing = tool && thingFrom(on, kind, shape ?? shapeAt(tool.draws, rect));
  if (!thing) throw new Error(`nothing draws a ${kind}`);
  return thing;
};
const added = (on: Scene, kind: Placed, shape?: DrawnShape): Scene => {
  const { before = [], data } = made(on, kind, shape);
  const next = reduce(on, [...before, { op: 'add', kind, id: 'new', data }]);
  if (!next.ok) throw new Error(next.refusal.sentence);
  return next.scene;
};

test.each(PLACED.filter((kind) => toolOf(kind)))(
  'what the %s tool draws is valid, named, and as good on a display without a level',
  (kind) => {
    const [thing] = listOf(added(scene, kind), kind).filter(({ id }) => id === 'new');
    expect('name' in thing && thing.name.length).toBeGreaterThan(0);
    const bare = sceneFrom({ display: { name: 'Bare', kind: 'city' } });
    expect(listOf(added(bare, kind), kind)).toHaveLength(1);
  },
);
test('no two tools share a letter, no two kinds a rank under the pointer; all is drawn in one order', () => {
  // `g` goes to a page, `x` flips between then and now.
  const letters = ['g', 'x', ...TOOLS.map(({ key }) => key)];
  expect(new Set(letters).size).toBe(letters.length);
  expect(new Set(PICK_ORDER.map((kind) => BOARD_KINDS[kind].picked)).size).toBe(PLACED.length);
  expect(DRAWINGS.map(({ rank }) => rank)).toEqual(
    DRAWINGS.map(({ rank }) => rank).toSorted((a, b) => a - b),
  );
});
test('a tool draws nothing of another shape than its own', () => {
  expect(thingFrom(scene, 'hill', { draws: 'spot', at: { x: 1, y: 1 } })).toBeNull();
  expect(thingFrom(scene, 'module', { draws: 'area', rect })).toBeNull();
});
test('what is drawn lies on the level that most of the ground has; a pad on top of the others', () => {
  expect(defaultLevel(scene).id).toBe('street');
  expect(made(scene, 'pad').data).toMatchObject({ level: 'street', order: 80 });
});
test('a flag is drawn downwind of the house rules; a letter that is free names a section', () => {
  expect(made(scene, 'flag').data).toMatchObject({ heading: 'se' });
  expect(made(added(scene, 'section'), 'section').data).toMatchObject({ letter: 'B' });
});
test('track goes on from an open end that is near, in its direction and at its height', () => {
  const joined = added(scene, 'track', { draws: 'spot', at: { x: 27, y: 21 } });
  const end = trackLine(scene.track.main, 19).joints[1];
  const start = trackLine(joined.track.new, 18 + joined.track.new.offset).joints[0];
  expect(start).toMatchObject({ x: end.x, y: end.y, heading: end.heading, z: end.z });
  const away = added(scene, 'track', { draws: 'spot', at: { x: 60, y: 40 } });
  expect([away.track.new.x, away.track.new.y]).toEqual([60, 40]);
  expect(extendTrack(joined.track.new, 'left').pieces).toHaveLength(2);
});

test.each(PLACED.filter((kind) => boardKindOf(kind)?.fields))(
  'each field of a %s is one of its schema’s, named once, its choices and limits valid',
  (kind) => expect(fieldFaults(kind, boardKindOf(kind)?.fields ?? [])).toEqual([]),
);
