import fc from 'fast-check';
import { isListed, partOf } from '../catalogue/index.ts';
import { centreOf } from '../grid/index.ts';
import {
  builtRect,
  footStuds,
  roomStuds,
  sceneFrom,
  spacesOf,
  turnedPoint,
  wallCorners,
  wallTop,
  type Plot,
} from '../document/index.ts';
import {
  GRAMS_PER_STUD_PLATE,
  compileRelief,
  eachTouched,
  indexAt,
  plotCard,
  ringRoofOf,
  roofPlanOf,
  shellOf,
  slopedRoofOf,
  tipsOfPlot,
} from '../terrain/index.ts';
import { evaluateRules } from '../findings/index.ts';
import { spaceBudget } from '../scale/index.ts';
import { filledBy } from '../../test/filled.ts';
import { runs } from '../../test/runs.ts';
import {
  buildingPieces,
  elevationOf,
  floorPlans,
  frontsOf,
  placeOfOpening,
  recessFaces,
  ridgeOf,
  storeysOf,
} from './index.ts';

// Buildings with corners left out: L, T and Z shapes, against studs that are asked one by one.

const STREET = { pavementLight: 'any', pavementDark: 'any' };
const sceneWith = (...plots: object[]) =>
  sceneFrom({
    display: { name: 'Yard', kind: 'city' },
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 96 }],
    plots: plots.map((plot, i) => ({
      ...{ id: `p${i}`, name: `House ${i}`, x: 8, y: 8, w: 16, d: 16, height: 19, storeys: 1 },
      ...plot,
    })),
  });
const house = (more: object = {}): Plot => sceneWith(more).plot.p0;
const L = { notches: [{ corner: 'ne', w: 8, d: 8 }] };

/** A building as large as is given, with so much pavement before its front. */
function withStreet<G extends { w: number; d: number; front: string; pavement: number }>(given: G): Plot {
  const { w, d, front, pavement } = given;
  const isX = front === 'n' || front === 's';
  return house({ ...given, streetFront: true, w: isX ? w : w + pavement, d: isX ? d + pavement : d });
}

type Given = Pick<Plot, 'w' | 'd' | 'wall' | 'notches' | 'recesses'>;

type Shape = Omit<Given, 'wall'>;

/** Whether a stud lies in the rectangle and in no corner that is left out. */
const isLeft = ({ w, d, notches }: Shape, x: number, y: number): boolean =>
  x >= 0 &&
  y >= 0 &&
  x < w &&
  y < d &&
  !notches.some(({ corner, ...size }) => {
    const [across, down] = [corner.includes('w') ? x : w - 1 - x, corner.includes('n') ? y : d - 1 - y];
    return across < size.w && down < size.d;
  });

/** The studs that hang together with the first of some, "x y". */
function hangingTogether(studs: ReadonlySet<string>): Set<string> {
  const found = new Set([...studs].slice(0, 1));
  for (const stud of found) {
    const [x, y] = stud.split(' ').map(Number);
    for (const near of [`${x - 1} ${y}`, `${x + 1} ${y}`, `${x} ${y - 1}`, `${x} ${y + 1}`])
      if (studs.has(near)) found.add(near);
  }
  return found;
}

/** The studs of a building stud by stud: each recess that leaves it one part and a stud at every side. */
function studsOf(given: Shape): Set<string> {
  const { w, d } = given;
  const all = Array.from({ length: w * d }, (_, i) => [i % w, Math.trunc(i / w)] as const);
  let studs = new Set(all.filter(([x, y]) => isLeft(given, x, y)).map(([x, y]) => `${x} ${y}`));
  for (const { side, at, wide, deep } of given.recesses) {
    const left = new Set(
      all
        .filter(([x, y]) => {
          const [along, behind] = { n: [x, y], s: [x, d - 1 - y], w: [y, x], e: [y, w - 1 - x] }[side];
          return !(along >= at && along < at + wide && behind < deep);
        })
        .map(([x, y]) => `${x} ${y}`)
        .filter((stud) => studs.has(stud)),
    );
    const ends = [
      ...all.filter(([x]) => x === 0 || x === w - 1),
      ...all.filter(([, y]) => y === 0 || y === d - 1),
    ];
    const sides = (of: ReadonlySet<string>) =>
      new Set(
        ends
          .filter(([x, y]) => of.has(`${x} ${y}`))
          .flatMap(([x, y]) => [x === 0 && 'w', x === w - 1 && 'e', y === 0 && 'n', y === d - 1 && 's'])
          .filter(Boolean),
      );
    if (sides(left).size === sides(studs).size && hangingTogether(left).size === left.size) studs = left;
  }
  return studs;
}

/** Whether a stud is of the building. */
const isOn = (given: Shape, x: number, y: number): boolean => {
  const studs = known.get(given) ?? studsOf(given);
  known.set(given, studs);
  return studs.has(`${x} ${y}`);
};
const known = new WeakMap<object, Set<string>>();

/** Whether a stud and all within so many of it by sides and corners are of the building. */
const isInside = (given: Given, x: number, y: number, by: number): boolean => {
  for (let v = y - by; v <= y + by; v++)
    for (let u = x - by; u <= x + by; u++) if (!isOn(given, u, v)) return false;
  return true;
};

const anyNotched = fc
  .record({
    w: fc.integer({ min: 3, max: 26 }),
    d: fc.integer({ min: 3, max: 26 }),
    height: fc.integer({ min: 4, max: 70 }),
    storeys: fc.integer({ min: 0, max: 3 }),
    wall: fc.integer({ min: 1, max: 3 }),
    eaves: fc.option(fc.integer({ min: 0, max: 50 })),
    front: fc.constantFrom('n', 'e', 's', 'w'),
    pavement: fc.constantFrom(0, 0, 3, 8),
    roofForm: fc.constantFrom('gable', 'hip', 'lean-to', 'stepped'),
    roundRoof: fc.constantFrom('cone', 'dome'),
    slope: fc.option(fc.constantFrom('slope-2x2-45', 'slope-1x3-33', 'slope-2x2x3-75')),
    lowerSlope: fc.option(fc.constantFrom('slope-2x2x2-65', 'slope-1x3-33')),
    lowerCourses: fc.integer({ min: 1, max: 4 }),
    corners: fc.uniqueArray(fc.constantFrom('nw', 'ne', 'se', 'sw'), { minLength: 0, maxLength: 4 }),
    shares: fc.array(
      fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true })),
      {
        minLength: 4,
        maxLength: 4,
      },
    ),
    stepped: fc.array(
      fc.record({
        side: fc.constantFrom('n' as const, 'e' as const, 's' as const, 'w' as const),
        at: fc.integer({ min: 0, max: 24 }),
        wide: fc.integer({ min: 1, max: 12 }),
        deep: fc.integer({ min: 1, max: 12 }),
      }),
      { maxLength: 3 },
    ),
    bays: fc.uniqueArray(
      fc.record({
        side: fc.constantFrom('n' as const, 'e' as const, 's' as const, 'w' as const),
        recess: fc.constantFrom(null, null, 1, 2),
        storey: fc.integer({ min: 1, max: 2 }),
        bays: fc.constantFrom(
          [{ wide: 4, part: 'window-2x1', sill: 1 }],
          [
            { wide: 5, part: 'window-2x1', sill: 0 },
            { wide: 4, part: 'window-2x1', sill: 1 },
          ],
        ),
      }),
      { selector: ({ side, recess, storey }) => `${side} ${recess} ${storey}`, maxLength: 6 },
    ),
  })
  .map(({ corners, shares, stepped, ...given }) => ({
    ...given,
    recesses: corners.length === 0 && stepped.length === 0 ? [IN_FRONT] : stepped,
    notches: corners.map((corner, i) => ({
      corner: corner as 'nw',
      w: Math.max(1, Math.ceil(shares[i][0] * Math.floor((given.w - 1) / 2))),
      d: Math.max(1, Math.ceil(shares[i][1] * Math.floor((given.d - 1) / 2))),
    })),
  }));
const IN_FRONT: Plot['recesses'][number] = { side: 's', at: 1, wide: 1, deep: 1 };

test('an L of 16 × 16 by hand: its outline is as long as the box’s, so a course has 60 studs and a floor 132', () => {
  const own = house(L);
  const course = buildingPieces(own, STREET).filter(({ use, z }) => use === 'wall' && z === 1);
  // 64 studs of outline, less one at each of five outer corners, more one at the inner one.
  expect(course.reduce((sum, { w, d }) => sum + w * d, 0)).toBe(60);
  expect(roomStuds(own)).toBe(16 * 16 - 8 * 8 - 60);
  expect(wallCorners(own)).toHaveLength(6);
  // A box with nothing left out is one as before.
  expect(buildingPieces(house({ notches: [] }), STREET)).toEqual(buildingPieces(house(), STREET));
});

test('what is left out at both ends of a row leaves a stud of it; a corner is left out once', () => {
  const own = house({
    notches: [
      { corner: 'nw', w: 12, d: 4 },
      { corner: 'ne', w: 12, d: 4 },
    ],
  });
  const floor = buildingPieces(own, STREET).filter(({ use }) => use === 'floor');
  const studs = floor.filter(({ y }) => y < 4).reduce((sum, { w, d, y }) => sum + w * Math.min(d, 4 - y), 0);
  expect(studs).toBe(4);
  expect(() => house({ notches: [...L.notches, ...L.notches] })).toThrow('a corner is left out once');
});

test('a U of 24 × 16 by hand: a court of 8 × 10 lengthens its outline by twice its depth', () => {
  const court: Plot['recesses'][number] = { side: 'n', at: 8, wide: 8, deep: 10 };
  const own = house({ w: 24, d: 16, recesses: [court] });
  const course = buildingPieces(own, STREET).filter(({ use, z }) => use === 'wall' && z === 1);
  // An outline of 80 and twice 10 studs, less one at each of six outer corners, more one at each of two inner ones.
  const walls = 80 + 20 - 6 + 2;
  expect(course.reduce((sum, { w, d }) => sum + w * d, 0)).toBe(walls);
  expect([footStuds(own), roomStuds(own)]).toEqual([24 * 16 - 80, 24 * 16 - 80 - walls]);
  expect(wallCorners(own)).toHaveLength(8);
  // An H, and an E whose middle wing is shorter.
  expect(wallCorners(house({ w: 24, d: 30, recesses: [court, { ...court, side: 's' }] }))).toHaveLength(12);
  const e = [
    { side: 'e', at: 4, wide: 6, deep: 12 },
    { side: 'e', at: 14, wide: 6, deep: 12 },
    { side: 'e', at: 10, wide: 4, deep: 4 },
  ];
  expect(wallCorners(house({ w: 20, d: 24, recesses: e }))).toHaveLength(12);
  // Its window looks into the court from the wall behind it, 10 studs back, and the wings have walls of their own.
  const bays = [5, 14, 5].map((wide) => ({ wide, part: 'window-2x1', sill: 1 }));
  const [front] = frontsOf(
    house({ w: 24, d: 16, recesses: [court], bays: [{ side: 'n', storey: 1, bays }] }),
  );
  expect(front.bays.map(({ opening, fault }) => opening?.back ?? fault)).toEqual([0, 10, 0]);
  // The walls across the court: ten studs each, the west one faces east, 16 studs behind the east side.
  const inCourt = { storey: 1, bays: [{ wide: 4 }, { wide: 4, part: 'window-2x1', sill: 1 }, { wide: 2 }] };
  const both = house({
    ...{ w: 24, d: 16, recesses: [court] },
    bays: [
      { side: 'e', recess: 1, ...inCourt },
      { side: 'w', recess: 1, ...inCourt },
      { side: 'n', recess: 1, ...inCourt },
      { side: 'e', recess: 2, ...inCourt },
    ],
  });
  expect(recessFaces(both)).toEqual([
    { side: 'e', recess: 1 },
    { side: 'w', recess: 1 },
  ]);
  const found = frontsOf(both).map(({ left, bays: [, { opening, fault }] }) =>
    opening ? [left, opening.back, opening.from] : fault,
  );
  // Seen from the east the north is at the right: the bays begin at the end of the court.
  expect(found).toEqual([
    'recess 1 has no wall to the north',
    [0, 16, 3],
    [0, 16, 5],
    'recess 2 has no wall to the east',
  ]);
  expect(elevationOf(both, 'e', 1)).toMatchObject({ length: 10, recess: 1, fronts: [{ recess: 1 }] });
  expect(elevationOf(both, 'e', 1).pieces.filter(({ part }) => part === 'window-2x1')).toMatchObject([
    { left: 5 },
  ]);
});

test('a street front that stands back in the middle: its pavement runs along all of it, and the court is open', () => {
  const own = house({
    ...{ w: 24, d: 24, streetFront: true, front: 's', pavement: 8 },
    recesses: [{ side: 's', at: 8, wide: 8, deep: 6 }],
  });
  const touched = Array.from({ length: 24 }, () => '.'.repeat(24));
  eachTouched(wallCorners(own), { x: 8, y: 8, w: 24, d: 24 }, (row, from, to) => {
    const line = touched[row - 8];
    touched[row - 8] = line.slice(0, from - 8) + 'x'.repeat(to - from) + line.slice(to - 8);
  });
  // Ten rows of the house behind the court, six beside it, eight of pavement.
  const [whole, beside] = ['x'.repeat(24), `${'x'.repeat(8)}${'.'.repeat(8)}${'x'.repeat(8)}`];
  expect(touched).toEqual([
    ...Array.from({ length: 10 }, () => whole),
    ...Array.from({ length: 6 }, () => beside),
    ...Array.from({ length: 8 }, () => whole),
  ]);
});

test('each stud of walls, floors and roof is filled once, every piece is borne, and the roof is closed', () => {
  fc.assert(
    fc.property(anyNotched, (given) => {
      const own = withStreet(given);
      const { w, d, wall } = given;
      const pieces = buildingPieces(own, STREET);
      expect(pieces.filter(({ part }) => !isListed(part))).toEqual([]);
      const at = filledBy(pieces);
      const openings = frontsOf(own).flatMap(({ recess, bays }) =>
        bays.flatMap(({ opening }) => (opening ? [{ ...opening, recess }] : [])),
      );
      const isOpen = (x: number, y: number, z: number) =>
        openings.some(({ side, recess: number, from, wide, foot, top }) => {
          const isX = side === 'n' || side === 's';
          const along = isX ? x : y;
          if (z < foot || z >= top || along < from || along >= from + wide) return false;
          if (number !== null) {
            // In a recess the wall that faces east or south is the one at its west or north end.
            const { at: start, wide: length } = given.recesses[number - 1];
            const off =
              side === 'e' || side === 's' ? start - 1 - (isX ? y : x) : (isX ? y : x) - start - length;
            return off >= 0 && off < wall && isOn(given, x, y);
          }
          // Within the wall: from the first stud of the building there it is as thick.
          const [u, v] = { n: [0, -1], s: [0, 1], w: [-1, 0], e: [1, 0] }[side];
          let first = 0;
          for (let k = 1; k <= Math.max(w, d); k++) if (isOn(given, x + k * u, y + k * v)) first = k;
          return first < wall && isOn(given, x, y);
        });
      const wrong: string[] = [];
      for (let y = 0; y < d; y++)
        for (let x = 0; x < w; x++) {
          const here = isOn(given, x, y);
          const isRoom = isInside(given, x, y, wall);
          for (const { level, hasFloor, from, to } of storeysOf(own)) {
            if (hasFloor && at(x, y, level) > 0 !== here) wrong.push(`floor ${x}, ${y}, ${level}`);
            for (let z = from; z < to; z++) {
              const piece = at(x, y, z);
              const use = piece > 0 ? pieces[piece - 1].use : null;
              if (isRoom) {
                if (use !== null && use !== 'pillar' && use !== 'opening')
                  wrong.push(`room ${x}, ${y}, ${z}`);
              } else if (
                use === null ? here && !isOpen(x, y, z) : !here || (use === 'wall' && isOpen(x, y, z))
              )
                wrong.push(`wall ${x}, ${y}, ${z}`);
            }
          }
          let over = 0;
          for (let z = wallTop(own); z < 220; z++) if (at(x, y, z) > 0) over++;
          if (over > 0 !== here) wrong.push(`open over ${x}, ${y}`);
        }
      // Its pavement lies before all of its front, as long as the rectangle round it.
      const { front, pavement } = given;
      for (let off = 1; off <= pavement; off++)
        for (let along = 0; along < (front === 'n' || front === 's' ? w : d); along++) {
          const [x, y] = {
            n: [along, -off],
            s: [along, d - 1 + off],
            w: [-off, along],
            e: [w - 1 + off, along],
          }[front] ?? [0, 0];
          if (at(x, y, 0) === 0) wrong.push(`no pavement at ${x}, ${y}`);
        }
      for (const { part, use, x, y, z, w: wide, d: deep, h } of pieces) {
        // A window up to the eaves of a thick wall bears no ring over its inner half: that is not looked at here.
        let borne = z === 0 || (z === wallTop(own) && openings.some(({ top: high }) => high === z));
        // A slope in an inner corner beside a flat neck hangs on its studs from what lies over it.
        const hangs = part.startsWith('valley-slope');
        for (let k = 0; k < wide * deep; k++) {
          const [u, v] = [x + (k % wide), y + Math.trunc(k / wide)];
          borne ||= at(u, v, z - 1) > 0 || (hangs && at(u, v, z + h) > 0);
        }
        if (!borne && (use === 'floor' || use === 'roof' || z >= wallTop(own)))
          wrong.push(`${part} at ${x}, ${y}, ${z} on nothing`);
      }
      expect(wrong.slice(0, 5)).toEqual([]);
      // A lamp may stand higher.
      const top = pieces.reduce(
        (high, { use, z, h }) => (use === 'pavement' ? high : Math.max(high, z + h)),
        0,
      );
      expect([ridgeOf(own), elevationOf(own, 's').high, elevationOf(own, 'e').high]).toEqual([top, top, top]);
      // Mass and its centre are those of what is laid, but for windows, pillars and studs left open in the roof.
      const open = (ringRoofOf(own)?.rings ?? []).some(({ z, outer, hole }) =>
        outer.mask.some((on, i) => on && !hole.mask[i] && at(i % w, Math.trunc(i / w), z) === 0),
      );
      if (openings.length > 0 || open) return;
      // Of the pavement its tiles, not its lamp.
      const laid = pieces.filter(({ use, z }) => use !== 'pillar' && (use !== 'pavement' || z === 0));
      const volume = laid.reduce((sum, one) => sum + one.w * one.d * one.h, 0);
      const mean = (of: (one: (typeof laid)[number]) => number) =>
        laid.reduce((sum, one) => sum + one.w * one.d * one.h * of(one), 0) / volume;
      const shell = shellOf(own);
      expect(shell.grams / GRAMS_PER_STUD_PLATE).toBeCloseTo(volume, 6);
      const [built, middle] = [builtRect(own), centreOf(own)];
      expect(shell.x).toBeCloseTo(mean(({ x, w: wide }) => x + wide / 2) + built.x - middle.x, 6);
      expect(shell.y).toBeCloseTo(mean(({ y, d: deep }) => y + deep / 2) + built.y - middle.y, 6);
    }),
    { numRuns: runs(60) },
  );
});

describe('roofs of slopes by hand, of 45° over walls 18 plates high', () => {
  const given = { height: 40, eaves: 18, slope: 'slope-2x2-45' };
  const roofed = (more: object) => house({ ...given, ...more });
  const count = (own: Plot, of: RegExp, z?: number) =>
    buildingPieces(own, STREET).filter((one) => of.test(one.part) && (z === undefined || one.z === z)).length;

  test('an L of two wings 8 wide: three courses, a corner and a valley in each, walls at both ends', () => {
    const own = roofed(L);
    expect(slopedRoofOf(own)).toMatchObject({ courses: 3, flat: 2, ridge: 18 + 9 + 1 });
    const pieces = buildingPieces(own, STREET);
    const at = (part: string) =>
      pieces.filter((one) => one.part === part).map(({ x, y, z, turn }) => [x, y, z, turn]);
    // Outside in the south-west, inside in the north-east, both a stud further in with each course.
    expect(at('corner-slope-2x2-45')).toEqual([18, 21, 24].map((z, i) => [i, 14 - i, z, 135]));
    expect(at('valley-slope-2x2-45')).toEqual([18, 21, 24].map((z, i) => [6 - i, 8 + i, z, 315]));
    // 14 + 14 studs outside, 8 + 8 inside; 13 + 13 and 9 + 9; 12 + 12 and 10 + 10.
    expect([18, 21, 24].map((z) => count(own, /^slope-/, z))).toEqual([12, 14, 12]);
    // The ridge: two arms 2 wide and 13 long that share 2 × 2.
    const top = pieces.filter(({ z, use }) => z === 27 && use === 'roof');
    expect(top.reduce((sum, { w, d }) => sum + w * d, 0)).toBe(48);
    // Each end is walled between its slopes: 4 and 2 studs wide, closed by the slopes of the last course.
    const ends = pieces.filter(({ use, z }) => use === 'wall' && z >= 18);
    const north = ends.filter(({ y, d }) => y === 0 && d === 1);
    expect(north.map(({ x, w, z }) => [x, w, z])).toEqual([
      [2, 4, 18],
      [3, 2, 21],
    ]);
    expect(ends.filter(({ x }) => x === 15).map(({ y, d, z }) => [y, d, z])).toEqual([
      [10, 4, 18],
      [11, 2, 21],
    ]);
  });

  test('hipped, its wings end in corners; a corner that is too shallow for a slope keeps it flat', () => {
    const own = roofed({ ...L, roofForm: 'hip' });
    expect(count(own, /^corner-slope/, 18)).toBe(5);
    expect(count(own, /^valley-slope/, 18)).toBe(1);
    const shallow = roofed({ notches: [{ corner: 'ne', w: 8, d: 1 }] });
    expect(slopedRoofOf(shallow)).toMatchObject({ courses: 0, ridge: 19 });
    expect(ridgeOf(shallow)).toBe(19);
    // The front alone needs a box.
    expect(buildingPieces(roofed({ ...L, roofForm: 'lean-to' }), STREET)).toEqual(
      buildingPieces(roofed(L), STREET),
    );
  });

  test('a Z whose inner corners come near each other: a flat neck parts it, and both its wings rise to their ridges', () => {
    const notches = [
      { corner: 'nw', w: 12, d: 12 },
      { corner: 'se', w: 10, d: 10 },
    ];
    const own = roofed({ w: 32, d: 32, notches });
    // Both wings are 20 wide: nine courses each, as over a box.
    expect(slopedRoofOf(own)).toMatchObject({ courses: 9, flat: 2, ridge: 18 + 27 + 1 });
    const neck = buildingPieces(own, STREET).filter(({ use, h, z }) => use === 'roof' && h === 1 && z < 45);
    expect(neck.map(({ x, y, w, d, z }) => [x, y, w, d, z])).toEqual([
      [16, 16, 2, 2, 18 + 4 * 3],
      // The corner that it takes off each wing ends under the last course.
      [22, 12, 2, 2, 18 + 8 * 3],
      [12, 22, 2, 2, 18 + 8 * 3],
    ]);
  });

  test('a T with a narrow stem: its ridge runs on flat into the slope of the wide part', () => {
    const notches = ['sw', 'se'].map((corner) => ({ corner, w: 9, d: 6 }));
    const own = roofed({ w: 24, d: 18, notches });
    expect(slopedRoofOf(own)).toMatchObject({ courses: 5, flat: 2, ridge: 18 + 15 + 1 });
    const closed = buildingPieces(own, STREET).filter(({ z, h, use }) => use === 'roof' && h === 1 && z < 33);
    // After two courses 2 studs of the stem are left, from its end to the third course of the wide part.
    const area = closed.map(({ x, y, w, d, z }) => ({ x, y, w, d, z }));
    expect(area.every(({ x, w, z }) => x >= 11 && x + w <= 13 && z === 24)).toBe(true);
    expect(area.reduce((sum, { w, d }) => sum + w * d, 0)).toBe(2 * 8);
    // The slopes of the wide part run across its mouth from the third course on.
    expect(count(own, /^valley-slope/)).toBe(4);
  });
});

test('over a box the courses laid one by one are those by its span: slopes, mansards, hips', () => {
  fc.assert(
    fc.property(
      fc.record({
        w: fc.integer({ min: 2, max: 40 }),
        d: fc.integer({ min: 2, max: 40 }),
        roofForm: fc.constantFrom('gable', 'hip'),
        slope: fc.constantFrom('slope-2x2-45', 'slope-1x3-33', 'slope-2x2x3-75'),
        lowerSlope: fc.option(fc.constantFrom('slope-2x2x2-65', 'slope-1x3-33')),
        lowerCourses: fc.integer({ min: 1, max: 6 }),
      }),
      (given) => {
        const own = house({ ...given, height: 40, eaves: 18 });
        const roof = slopedRoofOf(own);
        if (!roof) throw new Error('a roof that rises from its eaves');
        const asked = [given.lowerSlope, given.slope].flatMap((id) =>
          id === null ? [] : (partOf(id) ?? []),
        );
        const plan = roofPlanOf(
          own,
          asked.map((slope, i) => ({
            slope,
            courses: i === 0 && asked.length > 1 ? given.lowerCourses : Infinity,
          })),
        );
        expect([plan.levels.length, plan.flat]).toEqual([roof.courses, roof.flat]);
        expect(plan.levels.map(({ slope }) => slope.id)).toEqual(
          roof.pitches.flatMap(({ slope, courses }) => Array.from({ length: courses }, () => slope.id)),
        );
      },
    ),
    { numRuns: runs(60) },
  );
});

test('under the roof there is no less room than its card says, wherever a pole stands', () => {
  fc.assert(
    fc.property(anyNotched, (given) => {
      const own = withStreet({ ...given, bays: [], eaves: Math.min(given.eaves ?? 20, given.height) });
      const at = filledBy(buildingPieces(own, STREET));
      const thick = given.wall;
      for (let y = thick; y < given.d - thick; y++)
        for (let x = thick; x < given.w - thick; x++) {
          if (!isInside(given, x, y, thick)) continue;
          const place = { x: x - thick, y: y - thick, w: 1, d: 1 };
          const pole = { name: 'Pole', on: 0, height: 1, use: 'stair', place };
          const [{ ceiling }] = plotCard(
            withStreet({ ...given, bays: [], eaves: own.eaves, fittings: [pole] }),
            40,
          ).clearances;
          let laid = wallTop(own);
          while (laid < 220 && at(x, y, laid) === 0) laid++;
          // Under slopes it is told as it is laid; under rings no less.
          if (slopedRoofOf(own)) expect(ceiling).toBe(laid);
          else expect(ceiling).toBeLessThanOrEqual(laid);
        }
    }),
    { numRuns: runs(10) },
  );
});

test('bays lie in one straight wall: what would lie across the step, or at a corner, is left out and says so', () => {
  const bays = (widths: number[], side = 'n') =>
    frontsOf(
      house({
        ...L,
        bays: [{ side, storey: 1, bays: widths.map((wide) => ({ wide, part: 'window-2x1', sill: 1 })) }],
      }),
    )[0].bays;
  // Seen from the north, the east is at the left: 8 studs of wall lie 8 back.
  const [left, right] = bays([8, 8]);
  expect([left.opening?.back, left.opening?.from, right.opening?.back, right.opening?.from]).toEqual([
    8, 11, 0, 3,
  ]);
  expect(bays([16])[0].fault).toBe('it would lie across the step of what is left out');
  expect(bays([6, 4, 6]).map(({ fault }) => fault)).toEqual([
    null,
    'it would lie across the step of what is left out',
    null,
  ]);
  expect(bays([6, 2, 8])[1].fault).toBe('it stands within 1 stud of the corner');
  // The straight wall at the other side is one, whatever is left out behind it.
  expect(bays([16], 's')[0].fault).toBeNull();
  // The window behind the step stands in the wall there.
  const own = house({
    ...L,
    bays: [{ side: 'n', storey: 1, bays: [{ wide: 8, part: 'window-2x1', sill: 1 }, { wide: 8 }] }],
  });
  expect(buildingPieces(own, STREET).find(({ use }) => use === 'opening')).toMatchObject({ x: 11, y: 8 });
});

test('a door behind the step opens where it stands: into the yard there, or into what stands in it', () => {
  const bays = [{ side: 'n', storey: 1, bays: [{ wide: 8, part: 'door-4x1' }, { wide: 8 }] }];
  const own = house({ ...L, bays });
  const [{ opening }] = frontsOf(own)[0].bays;
  if (!opening) throw new Error('no door');
  // Two studs within its bay from the east end; half a stud before the wall that lies 8 back.
  expect(placeOfOpening(own, opening, 0.5)).toEqual({ x: 8 + 16 - 4, y: 8 + 8 - 0.5 });
  expect(placeOfOpening({ ...own, turn: 180 }, opening, 0.5)).toEqual({ x: 8 + 4, y: 8 + 8 + 0.5 });
  const shed = { id: 's', name: 'Shed', x: 17, y: 9, w: 6, d: 7, height: 12 };
  const leads = (...plots: object[]) =>
    evaluateRules(sceneWith(...plots), { today: '2026-05-01' })
      .filter(({ rule }) => rule === 'door-leads')
      .map(({ sentence }) => sentence);
  expect(leads({ ...L, bays })).toEqual([]);
  expect(leads({ ...L, bays }, shed)).toEqual([expect.stringContaining('leads into “Shed”')]);
  // A shed that is an L itself and leaves that corner out is not in the way.
  const corner = { ...shed, y: 7, d: 9, notches: [{ corner: 'sw', w: 5, d: 4 }] };
  expect(leads({ ...L, bays }, corner)).toEqual([]);
});

test('rooms, doors and furniture keep to the L', () => {
  const place = (x: number, y: number, w = 2, d = 2) => ({
    name: `At ${x} ${y}`,
    on: 0,
    height: 6,
    place: { x, y, w, d },
  });
  const [floor] = floorPlans(
    house({
      ...L,
      fittings: [place(1, 1), place(9, 1), place(3, 6), place(5, 6)],
      bays: [{ side: 'e', storey: 1, bays: [{ wide: 4 }, { wide: 4, part: 'door-3x1' }, { wide: 8 }] }],
    }),
  );
  expect(floor.studs).toBe(132);
  // Inside the room runs from stud 0: the wall of the step takes 6 to 7 south of the corner left out.
  expect(floor.fittings.map(({ fault }) => fault)).toEqual([
    null,
    'it stands in the wall',
    null,
    'it stands in the wall',
  ]);
});

test('the studs it stands on are those its turned outline touches, not those of its rectangle', () => {
  fc.assert(
    fc.property(anyNotched, fc.double({ min: 0, max: 359, noNaN: true }), (given, turn) => {
      const own = withStreet({ ...given, x: 20.5, y: 21, turn: Math.round(turn * 10) / 10 });
      const corners = wallCorners(own);
      const strip = (given.front === 'n' || given.front === 's' ? given.w : given.d) * given.pavement;
      expect(Math.abs(areaOf(corners))).toBeCloseTo(footStuds(own) + strip, 6);
      const touched = new Set<string>();
      eachTouched(corners, { x: -50, y: -50, w: 200, d: 200 }, (row, from, to) => {
        for (let x = from; x < to; x++) {
          expect(touched.has(`${x} ${row}`)).toBe(false);
          touched.add(`${x} ${row}`);
        }
      });
      const wrong: string[] = [];
      for (let y = -10; y < 70; y++)
        for (let x = -10; x < 70; x++) {
          const area = Math.abs(areaIn(corners, x, y));
          if (area > 1e-4 && !touched.has(`${x} ${y}`)) wrong.push(`${x} ${y} is not touched`);
          if (area < 1e-9 && touched.has(`${x} ${y}`)) wrong.push(`${x} ${y} is touched`);
        }
      expect(wrong).toEqual([]);
    }),
    { numRuns: runs(20) },
  );
});

/** Area of an outline within one stud: cut by the four sides of it (Sutherland and Hodgman 1974). */
function areaIn(corners: readonly { x: number; y: number }[], x: number, y: number): number {
  let left = [...corners];
  for (const off of [
    (p: { x: number; y: number }) => p.x - x,
    (p: { x: number; y: number }) => x + 1 - p.x,
    (p: { x: number; y: number }) => p.y - y,
    (p: { x: number; y: number }) => y + 1 - p.y,
  ])
    left = left.flatMap((a, i) => {
      const b = left[(i + 1) % left.length];
      const [p, q] = [off(a), off(b)];
      const cut = { x: a.x + ((b.x - a.x) * p) / (p - q), y: a.y + ((b.y - a.y) * p) / (p - q) };
      return [...(p >= 0 ? [a] : []), ...(p < 0 !== q < 0 ? [cut] : [])];
    });
  return areaOf(left);
}

const areaOf = (corners: readonly { x: number; y: number }[]): number =>
  corners.reduce((sum, a, i) => {
    const b = corners[(i + 1) % corners.length];
    return sum + (a.x * b.y - b.x * a.y) / 2;
  }, 0);

test('what stands in the corner left out is no clash, and a gate may swing there; ground shows in it', () => {
  const shed = { id: 's', name: 'Shed', x: 17, y: 9, w: 6, d: 6, height: 12 };
  const gate = { ...shed, name: 'Gate', w: 6, d: 1, x: 16, y: 12, moves: 'swing', hinge: 'nw', swingBy: -80 };
  const titles = (...plots: object[]) =>
    evaluateRules(sceneWith(...plots), { today: '2026-05-01' })
      .map(({ rule }) => rule)
      .filter((id) => ['plots-overlap', 'moves-hit', 'turn-reaches'].includes(id));
  expect(titles({}, shed)).toContain('plots-overlap');
  expect(titles(L, shed)).toEqual([]);
  expect(titles({}, gate)).toContain('moves-hit');
  expect(titles(L, gate)).toEqual([]);
  const relief = compileRelief(sceneWith({ ...L, height: 30 }));
  expect([relief.top[indexAt(relief, 9, 9)], relief.top[indexAt(relief, 20, 9)]]).toEqual([30, 0]);
});

test('a seam that crosses the corner left out alone is none of its modules', () => {
  // The L’s arms lie west and south of stud 16: of three modules that meet there two are under it.
  const seams = (notches: object[], at: number) => {
    const scene = sceneFrom({
      display: { name: 'Yard', kind: 'city' },
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 32, d: 32 }],
      plots: [{ id: 'p', name: 'House', x: 8, y: 8, w: 16, d: 16, height: 30, notches }],
      modules: [
        { id: 'a', name: 'A', x: 0, y: at, w: 32, d: 32 - at, bases: [] },
        { id: 'b', name: 'B', x: 16, y: 0, w: 16, d: at, bases: [] },
        { id: 'c', name: 'C', x: 0, y: 0, w: 16, d: at, bases: [] },
      ],
    } as never);
    return evaluateRules(scene, { today: '2026-05-01' })
      .filter(({ rule }) => rule === 'plot-over-seam')
      .map(({ numbers }) => numbers.modules);
  };
  expect(seams([], 16)).toEqual([3]);
  expect(seams(L.notches, 16)).toEqual([2]);
  expect(seams([{ corner: 'ne', w: 15, d: 8 }], 16)).toEqual([2]);
});

test('a room fits an L only where a rectangle of it does; its floor is that of the L', () => {
  const judged = (notches: object[], shape = 'box') => {
    const scene = sceneFrom({
      display: { name: 'Yard', kind: 'city', ratio: 40 },
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 32, d: 32 }],
      plots: [{ id: 'p', name: 'House', x: 8, y: 8, w: 16, d: 16, height: 30, shape, notches }],
      // 14 × 10 studs at 1:40: 320 mm a stud.
      spaces: [{ id: 's', name: 'Hall', w: 4.48, d: 3.2, wall: 1, plot: 'p' }],
    } as never);
    const [space] = spaceBudget(spacesOf(scene), 40).spaces;
    return { fits: space.fits, studs: Math.round((space.share ?? 0) * 140), ratio: space.ratio };
  };
  expect(judged([])).toMatchObject({ fits: true, studs: 196, ratio: 40 });
  // Eight rows are left whole: six of them inside, and columns as many.
  expect(judged(L.notches)).toMatchObject({ fits: false, studs: 132 });
  expect(judged(L.notches).ratio).toBeCloseTo(3200 / (6 * 8), 6);
  // A corner of five rows leaves 10 rows inside.
  expect(judged([{ corner: 'ne', w: 5, d: 4 }])).toMatchObject({ fits: true, ratio: 40 });
  // A circle of 16 studs has 148 inside, and no rectangle of 14 × 10 in it.
  expect(judged([], 'round')).toMatchObject({ fits: false, studs: 148 });
});

test('it tips about the line over the corner left out, by hand', () => {
  // Half of it left out on both eastern corners: a T that lies; the hull’s edges are those of the outline.
  const own = house({ height: 60 });
  const weight = { x: 0, y: 0, z: 30 };
  const box = tipsOfPlot(own, own, weight);
  expect(box).toBeCloseTo((Math.atan((8 * 8) / (30 * 3.2)) * 180) / Math.PI, 6);
  // The line from (8, 0) to (16, 8) lies 8/√2 studs from the middle of the rectangle.
  const notched = house({ ...L, height: 60 });
  expect(tipsOfPlot(notched, notched, weight)).toBeCloseTo(
    (Math.atan(((8 / Math.SQRT2) * 8) / (30 * 3.2)) * 180) / Math.PI,
    6,
  );
  // Half sides are rounded for its mass as for its foot.
  const rounded = (size: number) => {
    const round = house({ shape: 'round', w: size, d: size, height: 60 });
    return tipsOfPlot(round, round, shellOf(round));
  };
  expect(rounded(8.5)).toBeCloseTo(rounded(9), 6);
  // Turned by a quarter its corners are those of the outline turned.
  const [first] = wallCorners(notched);
  const [turned] = wallCorners({ ...notched, turn: 90 });
  expect(turned).toEqual(turnedPoint(first, { x: 16, y: 16 }, 90));
});
