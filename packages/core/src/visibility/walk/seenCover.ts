import { STUDS_PER_PLATE } from '../../grid/index.ts';
import { SIDES, type Scene } from '../../document/index.ts';
import { NEIGHBOUR_STEPS, bodiesOf, type Relief } from '../../terrain/index.ts';
import { faceAt } from '../cliffs.ts';
import { NO_STUD, UNSEEN, type Sight } from '../sight.ts';
import { sideOf, wallsOf } from '../points.ts';
import { MeshBuilder, mergedCells, type MeshPart } from './mesh.ts';

/** How often a stud is seen: by nobody, by less than a quarter of all visitors, by less than three quarters, by most. */
export const SEEN_CLASSES = ['nobody', 'few', 'some', 'most'] as const;
export type SeenClass = (typeof SEEN_CLASSES)[number];
/** Percent of all visitors from which the next class begins. */
const BEGINS = { few: 1, some: 25, most: 75 } as const;
/** How far the shade lies over what it shades, studs. */
const ABOVE = 0.06;

/** Begins the material of a shade. */
export const SEEN = 'seen ';

/** @param share of all visitors in percent, as `Sight.studs` has it; null: outside the footprint */
export function seenClass(share: number): SeenClass | null {
  if (share === NO_STUD) return null;
  if (share === UNSEEN) return 'nobody';
  return share < BEGINS.some ? 'few' : share < BEGINS.most ? 'some' : 'most';
}

/** A shade over the ground by how many visitors see it. */
export interface SeenCover {
  parts: MeshPart[];
  /** Studs of ground by class; what something stands on is not among them. */
  studs: Record<SeenClass, number>;
}

/**
 * Shades ground, decks and bridges by who sees them, sides of buildings by how much of them those see who are before them, and
 * faces of cliffs and edges that nobody sees, in the frame of the walk's faces.
 * @param sight of the same relief
 */
export function seenCover(
  scene: Scene,
  relief: Relief,
  { studs, things, hiddenFaces }: Pick<Sight, 'studs' | 'things' | 'hiddenFaces'>,
): SeenCover {
  const { w, d, surface, top } = relief;
  const mesh = new MeshBuilder();
  shadeSides(mesh, scene, relief, things);
  shadeFaces(mesh, relief, hiddenFaces);
  const counts: Record<SeenClass, number> = { nobody: 0, few: 0, some: 0, most: 0 };
  // What is seen of a building or a tree is not seen of the ground that it stands on.
  const classAt = (i: number): number => {
    const seen = top[i] === surface[i] ? seenClass(studs[i]) : null;
    return seen === null ? -1 : SEEN_CLASSES.indexOf(seen);
  };
  for (let i = 0; i < w * d; i++) {
    const seen = SEEN_CLASSES[classAt(i)];
    if (seen) counts[seen]++;
  }
  mergedCells(
    w,
    d,
    (x, y) => {
      const i = y * w + x;
      const seen = classAt(i);
      return seen < 0 ? 0 : 1 + seen + SEEN_CLASSES.length * (surface[i] + 32_768);
    },
    (x, y, wide, deep, key) => {
      const seen = (key - 1) % SEEN_CLASSES.length;
      const plates = Math.floor((key - 1) / SEEN_CLASSES.length) - 32_768;
      const high = plates * STUDS_PER_PLATE + ABOVE;
      mesh.face(`${SEEN}${SEEN_CLASSES[seen]}`, [
        [x, high, y],
        [x, high, y + deep],
        [x + wide, high, y + deep],
        [x + wide, high, y],
      ]);
    },
  );
  return { parts: mesh.parts(), studs: counts };
}

/** Sides of buildings: those that nobody is before are seen by nobody. */
function shadeSides(mesh: MeshBuilder, scene: Scene, relief: Relief, things: Sight['things']): void {
  const sidesOf = new Map(
    things.flatMap(({ kind, id, sides }) => (kind === 'plot' ? [[id, sides] as const] : [])),
  );
  for (const { kind, id, corners, ground, begins, top, isPavement } of bodiesOf(scene, relief)) {
    const sides = kind === 'plot' && !isPavement ? sidesOf.get(id) : undefined;
    if (!sides) continue;
    // Over its eaves a building has a roof.
    const high = Math.min(top, ground + (scene.plot[id]?.eaves ?? Infinity));
    if (high <= begins) continue;
    for (const { a, b, out } of wallsOf(corners)) {
      const share = sides.find(({ side }) => side === sideOf(out))?.free ?? 0;
      const seen = seenClass(share === 0 ? UNSEEN : Math.max(1, Math.round(100 * share)));
      // North is up the plan, where y is less.
      const ends = [a, b].map(({ x, y }) => ({
        x: x - relief.x + out.x * ABOVE,
        y: y - relief.y - out.y * ABOVE,
      }));
      if (seen) upright(mesh, seen, ends, out, begins, high);
    }
  }
}

/** Faces of cliffs and edges that nobody sees, stud by stud. */
function shadeFaces(mesh: MeshBuilder, relief: Relief, faces: Sight['hiddenFaces']): void {
  for (const { side, x, y, w, d } of faces) {
    const step = NEIGHBOUR_STEPS[side];
    const out = { x: step.x, y: -step.y };
    for (let k = 0; k < w * d; k++) {
      const [column, row] = [x - relief.x + (k % w), y - relief.y + Math.trunc(k / w)];
      const face = faceAt(relief, row * relief.w + column, SIDES.indexOf(side));
      if (!face) continue;
      const middle = {
        x: column + 0.5 + step.x * (0.5 + ABOVE),
        y: row + 0.5 + step.y * (0.5 + ABOVE),
      };
      const ends = [-0.5, 0.5].map((along) => ({
        x: middle.x + step.y * along,
        y: middle.y + step.x * along,
      }));
      upright(mesh, 'nobody', ends, out, face.low, face.high);
    }
  }
}

/** An upright face over a line, seen from where it looks to. @param out east and north @param low plates */
function upright(
  mesh: MeshBuilder,
  seen: SeenClass,
  [a, b]: readonly { x: number; y: number }[],
  out: { x: number; y: number },
  low: number,
  high: number,
): void {
  const [from, to] = [low * STUDS_PER_PLATE, high * STUDS_PER_PLATE];
  // Corners go against the clock as one looks at it: to the right of a reader lies what is left of where it looks.
  const isRight = (b.x - a.x) * -out.y + (b.y - a.y) * -out.x > 0;
  const [left, right] = isRight ? [a, b] : [b, a];
  mesh.face(`${SEEN}${seen}`, [
    [left.x, from, left.y],
    [right.x, from, right.y],
    [right.x, to, right.y],
    [left.x, to, left.y],
  ]);
}
