import { MM_PER_PLATE, MM_PER_STUD } from '../grid/index.ts';
import { lettersReadAt, outOf, type Entity, type Side } from '../document/index.ts';
import type { Body, Relief } from '../terrain/index.ts';
import { inFrame } from './field.ts';
import type { Eye } from './seen.ts';

// Points of things that eyes look at: on walls, on the heads of figures, on the letters of signboards.

/** A point that is looked at; seen only from before its face. */
export interface LookedPoint {
  at: Eye;
  /** Away from the face, studs east and north; null: it is seen from all round. */
  out: { x: number; y: number } | null;
  side: Side | null;
  /** The area it stands for, studs × mm. */
  weight: number;
}

/** A face has a point each so many studs along it and so many mm up it, but no more points than these. */
const POINT = { along: 2, up: 20, mostAlong: 12, mostUp: 6 };
/** A small scene is looked at where the faces of its figures are, as a share of their height. */
const FACE = 0.9;

/** A point of a signboard's face, so many studs to the right of its middle as one reads it. */
export function faceOf(sign: Entity<'signboard'>, board: Body, relief: Relief, along: number): LookedPoint {
  const out = outOf(sign);
  const at = {
    // North is up the plan, where y is less; to the right of a reader lies what is left of where the letters look.
    x: sign.x + out.x / 2 - out.y * along,
    y: sign.y - out.y / 2 - out.x * along,
  };
  return {
    at: inFrame(relief, at, (MM_PER_PLATE * (board.begins + board.top)) / 2),
    ...{ out, side: sideOf(out), weight: 1 },
  };
}

export const boardTargets = (sign: Entity<'signboard'>, board: Body, relief: Relief): LookedPoint[] =>
  pointsOf(sign.w, POINT.along, POINT.mostAlong).map((share) =>
    faceOf(sign, board, relief, (share - 0.5) * sign.w),
  );

/** From farther to the side than 75° off straight on nobody reads (ours, no source). */
export const LEAST_STRAIGHT = Math.cos((75 * Math.PI) / 180);

/** The cosine of the angle at which an eye meets a face: 1 straight on, 0 along it, less behind it. */
export function straightness({ at, out }: LookedPoint, eye: Eye): number {
  const [dx, dy, dz] = [(eye.x - at.x) * MM_PER_STUD, (eye.y - at.y) * MM_PER_STUD, eye.z - at.z];
  return out ? (out.x * dx + out.y * dy) / Math.hypot(dx, dy, dz) : 1;
}

/** How high letters on a face must be to be read from an eye, mm: seen from the side they fill less, by the cosine. */
export const lettersReadFrom = (target: LookedPoint, eye: Eye): number =>
  lettersReadAt(
    Math.hypot((eye.x - target.at.x) * MM_PER_STUD, (eye.y - target.at.y) * MM_PER_STUD, eye.z - target.at.z),
  ) / straightness(target, eye);

/** A straight wall on the plan: its ends, studs, how long it is, and the way out of what it is the wall of, east and north. */
export interface WallLine {
  a: { x: number; y: number };
  b: { x: number; y: number };
  length: number;
  out: { x: number; y: number };
}

/** The walls between corners in order, either way round. */
export function wallsOf(corners: Body['corners']): WallLine[] {
  // Twice the area on the plan: its sign says which way round the corners go.
  const turn = Math.sign(
    corners.reduce((sum, a, i) => {
      const b = corners[(i + 1) % corners.length];
      return sum + a.x * b.y - b.x * a.y;
    }, 0),
  );
  return corners.flatMap((a, i) => {
    const b = corners[(i + 1) % corners.length];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    if (length === 0) return [];
    // On the plan y grows to the south; here to the north.
    return [{ a, b, length, out: { x: (turn * (b.y - a.y)) / length, y: (turn * (b.x - a.x)) / length } }];
  });
}

export function targetsOf({ kind, corners, begins, top }: Body, relief: Relief): LookedPoint[] {
  const [low, high] = [begins * MM_PER_PLATE, top * MM_PER_PLATE];
  if (kind === 'figure') {
    const middle = {
      x: corners.reduce((sum, at) => sum + at.x, 0) / corners.length,
      y: corners.reduce((sum, at) => sum + at.y, 0) / corners.length,
    };
    return [
      {
        at: inFrame(relief, middle, low + FACE * (high - low)),
        out: null,
        side: null,
        weight: 1,
      },
    ];
  }
  const rows = pointsOf(high - low, POINT.up, POINT.mostUp);
  return wallsOf(corners).flatMap(({ a, b, length, out }) => {
    if (high <= low) return [];
    const columns = pointsOf(length, POINT.along, POINT.mostAlong);
    return columns.flatMap((along) =>
      rows.map((up): LookedPoint => ({
        at: inFrame(
          relief,
          { x: a.x + (b.x - a.x) * along, y: a.y + (b.y - a.y) * along },
          low + up * (high - low),
        ),
        ...{ out, side: sideOf(out) },
        weight: (length * (high - low)) / columns.length / rows.length,
      })),
    );
  });
}

/** Whether an eye is before the face that a point lies on. */
export const isBefore = ({ at, out }: LookedPoint, eye: Eye): boolean =>
  out === null || out.x * (eye.x - at.x) + out.y * (eye.y - at.y) > 1e-6;

/** Points along the top edges of a body; the head of a figure. */
export function outlinePoints(body: Body, relief: Relief): LookedPoint[] {
  if (body.kind === 'figure') return targetsOf(body, relief);
  const top = body.top * MM_PER_PLATE;
  const seen = new Set<string>();
  return targetsOf(body, relief).flatMap((target) => {
    const key = `${target.at.x} ${target.at.y}`;
    if (seen.has(key)) return [];
    seen.add(key);
    return [{ ...target, at: { ...target.at, z: top } }];
  });
}

/** Middles of even stretches of a length, as shares of it. */
function pointsOf(length: number, each: number, most: number): number[] {
  const count = Math.min(most, Math.max(1, Math.round(length / each)));
  return Array.from({ length: count }, (_, i) => (i + 0.5) / count);
}

/** The side that a way looks to most. @param out studs east and north */
export function sideOf({ x, y }: { x: number; y: number }): Side {
  if (Math.abs(x) > Math.abs(y)) return x > 0 ? 'e' : 'w';
  return y > 0 ? 'n' : 's';
}
