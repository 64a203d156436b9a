import fc from 'fast-check';
import { FAMILIES, partOf } from '../catalogue/index.ts';
import { sceneFrom, type Entity } from '../document/index.ts';
import { thingLines } from '../materials/index.ts';
import { tryFixes } from '../findings/index.ts';
import { evaluateRules } from '../findings/index.ts';
import { runs } from '../../test/runs.ts';
import { archRow, compileRelief, indexAt, runPieces, straightsOf, wallBlocks, wallFill } from './index.ts';

// Walls of more than one layer: arches before masonry, a fence on top, in panels.

const sceneOf = (run: object) =>
  sceneFrom({
    display: { name: 'Yard', kind: 'diorama' },
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 32 }],
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
  expect(straightsOf(own, 40)).toEqual([
    { from: 0, to: 16 },
    { from: 16, to: 32 },
    { from: 32, to: 40 },
  ]);
  const arches = runPieces(own, 40).reduce((sum, { part, qty }) => sum + (part === 'arch-1x6' ? qty : 0), 0);
  expect(arches).toBe(2 + 2 + 1);
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
  });
  fc.assert(
    fc.property(anyWall, ({ length, ...given }) => {
      const own = wall(given);
      const blocks = wallBlocks(own, length);
      const cells = new Set<string>();
      let volume = 0;
      for (const { from, to, near, far, low, high } of blocks) {
        volume += (to - from) * (far - near) * (high - low);
        for (let x = from; x < to; x++)
          for (let y = near; y < far; y++) for (let z = low; z < high; z++) cells.add(`${x} ${y} ${z}`);
      }
      expect(cells.size).toBe(volume);
      const laid = runPieces(own, length).reduce((sum, { part, qty }) => {
        const one = partOf(part);
        return sum + (one ? qty * one.w * one.d * one.h : NaN);
      }, 0);
      expect(laid).toBe(volume);
    }),
    { numRuns: runs(100) },
  );
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
