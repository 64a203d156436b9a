import fc from 'fast-check';
import { scaledTracing, type Tracing } from './index.ts';

const MM = { stud: 8, plate: 3.2 };
/** Where a point of the photograph lies: mm from the left and above the ground. @param u @param v shares of its width and height */
const placed = ({ wide, tall, left, up }: Tracing, u: number, v: number) => ({
  x: (left + u * wide) * MM.stud,
  y: up * MM.plate + v * wide * tall * MM.stud,
});

test('a door of 6 bricks and 2 plates in a photograph: by hand', () => {
  // Its foot and head are 32 mm apart in the photograph as laid; they should be 64 mm.
  const laid = { wide: 20, tall: 1.5, left: 2, up: 0 };
  const scaled = scaledTracing(
    laid,
    [
      { x: 56, y: 0 },
      { x: 56, y: 32 },
    ],
    64,
  );
  expect(scaled).toEqual({ wide: 40, tall: 1.5, left: 7 - 2 * 5, up: 0 });
});

test('the first point stays, the second comes as far from it as is said, in the same direction', () => {
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  fc.assert(
    fc.property(
      fc.record({
        wide: fc.double({ min: 10, max: 60, noNaN: true }),
        tall: fc.double({ min: 0.4, max: 2, noNaN: true }),
        left: fc.double({ min: -30, max: 30, noNaN: true }),
        up: fc.double({ min: -30, max: 30, noNaN: true }),
      }),
      fc.tuple(share, share, share, share),
      fc.double({ min: 20, max: 200, noNaN: true }),
      (tracing, [u, v, s, t], apart) => {
        fc.pre(Math.hypot(u - s, v - t) > 0.2);
        const [p, q] = [placed(tracing, u, v), placed(tracing, s, t)];
        const scaled = scaledTracing(tracing, [p, q], apart);
        const [a, b] = [placed(scaled, u, v), placed(scaled, s, t)];
        expect(a.x).toBeCloseTo(p.x, 6);
        expect(a.y).toBeCloseTo(p.y, 6);
        expect(Math.hypot(b.x - a.x, b.y - a.y)).toBeCloseTo(apart, 6);
        // The same direction: no part of the one lies across the other, and they do not point apart.
        const across = (b.x - a.x) * (q.y - p.y) - (b.y - a.y) * (q.x - p.x);
        expect(across / (apart * Math.hypot(q.x - p.x, q.y - p.y))).toBeCloseTo(0, 6);
        expect((b.x - a.x) * (q.x - p.x) + (b.y - a.y) * (q.y - p.y)).toBeGreaterThan(0);
      },
    ),
  );
});
