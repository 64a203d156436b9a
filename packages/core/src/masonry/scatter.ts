import { seeded } from '../terrain/index.ts';

// Even, unpatterned scatter: blue noise by void and cluster, and counts that sum exactly.

/** Side of the pattern that is repeated; it joins itself on all sides. */
const SIDE = 64;
const AREA = SIDE * SIDE;
const REACH = 6;
const SIGMA = 1.9;

/**
 * The rank of each cell of a 64 × 64 pattern, 0 to 4,095: the first n of them are spread evenly for every n (void and
 * cluster, Ulichney 1993). Made once.
 */
export function blueNoise(): Uint16Array {
  ranks ??= voidAndCluster();
  return ranks;
}
let ranks: Uint16Array | null = null;

function voidAndCluster(): Uint16Array {
  const kernel = new Float64Array((2 * REACH + 1) ** 2);
  for (let y = -REACH; y <= REACH; y++)
    for (let x = -REACH; x <= REACH; x++)
      kernel[(y + REACH) * (2 * REACH + 1) + x + REACH] = Math.exp(-(x * x + y * y) / (2 * SIGMA * SIGMA));
  const energy = new Float64Array(AREA);
  const on = new Uint8Array(AREA);
  const set = (i: number, sign: 1 | -1) => {
    on[i] = sign === 1 ? 1 : 0;
    const [cx, cy] = [i % SIDE, Math.floor(i / SIDE)];
    for (let y = -REACH; y <= REACH; y++)
      for (let x = -REACH; x <= REACH; x++)
        energy[((cy + y + SIDE) % SIDE) * SIDE + ((cx + x + SIDE) % SIDE)] +=
          sign * kernel[(y + REACH) * (2 * REACH + 1) + x + REACH];
  };
  const pick = (wanted: 0 | 1): number => {
    let best = -1;
    for (let i = 0; i < AREA; i++)
      if (
        on[i] === wanted &&
        (best < 0 || (wanted === 1 ? energy[i] > energy[best] : energy[i] < energy[best]))
      )
        best = i;
    return best;
  };
  // A first pattern by chance, evened out until the tightest cluster fills the largest void.
  const random = seeded(7);
  const first = AREA / 16;
  for (let count = 0; count < first;) {
    const i = Math.floor(random() * AREA);
    if (on[i]) continue;
    set(i, 1);
    count++;
  }
  for (let swaps = 0; swaps < AREA; swaps++) {
    const cluster = pick(1);
    set(cluster, -1);
    const hole = pick(0);
    set(hole, 1);
    if (hole === cluster) break;
  }
  const rank = new Uint16Array(AREA);
  const begun = on.slice();
  const started = energy.slice();
  for (let left = first - 1; left >= 0; left--) {
    const cluster = pick(1);
    set(cluster, -1);
    rank[cluster] = left;
  }
  on.set(begun);
  energy.set(started);
  for (let next = first; next < AREA; next++) {
    const hole = pick(0);
    set(hole, 1);
    rank[hole] = next;
  }
  return rank;
}

/** Studs in the order in which an even scatter takes them. */
export function scatterOrder(cells: readonly { x: number; y: number }[], seed: number): number[] {
  const noise = blueNoise();
  const random = seeded(seed);
  const [sx, sy] = [Math.floor(random() * SIDE), Math.floor(random() * SIDE)];
  const wrap = (value: number) => ((value % SIDE) + SIDE) % SIDE;
  // Of two studs with the same place in the pattern, one after the other by a number of their own.
  const key = cells.map(
    ({ x, y }) =>
      noise[wrap(y + sy) * SIDE + wrap(x + sx)] +
      ((Math.imul(Math.floor(x / SIDE) + 31 * Math.floor(y / SIDE) + seed, 2_654_435_761) >>> 8) & 0xffff) /
        65_536,
  );
  return cells.map((_, i) => i).sort((a, b) => key[a] - key[b] || a - b);
}

/**
 * Whole counts by shares that sum to the total exactly (largest remainders; ties to the earlier).
 * @param shares any non-negative numbers; all zero: everything to the first
 */
export function countsOf(shares: readonly number[], total: number): number[] {
  const sum = shares.reduce((all, share) => all + share, 0);
  if (shares.length === 0) return [];
  if (sum <= 0) return shares.map((_, i) => (i === 0 ? total : 0));
  const exact = shares.map((share) => (share / sum) * total);
  const counts = exact.map(Math.floor);
  const left = total - counts.reduce((all, count) => all + count, 0);
  const order = exact
    .map((value, i) => ({ rest: value - counts[i], i }))
    .toSorted((a, b) => b.rest - a.rest || a.i - b.i);
  for (const { i } of order.slice(0, left)) counts[i]++;
  return counts;
}

/**
 * Bends counts to what is in stock: what is short moves to lines that have more, none of which grows or shrinks by
 * more than `limit` of the whole.
 * @param limit share of the total, 0 to 1
 * @returns the counts with the same sum, how far each was bent (pieces), and what stays short of each
 */
export function bendCounts(
  counts: readonly number[],
  stock: readonly number[],
  limit: number,
): { counts: number[]; bent: number[]; short: number[] } {
  const total = counts.reduce((sum, count) => sum + count, 0);
  const most = Math.floor(limit * total);
  const out = [...counts];
  const spare = counts.map((count, i) => Math.min(Math.max(0, stock[i] - count), most));
  for (let i = 0; i < counts.length; i++) {
    let missing = Math.min(Math.max(0, counts[i] - stock[i]), most);
    while (missing > 0) {
      const giver = spare.reduce((best, have, k) => (have > (spare[best] ?? 0) ? k : best), 0);
      const moved = Math.min(missing, spare[giver] ?? 0);
      if (moved <= 0) break;
      out[i] -= moved;
      out[giver] += moved;
      spare[giver] -= moved;
      missing -= moved;
    }
  }
  return {
    counts: out,
    bent: out.map((count, i) => count - counts[i]),
    short: out.map((count, i) => Math.max(0, count - stock[i])),
  };
}
