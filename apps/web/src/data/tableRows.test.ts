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
