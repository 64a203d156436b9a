import fc from 'fast-check';
import { isListed } from '../catalogue/index.ts';
import {
  discArea,
  discOutline,
  insideArea,
  outlineOfArea,
  studsOfArea,
  type StudArea,
} from '../grid/index.ts';
import { roomStuds, sceneFrom, wallTop, type Plot } from '../document/index.ts';
import {
  GRAMS_PER_STUD_PLATE,
  columnsOf,
  compileRelief,
  plotCard,
  ringRoofOf,
  shellOf,
  tipsOfPlot,
} from '../terrain/index.ts';
import { evaluateRules } from '../findings/index.ts';
import { filledBy } from '../../test/filled.ts';
import { runs } from '../../test/runs.ts';
import { buildingPieces, elevationOf, floorPlans, frontsOf, ridgeOf, storeysOf } from './index.ts';

// Round buildings: against a count of their own of studs whose middle lies in the oval.

const STREET = { pavementLight: 'any', pavementDark: 'any' };
const sceneWith = (...plots: object[]) =>
  sceneFrom({
    display: { name: 'Towers', kind: 'city' },
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 96 }],
    plots: plots.map((plot, i) => ({
      ...{ id: `p${i}`, name: `Tower ${i}`, x: 8, y: 8, w: 8, d: 8, height: 18, storeys: 1, shape: 'round' },
      ...plot,
    })),
  });
const tower = (more: object = {}): Plot => sceneWith(more).plot.p0;

/** Whether the middle of a stud lies in an oval. */
const isInOval = (x: number, y: number, w: number, d: number): boolean =>
  ((2 * x + 1 - w) / w) ** 2 + ((2 * y + 1 - d) / d) ** 2 <= 1 + 1e-9;

/** Whether a stud and all within so many of it by sides and corners lie in the oval. */
const isInside = (x: number, y: number, w: number, d: number, by: number): boolean => {
  for (let v = y - by; v <= y + by; v++)
    for (let u = x - by; u <= x + by; u++) if (!isInOval(u, v, w, d)) return false;
  return true;
};

test('a circle of 8 studs by hand: rows of 4, 6, 8, 8, 8, 8, 6, 4; one-stud walls leave 2, 4, 6, 6, 4, 2', () => {
  const disc = discArea(8, 8);
  const inRows = ({ mask }: StudArea) =>
    Array.from({ length: 8 }, (_, y) => mask.subarray(8 * y, 8 * y + 8).reduce((sum, on) => sum + on, 0));
  expect(inRows(disc)).toEqual([4, 6, 8, 8, 8, 8, 6, 4]);
  expect(inRows(insideArea(disc, 1))).toEqual([0, 2, 4, 6, 6, 4, 2, 0]);
  // 52 less 24.
  const pieces = buildingPieces(tower(), STREET);
  const course = pieces.filter(({ use, z }) => use === 'wall' && z === 1);
  expect(course.reduce((sum, { w, d }) => sum + w * d, 0)).toBe(28);
  expect(outlineOfArea(disc)).toHaveLength(20);
});

test('ovals of any size: their studs, what is inside their walls, and the area of what they are drawn from', () => {
  for (let w = 1; w <= 40; w++)
    for (let d = 1; d <= 40; d += 3) {
      const disc = discArea(w, d);
      for (const [by, { mask }] of [disc, insideArea(disc, 1), insideArea(disc, 2)].entries()) {
        const wrong: string[] = [];
        for (let y = 0; y < d; y++)
          for (let x = 0; x < w; x++) {
            const isOn = mask[y * w + x] === 1;
            if (isOn !== isInside(x, y, w, d, by)) wrong.push(`${x}, ${y} of ${w} × ${d} by ${by}`);
          }
        expect(wrong).toEqual([]);
      }
      // By the shoelace formula the outline holds as many studs.
      const corners = outlineOfArea(disc);
      expect(discOutline({ w, d })).toEqual(corners);
      const twice = corners.reduce((sum, a, i) => {
        const b = corners[(i + 1) % corners.length];
        return sum + a.x * b.y - b.x * a.y;
      }, 0);
      expect(twice / 2).toBe(studsOfArea(disc));
    }
});

const anyTower = fc.record({
  w: fc.integer({ min: 2, max: 28 }),
  d: fc.integer({ min: 2, max: 28 }),
  height: fc.integer({ min: 4, max: 80 }),
  storeys: fc.integer({ min: 0, max: 4 }),
  wall: fc.integer({ min: 1, max: 3 }),
  eaves: fc.option(fc.integer({ min: 0, max: 60 })),
  roundRoof: fc.constantFrom('cone', 'dome'),
  bays: fc.uniqueArray(
    fc.record({
      side: fc.constantFrom('n', 'e', 's', 'w'),
      storey: fc.integer({ min: 1, max: 2 }),
      bays: fc.constant([{ wide: 4, part: 'window-2x1', sill: 1 }]),
    }),
    { selector: ({ side, storey }) => `${side} ${storey}`, maxLength: 4 },
  ),
});

test('each stud of walls, floors and roof is filled once, every piece is borne, and the roof is closed', () => {
  fc.assert(
    fc.property(anyTower, (given) => {
      const own = tower(given);
      const { w, d, wall } = given;
      const pieces = buildingPieces(own, STREET);
      expect(pieces.filter(({ part }) => !isListed(part))).toEqual([]);
      const at = filledBy(pieces);
      const windows = pieces.filter(({ use }) => use === 'opening');
      const inWindow = (x: number, y: number, z: number) =>
        windows.some(
          (one) =>
            x >= one.x &&
            x < one.x + one.w &&
            y >= one.y &&
            y < one.y + one.d &&
            z >= one.z &&
            z < one.z + one.h,
        );
      const fronts = frontsOf(own);
      const behindWindow = (x: number, y: number, z: number) =>
        fronts.some(({ bays }) =>
          bays.some(
            ({ opening }) =>
              opening !== null &&
              z >= opening.foot &&
              z < opening.top &&
              { n: y, s: d - 1 - y, w: x, e: w - 1 - x }[opening.side] < wall &&
              (opening.side === 'n' || opening.side === 's' ? x : y) >= opening.from &&
              (opening.side === 'n' || opening.side === 's' ? x : y) < opening.from + opening.wide,
          ),
        );
      const wrong: string[] = [];
      for (let y = 0; y < d; y++)
        for (let x = 0; x < w; x++) {
          const isOn = isInOval(x, y, w, d);
          const isRoom = isInside(x, y, w, d, wall);
          for (const { level, hasFloor, from, to } of storeysOf(own)) {
            if (hasFloor && at(x, y, level) > 0 !== isOn) wrong.push(`floor ${x}, ${y}, ${level}`);
            for (let z = from; z < to; z++) {
              const piece = at(x, y, z);
              if (isRoom) {
                if (piece > 0 && !['pillar', 'opening'].includes(pieces[piece - 1].use))
                  wrong.push(`room ${x}, ${y}, ${z}`);
              } else if (piece > 0 !== (isOn && (!behindWindow(x, y, z) || inWindow(x, y, z))))
                wrong.push(`wall ${x}, ${y}, ${z}`);
            }
          }
          let over = 0;
          for (let z = wallTop(own); z < 90; z++) if (at(x, y, z) > 0) over++;
          if (over > 0 !== isOn) wrong.push(`open over ${x}, ${y}`);
        }
      for (const { part, use, x, y, z, w: wide, d: deep } of pieces) {
        if (z === 0) continue;
        // A window up to the eaves of a thick wall bears no ring over its inner half: that is not looked at here.
        let borne = windows.some((window) => window.z + window.h === z && z === wallTop(own));
        for (let k = 0; k < wide * deep; k++)
          borne ||= at(x + (k % wide), y + Math.trunc(k / wide), z - 1) > 0;
        if (!borne && (use === 'floor' || use === 'roof'))
          wrong.push(`${part} at ${x}, ${y}, ${z} lies on nothing`);
      }
      expect(wrong.slice(0, 5)).toEqual([]);
      // The top is where it is said to be, and seen so from each side.
      const top = pieces.reduce((high, { z, h }) => Math.max(high, z + h), 0);
      expect([ridgeOf(own), elevationOf(own, 's').high]).toEqual([top, top]);
      // What the shell is taken to weigh is what is laid, but for windows, pillars and studs left open in the roof.
      if (windows.length > 0) return;
      const laid = pieces
        .filter(({ use }) => use !== 'pillar')
        .reduce((sum, { w: wide, d: deep, h }) => sum + wide * deep * h, 0);
      let open = 0;
      for (const { z, outer, hole } of ringRoofOf(own)?.rings ?? [])
        outer.mask.forEach((on, i) => {
          if (on && !hole.mask[i] && at(i % w, Math.trunc(i / w), z) === 0) open += 3;
        });
      expect(shellOf(own).grams / GRAMS_PER_STUD_PLATE).toBeCloseTo(laid + open, 6);
    }),
    { numRuns: runs(40) },
  );
});

test('what lies under the roof is under all of it', () => {
  fc.assert(
    fc.property(anyTower, (given) => {
      const own = tower({ ...given, eaves: Math.min(given.eaves ?? 20, given.height) });
      const at = filledBy(buildingPieces(own, STREET));
      const thick = given.wall;
      // A stud wide fitting everywhere in the room: its ceiling is not above what is laid there.
      for (let y = thick; y < given.d - thick; y++)
        for (let x = thick; x < given.w - thick; x++) {
          if (!isInside(x, y, given.w, given.d, thick)) continue;
          const place = { x: x - thick, y: y - thick, w: 1, d: 1 };
          const fitting = { name: 'Pole', on: 0, height: 1, use: 'stair' as const, place };
          const [{ ceiling }] = plotCard(
            tower({ ...given, eaves: own.eaves, fittings: [fitting] }),
            40,
          ).clearances;
          let laid = wallTop(own);
          while (laid < 100 && at(x, y, laid) === 0) laid++;
          expect(ceiling).toBeLessThanOrEqual(laid);
        }
    }),
    { numRuns: runs(15) },
  );
});

test('windows and doors stand in the straight run of each side, a stud from its ends', () => {
  // A circle of 16 has 6 studs straight: a door of 4 fits, at 5 + 1.
  const doorIn = (wide: number) =>
    frontsOf(
      tower({
        w: 16,
        d: 16,
        height: 30,
        bays: [{ side: 's', storey: 1, bays: [{ wide, part: 'door-4x1' }] }],
      }),
    )[0];
  expect(doorIn(6).bays[0]).toMatchObject({ left: 5, fault: null, opening: { from: 6, wide: 4 } });
  expect(doorIn(8).bays[0].fault).toBe('the bays are 2 studs wider than the front');
  const small = tower({
    w: 10,
    d: 10,
    height: 30,
    bays: [{ side: 's', storey: 1, bays: [{ wide: 4, part: 'door-4x1' }] }],
  });
  expect(frontsOf(small)[0].bays[0].fault).toBe('it stands within 1 stud of the end of the straight run');
});

test('a room of 12 within 14 studs: its floor, and what stands in its wall', () => {
  const room = roomStuds(tower({ w: 14, d: 14 }));
  const [floor] = floorPlans(
    tower({
      ...{ w: 14, d: 14, height: 30 },
      fittings: [
        { name: 'Table', place: { x: 4, y: 4, w: 4, d: 4 }, height: 6 },
        { name: 'Chest', place: { x: 0, y: 0, w: 2, d: 2 }, height: 6 },
      ],
    }),
  );
  expect(floor.free).toBe(room - 16);
  expect(floor.fittings.map(({ fault }) => fault)).toEqual([null, 'it stands in the round wall']);
});

test('on the plan a tower takes its own studs and no more; two that pass each other do not overlap', () => {
  // South-east of the first by 6 and 6: their rectangles share 2 × 2 studs, their circles none.
  const scene = sceneWith({}, { x: 14, y: 14 });
  const relief = compileRelief(scene);
  const columns = columnsOf(scene, relief);
  const wrong: string[] = [];
  for (let y = 0; y < 30; y++)
    for (let x = 0; x < 30; x++) {
      const owners = columns.at(x, y).flatMap(({ owner }) => owner?.id ?? []);
      const wanted = [
        ...(isInOval(x - 8, y - 8, 8, 8) ? ['p0'] : []),
        ...(isInOval(x - 14, y - 14, 8, 8) ? ['p1'] : []),
      ];
      if (owners.join() !== wanted.join()) wrong.push(`${x}, ${y}`);
    }
  expect(wrong).toEqual([]);
  const overlaps = (second: object) =>
    evaluateRules(sceneWith({}, second), { today: '2026-05-01' }).filter(
      ({ rule }) => rule === 'plots-overlap',
    );
  expect(overlaps({ x: 14, y: 14 })).toEqual([]);
  // A box whose corner lies in the corner of the tower's rectangle is free of it; a stud further in it is not.
  expect(overlaps({ x: 15, y: 15, shape: 'box' })).toEqual([]);
  const [met] = overlaps({ x: 14, y: 14, shape: 'box' });
  expect(met.sentence).toContain('share 1 stud;');
});

test('a tower tips about the straight run of its foot: atan(half base ÷ centre height)', () => {
  const own = tower({ height: 60 });
  const { z } = shellOf(own);
  const tips = tipsOfPlot(own, own, { x: 0, y: 0, z });
  expect(tips).toBeCloseTo((Math.atan((4 * 8) / (z * 3.2)) * 180) / Math.PI, 6);
  // Off its middle towards a corner of its rectangle it is nearer to the slanted edge between two runs.
  const off = tipsOfPlot(own, own, { x: 2, y: 2, z });
  // From (6, 6) to the edge from (8, 6) to (6, 8): (14 − 12) ÷ √2.
  expect(off).toBeCloseTo((Math.atan((Math.SQRT2 * 8) / (z * 3.2)) * 180) / Math.PI, 6);
});
