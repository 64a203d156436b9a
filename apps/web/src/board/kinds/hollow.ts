import type { BoardKind } from './kind.ts';
import { risingBoard } from './rising.ts';

const { make, ...rising } = risingBoard('hollow', { key: 'depth', start: 6 });

export const hollowBoard: BoardKind = {
  ...rising,
  picked: 140,
  tool: { draws: 'area', key: 'o', more: true, make },
};
