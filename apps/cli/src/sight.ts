import { readAsc } from '@quarry/core/formats';
import { MM_PER_PLATE } from '@quarry/core/grid';
import { NO_COLUMN, seenCounts } from '@quarry/core/visibility';
import { BadInput, readText } from './input.ts';
import { MAX_BYTES, table } from './materials.ts';

const NODATA = -9999;
/** A line of a grid's head: a word and its number. */
const HEAD = /^\s*[A-Za-z_]+\s+-?[\d.eE+-]+\s*$/;

/** Heights and eyes to how many eyes see each stud: a grid with the head of the heights. */
export function sight(heightsPath: string, eyesPath: string): number {
  const text = readText(heightsPath, MAX_BYTES);
  const reading = readAsc(text);
  if (!reading.ok) throw new BadInput(`${heightsPath}: ${reading.error}`);
  const { columns: w, rows: d, values } = reading.grid;
  const eyes = table(eyesPath, ['x', 'y', 'z']).map((row, i) => {
    const number = (name: 'x' | 'y' | 'z'): number => {
      const value = Number(row[name]);
      if (row[name].trim() === '' || !Number.isFinite(value))
        throw new BadInput(`${eyesPath}: row ${i + 2}: ${name} “${row[name]}” must be a number.`);
      return value;
    };
    return { x: number('x'), y: number('y'), z: number('z') };
  });
  const counts = seenCounts({ w, d, heights: values.map((plates) => plates * MM_PER_PLATE) }, eyes);
  const lines = text.split(/\r?\n/);
  const head = lines.slice(
    0,
    lines.findIndex((line) => !HEAD.test(line)),
  );
  const rows = Array.from({ length: d }, (_, row) =>
    Array.from(counts.subarray(row * w, (row + 1) * w), (count) =>
      count === NO_COLUMN ? NODATA : count,
    ).join(' '),
  );
  process.stdout.write(`${[...head, ...rows].join('\n')}\n`);
  return 0;
}
