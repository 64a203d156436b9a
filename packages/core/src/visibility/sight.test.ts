import { displayOf, keyOf, reduce, sceneFrom, type Scene } from '../document/index.ts';
import { shellPieces } from '../structures/index.ts';
import { columnsOf, compileRelief } from '../terrain/index.ts';
import {
  EYE_STEP,
  Lookout,
  NO_STUD,
  SightField,
  areBare,
  backChanges,
  eyesAlong,
  hiddenBacks,
  meanSeen,
  publicEyes,
  sightOf,
  viewpointsOf,
} from './index.ts';

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
  // all 8 rows behind are hidden but where one looks along the wall, which reaches from end to end. From shoulders,
  // 1,210 mm up, it falls 12.8 mm a stud: 96 mm in 7.497 studs, so that the middle of the eighth row is seen.
  const [whole, a, b] = view?.parts ?? [];
  expect([whole.hidden, a.seen.adult, b.seen.adult, b.hidden]).toEqual([420, 1, 0.2, 420]);
  // Half as tall it hides 48 × 87 ÷ 812 = 5.1 studs of an adult: five rows, their middles up to 4.5; of a child at
  // 310 mm 48 × 87 ÷ 262 = 15.9, all.
  const low = viewOf({ plots: [{ id: 'w', name: 'Wall', x: 0, y: 8, w: 60, d: 4, height: 15, storeys: 1 }] });
  const behind = low?.parts[2];
  expect(
    behind && [behind.seen.adult, behind.seen.child].map((share) => Math.round(600 * (share ?? NaN))),
  ).toEqual([120 + 180, 120]);
});

test('without sides that are looked at, or without a place, nothing is told', () => {
  expect(viewOf({}, { viewedSides: [] })).toBeNull();
  expect(viewOf({}, { place: null })).toBeNull();
});

const LOW = [{ id: 'low', name: 'Low', height: 0 }];

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
  expect(of('Block')?.free).toEqual({ adult: 1, seated: 0.5, child: 0.5, shoulders: 1 });
  // Of 100 visitors 60 are adults, 5 sit in a wheelchair, 30 are children, 5 of them on shoulders.
  expect(of('Block')?.mean).toBeCloseTo(0.6 + 0.05 / 2 + 0.3 / 2 + 0.05, 9);
  expect(of('Block')?.sides).toEqual([{ side: 's', free: expect.closeTo(0.825, 9) }]);
  expect(of('Block')?.hiders).toEqual([
    { kind: 'plot', id: 'w', name: 'Wall', share: expect.closeTo(0.175, 9), isStanding: true },
  ]);
  expect(of('Wall')?.free).toEqual({ adult: 1, seated: 1, child: 1, shoulders: 1 });
  // Its faces are 37.4 mm up, half a stud behind the wall: even an adult's line passes 5 mm too low, and one from
  // shoulders (1,210 mm) 3 mm.
  expect(of('Queue')).toMatchObject({
    free: { adult: 0, seated: 0, child: 0, shoulders: 0 },
    hiders: [{ id: 'w', share: expect.closeTo(1, 9) }],
  });
  expect(view?.things.map(({ name }) => name)).toEqual(['Queue', 'Block', 'Wall']);
});

test('of all that is looked at the mean: a wall whole, a block 0.825, a queue nothing; nothing where nobody looks', () => {
  const things = { plots: [WALL, BLOCK], figures: [{ id: 'f', name: 'Queue', x: 30, y: 11.5 }] };
  const meanOf = (more: object, display: object = {}) => {
    const scene = sceneOf(more, display);
    return meanSeen(scene, compileRelief(scene));
  };
  // See the test above.
  expect(meanOf(things)).toBeCloseTo((1 + 0.825 + 0) / 3, 9);
  expect(meanOf({})).toBeNull();
  expect(meanOf(things, { viewedSides: [] })).toBeNull();
});

test('without what hides it a thing is free; a turned thing has the sides it faces', () => {
  const scene = sceneOf({ plots: [WALL, { ...BLOCK, x: 20, w: 10, turn: 30 }] });
  const relief = compileRelief(scene);
  const eyes = publicEyes(scene, relief);
  const lookout = eyes && new Lookout(scene, relief, eyes);
  const [seen, alone] = [lookout?.look('plot', 'b'), lookout?.look('plot', 'b', [keyOf('plot', 'w')])];
  expect(seen?.hiders.map(({ id }) => id)).toEqual(['w']);
  expect([alone?.free, alone?.hiders]).toEqual([{ adult: 1, seated: 1, child: 1, shoulders: 1 }, []]);
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

test('who comes and how busy a side is weigh; those who do not come are not asked', () => {
  const things = (display: object, place: object = {}) => {
    const scene = sceneOf({ plots: [WALL, BLOCK] }, display);
    const sight = sightOf(
      { ...scene, place: { hall: { ...scene.place.hall, ...place } } },
      compileRelief(scene),
    );
    return { sight, block: sight?.things.find(({ name }) => name === 'Block') };
  };
  // Its north face is free. One in a wheelchair sees half of the south face: of as many points with half as many people.
  const busy = things({ viewedSides: ['s', 'n'], crowd: { n: 50 } }).block;
  expect(busy?.free.seated).toBeCloseTo((0.5 + 0.5) / 1.5, 9);
  const children = things({}, { shareAdult: 0, shareSeated: 0, shareShoulders: 0 });
  expect(children.block?.free).toEqual({ adult: null, seated: null, child: 0.5, shoulders: null });
  expect(children.block?.mean).toBeCloseTo(0.5, 9);
  expect(children.sight?.parts[0].seen).toMatchObject({ adult: null, child: expect.any(Number) });
});

test('thirds of a side weigh by themselves, from the west and from the north end', () => {
  const thirds = { n: [100, 100, 100], e: [20, 100, 60], s: [50, 100, 10], w: [100, 100, 100] } as const;
  const eyes = eyesAlong({ w: 250, d: 250 }, ['s', 'e'], 800, 0, { n: 100, e: 50, s: 100, w: 100 }, thirds);
  // Five eyes a side: at 0, 1/4, 1/2, 3/4 and 1 of it; those of the east side from the south end.
  expect(eyes.map(({ crowd }) => Math.round(1000 * crowd) / 1000)).toEqual([
    ...[0.5, 0.5, 1, 0.1, 0.1],
    ...[0.3, 0.3, 0.5, 0.1, 0.1],
  ]);
  // A pillar before the west of a display 96 studs wide hides a shed from the west third alone.
  const shed = { id: 'b', name: 'Shed', x: 2, y: 4, w: 4, d: 2, height: 6, storeys: 1 };
  const wall = { id: 'w', name: 'Pillar', x: 0, y: 14, w: 12, d: 2, height: 60, storeys: 1 };
  const meanBy = (west: number) =>
    viewOf(
      {
        plots: [shed, wall],
        footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 192, d: 20 }],
        tables: [{ id: 't', name: 'Table', place: 'hall', x: 1000, y: 1000, w: 1536, d: 160, height: 740 }],
      },
      { crowdAlong: { s: [west, 100, 100] } },
    )?.things.find(({ name }) => name === 'Shed')?.mean ?? NaN;
  // Fewer stand where it is hidden: more of all visitors see it.
  expect(meanBy(10)).toBeGreaterThan(meanBy(100) + 0.05);
});

test('a figure under a deck is seen below it', () => {
  // 96 mm over the ground, 4 studs deep from the south edge: from a face 37.4 mm up, 1.5 studs in, an adult's line has
  // risen to 37.4 + 1.5 × 822.6 ÷ 76.5 = 53.5 mm at its edge.
  const deck = {
    id: 'd',
    name: 'Quay',
    x: 20,
    y: 16,
    w: 20,
    d: 4,
    level: 'low',
    offset: 32,
    support: 'ends',
  };
  const anglers = { id: 'f', name: 'Anglers', x: 30, y: 18.5, onGround: true };
  const view = viewOf({ levels: LOW, decks: [deck], figures: [anglers] });
  expect(view?.things.find(({ id }) => id === 'f')?.free).toMatchObject({ adult: 1, child: 1 });
});

test('how deep one sees into a tunnel, by similar triangles under its lintel', () => {
  // Its mouth is the south edge, 75 studs before the eyes; 48 mm high. A line under the lintel falls (eye − 48) ÷ 75 mm
  // a stud: 10.83 for an adult, 5.49 from a wheelchair, 3.49 for a child, 15.49 from shoulders; so it meets the floor
  // after 4.4, 8.7, 13.7 and 3.1 studs, and the middles of 4, 9, 14 and 3 studs lie before that.
  const view = viewOf({
    levels: LOW,
    pads: [{ id: 'p', name: 'Hill', x: 10, y: 0, w: 40, d: 20, level: 'low', offset: 30, ground: 'rock' }],
    cavities: [
      { id: 't', name: 'Tunnel', use: 'tunnel', x: 20, y: 0, w: 20, d: 20, level: 'low', clear: 15 },
    ],
  });
  expect(view?.cavities).toEqual([
    {
      ...{ id: 't', name: 'Tunnel' },
      free: { adult: 4 / 20, seated: 9 / 20, child: 14 / 20, shoulders: 3 / 20 },
      depths: [{ side: 's', seen: 14, of: 20 }],
    },
  ]);
});

test('a floor with the roof off is seen over the wall before it, by similar triangles', () => {
  // Walls of 48 mm, the near one a stud thick at the south edge. Over its inner edge, 76 studs off, a line falls
  // (eye − 48) ÷ 76 mm a stud: it meets the floor 4.49, 8.85, 13.9 and 3.14 studs behind: 4, 9, all 10 and 3 rows hidden.
  const house = {
    id: 'h',
    name: 'House',
    x: 24,
    y: 8,
    w: 12,
    d: 12,
    height: 30,
    storeys: 2,
    storeyHeights: [15, 15],
  };
  const rooms = viewOf({ plots: [house] })?.rooms.h;
  expect(rooms?.map(({ name }) => name)).toEqual(['floor 2', 'ground floor']);
  const ground = rooms?.[1];
  // 96 of its 100 studs are looked at.
  expect(ground?.free.child).toBe(0);
  expect(ground?.free.adult).toBeCloseTo(0.6, 1);
  expect(ground?.free.seated).toBeCloseTo(0.1, 1);
  expect(ground?.free.shoulders).toBeCloseTo(0.7, 1);
  // A street front's room begins behind its pavement.
  const paved = viewOf({ plots: [{ ...house, y: 0, d: 20, streetFront: true, front: 's', pavement: 8 }] })
    ?.rooms.h;
  expect(paved?.[1]?.depths).toEqual([{ side: 's', seen: expect.any(Number), of: 10 }]);
});

test('what has the colour of what is behind it does not stand out', () => {
  const hut = (wallColour: string) => ({
    ...{ id: 'h', name: 'Hut', x: 26, y: 12, w: 8, d: 4, height: 12, wallColour },
  });
  const blend = (wallColour: string, more: object[] = []) =>
    viewOf({ plots: [hut(wallColour), ...more] })?.things.find(({ id }) => id === 'h')?.blends;
  // Bare ground is Pebble.
  expect(blend('pebble')).toMatchObject({
    share: expect.closeTo(1, 9),
    against: [{ name: 'bare ground', deltaE: 0 }],
  });
  expect(blend('poppy')).toEqual({ share: 0, against: [] });
  expect(blend('any')).toBeNull();
  // A red wall close behind all of it, taller than any line over its farther edge.
  const wall = { ...BLOCK, y: 8, height: 60, wallColour: 'poppy' };
  const red = blend('poppy', [wall]);
  expect(red?.against.map(({ name }) => name)).toEqual(['Block']);
  // Not all: over the near ends of its side edges one looks down on the ground beside it.
  expect(red?.share).toBeGreaterThan(0.95);
});

test('the first view is from the middle of a door; a photo of what lies within is taken from before the edge', () => {
  const hall = {
    ...{ id: 'hall', name: 'Hall', sceneX: 1000, sceneY: 1000 },
    walls: [
      { x: 0, y: 0 },
      { x: 10_000, y: 0 },
      { x: 10_000, y: 8000 },
      { x: 0, y: 8000 },
    ],
  };
  const photo = (id: string, at: object, taken: string) => ({
    ...{ id, file: 'a'.repeat(64), width: 8, height: 6, taken: `2031-05-${taken}T12:00:00Z`, ...at },
  });
  const scene = sceneOf({
    places: [hall],
    openings: [
      { id: 'o', name: 'Main door', place: 'hall', wall: 2, at: 4000, width: 1000 },
      { id: 'w', name: 'Window', place: 'hall', use: 'window', wall: 0, at: 0, width: 900 },
    ],
    photos: [
      photo('late', { x: 31, y: 10, bearing: 10 }, '09'),
      photo('first', { x: 30, y: 10, bearing: 0 }, '01'),
      photo('outside', { x: -40, y: 5 }, '02'),
      photo('nowhere', { section: 'a' }, '03'),
      photo('aimless', { x: 30, y: 2 }, '04'),
    ],
  });
  // (5,500 − 1,000) ÷ 8 east and (8,000 − 1,000) ÷ 8 south of the corner, 20 studs of scene.
  expect(
    viewpointsOf(scene, compileRelief(scene)).map(({ id, eye, photo: newest }) => [id, eye.x, eye.y, newest]),
  ).toEqual([
    ['o', 562.5, -855, null],
    ['first', 30, -75, 'late'],
    ['outside', -40, 15, 'outside'],
  ]);
  const [door] = sightOf(scene, compileRelief(scene))?.views ?? [];
  expect(door).toMatchObject({
    name: 'Main door',
    seen: 1,
    distance: expect.closeTo(8 * Math.hypot(502.5, 855), 6),
  });
});

test('a chosen photo spot is looked from at its own height, until a photo from there stands for it', () => {
  const spots = [
    { id: 'gate', name: 'Gate', x: 30, y: 60, bearing: 0, eye: 1500 },
    { id: 'side', name: 'Side', x: -20, y: 10, bearing: 90 },
    // What it looks at lies within: it stands 600 mm, 75 studs, before the south edge.
    { id: 'in', name: 'Inside', x: 12, y: 6, bearing: 0, eye: 740 },
  ];
  const viewsOf = (photos: object[]) => {
    const scene = sceneOf({ photoSpots: spots, photos });
    return viewpointsOf(scene, compileRelief(scene)).map(({ kind, id, eye, bearing }) => [
      ...[kind, id, eye.x, eye.y, eye.z, bearing],
    ]);
  };
  // Tables are 740 mm high, adults’ eyes 1,600 over the floor; y counts from the south edge, 20 studs off.
  const inside = ['photoSpot', 'in', 12, -75, 0, 0];
  expect(viewsOf([])).toEqual([
    ['photoSpot', 'gate', 30, -40, 760, 0],
    inside,
    ['photoSpot', 'side', -20, 10, 860, 90],
  ]);
  const photo = { id: 'p', file: 'a'.repeat(64), width: 8, height: 6, taken: '2031-05-01T12:00:00Z' };
  expect(viewsOf([{ ...photo, x: -22, y: 12, bearing: 80 }])).toEqual([
    ['photo', 'p', -22, 8, 860, 80],
    ['photoSpot', 'gate', 30, -40, 760, 0],
    inside,
  ]);
  // Another direction is another spot.
  expect(viewsOf([{ ...photo, x: -22, y: 12, bearing: 200 }])).toHaveLength(4);
});

test('what is open in a column is what its solid pieces leave, and without a thing what that leaves', () => {
  const deck = { id: 'd', name: 'Quay', x: 20, y: 8, w: 20, d: 8, level: 'low', offset: 32 };
  const hut = { id: 'h', name: 'Hut', x: 24, y: 10, w: 6, d: 4, height: 12, onGround: true };
  const scene = sceneOf({ levels: LOW, decks: [deck], plots: [hut] });
  const relief = compileRelief(scene);
  const sight = new SightField(scene, relief);
  const columns = columnsOf(scene, relief);
  let open = 0;
  for (const [i, voids] of sight.field.voids) {
    const pieces = columns.at(i % relief.w, Math.trunc(i / relief.w));
    const solid = pieces.reduce((sum, { from, to }) => sum + to - from, 0);
    const air = voids.reduce((sum, { from, to }) => sum + to - from, 0);
    expect(3.2 * solid + air).toBeCloseTo(sight.field.heights[i], 6);
    open += air;
  }
  expect(open).toBeGreaterThan(0);
  const before = new Map(sight.field.voids);
  const back = sight.takeAway(keyOf('plot', 'h'));
  const opened = [...sight.field.voids.values()].flat().reduce((sum, { from, to }) => sum + to - from, 0);
  back();
  expect(new Map(sight.field.voids)).toEqual(before);
  expect(opened).toBeGreaterThan(open);
});

test('backs that nobody sees, as the building is turned; a list that its pieces made is made again, one changed by hand is not', () => {
  const house = { ...{ id: 'h', name: 'House', x: 26, y: 4, w: 8, d: 8, height: 18 }, wallColour: 'ochre' };
  const backsOf = (scene: Scene) => {
    const sight = sightOf(scene, compileRelief(scene));
    return hiddenBacks(scene, sight?.things ?? []);
  };
  // Nobody stands north of it; from the ends of the south side its east and west faces are seen.
  const plain = sceneOf({ plots: [house] });
  expect(backsOf(plain).map(({ sides }) => sides)).toEqual([['n']]);
  expect(backsOf(sceneOf({ plots: [{ ...house, turn: 90 }] })).map(({ sides }) => sides)).toEqual([['w']]);
  expect(backsOf(sceneOf({ plots: [{ ...house, wallColour: 'any' }] }))).toEqual([]);
  const [back] = backsOf(plain);
  // 6 of 8 studs in every other course of five, in two bricks, and of the two plates over them.
  const { bareSides } = { bareSides: back?.sides ?? [] };
  const any = (sides: typeof bareSides) =>
    shellPieces({ ...plain.plot.h, bareSides: sides }, displayOf(plain))
      .filter(({ colour }) => colour === 'any')
      .reduce((sum, { qty }) => sum + qty, 0);
  expect(back?.pieces).toBe(any(bareSides) - any([]));

  const list = { id: 'l', name: 'Shell of House', use: 'need', purpose: 'building', plot: 'h' };
  const lines = shellPieces(plain.plot.h, displayOf(plain));
  const changed = (more: typeof lines) => {
    const scene = sceneOf({ plots: [house], partLists: [{ ...list, lines: [...lines, ...more] }] });
    const done = reduce(scene, backChanges(scene, backsOf(scene)));
    if (!done.ok) throw new Error(done.refusal.sentence);
    return done.scene;
  };
  const after = changed([]);
  expect(after.plot.h.bareSides).toEqual(['n']);
  expect([areBare(after, backsOf(after)), areBare(after, []), areBare(plain, [])]).toEqual([
    true,
    false,
    true,
  ]);
  expect(after.partList.l.lines).toEqual(shellPieces(after.plot.h, displayOf(after)));
  const own = changed([{ ...lines[0], part: 'plate-1x2', colour: 'poppy', qty: 3 }]);
  expect(own.partList.l.lines).toHaveLength(lines.length + 1);
  // Taken back.
  const back2 = reduce(after, backChanges(after, []));
  expect(back2.ok && [back2.scene.plot.h.bareSides, back2.scene.partList.l.lines]).toEqual([[], lines]);
});
