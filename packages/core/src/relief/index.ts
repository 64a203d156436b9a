export * from './relief.ts';
export * from './contours.ts';
