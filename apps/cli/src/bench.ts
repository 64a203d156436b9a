import { SLOPES, roofOf } from '@quarry/core/catalogue';
import { parseArgs } from 'node:util';
import { polygonRing, sidewaysFits, turnsWithin } from '@quarry/core/bench';
import { BadInput } from './input.ts';

// The Bench from a shell: calculators that take no file.

/** Most that a range, a wall or a ring may hold: beyond it answers are longer than anyone builds. */
const MAX_STUDS = 1000;

type Values = Readonly<Record<string, string | boolean | undefined>>;

/** A number of an option. @throws BadInput naming the option, the value and its limits */
function numberOf(
  values: Values,
  option: string,
  { least, most, whole = false, usual }: { least: number; most: number; whole?: boolean; usual?: number },
): number {
  const text = values[option];
  if (text === undefined && usual !== undefined) return usual;
  const number = typeof text === 'string' && text.trim() !== '' ? Number(text) : NaN;
  if (!(number >= least && number <= most) || (whole && !Number.isInteger(number)))
    throw new BadInput(
      `--${option}${text === undefined ? ' is missing: it' : ` ${text}:`} must be a ${whole ? 'whole ' : ''}number from ${least} to ${most.toLocaleString('en')}.`,
    );
  return number;
}

/** An inclusive range of whole numbers, `a:b`. @throws BadInput */
function rangeOf(values: Values, option: string, usual: [number, number]): [number, number] {
  const text = values[option];
  if (text === undefined) return usual;
  const match = /^(\d+):(\d+)$/.exec(String(text));
  const [from, to] = [Number(match?.[1]), Number(match?.[2])];
  if (!match || from > to || to > MAX_STUDS)
    throw new BadInput(
      `--${option} ${text}: must be a range such as 1:16, of whole numbers from 0 to ${MAX_STUDS.toLocaleString('en')}, the smaller first.`,
    );
  return [from, to];
}

/** What is printed of a computed number: decimals that only the arithmetic made are none. */
const tidy = (number: number): number => Number(number.toFixed(9)) + 0;

function fit(values: Values): unknown {
  const ranges = { studs: rangeOf(values, 'studs', [1, 16]), plates: rangeOf(values, 'plates', [1, 40]) };
  const within = numberOf(values, 'within', { least: 0, most: 100, usual: 0.05 });
  return sidewaysFits(ranges, within).map(({ halfStuds, halfPlates, errorMm }) => ({
    half_studs: halfStuds,
    half_plates: halfPlates,
    error_mm: errorMm,
  }));
}

function ring(values: Values): unknown {
  const pieces = numberOf(values, 'pieces', { least: 3, most: MAX_STUDS, whole: true });
  const width = numberOf(values, 'width', { least: 0.5, most: MAX_STUDS });
  const made = polygonRing(pieces, width);
  return {
    pieces,
    angle: tidy(made.angle),
    inner_mm: tidy(made.innerMm),
    outer_mm: tidy(made.outerMm),
    inner_studs: tidy(made.innerMm / 8),
    outer_studs: tidy(made.outerMm / 8),
    bays: made.bays,
    grid_studs: made.gridStuds,
    error_mm: tidy(made.errorMm),
  };
}

function roof(values: Values): unknown {
  const span = numberOf(values, 'span', { least: 0.5, most: 10 * MAX_STUDS });
  const slope = SLOPES.find(({ id }) => id === values.pitch);
  if (!slope)
    throw new BadInput(
      `--pitch${values.pitch === undefined ? ' is missing: it' : ` ${values.pitch}:`} must be one of ${SLOPES.map(({ id }) => id).join(', ')}.`,
    );
  const { courses, ridgePlates, leftStuds } = roofOf(span, slope);
  return { courses, ridge_plates: ridgePlates, left_studs: tidy(leftStuds) };
}

function turn(values: Values): unknown {
  const within = numberOf(values, 'within', { least: 1, most: MAX_STUDS, whole: true });
  const error = numberOf(values, 'error', { least: 0, most: 100, usual: 0 });
  return turnsWithin(within, error).map(({ a, b, c, angle, errorMm }) => ({
    ...{ a, b, c },
    angle_deg: tidy(angle),
    error_mm: tidy(errorMm),
  }));
}

const CALCULATORS = {
  fit: { options: ['studs', 'plates', 'within'], answer: fit },
  ring: { options: ['pieces', 'width'], answer: ring },
  roof: { options: ['span', 'pitch'], answer: roof },
  turn: { options: ['within', 'error'], answer: turn },
} as const satisfies Record<string, { options: readonly string[]; answer: (values: Values) => unknown }>;

export const isCalculator = (verb: string | undefined): verb is keyof typeof CALCULATORS =>
  verb !== undefined && Object.hasOwn(CALCULATORS, verb);

/** Answers one calculator. @param args what stands after the verb @throws BadInput */
export function calculate(verb: keyof typeof CALCULATORS, args: readonly string[]): unknown {
  const { options, answer } = CALCULATORS[verb];
  let values: Values;
  try {
    ({ values } = parseArgs({
      args: [...args],
      options: Object.fromEntries(options.map((option) => [option, { type: 'string' as const }])),
    }));
  } catch (error) {
    throw new BadInput(error instanceof Error ? error.message : String(error));
  }
  return answer(values);
}
