/**
 * Comma-separated values (RFC 4180): lines end in CR LF, cells with commas, quotes or line breaks are quoted. A text
 * that a spreadsheet would take for a formula gets an apostrophe before it: names are people's own.
 */
export function writeCsv(rows: readonly (readonly (string | number)[])[]): string {
  return rows.map((row) => `${row.map(quoted).join(',')}\r\n`).join('');
}

const quoted = (value: string | number) => {
  const text = typeof value === 'string' && /^[=+\-@\t\r]/.test(value) ? `'${value}` : String(value);
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
};
