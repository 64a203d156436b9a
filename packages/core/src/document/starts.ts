import type { Start } from './begin.ts';

/** Sizes that people begin with often. */
export const STARTS = [
  { id: 'vignette-8', word: 'Vignette 8 × 8', start: { kind: 'vignette', w: 8, d: 8, isLimit: true } },
  { id: 'vignette-16', word: 'Vignette 16 × 16', start: { kind: 'vignette', w: 16, d: 16, isLimit: true } },
  { id: 'shelf', word: 'Shelf 96 × 48', start: { kind: 'diorama', w: 96, d: 48, stand: 'shelf' } },
  { id: 'table', word: 'Table 192 × 96', start: { kind: 'diorama', w: 192, d: 96 } },
  { id: 'city', word: 'City on two tables 288 × 96', start: { kind: 'city', w: 288, d: 96 } },
] as const satisfies readonly { id: string; word: string; start: Start }[];
