/** A box with its corner that is farthest from the eye: it looks along all three axes toward the origin. */
export interface Solid {
  u: number;
  v: number;
  z: number;
  du: number;
  dv: number;
  dz: number;
}

/** Whether a box lies wholly on the far side of another along some axis: then it can hide nothing of it. */
const isBeyond = (a: Solid, b: Solid): boolean => a.u + a.du <= b.u || a.v + a.dv <= b.v || a.z + a.dz <= b.z;

/**
 * The order in which boxes that share no room are drawn, each before all that may hide something of it. O(n²).
 * @returns their numbers; in a circle of boxes that hide one another the farthest corner comes first
 */
export function paintOrder(solids: readonly Solid[]): number[] {
  const before = solids.map((b, j) =>
    solids.flatMap((a, i) => (i !== j && isBeyond(a, b) && !isBeyond(b, a) ? [i] : [])),
  );
  const far = ({ u, v, z }: Solid) => u + v + z;
  const left = solids.map((_, i) => i).sort((i, j) => far(solids[i]) - far(solids[j]));
  const drawn = new Set<number>();
  while (left.length > 0) {
    const next = left.findIndex((i) => before[i].every((one) => drawn.has(one)));
    const [taken] = left.splice(Math.max(0, next), 1);
    drawn.add(taken);
  }
  return [...drawn];
}
