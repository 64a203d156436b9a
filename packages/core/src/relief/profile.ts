import { MM_PER_PLATE, MM_PER_STUD } from '../lattice/index.ts';
import type { Stream, Way } from '../scene/index.ts';
import { TIE, type Point } from './shape.ts';
import { stationsOf, type Station } from './strip.ts';

/** Heights along lines: how a way lies on its ground, how a stream falls. */

/** A station with its height, plates above datum. */
export type Height = Station & { z: number };

/** Percent of grade for one plate a stud: 3.2 mm over 8 mm. */
export const PERCENT_PER_PLATE = (100 * MM_PER_PLATE) / MM_PER_STUD;

/** Whether a way holds heights of its own somewhere. */
export const holds = ({ points }: Pick<Way, 'points'>): boolean => points.some(({ z }) => z !== null);

/**
 * The height of a way along its middle, at most a stud from one station to the next. Where points carry a height,
 * it runs evenly between them (and level beyond the first and last). Otherwise it lies `rise` above the ground;
 * as a ramp it is then eased to its grade limit with the least cutting and filling at any place: the mean of the
 * lowest such line that lies nowhere under the ground and the highest that lies nowhere above it (McShane 1934).
 * @param groundAt height of the ground at a place, plates; null outside the scene
 */
export function wayProfile(way: Way, groundAt: (x: number, y: number) => number | null): Height[] {
  const stations = stationsOf(way.points);
  if (holds(way)) return held(way.points, stations);
  let before = 0;
  const first = stations.map(({ x, y }) => groundAt(x, y)).find((height) => height !== null);
  if (first !== undefined && first !== null) before = first;
  const heights = stations.map((station): Height => {
    before = groundAt(station.x, station.y) ?? before;
    return { ...station, z: before + way.rise };
  });
  return way.onSteep === 'ramp' ? eased(heights, way.maxGrade / PERCENT_PER_PLATE) : heights;
}

/** @param most plates a stud */
function eased(heights: readonly Height[], most: number): Height[] {
  const fill = heights.map(({ z }) => z);
  const cut = heights.map(({ z }) => z);
  const sweep = (i: number, from: number) => {
    const drop = Math.abs(heights[i].along - heights[from].along) * most;
    fill[i] = Math.max(fill[i], fill[from] - drop);
    cut[i] = Math.min(cut[i], cut[from] + drop);
  };
  for (let i = 1; i < heights.length; i++) sweep(i, i - 1);
  for (let i = heights.length - 2; i >= 0; i--) sweep(i, i + 1);
  return heights.map((height, i) => ({ ...height, z: (fill[i] + cut[i]) / 2 }));
}

/** The surface of a stream along its middle. Between points of given height it falls evenly, or at the point. */
export function streamProfile(stream: Stream, level: number): Height[] {
  const surface = level + stream.offset;
  const points = stream.points.map((point) => ({ ...point }));
  points[0].z ??= surface;
  const heights = held(points, stationsOf(points));
  if (stream.falls === 'even') return heights;
  // Level from each given height to the next point that has one; there it falls, on the spot.
  const marks = marksOf(points);
  return heights.flatMap((height) => {
    const passed = marks.filter(({ along }) => along <= height.along + TIE);
    const z = passed.at(-1)?.z ?? surface;
    const falls = passed.length > 1 && Math.abs(passed[passed.length - 1].along - height.along) <= TIE;
    return falls
      ? [
          { ...height, z: passed[passed.length - 2].z },
          { ...height, z },
        ]
      : [{ ...height, z }];
  });
}

type HeightPoint = Point & { z: number | null };

function marksOf(points: readonly HeightPoint[]): { along: number; z: number }[] {
  let along = 0;
  return points.flatMap(({ x, y, z }, i) => {
    if (i > 0) along += Math.hypot(x - points[i - 1].x, y - points[i - 1].y);
    return z === null ? [] : [{ along, z }];
  });
}

function held(points: readonly HeightPoint[], stations: readonly Station[]): Height[] {
  const marks = marksOf(points);
  return stations.map((station) => ({ ...station, z: between(marks, station.along) }));
}

/** The value at a distance between marks, level beyond the first and the last. */
function between(marks: readonly { along: number; z: number }[], along: number): number {
  const next = marks.findIndex((mark) => mark.along >= along);
  if (next === 0) return marks[0].z;
  if (next < 0) return marks[marks.length - 1].z;
  const [a, b] = [marks[next - 1], marks[next]];
  return a.z + ((along - a.along) / (b.along - a.along)) * (b.z - a.z);
}

/** A function that tells the height at any distance along a profile. */
export function heightAlong(profile: readonly Height[]): (along: number) => number {
  return (along) => {
    let low = 0;
    let high = profile.length - 1;
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (profile[middle].along <= along) low = middle;
      else high = middle;
    }
    const [a, b] = [profile[low], profile[high]];
    if (b.along <= a.along) return a.z;
    return a.z + Math.min(1, Math.max(0, (along - a.along) / (b.along - a.along))) * (b.z - a.z);
  };
}

/** The mean grade of a hill or a hollow, percent: its height, plates, over half its lesser side, studs. */
export function meanGrade({ height, w, d }: { height: number; w: number; d: number }): {
  grade: number;
  run: number;
} {
  const run = Math.max(Math.min(w, d) / 2, 0.5);
  return { grade: (height / run) * PERCENT_PER_PLATE, run };
}

/** The steepest grade of a profile, percent, over stretches of about `span` studs, and the middle of that stretch. */
export function steepest(profile: readonly Height[], span = 8): { grade: number; at: Station } | null {
  let worst: { grade: number; at: Station } | null = null;
  let from = 0;
  for (let to = 1; to < profile.length; to++) {
    while (from + 1 < to && profile[to].along - profile[from + 1].along >= span) from++;
    const length = profile[to].along - profile[from].along;
    if (length <= 0 || (length < span && to < profile.length - 1)) continue;
    const grade = (Math.abs(profile[to].z - profile[from].z) / Math.max(length, 1)) * PERCENT_PER_PLATE;
    if (!worst || grade > worst.grade) worst = { grade, at: profile[(from + to) >> 1] };
  }
  return worst;
}
