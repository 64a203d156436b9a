import {
  converter,
  differenceCiede2000,
  filterDeficiencyDeuter,
  filterDeficiencyProt,
  filterDeficiencyTrit,
  formatHex,
  parse,
  wcagLuminance,
} from 'culori';
import { PALETTE, type Colour } from './palette.ts';

// How colours look and how far two are apart.

/** CIE L*a*b*, D65 white, from sRGB (IEC 61966-2-1). */
export interface Lab {
  l: number;
  a: number;
  b: number;
}

const toLab = converter('lab65');
const apart = differenceCiede2000();

/** @param hex sRGB as #rrggbb @throws RangeError for what is no colour */
export function labOf(hex: string): Lab {
  const lab = /^#[0-9a-f]{6}$/i.test(hex) ? toLab(hex) : undefined;
  if (!lab) throw new RangeError(`“${hex}” is no colour; write it as #rrggbb`);
  return { l: lab.l, a: lab.a, b: lab.b };
}

/**
 * CIEDE2000 colour difference (CIE 142:2001; Sharma, Wu, Dalal 2005), kL = kC = kH = 1. Below about 1 nobody tells
 * two apart; about 5 is seen side by side; above 10 it is another colour (common practice, no source).
 */
export const deltaE = (a: Lab, b: Lab): number => apart({ mode: 'lab65', ...a }, { mode: 'lab65', ...b });

/** Farther apart than this two colours are two, not an old and a new tone of one (see `difference`). */
export const DISTINCT_DELTA_E = 10;

const LABS = new Map(PALETTE.map(({ id, hex }) => [id, labOf(hex)]));

/** How far two colours of the palette are apart; Infinity when one is not of it. */
export function colourDeltaE(a: string, b: string): number {
  const [first, second] = [LABS.get(a), LABS.get(b)];
  return first && second ? deltaE(first, second) : Infinity;
}

const LUMINANCES = new Map(PALETTE.map(({ id, hex }) => [id, wcagLuminance(hex)]));

/**
 * Contrast of two colours of the palette by how much light they send back: the difference as a share of the lighter, 0 to 1
 * (ADA Accessibility Guidelines 1991, A4.30.3, from memory; relative luminance as in WCAG 2).
 * @returns null when one is not of the palette
 */
export function lightContrast(a: string, b: string): number | null {
  const [first, second] = [LUMINANCES.get(a), LUMINANCES.get(b)];
  if (first === undefined || second === undefined) return null;
  const most = Math.max(first, second);
  return most === 0 ? 0 : (most - Math.min(first, second)) / most;
}

/** A colour beside another, with how far off it is. */
export interface Near {
  colour: Colour;
  deltaE: number;
}

/**
 * The colours nearest to one, of its own finish first: clear pieces never stand in for solid ones unasked.
 * @param to a Lab value, or the id of a palette colour, which is left out of the answer
 */
export function nearColours(to: Lab | string, count = 6, finish?: Colour['finish']): Near[] {
  const lab = typeof to === 'string' ? LABS.get(to) : to;
  if (!lab) return [];
  const own = finish ?? (typeof to === 'string' ? PALETTE.find(({ id }) => id === to)?.finish : undefined);
  return PALETTE.filter((colour) => colour.id !== to && (own === undefined || colour.finish === own))
    .map((colour) => ({ colour, deltaE: deltaE(lab, LABS.get(colour.id) ?? lab) }))
    .toSorted((a, b) => a.deltaE - b.deltaE)
    .slice(0, count);
}

/** Kinds of colour blindness that are simulated, full strength. */
export const COLOUR_VISIONS = ['usual', 'protan', 'deutan', 'tritan'] as const;
export type ColourVision = (typeof COLOUR_VISIONS)[number];
export const COLOUR_VISION_WORDS: Record<ColourVision, string> = {
  usual: 'usual sight',
  protan: 'red-blind',
  deutan: 'green-blind',
  tritan: 'blue-blind',
};
const FILTERS = {
  protan: filterDeficiencyProt(1),
  deutan: filterDeficiencyDeuter(1),
  tritan: filterDeficiencyTrit(1),
};

/** How a colour looks to a visitor with such sight (Machado, Oliveira, Fernandes 2009, by culori), #rrggbb. */
export function simulateVision(hex: string, sight: ColourVision): string {
  const colour = sight === 'usual' ? undefined : parse(hex);
  return colour && sight !== 'usual' ? formatHex(FILTERS[sight](colour)) : hex;
}

/** How far two colours are apart to each kind of sight. */
export const deltaESeen = (a: Colour, b: Colour, sight: ColourVision): number =>
  deltaE(labOf(simulateVision(a.hex, sight)), labOf(simulateVision(b.hex, sight)));

/**
 * A palette colour by what people call it: its id or name, whatever the case; else the ones whose names are alike,
 * by how few letters differ.
 */
export function coloursNamed(word: string): { exact: Colour | null; alike: Colour[] } {
  const plain = word.trim().toLowerCase();
  const exact = PALETTE.find(({ id, name }) => id === plain || name.toLowerCase() === plain) ?? null;
  if (exact) return { exact, alike: [] };
  const hex = /^#?([0-9a-f]{6})$/i.exec(plain);
  if (hex) return { exact: null, alike: nearColours(labOf(`#${hex[1]}`), 3).map(({ colour }) => colour) };
  const ranked = PALETTE.map((colour) => ({ colour, far: editDistance(plain, colour.id) }))
    .toSorted((a, b) => a.far - b.far)
    .filter(({ far }) => far <= Math.max(2, plain.length / 3));
  return { exact: null, alike: ranked.slice(0, 3).map(({ colour }) => colour) };
}

/** Levenshtein distance: letters to add, drop or change. */
export function editDistance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++)
      next.push(Math.min(next[j - 1] + 1, row[j] + 1, row[j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1)));
    row = next;
  }
  return row[b.length];
}
