import { partId } from '../catalogue/index.ts';
import { PLATES_PER_BRICK } from '../grid/index.ts';
import { BRICKS, BondWatch, PLATES, UNSEARCHED, tileLayer } from '../masonry/index.ts';
import { wallMask } from '../structures/index.ts';

// A block of a size in pieces: solid, or walls of some thickness closed by a layer of plates.

/** A block, whole studs and plates. */
export interface Volume {
  w: number;
  d: number;
  h: number;
  /** Thickness of its walls, studs; null: solid. */
  wall: number | null;
}

/**
 * The pieces of a block, the most first: layers of bricks over each other's joints, plates for what is left of its height,
 * and over hollow ones a closed layer of plates in the last plate of its height.
 * Its cost grows with the studs of a layer: two are laid, and repeated.
 */
export function volumePieces({ w, d, h, wall }: Volume): { part: string; qty: number }[] {
  const isHollow = wall !== null && 2 * wall < Math.min(w, d);
  const whole = new Uint8Array(w * d).fill(1);
  const mask = isHollow ? wallMask(w, d, wall) : whole;
  const closed = isHollow && h > 0 ? 1 : 0;
  const layers = Math.floor((h - closed) / PLATES_PER_BRICK);
  const plates = h - closed - layers * PLATES_PER_BRICK;
  const counts = new Map<string, number>();
  const add = (family: 'brick' | 'plate', laid: Int16Array, times: number) => {
    for (let p = 0; p < laid.length && times > 0; p += 4) {
      const part = partId(family, laid[p + 2], laid[p + 3]);
      counts.set(part, (counts.get(part) ?? 0) + times);
    }
  };
  const watch = new BondWatch(w, d);
  const odd = tileLayer(mask, w, d, BRICKS, null, UNSEARCHED);
  watch.see({ family: 'brick', laid: odd, z: 0, h: PLATES_PER_BRICK, purpose: 'core' });
  const even = layers > 1 ? tileLayer(mask, w, d, BRICKS, watch.open, UNSEARCHED) : odd;
  add('brick', odd, Math.ceil(layers / 2));
  add('brick', even, Math.floor(layers / 2));
  if (plates > 0) add('plate', tileLayer(mask, w, d, PLATES, null, UNSEARCHED), plates);
  if (closed > 0) add('plate', tileLayer(whole, w, d, PLATES, null, UNSEARCHED), 1);
  return [...counts].map(([part, qty]) => ({ part, qty })).toSorted((a, b) => b.qty - a.qty);
}
