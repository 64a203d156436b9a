import { parseLength, type ParseLimits } from './parse.ts';
import { STUD, outerSize, studsWithin, type Length, type Unit } from './units.ts';

/** A width and a depth as read, or the sentence that says what is wrong. */
export type ParsedSize =
  | { ok: true; w: Length; d: Length; units: readonly Unit[] }
  | { ok: false; error: string };

/** What parts the two lengths of a size. */
const BETWEEN = /\s*(?:[×✕*]|(?<=[\d\s"″'′a-z.])x(?=[\s\d.])|\bby\b)\s*/i;
const NAMES_UNIT = /[a-zµ"″'′]/i;

/**
 * Reads a size as people say it: `42 × 55 cm`, `16x16`, `16 1/2 in by 21 in`, `48 studs`; one length is a square.
 * A width without a unit takes the depth's. Never throws.
 * @param bare unit where neither names one
 * @param limits of each side; `name` is what the size is called in errors
 */
export function parseSize(text: string, bare: Unit, limits: ParseLimits = {}): ParsedSize {
  const name = limits.name ?? 'Size';
  const sides = text.trim().split(BETWEEN);
  if (sides.length > 2 || sides.some((side) => side.trim() === ''))
    return {
      ok: false,
      error: `${name}: type a width and a depth, for instance 42 × 55 cm or 48 × 32 studs.`,
    };
  const [first = '', second = first] = sides;
  const d = parseLength(second, bare, { ...limits, name: sides.length > 1 ? `${name}, depth` : name });
  if (!d.ok) return { ok: false, error: d.error };
  const shared = NAMES_UNIT.test(first) ? bare : (d.units.at(-1) ?? bare);
  const w = parseLength(first, shared, { ...limits, name: sides.length > 1 ? `${name}, width` : name });
  if (!w.ok) return { ok: false, error: w.error };
  return { ok: true, w: w.length, d: d.length, units: [...w.units, ...d.units] };
}

/**
 * The whole studs that fit a length, what is left of it, and the nearest count of studs with what that is off.
 * @returns `left` and `over` in nm; `over` is 0 where the nearest is what fits
 */
export function fitStuds(length: Length): { studs: number; left: Length; nearest: number; over: Length } {
  const studs = studsWithin(length);
  const up = outerSize(studs + 1) - length;
  const left = length - outerSize(studs);
  return { studs, left, ...(up < left ? { nearest: studs + 1, over: up } : { nearest: studs, over: 0 }) };
}

/** A size on the grid: whole studs, and how they lie in what was typed. */
export interface GridSize {
  w: number;
  d: number;
  /** Sizes typed in other units than studs: what the studs must fit, nm. */
  room: { w: Length; d: Length } | null;
  /** What the room leaves, nm; 0 without a room. */
  left: { w: Length; d: Length };
  /** The nearest size where that is larger than the room, and how far it stands over, nm. */
  nearest: { w: number; d: number; over: { w: Length; d: Length } } | null;
}

/**
 * Reads a size and takes it to whole studs: what is typed in studs is that size; any other length is a room, in which
 * the largest whole number of studs lies.
 * @param max largest side, studs
 */
export function readGridSize(
  text: string,
  max: number,
): { ok: true; size: GridSize } | { ok: false; error: string } {
  const parsed = parseSize(text, 'stud', { min: 1, max: (max + 1) * STUD });
  if (!parsed.ok) return parsed;
  const { units, w, d } = parsed;
  const asTyped = units.every((unit) => unit === 'stud');
  if (asTyped && (w % STUD !== 0 || d % STUD !== 0))
    return {
      ok: false,
      error: `Size: “${text.trim()}” is no whole number of studs; modules stand on whole studs.`,
    };
  const fits = { w: fitStuds(w), d: fitStuds(d) };
  const [studsW, studsD] = asTyped ? [w / STUD, d / STUD] : [fits.w.studs, fits.d.studs];
  for (const studs of [studsW, studsD]) {
    if (studs < 1) return { ok: false, error: `Size: “${text.trim()}” has no room for one stud (7.8 mm).` };
    if (studs > max)
      return {
        ok: false,
        error: `Size: ${studs} studs is above the most, ${max.toLocaleString('en')} studs.`,
      };
  }
  const larger = !asTyped && (fits.w.over > 0 || fits.d.over > 0);
  return {
    ok: true,
    size: {
      ...{ w: studsW, d: studsD },
      room: asTyped ? null : { w, d },
      left: asTyped ? { w: 0, d: 0 } : { w: fits.w.left, d: fits.d.left },
      nearest: larger
        ? { w: fits.w.nearest, d: fits.d.nearest, over: { w: fits.w.over, d: fits.d.over } }
        : null,
    },
  };
}
