import { bodiesOf, compileRelief } from '../terrain/index.ts';
import { sceneFrom } from '../document/index.ts';
import { spotFloors } from './index.ts';

test('a spot in a building may be on each of its floors, or on its flat roof, in plates over its scene', () => {
  const scene = sceneFrom({
    display: { name: 'Yard', kind: 'diorama' },
    levels: [{ id: 'l', name: 'Yard', height: 6 }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 60, d: 40 }],
    pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 60, d: 40, level: 'l', ground: 'paving' }],
    plots: [
      {
        id: 'm',
        name: 'Mill',
        x: 10,
        y: 10,
        w: 20,
        d: 16,
        height: 40,
        storeys: 2,
        notches: [{ corner: 'ne', w: 8, d: 8 }],
      },
      { id: 'g', name: 'Gabled', x: 40, y: 10, w: 12, d: 12, height: 40, storeys: 1, eaves: 19 },
    ],
    figures: [
      {
        ...{ id: 's', name: 'Flitting', x: 12, y: 12 },
        spots: [{ form: 'figure', dx: 3, dy: 3, up: 21 }],
      },
    ],
  });
  const relief = compileRelief(scene);
  const at = (dx: number, dy: number) => spotFloors(scene, relief, scene.figure.s, { dx, dy });
  // Two storeys of 20 plates: floors of a plate at 0 and 20, the roof's plate at 40.
  expect(at(3, 3)).toEqual([
    { name: 'Mill, storey 1', up: 1 },
    { name: 'Mill, storey 2', up: 21 },
    { name: 'Mill, roof', up: 41 },
  ]);
  // In the corner left out one stands on the yard; under a gable there is no roof to stand on.
  expect(at(16, 2)).toEqual([]);
  expect(at(34, 4)).toEqual([{ name: 'Gabled, storey 1', up: 1 }]);
  // A spot on the second floor has its body there: 6 for the yard, and 21.
  const [body] = bodiesOf(scene, relief).filter(({ kind }) => kind === 'figure');
  expect(body.begins).toBe(6 + 21);
});
