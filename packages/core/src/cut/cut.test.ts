import fc from 'fast-check';
import loadHighs, { type Highs } from 'highs';
import { partOf } from '../catalogue/index.ts';
import { reduce, sceneFrom } from '../document/index.ts';
import {
  adoptCutting,
  baseNeeds,
  byHand,
  cutProblemOf,
  cutProblemSchema,
  rimsOf,
  solveCut,
  verifyCutting,
  type CutProblem,
  type Cutting,
} from './index.ts';
import { runs } from '../../test/runs.ts';

let highs: Highs;
beforeAll(async () => {
  highs = await loadHighs();
});
const clock = () => performance.now();
const solve = (problem: CutProblem, seconds = 20) => {
  const answer = solveCut(problem, { seconds, now: clock, highs });
  if (!answer.feasible) throw new Error(answer.reasons.join(' '));
  return answer.cutting;
};
const cell = (x: number, y: number, w = 1, d = 1) => ({ x: x * 8, y: y * 8, w: w * 8, d: d * 8 });
const FREE = { w: 8, d: 8, price: 0, stock: 0 };

/** Cells of a picture: '#' is region. */
const region = (...rows: string[]) =>
  rows.flatMap((row, y) => [...row].flatMap((c, x) => (c === '#' ? [cell(x, y)] : [])));
const fewest = (...rows: string[]): CutProblem => ({
  region: region(...rows),
  bases: [FREE],
  module: { maxW: 800, maxD: 800 },
  weights: { module: 1, seam: 0 },
});

describe('minimum rectangle partitions (Ohtsuki 1982; Ferrari, Sankar, Sklansky 1984)', () => {
  // pieces = reflex corners − largest set of good diagonals that do not meet − holes + 1, counted by hand.
  test.each([
    ['a rectangle', fewest('####', '####'), 0 - 0 - 0 + 1],
    ['an L', fewest('##', '#.'), 1 - 0 - 0 + 1],
    ['a T whose two reflex corners share a diagonal', fewest('#####', '.###.'), 2 - 1 - 0 + 1],
    ['a plus: four reflex corners, two parallel diagonals', fewest('.#.', '###', '.#.'), 4 - 2 - 0 + 1],
    ['a ring: four reflex corners, one hole', fewest('###', '#.#', '###'), 4 - 0 - 1 + 1],
    ['a staircase', fewest('#...', '##..', '###.', '####'), 3 - 0 - 0 + 1],
  ])('%s', (_, problem, pieces) => {
    const cutting = solve(problem);
    expect(cutting.modules).toHaveLength(pieces);
    expect(cutting.proven).toBe(true);
  });
});

/** Every partition of a small region, by filling its first open cell; independent of the solver. */
function bruteForce(problem: CutProblem, columns: number, rows: number): number {
  const inside = (x: number, y: number) => problem.region.some((r) => r.x === x * 8 && r.y === y * 8);
  const vectors = (w: number, d: number): number[][] => {
    const found = new Map<string, number[]>();
    const grid = Array.from({ length: d }, () => new Array<boolean>(w).fill(false));
    const counts = problem.bases.map(() => 0);
    const fill = () => {
      for (let y = 0; y < d; y++)
        for (let x = 0; x < w; x++) {
          if (grid[y][x]) continue;
          problem.bases.forEach((base, b) => {
            for (const [bw, bd] of base.w === base.d
              ? [[base.w / 8, base.d / 8]]
              : [
                  [base.w / 8, base.d / 8],
                  [base.d / 8, base.w / 8],
                ]) {
              if (x + bw > w || y + bd > d) continue;
              const cells = Array.from({ length: bw * bd }, (_, i) => [x + (i % bw), y + Math.trunc(i / bw)]);
              if (cells.some(([cx, cy]) => grid[cy][cx])) continue;
              for (const [cx, cy] of cells) grid[cy][cx] = true;
              counts[b]++;
              fill();
              counts[b]--;
              for (const [cx, cy] of cells) grid[cy][cx] = false;
            }
          });
          return;
        }
      found.set(counts.join(), [...counts]);
    };
    fill();
    return [...found.values()];
  };
  const owner = Array.from({ length: rows }, () => new Array<number>(columns).fill(-1));
  let best = Infinity;
  const sizes: [number, number][] = [];
  const baseMoney = (used: number[]) =>
    problem.bases.reduce(
      (sum, { price, stock, max }, b) =>
        used[b] > (max ?? Infinity) ? Infinity : sum + Math.max(0, used[b] - stock) * price,
      0,
    );
  const price = () => {
    let seams = 0;
    for (let y = 0; y < rows; y++)
      for (let x = 0; x < columns; x++)
        for (const [nx, ny] of [
          [x + 1, y],
          [x, y + 1],
        ])
          if (
            nx < columns &&
            ny < rows &&
            owner[y][x] >= 0 &&
            owner[ny][nx] >= 0 &&
            owner[y][x] !== owner[ny][nx]
          )
            seams += 8;
    let uses: number[][] = [problem.bases.map(() => 0)];
    for (const [w, d] of sizes) {
      const next = new Map<string, number[]>();
      for (const use of uses)
        for (const vector of vectors(w, d)) {
          const sum = use.map((n, b) => n + vector[b]);
          next.set(sum.join(), sum);
        }
      uses = [...next.values()];
    }
    const money = Math.min(Infinity, ...uses.map(baseMoney));
    best = Math.min(best, money + problem.weights.module * sizes.length + problem.weights.seam * seams);
  };
  const [long, short] = [
    Math.max(problem.module.maxW, problem.module.maxD) / 8,
    Math.min(problem.module.maxW, problem.module.maxD) / 8,
  ];
  const place = () => {
    for (let y = 0; y < rows; y++)
      for (let x = 0; x < columns; x++) {
        if (!inside(x, y) || owner[y][x] >= 0) continue;
        for (let d = 1; y + d <= rows; d++)
          for (let w = 1; x + w <= columns; w++) {
            if (Math.max(w, d) > long || Math.min(w, d) > short) continue;
            const cells = Array.from({ length: w * d }, (_, i) => [x + (i % w), y + Math.trunc(i / w)]);
            if (cells.some(([cx, cy]) => !inside(cx, cy) || owner[cy][cx] >= 0)) continue;
            for (const [cx, cy] of cells) owner[cy][cx] = sizes.length;
            sizes.push([w, d]);
            place();
            sizes.pop();
            for (const [cx, cy] of cells) owner[cy][cx] = -1;
          }
        return;
      }
    price();
  };
  place();
  return best;
}

describe('optimality', () => {
  const count = fc.integer({ min: 0, max: 3 });
  test('every small region costs what brute force says, or is refused when brute force finds nothing', () => {
    fc.assert(
      fc.property(
        fc.array(fc.boolean(), { minLength: 9, maxLength: 9 }).filter((cells) => cells.some(Boolean)),
        fc.record({
          stock: count,
          max: fc.integer({ min: 0, max: 9 }),
          price: fc.integer({ min: 1, max: 5 }),
          seam: fc.integer({ min: 0, max: 4 }),
        }),
        (cells, { stock, max, price, seam }) => {
          const problem: CutProblem = {
            region: cells.flatMap((on, i) => (on ? [cell(i % 3, Math.trunc(i / 3))] : [])),
            bases: [
              { w: 8, d: 8, price: 2, stock: 1, max },
              { w: 8, d: 16, price, stock },
            ],
            module: { maxW: 24, maxD: 16 },
            weights: { module: 3, seam: seam / 16 },
          };
          const expected = bruteForce(problem, 3, 3);
          const answer = solveCut(problem, { seconds: 10, now: clock, highs });
          if (!answer.feasible) return expected === Infinity;
          expect(answer.cutting.cost.total).toBeCloseTo(expected, 6);
          return answer.cutting.proven;
        },
      ),
      { numRuns: runs(60) },
    );
  }, 60_000);

  test('mass, keeps, pins and dear seams are obeyed, and the first answer comes before the proven one', () => {
    const problem: CutProblem = {
      region: [
        { x: 0, y: 0, w: 96, d: 64 },
        { x: 0, y: 64, w: 48, d: 32 },
      ],
      bases: [
        { w: 48, d: 48, price: 14, stock: 1 },
        { w: 32, d: 32, price: 7.5, stock: 0 },
        { w: 16, d: 32, price: 5, stock: 2 },
        { w: 8, d: 16, price: 2, stock: 0 },
      ],
      module: { maxW: 96, maxD: 48, maxMassKg: 6 },
      mass: {
        cell: 16,
        kg: [
          [0.4, 0.4, 0.9, 0.5, 0.5, 0.5],
          [0.5, 0.6, 0.9],
        ],
      },
      keep: [{ x: 16, y: 0, w: 32, d: 32, name: 'mill' }],
      seamCost: [{ x: 0, y: 40, w: 96, d: 16, cost: 3 }],
      pins: [{ x1: 64, y1: 0, x2: 64, y2: 64 }],
      weights: { module: 5, seam: 0.05 },
    };
    const progress: Cutting[] = [];
    const answer = solveCut(problem, {
      seconds: 20,
      now: clock,
      highs,
      onProgress: (cutting) => progress.push(cutting),
    });
    if (!answer.feasible) throw new Error(answer.reasons.join());
    expect(verifyCutting(problem, answer.cutting)).toEqual([]);
    expect(answer.cutting.proven).toBe(true);
    expect(progress.length).toBeGreaterThan(1);
    for (const step of progress) expect(step.bound).toBeLessThanOrEqual(answer.cutting.cost.total + 1e-6);
    const totals = progress.map(({ cost }) => cost.total);
    expect(totals).toEqual([...totals].sort((a, b) => b - a));
  }, 60_000);

  test('being stopped ends with the best so far', () => {
    const problem: CutProblem = {
      region: [{ x: 0, y: 0, w: 144, d: 96 }],
      bases: [{ w: 48, d: 48, price: 14, stock: 0 }],
      module: { maxW: 96, maxD: 48 },
      weights: { module: 5, seam: 0.05 },
    };
    const answer = solveCut(problem, { seconds: 20, now: clock, highs, stopped: () => true });
    expect(answer.feasible && verifyCutting(problem, answer.cutting)).toEqual([]);
  });
});

describe('the checker', () => {
  /** A perfect squared square of order 21 and side 112 (A. J. W. Duijvestijn 1978), rows of squares from the top. */
  const CODE = [
    [50, 35, 27],
    [8, 19],
    [15, 17, 11],
    [6, 24],
    [29, 25, 9, 2],
    [7, 18],
    [16],
    [42],
    [4, 37],
    [33],
  ];
  const squares = () => {
    const skyline = new Array<number>(112).fill(0);
    return CODE.flatMap((row) => {
      const low = Math.min(...skyline);
      let x = skyline.indexOf(low);
      return row.map((side) => {
        const square = cell(x, low, side, side);
        skyline.fill(low + side, x, x + side);
        x += side;
        return square;
      });
    });
  };
  const fixture = (): [CutProblem, Cutting] => {
    const bases = squares();
    return [
      {
        region: [cell(0, 0, 112, 112)],
        bases: bases.map(({ w, d }) => ({ w, d, price: 1, stock: 1, max: 1 })),
        module: { maxW: 896, maxD: 896 },
        weights: { module: 5, seam: 1 },
      },
      {
        modules: [{ id: 'A1', ...cell(0, 0, 112, 112), bases }],
        bought: [],
        cost: { bases: 0, modules: 5, seams: 0, total: 5 },
        bound: 5,
        gap: 0,
        proven: true,
        seconds: 0,
      },
    ];
  };
  test('takes the squared square as an exact cover', () => expect(verifyCutting(...fixture())).toEqual([]));
  test.each<[string, (problem: CutProblem, cutting: Cutting) => void, string]>([
    [
      'two squares swapped',
      (_, { modules: [{ bases }] }) => ([bases[0].x, bases[1].x] = [bases[1].x, bases[0].x]),
      'overlap',
    ],
    ['a base left out', (_, { modules: [{ bases }] }) => bases.pop(), 'leave part of it open'],
    ['a size that is not listed', (problem) => problem.bases.pop(), 'not on the list'],
    ['more than the most', (problem) => (problem.bases[0].max = 0), 'the most is 0'],
    ['a wrong cost', (_, cutting) => (cutting.cost.total = 4), 'The cost of total'],
    ['a bound above the cost', (_, cutting) => (cutting.bound = 6), 'above the cost'],
    ['too large a module', (problem) => (problem.module.maxW = 8), 'the most is 8'],
    ['uncovered ground', (problem) => problem.region.push(cell(112, 0)), 'No module covers 896,0'],
    ['a module outside', (problem) => (problem.region = [cell(0, 0, 112, 111)]), 'leaves the region'],
    ['a pin without a seam', (problem) => (problem.pins = [{ x1: 8, y1: 0, x2: 8, y2: 8 }]), 'pinned seam'],
  ])('sees %s', (_, spoil, words) => {
    const [problem, cutting] = fixture();
    spoil(problem, cutting);
    expect(verifyCutting(problem, cutting).join(' ')).toContain(words);
  });
});

describe('what cannot be cut says why', () => {
  const base: CutProblem = {
    region: [cell(0, 0, 4, 4)],
    bases: [{ w: 16, d: 16, price: 1, stock: 0 }],
    module: { maxW: 16, maxD: 16 },
    weights: { module: 1, seam: 0 },
  };
  test.each<[string, Partial<CutProblem>, string]>([
    [
      'a keep larger than any module',
      { keep: [{ ...cell(0, 0, 3, 1), name: 'mill' }] },
      '“mill” is 24 × 8 studs; the largest module is 16 × 16',
    ],
    [
      'a pin through a keep',
      { keep: [{ ...cell(0, 0, 2, 1), name: 'mill' }], pins: [{ x1: 8, y1: 0, x2: 8, y2: 32 }] },
      'cuts “mill”',
    ],
    ['a keep outside', { keep: [{ ...cell(3, 0, 2, 1), name: 'mill' }] }, '“mill” leaves the region at 32,0'],
    [
      'no base that fits',
      { bases: [{ w: 24, d: 24, price: 1, stock: 0 }] },
      'The studs at 24,0 cannot be covered: every base is a multiple of 24 studs',
    ],
    [
      'no base that fits the module',
      { bases: [{ w: 8, d: 24, price: 1, stock: 0 }] },
      '1,024 studs cannot be covered',
    ],
    [
      'a pin between the steps of the bases',
      { pins: [{ x1: 8, y1: 0, x2: 8, y2: 32 }] },
      'cannot be: every base',
    ],
    [
      'a base listed twice',
      {
        bases: [
          { w: 8, d: 16, price: 1, stock: 0 },
          { w: 16, d: 8, price: 2, stock: 0 },
        ],
      },
      'listed twice',
    ],
    ['too few bases', { bases: [{ w: 16, d: 16, price: 1, stock: 0, max: 3 }] }, 'No set of modules'],
    ['a crooked pin', { pins: [{ x1: 0, y1: 0, x2: 8, y2: 8 }] }, 'not a straight seam'],
  ])('%s', (_, change, words) => {
    const answer = solveCut({ ...base, ...change }, { seconds: 5, now: clock, highs });
    expect(answer).toEqual({
      feasible: false,
      reasons: expect.arrayContaining([expect.stringContaining(words)]),
    });
  });
  test('numbers off the lattice are refused by the schema', () => {
    const read = cutProblemSchema.safeParse({ ...base, region: [{ x: 0, y: 0, w: 20, d: 8 }] });
    expect(read.error?.issues[0].message).toContain('multiple of 8');
  });
});

describe('from a scene and back', () => {
  const scene = () =>
    sceneFrom({
      display: { name: 'Row', kind: 'city' },
      footprint: [{ id: 'f', name: 'Row', x: 3, y: 5, w: 96, d: 32 }],
      plots: [
        { id: 'a', name: 'Baker', x: 36, y: 5, w: 31, d: 32, height: 30 },
        { id: 'b', name: 'Stray', x: 90, y: 5, w: 32, d: 16, height: 9 },
      ],
      bases: [{ id: 'big', w: 32, d: 32, price: 7.5, stock: 1 }],
    });
  test('plots become keeps of whole cells; a plot that leaves the scene does not block', () => {
    const stated = cutProblemOf(scene());
    if (!stated.ok) throw new Error(stated.reasons.join());
    expect(stated.origin).toEqual({ x: 3, y: 5 });
    expect(stated.problem.keep).toEqual([{ x: 32, y: 0, w: 32, d: 32, name: 'Baker' }]);
    const cutting = solve(stated.problem);
    const adopted = reduce(scene(), adoptCutting(scene(), cutting, stated.origin));
    if (!adopted.ok) throw new Error(adopted.refusal.sentence);
    expect(baseNeeds(adopted.scene)).toMatchObject([{ needed: 3, owned: 1, short: 2, cost: 15 }]);
    expect(adoptCutting(adopted.scene, cutting, stated.origin)).toEqual([]);
  });
  test('a footprint without bases says so; what no base fits can still be cut by hand', () => {
    const odd = (more: object) =>
      sceneFrom({
        display: { name: 'Odd', kind: 'city' },
        footprint: [{ id: 'f', name: 'Row', x: 0, y: 0, w: 100, d: 7 }],
        ...more,
      });
    const reasons = (more: object) => {
      const stated = cutProblemOf(odd(more));
      return stated.ok ? [] : stated.reasons;
    };
    expect(reasons({})).toEqual([expect.stringContaining('No base sizes')]);
    const small = { bases: [{ id: 'b', w: 1, d: 1, price: 1, stock: 0 }] };
    expect(reasons(small)).toEqual([expect.stringContaining('None of the bases listed (1 × 1)')]);
    const wide = { bases: [{ id: 'b', w: 8, d: 8, price: 1, stock: 0 }] };
    expect(reasons(wide)).toEqual([expect.stringContaining('No base of 8 × 8 studs fits')]);
    const begun = byHand(odd(small), { act: 'begin' });
    if (!begun.ok) throw new Error(begun.error);
    const made = reduce(odd(small), begun.changes);
    if (!made.ok) throw new Error(made.refusal.sentence);
    expect(rimsOf(made.scene).reduce((sum, { studs }) => sum + studs, 0)).toBe(700);
  });

  const odd = fc.integer({ min: 9, max: 90 });
  const parts = fc.array(fc.record({ x: fc.nat(60), y: fc.nat(40), w: odd, d: odd }), {
    minLength: 1,
    maxLength: 2,
  });
  const scenes = fc.record({
    parts,
    sizes: fc.constantFrom<[number, number][]>(
      [[8, 8]],
      [
        [8, 8],
        [16, 32],
      ],
      [
        [16, 16],
        [32, 32],
      ],
      [
        [1, 1],
        [8, 16],
        [8, 8],
      ],
    ),
    rim: fc.constantFrom('plates' as const, 'bare' as const),
    max: fc.constantFrom(40, 48, 96),
  });
  test('any footprint can be cut: every stud lies in one module, on its bases or its rim of plates', () => {
    fc.assert(
      fc.property(scenes, fc.boolean(), ({ parts: list, sizes, rim, max }, hand) => {
        const made = sceneFrom({
          display: { name: 'Odd', kind: 'city', rim, moduleMaxW: max, moduleMaxD: 48 },
          footprint: list.map((part, i) => ({ id: `f${i}`, name: 'F', ...part })),
          bases: sizes.map(([w, d], i) => ({ id: `b${i}`, w, d, price: 1, stock: 0 })),
        });
        const changes = () => {
          if (hand) {
            const begun = byHand(made, { act: 'begin' });
            return begun.ok ? begun.changes : null;
          }
          const stated = cutProblemOf(made);
          if (!stated.ok) return null;
          const answer = solveCut(stated.problem, { seconds: 0.3, now: clock });
          return answer.feasible ? adoptCutting(made, answer.cutting, stated.origin) : null;
        };
        const found = changes();
        // Bases of 16 and 32 alone lay no ground that is 8 over: the cutter says so, by hand plates make up for it.
        if (!found) return void expect([hand, sizes.every(([w]) => w % 16 === 0)]).toEqual([false, true]);
        const after = reduce(made, found);
        if (!after.ok) throw new Error(after.refusal.sentence);
        const modules = Object.values(after.scene.module);
        const count = new Map<string, number>();
        const each = (r: { x: number; y: number; w: number; d: number }, visit: (key: string) => void) => {
          for (let y = r.y; y < r.y + r.d; y++) for (let x = r.x; x < r.x + r.w; x++) visit(`${x} ${y}`);
        };
        const ground = new Set<string>();
        for (const part of list) each(part, (key) => ground.add(key));
        let laid = 0;
        for (const module of modules) {
          each(module, (key) => count.set(key, (count.get(key) ?? 0) + 1));
          expect([
            Math.max(module.w, module.d) <= Math.max(max, 48),
            Math.min(module.w, module.d) <= Math.min(max, 48),
          ]).toEqual([true, true]);
          const own = new Set<string>();
          for (const base of module.bases) each(base, (key) => own.add(key));
          const area = module.bases.reduce((sum, { w, d }) => sum + w * d, 0);
          expect(own.size).toBe(area);
          each(module, (key) => own.delete(key));
          expect(own.size).toBe(0);
          laid += area;
        }
        expect([...count.values()].every((times) => times === 1)).toBe(true);
        expect([...count.keys()].every((key) => ground.has(key))).toBe(true);
        if (rim === 'plates' || hand) expect(count.size).toBe(ground.size);
        const rims = rimsOf(after.scene);
        expect(laid + rims.reduce((sum, { studs }) => sum + studs, 0)).toBe(count.size);
        for (const { studs, pieces } of rims) {
          const plates = pieces.map(({ part, qty }) => qty * (partOf(part)?.w ?? 0) * (partOf(part)?.d ?? 0));
          expect(plates.reduce((sum, area) => sum + area, 0)).toBe(studs);
        }
      }),
      { numRuns: runs(40) },
    );
  });
  test('no region is refused that squares can cover (its rows shifted by half a square too)', () => {
    const rows = fc.array(
      fc.record({ x: fc.nat(3), w: fc.integer({ min: 1, max: 5 }), d: fc.integer({ min: 1, max: 3 }) }),
      {
        minLength: 1,
        maxLength: 4,
      },
    );
    fc.assert(
      fc.property(rows, (list) => {
        let down = 0;
        const region = list.map(({ x, w, d }) => {
          const part = { x: 8 * x, y: 8 * down, w: 8 * w, d: 8 * d };
          down += d;
          return part;
        });
        const left = new Set<string>();
        for (const { x, y, w, d } of region)
          for (let row = y; row < y + d; row += 8)
            for (let col = x; col < x + w; col += 8) left.add(`${row / 8} ${col / 8}`);
        // The first open square, row by row, must hold the corner of a base of 16 × 16: there is no choice.
        const order = [...left]
          .map((key) => key.split(' ').map(Number))
          .sort((a, b) => a[0] - b[0] || a[1] - b[1]);
        const covers = order.every(([row, col]) => {
          if (!left.has(`${row} ${col}`)) return true;
          return [`${row} ${col}`, `${row} ${col + 1}`, `${row + 1} ${col}`, `${row + 1} ${col + 1}`].every(
            (key) => left.delete(key),
          );
        });
        const answer = solveCut(
          {
            region,
            bases: [{ w: 16, d: 16, price: 3, stock: 0 }],
            module: { maxW: 64, maxD: 32 },
            weights: { module: 2, seam: 0.05 },
          },
          { seconds: 2, now: clock, highs },
        );
        expect(answer.feasible).toBe(covers);
      }),
      { numRuns: runs(120) },
    );
  });
});
