import { keyOf, sceneFrom } from '../document/index.ts';
import { compileRelief } from '../terrain/index.ts';
import { EYE_STEP, Lookout, NO_STUD, eyesAlong, publicEyes, sightOf } from './index.ts';

/** 60 × 20 studs in two sections, looked at from the south over tables of 740 mm. */
const sceneOf = (more: object = {}, display: object = {}) =>
  sceneFrom({
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
const viewOf = (more: object = {}, display: object = {}) => {
  const scene = sceneOf(more, display);
  return sightOf(scene, compileRelief(scene));
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

/** A wall 48 mm tall from end to end, its north side 8 studs from the south edge, and what stands behind it. */
const WALL = { id: 'w', name: 'Wall', x: 0, y: 12, w: 60, d: 2, height: 15, storeys: 1 };
const BLOCK = { id: 'b', name: 'Block', x: 0, y: 2, w: 60, d: 4, height: 15, storeys: 1 };

test('what a wall cuts off of a building and of a small scene, by similar triangles', () => {
  const view = viewOf({
    plots: [WALL, BLOCK],
    figures: [{ id: 'f', name: 'Queue', x: 30, y: 11.5 }],
  });
  const of = (name: string) => view?.things.find((thing) => thing.name === name);
  // The block's south face is 89 studs from the eyes, the wall's north side 83. Its points are 12 and 36 mm up; lines to
  // them pass the wall at z + (eye − z) × 6 ÷ 89: an adult's (860 mm) at 69 and 92 mm, over it; one's in a wheelchair
  // (460) at 42 and 65, a child's (310) at 32 and 54 mm.
  expect(of('Block')?.free).toEqual({ adult: 1, seated: 0.5, child: 0.5 });
  expect(of('Block')?.sides).toEqual([{ side: 's', free: (1 + 0.5 + 0.5) / 3 }]);
  expect(of('Block')?.hiders).toEqual([
    { kind: 'plot', id: 'w', name: 'Wall', share: 1 / 3, isStanding: true },
  ]);
  expect(of('Wall')?.free).toEqual({ adult: 1, seated: 1, child: 1 });
  // Its faces are 37.4 mm up, half a stud behind the wall: even an adult's line passes 5 mm too low.
  expect(of('Queue')).toMatchObject({
    free: { adult: 0, seated: 0, child: 0 },
    hiders: [{ id: 'w', share: 1 }],
  });
  expect(view?.things.map(({ name }) => name)).toEqual(['Queue', 'Block', 'Wall']);
});

test('without what hides it a thing is free; a turned thing has the sides it faces', () => {
  const scene = sceneOf({ plots: [WALL, { ...BLOCK, x: 20, w: 10, turn: 30 }] });
  const relief = compileRelief(scene);
  const eyes = publicEyes(scene, relief);
  const lookout = eyes && new Lookout(scene, relief, eyes);
  const [seen, alone] = [lookout?.look('plot', 'b'), lookout?.look('plot', 'b', [keyOf('plot', 'w')])];
  expect(seen?.hiders.map(({ id }) => id)).toEqual(['w']);
  expect([alone?.free, alone?.hiders]).toEqual([{ adult: 1, seated: 1, child: 1 }, []]);
  // What was taken away is back.
  expect(lookout?.look('plot', 'b')).toEqual(seen);
});

test('studs by the share of all eyes that see them; the view is shared out whole', () => {
  const view = viewOf({
    plots: [{ ...WALL, height: 30 }],
    footprint: [
      { id: 'f', name: 'Most', x: 0, y: 0, w: 60, d: 18 },
      { id: 'g', name: 'Rest', x: 0, y: 18, w: 30, d: 2 },
    ],
  });
  const at = (x: number, y: number) => view?.studs[60 * y + x];
  expect([at(5, 15), at(5, 11), at(40, 19)]).toEqual([100, 0, NO_STUD]);
  const [whole, a, b] = view?.parts ?? [];
  expect([whole.view, a.view + b.view]).toEqual([expect.closeTo(1, 9), expect.closeTo(1, 9)]);
  // Before the wall, and the wall itself, most of what is seen.
  expect(a.view).toBeGreaterThan(0.7);
});
