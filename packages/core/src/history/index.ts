export { fieldWord, unitOf, valueWord } from './words.ts';
export {
  describeBatch,
  describeLog,
  type Entry,
  type ChangeDescription,
  type DescribedEntry,
} from './sentences.ts';
export { countOps, replay, restoring, takeBackBatch, type TakingBack } from './past.ts';
export { handoverWords, holdingsOf, type Holding, type Wait } from './holdings.ts';
export {
  reportMarkdown,
  reportSince,
  sinceReportSchema,
  spanWords,
  workWords,
  type Missing,
  type SinceReport,
} from './report.ts';
export {
  compareTotals,
  findsOf,
  storyOf,
  totalsOf,
  type Find,
  type StoryScene,
  type Total,
  type TotalChange,
} from './visitors.ts';
export { publicProgress, publicScene, type PublicSection } from './public.ts';
export * from './shares.ts';
