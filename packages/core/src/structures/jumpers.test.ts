import { sceneFrom, type Plot } from '../document/index.ts';
import { bodiesOf, compileRelief, indexAt, standsOn } from '../terrain/index.ts';
import { elevationOf, placedPieces, shellList } from './index.ts';

const STREET = { pavementLight: 'any', pavementDark: 'any' };
const sceneWith = (plot: object) =>
  sceneFrom({
    display: { name: 'Yard', kind: 'city' },
    levels: [{ id: 'l', name: 'Yard', height: 6 }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 48 }],
    pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 48, d: 48, level: 'l', ground: 'paving' }],
    plots: [
      {
        ...{ id: 'h', name: 'House', x: 10.5, y: 12, w: 8, d: 8, height: 19, storeys: 1, mount: 'jumpers' },
        ...plot,
      },
    ],
  });
const made = (plot: object) => {
  const scene = sceneWith(plot);
  const relief = compileRelief(scene);
  const own: Plot & { id: string } = scene.plot.h;
  const foot = standsOn(scene, relief, own);
  if (foot === null) throw new Error('it stands nowhere');
  const jumpers = placedPieces(own, foot, STREET).filter(({ part }) => part.startsWith('jumper'));
  return { scene, relief, own, foot, jumpers };
};

test.each([
  ['east', {}],
  ['south', { x: 10, y: 12.5 }],
  ['both ways', { y: 12.5 }],
  ['turned by a quarter', { turn: 90 }],
  ['an L', { notches: [{ corner: 'ne', w: 4, d: 3 }] }],
])(
  'half a stud off (%s): each jumper lies on whole studs of the ground, its stud under a stud of the walls',
  (_, plot) => {
    const { own, foot, jumpers, scene, relief } = made(plot);
    // A plate over the yard, on which the jumpers lie.
    expect(foot).toBe(7);
    // One under each of four corners.
    expect(jumpers.length).toBeGreaterThanOrEqual(4);
    const walls = placedPieces(own, foot, STREET).filter(({ use, z }) => use === 'wall' && z === foot + 1);
    for (const { x, y, w, d, z, h } of jumpers) {
      expect([Number.isInteger(x), Number.isInteger(y), z, z + h]).toEqual([true, true, 6, 7]);
      const middle = { x: x + w / 2, y: y + d / 2 };
      // The middle of a stud of the building: half off where that is.
      const over = walls.some(
        (piece) =>
          middle.x > piece.x &&
          middle.x < piece.x + piece.w &&
          middle.y > piece.y &&
          middle.y < piece.y + piece.d,
      );
      expect(over).toBe(true);
    }
    // Every stud of a wall has a jumper within so many studs.
    for (const { x, y, w, d } of walls)
      for (let k = 0; k < w * d; k++) {
        const at = { x: x + (k % w) + 0.5, y: y + Math.trunc(k / w) + 0.5 };
        const near = jumpers.some(
          (one) => Math.max(Math.abs(one.x + one.w / 2 - at.x), Math.abs(one.y + one.d / 2 - at.y)) < 4,
        );
        expect(near).toBe(true);
      }
    const listed = shellList(scene, scene.plot.h).lines.filter(({ part }) => part.startsWith('jumper'));
    expect(listed.reduce((sum, { qty }) => sum + qty, 0)).toBe(jumpers.length);
    // Its roof is a plate higher, for all who ask.
    const [body] = bodiesOf(scene, relief).filter(({ kind }) => kind === 'plot');
    expect([body.begins, body.top]).toEqual([7, 26]);
    expect(relief.top[indexAt(relief, 13, 17)]).toBe(26);
  },
);

test('a house of 20 × 8 by hand: four corners, and each long side three more between 19 studs', () => {
  const { jumpers } = made({ w: 20 });
  expect(jumpers).toHaveLength(4 + 2 * 3);
});

test('on whole studs, pinned, or off every grid there are none; fronts are drawn without them', () => {
  for (const plot of [{ x: 10 }, { mount: 'pinned' }, { turn: 30 }]) {
    const { foot, jumpers } = made(plot);
    expect([foot, jumpers.length]).toEqual([6, 0]);
  }
  expect(elevationOf(made({}).own, 's').pieces).toEqual(elevationOf(made({ x: 10 }).own, 's').pieces);
});
