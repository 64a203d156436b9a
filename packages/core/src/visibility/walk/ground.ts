import { PLATES_PER_BRICK, STUDS_PER_PLATE, type Rect } from '../../grid/index.ts';
import { GROUNDS, customGroundOf, listOf, type Scene } from '../../document/index.ts';
import { dressesOf } from '../../masonry/index.ts';
import { BARE, OUTSIDE, type Relief } from '../../terrain/index.ts';
import { mergedCells, type MeshBuilder, type MeshCorner } from './mesh.ts';

/** Ground and whether it is planned only, as one number below 256. */
const BARE_LOOK = 127;
const lookOf = (code: number, isPlanned: number): number =>
  (code === BARE ? BARE_LOOK : code) + (isPlanned ? 128 : 0);
/**
 * What a stud of ground looks like, by its look: `ground` and its kind; where a recipe of the whole display or the
 * display itself says how it is covered, the colour that most of it has.
 */
function materialsOf(scene: Scene): (look: number, height: number) => string {
  const dresses = dressesOf(scene);
  const recipes = listOf(scene, 'recipe').filter(({ section }) => section === null);
  const names = new Map<number, string>();
  return (look, height) => {
    const code = look % 128;
    const key = dresses.band(height) * 128 + code;
    let name = names.get(key);
    if (name === undefined) {
      const ground = code === BARE_LOOK ? 'bare' : GROUNDS[code];
      const [first, ...others] = dresses.of(ground, null, height).tones;
      const most = others.reduce((best, tone) => (tone.share > best.share ? tone : best), first);
      const isOwn =
        customGroundOf(scene, ground) !== null ||
        recipes.some((recipe) => recipe.ground === ground && height >= (recipe.above ?? -Infinity));
      name = isOwn ? `colour ${most.colour}` : `ground ${ground}`;
      names.set(key, name);
    }
    return name;
  };
}

/** The lowest ground, plates; no higher than the datum. */
export const lowestOf = ({ height }: Pick<Relief, 'height'>): number =>
  height.reduce((least, plates) => Math.min(least, plates), 0);

/** What is drawn of a relief. */
export type GroundRaster = Pick<Relief, 'w' | 'd' | 'height' | 'ground'>;

/** A rectangle of a relief with a mask over it. @param rect within it, studs from its own corner */
export function cropped(
  { w, height, ground }: GroundRaster,
  planned: Uint8Array,
  rect: Rect,
): GroundRaster & { planned: Uint8Array } {
  const rows = <T extends Int16Array | Uint8Array>(from: T, to: T): T => {
    for (let row = 0; row < rect.d; row++)
      to.set(from.subarray((rect.y + row) * w + rect.x, (rect.y + row) * w + rect.x + rect.w), row * rect.w);
    return to;
  };
  const size = rect.w * rect.d;
  return {
    ...{ w: rect.w, d: rect.d },
    height: rows(height, new Int16Array(size)),
    ground: rows(ground, new Uint8Array(size)),
    planned: rows(planned, new Uint8Array(size)),
  };
}

/** Ground as it is drawn: the relief, or squares of it. */
export interface DrawnGround extends GroundRaster {
  /** Side of a cell, studs, and of the whole footprint. */
  cell: number;
  whole: { w: number; d: number };
  /** Cells whose ground does not stand yet: 1. */
  planned: Uint8Array;
}

/** Every stud of a relief. @param planned studs whose ground does not stand yet: 1 */
export const fineGround = (relief: GroundRaster, planned: Uint8Array): DrawnGround => ({
  ...relief,
  ...{ cell: 1, whole: relief, planned },
});

/**
 * A relief in squares: each as high as its studs are in the mean, in whole bricks, of the ground of its middle.
 * @param cell side of a square, studs
 */
export function coarseGround(relief: GroundRaster, planned: Uint8Array, cell: number): DrawnGround {
  const [w, d] = [Math.ceil(relief.w / cell), Math.ceil(relief.d / cell)];
  const height = new Int16Array(w * d);
  const ground = new Uint8Array(w * d).fill(OUTSIDE);
  const isPlanned = new Uint8Array(w * d);
  for (let y = 0; y < d; y++)
    for (let x = 0; x < w; x++) {
      let [studs, sum] = [0, 0];
      const [east, south] = [Math.min(relief.w, (x + 1) * cell), Math.min(relief.d, (y + 1) * cell)];
      for (let row = y * cell; row < south; row++)
        for (let i = row * relief.w + x * cell; i < row * relief.w + east; i++)
          if (relief.ground[i] !== OUTSIDE) {
            studs++;
            sum += relief.height[i];
          }
      const [across, down] = [(x * cell + east) >> 1, (y * cell + south) >> 1];
      const middle = Math.min(down, south - 1) * relief.w + Math.min(across, east - 1);
      if (studs === 0 || relief.ground[middle] === OUTSIDE) continue;
      height[y * w + x] = PLATES_PER_BRICK * Math.round(sum / studs / PLATES_PER_BRICK);
      ground[y * w + x] = relief.ground[middle];
      isPlanned[y * w + x] = planned[middle];
    }
  return { ...{ w, d, height, ground, cell, planned: isPlanned }, whole: { w: relief.w, d: relief.d } };
}

/**
 * The ground with its steps, down to the table at its edges.
 * @param low the table, plates: one under the lowest ground
 */
export function addGround(
  mesh: MeshBuilder,
  scene: Scene,
  drawn: DrawnGround,
  low = lowestOf(drawn) - 1,
): void {
  const { w, d, height, ground, planned, cell, whole } = drawn;
  const materialOf = materialsOf(scene);
  const inStuds = ([x, high, y]: MeshCorner): MeshCorner => [
    Math.min(x * cell, whole.w),
    high,
    Math.min(y * cell, whole.d),
  ];
  const put = (look: number, plates: number, corners: readonly MeshCorner[]) => {
    mesh.isPlanned = look >= 128;
    mesh.face(materialOf(look, plates), cell === 1 ? corners : corners.map(inStuds));
    mesh.isPlanned = false;
  };
  const isIn = (x: number, y: number) => x >= 0 && y >= 0 && x < w && y < d && ground[y * w + x] !== OUTSIDE;
  // A key for a height and a ground: heights may lie below the datum.
  const keyAt = (x: number, y: number) => {
    const i = y * w + x;
    return ground[i] === OUTSIDE ? 0 : 1 + lookOf(ground[i], planned[i]) + 256 * (height[i] + 32_768);
  };
  const heightOf = (key: number) => Math.floor((key - 1) / 256) - 32_768;
  mergedCells(w, d, keyAt, (x, y, wide, deep, key) => {
    const plates = heightOf(key);
    const high = plates * STUDS_PER_PLATE;
    put((key - 1) % 256, plates, [
      [x, high, y],
      [x, high, y + deep],
      [x + wide, high, y + deep],
      [x + wide, high, y],
    ]);
  });
  // Between two studs the side of the higher one; runs of like steps are one face.
  const stepKey = (x: number, y: number, toX: number, toY: number): number => {
    if (!isIn(x, y)) return 0;
    const own = height[y * w + x];
    const beside = isIn(toX, toY) ? height[toY * w + toX] : low;
    return beside < own
      ? 1 + lookOf(ground[y * w + x], planned[y * w + x]) + 256 * (own - low + 4096 * (beside - low))
      : 0;
  };
  const step = (key: number) => {
    const rest = Math.floor((key - 1) / 256);
    return {
      ...{ look: (key - 1) % 256, plates: (rest % 4096) + low },
      high: ((rest % 4096) + low) * STUDS_PER_PLATE,
      foot: (Math.floor(rest / 4096) + low) * STUDS_PER_PLATE,
    };
  };
  for (let y = 0; y < d; y++)
    for (const [by, at] of [
      [-1, y],
      [1, y + 1],
    ])
      mergedCells(
        w,
        1,
        (x) => stepKey(x, y, x, y + by),
        (x, _, wide, __, key) => {
          const { look, plates, high, foot } = step(key);
          const [from, to] = by > 0 ? [x, x + wide] : [x + wide, x];
          put(look, plates, [
            [from, high, at],
            [from, foot, at],
            [to, foot, at],
            [to, high, at],
          ]);
        },
      );
  for (let x = 0; x < w; x++)
    for (const [by, at] of [
      [-1, x],
      [1, x + 1],
    ])
      mergedCells(
        d,
        1,
        (y) => stepKey(x, y, x + by, y),
        (y, _, deep, __, key) => {
          const { look, plates, high, foot } = step(key);
          const [from, to] = by > 0 ? [y + deep, y] : [y, y + deep];
          put(look, plates, [
            [at, high, from],
            [at, foot, from],
            [at, foot, to],
            [at, high, to],
          ]);
        },
      );
}
