import { MM_PER_PLATE, MM_PER_STUD } from '../grid/index.ts';
import type { Stream, Way } from '../document/index.ts';
import { TIE, type Point } from './shape.ts';
import { stationsOf, type Station } from './strip.ts';

// Heights along lines: how a way lies on its ground, how a stream falls.

/** A station with its height, plates above datum. */
export type Height = Station & { z: number };

/** Percent of grade for one plate a stud: 3.2 mm over 8 mm. */
export const PERCENT_PER_PLATE = (100 * MM_PER_PLATE) / MM_PER_STUD;

/** Whether a way holds heights of its own somewhere. */
export const isClimbable = ({ points }: Pick<Way, 'points'>): boolean => points.some(({ z }) => z !== null);

/**
 * The height of a way along its middle, at most a stud from one station to the next. Where points carry a height,
 * it runs evenly between them (and level beyond the first and last). Otherwise it lies `rise` above the ground;
 * as a ramp it is then eased to its grade limit with the least cutting and filling at any place, as steps to the
 * grade of steps.
 * @param groundAt height of the ground at a place, plates; null outside the scene
 */
export function wayProfile(way: Way, groundAt: (x: number, y: number) => number | null): Height[] {
  const stations = stationsOf(way.points);
  if (isClimbable(way)) return held(way.points, stations);
  let before = 0;
  const first = stations.map(({ x, y }) => groundAt(x, y)).find((height) => height !== null);
  if (first !== undefined && first !== null) before = first;
  const heights = stations.map((station): Height => {
    before = groundAt(station.x, station.y) ?? before;
    return { ...station, z: before + way.rise };
  });
  if (way.onSteep === 'ramp') return eased(heights, way.maxGrade / PERCENT_PER_PLATE);
  return way.onSteep === 'steps' ? stepped(heights, way.maxGrade / PERCENT_PER_PLATE) : heights;
}

/** Steps rise by a brick and are two studs deep: 60 %, as stairs of 17 over 29 cm have it (2 × 17 + 29 = 63 cm, Blondel 1675). */
export const RISER = 3;
export const TREAD = 2;
export const PERCENT_OF_STEPS = (RISER / TREAD) * PERCENT_PER_PLATE;

/**
 * Steps where the ground is steeper than a way may be: there it climbs in flights of whole risers, elsewhere it
 * follows. Where the ground is steeper than steps are, the flight is led out over it with the least cut and fill.
 * @param most the steepest grade without steps, plates a stud
 */
function stepped(heights: readonly Height[], most: number): Height[] {
  const slope = eased(heights, Math.max(most, RISER / TREAD));
  const climbs = (i: number) =>
    Math.abs(slope[i].z - slope[i - 1].z) > most * (slope[i].along - slope[i - 1].along) + TIE;
  const made: Height[] = [slope[0]];
  for (let i = 1; i < slope.length;) {
    let end = i;
    const rises = Math.sign(slope[i].z - slope[i - 1].z);
    while (end < slope.length && climbs(end) && Math.sign(slope[end].z - slope[end - 1].z) === rises) end++;
    if (end > i) made.push(...flight(slope.slice(i - 1, end)).slice(1));
    else made.push(slope[i]);
    i = Math.max(end, i + 1);
  }
  return made;
}

/** A slope made into equal steps about its middle, on whole studs of its way: each riser is two stations. */
function flight(slope: readonly Height[]): Height[] {
  const [foot, head] = [slope[0], slope[slope.length - 1]];
  const whole = head.along - foot.along;
  const count = Math.ceil(Math.abs(head.z - foot.z) / RISER - TIE);
  const tread = Math.max(TREAD, Math.floor(whole / count));
  const middle = (foot.along + head.along) / 2;
  const risers = Array.from({ length: count }, (_, i) =>
    Math.min(head.along, Math.max(foot.along, Math.round(middle + (i - (count - 1) / 2) * tread + TIE))),
  );
  const after = (passed: number) => foot.z + ((head.z - foot.z) * passed) / count;
  return slope.flatMap((station, i) => {
    const before = i > 0 ? slope[i - 1] : null;
    const own = { ...station, z: after(risers.filter((along) => along <= station.along).length) };
    if (!before) return [{ ...own, z: foot.z }];
    const between = risers.flatMap((along, passed) => {
      if (along <= before.along || along > station.along) return [];
      const share = (along - before.along) / (station.along - before.along);
      const at = {
        x: before.x + share * (station.x - before.x),
        y: before.y + share * (station.y - before.y),
        along,
      };
      return [
        { ...at, z: after(passed) },
        { ...at, z: after(passed + 1) },
      ];
    });
    return [...between, own];
  });
}

/**
 * Heights eased to a grade. The mean of the two lines between which every such line lies (McShane 1934) decides which
 * places are cut and which are filled; within each of them the line keeps as near to the ground as the grade lets it.
 * @param most plates a stud
 */
function eased(heights: readonly Height[], most: number): Height[] {
  const ground = heights.map(({ z }) => z);
  const reach = heights.map(({ along }, i) => (i === 0 ? 0 : (along - heights[i - 1].along) * most));
  const fill = envelope(ground, reach, Math.max);
  const mean = envelope(ground, reach, Math.min).map((cut, i) => (fill[i] + cut) / 2);
  const side = ground.map((z, i) => (z >= mean[i] ? 1 : -1));
  const made: Height[] = [];
  for (let from = 0; from < heights.length;) {
    let end = from + 1;
    while (end < heights.length && side[end] === side[from]) end++;
    // Where cut turns into fill, the line goes through the mean, half-way between two stations.
    const bounds = [from, end].map((i) =>
      i > 0 && i < heights.length ? { z: (mean[i - 1] + mean[i]) / 2, reach: reach[i] / 2 } : null,
    );
    const pick = side[from] > 0 ? Math.min : Math.max;
    const zs = [...ground.slice(from, end)];
    const reaches = reach.slice(from, end);
    const [before, after] = bounds;
    if (before) zs[0] = pick(zs[0], before.z + side[from] * before.reach);
    if (after) zs[zs.length - 1] = pick(zs[zs.length - 1], after.z + side[from] * after.reach);
    envelope(zs, reaches, pick).forEach((z, k) => made.push({ ...heights[from + k], z }));
    from = end;
  }
  return made;
}

/** The lowest line over heights (`Math.max`), or the highest under them, that is nowhere steeper than its reaches. */
function envelope(
  zs: readonly number[],
  reach: readonly number[],
  pick: typeof Math.max | typeof Math.min,
): number[] {
  const line = [...zs];
  const sign = pick === Math.max ? -1 : 1;
  for (let i = 1; i < line.length; i++) line[i] = pick(line[i], line[i - 1] + sign * reach[i]);
  for (let i = line.length - 2; i >= 0; i--) line[i] = pick(line[i], line[i + 1] + sign * reach[i + 1]);
  return line;
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

/** Returns a function from distance along a profile to height. */
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

/** The steepest that a way may be as it is built, percent: its own limit, and that of steps where it is to have any. */
export const gradeLimit = ({ maxGrade, onSteep }: Pick<Way, 'maxGrade' | 'onSteep'>): number =>
  onSteep === 'steps' ? Math.max(maxGrade, PERCENT_OF_STEPS) : maxGrade;

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
