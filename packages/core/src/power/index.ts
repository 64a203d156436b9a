export * from './wires.ts';
export * from './circuits.ts';
export * from './mains.ts';
export * from './lamps.ts';
export * from './power.ts';
