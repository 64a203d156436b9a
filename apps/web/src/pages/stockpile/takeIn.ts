import { partOf } from '@quarry/core/catalogue';
import type { ReadList } from '@quarry/core/materials';
import {
  MAX_CHANGES,
  MAX_LINES,
  listOf,
  mergeLines,
  type Change,
  type Kind,
  type Lot,
  type PartList,
  type Scene,
} from '@quarry/core/document';

// What becomes of a list that was read: changes that take it in.

export type Into = 'need' | 'kit' | 'stock';
type Line = ReadList['lines'][number];
/** The meaning a person gave to a word of a list. */
export interface WordMeaning {
  about: 'part' | 'colour';
  word: string;
  means: string;
}

/** What a list would be taken into that is there already: a list of that name, or counts of those drawers. */
export interface ExistingList {
  /** The list and those that go on with it, in order. */
  lists: readonly PartList[];
  lots: ReadonlyMap<string, Lot>;
}
export const NOTHING_THERE: ExistingList = { lists: [], lots: new Map() };

/** What a list is called that takes the lines for which the ones before it have no room. @param part from 0 */
const partName = (name: string, part: number) => {
  const more = part === 0 ? '' : ` (${part + 1})`;
  return `${(name.trim() || 'List').slice(0, MAX_NAME - more.length)}${more}`;
};
/** The longest name of a list, characters. */
const MAX_NAME = 80;

const OWN_PART = 'own-';
/** Id of a part type outside the catalogue, derived from its name. */
export const ownPartId = (word: string) =>
  `${OWN_PART}${
    word
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 30) || 'part'
  }`;
/** Pieces of one part and colour in one drawer of one owner are one count. */
const lotKey = ({ part, colour, place, owner }: Pick<Lot, 'part' | 'colour' | 'place' | 'owner'>): string =>
  `${part} ${colour} ${owner ?? ''} ${place}`;
/** What each part costs by a list, to the hundredth: its lines of all colours averaged by their pieces. */
function pricesOf(
  lines: readonly { part: string; qty: number; price: number | null }[],
): Map<string, number> {
  const sums = new Map<string, { pieces: number; money: number }>();
  for (const { part, qty, price } of lines) {
    if (price === null) continue;
    const { pieces, money } = sums.get(part) ?? { pieces: 0, money: 0 };
    const weight = Math.max(1, qty);
    sums.set(part, { pieces: pieces + weight, money: money + price * weight });
  }
  return new Map(
    [...sums].map(([part, { pieces, money }]) => [part, Math.round((100 * money) / pieces) / 100]),
  );
}

/** What is there of a list already. @param person whose drawers they are where the list names no owner */
export function existingList(
  scene: Scene,
  lines: readonly Line[],
  { into, name, person }: { into: Into; name: string; person: string | null },
): ExistingList {
  if (into !== 'stock') {
    const lists: PartList[] = [];
    for (;;) {
      const called = partName(name.trim(), lists.length).toLowerCase();
      const found = listOf(scene, 'partList').find(
        (list) => list.use === into && list.name.toLowerCase() === called,
      );
      if (!found) return { lists, lots: new Map() };
      lists.push(found);
    }
  }
  const keys = new Set(drawersOf(lines, person).map(lotKey));
  const lots = new Map<string, Lot>();
  for (const lot of listOf(scene, 'lot')) if (keys.has(lotKey(lot))) lots.set(lotKey(lot), lot);
  return { lists: [], lots };
}

/**
 * The changes that take a list in: existing lines are replaced, the rest added; what its words mean and what
 * its parts cost is remembered.
 * @param how.there the existing list that is replaced
 * @param how.fresh makes an id for a new entity of a kind
 * @returns batches of no more changes than one carries, and the list they make or change; null for drawers
 */
export function takeIn(
  scene: Scene,
  lines: readonly Line[],
  taught: readonly WordMeaning[],
  how: {
    into: Into;
    name: string;
    section: string | null;
    person: string | null;
    there: ExistingList;
    fresh: (kind: Kind) => string;
  },
): { batches: Change[][]; list: string | null } {
  const { into, name, section, person, there, fresh } = how;
  const remembered = [...wordsKept(taught, fresh), ...partsKnown(scene, lines, taught)];
  if (into === 'stock') {
    const drawers = drawersOf(lines, person).map((lot): Change => {
      const known = there.lots.get(lotKey(lot));
      return known
        ? { op: 'patch', kind: 'lot', id: known.id, v: known.v, set: { qty: lot.qty } }
        : { op: 'add', kind: 'lot', id: fresh('lot'), data: lot };
    });
    return { batches: inBatches([...remembered, ...drawers]), list: null };
  }
  const merged = mergeLines(lines.map(({ part, colour, qty }) => ({ part, colour, qty })));
  const count = Math.max(1, Math.ceil(merged.length / MAX_LINES));
  const lists = Array.from({ length: count }, (_, part): Change => {
    const own = merged.slice(part * MAX_LINES, (part + 1) * MAX_LINES);
    const known = there.lists.at(part);
    if (known)
      return {
        ...{ op: 'patch', kind: 'partList', id: known.id, v: known.v },
        set: { lines: own, ...(section === null ? {} : { section }) },
      };
    const data = {
      ...{ name: partName(name, part), use: into, section, lines: own },
      owner: into === 'kit' ? person : null,
    };
    return { op: 'add', kind: 'partList', id: fresh('partList'), data };
  });
  // A shorter list than the last one needs fewer to go on with it.
  const gone = there.lists
    .slice(count)
    .map(({ id, v }): Change => ({ op: 'remove', kind: 'partList', id, v }));
  return { batches: inBatches([...lists, ...gone, ...remembered]), list: lists[0]?.id ?? null };
}

/** Changes in batches of no more than one carries. */
function inBatches(all: readonly Change[]): Change[][] {
  const batches: Change[][] = [];
  for (let at = 0; at < all.length; at += MAX_CHANGES) batches.push(all.slice(at, at + MAX_CHANGES));
  return batches;
}

type Drawer = Pick<Lot, 'part' | 'colour' | 'place' | 'owner' | 'qty'>;

/** What lies in each drawer by the list: lines of the user and lines without an owner are added up. */
function drawersOf(lines: readonly Line[], person: string | null): Drawer[] {
  const drawers = new Map<string, Drawer>();
  for (const { part, colour, place, qty, owner } of lines) {
    const drawer = { part, colour, place, qty, owner: owner ?? person };
    const known = drawers.get(lotKey(drawer));
    if (known) known.qty += qty;
    else drawers.set(lotKey(drawer), drawer);
  }
  return [...drawers.values()];
}

const wordsKept = (taught: readonly WordMeaning[], fresh: (kind: Kind) => string): Change[] =>
  taught.map(({ about, word, means }) => ({
    ...{ op: 'add', kind: 'alias', id: fresh('alias') },
    data: { about, word: word.slice(0, 120), means },
  }));

/** New part types by name, and prices of parts that had none. */
function partsKnown(scene: Scene, lines: readonly Line[], taught: readonly WordMeaning[]): Change[] {
  const prices = pricesOf(lines);
  const own = new Map(
    taught.flatMap(({ about, word, means }): [string, string][] =>
      about === 'part' && means.startsWith(OWN_PART) ? [[means, word.slice(0, 80)]] : [],
    ),
  );
  return [...new Set([...own.keys(), ...prices.keys()])].flatMap((part): Change[] => {
    const type = scene.partType[part];
    const price = prices.get(part);
    if (type)
      return type.price === null && price !== undefined
        ? [{ op: 'patch', kind: 'partType', id: part, v: type.v, set: { price } }]
        : [];
    const called = own.get(part);
    const data = {
      family: partOf(part)?.family ?? 'special',
      ...(called === undefined ? {} : { name: called }),
      ...(price === undefined ? {} : { price }),
    };
    return [{ op: 'add', kind: 'partType', id: part, data }];
  });
}
