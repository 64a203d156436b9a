import {
  MM,
  PLATE,
  STUD,
  formatInches,
  formatMm,
  formatPlates,
  formatStuds,
  type Length,
  type Unit,
} from '@quarry/core/lattice';

/** The measures of the document: what one of it is, and how a bare number is meant. */
export const MEASURES = {
  studs: { size: STUD, bare: 'stud' },
  plates: { size: PLATE, bare: 'plate' },
  mm: { size: MM, bare: 'mm' },
} as const satisfies Record<string, { size: Length; bare: Unit }>;
export type Measure = keyof typeof MEASURES;

/** A value of the document in its own words: `48 studs`, `6b2p`, `740 mm`. */
export function say(value: number, measure: Measure): string {
  if (measure === 'plates') return formatPlates(value);
  return measure === 'studs' ? formatStuds(value * STUD) : formatMm(value * MM);
}

/** The same length the other way: millimetres or inches for studs and plates, studs for millimetres. */
export function sayAlso(value: number, measure: Measure, metric: 'mm' | 'in'): string {
  const length = Math.round(value * MEASURES[measure].size);
  if (metric === 'in') return formatInches(length);
  return measure === 'mm' ? `${formatStuds(length).split(' ')[0]} st` : formatMm(length);
}
