import { Workbook } from 'exceljs';
import fc from 'fast-check';
import Papa from 'papaparse';
import { ANY_COLOUR, CATALOGUE, PALETTE } from '@quarry/core/catalogue';
import {
  aliasesOf,
  demandsOf,
  guessColumns,
  netNeeds,
  readRows,
  suppliesOf,
  type Need,
} from '@quarry/core/materials';
import { emptyScene, reduce, type Change } from '@quarry/core/document';
import { tableRows } from '../../data/tableRows.ts';
import { matches, rowsOf } from './rows.ts';
import { needsCsv, needsXlsx, pickLines } from './takeOut.ts';
import { runs } from '../../../../../packages/core/test/runs.ts';

const add = (kind: Change['kind'], id: string, data: Record<string, unknown>): Change => ({
  op: 'add',
  kind,
  id,
  data,
});
const made = reduce(emptyScene(), [
  add('display', 'display', { name: 'Yard', kind: 'city' }),
  add('person', 'ada', { name: 'Ada, called “Fenn”', initials: 'AF' }),
  add('section', 's', { letter: 'A', name: 'North, upper', x: 0, y: 0, w: 8, d: 8, owner: 'ada' }),
  add('partType', 'own-signal-arm', { name: 'Signal arm, “old” 2×9', family: 'special' }),
  add('partType', 'brick-2x3', { name: 'Three-er', family: 'brick' }),
  add('lot', 'l1', { part: 'brick-2x4', colour: 'slate', qty: 8, owner: 'ada', place: 'drawer 2' }),
  add('lot', 'l2', { part: 'brick-2x4', colour: 'slate', qty: 5, owner: 'ada', place: 'drawer 1' }),
]);
if (!made.ok) throw new Error(made.refusal.sentence);
const { scene } = made;
const need = (part: string, colour: string, qty: number): Need => ({
  section: 's',
  part,
  colour,
  purpose: 'building',
  qty,
  source: null,
  list: null,
  from: ['Mill'],
});
const demands = demandsOf(scene, [need('brick-2x4', 'slate', 20), need('plate-1x2', 'moss', 4)]);
const supplies = suppliesOf(scene);
const rows = rowsOf(scene, netNeeds(scene, demands, supplies).rows);

test('needs as CSV, read back by a general reader, with commas and quotes in names', async () => {
  const { data, errors } = Papa.parse<Record<string, string>>(await needsCsv(rows).text(), {
    header: true,
    skipEmptyLines: true,
  });
  expect(errors).toEqual([]);
  // Two needs, and one spare brick for the whole display: 3 % of 20.
  expect(data).toHaveLength(3);
  expect(data[0]).toMatchObject({
    section: 'A, North, upper',
    'part id': 'brick-2x4',
    owner: 'Ada, called “Fenn”',
    needed: '20',
    own: '13',
    short: '7',
    state: 'short',
  });
});
test('needs that went out come back part for part, as text and as a workbook', async () => {
  const line = fc.record({
    part: fc.oneof(
      fc.constantFrom('own-signal-arm', 'brick-2x3'),
      fc.constantFrom(...CATALOGUE.map(({ id }) => id)),
    ),
    colour: fc.constantFrom(ANY_COLOUR, ...PALETTE.map(({ id }) => id)),
    qty: fc.integer({ min: 1, max: 99_999 }),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(line, { minLength: 1, maxLength: 40 }), async (lines) => {
      const all = rowsOf(
        scene,
        netNeeds(
          scene,
          demandsOf(
            scene,
            lines.map(({ part, colour, qty }) => need(part, colour, qty)),
          ),
          [],
        ).rows,
      );
      const tally = (list: readonly { part: string; colour: string; qty: number }[]) => {
        const sums = new Map<string, number>();
        for (const { part, colour, qty } of list)
          sums.set(`${part} ${colour}`, (sums.get(`${part} ${colour}`) ?? 0) + qty);
        return Object.fromEntries([...sums].sort(([a], [b]) => (a < b ? -1 : 1)));
      };
      for (const [name, blob] of [
        ['needs.csv', needsCsv(all)],
        ['needs.xlsx', await needsXlsx(all)],
      ] as const) {
        const [head, ...table] = await tableRows(name, await blob.arrayBuffer());
        const read = readRows(table, guessColumns(head), aliasesOf(scene), new Set());
        expect([read.bad, read.unknown]).toEqual([[], []]);
        expect(tally(read.lines)).toEqual(tally(all));
      }
    }),
    { numRuns: runs(12) },
  );
});
test('a name that a spreadsheet would run is a text', async () => {
  const [row] = rows;
  const evil = await needsCsv([{ ...row, owner: '=HYPERLINK("x")' }]).text();
  expect(evil).toContain(`"'=HYPERLINK(""x"")"`);
});
test('needs as a workbook, read back: a heading, numbers as numbers', async () => {
  const blob = await needsXlsx(rows);
  const book = new Workbook();
  await book.xlsx.load(await blob.arrayBuffer());
  const sheet = book.worksheets[0];
  expect([sheet.rowCount, sheet.getCell('A1').value, sheet.getCell('H2').value]).toEqual([4, 'section', 20]);
});
test('a pick list goes by drawer and has what is there, no more', () => {
  expect(pickLines(scene, rows, supplies).map(({ place, qty }) => [place, qty])).toEqual([
    ['drawer 1', 5],
    ['drawer 2', 8],
  ]);
});
test('rows are found by words in any order, however a size is typed', () => {
  const filter = { words: 'slate 2x4', section: '', family: '', state: '' };
  expect(rows.filter((row) => matches(row, filter)).map(({ sectionWord }) => sectionWord)).toEqual([
    'A, North, upper',
    'spares',
  ]);
  expect(rows.filter((row) => matches(row, { ...filter, words: '', state: 'covered' }))).toHaveLength(0);
  expect(
    rows.filter((row) => matches(row, { ...filter, words: '', family: 'plate', section: 's' })),
  ).toHaveLength(1);
});
