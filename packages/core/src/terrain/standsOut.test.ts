import fc from 'fast-check';
import { outerCorners, sceneFrom, studsBuilt, type Plot } from '../document/index.ts';
import { overhangCards } from '../stability/index.ts';
import { runs } from '../../test/runs.ts';
import {
  GRAMS_PER_STUD_PLATE,
  bodiesOf,
  columnsOf,
  compileRelief,
  indexAt,
  outMass,
  shellOf,
} from './index.ts';

// What stands out over the walls of buildings that fill no rectangle.

type Given = NonNullable<Parameters<typeof sceneFrom>[0]['plots']>[number];
const sceneOf = (more: Partial<Given>) =>
  sceneFrom({
    display: { name: 'Lane', kind: 'city' },
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 48 }],
    plots: [{ id: 'h', name: 'House', x: 12, y: 14, w: 16, d: 12, height: 40, overhangFrom: 30, ...more }],
  });
const plotOf = (more: Partial<Given>): Plot => sceneOf(more).plot.h;
const all = (by: number) => ({ n: by, e: by, s: by, w: by });
const L: Partial<Given> = { notches: [{ corner: 'ne', w: 6, d: 6 }] };
const volume = (plot: Plot) => outMass(plot).grams / GRAMS_PER_STUD_PLATE;

test('eaves round an L: a stud off each wall, round five outer corners and into the inner one', () => {
  // The L has 192 − 36 = 156 studs and a border of 56; five corners stand out by a stud more, the inner one by one less.
  expect(volume(plotOf({ ...L, overhang: all(1) }))).toBeCloseTo((56 + 5 - 1) * 10, 9);
  // Two studs out it is hollow: 56 × 2 + 4 × 4 = 128 of which 60 lie within, closed by plates below and above.
  expect(volume(plotOf({ ...L, overhang: all(2) }))).toBeCloseTo((128 - 60) * 10 + 2 * 60, 9);
  // On one side alone its two walls that face it: 10 and 6 studs.
  expect(volume(plotOf({ ...L, overhang: { n: 1 } }))).toBeCloseTo(16 * 10, 9);
  const plot = plotOf({ ...L, overhang: all(1) });
  expect(shellOf(plot).grams - shellOf({ ...plot, overhang: all(0) }).grams).toBeCloseTo(
    outMass(plot).grams,
    9,
  );
});

test('an inn with eaves: over its court too, which stays open', () => {
  const court = { side: 'n' as const, at: 4, wide: 8, deep: 7 };
  const scene = sceneOf({ recesses: [court], overhang: all(1) });
  const relief = compileRelief(scene);
  const columns = columnsOf(scene, relief);
  const at = (x: number, y: number) =>
    columns
      .at(x, y)
      .filter(({ owner }) => owner?.id === 'h')
      .map(({ from, to }) => [from, to]);
  // The court lies from 16 to 24 and from 14 to 21: its eaves take a stud on three sides of it.
  const ground = relief.height[indexAt(relief, 0, 0)];
  expect(at(16, 16)).toEqual([[ground + 30, ground + 40]]);
  expect(at(20, 20)).toEqual([[ground + 30, ground + 40]]);
  expect([at(17, 16), at(20, 19), at(20, 14)]).toEqual([[], [], []]);
  expect(at(13, 16)).toEqual([[ground, ground + 40]]);
  const outer = bodiesOf(scene, relief).find(({ begins }) => begins === ground + 30);
  expect(outer?.parts?.length).toBeGreaterThan(1);
});

test('each stud of a wall holds what is before it: along an L as along a box, round a tower a little more', () => {
  const share = (more: Partial<Given>) =>
    overhangCards(plotOf({ overhang: { s: 3 }, ...more }), listed, 100)[0].share;
  const listed = { plots: new Map(), sections: new Map() };
  expect(share(L)).toBeCloseTo(share({}), 9);
  const round = share({ shape: 'round', w: 16, d: 16 });
  expect(round).toBeGreaterThan(share({ w: 16, d: 16 }));
  // By whole studs: half a one more is one more.
  expect(share({ shape: 'round', w: 16, d: 16, overhang: { s: 2.5 } })).toBeCloseTo(round, 9);
  expect(round).toBeLessThan(1.6 * share({ w: 16, d: 16 }));
});

const SHAPES: Partial<Given>[] = [
  { shape: 'round' },
  { notches: [{ corner: 'sw', w: 5, d: 4 }] },
  {
    notches: [
      { corner: 'ne', w: 6, d: 7 },
      { corner: 'sw', w: 3, d: 3 },
    ],
  },
  // Wider than what stands out into it from both sides.
  { recesses: [{ side: 'e', at: 3, wide: 7, deep: 5 }] },
];
const out = fc.integer({ min: 0, max: 3 });
const plots = fc.record({
  w: fc.integer({ min: 14, max: 22 }),
  d: fc.integer({ min: 14, max: 20 }),
  overhang: fc.record({ n: out, e: out, s: out, w: out }),
  turn: fc.constantFrom(0, 90, 180, 270),
  shape: fc.constantFrom(...SHAPES),
});

test('what stands out is each stud that lies as far off one of the building, asked one by one, however it is turned', () => {
  fc.assert(
    fc.property(plots, ({ shape, ...more }) => {
      const plot = plotOf({ ...shape, ...more, turn: 0, overhangFrom: 1 });
      const { n, e, s, w } = plot.overhang;
      const isRounder = shape.shape === 'round' && new Set([n, e, s, w]).size === 1;
      const { mask, w: wide, d: deep } = studsBuilt(plot);
      const isBuilt = (x: number, y: number) =>
        x >= 0 && y >= 0 && x < wide && y < deep && mask[y * wide + x] === 1;
      const studs = new Set<string>();
      for (let y = -n; y < deep + s; y++)
        for (let x = -w; x < wide + e; x++)
          for (let k = -w; k <= e; k++)
            for (let l = -n; l <= s; l++) if (isBuilt(x - k, y - l)) studs.add(`${plot.x + x} ${plot.y + y}`);
      const scene = sceneOf({ ...shape, ...more, turn: 0, overhangFrom: 1 });
      const relief = compileRelief(scene);
      const found = new Set<string>();
      relief.top.forEach((top, i) => {
        const [x, y] = [relief.x + (i % relief.w), relief.y + Math.trunc(i / relief.w)];
        if (top > relief.height[i]) found.add(`${x} ${y}`);
      });
      if (isRounder) {
        // An oval again: nowhere farther out.
        expect([...found].filter((stud) => !studs.has(stud))).toEqual([]);
        for (let i = 0; i < mask.length; i++)
          if (mask[i])
            expect(found.has(`${plot.x + (i % wide)} ${plot.y + Math.trunc(i / wide)}`)).toBe(true);
      } else expect([...found].sort()).toEqual([...studs].sort());
      const built = mask.reduce((sum, on) => sum + on, 0);
      const thin = { ...plot, wall: 3 };
      expect(volume(thin)).toBeCloseTo((found.size - built) * (plot.height - 1), 6);
      // Turned by quarters its corners are those of the unturned one, turned.
      const turned = compileRelief(sceneOf({ ...shape, ...more, overhangFrom: 1 }));
      const covered = turned.top.reduce((sum, top, i) => sum + (top > turned.height[i] ? 1 : 0), 0);
      if (more.turn % 180 === 0 || (plot.w - plot.d) % 2 === 0) expect(covered).toBe(found.size);
    }),
    { numRuns: runs(60) },
  );
});

test('the outline of the largest round building has no more corners than four a row', () => {
  const plot = plotOf({ shape: 'round', w: 4096, d: 4096, overhang: { n: 1, s: 2 } });
  expect(outerCorners(plot).length).toBeLessThan(4 * 4099);
});
