export * from './units.ts';
export * from './parse.ts';
export * from './format.ts';
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
