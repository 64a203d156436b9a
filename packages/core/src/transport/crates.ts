import type { Crate, Kind } from '../document/index.ts';
import { packingOf } from './packing.ts';
import type { PackSpace } from './packItem.ts';

/** What goes into a crate, or bare: one piece, or several alike side by side. */
export interface Content {
  key: string;
  name: string;
  ref: { kind: Kind; id: string };
  w: number;
  d: number;
  h: number;
  grams: number;
  count: number;
  /** Grams it bears on top. */
  bears: number;
  order: number;
}

/** Crates of a size, and how many of them are still empty. */
export type CrateSize = Crate & { left: number };

/** A crate with what is in it, as it is carried. */
export interface FullCrate {
  key: string;
  name: string;
  w: number;
  d: number;
  h: number;
  grams: number;
  bears: number;
  order: number;
  holds: Content[];
}

/**
 * Puts things into crates, each into the smallest that holds it by itself, or a larger one where those are full.
 * @param crates counted down by what is used
 * @param wanted id of the crate that a person has chosen for a thing; null: any
 * @param words for the name of the crates; null: “1 of 4”
 * @returns what is in no crate, too
 */
export function crated(
  contents: readonly Content[],
  crates: readonly CrateSize[],
  wanted: (key: string) => string | null,
  words: string | null,
): { crates: FullCrate[]; left: Content[] } {
  const full: FullCrate[] = [];
  let rest = [...contents];
  const bySize = crates.toSorted((a, b) => volumeOf(a) - volumeOf(b) || (a.id < b.id ? -1 : 1));
  for (const crate of bySize) {
    if (crate.left === 0 || rest.length === 0) continue;
    const may = rest.filter(({ key }) => {
      const id = wanted(key);
      return id === null || id === crate.id;
    });
    const { padding } = crate;
    const items = may.map(({ key, w, d, h, grams, bears }) => ({
      ...{ id: key, w: w + 2 * padding, d: d + 2 * padding, h: h + padding, mass: grams },
      ...{ canTurn: true, bears, order: 1 },
    }));
    const { packed } = packingOf(items, insideOfCrate(crate), {
      ...{ maxTrips: crate.left, seconds: 0, now: () => 0 },
    });
    const trips = Math.max(0, ...packed.map(({ trip }) => trip));
    for (let trip = 1; trip <= trips; trip++) {
      const ids = new Set(packed.filter((one) => one.trip === trip).map(({ id }) => id));
      const holds = may.filter(({ key }) => ids.has(key));
      const number = crate.count - crate.left + trip;
      full.push({
        key: `crate-${crate.id}-${number}`,
        name: `${crate.name}${crate.count > 1 ? ` ${number}` : ''}${words === null ? '' : `, ${words}`}`,
        w: crate.insideW + 2 * crate.wall,
        d: crate.insideD + 2 * crate.wall,
        h: crate.insideH + 2 * crate.wall,
        grams: 1000 * crate.ownKg + holds.reduce((sum, { grams }) => sum + grams, 0),
        bears: 1000 * crate.bearsKg,
        order: Math.min(...holds.map(({ order }) => order)),
        holds,
      });
    }
    crate.left -= trips;
    const isIn = new Set(packed.map(({ id }) => id));
    rest = rest.filter(({ key }) => !isIn.has(key));
  }
  return { crates: full, left: rest };
}

const volumeOf = ({ insideW, insideD, insideH }: Crate) => insideW * insideD * insideH;

const insideOfCrate = ({ insideW, insideD, insideH, maxKg }: Crate): PackSpace => ({
  ...{ w: insideW, d: insideD, h: insideH },
  maxMass: maxKg === null ? null : 1000 * maxKg,
});
