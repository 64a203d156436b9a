import { isListed } from '../catalogue/index.ts';
import { METHODS } from '../document/index.ts';
import { pieceId, type Fill, type LayerPlan } from './fill.ts';
import { METHOD_SPECS } from './method.ts';
import type { Masonry } from './layers.ts';

/**
 * Recounts a masonry plate by plate, by another way than it was made, and lists every fault: pieces
 * that do not exist, pieces outside or in one another, ground that is not covered or built too high, pieces that nothing
 * carries, covers over the border of two colours, deck joints without a column under both sides, decks that hang free over more than the span.
 * @returns one sentence a fault, at most 20; none when all holds
 */
export function verifyMasonry(fill: Fill, masonry: Masonry): string[] {
  const faults: string[] = [];
  const { w, d } = fill;
  const built = masonry.built;
  const tall = Math.max(0, ...built) + 1;
  const voxel = new Int32Array(w * d * tall);
  const say = (fault: string) => {
    if (faults.length < 20) faults.push(fault);
  };
  let piece = 0;
  const decks = new Map<number, LayerPlan>();
  for (const layer of masonry.layers)
    for (let p = 0; p < layer.laid.length; p += 4) {
      const [x, y, pw, pd] = layer.laid.subarray(p, p + 4);
      const id = pieceId(layer, pw, pd);
      piece++;
      if (layer.purpose === 'deck') decks.set(piece, layer);
      if (!isListed(id)) say(`${id} at ${x},${y},${layer.z}: no such part`);
      if (x < 0 || y < 0 || x + pw > w || y + pd > d) {
        say(`${id} at ${x},${y},${layer.z}: outside the ground`);
        continue;
      }
      const looks = new Set<number>();
      let carried = false;
      for (let row = y; row < y + pd; row++)
        for (let column = x; column < x + pw; column++) {
          const i = row * w + column;
          if (fill.look) looks.add(fill.look[i]);
          if (layer.z + layer.h > Math.max(0, built[i]))
            say(
              `${id} at ${x},${y},${layer.z}: higher than the ${built[i]} plates that are built on ${column},${row}`,
            );
          else
            for (let z = layer.z; z < layer.z + layer.h; z++) {
              const v = i * tall + z;
              if (voxel[v]) say(`${id} at ${x},${y},${layer.z}: in another piece at ${column},${row}`);
              voxel[v] = piece;
            }
          const base = fill.base?.[i] ?? 0;
          if (layer.z < base)
            say(`${id} at ${x},${y},${layer.z}: below the ${base} plates at which ${column},${row} begins`);
          if (layer.z === base || voxel[i * tall + layer.z - 1]) carried = true;
        }
      if ((layer.purpose === 'cover' || layer.purpose === 'slope') && looks.size > 1)
        say(`${id} at ${x},${y},${layer.z}: lies over the border of two colours`);
      if (!carried) say(`${id} at ${x},${y},${layer.z}: nothing carries it`);
    }
  for (let i = 0; i < w * d; i++) {
    if (fill.height[i] < 0 || METHODS[fill.method[i]] === 'reuse') continue;
    const stud = `stud ${i % w},${Math.floor(i / w)}`;
    if (built[i] > 0 && !voxel[i * tall + built[i] - 1]) say(`${stud}: not covered`);
    if (built[i] > fill.height[i] || built[i] < fill.height[i] - 2)
      say(`${stud}: built ${built[i]} plates high instead of ${fill.height[i]}`);
    if (METHOD_SPECS[METHODS[fill.method[i]]].shell === 0)
      for (let z = fill.base?.[i] ?? 0; z < built[i]; z++)
        if (!voxel[i * tall + z]) say(`${stud}: a hole ${z} plates up`);
  }
  for (let z = 1; z < tall; z++) {
    const free = new Int16Array(w * d);
    for (let i = 0; i < w * d; i++) {
      const own = voxel[i * tall + z];
      if (!decks.has(own) || voxel[i * tall + z - 1]) continue;
      const [x, y] = [i % w, Math.floor(i / w)];
      free[i] = x === 0 || y === 0 ? 1 : 1 + Math.min(free[i - 1], free[i - w], free[i - w - 1]);
      if (free[i] > fill.span)
        say(`deck at ${x},${y},${z}: ${free[i]} studs square without support; the span is ${fill.span}`);
      const beside = [x > 0 && i - 1, x < w - 1 && i + 1, y > 0 && i - w, y < d - 1 && i + w];
      if (beside.some((j) => j === false || voxel[j * tall + z] !== own))
        say(`deck at ${x},${y},${z}: its edge or joint stands on nothing`);
    }
  }
  return faults;
}
