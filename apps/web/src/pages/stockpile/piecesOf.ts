/** Pieces of some lines together. */
export const piecesOf = (lines: readonly { qty: number }[]): number =>
  lines.reduce((sum, { qty }) => sum + qty, 0);
