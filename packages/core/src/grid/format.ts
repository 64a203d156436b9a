import { BRICK, INCH, MM, PLATE, STUD, type Length } from './units.ts';

/** A length as a whole count of a step and what is left over; the remainder has the sign of the length. */
export function divide(length: Length, step: Length): { count: number; remainder: Length } {
  const count = Math.trunc(length / step);
  return { count: count + 0, remainder: length - count * step + 0 };
}

const trim = (value: number, digits: number) => String(Number(value.toFixed(digits)) + 0);
const thousands = (text: string) =>
  text.replace(/^(-?)(\d+)/, (_, sign: string, digits: string) => {
    return sign + digits.replace(/\B(?=(\d{3})+$)/g, ',');
  });

/** `1,152 mm`, to a tenth of a millimetre. */
export function formatMm(length: Length): string {
  return `${thousands(trim(length / MM, 1))} mm`;
}

/** `48 studs`, `1 stud`, `23.6 studs`; to a tenth, or a half shown exactly. */
export function formatStuds(length: Length): string {
  const studs = Number((length / STUD).toFixed(1)) + 0;
  return `${thousands(String(studs))} ${studs === 1 ? 'stud' : 'studs'}`;
}

/** `6b2p`, `6b`, `2p`, `0b`, `-1b1p`; a remainder below a plate is written `6b + 1.2 mm`. */
export function formatHeight(length: Length): string {
  const size = Math.abs(length);
  const { count: plates, remainder } = divide(size, PLATE);
  const bricks = Math.trunc(plates / 3);
  const odd = plates % 3;
  const words = (bricks > 0 || odd === 0 ? `${bricks}b` : '') + (odd > 0 ? `${odd}p` : '');
  const tail = remainder === 0 ? '' : ` + ${trim(remainder / MM, 2)} mm`;
  return (length < 0 && size > 0 ? '-' : '') + words + tail;
}

/** A height in whole plates as `6b2p`. */
export function formatPlates(plates: number): string {
  return formatHeight(Math.round(plates) * PLATE);
}

/** `15 1/8 in`: to the nearest 1/16 inch, as a tape shows it; `≈` in front when that is not exact. */
export function formatInches(length: Length): string {
  const sixteenths = Math.round((length / INCH) * 16);
  const exact = sixteenths * (INCH / 16) === length;
  const size = Math.abs(sixteenths);
  const whole = Math.trunc(size / 16);
  let top = size % 16;
  let bottom = 16;
  while (top > 0 && top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  const fraction = top === 0 ? '' : `${top}/${bottom}`;
  const words = [whole > 0 || fraction === '' ? String(whole) : '', fraction].filter(Boolean).join(' ');
  return `${exact ? '' : '≈ '}${sixteenths < 0 ? '-' : ''}${words} in`;
}

/**
 * The exact conversion with its remainder: `23.6 studs: 23 studs + 5 mm`.
 * @param length in nm
 * @param step the unit to fit into: a stud, a brick or a plate
 */
export function formatFit(length: Length, step: 'stud' | 'brick' | 'plate'): string {
  const size = { stud: STUD, brick: BRICK, plate: PLATE }[step];
  const { count, remainder } = divide(length, size);
  const plural = (value: number) => `${value} ${Math.abs(value) === 1 ? step : `${step}s`}`;
  if (remainder === 0) return plural(count);
  const sign = remainder < 0 ? '-' : '+';
  return `${plural(Number(trim(length / size, 1)))}: ${plural(count)} ${sign} ${trim(Math.abs(remainder) / MM, 2)} mm`;
}

/** `7 ft 2 5/8 in`, `11 in`, `12 ft`: feet and inches to the nearest 1/16 inch, `≈` in front when that is not exact. */
export function formatFeet(length: Length): string {
  const feet = Math.trunc((length + (length < 0 ? -1 : 1) * (INCH / 32)) / (12 * INCH));
  if (feet === 0) return formatInches(length);
  const rest = formatInches(Math.abs(length - feet * 12 * INCH));
  const words = rest.replace(/^≈ -?/, '').replace(/^-/, '');
  return `${rest.startsWith('≈') ? '≈ ' : ''}${feet} ft${words === '0 in' ? '' : ` ${words}`}`;
}

/** Converts the millimetres in a sentence to inches: “830 mm” becomes “≈ 32 11/16 in”. */
export function inInches(sentence: string): string {
  return sentence.replace(/(\d[\d,]*(?:\.\d+)?) mm\b/g, (_, digits: string) =>
    formatInches(Math.round(Number(digits.replaceAll(',', '')) * MM)),
  );
}

/** `3 studs`, `1 module`: a count with its word. */
export const countOf = (count: number, word: string) =>
  `${count.toLocaleString('en')} ${word}${count === 1 ? '' : 's'}`;

/** A sum of money to the hundredth: `3,449.68`. */
export const formatSum = (amount: number): string => SUM.format(amount);
const SUM = new Intl.NumberFormat('en', {
  ...{ minimumFractionDigits: 2, maximumFractionDigits: 2 },
  signDisplay: 'negative',
});

/** A price to the hundredth, or as fine as it was typed: `3.50`, `0.035`. */
export const formatMoney = (amount: number): string =>
  amount.toFixed(Math.max(2, String(amount).split('.')[1]?.length ?? 0));

/** A mass as people say it: whole grams below a kilogram, kilograms with a tenth from there on. */
export const formatKg = (grams: number): string =>
  Math.round(grams) < 1000 ? `${Math.round(grams)} g` : `${(grams / 1000).toFixed(1)} kg`;

/** What differs by less is rounding in the last digits. */
const NO_SHARE = 1e-9;

/** A share in percent; small ones are not told as none, nor almost all as all, nor a little more than all as all. */
export function formatPercent(share: number): string {
  const percent = 100 * share;
  if (share > NO_SHARE && percent < 0.5) return '< 1 %';
  if (share < 1 - NO_SHARE && percent >= 99.5) return '> 99 %';
  if (share > 1 + NO_SHARE && percent < 100.5) return '> 100 %';
  return `${Math.round(percent)} %`;
}

/** A chance as runs of a simulation can tell it: they are never sure. @param chance 0 to 1 */
export const formatChance = (chance: number): string =>
  chance >= 0.995 ? '> 99 %' : chance < 0.005 ? '< 1 %' : formatPercent(chance);
