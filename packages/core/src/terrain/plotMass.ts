import { gramsOfLines } from '../catalogue/index.ts';
import {
  areaOfOutline,
  areaOfRects,
  MM,
  PLATES_PER_BRICK,
  hullOf,
  middleOfArea,
  studsOfArea,
  type StudArea,
  MM_PER_PLATE,
  MM_PER_STUD,
  boundsOf,
  centreOf,
  containsPoint,
  outerSize,
  type Rect,
} from '../grid/index.ts';
import {
  builtRect,
  insideOf,
  isOverhanging,
  outerOutline,
  ornamented,
  isShellList,
  builtArea,
  isBoxed,
  leanAt,
  listOf,
  roomArea,
  storeyLevels,
  turnedPoint,
  wallCorners,
  wallTop,
  type PartList,
  type Plot,
  type Scene,
} from '../document/index.ts';
import { ringRoofOf } from './ringRoof.ts';
import { courseStuds, endWalls, rectAlong } from './roofPlan.ts';
import { roofPlanOf, roofWall, slopedRoofOf } from './slopedRoof.ts';

// What buildings weigh, by their lists or their plain shells, and where their centres of mass are.

/**
 * A brick 2×4 weighs about 2.3 g (from memory): 24 stud-plates, so solid plastic is 0.096 g a stud and plate.
 */
export const GRAMS_PER_STUD_PLATE = 2.3 / 24;

/** Mass and the height of its centre above its own foot, plates. */
export interface MassCentre {
  grams: number;
  z: number;
}

/** Of a building: how far its centre is off the middle of its plot too, studs along its own sides, were it upright. */
export interface PlotMass extends MassCentre {
  x: number;
  y: number;
}

/** How far a block may lean before it tips over its narrow side, degrees: atan(half base ÷ centre height). */
export const tippingAngle = (halfBaseMm: number, centreMm: number): number =>
  centreMm <= 0 ? 90 : (Math.atan(halfBaseMm / centreMm) * 180) / Math.PI;

/**
 * How far a building may lean further before it tips, degrees: about the edge that its centre of mass is nearest to,
 * which is off its middle where it leans or stands out on one side; below 0: it tips by itself.
 * @param base it stands on, studs of the display, unturned
 */
export function tipsOfPlot(
  plot: Pick<Plot, 'x' | 'y' | 'w' | 'd' | 'shape' | 'notches' | 'recesses' | 'turn' | 'lean' | 'leanTo'>,
  base: Rect,
  weight: Pick<PlotMass, 'x' | 'y' | 'z'>,
): number {
  const off = offBase(plot, base, weight);
  const half = isBoxed(plot)
    ? Math.min(base.w / 2 - Math.abs(off.x), base.d / 2 - Math.abs(off.y))
    : toRim(plot, { x: centreOf(base).x + off.x, y: centreOf(base).y + off.y });
  return tippingAngle(half * MM_PER_STUD, weight.z * MM_PER_PLATE);
}

/** From a point of the unturned plan to the nearest line a building can tip about, studs; below 0: it is beyond it. */
function toRim(
  plot: Pick<Plot, 'x' | 'y' | 'w' | 'd' | 'shape' | 'notches' | 'recesses'>,
  at: { x: number; y: number },
): number {
  const studs = wallCorners({ ...plot, turn: 0 });
  const rim = hullOf(studs).map((index) => studs[index]);
  // The hull runs so that its inside is on the left.
  return Math.min(
    ...rim.map((a, i) => {
      const b = rim[(i + 1) % rim.length];
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      return (dx * (at.y - a.y) - dy * (at.x - a.x)) / Math.hypot(dx, dy);
    }),
  );
}

/** How far a building's centre of mass is off the middle of what it stands on, studs along its own sides. */
export function offBase(
  plot: Pick<Plot, 'x' | 'y' | 'w' | 'd' | 'turn' | 'lean' | 'leanTo'>,
  base: Rect,
  { x, y, z }: Pick<PlotMass, 'x' | 'y' | 'z'>,
): { x: number; y: number } {
  const [lean, own, foot] = [leanAcross(plot, z), centreOf(plot), centreOf(base)];
  return { x: x + lean.x + own.x - foot.x, y: y + lean.y + own.y - foot.y };
}

/** How far a leaning building is off its foot at a height, studs along its own sides. @param z plates above its ground */
export function leanAcross(
  plot: Pick<Plot, 'turn' | 'lean' | 'leanTo'>,
  z: number,
): { x: number; y: number } {
  return leanAt({ lean: plot.lean, leanTo: plot.leanTo - plot.turn }, z);
}

/** How far a building's centre of mass is off the middle of its plot as it stands, studs on the display. */
export function offMiddle(
  plot: Plot,
  { x, y, z }: Pick<PlotMass, 'x' | 'y' | 'z'>,
): { x: number; y: number } {
  const [own, lean] = [turnedPoint({ x, y }, { x: 0, y: 0 }, plot.turn), leanAt(plot, z)];
  return { x: own.x + lean.x, y: own.y + lean.y };
}

/** A box of plastic: stud-plates, its centre in plates above the foot and in studs off the plot's middle. */
interface Box {
  volume: number;
  x: number;
  y: number;
  z: number;
}

const areaOf = ({ w, d }: Rect): number => w * d;

/** What is left of a rectangle when another is taken out of it, so many plates high. */
function ringOf(outer: Rect, inner: Rect, middle: { x: number; y: number }, from: number, high: number): Box {
  const [a, b] = [areaOf(outer), areaOf(inner)];
  const [p, q] = [centreOf(outer), centreOf(inner)];
  const mean = (one: number, other: number) => (a > b ? (a * one - b * other) / (a - b) : 0);
  return {
    volume: (a - b) * Math.max(0, high),
    x: mean(p.x, q.x) - (a > b ? middle.x : 0),
    y: mean(p.y, q.y) - (a > b ? middle.y : 0),
    z: from + high / 2,
  };
}

/** A rectangle that is larger by so much on each side. */
export const grownBy = ({ x, y, w, d }: Rect, { n, e, s, w: west }: Plot['overhang']): Rect => ({
  x: x - west,
  y: y - n,
  w: w + west + e,
  d: d + n + s,
});

/** The rectangle that a building reaches over up to a height, upright: its plot, and above their foot what stands out. */
export const reachAt = (plot: Plot, z: number): Rect =>
  boundsOf([
    { x: plot.x, y: plot.y, w: plot.w, d: plot.d },
    ...(z > plot.overhangFrom && isOverhanging(plot) ? [grownBy(builtRect(plot), plot.overhang)] : []),
  ]);

/**
 * A building by its plain shell, up to a height: walls of its given thickness, a floor of plates for each storey, a roof
 * of plates, and the plates of its pavement; what stands out over its walls as a box of the same walls, closed by plates
 * below and, at the top, above; all of it by as much more as its ornament is guessed to be. Windows, doors and furniture are
 * not in it.
 * @param upTo plates above its ground; less than its height: what is left when the rest is off
 */
export function shellOf(plot: Plot, upTo: number = plot.height): PlotMass {
  const area = builtArea(plot);
  const middle = centreOf(plot);
  const built = builtRect(plot);
  const pavement = ringOf(plot, built, middle, 0, 1);
  const out = outBoxes(plot, upTo);
  if (area) return massOf(plot, [...shellOfArea(plot, area, upTo), pavement, ...out]);
  const inside = insideOf(plot);
  const room: Rect = {
    ...inside,
    x: built.x + (built.w - inside.w) / 2,
    y: built.y + (built.d - inside.d) / 2,
  };
  const none = { ...middle, w: 0, d: 0 };
  const boxes = [ringOf(built, room, middle, 0, upTo), pavement];
  for (const z of storeyLevels(plot)) if (z < upTo) boxes.push(ringOf(room, none, middle, z, 1));
  if (upTo >= plot.height) boxes.push(ringOf(built, none, middle, upTo - 0.5, 1));
  return massOf(plot, [...boxes, ...out]);
}

/** What stands out over the walls of a building alone. */
export const outMass = (plot: Plot): PlotMass => massOf(plot, outBoxes(plot, plot.height));

/** Of a building that fills no rectangle its ring of walls, its floors, and its roof: of slopes, of rings, or flat. */
function shellOfArea(plot: Plot, all: StudArea, upTo: number): Box[] {
  const walls = wallTop(plot);
  const room = roomArea(plot);
  const boxes: Box[] = [];
  const isWhole = upTo >= plot.height;
  const add = (area: StudArea, from: number, high: number, sign: 1 | -1 = 1) => {
    // What is whole may rise over its height.
    const built = isWhole ? high : Math.min(high, upTo - from);
    if (built > 0) boxes.push(layerOf(plot, area, from, built, sign));
  };
  add(all, 0, walls);
  if (room) add(room, 0, walls, -1);
  for (const level of storeyLevels(plot)) if (room && level < walls) add(room, level, 1);
  const sloped = slopedRoofOf(plot);
  if (sloped && sloped.courses > 0) {
    const { w, d, sides, levels, top } = roofPlanOf(plot, sloped.pitches);
    for (const level of levels) {
      const [from, { slope }] = [walls + level.up, level];
      add({ w, d, mask: courseStuds(level) }, from, slope.h);
      add({ w, d, mask: level.closed }, from, 1);
      for (const { side, ...wall } of endWalls({ w, d, sides }, level, roofWall(plot))) {
        const rect = rectAlong(side, wall.from, wall.to - wall.from, wall.thick);
        add(areaOfRects(w, d, [rect]), from, slope.h);
      }
    }
    add({ w, d, mask: top.closed }, walls + top.up, 1);
    return boxes;
  }
  const roof = ringRoofOf(plot);
  if (roof?.hasFloor) add(all, walls, 1);
  for (const { z, outer, hole } of roof?.rings ?? []) {
    add(outer, z, PLATES_PER_BRICK);
    add(hole, z, PLATES_PER_BRICK, -1);
  }
  const closed = roof ? roof.rings[roof.rings.length - 1].outer : all;
  if (isWhole) boxes.push(layerOf(plot, closed, roof ? roof.top - 1 : walls - 0.5, 1));
  return boxes;
}

/** What stands out over the walls of a building: the same walls round it, closed by plates below and, at the top, above. */
function outBoxes(plot: Plot, upTo: number): Box[] {
  const { overhang, overhangFrom, wall } = plot;
  const high = upTo - overhangFrom;
  if (high <= 0 || !isOverhanging(plot)) return [];
  const hollow = (by: number) => Math.max(0, by - wall);
  const { n, e, s, w } = overhang;
  const open = { n: hollow(n), e: hollow(e), s: hollow(s), w: hollow(w) };
  const none = { n: 0, e: 0, s: 0, w: 0 };
  /** What lies between two distances from the walls, so many plates high. */
  const between = (outer: Plot['overhang'], inner: Plot['overhang'], from: number, plates: number): Box[] => {
    const built = builtRect(plot);
    if (isBoxed(plot))
      return [ringOf(grownBy(built, outer), grownBy(built, inner), centreOf(plot), from, plates)];
    return [
      outlinedBox(plot, outerOutline(plot, outer), from, plates, 1),
      outlinedBox(plot, outerOutline(plot, inner), from, plates, -1),
    ];
  };
  return [
    ...between(overhang, open, overhangFrom, high),
    ...between(open, none, overhangFrom, Math.min(1, high)),
    ...(upTo >= plot.height && high > 1 ? between(open, none, upTo - 1, 1) : []),
  ];
}

/** What lies over an outline, studs from the north-west corner of a building, so many plates high. */
function outlinedBox(
  plot: Plot,
  outline: readonly { x: number; y: number }[],
  from: number,
  high: number,
  sign: 1 | -1,
): Box {
  const [built, centre, { area, x, y }] = [builtRect(plot), centreOf(plot), areaOfOutline(outline)];
  return {
    volume: sign * area * high,
    ...{ x: built.x + x - centre.x, y: built.y + y - centre.y, z: from + high / 2 },
  };
}

/** A layer over an area of a building, so many plates high. */
function layerOf(plot: Plot, area: StudArea, from: number, high: number, sign: 1 | -1 = 1): Box {
  const [built, centre, middle] = [builtRect(plot), centreOf(plot), middleOfArea(area)];
  return {
    volume: sign * studsOfArea(area) * high,
    ...{ x: built.x + middle.x - centre.x, y: built.y + middle.y - centre.y, z: from + high / 2 },
  };
}

function massOf(plot: Plot, boxes: readonly Box[]): PlotMass {
  const volume = boxes.reduce((sum, box) => sum + box.volume, 0);
  const mean = (of: (box: Box) => number) =>
    volume > 0 ? boxes.reduce((sum, box) => sum + box.volume * of(box), 0) / volume : 0;
  return {
    grams: volume * GRAMS_PER_STUD_PLATE * ornamented(plot),
    ...{ x: mean(({ x }) => x), y: mean(({ y }) => y), z: mean(({ z }) => z) },
  };
}

/** Height of a building when all that lifts off is off, plates: 0 where all of it is carried by itself. */
export const fixedHeight = ({ mount, height, parts }: Pick<Plot, 'mount' | 'height' | 'parts'>): number =>
  isLoose({ mount }) ? 0 : Math.max(0, height - parts.reduce((sum, part) => sum + part.height, 0));

/** Whether a building stands by itself and is taken off before its module is carried. */
export const isLoose = ({ mount }: Pick<Plot, 'mount'>): boolean =>
  mount === 'loose' || mount === 'turntable';

const LISTED: readonly PartList['purpose'][] = ['building', 'figures', 'lights', 'other'];

/** Grams of the lists of needs: of buildings by plot, and what else is listed by section (null: nowhere in particular). */
export interface ListedMass {
  plots: ReadonlyMap<string, number>;
  sections: ReadonlyMap<string | null, number>;
}

/** Whether a list that names no building counts a building: its middle lies in the list's section; of no section, all. */
export function isSharedWith(
  { section }: Pick<Scene, 'section'>,
  list: Pick<PartList, 'section'>,
  { x, y, w, d }: Pick<Plot, 'x' | 'y' | 'w' | 'd'>,
): boolean {
  const at = list.section === null ? null : section[list.section];
  return at === null || (at !== undefined && containsPoint(at, x + w / 2, y + d / 2));
}

/**
 * What people listed, weighed. A list of a building is that building's mass, one of its plain shell with its ornament. One
 * that names none is shared by the buildings of its section that have no list of their own, as their shells weigh. Ground and
 * plants are counted from the plan and not weighed twice.
 */
export function listedMass(scene: Scene): ListedMass {
  const plots = new Map<string, number>();
  const sections = new Map<string | null, number>();
  const lists = listOf(scene, 'partList').filter(
    ({ use, purpose }) => use === 'need' && LISTED.includes(purpose),
  );
  const weigh = ({ lines, copies }: PartList) => copies * gramsOfLines(lines, scene.partType);
  const add = <K>(to: Map<K, number>, key: K, grams: number) => to.set(key, (to.get(key) ?? 0) + grams);
  for (const list of lists) {
    if (list.plot === null) continue;
    const plot = scene.plot[list.plot];
    const isShell = plot !== undefined && isShellList(list, plot);
    add(plots, list.plot, weigh(list) * (isShell ? ornamented(plot) : 1));
  }
  const named = new Set(plots.keys());
  for (const list of lists) {
    if (list.plot !== null) continue;
    const grams = weigh(list);
    const sharing =
      list.purpose === 'building'
        ? listOf(scene, 'plot').filter((plot) => !named.has(plot.id) && isSharedWith(scene, list, plot))
        : [];
    const whole = sharing.reduce((sum, plot) => sum + shellOf(plot).grams, 0);
    if (whole === 0) add(sections, list.section, grams);
    for (const plot of sharing) if (whole > 0) add(plots, plot.id, (grams * shellOf(plot).grams) / whole);
  }
  return { plots, sections };
}

/**
 * A building as it weighs: by its list where it has one, spread evenly over its height and off its middle as its shell is;
 * else by its plain shell.
 */
export function weightOf(
  plot: Plot,
  listed: ListedMass,
  upTo: number = plot.height,
): PlotMass & { listed: boolean } {
  const grams = listed.plots.get(plot.id);
  const shell = shellOf(plot, upTo);
  if (grams === undefined) return { ...shell, listed: false };
  return { ...shell, grams: (grams * upTo) / plot.height, z: upTo / 2, listed: true };
}

/** What is left of a building without a part of it: its mass and where its centre is. */
function restOf(whole: PlotMass, part: PlotMass): PlotMass {
  const grams = whole.grams - part.grams;
  const mean = (a: number, b: number) => (grams > 0 ? (whole.grams * a - part.grams * b) / grams : 0);
  return { grams, x: mean(whole.x, part.x), y: mean(whole.y, part.y), z: mean(whole.z, part.z) };
}

/** A building without what lifts off it, and what does: where each has its centre. */
export function massesOf(plot: Plot, listed: ListedMass, upTo: number): { stays: PlotMass; off: PlotMass } {
  const stays = upTo > 0 ? weightOf(plot, listed, upTo) : { grams: 0, x: 0, y: 0, z: 0 };
  return { stays, off: restOf(weightOf(plot, listed), stays) };
}

/** A loose building or a part that lifts off: what is carried by itself. */
export interface LoosePiece {
  plot: string;
  /** Index of the building's part; null: the building without its parts. */
  part: number | null;
  name: string;
  grams: number;
  /** As carried, mm. */
  w: number;
  d: number;
  h: number;
  /** Its centre of mass from its own west, north and foot, mm. */
  centre: { x: number; y: number; z: number };
  /** Degrees it may lean before it tips, set down by itself. */
  tips: number;
  listed: boolean;
}

/** The pieces that come off a building, the uppermost first; the building itself last where it is loose. */
export function loosePieces(plot: Plot, listed: ListedMass): LoosePiece[] {
  const heights = plot.parts.reduce((sum, { height }) => sum + height, 0);
  const left = Math.max(0, plot.height - heights);
  const { stays, off } = massesOf(plot, listed, left);
  const isListed = listed.plots.has(plot.id);
  let top = plot.height;
  const pieces = plot.parts.map(({ name, height }, i): LoosePiece => {
    const weight: PlotMass = { ...off, grams: (off.grams * height) / heights, z: height / 2 };
    const [base, reach] = [reachAt(plot, top - height + HAIR), reachAt(plot, top)];
    top -= height;
    // A part is set down upright.
    return asCarried({ ...plot, lean: 0 }, { part: i, name, height, weight, base, reach, listed: isListed });
  });
  if (!isLoose(plot)) return pieces;
  const base = { x: plot.x, y: plot.y, w: plot.w, d: plot.d };
  return [
    ...pieces,
    asCarried(plot, {
      ...{ part: null, name: plot.name, height: left, weight: stays },
      ...{ base, reach: reachAt(plot, left), listed: isListed },
    }),
  ];
}
const HAIR = 1e-6;

function asCarried(
  plot: Plot,
  piece: {
    part: number | null;
    name: string;
    height: number;
    weight: PlotMass;
    /** What it stands on and what it reaches over, upright, studs of the display. */
    base: Rect;
    reach: Rect;
    listed: boolean;
  },
): LoosePiece {
  const { part, name, height, weight, base, reach, listed } = piece;
  const [low, high] = [leanAcross(plot, Math.min(height, plot.overhangFrom)), leanAcross(plot, height)];
  // How far it reaches beyond its base on each side, where it leans too.
  const beyond = (out: number, sign: 1 | -1, axis: 'x' | 'y') =>
    Math.max(0, out + sign * low[axis], out + sign * high[axis]);
  const west = beyond(base.x - reach.x, -1, 'x');
  const east = beyond(reach.x + reach.w - base.x - base.w, 1, 'x');
  const north = beyond(base.y - reach.y, -1, 'y');
  const south = beyond(reach.y + reach.d - base.y - base.d, 1, 'y');
  const off = offBase(plot, base, weight);
  const play = MM_PER_STUD - outerSize(1) / MM;
  return {
    ...{ plot: plot.id, part, name, grams: weight.grams, listed },
    w: outerSize(base.w) / MM + (west + east) * MM_PER_STUD,
    d: outerSize(base.d) / MM + (north + south) * MM_PER_STUD,
    h: height * MM_PER_PLATE,
    centre: {
      x: (west + base.w / 2 + off.x) * MM_PER_STUD - play / 2,
      y: (north + base.d / 2 + off.y) * MM_PER_STUD - play / 2,
      z: weight.z * MM_PER_PLATE,
    },
    tips: tipsOfPlot(plot, base, weight),
  };
}
