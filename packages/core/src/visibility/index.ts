export * from './seen.ts';
