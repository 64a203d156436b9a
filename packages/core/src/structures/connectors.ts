import { partId, partOf } from '../catalogue/index.ts';
import { PLATES_PER_BRICK } from '../grid/index.ts';
import { builtRect, runsEast, firstBehind, studsBuilt, wallStuds, type Side } from '../document/index.ts';
import { connectorPlaces } from '../terrain/index.ts';
import { wallStretches, type Fronted, type WallOpening } from './fronts.ts';
import { storeysOf } from './storeys.ts';

// The bricks through which street fronts are connected, in the lowest course of both sides.

/** A brick with a hole through it. */
const CONNECTOR = partOf(partId('mechanical', 1, 2));

/**
 * The connector bricks of a street front, as what is let into its walls: where the standard has them, those that lie in a
 * wall and where nothing else is let in; none where its card says that there are none.
 * @param openings what else is let in
 */
export function connectorBricks(plot: Fronted, openings: readonly WallOpening[]): WallOpening[] {
  const [ground] = storeysOf(plot);
  if (!CONNECTOR || plot.connectors === 'none' || !ground || ground.courses < 1) return [];
  const sides: readonly Side[] = runsEast(plot.front) ? ['e', 'w'] : ['n', 's'];
  const built = builtRect(plot);
  const thick = wallStuds(plot);
  const isFromFront = plot.front === 'n' || plot.front === 'w';
  // Along the sides from the west or north, counted from what is built: the pavement may lie before that.
  const [all, before] = runsEast(plot.front) ? [plot.d, built.y - plot.y] : [plot.w, built.x - plot.x];
  return sides.flatMap((side) =>
    connectorPlaces(plot).flatMap(({ from, to }): WallOpening[] => {
      const start = Math.round((isFromFront ? from : all - to) - before);
      // Off the corners by a stud at least.
      const wall = wallStretches(plot, side).find(
        (stretch) => start > stretch.from && start + to - from < stretch.to,
      );
      if (!wall) return [];
      const one = {
        ...{ side, back: wall.back, part: CONNECTOR, from: start, wide: to - from },
        ...{ foot: ground.from, top: ground.from + PLATES_PER_BRICK },
      };
      // Where the walls of both sides have no room beside each other there is none for two bricks.
      const isThin = [...Array(one.wide).keys()].some((k) => studsAcross(plot, side, start + k) < 2 * thick);
      const isTaken = openings.some(
        (other) =>
          other.side === side &&
          other.foot < one.top &&
          other.from < start + one.wide &&
          start < other.from + other.wide,
      );
      return isTaken || isThin ? [] : [one];
    }),
  );
}

/** Studs of a building behind one of a side. */
const studsAcross = (plot: Fronted, side: Side, along: number): number =>
  firstBehind(studsBuilt(plot), side, along).deep;
