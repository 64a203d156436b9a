import fc from 'fast-check';
import { FIGURE_MM, NEM_010, metresOf, nearestRailScale, platesFor, studsFor } from './index.ts';

test('the nominal scales of NEM 010 are nearest to themselves; between two, proportion decides', () => {
  for (const scale of NEM_010) expect(nearestRailScale(scale)).toBe(scale);
  // √(32 × 45) = 37.95: the middle by proportion lies below the middle by difference, 38.5.
  expect([nearestRailScale(37.9), nearestRailScale(38.2)]).toEqual([32, 45]);
});
test('a figure of 40 mm at 1:45 stands for 1.80 m; a stud for 36 cm (by hand)', () => {
  expect((FIGURE_MM * 45) / 1000).toBeCloseTo(1.8, 12);
  expect(metresOf(1, 45)).toBeCloseTo(0.36, 12);
  expect(platesFor(2, 45)).toBeCloseTo(2000 / 45 / 3.2, 12);
});
test('studs to metres and back', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.5, max: 4096, noNaN: true }),
      fc.double({ min: 1, max: 2000, noNaN: true }),
      (studs, ratio) => Math.abs(studsFor(metresOf(studs, ratio), ratio) - studs) < 1e-6,
    ),
  );
});
