import { partOf } from '../catalogue/index.ts';
import { boundsOfPoints } from '../grid/index.ts';
import {
  SIDES,
  displayOf,
  listOf,
  builtCorners,
  runsEast,
  wallTop,
  type Scene,
  type Side,
} from '../document/index.ts';
import { OUTSIDE, standsOn, type Relief } from '../terrain/index.ts';
import { beginsLeft } from './fronts.ts';
import { elevationOf, type SeenPiece } from './elevation.ts';
import { ridgeOf } from './ridge.ts';

// The whole display as it is seen from one of its sides: fronts behind fronts at their true heights, and the ground.

/** A building of a street elevation. */
export interface SkylineFront {
  id: string;
  name: string;
  /** Studs from the left end of the side to its own left end, how long it is, and how far its front is from that side. */
  left: number;
  length: number;
  off: number;
  /** Plates above the datum: what it stands on, the top of its walls and of its roof. */
  foot: number;
  walls: number;
  ridge: number;
  /** What is let into its front and what is over its walls, from its own left end and foot; none for one turned off the grid. */
  pieces: SeenPiece[];
  colour: string;
  roofColour: string;
  /** Share of its front that no building before it covers, 0 to 1. */
  seen: number;
}

/** The display from one side. */
export interface Skyline {
  side: Side;
  /** Studs from end to end; plates from the datum to what is highest. */
  length: number;
  high: number;
  /** Highest ground behind each stud of the side from the left, and the ground at the side itself, plates. */
  ground: number[];
  edge: number[];
  /** Those farther back first. */
  fronts: SkylineFront[];
}

/** What is drawn of walls; over them everything is. */
const DRAWN: readonly string[] = ['window', 'door', 'arch'];

/** The display as it is seen square from a side, without perspective; trees, figures and decks are left out. */
export function skylineOf(scene: Scene, relief: Relief, side: Side): Skyline {
  const { x, y, w, d } = relief;
  const isX = runsEast(side);
  const isFromWest = beginsLeft(side);
  const length = isX ? w : d;
  const heights = Array.from({ length }, (_, at) => {
    const along = isFromWest ? at : length - 1 - at;
    const column = Array.from({ length: isX ? d : w }, (_, deep) => {
      const i = isX ? deep * w + along : along * w + deep;
      return relief.ground[i] === OUTSIDE ? -1 : relief.height[i];
    });
    return side === 's' || side === 'e' ? column.toReversed() : column;
  });
  const fronts = listOf(scene, 'plot')
    .flatMap((plot): Omit<SkylineFront, 'seen'>[] => {
      const foot = standsOn(scene, relief, plot);
      if (foot === null) return [];
      const bounds = boundsOfPoints(builtCorners(plot));
      const [from, size] = isX ? [bounds.x - x, bounds.w] : [bounds.y - y, bounds.d];
      const off = {
        n: bounds.y - y,
        s: y + d - bounds.y - bounds.d,
        w: bounds.x - x,
        e: x + w - bounds.x - bounds.w,
      }[side];
      // The side of the unturned building that a turn by quarters brings to the viewer.
      const isSquare = plot.turn % 90 === 0;
      const own = SIDES[(SIDES.indexOf(side) - Math.round(plot.turn / 90) + 2 * SIDES.length) % SIDES.length];
      const pieces = isSquare
        ? elevationOf(plot, own).pieces.filter(
            ({ part, z }) => z >= wallTop(plot) || DRAWN.includes(partOf(part)?.family ?? ''),
          )
        : [];
      return [
        {
          ...{ id: plot.id, name: plot.name, length: size, off, foot, pieces },
          left: isFromWest ? from : length - from - size,
          walls: foot + wallTop(plot),
          ridge: foot + ridgeOf(plot),
          ...{ colour: plot.wallColour, roofColour: plot.roofColour },
        },
      ];
    })
    .toSorted((a, b) => b.off - a.off || (a.id < b.id ? -1 : 1));
  const ground = heights.map((column) => Math.max(0, ...column));
  return {
    ...{ side, length, ground },
    edge: heights.map((column) => Math.max(0, column[0])),
    high: Math.max(1, ...ground, ...fronts.map(({ ridge }) => ridge)),
    fronts: fronts.map((front, i) => ({ ...front, seen: seenOf(front, fronts.slice(i + 1)) })),
  };
}

/** Share of the walls of a front, from its foot to the top of its roof, that lies behind no nearer one. */
function seenOf(front: Omit<SkylineFront, 'seen'>, nearer: readonly Omit<SkylineFront, 'seen'>[]): number {
  const columns = Array.from(
    { length: Math.max(1, Math.floor(front.length)) },
    (_, k) => front.left + k + 0.5,
  );
  const high = front.ridge - front.foot;
  const seen = columns.reduce((sum, at) => {
    const taken = nearer
      .filter((one) => one.off < front.off && at > one.left && at < one.left + one.length)
      .map((one) => ({ from: Math.max(front.foot, one.foot), to: Math.min(front.ridge, one.ridge) }))
      .filter(({ from, to }) => from < to)
      .toSorted((a, b) => a.from - b.from);
    let [covered, top] = [0, -Infinity];
    for (const { from, to } of taken) {
      covered += Math.max(0, to - Math.max(from, top));
      top = Math.max(top, to);
    }
    return sum + high - covered;
  }, 0);
  return seen / (columns.length * high);
}

/** The sides of a display as people look at it: those that are viewed first, the south where none is said. */
export function skylineSides(scene: Scene): Side[] {
  const { viewedSides } = displayOf(scene);
  const first = viewedSides.length > 0 ? viewedSides : (['s'] as const);
  return [...first, ...SIDES.filter((side) => !first.some((one) => one === side))];
}
