import { STUDS_PER_PLATE } from '../../grid/index.ts';
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
function materialsOf(scene: Scene): (look: number) => string {
  const dress = dressesOf(scene);
  const dressed = new Set<string>(
    listOf(scene, 'recipe').flatMap(({ ground, section }) => (section === null ? [ground] : [])),
  );
  const names = new Map<number, string>();
  return (look) => {
    const code = look % 128;
    let name = names.get(code);
    if (name === undefined) {
      const ground = code === BARE_LOOK ? 'bare' : GROUNDS[code];
      const [first, ...others] = dress(ground, null).tones;
      const most = others.reduce((best, tone) => (tone.share > best.share ? tone : best), first);
      const isOwn = dressed.has(ground) || customGroundOf(scene, ground) !== null;
      name = isOwn ? `colour ${most.colour}` : `ground ${ground}`;
      names.set(code, name);
    }
    return name;
  };
}

/** The lowest ground, plates; no higher than the datum. */
export const lowestOf = ({ height }: Relief): number =>
  height.reduce((least, plates) => Math.min(least, plates), 0);

/** The ground with its steps, down to the table at its edges. @param planned studs whose ground does not stand yet: 1 */
export function addGround(mesh: MeshBuilder, scene: Scene, relief: Relief, planned: Uint8Array): void {
  const { w, d, height, ground } = relief;
  const materialOf = materialsOf(scene);
  const put = (look: number, corners: readonly MeshCorner[]) => {
    mesh.isPlanned = look >= 128;
    mesh.face(materialOf(look), corners);
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
    const high = heightOf(key) * STUDS_PER_PLATE;
    put((key - 1) % 256, [
      [x, high, y],
      [x, high, y + deep],
      [x + wide, high, y + deep],
      [x + wide, high, y],
    ]);
  });
  // Between two studs the side of the higher one; runs of like steps are one face.
  const low = lowestOf(relief) - 1;
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
      ...{ look: (key - 1) % 256, high: ((rest % 4096) + low) * STUDS_PER_PLATE },
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
          const { look, high, foot } = step(key);
          const [from, to] = by > 0 ? [x, x + wide] : [x + wide, x];
          put(look, [
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
          const { look, high, foot } = step(key);
          const [from, to] = by > 0 ? [y + deep, y] : [y, y + deep];
          put(look, [
            [at, high, from],
            [at, foot, from],
            [at, foot, to],
            [at, high, to],
          ]);
        },
      );
}
