export * from './relief.ts';
export * from './contours.ts';
export * from './difference.ts';
export * from './mass.ts';
export * from './plotMass.ts';
export { isOverSeam, linePieces, panelsOf, type LinePiece } from './overSeams.ts';
export * from './shape.ts';
export * from './strip.ts';
export * from './profile.ts';
export * from './scatter.ts';
export { SUMMER_LEAF, leavesOf, usualLeaf, type Leaves } from './leaves.ts';
export { MAX_SAMPLE, packSamples, readSamples } from './samples.ts';
export * from './stand.ts';
export {
  ARCH,
  NO_SLAB,
  eachStudOf,
  slabBounds,
  slabIndex,
  spanOf,
  topAt,
  undersideAt,
  type Slab,
  type SlabKind,
} from './slab.ts';
export * from './slabs.ts';
export { heightOfStud, wholePlates, riseCard, type Raster, type RiseCard } from './rasterize.ts';
export * from './plotCard.ts';
export * from './wallRuns.ts';
export { ringRoofOf, type RingRoof } from './ringRoof.ts';
export {
  cornersOf,
  courseStuds,
  endWalls,
  liesOn,
  planRoof,
  rectAlong,
  roofSides,
  rowOf,
  type RoofLevel,
  type RoofPlan,
  type RoofSide,
} from './roofPlan.ts';
export {
  ROOF_SLOPES,
  roofCoursesOf,
  roofPlanOf,
  roofSizeOf,
  roofTopOf,
  roofWall,
  slopedRoofOf,
  type RoofPitch,
  type SlopedRoof,
} from './slopedRoof.ts';
export { changedAreas, mergeOverlapping, influenceOf } from './changedAreas.ts';
export { bodiesOf, footAt, plotBodies, spotSize, type Body, type BodyGround } from './bodies.ts';
export * from './columns.ts';
export * from './slabCard.ts';
export * from './sweep.ts';
