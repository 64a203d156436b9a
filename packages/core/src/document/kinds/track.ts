import { z } from 'zod';
import { MAX_STUDS, bridgeFields, levelFields, name, plates, size } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const TRACK_MOVES = ['straight', 'left', 'right'] as const;

const trackPiece = z.strictObject({
  go: z.enum(TRACK_MOVES),
  /** Length of a straight, studs. */
  length: size.max(256).default(16),
  /** Radius of a curve at the middle of the track, studs; each curve turns 22.5°. */
  radius: size.max(512).default(40),
  /** Plates this piece climbs. */
  rise: plates.min(-30).max(30).default(0),
});

export type TrackPiece = z.output<typeof trackPiece>;

const trackSchema = z.strictObject({
  name,
  /** Middle of the track at its beginning, studs. */
  x: z.number().min(-MAX_STUDS).max(MAX_STUDS),
  y: z.number().min(-MAX_STUDS).max(MAX_STUDS),
  /** Direction at its beginning: sixteenths of a turn, 0 east, 4 south. */
  heading: z.int().min(0).max(15).default(0),
  ...levelFields,
  pieces: z.array(trackPiece).min(1, 'a track needs one piece').max(500),
  /** Width of the bed, studs. */
  bed: size.max(64).default(8),
  maxGrade: z.number().min(0.5).max(100).default(4),
  /** What must stay free: from the middle to each side, studs, and above the bed, plates. */
  clearSide: z.number().min(0).max(64).default(5),
  clearHeight: plates.min(0).default(33),
  ...bridgeFields,
});
type Track = z.output<typeof trackSchema>;

export const trackKind = defineKind({
  schema: trackSchema,
  group: 'tracks',
  word: 'track',
  public: true,
  refs: { level: 'level' },
  outline: 10,
  relief: 'way',
  outlinePoints: (track) => trackLine(track, 0).line,
  beyond: ({ bed }) => bed / 2,
});

/** Where a track is and where it goes: studs, plates above datum, sixteenths of a turn (0 east, 4 south). */
export interface Pose {
  x: number;
  y: number;
  z: number;
  heading: number;
}

const SIXTEENTH = Math.PI / 8;
/** Longest chord by which a curve is drawn, studs. */
const CHORD = 2;

/** Length of a piece along the middle of the track, studs. */
export const pieceLength = ({ go, length, radius }: TrackPiece): number =>
  go === 'straight' ? length : radius * SIXTEENTH;

/**
 * The middle of a track: the pose at each joint, and the line through it with curves drawn as chords of at most
 * 2 studs. A curve of radius r turns 22.5°, so sixteen of them close a circle.
 * @param height of its beginning, plates above datum
 * @returns `ends`: the index in the line of the end of each piece
 */
export function trackLine(
  { x, y, heading, pieces }: Pick<Track, 'x' | 'y' | 'heading' | 'pieces'>,
  height: number,
): { joints: [Pose, ...Pose[]]; line: { x: number; y: number; z: number }[]; ends: number[] } {
  let at: Pose = { x, y, z: height, heading };
  const joints: [Pose, ...Pose[]] = [at];
  const line = [{ x, y, z: height }];
  const ends: number[] = [];
  for (const piece of pieces) {
    const angle = at.heading * SIXTEENTH;
    if (piece.go === 'straight') {
      at = {
        ...at,
        x: at.x + Math.cos(angle) * piece.length,
        y: at.y + Math.sin(angle) * piece.length,
        z: at.z + piece.rise,
      };
      line.push({ x: at.x, y: at.y, z: at.z });
    } else {
      const side = piece.go === 'right' ? 1 : -1;
      const { radius } = piece;
      const centre = { x: at.x - side * Math.sin(angle) * radius, y: at.y + side * Math.cos(angle) * radius };
      const chords = Math.max(2, Math.ceil((radius * SIXTEENTH) / CHORD));
      const from = at.z;
      for (let i = 1; i <= chords; i++) {
        const turned = angle + (side * SIXTEENTH * i) / chords;
        at = {
          x: centre.x + side * Math.sin(turned) * radius,
          y: centre.y - side * Math.cos(turned) * radius,
          z: from + (piece.rise * i) / chords,
          heading: at.heading,
        };
        line.push({ x: at.x, y: at.y, z: at.z });
      }
      at = { ...at, heading: (at.heading + side + 16) % 16 };
    }
    joints.push(at);
    ends.push(line.length - 1);
  }
  return { joints, line, ends };
}

/** Headings and turns of track are sixteenths of a circle. */
export const DEGREES_PER_TURN = 22.5;

/** The poses at both ends of a track; without a piece both are its beginning. */
export const endsOf = (joints: readonly [Pose, ...Pose[]]): { first: Pose; last: Pose } => ({
  first: joints[0],
  last: joints.at(-1) ?? joints[0],
});

/** How far two ends of track are from meeting: studs, sixteenths of a turn (0 to 8) and plates. */
export interface ClosureGap {
  studs: number;
  turn: number;
  plates: number;
}

/** What one end lacks to run on into another. @param from the pose in which one ends @param to the pose in which the other begins */
export function closureGap(from: Pose, to: Pose): ClosureGap {
  const turn = (((to.heading - from.heading) % 16) + 16) % 16;
  return {
    studs: Math.hypot(to.x - from.x, to.y - from.y),
    turn: Math.min(turn, 16 - turn),
    plates: Math.abs(to.z - from.z),
  };
}

/** The same end looked at from the other side: where a track that begins there would go. */
export const reversed = (pose: Pose): Pose => ({ ...pose, heading: (pose.heading + 8) % 16 });
