import { Workbook } from 'exceljs';
import { tableRows } from './tableRows.ts';

const bytes = (text: string): ArrayBuffer => {
  const encoded = new TextEncoder().encode(text);
  return encoded.buffer.slice(0, encoded.byteLength);
};

test.each([
  ['commas', 'part,colour,qty\n"brick 2x4, old",Slate,12\n'],
  ['semicolons', 'part;colour;qty\n"brick 2x4, old";Slate;12\n'],
  ['tabs', 'part\tcolour\tqty\nbrick 2x4, old\tSlate\t12\n'],
  ['line ends of another system', 'part,colour,qty\r\n"brick 2x4, old",Slate,12\r\n'],
])('text with %s', async (_name, text) => {
  expect(await tableRows('drawers.csv', bytes(text))).toEqual([
    ['part', 'colour', 'qty'],
    ['brick 2x4, old', 'Slate', '12'],
  ]);
});
test.each([
  ['UTF-16 with its mark', [0xff, 0xfe], (code: number) => [code & 255, code >> 8]],
  ['UTF-16 the other way', [0xfe, 0xff], (code: number) => [code >> 8, code & 255]],
  ['UTF-16 without a mark', [], (code: number) => [code & 255, code >> 8]],
  ['one byte a letter, as in western Europe', [], (code: number) => [code]],
])('text in %s', async (_name, mark, write) => {
  const text = 'sep=;\npart;colour\nplate 1×2;grün\n';
  const written = Uint8Array.from([
    ...mark,
    ...[...text].flatMap((letter) => write(letter.codePointAt(0) ?? 0)),
  ]);
  expect(await tableRows('drawers.csv', written.buffer)).toEqual([
    ['part', 'colour'],
    ['plate 1×2', 'grün'],
  ]);
});
test('a blank first heading keeps its column; a mark of UTF-8 is no letter; an open quotation names its row', async () => {
  expect(await tableRows('drawers.tsv', bytes('\uFEFF\n\tpart\tqty\n1\tplate 1x2\t3\n'))).toEqual([
    ['', 'part', 'qty'],
    ['1', 'plate 1x2', '3'],
  ]);
  await expect(
    tableRows('drawers.csv', bytes('part,qty\nplate 1x2,3\n"plate 1x4,5\nplate 1x6,7\n')),
  ).rejects.toThrow('drawers.csv, row 3: a quotation mark is not closed');
});
test('a workbook: the first sheet, numbers and formulas as they are shown', async () => {
  const book = new Workbook();
  const sheet = book.addWorksheet('Drawers');
  sheet.addRow(['part', 'qty']);
  sheet.addRow(['plate 1x2', 40]);
  sheet.addRow(['plate 1x4', { formula: 'B2*2', result: 80 }]);
  book.addWorksheet('Other').addRow(['nothing']);
  const written: Uint8Array = new Uint8Array(await book.xlsx.writeBuffer());
  expect(await tableRows('Drawers.XLSX', written.slice().buffer)).toEqual([
    ['part', 'qty'],
    ['plate 1x2', '40'],
    ['plate 1x4', '80'],
  ]);
});
test('what cannot be read, or is too large, is named with its limit', async () => {
  await expect(tableRows('odd.xlsx', bytes('no workbook'))).rejects.toThrow('odd.xlsx: is no workbook');
  await expect(tableRows('huge.csv', new ArrayBuffer(12_000_001))).rejects.toThrow(
    '12,000,001 bytes; the most is 12,000,000',
  );
  await expect(tableRows('long.csv', bytes('a\n'.repeat(50_002)))).rejects.toThrow(
    '50,002 rows; the most is 50,000',
  );
});
