// Tall stacks: plates have three joints where bricks have one, so that they come out a little higher.

/** What a person measured, and how far off two stacks may be. */
export interface StackMeasure {
  /** Ten bricks stacked, and thirty plates, mm. */
  tenBricks: number;
  thirtyPlates: number;
  /** The most by which two stacks side by side may differ, mm. */
  limit: number;
}

/** Two stacks of one height side by side. */
export interface StackCard {
  /** Height of each, mm. */
  bricks: number;
  plates: number;
  /** How much the plates are higher, mm; below 0: lower. */
  off: number;
  /** Bricks of height up to which they differ by no more than the limit; null: however high. */
  most: number | null;
}

/** @param height in bricks */
export function stackCard(height: number, { tenBricks, thirtyPlates, limit }: StackMeasure): StackCard {
  const off = (thirtyPlates - tenBricks) / 10;
  return {
    bricks: (height * tenBricks) / 10,
    plates: (height * thirtyPlates) / 10,
    off: height * off,
    most: off === 0 ? null : Math.floor(limit / Math.abs(off) + 1e-9),
  };
}
