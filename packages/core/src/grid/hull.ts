/** Indices of the corners of a convex hull, anticlockwise where y points up (Andrew 1979). */
export function hullOf(points: readonly { x: number; y: number }[]): number[] {
  const order = points
    .map((_, index) => index)
    .toSorted((a, b) => points[a].x - points[b].x || points[a].y - points[b].y);
  const half = (indices: readonly number[]): number[] => {
    const chain: number[] = [];
    for (const index of indices) {
      while (chain.length >= 2) {
        const [o, p, q] = [points[chain[chain.length - 2]], points[chain[chain.length - 1]], points[index]];
        if ((p.x - o.x) * (q.y - o.y) - (p.y - o.y) * (q.x - o.x) > 0) break;
        chain.pop();
      }
      chain.push(index);
    }
    return chain.slice(0, -1);
  };
  return [...half(order), ...half(order.toReversed())];
}
