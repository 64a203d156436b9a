import { PLATE, countOf, formatMm, formatPlates, intersection, type Rect } from '../grid/index.ts';
import {
  OUTSIDE,
  PERCENT_OF_STEPS,
  PERCENT_PER_PLATE,
  RISER,
  eachSpan,
  eachStripStud,
  gradeLimit,
  fixedGroundAt,
  groundAt,
  heightOfStud,
  isClimbable,
  indexAt,
  nearestOn,
  influenceOf,
  steepest,
  wayProfile,
} from '../terrain/index.ts';
import { labelOf, listOf, type Scene, type Way } from '../document/index.ts';
import { type FindingDraft, type Rule } from './finding.ts';
import { heightOfWay } from './plots.ts';
import { percent, spotOf, tenth } from './figures.ts';
import { lineOfTrack } from './tracks.ts';

// What is judged of ways: grade, ends, water, bends, what they nearly meet.

const waySteep: Rule = {
  id: 'way-steep',
  title: 'A way is too steep',
  basis: `Height over length along the middle of the way as it is built, over 8 studs; one plate a stud is ${PERCENT_PER_PLATE} %. Steps of a brick on two studs are ${PERCENT_OF_STEPS} %.`,
  page: 'plan',
  severity: 'warning',
  check: ({ scene, relief }) =>
    listOf(scene, 'way').flatMap((way): FindingDraft[] => {
      const worst = steepest(
        wayProfile({ ...way, rise: 0, onSteep: 'follow' }, (x, y) =>
          heightOfStud(relief, Math.floor(x), Math.floor(y)),
        ),
      );
      const limit = gradeLimit(way);
      // On the ground a plate more or less is the grid's doing, in a flight a riser.
      const play = isClimbable(way) ? 0 : (way.onSteep === 'steps' ? RISER : 1) * (PERCENT_PER_PLATE / 8);
      if (!worst || worst.grade <= limit + play) return [];
      return [
        {
          sentence: `“${way.name}” climbs at ${percent(worst.grade)} near ${worst.at.x.toFixed(0)}, ${worst.at.y.toFixed(0)}; its limit is ${percent(limit)}.`,
          remedy: steepRemedy(way, worst.grade),
          place: spotOf(worst.at),
          things: [{ kind: 'way', id: way.id }],
          numbers: { grade: worst.grade, limit },
        },
      ];
    }),
};

/** What would mend a steep way: steps only where they may be as steep as it is. */
function steepRemedy(way: Way, grade: number): string {
  if (isClimbable(way))
    return 'Let go of the heights of its points, bring them nearer together, or lead it round.';
  if (way.onSteep === 'follow' && grade <= PERCENT_OF_STEPS)
    return 'Build steps there, level it to a ramp, or lead it round.';
  return way.onSteep === 'follow'
    ? 'Level it to a ramp where there is room for one, or lead it round.'
    : 'Lead it round.';
}

/** An end may lie this far off the ground before it, plates: the grid's doing. */
const END_PLAY = 1;

const wayHangs: Rule = {
  id: 'way-hangs',
  title: 'A way ends above or below the ground',
  basis: `The height of each end of a way as it is built, against the ground a stud beyond it; ${END_PLAY} plate is allowed, or as much as the way rises above its ground. Ends at the edge of the scene and over water are not judged.`,
  page: 'plan',
  severity: 'warning',
  check: ({ scene, relief }) =>
    listOf(scene, 'way').flatMap((way): FindingDraft[] =>
      [way.points, way.points.toReversed()].flatMap(([end, inner], which): FindingDraft[] => {
        const long = Math.hypot(end.x - inner.x, end.y - inner.y) || 1;
        const at = (by: number) =>
          indexAt(relief, end.x + ((end.x - inner.x) / long) * by, end.y + ((end.y - inner.y) / long) * by);
        const [last, next] = [at(-0.5), at(0.75)];
        if (last < 0 || next < 0 || relief.ground[last] === OUTSIDE) return [];
        const beyond = fixedGroundAt(scene, relief, next);
        if (beyond === null || beyond === 'water') return [];
        const own = heightOfWay(
          relief,
          way.id,
          relief.x + (last % relief.w),
          relief.y + Math.trunc(last / relief.w),
        );
        // On to a deck or a bridge, or under it: whichever is nearer to its own height.
        const [low, high] = [own - relief.height[next], own - relief.surface[next]];
        const by = Math.abs(high) < Math.abs(low) ? high : low;
        if (Math.abs(by) <= Math.max(END_PLAY, Math.abs(way.rise))) return [];
        const short = !isClimbable(way) && way.onSteep !== 'follow';
        return [
          {
            sentence: `The ${which === 0 ? 'first' : 'last'} end of “${way.name}” lies ${formatPlates(Math.abs(by))} ${by > 0 ? 'above' : 'below'} the ground it leads to; at most ${formatPlates(Math.max(END_PLAY, Math.abs(way.rise)))} is level enough.`,
            remedy: short
              ? `It is too short for its climb: draw that end ${countOf(Math.ceil(Math.abs(by) / (gradeLimit(way) / PERCENT_PER_PLATE)), 'stud')} further on level ground, or allow a steeper grade.`
              : 'Give that end the height of the ground there, or raise the ground to it.',
            place: spotOf(end),
            part: which === 0 ? 'first end' : 'last end',
            things: [{ kind: 'way', id: way.id }],
            numbers: { by, which },
          },
        ];
      }),
    ),
};

const wayDrowns: Rule = {
  id: 'way-over-water',
  title: 'A way or track fills in water',
  basis:
    'Studs of still water and of streams over which a way or the bed of a track is laid as ground, solid down to the table. What bridges the water leaves it as it is.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene, relief }) => {
    const strips = [
      ...listOf(scene, 'way').map(({ id, points, width }) => ({ kind: 'way' as const, id, points, width })),
      ...listOf(scene, 'track').map((track) => ({
        kind: 'track' as const,
        id: track.id,
        points: lineOfTrack(scene, track).line,
        width: track.bed,
      })),
    ];
    const waters = (['water', 'stream'] as const).flatMap((kind) =>
      listOf(scene, kind).map(({ id }) => ({ kind, id })),
    );
    return strips.flatMap(({ kind, id, points, width }): FindingDraft[] => {
      const reach = influenceOf(scene, kind, id);
      const near = waters.filter((water) => {
        const other = influenceOf(scene, water.kind, water.id);
        return reach && other && intersection(reach, other);
      });
      if (near.length === 0) return [];
      const studs = new Set<number>();
      eachStripStud(points, width / 2, relief, (x, y) => {
        const i = indexAt(relief, x, y);
        if (relief.ground[i] !== OUTSIDE) studs.add(i);
      });
      return near.flatMap((water): FindingDraft[] => {
        const found: number[] = [];
        const own = scene[water.kind][water.id]?.ground;
        eachWaterStud(scene, water, relief, (x, y) => {
          const i = indexAt(relief, x, y);
          // Where it is a bridge, the water under it stays.
          const isWater = groundAt(relief, i) === own || fixedGroundAt(scene, relief, i) === 'water';
          if (studs.has(i) && !isWater) found.push(i);
        });
        if (found.length === 0) return [];
        const top = Math.max(...found.map((i) => relief.height[i]));
        const at = found[found.length >> 1];
        return [
          {
            sentence: `“${labelOf(scene, kind, id)}” covers ${countOf(found.length, 'stud')} of “${labelOf(scene, water.kind, water.id)}”: there is no water under it, and it is counted solid from the table up to ${formatPlates(top)} (${formatMm(top * PLATE)}).`,
            remedy: 'Let it bridge what lies under it, hold it higher, or lead it round the water.',
            place: { x: relief.x + (at % relief.w) + 0.5, y: relief.y + Math.trunc(at / relief.w) + 0.5 },
            things: [{ kind, id }, water],
            numbers: { studs: found.length, top },
          },
        ];
      });
    });
  },
};

/** Calls `visit` with each stud that a water of its own would lie on. */
function eachWaterStud(
  scene: Scene,
  { kind, id }: { kind: 'water' | 'stream'; id: string },
  window: Rect,
  visit: (x: number, y: number) => void,
): void {
  if (kind === 'stream') eachStripStud(scene.stream[id].points, scene.stream[id].width / 2, window, visit);
  else
    eachSpan(scene.water[id], window, (row, from, to) => {
      for (let x = from; x < to; x++) visit(x, row);
    });
}

const wayTight: Rule = {
  id: 'way-tight',
  title: 'A way bends too sharply for its width',
  basis:
    'At a bend the inner edge folds over itself unless both stretches are at least half the width × tan(half the turn) long.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'way').flatMap((way): FindingDraft[] =>
      way.points.slice(1, -1).flatMap((at, i): FindingDraft[] => {
        const [a, b] = [way.points[i], way.points[i + 2]];
        const into = Math.atan2(at.y - a.y, at.x - a.x);
        const out = Math.atan2(b.y - at.y, b.x - at.x);
        const turn = Math.abs(Math.atan2(Math.sin(out - into), Math.cos(out - into)));
        const needs = turn > Math.PI - 0.05 ? Infinity : (way.width / 2) * Math.tan(turn / 2);
        const has = Math.min(Math.hypot(at.x - a.x, at.y - a.y), Math.hypot(b.x - at.x, b.y - at.y));
        if (needs <= has) return [];
        const degrees = Math.round((turn * 180) / Math.PI);
        return [
          {
            sentence: `“${way.name}”, ${countOf(way.width, 'stud')} wide, turns by ${degrees}° with ${has.toFixed(1)} studs to do it in; ${Number.isFinite(needs) ? `it needs ${needs.toFixed(1)}` : 'it turns back on itself'}.`,
            remedy: 'Draw the bend wider, or make the way narrower.',
            place: spotOf(at),
            part: `point ${i + 2}`,
            things: [{ kind: 'way', id: way.id }],
            numbers: { point: i + 1, degrees, has },
          },
        ];
      }),
    ),
};

/** An end this near to another way, studs, was meant to reach it. */
const NEARLY = 4;

const wayEnds: Rule = {
  id: 'way-ends',
  title: 'A way ends just short of another',
  basis: `The distance from each end of a way to the edge of the nearest other one, when it is more than 0 and at most ${NEARLY} studs; and the difference of heights where they do meet.`,
  page: 'plan',
  severity: 'warning',
  check({ scene, relief }) {
    const ways = listOf(scene, 'way');
    const heightAt = (x: number, y: number) => heightOfStud(relief, Math.floor(x), Math.floor(y));
    return ways.flatMap((way): FindingDraft[] =>
      [way.points, way.points.toReversed()].flatMap(([end, inner], which): FindingDraft[] => {
        const near = ways
          .filter(({ id }) => id !== way.id)
          .map((other) => ({ other, off: offLine(other, end) - other.width / 2 }))
          .sort((a, b) => a.off - b.off)[0];
        if (!near || near.off <= 0.5 || near.off > NEARLY || heightAt(end.x, end.y) === null) return [];
        // Only where it leads: a way that runs beside another was not meant to reach it.
        const long = Math.hypot(end.x - inner.x, end.y - inner.y) || 1;
        const on = {
          x: end.x + ((end.x - inner.x) / long) * NEARLY,
          y: end.y + ((end.y - inner.y) / long) * NEARLY,
        };
        if (offLine(near.other, on) - near.other.width / 2 > 0.5) return [];
        return [
          {
            sentence: `“${way.name}” ends ${tenth(near.off)} studs short of “${near.other.name}”; ways that meet touch.`,
            remedy: `Draw its ${which === 0 ? 'first' : 'last'} point on to “${near.other.name}”, or well away from it.`,
            place: spotOf(end),
            things: [
              { kind: 'way', id: way.id },
              { kind: 'way', id: near.other.id },
            ],
            part: which === 0 ? 'first end' : 'last end',
            numbers: { off: near.off, which },
          },
        ];
      }),
    );
  },
};

function offLine({ points }: Way, at: { x: number; y: number }): number {
  return Math.min(
    ...points.slice(1).map((to, i) => {
      const on = nearestOn(points[i], to, at);
      return Math.hypot(on.x - at.x, on.y - at.y);
    }),
  );
}

export const WAY_RULES: readonly Rule[] = [waySteep, wayHangs, wayDrowns, wayTight, wayEnds];
