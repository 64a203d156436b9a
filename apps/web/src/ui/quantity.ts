import {
  MM,
  PLATE,
  STUD,
  formatFeet,
  formatInches,
  formatMm,
  formatPlates,
  formatStuds,
  type Length,
  type Unit,
} from '@quarry/core/grid';

export type Metric = 'mm' | 'in';

/** The measures of the document: what one of it is, and how a bare number is meant by users of either unit. */
export const MEASURES = {
  studs: { size: STUD, bare: { mm: 'stud', in: 'stud' } },
  plates: { size: PLATE, bare: { mm: 'plate', in: 'plate' } },
  /** What is measured with a tape: rooms, tables, doors. */
  mm: { size: MM, bare: { mm: 'mm', in: 'in' } },
  /** True sizes. */
  m: { size: 1000 * MM, bare: { mm: 'm', in: 'ft' } },
} as const satisfies Record<string, { size: Length; bare: Record<Metric, Unit> }>;
export type Measure = keyof typeof MEASURES;

/** A value of the document in its own words: `48 studs`, `6b2p`, `740 mm` or `29 1/8 in`, `2.75 m` or `9 ft 1/4 in`. */
export function formatMeasure(value: number, measure: Measure, metric: Metric): string {
  if (measure === 'plates') return formatPlates(value);
  if (measure === 'studs') return formatStuds(value * STUD);
  const length = Math.round(value * MEASURES[measure].size);
  if (measure === 'm') return metric === 'in' ? formatFeet(length) : `${Number(value.toFixed(3))} m`;
  return metric === 'in' ? formatInches(length) : formatMm(length);
}

/** The same length the other way: millimetres or inches for studs and plates, studs for what a tape measures. */
export function formatOtherMeasure(value: number, measure: Measure, metric: Metric): string {
  const length = Math.round(value * MEASURES[measure].size);
  if (measure === 'mm') return `${formatStuds(length).split(' ')[0]} st`;
  if (measure === 'm') return metric === 'in' ? `${Number(value.toFixed(2))} m` : '';
  return metric === 'in' ? formatInches(length) : formatMm(length);
}
