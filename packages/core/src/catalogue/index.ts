export * from './palette.ts';
export * from './colour.ts';
export * from './parts.ts';
