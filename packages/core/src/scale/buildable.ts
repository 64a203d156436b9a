import { MM_PER_PLATE, MM_PER_STUD } from '../grid/index.ts';

/** Which counts of studs a size may have: even and odd ones put the middle on a joint or on a stud. */
export type Parity = 'any' | 'even' | 'odd';

/** One dimension on the lattice. */
export interface Fitted {
  /** Studs or plates, whole, at least 1. */
  count: number;
  /** The exact count that the true size asks for. */
  exact: number;
  /** Size as built over size asked for, less 1. */
  error: number;
  /** The ratio 1 : n that this count really has. */
  ratio: number;
}

/** A true length, m, as a whole count of steps nearest to it. @param parity of the count */
export function fitLength(
  metres: number,
  ratio: number,
  step: 'stud' | 'plate',
  parity: Parity = 'any',
): Fitted {
  const size = step === 'stud' ? MM_PER_STUD : MM_PER_PLATE;
  const exact = (metres * 1000) / ratio / size;
  return fitted(nearestCount(exact, parity), exact, ratio);
}

/** The whole count ≥ 1 of a parity nearest to a number; the larger of two that are equally near. */
function nearestCount(exact: number, parity: Parity): number {
  if (parity === 'any') return Math.max(1, Math.round(exact));
  const first = parity === 'even' ? 2 : 1;
  return Math.max(first, first + 2 * Math.round((exact - first) / 2));
}

function fitted(count: number, exact: number, ratio: number): Fitted {
  return { count, exact, error: count / exact - 1, ratio: (exact / count) * ratio };
}

/** A real thing's length, width and height, m; what is left out is not judged. */
export interface RealSize {
  length: number;
  width?: number;
  height?: number;
}

/** A size one can build for a real thing. */
export interface Candidate {
  length: Fitted;
  width?: Fitted;
  height?: Fitted;
  /** The largest of the errors, without sign. */
  worst: number;
  /** Whether each dimension's own ratio lies within the display's spread. */
  within: boolean;
}

/**
 * The buildable sizes nearest to a real one: whole studs × whole studs × whole plates, the least worst error first.
 * @param spread how far a dimension's own ratio may lie from the display's, as a share of it
 * @param parity of both stud counts
 * @param most how many to give
 */
export function buildable(
  real: RealSize,
  ratio: number,
  { parity = 'any', spread = 0.15, most = 5 }: { parity?: Parity; spread?: number; most?: number } = {},
): Candidate[] {
  const choices = (metres: number | undefined, step: 'stud' | 'plate') => {
    if (metres === undefined) return [undefined];
    const middle = fitLength(metres, ratio, step, step === 'stud' ? parity : 'any');
    const jump = step === 'stud' && parity !== 'any' ? 2 : 1;
    return [middle.count - jump, middle.count, middle.count + jump]
      .filter((count) => count >= 1)
      .map((count) => fitted(count, middle.exact, ratio));
  };
  const found: Candidate[] = [];
  for (const length of choices(real.length, 'stud'))
    for (const width of choices(real.width, 'stud'))
      for (const height of choices(real.height, 'plate')) {
        if (!length) continue;
        const all = [length, width, height].filter((one) => one !== undefined);
        found.push({
          length,
          ...(width ? { width } : {}),
          ...(height ? { height } : {}),
          worst: Math.max(...all.map(({ error }) => Math.abs(error))),
          within: all.every((one) => Math.abs(one.ratio / ratio - 1) <= spread + 1e-12),
        });
      }
  return found.sort((a, b) => a.worst - b.worst || b.length.count - a.length.count).slice(0, most);
}

/** A model as built, studs and plates. */
export interface ModelSize {
  length: number;
  width?: number;
  height?: number;
}

/** What scale a model has, one ratio a dimension. */
export interface ScaleReading {
  length: number;
  width?: number;
  height?: number;
  /** Geometric mean of the ratios: the scale of the whole. */
  mean: number;
  /** Largest over smallest ratio, less 1: how far the dimensions disagree. */
  disagreement: number;
  /** The model's size over what the display's scale asks for, less 1: +1 is twice as large. */
  beside: number;
}

/** Reads a model's scale from its size as built and the real size. @param display the display's ratio 1 : n */
export function scaleOf(model: ModelSize, real: RealSize, display: number): ScaleReading {
  const length = (real.length * 1000) / (model.length * MM_PER_STUD);
  const width = model.width && real.width ? (real.width * 1000) / (model.width * MM_PER_STUD) : undefined;
  const height =
    model.height && real.height ? (real.height * 1000) / (model.height * MM_PER_PLATE) : undefined;
  const all = [length, width, height].filter((one) => one !== undefined);
  const mean = Math.exp(all.reduce((sum, one) => sum + Math.log(one), 0) / all.length);
  return {
    length,
    ...(width ? { width } : {}),
    ...(height ? { height } : {}),
    mean,
    disagreement: Math.max(...all) / Math.min(...all) - 1,
    beside: display / mean - 1,
  };
}
