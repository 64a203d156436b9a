import { sceneFrom } from '../document/index.ts';
import { compileRelief } from '../terrain/index.ts';
import { showLabels, showOf } from './index.ts';

type Given = Parameters<typeof sceneFrom>[0];
/** Two modules side by side over two tables, a house whose roof lifts off, a queue of figures. */
const file = (): Given => ({
  display: { name: 'Quay', kind: 'diorama', place: 'hall', viewedSides: ['s', 'e'] },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 96, d: 48, level: 'low', ground: 'paving' }],
  places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0 }],
  // The first table ends 4 studs beyond the first module.
  tables: [
    { id: 't', name: 'Long', x: 0, y: 0, w: 416, d: 384, place: 'hall' },
    { id: 'u', name: 'Short', x: 416, y: 0, w: 352, d: 384, place: 'hall' },
  ],
  modules: ['a', 'b'].map((id, i) => ({
    ...{ id, name: id.toUpperCase(), x: 48 * i, y: 0, w: 48, d: 48 },
    bases: [{ x: 48 * i, y: 0, w: 48, d: 48 }],
  })),
  plots: [
    {
      ...{ id: 'h', name: 'House', x: 56, y: 8, w: 16, d: 12, height: 24 },
      parts: [{ name: 'roof', height: 9 }],
    },
  ],
  figures: [{ id: 'q', name: 'Queue', x: 10, y: 20, cast: 3 }],
  crates: [{ id: 'k', name: 'Box', insideW: 400, insideD: 400, insideH: 300, count: 3 }],
});

it('labels say which way round, on what, in which turn, and what is in a crate', () => {
  const scene = sceneFrom(file());
  const labels = showLabels(showOf(scene, compileRelief(scene)));
  const of = (name: string) => labels.filter((label) => label.name === name);
  const [a] = of('module A');
  const [b] = of('module B');
  expect([a.front, b.front]).toEqual([['s'], ['e', 's']]);
  expect([a.standsOn, b.standsOn]).toEqual([['Long'], ['Long', 'Short']]);
  expect(a.turn?.of).toBeGreaterThan(1);
  expect(new Set([a.turn?.at, b.turn?.at]).size).toBe(2);
  // The roof lies in a crate and has a label of its own, which leads to the crate; the figures have none.
  const [roof] = labels.filter(({ what, inside }) => what === 'part' && inside !== null);
  const [crate] = of(roof.inside ?? '');
  expect(roof).toMatchObject({ key: crate.key, hands: null, standsOn: ['B'] });
  expect(crate.holds).toContain(roof.name);
  expect(labels.flatMap(({ holds }) => holds)).toContain('Queue (3)');
  expect(of('Queue')).toEqual([]);
});
