import fc from 'fast-check';
import { inInches, parseLength } from '@quarry/core/grid';
import { MEASURES, formatMeasure, formatOtherMeasure, type Measure, type Metric } from './quantity.ts';

/** What a field does with its own text: reads it as it was written. */
function readBack(text: string, measure: Measure, metric: Metric): number {
  const parsed = parseLength(text.replace('≈', ''), MEASURES[measure].bare[metric]);
  if (!parsed.ok) throw new Error(parsed.error);
  return parsed.length / MEASURES[measure].size;
}

test('what a field says, it can read: exactly in its own grid, to 1/32 inch by the tape', () => {
  const cases: [Measure, fc.Arbitrary<number>][] = [
    ['studs', fc.integer({ min: -200, max: 8000 }).map((half) => half / 2)],
    ['plates', fc.integer({ min: -300, max: 3000 })],
    ['mm', fc.integer({ min: -40_000, max: 40_000 })],
    ['m', fc.integer({ min: 1, max: 1_000_000 }).map((value) => value / 1000)],
  ];
  for (const [measure, values] of cases)
    for (const metric of ['mm', 'in'] as const)
      fc.assert(
        fc.property(values, (value) => {
          const read = readBack(formatMeasure(value, measure, metric), measure, metric);
          const grain = metric === 'in' && (measure === 'mm' || measure === 'm') ? (25.4e6 / 32) * 1.0001 : 1;
          return Math.abs(read - value) * MEASURES[measure].size <= grain;
        }),
      );
});
test('each user sees their own unit; studs and plates are the trade’s for both', () => {
  expect([formatMeasure(740, 'mm', 'mm'), formatMeasure(740, 'mm', 'in')]).toEqual(['740 mm', '≈ 29 1/8 in']);
  expect([formatMeasure(2.55, 'm', 'mm'), formatMeasure(2.55, 'm', 'in')]).toEqual([
    '2.55 m',
    '≈ 8 ft 4 3/8 in',
  ]);
  expect([formatMeasure(48, 'studs', 'mm'), formatMeasure(48, 'studs', 'in')]).toEqual([
    '48 studs',
    '48 studs',
  ]);
  expect([formatOtherMeasure(48, 'studs', 'mm'), formatOtherMeasure(48, 'studs', 'in')]).toEqual([
    '384 mm',
    '≈ 15 1/8 in',
  ]);
  expect([formatOtherMeasure(15, 'plates', 'mm'), formatOtherMeasure(15, 'plates', 'in')]).toEqual([
    '48 mm',
    '≈ 1 7/8 in',
  ]);
});
test('a bare number means what the user measures in', () => {
  expect(readBack('30', 'mm', 'mm')).toBe(30);
  expect(readBack('30', 'mm', 'in')).toBeCloseTo(762, 9);
  expect(readBack('6', 'm', 'in')).toBeCloseTo(1.8288, 9);
  expect(readBack('6', 'studs', 'in')).toBe(6);
});
test('a sentence of the core is told in inches, and nothing else in it is touched', () => {
  expect(inInches('Module C2 is 1,152 mm wide; the hall door lets 830 mm through.')).toBe(
    'Module C2 is ≈ 45 3/8 in wide; the hall door lets ≈ 32 11/16 in through.',
  );
  expect(inInches('“Mill 3” has 12 studs; 8 may be, 25.4 mm')).toBe('“Mill 3” has 12 studs; 8 may be, 1 in');
});
