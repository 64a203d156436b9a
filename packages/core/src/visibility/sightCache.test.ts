import fc from 'fast-check';
import { runs } from '../../test/runs.ts';
import { listOf, reduce, sceneFrom, type Change, type Scene } from '../document/index.ts';
import { compile, recompile } from '../terrain/index.ts';
import { SightCache, sightOf, type Sight } from './index.ts';

const ignore = () => undefined;
const whole = (min: number, max: number) => fc.integer({ min, max });
const [W, D] = [44, 30];
const place = { x: whole(0, W - 8), y: whole(0, D - 8) };
const spot = { x: whole(1, W - 1), y: whole(1, D - 1) };
const size = { w: whole(4, 12), d: whole(4, 10) };

/** A display with a building that has rooms, a tunnel under a deck, a scene, a board, a tree and a hill. */
const START: Parameters<typeof sceneFrom>[0] = {
  display: { name: 'Seen', kind: 'diorama', viewedSides: ['s', 'e'], place: 'hall' },
  levels: [{ id: 'street', name: 'Street', height: 9 }],
  places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0, eyeChild: 900 }],
  tables: [{ id: 't', name: 'Table', place: 'hall', x: 0, y: 0, w: W * 8, d: D * 8, height: 740 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: W, d: D }],
  sections: [
    { id: 'a', letter: 'A', name: 'West', x: 0, y: 0, w: 20, d: D },
    { id: 'b', letter: 'B', name: 'East', x: 20, y: 0, w: W - 20, d: D },
  ],
  pads: [{ id: 'g', name: 'Ground', x: 0, y: 0, w: W, d: D, level: 'street', ground: 'grass' }],
  hills: [{ id: 'h', name: 'Hill', x: 4, y: 3, w: 12, d: 10, level: 'street', height: 12 }],
  plots: [
    { id: 'p', name: 'Mill', x: 24, y: 8, w: 8, d: 8, height: 30, storeys: 2, wallColour: 'slate' },
    { id: 'q', name: 'Shed', x: 8, y: 20, w: 6, d: 5, height: 12, wallColour: 'chalk' },
  ],
  trees: [{ id: 'o', name: 'Oak', x: 20, y: 22, crown: 4, height: 20 }],
  decks: [{ id: 'd', name: 'Deck', x: 34, y: 4, w: 8, d: 12, level: 'street', offset: 12 }],
  cavities: [
    {
      id: 'c',
      name: 'Adit',
      use: 'tunnel',
      x: 36,
      y: 10,
      w: 4,
      d: 20,
      level: 'street',
      offset: -6,
      clear: 6,
    },
  ],
  characters: [{ id: 'w', name: 'Wenna', wears: [{ part: 'torso-1x2', colour: 'moss' }] }],
  figures: [{ id: 'z', name: 'Queue', x: 18, y: 24, spots: [{ character: 'w' }, { dx: 2 }] }],
  signboards: [{ id: 's', name: 'Quay', x: 28, y: 17, facing: 170, colour: 'slate' }],
};

type Edit = (scene: Scene, nth: number) => Change[];
const first = <T extends { id: string; v: number }>(list: readonly T[], use: (one: T) => Change): Change[] =>
  list.length > 0 ? [use(list[0])] : [];
/** One thing of a kind that is there gets other fields. */
const patches = (
  kind: 'hill' | 'plot' | 'tree' | 'deck' | 'figure' | 'signboard' | 'cavity' | 'pad' | 'display' | 'place',
  fields: Record<string, fc.Arbitrary<unknown>>,
): fc.Arbitrary<Edit> =>
  fc.tuple(whole(0, 4), fc.record(fields, { requiredKeys: [] })).map(([nth, set]) => (scene) => {
    const list = listOf(scene, kind);
    return list.length > 0
      ? first(list.slice(nth % list.length), (one) => ({ op: 'patch', kind, id: one.id, v: one.v, set }))
      : [];
  });
const colour = fc.constantFrom('slate', 'chalk', 'moss', 'any');
const edits = fc.oneof(
  patches('hill', { ...place, ...size, height: whole(2, 30) }),
  patches('plot', {
    ...place,
    ...size,
    height: whole(4, 60),
    turn: fc.constantFrom(0, 45, 90),
    wallColour: colour,
  }),
  patches('plot', { name: fc.constantFrom('Mill', 'Works'), wallColour: colour }),
  patches('tree', { ...spot, height: whole(3, 40) }),
  patches('deck', { ...place, offset: whole(6, 18) }),
  patches('figure', spot),
  patches('signboard', { ...spot, facing: whole(0, 359), colour }),
  patches('cavity', { ...place, clear: whole(3, 9) }),
  patches('pad', { ground: fc.constantFrom('sand', 'rock') }),
  patches('display', { viewedSides: fc.constantFrom(['s'], ['s', 'e'], ['w']) }),
  fc.record({ ...place, ...size, height: whole(4, 50) }).map((data): Edit => (_, nth) => [
    { op: 'add', kind: 'plot', id: `new-${nth}`, data: { name: `New ${nth}`, ...data, storeys: 1 } },
  ]),
  fc.record({ ...spot, height: whole(4, 50) }).map((data): Edit => (_, nth) => [
    { op: 'add', kind: 'tree', id: `tree-${nth}`, data: { name: `Tree ${nth}`, ...data } },
  ]),
  fc.constantFrom('plot' as const, 'tree' as const, 'hill' as const, 'deck' as const).map(
    (kind): Edit =>
      (scene) =>
        first(listOf(scene, kind), ({ id, v }) => ({ op: 'remove', kind, id, v })),
  ),
);

/** What is told, the parts of the view to nine decimals: they are sums in another order. */
const told = (sight: Sight | null) =>
  sight && {
    ...sight,
    parts: sight.parts.map(({ view, ...part }) => ({ ...part, view: view.toFixed(9) })),
    views: sight.views.map(({ first: filling, ...view }) => ({
      ...view,
      first: filling.map(({ share, ...one }) => ({ ...one, share: share.toFixed(9) })),
    })),
  };

/** Edits a display at random: what is seen after each change is what a fresh look sees. */
function expectSame(start: Parameters<typeof sceneFrom>[0], usual: number, most: number): void {
  fc.assert(
    fc.property(fc.array(edits, { minLength: 1, maxLength: most }), (list) => {
      let compiled = compile(sceneFrom(structuredClone(start)));
      const cache = new SightCache();
      sightOf(compiled.scene, compiled.relief, ignore, cache);
      list.forEach((edit, nth) => {
        const done = reduce(compiled.scene, edit(compiled.scene, nth));
        // A change that is refused, such as a tower on nothing, is passed over.
        if (!done.ok) return;
        ({ compiled } = recompile(compiled, done.scene));
        expect(told(sightOf(compiled.scene, compiled.relief, ignore, cache))).toEqual(
          told(sightOf(compiled.scene, compiled.relief)),
        );
      });
    }),
    { numRuns: runs(usual) },
  );
}

test('what is seen after any changes is what a fresh look sees (random edits)', () => {
  expectSame(START, 25, 6);
});

test('the same close before a wide display, where a thing fills more than a right angle (random edits)', () => {
  const near = {
    ...START,
    // A rope 96 mm, or 12 studs, before the edge.
    barriers: [{ id: 'r', name: 'Rope', place: 'hall', x1: 0, y1: D * 8 + 96, x2: W * 8, y2: D * 8 + 96 }],
    plots: [
      { id: 'p', name: 'Row', x: 0, y: 20, w: 44, d: 8, height: 24, storeys: 1 },
      { id: 'q', name: 'Shed', x: 8, y: 4, w: 6, d: 5, height: 12 },
    ],
  };
  expectSame(near, 15, 4);
});

test('an unchanged scene is not looked at again, and a computation that was broken off leaves nothing', () => {
  const { scene, relief } = compile(sceneFrom(structuredClone(START)));
  const cache = new SightCache();
  const fresh = told(sightOf(scene, relief));
  expect(() =>
    sightOf(
      scene,
      relief,
      () => {
        throw new Error('broken off');
      },
      cache,
    ),
  ).toThrow('broken off');
  expect(told(sightOf(scene, relief, ignore, cache))).toEqual(fresh);
  expect(told(sightOf(scene, relief, ignore, cache))).toEqual(fresh);
});
