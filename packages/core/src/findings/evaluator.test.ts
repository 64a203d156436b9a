import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { changeOf, randomActs } from '../../test/randomChanges.ts';
import { randomDisplays } from '../../test/randomDisplays.ts';
import { runs } from '../../test/runs.ts';
import { CountCache } from '../masonry/index.ts';
import { materialsOf } from '../materials/index.ts';
import { compile } from '../terrain/index.ts';
import { listOf, readFile, reduce, type Change, type Scene } from '../document/index.ts';
import { RULES, RuleEvaluator, evaluateRules } from './index.ts';
import { Computation, Input, Tracker } from './tracker.ts';

const TODAY = '2031-06-01';

const demo = (): Scene => {
  const text = readFileSync(join(import.meta.dirname, '../../../../demo/skarn-edge.quarry.json'), 'utf8');
  const read = readFile(text);
  if (!read.ok) throw new Error(read.error);
  return read.scene;
};

/** A scene after a change that the reducer takes. */
function after(scene: Scene, change: Change): Scene {
  const done = reduce(scene, [change]);
  if (!done.ok) throw new Error(done.refusal.sentence);
  return done.scene;
}

describe('tracked computations', () => {
  test('run again only when what they read is another, along the branch that was taken', () => {
    const tracker = new Tracker();
    const [flag, left, right] = [new Input(tracker, true), new Input(tracker, 1), new Input(tracker, 10)];
    const runsOf = { sum: 0, double: 0 };
    const sum = new Computation(tracker, () => {
      runsOf.sum++;
      return flag.read() ? left.read() : right.read();
    });
    const double = new Computation(tracker, () => {
      runsOf.double++;
      return 2 * sum.read();
    });
    expect([double.read(), runsOf]).toEqual([2, { sum: 1, double: 1 }]);
    right.set(11);
    expect([double.read(), runsOf]).toEqual([2, { sum: 1, double: 1 }]);
    left.set(2);
    expect([double.read(), runsOf]).toEqual([4, { sum: 2, double: 2 }]);
    flag.set(false);
    left.set(3);
    expect([double.read(), runsOf]).toEqual([22, { sum: 3, double: 3 }]);
    left.set(4);
    expect([double.read(), runsOf]).toEqual([22, { sum: 3, double: 3 }]);
  });

  test('a computation that throws keeps nothing and is tried again', () => {
    const tracker = new Tracker();
    const input = new Input(tracker, 0);
    const inverse = new Computation(tracker, () => {
      if (input.read() === 0) throw new RangeError('0 has no inverse');
      return 1 / input.read();
    });
    expect(() => inverse.read()).toThrow(RangeError);
    expect(tracker.reading).toBeNull();
    input.set(4);
    expect(inverse.read()).toBe(0.25);
  });
});

describe('rules evaluated one change after the other', () => {
  test('what a change cannot touch is not evaluated again; a counted mass wakes only what reads masses', () => {
    let scene = demo();
    const evaluator = new RuleEvaluator();
    const compiled = compile(scene);
    const evaluate = (counted: Parameters<typeof evaluator.evaluate>[1] = {}) => {
      evaluator.evaluate(scene, { today: TODAY, relief: compiled.relief, ...counted });
      return evaluator.ran;
    };
    const all = evaluate().length;
    expect(all).toBeGreaterThan(90);
    expect(evaluate()).toEqual([]);
    const [task] = listOf(scene, 'task');
    scene = after(scene, { op: 'patch', kind: 'task', id: task.id, v: task.v, set: { name: 'Sweep' } });
    const ofTask = evaluate();
    expect(ofTask).toContain('task-late');
    expect(ofTask.length).toBeLessThan(10);
    const materials = materialsOf(scene, compiled, new CountCache());
    const ofMass = evaluate({ counted: materials?.count.mass ?? null });
    expect(ofMass).toEqual(expect.arrayContaining(['table-load', 'module-heavy', 'overhang-heavy']));
    expect(ofMass).not.toContain('raw-edge');
    expect(ofMass.length).toBeLessThan(all / 8);
  });

  test('soon after a change all is told but what asks sight lines or the show; the next evaluation brings those', () => {
    let scene = demo();
    const evaluator = new RuleEvaluator();
    const known = { today: TODAY };
    // Nothing is put off of what was never found.
    expect(evaluator.evaluateSoon(scene, known)).toEqual({
      findings: evaluateRules(scene, known),
      isWhole: true,
    });
    const asked = ['tall-first', 'scene-unseen', 'tunnel-deep', 'load-trips', 'setup-short'];
    expect(evaluator.ran).toEqual(expect.arrayContaining(asked));
    const before = evaluateRules(scene, known);
    const [hill] = listOf(scene, 'hill');
    scene = after(scene, {
      op: 'patch',
      kind: 'hill',
      id: hill.id,
      v: hill.v,
      set: { x: hill.x + 8, height: 1 },
    });
    const soon = evaluator.evaluateSoon(scene, known);
    expect(soon.isWhole).toBe(false);
    expect(evaluator.ran.filter((id) => asked.includes(id))).toEqual([]);
    const fresh = evaluateRules(scene, known);
    const without = (list: typeof fresh) => list.filter(({ rule }) => !asked.includes(rule));
    const putOff = new Set(RULES.map(({ id }) => id).filter((id) => !evaluator.ran.includes(id)));
    // What ran is as found afresh, what was put off as before.
    expect(soon.findings.filter(({ rule }) => !putOff.has(rule))).toEqual(
      fresh.filter(({ rule }) => !putOff.has(rule)),
    );
    expect(soon.findings.filter(({ rule }) => asked.includes(rule))).toEqual(
      before.filter(({ rule }) => asked.includes(rule)),
    );
    expect(without(fresh)).not.toEqual(without(before));
    expect(evaluator.evaluate(scene, known)).toEqual(fresh);
    expect(evaluator.ran.length).toBeGreaterThan(0);
    expect(evaluator.evaluateSoon(scene, known).findings).toEqual(fresh);
  });

  test('after any changes the findings are those of a fresh evaluation', () => {
    fc.assert(
      fc.property(randomDisplays, randomActs, (first, acts) => {
        const evaluator = new RuleEvaluator();
        let scene = first;
        expect(evaluator.evaluate(scene, { today: TODAY })).toEqual(evaluateRules(scene, { today: TODAY }));
        for (const one of acts) {
          const change = changeOf(scene, one);
          const done = change && reduce(scene, [change]);
          if (!done?.ok) continue;
          scene = done.scene;
          // Whether or not some of it was told before.
          if (scene.removed !== first.removed || acts.length % 2 === 0)
            evaluator.evaluateSoon(scene, { today: TODAY });
          expect(evaluator.evaluate(scene, { today: TODAY })).toEqual(evaluateRules(scene, { today: TODAY }));
        }
      }),
      { numRuns: runs(25) },
    );
  });
});
