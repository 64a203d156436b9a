import { MM_PER_STUD } from '../lattice/index.ts';
import { OUTSIDE, packSamples, type Relief } from '../relief/index.ts';
import { MAX_SAMPLES } from '../scene/index.ts';

/** Height grids: ESRI ASCII grids of studs, and grey maps (PGM) to be laid as ground. */

const NODATA = -9999;

/**
 * The ground as an ESRI ASCII grid: one value a stud, plates above datum, cell size 8 (mm), the first row the far
 * (north) edge; the lower left corner in millimetres, north positive.
 */
export function writeAsc({ x, y, w, d, height, ground }: Relief): string {
  const rows: string[] = [];
  for (let row = 0; row < d; row++) {
    const values: string[] = [];
    for (let i = row * w; i < (row + 1) * w; i++)
      values.push(ground[i] === OUTSIDE ? String(NODATA) : String(height[i]));
    rows.push(values.join(' '));
  }
  const head = [
    `ncols ${w}`,
    `nrows ${d}`,
    `xllcorner ${x * MM_PER_STUD}`,
    `yllcorner ${-(y + d) * MM_PER_STUD}`,
    `cellsize ${MM_PER_STUD}`,
    `NODATA_value ${NODATA}`,
  ];
  return `${[...head, ...rows].join('\n')}\n`;
}

/** Heights as they were read: `columns` × `rows` from the north-west, in the file's own unit; NaN where it says nothing. */
export interface HeightGrid {
  columns: number;
  rows: number;
  values: Float64Array;
}
export type HeightReading = { ok: true; grid: HeightGrid } | { ok: false; error: string };

const MOST_BYTES = 20_000_000;
const fail = (error: string): HeightReading => ({ ok: false, error });

function sized(columns: number, rows: number): string | null {
  for (const [word, count] of [
    ['columns', columns],
    ['rows', rows],
  ] as const)
    if (!Number.isInteger(count) || count < 2 || count > MAX_SAMPLES)
      return `The height file has ${count} ${word}; 2 to ${MAX_SAMPLES} are read.`;
  return null;
}

/** Reads an ESRI ASCII grid: its header in any order, then a value for each cell. */
export function readAsc(text: string): HeightReading {
  if (text.length > MOST_BYTES)
    return fail(`The height file has ${text.length} characters; the most is ${MOST_BYTES}.`);
  const lines = text.split(/\r?\n/);
  const head = new Map<string, number>();
  let first = 0;
  for (; first < lines.length; first++) {
    const match = /^\s*([A-Za-z_]+)\s+(-?[\d.eE+-]+)\s*$/.exec(lines[first]);
    if (!match) break;
    head.set(match[1].toLowerCase(), Number(match[2]));
  }
  const [columns, rows] = [head.get('ncols') ?? NaN, head.get('nrows') ?? NaN];
  if (Number.isNaN(columns) || Number.isNaN(rows))
    return fail('The height file does not begin with ncols and nrows.');
  const wrong = sized(columns, rows);
  if (wrong) return fail(wrong);
  const nodata = head.get('nodata_value') ?? NODATA;
  const values = new Float64Array(columns * rows);
  let at = 0;
  for (let row = first; row < lines.length; row++)
    for (const word of lines[row].trim().split(/\s+/)) {
      if (word === '') continue;
      const value = Number(word);
      if (!Number.isFinite(value))
        return fail(`The height file has «${word.slice(0, 20)}» on line ${row + 1}, which is no number.`);
      if (at >= values.length)
        return fail(`The height file has more than the ${values.length} values its header names.`);
      values[at++] = value === nodata ? NaN : value;
    }
  if (at < values.length) return fail(`The height file has ${at} values; its header names ${values.length}.`);
  return { ok: true, grid: { columns, rows, values } };
}

/** Reads a grey map (PGM, plain or binary, 8 or 16 bits): light is high. */
export function readPgm(bytes: Uint8Array): HeightReading {
  if (bytes.length > MOST_BYTES)
    return fail(`The height file has ${bytes.length} bytes; the most is ${MOST_BYTES}.`);
  let at = 0;
  const word = (): string => {
    for (;;) {
      while (at < bytes.length && bytes[at] <= 32) at++;
      if (bytes[at] !== 35) break;
      while (at < bytes.length && bytes[at] !== 10) at++;
    }
    let text = '';
    while (at < bytes.length && bytes[at] > 32 && text.length < 20) text += String.fromCharCode(bytes[at++]);
    return text;
  };
  const magic = word();
  if (magic !== 'P2' && magic !== 'P5') return fail('This is no PGM file: it must begin with P2 or P5.');
  const [columns, rows, most] = [Number(word()), Number(word()), Number(word())];
  const wrong = sized(columns, rows);
  if (wrong) return fail(wrong);
  if (!(Number.isInteger(most) && most >= 1 && most <= 65_535))
    return fail(`The PGM file’s white is ${most}; 1 to 65,535 are read.`);
  const values = new Float64Array(columns * rows);
  const wide = most > 255 ? 2 : 1;
  if (magic === 'P5') {
    at++;
    if (bytes.length - at < values.length * wide)
      return fail(
        `The PGM file ends after ${Math.max(0, Math.trunc((bytes.length - at) / wide))} of ${values.length} values.`,
      );
    for (let i = 0; i < values.length; i++)
      values[i] = wide === 2 ? bytes[at + 2 * i] * 256 + bytes[at + 2 * i + 1] : bytes[at + i];
  } else
    for (let i = 0; i < values.length; i++) {
      const text = word();
      const value = Number(text);
      if (text === '' || !Number.isFinite(value) || value > most)
        return fail(`The PGM file has «${text}» as value ${i + 1}; 0 to ${most} are read.`);
      values[i] = value;
    }
  return { ok: true, grid: { columns, rows, values } };
}

/**
 * A height grid as samples of imported ground: from its lowest to its highest value, packed. Cells without a value
 * take the lowest.
 */
export function samplesOf({ columns, rows, values }: HeightGrid): {
  columns: number;
  rows: number;
  samples: string;
  lowest: number;
  highest: number;
} {
  let [lowest, highest] = [Infinity, -Infinity];
  for (const value of values)
    if (!Number.isNaN(value)) {
      lowest = Math.min(lowest, value);
      highest = Math.max(highest, value);
    }
  if (lowest > highest) [lowest, highest] = [0, 0];
  const spread = highest - lowest || 1;
  const samples = Uint16Array.from(values, (value) =>
    Number.isNaN(value) ? 0 : Math.round(((value - lowest) / spread) * 65_535),
  );
  return { columns, rows, samples: packSamples(samples), lowest, highest };
}
