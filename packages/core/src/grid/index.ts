export * from './units.ts';
export * from './parse.ts';
export * from './format.ts';
export * from './size.ts';
export * from './numbers.ts';
export {
  boundsOf,
  boundsOfPoints,
  quadOf,
  unionArea,
  contains,
  containsPoint,
  grown,
  roundOut,
  intersection,
  centreOf,
  studsIn,
  type CoordinateFrame,
  type Rect,
} from './rect.ts';
export { lengthOfLine, polygonApothem } from './line.ts';
export { hullOf } from './hull.ts';
export {
  commonRows,
  discRows,
  discWithin,
  grownRows,
  insideRows,
  maskOfRows,
  middleOfRows,
  offRows,
  outlineOfRows,
  rectsInRows,
  studsOfRows,
  type StudRow,
} from './rows.ts';
export { present } from './present.ts';
export { placeByRank, type LabelBox } from './placement.ts';
