import { sceneFrom } from '../document/index.ts';
import { compileRelief } from '../terrain/index.ts';
import { sightOf } from '../visibility/index.ts';
import { scenesSeen } from './index.ts';

const sceneOf = (display: object = {}, more: object = {}) =>
  sceneFrom({
    display: { name: 'Seen', kind: 'diorama', viewedSides: ['s'], place: 'hall', ...display },
    places: [{ id: 'hall', name: 'Hall', walls: [] }],
    tables: [{ id: 't', name: 'Table', place: 'hall', x: 0, y: 0, w: 480, d: 160, height: 740 }],
    footprint: [{ id: 'f', name: 'All', x: 10, y: 5, w: 60, d: 20 }],
    figures: [
      { id: 'a', name: 'Open', x: 40, y: 22 },
      { id: 'b', name: 'Behind', x: 40, y: 9 },
    ],
    plots: [{ id: 'w', name: 'Wall', x: 10, y: 11, w: 60, d: 2, height: 60 }],
    supplies: [{ id: 's', name: 'Pack', type: 'battery', x: 12, y: 8, volts: 5, capacity: 9000 }],
    circuits: [{ id: 'c', name: 'Lamps', supply: 's' }],
    devices: [
      { id: 'lit', name: 'Lamp', x: 43, y: 18, circuit: 'c', volts: 5, milliamps: 20 },
      { id: 'dark', name: 'Loose lamp', x: 40, y: 22, volts: 5, milliamps: 20 },
    ],
    ...more,
  });

test('small scenes are seen as Sight sees them, and the nearest lamp is one that is fed', () => {
  const scene = sceneOf();
  const relief = compileRelief(scene);
  const seen = scenesSeen(scene, relief);
  const things = sightOf(scene, relief)?.things ?? [];
  for (const { id, free } of seen) expect(free).toEqual(things.find((thing) => thing.id === id)?.free);
  const [open, behind] = seen;
  expect([open?.free?.child, open?.hider, behind?.free?.child, behind?.hider]).toEqual([1, null, 0, 'Wall']);
  // 3 east and 4 north of it; the one at its feet hangs on nothing.
  expect(open?.lamp).toBeCloseTo(5, 9);
});

test('where nobody is said to look, or nothing is lit, that is not told', () => {
  const scene = sceneOf({ viewedSides: [] }, { supplies: [], circuits: [], devices: [] });
  expect(scenesSeen(scene, compileRelief(scene))[0]).toEqual({
    id: 'a',
    free: null,
    hider: null,
    lamp: null,
  });
});
