import { MM_PER_STUD, boundsOf, intersection, type Rect } from '../grid/index.ts';
import { reduce, type Change, type Place, type Scene } from '../document/index.ts';
import type { Relief } from '../terrain/index.ts';
import { currentPlace, currentContents, leavesRoom, pointToRoom } from '../venue/index.ts';
import {
  layoutOf,
  nearSides,
  nearestSide,
  openSides,
  reachOf,
  reachesOf,
  shareOf,
  type Layout,
} from './reach.ts';

/** A rearrangement that was tried, and what it brings. */
export interface TableMove {
  kind: 'pull' | 'turn' | 'split' | 'clear';
  /** In words: “Pull everything 600 mm to the south”. */
  words: string;
  /** Share of the scene past the arm, 0 to 1, before and after. */
  before: number;
  after: number;
  /** What to write to make it so; empty for advice only, such as splitting the scene itself. */
  changes: Change[];
}

/** Room coordinates are tried on this grid, mm: the share is an estimate to about two percent. */
const SAMPLE = 32;
/** What a move brings at least, as a share of the scene. */
const WORTH = 0.01;
/** Tiles in which few sides can be nearest, mm: a whole number of samples. */
const TILE = 8 * SAMPLE;
/** How far everything is pulled, mm, in steps. */
const PULLS = [100, 200, 300, 400, 500, 600, 800, 1000, 1200];
const WAYS = [
  { word: 'north', x: 0, y: -1 },
  { word: 'east', x: 1, y: 0 },
  { word: 'south', x: 0, y: 1 },
  { word: 'west', x: -1, y: 0 },
] as const;

/**
 * Tries to bring more of the scene within an arm's reach: pull everything off a wall, turn it a quarter or half,
 * part it at a joint of tables with an aisle between, or take away a table that carries nothing but blocks a side.
 * A try that does not fit the room or runs into something is not offered.
 * @param relief of the scene: what is offered is measured on each of its studs, as the reach itself is
 * @returns the three best, the best first; only those that bring at least one percent of the scene
 */
export function bestMoves(scene: Scene, relief: Relief): TableMove[] {
  const layout = layoutOf(scene);
  if (layout.scene.length === 0) return [];
  const { arm } = reachesOf(scene);
  const before = outOfReach(layout, arm);
  const place = currentPlace(scene);
  const tables = currentContents(scene, 'table');
  const under = tables.map((table) => layout.scene.some((part) => intersection(part, table)));
  const others: Layout = { ...layout, tables: layout.tables.filter((_, i) => !under[i]) };
  const moves: Tried[] = [];
  /** Of the tries of one group only the best is shown. */
  const offer = (kind: TableMove['kind'], group: string, words: string, next: Layout, changes: Change[]) => {
    const after = outOfReach(next, arm);
    if (before - after >= WORTH) moves.push({ group, kind, words, before, after, changes, layout: next });
  };
  const carry = (shift: (rect: Rect<'mm'>) => Rect<'mm'>): Layout => ({
    ...layout,
    tables: layout.tables.map((table, i) => (under[i] ? shift(table) : table)),
    scene: layout.scene.map(shift),
  });
  const fits = (next: Layout) =>
    [...next.tables.filter((_, i) => under[i]), ...next.scene].every(
      (rect) =>
        leavesRoom(next.walls, rect) < 1 &&
        ![...others.tables, ...others.obstacles].some((other) => intersection(rect, other)),
    );
  const tablesTo = (shift: (rect: Rect<'mm'>) => Rect<'mm'>): Change[] =>
    tables.flatMap((table, i): Change[] => {
      if (!under[i]) return [];
      const { x, y, w, d } = shift(table);
      return [{ op: 'patch', kind: 'table', id: table.id, v: table.v, set: { x, y, w, d } }];
    });

  for (const way of WAYS) {
    let last = Infinity;
    for (const by of PULLS) {
      const shift = (rect: Rect<'mm'>) => ({ ...rect, x: rect.x + way.x * by, y: rect.y + way.y * by });
      const next = carry(shift);
      if (!fits(next)) break;
      const after = outOfReach(next, arm);
      // A longer pull is offered only for what it adds.
      if (after > last - 0.005) continue;
      last = after;
      offer('pull', `pull ${way.word}`, `Pull everything ${by} mm to the ${way.word}`, next, [
        ...tablesTo(shift),
        ...sceneTo(
          place,
          place && { x: place.sceneX + way.x * by, y: place.sceneY + way.y * by, turn: place.turn },
        ),
      ]);
    }
  }

  const all = boundsOf([...layout.tables.filter((_, i) => under[i]), ...layout.scene]);
  const middle = { x: all.x + all.w / 2, y: all.y + all.d / 2 };
  for (const turn of [90, 180, 270] as const) {
    // What would go through a wall is pushed back into the room.
    const push = intoRoom(layout.walls, turnedAbout(all, middle, turn));
    const shift = (rect: Rect<'mm'>) => {
      const turnedRect = turnedAbout(rect, middle, turn);
      return { ...turnedRect, x: turnedRect.x + push.x, y: turnedRect.y + push.y };
    };
    const next = carry(shift);
    if (!fits(next)) continue;
    const frame = place && turnedFrame(place, middle, turn);
    const to = frame && { ...frame, x: frame.x + push.x, y: frame.y + push.y };
    offer(
      'turn',
      `turn ${turn}`,
      `Turn everything by ${turn}°`,
      next,
      place ? [...tablesTo(shift), ...sceneTo(place, to)] : [],
    );
  }

  for (const axis of ['x', 'y'] as const)
    for (const at of jointLines(layout, under, axis))
      for (const sign of [1, -1]) {
        const moved = (rect: Rect<'mm'>) => (sign > 0 ? rect[axis] >= at - 1 : endOf(rect, axis) <= at + 1);
        const shift = (rect: Rect<'mm'>): Rect<'mm'> =>
          moved(rect) ? { ...rect, [axis]: rect[axis] + sign * layout.standDepth } : rect;
        const next: Layout = {
          ...layout,
          tables: layout.tables.map((table, i) => (under[i] ? shift(table) : table)),
          scene: layout.scene.flatMap((part) => splitAt(part, axis, at).map(shift)),
        };
        if (!fits(next)) continue;
        const way = axis === 'x' ? (sign > 0 ? 'east' : 'west') : sign > 0 ? 'south' : 'north';
        offer(
          'split',
          `split ${axis} ${at}`,
          `Part the scene at the table joint and move its ${way} half ${layout.standDepth} mm off`,
          next,
          [],
        );
      }

  for (const [i, table] of tables.entries()) {
    if (under[i]) continue;
    offer(
      'clear',
      table.id,
      `Take “${table.name}” away from the scene`,
      { ...layout, tables: layout.tables.filter((_, j) => j !== i) },
      [],
    );
  }
  const now = pastArm(scene, relief);
  return bestOfEach(moves)
    .slice(0, MEASURED)
    .map((move) => measured(move, now, scene, relief))
    .filter((move) => move.before - move.after >= WORTH)
    .sort((a, b) => a.after - b.after)
    .slice(0, 3);
}

/** So many of the best by estimate are measured stud by stud. */
const MEASURED = 5;

/** A move with its shares as the reach tells them: what it changes is done and measured. @param now past the arm, 0 to 1 */
function measured(
  { group: _, layout, ...move }: Tried,
  now: number,
  scene: Scene,
  relief: Relief,
): TableMove {
  const done = move.changes.length > 0 ? reduce(scene, move.changes) : null;
  const after = done?.ok
    ? pastArm(done.scene, relief)
    : outOfReach(layout, reachesOf(scene).arm, MM_PER_STUD);
  return { ...move, before: now, after };
}

/** Share of the scene's studs that lie past the arm, 0 to 1. */
function pastArm(scene: Scene, relief: Relief): number {
  const share = shareOf(reachOf(scene, relief));
  return share.studs === 0 ? 0 : share.pastArm / share.studs;
}

interface Tried extends TableMove {
  group: string;
  layout: Layout;
}

function bestOfEach(moves: Tried[]): Tried[] {
  const seen = new Set<string>();
  return moves.sort((a, b) => a.after - b.after).filter(({ group }) => !seen.has(group) && seen.add(group));
}

/** Share of the scene past an arm's reach. @param step of the grid on which it is asked, mm */
function outOfReach(layout: Layout, arm: number, step = SAMPLE): number {
  const sides = openSides(layout);
  let [all, past] = [0, 0];
  for (const { x, y, w, d } of layout.scene)
    for (let top = y; top < y + d; top += TILE)
      for (let left = x; left < x + w; left += TILE) {
        const tile = { x: left, y: top, w: Math.min(TILE, x + w - left), d: Math.min(TILE, y + d - top) };
        const near = nearSides(sides, tile);
        for (let v = top + step / 2; v < tile.y + tile.d; v += step)
          for (let u = left + step / 2; u < tile.x + tile.w; u += step) {
            all++;
            if (nearestSide(near, u, v) > arm * arm) past++;
          }
      }
  return all === 0 ? 0 : past / all;
}

const endOf = (rect: Rect<'mm'>, axis: 'x' | 'y') => (axis === 'x' ? rect.x + rect.w : rect.y + rect.d);

/** Lines at which two tables under the scene meet and that cross the inside of the scene. */
function jointLines({ tables, scene }: Layout, under: readonly boolean[], axis: 'x' | 'y'): number[] {
  const carrying = tables.filter((_, i) => under[i]);
  const all = boundsOf(scene);
  const lines = new Set<number>();
  for (const table of carrying) {
    const at = endOf(table, axis);
    const clean = carrying.every((other) => other[axis] >= at - 1 || endOf(other, axis) <= at + 1);
    if (clean && at > all[axis] + 1 && at < endOf(all, axis) - 1) lines.add(Math.round(at));
  }
  return [...lines];
}

function splitAt(part: Rect<'mm'>, axis: 'x' | 'y', at: number): Rect<'mm'>[] {
  if (at <= part[axis] || at >= endOf(part, axis)) return [part];
  const size = axis === 'x' ? 'w' : 'd';
  return [
    { ...part, [size]: at - part[axis] },
    { ...part, [axis]: at, [size]: endOf(part, axis) - at },
  ];
}

/** The least push that brings a rectangle within the box of the walls, mm; none where no walls are known. */
function intoRoom(walls: Layout['walls'], rect: Rect<'mm'>): { x: number; y: number } {
  if (walls.length < 3) return { x: 0, y: 0 };
  const push = (low: number, high: number, from: number, length: number) =>
    from < low ? low - from : from + length > high ? high - from - length : 0;
  const xs = walls.map(({ x }) => x);
  const ys = walls.map(({ y }) => y);
  return {
    x: push(Math.min(...xs), Math.max(...xs), rect.x, rect.w),
    y: push(Math.min(...ys), Math.max(...ys), rect.y, rect.d),
  };
}

/** A rectangle turned clockwise about a point, mm kept whole. */
export function turnedAbout(
  { x, y, w, d }: Rect<'mm'>,
  middle: { x: number; y: number },
  turn: 90 | 180 | 270,
): Rect<'mm'> {
  const [cx, cy] = [x + w / 2 - middle.x, y + d / 2 - middle.y];
  const [nx, ny] = turn === 90 ? [-cy, cx] : turn === 180 ? [-cx, -cy] : [cy, -cx];
  const [nw, nd] = turn === 180 ? [w, d] : [d, w];
  return { x: Math.round(middle.x + nx - nw / 2), y: Math.round(middle.y + ny - nd / 2), w: nw, d: nd };
}

interface FrameSet {
  x: number;
  y: number;
  turn: Place['turn'];
}

/** Where the scene's frame comes to lie when everything turns about a point. */
export function turnedFrame(place: Place, middle: { x: number; y: number }, turn: 90 | 180 | 270): FrameSet {
  const [u, v] = [place.sceneX - middle.x, place.sceneY - middle.y];
  const at = pointToRoom({ x: 0, y: 0, turn }, { x: u / MM_PER_STUD, y: v / MM_PER_STUD });
  const turns = [0, 90, 180, 270] as const;
  return {
    x: Math.round(middle.x + at.x),
    y: Math.round(middle.y + at.y),
    turn: turns[((place.turn + turn) / 90) % 4],
  };
}

function sceneTo(place: Place | null, to: FrameSet | null): Change[] {
  if (!place || !to) return [];
  return [
    {
      op: 'patch',
      kind: 'place',
      id: place.id,
      v: place.v,
      set: { sceneX: to.x, sceneY: to.y, turn: to.turn },
    },
  ];
}
