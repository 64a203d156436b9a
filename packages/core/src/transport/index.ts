export * from './packItem.ts';
export * from './packing.ts';
export * from './packingFaults.ts';
export * from './timetable.ts';
