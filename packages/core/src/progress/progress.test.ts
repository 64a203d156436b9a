import { sceneFrom } from '../document/index.ts';
import { STEPS, progressOf, stepsDone, workDone } from './index.ts';

const section = (letter: string, w: number, stage: 'planned' | 'ground' | 'done', stageDone = 0) => ({
  id: letter.toLowerCase(),
  letter,
  name: letter,
  x: 0,
  y: 0,
  w,
  d: 10,
  stage,
  stageDone,
});

test('sections count by area, the begun stage in part (worked by hand)', () => {
  const scene = sceneFrom({
    display: { name: 'P', kind: 'city' },
    sections: [section('A', 30, 'done', 40), section('B', 10, 'ground', 50)],
  });
  // B: 5 + 10 + half of 30 parts of 100. (300 × 1 + 100 × 0.3) / 400, and 4.5 of 7 steps left.
  expect(progressOf(scene)).toEqual({
    sections: 2,
    area: 400,
    done: expect.closeTo((300 + 30) / 400, 12),
    toGo: 4.5,
  });
  expect(STEPS).toBe(7);
  expect(stepsDone(section('A', 1, 'planned'))).toBe(0);
});
test('weights are the display’s own; a stage without one is passed over, and without any all count alike', () => {
  const own = (stageWeights: number[]) =>
    sceneFrom({
      display: { name: 'P', kind: 'city', stageWeights },
      sections: [section('B', 10, 'ground', 50)],
    });
  const done = (weights: number[]) => workDone(own(weights), section('B', 10, 'ground', 50));
  expect(done([0, 1, 1, 0, 0, 0, 0])).toBeCloseTo(0.75, 12);
  expect(done([0, 0, 0, 0, 0, 0, 0])).toBeCloseTo(2.5 / 7, 12);
});
test('no section, nothing done and nothing to go', () => {
  expect(progressOf(sceneFrom({ display: { name: 'P', kind: 'city' } }))).toEqual({
    sections: 0,
    area: 0,
    done: 0,
    toGo: 0,
  });
});
