export * from './relief.ts';
export * from './contours.ts';
export * from './mass.ts';
