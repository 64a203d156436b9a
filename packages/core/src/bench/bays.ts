// Repeats along a base: bays that divide it, so that no bay straddles a seam and each module is the same.

/** Equal bays along a base. */
export interface BaseBays {
  bays: number;
  /** Width of one with its post, studs: a whole number. */
  each: number;
  /** Studs left over at the end of the base. */
  left: number;
}

/** Bays of one width along a base. @param base @param each studs, whole, at least 1 */
export function baysOfBase(base: number, each: number): BaseBays {
  const bays = Math.floor(base / each);
  return { bays, each, left: base - bays * each };
}

/** Widths that divide a base evenly, the widest first. @param least @param most studs */
export function evenBays(base: number, least: number, most: number): BaseBays[] {
  const even: BaseBays[] = [];
  for (let each = Math.min(base, most); each >= Math.max(1, least); each--)
    if (base % each === 0) even.push({ bays: base / each, each, left: 0 });
  return even;
}
