import {
  lengthOfLine,
  PLATE,
  countOf,
  formatMm,
  formatPlates,
  containsPoint,
  intersection,
  type Rect,
} from '../grid/index.ts';
import {
  OUTSIDE,
  PERCENT_OF_STEPS,
  PERCENT_PER_PLATE,
  RISER,
  atAlong,
  eachSpan,
  eachStripStud,
  eachTouched,
  gradeLimit,
  groundAt,
  heightOfStud,
  isClimbable,
  indexAt,
  nearestOn,
  influenceOf,
  steepest,
  wayProfile,
  type Body,
} from '../terrain/index.ts';
import {
  labelOf,
  listOf,
  closureGap,
  pieceLength,
  reversed,
  trackLine,
  type Scene,
  type Track,
  type Way,
} from '../document/index.ts';
import { type FindingDraft, type Rule } from './finding.ts';

// What is judged of ways and track: grade, bends, ends, clearance, seams.

const tenth = (value: number) => Number(value.toFixed(1));
const percent = (value: number) => `${tenth(value)} %`;
const place = ({ x, y }: { x: number; y: number }) => ({ x, y });

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
          sentence: `«${way.name}» climbs at ${percent(worst.grade)} near ${worst.at.x.toFixed(0)}, ${worst.at.y.toFixed(0)}; its limit is ${percent(limit)}.`,
          remedy: steepRemedy(way, worst.grade),
          place: place(worst.at),
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
        const beyond = groundAt(relief, next);
        if (beyond === null || beyond === 'water') return [];
        const by = relief.height[last] - relief.height[next];
        if (Math.abs(by) <= Math.max(END_PLAY, Math.abs(way.rise))) return [];
        const short = !isClimbable(way) && way.onSteep !== 'follow';
        return [
          {
            sentence: `The ${which === 0 ? 'first' : 'last'} end of «${way.name}» lies ${formatPlates(Math.abs(by))} ${by > 0 ? 'above' : 'below'} the ground it leads to; at most ${formatPlates(Math.max(END_PLAY, Math.abs(way.rise)))} is level enough.`,
            remedy: short
              ? `It is too short for its climb: draw that end ${countOf(Math.ceil(Math.abs(by) / (gradeLimit(way) / PERCENT_PER_PLATE)), 'stud')} further on level ground, or allow a steeper grade.`
              : 'Give that end the height of the ground there, or raise the ground to it.',
            place: place(end),
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
    'Studs of still water and of streams over which a way or the bed of a track is laid. The ground has one height a stud: there is no water under it, and what is held above the water is solid down to the table.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene, relief }) => {
    const strips = [
      ...listOf(scene, 'way').map(({ id, points, width }) => ({ kind: 'way' as const, id, points, width })),
      ...listOf(scene, 'track').map((track) => ({
        kind: 'track' as const,
        id: track.id,
        points: lineOf(scene, track).line,
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
        eachWaterStud(scene, water, relief, (x, y) => {
          const i = indexAt(relief, x, y);
          if (studs.has(i)) found.push(i);
        });
        if (found.length === 0) return [];
        const top = Math.max(...found.map((i) => relief.height[i]));
        const at = found[found.length >> 1];
        return [
          {
            sentence: `«${labelOf(scene, kind, id)}» covers ${countOf(found.length, 'stud')} of «${labelOf(scene, water.kind, water.id)}»: there is no water under it, and it is counted solid from the table up to ${formatPlates(top)} (${formatMm(top * PLATE)}).`,
            remedy:
              'Lead it round the water, or end it at both shores and build the bridge as something that stands there.',
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
            sentence: `«${way.name}», ${way.width} studs wide, turns by ${degrees}° with ${has.toFixed(1)} studs to do it in; ${Number.isFinite(needs) ? `it needs ${needs.toFixed(1)}` : 'it turns back on itself'}.`,
            remedy: 'Draw the bend wider, or make the way narrower.',
            place: place(at),
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
            sentence: `«${way.name}» ends ${tenth(near.off)} studs short of «${near.other.name}»; ways that meet touch.`,
            remedy: `Draw its ${which === 0 ? 'first' : 'last'} point on to «${near.other.name}», or well away from it.`,
            place: place(end),
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

const lineOf = (scene: Scene, track: Track) =>
  trackLine(track, (scene.level[track.level]?.height ?? 0) + track.offset);

const trackSteep: Rule = {
  id: 'track-steep',
  title: 'Track is too steep',
  basis: 'Plates a piece climbs over its length, by its own limit.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'track').flatMap((track): FindingDraft[] => {
      const { joints } = lineOf(scene, track);
      const grades = track.pieces.map(
        (piece) => (Math.abs(piece.rise) / pieceLength(piece)) * PERCENT_PER_PLATE,
      );
      const worst = grades.indexOf(Math.max(...grades));
      if (grades[worst] <= track.maxGrade) return [];
      return [
        {
          sentence: `Piece ${worst + 1} of «${track.name}» climbs at ${percent(grades[worst])}; its limit is ${percent(track.maxGrade)}.`,
          remedy: 'Spread the climb over more pieces.',
          place: place(joints[worst]),
          things: [{ kind: 'track', id: track.id }],
          numbers: { grade: grades[worst], limit: track.maxGrade },
        },
      ];
    }),
};

/** The tightest curve that common track runs through, studs at its middle (common practice, no source). */
const TIGHTEST = 40;

const trackTight: Rule = {
  id: 'track-tight',
  title: 'Track curves too tightly',
  basis: `The radius of each curve at its middle; ${TIGHTEST} studs is the usual least (common practice, no source).`,
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'track').flatMap((track): FindingDraft[] => {
      const tight = track.pieces.findIndex(({ go, radius }) => go !== 'straight' && radius < TIGHTEST);
      if (tight < 0) return [];
      return [
        {
          sentence: `Piece ${tight + 1} of «${track.name}» has a radius of ${track.pieces[tight].radius} studs; the least is ${TIGHTEST}.`,
          remedy: 'Use wider curves, or check that what runs there takes this one.',
          place: place(lineOf(scene, track).joints[tight]),
          things: [{ kind: 'track', id: track.id }],
          numbers: { radius: track.pieces[tight].radius },
        },
      ];
    }),
};

/** Ends nearer than this were meant to meet, studs. */
const MEANT = 6;

const trackEnds: Rule = {
  id: 'track-ends',
  title: 'Two ends of track do not meet',
  basis: `Each end of track against the nearest other end within ${MEANT} studs: how far apart, turned how much, how much higher. Ends meet within 0.05 studs, in one direction and at one height.`,
  page: 'plan',
  severity: 'error',
  check({ scene }) {
    const ends = listOf(scene, 'track').flatMap((track) => {
      const { joints } = lineOf(scene, track);
      return [
        { track, out: reversed(joints[0]), key: `${track.id} a`, which: 'first' },
        { track, out: joints[joints.length - 1], key: `${track.id} b`, which: 'last' },
      ];
    });
    return ends.flatMap((end, i): FindingDraft[] => {
      const near = ends
        .map((other, j) => ({ other, j, miss: closureGap(end.out, reversed(other.out)) }))
        .filter(({ other, miss }) => other.key !== end.key && miss.studs <= MEANT)
        .sort((a, b) => a.miss.studs - b.miss.studs)[0];
      if (!near || near.j < i) return [];
      const { studs, turn, plates } = near.miss;
      if (studs < 0.05 && turn === 0 && plates < 0.5) return [];
      const faults = [
        studs >= 0.05 &&
          `${Number(studs.toFixed(2))} ${Math.abs(studs - 1) < 0.005 ? 'stud' : 'studs'} apart`,
        turn > 0 && `turned by ${turn * 22.5}°`,
        plates >= 0.5 && `${formatPlates(Math.round(plates))} higher or lower`,
      ].filter(Boolean);
      const same = near.other.track.id === end.track.id;
      return [
        {
          sentence: `${same ? `Both ends of «${end.track.name}»` : `The ends of «${end.track.name}» and «${near.other.track.name}»`} nearly meet, but are ${faults.join(', ')}.`,
          remedy: 'Move one of them, or put a piece of another length in.',
          place: place(end.out),
          part: `${end.which} ${near.other.which}`,
          things: [...new Set([end.track.id, near.other.track.id])].map((id) => ({
            kind: 'track' as const,
            id,
          })),
          numbers: { studs, turn, plates },
        },
      ];
    });
  },
};

const trackClear: Rule = {
  id: 'track-clear',
  title: 'Something stands too near to the track',
  basis:
    'Studs within the track’s clear width, from its middle to each side, and over the bed itself, over which something stands lower than the clear height above the bed. What begins higher, such as a roof, is no hindrance, nor is a small scene: it may be a train.',
  page: 'plan',
  severity: 'error',
  check: ({ scene, relief, bodies }) =>
    listOf(scene, 'track').flatMap((track): FindingDraft[] => {
      const { line } = lineOf(scene, track);
      const free = new Map<number, { off: number; bed: number }>();
      eachStripStud(line, Math.max(track.clearSide, track.bed / 2), relief, (x, y, along, off) => {
        const i = indexAt(relief, x, y);
        if (relief.ground[i] === OUTSIDE) return;
        const middle = atAlong(line, along);
        const bed = heightOfStud(relief, Math.floor(middle.x), Math.floor(middle.y)) ?? relief.height[i];
        free.set(i, { off, bed });
      });
      const found = new Map<
        string,
        { body: Body; studs: Set<number>; off: number; first: number; above: number }
      >();
      for (const body of bodies())
        // A small scene may be a train on its track.
        if (body.kind !== 'figure')
          eachTouched(body.corners, relief, (row, from, to) => {
            for (let i = indexAt(relief, from, row); i < indexAt(relief, to, row); i++) {
              const stud = free.get(i);
              if (!stud || body.top <= stud.bed || body.begins >= stud.bed + track.clearHeight) continue;
              const key = `${body.kind} ${body.id}`;
              const known = found.get(key);
              const above = Math.max(0, body.begins - stud.bed);
              if (!known) found.set(key, { body, studs: new Set([i]), off: stud.off, first: i, above });
              else {
                known.studs.add(i);
                known.off = Math.min(known.off, stud.off);
                known.above = Math.min(known.above, above);
              }
            }
          });
      return [...found.values()].map(({ body: { kind, id }, studs, off, first, above }) => ({
        sentence: `«${labelOf(scene, kind, id)}» ${above > 0 ? `hangs ${formatPlates(above)} above the bed` : 'stands'} ${tenth(off)} studs from the middle of «${track.name}», on ${countOf(studs.size, 'stud')} that must be free up to ${track.clearSide}${above > 0 ? ` and up to ${formatPlates(track.clearHeight)}` : ''}.`,
        remedy: above > 0 ? 'Let it begin higher, or move it or the track.' : 'Move it or the track.',
        place: { x: relief.x + (first % relief.w) + 0.5, y: relief.y + Math.floor(first / relief.w) + 0.5 },
        things: [
          { kind: 'track' as const, id: track.id },
          { kind, id },
        ],
        numbers: { studs: studs.size, off, above },
      }));
    }),
};

const trackSeam: Rule = {
  id: 'track-seam',
  title: 'Track crosses a seam at an angle',
  basis:
    'Where the middle of the track passes from one module to another, its direction against the seam: only a square crossing lets both rails part cleanly.',
  page: 'cut',
  severity: 'warning',
  check({ scene }) {
    const modules = listOf(scene, 'module');
    const moduleAt = ({ x, y }: { x: number; y: number }) =>
      modules.find((one) => containsPoint(one, x, y)) ?? null;
    return listOf(scene, 'track').flatMap((track): FindingDraft[] => {
      const { line } = lineOf(scene, track);
      return line.slice(1).flatMap((to, i): FindingDraft[] => {
        const from = line[i];
        if (lengthOfLine([from, to]) === 0) return [];
        const [a, b] = [moduleAt(from), moduleAt(to)];
        if (!a || !b || a.id === b.id) return [];
        const off = Math.min(Math.abs(to.x - from.x), Math.abs(to.y - from.y));
        if (off < 1e-6) return [];
        const degrees = tenth(
          (Math.atan2(off, Math.max(Math.abs(to.x - from.x), Math.abs(to.y - from.y))) * 180) / Math.PI,
        );
        return [
          {
            sentence: `«${track.name}» crosses the seam between ${a.name} and ${b.name} ${degrees}° off square; track crosses squarely.`,
            remedy: 'Move the seam, or lead the track straight across it.',
            place: { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 },
            things: [
              { kind: 'track', id: track.id },
              { kind: 'module', id: a.id },
              { kind: 'module', id: b.id },
            ],
            numbers: { degrees },
          },
        ];
      });
    });
  },
};

export const WAY_RULES: readonly Rule[] = [
  waySteep,
  wayHangs,
  wayDrowns,
  wayTight,
  wayEnds,
  trackSteep,
  trackTight,
  trackEnds,
  trackClear,
  trackSeam,
];
