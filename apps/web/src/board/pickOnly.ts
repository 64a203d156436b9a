import type { BoardActs } from './acts.ts';

/** What one may do on a board beside panels that change things: picking. */
export const PICK_ONLY: BoardActs = {
  mayEdit: () => false,
  snap: 8,
  place: () => undefined,
  shape: () => undefined,
  ridge: () => undefined,
  move: () => undefined,
  draw: () => undefined,
};
