import { partName, partOf, type Part } from '../catalogue/index.ts';
import { countOf, formatPlates, PLATES_PER_BRICK } from '../grid/index.ts';
import {
  runsEast,
  SIDES,
  builtRect,
  builtArea,
  depthBehind,
  firstBehind,
  hasStudBehind,
  recessFaults,
  recessRect,
  SIDE_WORDS,
  isRound,
  wallStuds,
  type Plot,
  type Side,
  builtSides,
} from '../document/index.ts';
import { partJoints, storeysOf, type Storey } from './storeys.ts';

// The fronts of a building: bays from the left as seen from outside, and the openings in the middle of them.

/** What is divided into bays: the outer walls of a side, or in a recess the wall across it that faces the side. */
export interface Face {
  side: Side;
  /** Number of the recess, from 1. */
  recess: number | null;
}

export type Fronted = Pick<
  Plot,
  | 'x'
  | 'y'
  | 'w'
  | 'd'
  | 'turn'
  | 'mount'
  | 'shape'
  | 'notches'
  | 'recesses'
  | 'height'
  | 'storeys'
  | 'storeyHeights'
  | 'wall'
  | 'front'
  | 'streetFront'
  | 'pavement'
  | 'connectors'
  | 'bays'
  | 'cutAt'
  | 'parts'
  | 'fittings'
  | 'eaves'
  | 'roofForm'
  | 'lowerSlope'
  | 'lowerCourses'
  | 'roundRoof'
  | 'slope'
  | 'mixes'
  | 'bareSides'
  | 'wallBrick'
  | 'scored'
  | 'sideStudded'
  | 'wallColour'
  | 'roofColour'
  | 'letInColour'
>;
type Front = Plot['bays'][number];
type Bay = Front['bays'][number];

/** Families of parts that are let into a wall. */
const LET_IN = ['window', 'door', 'arch'] as const;

/** A bay where it lies on its front. */
export interface PlacedBay extends Face {
  /** 1: on the ground. */
  storey: number;
  /** Its number from the left, from 0. */
  index: number;
  bay: Bay;
  /** From the left end of its side as seen from outside, studs. */
  left: number;
  /** What is let into it; null: nothing, or what does not fit. */
  opening: WallOpening | null;
  /** Why what is wanted is not let in; null: it is, or nothing is wanted. */
  fault: string | null;
  /** Its opening stands half a stud left of the bay's middle. */
  isOff: boolean;
}

/** A hole in a wall with what fills it. */
export interface WallOpening {
  side: Side;
  /** How far its wall lies behind the outermost of its side, studs: 0 but where a corner is left out. */
  back: number;
  part: Part;
  /** From the west or north end of the wall, studs; and how wide it is. */
  from: number;
  wide: number;
  /** Plates above the building's ground, from its foot to its top; all in whole courses of its storey. */
  foot: number;
  top: number;
}

/** What a face comes to on one storey. */
export interface FrontCard extends Face {
  storey: number;
  bays: PlacedBay[];
  /** Studs of the front that no bay takes, shared by its two ends, the greater half right; below 0: bays do not fit. */
  left: number;
}

/** Length of a side, studs. */
export const sideLength = (plot: Parameters<typeof builtRect>[0], side: Side): number => {
  const { w, d } = builtSides(plot);
  return runsEast(side) ? w : d;
};

/** A straight stretch of wall that faces a side: from the west or north end of the side to before its other end, studs. */
export interface WallStretch {
  from: number;
  to: number;
  /** How far it lies behind the outermost wall of its side, studs, and how deep the building is behind it at least. */
  back: number;
  deep: number;
}

/** The walls that are seen straight on from a side, one beside the other. */
export function wallStretches(plot: Parameters<typeof builtRect>[0], side: Side): WallStretch[] {
  const { w, d } = builtSides(plot);
  const isX = runsEast(side);
  const [length, across] = isX ? [w, d] : [d, w];
  const area = builtArea(plot);
  if (!area) return [{ from: 0, to: length, back: 0, deep: across }];
  const stretches: WallStretch[] = [];
  for (let at = 0; at < length; at++) {
    const { back, deep } = firstBehind(area, side, at);
    if (deep === 0) continue;
    const last = stretches.at(-1);
    if (last?.back === back && last.to === at) {
      last.to++;
      last.deep = Math.min(last.deep, deep);
    } else stretches.push({ from: at, to: at + 1, back, deep });
  }
  return stretches;
}

type Recessed = Parameters<typeof builtRect>[0] & Pick<Plot, 'recesses'>;

/** The two walls across each recess that is built, its north or west one first. */
export const recessFaces = (plot: Recessed): Face[] =>
  plot.recesses.flatMap(({ side }, index): Face[] =>
    (runsEast(side) ? (['e', 'w'] as const) : (['s', 'n'] as const))
      .map((faces) => ({ side: faces, recess: index + 1 }))
      .filter((face) => recessWall(plot, face) !== null),
  );

/**
 * The wall across a recess that faces a side, as the walls of that side are told: its longest straight stretch.
 * @returns null where there is none
 */
export function recessWall(plot: Recessed, { side, recess: number }: Face): WallStretch | null {
  const area = builtArea(plot);
  const recess = number === null ? undefined : plot.recesses.at(number - 1);
  if (!area || !recess || runsEast(side) === runsEast(recess.side)) return null;
  const isFault = recessFaults(plot).some(({ index }) => index + 1 === number);
  if (isFault) return null;
  const rect = recessRect(recess, area);
  const isX = runsEast(side);
  const [first, size, across] = isX ? [rect.x, rect.w, area.d] : [rect.y, rect.d, area.w];
  // The wall that faces east or south is the west or north one.
  const isFirst = side === 'e' || side === 's';
  const back = isFirst ? across - recess.at : recess.at + recess.wide;
  let best: WallStretch | null = null;
  let run: WallStretch | null = null;
  for (let at = Math.max(0, first); at < Math.min(first + size, isX ? area.w : area.d); at++) {
    const deep = hasStudBehind(area, side, at, back - 1) ? 0 : depthBehind(area, side, at, back);
    if (deep === 0) run = null;
    else if (run) {
      run.to++;
      run.deep = Math.min(run.deep, deep);
    } else run = { from: at, to: at + 1, back, deep };
    if (run && (!best || run.to - run.from > best.to - best.from)) best = run;
  }
  return best;
}

/** Length of a front, studs: of a round building the straight run in the middle of the side. */
export const frontLength = (plot: Parameters<typeof builtRect>[0], side: Side): number =>
  sideLength(plot, side) - 2 * runStart(plot, side);

/** Studs from the left end of a side to where a stretch of its walls begins, as seen from outside. */
export const leftOf = (plot: Recessed, side: Side, { from, to }: WallStretch): number =>
  beginsLeft(side) ? from : sideLength(plot, side) - to;

/** How long a face is, and how far from the left end of its side it begins, studs. @param wall of a recess; null: none there */
function faceRun(plot: Recessed, { side, recess }: Face, wall: WallStretch | null) {
  if (recess === null) return { start: runStart(plot, side), length: frontLength(plot, side) };
  return wall ? { start: leftOf(plot, side, wall), length: wall.to - wall.from } : { start: 0, length: 0 };
}

/** Studs from an end of a side to where its front begins: 0 but for round buildings, which are alike from both ends. */
function runStart(plot: Parameters<typeof builtRect>[0], side: Side): number {
  if (!isRound(plot)) return 0;
  // A narrow oval has no stud at the ends of its rectangle.
  return wallStretches(plot, side).find(({ back }) => back === 0)?.from ?? sideLength(plot, side) / 2;
}

/** Whether the studs of a wall, counted from the west or north, begin at its left end as seen from outside. */
export const beginsLeft = (side: Side): boolean => side === 's' || side === 'w';

/**
 * All fronts that are divided into bays, with what is let into each and why something is not.
 * @returns none for a building whose fronts are plain
 */
export function frontsOf(plot: Fronted): FrontCard[] {
  if (plot.bays.length === 0) return [];
  const storeys = storeysOf(plot);
  return plot.bays
    .toSorted(
      (a, b) =>
        a.storey - b.storey ||
        (a.recess ?? 0) - (b.recess ?? 0) ||
        SIDES.indexOf(a.side) - SIDES.indexOf(b.side),
    )
    .map((front) => {
      const { side, recess, storey } = front;
      const wall = recessWall(plot, front);
      const { start, length } = faceRun(plot, front, wall);
      const left = length - front.bays.reduce((sum, { wide }) => sum + wide, 0);
      let at = start + Math.floor(Math.max(0, left) / 2);
      const bays = front.bays.map((bay, index): PlacedBay => {
        const place = { side, recess, storey, index, bay, left: at };
        at += bay.wide;
        return { ...place, ...letIn(plot, place, { over: left, storeys, wall }) };
      });
      return { side, recess, storey, bays, left };
    });
}

/** The windows of a side that stand at another height than those of the side they are compared with. */
export interface WindowRow {
  storey: number;
  side: Side;
  /** The side they are compared with: the street front, or the first that has windows. */
  like: Side;
  /** Feet of its windows, and of those it is compared with, plates above the building's ground; the lowest of each. */
  foot: number;
  wanted: number;
}

/** Rows of windows of one storey whose feet are at other heights than those of the front. */
export function unevenWindows(plot: Fronted): WindowRow[] {
  const outer = frontsOf(plot).filter(({ recess }) => recess === null);
  const fronts = outer.map(({ side, storey, bays }) => {
    const feet = bays.flatMap(({ opening }) => (opening?.part.family === 'window' ? opening.foot : []));
    return { side, storey, feet };
  });
  const withWindows = fronts.filter(({ feet }) => feet.length > 0);
  return withWindows.flatMap(({ side, storey, feet }): WindowRow[] => {
    const row = withWindows.filter((one) => one.storey === storey);
    const like = row.find((one) => one.side === plot.front) ?? row[0];
    if (like.side === side || feet.every((foot) => like.feet.includes(foot))) return [];
    return [{ storey, side, like: like.side, foot: Math.min(...feet), wanted: Math.min(...like.feet) }];
  });
}

/** Everything that is let into the walls of a building. */
export const openingsOf = (plot: Fronted): WallOpening[] =>
  frontsOf(plot).flatMap(({ bays }) => bays.flatMap(({ opening }) => opening ?? []));

function letIn(
  plot: Fronted,
  { side, recess, storey: number, bay, left }: Pick<PlacedBay, 'side' | 'recess' | 'storey' | 'bay' | 'left'>,
  { over, storeys, wall: wallIn }: { over: number; storeys: readonly Storey[]; wall: WallStretch | null },
): Pick<PlacedBay, 'opening' | 'fault' | 'isOff'> {
  const none = (fault: string | null) => ({ opening: null, fault, isOff: false });
  if (bay.part === null) return none(null);
  if (recess !== null && !wallIn) return none(`recess ${recess} has no wall to the ${SIDE_WORDS[side]}`);
  const storey = number <= storeys.length ? storeys[number - 1] : null;
  if (!storey) return none(`there are walls of ${countOf(storeys.length, 'storey')}`);
  if (over < 0) return none(`the bays are ${countOf(-over, 'stud')} wider than the front`);
  const part = partOf(bay.part);
  if (!part || !LET_IN.some((family) => family === part.family))
    return none(`${partName(bay.part)} is no window, door or arch`);
  const isArch = part.family === 'arch';
  const wide = isArch ? Math.max(part.w, part.d) : part.w;
  const courses = isArch ? bay.high : part.h / PLATES_PER_BRICK;
  if (wide > bay.wide)
    return none(`${partName(part.id)} is ${countOf(wide, 'stud')} wide, the bay ${bay.wide}`);
  if (!Number.isInteger(courses)) return none(`${partName(part.id)} is no whole number of courses high`);
  if (isArch && courses * PLATES_PER_BRICK < part.h)
    return none(
      `its opening is ${countOf(courses, 'course')} high, the arch alone ${part.h / PLATES_PER_BRICK}`,
    );
  if (bay.sill + courses > storey.courses)
    return none(`it needs ${countOf(bay.sill + courses, 'course')}, the storey has ${storey.courses}`);
  const seen = left + Math.floor((bay.wide - wide) / 2);
  // South is seen with the west at the left, west with the north: their left is where studs are counted from.
  const from = beginsLeft(side) ? seen : sideLength(plot, side) - seen - wide;
  const walls = wallIn ? [wallIn] : wallStretches(plot, side);
  const wall = walls.find((one) => one.from <= from && from + wide <= one.to);
  if (!wall) return none('it would lie across the step of what is left out');
  if (!isArch && 2 * part.d > wall.deep)
    return none(`it is ${countOf(part.d, 'stud')} deep, the building ${wall.deep}`);
  // What is deeper than the wall stands out inside, and keeps off the wall round the corner as far.
  const corner = Math.max(wallStuds(plot), isArch ? 1 : part.d);
  if (from - wall.from < corner || wall.to - from - wide < corner)
    return none(
      `it stands within ${countOf(corner, 'stud')} of the ${isRound(plot) ? 'end of the straight run' : 'corner'}`,
    );
  // Seams are counted from the plot's own walls, pavement and all.
  const isX = runsEast(side);
  const built = builtRect(plot);
  const off = isX ? built.x - plot.x : built.y - plot.y;
  const cut = plot.cutAt.find(
    ({ across, at }) => (across === 'x') === isX && at - off > from && at - off < from + wide,
  );
  if (cut)
    return none(
      `a seam may cut the building through it, ${countOf(cut.at, 'stud')} from its ${cut.across === 'x' ? 'west' : 'north'} wall`,
    );
  const joints = partJoints(plot).filter(({ z }) => z > storey.from && z < storey.to);
  const sill = storey.from + bay.sill * PLATES_PER_BRICK;
  // Over a joint it stands in the courses that begin there.
  const under = joints.filter(({ z }) => z <= sill).reduce((high, { z }) => Math.max(high, z), storey.from);
  const foot = under + Math.ceil((sill - under) / PLATES_PER_BRICK) * PLATES_PER_BRICK;
  const top = foot + courses * PLATES_PER_BRICK;
  const through = joints.find(({ z }) => z > foot && z < top);
  if (through) return none(`“${through.name}” lifts off at ${formatPlates(through.z)}, through it`);
  if (top > storey.to)
    return none(
      `over the joint at ${formatPlates(under)} it is ${countOf(top - storey.to, 'plate')} too tall`,
    );
  return {
    opening: { side, back: wall.back, part, from, wide, foot, top },
    fault: null,
    isOff: (bay.wide - wide) % 2 === 1,
  };
}

/** Widths of bays as people write them: “3 × 8”, “6 2 6 2 6”, “4, 2 x 6, 4”. */
export function readRhythm(words: string): { ok: true; widths: number[] } | { ok: false; error: string } {
  const widths: number[] = [];
  const rest = words
    .trim()
    .replace(/(\d+)\s*[x×*]\s*(\d+)/giu, (_, count: string, wide: string) =>
      Number(count) > 64 ? `${count}×${wide}` : Array.from({ length: Number(count) }, () => wide).join(' '),
    );
  for (const word of rest.split(/[\s,;·+]+/u).filter(Boolean)) {
    const wide = Number(word);
    if (!/^\d+$/u.test(word) || wide < 1 || wide > 64)
      return {
        ok: false,
        error: `“${word}” is no width of a bay: whole studs from 1 to 64, such as “3 × 8”.`,
      };
    widths.push(wide);
  }
  if (widths.length === 0)
    return { ok: false, error: 'No bay: say widths in studs, such as “3 × 8” or “6 2 6”.' };
  if (widths.length > 64) return { ok: false, error: `${widths.length} bays: a front has at most 64.` };
  return { ok: true, widths };
}

/** Widths of bays as short as they can be said: “3 × 8”, “6 2 6 2 6”. */
export function writeRhythm(widths: readonly number[]): string {
  const runs: { wide: number; count: number }[] = [];
  for (const wide of widths) {
    const last = runs.at(-1);
    if (last?.wide === wide) last.count++;
    else runs.push({ wide, count: 1 });
  }
  return runs.map(({ wide, count }) => (count === 1 ? `${wide}` : `${count} × ${wide}`)).join(', ');
}
