import fc from 'fast-check';
import { gramsOfPart, isListed, partOf } from '../catalogue/index.ts';
import { sceneFrom, wallTop, type Plot } from '../document/index.ts';
import { plotCard, shellOf, slopedRoofOf } from '../terrain/index.ts';
import { filledBy } from '../../test/filled.ts';
import { runs } from '../../test/runs.ts';
import { elevationOf, frontsOf, storeysOf, type LaidPiece } from './index.ts';
import * as structures from './index.ts';

const plotOf = (more: object): Plot =>
  sceneFrom({
    display: { name: 'Shell', kind: 'city' },
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 96 }],
    plots: [{ id: 'p', name: 'House', x: 0, y: 0, w: 8, d: 8, height: 18, storeys: 1, ...more }],
  }).plot.p;

const STREET = { pavementLight: 'mist', pavementDark: 'slate' };
const buildingPieces = (plot: Plot) => structures.buildingPieces(plot, STREET);
const shellPieces = (plot: Plot) => structures.shellPieces(plot, STREET);

const bricksAt = <P extends LaidPiece>(pieces: readonly P[], z: number): P[] =>
  pieces.filter((one) => one.z === z && one.part.startsWith('brick'));
const studsOf = (pieces: readonly LaidPiece[]) => pieces.reduce((sum, { w, d }) => sum + w * d, 0);

describe('a plain shell in pieces', () => {
  test('8 × 8 by hand: 28 studs a course (common practice, no source), floor and roof of one 8 × 8 plate each', () => {
    // 18 plates: the floor is one, 17 are 5 bricks and 2 plates.
    const pieces = buildingPieces(plotOf({}));
    for (const z of [1, 4, 7, 10, 13]) expect(studsOf(bricksAt(pieces, z))).toBe(28);
    const plates = pieces.filter(({ part }) => part.startsWith('plate'));
    expect(plates.filter(({ part }) => part === 'plate-8x8').map(({ z }) => z)).toEqual([0, 18]);
    expect([16, 17].map((z) => studsOf(plates.filter((one) => one.z === z)))).toEqual([28, 28]);
    // Two bricks a side, of 4 at most: those that run through are 8 studs long, those between them 6.
    expect(pieces.filter(({ part }) => part.startsWith('brick'))).toHaveLength(5 * 8);
    expect(shellPieces(plotOf({})).reduce((sum, { qty }) => sum + qty, 0)).toBe(pieces.length);
  });
  test('half studs are rounded, and make no pavement', () => {
    for (const more of [{ w: 7.5 }, { x: 3.5, w: 8.5, d: 6.5 }, { wall: 1.5 }]) {
      const at = filledBy(buildingPieces(plotOf(more)));
      const { w = 8, d = 8 } = more as { w?: number; d?: number };
      for (let y = -1; y <= Math.round(d); y++)
        for (let x = -1; x <= Math.round(w); x++) {
          const isIn = x >= 0 && y >= 0 && x < Math.round(w) && y < Math.round(d);
          expect({ x, y, on: at(x, y, 0) > 0 }).toEqual({ x, y, on: isIn });
        }
    }
    const front = filledBy(buildingPieces(plotOf({ w: 7.5, d: 10, streetFront: true, pavement: 2.5 })));
    // Of 7.5 × 10 studs the southern 2.5 are pavement: 8 studs by 3, before what is built.
    expect(Array.from({ length: 24 }, (_, k) => front(k % 8, 8 + Math.trunc(k / 8), 0) > 0)).not.toContain(
      false,
    );
    expect(front(0, 11, 0)).toBe(0);
  });
  test('its pieces weigh what the shell is taken to weigh, within the play of hollow pieces', () => {
    for (const more of [
      {},
      { w: 24, d: 16, height: 60, storeys: 3 },
      { wall: 2, w: 16, d: 16, height: 45 },
    ]) {
      const plot = plotOf(more);
      const grams = shellPieces(plot).reduce((sum, { part, qty }) => sum + qty * gramsOfPart(part, {}), 0);
      expect(grams / shellOf(plot).grams).toBeGreaterThan(0.75);
      expect(grams / shellOf(plot).grams).toBeLessThan(1.35);
    }
  });
});

test('a floor of 40 × 24 by hand: fields of 13 and 14 by 12, pillars under their joints at most 8 studs apart', () => {
  const pieces = buildingPieces(plotOf({ w: 40, d: 24, height: 20 }));
  const pillars = pieces.filter(({ part, z }) => part === 'brick-2x2' && z === 1);
  // Joints at 13 and 27 along x and at 12 along y; of 24 studs thirds are 8, of 40 fifths.
  // Those less than 4 from another are left away: 16 and 24 of the fifths.
  const spots = pillars.map(({ x, y }) => `${x + 1} ${y + 1}`).toSorted();
  expect(spots).toEqual(['13 12', '13 16', '13 8', '27 12', '27 16', '27 8', '32 12', '8 12'].toSorted());
});

test('storeys of their own height: the others share what is left, the last reaches to the roof', () => {
  const levels = (height: number, storeys: number, storeyHeights: (number | null)[]) =>
    storeysOf(plotOf({ height, storeys, storeyHeights })).map(({ level, to }) => [level, to]);
  expect(levels(60, 3, [])).toEqual([
    [0, 20],
    [20, 40],
    [40, 60],
  ]);
  expect(levels(60, 3, [30])).toEqual([
    [0, 30],
    [30, 45],
    [45, 60],
  ]);
  expect(levels(60, 3, [null, 10])).toEqual([
    [0, 25],
    [25, 35],
    [35, 60],
  ]);
  expect(levels(60, 2, [20, 20])).toEqual([
    [0, 20],
    [20, 60],
  ]);
  // More than there is: what begins above the roof is none; a storey is a plate at least.
  expect(levels(60, 3, [70])).toEqual([[0, 60]]);
  expect(levels(30, 2, [null, 40])).toEqual([
    [0, 1],
    [1, 30],
  ]);
});

test('a two-sided roof by hand: 12 studs of 45° leave 2 for the ridge after five courses; its ends are walled up', () => {
  const plot = plotOf({ w: 16, d: 12, height: 33, eaves: 18, slope: 'slope-2x2-45' });
  // Each course lies a stud further in: 12 − 2 × 5 = 2; 18 + 5 × 3 plates, and the ridge's own.
  expect(slopedRoofOf(plot)).toMatchObject({ courses: 5, ridge: 34, flat: 2 });
  const pieces = buildingPieces(plot);
  const slopes = pieces.filter(({ part }) => part.startsWith('slope'));
  // 16 studs take four of 4, on both sides.
  expect(slopes.map(({ part }) => part)).toEqual(Array.from({ length: 5 * 2 * 4 }, () => 'slope-4x2-45'));
  expect([...new Set(slopes.filter(({ y }) => y < 6).map(({ turn }) => turn))]).toEqual([270]);
  // Between the slopes of a course 8, 6, 4, 2 and 0 studs are open at either end.
  const ends = pieces.filter(({ use, x, z }) => use === 'wall' && x === 0 && z >= 18);
  expect(studsOf(ends)).toBe(8 + 6 + 4 + 2);
  expect(pieces.filter(({ z }) => z === 33).map(({ part }) => part)).toEqual(['plate-2x16']);
  // From its end it is a gable, from the side five rows of slopes and the ridge.
  const end = elevationOf(plot, 'w').pieces.filter(({ falls }) => falls !== undefined);
  expect(end.filter(({ falls }) => falls === 'left').map(({ left }) => left)).toEqual([0, 1, 2, 3, 4]);
  expect(elevationOf(plot, 's').pieces.filter(({ part }) => part.startsWith('slope'))).toHaveLength(5 * 4);
  // Left to itself it takes the slopes whose ridge comes nearest: 45° again.
  expect(slopedRoofOf(plotOf({ w: 16, d: 12, height: 33, eaves: 18 }))?.pitches[0].slope.angle).toBe(45);
  expect(slopedRoofOf(plotOf({ w: 16, d: 12, height: 33 }))).toBeNull();
});

test('a hipped roof by hand: 16 × 12 of 45° takes five courses, four corners each, and a top of 6 × 2', () => {
  const plot = plotOf({ w: 16, d: 12, height: 33, eaves: 18, slope: 'slope-2x2-45', roofForm: 'hip' });
  expect(slopedRoofOf(plot)).toMatchObject({ courses: 5, ridge: 34 });
  const roof = buildingPieces(plot).filter(({ use }) => use === 'roof');
  const corners = roof.filter(({ part }) => part === 'corner-slope-2x2-45');
  expect(corners.slice(0, 4).map(({ x, y, turn }) => [x, y, turn])).toEqual([
    [0, 0, 225],
    [14, 0, 315],
    [0, 10, 135],
    [14, 10, 45],
  ]);
  expect(corners).toHaveLength(20);
  expect(roof.filter(({ z, part }) => z === 33 && part.startsWith('plate'))).toMatchObject([
    { part: 'plate-2x6', x: 5, y: 5, w: 6, d: 2 },
  ]);
  // From the south: corners at both ends fall out, slopes between them.
  const south = elevationOf(plot, 's').pieces.filter(({ z, part }) => z === 18 && /slope/.test(part));
  expect(
    south.map(({ left, falls }) => [left, falls]).toSorted((a, b) => Number(a[0]) - Number(b[0])),
  ).toEqual([
    [0, 'left'],
    [2, undefined],
    [6, undefined],
    [10, undefined],
    [14, 'right'],
  ]);
});

test.each(['gable', 'hip'])(
  'a mansard by hand (%s): two courses of 65°, then what 45° find room for',
  (roofForm) => {
    const given = { w: 16, d: 12, height: 40, eaves: 18, slope: 'slope-2x2-45', roofForm };
    const plot = plotOf({ ...given, lowerSlope: 'slope-2x2x2-65', lowerCourses: 2 });
    // Two studs in and 12 plates up; over the 8 studs left three courses of 45°, 9 plates, and 2 studs of plates.
    expect(slopedRoofOf(plot)).toMatchObject({
      ...{ courses: 5, ridge: 18 + 12 + 9 + 1 },
      pitches: [
        { slope: { angle: 65 }, courses: 2 },
        { slope: { angle: 45 }, courses: 3 },
      ],
    });
    const slopes = buildingPieces(plot).filter(({ part }) => part.includes('slope'));
    const firstAt = (z: number) => Math.min(...slopes.filter((one) => one.z === z).map(({ y }) => y));
    expect([...new Set(slopes.map(({ z }) => z))].toSorted((a, b) => a - b)).toEqual([18, 24, 30, 33, 36]);
    expect([18, 24, 30, 33, 36].map(firstAt)).toEqual([0, 1, 2, 3, 4]);
    const bricks = slopes.reduce((sum, { w, d, h }) => sum + w * d * h, 0);
    // By studs and plates: a gable has two rows of 16 × 2 a course; a hip a ring of two studs' width.
    const ring = (inset: number) => (16 - 2 * inset) * (12 - 2 * inset) - (12 - 2 * inset) * (8 - 2 * inset);
    expect(bricks).toBe(
      roofForm === 'gable'
        ? 2 * 64 * 6 + 3 * 64 * 3
        : 6 * (ring(0) + ring(1)) + 3 * (ring(2) + ring(3) + ring(4)),
    );
    // More courses than find room are not laid; a slope that carries no other makes no mansard.
    expect(slopedRoofOf(plotOf({ ...given, lowerSlope: 'slope-2x2x2-65', lowerCourses: 40 }))).toMatchObject({
      pitches: [{ courses: 5 }],
    });
    expect(slopedRoofOf(plotOf({ ...given, lowerSlope: 'slope-1x1x2p-30' }))?.pitches).toHaveLength(1);
    // Under it there is room up to the lowest course that reaches so far in, in the middle up to the plates on top.
    const fittings = [0, 1, 2, 3.5, 5].map((fromWall) => ({ name: `${fromWall}`, height: 1, fromWall }));
    const under = plotOf({ ...given, lowerSlope: 'slope-2x2x2-65', lowerCourses: 2, fittings });
    expect(plotCard(under, 42).clearances.map(({ ceiling }) => ceiling)).toEqual([18, 24, 30, 33, 39]);
  },
);

test('under every roof of slopes there is as much room as its card says, wherever a pole of a stud stands', () => {
  const plot = fc.record({
    w: fc.integer({ min: 5, max: 20 }),
    d: fc.integer({ min: 5, max: 20 }),
    height: fc.integer({ min: 20, max: 60 }),
    wall: fc.integer({ min: 1, max: 2 }),
    eaves: fc.integer({ min: 6, max: 20 }),
    front: fc.constantFrom('n', 'e', 's', 'w'),
    roofForm: fc.constantFrom('gable', 'hip', 'lean-to'),
    slope: fc.option(fc.constantFrom('slope-2x2-45', 'slope-1x3-33', 'slope-2x2x3-75')),
    lowerSlope: fc.option(fc.constantFrom('slope-2x2x2-65', 'slope-1x3-33')),
    lowerCourses: fc.integer({ min: 1, max: 4 }),
  });
  fc.assert(
    fc.property(plot, (given) => {
      const { w, d, wall } = given;
      const at = filledBy(buildingPieces(plotOf({ ...given, storeys: 1 })));
      const places = Array.from({ length: (w - 2 * wall) * (d - 2 * wall) }, (_, i) => ({
        ...{ x: i % (w - 2 * wall), y: Math.trunc(i / (w - 2 * wall)), w: 1, d: 1 },
      }));
      const fittings = places.slice(0, 40).map((place, i) => ({
        ...{ name: `Pole ${i}`, on: 0, height: 1, use: 'stair', place },
      }));
      const { clearances } = plotCard(plotOf({ ...given, storeys: 1, fittings }), 40);
      const wrong = fittings.flatMap(({ place }, i) => {
        let laid = given.eaves;
        while (laid < 200 && at(place.x + wall, place.y + wall, laid) === 0) laid++;
        const { ceiling } = clearances[i];
        return ceiling === laid ? [] : [`at ${place.x}, ${place.y}: ${ceiling} for ${laid}`];
      });
      expect(wrong).toEqual([]);
    }),
    { numRuns: runs(30) },
  );
});

test('a roof of one side by hand: 12 studs less a wall and the first slope leave room for ten courses of 45°', () => {
  const plot = plotOf({
    ...{ w: 16, d: 12, height: 50, eaves: 18, slope: 'slope-2x2-45', roofForm: 'lean-to', front: 's' },
  });
  expect(slopedRoofOf(plot)).toMatchObject({ courses: 10, flat: 2, ridge: 18 + 30 + 1 });
  const pieces = buildingPieces(plot);
  const slopes = pieces.filter(({ part }) => part.startsWith('slope'));
  expect([...new Set(slopes.map(({ y, turn }) => `${y} ${turn}`))].slice(0, 2)).toEqual(['10 90', '9 90']);
  // The wall at the back rises with it; between the slope's back and that the ends are walled.
  const first = pieces.filter(({ use, z }) => use === 'wall' && z === 18);
  expect(studsOf(first)).toBe(16 + 2 * (12 - 2 - 1));
  // Fallen to the east it is as deep as the building is wide, and so its back is to the west.
  const east = plotOf({
    w: 12,
    d: 16,
    height: 50,
    eaves: 18,
    slope: 'slope-2x2-45',
    roofForm: 'lean-to',
    front: 'e',
  });
  const turned = buildingPieces(east).filter(({ part }) => part.startsWith('slope'));
  expect([...new Set(turned.map(({ x, turn }) => `${x} ${turn}`))].slice(0, 2)).toEqual(['10 0', '9 0']);
});

test('a building raised to meet another ends as high, roof and all', () => {
  const given = fc.record({
    w: fc.integer({ min: 5, max: 20 }),
    d: fc.integer({ min: 5, max: 20 }),
    height: fc.integer({ min: 12, max: 60 }),
    storeys: fc.integer({ min: 1, max: 3 }),
    eaves: fc.option(fc.integer({ min: 8, max: 40 })),
    roofForm: fc.constantFrom('gable', 'hip', 'lean-to'),
  });
  fc.assert(
    fc.property(given, fc.integer({ min: -12, max: 30 }), (own, by) => {
      const plot = plotOf({ ...own, eaves: own.eaves === null ? null : Math.min(own.eaves, own.height) });
      const high = elevationOf(plot, 's').high;
      expect(structures.ridgeOf(plot)).toBe(high);
      const raised = structures.raisedBy(plot, by);
      if (raised) expect(elevationOf({ ...plot, ...raised }, 's').high).toBe(high + by);
      else expect((plot.eaves ?? plot.height) + by).toBeLessThan(1);
    }),
    { numRuns: runs(60) },
  );
});

test('a pavement of 8 studs: a light row, dark ones of 1, 2, 2 and 1, a light row (common practice, no source)', () => {
  const rows = (depth: number) =>
    structures.pavementRows(depth).map(({ deep, isLight }) => (isLight ? 'L' : deep));
  expect(rows(8)).toEqual(['L', 1, 2, 2, 1, 'L']);
  for (let depth = 0; depth < 40; depth++)
    expect(structures.pavementRows(depth).reduce((sum, { deep }) => sum + deep, 0)).toBe(depth);
  const pieces = buildingPieces(plotOf({ w: 32, d: 32, streetFront: true, pavement: 8 }));
  const paved = pieces.filter(({ use }) => use === 'pavement');
  const tiles = paved.filter(({ part }) => part.startsWith('tile'));
  // From the building at 24 studs to the street at 32.
  expect([...new Set(tiles.map(({ y, colour }) => `${y} ${colour}`))]).toEqual([
    ...['24 mist', '25 slate', '26 slate', '28 slate', '30 slate', '31 mist'],
  ]);
  expect(studsOf(tiles.filter(({ colour }) => colour === 'slate'))).toBe(32 * 6);
  // In the outer row a grille 6 studs from either side, and the lamp at the right end: seven rounds and a light on a plate.
  const kerb = paved.filter(({ y, z }) => y === 31 && z === 0).toSorted((p, q) => p.x - q.x);
  expect(kerb.flatMap(({ part, x, w }) => (part.startsWith('tile') ? [] : `${part} ${x} ${w}`))).toEqual([
    ...['grille-1x2 6 2', 'grille-1x2 24 2', 'plate-1x1 31 1'],
  ]);
  expect(studsOf(kerb)).toBe(32);
  expect(paved.filter(({ z }) => z > 0).map(({ part, x, z }) => `${part} ${x} ${z}`)).toEqual([
    ...Array.from({ length: 7 }, (_, k) => `round-1x1 31 ${1 + 3 * k}`),
    'light-1x1 31 22',
  ]);
  // Its lamp is at the right end as seen from the street: from the north that is the west.
  const north = buildingPieces(plotOf({ w: 32, d: 32, streetFront: true, pavement: 8, front: 'n' }));
  expect(north.find(({ part }) => part === 'light-1x1')).toMatchObject({ x: 0, y: -8 });
  expect(pieces.every(({ part }) => isListed(part))).toBe(true);
});

test('connectors: a brick of two studs at 9 and at 21 of 32 from the front on both sides (common practice: 9 + 2 + 10 + 2 + 9)', () => {
  const placed = (more: object) =>
    buildingPieces(plotOf({ w: 32, d: 32, streetFront: true, pavement: 8, height: 30, ...more }))
      .filter(({ part }) => part === 'mechanical-1x2')
      .map(({ x, y, z }) => `${x} ${y} ${z}`)
      .toSorted();
  // Counted from the north of what is built: 32 − 11 and 32 − 23.
  expect(placed({})).toEqual(['0 21 1', '0 9 1', '31 21 1', '31 9 1']);
  // With the pavement to the north what is built begins 8 studs further south.
  expect(placed({ front: 'n' })).toEqual(['0 1 1', '0 13 1', '31 1 1', '31 13 1']);
  expect(placed({ connectors: 'none' })).toEqual([]);
  expect(placed({ d: 24 })).toEqual([]);
  // Through a wall of two studs go two of them; a door in its place keeps it.
  expect(placed({ wall: 2 })).toHaveLength(8);
  const door = { side: 'e', storey: 1, bays: [{ wide: 7 }, { wide: 4, part: 'door-4x1' }, { wide: 13 }] };
  expect(placed({ bays: [door] })).toHaveLength(4);
  expect(
    placed({ bays: [{ ...door, bays: [{ wide: 2 }, { wide: 4, part: 'door-4x1' }, { wide: 18 }] }] }),
  ).toHaveLength(3);
});

test('walls, roof and what is let in take their colours; what is hidden takes any', () => {
  const plot = plotOf({
    ...{ w: 24, d: 20, height: 30, eaves: 18, wallColour: 'rust', roofColour: 'slate', letInColour: 'chalk' },
    bays: [{ side: 's', storey: 1, bays: [{ wide: 8, part: 'window-2x1', sill: 1 }] }],
  });
  const colours = (pattern: RegExp) =>
    [
      ...new Set(shellPieces(plot).flatMap(({ part, colour }) => (pattern.test(part) ? colour : []))),
    ].toSorted();
  expect(colours(/^slope/)).toEqual(['slate']);
  expect(colours(/^window/)).toEqual(['chalk']);
  expect(colours(/^brick/)).toEqual(['rust']);
  // Plates: of the floor any, on the walls rust, on the ridge slate.
  expect(colours(/^plate/)).toEqual(['any', 'rust', 'slate']);
  expect(buildingPieces(plot).filter(({ use, colour }) => use === 'floor' && colour !== 'any')).toEqual([]);
});

test('walls of sides that nobody sees are of any colour, but for what shows round a corner', () => {
  const courses = (bareSides: string[]) => {
    const pieces = buildingPieces(plotOf({ wallColour: 'ochre', bareSides }));
    return [1, 4, 7, 10, 13].map((z) =>
      studsOf(bricksAt(pieces, z).filter(({ colour }) => colour === 'any')),
    );
  };
  // A side is 8 studs long in one course, in two bricks that both end at a corner, and 6 between corners in the next.
  const north = courses(['n']);
  expect(new Set(north)).toEqual(new Set([0, 6]));
  expect(north.every((studs, i) => i === 0 || studs !== north[i - 1])).toBe(true);
  expect(courses(['n', 'e', 's', 'w'])).toEqual([28, 28, 28, 28, 28]);
  expect(courses([])).toEqual([0, 0, 0, 0, 0]);
});

describe('parts that lift off', () => {
  test('courses end at the joint, under a row of tiles (common practice, no source)', () => {
    // 18 plates less the floor's one; the upper 6 lift off at 12: 3 bricks and 2 plates below, 2 bricks above.
    const pieces = buildingPieces(plotOf({ parts: [{ name: 'Top', height: 6 }] }));
    const layers = (use: string) => [
      ...new Set(pieces.filter((one) => one.use === use).map(({ part, z }) => `${z} ${part.split('-')[0]}`)),
    ];
    expect(layers('wall')).toEqual([
      '1 brick',
      '4 brick',
      '7 brick',
      '10 plate',
      '11 tile',
      '12 brick',
      '15 brick',
    ]);
    // Where whole bricks end at it, three plates stand for the last of them.
    const even = buildingPieces(plotOf({ height: 19, parts: [{ name: 'Top', height: 6 }] }));
    const walls = even.filter(({ use }) => use === 'wall').map(({ part, z }) => `${z} ${part.split('-')[0]}`);
    expect([...new Set(walls)].slice(0, 6)).toEqual([
      '1 brick',
      '4 brick',
      '7 brick',
      '10 plate',
      '11 plate',
      '12 tile',
    ]);
    // A roof of slopes lifts off its eaves.
    const roofed = plotOf({
      w: 16,
      d: 12,
      height: 33,
      eaves: 18,
      parts: [{ name: 'Roof', use: 'roof', height: 15 }],
    });
    expect(buildingPieces(roofed).filter(({ use, z }) => use === 'wall' && z === 17)).not.toEqual([]);
    expect(
      buildingPieces(roofed).every(
        ({ use, z, part }) => use !== 'wall' || z !== 17 || part.startsWith('tile'),
      ),
    ).toBe(true);
  });
  test('an opening lies on one side of the joint, in the courses over it', () => {
    const faultOf = (height: number, sill: number, whole = 60) =>
      frontsOf(
        plotOf({
          ...{ w: 24, d: 24, height: whole, parts: [{ name: 'Upper half', height }] },
          bays: [{ side: 's', storey: 1, bays: [{ wide: 8, part: 'window-2x1', sill }] }],
        }),
      )[0].bays[0].fault;
    // Walls from 1; a window of 3 courses. The joint lies at 60 less the part's height.
    expect(faultOf(30, 0)).toBeNull();
    expect(faultOf(50, 1)).toBe('“Upper half” lifts off at 3b1p, through it');
    expect(faultOf(50, 3)).toBeNull();
    // Over a joint at 9 its courses begin there: a sill at 10 goes up to 12. Under the roof there may be no room for that.
    expect(faultOf(51, 3)).toBeNull();
    expect(faultOf(49, 16, 58)).toBe('over the joint at 3b it is 2 plates too tall');
  });
  test('no piece reaches over a joint, and every stud of the walls is there', () => {
    const given = fc.record({
      w: fc.integer({ min: 5, max: 16 }),
      d: fc.integer({ min: 5, max: 16 }),
      height: fc.integer({ min: 8, max: 50 }),
      storeys: fc.integer({ min: 0, max: 3 }),
      wall: fc.integer({ min: 1, max: 3 }),
      heights: fc.array(fc.integer({ min: 1, max: 20 }), { minLength: 1, maxLength: 4 }),
    });
    fc.assert(
      fc.property(given, ({ heights, ...more }) => {
        const plot = plotOf({ ...more, parts: heights.map((height, i) => ({ name: `Part ${i}`, height })) });
        const joints = structures.partJoints(plot);
        const pieces = buildingPieces(plot);
        const at = filledBy(pieces);
        const wrong = pieces.filter(
          ({ z, h, part }) => !isListed(part) || joints.some((joint) => z < joint.z && z + h > joint.z),
        );
        expect(wrong).toEqual([]);
        let open = 0;
        for (const { from, to } of storeysOf(plot))
          for (let z = from; z < to; z++) for (let x = 0; x < more.w; x++) if (at(x, 0, z) === 0) open++;
        expect(open).toBe(0);
      }),
      { numRuns: runs(20) },
    );
  });
});

describe('fronts in bays', () => {
  const bay = (wide: number, part: string | null = null, more: object = {}) => ({ wide, part, ...more });
  const front = (side: string, bays: object[], storey = 1) => ({ side, storey, bays });
  const faults = (more: object) =>
    frontsOf(plotOf(more)).flatMap(({ bays }) => bays.flatMap(({ fault }) => fault ?? []));

  test('three bays of 8 on a front of 24: a door and two windows stand in the middle of theirs, as seen from outside', () => {
    const bays = [bay(8, 'door-4x1'), bay(8, 'window-2x1', { sill: 2 }), bay(8, 'window-4x1', { sill: 2 })];
    const of = (side: string) => {
      const plot = plotOf({ w: 24, d: 24, height: 30, bays: [front(side, bays)] });
      const pieces = buildingPieces(plot).filter(({ part }) => /door|window/.test(part));
      return pieces.map(({ part, x, y, w, d, z, turn }) => [part, x, y, w, d, z, turn]);
    };
    // From the south the left is west: doors 4 of 8 from 2, windows 2 of 8 from 8 + 3, 4 of 8 from 16 + 2.
    expect(of('s')).toEqual([
      ['door-4x1', 2, 23, 4, 1, 1, 90],
      ['window-2x1', 11, 23, 2, 1, 7, 90],
      ['window-4x1', 18, 23, 4, 1, 7, 90],
    ]);
    // From the north the left is east: 24 − 2 − 4, 24 − 11 − 2, 24 − 18 − 4.
    expect(of('n').map(([part, x, y, , , , turn]) => [part, x, y, turn])).toEqual([
      ['door-4x1', 18, 0, 270],
      ['window-2x1', 11, 0, 270],
      ['window-4x1', 2, 0, 270],
    ]);
    // From the west the left is north, from the east it is south.
    expect(of('w').map(([, x, y]) => [x, y])).toEqual([
      [0, 2],
      [0, 11],
      [0, 18],
    ]);
    expect(of('e').map(([, x, y]) => [x, y])).toEqual([
      [23, 18],
      [23, 11],
      [23, 2],
    ]);
  });
  test('what does not fit says by how much, and leaves the wall plain', () => {
    const one = (given: object, more: object = {}) =>
      faults({ w: 24, d: 24, height: 30, ...more, bays: [front('s', [given])] });
    expect(one(bay(8, 'window-2x1', { sill: 2 }))).toEqual([]);
    // 30 plates less the floor are 9 courses.
    expect(one(bay(8, 'door-4x1', { sill: 4 }))).toEqual(['it needs 10 courses, the storey has 9']);
    expect(one(bay(3, 'door-4x1'))).toEqual(['door 4×1×6 is 4 studs wide, the bay 3']);
    expect(one(bay(8, 'brick-2x4'))).toEqual(['brick 2×4 is no window, door or arch']);
    expect(one(bay(30, 'door-4x1'))).toEqual(['the bays are 6 studs wider than the front']);
    expect(one(bay(4, 'door-4x1'), { w: 4 })).toEqual(['it stands within 1 stud of the corner']);
    expect(one(bay(8, 'door-4x1'), { mayCut: true, cutAt: [{ across: 'x', at: 12 }] })).toEqual([
      'a seam may cut the building through it, 12 studs from its west wall',
    ]);
    // Seams are counted from the plot: behind 8 studs of pavement in the west a front of 16 has its middle at 16.
    const paved = { streetFront: true, front: 'w', pavement: 8, mayCut: true };
    expect(one(bay(8, 'door-4x1'), { ...paved, cutAt: [{ across: 'x', at: 8 }] })).toEqual([]);
    expect(one(bay(8, 'door-4x1'), { ...paved, cutAt: [{ across: 'x', at: 16 }] })).toHaveLength(1);
    expect(faults({ w: 24, d: 24, height: 30, bays: [front('s', [bay(8, 'door-4x1')], 2)] })).toEqual([
      'there are walls of 1 storey',
    ]);
    expect(one(bay(8, 'arch-1x4', { high: 1 }))).toEqual([]);
    // Walls end at the eaves: of 18 plates the floor leaves 5 courses.
    expect(one(bay(8, 'door-4x1'), { eaves: 18 })).toEqual(['it needs 6 courses, the storey has 5']);
  });
  test('bays that leave a rest tell it, and an odd opening in an even bay stands half a stud off', () => {
    const [card] = frontsOf(
      plotOf({ w: 25, d: 24, height: 30, bays: [front('s', [bay(8), bay(8, 'window-1x1x2'), bay(8)])] }),
    );
    expect([card.left, card.bays[0].left, card.bays[1].isOff, card.bays[1].opening?.from]).toEqual([
      1,
      0,
      true,
      11,
    ]);
  });

  const parts = [
    'window-1x1x2',
    'window-2x1',
    'window-4x2',
    'door-4x1',
    'door-2x1',
    'arch-1x4',
    'arch-1x6x2',
    null,
  ];
  const anyBay = fc.record({
    wide: fc.integer({ min: 1, max: 9 }),
    part: fc.constantFrom(...parts),
    sill: fc.integer({ min: 0, max: 4 }),
    high: fc.integer({ min: 1, max: 7 }),
  });
  const anyFronts = fc.uniqueArray(
    fc.record({
      side: fc.constantFrom('n', 'e', 's', 'w'),
      storey: fc.integer({ min: 1, max: 3 }),
      bays: fc.array(anyBay, { minLength: 1, maxLength: 5 }),
    }),
    { selector: ({ side, storey }) => `${side} ${storey}`, maxLength: 8 },
  );
  test('each stud of walls, floors, roof and pavement is filled once but for openings, and no joint runs on but at them', () => {
    const plot = fc.record({
      w: fc.integer({ min: 3, max: 24 }),
      d: fc.integer({ min: 3, max: 24 }),
      height: fc.integer({ min: 4, max: 60 }),
      storeys: fc.integer({ min: 0, max: 4 }),
      wall: fc.integer({ min: 1, max: 3 }),
      streetFront: fc.boolean(),
      bays: anyFronts,
      storeyHeights: fc.array(fc.option(fc.integer({ min: 1, max: 30 })), { maxLength: 4 }),
      eaves: fc.option(fc.integer({ min: 0, max: 60 })),
      front: fc.constantFrom('n', 'e', 's', 'w'),
      roofForm: fc.constantFrom('gable', 'hip', 'lean-to'),
      slope: fc.option(fc.constantFrom('slope-2x2-45', 'slope-1x3-33', 'slope-2x2x3-75', 'slope-1x1x2p-30')),
      lowerSlope: fc.option(fc.constantFrom('slope-2x2x2-65', 'slope-1x3-33', 'slope-2x2x3-75')),
      lowerCourses: fc.integer({ min: 1, max: 5 }),
      // With bricks of two studs at most some joints cannot be turned aside.
      wallBrick: fc.integer({ min: 3, max: 4 }),
      scored: fc.constantFrom(0, 30, 100),
    });
    fc.assert(
      fc.property(plot, (given) => {
        const own = plotOf({ ...given, pavement: 2, front: given.streetFront ? 's' : given.front });
        const [w, d] = [given.w, given.streetFront ? given.d - 2 : given.d];
        const pieces = buildingPieces(own);
        for (const { part } of pieces) expect(isListed(part)).toBe(true);
        const at = filledBy(pieces);
        const holes = frontsOf(own).flatMap(({ bays }) => bays.flatMap(({ opening }) => opening ?? []));
        const deepOf = (side: string, x: number, y: number) =>
          ({ n: y, s: d - 1 - y, w: x, e: w - 1 - x })[side] ?? 0;
        const alongOf = (side: string, x: number, y: number) => (side === 'n' || side === 's' ? x : y);
        const holeAt = (x: number, y: number, z: number) =>
          holes.find(
            ({ side, from, wide, foot, top, part }) =>
              deepOf(side, x, y) < (part.family === 'arch' ? given.wall : Math.max(given.wall, part.d)) &&
              alongOf(side, x, y) >= from &&
              alongOf(side, x, y) < from + wide &&
              z >= foot &&
              z < top,
          );
        const wrong: string[] = [];
        const see = (what: string, x: number, y: number, z: number, wanted: boolean) => {
          if (at(x, y, z) > 0 !== wanted) wrong.push(`${what} ${x}, ${y}, ${z}`);
        };
        const top = wallTop(own);
        for (let y = 0; y < given.d; y++)
          for (let x = 0; x < w; x++) {
            if (y >= d) {
              see('pavement', x, y, 0, true);
              continue;
            }
            // The roof is closed: plates at its flat top, or something of it over every stud.
            const over = Array.from({ length: 220 }, (_, up) => at(x, y, top + up)).filter(
              (piece) => piece > 0,
            );
            if (given.eaves === null) see('roof', x, y, top, true);
            else if (!over.some((piece) => pieces[piece - 1].use === 'roof'))
              wrong.push(`open over ${x}, ${y}`);
            const isWall = Math.min(x, y, w - 1 - x, d - 1 - y) < given.wall;
            for (const { level, hasFloor, from, to } of storeysOf(own)) {
              if (hasFloor) see('floor', x, y, level, true);
              for (let z = from; z < to; z++) {
                const hole = holeAt(x, y, z);
                if (!hole) {
                  // Inside stand pillars of 2 × 2, or nothing.
                  const inside = isWall ? 0 : at(x, y, z);
                  if (inside === 0) see('wall', x, y, z, isWall);
                  else if (!/^(brick|plate)-(2x2|1x1)$/.test(pieces[inside - 1].part))
                    wrong.push(`${x}, ${y}, ${z}`);
                  continue;
                }
                // A frame fills its own depth; under an arch its middle is free, and an arch is as deep as the wall.
                const isArch = hole.part.family === 'arch';
                const off = alongOf(hole.side, x, y) - hole.from;
                const isJamb = isArch && (off === 0 || off === hole.wide - 1);
                const fills = isArch
                  ? isJamb || z >= hole.top - hole.part.h
                  : deepOf(hole.side, x, y) < hole.part.d;
                see(`opening of ${hole.side}`, x, y, z, fills);
              }
            }
          }
        // Every plate of a floor or roof over air, and every slope, lies on a wall, a pillar or the course below.
        for (const { part, x, y, z, w: wide, d: deep } of pieces) {
          if (!/^(plate|slope|corner)/.test(part) || z === 0) continue;
          let borne = false;
          for (let k = 0; k < wide * deep; k++)
            borne ||= at(x + (k % wide), y + Math.trunc(k / wide), z - 1) > 0;
          if (!borne) wrong.push(`${part} at ${x}, ${y}, ${z} lies on nothing`);
        }
        // Through joints: of walls of one stud or two, away from the sides of openings.
        const isLine = given.wall <= 2 && w > 2 * given.wall && d > 2 * given.wall;
        const isEdge = (x: number, y: number, next: 'x' | 'y') =>
          holes.some(({ side, from, wide }) => {
            const isX = side === 'n' || side === 's';
            if (isX !== (next === 'x') || deepOf(side, x, y) >= given.wall) return false;
            const joint = alongOf(side, x, y) + 1;
            return joint >= from - 1 && joint <= from + wide + 1;
          });
        for (const { from, courses } of isLine ? storeysOf(own) : [])
          for (let course = 0; course + 1 < courses; course++)
            for (let y = 0; y < d; y++)
              for (let x = 0; x < w; x++)
                for (const next of ['x', 'y'] as const) {
                  const [nx, ny] = next === 'x' ? [x + 1, y] : [x, y + 1];
                  const pair = [0, 3].map((up) => {
                    const z = from + 3 * course + up;
                    return [at(x, y, z), at(nx, ny, z)];
                  });
                  const areWall = [
                    [x, y],
                    [nx, ny],
                  ].every(([a, b]) => Math.min(a, b, w - 1 - a, d - 1 - b) < given.wall);
                  const isThrough = areWall && pair.every(([a, b]) => a > 0 && b > 0 && a !== b);
                  const isFill = [0, 3].some(
                    (up) => holeAt(x, y, from + 3 * course + up) && holeAt(nx, ny, from + 3 * course + up),
                  );
                  if (isThrough && !isFill && !isEdge(x, y, next))
                    wrong.push(`joint at ${x}, ${y} of course ${course}`);
                }
        expect(wrong.slice(0, 5)).toEqual([]);
        expect(partOf(pieces[0].part)).not.toBeNull();
      }),
      { numRuns: runs(30) },
    );
  });
});

test('colours mixed into walls and roof: as many pieces as their percentages make, the others stay as they are', () => {
  const given = {
    ...{ w: 24, d: 20, height: 40, eaves: 30, storeys: 2, wallColour: 'rust', roofColour: 'slate' },
    mixes: [
      { of: 'wall', colour: 'ochre', percent: 12.5 },
      { of: 'wall', colour: 'mist', percent: 5 },
      { of: 'roof', colour: 'moss', percent: 40 },
    ],
  };
  const plain = buildingPieces(plotOf({ ...given, mixes: [] }));
  const mixed = buildingPieces(plotOf(given));
  expect(mixed.map(({ part, x, y, z }) => [part, x, y, z])).toEqual(
    plain.map(({ part, x, y, z }) => [part, x, y, z]),
  );
  const share = (use: string, colour: string) => {
    const own = mixed.filter((piece) => piece.use === use);
    return (100 * own.filter((piece) => piece.colour === colour).length) / own.length;
  };
  const near = (use: string) => 100 / mixed.filter((piece) => piece.use === use).length;
  for (const { of, colour, percent } of given.mixes)
    expect(Math.abs(share(of, colour) - percent)).toBeLessThan(near(of));
  expect(Math.abs(share('wall', 'rust') - 82.5)).toBeLessThan(near('wall'));
  expect(mixed.filter(({ use, colour }) => use !== 'wall' && use !== 'roof' && colour !== 'any')).toEqual([]);
  // Spread evenly: each side of the building has some of it, each half of its height too.
  const ochre = mixed.filter(({ colour }) => colour === 'ochre');
  for (const part of [
    ochre.filter(({ y }) => y === 0),
    ochre.filter(({ y, d }) => y + d === 20),
    ochre.filter(({ x }) => x === 0),
    ochre.filter(({ z }) => z < 15),
    ochre.filter(({ z }) => z >= 15),
  ])
    expect(part.length).toBeGreaterThan(3);
  // The list of its pieces has them so.
  const listed = shellPieces(plotOf(given)).reduce(
    (sum, { colour, qty }) => sum + (colour === 'ochre' ? qty : 0),
    0,
  );
  expect(listed).toBe(ochre.length);
  expect(() =>
    plotOf({ mixes: [60, 50].map((percent) => ({ of: 'wall', colour: 'moss', percent })) }),
  ).toThrow();
});

test('walls of short bricks show more joints; of their bricks 1 × 2 as many are scored as are asked for, none where nobody sees', () => {
  const wallsOf = (more: object) =>
    buildingPieces(plotOf({ w: 16, d: 12, height: 18, ...more })).filter(({ use }) => use === 'wall');
  const longest = (pieces: readonly LaidPiece[]) => Math.max(...bricksOnly(pieces).map(({ w, d }) => w * d));
  const bricksOnly = (pieces: readonly LaidPiece[]) => pieces.filter(({ part }) => part.includes('brick'));
  for (const wallBrick of [1, 2, 3, 4]) {
    const walls = wallsOf({ wallBrick });
    expect(longest(walls)).toBe(wallBrick);
    expect(studsOf(walls)).toBe(studsOf(wallsOf({})));
  }
  const isPair = ({ part }: LaidPiece) => part === 'brick-1x2';
  const isScored = ({ part }: LaidPiece) => part === 'scored-brick-1x2';
  const plain = wallsOf({ wallBrick: 2 });
  const pairs = plain.filter(isPair).length;
  expect(pairs).toBeGreaterThan(100);
  for (const scored of [12.5, 40, 100]) {
    const walls = wallsOf({ wallBrick: 2, scored });
    expect(walls.filter(isScored)).toHaveLength(Math.round((pairs * scored) / 100));
    // Nothing else of the wall is another.
    expect(walls.map(({ part, ...rest }) => ({ ...rest, part: part.replace('scored-', '') }))).toEqual(plain);
  }
  // Thick walls and round ones too.
  for (const more of [
    { wall: 3 },
    { shape: 'round', w: 14, d: 14 },
    { notches: [{ corner: 'ne', w: 5, d: 5 }] },
  ])
    for (const wallBrick of [1, 2, 3]) {
      const walls = wallsOf({ ...more, wallBrick });
      expect(Math.max(...bricksOnly(walls).map(({ w, d }) => Math.max(w, d)))).toBe(wallBrick);
      expect(studsOf(walls)).toBe(studsOf(wallsOf(more)));
    }
  // A texture of both: a quarter scored, a half studded, the rest smooth; more than all is shared.
  const isStudded = ({ part }: LaidPiece) => part === 'side-stud-brick-1x2';
  for (const [scored, sideStudded, rough, studded] of [
    [25, 50, 0.25, 0.5],
    [0, 100, 0, 1],
    [100, 100, 0.5, 0.5],
  ]) {
    const walls = wallsOf({ wallBrick: 2, scored, sideStudded });
    expect(Math.abs(walls.filter(isScored).length - rough * pairs)).toBeLessThan(1);
    expect(Math.abs(walls.filter(isStudded).length - studded * pairs)).toBeLessThan(1);
    expect(
      walls.map(({ part, ...rest }) => ({ ...rest, part: part.replace(/^(scored-|side-stud-)/, '') })),
    ).toEqual(plain);
  }
  const bare = wallsOf({ wallBrick: 2, scored: 100, bareSides: ['n'] }).filter(isScored);
  expect(bare.length).toBeGreaterThan(0);
  // A brick along the north wall shows at a corner at most.
  expect(bare.every(({ x, y, w }) => y > 0 || x === 0 || x + w === 16)).toBe(true);
  expect(shellPieces(plotOf({ w: 16, d: 12, height: 18, wallBrick: 2, scored: 100 }))).toContainEqual({
    ...{ part: 'scored-brick-1x2', colour: 'any', qty: pairs },
  });
});
test('a recess that is removed takes its bays along; those of later ones keep theirs', () => {
  const recess = { side: 'n' as const, at: 4, wide: 4, deep: 4 };
  const front = (number: number | null) => ({
    ...{ side: 'e' as const, recess: number, storey: 1 },
    bays: [{ wide: 4, part: null, sill: 0, high: 6 }],
  });
  const recesses = [recess, { ...recess, at: 12 }, { ...recess, at: 20 }];
  const bays = [null, 1, 2, 3].map(front);
  expect(structures.withoutRecess({ recesses, bays }, 1)).toEqual({
    recesses: [recesses[0], recesses[2]],
    bays: [null, 1, 2].map(front),
  });
});
test('the bays of a side go to another building, its other sides stay', () => {
  const front = (side: 'n' | 's', storey: number, wide: number) => ({
    ...{ side, recess: null, storey },
    bays: [{ wide, part: null, sill: 0, high: 6 }],
  });
  const own = [front('s', 1, 8), front('s', 2, 6), front('n', 1, 4)];
  const other = [front('s', 1, 3), front('s', 3, 3), front('n', 2, 5)];
  expect(structures.withSideOf(other, own, 's')).toEqual([
    front('n', 2, 5),
    front('s', 1, 8),
    front('s', 2, 6),
  ]);
  expect(structures.withSideOf(other, [], 's')).toEqual([front('n', 2, 5)]);
});
