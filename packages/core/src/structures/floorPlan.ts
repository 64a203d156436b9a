import {
  countOf,
  intersection,
  rememberFor,
  stripsBesideArea,
  type Rect,
  boundsOfPoints,
} from '../grid/index.ts';
import {
  isOnHalf,
  isRound,
  roomCorners,
  roomArea,
  wallCorners,
  wallStuds,
  type Plot,
  type Side,
  builtSides,
} from '../document/index.ts';
import { footOfFitting, offEaves, roofOver } from '../terrain/index.ts';
import { floorLayers } from './floorLayers.ts';
import { beginsLeft, type WallOpening } from './fronts.ts';
import { FIGURE_PLATES, stairCard, type StairCard } from './stairs.ts';
import type { Storey } from './storeys.ts';

// One floor of a building from above: its room, what stands in it, how doors open, and what is left to stand on.

type Fitting = Plot['fittings'][number];

/** A fitting that has a place on a floor; studs from the inside of the north-west corner. */
export interface PlacedFitting extends Rect {
  /** Its index among the building's fittings. */
  index: number;
  name: string;
  use: Fitting['use'];
  climbsTo: Fitting['climbsTo'];
  /** Plates above the building's ground: its foot and its top. */
  from: number;
  to: number;
  /** It stands on half a stud along x or y: jumpers hold it. */
  onHalf: boolean;
  /** How far it is set into a wall at most, studs; 0: it stands free. */
  intoWall: number;
  /** What is wrong with its place; null: nothing. */
  fault: string | null;
}

/** A door as it opens inwards; studs from the inside of the north-west corner. */
export interface DoorSwing {
  side: Side;
  /** Its leaf, studs; and where it hangs: at its left or right end as seen from outside. */
  leaf: number;
  hinges: { left: Spot; right: Spot };
  /** What stands in its way, hung left and hung right; null: it opens. */
  blocked: { left: string | null; right: string | null };
}
type Spot = { x: number; y: number };

/** One floor of a building, unturned. */
export interface FloorPlan {
  /** 1: on the ground. */
  number: number;
  storey: Storey;
  /** Thickness of its walls and its room inside them, whole studs. */
  wall: number;
  w: number;
  d: number;
  openings: WallOpening[];
  /** Outlines of its walls and of its room; studs from the inside of the north-west corner. */
  outline: { walls: Spot[]; room: Spot[] };
  /** Pillars and deep windows inside: studs from the inside of the north-west corner. */
  pillars: Rect[];
  windows: Rect[];
  /** Where it is open over the stair below. */
  holes: Rect[];
  /** Square studs inside its walls. */
  studs: number;
  fittings: PlacedFitting[];
  doors: DoorSwing[];
  stairs: StairCard[];
  /** Square studs of its floor that nothing stands on, halves exact. */
  free: number;
  /** Middles of places of 2 × 2 studs where figures can stand beside one another: so many at least. */
  figures: Spot[];
}

/** Side of the place a figure takes, so that it can be set down by hand, studs (ours, no source). */
const FIGURE_PLACE = 2;
/** Steepest a stair is taken to be climbed, plates a stud: a brick (ours, no source). */
export const STEEPEST = 3;
/** Parts of a stud that places are exact to. */
const HALVES = 2;

/** The floors of a building with what stands on them; the last is under the roof. Worked out once for each plot. */
export const floorPlans = rememberFor((plot: Plot): readonly FloorPlan[] => planFloors(plot));

function planFloors(plot: Plot): FloorPlan[] {
  const layers = floorLayers(plot);
  const thick = wallStuds(plot);
  const sides = builtSides(plot);
  const [w, d] = [Math.max(0, sides.w - 2 * thick), Math.max(0, sides.d - 2 * thick)];
  const inside = (rect: Rect): Rect => ({ ...rect, x: rect.x - thick, y: rect.y - thick });
  const whole = { x: 0, y: 0, w, d };
  const area = roomArea(plot);
  const walls = area
    ? stripsBesideArea(area).flatMap((strip) => intersection(inside(strip), whole) ?? [])
    : [];
  const upright = {
    ...plot,
    x: -thick,
    y: -thick,
    w: sides.w,
    d: sides.d,
    wall: thick,
    turn: 0,
    streetFront: false,
  };
  const outline = { walls: wallCorners(upright), room: roomCorners(upright) };
  return layers.map(({ storey, openings: own, fills, ...layer }, i) => {
    const windows = fills.flatMap((fill) => intersection(inside(fill), whole) ?? []);
    // What stands above the last floor of walls stands on that floor's storey.
    const next = layers.at(i + 1)?.storey.level ?? Infinity;
    const pillars = layer.pillars.map(inside);
    const holes = layer.holes.map(({ x, y, w: wide, d: deep }) => inside({ x, y, w: wide, d: deep }));
    const room = { w, d, walls, isRound: isRound(plot), wall: thick, pillars, windows, holes };
    const fittings = placed(plot, { ...room, from: i === 0 ? -Infinity : storey.level, to: next });
    const doors = own
      .filter(({ part }) => part.family === 'door')
      .map((door) => swingOf(door, room, fittings));
    const upper = layers.at(i + 1)?.storey.from ?? null;
    // What hangs takes no floor; a figure stands under it where there is room.
    const takenTo = (air: number) => [
      ...walls,
      ...holes,
      ...pillars,
      ...windows,
      ...fittings.filter(
        (one) => plot.fittings[one.index].on === storey.level || one.from - storey.from < air,
      ),
    ];
    return {
      ...{
        number: i + 1,
        storey,
        wall: thick,
        w,
        d,
        outline,
        openings: own,
        pillars,
        windows,
        holes,
        fittings,
        doors,
      },
      stairs: fittings
        .filter(({ use }) => use === 'stair')
        .map((stair) => stairCard(stair, upper ?? storey.to)),
      studs: freeCells(w, d, walls).reduce((sum, cell) => sum + cell, 0) / HALVES ** 2,
      free: freeCells(w, d, takenTo(1)).reduce((sum, cell) => sum + cell, 0) / HALVES ** 2,
      figures: figuresOn(plot, { w, d, taken: takenTo(FIGURE_PLATES), from: storey.from, to: next }),
    };
  });
}

interface Room {
  w: number;
  d: number;
  /** What its walls take of that rectangle. */
  walls: readonly Rect[];
  isRound: boolean;
  wall: number;
  pillars: readonly Rect[];
  windows: readonly Rect[];
  holes: readonly Rect[];
}

/** The fittings that have a place and stand from a height on and below another. */
function placed(plot: Plot, room: Room & { from: number; to: number }): PlacedFitting[] {
  const found = plot.fittings.flatMap((fitting, index): PlacedFitting[] => {
    const { name, use, climbsTo, on, height, place } = fitting;
    if (place === null || on < room.from || on >= room.to) return [];
    const from = footOfFitting(plot, fitting);
    return [
      {
        ...{ index, name, use, climbsTo, ...place, from, to: from + height, fault: null },
        onHalf: isOnHalf(place),
        intoWall: Math.max(
          0,
          ...[-place.x, -place.y, place.x + place.w - room.w, place.y + place.d - room.d],
        ),
      },
    ];
  });
  return found.map((one) => ({ ...one, fault: faultOf(one, found, room) }));
}

function faultOf(one: PlacedFitting, all: readonly PlacedFitting[], room: Room): string | null {
  const whole = { x: 0, y: 0, w: room.w, d: room.d };
  if (!intersection(one, whole)) return 'it stands outside the room';
  // Walls are as thick as that at least: what is set in deeper comes out of the front.
  if (one.intoWall > 0 && one.intoWall >= room.wall)
    return `it is set ${countOf(one.intoWall, 'stud')} into a wall ${room.wall} thick`;
  if (room.walls.some((wall) => intersection(wall, one)))
    return `it stands in the ${room.isRound ? 'round ' : ''}wall`;
  const other = all.find(
    (each) => each.index !== one.index && each.from < one.to && one.from < each.to && intersection(each, one),
  );
  if (other) return `it shares studs with “${other.name}”`;
  if (room.pillars.some((pillar) => intersection(pillar, one)))
    return 'it stands where a pillar carries the floor above';
  if (one.use !== 'stair' && room.holes.some((hole) => intersection(hole, one)))
    return 'the floor is open there over the stair below';
  if (room.windows.some((window) => intersection(window, one))) return 'it stands in a window that comes in';
  return null;
}

/** How a door opens into its room. */
function swingOf(
  { side, back, from, wide, foot, top }: WallOpening,
  room: Room,
  fittings: readonly PlacedFitting[],
): DoorSwing {
  // By how far along the inside of its wall and how deep in the room a place is, from the wall's west or north end.
  const at = (along: number, deep: number): Spot =>
    ({
      n: { x: along, y: back + deep },
      s: { x: along, y: room.d - back - deep },
      w: { x: back + deep, y: along },
      e: { x: room.w - back - deep, y: along },
    })[side];
  const [a, b] = [from - room.wall, from - room.wall + wide];
  const ends = [at(a, 0), at(b, 0)];
  const into = boundsOfPoints([at(a, 0), at(b, wide)]);
  // As seen from outside, the left end of the south and west fronts is where studs are counted from.
  const [left, right] = beginsLeft(side) ? ends : ends.toReversed();
  const blockedAt = (hinge: Spot): string | null =>
    fittings.find((one) => one.from < top && one.to > foot && swings(hinge, wide, into, one))?.name ?? null;
  return {
    ...{ side, leaf: wide, hinges: { left, right } },
    blocked: { left: blockedAt(left), right: blockedAt(right) },
  };
}

/** Whether a leaf that swings a quarter about its hinge touches a rectangle. @param into the square it swings through */
function swings(hinge: Spot, leaf: number, into: Rect, rect: Rect): boolean {
  const near = intersection(rect, into);
  if (!near) return false;
  const gap = (at: number, from: number, size: number) => Math.max(from - at, at - from - size, 0);
  return Math.hypot(gap(hinge.x, near.x, near.w), gap(hinge.y, near.y, near.d)) < leaf - 1e-9;
}

/** Half studs of a room that nothing stands on: 1, else 0. */
function freeCells(w: number, d: number, taken: readonly Rect[]): Uint8Array {
  const [columns, rows] = [w * HALVES, d * HALVES];
  const free = new Uint8Array(columns * rows).fill(1);
  for (const rect of taken) {
    const on = intersection(rect, { x: 0, y: 0, w, d });
    if (!on) continue;
    for (let y = on.y * HALVES; y < (on.y + on.d) * HALVES; y++)
      free.fill(0, y * columns + on.x * HALVES, y * columns + (on.x + on.w) * HALVES);
  }
  return free;
}

/** Places for figures, the first that fits from the north-west on. @param to where the ceiling is, Infinity: the roof */
function figuresOn(
  plot: Plot,
  { w, d, taken, from, to }: { w: number; d: number; taken: readonly Rect[]; from: number; to: number },
): Spot[] {
  const free = freeCells(w, d, taken);
  const roof = roofOver(plot);
  const spots: Spot[] = [];
  const columns = w * HALVES;
  const side = FIGURE_PLACE * HALVES;
  const isFree = (x: number, y: number) => {
    for (let row = y * HALVES; row < y * HALVES + side; row++)
      for (let column = x * HALVES; column < x * HALVES + side; column++)
        if (!free[row * columns + column]) return false;
    return true;
  };
  for (let y = 0; y + FIGURE_PLACE <= d; y++)
    for (let x = 0; x + FIGURE_PLACE <= w; x++) {
      const across = offEaves(plot, { x, y, w: FIGURE_PLACE, d: FIGURE_PLACE });
      if (Math.min(to, roof(across)) - from < FIGURE_PLATES || !isFree(x, y)) continue;
      spots.push({ x: x + FIGURE_PLACE / 2, y: y + FIGURE_PLACE / 2 });
      for (let row = y * HALVES; row < y * HALVES + side; row++)
        free.fill(0, row * columns + x * HALVES, row * columns + x * HALVES + side);
    }
  return spots;
}
