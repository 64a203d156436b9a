// Sets of pieces, and pieces as they are laid.

/** Sizes a layer may be laid with, for both ways round. */
export interface PieceSet {
  /** Depths of bands, deepest first. */
  depths: readonly number[];
  /** Lengths along a band of each depth, longest first: `lengths[depth]`. */
  lengths: readonly (readonly number[])[];
  /** `has[w][d]` where a piece of w × d studs exists. */
  has: readonly (readonly boolean[])[];
  longest: number;
  /** Studs of the largest piece. */
  largest: number;
}

export function pieceSet(sizes: readonly (readonly [number, number])[]): PieceSet {
  const longest = Math.max(...sizes.flat());
  const has = Array.from({ length: longest + 1 }, () => new Array<boolean>(longest + 1).fill(false));
  for (const [w, d] of sizes) has[w][d] = has[d][w] = true;
  const lengths = has.map((row) => row.flatMap((there, length) => (there ? [length] : [])).toReversed());
  const depths = lengths.flatMap((list, depth) => (list.length > 0 ? [depth] : [])).toReversed();
  const largest = Math.max(...sizes.map(([w, d]) => w * d));
  return { depths, lengths, has, longest, largest };
}

/** Pieces as laid: x, y, w, d of each, four numbers a piece, in studs from the mask's corner. */
export type PlacedPieces = Int16Array;

/** Writes the number of each piece on its studs, from `first` on. */
export function paintPieceIds(laid: PlacedPieces, w: number, into: Int32Array, first: number): void {
  for (let i = 0; i < laid.length; i += 4) {
    const id = first + i / 4;
    const end = (laid[i + 1] + laid[i + 3]) * w + laid[i];
    // Pieces are short: a loop is faster than to fill each of their rows.
    for (let row = laid[i + 1] * w + laid[i]; row < end; row += w)
      for (let at = row; at < row + laid[i + 2]; at++) into[at] = id;
  }
}
