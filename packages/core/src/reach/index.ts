export * from './reach.ts';
export * from './tableMoves.ts';
