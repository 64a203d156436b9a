import { containsPoint, countOf } from '../grid/index.ts';
import { labelOf, listOf, whatStandsOn } from '../document/index.ts';
import { OUTSIDE, convexOverlap, eachTouched, sweepsOf, type Relief, type Sweep } from '../terrain/index.ts';
import type { FindingDraft, Rule } from './finding.ts';
import { tenth } from './figures.ts';
import { plotRef } from './plots.ts';

// What is judged of things that move: gates, doors, wagons, boats, ramps, turntables.

const MOVE_WORDS = {
  none: 'turns',
  swing: 'swings',
  slide: 'slides',
  rise: 'rises',
  lower: 'is let down',
} as const;

/** How far of its way: “34° of its 90°”. */
const farOf = ({ of, unit }: Sweep, at: number): string =>
  unit === '°'
    ? `${tenth(at)}° of its ${tenth(of)}°`
    : `${tenth(at)} of its ${countOf(tenth(of), unit.slice(0, -1))}`;

const movesHit: Rule = {
  id: 'moves-hit',
  title: 'What moves hits something',
  basis:
    'The walls of what swings, slides, rises or is let down at each step of its way (2°, a stud, a plate), as high as it is, against everything else that stands or hangs there, and against ground higher than it stands. What stands on it moves with it.',
  page: 'plan',
  severity: 'error',
  check({ scene, relief, bodies }) {
    return sweepsOf(scene, relief).flatMap((sweep): FindingDraft[] => {
      const { plot, steps, foot } = sweep;
      // Turntables have a rule of their own, by the circle they sweep.
      if (plot.moves === 'none') return [];
      const along = new Set([
        plot.id,
        ...whatStandsOn(scene, { kind: 'plot', id: plot.id }).map(({ id }) => id),
      ]);
      const others = bodies().filter(({ id }) => !along.has(id));
      for (const { at, corners, begins, top } of steps) {
        const hit = others.find(
          (body) =>
            body.begins < top &&
            body.top > begins &&
            (body.parts ?? [body.corners]).some((part) => convexOverlap(corners, part)),
        );
        const draft = { place: middleOf(corners) };
        if (hit)
          return [
            {
              ...draft,
              sentence: `“${plot.name}” ${MOVE_WORDS[plot.moves]} into “${labelOf(scene, hit.kind, hit.id)}” after ${farOf(sweep, at)}; its way should be free.`,
              remedy: 'Clear its way, let it move less far, or turn it the other way.',
              things: [plotRef(plot), { kind: hit.kind, id: hit.id }],
              numbers: { at: tenth(at), of: tenth(sweep.of) },
            },
          ];
        // What rises leaves the ground; the others pass over it at the height they stand.
        const high = plot.moves === 'rise' || at === 0 ? 0 : studsOver(relief, corners, foot);
        if (high > 0)
          return [
            {
              ...draft,
              sentence: `“${plot.name}” ${MOVE_WORDS[plot.moves]} into the ground after ${farOf(sweep, at)}: ${countOf(high, 'stud')} are higher than it stands; 0 may be.`,
              remedy: 'Lower the ground there, raise what moves, or let it move less far.',
              things: [plotRef(plot)],
              numbers: { at: tenth(at), of: tenth(sweep.of), studs: high },
            },
          ];
      }
      return [];
    });
  },
};

const movesOut: Rule = {
  id: 'moves-out',
  title: 'What moves goes over an edge or a seam',
  basis:
    'The corners of what swings, slides, is let down or turns on a turntable, at each step of its way, against the studs of the footprint, and the modules under its way against those under it at rest.',
  page: 'plan',
  severity: 'warning',
  check({ scene, relief }) {
    const modules = listOf(scene, 'module');
    return sweepsOf(scene, relief).flatMap((sweep): FindingDraft[] => {
      const { plot, steps } = sweep;
      const isOut = ({ corners }: { corners: readonly { x: number; y: number }[] }) =>
        corners.some((corner) => isOff(relief, corner, middleOf(corners)));
      const out = steps.find(isOut);
      const restsOff = isOut(steps[0]);
      if (out && !restsOff)
        return [
          {
            sentence: `“${plot.name}” ${MOVE_WORDS[plot.moves]} over the edge of the display after ${farOf(sweep, out.at)}; visitors and neighbours stand there.`,
            remedy: 'Let it move less far, or the other way.',
            place: middleOf(out.corners),
            part: 'edge',
            things: [plotRef(plot)],
            numbers: { at: tenth(out.at), of: tenth(sweep.of) },
          },
        ];
      const under = (corners: readonly { x: number; y: number }[]) =>
        modules.filter((module) => corners.some(({ x, y }) => containsPoint(module, x, y)));
      const home = under(steps[0].corners);
      const over = steps.flatMap(({ corners }) => under(corners)).find((module) => !home.includes(module));
      if (!over || home.length === 0) return [];
      return [
        {
          severity: 'note',
          sentence: `“${plot.name}” stands on ${home.map(({ name }) => name).join(', ')} and ${MOVE_WORDS[plot.moves]} over ${over.name} too: 2 modules must stand before it can move.`,
          remedy: 'Keep its way on one module, or note it for the order of building up.',
          place: middleOf(steps[0].corners),
          part: 'seam',
          things: [plotRef(plot), { kind: 'module', id: over.id }],
          numbers: { modules: home.length + 1 },
        },
      ];
    });
  },
};

function middleOf(corners: readonly { x: number; y: number }[]): { x: number; y: number } {
  const sum = corners.reduce((total, { x, y }) => ({ x: total.x + x, y: total.y + y }), { x: 0, y: 0 });
  return { x: sum.x / corners.length, y: sum.y / corners.length };
}

/** Whether a corner lies beyond the footprint; on its border it does not. @param middle of its outline */
function isOff(relief: Relief, corner: { x: number; y: number }, middle: { x: number; y: number }): boolean {
  // A hair inwards, so that a corner on a border belongs to the stud within.
  const x = corner.x + (middle.x - corner.x) * 1e-6;
  const y = corner.y + (middle.y - corner.y) * 1e-6;
  const [column, row] = [Math.floor(x) - relief.x, Math.floor(y) - relief.y];
  if (column < 0 || row < 0 || column >= relief.w || row >= relief.d) return true;
  return relief.ground[row * relief.w + column] === OUTSIDE;
}

/** Studs under an outline whose surface is higher than a height. */
function studsOver(relief: Relief, corners: readonly { x: number; y: number }[], height: number): number {
  let studs = 0;
  eachTouched(corners, relief, (row, from, to) => {
    for (let x = from; x < to; x++) {
      const i = (row - relief.y) * relief.w + x - relief.x;
      if (relief.ground[i] !== OUTSIDE && relief.surface[i] > height) studs++;
    }
  });
  return studs;
}

export const MOVE_RULES: readonly Rule[] = [movesHit, movesOut];
