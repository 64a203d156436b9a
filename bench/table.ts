/** One line of the benchmark table: what was measured on this machine beside what it should reach. */
export interface Row {
  what: string;
  measured: number;
  unit: string;
  /** Left out where nothing is aimed for. */
  aim?: number;
  better: 'more' | 'less';
  /** How fast the machine was meanwhile: `calibration`, ms. */
  pace?: number;
}

/** The calibration of the machine that the aims were set on, in a quiet hour, ms. */
const QUIET_PACE = 32.6;
/** Units of what takes longer on a slower machine. */
const TIMES: readonly string[] = ['ms', 's'];

/**
 * Prints the lines with the ratio measured : aim turned so that 1 or more is as good as aimed for. A host that is shared may be
 * twice as slow as an hour before: “quiet” is what a time comes to at the pace that the aims were set at. It flatters what
 * waits for the network or the clock.
 */
export function printTable(rows: readonly Row[]): void {
  const number = (value: number) => (value >= 100 ? value.toFixed(0) : value.toFixed(2));
  const lines = rows.map(({ what, measured, unit, aim, better, pace }) => {
    const quiet =
      pace !== undefined && TIMES.includes(unit) ? `${number((measured * QUIET_PACE) / pace)} ${unit}` : '';
    if (aim === undefined) return [what, `${number(measured)} ${unit}`, quiet, '', ''];
    const reached = measured === aim;
    const ratio = reached ? 1 : better === 'more' ? measured / aim : aim / Math.max(measured, 1e-9);
    return [
      what,
      `${number(measured)} ${unit}`,
      quiet,
      `${better === 'more' ? '≥' : '≤'} ${number(aim)} ${unit}`,
      ratio > 99 ? '> 99' : ratio.toFixed(2),
    ];
  });
  const all = [['benchmark', 'measured', 'quiet', 'aim', 'ratio'], ...lines];
  const widths = all[0].map((_, column) => Math.max(...all.map((line) => line[column].length)));
  for (const line of all)
    console.log(
      line
        .map((cell, column) => (column === 0 ? cell.padEnd(widths[column]) : cell.padStart(widths[column])))
        .join('  '),
    );
}

/** Median of the time a piece of work takes, ms; a few runs before the first that counts, as in a page in use. */
export function median(runs: number, work: () => void): number {
  for (let i = 0; i < 5; i++) work();
  const times = Array.from({ length: runs }, () => {
    const began = performance.now();
    work();
    return performance.now() - began;
  });
  return times.sort((a, b) => a - b)[runs >> 1];
}

/**
 * How fast this machine is, ms: a fixed loop of multiplications and writes into half a megabyte. Divide other figures
 * by it, to set two machines beside each other.
 */
export function calibration(): number {
  const field = new Float64Array(65_536);
  return median(9, () => {
    let value = 1;
    for (let i = 0; i < 20_000_000; i++) {
      value = Math.imul(value ^ i, 16_777_619);
      field[i & 65_535] += value;
    }
  });
}
