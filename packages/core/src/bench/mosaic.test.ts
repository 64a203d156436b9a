import { converter } from 'culori';
import fc from 'fast-check';
import { PALETTE, colourOf } from '../catalogue/index.ts';
import { runs } from '../../test/runs.ts';
import {
  NO_PIECE,
  mosaicOf,
  mosaicRuns,
  mosaicSheets,
  type Mosaic,
  type MosaicOptions,
  type StudPicture,
} from './index.ts';

const toLinear = converter('lrgb');
const SOLID = PALETTE.filter(({ finish }) => finish === 'solid').map(({ id }) => id);
const picture = (w: number, d: number, at: (x: number, y: number) => number[]): StudPicture => {
  const rgba = new Uint8ClampedArray(4 * w * d);
  for (let i = 0; i < w * d; i++) rgba.set(at(i % w, Math.trunc(i / w)), 4 * i);
  return { w, d, rgba };
};
const laid = (of: StudPicture, options: MosaicOptions): Mosaic => {
  const answer = mosaicOf(of, options);
  if (!answer.ok) throw new Error(answer.error);
  return answer.mosaic;
};
const pixelOf = (id: string): number[] => {
  const hex = colourOf(id)?.hex ?? '#000000';
  return [1, 3, 5].map((at) => Number.parseInt(hex.slice(at, at + 2), 16)).concat(255);
};
const qty = ({ counts }: Mosaic, colour: string) => counts.find((one) => one.colour === colour)?.qty ?? 0;

test('a picture in colours of the palette is laid in just those; clear studs stay bare', () => {
  const ids = ['chalk', 'tarn', 'rust', 'soot'];
  const of = picture(12, 9, (x, y) => (x === y ? [0, 0, 0, 0] : pixelOf(ids[(x + 2 * y) % 4])));
  for (const diffuse of [true, false]) {
    const mosaic = laid(of, { colours: SOLID, diffuse });
    mosaic.cells.forEach((cell, i) => {
      const [x, y] = [i % 12, Math.trunc(i / 12)];
      expect(cell === NO_PIECE ? null : SOLID[cell]).toBe(x === y ? null : ids[(x + 2 * y) % 4]);
    });
    expect(mosaic.counts.reduce((sum, one) => sum + one.qty, 0)).toBe(12 * 9 - 9);
  }
});

test('error diffusion: an even grey comes to its mean light in two colours (Floyd and Steinberg 1976)', () => {
  const light = (id: string) => toLinear(colourOf(id)?.hex ?? '#000000')?.g ?? 0;
  const colours = ['chalk', 'soot'];
  for (const grey of [60, 110, 160, 210]) {
    const of = picture(40, 40, () => [grey, grey, grey, 255]);
    const mosaic = laid(of, { colours, diffuse: true });
    const mean = (qty(mosaic, 'chalk') * light('chalk') + qty(mosaic, 'soot') * light('soot')) / 1600;
    const wanted = toLinear({ mode: 'rgb', r: grey / 255, g: grey / 255, b: grey / 255 }).g;
    // What the last row and the ends of rows pass on is lost.
    expect(Math.abs(mean - wanted)).toBeLessThan(0.03);
    // Without it all studs are of the nearer one.
    expect(laid(of, { colours, diffuse: false }).counts).toHaveLength(1);
  }
});

test('what is in stock is never overdrawn, each stud is laid, and too little is refused', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.constantFrom(...SOLID), { minLength: 2, maxLength: 8 }),
      fc.array(fc.nat(255), { minLength: 3 * 6 * 5, maxLength: 3 * 6 * 5 }),
      fc.array(fc.nat(20), { minLength: 8, maxLength: 8 }),
      fc.boolean(),
      (colours, bytes, amounts, diffuse) => {
        const of = picture(6, 5, (x, y) => [...bytes.slice(3 * (6 * y + x), 3 * (6 * y + x) + 3), 255]);
        const stock = new Map(colours.map((id, i) => [id, amounts[i]]));
        const there = [...stock.values()].reduce((sum, each) => sum + each, 0);
        const answer = mosaicOf(of, { colours, diffuse, stock });
        expect(answer.ok).toBe(there >= 30);
        if (!answer.ok) {
          expect(answer.error).toContain(`30 pieces; in stock are ${there} `);
          return;
        }
        for (const { colour, qty: used } of answer.mosaic.counts)
          expect(used).toBeLessThanOrEqual(stock.get(colour) ?? 0);
        expect([...answer.mosaic.cells]).not.toContain(NO_PIECE);
        const read = new Uint8Array(30).fill(NO_PIECE);
        for (const { row, column, count, colour } of mosaicRuns(answer.mosaic))
          read.fill(colours.indexOf(colour), 6 * (row - 1) + column - 1, 6 * (row - 1) + column - 1 + count);
        expect(read).toEqual(answer.mosaic.cells);
      },
    ),
    { numRuns: runs(200) },
  );
});

test('scarcity is shared: of two greys half the light one is lacking over the whole picture, not only at its foot', () => {
  const of = picture(20, 20, () => pixelOf('mist'));
  const stock = new Map([
    ['mist', 200],
    ['pebble', 400],
  ]);
  const mosaic = laid(of, { colours: ['mist', 'pebble'], diffuse: true, stock });
  const lightIn = (from: number, to: number) =>
    [...mosaic.cells.slice(20 * from, 20 * to)].filter((cell) => cell === 0).length;
  expect(qty(mosaic, 'mist')).toBeLessThanOrEqual(200);
  expect(lightIn(10, 20)).toBeGreaterThan(20);
});

test('sheets of a picture: every stud on one sheet, their pieces sum to the whole, one mark a colour', () => {
  const size = fc.integer({ min: 1, max: 40 });
  fc.assert(
    fc.property(size, size, fc.integer({ min: 1, max: 20 }), (w, d, side) => {
      const ids = ['chalk', 'mist', 'slate', 'soot'];
      const of = picture(w, d, (x, y) => ((x * y) % 7 === 3 ? [0, 0, 0, 0] : pixelOf(ids[(x + 3 * y) % 4])));
      const mosaic = laid(of, { colours: ids, diffuse: false });
      const sheets = mosaicSheets(mosaic, side);
      expect(sheets).toHaveLength(Math.ceil(w / side) * Math.ceil(d / side));
      const seen = new Uint8Array(w * d);
      const sums = new Map<string, number>();
      const marks = new Map<string, Set<string>>();
      for (const sheet of sheets) {
        for (let y = sheet.y; y < sheet.y + sheet.d; y++)
          for (let x = sheet.x; x < sheet.x + sheet.w; x++) seen[y * w + x]++;
        for (const { mark, colour, qty: pieces } of sheet.counts) {
          sums.set(colour, (sums.get(colour) ?? 0) + pieces);
          marks.set(mark, (marks.get(mark) ?? new Set()).add(colour));
        }
      }
      expect(seen.every((times) => times === 1)).toBe(true);
      expect([...sums].toSorted()).toEqual(
        mosaic.counts.map(({ colour, qty: pieces }) => [colour, pieces]).toSorted(),
      );
      expect([...marks.values()].every((colours) => colours.size === 1)).toBe(true);
      expect(new Set(sheets.map(({ id }) => id)).size).toBe(sheets.length);
    }),
    { numRuns: runs(40) },
  );
});
