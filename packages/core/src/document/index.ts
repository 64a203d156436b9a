export * from './schema.ts';
export {
  KINDS_OF_DISPLAY,
  SCHOOLS,
  STANCES,
  SOURCE_RULES,
  COLOUR_POLICIES,
  BACKS,
  GLUES,
  PLACEHOLDERS,
  RIMS,
  RHYTHMS,
} from './displaySchema.ts';
export { OPENING_USES, PASSAGE_KINDS, TABLE_KINDS } from './venueSchema.ts';
export { FURNITURE_USES, type FurnitureUse } from './briefSchema.ts';
export * from './scene.ts';
export * from './change.ts';
export { drain, reduce, reduceSteps, type Refusal, type Reduction } from './reduce.ts';
export { authorOf, isAuthored, stamped, type Author, type Stamp } from './authorship.ts';
export * from './undo.ts';
export {
  FILE_FORMAT,
  FILE_VERSION,
  MAX_FILE_BYTES,
  publishedSchema,
  readDocument,
  readFile,
  sceneFrom,
  writeFile,
  type Reading,
} from './file.ts';
export { MAX_NESTING, depthOf } from './nesting.ts';
export { MAX_FOOTPRINT, line, prose } from './fields.ts';
export * from './permission.ts';
export { blankDisplay, presetSchema, PRESETS, type Preset } from './presets.ts';
export { fromRows, readScene, rowSchema, toRows, type EntityRow } from './snapshot.ts';
export { spacesOf, vehiclesOf } from './brief.ts';
export * from './terrainSchema.ts';
export { SEAM_SIDES, edgeSchema, seamSchema, type SeamSide } from './cutSchema.ts';
export * from './dressSchema.ts';
export * from './stockSchema.ts';
export { MAX_PROPOSED, THREAD_STATES, type ThreadState } from './crewSchema.ts';
export * from './crew.ts';
export { DRYINGS, STAGES, WORKS, isZone, type Drying, type Stage, type Work } from './workSchema.ts';
export * from './place.ts';
export * from './track.ts';
export { deltaOf, withDelta, type Delta } from './delta.ts';
export * from './edit.ts';
export { daysBetween, nextUpdate, updateDays } from './days.ts';
