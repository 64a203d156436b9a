export * from './fits.ts';
export * from './rings.ts';
export * from './ringFloor.ts';
export * from './turns.ts';
export * from './bays.ts';
export * from './mosaic.ts';
export * from './mosaicSheets.ts';
