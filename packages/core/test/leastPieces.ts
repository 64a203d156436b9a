import type { Highs } from 'highs';
import { BRICK_SIZES } from '../src/catalogue/index.ts';

/** Small irregular layers: discs that wander and grow, with a strip of steps below. */
export function smallMasks(count: number): { mask: Uint8Array; w: number; d: number }[] {
  const [w, d] = [14, 12];
  return Array.from({ length: count }, (_, k) => {
    const seed = k + 1;
    const mask = new Uint8Array(w * d).map((_cell, i) => {
      const [x, y] = [i % w, Math.floor(i / w)];
      const inDisc = Math.hypot(x - 6.5 - (seed % 3), y - 5.5) < 4.2 + (seed % 4) * 0.9;
      return inDisc || (y > 7 && x < seed) ? 1 : 0;
    });
    return { mask, w, d };
  });
}

/** The least number of bricks that cover a mask, as a set partition solved by HiGHS. */
export function leastPieces(highs: Highs, mask: Uint8Array, w: number, d: number): number {
  const row = new Map<number, number>();
  mask.forEach((on, i) => on && row.set(i, row.size));
  const starts = [0];
  const indices: number[] = [];
  for (const [a, b] of BRICK_SIZES)
    for (const [pw, pd] of a === b
      ? [[a, b]]
      : [
          [a, b],
          [b, a],
        ])
      for (let y = 0; y + pd <= d; y++)
        for (let x = 0; x + pw <= w; x++) {
          const cells = Array.from(
            { length: pw * pd },
            (_, k) => (y + Math.floor(k / pw)) * w + x + (k % pw),
          );
          const rows = cells.map((i) => row.get(i));
          if (rows.some((one) => one === undefined)) continue;
          indices.push(...rows.map((one) => one ?? 0));
          starts.push(indices.length);
        }
  const columns = starts.length - 1;
  const model = highs.createModel({
    numCols: columns,
    numRows: row.size,
    colCost: new Array<number>(columns).fill(1),
    colLower: new Array<number>(columns).fill(0),
    colUpper: new Array<number>(columns).fill(1),
    rowLower: new Array<number>(row.size).fill(1),
    rowUpper: new Array<number>(row.size).fill(1),
    matrix: {
      format: 'csc',
      numRows: row.size,
      numCols: columns,
      starts: Int32Array.from(starts),
      indices: Int32Array.from(indices),
      values: new Float64Array(indices.length).fill(1),
    },
    integrality: new Array(columns).fill(highs.constants.variableType.integer),
  });
  try {
    model.options.set({ output_flag: false, time_limit: 30 });
    model.run();
    if (model.getModelStatus() !== highs.constants.modelStatus.optimal)
      throw new Error('HiGHS did not prove a least number of pieces');
    return Math.round(model.getObjectiveValue());
  } finally {
    model.dispose();
  }
}
