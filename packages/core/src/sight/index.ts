export * from './reach.ts';
export * from './moves.ts';
