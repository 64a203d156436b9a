export * from './ratio.ts';
export * from './trueSizes.ts';
export * from './buildable.ts';
export * from './budget.ts';
export * from './figure.ts';
