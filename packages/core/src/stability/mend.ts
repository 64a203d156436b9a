import { gramsOfPart, isStudded, partId } from '../catalogue/index.ts';
import { containsPoint, intersection, type Rect } from '../grid/index.ts';
import { judge, type JudgeOptions, type GroupStanding } from './judge.ts';
import type { PieceGroup, StandingPiece } from './joints.ts';

// What would mend a group that comes apart: each is tried on the whole group before it is offered.

/** Something added to a group with which it stands. Places in studs, heights in plates above datum. */
export type Mend = (
  | { kind: 'pillars'; spots: (Rect & { from: number; to: number })[] }
  | { kind: 'tie'; part: string; spot: Rect; z: number }
  | { kind: 'mass'; grams: number; at: { x: number; y: number; z: number } }
) & {
  /** Share of the holds that the whole group needs with it. */
  used: number;
};

/** Side of a pillar, studs; lengths of plates tried as ties; masses tried behind an overhang, grams: defaults of ours. */
const PILLAR = 2;
const TIES = [4, 6, 8];
const MASSES = [20, 50, 100, 200, 400];
/** How many pieces are mended at most: the worst first. */
const MENDED = 6;

/**
 * Looks for what would make a group stand, at its worst pieces: pillars under their free ends, a plate pressed on from
 * below across to the piece beside, mass over what carries them. It costs some judgements of the group.
 * @returns those with which it stands, the smallest share first; empty where it stands or none was found
 */
export function mendsOf(group: PieceGroup, standing: GroupStanding, options: JudgeOptions): Mend[] {
  if (standing.used <= 1) return [];
  const worst = worstPieces(standing);
  const trial = trialsWithin(options);
  const usedWith = (more: Partial<PieceGroup>): number => trial({ ...group, ...more });
  return [
    ...pillarsUnder(group, worst, usedWith),
    ...tieUnder(group, worst, usedWith),
    ...massBehind(group, standing, usedWith),
  ].toSorted((a, b) => a.used - b.used);
}

type UsedWith = (more: Partial<PieceGroup>) => number;

/**
 * Judges one group after the other, all within the time of the options.
 * @returns the share a group needs; Infinity: it falls, or there was no time left
 */
export function trialsWithin({ time, ...options }: JudgeOptions): (group: PieceGroup) => number {
  const until = time ? time.now() + 1000 * time.seconds : Infinity;
  return (group) => {
    const seconds = time ? (until - time.now()) / 1000 : Infinity;
    if (seconds <= 0) return Infinity;
    const within = time ? { time: { ...time, seconds } } : {};
    return judge(group, { ...options, ...within, onProgress: undefined })?.used ?? Infinity;
  };
}

/** Pieces that fall or ask too much of a joint, the worst first. */
export const worstPieces = ({ loose, weakest }: GroupStanding): number[] => [
  ...new Set([...loose, ...weakest.flatMap(({ share, upper }) => (share > 1 ? [upper] : []))]),
];

/** A pillar under the middle of each of the worst pieces, or under the corner of it that has room, all together. */
function pillarsUnder(group: PieceGroup, worst: readonly number[], usedWith: UsedWith): Mend[] {
  const { pieces } = group;
  const spots = worst.slice(0, MENDED).flatMap((index) => {
    const { x, y, w, d, z } = pieces[index];
    const [pw, pd] = [Math.min(PILLAR, w), Math.min(PILLAR, d)];
    const places = [
      [Math.trunc((w - pw) / 2), Math.trunc((d - pd) / 2)],
      [0, 0],
      [w - pw, d - pd],
    ];
    for (const [dx, dy] of places) {
      const spot = { x: x + dx, y: y + dy, w: pw, d: pd };
      const under = pieces.filter((piece) => piece.z < z && intersection(piece, spot));
      const to = under.reduce((top, piece) => Math.max(top, piece.z + piece.h), group.floor);
      if (to < z) return [{ ...spot, from: to, to: z }];
    }
    return [];
  });
  if (spots.length === 0) return [];
  const sockets = spots.flatMap(({ x, y, w, d, to }) =>
    Array.from({ length: w * d }, (_, k) => ({ x: x + (k % w), y: y + Math.trunc(k / w), z: to })),
  );
  const used = usedWith({ sockets: [...group.sockets, ...sockets] });
  return used <= 1 ? [{ kind: 'pillars', spots, used }] : [];
}

/** A plate pressed on from below across to a piece beside, at the first of the worst pieces where one makes it stand. */
function tieUnder(group: PieceGroup, worst: readonly number[], usedWith: UsedWith): Mend[] {
  const { pieces } = group;
  for (const index of worst.slice(0, MENDED)) {
    const { x, y, w, d, z } = pieces[index];
    if (w < 2 || d < 2) continue;
    const [mx, my] = [x + Math.trunc(w / 2) - 1, y + Math.trunc(d / 2) - 1];
    for (const n of TIES)
      for (const spot of [
        { x: x - n / 2, y: my, w: n, d: 2 },
        { x: x + w - n / 2, y: my, w: n, d: 2 },
        { x: mx, y: y - n / 2, w: 2, d: n },
        { x: mx, y: y + d - n / 2, w: 2, d: n },
      ]) {
        const isFree = !pieces.some(
          (piece) => piece.z <= z - 1 && piece.z + piece.h > z - 1 && intersection(piece, spot),
        );
        const reaches = pieces.some(
          (piece, other) => other !== index && piece.z === z && intersection(piece, spot),
        );
        if (!isFree || !reaches) continue;
        const part = partId('plate', 2, n);
        const tie: StandingPiece = {
          ...{ ...spot, z: z - 1, h: 1, part },
          ...{ grams: gramsOfPart(part), studded: isStudded(part) },
        };
        const used = usedWith({ pieces: [...pieces, tie] });
        if (used <= 1) return [{ kind: 'tie', part, spot, z: z - 1, used }];
      }
  }
  return [];
}

/** The least mass over the worst joint, where its piece has one, with which all stands. */
function massBehind(group: PieceGroup, { loose, weakest }: GroupStanding, usedWith: UsedWith): Mend[] {
  const worst = weakest.find(({ share }) => share > 1);
  if (!worst || loose.length > 0) return [];
  const piece = group.pieces[worst.upper];
  // Over the end of the joint that is farthest from the piece's free end.
  const back = (from: number, length: number, on: number, size: number) =>
    on + size / 2 < from + length / 2 ? on + 0.5 : on + size - 0.5;
  const at = {
    x: back(piece.x, piece.w, worst.x, worst.w),
    y: back(piece.y, piece.d, worst.y, worst.d),
    z: piece.z + piece.h,
  };
  if (!containsPoint(piece, at.x, at.y)) return [];
  for (const grams of MASSES) {
    const used = usedWith({ loads: [...group.loads, { ...at, z: Infinity, grams }] });
    if (used <= 1) return [{ kind: 'mass', grams, at, used }];
  }
  return [];
}
