import { boundsOf, roundOut } from '../grid/index.ts';
import { columnsOf, fixedGroundAt, indexAt, ownerAt, type Interval, type Relief } from '../terrain/index.ts';
import { labelOf, listOf, type FixedGround, type Scene } from '../document/index.ts';
import { currentContents, tableInStuds } from './frame.ts';
import type { RoomPoint } from './room.ts';

/** One step of a section: what the line crosses there. Outside the footprint `ground` is null. */
export interface CrossSectionStep {
  /** From the line's beginning to the near and the far side of the step, studs. */
  from: number;
  to: number;
  height: number;
  top: number;
  /** What it is judged as. */
  ground: FixedGround | 'bare' | null;
  /** What stands there, by name, and its foot; null where nothing does. */
  stands: string | null;
  foot: number;
  /** All that is solid there, from the bottom up: ground less its cavities, decks, what stands. */
  pieces: readonly Interval[];
}

/** What one thing, or the ground, fills along a section: between two places of the line and two heights. */
export interface CrossPiece {
  from: number;
  to: number;
  low: number;
  high: number;
  owner: Interval['owner'];
}

/** Pieces of a section that go on from one step to the next are one. */
export function crossPieces(cuts: readonly Pick<CrossSectionStep, 'from' | 'to' | 'pieces'>[]): CrossPiece[] {
  const all: CrossPiece[] = [];
  let last: CrossPiece[] = [];
  for (const { from, to, pieces } of cuts) {
    const open = last;
    last = pieces.map(({ from: low, to: high, owner }) => {
      const before = open.find(
        (one) =>
          one.low === low &&
          one.high === high &&
          one.owner?.kind === owner?.kind &&
          one.owner?.id === owner?.id &&
          Math.abs(one.to - from) < 1e-9,
      );
      if (before) {
        before.to = to;
        return before;
      }
      const piece = { from, to, low, high, owner };
      all.push(piece);
      return piece;
    });
  }
  return all;
}

/** Rooms in the ground along a section: air with solid ground over it. */
export function crossRooms(cuts: readonly CrossSectionStep[]): Omit<CrossPiece, 'owner'>[] {
  const rooms = cuts.map(({ from, to, pieces }) => {
    const ground = pieces.filter(({ owner }) => owner === null);
    const hollow = ground.slice(1).map((piece, i) => ({ from: ground[i].to, to: piece.from, owner: null }));
    const below =
      ground.length > 0 && ground[0].from > 0 ? [{ from: 0, to: ground[0].from, owner: null }] : [];
    return { from, to, pieces: [...below, ...hollow] };
  });
  return crossPieces(rooms);
}

/** The scene cut open along a line across the plan. */
export interface CrossSection {
  /** Length of the line, studs. */
  length: number;
  cuts: CrossSectionStep[];
  /** Where the line crosses from one module to another, studs along it. */
  seams: number[];
  /** Tables under the line. Heights above the floor, mm. */
  tables: { name: string; height: number; from: number; to: number }[];
}

/**
 * Cuts a scene open along a line: one step for each stud it passes, where rows and columns are crossed.
 * @param a @param b ends of the line, studs
 */
export function crossSectionAt(scene: Scene, relief: Relief, a: RoomPoint, b: RoomPoint): CrossSection {
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  const at = (share: number) => ({ x: a.x + (b.x - a.x) * share, y: a.y + (b.y - a.y) * share });
  const marks = [...new Set([0, 1, ...crossingsOf(a.x, b.x), ...crossingsOf(a.y, b.y)])].sort(
    (p, q) => p - q,
  );
  const cuts: CrossSectionStep[] = [];
  const seams: number[] = [];
  const modules = listOf(scene, 'module');
  let before: string | null | undefined;
  const corners = [a, b].map(({ x, y }) => ({ x, y, w: 1e-6, d: 1e-6 }));
  // Only where something lies over air is a column more than its ground and what stands on it.
  const columns = relief.slabs.length > 0 ? columnsOf(scene, relief, roundOut(boundsOf(corners))) : null;
  for (let i = 1; i < marks.length; i++) {
    const middle = at((marks[i - 1] + marks[i]) / 2);
    if (marks[i] - marks[i - 1] < 1e-9) continue;
    const index = indexAt(relief, middle.x, middle.y);
    const owner = ownerAt(relief, index);
    const ground = fixedGroundAt(scene, relief, index);
    const [height, foot, top] =
      ground === null ? [0, 0, 0] : [relief.height[index], relief.surface[index], relief.top[index]];
    cuts.push({
      from: marks[i - 1] * length,
      to: marks[i] * length,
      height,
      top,
      ground,
      stands: owner && top > foot ? labelOf(scene, owner.kind, owner.id) : null,
      foot,
      pieces:
        columns?.at(Math.floor(middle.x), Math.floor(middle.y)) ??
        [
          { from: Math.min(0, height), to: height, owner: null },
          { from: height, to: top, owner },
        ].filter(({ from, to }) => to > from),
    });
    const module =
      modules.find(({ x, y, w, d }) => middle.x >= x && middle.y >= y && middle.x < x + w && middle.y < y + d)
        ?.id ?? null;
    if (before !== undefined && before !== module && before !== null && module !== null)
      seams.push(marks[i - 1] * length);
    before = module;
  }
  return {
    length,
    cuts,
    seams,
    tables: currentContents(scene, 'table').flatMap((table) => {
      const span = clipped(a, b, tableInStuds(scene, table));
      return span
        ? [{ name: table.name, height: table.height, from: span[0] * length, to: span[1] * length }]
        : [];
    }),
  };
}

/** Shares of a line's way at which it crosses whole studs of one axis. */
function crossingsOf(from: number, to: number): number[] {
  if (from === to) return [];
  const [low, high] = [Math.min(from, to), Math.max(from, to)];
  const shares: number[] = [];
  for (let at = Math.ceil(low); at <= high; at++) shares.push((at - from) / (to - from));
  return shares;
}

/** The shares of a line's way that lie in a rectangle (Liang, Barsky 1984). */
function clipped(
  a: RoomPoint,
  b: RoomPoint,
  rect: { x: number; y: number; w: number; d: number },
): [number, number] | null {
  let [first, last] = [0, 1];
  for (const [from, by, low, high] of [
    [a.x, b.x - a.x, rect.x, rect.x + rect.w],
    [a.y, b.y - a.y, rect.y, rect.y + rect.d],
  ]) {
    if (by === 0) {
      if (from < low || from >= high) return null;
      continue;
    }
    const [enter, leave] =
      by > 0 ? [(low - from) / by, (high - from) / by] : [(high - from) / by, (low - from) / by];
    first = Math.max(first, enter);
    last = Math.min(last, leave);
  }
  return last - first > 1e-9 ? [first, last] : null;
}
