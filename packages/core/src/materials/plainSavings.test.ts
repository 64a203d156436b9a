import { ANY_COLOUR, partOf } from '../catalogue/index.ts';
import { listOf, reduce, sceneFrom, type Scene } from '../document/index.ts';
import { CountCache, priceOfPart } from '../masonry/index.ts';
import { compile } from '../terrain/index.ts';
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
  const done = reduce(scene, plainChanges(scene, areas, 'plain'));
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
  const saved = plainSavings(compile(scene), WEST, new CountCache());
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
  const saved = plainSavings(compile(sceneOf({ colourHidden: 'strict' })), WEST, new CountCache());
  expect(saved?.parts).toEqual([]);
});
