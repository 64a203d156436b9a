export * from './frame.ts';
export * from './room.ts';
export * from './passage.ts';
export * from './support.ts';
export * from './snap.ts';
export * from './public.ts';
export { COMMON_TABLES, type CommonTable } from './tables.ts';
export * from './card.ts';
export {
  crossPieces,
  crossRooms,
  crossSectionAt,
  type CrossPiece,
  type CrossSectionStep,
  type CrossSection,
} from './crossSection.ts';
