export * from './problem.ts';
export { solveCut, type SolveOptions } from './solve.ts';
export { verifyCutting } from './verify.ts';
export { rowLetters } from './plan.ts';
export { cutProblemOf, adoptCutting, baseNeeds, type BaseNeed, type SceneProblem } from './fromScene.ts';
