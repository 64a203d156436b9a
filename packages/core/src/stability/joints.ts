import { MM_PER_PLATE, MM_PER_STUD, intersection, type Rect } from '../grid/index.ts';
import type { SlabKind } from '../terrain/index.ts';

// Placed pieces as rigid bodies, and the joints where one lies on another.

/** A placed piece: studs of the display, plates above datum. */
export interface StandingPiece extends Rect {
  z: number;
  h: number;
  part: string;
  grams: number;
  /** What stands on it is held by its studs. */
  studded: boolean;
  /** The deck, bridge or roof it is of, or stands under; left out: the ground. */
  of?: PieceOwner;
  /** The counting block it is laid in, where it is of one. */
  block?: string;
}

/** What a piece belongs to that is not the ground. */
export interface PieceOwner {
  kind: SlabKind;
  id: string;
}

/** What presses on a stud: grams at a place, studs, and the height of its foot, plates. */
export interface StudLoad {
  x: number;
  y: number;
  z: number;
  grams: number;
}

/** Pieces that are judged together. */
export interface PieceGroup {
  pieces: readonly StandingPiece[];
  loads: readonly StudLoad[];
  /** Plates above datum at which the base lies: what begins there is pressed onto it. */
  floor: number;
  /** Studs where a roof or bridge is taken as laid into the solid ground beside it, with the height of its underside. */
  sockets: readonly { x: number; y: number; z: number }[];
  /** It stands loose: base and sockets bear it and do not hold it down. */
  isLoose?: boolean;
}

/** Where the upper of two pieces lies on the lower; `lower` −1: on the base, or let into the ground. */
export interface Joint extends Rect {
  upper: number;
  lower: number;
  /** Plates above datum. */
  z: number;
  /** Studs that hold the two together. */
  studs: number;
}

/** The key of a stud in a map, for coordinates from −32,768 to 32,767. */
const keyOf = (x: number, y: number): number => (y + 32_768) * 65_536 + x + 32_768;

/** Finds all joints of a group, in the order of the upper pieces. Linear in the studs of all pieces. */
export function jointsOf({ pieces, floor, sockets, isLoose = false }: PieceGroup): Joint[] {
  const tops = topsOf(pieces);
  const holds = new Map<number, Set<number>>();
  for (const { x, y, z } of sockets) holds.set(z, (holds.get(z) ?? new Set()).add(keyOf(x, y)));
  const joints: Joint[] = [];
  pieces.forEach((piece, upper) => {
    const { x, y, w, d, z } = piece;
    if (z <= floor) {
      joints.push({ upper, lower: -1, x, y, w, d, z, studs: isLoose ? 0 : w * d });
      return;
    }
    const below = tops.get(z);
    const held = holds.get(z);
    const seen = new Set<number>();
    eachStud(piece, (column, row) => {
      const lower = below?.get(keyOf(column, row));
      if (lower === undefined) {
        if (held?.has(keyOf(column, row)))
          joints.push({ upper, lower: -1, x: column, y: row, w: 1, d: 1, z, studs: isLoose ? 0 : 1 });
        return;
      }
      if (seen.has(lower)) return;
      seen.add(lower);
      const under = pieces[lower];
      const on = intersection(piece, under);
      if (on) joints.push({ upper, lower, ...on, z, studs: under.studded ? on.w * on.d : 0 });
    });
  });
  return joints;
}

/** The piece whose top is at a height, by stud. */
function topsOf(pieces: readonly StandingPiece[]): Map<number, Map<number, number>> {
  const tops = new Map<number, Map<number, number>>();
  pieces.forEach((piece, index) => {
    const level = piece.z + piece.h;
    const known = tops.get(level) ?? new Map<number, number>();
    tops.set(level, known);
    eachStud(piece, (x, y) => known.set(keyOf(x, y), index));
  });
  return tops;
}

function eachStud({ x, y, w, d }: Rect, visit: (column: number, row: number) => void): void {
  for (let row = y; row < y + d; row++) for (let column = x; column < x + w; column++) visit(column, row);
}

/**
 * Pieces that have others, or the base, under every stud of theirs, down to the base: what presses on one goes straight
 * down. They count as one with the base, but for what stands loose on it.
 * @param joints all of the pieces
 * @returns 1 for each of them
 */
export function groundedOf(pieces: readonly StandingPiece[], joints: readonly Joint[]): Uint8Array {
  const grounded = new Uint8Array(pieces.length);
  const under = jointsUnder(pieces.length, joints);
  const order = pieces.map((_, index) => index).toSorted((a, b) => pieces[a].z - pieces[b].z);
  for (const index of order) {
    const { w, d } = pieces[index];
    const borne = under[index].reduce(
      (sum, { lower, studs, ...on }) => sum + ((lower < 0 ? studs > 0 : grounded[lower]) ? on.w * on.d : 0),
      0,
    );
    if (borne === w * d) grounded[index] = 1;
  }
  return grounded;
}

/** The joints under each piece. */
function jointsUnder(count: number, joints: readonly Joint[]): Joint[][] {
  const under = Array.from({ length: count }, (): Joint[] => []);
  for (const joint of joints) under[joint.upper].push(joint);
  return under;
}

/** A vertical load on a body: grams, and their moments about the display's west and north edges, gram studs. */
export interface Weight {
  grams: number;
  mx: number;
  my: number;
}

/** What each piece bears of itself and of what stands on it. A load rests on the highest piece under it. */
export function weightsOf({ pieces, loads }: Pick<PieceGroup, 'pieces' | 'loads'>): Weight[] {
  const weights = pieces.map(({ x, y, w, d, grams }): Weight => ({
    grams,
    mx: grams * (x + w / 2),
    my: grams * (y + d / 2),
  }));
  const wanted = new Map<number, number[]>();
  loads.forEach(({ x, y }, index) => {
    const key = keyOf(Math.floor(x), Math.floor(y));
    wanted.set(key, [...(wanted.get(key) ?? []), index]);
  });
  const bearer = new Int32Array(loads.length).fill(-1);
  pieces.forEach((piece, index) => {
    eachStud(piece, (column, row) => {
      for (const load of wanted.get(keyOf(column, row)) ?? []) {
        const top = piece.z + piece.h;
        const known = bearer[load];
        const isLower = top <= loads[load].z + 1e-6;
        const before = known < 0 ? -Infinity : pieces[known].z + pieces[known].h;
        if (known < 0 || (isLower && (top > before || before > loads[load].z + 1e-6))) bearer[load] = index;
      }
    });
  });
  loads.forEach(({ x, y, grams }, index) => {
    const weight = weights[bearer[index]];
    if (weight) addWeight(weight, { grams, mx: grams * x, my: grams * y });
  });
  return weights;
}

export function addWeight(to: Weight, { grams, mx, my }: Weight): void {
  to.grams += grams;
  to.mx += mx;
  to.my += my;
}

/**
 * The share of its holds that one joint needs when it alone carries a weight: the most of rocking about each of its four
 * edges. Pushes at its corners have no limit; its studs pull as one spread evenly.
 * @param weight that the upper piece bears, or, negative, that hangs on the lower
 * @param hold of one stud, grams
 * @returns 0: it rests; Infinity: nothing holds it
 */
export function shareOfJoint(
  { x, y, w, d, studs }: Rect & Pick<Joint, 'studs'>,
  weight: Weight,
  hold: number,
): number {
  const { grams, mx, my } = weight;
  // Work of the weight against the pull of the studs while the joint opens about an edge.
  const edges = [
    { work: -(mx - x * grams), lever: w / 2 },
    { work: -((x + w) * grams - mx), lever: w / 2 },
    { work: -(my - y * grams), lever: d / 2 },
    { work: -((y + d) * grams - my), lever: d / 2 },
  ];
  let share = 0;
  for (const { work, lever } of edges)
    if (work > 1e-9) share = Math.max(share, studs > 0 ? work / (hold * studs * lever) : Infinity);
  return share;
}

/** Millimetres of a place in studs and plates. */
export const inMm = (x: number, y: number, z: number): [number, number, number] => [
  x * MM_PER_STUD,
  y * MM_PER_STUD,
  z * MM_PER_PLATE,
];
