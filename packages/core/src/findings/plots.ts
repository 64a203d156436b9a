import { centreOf, countOf, formatPlates, grown, roundOut, intersection } from '../grid/index.ts';
import {
  NO_SLAB,
  OUTSIDE,
  isInOutline,
  eachStripStud,
  eachTouched,
  footHeights,
  halfThick,
  indexAt,
  membersOf,
  wallFoot,
  nearestOn,
  influenceOf,
  slabIndex,
  standsOn,
  topAt,
  type Body,
  type Point,
  type Relief,
} from '../terrain/index.ts';
import {
  builtCorners,
  wallCorners,
  isBoxed,
  isRound,
  labelOf,
  listOf,
  turnRadius,
  plotBounds,
  type Entity,
  type Plot,
  type Scene,
  builtSides,
  recessFaults,
  runHigh,
  runsEast,
  SIDE_WORDS,
  wallLine,
  isRaised,
} from '../document/index.ts';
import { type Context, type FindingDraft, type Rule } from './finding.ts';
import { overlappingPairs } from './places.ts';

// What is judged of buildings against each other and against what else stands there: overlaps, sweeps, ways across.

/** A building as a finding names it. */
export const plotRef = ({ id }: Plot) => ({ kind: 'plot' as const, id });

/** The studs that an outline touches, as numbers that are the same for the same stud. */
function touched(corners: readonly Point[]): Set<number> {
  const studs = new Set<number>();
  eachTouched(corners, EVERYWHERE, (row, from, to) => {
    for (let column = from; column < to; column++) studs.add(keyOf(column, row));
  });
  return studs;
}
const EVERYWHERE = { x: -20_000, y: -20_000, w: 40_000, d: 40_000 };

/** How many studs two bodies both touch. */
function sharedStuds(p: Body, q: Body): number {
  const own = touched(p.corners);
  return [...touched(q.corners)].filter((stud) => own.has(stud)).length;
}
const keyOf = (column: number, row: number) => (row + 20_000) * 100_000 + column + 20_000;

/** Whether a building stands off the grid. */
export const isTurned = ({ turn }: Plot) => turn % 90 !== 0;

/**
 * One finding for each pair of buildings whose bodies meet at one place and height: the first that applies.
 * @param turned of those of which one stands off the grid, or of the others
 */
function clashes(
  { scene, bodies }: Pick<Context, 'scene' | 'bodies'>,
  turned: boolean,
  tell: (p: Body, q: Body, a: Plot, b: Plot) => FindingDraft | null,
): FindingDraft[] {
  const plots = bodies().filter(({ kind }) => kind === 'plot');
  const drafts = new Map<string, FindingDraft>();
  for (const [p, q] of overlappingPairs(plots, ({ bounds }) => grown(bounds, 1))) {
    if (p.id === q.id || Math.max(p.begins, q.begins) >= Math.min(p.top, q.top)) continue;
    const [a, b] = [scene.plot[p.id], scene.plot[q.id]];
    const key = [a.id, b.id].sort().join(' ');
    if ((isTurned(a) || isTurned(b)) !== turned || drafts.has(key)) continue;
    const draft = tell(wholeOf(p, a), wholeOf(q, b), a, b);
    if (draft) drafts.set(key, draft);
  }
  return [...drafts.values()];
}

/** A body that begins on the ground as the whole plot: pavement and walls need room alike. */
const wholeOf = (body: Body, plot: Plot): Body =>
  body.begins === body.ground ? { ...body, corners: wallCorners(plot), bounds: plotBounds(plot) } : body;

const plotsOverlap: Rule = {
  id: 'plots-overlap',
  title: 'Buildings overlap',
  basis:
    'The studs two buildings share at one height: their walls from the ground up, and what stands out over them from where it begins.',
  page: 'plan',
  severity: 'error',
  // What is turned off the grid is judged by the studs it touches: see “turn-reaches”.
  check: (context) =>
    clashes(context, false, (p, q, a, b) => {
      const shared = intersection(p.bounds, q.bounds);
      if (!shared) return null;
      const from = Math.max(p.begins, q.begins);
      const both = isBoxed(a) && isBoxed(b) ? null : sharedStuds(p, q);
      if (both === 0) return null;
      const walls = p.begins === p.ground && q.begins === q.ground;
      return {
        sentence: `“${a.name}” and “${b.name}” share ${both === null ? `${shared.w} × ${shared.d} studs` : countOf(both, 'stud')}${walls ? '' : ` from ${formatPlates(from)} up`}; two buildings need 0.`,
        remedy: `Move “${b.name}” by ${countOf(Math.min(shared.w, shared.d), 'stud')}.`,
        place: centreOf(shared),
        things: [plotRef(a), plotRef(b)],
        numbers: { w: shared.w, d: shared.d },
      };
    }),
};

const turnReaches: Rule = {
  id: 'turn-reaches',
  title: 'A turned building reaches its neighbour',
  basis:
    'Every stud that the turned walls and what stands out over them touch, against those of each other building at the same height.',
  page: 'plan',
  severity: 'error',
  check: (context) =>
    clashes(context, true, (p, q, a, b) => {
      const [plot, other] = isTurned(a) ? [a, b] : [b, a];
      const shared = intersection(grown(p.bounds, 1), grown(q.bounds, 1));
      if (!shared) return null;
      const studs = sharedStuds(p, q);
      if (studs === 0) return null;
      return {
        sentence: `Turned by ${plot.turn}°, “${plot.name}” touches ${countOf(studs, 'stud')} of “${other.name}”; it should touch 0.`,
        remedy: 'Turn it less, or move it away.',
        place: centreOf(shared),
        things: [plotRef(plot), plotRef(other)],
        numbers: { turn: plot.turn, studs },
      };
    }),
};

const turntableSweep: Rule = {
  id: 'turntable-sweep',
  title: 'A turntable has no room to turn',
  basis:
    'The circle through the farthest corner of what turns, about its middle: other bodies that reach into it at its height, and ground in it that is higher than it stands.',
  page: 'plan',
  severity: 'error',
  check({ scene, relief, bodies }) {
    return listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      const stands = plot.mount === 'turntable' ? standsOn(scene, relief, plot) : null;
      if (stands === null) return [];
      const middle = centreOf(plot);
      const radius = turnRadius(plot);
      const hit = bodies().find(
        (body) =>
          (body.kind !== 'plot' || body.id !== plot.id) &&
          body.begins < stands + plot.height &&
          body.top > stands &&
          distanceTo(body.corners, middle) < radius - 1e-6,
      );
      let studs = 0;
      const reach = Math.ceil(radius);
      for (let y = Math.floor(middle.y) - reach; y <= middle.y + reach; y++)
        for (let x = Math.floor(middle.x) - reach; x <= middle.x + reach; x++) {
          const i = indexAt(relief, x, y);
          if (i < 0 || relief.ground[i] === OUTSIDE || relief.height[i] <= stands) continue;
          const [dx, dy] = [
            Math.max(x - middle.x, 0, middle.x - x - 1),
            Math.max(y - middle.y, 0, middle.y - y - 1),
          ];
          if (Math.hypot(dx, dy) < radius) studs++;
        }
      if (!hit && studs === 0) return [];
      const wide = (2 * radius).toFixed(1);
      return [
        {
          sentence: hit
            ? `“${plot.name}” sweeps a circle of ${wide} studs on its turntable, and “${labelOf(scene, hit.kind, hit.id)}” stands in it; nothing may.`
            : `“${plot.name}” sweeps a circle of ${wide} studs on its turntable, and ${countOf(studs, 'stud')} of ground in it are higher than it stands; 0 may be.`,
          remedy: 'Clear the circle, or raise what turns on a pad.',
          place: middle,
          things: [plotRef(plot), ...(hit ? [{ kind: hit.kind, id: hit.id }] : [])],
          numbers: { radius: Number(radius.toFixed(2)), studs },
        },
      ];
    });
  },
};

/** How far a point lies from an outline, studs; 0: in it. */
function distanceTo(corners: readonly Point[], at: Point): number {
  const inside = isInOutline(corners, at);
  let least = Infinity;
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length];
    const near = nearestOn(a, b, at);
    least = Math.min(least, Math.hypot(near.x - at.x, near.y - at.y));
  });
  return inside ? 0 : least;
}

const pinnedHalf: Rule = {
  id: 'pinned-half',
  title: 'A pinned building stands between the studs',
  basis:
    'Where the walls of a pinned building begin, against whole studs; studs meet only at whole steps and quarter turns. On jumpers half studs are exact.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      if (plot.mount !== 'pinned') return [];
      if (isTurned(plot))
        return [
          {
            sentence: `“${plot.name}” is pinned and turned by ${plot.turn}°; studs meet only at quarter turns.`,
            remedy: 'Stand it loose or on a turntable, or turn it by a quarter.',
            place: centreOf(plot),
            things: [plotRef(plot)],
            numbers: { turn: plot.turn },
          },
        ];
      const { x, y } = plotBounds(plot);
      const off = { x: x - Math.floor(x), y: y - Math.floor(y) };
      if (off.x === 0 && off.y === 0) return [];
      const half = off.x === 0.5 || off.y === 0.5;
      const ways = [off.x > 0 && `${x} studs from the west`, off.y > 0 && `${y} from the north`].filter(
        Boolean,
      );
      return [
        {
          sentence: `“${plot.name}” is pinned ${ways.join(' and ')}; pinned walls begin on whole studs.`,
          remedy: half ? `Set its mount to jumpers, or move it by half a stud.` : 'Move it onto whole studs.',
          place: { x, y },
          things: [plotRef(plot)],
          numbers: { x, y },
        },
      ];
    }),
};

/** What lies or stands along a line, with the heights it takes at a stud, plates above datum. */
interface Along {
  kind: 'way' | 'run' | 'repeat';
  id: string;
  strips: readonly (readonly Point[])[];
  half: number;
  takes: (x: number, y: number) => { from: number; to: number };
}

/** A road or path as a line: what stands on it, or reaches down to it, is on it. */
export function alongWay(relief: Relief, { id, points, width }: Entity<'way'>): Along {
  const takes = (x: number, y: number) => {
    const z = heightOfWay(relief, id, x, y);
    return { from: z - 1, to: z + 1 };
  };
  return { kind: 'way', id, strips: [points], half: width / 2, takes };
}

/** The height of a way at a stud, plates: of its bridge or of the deck it runs on, else of the ground. */
export function heightOfWay(relief: Relief, id: string, x: number, y: number): number {
  const own = relief.slabs.find((slab) => slab.kind === 'way' && slab.id === id);
  const bridge = own ? topAt(own, x, y) : NO_SLAB;
  if (bridge !== NO_SLAB) return bridge;
  const deck = relief.slabs.findLast(
    (slab) => slab.kind === 'deck' && topAt(slab, x, y) !== NO_SLAB && slab.way[slabIndex(slab, x, y)] === 1,
  );
  return deck ? topAt(deck, x, y) : relief.height[indexAt(relief, x, y)];
}

/** How many studs of a line a building takes at the line's own height: none where a deck is between them. */
export function studsTaken(scene: Scene, relief: Relief, plot: Entity<'plot'>, line: Along): number {
  const bounds = plotBounds(plot);
  const reach = influenceOf(scene, line.kind, line.id);
  if (!reach || !intersection(reach, bounds)) return 0;
  const foot = standsOn(scene, relief, plot);
  if (foot === null) return 0;
  const own = touched(builtCorners(plot));
  const isUp = isRaised(plot);
  const studs = new Set<number>();
  for (const points of line.strips)
    eachStripStud(points, line.half, roundOut(bounds), (x, y) => {
      if (!own.has(keyOf(x, y)) || indexAt(relief, x, y) < 0) return;
      const { from, to } = line.takes(x, y);
      // On sloping ground it hides what lies lower under it; a deck or roof between the two parts them.
      const isParted = relief.slabs.some((slab) => {
        const top = topAt(slab, x, y);
        return top !== NO_SLAB && top >= to && top <= foot;
      });
      if (from < foot + plot.height && !isParted && !(isUp && to <= foot)) studs.add(keyOf(x, y));
    });
  return studs.size;
}

const plotAcross: Rule = {
  id: 'plot-across',
  title: 'A building stands across a way or a wall',
  basis:
    'Studs of what a plot is built on (its pavement left out) that a road, a path, a wall, a fence or a member of a repeat takes too, at one height: what stands on a deck is not on the road under it.',
  page: 'plan',
  severity: 'warning',
  check({ scene, relief }) {
    const surfaceAt = (x: number, y: number) => relief.surface[indexAt(relief, x, y)];
    const lines: Along[] = [
      ...listOf(scene, 'way')
        .filter(({ use }) => use === 'road' || use === 'path')
        .map((way) => alongWay(relief, way)),
      ...listOf(scene, 'run').map((run): Along => {
        const named = wallFoot(scene, relief, run);
        const heights = footHeights(relief, run);
        return {
          ...{ kind: 'run', id: run.id, strips: [wallLine(run)], half: halfThick(run) },
          takes: (x, y) => {
            const from = named ?? heights[indexAt(relief, x, y)];
            return { from, to: from + runHigh(run) };
          },
        };
      }),
      ...listOf(scene, 'repeat').map((repeat): Along => ({
        kind: 'repeat',
        id: repeat.id,
        strips: membersOf(repeat, listOf(scene, 'module')).members.map((member) =>
          endsOf(member, repeat.length),
        ),
        half: 0.5,
        takes: (x, y) => ({ from: surfaceAt(x, y), to: surfaceAt(x, y) + repeat.height }),
      })),
    ];
    return listOf(scene, 'plot').flatMap((plot) =>
      lines.flatMap((line): FindingDraft[] => {
        const studs = studsTaken(scene, relief, plot, line);
        if (studs === 0) return [];
        const { kind, id } = line;
        return [
          {
            sentence: `“${plot.name}” stands on ${countOf(studs, 'stud')} of “${labelOf(scene, kind, id)}”; a building should stand on 0.`,
            remedy: 'Move one of them, or end the line at its walls.',
            place: centreOf(plotBounds(plot)),
            things: [plotRef(plot), { kind, id }],
            numbers: { studs },
          },
        ];
      }),
    );
  },
};

const endsOf = ({ x, y, angle }: { x: number; y: number; angle: number }, length: number): Point[] => {
  const [u, v] = [(Math.cos(angle) * length) / 2, (Math.sin(angle) * length) / 2];
  return [
    { x: x - u, y: y - v },
    { x: x + u, y: y + v },
  ];
};

const cornersLeftOut: Rule = {
  id: 'corners-left-out',
  title: 'Too much of a building is left out',
  basis:
    'Of each row of studs what its corners leave out at both ends, and of two rows that meet what two corners opposite leave out. A stud of each row is laid all the same; of what that parts the largest part is built.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      if (isRound(plot) || plot.notches.length === 0) return [];
      const { w: wide, d: deep } = builtSides(plot);
      const asked = Math.max(
        ...plot.notches.map(({ corner, w, d }) => {
          // The widest at the other end of one of the rows it reaches.
          const others = plot.notches.filter((other) => {
            const isSameEnd = other.corner[0] === corner[0];
            return other.corner[1] !== corner[1] && (isSameEnd || other.d + d >= deep);
          });
          return w + Math.max(0, ...others.map((other) => other.w));
        }),
      );
      if (asked < wide) return [];
      return [
        {
          sentence: `The corners left out of “${plot.name}” take ${countOf(asked, 'stud')} of a row of ${wide}; ${wide - 1} may be.`,
          remedy: 'Leave out narrower corners, or make it wider.',
          place: centreOf(plotBounds(plot)),
          things: [plotRef(plot)],
          numbers: { asked, most: wide - 1 },
        },
      ];
    }),
};

const recessNotBuilt: Rule = {
  id: 'recess-not-built',
  title: 'A side of a building cannot stand back so',
  basis:
    'The recesses of a building one after the other: one that takes no stud of it, all that a side has, or parts what is left is not built.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'plot').flatMap((plot) =>
      recessFaults(plot).map(({ index, why }): FindingDraft => {
        const { side, at, wide, deep } = plot.recesses[index];
        const { w, d } = builtSides(plot);
        const [length, depth] = runsEast(side) ? [w, d] : [d, w];
        const reason = {
          nothing: `it begins ${countOf(at, 'stud')} along a side of ${length}, or what it takes is left out already`,
          side: `it would take all that the ${SIDE_WORDS[side]} side has`,
          parts: `it would part the building, which is ${countOf(depth, 'stud')} deep there`,
        }[why];
        return {
          part: `recess ${index + 1}`,
          sentence: `Recess ${index + 1} of “${plot.name}”, ${wide} × ${countOf(deep, 'stud')} in its ${SIDE_WORDS[side]} side, is not built: ${reason}.`,
          remedy:
            why === 'parts'
              ? 'Let it stand back less far, or make it narrower.'
              : 'Move it along its side, make it narrower, or remove it.',
          place: centreOf(plotBounds(plot)),
          things: [plotRef(plot)],
          numbers: { recess: index + 1, wide, deep, length, depth },
        };
      }),
    ),
};

export const PLOT_RULES: readonly Rule[] = [
  plotsOverlap,
  turnReaches,
  turntableSweep,
  pinnedHalf,
  plotAcross,
  cornersLeftOut,
  recessNotBuilt,
];
