import { countsOf, scatterOrder } from '../masonry/index.ts';
import type { LaidPiece } from './piece.ts';

// Aged walls and roofs: a share of their pieces in other colours, scored or studded, in even, unpatterned scatter.

/** The scatter is the same each time, so that what is built stays where it is. */
const SEED = 1;
/** Studs along x and along y are counted as one, so that walls that run either way are mixed alike. */
const ACROSS = 5;

/**
 * What each piece of a wall or a roof is where some are other than the rest: of each that is mixed in as many as its
 * percentage makes of all pieces, to the nearest whole numbers that sum to them.
 * @param pieces of one use @param base what the rest is, such as a colour or a part
 */
export function mixed(
  pieces: readonly LaidPiece[],
  base: string,
  mixes: readonly { value: string; percent: number }[],
): string[] {
  const values = pieces.map(() => base);
  if (mixes.length === 0) return values;
  const rest = 100 - mixes.reduce((sum, { percent }) => sum + percent, 0);
  const counts = countsOf([...mixes.map(({ percent }) => percent), rest], pieces.length);
  const order = scatterOrder(
    pieces.map(({ x, y, z }) => ({ x: Math.round(x + ACROSS * y), y: Math.round(z) })),
    SEED,
  );
  let at = 0;
  mixes.forEach(({ value }, i) => {
    for (let k = 0; k < counts[i]; k++) values[order[at++]] = value;
  });
  return values;
}
