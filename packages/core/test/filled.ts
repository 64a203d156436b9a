import type { LaidPiece } from '../src/structures/index.ts';

/** The number of the piece, from 1, in each stud and plate that is filled; throws where two fill one. */
export function filledBy(pieces: readonly LaidPiece[]): (x: number, y: number, z: number) => number {
  const by = new Map<number, number>();
  const keyOf = (x: number, y: number, z: number) => ((z + 8) * 128 + y + 8) * 128 + x + 8;
  pieces.forEach(({ x, y, z, w, d, h }, i) => {
    for (let k = 0; k < w * d * h; k++) {
      const [px, py, pz] = [x + (k % w), y + (Math.trunc(k / w) % d), z + Math.trunc(k / (w * d))];
      const key = keyOf(px, py, pz);
      if (by.has(key)) throw new Error(`a second piece at ${px}, ${py}, ${pz}`);
      by.set(key, i + 1);
    }
  });
  return (x, y, z) => by.get(keyOf(x, y, z)) ?? 0;
}
