/** Cutting: time to the first answer, the gap after one, three and ten seconds, and plain HiGHS given the same time. */
import loadHighs from 'highs';
import { plainExact, solveCut, type CutProblem, type Cutting } from '../packages/core/src/cut/index.ts';
import type { Row } from './table.ts';

const BASES = [
  { w: 48, d: 48, price: 14, stock: 3 },
  { w: 32, d: 32, price: 7.5, stock: 2 },
  { w: 16, d: 32, price: 5, stock: 4 },
];
const common = { bases: BASES, module: { maxW: 96, maxD: 48 }, weights: { module: 5, seam: 0.05 } };

interface Bench {
  name: string;
  /** The gap to be had after ten seconds, %. */
  aim: number;
  problem: CutProblem;
}

/** The four sizes that the design speaks of; the larger ones have corners, holes, keeps and dear strips. */
const SIZES: Bench[] = [
  { name: '96×96', aim: 1, problem: { ...common, region: [{ x: 0, y: 0, w: 96, d: 96 }] } },
  {
    name: '144×96',
    aim: 1,
    problem: {
      ...common,
      region: [{ x: 0, y: 0, w: 144, d: 96 }],
      keep: [
        { x: 16, y: 0, w: 32, d: 32 },
        { x: 48, y: 32, w: 40, d: 32 },
        { x: 104, y: 48, w: 32, d: 32 },
      ],
      seamCost: [{ x: 0, y: 56, w: 144, d: 16, cost: 3 }],
    },
  },
  {
    name: '240×144, an L',
    aim: 2,
    problem: {
      ...common,
      region: [
        { x: 0, y: 0, w: 240, d: 80 },
        { x: 0, y: 80, w: 144, d: 64 },
      ],
      keep: [
        { x: 24, y: 16, w: 32, d: 24 },
        { x: 88, y: 24, w: 40, d: 32 },
        { x: 160, y: 8, w: 24, d: 40 },
        { x: 200, y: 32, w: 32, d: 32 },
        { x: 16, y: 88, w: 40, d: 40 },
        { x: 72, y: 96, w: 24, d: 24 },
      ],
      seamCost: [
        { x: 0, y: 56, w: 240, d: 16, cost: 3 },
        { x: 120, y: 0, w: 16, d: 144, cost: 2 },
      ],
    },
  },
  {
    name: '480×320 with holes',
    aim: 5,
    problem: {
      ...common,
      bases: [
        ...BASES.map((base) => ({ ...base, stock: base.stock * 5 })),
        { w: 48, d: 32, price: 10, stock: 4 },
      ],
      region: [
        { x: 0, y: 0, w: 480, d: 128 },
        { x: 0, y: 128, w: 208, d: 80 },
        { x: 272, y: 128, w: 208, d: 80 },
        { x: 0, y: 208, w: 480, d: 48 },
        { x: 0, y: 256, w: 336, d: 64 },
        { x: 384, y: 256, w: 96, d: 64 },
      ],
      // Forty buildings on a loose grid, none across a hole.
      keep: Array.from({ length: 40 }, (_, i) => ({
        x: (i % 10) * 48 + (i % 3) * 8,
        y: [8, 64, 208, 264][Math.trunc(i / 10)],
        w: [24, 32, 16][i % 3],
        d: [24, 16, 32][(i * 7) % 3],
      })).filter(({ x, y, w, d }) => y + d <= 256 || x + w <= 336 || x >= 384),
      seamCost: [
        { x: 0, y: 40, w: 480, d: 16, cost: 3 },
        { x: 0, y: 240, w: 480, d: 16, cost: 2 },
        { x: 144, y: 0, w: 24, d: 320, cost: 2 },
      ],
    },
  },
];

/** The largest once more with a base that fits no coarser step than 8 studs: four times the cells, sixteen times the modules. */
export const CUT_BENCHES: Bench[] = [
  ...SIZES,
  ...SIZES.slice(-1).map(({ name, aim, problem }) => ({
    name: `${name}, steps of 8`,
    aim,
    problem: { ...problem, bases: [...problem.bases, { w: 24, d: 24, price: 5.5, stock: 8 }] },
  })),
];

const SECONDS = 10;
const MARKS = [1, 3, SECONDS];

export async function benchCut(): Promise<Row[]> {
  const highs = await loadHighs();
  const rows: Row[] = [];
  for (const { name, aim, problem } of CUT_BENCHES) {
    const seen: Cutting[] = [];
    const answer = solveCut(problem, {
      seconds: SECONDS,
      now: () => performance.now(),
      highs,
      onProgress: (cutting) => seen.push(cutting),
    });
    if (!answer.feasible) throw new Error(answer.reasons.join(' '));
    const last = answer.cutting;
    const at = (seconds: number) => seen.findLast((cutting) => cutting.seconds <= seconds) ?? seen[0];
    rows.push({
      what: `cut ${name}: first answer`,
      measured: seen[0].seconds * 1000,
      unit: 'ms',
      aim: 300,
      better: 'less',
    });
    for (const mark of MARKS)
      rows.push({
        what: `cut ${name}: gap after ${mark} s${mark === SECONDS ? `; best known ${last.cost.total.toFixed(2)}, at least ${last.bound.toFixed(2)}` : ''}`,
        measured: at(mark).gap * 100,
        unit: '%',
        ...(mark === SECONDS ? { aim } : {}),
        better: 'less',
      });
    const plain = plainExact(problem, highs, SECONDS);
    rows.push({
      what: `cut ${name}: its cost against plain HiGHS in the same time${plain === null ? ' (which found none)' : ` (${plain.toFixed(2)})`}`,
      measured: plain === null ? 0 : last.cost.total / plain,
      unit: '×',
      aim: 1,
      better: 'less',
    });
  }
  return rows;
}
