import { KINDS, listOf, reduce, sceneFrom, trackLine, type Kind, type Scene } from '@quarry/core/document';
import type { Drawn } from '../../board/Board.tsx';
import { AREA_TOOLS, LINE_TOOLS, SPOT_TOOLS } from '../../data/tools.ts';
import { defaultsFor, defaultLevel } from './defaults.ts';
import { FIELDS } from './fieldTables.ts';
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
const drawn: Drawn[] = [
  ...AREA_TOOLS.map((tool) => ({ tool, rect: { x: 4, y: 4, w: 16, d: 12 } })),
  ...LINE_TOOLS.map((tool) => ({
    tool,
    points: [
      { x: 4, y: 4 },
      { x: 40, y: 10 },
    ],
  })),
  ...SPOT_TOOLS.map((tool) => ({ tool, at: { x: 50, y: 30 } })),
];
const added = (on: Scene, one: Drawn): Scene => {
  const { before, data } = defaultsFor(on, one);
  const next = reduce(on, [...before, { op: 'add', kind: one.tool, id: 'new', data }]);
  if (!next.ok) throw new Error(next.refusal.sentence);
  return next.scene;
};

test.each(drawn.map((one) => [one.tool, one] as const))(
  'what the %s tool draws is valid, named, and as good on a display without a level',
  (tool, one) => {
    const [thing] = listOf(added(scene, one), tool).filter(({ id }) => id === 'new');
    expect('name' in thing && thing.name.length).toBeGreaterThan(0);
    const bare = sceneFrom({ display: { name: 'Bare', kind: 'city' } });
    expect(listOf(added(bare, one), tool)).toHaveLength(1);
  },
);
test('what is drawn lies on the level that most of the ground has; a pad on top of the others', () => {
  expect(defaultLevel(scene).id).toBe('street');
  const rect = { x: 0, y: 0, w: 8, d: 8 };
  expect(defaultsFor(scene, { tool: 'pad', rect }).data).toMatchObject({ level: 'street', order: 80 });
});
test('a flag is drawn downwind of the house rules; a letter that is free names a section', () => {
  expect(defaultsFor(scene, { tool: 'flag', at: { x: 1, y: 1 } }).data).toMatchObject({ heading: 'se' });
  const rect = { x: 0, y: 0, w: 8, d: 8 };
  const one = added(scene, { tool: 'section', rect });
  expect(defaultsFor(one, { tool: 'section', rect }).data).toMatchObject({ letter: 'B' });
});
test('track goes on from an open end that is near, in its direction and at its height', () => {
  const joined = added(scene, { tool: 'track', at: { x: 27, y: 21 } });
  const end = trackLine(scene.track.main, 19).joints[1];
  const start = trackLine(joined.track.new, 18 + joined.track.new.offset).joints[0];
  expect(start).toMatchObject({ x: end.x, y: end.y, heading: end.heading, z: end.z });
  const away = added(scene, { tool: 'track', at: { x: 60, y: 40 } });
  expect([away.track.new.x, away.track.new.y]).toEqual([60, 40]);
  expect(extendTrack(joined.track.new, 'left').pieces).toHaveLength(2);
});

describe('the table of fields', () => {
  const kinds = Object.keys(FIELDS).filter((kind): kind is Kind => kind in KINDS);
  test.each(kinds)('each field of a %s is one of its schema’s, named once, its choices valid', (kind) => {
    const fields = FIELDS[kind] ?? [];
    const { shape } = KINDS[kind].schema;
    expect(new Set(fields.map(({ key }) => key)).size).toBe(fields.length);
    expect(new Set(fields.map(({ label }) => label)).size).toBe(fields.length);
    for (const field of fields) {
      const schema = Object.entries(shape).find(([key]) => key === field.key)?.[1];
      expect([kind, field.key, schema !== undefined]).toEqual([kind, field.key, true]);
      if (field.as === 'choice')
        for (const { value } of field.options)
          expect([field.key, value, schema?.safeParse(value).success]).toEqual([field.key, value, true]);
      if (field.as === 'length' || field.as === 'number') {
        const middle = Math.min(field.max, Math.max(field.min, 8));
        expect([field.key, schema?.safeParse(middle).success]).toEqual([field.key, true]);
        expect([field.key, schema?.safeParse(field.max).success]).toEqual([field.key, true]);
      }
    }
  });
});
