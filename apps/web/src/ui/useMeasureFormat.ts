import { INCH, formatFeet, inInches } from '@quarry/core/grid';
import { useView } from '../data/view.ts';
import { formatMeasure, formatOtherMeasure, type Measure } from './quantity.ts';

/** Says lengths in the unit this person works in. */
export function useMeasureFormat() {
  const metric = useView((view) => view.metric);
  return {
    metric,
    say: (value: number, measure: Measure) => formatMeasure(value, measure, metric),
    /** The same length the other way. */
    sayAlso: (value: number, measure: Measure) => formatOtherMeasure(value, measure, metric),
    /** A sentence of the core, its millimetres in inches for those who measure in inches. */
    tell: (sentence: string) => (metric === 'in' ? inInches(sentence) : sentence),
    /** A true size for reading, not for typing: to the centimetre, or to the inch. */
    rough: (metres: number) =>
      metric === 'in'
        ? formatFeet(Math.round(metres / 0.0254) * INCH)
        : formatMeasure(Math.round(metres * 100) / 100, 'm', metric),
    /** An area of true ground. */
    area: (squareMetres: number) =>
      metric === 'in'
        ? `${Math.round(squareMetres / 0.3048 ** 2).toLocaleString('en')} sq ft`
        : `${Math.round(squareMetres).toLocaleString('en')} m²`,
  };
}
