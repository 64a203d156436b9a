import fc from 'fast-check';
import { FAMILIES, partOf } from '../catalogue/index.ts';
import { containsPoint } from '../grid/index.ts';
import {
  extentOf,
  panelsAlong,
  ringGape,
  sceneFrom,
  wallLine,
  wallStraights,
  type Entity,
  type WallStraight,
} from '../document/index.ts';
import { thingLines } from '../materials/index.ts';
import { tryFixes } from '../findings/index.ts';
import { evaluateRules } from '../findings/index.ts';
import { runs } from '../../test/runs.ts';
import {
  archRow,
  bodiesOf,
  columnsOf,
  compileRelief,
  indexAt,
  oppositePanels,
  panelMiddles,
  ringBearings,
  runPieces,
  spreadPanels,
  wallBlocks,
  wallFill,
} from './index.ts';

// Walls of more than one layer: arches before masonry, a fence on top, in panels.

const sceneFile = {
  display: { name: 'Yard', kind: 'diorama' as const },
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 32 }],
};
const sceneOf = (run: object) =>
  sceneFrom({
    ...sceneFile,
    runs: [{ id: 'r', name: 'Quay wall', points: [at(8, 8), at(32, 8)], height: 12, thick: 2, ...run }],
  });
const at = (x: number, y: number) => ({ x, y });
const wall = (run: object = {}): Entity<'run'> => sceneOf(run).run.r;
const ARCHED = { arches: 'arch-1x8x2', topFence: true, colour: 'slate' };

test('24 studs of wall by hand: a row of masonry behind three arches of 8 on piers of two bricks, a fence on top', () => {
  const lines = thingLines(sceneOf(ARCHED)).filter(({ from }) => from === 'Quay wall');
  const count = (part: string) => lines.reduce((sum, one) => sum + (one.part === part ? one.qty : 0), 0);
  // Four courses of six bricks behind; between two arches a pier is two studs wide.
  expect(count('brick-1x4')).toBe(24);
  expect(count('arch-1x8x2')).toBe(3);
  expect(count('brick-1x2')).toBe(2 * 2);
  expect(count('brick-1x1')).toBe(2 * 2);
  expect(count('fence-4x1')).toBe(6);
  expect(lines.every(({ colour }) => colour === 'slate')).toBe(true);
  // Arches and their piers in another colour.
  const tan = thingLines(sceneOf({ ...ARCHED, archColour: 'ochre' })).filter(
    ({ colour }) => colour === 'ochre',
  );
  expect(tan.map(({ part, qty }) => [part, qty])).toEqual([
    ['arch-1x8x2', 3],
    ['brick-1x2', 4],
    ['brick-1x1', 4],
  ]);
  // Without a colour of its own it has the usual one.
  expect(thingLines(sceneOf({})).map(({ colour, qty }) => [colour, qty])).toEqual([['pebble', 6 * 4 * 2]]);
  // Open: under each arch 6 studs, 6 plates high, one deep.
  const open = 3 * 6 * 6;
  const fence = 24 * FAMILIES.fence.height;
  expect(wallFill(wall(ARCHED))).toBeCloseTo(
    (24 * 2 * 12 - open + fence * FAMILIES.fence.body) / (24 * 2 * 12 + fence),
    9,
  );
});

test('panels divide their arches alike, what is left stays plain at both ends', () => {
  // Panels of 16: one arch of 8 would leave 0 after two; of 6 two leave 4, two at each end.
  expect(archRow(wall({ arches: 'arch-1x6' }), 16)).toMatchObject({ starts: [2, 8], left: 4 });
  const own = wall({ arches: 'arch-1x6', panel: 16 });
  expect(panelsAlong(own, 40)).toEqual([
    { from: 0, to: 16 },
    { from: 16, to: 32 },
    { from: 32, to: 40 },
  ]);
  const arches = runPieces(own, { length: 40, before: 0 }).reduce(
    (sum, { part, qty }) => sum + (part === 'arch-1x6' ? qty : 0),
    0,
  );
  expect(arches).toBe(2 + 2 + 1);
  // Two straights of 24 and 8 in panels of 16: what is left is a panel too.
  expect(panelMiddles(wall({ panel: 16, points: [at(8, 8), at(32, 8), at(32, 16)] }))).toEqual([8, 20, 28]);
  // A fence and a hedge take none.
  expect(archRow(wall({ use: 'hedge', arches: 'arch-1x6' }), 16)).toBeNull();
});

test('blocks do not overlap, and together they are as large as the pieces', () => {
  const anyWall = fc.record({
    length: fc.integer({ min: 1, max: 60 }),
    height: fc.integer({ min: 1, max: 12 }).map((bricks) => 3 * bricks),
    thick: fc.integer({ min: 1, max: 4 }),
    panel: fc.constantFrom(0, 7, 16, 24),
    arches: fc.constantFrom(null, 'arch-1x3', 'arch-1x4', 'arch-1x6x2', 'arch-1x8'),
    openings: fc.uniqueArray(
      fc.record({
        at: fc.integer({ min: 1, max: 9 }),
        part: fc.constantFrom(
          'window-2x1x2',
          'window-1x2x2',
          'window-4x1',
          'door-2x1',
          'arch-1x3',
          'arch-1x6x2',
        ),
        sill: fc.integer({ min: 0, max: 6 }),
        niche: fc.boolean(),
      }),
      { selector: ({ at: panel }) => panel, maxLength: 9 },
    ),
  });
  fc.assert(
    fc.property(anyWall, ({ length, ...given }) => {
      const own = wall(given);
      const blocks = wallBlocks(own, { length, before: 0 });
      const cells = new Set<string>();
      let volume = 0;
      for (const { from, to, near, far, low, high } of blocks) {
        volume += (to - from) * (far - near) * (high - low);
        for (let x = from; x < to; x++)
          for (let y = near; y < far; y++) for (let z = low; z < high; z++) cells.add(`${x} ${y} ${z}`);
      }
      expect(cells.size).toBe(volume);
      const laid = runPieces(own, { length, before: 0 }).reduce((sum, { part, qty }) => {
        const one = partOf(part);
        return sum + (one ? qty * one.w * one.d * one.h : NaN);
      }, 0);
      expect(laid).toBe(volume);
    }),
    { numRuns: runs(100) },
  );
});

test('a window in a panel by hand, and what is let in round a ring', () => {
  // Panels of 4 studs, 6 bricks high: a window of 2 × 2 bricks over two courses leaves a stud on either side.
  const given = {
    ...{ points: [at(8, 8), at(24, 8)], panel: 4, thick: 1, height: 18, letInColour: 'chalk' },
    openings: [{ at: 3, part: 'window-2x1x2', sill: 2 }],
  };
  const own = wall(given);
  const count = (panel: number) => {
    const of: Record<string, number> = {};
    for (const { part, qty } of runPieces(own, { length: 4, before: panel - 1 }))
      of[part] = (of[part] ?? 0) + qty;
    return of;
  };
  expect(count(2)).toEqual({ 'brick-1x4': 6 });
  expect(count(3)).toEqual({ 'brick-1x4': 4, 'brick-1x1': 2 * 2, 'window-2x1x2': 1 });
  const lines = thingLines(sceneOf(given));
  expect(lines.filter(({ colour }) => colour === 'chalk').map(({ part, qty }) => [part, qty])).toEqual([
    ['window-2x1x2', 1],
  ]);
  // Of the 4 × 18 plates of its panel 2 × 6 are a window: its mass is that of what it is made of.
  expect(wallFill(own)).toBeCloseTo((16 * 18 - 2 * 6 * (1 - FAMILIES.window.body)) / (16 * 18), 9);
});

test('a niche by hand: an arch on piers before a wall two studs thick', () => {
  const own = wall({
    ...{ points: [at(8, 8), at(16, 8)], thick: 2, height: 18, colour: 'slate', archColour: 'ochre' },
    openings: [{ at: 1, part: 'arch-1x4', sill: 3, niche: true }],
  });
  const count = (part: string) =>
    runPieces(own, { length: 8, before: 0 }).reduce((sum, one) => sum + (one.part === part ? one.qty : 0), 0);
  // Behind six courses of two; at the face two of two over the arch, and beside it and its piers four courses of 2 + 2.
  expect([count('brick-1x4'), count('brick-1x2'), count('brick-1x1'), count('arch-1x4')]).toEqual([
    ...[12 + 4, 2 * 4, 2 * 3, 1],
  ]);
  // Open is 2 studs wide, 9 plates high and one deep.
  expect(wallFill(own)).toBeCloseTo(1 - (2 * 9) / (8 * 2 * 18), 9);
  // As a way through it is twice the row at the face.
  const through = { ...own, openings: own.openings.map((one) => ({ ...one, niche: false })) };
  const rows = runPieces(through, { length: 8, before: 0 });
  expect(rows.map(({ part, qty }) => [part, qty])).toEqual([
    ...[
      ['brick-1x4', 2 * 4],
      ['brick-1x2', 2 * 4],
      ['brick-1x2', 2 * 4],
      ['brick-1x1', 2 * 6],
      ['arch-1x4', 2],
    ],
  ]);
});

/** Corners of a panel's inner face, of a wall of this thickness. */
const innerFace = ({ from, to }: WallStraight, middle: { x: number; y: number }, thick: number) => {
  const centre = { x: (from.x + to.x) / 2 - middle.x, y: (from.y + to.y) / 2 - middle.y };
  const far = Math.hypot(centre.x, centre.y);
  const [u, v] = [(centre.x / far) * (thick / 2), (centre.y / far) * (thick / 2)];
  return [from, to].map(({ x, y }) => ({ x: x - u, y: y - v }));
};

test('the panels of a ring meet at their inner faces and close (regular polygon)', () => {
  const ring = { ring: 24, panel: 4, thick: 1, points: [at(40, 16), at(40, 6)] };
  const round = wallStraights(wall(ring));
  const [, [, east]] = [round[0], innerFace(round[0], ring.points[0], 1)];
  // 4 ÷ (2 tan 7.5°) = 15.191 studs to a side, the first to the north.
  expect(ring.points[0].y - east.y).toBeCloseTo(15.1915, 4);
  expect(ringBearings(wall(ring))).toEqual(Array.from({ length: 24 }, (_, i) => 15 * i));
  // Bricks a stud thick turned by 15° are 2 sin 7.5° studs apart outside: 2.09 mm.
  expect(8 * ringGape(wall(ring))).toBeCloseTo(2.088, 3);
  // A closed line of 24 panels, whose middle is free.
  const relief = compileRelief(
    sceneFrom({ ...sceneFile, runs: [{ id: 'r', name: 'Round', height: 18, ...ring }] }),
  );
  const top = (x: number, y: number) =>
    relief.top[indexAt(relief, x, y)] - relief.surface[indexAt(relief, x, y)];
  expect([top(40, 0), top(40, 16), top(24, 16), top(55, 16)]).toEqual([18, 0, 18, 18]);
  fc.assert(
    fc.property(
      fc.integer({ min: 3, max: 60 }),
      fc.integer({ min: 1, max: 12 }),
      fc.integer({ min: 1, max: 3 }),
      fc.integer({ min: -20, max: 20 }),
      (pieces, panel, thick, east) => {
        const own = wall({ ring: pieces, panel, thick, points: [at(40.5, 16), at(40.5 + east, 9)] });
        const all = wallStraights(own);
        expect(all.map(({ length }) => length)).toEqual(Array.from({ length: pieces }, () => panel));
        all.forEach((one, i) => {
          expect(Math.hypot(one.to.x - one.from.x, one.to.y - one.from.y)).toBeCloseTo(panel, 9);
          const [, end] = innerFace(one, own.points[0], thick);
          const [begin] = innerFace(all[(i + 1) % pieces], own.points[0], thick);
          expect(Math.hypot(end.x - begin.x, end.y - begin.y)).toBeLessThan(1e-9);
        });
        // It is moved by whole steps: its extent lies on the grid, and nothing of it beyond.
        const bounds = extentOf('run', own);
        expect(Number.isInteger(2 * (bounds?.x ?? NaN))).toBe(true);
        for (const { x, y } of wallLine(own)) expect(bounds && containsPoint(bounds, x, y)).toBe(true);
      },
    ),
    { numRuns: runs(50) },
  );
});

test('a ring stands level on the highest ground under it, a wall on what is under each stud', () => {
  const hilly = (run: object) => {
    const scene = sceneFrom({
      ...sceneFile,
      pads: [{ id: 'p', name: 'Bank', x: 40, y: 0, w: 56, d: 32, level: 'l', ground: 'grass', offset: 9 }],
      levels: [{ id: 'l', name: 'Street', height: 0 }],
      runs: [{ id: 'r', name: 'Round', height: 6, points: [at(40, 16), at(40, 6)], ...run }],
    });
    const relief = compileRelief(scene);
    return { relief, feet: bodiesOf(scene, relief).map(({ begins }) => begins) };
  };
  const { relief, feet } = hilly({ ring: 12, panel: 4 });
  const bank = relief.surface[indexAt(relief, 60, 16)];
  expect(bank - relief.surface[indexAt(relief, 20, 16)]).toBe(9);
  expect(new Set(feet)).toEqual(new Set([bank]));
  // Its inner radius is 2 ÷ tan 15° = 7.5 studs: the panel to the west stands off the bank, and its top is level all the same.
  expect([32, 47].map((x) => relief.top[indexAt(relief, x, 16)])).toEqual([bank + 6, bank + 6]);
  expect(new Set(hilly({ points: [at(20, 8), at(30, 8), at(60, 8)] }).feet).size).toBe(2);
});

test('under an arch a wall is open: its columns, and a track that runs through', () => {
  const gate = (run: object) => ({
    ...sceneFile,
    levels: [{ id: 'l', name: 'Street', height: 0 }],
    runs: [
      {
        ...{ id: 'r', name: 'Town wall', height: 18, points: [at(16, 16.5), at(48, 16.5)], panel: 16 },
        ...{ openings: [{ at: 2, part: 'arch-1x8x2', sill: 3 }], ...run },
      },
    ],
    // Through the middle of the second panel, at 40.
    tracks: [
      {
        ...{ id: 't', name: 'Tramway', x: 40, y: 4, heading: 4, level: 'l', bed: 4 },
        ...{ clearSide: 3, clearHeight: 9, pieces: [{ go: 'straight' as const, length: 24 }] },
      },
    ],
  });
  const solid = (x: number, y: number, run: object = {}) => {
    const scene = sceneFrom({ ...gate(run), tracks: [] });
    return columnsOf(scene, compileRelief(scene))
      .at(x, y)
      .map(({ from, to }) => `${from}–${to}`);
  };
  // Eight studs about 40: piers on 36 and 43, between them open up to the arch at 9.
  expect([35, 36, 37, 42, 43].map((x) => solid(x, 16))).toEqual([
    ['0–18'],
    ['0–18'],
    ['9–18'],
    ['9–18'],
    ['0–18'],
  ]);
  // Two studs thick it is a niche in its face to the north, rows 15 and 16; in the other it lies to the south.
  const thick = {
    ...{ thick: 2, points: [at(16, 16), at(48, 16)] },
    openings: [{ at: 2, part: 'arch-1x8x2', sill: 3, niche: true }],
  };
  expect([15, 16].map((y) => solid(40, y, thick))).toEqual([['9–18'], ['0–18']]);
  expect([15, 16].map((y) => solid(40, y, { ...thick, archSide: 'right' }))).toEqual([['0–18'], ['9–18']]);
  const open = { ...thick, openings: [{ at: 2, part: 'arch-1x8x2', sill: 3 }] };
  expect([15, 16].map((y) => solid(40, y, open))).toEqual([['9–18'], ['9–18']]);
  const stands = (run: object) =>
    evaluateRules(sceneFrom(gate(run)), { today: '2031-05-06' }).flatMap(({ rule, sentence }) =>
      rule === 'track-clear' ? [sentence] : [],
    );
  expect(stands({})).toEqual([]);
  expect(stands({ openings: [] })).toHaveLength(1);
  // On piers of two courses it begins 6 plates up.
  expect(stands({ openings: [{ at: 2, part: 'arch-1x8x2', sill: 2 }] })[0]).toContain(
    'hangs 2b above the bed',
  );
});

test('windows spread over panels are as evenly apart as these allow', () => {
  expect(spreadPanels(24, 6, true)).toEqual({ at: [1, 5, 9, 13, 17, 21], apart: [4] });
  expect(spreadPanels(25, 6, true).apart).toEqual([4, 5]);
  // A door opposite a niche; of three panels a joint is opposite each.
  expect([oppositePanels(24, 1), oppositePanels(24, 19), oppositePanels(3, 3)]).toEqual([[13], [7], [1, 2]]);
  // Along a line half a share is left at either end.
  expect(spreadPanels(9, 3, false)).toEqual({ at: [2, 5, 8], apart: [3] });
  expect(spreadPanels(5, 1, false)).toEqual({ at: [3], apart: [] });
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 120 }), fc.nat(), fc.boolean(), (panels, any, isRing) => {
      const count = 1 + (any % panels);
      const { at: found, apart } = spreadPanels(panels, count, isRing);
      expect(new Set(found).size).toBe(count);
      expect(found.every((one) => one >= 1 && one <= panels)).toBe(true);
      expect((apart.at(-1) ?? 0) - (apart.at(0) ?? 0)).toBeLessThanOrEqual(1);
    }),
  );
});

test('what finds no room in a panel is told with its measures, and what is offered fits', () => {
  const told = (run: object) => {
    const scene = sceneOf({ panel: 4, thick: 1, height: 18, ...run });
    const [finding, ...more] = evaluateRules(scene, { today: '2031-05-06' }).filter(
      ({ rule }) => rule === 'wall-openings',
    );
    expect(more).toEqual([]);
    return finding && [finding.sentence, tryFixes(scene, finding.key, '2031-05-06')?.words];
  };
  const window = (part: string, more: object = {}) => ({ openings: [{ at: 2, part, sill: 2, ...more }] });
  expect(told(window('window-2x1x2'))).toBeUndefined();
  expect(told(window('window-4x1', { sill: 4 }))).toEqual([
    'The window 4×1×3 in panel 2 of “Quay wall” ends 7b above its foot, and the wall is 6b high. The panel is laid plain.',
    'Put it 3 courses up in “Quay wall”',
  ]);
  expect(told({ panel: 3, ...window('window-4x1', { sill: 0 }) })).toEqual([
    'The window 4×1×3 in panel 2 of “Quay wall” is 4 studs wide, and the panel has 3 whole studs. The panel is laid plain.',
    'Let the window 2×1×3 into panel 2 of “Quay wall”',
  ]);
  expect(told(window('window-1x2x2'))?.[0]).toContain('is 2 studs deep, and the wall is 1 stud thick');
  expect(told({ use: 'fence', ...window('window-2x1x2') })?.[0]).toContain('a fence takes none');
  expect(told({ arches: 'arch-1x4', ...window('window-2x1x2') })?.[0]).toContain('arches at its face');
  expect(told(window('arch-1x4', { sill: 0 }))).toEqual([
    'The arch 1×4 in panel 2 of “Quay wall” needs piers of 1b at least. The panel is laid plain.',
    'Put it on piers of a brick in “Quay wall”',
  ]);
  // 24 studs in panels of 4 are six; the last free one is offered.
  expect(told(window('window-2x1x2', { at: 9 }))).toEqual([
    'The window 2×1×2 in panel 9 of “Quay wall” is left out: its line has 6 panels.',
    'Put it into panel 6 of “Quay wall”',
  ]);
});

test('a fence stands over the middle of its wall; the wall keeps its height beside it', () => {
  // Three studs thick about y 8.5: rows 7, 8 and 9.
  const relief = compileRelief(sceneOf({ points: [at(8, 8.5), at(32, 8.5)], thick: 3, topFence: true }));
  const top = (y: number) => relief.top[indexAt(relief, 20, y)] - relief.surface[indexAt(relief, 20, y)];
  expect([6, 7, 8, 9, 10].map(top)).toEqual([0, 12, 12 + FAMILIES.fence.height, 12, 0]);
});

test('arches that find no room are told, and what is offered fits', () => {
  const findings = (scene: ReturnType<typeof sceneOf>) =>
    evaluateRules(scene, { today: '2031-05-06' }).filter(({ rule }) => rule === 'wall-arches');
  const low = sceneOf({ height: 6, arches: 'arch-1x8x2' });
  const [{ key, sentence }] = findings(low);
  expect(sentence).toContain('need 3b with their piers');
  // Of the arches a brick high the widest fits.
  expect(tryFixes(low, key, '2031-05-06')?.words).toBe('Give “Quay wall” arch 1×8 at its face');
  const [short] = findings(sceneOf({ panel: 5, arches: 'arch-1x6' }));
  // Four panels of 5 and one of 4.
  expect(short.numbers).toMatchObject({ short: 5, span: 6 });
  expect(findings(sceneOf(ARCHED))).toEqual([]);
});
