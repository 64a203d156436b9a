import { MM_PER_PLATE, MM_PER_STUD } from '../grid/index.ts';

// The catalogue: families of parts with sizes in studs and heights in plates. An id is made of family and size, so
// that no lookup table is needed: `brick-2x4`, `slope-1x2-45`, `rock-panel-4x6x6`. Sizes and shares are common
// practice, no source.

interface FamilySpec {
  word: string;
  /** Height of parts whose id has no height suffix, plates. */
  height: number;
  /** How its plastic is spread: a hollow shell with studs, a smooth shell, half a shell, or a share of its box. */
  body: 'studded' | 'smooth' | 'slanted' | number;
  /** Of what a piece costs by its mass, how much more or less: a guess of ours. */
  dear: number;
  /** What is usually bought over the count, percent (a default of ours). */
  spares: number;
  /** The part has a front, so width precedes depth. Else the shorter side comes first. */
  fronted?: boolean;
}

export const FAMILIES = {
  brick: { word: 'brick', height: 3, body: 'studded', dear: 1, spares: 3 },
  'scored-brick': { word: 'scored brick', height: 3, body: 'studded', dear: 1.6, spares: 5 },
  'side-stud-brick': { word: 'side-stud brick', height: 3, body: 'studded', dear: 1.8, spares: 5 },
  plate: { word: 'plate', height: 1, body: 'studded', dear: 1, spares: 3 },
  grille: { word: 'grille', height: 1, body: 'smooth', dear: 1.3, spares: 3 },
  tile: { word: 'tile', height: 1, body: 'smooth', dear: 1.1, spares: 3 },
  slope: { word: 'slope', height: 3, body: 'slanted', dear: 1.4, spares: 5, fronted: true },
  'corner-slope': { word: 'corner slope', height: 3, body: 'slanted', dear: 1.8, spares: 5 },
  'valley-slope': { word: 'valley slope', height: 3, body: 'slanted', dear: 1.8, spares: 5 },
  wedge: { word: 'wedge', height: 1, body: 'slanted', dear: 1.6, spares: 5 },
  jumper: { word: 'jumper', height: 1, body: 'smooth', dear: 1.3, spares: 5 },
  bracket: { word: 'bracket', height: 1, body: 'studded', dear: 2, spares: 5 },
  arch: { word: 'arch', height: 3, body: 0.2, dear: 2, spares: 2 },
  panel: { word: 'panel', height: 3, body: 0.22, dear: 1.8, spares: 3, fronted: true },
  'rock-panel': { word: 'rock panel', height: 18, body: 0.07, dear: 1.6, spares: 0, fronted: true },
  stair: { word: 'stair piece', height: 9, body: 0.16, dear: 1.6, spares: 2, fronted: true },
  base: { word: 'base', height: 1, body: 0.84, dear: 1, spares: 0 },
  round: { word: 'round', height: 3, body: 'studded', dear: 1.3, spares: 5 },
  clear: { word: 'clear piece', height: 1, body: 'studded', dear: 1.8, spares: 5 },
  window: { word: 'window', height: 9, body: 0.12, dear: 3, spares: 2, fronted: true },
  door: { word: 'door', height: 18, body: 0.1, dear: 3, spares: 2, fronted: true },
  fence: { word: 'fence', height: 6, body: 0.12, dear: 2.5, spares: 3, fronted: true },
  track: { word: 'track', height: 2, body: 0.15, dear: 3, spares: 0, fronted: true },
  plant: { word: 'plant', height: 3, body: 0.12, dear: 3, spares: 5 },
  figure: { word: 'figure', height: 12, body: 0.2, dear: 12, spares: 0 },
  torso: { word: 'torso', height: 4, body: 0.22, dear: 16, spares: 0 },
  legs: { word: 'legs', height: 4, body: 0.22, dear: 12, spares: 0 },
  head: { word: 'head', height: 3, body: 0.3, dear: 10, spares: 0 },
  headwear: { word: 'headwear', height: 3, body: 0.2, dear: 10, spares: 0 },
  tool: { word: 'hand tool', height: 3, body: 0.1, dear: 10, spares: 5 },
  light: { word: 'light', height: 1, body: 0.3, dear: 40, spares: 5 },
  mechanical: { word: 'mechanical piece', height: 3, body: 0.25, dear: 2, spares: 3 },
  special: { word: 'special piece', height: 3, body: 0.2, dear: 4, spares: 0 },
} as const satisfies Record<string, FamilySpec>;
export type Family = keyof typeof FAMILIES;
const isFamily = (word: string): word is Family => Object.hasOwn(FAMILIES, word);
export const FAMILY_NAMES = Object.keys(FAMILIES).filter(isFamily);

/** Families of one pitch each: 45° where people say none. */
const SLANTED: readonly Family[] = ['slope', 'corner-slope', 'valley-slope'];

/** A part of the catalogue. `w` and `d` in studs, `h` in plates, `angle` of slopes in degrees. */
export interface Part {
  id: string;
  family: Family;
  w: number;
  d: number;
  h: number;
  angle?: number;
}

const spec = (family: Family): FamilySpec => FAMILIES[family];
const PART_ID = /^([a-z]+(?:-[a-z]+)*)-(\d{1,2})x(\d{1,2})(?:x(\d{1,2})(p?))?(?:-(\d{2}))?$/;

/**
 * The id of a part. The height suffix is in bricks (`x3`) or, where no whole number of them makes it, in plates
 * (`x2p`), and only when it is not the family's usual one.
 */
export function partId(family: Family, w: number, d: number, h?: number, angle?: number): string {
  const { height, fronted } = spec(family);
  const [first, second] = fronted ? [w, d] : [Math.min(w, d), Math.max(w, d)];
  const tall = h === undefined || h === height ? '' : h % 3 === 0 ? `x${h / 3}` : `x${h}p`;
  return `${family}-${first}x${second}${tall}${angle === undefined ? '' : `-${angle}`}`;
}

/**
 * Reads a part from its id; null when it is none that a family and a size make. Sizes are 1 to 64 studs. Parts are
 * asked for again and again, by thousands of rows: each id is read once.
 */
export function partOf(id: string): Part | null {
  const known = read.get(id);
  if (known) return known;
  const part = readPart(id);
  if (part) read.set(id, part);
  return part;
}
const read = new Map<string, Part>();

function readPart(id: string): Part | null {
  const match = PART_ID.exec(id);
  if (!match) return null;
  const family = match[1];
  if (!isFamily(family)) return null;
  const [w, d] = [Number(match[2]), Number(match[3])];
  const h = match[4] === undefined ? spec(family).height : Number(match[4]) * (match[5] === 'p' ? 1 : 3);
  const angle = match[6] === undefined ? undefined : Number(match[6]);
  if (w < 1 || d < 1 || w > 64 || d > 64 || h < 1) return null;
  // Each part has one canonical id.
  if (partId(family, w, d, h, angle) !== id) return null;
  return { id, family, w, d, h, ...(angle === undefined ? {} : { angle }) };
}

/** “brick 2×4”, “slope 1×2 45°”, “rock panel 4×6×6”; an id that cannot be parsed is returned unchanged. */
export function partName(id: string): string {
  const part = partOf(id);
  if (!part) return id;
  const { family, w, d, h, angle } = part;
  const { word, height } = spec(family);
  const always = family === 'rock-panel' || family === 'window' || family === 'door';
  const tall =
    h !== height || always ? (h % 3 === 0 ? `×${h / 3}` : ` of ${h} ${h === 1 ? 'plate' : 'plates'}`) : '';
  return `${word} ${w}×${d}${tall}${angle === undefined ? '' : ` ${angle}°`}`;
}

/** ABS, g/mm³: 1.03 to 1.07 g/cm³ (polymer handbooks; from memory). */
const ABS = 1.05e-3;
/** Play between neighbours, walls and tops of a shell, mm (from memory, and chosen so that a brick 2×4 is 2.3 g). */
const [PLAY, WALL, TOP] = [0.2, 1.4, 1];
/** A stud 1.7 mm high and 4.8 mm across, and the tube between four studs, 6.51 mm across with a 4.8 mm bore. */
const STUD = Math.PI * 2.4 ** 2 * 1.7;
const TUBE = Math.PI * (3.255 ** 2 - 2.4 ** 2);

/**
 * What a part weighs by its volume, grams: walls, top, studs and tubes of a shell, or a share of its box. A builder
 * a weighed part overrides it: see `grams` of a part type.
 */
export function gramsOf(part: Part): number {
  const [w, d, h] = [part.w * MM_PER_STUD - PLAY, part.d * MM_PER_STUD - PLAY, part.h * MM_PER_PLATE];
  const { body } = spec(part.family);
  if (typeof body === 'number') return w * d * h * body * ABS;
  const walls = (2 * (w + d) - 4 * WALL) * WALL * h;
  const top = (w - 2 * WALL) * (d - 2 * WALL) * TOP;
  const tubes = (part.w - 1) * (part.d - 1) * TUBE * (h - TOP);
  const studs = body === 'studded' ? part.w * part.d * STUD : 0;
  const whole = walls + top + tubes + studs;
  // A slope keeps its base, one row of studs and about two thirds of its walls.
  return (body === 'slanted' ? whole * 0.7 : whole) * ABS;
}

/** Whether a part has studs all over its top, so that what stands on it is held. */
export function isStudded(id: string): boolean {
  const family = partOf(id)?.family;
  return family !== undefined && (spec(family).body === 'studded' || family === 'base' || family === 'arch');
}

/** What one usually costs, in whole units of money: a guess of ours from its mass, good for a first sum only. */
export const priceGuess = (part: Part): number =>
  Math.round((0.02 + 0.045 * gramsOf(part)) * spec(part.family).dear * 100) / 100;

const sizes = (text: string): [number, number][] =>
  text.split(' ').map((size) => {
    const [w, d] = size.split('x').map(Number);
    return [w, d];
  });

/** The sizes each family is commonly made in. */
export const BRICK_SIZES = sizes('1x1 1x2 1x3 1x4 2x2 2x3 2x4');
export const PLATE_SIZES = sizes(
  '1x1 1x2 1x3 1x4 1x6 1x8 1x10 1x12 2x2 2x3 2x4 2x6 2x8 2x10 2x12 2x16 4x4 4x6 4x8 4x10 4x12 6x6 6x8 6x10 6x12 6x14 6x16 8x8 8x16 16x16',
);
export const TILE_SIZES = sizes('1x1 1x2 1x3 1x4 1x6 1x8 2x2 2x3 2x4 4x4');

/** The parts the program knows by itself, by family and size; people add their own. */
export const CATALOGUE: readonly Part[] = [
  ...BRICK_SIZES.concat(sizes('1x6 1x8 2x6 2x8 1x10 1x12')).map(([w, d]) => partId('brick', w, d)),
  ...sizes('2x2 2x4').map(([w, d]) => partId('brick', w, d, 9)),
  partId('scored-brick', 1, 2),
  partId('side-stud-brick', 1, 2),
  ...PLATE_SIZES.map(([w, d]) => partId('plate', w, d)),
  ...TILE_SIZES.map(([w, d]) => partId('tile', w, d)),
  ...sizes('1x1 2x1').map(([w, d]) => partId('slope', w, d, 2, 30)),
  ...[1, 2, 3, 4].flatMap((w) => [
    partId('slope', w, 2, 3, 45),
    ...(w <= 2 ? [partId('slope', w, 2, 6, 65), partId('slope', w, 2, 9, 75)] : []),
    partId('slope', w, 3, 3, 33),
  ]),
  ...(['corner-slope', 'valley-slope'] as const).flatMap((family) => [
    partId(family, 2, 2, 3, 45),
    partId(family, 2, 2, 6, 65),
    partId(family, 2, 2, 9, 75),
    partId(family, 3, 3, 3, 33),
  ]),
  ...sizes('2x3 2x4 4x4 6x6').map(([w, d]) => partId('wedge', w, d)),
  ...sizes('1x2 2x2').map(([w, d]) => partId('jumper', w, d)),
  ...sizes('1x1 1x2 2x2').map(([w, d]) => partId('bracket', w, d)),
  ...[1, 2].flatMap((h) => sizes('1x3 1x4 1x6 1x8').map(([w, d]) => partId('arch', w, d, h * 3))),
  ...sizes('2x1 4x1').flatMap(([w, d]) => [3, 9, 18].map((h) => partId('panel', w, d, h))),
  ...sizes('6x4 4x2 6x2').map(([w, d]) => partId('rock-panel', w, d, 18)),
  partId('stair', 4, 2),
  ...sizes('8x8 8x16 16x16 16x32 32x32 48x48').map(([w, d]) => partId('base', w, d)),
  ...sizes('1x1 2x2 4x4').flatMap(([w, d]) => [3, 1].map((h) => partId('round', w, d, h))),
  ...sizes('1x1 1x2 2x2').map(([w, d]) => partId('clear', w, d)),
  ...sizes('1x2 2x2 4x2 1x1 2x1 4x1').map(([w, d]) => partId('window', w, d, w === 1 ? 6 : 9)),
  partId('window', 2, 1, 6),
  ...sizes('2x1 4x1').map(([w, d]) => partId('door', w, d, 18)),
  ...sizes('4x1 8x1').map(([w, d]) => partId('fence', w, d)),
  ...sizes('8x16 8x8').map(([w, d]) => partId('track', w, d)),
  ...sizes('1x1 2x2 4x4 6x6').flatMap(([w, d]) =>
    [3, 12].map((h) => partId('plant', w, d, h * w > 30 ? 24 : h)),
  ),
  partId('figure', 2, 1),
  ...sizes('1x2').flatMap(([w, d]) => [partId('torso', w, d), partId('legs', w, d)]),
  ...(['head', 'headwear', 'tool'] as const).map((family) => partId(family, 1, 1)),
  partId('light', 1, 1),
  partId('grille', 1, 2),
  ...sizes('1x2 1x4 2x2').map(([w, d]) => partId('mechanical', w, d)),
].map((id) => {
  const part = partOf(id);
  if (!part) throw new Error(`the catalogue lists “${id}”, which is no part`);
  return part;
});
const KNOWN = new Map(CATALOGUE.map((part) => [part.id, part]));

/** Whether the catalogue lists a part by itself. */
export const isListed = (id: string): boolean => KNOWN.has(id);

/**
 * A part by what people call it: an id, or “brick 2x4”, “2 × 4 brick”, “2x4 plate”, “slope 45 2x1”. The size may be
 * sizes in either order; a height in bricks may follow (“brick 2x4x3”), or in plates (“slope 1x1 of 2 plates 30°”).
 */
export function partNamed(word: string): Part | null {
  const plain = word
    .trim()
    .toLowerCase()
    .replaceAll('×', 'x')
    .replace(/\s*x\s*/g, 'x');
  const whole = partOf(plain);
  if (whole) return whole;
  const size = /(\d{1,2})x(\d{1,2})(?:x(\d{1,2}))?/.exec(plain);
  if (!size) return null;
  // “round 1×1 of 1 plate”: a height that no whole number of bricks makes.
  const flat = / of (\d{1,3}) plates?\b/.exec(plain);
  const rest = plain.replace(size[0], ' ').replace(flat?.[0] ?? '', ' ');
  const angle = /(\d{2})\s*°?/.exec(rest);
  const stated = rest
    .replace(/\d{2}\s*°?/, ' ')
    .replace(/[^a-z ]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  const family = FAMILY_NAMES.find((one) => {
    const word = spec(one).word.replaceAll('-', ' ');
    return [one.replaceAll('-', ' '), word, `${word}s`].includes(stated);
  });
  if (!family) return null;
  const [a, b] = [Number(size[1]), Number(size[2])];
  const bricks = size[3] === undefined ? undefined : Number(size[3]) * 3;
  const h = flat ? Number(flat[1]) : bricks;
  const turn = SLANTED.includes(family) ? Number(angle?.[1] ?? 45) : undefined;
  const ways: [number, number][] = [
    [a, b],
    [b, a],
  ];
  const ids = ways.map(([w, d]) => partId(family, w, d, h, turn));
  return partOf(ids.find(isListed) ?? ids[0]);
}

/** Grams of a list of pieces, each as weighed or by its volume. */
export const gramsOfLines = (
  lines: readonly { part: string; qty: number }[],
  known: Readonly<Record<string, { grams: number | null }>> = {},
): number => lines.reduce((sum, { part, qty }) => sum + qty * gramsOfPart(part, known), 0);

/** Grams of one piece: as weighed, else by volume; an unknown part counts as a brick 2×2. */
export function gramsOfPart(
  id: string,
  known: Readonly<Record<string, { grams: number | null }>> = {},
): number {
  const own = Object.hasOwn(known, id) ? known[id].grams : null;
  if (own !== null) return own;
  let grams = volumes.get(id);
  if (grams === undefined) {
    const part = partOf(id);
    grams = part ? gramsOf(part) : 1.2;
    volumes.set(id, grams);
  }
  return grams;
}
const volumes = new Map<string, number>();
