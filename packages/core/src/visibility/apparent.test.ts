import { apparentSizes, type HeightField } from './index.ts';

const flat = (w: number, d: number, at: (x: number, row: number) => number): HeightField => ({
  ...{ w, d },
  heights: Float64Array.from({ length: w * d }, (_, i) => at(i % w, Math.trunc(i / w))),
});
const sum = (sizes: Float64Array, isIn: (i: number) => boolean = () => true) =>
  sizes.reduce((all, size, i) => all + (isIn(i) ? size : 0), 0);
/** The solid angle of a rectangle a × b, square to it over one of its corners at a distance (closed form; Gotoh, Yagi 1971). */
const overCorner = (a: number, b: number, distance: number) =>
  Math.atan((a * b) / (distance * Math.hypot(a, b, distance)));

test('an even field fills what a rectangle does, by the closed form', () => {
  // 40 × 30 studs, 320 × 240 mm, 500 mm under an eye over its south-west corner, and over its middle.
  const field = flat(40, 30, () => 100);
  expect(sum(apparentSizes(field, [{ x: 0, y: 0, z: 600 }]))).toBeCloseTo(overCorner(320, 240, 500), 3);
  expect(sum(apparentSizes(field, [{ x: 20, y: 15, z: 600 }]))).toBeCloseTo(4 * overCorner(160, 120, 500), 3);
});

test('from before it: its edge and its top, by differences of rectangles', () => {
  // 300 mm south of a slab 320 mm wide, 240 mm deep and 100 mm tall; the eye 400 mm over the table, before its middle.
  const field = flat(40, 30, () => 100);
  const top = 2 * (overCorner(160, 540, 300) - overCorner(160, 300, 300));
  const edge = 2 * (overCorner(160, 400, 300) - overCorner(160, 300, 300));
  expect(sum(apparentSizes(field, [{ x: 20, y: -37.5, z: 400 }]))).toBeCloseTo(top + edge, 3);
});

test('what is behind a wall fills nothing; two eyes see twice as much', () => {
  // A wall of 200 mm along row 10 of 20; the eye at its height: all behind it is hidden.
  const field = flat(30, 20, (_, row) => (row === 10 ? 200 : 0));
  const eye = { x: 15, y: -40, z: 200 };
  const sizes = apparentSizes(field, [eye]);
  expect(sum(sizes, (i) => Math.trunc(i / 30) < 10)).toBe(0);
  // Its face, 240 mm wide, 9 studs in: 49 studs or 392 mm off, from its foot up to the eye; its ends
  // are met to half a ray of 8 mrad.
  expect(sum(sizes, (i) => Math.trunc(i / 30) === 10)).toBeCloseTo(2 * overCorner(120, 200, 392), 2);
  expect(sum(apparentSizes(field, [eye, eye]))).toBeCloseTo(2 * sum(sizes), 9);
});

test('no column fills nothing and hides nothing', () => {
  const [whole, holed] = [0, NaN].map((hole) => flat(20, 20, (_, row) => (row >= 10 ? hole : 50)));
  const eye = { x: 10, y: -30, z: 120 };
  const behind = (i: number) => i < 200;
  const [a, b] = [apparentSizes(whole, [eye]), apparentSizes(holed, [eye])];
  expect(sum(b, behind)).toBeCloseTo(sum(a, behind), 3);
  expect(sum(b, (i) => i >= 200)).toBe(0);
});
