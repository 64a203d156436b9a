import fc from 'fast-check';
import { runs } from '../../test/runs.ts';
import { ANY_COLOUR, partOf } from '../catalogue/index.ts';
import { SIDES, listOf, reduce, sceneFrom, type Scene } from '../document/index.ts';
import { CountCache, blockInputs, builtFrom, priceOfPart } from '../masonry/index.ts';
import { NEIGHBOUR_STEPS, compile } from '../terrain/index.ts';
import { materialsOf, noPlainChanges, plainChanges, plainSavings } from './index.ts';

/** 32 × 16 studs of grass, four bricks high, in two sections, with flowers on a tenth of it. */
const sceneOf = (display: object = {}): Scene =>
  sceneFrom({
    display: { name: 'Meadow', kind: 'diorama', ...display },
    levels: [{ id: 'low', name: 'Low', height: 12 }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 32, d: 16 }],
    pads: [{ id: 'p', name: 'Meadow', x: 0, y: 0, w: 32, d: 16, level: 'low', ground: 'grass' }],
    sections: [
      { id: 'a', letter: 'A', name: 'West', x: 0, y: 0, w: 16, d: 16 },
      { id: 'b', letter: 'B', name: 'East', x: 16, y: 0, w: 16, d: 16 },
    ],
    recipes: [
      {
        ...{ id: 'r', name: 'Flowers', ground: 'grass' },
        tones: [{ colour: 'moss' }, { colour: 'fern' }],
        accents: [{ part: 'plate-1x1', colour: 'poppy', percent: 10 }],
      },
    ],
  });
/** Studs that pieces of some colours cover, by section. */
const coverOf = (scene: Scene, isWanted: (colour: string) => boolean) => {
  const counted = materialsOf(scene, compile(scene), new CountCache());
  const studs: Record<string, number> = {};
  for (const { section, part, colour, qty } of counted?.needs ?? []) {
    const size = partOf(part);
    if (size && isWanted(colour)) studs[section ?? ''] = (studs[section ?? ''] ?? 0) + qty * size.w * size.d;
  }
  return studs;
};
const withPlain = (scene: Scene, areas: { x: number; y: number; w: number; d: number }[]) => {
  const done = reduce(scene, plainChanges(scene, { areas, faces: [] }, 'plain'));
  if (!done.ok) throw new Error(done.refusal.sentence);
  return done.scene;
};
const WEST = [{ x: 0, y: 0, w: 8, d: 16 }];

test('the cover of plain ground is of any colour, stud for stud, without flowers; the rest stays as it was', () => {
  const scene = sceneOf();
  const plain = withPlain(scene, WEST);
  const any = (of: Scene) => coverOf(of, (colour) => colour === ANY_COLOUR);
  const flowers = (of: Scene) => coverOf(of, (colour) => colour === 'poppy');
  expect((any(plain).a ?? 0) - (any(scene).a ?? 0)).toBe(8 * 16);
  expect(any(plain).b).toBe(any(scene).b);
  // Flowers grow where they grew, in the half that is left.
  expect(flowers(plain).b).toBe(flowers(scene).b);
  expect(flowers(plain).a).toBeGreaterThan(0.3 * flowers(scene).a);
  expect(flowers(plain).a).toBeLessThan(0.7 * flowers(scene).a);
  // Taken back, it is what it was; laid again it takes the place of the plain ground before it.
  const back = reduce(plain, noPlainChanges(plain));
  expect(back.ok && any(back.scene)).toEqual(any(scene));
  expect(listOf(withPlain(plain, [{ x: 1, y: 1, w: 4, d: 4 }]), 'plain')).toHaveLength(1);
});

test('what it saves is what the two counts differ by', () => {
  const scene = sceneOf();
  const saved = plainSavings(compile(scene), { areas: WEST, faces: [] }, new CountCache());
  const rowsOf = (of: Scene) => materialsOf(of, compile(of), new CountCache());
  const [before, after] = [rowsOf(scene), rowsOf(withPlain(scene, WEST))];
  const anyOf = (of: typeof before) =>
    (of?.needs ?? []).filter(({ colour, section }) => colour === ANY_COLOUR && section === 'a');
  const pieces = (of: typeof before) => anyOf(of).reduce((sum, { qty }) => sum + qty, 0);
  const worth = (of: typeof before) =>
    anyOf(of).reduce((sum, { part, qty }) => sum + qty * priceOfPart(part, scene.partType).price, 0);
  expect(saved?.parts).toEqual([
    {
      section: 'a',
      pieces: pieces(after) - pieces(before),
      worth: expect.closeTo(worth(after) - worth(before), 6),
    },
  ]);
  const short = (of: typeof before) => (of?.rows ?? []).reduce((sum, row) => sum + row.short, 0);
  expect(saved?.short).toBe(short(before) - short(after));
  expect(saved?.money).toBeGreaterThan(0);
});

test('where hidden pieces must have the right colour nothing is freed', () => {
  const saved = plainSavings(
    compile(sceneOf({ colourHidden: 'strict' })),
    { areas: WEST, faces: [] },
    new CountCache(),
  );
  expect(saved?.parts).toEqual([]);
});

test('faces that nobody sees free just the pieces that show nowhere else (random ground and faces)', () => {
  const whole = (min: number, max: number) => fc.integer({ min, max });
  const strip = fc.record({
    ...{ x: whole(0, 15), y: whole(0, 11), w: whole(1, 8), d: whole(1, 8), side: fc.constantFrom(...SIDES) },
  });
  const block = fc.record({
    x: whole(0, 12),
    y: whole(0, 8),
    w: whole(2, 8),
    d: whole(2, 6),
    offset: whole(-6, 9),
  });
  fc.assert(
    fc.property(fc.array(block, { maxLength: 3 }), fc.array(strip, { maxLength: 4 }), (blocks, faces) => {
      const base = { level: 'low', ground: 'grass' as const };
      const scene = sceneFrom({
        display: { name: 'Steps', kind: 'diorama' },
        levels: [{ id: 'low', name: 'Low', height: 12 }],
        footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 16, d: 12 }],
        pads: [
          { id: 'p', name: 'Meadow', x: 0, y: 0, w: 16, d: 12, ...base },
          ...blocks.map((one, i) => ({ id: `b${i}`, name: `Block ${i}`, ...one, ...base, order: i + 1 })),
        ],
        plains: faces.length > 0 ? [{ id: 'h', name: 'Hidden', faces }] : [],
      });
      const compiled = compile(scene);
      const { relief } = compiled;
      const heightAt = (x: number, y: number) =>
        x < 0 || y < 0 || x >= 16 || y >= 12 ? -1 : relief.height[y * 16 + x];
      const isBare = (x: number, y: number, side: string) =>
        faces.some(
          (one) => one.side === side && x >= one.x && y >= one.y && x < one.x + one.w && y < one.y + one.d,
        );
      for (const input of blockInputs(scene, compiled)) {
        const { masonry, colours } = builtFrom(input);
        const { x: left, y: top } = input.block;
        masonry.layers.forEach(({ laid, z, h, purpose }, layer) => {
          if (purpose !== 'core') return;
          for (let p = 0; p < laid.length; p += 4) {
            const [x, y, w, d] = laid.subarray(p, p + 4);
            let shows = false;
            for (let row = top + y; row < top + y + d; row++)
              for (let column = left + x; column < left + x + w; column++)
                for (const side of SIDES) {
                  const step = NEIGHBOUR_STEPS[side];
                  const [bx, by] = [column + step.x, row + step.y];
                  const isOwn = bx >= left + x && by >= top + y && bx < left + x + w && by < top + y + d;
                  if (!isOwn && heightAt(bx, by) < z + h && !isBare(column, row, side)) shows = true;
                }
            expect(colours[layer][p / 4]).toBe(shows ? 'loam' : ANY_COLOUR);
          }
        });
      }
    }),
    { numRuns: runs(30) },
  );
});
