import type { BoardKind } from './kind.ts';
import { risingBoard } from './rising.ts';

const { make, ...rising } = risingBoard('hill', { key: 'height', start: 18 });

export const hillBoard: BoardKind = {
  ...rising,
  picked: 150,
  tool: { draws: 'area', key: 'h', make },
};
