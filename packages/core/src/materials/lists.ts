import { colourName, coloursNamed, nearColours, labOf, partNamed, ANY_COLOUR } from '../catalogue/index.ts';
import { numberStyleOf, numberTyped, readNumber, type Decimal, type NumberStyle } from '../grid/index.ts';
import { listOf, type PartLine, type Scene } from '../document/index.ts';
import type { Market, Offer, Seller } from './buyProblem.ts';

// Imported lists: columns are recognised, words mapped to parts and colours, bad rows listed.

export const COLUMN_USES = ['part', 'colour', 'qty', 'price', 'place', 'owner', 'none'] as const;
export type ColumnUse = (typeof COLUMN_USES)[number];

/** An unknown word of a list, the number of rows with it, and likely meanings. */
export interface UnknownWord {
  about: 'part' | 'colour';
  word: string;
  rows: number;
  /** Ids it may mean, likeliest first. */
  offers: string[];
}

/** Row numbers count from 1, with the heading. */
export interface BadRow {
  row: number;
  reason: string;
}

export interface ReadList {
  /** Each part, colour, place and owner once; prices averaged by quantity. */
  lines: (PartLine & { place: string; price: number | null; owner: string | null })[];
  rows: number;
  bad: BadRow[];
  unknown: UnknownWord[];
  /** How quantities and prices were read. */
  numbers: NumberStyle;
}

const HEADS: Record<Exclude<ColumnUse, 'none'>, RegExp> = {
  part: /part|piece|item|element|what/i,
  colour: /colou?r|shade|tone/i,
  qty: /qty|quant|count|amount|number|how many|pieces|^needed$/i,
  price: /price|cost|each/i,
  place: /place|drawer|crate|box|where|location/i,
  owner: /owner|whose|belongs/i,
};

/** A first guess at what columns say, from their headings; people put it right. */
export function guessColumns(head: readonly string[]): ColumnUse[] {
  const taken = new Set<ColumnUse>();
  return head.map((word) => {
    const use =
      COLUMN_USES.find((one) => one !== 'none' && !taken.has(one) && HEADS[one].test(word)) ?? 'none';
    if (use !== 'none') taken.add(use);
    return use;
  });
}

/** What people's words mean: what the scene remembers, and what it calls parts by itself. */
export function aliasesOf(scene: Scene): Map<string, string> {
  return new Map([
    ...listOf(scene, 'partType')
      .filter(({ name }) => name !== '')
      .map(({ id, name }): [string, string] => [aliasKey('part', name), id]),
    ...listOf(scene, 'alias').map(({ about, word, means }): [string, string] => [
      aliasKey(about, word),
      means,
    ]),
  ]);
}
export const aliasKey = (about: 'part' | 'colour', word: string): string =>
  `${about} ${word.trim().toLowerCase()}`;

/** Most pieces of one line. */
const MOST = 1_000_000;

/** The style of a list's numbers: from prices, which have decimals, else from quantities. */
function styleOf(rows: readonly (readonly string[])[], qtyAt: number, priceAt: number): NumberStyle {
  const column = (at: number) => (at < 0 ? [] : rows.map((cells) => cells[at] ?? ''));
  const prices = numberStyleOf(column(priceAt));
  if (prices.sure) return prices;
  const counts = numberStyleOf(column(qtyAt), true);
  return counts.sure || counts.decimal === ',' ? counts : prices;
}

/** A whole number of pieces; null when it is none, or more than are counted. */
function readCount(text: string, decimal: Decimal): number | null {
  const value = readNumber(text, decimal);
  return value === null || !Number.isInteger(value) || value > MOST ? null : value;
}

/**
 * Reads the rows of a list. No row is dropped without its number and the reason.
 * @param rows without the heading
 * @param own the display's own part types, which any list may name by id
 * @param options.first the number of the first of them in the file, from 1
 * @param options.people ids by what owners may be called, in small letters; left out where owners do not matter:
 *   owners are not read then
 * @param options.decimal the mark before decimals; left out: found from all of them
 */
export function readRows(
  rows: readonly (readonly string[])[],
  columns: readonly ColumnUse[],
  aliases: ReadonlyMap<string, string>,
  own: ReadonlySet<string>,
  {
    first = 2,
    decimal,
    people,
  }: { first?: number; decimal?: Decimal; people?: ReadonlyMap<string, string> } = {},
): ReadList {
  const at = (use: ColumnUse) => columns.indexOf(use);
  const [partAt, colourAt, qtyAt, priceAt, placeAt, ownerAt] = [
    at('part'),
    at('colour'),
    at('qty'),
    at('price'),
    at('place'),
    at('owner'),
  ];
  const lines = new Map<string, ReadList['lines'][number]>();
  const bad: BadRow[] = [];
  const unknown = new Map<string, UnknownWord>();
  const meanings = new Map<string, string | null>();
  const meaning = (about: 'part' | 'colour', word: string): string | null => {
    const key = aliasKey(about, word);
    let means = meanings.get(key);
    if (means === undefined) {
      means = aliases.get(key) ?? (about === 'part' ? partMeant(word, own) : colourMeant(word));
      meanings.set(key, means);
    }
    if (means !== null) return means;
    const entry = unknown.get(key) ?? {
      about,
      word: word.trim(),
      rows: 0,
      offers: about === 'part' ? [] : offersFor(word),
    };
    entry.rows++;
    unknown.set(key, entry);
    return null;
  };
  const numbers = decimal ? { decimal, sure: true } : styleOf(rows, qtyAt, priceAt);
  if (partAt < 0 || qtyAt < 0)
    return {
      ...{ lines: [], rows: rows.length, unknown: [], numbers },
      bad: [{ row: first - 1, reason: 'say which column names the part and which the quantity' }],
    };
  let count = 0;
  for (const [index, cells] of rows.entries()) {
    const row = first + index;
    const cell = (column: number) => (column < 0 ? '' : (cells[column] ?? '').trim());
    if (cells.every((value) => value.trim() === '')) continue;
    count++;
    const reject = (reason: string) => void bad.push({ row, reason });
    const word = cell(partAt);
    if (word === '') {
      reject('no part is named');
      continue;
    }
    const n = readCount(cell(qtyAt), numbers.decimal);
    if (n === null) {
      reject(`“${cell(qtyAt)}” is no quantity from 0 to ${MOST.toLocaleString('en')}`);
      continue;
    }
    const price = priceAt < 0 ? null : readNumber(cell(priceAt), numbers.decimal);
    if (priceAt >= 0 && cell(priceAt) !== '' && price === null) {
      reject(`“${cell(priceAt)}” is no price`);
      continue;
    }
    const part = meaning('part', word);
    const colour = colourAt < 0 || cell(colourAt) === '' ? ANY_COLOUR : meaning('colour', cell(colourAt));
    if (part === null || colour === null) {
      reject(
        part === null ? `the part “${word}” is not known` : `the colour “${cell(colourAt)}” is not known`,
      );
      continue;
    }
    const owner =
      !people || cell(ownerAt) === '' ? null : (people.get(cell(ownerAt).toLowerCase()) ?? undefined);
    if (owner === undefined) {
      reject(`“${cell(ownerAt)}” is nobody of this display`);
      continue;
    }
    const place = cell(placeAt).slice(0, 80);
    const key = `${part} ${colour} ${owner} ${place}`;
    const line = lines.get(key);
    if (!line) lines.set(key, { part, colour, qty: n, place, price, owner });
    else {
      if (price !== null)
        line.price =
          line.price === null ? price : (line.price * line.qty + price * n) / Math.max(1, line.qty + n);
      line.qty += n;
    }
  }
  return {
    lines: [...lines.values()],
    rows: count,
    bad,
    unknown: [...unknown.values()].toSorted((a, b) => b.rows - a.rows),
    numbers,
  };
}

const partMeant = (word: string, own: ReadonlySet<string>): string | null =>
  own.has(word.trim()) ? word.trim() : (partNamed(word)?.id ?? null);

const colourMeant = (word: string): string | null =>
  [ANY_COLOUR, colourName(ANY_COLOUR)].includes(word.trim().toLowerCase())
    ? ANY_COLOUR
    : (coloursNamed(word).exact?.id ?? null);

/**
 * Colours that an unknown word may mean: an everyday word by what it means and how near colours are to that; else a
 * value such as #66707a, or what is spelt alike.
 */
function offersFor(word: string): string[] {
  for (const [pattern, hex] of PLAIN_WORDS)
    if (pattern.test(word)) {
      const lab = labOf(hex);
      const lighter = /light|pale/i.test(word) ? 14 : /dark|deep/i.test(word) ? -16 : 0;
      const finish = /clear|trans/i.test(word) ? 'clear' : 'solid';
      return nearColours({ ...lab, l: lab.l + lighter }, 3, finish).map(({ colour }) => colour.id);
    }
  return coloursNamed(word).alike.map(({ id }) => id);
}
/** What plain colour words look like. */
const PLAIN_WORDS: readonly [RegExp, string][] = [
  [/gr[ae]y/i, '#8a8c8a'],
  [/black/i, '#1c1f22'],
  [/white/i, '#f4f2ec'],
  [/brown/i, '#6b4a2f'],
  [/\b(?:tan|beige)/i, '#cdb98a'],
  [/orange/i, '#ee7a16'],
  [/yellow/i, '#f0c419'],
  [/green/i, '#3f7d3a'],
  [/blue/i, '#1f4aa0'],
  [/red/i, '#c8281f'],
  [/pink/i, '#e3a0b4'],
  [/purple|violet/i, '#6d4a86'],
];

/** A line as people type it: “40 plate 2x4 in Slate”, “1,200 × brick 1x2 in Moss”; or a sentence about what is wrong with it. */
export function lineTyped(text: string): { ok: true; line: PartLine } | { ok: false; error: string } {
  const match = /^\s*([\d.,'’]+)\s*(?:[x×]\s)?\s*(.+?)\s+in\s+(.+?)\s*$/i.exec(text);
  if (!match) return { ok: false, error: 'A line: type for instance “40 plate 2x4 in Slate”.' };
  const pieces = piecesTyped(match[1]);
  if (!pieces.ok) return pieces;
  const part = partNamed(match[2]);
  const colour = coloursNamed(match[3]).exact;
  if (!part) return { ok: false, error: `Part: “${match[2]}” is not known.` };
  if (!colour) return { ok: false, error: `Colour: “${match[3]}” is not known.` };
  return { ok: true, line: { part: part.id, colour: colour.id, qty: pieces.qty } };
}

/** A number of pieces as people type it, “1,200”; or a sentence about what is wrong with it. */
export function piecesTyped(text: string): { ok: true; qty: number } | { ok: false; error: string } {
  const qty = numberTyped(text, true);
  return qty !== null && Number.isInteger(qty) && qty >= 1 && qty <= MOST
    ? { ok: true, qty }
    : {
        ok: false,
        error: `Pieces: “${text}” must be a whole number from 1 to ${MOST.toLocaleString('en')}.`,
      };
}

/**
 * A market from the rows of a list of offers, with their heading. Bad rows are reported and left out: a price or a
 * quantity that is not there is none of 0.
 * @param aliases what people's words mean here, and `own` the parts they added
 */
export function readOffers(
  rows: readonly (readonly string[])[],
  aliases: ReadonlyMap<string, string> = new Map(),
  own: ReadonlySet<string> = new Set(),
): { ok: true; market: Market; bad: BadRow[]; numbers: NumberStyle } | { ok: false; error: string } {
  const [head = [], ...body] = rows;
  const at = new Map(head.map((word, i) => [word.trim().toLowerCase(), i]));
  const missing = ['seller', 'part', 'colour', 'qty', 'price'].find((column) => !at.has(column));
  if (missing !== undefined) return { ok: false, error: `the column “${missing}” is missing` };
  const numbers = styleOf(body, at.get('qty') ?? -1, at.get('price') ?? -1);
  const sellers = new Map<string, Seller>();
  const offers: Offer[] = [];
  const bad: BadRow[] = [];
  for (const [index, cells] of body.entries()) {
    if (cells.every((cell) => cell.trim() === '')) continue;
    const cell = (column: string) => (cells[at.get(column) ?? -1] ?? '').trim();
    // What a parcel costs at least, and its least order, may be left out.
    const number = (column: string) =>
      cell(column) === '' && !['qty', 'price'].includes(column)
        ? 0
        : (readNumber(cell(column), numbers.decimal) ?? NaN);
    const reject = (reason: string) => void bad.push({ row: index + 2, reason });
    const part = aliases.get(aliasKey('part', cell('part'))) ?? partMeant(cell('part'), own);
    const colour =
      aliases.get(aliasKey('colour', cell('colour'))) ?? coloursNamed(cell('colour')).exact?.id ?? null;
    const wrong = ['qty', 'price', 'shipping', 'min_order'].find(
      (column) => !(number(column) >= 0 && number(column) <= 1e6),
    );
    if (cell('seller') === '') reject('no seller is named');
    else if (!part) reject(`the part “${cell('part')}” is not known`);
    else if (!colour) reject(`the colour “${cell('colour')}” is not known`);
    else if (wrong !== undefined || !Number.isInteger(number('qty')))
      reject(`“${cell(wrong ?? 'qty')}” is no ${wrong ?? 'whole quantity'} from 0 to 1,000,000`);
    else {
      const name = cell('seller').slice(0, 80);
      if (!sellers.has(name))
        sellers.set(name, {
          ...{ name, shipping: number('shipping'), minOrder: number('min_order') },
          days: at.has('days') && cell('days') !== '' && number('days') >= 0 ? number('days') : null,
        });
      offers.push({
        seller: name,
        part,
        colour,
        qty: number('qty'),
        price: number('price'),
      });
    }
  }
  return { ok: true, market: { sellers: [...sellers.values()], offers }, bad, numbers };
}
