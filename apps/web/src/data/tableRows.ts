import Papa from 'papaparse';

/** The largest file that is read, bytes, and the most rows of it. */
const MAX_BYTES = 12_000_000;
const MAX_ROWS = 50_000;
const MAX_COLUMNS = 60;

/**
 * A table's rows from a file's bytes: the first sheet of a workbook, else comma, semicolon or tab separated text.
 * @throws Error naming the file, the value and the limit when it is too large
 */
export async function tableRows(name: string, bytes: ArrayBuffer): Promise<string[][]> {
  if (bytes.byteLength > MAX_BYTES)
    throw new Error(
      `${name}: ${bytes.byteLength.toLocaleString('en')} bytes; the most is ${MAX_BYTES.toLocaleString('en')}.`,
    );
  const rows = name.toLowerCase().endsWith('.xlsx')
    ? await workbookRows(name, bytes)
    : textRows(name, textOf(bytes));
  if (rows.length > MAX_ROWS)
    throw new Error(
      `${name}: ${rows.length.toLocaleString('en')} rows; the most is ${MAX_ROWS.toLocaleString('en')}.`,
    );
  return rows.map((row) => row.slice(0, MAX_COLUMNS));
}

/**
 * The text of a file: UTF-8 or UTF-16 by its mark or its zero bytes; what is no UTF-8 is read as Windows-1252, in which
 * spreadsheet programs of western Europe write.
 */
function textOf(buffer: ArrayBuffer): string {
  const bytes = new Uint8Array(buffer);
  const as = (encoding: string, fatal = false) => new TextDecoder(encoding, { fatal }).decode(bytes);
  const [first, second] = bytes;
  if ((first === 0xff && second === 0xfe) || (second === 0 && first !== 0)) return as('utf-16le');
  if ((first === 0xfe && second === 0xff) || (first === 0 && second !== 0)) return as('utf-16be');
  try {
    return as('utf-8', true);
  } catch {
    return as('windows-1252');
  }
}

/** A first line that declares the separator to spreadsheet programs. */
const SEPARATOR = /^sep=(.)\r?\n/i;

/** @throws Error naming the row in which a quotation mark is not closed: what comes after it would be one cell */
function textRows(name: string, text: string): string[][] {
  // Blank lines at the ends are none; a blank first heading is one.
  const trimmed = text.replace(/^(?:[ \t]*\r?\n)+/, '').trimEnd();
  const delimiter = SEPARATOR.exec(trimmed)?.[1];
  const { data, errors } = Papa.parse<string[]>(trimmed.replace(SEPARATOR, ''), {
    skipEmptyLines: false,
    ...(delimiter === undefined ? {} : { delimiter }),
  });
  const open = errors.find(({ type }) => type === 'Quotes');
  if (open)
    throw new Error(
      `${name}, row ${(open.row ?? 0) + 1}: a quotation mark is not closed or stands within a cell.`,
    );
  return data;
}

async function workbookRows(name: string, bytes: ArrayBuffer): Promise<string[][]> {
  const { readSheet } = await import('read-excel-file/universal');
  const rows = await readSheet(bytes).catch(() => {
    throw new Error(`${name}: is no workbook that can be read.`);
  });
  return rows.map((row) => row.map(textOfCell));
}

/** A cell as a person would have written it into a list. */
function textOfCell(value: unknown): string {
  if (value === null || value === undefined) return '';
  return value instanceof Date ? value.toISOString().slice(0, 10) : String(value);
}
