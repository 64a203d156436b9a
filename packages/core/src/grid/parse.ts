import { formatHeight } from './format.ts';
import { INCH, UNITS, UNIT_NAMES, type Length, type Unit } from './units.ts';

/**
 * A quantity as read, or the sentence that says what is wrong with it. Of a length that is no whole number of steps
 * `near` has the steps on both sides, the lower first, as far as they keep the limits.
 */
export type Parsed =
  | { ok: true; length: Length; units: Unit[] }
  | { ok: false; error: string; near?: readonly Length[] };

/** Limits of a field: a sentence names the field, the value and the limit when one is passed. */
export interface ParseLimits {
  /** What the field is called in an error, e.g. “pad width”. */
  name?: string;
  min?: Length;
  max?: Length;
  /** The length must be a whole multiple of this (for instance half a stud). */
  step?: Length;
}

/** 10 km: no true thing that is built is larger, and a slip of a digit is caught; fields have limits of their own. */
const FARTHEST: Length = 10_000_000_000_000;
const FRACTIONS: Record<string, string> = {
  '½': ' 1/2',
  '¼': ' 1/4',
  '¾': ' 3/4',
  '⅛': ' 1/8',
  '⅜': ' 3/8',
  '⅝': ' 5/8',
  '⅞': ' 7/8',
};
const WORDS = new Map<string, Unit>(
  UNIT_NAMES.flatMap((unit) => UNITS[unit].words.map((word) => [word, unit] as const)),
);
/**
 * `15 1/8`, `1/8`, `3.5`, `3,5`, `1,152` or `12`, then a unit word or none. A comma before exactly three digits
 * parts thousands, as this core prints them, unless the number begins with 0; any other comma is a decimal mark.
 */
const TERM =
  /\s*\+?\s*(?:(\d+)\s+(\d+)\/(\d+)|(\d+)\/(\d+)|([1-9]\d{0,2}(?:,\d{3})+(?![\d,])(?:\.\d+)?|\d+(?:[.,]\d+)?|[.,]\d+))\s*([a-zµ]+|["″'′])?/y;

/**
 * Reads a length as people say it: `6b2p`, `48 studs`, `15 1/8 in`, `384 mm`, `1 ft 3 in`, `2b + 1p`, `-3p`.
 * A number without a unit takes `bare`. Never throws: the answer is a length or a sentence.
 * @param text what was typed; at most 80 characters are considered
 * @param bare unit of a number that names none
 * @returns an exact length in nm. What is finer than 1 nm (such as 1/3 in) is refused, not rounded.
 */
export function parseLength(text: string, bare: Unit, limits: ParseLimits = {}): Parsed {
  const name = limits.name ?? 'The length';
  const fail = (why: string): Parsed => ({ ok: false, error: `${name}: ${why}` });
  let rest = text.trim().toLowerCase();
  if (rest === '') return fail('is empty; type for instance 6b2p, 48 studs or 384 mm.');
  if (rest.length > 80) return fail(`${rest.length} characters is too long for a length; the most is 80.`);
  rest = rest.replace(/[½¼¾⅛⅜⅝⅞]/g, (glyph) => FRACTIONS[glyph] ?? glyph).trim();
  const negative = /^[-−]/.test(rest);
  if (negative) rest = rest.slice(1).trim();

  let nanometres = 0;
  const units: Unit[] = [];
  let at = 0;
  while (at < rest.length) {
    TERM.lastIndex = at;
    const match = TERM.exec(rest);
    if (!match) return fail(`“${text}” cannot be read from “${rest.slice(at).trim()}” on.`);
    const [, whole, top, bottom, loneTop, loneBottom, decimal, word] = match;
    at = TERM.lastIndex;
    if (rest.slice(at).trim() === '') at = rest.length;
    const lone = at >= rest.length && units.length === 0;
    if (word === undefined && !lone) return fail(`“${text}” mixes numbers with and without units.`);
    const unit = word === undefined ? bare : WORDS.get(word);
    if (!unit) return fail(`“${word}” is not a unit; use studs, b, p, mm, cm, m, in or ft.`);
    const size = UNITS[unit].length;
    const numerator = Number(top ?? loneTop ?? 0);
    const denominator = Number(bottom ?? loneBottom ?? 1);
    if (denominator === 0) return fail(`“${text}” divides by zero.`);
    const value = decimal === undefined ? Number(whole ?? 0) : decimalParts(decimal);
    const part =
      typeof value === 'number'
        ? value * size + (numerator * size) / denominator
        : (value.digits * size) / value.scale;
    if (!Number.isSafeInteger(Math.round(part)) || part > FARTHEST)
      return fail(`“${text}” is past the limit of ${FARTHEST / 1e9} m.`);
    if (Math.abs(part - Math.round(part)) > 1e-6)
      return fail(
        unit === 'in' || unit === 'ft'
          ? `“${text}” is finer than 1/64 in, the finest step (${INCH / 64 / 1e6} mm).`
          : `“${text}” is finer than a millionth of a millimetre.`,
      );
    nanometres += Math.round(part);
    units.push(unit);
  }
  const length = negative && nanometres !== 0 ? -nanometres : nanometres;
  const { min, max, step } = limits;
  const tell = (limit: Length) =>
    bare === 'mm' ? `${limit / 1e6} mm` : `${limit / 1e6} mm (${formatExact(limit, bare)})`;
  if (min !== undefined && length < min) return fail(`${text.trim()} is below the least, ${tell(min)}.`);
  if (max !== undefined && length > max) return fail(`${text.trim()} is above the most, ${tell(max)}.`);
  if (step !== undefined && length % step !== 0) {
    const below = Math.floor(length / step) * step;
    const near = [below, below + step].filter((one) => one >= (min ?? -Infinity) && one <= (max ?? Infinity));
    const words = near.map((one) => (bare === 'plate' ? formatHeight(one) : formatExact(one, bare)));
    return {
      ok: false,
      error: `${name}: ${text.trim()} is not a whole number of steps of ${tell(step)}: it is ${formatExact(length, bare)}; ${words.join(' or ')} would be.`,
      near,
    };
  }
  return { ok: true, length, units };
}

/** `285.75 studs`, `1 plate`: to a hundredth of the unit. */
function formatExact(length: Length, unit: Unit): string {
  const count = Number((length / UNITS[unit].length).toFixed(2)) + 0;
  const [plural, singular = plural] = UNITS[unit].words;
  return `${count} ${Math.abs(count) === 1 ? singular : plural}`;
}

/** A decimal as integer digits over a power of ten, so that 0.1 in stays exact. */
function decimalParts(decimal: string): { digits: number; scale: number } {
  const plain = /^[1-9]\d{0,2}(,\d{3})+(\.|$)/.test(decimal)
    ? decimal.replaceAll(',', '')
    : decimal.replace(',', '.');
  const [whole = '', fraction = ''] = plain.split('.');
  return { digits: Number(whole + fraction), scale: 10 ** fraction.length };
}
