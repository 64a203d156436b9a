export * from './seen.ts';
export * from './public.ts';
