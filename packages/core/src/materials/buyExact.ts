import type { Highs } from 'highs';
import { totalOf, usedIn, type BuyAnswer, type BuyProblem } from './buyProblem.ts';

/**
 * The mixed-integer model: an integer for each offer, a switch for each seller. Sellers whose opening alone would
 * lift the bound over the known answer are left out.
 */
export function solveExactly(
  highs: Highs,
  { lines, sellers, choices, stocks, maxOrders }: BuyProblem,
  known: BuyAnswer | null,
  bound: number,
  seconds: number,
): { answer: BuyAnswer | null; bound: number } {
  const cost: number[] = [];
  const upper: number[] = [];
  const starts = [0];
  const indices: number[] = [];
  const values: number[] = [];
  const rowLower: number[] = lines.map(({ qty }) => qty);
  const rowUpper = rowLower.slice();
  const add = (price: number, most: number, entries: readonly (readonly [number, number])[]) => {
    cost.push(price);
    upper.push(most);
    for (const [row, value] of entries) {
      indices.push(row);
      values.push(value);
    }
    starts.push(indices.length);
  };
  // After the lines: a row for each least order, one for the number of orders, then x ≤ stock · y for each offer.
  const minRow = sellers.map(({ minOrder }) => {
    if (minOrder <= 0) return -1;
    rowLower.push(0);
    rowUpper.push(highs.infinity);
    return rowLower.length - 1;
  });
  const countRow = rowLower.length;
  rowLower.push(0);
  rowUpper.push(maxOrders);
  const links: [number, number][][] = sellers.map(() => []);
  // An offer that several lines may use has one stock for all of them.
  const users = stocks.map(() => 0);
  for (const of of choices) for (const { offer } of of) users[offer]++;
  const stockRow = users.map((count, offer) => {
    if (count < 2) return -1;
    rowLower.push(-highs.infinity);
    rowUpper.push(stocks[offer]);
    return rowLower.length - 1;
  });
  choices.forEach((of, line) =>
    of.forEach(({ seller, price, stock, offer }) => {
      const most = Math.min(stock, lines[line].qty);
      const link = rowLower.length;
      rowLower.push(-highs.infinity);
      rowUpper.push(0);
      links[seller].push([link, -most]);
      add(price, most, [
        [line, 1],
        ...(minRow[seller] >= 0 ? [[minRow[seller], price] as const] : []),
        [link, 1],
        ...(stockRow[offer] >= 0 ? [[stockRow[offer], 1] as const] : []),
      ]);
    }),
  );
  const offers = cost.length;
  sellers.forEach(({ shipping, minOrder }, i) =>
    add(shipping, 1, [
      ...(minRow[i] >= 0 ? [[minRow[i], -minOrder] as const] : []),
      [countRow, 1],
      ...links[i],
    ]),
  );
  const numRows = rowLower.length;
  const model = highs.createModel({
    numCols: cost.length,
    numRows,
    colCost: cost,
    colLower: cost.map(() => 0),
    colUpper: upper,
    rowLower,
    rowUpper,
    matrix: {
      format: 'csc',
      numRows,
      numCols: cost.length,
      starts: Int32Array.from(starts),
      indices: Int32Array.from(indices),
      values: Float64Array.from(values),
    },
    integrality: cost.map(() => highs.constants.variableType.integer),
  });
  try {
    model.options.set({ output_flag: false, time_limit: seconds, mip_rel_gap: 1e-7, mip_abs_gap: 1e-6 });
    if (known) {
      const start = new Float64Array(cost.length);
      let column = 0;
      choices.forEach((of, line) => of.forEach((_, i) => (start[column++] = known.taken[line][i])));
      usedIn({ lines, sellers, choices, stocks, maxOrders }, known).forEach(
        (on, i) => (start[offers + i] = on ? 1 : 0),
      );
      model.setSolution({ colValue: start });
    }
    model.run();
    const status = model.getModelStatus();
    const { modelStatus } = highs.constants;
    if (status === modelStatus.infeasible) return { answer: null, bound: Infinity };
    const dual = Number(model.info.get('mip_dual_bound'));
    const found = Number(model.info.get('primal_solution_status')) === 2;
    const proven =
      status === modelStatus.optimal ? model.getObjectiveValue() : Number.isFinite(dual) ? dual : bound;
    if (!found) return { answer: null, bound: proven };
    const { colValue } = model.getSolution();
    let column = 0;
    const taken = choices.map((of) => of.map(() => Math.round(colValue[column++])));
    return {
      answer: { taken, total: totalOf({ lines, sellers, choices, stocks, maxOrders }, taken) },
      bound: proven,
    };
  } finally {
    model.dispose();
  }
}
