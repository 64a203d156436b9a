// Solid shapes as flat faces, gathered by what they are made of.

/** Faces of one material: corners as x (east), y (up), z (south) in studs, and triangles by number of corner. */
export interface MeshPart {
  material: string;
  positions: Float32Array;
  indices: Uint32Array;
}

/** How many triangles some parts have. */
export const trianglesOf = (parts: readonly MeshPart[]): number =>
  parts.reduce((sum, { indices }) => sum + indices.length / 3, 0);

export type MeshCorner = readonly [x: number, y: number, z: number];

/** Begins the material of what is planned and does not stand yet. */
export const PLANNED = 'planned ';

/** Gathers faces. */
export class MeshBuilder {
  readonly #parts = new Map<string, { positions: number[]; indices: number[] }>();
  /** What is gathered now does not stand yet: its materials begin with PLANNED. */
  isPlanned = false;
  /** How far what is gathered now is moved on the plan, studs. */
  shift = { x: 0, y: 0 };

  /** A flat convex face, its corners against the clock as seen from outside. */
  face(of: string, corners: readonly MeshCorner[]): void {
    const material = this.isPlanned ? `${PLANNED}${of}` : of;
    let part = this.#parts.get(material);
    if (!part) this.#parts.set(material, (part = { positions: [], indices: [] }));
    const first = part.positions.length / 3;
    for (const [x, y, z] of corners) part.positions.push(x + this.shift.x, y, z + this.shift.y);
    for (let i = 2; i < corners.length; i++) part.indices.push(first, first + i - 1, first + i);
  }

  /**
   * An upright prism over an outline that its middle sees whole, without its underside.
   * @param outline corners on the plan, studs, either way round @param low @param high studs
   */
  prism(
    material: string,
    outline: readonly { x: number; y: number }[],
    low: number,
    high: number,
    lid = material,
  ): void {
    const points = isClockwise(outline) ? outline : outline.toReversed();
    const middle: MeshCorner = [
      points.reduce((sum, { x }) => sum + x, 0) / points.length,
      high,
      points.reduce((sum, { y }) => sum + y, 0) / points.length,
    ];
    points.forEach((a, i) => {
      const b = points[(i + 1) % points.length];
      this.face(material, [
        [a.x, high, a.y],
        [b.x, high, b.y],
        [b.x, low, b.y],
        [a.x, low, a.y],
      ]);
      this.face(lid, [middle, [b.x, high, b.y], [a.x, high, a.y]]);
    });
  }

  /** A cone that stands upright. @param sides of its foot */
  cone(
    material: string,
    at: { x: number; y: number },
    radius: number,
    low: number,
    high: number,
    sides = 7,
  ): void {
    const foot = Array.from({ length: sides }, (_, i) => ({
      x: at.x + radius * Math.cos((2 * Math.PI * i) / sides),
      y: at.y + radius * Math.sin((2 * Math.PI * i) / sides),
    }));
    foot.forEach((a, i) => {
      const b = foot[(i + 1) % sides];
      this.face(material, [
        [a.x, low, a.y],
        [at.x, high, at.y],
        [b.x, low, b.y],
      ]);
      this.face(material, [
        [a.x, low, a.y],
        [b.x, low, b.y],
        [at.x, low, at.y],
      ]);
    });
  }

  /** By material, in the order of their names. */
  parts(): MeshPart[] {
    return [...this.#parts]
      .toSorted(([a], [b]) => (a < b ? -1 : 1))
      .map(([material, { positions, indices }]) => ({
        ...{ material, positions: Float32Array.from(positions), indices: Uint32Array.from(indices) },
      }));
  }
}

/** Whether an outline goes round with the clock on a plan with y south. */
const isClockwise = (outline: readonly { x: number; y: number }[]): boolean =>
  outline.reduce((sum, a, i) => {
    const b = outline[(i + 1) % outline.length];
    return sum + a.x * b.y - b.x * a.y;
  }, 0) > 0;

/**
 * Covers the cells of a grid that are alike with few rectangles, each cell once.
 * @param keyOf of a cell; 0: it is left out
 */
export function mergedCells(
  w: number,
  d: number,
  keyOf: (x: number, y: number) => number,
  take: (x: number, y: number, w: number, d: number, key: number) => void,
): void {
  const done = new Uint8Array(w * d);
  for (let y = 0; y < d; y++)
    for (let x = 0; x < w; x++) {
      const key = done[y * w + x] ? 0 : keyOf(x, y);
      if (key === 0) continue;
      let wide = 1;
      while (x + wide < w && !done[y * w + x + wide] && keyOf(x + wide, y) === key) wide++;
      let deep = 1;
      const rowIsLike = (row: number) => {
        for (let i = x; i < x + wide; i++) if (done[row * w + i] || keyOf(i, row) !== key) return false;
        return true;
      };
      while (y + deep < d && rowIsLike(y + deep)) deep++;
      for (let row = y; row < y + deep; row++) done.fill(1, row * w + x, row * w + x + wide);
      take(x, y, wide, deep, key);
    }
}
