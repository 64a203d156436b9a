export * from './graph.ts';
export * from './order.ts';
