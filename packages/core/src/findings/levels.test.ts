import {
  copyAll,
  moveAll,
  pieceOf,
  reduce,
  removeAll,
  sceneFrom,
  setOut,
  type Scene,
} from '../document/index.ts';
import { compileRelief, standsOn } from '../terrain/index.ts';
import { evaluateRules } from './evaluator.ts';
import { tryFixes } from './fixes.ts';

type File = Parameters<typeof sceneFrom>[0];
type Given = Partial<File>;
const BASE: File = {
  display: { name: 'Levels', kind: 'diorama', deckSpan: 8, ratio: 45 },
  levels: [{ id: 'low', name: 'Low', height: 0 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 32 }],
  tables: [{ id: 't', name: 'Table', x: 0, y: 0, w: 384, d: 256 }],
};
const pad = (offset: number, more: object = {}) => ({
  ...{
    id: `p${offset}`,
    name: 'Pad',
    x: 0,
    y: 0,
    w: 48,
    d: 32,
    level: 'low',
    offset,
    ground: 'grass' as const,
  },
  ...more,
});
const deck = (more: object = {}) => ({
  ...{ id: 'd', name: 'Quay', x: 4, y: 4, w: 20, d: 12, level: 'low', offset: 24 },
  ...more,
});
const cavity = (more: object = {}) => ({
  ...{ id: 'c', name: 'Cellar', x: 4, y: 4, w: 8, d: 8, level: 'low', offset: 3, clear: 12 },
  ...more,
});
const at = (x: number, y: number) => ({ x, y });
const found = (given: Given, rule: string) =>
  evaluateRules(sceneFrom({ ...BASE, ...given })).filter((finding) => finding.rule === rule);
const numbersOf = (given: Given, rule: string) =>
  found(given, rule).map(({ numbers, severity }) => ({ ...numbers, severity }));

describe('what is judged of levels', () => {
  test('a stair from a deck is a way down whichever way it leads, and a hut on it hides it', () => {
    const shores = { pads: [pad(3)], decks: [deck({ x: 16, y: 12, w: 16, d: 8 })] };
    for (const [from, to] of [
      [at(24, 14), at(24, 2)],
      [at(24, 18), at(24, 30)],
      [at(18, 16), at(6, 16)],
      [at(30, 16), at(42, 16)],
    ]) {
      const ways = [
        {
          ...{
            id: 'w',
            name: 'Stair',
            width: 4,
            use: 'path' as const,
            bridges: true,
            onSteep: 'steps' as const,
          },
          points: [
            { ...from, z: 24 },
            { ...to, z: 3 },
          ],
        },
      ];
      const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
      const hut = { id: 'h', name: 'Hut', w: 4, d: 4, height: 9 };
      const on = { ...hut, x: (middle.x + to.x) / 2 - 2, y: (middle.y + to.y) / 2 - 2 };
      expect(found({ ...shores, ways, plots: [on] }, 'way-down-hidden')).toHaveLength(1);
      expect(found({ ...shores, ways, plots: [{ ...hut, x: 2, y: 2 }] }, 'way-down-hidden')).toEqual([]);
    }
  });
  test('a door on an upper storey leads on to a deck or a roof at its height, not into a neighbour nor over the edge', () => {
    // Ground at 3 plates; the second storey of two begins 21 above it, its door another plate: at 25.
    const house = (more: object = {}) => ({
      ...{ id: 'h', name: 'House', x: 20, y: 12, w: 8, d: 8, height: 42, storeys: 2 },
      bays: [{ side: 'e' as const, storey: 2, bays: [{ wide: 8, part: 'door-4x1' }] }],
      ...more,
    });
    const leads = (more: object, own: object = {}) =>
      found({ pads: [pad(3)], plots: [house(own)], ...more }, 'door-leads').map(({ sentence }) => sentence);
    expect(leads({})).toEqual([expect.stringContaining('7b1p above what lies before it')]);
    const gallery = (offset: number) => ({ decks: [deck({ x: 28, y: 12, w: 8, d: 8, offset })] });
    // A step of a brick up to it; a plate lower is too far, a plate higher bars it.
    expect([24, 25, 22, 21, 26].map((offset) => leads(gallery(offset)).length)).toEqual([0, 0, 0, 1, 1]);
    const walk = (height: number, use: 'wall' | 'hedge' = 'wall') => ({
      runs: [
        {
          ...{ id: 'w', name: 'Wall', use, height, thick: 4 },
          points: [
            { x: 30, y: 4 },
            { x: 30, y: 28 },
          ],
        },
      ],
    });
    expect([22, 19, 18, 23].map((height) => leads(walk(height)).length)).toEqual([0, 0, 1, 1]);
    expect(leads(walk(22, 'hedge'))).toHaveLength(1);
    const beside = (height: number) => ({
      plots: [house(), { id: 'n', name: 'Neighbour', x: 28, y: 12, w: 8, d: 8, height }],
    });
    expect(leads(beside(22))).toEqual([]);
    expect(leads(beside(42))).toEqual([
      expect.stringContaining('leads into “Neighbour”, which has no door there'),
    ]);
    // Turned by a quarter the east front looks south; at the south edge it leads over it.
    expect(leads({}, { turn: 90, y: 24 })).toEqual([expect.stringContaining('over the edge of the display')]);
  });
  test('wall to wall doors face each other at one place and height, however both are turned; else the nearest says how it is off', () => {
    const door = (
      side: 'e' | 'w',
      more: { y?: number; height?: number; turn?: number } = {},
      part = 'door-4x1',
    ) => ({
      ...{ w: 8, d: 8, y: 12, height: 42, storeys: 2, ...more },
      bays: [{ side, storey: 2, bays: [{ wide: 8, part }] }],
    });
    const pair = (own: ReturnType<typeof door>, other: ReturnType<typeof door>) => ({
      pads: [pad(3)],
      plots: [
        { id: 'h', name: 'House', x: 20, ...own },
        { id: 'n', name: 'Neighbour', x: 28, ...other },
      ],
    });
    const said = (...both: Parameters<typeof pair>) =>
      found(pair(...both), 'door-leads').map(({ sentence }) => /leads (.*);/.exec(sentence)?.[1]);
    expect(said(door('e'), door('w'))).toEqual([]);
    expect(said(door('e'), door('w', {}, 'arch-1x4'))).toEqual([]);
    expect(said(door('e'), door('w', { y: 12.5 }))).toEqual([]);
    expect(said(door('e'), door('w', { y: 15 }))).toEqual([
      'into the wall of “Neighbour”, whose door there stands 3 studs aside',
      'into the wall of “House”, whose door there stands 3 studs aside',
    ]);
    // Storeys of 21 and of 24 plates: 3 apart is a step, 4 is too much.
    expect(said(door('e'), door('w', { height: 48 }))).toEqual([]);
    expect(said(door('e'), door('w', { height: 50 }))[0]).toBe(
      'into the wall of “Neighbour”, whose door there stands 1b1p higher',
    );
    // A door to the east of the other looks away from this one.
    expect(said(door('e'), door('e'))[0]).toBe('into “Neighbour”, which has no door there');
    // Turned by half, its east front looks west.
    expect(said(door('e'), door('e', { turn: 180 }))).toEqual([]);
    const scene = sceneFrom({ ...BASE, ...pair(door('e'), door('w', { y: 15 })) });
    const [first] = evaluateRules(scene).filter(({ rule }) => rule === 'door-leads');
    const fix = tryFixes(scene, first.key, '2027-01-01');
    const done = fix && reduce(scene, fix.changes);
    expect(done?.ok && evaluateRules(done.scene).some(({ rule }) => rule === 'door-leads')).toBe(false);
  });
  test('spans: pillars each 8 studs are near enough; two ends 16 studs apart are not, and what mends it is found', () => {
    expect(found({ pads: [pad(3)], decks: [deck()] }, 'slab-span')).toEqual([]);
    // Between ends of 2 studs 16 lie free: the middle is 8 from either.
    const given = { pads: [pad(3)], decks: [deck({ support: 'ends' })] };
    expect(numbersOf(given, 'slab-span')).toEqual([{ far: 8, most: 4, severity: 'warning' }]);
    const scene = sceneFrom({ ...BASE, ...given });
    const fix = tryFixes(scene, found(given, 'slab-span')[0].key, '2027-01-01');
    const done = fix && reduce(scene, fix.changes);
    expect(done?.ok && evaluateRules(done.scene).some(({ rule }) => rule === 'slab-span')).toBe(false);
  });
  test('no pillar stands on a road under the deck, so that what is over it hangs farther', () => {
    const road = {
      ...{ id: 'w', name: 'Lane', use: 'road' as const, width: 12 },
      points: [
        { x: 14, y: 0, z: null },
        { x: 14, y: 32, z: null },
      ],
    };
    // The lane takes studs 8 to 19. The deck goes from 4 to 23; of its pillars at 4, 13 and 22 those at 13 fall away.
    expect(numbersOf({ pads: [pad(3)], decks: [deck()], ways: [road] }, 'slab-span')).toEqual([
      { far: 8, most: 4, severity: 'warning' },
    ]);
  });
  test('a roof of one plate is too thin, and is mended by a plate less inside or a floor a plate lower', () => {
    const given = { pads: [pad(16)], cavities: [cavity()] };
    expect(numbersOf(given, 'cavity-roof')).toEqual([{ roof: 1, least: 2, severity: 'warning' }]);
    const scene = sceneFrom({ ...BASE, ...given });
    expect(tryFixes(scene, found(given, 'cavity-roof')[0].key, '2027-01-01')?.words).toBe(
      'Lower “Cellar” by 1 plate',
    );
    expect(numbersOf({ pads: [pad(17)], cavities: [cavity()] }, 'cavity-roof')).toEqual([]);
  });
  test('a cellar that breaks through is open; a tunnel may be', () => {
    const pads = [pad(20), pad(10, { x: 4, y: 4, w: 3, d: 8, order: 1 })];
    expect(numbersOf({ pads, cavities: [cavity()] }, 'cavity-open')).toEqual([
      { open: 24, severity: 'warning' },
    ]);
    expect(numbersOf({ pads, cavities: [cavity({ use: 'tunnel' })] }, 'cavity-open')).toEqual([]);
    expect(numbersOf({ pads: [pad(2)], cavities: [cavity()] }, 'cavity-open')).toEqual([
      { roofed: 0, severity: 'warning' },
    ]);
  });
  test('room over a road: 4.5 m at 1:45 is 100 mm, 32 plates; the deck leaves 19', () => {
    const road = (use: 'road' | 'path') => ({
      ...{ id: 'w', name: 'Lane', use, width: 4 },
      points: [
        { x: 8, y: 0, z: null },
        { x: 8, y: 32, z: null },
      ],
    });
    const of = (use: 'road' | 'path') =>
      numbersOf({ pads: [pad(3)], decks: [deck()], ways: [road(use)] }, 'way-room');
    // Top at 24 less 2 plates of deck, over ground at 3.
    expect(of('road')).toEqual([{ air: 19, need: 32, severity: 'warning' }]);
    expect(of('path')).toEqual([]);
  });
  test('a track in a tunnel is judged by its own clear height, and the hill over it stands in nobody’s way', () => {
    const track = {
      ...{ id: 't', name: 'Line', x: 0, y: 8, level: 'low', offset: 3, clearSide: 3, bed: 4 },
      pieces: [{ go: 'straight' as const, length: 48 }],
    };
    const tunnel = (clear: number) => cavity({ use: 'tunnel', x: 0, w: 48, y: 4, d: 8, clear });
    const of = (clear: number, clearHeight: number) =>
      numbersOf(
        { pads: [pad(40)], cavities: [tunnel(clear)], tracks: [{ ...track, clearHeight }] },
        'way-room',
      );
    expect(of(20, 18)).toEqual([]);
    expect(of(20, 24)).toEqual([{ air: 20, need: 24, severity: 'warning' }]);
    const all = evaluateRules(
      sceneFrom({
        ...BASE,
        pads: [pad(40)],
        cavities: [tunnel(20)],
        tracks: [{ ...track, clearHeight: 18 }],
      }),
    );
    expect(all.filter(({ rule }) => rule === 'track-clear')).toEqual([]);
  });
  test('what is taller than the room over it: a hut under a deck, a barrel in a cellar', () => {
    const hut = (height: number, more: object = {}) => ({
      ...{ id: 'h', name: 'Hut', x: 8, y: 8, w: 3, d: 3, height, onGround: true },
      ...more,
    });
    const under = (height: number) =>
      numbersOf({ pads: [pad(3)], decks: [deck()], plots: [hut(height)] }, 'room-over');
    expect(under(19)).toEqual([]);
    expect(under(20)).toEqual([{ tall: 20, room: 19, severity: 'error' }]);
    const inside = (height: number) =>
      numbersOf(
        {
          pads: [pad(30)],
          cavities: [cavity()],
          plots: [hut(height, { onGround: false, inCavity: 'c' })],
        },
        'room-over',
      );
    expect(inside(12)).toEqual([]);
    expect(inside(13)).toEqual([{ tall: 13, room: 12, severity: 'error' }]);
  });
  test('a house on a deck is not on the road under it; one on the ground is', () => {
    const across = (more: object) =>
      found(
        {
          pads: [pad(3)],
          decks: [deck()],
          ways: [
            {
              ...{ id: 'w', name: 'Lane', use: 'road', width: 4 },
              points: [
                { x: 14, y: 0 },
                { x: 14, y: 31 },
              ],
            },
          ],
          plots: [{ id: 'a', name: 'Shed', x: 11, y: 6, w: 6, d: 6, height: 9, ...more }],
        },
        'plot-across',
      );
    expect(across({})).toEqual([]);
    // 4 of its 6 studs across the lane, over all its depth.
    expect(across({ onGround: true })).toMatchObject([{ numbers: { studs: 4 * 6 } }]);
    expect(across({ x: 11, y: 20 })).toMatchObject([{ numbers: { studs: 4 * 6 } }]);
  });
  test('half on what it names, and not at all on it', () => {
    const shed = (x: number) => ({ id: 's', name: 'Shed', x, y: 6, w: 4, d: 4, height: 9, onDeck: 'd' });
    const of = (x: number) =>
      numbersOf({ pads: [pad(3)], decks: [deck()], plots: [shed(x)] }, 'stands-on-nothing');
    expect(of(10)).toEqual([]);
    // The deck ends at stud 24: of 4 columns of 4 studs one is on it.
    expect(of(23)).toEqual([{ carried: 4, studs: 16, severity: 'warning' }]);
    expect(of(30)).toEqual([{ carried: 0, studs: 16, severity: 'error' }]);
  });
  describe('on walls', () => {
    const wall = (more: object) => ({
      ...{ id: 'w', name: 'Wall', use: 'wall' as const, height: 15, thick: 2 },
      points: [
        { x: 4, y: 8 },
        { x: 28, y: 8 },
      ],
      ...more,
    });
    const tower = (more: object) => ({
      ...{ id: 't', name: 'Tower', x: 10, y: 7, w: 2, d: 2, height: 30, onRun: 'w' },
      ...more,
    });
    const of = (rule: string, towerMore: object, wallMore: object = {}) =>
      numbersOf({ pads: [pad(3)], runs: [wall(wallMore)], plots: [tower(towerMore)] }, rule);
    test('a tower on a wall is on it, half on it, or beside it, by the studs of its outer walls', () => {
      expect(of('stands-on-nothing', {})).toEqual([]);
      // The border of 6 × 4 has 16 studs; two rows lie on the wall, of which the border has both ends.
      expect(of('stands-on-nothing', { y: 6, w: 6, d: 4 })).toEqual([
        { carried: 4, studs: 16, severity: 'warning' },
      ]);
      expect(of('stands-on-nothing', { y: 20 })).toEqual([{ carried: 0, studs: 4, severity: 'error' }]);
    });
    test('it does not stand across that wall, unless a fence on the wall is in its way', () => {
      expect(of('plot-across', {})).toEqual([]);
      expect(of('plot-across', { onRun: null })).toMatchObject([{ studs: 4 }]);
      expect(of('plot-across', {}, { topFence: true })).toMatchObject([{ studs: 4 }]);
    });
    test('a storey on a ring of panels, and a round hall on that', () => {
      // 24 panels of 4: inner radius 4 ÷ (2 tan 7.5°) = 15.2, outer one 16.2 (regular polygon).
      const ring = (id: string, more: object) => ({
        ...{ id, name: id, use: 'wall' as const, height: 18, thick: 1, ring: 24, panel: 4 },
        points: [
          { x: 24, y: 16 },
          { x: 48, y: 16 },
        ],
        ...more,
      });
      const hall = (more: object) => ({
        ...{
          id: 'h',
          name: 'Hall',
          shape: 'round' as const,
          x: 8,
          y: 0,
          w: 32,
          d: 32,
          height: 30,
          onRun: 'b',
        },
        ...more,
      });
      const keep = (more: object) => ({
        footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 32 }],
        pads: [pad(3, { w: 48, d: 32 })],
        runs: [ring('a', {}), ring('b', { onRun: 'a' })],
        plots: [hall(more)],
      });
      const scene = sceneFrom({ ...BASE, ...keep({}) });
      expect(standsOn(scene, compileRelief(scene), scene.plot.h)).toBe(3 + 18 + 18);
      expect(numbersOf(keep({}), 'stands-on-nothing')).toEqual([]);
      expect(numbersOf(keep({}), 'plot-across')).toEqual([]);
      // Four studs smaller on each side it hangs inside of the ring.
      expect(numbersOf(keep({ x: 12, y: 4, w: 24, d: 24 }), 'stands-on-nothing')).toMatchObject([
        { carried: 0, severity: 'error' },
      ]);
    });
    test('has no street door: the drop before it is no fault', () => {
      expect(of('door-cliff', {})).toEqual([]);
      // On high ground it has one: that ends a stud before the door.
      const high = { id: 'high', x: 0, y: 0, w: 48, d: 12, order: 1 };
      const onGround = {
        pads: [pad(3), { ...pad(24), ...high }],
        plots: [tower({ onRun: null, x: 20, y: 7, w: 4, d: 4 })],
      };
      expect(numbersOf(onGround, 'door-cliff')).toMatchObject([{ drop: 21 }]);
    });
    test('goes along with it; without it on the next surface', () => {
      const scene = sceneFrom({
        ...BASE,
        pads: [pad(3)],
        runs: [wall({})],
        plots: [tower({}), tower({ id: 'cap', name: 'Cap', height: 3, onRun: null, onPlot: 't' })],
        figures: [{ id: 'f', name: 'Guard', x: 20.5, y: 8.5, onRun: 'w' }],
      });
      const after = (changes: Parameters<typeof reduce>[1]) => {
        const done = reduce(scene, changes);
        if (!done.ok) throw new Error(done.refusal.sentence);
        return done.scene;
      };
      const moved = after(moveAll(scene, [{ kind: 'run', id: 'w' }], 2, 1));
      expect([moved.plot.t.x, moved.plot.cap.y, moved.figure.f.x]).toEqual([12, 8, 22.5]);
      const without = after(removeAll(scene, [{ kind: 'run', id: 'w' }]));
      expect([without.plot.t.onRun, without.plot.cap.onPlot]).toEqual([null, 't']);
      expect(standsOn(without, compileRelief(without), without.plot.cap)).toBe(3 + 30);
    });
  });
  test('half on a deck and half on the yard it has two feet: no gap is told', () => {
    const shed = { id: 's', name: 'Shed', x: 22, y: 6, w: 4, d: 4, height: 9 };
    const rules = evaluateRules(sceneFrom({ ...BASE, pads: [pad(3)], decks: [deck()], plots: [shed] })).map(
      ({ rule }) => rule,
    );
    expect(rules).not.toContain('plot-uneven');
  });
});

describe('what stands on something', () => {
  const scene = sceneFrom({
    ...BASE,
    pads: [pad(3)],
    decks: [deck()],
    plots: [
      { id: 'on', name: 'On', x: 6, y: 6, w: 4, d: 4, height: 9 },
      { id: 'roof', name: 'Roof', x: 7, y: 7, w: 2, d: 2, height: 6, onPlot: 'on' },
      { id: 'under', name: 'Under', x: 16, y: 6, w: 4, d: 4, height: 6, onGround: true },
      { id: 'away', name: 'Away', x: 40, y: 6, w: 4, d: 4, height: 6 },
    ],
    trees: [{ id: 't', name: 'Tree', x: 12.5, y: 12.5, onDeck: 'd' }],
  });
  const after = (changes: Parameters<typeof reduce>[1]): Scene => {
    const done = reduce(scene, changes);
    if (!done.ok) throw new Error(done.refusal.sentence);
    return done.scene;
  };
  test('goes along when that is moved, in one batch that one undo takes back', () => {
    const changes = moveAll(scene, [{ kind: 'deck', id: 'd' }], 3, -2);
    const moved = after(changes);
    expect(moved.deck.d).toMatchObject({ x: 7, y: 2 });
    expect([moved.plot.on.x, moved.plot.roof.x, moved.tree.t.x]).toEqual([9, 10, 15.5]);
    expect([moved.plot.under.x, moved.plot.away.x]).toEqual([16, 40]);
    const done = reduce(scene, changes);
    const back = done.ok && reduce(done.scene, done.inverse);
    expect(back && back.ok && [back.scene.deck.d.x, back.scene.plot.roof.x, back.scene.tree.t.x]).toEqual([
      4, 7, 12.5,
    ]);
  });
  test('is copied with it: the copy stands on the copy; of a kept piece it stands on the highest surface', () => {
    let n = 0;
    const fresh = () => `fresh-${n++}`;
    const picks = [
      { kind: 'plot' as const, id: 'on' },
      { kind: 'plot' as const, id: 'roof' },
      { kind: 'tree' as const, id: 't' },
    ];
    const copied = after(copyAll(scene, picks, { dx: 1, dy: 0 }, fresh).changes);
    expect(copied.plot['fresh-1'].onPlot).toBe('fresh-0');
    expect(copied.tree['fresh-2'].onDeck).toBe('d');
    const piece = pieceOf(scene, picks, 'Corner');
    const kept = after([{ op: 'add', kind: 'piece', id: 'piece', data: piece ?? {} }]);
    const out = setOut(kept, 'piece', { x: 0, y: 0 }, null, fresh);
    const set = out.ok ? reduce(kept, out.changes) : null;
    expect(set?.ok && Object.values(set.scene.tree).map(({ onDeck }) => onDeck)).toEqual(
      expect.arrayContaining(['d', null]),
    );
  });
  test('stands on the next surface when that is removed', () => {
    const bare = after(removeAll(scene, [{ kind: 'deck', id: 'd' }]));
    expect(bare.tree.t.onDeck).toBeNull();
    const without = after(removeAll(scene, [{ kind: 'plot', id: 'on' }]));
    expect(standsOn(without, compileRelief(without), without.plot.roof)).toBe(24);
  });
});
