import { containsPoint } from '../grid/index.ts';
import { listOf, trackLine, type Entity, type Kind, type Scene, wallPanels } from '../document/index.ts';
import { OUTSIDE, indexAt, type Relief } from './relief.ts';
import { membersOf } from './scatter.ts';
import type { Point } from './shape.ts';
import { levelHeight } from './slabs.ts';
import { atAlong, eachStripStud } from './strip.ts';

// What is laid in pieces along a line: pieces of track, panels of walls and fences, members of repeats. One that lies
// over a seam is taken off before its modules are carried.

/** One piece of a thing that is laid in pieces. */
export interface LinePiece {
  ref: { kind: Extract<Kind, 'track' | 'run' | 'repeat'>; id: string };
  /** Its number from the beginning of the thing, from 0. */
  index: number;
  /** Its middle, studs on the plan; with its heights in plates above datum where it has its own. */
  line: readonly (Point & { z?: number })[];
  /** Across the line, studs. */
  across: number;
  /** Indices of the studs of the relief that it covers. */
  studs: readonly number[];
  /** Ids of the modules on which it lies. */
  modules: readonly string[];
}

/** Whether a piece lies over a seam: it is carried by itself. */
export const isOverSeam = ({ modules }: Pick<LinePiece, 'modules'>): boolean => modules.length > 1;

/**
 * The pieces of all tracks, of walls and fences built in panels, and of repeats, in order.
 * @returns without those that lie wholly outside the footprint
 */
export function linePieces(scene: Scene, relief: Relief): LinePiece[] {
  const modules = listOf(scene, 'module');
  const pieces: LinePiece[] = [];
  const add = (ref: LinePiece['ref'], index: number, line: LinePiece['line'], across: number) => {
    const studs: number[] = [];
    const under = new Set<string>();
    // Neighbours mostly lie on one module.
    let at = modules.at(0);
    eachStripStud(line, across / 2, relief, (x, y) => {
      const i = indexAt(relief, x, y);
      if (relief.ground[i] === OUTSIDE) return;
      studs.push(i);
      if (!at || !containsPoint(at, x + 0.5, y + 0.5))
        at = modules.find((one) => containsPoint(one, x + 0.5, y + 0.5));
      if (at) under.add(at.id);
    });
    if (studs.length > 0) pieces.push({ ref, index, line, across, studs, modules: [...under] });
  };
  for (const track of listOf(scene, 'track')) {
    const { line, ends } = trackLine(track, levelHeight(scene, track));
    ends.forEach((end, i) =>
      add({ kind: 'track', id: track.id }, i, line.slice(ends[i - 1] ?? 0, end + 1), track.bed),
    );
  }
  for (const run of listOf(scene, 'run'))
    panelsOf(run).forEach((line, i) => add({ kind: 'run', id: run.id }, i, line, Math.max(1, run.thick)));
  for (const repeat of listOf(scene, 'repeat'))
    membersOf(repeat, modules).members.forEach(({ x, y, angle }, i) => {
      const [u, v] = [Math.cos(angle), Math.sin(angle)].map((part) => (part * repeat.length) / 2);
      add(
        { kind: 'repeat', id: repeat.id },
        i,
        [
          { x: x - u, y: y - v },
          { x: x + u, y: y + v },
        ],
        1,
      );
    });
  return pieces;
}

/**
 * The panels of a wall or fence: whole ones from its beginning, the last of each straight what is left.
 * @returns none where it is built in
 */
export function panelsOf(run: Pick<Entity<'run'>, 'points' | 'panel' | 'ring' | 'thick'>): [Point, Point][] {
  if (run.panel === 0 && run.ring === null) return [];
  return wallPanels(run).map(({ straight, from, to }) => {
    const pointAt = (along: number): Point => {
      const { x, y } = atAlong([straight.from, straight.to], along);
      return { x, y };
    };
    return [pointAt(from), pointAt(to)];
  });
}
