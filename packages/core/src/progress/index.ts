export { STEPS, progressOf, stepsDone, type Progress } from './steps.ts';
export { earnedIndices, pert, type EarnedIndices, type EarnedValue, type ThreeGuesses } from './earned.ts';
export { DEFAULT_RATES, LEAST_SESSIONS, hoursBySection, rateOf, type Rate } from './rates.ts';
export {
  chanceBy,
  dayOf,
  draw,
  forecast,
  type Forecast,
  type ForecastProblem,
  type LeftWork,
} from './forecast.ts';
export { uniformFrom } from './chance.ts';
export { bestEvening, type Doable } from './tonight.ts';
export {
  daysUntil,
  earnedValue,
  hoursAhead,
  outlook,
  workDone,
  type Outlook,
  type OutlookAnswer,
} from './plan.ts';
