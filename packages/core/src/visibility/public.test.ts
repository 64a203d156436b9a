import { sceneFrom } from '../document/index.ts';
import { compileRelief } from '../terrain/index.ts';
import { EYE_STEP, eyesAlong, publicView } from './index.ts';

/** 60 × 20 studs in two sections, looked at from the south over tables of 740 mm. */
const viewOf = (more: object = {}, display: object = {}) => {
  const scene = sceneFrom({
    display: { name: 'Seen', kind: 'diorama', viewedSides: ['s'], place: 'hall', ...display },
    places: [
      {
        ...{ id: 'hall', name: 'Hall', walls: [], sceneX: 1000, sceneY: 1000 },
        ...{ eyeAdult: 1600, eyeSeated: 1200, eyeChild: 1050 },
      },
    ],
    tables: [{ id: 't', name: 'Table', place: 'hall', x: 1000, y: 1000, w: 480, d: 160, height: 740 }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 60, d: 20 }],
    sections: [
      { id: 'b', letter: 'B', name: 'Behind', x: 0, y: 0, w: 60, d: 10 },
      { id: 'a', letter: 'A', name: 'Front', x: 0, y: 10, w: 60, d: 10 },
    ],
    ...more,
  });
  return publicView(scene, compileRelief(scene));
};

test('eyes stand each half metre along a side, both ends among them, as far off as is said', () => {
  const eyes = eyesAlong({ w: 250, d: 100 }, ['s', 'e'], 800, 860);
  // 2,000 mm are four steps, 800 mm are two.
  expect(EYE_STEP).toBe(500);
  expect(eyes.map(({ x, y }) => [x, y])).toEqual([
    ...[0, 62.5, 125, 187.5, 250].map((x) => [x, -100]),
    ...[0, 50, 100].map((y) => [350, y]),
  ]);
  expect(new Set(eyes.map(({ z }) => z))).toEqual(new Set([860]));
});

test('an even display is seen whole by everybody', () => {
  const view = viewOf();
  expect(
    view?.parts.map(({ section, studs, hidden, seen }) => [section, studs, hidden, seen.adult, seen.child]),
  ).toEqual([
    [null, 1200, 0, 1, 1],
    ['a', 600, 0, 1, 1],
    ['b', 600, 0, 1, 1],
  ]);
});

test('a wall along the whole of it hides what its height does, by similar triangles', () => {
  // Its north side 12 studs from the south edge, 30 plates tall: 96 mm. Eyes stand 600 mm off, 75 studs.
  const view = viewOf({
    plots: [{ id: 'w', name: 'Wall', x: 0, y: 8, w: 60, d: 4, height: 30, storeys: 1 }],
  });
  // Straight over it: from 87 studs off, 860 mm up for an adult, the line falls 764 mm in 87 studs and 96 mm in 10.9:
  // all 8 rows behind are hidden but where one looks along the wall, which reaches from end to end.
  const [whole, a, b] = view?.parts ?? [];
  expect([whole.hidden, a.seen.adult, b.seen.adult, b.hidden]).toEqual([480, 1, 0.2, 480]);
  // Half as tall it hides 48 × 87 ÷ 812 = 5.1 studs of an adult: five rows, their middles up to 4.5; of a child at
  // 310 mm 48 × 87 ÷ 262 = 15.9, all.
  const low = viewOf({ plots: [{ id: 'w', name: 'Wall', x: 0, y: 8, w: 60, d: 4, height: 15, storeys: 1 }] });
  const behind = low?.parts[2];
  expect(behind && [behind.seen.adult, behind.seen.child].map((share) => Math.round(600 * share))).toEqual([
    120 + 180,
    120,
  ]);
});

test('without sides that are looked at, or without a place, nothing is told', () => {
  expect(viewOf({}, { viewedSides: [] })).toBeNull();
  expect(viewOf({}, { place: null })).toBeNull();
});
