/** What a change costs in rules, and a reload in counting: the demo, and a display of 480 × 320 studs. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { RuleEvaluator, evaluateRules } from '../packages/core/src/findings/index.ts';
import { CountCache } from '../packages/core/src/masonry/index.ts';
import { materialsOf } from '../packages/core/src/materials/index.ts';
import { compile, recompile, type Compiled } from '../packages/core/src/terrain/index.ts';
import { listOf, readFile, reduce, type Scene } from '../packages/core/src/document/index.ts';
import { largeScene } from './relief.ts';
import { median, type Row } from './table.ts';

const TODAY = '2031-06-01';

function demo(): Scene {
  const read = readFile(readFileSync(join(__dirname, '../demo/skarn-edge.quarry.json'), 'utf8'));
  if (!read.ok) throw new Error(read.error);
  return read.scene;
}

/** A scene and its relief after its first hill went a stud east, or back. */
function shifted(scene: Scene, compiled: Compiled, by: number): { scene: Scene; compiled: Compiled } {
  const [hill] = listOf(scene, 'hill');
  const done = reduce(scene, [
    { op: 'patch', kind: 'hill', id: hill.id, v: hill.v, set: { x: hill.x + by } },
  ]);
  if (!done.ok) throw new Error(done.refusal.sentence);
  return { scene: done.scene, compiled: recompile(compiled, done.scene).compiled };
}

/** Time to evaluate a hill moved by a stud, ms: all rules, those that its change reaches, and what is told of it first. */
function hillTimes(first: Scene): {
  all: number;
  again: number;
  soon: number;
  ran: number;
  ranSoon: number;
  rules: number;
} {
  const compiled = compile(first);
  const materials = materialsOf(first, compiled, new CountCache());
  if (!materials) throw new Error('the count was ended');
  const known = { today: TODAY, counted: materials.count.mass, rows: materials.rows };
  const evaluator = new RuleEvaluator();
  evaluator.evaluate(first, { ...known, relief: compiled.relief });
  const rules = evaluator.ran.length;
  // Prepared before the clock runs: what is measured is the evaluation.
  const steps = [shifted(first, compiled, 1)];
  while (steps.length < 20) {
    const last = steps[steps.length - 1];
    steps.push(shifted(last.scene, last.compiled, steps.length % 2 ? -1 : 1));
  }
  let at = 0;
  // All first, so that what is compared runs as compiled as the other.
  const all = median(12, () => {
    const step = steps[at++ % steps.length];
    evaluateRules(step.scene, { ...known, relief: step.compiled.relief });
  });
  const again = median(12, () => {
    const step = steps[at++ % steps.length];
    evaluator.evaluate(step.scene, { ...known, relief: step.compiled.relief });
  });
  const ran = evaluator.ran.length;
  const soon = median(12, () => {
    const step = steps[at++ % steps.length];
    evaluator.evaluateSoon(step.scene, { ...known, relief: step.compiled.relief });
  });
  return { all, again, soon, ran, ranSoon: evaluator.ran.length, rules };
}

/** Time to take needs from counts that were kept, ms, as a reload does. */
function reloadTime(scene: Scene): number {
  const compiled = compile(scene);
  const first = new CountCache();
  first.count(scene, compiled);
  const kept = structuredClone(first.current);
  return median(5, () => {
    const cache = new CountCache();
    cache.load(kept);
    materialsOf(scene, compiled, cache);
  });
}

export function benchFindings(): Row[] {
  const hill = hillTimes(demo());
  return [
    { what: 'demo: a hill moved by a stud, every rule', measured: hill.all, unit: 'ms', better: 'less' },
    {
      what: `… all that it reaches, ${hill.ran} of ${hill.rules} rules`,
      measured: hill.again,
      unit: 'ms',
      better: 'less',
    },
    {
      what: `… told first, without sight lines and the show: ${hill.ranSoon} rules`,
      measured: hill.soon,
      unit: 'ms',
      aim: 60,
      better: 'less',
    },
    {
      what: 'demo: needs from kept counts',
      measured: reloadTime(demo()),
      unit: 'ms',
      aim: 150,
      better: 'less',
    },
    {
      what: '480×320: needs from kept counts',
      measured: reloadTime(largeScene()),
      unit: 'ms',
      aim: 600,
      better: 'less',
    },
  ];
}
