import fc from 'fast-check';
import { runs } from '../../test/runs.ts';
import { columnHides } from '../../test/slowSeen.ts';
import { SIDES, sceneFrom, type Scene } from '../document/index.ts';
import { NEIGHBOUR_STEPS, OUTSIDE, compileRelief } from '../terrain/index.ts';
import { heightField, publicEyes, sightOf } from './index.ts';

const place = {
  displays: { name: 'Cliffs', kind: 'diorama' as const, place: 'hall' },
  places: [
    {
      ...{ id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0 },
      ...{ eyeAdult: 1600, eyeSeated: 1200, eyeChild: 1050 },
    },
  ],
};
const sceneOf = (w: number, d: number, viewedSides: ('n' | 'e' | 's' | 'w')[], more: object): Scene =>
  sceneFrom({
    display: { ...place.displays, viewedSides },
    places: place.places,
    tables: [{ id: 't', name: 'Table', place: 'hall', x: 0, y: 0, w: w * 8, d: d * 8, height: 740 }],
    levels: [{ id: 'low', name: 'Low', height: 6 }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w, d }],
    pads: [{ id: 'g', name: 'Ground', x: 0, y: 0, w, d, level: 'low', ground: 'grass' }],
    ...more,
  });

test('edges and the sides of a plateau, by hand', () => {
  // A plateau of 8 × 6 studs, 12 plates over the ground, in the middle of 30 × 20, looked at from the south.
  const scene = sceneOf(30, 20, ['s'], {
    levels: [
      { id: 'low', name: 'Low', height: 6 },
      { id: 'top', name: 'Top', height: 18 },
    ],
    pads: [
      { id: 'g', name: 'Ground', x: 0, y: 0, w: 30, d: 20, level: 'low', ground: 'grass' },
      { id: 'p', name: 'Plateau', x: 10, y: 8, w: 8, d: 6, level: 'top', ground: 'rock', order: 1 },
    ],
  });
  const sight = sightOf(scene, compileRelief(scene));
  const told = sight?.cliffs.map(({ name, side, studs, area, free, hidden }) => [
    `${name} ${side}`,
    ...[studs, Number(area.toFixed(6)), free.adult, hidden],
  ]);
  // To the east and west the two places, before the ends of the side, each see one flank past nothing.
  expect(Object.fromEntries(told?.map(([name, ...rest]) => [name, rest]) ?? [])).toEqual({
    'Edge of the display s': [30, 30 * 6 * 3.2 * 8, 1, 0],
    'Edge of the display n': [30, 30 * 6 * 3.2 * 8, null, 30],
    'Edge of the display e': [20, 20 * 6 * 3.2 * 8, null, 20],
    'Edge of the display w': [20, 20 * 6 * 3.2 * 8, null, 20],
    'Plateau s': [8, Number((8 * 12 * 3.2 * 8).toFixed(6)), 1, 0],
    'Plateau n': [8, Number((8 * 12 * 3.2 * 8).toFixed(6)), null, 8],
    'Plateau e': [6, Number((6 * 12 * 3.2 * 8).toFixed(6)), 1, 0],
    'Plateau w': [6, Number((6 * 12 * 3.2 * 8).toFixed(6)), 1, 0],
  });
  // From the ends of the side, 75 studs off: to the nearest stud of the front edge 0.5 studs aside, the eyes of a child 310 mm
  // up, the middle of the edge 9.6.
  const front = sight?.cliffs.find(({ side, isEdge }) => isEdge && side === 's');
  expect(front?.nearest).toBeCloseTo(Math.hypot(4, 600, 310 - 9.6), 9);
  expect(sight?.hiddenFaces.slice(0, 2)).toEqual([
    { side: 'n', x: 0, y: 0, w: 30, d: 1 },
    { side: 'w', x: 0, y: 0, w: 1, d: 20 },
  ]);
});

test('each face of random ground is seen as each column, asked by itself, lets it be', () => {
  const whole = (min: number, max: number) => fc.integer({ min, max });
  const [w, d] = [14, 10];
  const block = fc.record({
    x: whole(0, 10),
    y: whole(0, 7),
    w: whole(1, 6),
    d: whole(1, 5),
    offset: whole(-6, 24),
  });
  fc.assert(
    fc.property(
      fc.array(block, { maxLength: 5 }),
      fc.subarray([...SIDES], { minLength: 1 }),
      (blocks, sides) => {
        const scene = sceneOf(w, d, sides, {
          pads: [
            { id: 'g', name: 'Ground', x: 0, y: 0, w, d, level: 'low', ground: 'grass' },
            ...blocks.map((one, i) => ({
              id: `b${i}`,
              name: `Block ${i}`,
              ...one,
              ground: 'rock',
              level: 'low',
              order: i + 1,
            })),
          ],
        });
        const relief = compileRelief(scene);
        const [field, eyes] = [heightField(scene, relief), publicEyes(scene, relief)];
        if (!eyes) throw new Error('nobody looks');
        const all = Object.values(eyes.by).flat();
        let [faces, hidden] = [0, 0];
        for (let stud = 0; stud < w * d; stud++)
          for (const side of SIDES) {
            const step = NEIGHBOUR_STEPS[side];
            const [x, y] = [(stud % w) + step.x, Math.trunc(stud / w) + step.y];
            const isOff = x < 0 || y < 0 || x >= w || y >= d || relief.ground[y * w + x] === OUTSIDE;
            const low = isOff ? 0 : Math.max(0, relief.height[y * w + x]);
            const high = relief.height[stud];
            if (high - low < 3) continue;
            faces++;
            const rows = Math.min(3, Math.max(1, Math.round(((high - low) * 3.2) / 20)));
            const isSeen = Array.from({ length: rows }, (_, k) => ({
              x: (stud % w) + 0.5 + step.x / 2,
              y: d - Math.trunc(stud / w) - 0.5 - step.y / 2,
              z: (low + ((high - low) * (k + 0.5)) / rows) * 3.2,
            })).some((point) =>
              all.some(
                (eye) =>
                  step.x * (eye.x - point.x) - step.y * (eye.y - point.y) > 1e-6 &&
                  !field.heights.some((_, j) => columnHides(field, j, point, eye)),
              ),
            );
            if (!isSeen) hidden++;
          }
        const cliffs = sightOf(scene, relief)?.cliffs ?? [];
        const sum = (of: (cliff: (typeof cliffs)[number]) => number) =>
          cliffs.reduce((all, cliff) => all + of(cliff), 0);
        expect([sum(({ studs }) => studs), sum((cliff) => cliff.hidden)]).toEqual([faces, hidden]);
      },
    ),
    { numRuns: runs(30) },
  );
});
