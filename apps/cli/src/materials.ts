import loadHighs from 'highs';
import Papa from 'papaparse';
import { ANY_COLOUR, colourOf } from '@quarry/core/catalogue';
import { readAsc, writeCsv } from '@quarry/core/formats';
import { source, type Market, type Seller } from '@quarry/core/materials';
import { MAX_HEIGHT, buildLayers, layerCounts, pieceId, type Fill } from '@quarry/core/masonry';
import { METHODS, type Method, type PartLine } from '@quarry/core/document';
import { BadInput, complain, readText } from './input.ts';

/** The largest table or grid that is read, bytes. */
export const MAX_BYTES = 20_000_000;
/** The methods that need no more than heights. */
const SHELL_METHODS: readonly Method[] = METHODS.filter((method) => method !== 'reuse');

/** Heights to layers of pieces: `layer,part,colour,qty`, or with `pieces` one row a piece. */
export function masonry(
  path: string,
  { method, colour, deck, pieces }: { method: string; colour: string; deck: string; pieces: boolean },
): number {
  const index = SHELL_METHODS.findIndex((one) => one === method);
  if (index < 0) throw new BadInput(`--method ${method}: must be one of ${SHELL_METHODS.join(', ')}.`);
  if (colour !== ANY_COLOUR && !colourOf(colour))
    throw new BadInput(`--colour ${colour}: is no colour of the palette.`);
  const deckMost = Number(deck);
  if (!Number.isInteger(deckMost) || deckMost < 2 || deckMost > 16)
    throw new BadInput(`--deck ${deck}: must be a whole number of studs from 2 to 16.`);
  const reading = readAsc(readText(path, MAX_BYTES));
  if (!reading.ok) throw new BadInput(`${path}: ${reading.error}`);
  const { columns: w, rows: d, values } = reading.grid;
  const height = new Int16Array(w * d);
  values.forEach((value, i) => {
    if (!Number.isNaN(value) && (!Number.isInteger(value) || value < 0 || value > MAX_HEIGHT))
      throw new BadInput(
        `${path}: ${value} plates at column ${(i % w) + 1}, row ${Math.floor(i / w) + 1}; heights are whole plates from 0 to ${MAX_HEIGHT}.`,
      );
    height[i] = Number.isNaN(value) ? -1 : value;
  });
  const number = METHODS.findIndex((one) => one === method);
  const fill: Fill = {
    ...{ w, d, height, method: new Uint8Array(w * d).fill(number), skin: null, beyond: () => -1 },
    ...{ deckMost, span: 8, sheets: false },
  };
  const { layers } = buildLayers(fill);
  const rows = layers.flatMap((layer, at) => {
    if (!pieces)
      return layerCounts(layer, new Array<string>(layer.laid.length / 4).fill(colour)).map(
        ({ part, qty }) => [at + 1, part, colour, qty],
      );
    return Array.from({ length: layer.laid.length / 4 }, (_, i) => {
      const [x = 0, y = 0, pw = 0, pd = 0] = layer.laid.subarray(4 * i, 4 * i + 4);
      return [at + 1, pieceId(layer, pw, pd), x, y, pw, pd, layer.z];
    });
  });
  const head = pieces ? ['layer', 'part', 'x', 'y', 'w', 'd', 'z'] : ['layer', 'part', 'colour', 'qty'];
  process.stdout.write(writeCsv([head, ...rows]));
  return 0;
}

/** Reads a table with a heading of the very columns a contract names. */
export function table<C extends string>(path: string, columns: readonly C[]): Record<C, string>[] {
  const { data, errors, meta } = Papa.parse<Record<C, string>>(readText(path, MAX_BYTES), {
    header: true,
    skipEmptyLines: 'greedy',
  });
  const strange = meta.fields?.find((field) => !columns.some((column) => column === field));
  if (strange !== undefined)
    throw new BadInput(`${path}: “${strange}” is no column; there are ${columns.join(', ')}.`);
  const missing = columns.find((column) => !meta.fields?.includes(column));
  if (missing !== undefined) throw new BadInput(`${path}: the column “${missing}” is missing.`);
  if (errors[0]) throw new BadInput(`${path}: row ${(errors[0].row ?? 0) + 2}: ${errors[0].message}.`);
  return data;
}

/** A number of a table, from 0. @throws BadInput naming the row and the column */
export function amount(path: string, row: number, name: string, text: string, whole: boolean): number {
  const value = Number(text);
  if (
    text.trim() === '' ||
    !Number.isFinite(value) ||
    value < 0 ||
    value > 1e9 ||
    (whole && !Number.isInteger(value))
  )
    throw new BadInput(
      `${path}: row ${row}: ${name} “${text}” must be ${whole ? 'a whole number' : 'a number'} from 0 to 1,000,000,000.`,
    );
  return value;
}

/** The cheapest complete buy: `seller,part,colour,qty,price`; the sums on standard error. */
export async function buy(
  needsPath: string,
  offersPath: string,
  seconds: number,
  maxOrders?: string,
): Promise<number> {
  const orders = maxOrders === undefined ? undefined : Number(maxOrders);
  if (orders !== undefined && (!Number.isInteger(orders) || orders < 1))
    throw new BadInput(`--max-orders ${maxOrders}: must be a whole number from 1.`);
  const needs: PartLine[] = table(needsPath, ['part', 'colour', 'qty']).map(({ part, colour, qty }, i) => ({
    part,
    colour,
    qty: amount(needsPath, i + 2, 'qty', qty, true),
  }));
  const sellers = new Map<string, Seller>();
  const market: Market = {
    sellers: [],
    offers: table(offersPath, ['seller', 'part', 'colour', 'qty', 'price', 'shipping', 'min_order']).map(
      (row, i) => {
        const number = (name: 'qty' | 'price' | 'shipping' | 'min_order') =>
          amount(offersPath, i + 2, name, row[name], name === 'qty');
        const stated = {
          name: row.seller,
          shipping: number('shipping'),
          minOrder: number('min_order'),
          days: null,
        };
        const known = sellers.get(row.seller);
        if (known && (known.shipping !== stated.shipping || known.minOrder !== stated.minOrder))
          throw new BadInput(
            `${offersPath}: row ${i + 2}: “${row.seller}” has another shipping or min_order above.`,
          );
        sellers.set(row.seller, stated);
        return {
          seller: row.seller,
          part: row.part,
          colour: row.colour,
          qty: number('qty'),
          price: number('price'),
        };
      },
    ),
  };
  market.sellers = [...sellers.values()];
  const answer = source(needs, market, {
    ...{ seconds, now: () => performance.now(), highs: await loadHighs() },
    ...(orders === undefined ? {} : { maxOrders: orders }),
  });
  if (!answer.ok)
    return complain([
      answer.reason,
      ...answer.uncovered.map(({ part, colour, qty }) => `not covered: ${qty} × ${part} in ${colour}`),
    ]);
  const { lines, total, bound, gap } = answer.purchase;
  process.stdout.write(
    writeCsv([
      ['seller', 'part', 'colour', 'qty', 'price'],
      ...lines.map(({ seller, part, colour, qty, price }) => [seller, part, colour, qty, price]),
    ]),
  );
  process.stderr.write(`total ${total.toFixed(2)} bound ${bound.toFixed(2)} gap ${gap.toFixed(4)}\n`);
  return 0;
}
