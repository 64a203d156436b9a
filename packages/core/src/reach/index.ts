export * from './reach.ts';
export * from './tableMoves.ts';
export * from './underCover.ts';
