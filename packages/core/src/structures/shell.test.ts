import fc from 'fast-check';
import { gramsOfPart, isListed } from '../catalogue/index.ts';
import { sceneFrom, type Plot } from '../document/index.ts';
import { shellOf } from '../terrain/index.ts';
import { runs } from '../../test/runs.ts';
import { shellCourses, shellPieces, type ShellCourse } from './index.ts';

const plotOf = (more: object): Plot =>
  sceneFrom({
    display: { name: 'Shell', kind: 'city' },
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 96 }],
    plots: [{ id: 'p', name: 'House', x: 0, y: 0, w: 8, d: 8, height: 18, storeys: 1, ...more }],
  }).plot.p;

/** The number of the piece on each stud; throws where two lie on one. */
function painted(laid: Int16Array, w: number, d: number): Int32Array {
  const on = new Int32Array(w * d);
  for (let p = 0; p < laid.length; p += 4)
    for (let y = laid[p + 1]; y < laid[p + 1] + laid[p + 3]; y++)
      for (let x = laid[p]; x < laid[p] + laid[p + 2]; x++) {
        if (x < 0 || y < 0 || x >= w || y >= d || on[y * w + x] !== 0)
          throw new Error(`a second piece at ${x}, ${y}`);
        on[y * w + x] = 1 + p / 4;
      }
  return on;
}
const walls = (courses: readonly ShellCourse[]) =>
  courses.filter(({ what, family }) => what === 'wall' && family === 'brick');

describe('a plain shell in pieces', () => {
  test('8 × 8 by hand: 28 studs a course (common practice, no source), floor and roof of one 8 × 8 plate each', () => {
    // 18 plates: the floor is one, 17 are 5 bricks and 2 plates.
    const courses = shellCourses(plotOf({}));
    const studs = (laid: Int16Array) => painted(laid, 8, 8).filter((piece) => piece > 0).length;
    expect(courses.map(({ what, family, laid, times }) => [what, family, studs(laid), times])).toEqual([
      ['wall', 'brick', 28, 3],
      ['wall', 'brick', 28, 2],
      ['wall', 'plate', 28, 2],
      ['floor', 'plate', 64, 1],
      ['roof', 'plate', 64, 1],
    ]);
    const pieces = new Map(shellPieces(plotOf({})).map(({ part, qty }) => [part, qty]));
    expect(pieces.get('plate-8x8')).toBe(2);
    // Two bricks a side, of 4 at most: those that run through are 8 studs long, those between them 6.
    const bricks = [...pieces]
      .filter(([part]) => part.startsWith('brick'))
      .reduce((sum, [, qty]) => sum + qty, 0);
    expect(bricks).toBe(5 * 8);
  });
  test('each stud of walls, floors, roof and pavement is covered once; no joint runs through two courses', () => {
    const plot = fc.record({
      w: fc.integer({ min: 3, max: 40 }),
      d: fc.integer({ min: 3, max: 40 }),
      height: fc.integer({ min: 4, max: 90 }),
      storeys: fc.integer({ min: 0, max: 4 }),
      wall: fc.integer({ min: 1, max: 2 }),
      streetFront: fc.boolean(),
    });
    fc.assert(
      fc.property(plot, (given) => {
        const own = plotOf({ ...given, pavement: 2 });
        const [w, d] = [given.w, given.streetFront ? given.d - 2 : given.d];
        const courses = shellCourses(own);
        const isWall = (x: number, y: number) => Math.min(x, y, w - 1 - x, d - 1 - y) < given.wall;
        const wrong: string[] = [];
        for (const { what, laid } of courses) {
          const [across, deep] = what === 'pavement' ? [given.w, given.d] : [w, d];
          painted(laid, across, deep).forEach((piece, i) => {
            const [x, y] = [i % across, Math.trunc(i / across)];
            const wanted = what === 'pavement' ? y >= d : what !== 'wall' || isWall(x, y);
            if (piece > 0 !== wanted) wrong.push(`${what} at ${x}, ${y}`);
          });
        }
        const [a, b] = walls(courses).map(({ laid }) => painted(laid, w, d));
        for (let i = 0; b && Math.min(w, d) > 2 * given.wall && i < w * d; i++)
          for (const j of [i % w < w - 1 ? i + 1 : -1, i + w]) {
            if (j < 0 || j >= w * d || a[i] === 0 || a[j] === 0) continue;
            if (a[i] !== a[j] && b[i] !== b[j]) wrong.push(`through at ${i % w}, ${Math.trunc(i / w)}`);
          }
        expect(wrong).toEqual([]);
        for (const { part } of shellPieces(own)) expect(isListed(part)).toBe(true);
      }),
      { numRuns: runs(30) },
    );
  });
  test('half studs are rounded, and make no pavement', () => {
    for (const more of [{ w: 7.5 }, { x: 3.5, w: 8.5, d: 6.5 }, { wall: 1.5 }]) {
      const courses = shellCourses(plotOf(more));
      expect(courses.some(({ what }) => what === 'pavement')).toBe(false);
      const { w = 8, d = 8 } = more as { w?: number; d?: number };
      for (const { laid, what } of courses)
        if (what !== 'wall')
          expect(painted(laid, Math.round(w), Math.round(d)).every((piece) => piece > 0)).toBe(true);
    }
    const front = shellCourses(plotOf({ w: 7.5, d: 10, streetFront: true, pavement: 2.5 }));
    const [pavement] = front.filter(({ what }) => what === 'pavement');
    // Of 7.5 × 10 studs the southern 2.5 are pavement: 8 studs by 3.
    expect(painted(pavement.laid, 8, 11).filter((piece) => piece > 0)).toHaveLength(24);
  });
  test('its pieces weigh what the shell is taken to weigh, within the play of hollow pieces', () => {
    for (const more of [
      {},
      { w: 24, d: 16, height: 60, storeys: 3 },
      { wall: 2, w: 16, d: 16, height: 45 },
    ]) {
      const plot = plotOf(more);
      const grams = shellPieces(plot).reduce((sum, { part, qty }) => sum + qty * gramsOfPart(part, {}), 0);
      expect(grams / shellOf(plot).grams).toBeGreaterThan(0.75);
      expect(grams / shellOf(plot).grams).toBeLessThan(1.35);
    }
  });
});
