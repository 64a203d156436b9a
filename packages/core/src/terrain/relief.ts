import { boundsOf, grown, roundOut, intersection, studsIn, type Rect } from '../grid/index.ts';
import {
  GROUNDS,
  MAX_FOOTPRINT,
  fixedGround,
  STANDING_KINDS,
  keyOf,
  listOf,
  padsInOrder,
  standingOf,
  type Entity,
  type FixedGround,
  type Ground,
  type Kind,
  type Scene,
} from '../document/index.ts';
import {
  BARE,
  OUTSIDE,
  heightOfStud,
  layHill,
  layHollow,
  layPad,
  layStream,
  layStrip,
  layTerrain,
  layWater,
  type Raster,
} from './rasterize.ts';
import { eachStudOf, type Slab } from './slab.ts';
import {
  cutOpen,
  hasSlabs,
  laidOn,
  shapesNear,
  shapesOf,
  slabsOf,
  laidStrips,
  type Shapes,
  type Strip,
  type Surfaces,
} from './slabs.ts';
import { changedAreas, mergeOverlapping, influenceOf, type Changed } from './changedAreas.ts';
import { placeObjects, uppermost } from './placeObjects.ts';

export { BARE, OUTSIDE } from './rasterize.ts';

/**
 * The scene compiled to each stud. Row-major: stud (x, y) of the display stands at
 * `(y - origin.y) * w + (x - origin.x)`. Heights are plates above datum.
 */
export interface Relief extends Raster {
  /** Height of the highest surface, plates: that of the ground, or of the highest deck or bridge over it. */
  surface: Int16Array;
  /** Height with what stands on it, plates. */
  top: Int16Array;
  /** What lies over air: decks, bridges, the roofs of cavities; the lower first. */
  slabs: readonly Slab[];
  /** What `owner` counts: whatever is uppermost on a stud, be it a building, a way or the pad it lies on. */
  things: readonly { kind: Kind; id: string }[];
  /** The ground as counted piece by piece, where that is done; else masses are estimated by area. */
  counted?: MassRaster;
}

/** Mass on each stud of a relief, grams, and its moment over the datum, grams × plates. */
export interface MassRaster {
  grams: Float32Array;
  moment: Float32Array;
}

/**
 * A compiled relief with what is needed to compile the next one from it: the scene it came from, and the land
 * before ways and tracks were laid. Nothing in it is written to once it is made.
 */
export interface Compiled {
  scene: Scene;
  relief: Relief;
  land: Raster;
  /** The ground with ways and tracks, and who laid it, before anything stood on it. */
  laidBy: Uint16Array;
}

/** Most things a relief can tell apart; those that were taken away count until all is compiled again. */
const MAX_THINGS = 65_535;
/** Where more of the relief than this has changed, all of it is compiled: the windows would cost more. */
const MAX_CHANGED = 0.6;

/** The rectangle that holds every footprint part, or null for a display without a footprint. */
export function footprintBounds(scene: Pick<Scene, 'footprint'>): Rect | null {
  const parts = listOf(scene, 'footprint');
  if (parts.length === 0) return null;
  return boundsOf(parts);
}

/**
 * Compiles the scene. The order: datum, imported ground, pads by their order (a later one covers an earlier one),
 * hills (the higher stays), hollows (the lower stays), still water, streams, cavities (cut open where nothing is over
 * them), ways, track beds; decks and bridges over that ground; then, standing on the highest surface or on what they
 * name, buildings, walls, repeats, plantings and trees, each kind by id.
 * A stud belongs to a shape by its centre, to a turned building by any touch.
 * @returns the relief of the footprint; empty (0 × 0) without a footprint
 * @throws RangeError when the footprint's bounding box has more studs than fit
 */
export const compileRelief = (scene: Scene): Relief => compile(scene).relief;

/** Compiles a whole scene so that the next one can be compiled from it. @throws RangeError as `compileRelief` */
export function compile(scene: Scene): Compiled {
  const bounds = footprintBounds(scene) ?? { x: 0, y: 0, w: 0, d: 0 };
  const area = bounds.w * bounds.d;
  if (area > MAX_FOOTPRINT)
    throw new RangeError(
      `the footprint spans ${area.toLocaleString('en')} studs; the most is ${MAX_FOOTPRINT.toLocaleString('en')}`,
    );
  const land = blankRaster(bounds);
  const bare = new Uint8Array(area).fill(OUTSIDE);
  for (const part of listOf(scene, 'footprint'))
    eachRun(bounds, part, (from, to) => bare.fill(BARE, from, to));
  land.ground.set(bare);
  const raster = blankRaster(bounds);
  const relief: Relief = {
    ...raster,
    top: new Int16Array(area),
    things: [],
    slabs: [],
    surface: raster.height,
  };
  const work = workOn({ scene, land, relief, laidBy: new Uint16Array(area), numbers: new Map(), things: [] });
  layLand(work, bounds);
  layWays(work, bounds);
  laySlabs(work);
  stand(work, bounds);
  return finished(work);
}

/**
 * Compiles a scene from the one before it: only changed windows are recomputed.
 * @returns the compiled scene, and the studs where it may differ from the one before; null: everywhere
 */
export function recompile(
  before: Compiled,
  scene: Scene,
): { compiled: Compiled; changed: readonly Rect[] | null } {
  const changed = changedAreas(before.scene, scene);
  const whole: Rect = before.relief;
  const cut = (rects: readonly Rect[]) => rects.flatMap((rect) => intersection(roundOut(rect), whole) ?? []);
  const land = changed && mergeOverlapping(cut(changed.land));
  const ways = changed && land && mergeOverlapping(cut(waysTouched(before.scene, scene, land, changed)));
  const tops = ways && changed && mergeOverlapping(cut(topsTouched(before.scene, scene, ways, changed)));
  const crowded = before.relief.things.length > MAX_THINGS / 2;
  if (!land || !ways || !tops || crowded || areaOf(tops) > MAX_CHANGED * whole.w * whole.d)
    return { compiled: compile(scene), changed: null };
  if (tops.length === 0) return { compiled: { ...before, scene }, changed: [] };
  const copy = (raster: Raster): Raster => ({
    ...raster,
    height: raster.height.slice(),
    ground: raster.ground.slice(),
    owner: raster.owner.slice(),
  });
  const work = workOn({
    scene,
    land: land.length > 0 ? copy(before.land) : before.land,
    relief: { ...before.relief, ...copy(before.relief), top: before.relief.top.slice() },
    laidBy: before.laidBy.slice(),
    things: [...before.relief.things],
    numbers: new Map(before.relief.things.map(({ kind, id }, i) => [keyOf(kind, id), i + 1])),
  });
  for (const window of land) {
    blank(work.land, window);
    layLand(work, window);
  }
  for (const window of ways) layWays(work, window);
  laySlabs(work, unchangedSlabs(before, scene, ways));
  for (const window of tops) stand(work, window);
  return { compiled: finished(work), changed: tops };
}

interface Work {
  scene: Scene;
  land: Raster;
  relief: Relief;
  laidBy: Uint16Array;
  things: { kind: Kind; id: string }[];
  numbers: Map<string, number>;
  /** Worked out once, when asked for. */
  shapes: () => Shapes;
  strips: () => readonly Strip[];
}

function workOn(work: Omit<Work, 'shapes' | 'strips'>): Work {
  let shapes: Shapes | null = null;
  let strips: readonly Strip[] | null = null;
  return {
    ...work,
    shapes: () => (shapes ??= shapesOf(work.scene, work.relief)),
    strips: () => (strips ??= laidStrips(work.scene, work.land)),
  };
}

/** Decks and bridges over the ground as it is laid, and the surface they make with it. */
function laySlabs(work: Work, known?: Parameters<typeof slabsOf>[6]): void {
  const { scene, land, relief, laidBy } = work;
  const isWay = (i: number) => {
    const kind = work.things[laidBy[i] - 1]?.kind;
    return kind === 'way' || kind === 'track';
  };
  const surfaces: Surfaces = hasSlabs(scene)
    ? slabsOf(scene, work.shapes(), work.strips(), land, relief, isWay, known)
    : { slabs: [], surface: relief.height };
  work.relief = { ...relief, ...surfaces };
}

/** The slabs of the scene before that lie, with a stud about them, apart from every changed window; null: none was there. */
function unchangedSlabs(
  before: Compiled,
  scene: Scene,
  windows: readonly Rect[],
): Parameters<typeof slabsOf>[6] {
  const known = new Map(before.relief.slabs.map((slab) => [keyOf(slab.kind, slab.id), slab]));
  return (kind, id, area) => {
    if (before.scene[kind][id] !== scene[kind][id]) return undefined;
    const slab = known.get(keyOf(kind, id)) ?? null;
    const isSame =
      !slab || (slab.x === area.x && slab.y === area.y && slab.w === area.w && slab.d === area.d);
    const isApart = !windows.some((window) => intersection(window, grown(area, 1)));
    return isSame && isApart ? slab : undefined;
  };
}

const finished = ({ scene, land, relief, laidBy, things }: Work): Compiled => ({
  scene,
  land,
  laidBy,
  relief: { ...relief, things },
});

const blankRaster = (bounds: Rect): Raster => ({
  ...bounds,
  height: new Int16Array(bounds.w * bounds.d),
  ground: new Uint8Array(bounds.w * bounds.d).fill(OUTSIDE),
  owner: new Uint16Array(bounds.w * bounds.d),
});

function numberOf({ things, numbers }: Work, kind: Kind, id: string): number {
  const key = keyOf(kind, id);
  const known = numbers.get(key);
  if (known !== undefined) return known;
  if (things.length >= MAX_THINGS) return 0;
  things.push({ kind, id });
  numbers.set(key, things.length);
  return things.length;
}

/** Bare ground at datum again, inside the footprint. */
function blank(raster: Raster, window: Rect): void {
  eachRun(raster, window, (from, to) => {
    for (let i = from; i < to; i++)
      if (raster.ground[i] !== OUTSIDE) {
        raster.ground[i] = BARE;
        raster.height[i] = 0;
        raster.owner[i] = 0;
      }
  });
}

function layLand(work: Work, window: Rect): void {
  const { scene, land: raster } = work;
  const heightOf = ({ level, offset }: { level: string; offset: number }) =>
    (scene.level[level]?.height ?? 0) + offset;
  const waters = waterCodes(scene);
  const each = <K extends Kind>(
    kind: K,
    list: readonly Entity<K>[],
    layOne: (
      to: { raster: Raster; window: Rect; owner: number; waters: Uint8Array },
      thing: Entity<K>,
    ) => void,
  ) => {
    for (const thing of list)
      if (touchesThing(scene, kind, thing.id, window))
        layOne({ raster, window, waters, owner: numberOf(work, kind, thing.id) }, thing);
  };
  each('terrain', listOf(scene, 'terrain'), (to, thing) => layTerrain(to, thing, heightOf(thing)));
  each('pad', padsInOrder(scene), (to, thing) => layPad(to, thing, heightOf(thing)));
  each('hill', listOf(scene, 'hill'), (to, thing) => layHill(to, thing, heightOf(thing)));
  each('hollow', listOf(scene, 'hollow'), (to, thing) => layHollow(to, thing, heightOf(thing)));
  each('water', listOf(scene, 'water'), (to, thing) => layWater(to, thing, heightOf(thing)));
  each('stream', listOf(scene, 'stream'), (to, thing) =>
    layStream(to, thing, scene.level[thing.level]?.height ?? 0),
  );
  for (const cavity of Object.keys(scene.cavity).length > 0 ? work.shapes().cavities : [])
    if (intersection(cavity, window))
      cutOpen(raster, window, cavity, numberOf(work, 'cavity', cavity.thing.id));
}

const touchesThing = (scene: Scene, kind: Kind, id: string, window: Rect) => {
  const reach = influenceOf(scene, kind, id);
  return reach !== null && intersection(reach, window) !== null;
};

function layWays(work: Work, window: Rect): void {
  const { land, relief } = work;
  eachRun(relief, window, (from, to) => {
    relief.height.set(land.height.subarray(from, to), from);
    relief.ground.set(land.ground.subarray(from, to), from);
    work.laidBy.set(land.owner.subarray(from, to), from);
  });
  const raster: Raster = { ...relief, owner: work.laidBy };
  const scene = work.scene;
  const areSlabs = hasSlabs(scene);
  for (const strip of work.strips()) {
    const reach = influenceOf(scene, strip.kind, strip.id);
    if (!reach || !intersection(reach, window)) continue;
    const near = areSlabs ? shapesNear(work.shapes(), reach) : null;
    layStrip({ raster, window, owner: numberOf(work, strip.kind, strip.id) }, strip, (x, y, z) =>
      near ? laidOn(near, strip, x, y, z, heightOfStud(land, x, y) ?? 0).on === 'ground' : true,
    );
  }
}

function stand(work: Work, window: Rect): void {
  const { scene, relief, laidBy } = work;
  eachRun(relief, window, (from, to) => {
    relief.top.set(relief.height.subarray(from, to), from);
    relief.owner.set(laidBy.subarray(from, to), from);
  });
  raiseSlabs(work, window);
  placeObjects(
    scene,
    uppermost(relief, relief.top, relief.owner),
    window,
    (kind, id) => numberOf(work, kind, id),
    (kind, id) => touchesThing(scene, kind, id, window),
  );
}

/** Decks and bridges are the uppermost where nothing stands on them. */
function raiseSlabs(work: Work, window: Rect): void {
  const { relief } = work;
  for (const slab of relief.slabs) {
    const on = slab.kind === 'cavity' ? null : intersection(slab, window);
    if (!on) continue;
    const owner = numberOf(work, slab.kind, slab.id);
    for (let y = on.y; y < on.y + on.d; y++)
      for (let x = on.x; x < on.x + on.w; x++) {
        const top = slab.top[(y - slab.y) * slab.w + x - slab.x];
        const i = (y - relief.y) * relief.w + x - relief.x;
        if (top <= relief.top[i]) continue;
        relief.top[i] = top;
        relief.owner[i] = owner;
      }
  }
}

/** Where ways and tracks must be laid again: on changed land, where they changed, and along ways that follow it. */
function waysTouched(before: Scene, scene: Scene, land: readonly Rect[], changed: Changed): Rect[] {
  const areas = [...land, ...changed.ways];
  for (const way of listOf(scene, 'way')) {
    const reach = influenceOf(scene, 'way', way.id);
    if (!reach || before.way[way.id] !== way) continue;
    for (const rect of land) {
      const touched = intersection(grown(rect, way.width / 2 + 2), reach);
      if (!touched) continue;
      // Ramps and steps are eased over their whole length; a way that follows the ground changes only near it.
      areas.push(way.onSteep === 'follow' ? touched : reach);
    }
  }
  return areas;
}

/** Where things must be stood again: on changed ground, where they changed, and all of each that stands there. */
function topsTouched(before: Scene, scene: Scene, ground: readonly Rect[], changed: Changed): Rect[] {
  let areas = [...ground, ...changed.tops];
  for (const kind of ['plot', 'run', 'tree', 'planting'] as const)
    for (const id of Object.keys(scene[kind])) {
      // Of walls only a ring stands level on what is highest under it.
      if (kind === 'run' && scene.run[id].ring === null) continue;
      const reach = influenceOf(scene, kind, id);
      if (!reach) continue;
      const touching = ground.filter((rect) => intersection(rect, reach));
      if (touching.length === 0) continue;
      if (kind !== 'planting') areas.push(reach);
      else {
        const widest = Math.max(...scene.planting[id].mix.map(({ crown }) => crown));
        areas = [...areas, ...touching.map((rect) => grown(rect, widest))];
      }
    }
  if (areas.length === 0 && before.deck === scene.deck && before.cavity === scene.cavity) return areas;
  // What names a thing to stand on moves with it, wherever it is.
  for (const kind of STANDING_KINDS)
    for (const thing of listOf(scene, kind)) {
      const reach = standingOf(thing) === null ? null : influenceOf(scene, kind, thing.id);
      if (reach) areas.push(reach);
    }
  return areas;
}

const areaOf = (rects: readonly Rect[]) => rects.reduce((sum, { w, d }) => sum + w * d, 0);

/** Calls `visit` with the array range of each row of a shape's studs that lies on the relief. */
function eachRun(relief: Rect, shape: Rect, visit: (from: number, to: number) => void): void {
  const studs = studsIn(shape);
  const from = Math.max(studs.x, relief.x) - relief.x;
  const to = Math.min(studs.x + studs.w, relief.x + relief.w) - relief.x;
  if (from >= to) return;
  const last = Math.min(studs.y + studs.d, relief.y + relief.d) - relief.y;
  for (let row = Math.max(studs.y, relief.y) - relief.y; row < last; row++)
    visit(row * relief.w + from, row * relief.w + to);
}

/** Index of a stud in the relief's arrays, or −1 outside its bounding box. */
export function indexAt(relief: Rect, x: number, y: number): number {
  const column = Math.floor(x) - relief.x;
  const row = Math.floor(y) - relief.y;
  return column < 0 || row < 0 || column >= relief.w || row >= relief.d ? -1 : row * relief.w + column;
}

/** The middle of a stud on the plan, by its index in the relief's arrays. */
export const studMiddle = ({ x, y, w }: Rect, index: number): { x: number; y: number } => ({
  x: x + (index % w) + 0.5,
  y: y + Math.trunc(index / w) + 0.5,
});

/** The ground's name at an index: one of GROUNDS, “bare” where nothing lies, or null outside the footprint. */
export function groundAt(relief: Raster, index: number): Ground | 'bare' | null {
  if (index < 0 || relief.ground[index] === OUTSIDE) return null;
  return relief.ground[index] === BARE ? 'bare' : GROUNDS[relief.ground[index]];
}

/** What the ground at an index is judged as: its own name, or what a custom ground is like. */
export function fixedGroundAt(
  scene: Pick<Scene, 'customGround'>,
  relief: Raster,
  index: number,
): FixedGround | 'bare' | null {
  const ground = groundAt(relief, index);
  return ground === null || ground === 'bare' ? ground : fixedGround(scene, ground);
}

/** How many studs of a ground there are: on the ground itself, and on decks and bridges over it. */
export function studsOfGround(relief: Relief, ground: Ground): number {
  const code = GROUNDS.indexOf(ground);
  let studs = 0;
  for (const own of relief.ground) if (own === code) studs++;
  for (const slab of relief.slabs)
    eachStudOf(slab, (k) => {
      if (slab.ground[k] === code && slab.kind !== 'cavity') studs++;
    });
  return studs;
}

/** For each ground code whether it is judged as water. */
export function waterCodes(scene: Pick<Scene, 'customGround'>): Uint8Array {
  const codes = new Uint8Array(256);
  GROUNDS.forEach((ground, code) => {
    if (fixedGround(scene, ground) === 'water') codes[code] = 1;
  });
  return codes;
}

/** What is uppermost on a stud; null for bare ground and outside. */
export function ownerAt(relief: Relief, index: number): { kind: Kind; id: string } | null {
  return index < 0 ? null : (relief.things[relief.owner[index] - 1] ?? null);
}

/** Lowest and highest ground under a shape, plates; null when none of its studs lies on the footprint. */
export function heightRange(relief: Raster, shape: Rect): { low: number; high: number } | null {
  let low = 32_767;
  let high = -32_768;
  eachRun(relief, shape, (from, to) => {
    for (let i = from; i < to; i++)
      if (relief.ground[i] !== OUTSIDE) {
        low = Math.min(low, relief.height[i]);
        high = Math.max(high, relief.height[i]);
      }
  });
  return low > high ? null : { low, high };
}
