import fc from 'fast-check';
import {
  isListed,
  partOf,
  SLOPES,
  pitchOfSlope,
  raiseToMeet,
  roofOf,
  roofPieces,
  runOfSlope,
} from '../catalogue/index.ts';
import {
  baysOfBase,
  baysOfRing,
  evenBays,
  hingedPairs,
  nearestStack,
  ringCorners,
  ringFloor,
  ringNear,
  polygonRing,
  sidewaysFits,
  stackCard,
  tiesOf,
  turnsWithin,
  volumePieces,
} from './index.ts';
import { runs } from '../../test/runs.ts';

const slope = (id: string) => {
  const part = partOf(id);
  if (!part) throw new Error(`no part ${id}`);
  return part;
};

describe('sideways fits', () => {
  test('5 plates are 2 studs (common practice, no source), and nothing smaller closes', () => {
    const [first, second] = sidewaysFits({ studs: [1, 4], plates: [1, 10] }, 0.05);
    expect(first).toEqual({ halfStuds: 2, halfPlates: 5, errorMm: 0 });
    expect(second).toEqual({ halfStuds: 4, halfPlates: 10, errorMm: 0 });
    expect(sidewaysFits({ studs: [1, 1], plates: [3, 4] }, 0.05)).toEqual([]);
    // A row of one stud and two plates and a half: 8 mm both; a plate more is 3.2 mm too long.
    expect(sidewaysFits({ studs: [1, 1], plates: [3, 3] }, 1.6)).toEqual([
      { halfStuds: 2, halfPlates: 6, errorMm: 1.6 },
    ]);
  });
  test('all that a search in millimetres finds, and no more', () => {
    const range = fc
      .tuple(fc.nat(12), fc.nat(12))
      .map(([a, b]): [number, number] => (a < b ? [a, b] : [b, a]));
    fc.assert(
      fc.property(range, range, fc.constantFrom(0, 0.05, 0.8, 1, 2.4), (studs, plates, within) => {
        const found: [number, number][] = [];
        for (let n = 2 * studs[0]; n <= 2 * studs[1]; n++)
          for (let m = 2 * plates[0]; m <= 2 * plates[1]; m++)
            if (Math.abs(m * 1.6 - n * 4) < within + 1e-6) found.push([n, m]);
        const fits = sidewaysFits({ studs, plates }, within);
        expect(fits.map(({ halfStuds, halfPlates }) => [halfStuds, halfPlates])).toEqual(found);
        for (const { halfStuds, halfPlates, errorMm } of fits)
          expect(errorMm).toBeCloseTo(halfPlates * 1.6 - halfStuds * 4, 9);
      }),
    );
  });
  test('the nearest stack is nearer than its neighbours', () => {
    for (let n = 1; n <= 60; n++)
      for (const whole of [false, true]) {
        const { halfPlates, errorMm } = nearestStack(n, whole);
        const step = whole ? 2 : 1;
        expect(halfPlates % step).toBe(0);
        for (const other of [halfPlates - step, halfPlates + step])
          expect(Math.abs(errorMm)).toBeLessThanOrEqual(Math.abs(other * 1.6 - n * 4) + 1e-9);
        expect(errorMm).toBeCloseTo(halfPlates * 1.6 - n * 4, 9);
      }
  });
});

describe('rings', () => {
  test('24 wedges of 15° close and part into 6 bays of 4 (common practice, no source); a hexagon by hand', () => {
    const ring = polygonRing(24, 4);
    expect(ring.angle).toBe(15);
    expect(ring.bays).toEqual([2, 3, 4, 6, 8, 12]);
    expect(baysOfRing(24, 6)).toMatchObject({ each: 4, left: 0 });
    expect(baysOfRing(24, 5)).toEqual({ each: 4, left: 4, fewer: 20, more: 25 });
    expect(baysOfRing(4, 3)).toEqual({ each: 1, left: 1, fewer: 3, more: 6 });
    // Side 32 mm: to a corner 32 mm, to a side 32 × √3 ÷ 2.
    const hexagon = polygonRing(6, 4);
    expect(hexagon.outerMm).toBeCloseTo(32, 9);
    expect(hexagon.innerMm).toBeCloseTo(16 * Math.sqrt(3), 9);
    expect([hexagon.gridStuds, hexagon.errorMm]).toEqual([3.5, expect.closeTo(16 * Math.sqrt(3) - 28, 9)]);
  });
  test('its corners lie a piece apart, and the middles of its sides an inner radius from the middle', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 90 }), fc.integer({ min: 1, max: 20 }), (pieces, halves) => {
        const ring = polygonRing(pieces, halves / 2);
        const corners = ringCorners(ring);
        expect(corners).toHaveLength(pieces);
        corners.forEach((a, i) => {
          const b = corners[(i + 1) % pieces];
          expect(Math.hypot(b.x - a.x, b.y - a.y)).toBeCloseTo(4 * halves, 6);
          expect(Math.hypot((a.x + b.x) / 2, (a.y + b.y) / 2)).toBeCloseTo(ring.innerMm, 6);
        });
        // A side lies to the north.
        expect(Math.min(...corners.map(({ y }) => y))).toBeCloseTo(-ring.innerMm, 6);
        expect(Math.abs(ring.errorMm)).toBeLessThanOrEqual(2 + 1e-9);
        for (const bays of ring.bays) expect(baysOfRing(pieces, bays).left).toBe(0);
      }),
    );
  });
  test('the floor inside a ring of 24 × 4: studs whose corners lie within its sides, counted by slow code', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 40 }), fc.integer({ min: 2, max: 16 }), (pieces, halves) => {
        const ring = polygonRing(pieces, halves / 2);
        const inside = ring.innerMm - 8;
        // A place lies inside a regular polygon where it is no farther out than the side at its angle, wherever it turns.
        const isIn = (x: number, y: number) => {
          const step = (2 * Math.PI) / pieces;
          const turned = Math.atan2(y, x) + Math.PI / 2;
          const off = turned - Math.round(turned / step) * step;
          return Math.hypot(x, y) * Math.cos(off) <= inside + 1e-6;
        };
        const count = (shift: number) => {
          let sum = 0;
          for (let y = -90; y < 90; y++)
            for (let x = -90; x < 90; x++) {
              const [a, b] = [8 * (x + shift), 8 * (y + shift)];
              if ([a, a + 8].every((px) => [b, b + 8].every((py) => isIn(px, py)))) sum++;
            }
          return sum;
        };
        const floor = ringFloor(ring, 'outer');
        expect(floor?.count ?? 0).toBe(Math.max(count(0), count(0.5)));
        const studs = (floor?.plates ?? []).reduce((sum, { part, qty }) => {
          const { w, d } = partOf(part) ?? { w: 0, d: 0 };
          return sum + w * d * qty;
        }, 0);
        expect(studs).toBe(floor?.count ?? 0);
      }),
      { numRuns: runs(40) },
    );
    // 121.5 mm to a side less a stud of brick: 113.5 mm, of which 14 studs are 112: 1.5 mm stay open.
    expect(ringFloor(polygonRing(24, 4), 'outer')?.gap).toBeCloseTo(
      32 / (2 * Math.tan(Math.PI / 24)) - 8 - 112,
      9,
    );
    expect(ringFloor(polygonRing(3, 1), 'outer')).toBeNull();
  });
  test('the ring nearest to a radius is the nearest of all', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 900, noNaN: true }),
        fc.integer({ min: 1, max: 8 }),
        (inner, width) => {
          const all = Array.from({ length: 198 }, (_, i) => polygonRing(i + 3, width));
          const least = Math.min(...all.map((ring) => Math.abs(ring.innerMm - inner)));
          expect(Math.abs(ringNear(inner, width, 200).innerMm - inner)).toBeCloseTo(least, 9);
        },
      ),
    );
  });
});

describe('roofs', () => {
  test('courses laid one by one meet what is worked out', () => {
    for (const part of SLOPES)
      for (let halves = 1; halves <= 90; halves++) {
        const span = halves / 2;
        let [courses, plainCourses, left, ridge] = [0, 0, span, 0];
        while (left >= 2 * runOfSlope(part)) {
          // Both sides lie as deep as their slopes in what the courses below leave open.
          if (left >= 2 * part.d) plainCourses++;
          left -= 2 * runOfSlope(part);
          courses++;
          ridge += part.h;
        }
        expect(roofOf(span, part)).toEqual({ courses, plainCourses, ridgePlates: ridge, leftStuds: left });
      }
  });
  test('the slopes of a roof cover both sides', () => {
    for (const part of SLOPES)
      for (let length = 1; length <= 40; length++) {
        const roof = roofOf(17, part);
        const pieces = roofPieces(roof, part, length);
        const covered = pieces.reduce((sum, { part: id, qty }) => sum + qty * slope(id).w, 0);
        expect(covered).toBe(2 * roof.plainCourses * length);
        for (const { part: id } of pieces) expect(pitchOfSlope(slope(id))).toBe(pitchOfSlope(part));
      }
    // 23 studs of 45°: five of 4 and one of 3 a course; of 8 courses the uppermost has no room for rows of studs.
    expect(roofPieces(roofOf(16, slope('slope-2x2-45')), slope('slope-2x2-45'), 23)).toEqual([
      { part: 'slope-4x2-45', qty: 70 },
      { part: 'slope-3x2-45', qty: 14 },
    ]);
  });
  test('a span of 16 studs by 45° and by 33°; true pitches by hand; a ridge raised to meet another', () => {
    expect(roofOf(16, slope('slope-2x2-45'))).toMatchObject({
      courses: 8,
      plainCourses: 7,
      ridgePlates: 24,
      leftStuds: 0,
    });
    expect(roofOf(15, slope('slope-2x3-33'))).toMatchObject({ courses: 3, ridgePlates: 9, leftStuds: 3 });
    // 9.6 mm up and 8 mm in; 9.6 and 16.
    expect(pitchOfSlope(slope('slope-1x2-45'))).toBeCloseTo(50.19, 2);
    expect(pitchOfSlope(slope('slope-1x3-33'))).toBeCloseTo(30.96, 2);
    const roof = roofOf(15, slope('slope-2x3-33'));
    expect(raiseToMeet(roof, 17)).toEqual({ missing: 8, bricks: 2, plates: 2 });
    expect(raiseToMeet(roof, 7)).toEqual({ missing: -2, bricks: 0, plates: 0 });
  });
});

describe('turned walls', () => {
  test('3-4-5 is the first, and every one that closes is made by Euclid’s formula', () => {
    expect(turnsWithin(5, 0)).toEqual([{ a: 3, b: 4, c: 5, angle: expect.closeTo(36.8699, 4), errorMm: 0 }]);
    const made = new Set<string>();
    for (let m = 2; m < 12; m++)
      for (let n = 1; n < m; n++)
        for (let k = 1; k * (m * m + n * n) <= 100; k++)
          made.add(
            [m * m - n * n, 2 * m * n, m * m + n * n]
              .map((side) => k * side)
              .toSorted((p, q) => p - q)
              .join(),
          );
    expect(new Set(turnsWithin(100, 0).map(({ a, b, c }) => [a, b, c].join()))).toEqual(made);
  });
  test('with an error all that a search finds', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 30 }), fc.constantFrom(0, 0.2, 0.5, 2, 5), (within, error) => {
        const found: string[] = [];
        for (let c = 1; c <= within; c++)
          for (let a = 1; a <= within; a++)
            for (let b = a; b <= within + 1; b++)
              if (Math.abs(Math.sqrt(a * a + b * b) - c) * 8 <= error + 1e-9) found.push([a, b, c].join());
        const turns = turnsWithin(within, error);
        expect(turns.map(({ a, b, c }) => [a, b, c].join()).toSorted()).toEqual(found.toSorted());
        for (const { a, b, c, errorMm } of turns) expect(errorMm).toBeCloseTo((Math.hypot(a, b) - c) * 8, 9);
      }),
    );
  });
  test('ties: none on what is short, evenly on what is long, no stretch longer than wanted', () => {
    expect(tiesOf(8, 8)).toEqual([]);
    expect(tiesOf(16, 8)).toEqual([8]);
    expect(tiesOf(25, 8)).toEqual([6.5, 12.5, 19]);
    for (let length = 1; length <= 80; length++) {
      const marks = [0, ...tiesOf(length, 8), length];
      // Ties stand on half studs: a stretch may grow by half a stud.
      for (let i = 1; i < marks.length; i++) expect(marks[i] - marks[i - 1]).toBeLessThanOrEqual(8.5);
    }
  });
});

describe('walls on a hinge', () => {
  test('an equilateral triangle at 60°, 3, 4 and 5 at a right angle, the bay of an octagon nearly at 135°', () => {
    expect(hingedPairs(60, 3, 0).map(({ a, b, base }) => [a, b, base])).toEqual([
      [1, 1, 1],
      [2, 2, 2],
      [3, 3, 3],
    ]);
    const [square] = hingedPairs(90, 4, 0.001);
    expect(square).toMatchObject({ a: 3, b: 4, base: 5, angle: expect.closeTo(90, 9) });
    expect([square.turnA, square.turnB]).toEqual([expect.closeTo(53.1301, 4), expect.closeTo(36.8699, 4)]);
    // The height over the hypotenuse of 3-4-5: 3 × 4 / 5 studs.
    expect(square.outMm).toBeCloseTo((12 / 5) * 8, 9);
    // Two walls of 6 and 7: √(36 + 49 + 84 × cos 45°) = 12.019, so that 12 studs apart they stand at 134.6°.
    const bay = hingedPairs(135, 7, 1).find(({ a, b }) => a === 6 && b === 7);
    expect(bay).toMatchObject({ base: 12, angle: expect.closeTo(134.62, 2) });
  });
  test('all that a search over places of the hinge finds, nearest first', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 179 }),
        fc.integer({ min: 1, max: 16 }),
        fc.constantFrom(0.1, 0.5, 2, 10),
        (wanted, within, most) => {
          const found: string[] = [];
          for (let base = 1; base < 2 * within; base++)
            for (let a = 1; a <= within; a++)
              for (let b = a; b <= within; b++) {
                // Where circles round both ends meet; the angle there by the way to either end.
                const x = (a * a - b * b + base * base) / (2 * base);
                const y = Math.sqrt(a * a - x * x);
                if (!(y > 1e-9)) continue;
                const angle = 180 - (Math.atan2(y, x) + Math.atan2(y, base - x)) * (180 / Math.PI);
                if (Math.abs(angle - wanted) <= most + 1e-9) found.push([a, b, base].join());
              }
          const pairs = hingedPairs(wanted, within, most);
          expect(pairs.map(({ a, b, base }) => [a, b, base].join()).toSorted()).toEqual(found.toSorted());
          for (let i = 1; i < pairs.length; i++)
            expect(Math.abs(pairs[i].off)).toBeGreaterThanOrEqual(Math.abs(pairs[i - 1].off) - 1e-9);
          for (const { angle, turnA, turnB } of pairs) expect(angle + turnA + turnB).toBeCloseTo(180, 6);
        },
      ),
      { numRuns: runs(40) },
    );
  });
});

test('bays of a base: three of 16 on 48 (common practice, no source); what is left, and what leaves nothing', () => {
  expect(baysOfBase(48, 16)).toEqual({ bays: 3, each: 16, left: 0 });
  expect(baysOfBase(48, 14)).toEqual({ bays: 3, each: 14, left: 6 });
  expect(evenBays(48, 5, 16).map(({ each, bays }) => [each, bays])).toEqual([
    [16, 3],
    [12, 4],
    [8, 6],
    [6, 8],
  ]);
  expect(evenBays(7, 2, 6)).toEqual([]);
});

test('tall stacks by hand: 0.3 mm in ten bricks are half a millimetre after sixteen', () => {
  const measured = { tenBricks: 96, thirtyPlates: 96.3, limit: 0.5 };
  const card = stackCard(30, measured);
  expect(
    [card.bricks, card.plates, card.off, card.most].map((value) => Number((value ?? 0).toFixed(6))),
  ).toEqual([288, 288.9, 0.9, 16]);
  expect(stackCard(30, { ...measured, thirtyPlates: 96 }).most).toBeNull();
  // Just at the limit they meet still; plates that come out lower are off alike.
  expect(stackCard(1, { tenBricks: 96, thirtyPlates: 96.5, limit: 0.5 }).most).toBe(10);
  expect(stackCard(10, { tenBricks: 96, thirtyPlates: 95.5, limit: 0.5 })).toMatchObject({
    off: -0.5,
    most: 10,
  });
});

test('a block in pieces: 32 × 32 × 6 bricks are 768 bricks 2 × 4 (by hand), and any block has its volume', () => {
  expect(volumePieces({ w: 32, d: 32, h: 18, wall: null })).toEqual([{ part: 'brick-2x4', qty: 768 }]);
  const studsOf = (part: string) => {
    const { w, d, h } = partOf(part) ?? { w: 0, d: 0, h: 0 };
    return w * d * h;
  };
  const size = fc.integer({ min: 1, max: 30 });
  fc.assert(
    fc.property(
      size,
      size,
      fc.integer({ min: 1, max: 40 }),
      fc.option(fc.integer({ min: 1, max: 5 })),
      (w, d, h, wall) => {
        const lines = volumePieces({ w, d, h, wall });
        expect(lines.every(({ part }) => isListed(part))).toBe(true);
        const room = wall !== null && 2 * wall < Math.min(w, d) ? (w - 2 * wall) * (d - 2 * wall) : 0;
        expect(lines.reduce((sum, { part, qty }) => sum + qty * studsOf(part), 0)).toBe(
          w * d * h - room * (h - 1),
        );
      },
    ),
    { numRuns: runs(40) },
  );
});
