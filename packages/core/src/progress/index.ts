export { STEPS, progressOf, stepsDone, workDone, type Progress } from './steps.ts';
export { earnedIndices, pert, type EarnedIndices, type EarnedValue, type ThreeGuesses } from './earned.ts';
export { DEFAULT_RATES, MIN_SESSIONS, hoursBySection, methodOf, rateOf, type Rate } from './rates.ts';
export { earnedValue, effortOf, pieceCounts, type Earned, type Effort, type PieceCounts } from './effort.ts';
export {
  RandomDraws,
  chanceBy,
  dayOf,
  draw,
  forecast,
  type Forecast,
  type ForecastProblem,
  type LeftWork,
} from './forecast.ts';
export { uniformFrom } from './chance.ts';
export { bestEvening, type EveningTask } from './tonight.ts';
export {
  circleOf,
  guessOf,
  hoursAhead,
  outlook,
  showsOf,
  type Outlook,
  type OutlookAnswer,
} from './outlook.ts';
export { clockIn, dateIn, momentOf } from './days.ts';
export { offeredTasks, type AskedOf, type CountedBlock, type OfferedTask } from './tasks.ts';
export { eveningOf, type Evening, type EveningAsk } from './evening.ts';
export {
  DAY_WORDS,
  concerns,
  dayLine,
  daysAhead,
  sittings,
  together,
  type Day,
  type Sitting,
  type Together,
} from './agenda.ts';
export { PACE_BOUNDS, dayClock, slotsOf, type ClockRow, type DayClock } from './dayClock.ts';
export { burnUp, plannedLine, type BurnUp } from './burnUp.ts';
export { IDLE_DAYS, LATE_DAYS, sectionSchedules, type SectionSchedule } from './schedule.ts';
