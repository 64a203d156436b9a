// Pieces side by side along a line.

/** A piece of a row: where it begins and how long it is, studs. */
export interface RowPiece {
  at: number;
  long: number;
}

/** A length covered by pieces of some lengths, the longest that fits first. @param lengths falling, 1 among them */
export function longestFirst(length: number, lengths: readonly number[]): RowPiece[] {
  const row: RowPiece[] = [];
  for (let at = 0; at < length;) {
    const long = lengths.find((one) => one <= length - at) ?? 1;
    row.push({ at, long });
    at += long;
  }
  return row;
}
