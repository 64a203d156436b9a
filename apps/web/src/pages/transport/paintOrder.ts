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
 * @returns the same boxes; in a circle of boxes that hide one another the farthest corner comes first
 */
export function paintOrder<S extends Solid>(solids: readonly S[]): S[] {
  const far = ({ u, v, z }: Solid) => u + v + z;
  const left = solids
    .map((one) => ({
      one,
      before: solids.filter((other) => other !== one && isBeyond(other, one) && !isBeyond(one, other)),
    }))
    .sort((a, b) => far(a.one) - far(b.one));
  const drawn = new Set<S>();
  while (left.length > 0) {
    const next = left.findIndex(({ before }) => before.every((other) => drawn.has(other)));
    for (const { one } of left.splice(Math.max(0, next), 1)) drawn.add(one);
  }
  return [...drawn];
}
