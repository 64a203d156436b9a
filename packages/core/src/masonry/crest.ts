import { SKIN, heightAround, type Fill, type LayerPlan } from './fill.ts';
import { METHODS } from '../document/index.ts';

// Slopes where natural ground falls: the steeper, the taller the slope. Each takes the edge and the stud behind it;
// where nothing stands behind, a slope of two plates takes the edge alone.

/** Kinds of slope, steepest first: what the ground must fall at least, plates; its height, angle and depth, studs. */
const KINDS = [
  { fall: 9, h: 9, angle: 75, depth: 2, widths: [2, 1] },
  { fall: 6, h: 6, angle: 65, depth: 2, widths: [2, 1] },
  { fall: 3, h: 3, angle: 45, depth: 2, widths: [4, 3, 2, 1] },
  { fall: 2, h: 2, angle: 30, depth: 1, widths: [2, 1] },
] as const;

/** East, south, west, north. */
const WAYS = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const;

/**
 * @returns the layers of slopes, and on each stud how much of its height a slope is, plates; 0 where there is none
 */
export function crestsOf(fill: Fill): { layers: LayerPlan[]; on: Uint8Array } {
  const { w, d, height, skin } = fill;
  const on = new Uint8Array(w * d);
  /** 1 + kind × 4 + way of a slope's edge stud. */
  const kind = new Uint8Array(w * d);
  const thick = (i: number) => height[i] - (fill.base?.[i] ?? 0);
  const at = (x: number, y: number) => (x < 0 || y < 0 || x >= w || y >= d ? -1 : height[y * w + x]);
  for (let y = 0; y < d; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      if (!skin || height[i] < 0 || skin[i] !== SKIN.natural || on[i] || METHODS[fill.method[i]] === 'reuse')
        continue;
      // One side falls, and no more: corners stay plates. The edge of the display is cut upright.
      let [way, fall] = [-1, 0];
      for (const [k, [dx, dy]] of WAYS.entries()) {
        const beside = heightAround(fill, x + dx, y + dy);
        if (beside < 0 || height[i] - beside < 2) continue;
        way = way < 0 ? k : 4;
        fall = height[i] - beside;
      }
      if (way < 0 || way > 3) continue;
      const [dx, dy] = WAYS[way];
      const [bx, by] = [x - dx, y - dy];
      const back = by * w + bx;
      const backed =
        at(bx, by) === height[i] &&
        skin[back] === SKIN.natural &&
        !on[back] &&
        fill.look?.[back] === fill.look?.[i] &&
        fill.method[back] === fill.method[i];
      const room = Math.min(thick(i), backed ? thick(back) : Infinity);
      const index = KINDS.findIndex(
        (one) => fall >= one.fall && room >= one.h && (one.depth === 1 || backed),
      );
      if (index < 0) continue;
      const { h, depth } = KINDS[index];
      on[i] = h;
      if (depth === 2) on[back] = h;
      kind[i] = 1 + index * 4 + way;
    }
  return { layers: gathered(fill, kind), on };
}

/** Joins slopes that stand side by side into wider ones, by height, kind and way. */
function gathered({ w, d, height, look }: Fill, kind: Uint8Array): LayerPlan[] {
  const lists = new Map<string, { layer: Omit<LayerPlan, 'laid'>; laid: number[] }>();
  const done = new Uint8Array(w * d);
  for (let y = 0; y < d; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      if (!kind[i] || done[i]) continue;
      const [crest, falls] = [KINDS[(kind[i] - 1) >> 2], (kind[i] - 1) & 3];
      const along = falls % 2 === 0 ? w : 1;
      const room = falls % 2 === 0 ? d - y : w - x;
      let run = 0;
      const isLike = (j: number) => kind[j] === kind[i] && height[j] === height[i] && look?.[j] === look?.[i];
      while (run < room && isLike(i + run * along)) run++;
      for (let from = 0; from < run;) {
        const width = crest.widths.find((one) => one <= run - from) ?? 1;
        const [ex, ey] = along === 1 ? [x + from, y] : [x, y + from];
        // The rectangle of the edge stud and the one behind it.
        const px = falls === 0 ? ex - crest.depth + 1 : ex;
        const py = falls === 1 ? ey - crest.depth + 1 : ey;
        const [pw, pd] = along === 1 ? [width, crest.depth] : [crest.depth, width];
        const z = height[i] - crest.h;
        const key = `${z} ${kind[i]}`;
        const list = lists.get(key) ?? {
          layer: { z, h: crest.h, purpose: 'slope', family: 'slope', angle: crest.angle, falls },
          laid: [],
        };
        list.laid.push(px, py, pw, pd);
        lists.set(key, list);
        for (let k = from; k < from + width; k++) done[i + k * along] = 1;
        from += width;
      }
    }
  return [...lists.values()]
    .map(({ layer, laid }) => ({ ...layer, laid: Int16Array.from(laid) }))
    .toSorted((a, b) => a.z - b.z);
}
