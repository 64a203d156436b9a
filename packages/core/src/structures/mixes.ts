import type { Plot } from '../document/index.ts';
import { countsOf, scatterOrder } from '../masonry/index.ts';
import type { LaidPiece } from './piece.ts';

// Aged walls and roofs: a share of their pieces in other colours, in even, unpatterned scatter.

/** The scatter is the same each time, so that what is built stays where it is. */
const SEED = 1;
/** Studs along x and along y are counted as one, so that walls that run either way are mixed alike. */
const ACROSS = 5;

/**
 * The colours of the pieces of a wall or a roof: its own, and of each colour that is mixed in as many as its percentage
 * makes of all pieces, to the nearest whole numbers that sum to them.
 * @param pieces of one use @param base its own colour
 */
export function mixedColours(
  pieces: readonly LaidPiece[],
  base: string,
  mixes: readonly Pick<Plot['mixes'][number], 'colour' | 'percent'>[],
): string[] {
  const colours = pieces.map(() => base);
  if (mixes.length === 0) return colours;
  const rest = 100 - mixes.reduce((sum, { percent }) => sum + percent, 0);
  const counts = countsOf([...mixes.map(({ percent }) => percent), rest], pieces.length);
  const order = scatterOrder(
    pieces.map(({ x, y, z }) => ({ x: Math.round(x + ACROSS * y), y: Math.round(z) })),
    SEED,
  );
  let at = 0;
  mixes.forEach(({ colour }, i) => {
    for (let k = 0; k < counts[i]; k++) colours[order[at++]] = colour;
  });
  return colours;
}
