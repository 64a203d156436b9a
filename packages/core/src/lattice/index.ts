export * from './units.ts';
export * from './parse.ts';
export * from './format.ts';
export { unionArea, contains, overlap, centreOf, studsOf, type Rect } from './rect.ts';
