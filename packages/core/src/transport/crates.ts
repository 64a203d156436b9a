import type { Crate, Kind } from '../document/index.ts';

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
  wheels: boolean;
  holds: Content[];
}

/** So many crates, those begun last, are still filled. */
const MAX_OPEN = 3;

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
    const trays = filled(may, crate);
    trays.forEach(({ holds }, i) => {
      const number = crate.count - crate.left + i + 1;
      full.push({
        key: `crate-${crate.id}-${number}`,
        name: `${crate.name}${crate.count > 1 ? ` ${number}` : ''}${words === null ? '' : `, ${words}`}`,
        w: crate.insideW + 2 * crate.wall,
        d: crate.insideD + 2 * crate.wall,
        h: crate.insideH + 2 * crate.wall,
        grams: 1000 * crate.ownKg + holds.reduce((sum, { grams }) => sum + grams, 0),
        bears: 1000 * crate.bearsKg,
        order: Math.min(...holds.map(({ order }) => order)),
        wheels: crate.wheels,
        holds,
      });
    });
    crate.left -= trays.length;
    const isIn = new Set(trays.flatMap(({ holds }) => holds));
    rest = rest.filter((content) => !isIn.has(content));
  }
  return { crates: full, left: rest };
}

const volumeOf = ({ insideW, insideD, insideH }: Crate) => insideW * insideD * insideH;

/** A crate as it is filled: things stand in rows along its width, one row behind the other. */
interface Tray {
  rows: { d: number; left: number }[];
  /** Depth that no row takes yet, mm, and grams it may still hold. */
  depth: number;
  mass: number;
  holds: Content[];
}

/** Things in rows, the deepest first; as many crates as there are at most. What fits no more is left out. */
function filled(contents: readonly Content[], crate: CrateSize): Tray[] {
  const trays: Tray[] = [];
  const inTurn = contents.toSorted(
    (a, b) => Math.min(b.w, b.d) - Math.min(a.w, a.d) || Math.max(b.w, b.d) - Math.max(a.w, a.d),
  );
  for (const content of inTurn) {
    if (content.h + crate.padding > crate.insideH) continue;
    if (trays.slice(-MAX_OPEN).some((tray) => put(tray, content, crate))) continue;
    if (trays.length === crate.left) continue;
    const mass = crate.maxKg === null ? Infinity : 1000 * crate.maxKg;
    const tray: Tray = { rows: [], depth: crate.insideD, mass, holds: [] };
    if (put(tray, content, crate)) trays.push(tray);
  }
  return trays;
}

/** Stands a thing in a row that has room, or begins a row, with its padding and either way round. */
function put(tray: Tray, content: Content, { insideW, padding }: CrateSize): boolean {
  if (content.grams > tray.mass) return false;
  const [short, long] = [content.w, content.d].map((side) => side + 2 * padding).sort((a, b) => a - b);
  for (const [w, d] of [
    [long, short],
    [short, long],
  ]) {
    let row = tray.rows.find(({ d: deep, left }) => d <= deep && w <= left);
    if (!row && w <= insideW && d <= tray.depth) {
      row = { d, left: insideW };
      tray.rows.push(row);
      tray.depth -= d;
    }
    if (!row) continue;
    row.left -= w;
    tray.mass -= content.grams;
    tray.holds.push(content);
    return true;
  }
  return false;
}

/** What is in a crate, with how many where that is more than one. */
export const contentWord = ({ name, count }: Pick<Content, 'name' | 'count'>): string =>
  count > 1 ? `${name} (${count})` : name;
