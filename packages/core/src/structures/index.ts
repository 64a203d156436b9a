export {
  frontLength,
  frontsOf,
  readRhythm,
  unevenWindows,
  writeRhythm,
  type FrontCard,
  recessFaces,
  type Face,
  type Fronted,
  type WallOpening,
  type PlacedBay,
} from './fronts.ts';
export * from './lists.ts';
export {
  baysAt,
  withBay,
  withCopies,
  withRhythm,
  withSideOf,
  withStoreyHeight,
  withoutRecess,
  type FrontPlace,
} from './editFronts.ts';
export { elevationOf, type Elevation, type SeenPiece } from './elevation.ts';
export { STEEPEST, floorPlans, type DoorSwing, type FloorPlan, type PlacedFitting } from './floorPlan.ts';
export { pavementRows, type StreetRules } from './pavement.ts';
export type { BuildingPiece, LaidPiece } from './piece.ts';
export { buildingSteps, placeOfOpening, placedPieces, type BuildingSteps } from './place.ts';
export { skylineOf, skylineSides, type Skyline, type SkylineFront } from './skyline.ts';
export type { StairCard } from './stairs.ts';
export { TRACING_WIDE, scaledTracing, type ElevationPoint, type Tracing } from './tracing.ts';
export { PLAIN_SHAPES } from './plainShapes.ts';
export { swapCard, swapChoices, type SwapCard, type SwapChoice } from './swap.ts';
export { wallMask } from './walls.ts';
export { raisedBy, ridgeOf } from './ridge.ts';
export { buildingPieces, shellPieces } from './shell.ts';
export { partJoints, storeysOf, type PartJoint, type Storey } from './storeys.ts';
