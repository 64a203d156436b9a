export * from './schema.ts';
export * from './stand.ts';
export { DECK_SUPPORTS } from './kinds/deck.ts';
export { CAVITY_USES } from './kinds/cavity.ts';
export {
  BACKS,
  GLUES,
  KINDS_OF_DISPLAY,
  PLACEHOLDERS,
  RHYTHMS,
  RIMS,
  SCHOOLS,
  SOURCE_RULES,
  STANCES,
} from './kinds/display.ts';
export { ALIAS_ABOUT } from './kinds/alias.ts';
export { isZone, zoneSchema } from './kinds/calendar.ts';
export {
  CHARACTER_FORMS,
  type CharacterForm,
  CHARACTER_SOURCES,
  CHARACTER_STATES,
  ROLE_LENGTH,
} from './kinds/character.ts';
export { FIGURE_STATES, MAX_SPOT, POSES, type SceneSpot } from './kinds/figure.ts';
export { FURNITURE_USES, type FurnitureUse } from './kinds/furnishing.ts';
export { MARKER_STATES } from './kinds/marker.ts';
export { OPENING_USES } from './kinds/opening.ts';
export { ORDER_STATES, type OrderState, ORDER_WORDS, isComing } from './kinds/order.ts';
export { EDGES, MAX_PAD_ORDER } from './kinds/pad.ts';
export { LIST_USES, LIST_PURPOSES } from './kinds/partList.ts';
export { NEEDED } from './kinds/cargo.ts';
export { CHORE_TURNS, SHOW_PHASES } from './kinds/chore.ts';
export { INCIDENT_USES } from './kinds/incident.ts';
export { DEVICE_USES } from './kinds/device.ts';
export { SUPPLY_TYPES } from './kinds/supply.ts';
export { WIRES } from './kinds/circuit.ts';
export { PACKED_AS } from './kinds/handling.ts';
export { PASSAGE_KINDS } from './kinds/passage.ts';
export { MAX_PICTURE } from './kinds/picture.ts';
export {
  CONNECTORS,
  FITTING_USES,
  ROOF_FORMS,
  MOUNTS,
  MOVES,
  PART_USES,
  MAX_RECESSES,
  PLOT_SHAPES,
  STAIR_ENDS,
  MIXED,
  ROUND_ROOFS,
} from './kinds/plotSchema.ts';
export {
  roofFormOf,
  type RoofForm,
  ornamented,
  shellName,
  isShellList,
  isOnHalf,
  wallTop,
  frontSize,
  storeyLevels,
} from './plotFeatures.ts';
export { depthBehind, firstBehind, hasStudBehind, studBehind } from './areaSides.ts';
export {
  isRound,
  areaBounds,
  builtArea,
  footStuds,
  halfOff,
  JUMPER_PLATES,
  areaPieces,
  isBoxed,
  recessFaults,
  recessRect,
  roomArea,
  studsBuilt,
  roomCorners,
  roomStuds,
  wallStuds,
  builtCorners,
  builtRect,
  builtSides,
  insideOf,
  isOverhanging,
  leanAt,
  leaningSlices,
  outerCorners,
  outerOutline,
  outerPieces,
  PAVEMENT_PLATES,
  pavementCorners,
  pavementDepth,
  reachCorners,
  turnRadius,
  plotBounds,
  seamPlaceOf,
  mayCutAt,
  turnedPoint,
  wallCorners,
} from './plotAreas.ts';
export { REPEAT_USES, SPACINGS } from './kinds/repeat.ts';
export {
  ARCH_SIDES,
  MAX_PANELS,
  RUN_USES,
  archOf,
  panelsAlong,
  ringGape,
  ringRadii,
  ringSide,
  runHigh,
  wallLine,
  wallPanels,
  wallStraights,
  type WallPanel,
  type WallStraight,
} from './kinds/run.ts';
export { MAX_PLAIN_FACES } from './kinds/plain.ts';
export { MOUNTS_OF_SIGNBOARDS } from './kinds/signboard.ts';
export { SEAM_SIDES, type SeamSide, edgeSchema } from './kinds/seam.ts';
export { FALLS } from './kinds/stream.ts';
export { TABLE_KINDS } from './kinds/table.ts';
export { MAX_SAMPLES } from './kinds/terrain.ts';
export { THREAD_STATES, type ThreadState, THREAD_USES, MAX_PROPOSED } from './kinds/thread.ts';
export {
  TRACK_MOVES,
  closureGap,
  pieceLength,
  reversed,
  endsOf,
  DEGREES_PER_TURN,
  trackLine,
  type ClosureGap,
  type Pose,
  type TrackPiece,
} from './kinds/track.ts';
export { WAY_USES, ON_STEEP } from './kinds/way.ts';
export * from './vocabulary.ts';
export {
  MAX_LINES,
  MAX_TONES,
  colourField,
  lineKey,
  lineSchema,
  partField,
  mergeLines,
  type PartLine,
} from './partLines.ts';
export * from './scene.ts';
export * from './change.ts';
export { drain, reduce, reduceSteps, type Refusal, type Reduction } from './reduce.ts';
export { authorOf, isAuthored, stamped, type Author, type Stamp } from './authorship.ts';
export * from './undo.ts';
export * from './customGrounds.ts';
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
export { MAX_FOOTPRINT, MAX_NAME, MAX_STUDS, line, prose } from './fields.ts';
export * from './permission.ts';
export * from './roles.ts';
export { blankDisplay, startSchema, type Start } from './begin.ts';
export { STARTS } from './starts.ts';
export { resizeDisplay, type Resizing } from './resize.ts';
export { fromRows, partFromRows, readScene, rowSchema, toRows, type EntityRow } from './snapshot.ts';
export { spacesOf, vehiclesOf } from './brief.ts';
export * from './crew.ts';
export * from './cast.ts';
export * from './promised.ts';
export * from './wishes.ts';
export { MAX_PROMISES, PROMISED } from './kinds/milestone.ts';
export * from './versions.ts';
export * from './place.ts';
export {
  boardFor,
  largestLetters,
  lengthOfWords,
  letterHeight,
  lettersReadAt,
  outOf,
  postedBoards,
  readUpTo,
  signboardCorners,
  wordsOn,
} from './signboards.ts';
export { chosenSpotOf, photoSpotsOf, sameSpot, type PhotoSpot } from './photoSpots.ts';
export { idFor } from './idFor.ts';
export { deltaOf, withDelta, type Delta } from './delta.ts';
export * from './edit.ts';
export { daysBetween, isoAfter, nextUpdate, untilWords, updateDays } from './days.ts';
export { readPieceFile, writePieceFile } from './pieceFile.ts';
