import fc from 'fast-check';
import { compileRelief } from '../terrain/index.ts';
import { reduce, sceneFrom } from '../document/index.ts';
import { intersection } from '../grid/index.ts';
import { leavesRoom, pointToRoom, sceneInRoom } from '../venue/index.ts';
import {
  HAND,
  bestMoves,
  nearestSide,
  openSides,
  reachOf,
  shareOf,
  sectionShares,
  underCover,
  type Layout,
} from './index.ts';
import { runs } from '../../test/runs.ts';

const room = (w: number, d: number) => [
  { x: 0, y: 0 },
  { x: w, y: 0 },
  { x: w, y: d },
  { x: 0, y: d },
];
const layout = (set: Partial<Layout>): Layout => ({
  walls: [],
  tables: [],
  obstacles: [],
  scene: [],
  standDepth: 600,
  ...set,
});
const table = { x: 1000, y: 1000, w: 2000, d: 1000 };

describe('where one can stand', () => {
  test('a table in the open has four sides; against a wall three; in a corner two; in an alcove none', () => {
    const sides = (walls: Layout['walls']) => openSides(layout({ tables: [table], walls })).length;
    expect(sides([])).toBe(4);
    expect(sides(room(6000, 6000))).toBe(4);
    expect(openSides(layout({ tables: [{ ...table, y: 0 }], walls: room(6000, 6000) }))).toHaveLength(3);
    expect(openSides(layout({ tables: [{ ...table, x: 0, y: 0 }], walls: room(6000, 6000) }))).toHaveLength(
      2,
    );
    expect(
      openSides(layout({ tables: [{ x: 0, y: 0, w: 2000, d: 1000 }], walls: room(2000, 1500) })),
    ).toHaveLength(0);
  });
  test('a neighbour table, an obstacle and a slanted wall take their stretch of an edge', () => {
    const neighbour = { x: 1500, y: 2100, w: 500, d: 500 };
    const south = (set: Partial<Layout>) =>
      openSides(layout({ tables: [table], ...set })).filter(
        ({ y1, y2, x1, x2 }) => y1 === 2000 && y2 === 2000 && x2 > x1,
      );
    expect(south({ obstacles: [neighbour] }).map(({ x1, x2 }) => [x1, x2])).toEqual([
      [1000, 1500],
      [2000, 3000],
    ]);
    // Less than 450 mm of floor is no place to stand.
    expect(south({ obstacles: [{ ...neighbour, x: 1400, w: 1200 }] })).toEqual([]);
    const slanted = [
      ...room(6000, 2900).slice(0, 2),
      { x: 6000, y: 2000 },
      { x: 2000, y: 2500 },
      { x: 0, y: 3500 },
    ];
    // The wall enters the strip of 600 mm at x = 1,800.
    expect(south({ walls: slanted })).toEqual([
      { x1: 1000, y1: 2000, x2: expect.closeTo(1800, 6), y2: 2000 },
    ]);
  });
});

test('distance to the nearest side is that of a brute-force walk along all sides', () => {
  const at = fc.integer({ min: 0, max: 1000 });
  const side = fc
    .tuple(at, at, fc.integer({ min: 1, max: 400 }), fc.boolean())
    .map(([x, y, length, flat]) => ({ x1: x, y1: y, x2: flat ? x + length : x, y2: flat ? y : y + length }));
  fc.assert(
    fc.property(fc.array(side, { minLength: 1, maxLength: 5 }), at, at, (sides, x, y) => {
      let least = Infinity;
      for (const { x1, y1, x2, y2 } of sides)
        for (let i = 0; i <= 400; i++)
          least = Math.min(least, Math.hypot(x1 + ((x2 - x1) * i) / 400 - x, y1 + ((y2 - y1) * i) / 400 - y));
      // The walk goes in steps of at most 1 mm.
      const exact = Math.sqrt(nearestSide(sides, x, y));
      return exact <= least + 1e-9 && exact >= least - 1;
    }),
  );
});

/** 250 × 125 studs, 2,000 × 1,000 mm, on a table of that size against the north wall of a hall. */
const hall = (
  tables: object[] = [{ id: 't', name: 'Table', place: 'hall', x: 1000, y: 0, w: 2000, d: 1000 }],
) =>
  sceneFrom({
    display: { name: 'Wide', kind: 'diorama', place: 'hall' },
    places: [{ id: 'hall', name: 'Hall', walls: room(6000, 4000), sceneX: 1000, sceneY: 0 }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 250, d: 125 }],
    sections: [
      { id: 'n', letter: 'N', name: 'North', x: 0, y: 0, w: 250, d: 62 },
      { id: 's', letter: 'S', name: 'South', x: 0, y: 62, w: 250, d: 63 },
    ],
    tables: tables as never,
  });

describe('under cover', () => {
  // Solid ground 40 plates high with a tunnel of 6 studs in it, its floor on the table.
  const tunnel = (more: object = {}) => ({
    ...hall(),
    ...(() => {
      const { level, pad, cavity, deck } = sceneFrom({
        display: { name: 'Wide', kind: 'diorama' },
        levels: [{ id: 'low', name: 'Low', height: 0 }],
        pads: [
          { id: 'p', name: 'Hill', x: 0, y: 0, w: 250, d: 125, level: 'low', offset: 40, ground: 'rock' },
        ],
        cavities: [{ id: 'c', name: 'Bore', x: 0, y: 60, w: 250, d: 6, level: 'low', clear: 20, ...more }],
      });
      return { level, pad, cavity, deck };
    })(),
  });
  const inside = (scene: ReturnType<typeof tunnel>) => {
    const relief = compileRelief(scene);
    const { distance } = underCover(scene, relief, reachOf(scene, relief));
    return (x: number, y: number) => distance[(y - relief.y) * relief.w + x - relief.x];
  };
  test('a hand goes in by a mouth, not through the hill over it (by hand)', () => {
    const at = inside(tunnel());
    // The first stud's middle lies 4 mm from the west side; each further one 8 mm on. From the east likewise.
    expect(at(0, 62)).toBeCloseTo(4, 3);
    expect(at(100, 62)).toBeCloseTo(4 + 100 * 8, 2);
    expect(at(249 - 100, 62)).toBeCloseTo(4 + 100 * 8, 2);
    expect(at(20, 50)).toBeNaN();
  });
  test('what is closed all round, or too low for a hand, is not reached at all', () => {
    expect(inside(tunnel({ x: 10, w: 230 }))(100, 62)).toBe(Infinity);
    expect(inside(tunnel({ clear: HAND }))(100, 62)).toBeCloseTo(804, 2);
    expect(inside(tunnel({ clear: HAND - 1 }))(100, 62)).toBe(Infinity);
  });
});

describe('reach', () => {
  test('against a wall, the far middle is as far as the table is deep (by hand)', () => {
    const scene = hall();
    const reach = reachOf(scene, compileRelief(scene));
    const share = shareOf(reach);
    // The farthest stud's centre lies 4 mm from the wall: 996 mm from the south edge.
    expect(share.farthest).toBeCloseTo(996, 4);
    // Past 750 mm from the south, east and west edges: rows y < 250 (31 rows of centres), x from 750 to 1,250.
    expect(share.pastArm).toBe(31 * 62);
    expect(share.pastLadder).toBe(0);
    const [north, south] = sectionShares(scene, reach);
    expect([north.share.pastArm, south.share.pastArm]).toEqual([31 * 62, 0]);
  });
  test('each stud is as far as the nearest of all sides says, turned or not (brute force over all of them)', () => {
    const turns = fc.constantFrom(0 as const, 90 as const, 180 as const, 270 as const);
    const at = fc.integer({ min: 0, max: 3000 });
    const tables = fc.array(fc.tuple(at, at), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(
        turns,
        tables,
        fc.integer({ min: 1, max: 60 }),
        fc.integer({ min: 1, max: 60 }),
        (turn, places, w, d) => {
          const scene = sceneFrom({
            display: { name: 'Any', kind: 'diorama', place: 'hall' },
            places: [{ id: 'hall', name: 'Hall', sceneX: 1500, sceneY: 1500, turn }],
            footprint: [{ id: 'f', name: 'All', x: -3, y: 2, w, d }],
            tables: places.map(([x, y], i) => ({
              id: `t${i}`,
              name: 'T',
              place: 'hall',
              x,
              y,
              w: 700,
              d: 500,
            })),
          });
          const { distance, sides, x, y, w: columns } = reachOf(scene, compileRelief(scene));
          for (let i = 0; i < distance.length; i += 7) {
            const stud = { x: x + (i % columns) + 0.5, y: y + Math.trunc(i / columns) + 0.5 };
            const { x: u, y: v } = pointToRoom({ x: 1500, y: 1500, turn }, stud);
            expect(distance[i]).toBeCloseTo(Math.sqrt(nearestSide(sides, u, v)), 2);
          }
        },
      ),
      { numRuns: runs(40) },
    );
  });
  test('the best move pulls it off the wall; what it promises is what one gets', () => {
    const scene = hall();
    const [best] = bestMoves(scene, compileRelief(scene));
    expect(best).toMatchObject({ kind: 'pull', words: 'Pull everything 600 mm to the south', after: 0 });
    const moved = reduce(scene, best.changes);
    if (!moved.ok) throw new Error(moved.refusal.sentence);
    const after = shareOf(reachOf(moved.scene, compileRelief(moved.scene)));
    expect(after.pastArm).toBe(0);
  });
  test('a deep block of two tables in the middle: an aisle between them is the best there is', () => {
    const scene = sceneFrom({
      display: { name: 'Deep', kind: 'diorama', place: 'hall' },
      places: [{ id: 'hall', name: 'Hall', walls: room(8000, 8000), sceneX: 2000, sceneY: 2000 }],
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 300, d: 300 }],
      tables: [
        { id: 'a', name: 'A', place: 'hall', x: 2000, y: 2000, w: 1200, d: 2400 },
        { id: 'b', name: 'B', place: 'hall', x: 3200, y: 2000, w: 1200, d: 2400 },
      ],
    });
    const [best, ...rest] = bestMoves(scene, compileRelief(scene));
    expect(best).toMatchObject({ kind: 'split', after: 0, changes: [] });
    // Of 300 × 300 studs those past 750 mm from all sides: 112 in each direction (the stud 94 from the edge is at 756 mm).
    expect(best.before).toBe(112 ** 2 / 300 ** 2);
    expect(rest.every(({ after }) => after >= best.after)).toBe(true);
  });
  test('turned by 90° where the room is too narrow, it stays inside and is as good as it says', () => {
    const scene = hall();
    for (const move of bestMoves(scene, compileRelief(scene)).filter(({ changes }) => changes.length > 0)) {
      const moved = reduce(scene, move.changes);
      if (!moved.ok) throw new Error(moved.refusal.sentence);
      const share = shareOf(reachOf(moved.scene, compileRelief(moved.scene)));
      expect(share.pastArm / share.studs).toBe(move.after);
    }
  });
  test('no move goes through a wall or into an obstacle, and each is better than standing still (property)', () => {
    const at = fc.integer({ min: 0, max: 30 });
    fc.assert(
      fc.property(
        at,
        at,
        fc.integer({ min: 60, max: 260 }),
        fc.integer({ min: 60, max: 200 }),
        at,
        at,
        (x, y, w, d, u, v) => {
          const pillar = { x: u * 150, y: v * 120, w: 300, d: 300 };
          const [tx, ty] = [x * 60, y * 50];
          const scene = sceneFrom({
            display: { name: 'Any', kind: 'diorama', place: 'hall' },
            places: [{ id: 'hall', name: 'Hall', walls: room(5000, 4200), sceneX: tx, sceneY: ty }],
            footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w, d }],
            tables: [{ id: 't', name: 'Table', place: 'hall', x: tx, y: ty, w: w * 8, d: d * 8 }],
            obstacles: [{ id: 'p', name: 'Pillar', place: 'hall', ...pillar }],
          });
          for (const move of bestMoves(scene, compileRelief(scene))) {
            expect(move.before - move.after).toBeGreaterThanOrEqual(0.01);
            const now = shareOf(reachOf(scene, compileRelief(scene)));
            expect(move.before).toBe(now.pastArm / now.studs);
            if (move.changes.length === 0) continue;
            const moved = reduce(scene, move.changes);
            if (!moved.ok) throw new Error(moved.refusal.sentence);
            const { table } = moved.scene;
            for (const rect of [table.t, ...sceneInRoom(moved.scene)]) {
              expect(leavesRoom(room(5000, 4200), rect)).toBeLessThan(1);
              expect(intersection(rect, pillar)).toBeNull();
            }
            // The scene still lies on its table: to a millimetre, since tables stand on whole ones.
            const [part] = sceneInRoom(moved.scene);
            expect(Math.abs(part.x - table.t.x) + Math.abs(part.y - table.t.y)).toBeLessThanOrEqual(2);
          }
        },
      ),
      { numRuns: runs(40) },
    );
  });
});
