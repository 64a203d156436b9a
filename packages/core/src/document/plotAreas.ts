import {
  MM_PER_PLATE,
  MM_PER_STUD,
  boundsOfPoints,
  centreOf,
  areaWithout,
  boxArea,
  areaOfRects,
  discArea,
  discOutline,
  grownDiscOutline,
  insideArea,
  largestPart,
  outlineOfArea,
  quadOf,
  rememberFor,
  stripsOfArea,
  studsOfArea,
  type Rect,
  type StudArea,
} from '../grid/index.ts';
import type { PlotFields as Plot } from './kinds/plotSchema.ts';
import { hasStudBehind } from './areaSides.ts';
import { SIDES, runsEast, type Side } from './vocabulary.ts';

// The areas of a plot, studs: its walls turned about their middle, its pavement, what stands out over it.

type Point = { x: number; y: number };
type Outlined = Pick<Plot, 'x' | 'y' | 'w' | 'd'> &
  Partial<Pick<Plot, 'shape' | 'notches' | 'recesses' | 'front' | 'streetFront' | 'pavement'>>;
type Turned = Outlined & Pick<Plot, 'turn'>;
type Built = Pick<
  Plot,
  'x' | 'y' | 'w' | 'd' | 'shape' | 'notches' | 'recesses' | 'front' | 'streetFront' | 'pavement'
>;

/** Whether a building is round. */
export const isRound = ({ shape }: Partial<Pick<Plot, 'shape'>>): boolean => shape === 'round';

/** Whether a building fills its rectangle. */
export const isBoxed = ({ shape, notches = [], recesses = [] }: Partial<Shaped>): boolean =>
  shape !== 'round' && notches.length === 0 && recesses.length === 0;
type Shaped = Pick<Plot, 'shape' | 'notches' | 'recesses'>;

/**
 * What a plot is built on: its place less its pavement, which lies before its front; a round building has none. Unturned,
 * studs.
 */
export function builtRect(plot: Outlined): Rect {
  const { x, y, w, d, front = 's', streetFront = false, pavement = null } = plot;
  const by = streetFront && !isRound(plot) ? Math.min(pavement ?? 0, runsEast(front) ? d : w) : 0;
  if (front === 'n') return { x, y: y + by, w, d: d - by };
  if (front === 's') return { x, y, w, d: d - by };
  return front === 'w' ? { x: x + by, y, w: w - by, d } : { x, y, w: w - by, d };
}

/** Sides of what is built, whole studs: half ones are rounded. */
export function builtSides(plot: Outlined): { w: number; d: number } {
  const { w, d } = builtRect(plot);
  return { w: Math.max(1, Math.round(w)), d: Math.max(1, Math.round(d)) };
}

/**
 * The studs of a building that does not fill its rectangle, from its north-west corner; half sides are rounded. Where the
 * corners that are left out part it, the largest part.
 * @returns null for one that fills it
 */
export const builtArea = rememberFor((plot: Outlined): StudArea | null => {
  if (isBoxed(plot)) return null;
  const { w, d } = builtSides(plot);
  return isRound(plot) ? discArea(w, d) : areaOfRects(w, d, stripsOfShape(shapeOf(plot)));
});

/** The studs of a building from its north-west corner; half sides are rounded. */
export function studsBuilt(plot: Outlined): StudArea {
  const { w, d } = builtSides(plot);
  return builtArea(plot) ?? boxArea(w, d);
}

/** Why a recess is not built: it takes no stud of the building, all studs of a side, or parts what is left. */
export interface RecessFault {
  /** Its number among the recesses, from 0. */
  index: number;
  why: 'nothing' | 'side' | 'parts';
}

/** The recesses of a building that are not built. */
export const recessFaults = (plot: Outlined): readonly RecessFault[] =>
  isBoxed(plot) || isRound(plot) ? [] : shapeOf(plot).faults;

/**
 * What is built of a rectangle of which parts are left out: the lines that these lie between, studs, and the cells between
 * the lines. A building as large as the schema allows has no more of them than a small one.
 */
interface BuiltShape {
  xs: number[];
  ys: number[];
  cells: StudArea;
  faults: RecessFault[];
}

/** A rectangle without some of its corners, and one after the other without the recesses that leave it one building. */
const shapeOf = rememberFor((plot: Outlined): BuiltShape => {
  const { notches = [], recesses = [] } = plot;
  const { w, d } = builtSides(plot);
  const corners = cornersLeftOut(w, d, notches);
  const backs = recesses.map((recess) => recessRect(recess, { w, d }));
  const all = [...corners, ...backs];
  const lines = (size: number, ends: readonly number[]) =>
    [...new Set([0, size, ...ends.map((at) => Math.min(size, Math.max(0, at)))])].toSorted((a, b) => a - b);
  const xs = lines(
    w,
    all.flatMap((rect) => [rect.x, rect.x + rect.w]),
  );
  const ys = lines(
    d,
    all.flatMap((rect) => [rect.y, rect.y + rect.d]),
  );
  const between = (ends: readonly number[], from: number, size: number) => {
    const first = ends.findIndex((at) => at >= from);
    return { first, count: ends.filter((at) => at >= from && at < from + size).length };
  };
  const inCells = (rect: Rect): Rect => {
    const [x, y] = [between(xs, rect.x, rect.w), between(ys, rect.y, rect.d)];
    return { x: x.first, y: y.first, w: x.count, d: y.count };
  };
  const studsIn = (i: number): number => {
    const [x, y] = [i % (xs.length - 1), Math.trunc(i / (xs.length - 1))];
    return (xs[x + 1] - xs[x]) * (ys[y + 1] - ys[y]);
  };
  const studsOf = ({ mask }: StudArea) => mask.reduce((sum, on, i) => sum + on * studsIn(i), 0);
  const part = (cells: StudArea) => largestPart(cells, studsIn);
  let cells = part(areaWithout(boxArea(xs.length - 1, ys.length - 1), corners.map(inCells)));
  const faults: RecessFault[] = [];
  backs.forEach((rect, index) => {
    const left = areaWithout(cells, [inCells(rect)]);
    const studs = studsOf(left);
    const isBare = SIDES.some((side) => reachesSide(cells, side) && !reachesSide(left, side));
    if (studs === studsOf(cells)) faults.push({ index, why: 'nothing' });
    else if (isBare) faults.push({ index, why: 'side' });
    else if (studsOf(part(left)) < studs) faults.push({ index, why: 'parts' });
    else cells = left;
  });
  return { xs, ys, cells, faults };
});

/** A shape in rectangles of studs, each stud in one. */
const stripsOfShape = ({ xs, ys, cells }: BuiltShape): Rect[] =>
  stripsOfArea(cells).map(({ x, y, w, d }) => ({
    x: xs[x],
    y: ys[y],
    w: xs[x + w] - xs[x],
    d: ys[y + d] - ys[y],
  }));

/** Whether an area reaches a side of its raster. */
function reachesSide(area: StudArea, side: Side): boolean {
  const length = runsEast(side) ? area.w : area.d;
  return Array.from({ length }, (_, along) => along).some((along) => hasStudBehind(area, side, along, 0));
}

/** Where a side of a building stands back, studs from its north-west corner. @param sides of the building */
export function recessRect(
  { side, at, wide, deep }: Plot['recesses'][number],
  { w, d }: { w: number; d: number },
): Rect {
  if (runsEast(side)) return { x: at, y: side === 'n' ? 0 : d - deep, w: wide, d: deep };
  return { x: side === 'w' ? 0 : w - deep, y: at, w: deep, d: wide };
}

/** What the corners that are left out take of a rectangle: of each row at least a stud stays. */
function cornersLeftOut(w: number, d: number, notches: Plot['notches']): Rect[] {
  const ends = notches.map(({ corner, d: deep }) => (corner.startsWith('n') ? deep : d - deep));
  const rows = [...new Set([0, ...ends.filter((y) => y > 0 && y < d)])].toSorted((a, b) => a - b);
  return rows.flatMap((y, i) => {
    const here = notches.filter(({ corner, d: deep }) => (corner.startsWith('n') ? y < deep : y >= d - deep));
    const most = (end: 'w' | 'e') =>
      here.reduce((far, { corner, w: wide }) => (corner.endsWith(end) ? Math.max(far, wide) : far), 0);
    const from = Math.min(w - 1, most('w'));
    const to = Math.max(from + 1, w - most('e'));
    const deep = (rows[i + 1] ?? d) - y;
    return [
      { x: 0, y, w: from, d: deep },
      { x: to, y, w: w - to, d: deep },
    ].filter((rect) => rect.w > 0);
  });
}

/** The studs inside the walls of a building that does not fill its rectangle, as `builtArea`; null for one that does. */
export const roomArea = rememberFor((plot: Outlined & Pick<Plot, 'wall'>): StudArea | null => {
  const area = builtArea(plot);
  return area && insideArea(area, wallStuds(plot));
});

/**
 * What is built, in rectangles turned with the building: one of a box, of another building its rows that are alike
 * together. Studs, the corners of each in order.
 */
export function areaPieces(plot: Turned & Built): Point[][] {
  if (isBoxed(plot)) return [builtCorners(plot)];
  const disc = isRound(plot) ? builtArea(plot) : null;
  return placedStrips(plot, disc ? stripsOfArea(disc) : stripsOfShape(shapeOf(plot)));
}

/** Rectangles that are counted from the north-west corner of what is built, turned with the plot: the corners of each. */
function placedStrips(plot: Turned, strips: readonly Rect[]): Point[][] {
  const { x, y } = builtRect(plot);
  const [middle, { turn }] = [centreOf(plot), plot];
  return strips.map((strip) =>
    quadOf({ ...strip, x: x + strip.x, y: y + strip.y }).map((corner) => turnedPoint(corner, middle, turn)),
  );
}

/** The rectangles of the plan that hold what a building takes: its pavement with it; where parts are left out more than one. */
export const areaBounds = (plot: Turned & Built): Rect[] =>
  isBoxed(plot) || isRound(plot)
    ? [plotBounds(plot)]
    : [...areaPieces(plot), pavementCorners(plot) ?? []]
        .filter(({ length }) => length > 0)
        .map(boundsOfPoints);

/** Thickness of a building's walls in whole studs. */
export const wallStuds = ({ wall }: Pick<Plot, 'wall'>): number => Math.max(1, Math.round(wall));

/** Whole studs on which a building stands without its pavement. */
export function footStuds(plot: Built): number {
  const area = builtArea(plot);
  const { w, d } = builtRect(plot);
  return area ? studsOfArea(area) : Math.floor(w) * Math.floor(d);
}

/** Square studs inside the walls of one floor. */
export function roomStuds(plot: Built & Pick<Plot, 'wall'>): number {
  const room = roomArea(plot);
  if (room) return studsOfArea(room);
  const { w, d } = insideOf(plot);
  return w * d;
}

/** Studs inside the walls of one floor of a plot, along x and along y: walls and pavement taken off; 0 where none is left. */
export function insideOf(plot: Built & Pick<Plot, 'wall'>): {
  w: number;
  d: number;
} {
  const { w, d } = builtRect(plot);
  return { w: Math.max(0, w - 2 * plot.wall), d: Math.max(0, d - 2 * plot.wall) };
}

/** Whether anything of a building stands out over its walls. */
export const isOverhanging = ({ overhang: { n, e, s, w } }: Pick<Plot, 'overhang'>): boolean =>
  n > 0 || e > 0 || s > 0 || w > 0;

/**
 * The outline of a building with what stands out over its walls, studs from its north-west corner, unturned: over each wall
 * as far as over its side, also over the walls of a recess; over a round one whole studs. Of a building that fills no rectangle.
 * @param out studs on each side
 */
export function outerOutline(plot: Outlined, out: Plot['overhang']): Point[] {
  const { n, e, s, w } = out;
  if (isRound(plot)) {
    const whole = { n: Math.ceil(n), e: Math.ceil(e), s: Math.ceil(s), w: Math.ceil(w) };
    return grownDiscOutline(builtSides(plot), whole);
  }
  const rects = outerStrips(plot, out);
  const linesOf = (ends: readonly number[]) => [...new Set(ends)].toSorted((a, b) => a - b);
  const xs = linesOf(rects.flatMap((rect) => [rect.x, rect.x + rect.w]));
  const ys = linesOf(rects.flatMap((rect) => [rect.y, rect.y + rect.d]));
  const at = (lines: readonly number[], from: number, long: number) => [
    lines.indexOf(from),
    lines.indexOf(from + long),
  ];
  const cells = rects.map((rect): Rect => {
    const [[west, east], [north, south]] = [at(xs, rect.x, rect.w), at(ys, rect.y, rect.d)];
    return { x: west, y: north, w: east - west, d: south - north };
  });
  return outlineOfShape({ xs, ys, cells: areaOfRects(xs.length - 1, ys.length - 1, cells) });
}

/** The rectangles of a building with parts left out, each with what stands out over its sides. */
const outerStrips = (plot: Outlined, { n, e, s, w }: Plot['overhang']): Rect[] =>
  stripsOfShape(shapeOf(plot)).map((rect) => ({
    ...{ x: rect.x - w, y: rect.y - n },
    ...{ w: rect.w + w + e, d: rect.d + n + s },
  }));

/** What a building reaches over with all that stands out over its walls, in rectangles turned with it, the corners of each. */
export function outerPieces(plot: Turned & Built & Pick<Plot, 'overhang'>): Point[][] {
  return isBoxed(plot) || isRound(plot)
    ? [outerCorners(plot)]
    : placedStrips(plot, outerStrips(plot, plot.overhang));
}

/** Corners of a rectangle that is wider than a plot by so much on each side (narrower where negative), turned with it. */
function cornersAround(plot: Turned, by: Plot['overhang']): Point[] {
  const { x, y, w, d, turn } = plot;
  const outer = { x: x - by.w, y: y - by.n, w: w + by.w + by.e, d: d + by.n + by.s };
  return quadOf(outer).map((corner) => turnedPoint(corner, centreOf(plot), turn));
}

/** The outline of an area that is counted from the north-west corner of what is built, turned with the plot. */
function placedOutline(plot: Turned, outline: readonly Point[]): Point[] {
  const { x, y } = builtRect(plot);
  return outline.map((corner) =>
    turnedPoint({ x: x + corner.x, y: y + corner.y }, centreOf(plot), plot.turn),
  );
}

/** An outline with the pavement before its front: a strip as long as the rectangle round it. */
function withPavement(plot: Outlined, outline: readonly Point[]): Point[] {
  const { front = 's' } = plot;
  const deep = pavementDepth(plot);
  if (deep <= 0) return [...outline];
  const { w, d } = builtSides(plot);
  // Of each side its beginning and end, clockwise, and which way is out.
  const { from, to, out } = {
    n: { from: { x: 0, y: 0 }, to: { x: w, y: 0 }, out: { x: 0, y: -deep } },
    e: { from: { x: w, y: 0 }, to: { x: w, y: d }, out: { x: deep, y: 0 } },
    s: { from: { x: w, y: d }, to: { x: 0, y: d }, out: { x: 0, y: deep } },
    w: { from: { x: 0, y: d }, to: { x: 0, y: 0 }, out: { x: -deep, y: 0 } },
  }[front];
  const across = runsEast(front) ? 'y' : 'x';
  const isOn = (corner: Point) => corner[across] === from[across];
  const isAt = (a: Point, b: Point) => a.x === b.x && a.y === b.y;
  const beyond = ({ x, y }: Point) => ({ x: x + out.x, y: y + out.y });
  // Of more edges on that line one gets the strip: the way back over the others is taken away by the way along them.
  const first = outline.findIndex((corner, i) => isOn(corner) && isOn(outline[(i + 1) % outline.length]));
  return outline.flatMap((corner, i) => {
    const next = outline[(i + 1) % outline.length];
    if (i !== first) return [corner];
    const strip = [from, beyond(from), beyond(to), to];
    return [corner, ...strip.filter((one) => !isAt(one, corner) && !isAt(one, next))];
  });
}

/** Corners of the room inside a plot's walls, without its pavement, turned with it; none where there is no room. */
export function roomCorners(plot: Turned & Built & Pick<Plot, 'wall'>): Point[] {
  const { wall } = plot;
  const room = roomArea(plot);
  if (room) return placedOutline(plot, outlineOfArea(room));
  const { w, d } = builtRect(plot);
  if (2 * wall >= Math.min(w, d)) return [];
  return cornersAround(plot, fromPlot(plot, { n: -wall, e: -wall, s: -wall, w: -wall }));
}

/** A point turned about another, degrees clockwise as seen on the plan; quarters exactly. */
export function turnedPoint(point: Point, middle: Point, degrees: number): Point {
  const { cos, sin } = direction(((degrees % 360) + 360) % 360);
  const [dx, dy] = [point.x - middle.x, point.y - middle.y];
  return { x: middle.x + dx * cos - dy * sin, y: middle.y + dx * sin + dy * cos };
}

/** Quarters exactly, so that a building on the grid stays on the grid. */
function direction(turn: number): { cos: number; sin: number } {
  if (turn % 90 === 0) return { cos: [1, 0, -1, 0][turn / 90], sin: [0, 1, 0, -1][turn / 90] };
  const angle = (turn * Math.PI) / 180;
  return { cos: Math.cos(angle), sin: Math.sin(angle) };
}

/** The corners of a plot's walls with its pavement, turned about its middle: studs, from the unturned north-west clockwise; of a box four. */
export function wallCorners(plot: Turned): Point[] {
  const outline = builtOutline(plot);
  return outline
    ? placedOutline(plot, withPavement(plot, outline))
    : cornersAround(plot, { n: 0, e: 0, s: 0, w: 0 });
}

/** Corners of what a plot is built on, without its pavement, with what stands out over its walls, turned with it. */
export const outerCorners = (plot: Turned & Built & Pick<Plot, 'overhang'>): Point[] =>
  isBoxed(plot)
    ? cornersAround(plot, fromPlot(plot, plot.overhang))
    : placedOutline(plot, outerOutline(plot, plot.overhang));

/** How far what is built lies beyond the plot on each side, studs, and by so much more; below 0 within it. */
function fromPlot(plot: Turned & Built, by: Plot['overhang']): Plot['overhang'] {
  const built = builtRect(plot);
  return {
    n: plot.y - built.y + by.n,
    w: plot.x - built.x + by.w,
    e: built.x + built.w - plot.x - plot.w + by.e,
    s: built.y + built.d - plot.y - plot.d + by.s,
  };
}

type Leaning = Pick<Plot, 'lean' | 'leanTo'>;

/** Studs by which a leaning building is off its foot at a height, east and south. @param plates above its ground */
export function leanAt({ lean, leanTo }: Leaning, plates: number): Point {
  const out = (Math.tan((lean * Math.PI) / 180) * plates * MM_PER_PLATE) / MM_PER_STUD;
  const bearing = (leanTo * Math.PI) / 180;
  return { x: out * Math.sin(bearing), y: -out * Math.cos(bearing) };
}

const moved = (corners: readonly Point[], by: Point): Point[] =>
  corners.map(({ x, y }) => ({ x: x + by.x, y: y + by.y }));

/** Corners of all that a building reaches over: what stands out over its walls, and its top where it leans. */
export const reachCorners = (plot: Turned & Built & Pick<Plot, 'overhang' | 'height'> & Leaning): Point[] => {
  const outer = [...wallCorners(plot), ...(isOverhanging(plot) ? outerCorners(plot) : [])];
  return plot.lean === 0 ? outer : [...outer, ...moved(outer, leanAt(plot, plot.height))];
};

/** Radius of the circle that a building sweeps when it turns about its middle, studs. */
export function turnRadius(plot: Parameters<typeof reachCorners>[0]): number {
  const middle = centreOf(plot);
  return Math.max(...reachCorners(plot).map(({ x, y }) => Math.hypot(x - middle.x, y - middle.y)));
}

/** A leaning building's walls in slices: each as far out as at its top, heights in plates above its ground. */
export function leaningSlices(
  plot: Turned & Built & Pick<Plot, 'height'> & Leaning,
): { corners: Point[]; from: number; to: number }[] {
  const top = leanAt(plot, plot.height);
  const count = Math.min(plot.height, Math.max(1, Math.ceil(Math.hypot(top.x, top.y) / SLICE)));
  const walls = builtCorners(plot);
  return Array.from({ length: count }, (_, k) => {
    const [from, to] = [k, k + 1].map((n) => Math.round((plot.height * n) / count));
    return { corners: moved(walls, leanAt(plot, to)), from, to };
  });
}
/** How far one slice stands out over the one below at most, studs. */
const SLICE = 0.5;

/** The outline of a building that does not fill its rectangle, studs from its north-west corner; null for one that does. */
const builtOutline = rememberFor((plot: Outlined): readonly Point[] | null => {
  if (isBoxed(plot)) return null;
  return isRound(plot) ? discOutline(builtSides(plot)) : outlineOfShape(shapeOf(plot));
});

const outlineOfShape = ({ xs, ys, cells }: Omit<BuiltShape, 'faults'>): Point[] =>
  outlineOfArea(cells).map(({ x, y }) => ({ x: xs[x], y: ys[y] }));

/** Corners of what a plot is built on, without its pavement, turned with it. */
export function builtCorners(plot: Turned & Built): Point[] {
  const outline = builtOutline(plot);
  return outline
    ? placedOutline(plot, outline)
    : cornersAround(plot, fromPlot(plot, { n: 0, e: 0, s: 0, w: 0 }));
}

/** Tiles of a pavement are a plate high. */
export const PAVEMENT_PLATES = 1;

/** Depth of the pavement before a street front, studs; 0 where it has none. */
export function pavementDepth(plot: Outlined): number {
  const built = builtRect(plot);
  return runsEast(plot.front ?? 's') ? plot.d - built.d : plot.w - built.w;
}

/** Corners of the pavement before a street front, turned with it; null where it has none. */
export function pavementCorners(plot: Turned & Built): Point[] | null {
  const deep = pavementDepth(plot);
  if (deep <= 0) return null;
  // The plot, drawn in from the side behind it as deep as what is built.
  const built = (runsEast(plot.front) ? plot.d : plot.w) - deep;
  const behind = SIDES[(SIDES.indexOf(plot.front) + 2) % SIDES.length];
  return cornersAround(plot, { n: 0, e: 0, s: 0, w: 0, [behind]: -built });
}

/** The rectangle that holds a plot's turned walls. */
export const plotBounds = rememberFor((plot: Turned): Rect => {
  const { x, y, w, d, turn } = plot;
  return turn === 0 && isBoxed(plot) ? { x, y, w, d } : boundsOfPoints(wallCorners(plot));
});

/**
 * Where a seam runs through a plot, counted as `cutAt` counts: from the west or north wall of the unturned building, studs.
 * @param across the axis that the seam lies across
 * @param line where it lies on that axis, studs of the display
 * @returns null where it runs slantwise through the building
 */
export function seamPlaceOf(plot: Turned, across: 'x' | 'y', line: number): Plot['cutAt'][number] | null {
  const { x, y, w, d, turn } = plot;
  if (turn % 90 !== 0) return null;
  const middle = { x: x + w / 2, y: y + d / 2 };
  const own = turn % 180 === 0 ? across : across === 'x' ? 'y' : 'x';
  const on = turnedPoint({ ...middle, [across]: line }, middle, -turn);
  return { across: own, at: Math.round(4 * (on[own] - plot[own])) / 4 };
}

/** Whether a seam may run through a plot there, of one that may be cut. Parameters as of `seamPlaceOf`. */
export function mayCutAt(plot: Turned & Pick<Plot, 'cutAt'>, across: 'x' | 'y', line: number): boolean {
  if (plot.cutAt.length === 0) return true;
  const place = seamPlaceOf(plot, across, line);
  return plot.cutAt.some((cut) => cut.across === place?.across && cut.at === place.at);
}

/** Jumpers raise what stands on them by so many plates. */
export const JUMPER_PLATES = 1;

/**
 * Along which of its own axes a building on jumpers stands half a stud off the grid.
 * @returns null for one that needs none, or that no quarter turn brings onto the grid
 */
export function halfOff(plot: Turned & Partial<Pick<Plot, 'mount'>>): { x: boolean; y: boolean } | null {
  if (plot.mount !== 'jumpers' || plot.turn % 90 !== 0) return null;
  const bounds = plotBounds(plot);
  const [east, south] = [bounds.x, bounds.y].map((at) => !Number.isInteger(at));
  if (!east && !south) return null;
  return plot.turn % 180 === 0 ? { x: east, y: south } : { x: south, y: east };
}
