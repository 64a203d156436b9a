export * from './palette.ts';
export * from './colour.ts';
export * from './parts.ts';
export {
  isCornerSlope,
  isSlope,
  isValleySlope,
  SLOPES,
  pitchOfSlope,
  raiseToMeet,
  roofOf,
  roofPieces,
  runOfSlope,
  slopesLike,
  type PartCount,
  type RidgeMeets,
  type Roof,
} from './slopes.ts';
