import { BRICK_SIZES, partId } from '../catalogue/index.ts';
import { BondWatch, PLATES, UNSEARCHED, pieceSet, tileLayer, type PieceSet } from '../masonry/index.ts';
import { insideArea, type StudArea } from '../grid/index.ts';
import { runsEast, studBehind, type Side } from '../document/index.ts';
import type { WallOpening } from './fronts.ts';
import type { LaidPiece } from './piece.ts';
import { coursesOf, type PartJoint, type Storey } from './storeys.ts';

// Walls in courses that interlock at the corners, with openings left in them and what fills those.

/** The walls of a storey, round what is built. */
export interface StoreyWalls {
  /** Sides of what is built and thickness of its walls, whole studs. */
  w: number;
  d: number;
  thick: number;
  /** Its studs; null: they fill its rectangle. */
  area: StudArea | null;
  storey: Storey;
  /** What is let into them. */
  openings: readonly WallOpening[];
  /** Where parts lift off: no piece reaches over such a joint. */
  joints: readonly PartJoint[];
  /** The longest brick of its walls, studs. */
  wallBrick: number;
}

/** Lengths of the bricks, plates and tiles that walls of one stud and of two are laid with, those that both are made in. */
const LENGTHS = {
  brick: [4, 3, 2, 1],
  plate: [12, 10, 8, 6, 4, 3, 2, 1],
  tile: [4, 3, 2, 1],
} as const;

/** A joint over a joint counts as so many pieces: it is taken only where there is no other way. */
const THROUGH = 1000;

/**
 * The pieces of a storey's walls, course by course. Walls of one stud or two interlock at the corners: in the first
 * course the sides along x run through, in the second those along y, and no joint lies over one of the course below
 * where bricks of up to four studs allow it. Thicker walls, round ones and those round what is left out are laid as an area, less
 * their openings.
 */
export function layWalls(walls: StoreyWalls): LaidPiece[] {
  const { w, d, thick, area } = walls;
  return area === null && thick <= 2 && w > 2 * thick && d > 2 * thick ? layLines(walls) : layArea(walls);
}

/** Stretches of a wall between its openings at a height: from and to, studs along it. */
function stretches(
  from: number,
  to: number,
  openings: readonly WallOpening[],
  side: Side,
  z: number,
): [number, number][] {
  const holes = openings
    .filter((one) => one.side === side && holeAt(one, z))
    .map((one) => holeOf(one, z))
    .toSorted((a, b) => a[0] - b[0]);
  const found: [number, number][] = [];
  let at = from;
  for (const [start, end] of holes) {
    if (start > at) found.push([at, Math.min(start, to)]);
    at = Math.max(at, end);
  }
  if (at < to) found.push([at, to]);
  return found;
}

const holeAt = ({ foot, top }: WallOpening, z: number): boolean => z >= foot && z < top;

/** The studs of a wall that an opening takes at a height: an arch stands on a stud of wall at either side. */
const holeOf = ({ part, from, wide, top }: WallOpening, z: number): [number, number] =>
  part.family === 'arch' && z < top - part.h ? [from + 1, from + wide - 1] : [from, from + wide];

function layLines({ w, d, thick, storey, openings, joints: parts, wallBrick }: StoreyWalls): LaidPiece[] {
  const laid: LaidPiece[] = [];
  const below: Record<Side, ReadonlySet<number>> = { n: new Set(), e: new Set(), s: new Set(), w: new Set() };
  for (const [course, { family, z, h }] of coursesOf(storey, parts).entries()) {
    for (const side of ['n', 's', 'w', 'e'] as const) {
      const isX = runsEast(side);
      const length = isX ? w : d;
      const runsThrough = isX === (course % 2 === 0);
      const [start, end] = runsThrough ? [0, length] : [thick, length - thick];
      const not = new Set([...below[side], thick, length - thick]);
      const joints = new Set<number>();
      const across = side === 's' ? d - thick : side === 'e' ? w - thick : 0;
      for (const [a, b] of stretches(start, end, openings, side, z)) {
        for (const place of [a, b]) joints.add(place);
        for (const { at, long, part } of layStretch(a, b, not, thick, family, wallBrick)) {
          joints.add(at);
          laid.push({
            part,
            use: 'wall',
            ...(isX ? { x: at, y: across, w: long, d: thick } : { x: across, y: at, w: thick, d: long }),
            ...{ z, h, turn: 0 },
          });
        }
      }
      below[side] = joints;
    }
  }
  return laid;
}

/**
 * The pieces of a straight stretch of wall, the fewest with the fewest joints where none should be.
 * @param thick at most as wide as bricks of every length are made; thicker walls take several rows
 * @param longest brick, studs
 */
export function layStretch(
  from: number,
  to: number,
  not: ReadonlySet<number>,
  thick: number,
  family: keyof typeof LENGTHS,
  longest = Infinity,
): { at: number; long: number; part: string }[] {
  const lengths = family === 'brick' ? LENGTHS.brick.filter((long) => long <= longest) : LENGTHS[family];
  const places = jointsOf(from, to, not, lengths);
  return places.slice(1).map((end, i) => {
    const [at, long] = [places[i], end - places[i]];
    return { at, long, part: partId(family, long, thick) };
  });
}

/** A ring of any thickness, each course over the joints of the one below. */
function layArea({ w, d, thick, area, storey, openings, joints, wallBrick }: StoreyWalls): LaidPiece[] {
  const laid: LaidPiece[] = [];
  const watch = new BondWatch(w, d);
  const walls = wallStudsOf({ w, d }, thick, area);
  for (const [course, { family: wanted, z, h }] of coursesOf(storey, joints).entries()) {
    // Few tiles are made wide enough for a thick wall: its joints are of plates.
    const family = wanted === 'tile' ? 'plate' : wanted;
    const mask = walls.slice();
    for (const one of openings) {
      if (!holeAt(one, z)) continue;
      const [a, b] = holeOf(one, z);
      for (let along = a; along < b; along++)
        for (let deep = 0; deep < thick; deep++) {
          const { x, y } = studBehind(one.side, along, one.back + deep, { w, d });
          mask[y * w + x] = 0;
        }
    }
    const set = family === 'brick' ? bricksUpTo(wallBrick) : PLATES;
    const below = course === 0 ? null : watch.open;
    const tiles = area ? tileLayer(mask, w, d, set, below, UNSEARCHED) : tileLayer(mask, w, d, set, below);
    watch.see({ family, laid: tiles, z, h, purpose: 'core' });
    for (let p = 0; p < tiles.length; p += 4) {
      const [x, y, wide, deep] = tiles.subarray(p, p + 4);
      laid.push({
        part: partId(family, wide, deep),
        use: 'wall',
        ...{ x, y, w: wide, d: deep, z, h, turn: 0 },
      });
    }
  }
  return laid;
}

/** Bricks of at most so many studs in length. */
function bricksUpTo(longest: number): PieceSet {
  const set = bricks.get(longest) ?? pieceSet(BRICK_SIZES.filter((size) => Math.max(...size) <= longest));
  bricks.set(longest, set);
  return set;
}
const bricks = new Map<number, PieceSet>();

/** The studs of a wall all round: 1, else 0. */
export const wallMask = (w: number, d: number, thick: number): Uint8Array =>
  Uint8Array.from({ length: w * d }, (_, i) => {
    const [x, y] = [i % w, Math.trunc(i / w)];
    return Math.min(x, y, w - 1 - x, d - 1 - y) < thick ? 1 : 0;
  });

/** The studs of a building's walls: 1, else 0. @param area its studs; null: they fill its rectangle */
export const wallStudsOf = (
  { w, d }: { w: number; d: number },
  thick: number,
  area: StudArea | null,
): Uint8Array => (area ? ringMask(area, thick) : wallMask(w, d, thick));

/** The same of a building that fills no rectangle. */
function ringMask(area: StudArea, thick: number): Uint8Array {
  const inside = insideArea(area, thick);
  return area.mask.map((on, i) => (inside.mask[i] ? 0 : on));
}

/** The way a front faces, degrees clockwise from east. */
export const FACING = { e: 0, s: 90, w: 180, n: 270 } as const satisfies Record<Side, number>;

/** The window, the door or the arches that fill an opening, at the wall's face; arches one behind the other. */
export function fillOf(
  { side, back, part, from, wide, foot, top }: WallOpening,
  { w, d, thick }: Pick<StoreyWalls, 'w' | 'd' | 'thick'>,
): LaidPiece[] {
  // Windows and doors have a depth of their own; arches and bricks with holes go through the wall row by row.
  const isFrame = part.family === 'window' || part.family === 'door';
  const isArch = part.family === 'arch';
  const deep = isFrame ? part.d : 1;
  return Array.from({ length: isFrame ? 1 : thick }, (_, row): LaidPiece => {
    const near = studBehind(side, from, back + row, { w, d });
    const far = studBehind(side, from + wide - 1, back + row + deep - 1, { w, d });
    const [x, y] = [Math.min(near.x, far.x), Math.min(near.y, far.y)];
    return {
      part: part.id,
      use: 'opening',
      ...{ x, y, w: Math.abs(far.x - near.x) + 1, d: Math.abs(far.y - near.y) + 1 },
      ...{ z: isArch ? top - part.h : foot, h: part.h, turn: FACING[side] },
    };
  });
}

/**
 * Where the pieces of a straight stretch of wall meet, its ends among them: the fewest pieces with the fewest joints where
 * none should be.
 * @param from @param to its ends, whole studs @param not where no joint should be
 */
function jointsOf(from: number, to: number, not: ReadonlySet<number>, lengths: readonly number[]): number[] {
  // The least from each place to the end, and the length of the piece that begins it.
  const least = new Array<number>(to + 1).fill(Infinity);
  const first = new Array<number>(to + 1).fill(1);
  least[to] = 0;
  for (let at = to - 1; at >= from; at--)
    for (const length of lengths) {
      const next = at + length;
      if (next > to) continue;
      const cost = least[next] + 1 + (next < to && not.has(next) ? THROUGH : 0);
      if (cost < least[at]) [least[at], first[at]] = [cost, length];
    }
  const joints = [from];
  for (let at = from; at < to; at += first[at]) joints.push(at + first[at]);
  return joints;
}
