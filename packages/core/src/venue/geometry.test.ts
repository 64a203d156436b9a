import fc from 'fast-check';
import { intersection, type Rect, quadOf } from '../grid/index.ts';
import { sceneFrom } from '../document/index.ts';
import {
  clearances,
  clip,
  distanceTo,
  insideRoom,
  evaluateBarriers,
  leavesRoom,
  lengthOf,
  overlapDepth,
  sidesOf,
  snapTo,
  type RoomPoint,
  type Segment,
} from './index.ts';
import { runs } from '../../test/runs.ts';

// The geometry of rooms against slow ways of finding the same: points along a line, steps of a push.

const at = fc.integer({ min: 0, max: 1000 });
const point = fc.record({ x: at, y: at });
const rect: fc.Arbitrary<Rect<'mm'>> = fc.record({
  x: at,
  y: at,
  w: fc.integer({ min: 10, max: 500 }),
  d: fc.integer({ min: 10, max: 500 }),
});
const segment: fc.Arbitrary<Segment> = fc.record({ a: point, b: point });
const along = ({ a, b }: Segment, t: number): RoomPoint => ({
  x: a.x + t * (b.x - a.x),
  y: a.y + t * (b.y - a.y),
});
const within = ({ x, y, w, d }: Rect<'mm'>, p: RoomPoint, by = 0) =>
  p.x > x + by && p.y > y + by && p.x < x + w - by && p.y < y + d - by;
const steps = Array.from({ length: 401 }, (_, i) => i / 400);

test('distance to a line is the least over the points along it', () => {
  fc.assert(
    fc.property(point, segment, (p, line) => {
      const least = Math.min(...steps.map((t) => Math.hypot(along(line, t).x - p.x, along(line, t).y - p.y)));
      const exact = distanceTo(p, line);
      return exact <= least + 1e-9 && exact >= least - lengthOf(line) / 800 - 1e-9;
    }),
  );
});
test('the part of a line in a rectangle: its points lie inside, and no other point of the line does', () => {
  fc.assert(
    fc.property(segment, rect, (line, box) => {
      fc.pre(lengthOf(line) > 1);
      const part = clip(line, box);
      for (const t of steps) {
        const p = along(line, t);
        const on = part !== null && distanceTo(p, part) < 1e-6;
        if (within(box, p, 1e-6)) expect(on).toBe(true);
        else if (on)
          expect(within({ x: box.x - 1e-6, y: box.y - 1e-6, w: box.w + 2e-6, d: box.d + 2e-6 }, p)).toBe(
            true,
          );
      }
    }),
  );
});
test('the least push that parts two boxes is the smaller side of what they share', () => {
  fc.assert(
    fc.property(rect, rect, (a, b) => {
      const shared = intersection(a, b);
      const depth = overlapDepth(quadOf(a), quadOf(b));
      if (!shared) return depth === 0;
      // One inside the other is pushed out over the nearest side of it, which is more than what is shared.
      const inside = shared.w === Math.min(a.w, b.w) || shared.d === Math.min(a.d, b.d);
      return inside
        ? depth >= Math.min(shared.w, shared.d) - 1e-9
        : Math.abs(depth - Math.min(shared.w, shared.d)) < 1e-9;
    }),
  );
});

describe('in a room', () => {
  const room = fc
    .tuple(
      fc.integer({ min: 300, max: 1000 }),
      fc.integer({ min: 300, max: 1000 }),
      fc.integer({ min: 50, max: 250 }),
      fc.boolean(),
    )
    .map(([w, d, notch, reversed]) => {
      const walls = [
        { x: 0, y: 0 },
        { x: w, y: 0 },
        { x: w, y: d - notch },
        { x: w - notch, y: d - notch },
        { x: w - notch, y: d },
        { x: 0, y: d },
      ];
      return { w, d, notch, walls: reversed ? walls.reverse() : walls };
    });

  test('a point is inside when it lies in the box and not in the corner that was cut out', () => {
    fc.assert(
      fc.property(room, point, ({ w, d, notch, walls }, p) => {
        fc.pre(![0, w, w - notch].includes(p.x) && ![0, d, d - notch].includes(p.y));
        const expected = p.x < w && p.y < d && p.x > 0 && p.y > 0 && !(p.x > w - notch && p.y > d - notch);
        return insideRoom(walls, p) === expected;
      }),
    );
  });
  test('something leaves the room exactly when some point of it does', () => {
    fc.assert(
      fc.property(room, rect, ({ w, d, notch, walls }, box) => {
        const beyond =
          box.x + box.w > w || box.y + box.d > d || (box.x + box.w > w - notch && box.y + box.d > d - notch);
        expect(leavesRoom(walls, box) > 0).toBe(beyond);
      }),
    );
  });
  test('what stands flush against a wall does not leave the room, whatever the wall’s length (found by chance)', () => {
    const walls = [
      { x: 0, y: 996 },
      { x: 222, y: 996 },
      { x: 222, y: 918 },
      { x: 300, y: 918 },
      { x: 300, y: 0 },
      { x: 0, y: 0 },
    ];
    expect(leavesRoom(walls, { x: 4, y: 671, w: 10, d: 325 })).toBe(0);
    expect(leavesRoom(walls, { x: 4, y: 671, w: 10, d: 325.5 })).toBeCloseTo(0.5, 9);
  });
  test('clear distances: pushed by just less nothing is touched, by a little more something is', () => {
    fc.assert(
      fc.property(room, fc.array(rect, { maxLength: 4 }), ({ w, d, notch, walls }, others) => {
        const box = { x: 20, y: 20, w: Math.min(100, w - notch - 40), d: Math.min(100, d - notch - 40) };
        fc.pre(others.every((other) => !intersection(other, box)));
        const clear = clearances(box, others, sidesOf(walls));
        const touches = (moved: Rect<'mm'>) =>
          others.some((other) => intersection(other, moved)) || leavesRoom(walls, moved) > 0;
        const push = { n: [0, -1], e: [1, 0], s: [0, 1], w: [-1, 0] } as const;
        for (const side of ['n', 'e', 's', 'w'] as const) {
          const by = clear[side];
          expect(by).not.toBeNull();
          const moved = (more: number) => ({
            ...box,
            x: box.x + push[side][0] * ((by ?? 0) + more),
            y: box.y + push[side][1] * ((by ?? 0) + more),
          });
          expect(touches(moved(-0.01))).toBe(false);
          expect(touches(moved(0.5))).toBe(true);
        }
      }),
    );
  });
  test('snapping moves by no more than the reach asked for, and stands on the lines it names', () => {
    fc.assert(
      fc.property(
        rect,
        fc.array(rect, { maxLength: 4 }),
        room,
        fc.integer({ min: 1, max: 60 }),
        (moving, others, { walls }, near) => {
          const { rect: to, guides } = snapTo(moving, others, sidesOf(walls), near);
          expect([to.w, to.d]).toEqual([moving.w, moving.d]);
          expect(Math.max(Math.abs(to.x - moving.x), Math.abs(to.y - moving.y))).toBeLessThanOrEqual(near);
          for (const { axis, at: line } of guides) {
            const [from, length] = axis === 'x' ? [to.x, to.w] : [to.y, to.d];
            expect(
              [from, from + length / 2, from + length].some((edge) => Math.abs(edge - line) < 1e-9),
            ).toBe(true);
          }
          // What did not snap did not move.
          if (!guides.some(({ axis }) => axis === 'x')) expect(to.x).toBe(moving.x);
          if (!guides.some(({ axis }) => axis === 'y')) expect(to.y).toBe(moving.y);
        },
      ),
    );
  });
  test('the aisle behind a barrier is the least that rays square to it find (brute force, a ray each 5 mm)', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            x: fc.integer({ min: 0, max: 3000 }),
            y: fc.integer({ min: 2100, max: 3600 }),
            w: fc.integer({ min: 50, max: 900 }),
            d: fc.integer({ min: 50, max: 300 }),
          }),
          { maxLength: 4 },
        ),
        (things) => {
          const scene = sceneFrom({
            display: { name: 'Hall', kind: 'diorama', place: 'hall' },
            places: [
              {
                id: 'hall',
                name: 'Hall',
                walls: [
                  { x: 0, y: 0 },
                  { x: 4000, y: 0 },
                  { x: 4000, y: 4000 },
                  { x: 0, y: 4000 },
                ],
                sceneX: 1500,
                sceneY: 1000,
              },
            ],
            footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
            obstacles: things.map((thing, i) => ({ id: `o${i}`, name: 'Stall', place: 'hall', ...thing })),
            barriers: [{ id: 'b', name: 'Rope', place: 'hall', x1: 500, y1: 2000, x2: 3500, y2: 2000 }],
          });
          let least = Infinity;
          for (let x = 502.5; x < 3500; x += 5) {
            const ahead = things.filter((thing) => x > thing.x && x < thing.x + thing.w).map(({ y }) => y);
            least = Math.min(least, Math.min(4000, ...ahead) - 2000);
          }
          const { aisle } = evaluateBarriers(scene)[0];
          // A thing narrower than the step may be missed by the rays, never by the exact way.
          expect(aisle ?? Infinity).toBeLessThanOrEqual(least + 1e-6);
          if (things.every(({ w, x }) => w > 20 && x + w > 520 && x < 3480))
            expect(aisle).toBeCloseTo(least, 6);
        },
      ),
      { numRuns: runs(60) },
    );
  });
});
