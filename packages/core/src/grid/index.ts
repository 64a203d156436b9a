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
  areaOfOutline,
  studsIn,
  type CoordinateFrame,
  type Rect,
} from './rect.ts';
export { lengthOfLine, polygonApothem } from './line.ts';
export { hullOf } from './hull.ts';
export {
  areaOfRects,
  areaWithout,
  boxArea,
  commonArea,
  discArea,
  discOutline,
  grownDiscOutline,
  discWithin,
  grownArea,
  insideArea,
  isInArea,
  largestPart,
  middleOfArea,
  offArea,
  outlineOfArea,
  rectsInArea,
  stripsBesideArea,
  stripsOfArea,
  studsOfArea,
  studsOfRect,
  type StudArea,
} from './studArea.ts';
export { present } from './present.ts';
export { rememberFor } from './remember.ts';
export { placeByRank, type LabelBox } from './placement.ts';
