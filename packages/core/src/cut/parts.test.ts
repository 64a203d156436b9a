import fc from 'fast-check';
import loadHighs, { type Highs } from 'highs';
import { quickBound } from './bound.ts';
import { cutGridsOf, guillotine } from './construct.ts';
import { gridOf, type Cells } from './grid.ts';
import { Lagrange } from './lagrange.ts';
import { candidatesOf, relaxation } from './master.ts';
import { chooseTilings, priced, rowLetters, toCutting } from './partition.ts';
import type { CutProblem } from './problem.ts';
import { solveCut, verifyCutting } from './index.ts';
import { TilingBook, placed } from './tilings.ts';
import { runs } from '../../test/runs.ts';

let highs: Highs;
beforeAll(async () => {
  highs = await loadHighs();
});
const weights = { module: 3, seam: 0.125 };
const base = (w: number, d: number, price = 1, stock = 0) => ({ w: w * 8, d: d * 8, price, stock });
const area = (columns: number, rows: number) => [{ x: 0, y: 0, w: columns * 8, d: rows * 8 }];

/** A problem with everything in it, small enough for brute force, on a grid of up to 4 × 3 cells. */
const problems = fc
  .record({
    columns: fc.integer({ min: 1, max: 4 }),
    rows: fc.integer({ min: 1, max: 3 }),
    hole: fc.integer({ min: 0, max: 40 }),
    keep: fc.integer({ min: 0, max: 15 }),
    pin: fc.integer({ min: 0, max: 8 }),
    dear: fc.integer({ min: 0, max: 15 }),
    kg: fc.array(fc.integer({ min: 0, max: 4 }), { minLength: 9, maxLength: 9 }),
    maxMassKg: fc.integer({ min: 4, max: 30 }),
    long: fc.integer({ min: 1, max: 4 }),
    short: fc.integer({ min: 1, max: 3 }),
    stock: fc.integer({ min: 0, max: 4 }),
  })
  .map(({ columns, rows, hole, keep, pin, dear, kg, maxMassKg, long, short, stock }): CutProblem => {
    const at = (i: number) => ({ x: (i % columns) * 8, y: (Math.trunc(i / columns) % rows) * 8 });
    const cells = Array.from({ length: columns * rows }, (_, i) => ({ ...at(i), w: 8, d: 8 }));
    const kept = at(keep);
    return {
      region: cells.filter((_, i) => i !== hole || cells.length === 1),
      bases: [base(1, 1, 2, stock), base(1, 2, 3, 1), base(2, 2, 5)],
      module: { maxW: 8 * Math.max(long, short), maxD: 8 * Math.min(long, short), maxMassKg },
      mass: { cell: 12, kg: [kg.slice(0, 3), kg.slice(3, 6), kg.slice(6)] },
      keep:
        hole < columns * rows || kept.x + 16 > columns * 8 ? [] : [{ ...kept, w: 16, d: 8, name: 'mill' }],
      seamCost: [{ ...at(dear), w: 8, d: 16, cost: 2 }],
      lines: [
        { x1: at(dear).x, y1: at(dear).y, x2: at(dear).x + 16, y2: at(dear).y, cost: 0 },
        { x1: at(keep).x, y1: 0, x2: at(keep).x, y2: 8, cost: 5 },
      ],
      pins: pin > 0 && pin < columns ? [{ x1: pin * 8, y1: 0, x2: pin * 8, y2: rows * 8 }] : [],
      weights,
    };
  });

/** Every set of rectangles that covers the region, each judged by the independent checker's own rules. */
function everyPartition(problem: CutProblem, visit: (modules: Cells[]) => void): void {
  const { columns, rows, inside } = gridOf(problem);
  const taken = new Uint8Array(columns * rows);
  const modules: Cells[] = [];
  const fill = (from: number) => {
    let first = from;
    while (first < taken.length && (!inside[first] || taken[first])) first++;
    if (first === taken.length) return visit(modules);
    const [x0, y0] = [first % columns, Math.trunc(first / columns)];
    for (let y1 = y0 + 1; y1 <= rows; y1++)
      for (let x1 = x0 + 1; x1 <= columns; x1++) {
        const cells: number[] = [];
        for (let y = y0; y < y1; y++) for (let x = x0; x < x1; x++) cells.push(y * columns + x);
        if (cells.some((cell) => !inside[cell] || taken[cell])) continue;
        for (const cell of cells) taken[cell] = 1;
        modules.push({ x0, y0, x1, y1 });
        fill(first + 1);
        modules.pop();
        for (const cell of cells) taken[cell] = 0;
      }
  };
  fill(0);
}

/** The least cost by brute force; a partition counts when the checker finds no fault in it. Infinity when none does. */
function leastCost(problem: CutProblem): number {
  const grid = gridOf(problem);
  const book = new TilingBook(problem);
  let least = Infinity;
  everyPartition(problem, (modules) => {
    if (modules.some((cells) => grid.moduleCost(cells) === Infinity)) return;
    const lists = modules.map(({ x0, y0, x1, y1 }) => book.of(x1 - x0, y1 - y0).list);
    const choose = (chosen: typeof lists): void => {
      const index = chosen.length;
      if (index < lists.length) return lists[index].forEach((tiling) => choose([...chosen, [tiling]]));
      const plan = priced(
        grid,
        [...modules],
        chosen.map(([tiling]) => tiling),
      );
      least = Math.min(least, plan.cost.total);
    };
    // With one vector each there is nothing to choose; with several, all combinations for few modules.
    if (lists.reduce((product, list) => product * list.length, 1) <= 400) choose([]);
    else {
      const tilings = chooseTilings(grid, book, modules);
      if (tilings) least = Math.min(least, priced(grid, [...modules], tilings).cost.total);
    }
  });
  return least;
}

describe('base tilings', () => {
  /** All vectors of counts by filling the first open cell; nothing remembered, nothing shared with the book. */
  const vectors = (w: number, d: number, bases: { w: number; d: number }[]): Set<string> => {
    const found = new Set<string>();
    const taken = new Uint8Array(w * d);
    const counts = bases.map(() => 0);
    const fill = () => {
      const first = taken.indexOf(0);
      if (first < 0) return void found.add(counts.join());
      const [x, y] = [first % w, Math.trunc(first / w)];
      bases.forEach((shape, b) => {
        for (const [bw, bd] of [
          [shape.w / 8, shape.d / 8],
          [shape.d / 8, shape.w / 8],
        ]) {
          if (x + bw > w || y + bd > d) continue;
          const cells = Array.from(
            { length: bw * bd },
            (_, i) => (y + Math.trunc(i / bw)) * w + x + (i % bw),
          );
          if (cells.some((cell) => taken[cell])) continue;
          for (const cell of cells) taken[cell] = 1;
          counts[b]++;
          fill();
          counts[b]--;
          for (const cell of cells) taken[cell] = 0;
        }
      });
    };
    fill();
    return found;
  };
  const setOfBases = fc.subarray([base(1, 2), base(2, 2), base(1, 3), base(2, 3), base(3, 3), base(1, 1)], {
    minLength: 1,
    maxLength: 3,
  });

  test('the book knows exactly the vectors that brute force finds, and each of its layouts is an exact cover', () => {
    fc.assert(
      fc.property(
        setOfBases,
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 4 }),
        (bases, w, d) => {
          const problem: CutProblem = { region: area(w, d), bases, module: { maxW: 80, maxD: 80 }, weights };
          const { list, complete } = new TilingBook(problem).of(w, d);
          expect(complete).toBe(true);
          expect(new Set(list.map(({ counts }) => counts.join()))).toEqual(
            vectors(Math.min(w, d), Math.max(w, d), bases),
          );
          for (const tiling of list) {
            const cover = new Uint8Array(w * d);
            for (const piece of placed(tiling, w, d))
              for (let y = piece.y; y < piece.y + piece.d; y++)
                for (let x = piece.x; x < piece.x + piece.w; x++) cover[y * w + x]++;
            expect([...cover].every((count) => count === 1)).toBe(true);
          }
        },
      ),
      { numRuns: runs(60) },
    );
  });

  test('too many vectors to list: some are kept, told as incomplete, and every layout still covers', () => {
    const bases = [base(1, 1), base(1, 2), base(2, 2), base(2, 3), base(3, 3), base(1, 4)];
    const problem: CutProblem = { region: area(12, 12), bases, module: { maxW: 96, maxD: 96 }, weights };
    const { list, complete } = new TilingBook(problem).of(12, 12);
    expect(complete).toBe(false);
    expect(list.length).toBeGreaterThan(5);
    for (const { counts, pieces } of list) {
      expect(pieces.reduce((sum, { w, d }) => sum + w * d, 0)).toBe(144);
      expect(pieces).toHaveLength(counts.reduce((sum, count) => sum + count, 0));
    }
    const cut = solveCut(problem, { seconds: 5, now: () => performance.now(), highs });
    if (!cut.feasible) throw new Error(cut.reasons.join());
    expect(verifyCutting(problem, cut.cutting)).toEqual([]);
  });
});

describe('straight cuts', () => {
  /** The least cost over all ways of cutting from side to side, by plain recursion. */
  const recursive = (problem: CutProblem): number => {
    const grid = gridOf(problem);
    const book = new TilingBook(problem);
    const cost = (cells: Cells): number => {
      if (grid.insideCount(cells) === 0) return 0;
      const { x0, y0, x1, y1 } = cells;
      const prices = book
        .of(x1 - x0, y1 - y0)
        .list.map(({ counts }) => counts.reduce((sum, n, b) => sum + n * problem.bases[b].price, 0));
      let best = grid.moduleCost(cells) + Math.min(Infinity, ...prices);
      for (let x = x0 + 1; x < x1; x++)
        best = Math.min(best, cost({ ...cells, x1: x }) + cost({ ...cells, x0: x }));
      for (let y = y0 + 1; y < y1; y++)
        best = Math.min(best, cost({ ...cells, y1: y }) + cost({ ...cells, y0: y }));
      return best;
    };
    return cost({ x0: 0, y0: 0, x1: grid.columns, y1: grid.rows });
  };
  test('the dynamic program finds what plain recursion finds', () => {
    fc.assert(
      fc.property(problems, (given) => {
        const problem = { ...given, bases: given.bases.map((entry) => ({ ...entry, stock: 0 })) };
        const grid = gridOf(problem);
        const book = new TilingBook(problem);
        const modules = guillotine(
          grid,
          book,
          problem.bases.map(({ price }) => price),
          cutGridsOf(grid)[0],
        );
        const expected = recursive(problem);
        if (!modules) return expected === Infinity;
        const tilings = chooseTilings(grid, book, modules);
        return tilings !== null && Math.abs(priced(grid, modules, tilings).cost.total - expected) < 1e-6;
      }),
      { numRuns: runs(60) },
    );
  });
});

describe('the bound', () => {
  test('never exceeds the least cost, however early the relaxation is stopped', () => {
    fc.assert(
      fc.property(problems, fc.integer({ min: 0, max: 3 }), (problem, rounds) => {
        const least = leastCost(problem);
        const grid = gridOf(problem);
        expect(quickBound(grid)).toBeLessThanOrEqual(least + 1e-6);
        const candidates = candidatesOf(grid, new TilingBook(problem, grid.cell));
        if (!candidates) throw new Error('too many candidates');
        let asked = 0;
        const { bound, converged } = relaxation(
          highs,
          grid,
          candidates,
          [],
          grid.cellCount,
          () => asked++ >= rounds,
        );
        if (least < Infinity) expect(bound).toBeLessThanOrEqual(least + 1e-6);
        if (rounds === 3 && least < Infinity && converged) expect(bound).toBeGreaterThan(0);
      }),
      { numRuns: runs(30) },
    );
  });

  test('by prices it is never above the least cost, nor is what a module of the best cutting is said to cost with it', () => {
    fc.assert(
      fc.property(problems, fc.integer({ min: 1, max: 200 }), (problem, rounds) => {
        const answer = solveCut(problem, { seconds: 10, now: () => performance.now(), highs });
        if (!answer.feasible) return;
        const { modules, cost } = answer.cutting;
        const grid = gridOf(problem);
        const book = new TilingBook(problem, grid.cell);
        const candidates = candidatesOf(grid, book);
        const cells = modules.map(({ x, y, w, d }) => {
          const [x0, y0] = [(x - grid.x) / grid.cell, (y - grid.y) / grid.cell];
          return { x0, y0, x1: x0 + w / grid.cell, y1: y0 + d / grid.cell };
        });
        const tilings = chooseTilings(grid, book, cells);
        if (!candidates || !tilings) return;
        const lagrange = new Lagrange(grid, candidates, priced(grid, cells, tilings));
        let asked = 0;
        lagrange.run(cost.total * 1.1 + 1, () => asked++ >= rounds);
        expect(lagrange.bound).toBeLessThanOrEqual(cost.total + 1e-6);
        const costWith = lagrange.costWith();
        for (const module of cells)
          expect(costWith(candidates.index(module))).toBeLessThanOrEqual(cost.total + 1e-6);
      }),
      { numRuns: runs(30) },
    );
  }, 120_000);

  test('in the bases’ own steps nothing is lost: the same least cost as on the lattice of 8', () => {
    const cell = fc.nat(11);
    fc.assert(
      fc.property(
        fc.uniqueArray(cell, { minLength: 3, maxLength: 9 }),
        cell,
        fc.nat(3),
        (at, dear, stock) => {
          const square = (i: number) => ({ x: (i % 4) * 16, y: Math.trunc(i / 4) * 16, w: 16, d: 16 });
          const problem: CutProblem = {
            region: at.map(square),
            bases: [base(2, 2, 2, stock), base(2, 4, 3, 1)],
            module: { maxW: 48, maxD: 32 },
            // Beside the steps, so that a piece of 8 studs counts by itself.
            seamCost: [{ ...square(dear), x: square(dear).x + 8, w: 8, cost: 3 }],
            weights,
          };
          // A base that cannot be had changes nothing but the steps.
          const fine = { ...problem, bases: [...problem.bases, { ...base(1, 1), max: 0 }] };
          expect([gridOf(problem).cell, gridOf(fine).cell]).toEqual([16, 8]);
          const [coarse, all] = [problem, fine].map((each) =>
            solveCut(each, { seconds: 10, now: () => performance.now(), highs }),
          );
          if (!coarse.feasible || !all.feasible) throw new Error('single bases always cover it');
          expect(coarse.cutting.cost.total).toBeCloseTo(all.cutting.cost.total, 6);
          expect([coarse.cutting.proven, all.cutting.proven]).toEqual([true, true]);
        },
      ),
      { numRuns: runs(20) },
    );
  }, 120_000);

  test('with masses, keeps, pins and dear seams the whole solver reaches the brute-force cost and proves it', () => {
    fc.assert(
      fc.property(problems, (problem) => {
        const least = leastCost(problem);
        const answer = solveCut(problem, { seconds: 10, now: () => performance.now(), highs });
        if (!answer.feasible) return least === Infinity;
        expect(answer.cutting.cost.total).toBeCloseTo(least, 6);
        expect(answer.cutting).toMatchObject({ proven: true, gap: 0 });
        return true;
      }),
      { numRuns: runs(30) },
    );
  }, 120_000);
});

test('the quick bound is exact where every module is full: 96 × 96 in two modules of 96 × 48 on bases of one size', () => {
  const problem: CutProblem = {
    region: area(12, 12),
    bases: [base(6, 6, 14, 1)],
    module: { maxW: 96, maxD: 48 },
    weights: { module: 5, seam: 0.05 },
  };
  // By hand: 2 modules, 3 bases bought, one seam of 96 studs.
  expect(quickBound(gridOf(problem))).toBeCloseTo(2 * 5 + 3 * 14 + 96 * 0.05, 9);
});

describe('writing a cutting', () => {
  test('modules are named by row and place: A1 is the north-west one', () => {
    const problem: CutProblem = {
      region: area(4, 4),
      // Of one size only, so that the grid is laid out in cells of 16 studs.
      bases: [base(2, 2)],
      module: { maxW: 16, maxD: 16 },
      weights,
    };
    const grid = gridOf(problem);
    const book = new TilingBook(problem, grid.cell);
    const modules = [1, 0].flatMap((y0) => [1, 0].map((x0) => ({ x0, y0, x1: x0 + 1, y1: y0 + 1 })));
    const tilings = chooseTilings(grid, book, modules);
    if (!tilings) throw new Error('no tilings');
    const cutting = toCutting(grid, priced(grid, modules, tilings), 0, 1);
    expect(cutting.modules.map(({ id, x, y }) => `${id} ${x},${y}`)).toEqual([
      'A1 0,0',
      'A2 16,0',
      'B1 0,16',
      'B2 16,16',
    ]);
    expect(verifyCutting(problem, cutting)).toEqual([]);
    expect([0, 25, 26, 51, 52, 701, 702].map(rowLetters)).toEqual(['A', 'Z', 'AA', 'AZ', 'BA', 'ZZ', 'AAA']);
  });
});
