/** Time to the first cutting, and the gap after ten seconds; the problems grow. */
import loadHighs from 'highs';
import { solveCut, type CutProblem } from '../packages/core/src/cut/index.ts';
import type { Row } from './table.ts';

const BASES = [
  { w: 48, d: 48, price: 14, stock: 3 },
  { w: 32, d: 32, price: 7.5, stock: 2 },
  { w: 16, d: 32, price: 5, stock: 4 },
];
const common = { bases: BASES, module: { maxW: 96, maxD: 48 }, weights: { module: 5, seam: 0.05 } };
const PROBLEMS: { name: string; problem: CutProblem }[] = [
  { name: 'cut 144×96, three bases', problem: { ...common, region: [{ x: 0, y: 0, w: 144, d: 96 }] } },
  {
    name: 'cut 144×96 with keeps and dear seams',
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
];

export async function benchCut(): Promise<Row[]> {
  const highs = await loadHighs();
  return PROBLEMS.flatMap(({ name, problem }) => {
    let first = Infinity;
    const answer = solveCut(problem, {
      seconds: 10,
      now: () => performance.now(),
      highs,
      onProgress: ({ seconds }) => (first = Math.min(first, seconds * 1000)),
    });
    if (!answer.feasible) throw new Error(answer.reasons.join(' '));
    const { gap, seconds } = answer.cutting;
    return [
      { what: `${name}: first answer`, measured: first, unit: 'ms', aim: 300, better: 'less' },
      {
        what: `${name}: gap after ${seconds.toFixed(1)} s`,
        measured: gap * 100,
        unit: '%',
        aim: 2,
        better: 'less',
      },
    ] satisfies Row[];
  });
}
