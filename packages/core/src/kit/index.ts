export * from './kit.ts';
export * from './log.ts';
export * from './values.ts';
export * from './cautions.ts';
export * from './showBook.ts';
