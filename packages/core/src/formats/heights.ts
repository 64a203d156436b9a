import { MM_PER_STUD, type Rect } from '../grid/index.ts';
import { MAX_SAMPLE, OUTSIDE, packSamples, type Relief } from '../terrain/index.ts';
import { MAX_FOOTPRINT, MAX_SAMPLES, MAX_STUDS } from '../document/index.ts';

// Height grids: ESRI ASCII grids, and grey maps (PGM), to be laid as ground.

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

/** Heights as they were read: `columns` × `rows` from the north-west, in the file's own unit; NaN where it has no data. */
export interface HeightGrid {
  columns: number;
  rows: number;
  values: Float64Array;
  /** Side of a cell, mm; null: the file does not say. */
  cell: number | null;
  /** South-west corner, mm east and north of the display's origin; null: the file does not say. */
  corner: { west: number; south: number } | null;
}
export type HeightReading = { ok: true; grid: HeightGrid } | { ok: false; error: string };

const MAX_BYTES = 40_000_000;
/** The most cells on one side. */
const MAX_CELLS = 16_384;
const fail = (error: string): HeightReading => ({ ok: false, error });

function sized(columns: number, rows: number): string | null {
  for (const [word, count] of [
    ['columns', columns],
    ['rows', rows],
  ] as const)
    if (!Number.isInteger(count) || count < 1 || count > MAX_CELLS)
      return `The height file has ${count} ${word}; 1 to ${MAX_CELLS.toLocaleString('en')} are read.`;
  if (columns * rows > MAX_FOOTPRINT)
    return `The height file has ${columns} × ${rows} = ${(columns * rows).toLocaleString('en')} cells; the most is ${MAX_FOOTPRINT.toLocaleString('en')}.`;
  return null;
}

/** Reads an ESRI ASCII grid: its header in any order, with its corner or the centre of its corner cell, then a value for each cell. */
export function readAsc(text: string): HeightReading {
  if (text.length > MAX_BYTES)
    return fail(`The height file has ${text.length} characters; the most is ${MAX_BYTES}.`);
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
  const cell = head.get('cellsize');
  if (cell !== undefined && !(cell > 0))
    return fail(`The height file’s cell size is ${cell}; it must be more than 0 mm.`);
  const nodata = head.get('nodata_value') ?? NODATA;
  const values = new Float64Array(columns * rows);
  let at = 0;
  for (let row = first; row < lines.length; row++)
    for (const word of lines[row].trim().split(/\s+/)) {
      if (word === '') continue;
      const value = Number(word);
      if (!Number.isFinite(value))
        return fail(`The height file has “${word.slice(0, 20)}” on line ${row + 1}, which is no number.`);
      if (at >= values.length)
        return fail(`The height file has more than the ${values.length} values its header names.`);
      values[at++] = value === nodata ? NaN : value;
    }
  if (at < values.length) return fail(`The height file has ${at} values; its header names ${values.length}.`);
  const corner = (axis: 'x' | 'y'): number | undefined => {
    const centre = head.get(`${axis}llcenter`);
    return head.get(`${axis}llcorner`) ?? (centre === undefined ? undefined : centre - (cell ?? 0) / 2);
  };
  const [west, south] = [corner('x'), corner('y')];
  const origin = west === undefined || south === undefined ? null : { west, south };
  return { ok: true, grid: { columns, rows, values, cell: cell ?? null, corner: origin } };
}

/** Reads a grey map (PGM, plain or binary, 8 or 16 bits): light is high. */
export function readPgm(bytes: Uint8Array): HeightReading {
  if (bytes.length > MAX_BYTES)
    return fail(`The height file has ${bytes.length} bytes; the most is ${MAX_BYTES}.`);
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
        return fail(`The PGM file has “${text}” as value ${i + 1}; 0 to ${most} are read.`);
      values[i] = value;
    }
  return { ok: true, grid: { columns, rows, values, cell: null, corner: null } };
}

/** The rectangle a grid takes by its own head, studs of the display; null where its head does not say. */
export function gridRect({ columns, rows, cell, corner }: HeightGrid): Rect | null {
  if (!corner || cell === null) return null;
  const { west, south } = corner;
  const [w, d] = [(columns * cell) / MM_PER_STUD, (rows * cell) / MM_PER_STUD];
  return { x: west / MM_PER_STUD, y: -south / MM_PER_STUD - d, w, d };
}

/** Summary of a height grid, as shown before import. */
export interface GridCount {
  lowest: number;
  highest: number;
  /** Cells without a value. */
  gaps: number;
  /** Cells whose value is no whole number. */
  broken: number;
}

export function countGrid({ values }: HeightGrid): GridCount {
  let [lowest, highest, gaps, broken] = [Infinity, -Infinity, 0, 0];
  for (const value of values) {
    if (Number.isNaN(value)) {
      gaps++;
      continue;
    }
    if (!Number.isInteger(value)) broken++;
    lowest = Math.min(lowest, value);
    highest = Math.max(highest, value);
  }
  return lowest > highest ? { lowest: 0, highest: 0, gaps, broken } : { lowest, highest, gaps, broken };
}

/** Ground as the document holds it: what `terrain` has of a part of a height grid. */
export interface TerrainPart extends Rect {
  columns: number;
  rows: number;
  samples: string;
  gaps: boolean;
  /** Plates of the lowest and highest value of the whole grid. */
  low: number;
  high: number;
}

/** How values become plates: as they are, or spread between two heights. */
export type HeightsAs = { as: 'plates' } | { as: 'spread'; low: number; high: number };

/**
 * A height grid as ground: each stud whose centre lies in the rectangle takes the value of the cell there. Cells without
 * a value leave their studs as they are. A grid that one ground cannot hold comes in parts.
 * @param where the rectangle that the grid is laid over, studs of the display; fractions too
 * @returns the parts, north-west first; none where the rectangle takes in no stud's centre or no cell has a value
 */
export function terrainParts(grid: HeightGrid, where: Rect, heights: HeightsAs): TerrainPart[] {
  const { columns, rows, values } = grid;
  const { lowest, highest } = countGrid(grid);
  const [low, high] =
    heights.as === 'plates' ? [Math.floor(lowest), Math.ceil(highest)] : [heights.low, heights.high];
  const [from, to] = heights.as === 'plates' ? [low, high] : [lowest, highest];
  const spread = to - from || 1;
  const part = (rect: Rect, wide: number, deep: number, at: (column: number, row: number) => number) => {
    const shares = Float64Array.from({ length: wide * deep }, (_, i) => {
      const value = at(i % wide, Math.trunc(i / wide));
      return Number.isNaN(value) ? NaN : (value - from) / spread;
    });
    if (shares.every((share) => Number.isNaN(share))) return [];
    const gaps = shares.some((share) => Number.isNaN(share));
    const first = gaps ? 1 : 0;
    const samples = Uint16Array.from(shares, (share) =>
      Number.isNaN(share) ? 0 : first + Math.round(share * (MAX_SAMPLE - first)),
    );
    return [{ ...rect, columns: wide, rows: deep, samples: packSamples(samples), gaps, low, high }];
  };
  const isHalf = (value: number) => Number.isInteger(2 * value);
  const fitsOne = columns >= 2 && rows >= 2 && columns <= MAX_SAMPLES && rows <= MAX_SAMPLES;
  if (fitsOne && [where.x, where.y, where.w, where.d].every(isHalf))
    return part(where, columns, rows, (column, row) => values[row * columns + column]);
  const tiny = 1e-9;
  const x0 = Math.max(-MAX_STUDS, Math.ceil(where.x - 0.5 - tiny));
  const y0 = Math.max(-MAX_STUDS, Math.ceil(where.y - 0.5 - tiny));
  const x1 = Math.min(MAX_STUDS, Math.ceil(where.x + where.w - 0.5 - tiny));
  const y1 = Math.min(MAX_STUDS, Math.ceil(where.y + where.d - 0.5 - tiny));
  const cellAt = (stud: number, begin: number, length: number, cells: number) =>
    Math.min(cells - 1, Math.max(0, Math.floor(((stud + 0.5 - begin) / length) * cells + tiny)));
  const parts: TerrainPart[] = [];
  for (let y = y0; y < y1; y += MAX_SAMPLES)
    for (let x = x0; x < x1; x += MAX_SAMPLES) {
      const [w, d] = [Math.min(MAX_SAMPLES, x1 - x), Math.min(MAX_SAMPLES, y1 - y)];
      // A ground has two samples a side at least.
      const [wide, deep] = [Math.max(2, w), Math.max(2, d)];
      parts.push(
        ...part({ x, y, w, d }, wide, deep, (column, row) => {
          const stud = { x: x + Math.min(column, w - 1), y: y + Math.min(row, d - 1) };
          const from = cellAt(stud.y, where.y, where.d, rows) * columns;
          return values[from + cellAt(stud.x, where.x, where.w, columns)];
        }),
      );
    }
  return parts;
}
