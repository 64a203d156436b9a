import fc from 'fast-check';
import { sceneFrom, listOf } from '../document/index.ts';
import { compileRelief, listedMass, loadsOf, massOf, shellOf } from '../terrain/index.ts';
import { runs } from '../../test/runs.ts';
import { carriedPieces, moduleLoads, type CarriedPiece } from './index.ts';

type File = Parameters<typeof sceneFrom>[0];
const MODULES = [
  { id: 'a', name: 'A1', x: 0, y: 0, w: 24, d: 32, bases: [] },
  { id: 'b', name: 'B1', x: 24, y: 0, w: 24, d: 32, bases: [] },
];
const BASE: File = {
  display: { name: 'Carried', kind: 'diorama' },
  levels: [{ id: 'low', name: 'Low', height: 0 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 32 }],
  tables: [{ id: 't', name: 'Table', x: 0, y: 0, w: 384, d: 256, height: 740 }],
  pads: [{ id: 'p', name: 'Pad', x: 0, y: 0, w: 48, d: 32, level: 'low', offset: 3, ground: 'grass' }],
  modules: MODULES,
};
const piecesOf = (given: Partial<File>): CarriedPiece[] => {
  const scene = sceneFrom({ ...BASE, ...given });
  return carriedPieces(scene, compileRelief(scene));
};
const one = (pieces: readonly CarriedPiece[], id: string): CarriedPiece => {
  const piece = pieces.find((each) => each.id === id);
  if (!piece) throw new Error(`no ${id} among ${pieces.map((each) => each.id).join()}`);
  return piece;
};
const at = (x: number, y: number) => ({ x, y });
const castle = { id: 'c', name: 'Castle', x: 18, y: 8, w: 12, d: 12, height: 30, storeys: 0 };

describe('what is carried', () => {
  test('a castle in three pieces set over a seam: one piece more, and both modules wait for it', () => {
    const parts = [
      { name: 'Keep', use: 'other' as const, height: 12, clears: 0 },
      { name: 'Hall', use: 'floor' as const, height: 9, clears: 0 },
    ];
    const pieces = piecesOf({ plots: [{ ...castle, mount: 'loose', parts }] });
    expect(pieces.map(({ id }) => id)).toEqual([
      'module-a',
      'module-b',
      'part-c-1',
      'part-c-2',
      'building-c',
    ]);
    const whole = one(pieces, 'building-c');
    expect(whole.on.map(({ name }) => name)).toEqual(['module A1', 'module B1']);
    expect(whole.first).toEqual(['part-c-1', 'part-c-2']);
    expect(one(pieces, 'part-c-2').first).toEqual(['part-c-1']);
    expect(one(pieces, 'module-a').first).toEqual(['building-c']);
    expect(one(pieces, 'module-b').first).toEqual(['building-c']);
    // 12 studs less the play of 0.2 mm; what is left of 30 plates is 9, of 3.2 mm.
    expect([whole.w, whole.d, whole.h]).toEqual([95.8, 95.8, 9 * 3.2]);
    const weights = pieces.filter(({ kind }) => kind !== 'module').reduce((sum, { grams }) => sum + grams, 0);
    expect(weights).toBeCloseTo(shellOf(sceneFrom({ ...BASE, plots: [castle] }).plot.c).grams, 6);
  });
  test('a deck that lifts off is a piece, with the hut pinned on it; tipping by levers', () => {
    const deck = {
      ...{ id: 'd', name: 'Quay', x: 2, y: 2, w: 10, d: 4, level: 'low', offset: 15, loose: true },
      ...{ support: 'ends' as const, pillar: 2 },
    };
    const bare = one(piecesOf({ decks: [deck] }), 'deck-d');
    // 40 studs of 2 plates at 13 to 15, and two ends of 2 × 4 studs from 3 to 13: 80 + 160 stud-plates of 2.3 ÷ 24 g.
    expect(bare.grams).toBeCloseTo((240 * 2.3) / 24, 6);
    // Centre: (80 × 11 + 160 × 5) ÷ 240 plates over its foot.
    const z = ((80 * 11 + 160 * 5) / 240) * 3.2;
    expect(bare.centre.z).toBeCloseTo(z, 6);
    expect(bare.tips).toBeCloseTo((Math.atan(16 / z) * 180) / Math.PI, 6);
    expect(bare.on.map(({ name }) => name)).toEqual(['module A1']);
    const hut = { id: 'h', name: 'Hut', x: 2, y: 2, w: 4, d: 4, height: 9, storeys: 0 };
    const pieces = piecesOf({ decks: [deck], plots: [hut] });
    const laden = one(pieces, 'deck-d');
    const own = shellOf(sceneFrom({ ...BASE, plots: [hut] }).plot.h);
    expect(pieces.some(({ ref }) => ref.id === 'h')).toBe(false);
    expect(laden.grams).toBeCloseTo(bare.grams + own.grams, 6);
    expect(laden.h).toBeCloseTo((12 + 9) * 3.2, 6);
    // The hut stands over the west end: 2 studs from the west, the deck's own centre 5.
    expect(laden.centre.x).toBeCloseTo((8 * (5 * bare.grams + 2 * own.grams)) / laden.grams, 6);
    const loose = piecesOf({ decks: [deck], plots: [{ ...hut, mount: 'loose' }] });
    expect(one(loose, 'building-h').on.map(({ name }) => name)).toEqual(['Quay']);
    expect(one(loose, 'deck-d').first).toEqual(['building-h']);
    expect(one(loose, 'deck-d').grams).toBeCloseTo(bare.grams, 6);
  });
  test('pinned to the roof of a loose house it goes with that; of a pinned one with the module', () => {
    const house = { ...castle, x: 4, name: 'House' };
    const tower = { id: 'w', name: 'Tower', x: 6, y: 10, w: 4, d: 4, height: 18, storeys: 0, onPlot: 'c' };
    const grams = (mount: 'loose' | 'pinned', plots: object[]) => {
      const pieces = piecesOf({
        plots: [{ ...house, mount }, ...plots] as NonNullable<File['plots']>,
      });
      return mount === 'loose' ? one(pieces, 'building-c').grams : one(pieces, 'module-a').grams;
    };
    const own = shellOf(sceneFrom({ ...BASE, plots: [house, tower] }).plot.w).grams;
    expect(grams('loose', [tower]) - grams('loose', [])).toBeCloseTo(own, 3);
    expect(grams('pinned', [tower]) - grams('pinned', [])).toBeCloseTo(own, 1);
  });
  test('track and panels over a seam come off in pieces; what is built in ends at the seam', () => {
    const straight = (length: number) => ({ go: 'straight' as const, length });
    const tracks = [
      {
        ...{ id: 'r', name: 'Tramway', x: 2, y: 20, heading: 0, level: 'low', offset: 3, bed: 6 },
        pieces: [straight(16), straight(16), { go: 'left' as const, radius: 16 }],
      },
    ];
    const fence = {
      id: 'f',
      name: 'Fence',
      points: [at(14.5, 4.5), at(38.5, 4.5)],
      height: 6,
      use: 'fence' as const,
    };
    const pieces = piecesOf({ tracks, runs: [{ ...fence, panel: 8 }] });
    expect(pieces.map(({ id }) => id)).toEqual(['module-a', 'module-b', 'track-r-2', 'run-f-2']);
    // The second straight, from 18 to 34, lies over the seam at 24: 16 studs of 12 ÷ 16 g, 2 plates high (from memory).
    const track = one(pieces, 'track-r-2');
    expect(track).toMatchObject({ title: 'piece 2 of Tramway', area: { x: 18, y: 17, w: 16, d: 6 } });
    expect([track.w, track.d, track.h]).toEqual([127.8, 47.8, 6.4]);
    expect(track.grams).toBeCloseTo(12, 4);
    expect(track.tips).toBeCloseTo((Math.atan(23.9 / 3.2) * 180) / Math.PI, 6);
    // Panels of 8 from 14.5 on: the second, from 22.5 to 30.5, 6 plates high, a fifth of 2.3 ÷ 24 g a stud and plate.
    const panel = one(pieces, 'run-f-2');
    expect(panel).toMatchObject({ title: 'panel 2 of Fence', basis: 'guess' });
    expect([panel.w, panel.d, panel.h]).toEqual([63.8, 7.8, 6 * 3.2]);
    expect(panel.grams).toBeCloseTo((8 * 6 * 0.2 * 2.3) / 24, 4);
    expect(panel.on.map(({ name }) => name)).toEqual(['module A1', 'module B1']);
    for (const id of ['module-a', 'module-b'])
      expect(one(pieces, id).first).toEqual(['track-r-2', 'run-f-2']);
    const builtIn = piecesOf({ tracks, runs: [fence] });
    expect(builtIn.map(({ id }) => id)).toEqual(['module-a', 'module-b', 'track-r-2']);
    const both = (all: typeof pieces) => one(all, 'module-a').grams + one(all, 'module-b').grams;
    expect(both(builtIn) - both(pieces)).toBeCloseTo(panel.grams, 3);
    // A curve of radius 16 turns 22.5°: between the outer corners of a bed of 6, (16 + 3) × 2 sin 11.25°; its sagitta.
    const curve = one(
      piecesOf({ tracks: [{ ...tracks[0], x: 23, pieces: [{ go: 'left', radius: 16 }] }] }),
      'track-r-1',
    );
    expect(curve.w).toBeCloseTo(8 * 2 * 19 * Math.sin(Math.PI / 16) - 0.2, 0);
    expect(curve.d).toBeCloseTo(
      8 * (6 * Math.cos(Math.PI / 16) + 19 * (1 - Math.cos(Math.PI / 16))) - 0.2,
      0,
    );
  });
  test('the masses of all pieces, with trees and what is listed by section, are the mass of the display', () => {
    const place = fc.record({ x: fc.integer({ min: 0, max: 40 }), y: fc.integer({ min: 0, max: 24 }) });
    const plot = fc.record({
      at: place,
      w: fc.integer({ min: 3, max: 8 }),
      height: fc.integer({ min: 6, max: 30 }),
      mount: fc.constantFrom('pinned', 'loose', 'jumpers'),
      part: fc.boolean(),
      onDeck: fc.boolean(),
    });
    const deck = fc.record({
      at: place,
      w: fc.integer({ min: 3, max: 8 }),
      offset: fc.integer({ min: 8, max: 20 }),
      loose: fc.boolean(),
    });
    const fence = fc.record({ from: place, to: place, panel: fc.constantFrom(0, 4, 6.5) });
    const track = fc.record({ at: place, heading: fc.integer({ min: 0, max: 15 }), curve: fc.boolean() });
    fc.assert(
      fc.property(
        fc.array(plot, { maxLength: 3 }),
        fc.array(deck, { maxLength: 2 }),
        fc.integer({ min: 0, max: 9 }),
        fc.array(fence, { maxLength: 2 }),
        fc.array(track, { maxLength: 1 }),
        (plots, decks, cellar, fences, tracks) => {
          const scene = sceneFrom({
            ...BASE,
            decks: decks.map(({ at, w, offset, loose }, i) => ({
              ...{ id: `d${i}`, name: `D${i}`, ...at, w, d: w, level: 'low', offset, loose },
            })),
            cavities:
              cellar > 0
                ? [{ id: 'c', name: 'Cellar', x: 2, y: 2, w: 6, d: 6, level: 'low', offset: 0, clear: 1 }]
                : [],
            plots: plots.map(({ at, w, height, mount, part, onDeck }, i) => ({
              ...{ id: `h${i}`, name: `H${i}`, ...at, w, d: w, height, mount },
              parts: part ? [{ name: 'Roof', height: 3 }] : [],
              onDeck: onDeck && decks.length > 0 ? 'd0' : null,
            })) as NonNullable<File['plots']>,
            runs: fences.map(({ from, to, panel }, i) => ({
              ...{ id: `f${i}`, name: `F${i}`, points: [from, { x: to.x + 0.5, y: to.y }], height: 6, panel },
            })),
            tracks: tracks.map(({ at, heading, curve }, i) => ({
              ...{ id: `r${i}`, name: `R${i}`, ...at, heading, level: 'low', offset: 3 },
              pieces: [{ go: 'straight' }, { go: curve ? 'left' : 'straight', rise: 3 }],
            })) as NonNullable<File['tracks']>,
            trees: [{ id: 't', name: 'Tree', x: 44.5, y: 30.5, height: 12, crown: 2 }],
          });
          const relief = compileRelief(scene);
          const pieces = carriedPieces(scene, relief);
          const all = massOf(scene, relief).grams.reduce((sum, each) => sum + each, 0);
          const inList = pieces.reduce((sum, { grams }) => sum + grams, 0);
          const trees = treeGrams(scene, relief);
          expect(inList + trees).toBeCloseTo(all, 0);
          // Each page takes the modules from the same weighing.
          for (const { id, bulk } of moduleLoads(scene, relief))
            expect(one(pieces, `module-${id}`).grams).toBe(1000 * bulk.kg);
        },
      ),
      { numRuns: runs(60) },
    );
  });
});

/** Grams of the trees: what is taken off and is no piece. */
function treeGrams(scene: ReturnType<typeof sceneFrom>, relief: ReturnType<typeof compileRelief>): number {
  const without = { ...scene, tree: {} };
  const sum = (of: typeof scene, on: typeof relief) =>
    loadsOf(of, on).loose.grams.reduce((total, each) => total + each, 0);
  expect(listOf(scene, 'partList')).toEqual([]);
  expect(listedMass(scene).sections.size).toBe(0);
  return sum(scene, relief) - sum(without, compileRelief(without));
}
