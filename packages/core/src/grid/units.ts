// The lattice every length in the core stands on.
//
// A length is an integer count of nanometres. That looks odd for toys, but it is the coarsest unit in which
// both worlds are exact: a tick of 0.8 mm is 800,000 nm and 1/64 inch is 396,875 nm
// (inch = 25.4 mm exactly, international yard and pound agreement, 1959).

/** An exact length: an integer number of nanometres. Safe up to ±9,007 km. */
export type Length = number;

const NM_PER_MM = 1_000_000;

/** One tick, 0.8 mm: the largest length that divides stud, half stud, plate and brick (common practice). */
export const TICK: Length = 800_000;
/** Ticks in one stud pitch (8.0 mm), half a stud (4.0 mm), one plate (3.2 mm) and one brick (9.6 mm). */
export const TICKS = { stud: 10, halfStud: 5, plate: 4, halfPlate: 2, brick: 12 } as const;

export const STUD: Length = TICKS.stud * TICK;
export const PLATE: Length = TICKS.plate * TICK;
export const BRICK: Length = TICKS.brick * TICK;
export const MM: Length = NM_PER_MM;
export const INCH: Length = 25_400_000;

/** Millimetres in a stud and in a plate, for arithmetic that is physical rather than exact. */
export const MM_PER_STUD = STUD / MM;
export const MM_PER_PLATE = PLATE / MM;
/** A plate in studs: 3.2 mm to 8 mm. */
export const STUDS_PER_PLATE = 0.4;
export const PLATES_PER_BRICK = BRICK / PLATE;

/** The units a person may type. */
export const UNIT_NAMES = ['stud', 'brick', 'plate', 'tick', 'mm', 'cm', 'm', 'in', 'ft'] as const;
export type Unit = (typeof UNIT_NAMES)[number];

/** Each of them with its exact length and the words for it; the first word is the printed one. */
export const UNITS = {
  stud: { length: STUD, words: ['studs', 'stud', 'st', 's'] },
  brick: { length: BRICK, words: ['bricks', 'brick', 'b'] },
  plate: { length: PLATE, words: ['plates', 'plate', 'p'] },
  tick: { length: TICK, words: ['ticks', 'tick', 't'] },
  mm: { length: MM, words: ['mm', 'millimetre', 'millimetres'] },
  cm: { length: 10 * MM, words: ['cm', 'centimetre', 'centimetres'] },
  m: { length: 1000 * MM, words: ['m', 'metre', 'metres'] },
  in: { length: INCH, words: ['in', 'inch', 'inches', '"', '″'] },
  ft: { length: 12 * INCH, words: ['ft', 'foot', 'feet', "'", '′'] },
} as const satisfies Record<Unit, { length: Length; words: readonly string[] }>;

/** What a row of studs is shorter than its pitch: 0.1 mm at each end (from memory). */
const PLAY: Length = 200_000;

/**
 * Outer size of a row of `studs` studs, in nm: 8n − 0.2 mm, 0.1 mm of play at each end (from memory).
 * @param studs a count of studs ≥ 0; half studs are allowed. 0 gives 0.
 */
export function outerSize(studs: number): Length {
  if (!(studs >= 0)) throw new RangeError(`a row of ${studs} studs has no size: the least is 0 studs`);
  return studs === 0 ? 0 : Math.round(studs * STUD) - PLAY;
}

/** The longest row of whole studs whose outer size fits a length: the inverse of `outerSize`. */
export function studsWithin(length: Length): number {
  return Math.max(0, Math.floor((length + PLAY) / STUD));
}
