import Papa from 'papaparse';

/** The largest file that is read, bytes, and the most rows of it. */
const MOST_BYTES = 12_000_000;
const MOST_ROWS = 50_000;
const MOST_COLUMNS = 60;

/**
 * A table's rows from a file's bytes: the first sheet of a workbook, else comma, semicolon or tab separated text.
 * @throws Error naming the file, the value and the limit when it is too large
 */
export async function tableRows(name: string, bytes: ArrayBuffer): Promise<string[][]> {
  if (bytes.byteLength > MOST_BYTES)
    throw new Error(
      `${name}: ${bytes.byteLength.toLocaleString('en')} bytes; the most is ${MOST_BYTES.toLocaleString('en')}.`,
    );
  const rows = name.toLowerCase().endsWith('.xlsx')
    ? await workbookRows(name, bytes)
    : textRows(new TextDecoder().decode(bytes));
  if (rows.length > MOST_ROWS)
    throw new Error(
      `${name}: ${rows.length.toLocaleString('en')} rows; the most is ${MOST_ROWS.toLocaleString('en')}.`,
    );
  return rows.map((row) => row.slice(0, MOST_COLUMNS));
}

const textRows = (text: string): string[][] =>
  Papa.parse<string[]>(text.trim(), { skipEmptyLines: false }).data;

async function workbookRows(name: string, bytes: ArrayBuffer): Promise<string[][]> {
  const { Workbook } = (await import('exceljs')).default;
  const book = new Workbook();
  await book.xlsx.load(bytes).catch(() => {
    throw new Error(`${name}: is no workbook that can be read.`);
  });
  const [sheet] = book.worksheets;
  const rows: string[][] = [];
  sheet?.eachRow({ includeEmpty: true }, (row) => {
    const cells: string[] = [];
    for (let column = 1; column <= Math.min(MOST_COLUMNS, row.cellCount); column++)
      cells.push(row.getCell(column).text);
    rows.push(cells);
  });
  return rows;
}
