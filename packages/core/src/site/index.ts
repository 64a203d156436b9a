export * from './frame.ts';
export * from './room.ts';
export * from './passage.ts';
export * from './standing.ts';
export * from './snap.ts';
export * from './public.ts';
export { COMMON_TABLES, type CommonTable } from './tables.ts';
export * from './card.ts';
export { sectionOf, type Cut, type Section } from './section.ts';
