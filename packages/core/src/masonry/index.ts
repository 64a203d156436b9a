export { UNSEARCHED, tileLayer } from './tile.ts';
export { pieceSet, type PieceSet } from './pieces.ts';
export { BRICKS, METHOD_SPECS, PLATES, minHeightOf, type MethodSpec } from './method.ts';
export { SKIN, pieceId, type Fill, type LayerPlan, type Purpose } from './fill.ts';
export { MAX_HEIGHT, buildLayers, type Masonry } from './layers.ts';
export { BondWatch, type Bond, type ThroughJoint } from './bond.ts';
export {
  BUILDING_USES,
  buildSteps,
  laidBelow,
  markOf,
  sortedSteps,
  stepCounts,
  type BuildStep,
  type BuildSteps,
  type BuildingUse,
  type StepLine,
  type StepPiece,
} from './steps.ts';
export { verifyMasonry } from './verify.ts';
export { bendCounts, blueNoise, countsOf, scatterOrder } from './scatter.ts';
export {
  PLAIN_DRESS,
  accentsOf,
  clearDepth,
  groundNamed,
  dressesOf,
  type Dresses,
  plainFaces,
  plainMask,
  type Accent,
  type AccentTally,
  type Dress,
} from './dress.ts';
export {
  countMasonry,
  dressMasonry,
  familyOfPart,
  layerCounts,
  priceOfLines,
  priceOfPart,
  type Counted,
  type CountLine,
  type DressedMasonry,
  type Knowledge,
} from './count.ts';
export { PATCH_SIDE, groundPatch, type GroundPatch } from './patch.ts';
export { countingBlocks, type BlockInput, type CountingBlock } from './blocks.ts';
export {
  CountCache,
  type KeptBlock,
  type KeptCounts,
  blockInputs,
  builtBlock,
  builtBlocks,
  builtFrom,
  compareMethods,
  countBlock,
  countedRelief,
  methodCount,
  methodInputs,
  paintBlock,
  paintedFrom,
  paintedGround,
  type BlockPaint,
  type BlockWork,
  type BlockCount,
  type BlockLine,
  type Built,
  type MethodCount,
  type Painted,
  type SceneCount,
} from './countCache.ts';
