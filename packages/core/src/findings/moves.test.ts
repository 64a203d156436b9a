import { sceneFrom } from '../document/index.ts';
import { compileRelief, convexOverlap, sweepsOf } from '../terrain/index.ts';
import { evaluateRules } from './evaluator.ts';

type File = Parameters<typeof sceneFrom>[0];
const BASE: File = {
  display: { name: 'Moves', kind: 'diorama' },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 32 }],
  tables: [{ id: 't', name: 'Table', x: 0, y: 0, w: 384, d: 256 }],
  pads: [{ id: 'p', name: 'Pad', x: 0, y: 0, w: 48, d: 32, level: 'low', ground: 'grass' }],
};
/** A gate of 8 × 1 studs whose hinge is its north-west corner, at 10, 10. */
const gate = (more: object) => ({
  ...{ id: 'g', name: 'Gate', x: 10, y: 10, w: 8, d: 1, height: 12, moves: 'swing' as const },
  ...more,
});
const wall = (more: object) => ({ id: 'w', name: 'Wall', x: 4, y: 14, w: 30, d: 2, height: 9, ...more });
const found = (plots: object[], rule: string, more: Partial<File> = {}) =>
  evaluateRules(sceneFrom({ ...BASE, ...more, plots: plots as NonNullable<File['plots']> }))
    .filter((finding) => finding.rule === rule)
    .map(({ numbers, things }): Record<string, unknown> => ({ ...numbers, with: things.at(1)?.id }));

describe('what moves', () => {
  test('a gate swings into a wall 4 studs south of its hinge after 23°: 8 sin a + cos a = 4', () => {
    // Solved by hand a is 22.6°; the steps are of 2°.
    expect(found([gate({}), wall({})], 'moves-hit')).toEqual([{ at: 24, of: 90, with: 'w' }]);
    expect(found([gate({ swingBy: 22 }), wall({})], 'moves-hit')).toEqual([]);
    expect(found([gate({ swingBy: -90 }), wall({})], 'moves-hit')).toEqual([]);
    // A wall that begins over it, as on a roof, is no hindrance.
    expect(found([gate({}), wall({ overhangFrom: 12, height: 20 })], 'moves-hit')).toEqual([]);
  });
  test('its far corner reaches √(8² + 1²) studs and no farther', () => {
    const scene = sceneFrom({ ...BASE, plots: [gate({ swingBy: 360 })] as NonNullable<File['plots']> });
    const [sweep] = sweepsOf(scene, compileRelief(scene));
    const far = sweep.steps.flatMap(({ corners }) => corners.map(({ x, y }) => Math.hypot(x - 10, y - 10)));
    expect(Math.max(...far)).toBeCloseTo(Math.sqrt(65), 9);
    expect(sweep.steps.at(-1)?.corners[1].x).toBeCloseTo(18, 9);
  });
  test('a wagon slides until it meets the shed, or the edge of the display', () => {
    const wagon = gate({ moves: 'slide', slideX: 20, slideY: 0 });
    // From 18 its east end has 6 studs to 24: at 7 it is in the shed.
    expect(found([wagon, wall({ x: 24, y: 8, w: 4, d: 6 })], 'moves-hit')).toEqual([
      { at: 7, of: 20, with: 'w' },
    ]);
    const far = gate({ moves: 'slide', slideX: 40 });
    // 48 less 18: at 30 it touches the edge, at 31 it is over it.
    expect(found([far], 'moves-out').map((each) => each.at)).toEqual([31]);
  });
  test('a boat rises up to the deck over it', () => {
    const boat = gate({ moves: 'rise', riseBy: 20, onGround: true, height: 6 });
    const decks = [
      { id: 'd', name: 'Quay', x: 6, y: 6, w: 16, d: 10, level: 'low', offset: 20, support: 'ends' as const },
    ];
    // It stands at 3 and is 6 tall; the underside is at 21: 12 plates are free, at 13 it hits.
    expect(found([boat], 'moves-hit', { decks })).toEqual([{ at: 13, of: 20, with: 'd' }]);
    expect(found([boat], 'moves-hit')).toEqual([]);
  });
  test('a ramp of 6 studs is let down into a wall 3 studs south of its foot after 30°: 6 sin a = 3', () => {
    // 15 plates are 6 studs; the steps are of 2°.
    const ramp = gate({ moves: 'lower', downTo: 's', height: 15 });
    expect(found([ramp, wall({})], 'moves-hit')).toEqual([{ at: 32, of: 90, with: 'w' }]);
    expect(found([{ ...ramp, downBy: 30 }, wall({})], 'moves-hit')).toEqual([]);
    expect(found([{ ...ramp, downTo: 'n' }, wall({})], 'moves-hit')).toEqual([]);
    // Turned by half a circle it lets down the other way.
    expect(found([{ ...ramp, downTo: 'n', turn: 180 }, wall({})], 'moves-hit')).toEqual([
      { at: 32, of: 90, with: 'w' },
    ]);
    // What hangs higher than it still stands by then is free: at 32° it is 15 cos 32° = 12.7 plates tall.
    expect(found([ramp, wall({ overhangFrom: 13, height: 20 })], 'moves-hit')).toEqual([]);
    // Lying down it ends 6 studs out, over the edge when it stands 5 from it.
    expect(found([{ ...ramp, y: 26 }], 'moves-out').map(({ at }) => at)).toEqual([58]);
  });
  test('a turntable of 8 × 3 sweeps 8.54 across: at the edge it turns over it, a stud and a half further in it does not', () => {
    const table = (x: number) => ({
      id: 'g',
      name: 'Table',
      x,
      y: 10,
      w: 3,
      d: 8,
      height: 3,
      mount: 'turntable',
    });
    const scene = sceneFrom({ ...BASE, plots: [table(0)] as NonNullable<File['plots']> });
    const [sweep] = sweepsOf(scene, compileRelief(scene));
    const across = sweep.steps.flatMap(({ corners }) => corners.map(({ x }) => x));
    expect(Math.max(...across) - Math.min(...across)).toBeCloseTo(Math.sqrt(73), 1);
    expect(found([table(0)], 'moves-out').map(({ at }) => at)).toEqual([2]);
    // Half of 8.54 is 4.27: its middle must be so far in.
    expect(found([table(3)], 'moves-out')).toEqual([]);
    expect(found([table(2.5)], 'moves-out')).toHaveLength(1);
  });
  test('over a seam: noted, since two modules must stand first', () => {
    const modules = [
      { id: 'a', name: 'A1', x: 0, y: 0, w: 20, d: 32, bases: [] },
      { id: 'b', name: 'B1', x: 20, y: 0, w: 28, d: 32, bases: [] },
    ];
    expect(found([gate({ moves: 'slide', slideX: 6 })], 'moves-out', { modules })).toEqual([
      { modules: 2, with: 'b' },
    ]);
  });
  test('outlines that only touch do not overlap', () => {
    const square = (x: number) => [
      { x, y: 0 },
      { x: x + 1, y: 0 },
      { x: x + 1, y: 1 },
      { x, y: 1 },
    ];
    expect([convexOverlap(square(0), square(1)), convexOverlap(square(0), square(0.99))]).toEqual([
      false,
      true,
    ]);
  });
});

test('what stands before a street front is a pavement, not a house: a train passes over it, and nobody hides it', () => {
  const shop = (more: object) => ({
    ...{ id: 's', name: 'Shop', x: 10, y: 4, w: 16, d: 16, height: 30, streetFront: true, pavement: 8 },
    ...{ front: 's', ...more },
  });
  // The track's middle is a stud south of the pavement: 3 studs of its clear width of 5 lie over that.
  const track = {
    id: 't',
    name: 'Main',
    x: 4,
    y: 21,
    level: 'low',
    pieces: [{ go: 'straight' }, { go: 'straight' }],
  };
  const tracks = { tracks: [track] as NonNullable<File['tracks']> };
  expect(found([shop({})], 'track-clear', tracks)).toEqual([]);
  expect(found([shop({ pavement: 0 })], 'track-clear', tracks)).toHaveLength(1);
  // A wall of 15 plates before it hides the pavement, and of the shop nothing.
  const hedge = { id: 'w', name: 'Kiosk', x: 10, y: 24, w: 16, d: 2, height: 15 };
  const seen = { display: { name: 'Moves', kind: 'diorama' as const, viewedSides: ['s' as const] } };
  expect(found([shop({}), hedge], 'tall-first', seen)).toEqual([]);
});
