import { PLATE_SIZES, partId } from '../catalogue/index.ts';
import { contains, intersection, isInArea, type Rect, type StudArea } from '../grid/index.ts';
import type { BuildingUse } from '../masonry/index.ts';
import type { LaidPiece } from './piece.ts';
import type { Course } from './storeys.ts';

// Floors and roofs of one layer of plates, and the pillars under joints that no wall carries.

/** The longest side of a plate, studs: wider floors are laid in fields of at most so much. */
const FIELD = 16;
/** Pillars under a joint stand at most so far apart, studs, as a deck's by default (ours, no source). */
const SPAN = 8;
/** Side of a pillar, studs; and how far from one pillar under a joint to the next at least. */
const PILLAR = 2;
const APART = 4;

/** How a rectangle of at most FIELD × FIELD is laid: as one plate, or parted across x or y at a stud. */
interface Parting {
  pieces: number;
  across: 'x' | 'y' | null;
  at: number;
}
const partings = new Map<number, Parting>();
const isPlate = new Set(PLATE_SIZES.flatMap(([w, d]) => [w * 64 + d, d * 64 + w]));

/** The fewest plates of those made by cuts from side to side: dynamic programming over all smaller rectangles. */
function partingOf(w: number, d: number): Parting {
  const key = w * 64 + d;
  const known = partings.get(key);
  if (known) return known;
  let best: Parting = { pieces: isPlate.has(key) ? 1 : Infinity, across: null, at: 0 };
  for (const [across, length] of [
    ['x', w],
    ['y', d],
  ] as const)
    for (let at = 1; at <= length / 2 && best.pieces > 1; at++) {
      const rest = length - at;
      const pieces =
        across === 'x'
          ? partingOf(rest, d).pieces + partingOf(at, d).pieces
          : partingOf(w, rest).pieces + partingOf(w, at).pieces;
      if (pieces < best.pieces) best = { pieces, across, at: rest };
    }
  partings.set(key, best);
  return best;
}

function layField({ x, y, w, d }: Rect, laid: LaidPiece, into: LaidPiece[]): void {
  const { across, at } = partingOf(w, d);
  if (across === 'x') {
    layField({ x, y, w: at, d }, laid, into);
    layField({ x: x + at, y, w: w - at, d }, laid, into);
  } else if (across === 'y') {
    layField({ x, y, w, d: at }, laid, into);
    layField({ x, y: y + at, w, d: d - at }, laid, into);
  } else into.push({ ...laid, part: partId('plate', w, d), x, y, w, d });
}

/** Where a side is parted into fields, its ends among them: even shares of at most FIELD studs. */
function fieldsOf(length: number): number[] {
  const count = Math.max(1, Math.ceil(length / FIELD));
  return Array.from({ length: count + 1 }, (_, i) => Math.round((i * length) / count));
}

/** A rectangle of whole studs covered by one layer of plates; each stud once. Empty for one of no studs. */
export function layFloor({ x, y, w, d }: Rect, z: number, use: BuildingUse): LaidPiece[] {
  const laid: LaidPiece[] = [];
  if (w <= 0 || d <= 0) return laid;
  const like: LaidPiece = { part: '', use, x, y, w, d, z, h: 1, turn: 0 };
  const [columns, rows] = [fieldsOf(w), fieldsOf(d)];
  for (let j = 1; j < rows.length; j++)
    for (let i = 1; i < columns.length; i++) {
      const field = { x: x + columns[i - 1], y: y + rows[j - 1] };
      layField({ ...field, w: columns[i] - columns[i - 1], d: rows[j] - rows[j - 1] }, like, laid);
    }
  return laid;
}

/**
 * Where pillars stand under a floor: under the joints between its fields, and under each plate that lies on no wall and
 * no other pillar. Studs.
 * @param thick of the walls, which carry the ends of the joints
 * @param taken what stands out inside: deep windows
 */
export function pillarsUnder(w: number, d: number, thick: number, taken: readonly Rect[]): PillarSpot[] {
  const inside = { x: thick, y: thick, w: w - 2 * thick, d: d - 2 * thick };
  const { found, add } = pillarSpots((rect) => contains(inside, rect), taken);
  const [columns, rows] = [fieldsOf(w).slice(1, -1), fieldsOf(d).slice(1, -1)];
  const half = PILLAR / 2;
  for (const x of columns) for (const y of rows) add(x - half, y - half, APART);
  for (const x of columns) for (const y of sharesOf(d)) add(x - half, y - half, APART);
  for (const y of rows) for (const x of sharesOf(w)) add(x - half, y - half, APART);
  const plates = layFloor({ x: 0, y: 0, w, d }, 0, 'floor');
  underEach(
    plates.filter((plate) => contains(inside, plate)),
    { found, add },
  );
  return found;
}

/**
 * Where pillars stand under the floor of a room that fills no rectangle: evenly where it is wider than a plate is long, and under each
 * plate that lies on no wall and no other pillar; studs.
 * @param plates of the floor, over walls and all
 */
export function pillarsIn(
  room: StudArea,
  plates: readonly LaidPiece[],
  taken: readonly Rect[],
): PillarSpot[] {
  const isIn = (rect: Rect) => isInArea(room, rect);
  const spots = pillarSpots(isIn, taken);
  if (!room.mask.includes(1)) return [];
  if (Math.max(room.w, room.d) > FIELD)
    for (const x of sharesOf(room.w))
      for (const y of sharesOf(room.d)) spots.add(x - PILLAR / 2, y - PILLAR / 2, APART);
  underEach(plates.filter(isIn), spots);
  return spots.found;
}

/** A pillar's place: two studs a side, one where there is no room for two. */
export type PillarSpot = Rect;

/**
 * Pillars as they stand, with one under each plate that lies on none of them and on no wall.
 * @param plates that lie on no wall @param taken where none may stand: deep windows, stairs
 */
export function pillarsBeside({
  plates,
  spots,
  isInRoom,
  taken,
}: {
  plates: readonly Rect[];
  spots: readonly PillarSpot[];
  isInRoom: (rect: Rect) => boolean;
  taken: readonly Rect[];
}): PillarSpot[] {
  const all = pillarSpots(isInRoom, taken);
  all.found.push(...spots);
  underEach(plates, all);
  return all.found;
}

/** Places of pillars as they are found: where there is room, and so far apart along x or y. */
function pillarSpots(isInRoom: (rect: Rect) => boolean, taken: readonly Rect[]) {
  const found: PillarSpot[] = [];
  const add = (x: number, y: number, apart: number, side = PILLAR): boolean => {
    const spot = { x, y, w: side, d: side };
    const off = apart - PILLAR;
    const about = { x: x - off, y: y - off, w: side + 2 * off, d: side + 2 * off };
    const isFree =
      isInRoom(spot) &&
      !found.some((one) => intersection(one, about)) &&
      !taken.some((one) => intersection(one, spot));
    if (isFree) found.push(spot);
    return isFree;
  };
  return { found, add };
}

/** Where a length is parted so that no part is longer than a span. */
function sharesOf(length: number): number[] {
  const count = Math.ceil(length / SPAN);
  return Array.from({ length: count - 1 }, (_, i) => Math.round(((i + 1) * length) / count));
}

/** A pillar under each plate under which none stands yet, as near to its middle as there is room. */
function underEach(plates: readonly Rect[], { found, add }: ReturnType<typeof pillarSpots>): void {
  for (const plate of plates) {
    if (found.some((spot) => intersection(plate, spot))) continue;
    for (const side of [PILLAR, 1])
      if (spotsNear(plate, side).some(({ x, y }) => add(x, y, PILLAR, side))) break;
  }
}

/** Places of a pillar that reach under a plate, the nearest to its middle first. */
function spotsNear(plate: Rect, side: number): { x: number; y: number }[] {
  const middle = { x: plate.x + Math.trunc((plate.w - 1) / 2), y: plate.y + Math.trunc((plate.d - 1) / 2) };
  const spots: { x: number; y: number }[] = [];
  for (let y = plate.y - side + 1; y < plate.y + plate.d; y++)
    for (let x = plate.x - side + 1; x < plate.x + plate.w; x++) spots.push({ x, y });
  const off = ({ x, y }: { x: number; y: number }) => Math.hypot(x - middle.x, y - middle.y);
  return spots.toSorted((a, b) => off(a) - off(b));
}

/** The pillars of a storey, in the courses of its walls. */
export const layPillars = (spots: readonly PillarSpot[], courses: readonly Course[]): LaidPiece[] =>
  spots.flatMap(({ x, y, w, d }) => {
    const parts = { brick: partId('brick', w, d), plate: partId('plate', w, d), tile: partId('tile', w, d) };
    return courses.map(({ family, z, h }): LaidPiece => {
      return { part: parts[family], use: 'pillar', x, y, w, d, z, h, turn: 0 };
    });
  });
