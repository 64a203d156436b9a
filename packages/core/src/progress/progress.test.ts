import { sceneFrom } from '../scene/index.ts';
import { STEPS, progressOf, stepsDone } from './index.ts';

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
  // B: 2.5 of 7 steps. (300 × 1 + 100 × 2.5 / 7) / 400, and 4.5 steps left.
  expect(progressOf(scene)).toEqual({
    sections: 2,
    area: 400,
    done: expect.closeTo((300 + 250 / 7) / 400, 12),
    toGo: 4.5,
  });
  expect(STEPS).toBe(7);
  expect(stepsDone(section('A', 1, 'planned'))).toBe(0);
});
test('no section, nothing done and nothing to go', () => {
  expect(progressOf(sceneFrom({ display: { name: 'P', kind: 'city' } }))).toEqual({
    sections: 0,
    area: 0,
    done: 0,
    toGo: 0,
  });
});
