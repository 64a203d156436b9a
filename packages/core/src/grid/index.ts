export * from './units.ts';
export * from './parse.ts';
export * from './format.ts';
export * from './size.ts';
export * from './numbers.ts';
export {
  boundsOf,
  unionArea,
  contains,
  containsPoint,
  roundOut,
  intersection,
  centreOf,
  studsIn,
  type Rect,
} from './rect.ts';
export { lengthOfLine } from './line.ts';
export { present } from './present.ts';
export { placeByRank, type LabelBox } from './placement.ts';
