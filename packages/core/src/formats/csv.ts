/** Comma-separated values (RFC 4180): lines end in CR LF, cells with commas, quotes or line breaks are quoted. */
export function writeCsv(rows: readonly (readonly (string | number)[])[]): string {
  return rows.map((row) => `${row.map(quoted).join(',')}\r\n`).join('');
}

const quoted = (value: string | number) => {
  const text = String(value);
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
};
