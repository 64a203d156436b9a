import { lengthOfLine, countOf, formatPlates, containsPoint } from '../grid/index.ts';
import {
  OUTSIDE,
  PERCENT_PER_PLATE,
  eachStripStud,
  eachTouched,
  heightAlong,
  indexAt,
  linePieces,
  wholePlates,
  withAlong,
  type Body,
} from '../terrain/index.ts';
import {
  DEGREES_PER_TURN,
  labelOf,
  listOf,
  closureGap,
  pieceLength,
  reversed,
  trackLine,
  type Scene,
  type Track,
} from '../document/index.ts';
import { HAND, underCover } from '../reach/index.ts';
import { currentContents, currentPlace } from '../venue/index.ts';
import { formatTenths, type FindingDraft, type Rule } from './finding.ts';
import { percent, spotOf, tenth } from './figures.ts';

// What is judged of track: grade, bends, ends, clearance, seams.

/** The middle of a track at the height of its level. */
export const lineOfTrack = (scene: Scene, track: Track) =>
  trackLine(track, (scene.level[track.level]?.height ?? 0) + track.offset);

const trackSteep: Rule = {
  id: 'track-steep',
  title: 'Track is too steep',
  basis: 'Plates a piece climbs over its length, by its own limit.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'track').flatMap((track): FindingDraft[] => {
      const { joints } = lineOfTrack(scene, track);
      const grades = track.pieces.map(
        (piece) => (Math.abs(piece.rise) / pieceLength(piece)) * PERCENT_PER_PLATE,
      );
      const worst = grades.indexOf(Math.max(...grades));
      if (grades[worst] <= track.maxGrade) return [];
      return [
        {
          sentence: `Piece ${worst + 1} of “${track.name}” climbs at ${percent(grades[worst])}; its limit is ${percent(track.maxGrade)}.`,
          remedy: 'Spread the climb over more pieces.',
          place: spotOf(joints[worst]),
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
          sentence: `Piece ${tight + 1} of “${track.name}” has a radius of ${track.pieces[tight].radius} studs; the least is ${TIGHTEST}.`,
          remedy: 'Use wider curves, or check that what runs there takes this one.',
          place: spotOf(lineOfTrack(scene, track).joints[tight]),
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
      const { joints } = lineOfTrack(scene, track);
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
        turn > 0 && `turned by ${turn * DEGREES_PER_TURN}°`,
        plates >= 0.5 && `${formatPlates(Math.round(plates))} higher or lower`,
      ].filter(Boolean);
      const same = near.other.track.id === end.track.id;
      return [
        {
          sentence: `${same ? `Both ends of “${end.track.name}”` : `The ends of “${end.track.name}” and “${near.other.track.name}”`} nearly meet, but are ${faults.join(', ')}.`,
          remedy: 'Move one of them, or put a piece of another length in.',
          place: spotOf(end.out),
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
      const { line } = lineOfTrack(scene, track);
      const bedAt = heightAlong(withAlong(line));
      const free = new Map<number, { off: number; bed: number }>();
      eachStripStud(line, Math.max(track.clearSide, track.bed / 2), relief, (x, y, along, off) => {
        const i = indexAt(relief, x, y);
        if (relief.ground[i] === OUTSIDE) return;
        free.set(i, { off, bed: wholePlates(bedAt(along)) });
      });
      const found = new Map<
        string,
        { body: Body; studs: Set<number>; off: number; first: number; above: number }
      >();
      for (const body of bodies())
        // A small scene may be a train on its track; over a pavement a train hangs.
        if (body.kind !== 'figure' && !body.isPavement)
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
        sentence: `“${labelOf(scene, kind, id)}” ${above > 0 ? `hangs ${formatPlates(above)} above the bed` : 'stands'} ${tenth(off)} studs from the middle of “${track.name}”, on ${countOf(studs.size, 'stud')} that must be free up to ${track.clearSide}${above > 0 ? ` and up to ${formatPlates(track.clearHeight)}` : ''}.`,
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
      const { line } = lineOfTrack(scene, track);
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
            sentence: `“${track.name}” crosses the seam between ${a.name} and ${b.name} ${degrees}° off square; track crosses squarely.`,
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

const trackReach: Rule = {
  id: 'track-reach',
  title: 'Track under a roof or deck that no arm reaches',
  basis: `From the nearest edge at which one can stand straight to a mouth, and on under the cover by sides and corners of studs, where there are at least ${formatPlates(HAND)} of air for a hand (a guess, no source), against an arm’s reach at the place. Decks that lift off are taken as off.`,
  page: 'survey',
  severity: 'warning',
  check(context) {
    const { scene, relief } = context;
    const isPlaced = currentContents(scene, 'table').length > 0 && currentPlace(scene) !== null;
    if (relief.slabs.length === 0 || !isPlaced || listOf(scene, 'track').length === 0) return [];
    const pieces = linePieces(scene, relief).filter(({ ref }) => ref.kind === 'track');
    const reach = context.reach();
    const { distance, ceiling } = underCover(scene, relief, reach);
    return listOf(scene, 'track').flatMap((track): FindingDraft[] => {
      const studs = pieces
        .filter(({ ref }) => ref.id === track.id)
        .flatMap(({ line, studs: own }) => {
          const low = Math.min(...line.map(({ z = 0 }) => z));
          return own.filter((i) => distance[i] > reach.arm && ceiling[i] > low);
        });
      if (studs.length === 0) return [];
      const worst = studs.reduce((far, i) => (distance[i] > distance[far] ? i : far), studs[0]);
      const far = distance[worst];
      const how = Number.isFinite(far)
        ? `up to ${formatTenths(far)} in by the nearest mouth, past an arm’s ${formatTenths(reach.arm)}`
        : `with no mouth through which a hand comes to it, ${formatPlates(HAND)} high`;
      return [
        {
          sentence: `“${track.name}” lies under cover on ${countOf(new Set(studs).size, 'stud')} ${how}: what derails there stays there.`,
          remedy: 'Open a side nearer to it, or let the deck over it lift off.',
          place: { x: relief.x + (worst % relief.w) + 0.5, y: relief.y + Math.trunc(worst / relief.w) + 0.5 },
          things: [{ kind: 'track', id: track.id }],
          numbers: { studs: new Set(studs).size, ...(Number.isFinite(far) ? { far: Math.round(far) } : {}) },
        },
      ];
    });
  },
};

export const TRACK_RULES: readonly Rule[] = [
  trackSteep,
  trackTight,
  trackEnds,
  trackClear,
  trackSeam,
  trackReach,
];
