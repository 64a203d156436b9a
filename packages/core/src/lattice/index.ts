export * from './units.ts';
export * from './parse.ts';
export * from './format.ts';
export * from './numbers.ts';
export {
  boundsOf,
  unionArea,
  contains,
  inRect,
  outward,
  overlap,
  centreOf,
  studsOf,
  type Rect,
} from './rect.ts';
