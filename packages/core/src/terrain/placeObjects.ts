import type { Rect } from '../grid/index.ts';
import {
  listOf,
  leaningSlices,
  outerCorners,
  builtCorners,
  PAVEMENT_PLATES,
  pavementCorners,
  runHigh,
  isOverhanging,
  standingOf,
  type Entity,
  type Plot,
  type Repeat,
  type Scene,
  wallLine,
  wallStraights,
} from '../document/index.ts';
import { OUTSIDE, type Raster } from './rasterize.ts';
import { eachTouched, type Point } from './shape.ts';
import { membersOf, plantsOf } from './scatter.ts';
import { footHeights, namedFoot, standsOn, wallFoot, type SurfaceRaster } from './stand.ts';
import { eachStripStud } from './strip.ts';
import { acrossWall, halfThick, hasBlocks, wallBlocks } from './wallRuns.ts';

// What stands on the ground raises the top: buildings, walls, repeats, plants.

/** What stands is put on a ground stud by stud. */
export interface PlacedObjects {
  /** The compiled ground: read only here. */
  land: SurfaceRaster;
  /**
   * Takes a solid piece over a stud of the footprint.
   * @param i index of the stud @param owner the number of what stands there
   * @param covers it lies over what was put there before, though that be higher
   */
  put(i: number, from: number, to: number, owner: number, covers?: boolean): void;
}

interface Setting {
  scene: Scene;
  to: PlacedObjects;
  window: Rect;
  owner: number;
}

function put({ to, owner }: Setting, i: number, from: number, top: number, covers = false): void {
  if (to.land.ground[i] !== OUTSIDE) to.put(i, from, top, owner, covers);
}

/** Writes what is uppermost, and who it is. @param top height of each stud, plates @param owner numbers of things */
export const uppermost = (land: SurfaceRaster, top: Int16Array, owner: Uint16Array): PlacedObjects => ({
  land,
  put(i, _from, to, number, covers = false) {
    if (!covers && to <= top[i]) return;
    top[i] = to;
    owner[i] = number;
  },
});

const indexOf = ({ x, y, w }: Raster, column: number, row: number) => (row - y) * w + column - x;

/**
 * A building stands on what it names or on the highest surface under it. A later one covers an earlier one; what stands
 * out lies over both.
 */
export function placePlot(setting: Setting, plot: Plot): void {
  const { to, window, scene } = setting;
  const { land } = to;
  const ground = standsOn(scene, land, plot);
  if (ground === null) return;
  const covers = standingOf(plot) === null;
  const out = isOverhanging(plot);
  const begins = ground + (out ? 0 : plot.overhangFrom);
  const fill = (corners: readonly Point[], low: number, high: number, isAll: boolean) =>
    eachTouched(corners, window, (row, from, end) => {
      for (let i = indexOf(land, from, row); i < indexOf(land, end, row); i++)
        put(setting, i, low, high, isAll);
    });
  const slices = plot.lean > 0 ? leaningSlices(plot) : [];
  if (slices.length === 0) fill(builtCorners(plot), begins, ground + plot.height, covers);
  const pavement = pavementCorners(plot);
  if (pavement) fill(pavement, ground, ground + PAVEMENT_PLATES, false);
  for (const { corners, from, to } of slices) fill(corners, ground + from, ground + to, false);
  if (!out) return;
  fill(outerCorners(plot), ground + plot.overhangFrom, ground + plot.height, false);
}

/** A wall or fence stands along its line on what it names, or on the surface there; a fence on it over its middle. */
export function placeRun(setting: Setting, run: Entity<'run'>): void {
  const { land } = setting.to;
  const named = wallFoot(setting.scene, land, run);
  const heights = footHeights(land, run);
  const each = (half: number, solidAt: (i: number) => readonly Span[]) =>
    eachStripStud(wallLine(run), half, setting.window, (x, y) => {
      const i = indexOf(land, x, y);
      const foot = named ?? heights[i];
      for (const { low, high } of solidAt(i)) put(setting, i, foot + low, foot + high);
    });
  const whole = [{ low: 0, high: run.height }];
  const pierced = hasBlocks(run) ? piercedStuds(setting, run) : null;
  each(halfThick(run), (i) => pierced?.get(i) ?? whole);
  const high = runHigh(run);
  if (high > run.height) each(0.5, () => [{ low: run.height, high }]);
}

/** What is solid over a stud, plates above the foot of a wall. */
interface Span {
  low: number;
  high: number;
}

/** What a wall is over each stud of its straight pieces where it has arches or openings, each span once, from below. */
function piercedStuds({ to: { land }, window }: Setting, run: Entity<'run'>): Map<number, Span[]> {
  const studs = new Map<number, Span[]>();
  for (const straight of wallStraights(run)) {
    const blocks = wallBlocks(run, straight).filter(({ low }) => low < run.height);
    eachStripStud([straight.from, straight.to], halfThick(run), window, (x, y, along) => {
      const across = acrossWall(run, straight, { x: x + 0.5, y: y + 0.5 });
      const inside = Math.min(Math.max(0, across), run.thick - TINY);
      const here = blocks.filter(
        ({ from, to, near, far }) => from <= along && along < to && near <= inside && inside < far,
      );
      const i = indexOf(land, x, y);
      studs.set(i, joined([...(studs.get(i) ?? []), ...here]));
    });
  }
  return studs;
}
const TINY = 1e-6;

/** Spans that touch or overlap as one, from below. */
function joined(spans: readonly Span[]): Span[] {
  const apart: Span[] = [];
  for (const { low, high } of spans.toSorted((a, b) => a.low - b.low)) {
    const last = apart.at(-1);
    if (last && low <= last.high) last.high = Math.max(last.high, high);
    else apart.push({ low, high });
  }
  return apart;
}

/** The members of a repeat, each as long along the line as it is and a stud deep. */
export function placeRepeat(setting: Setting, repeat: Repeat, modules: readonly Rect[]): void {
  const { land } = setting.to;
  for (const { x, y, angle } of membersOf(repeat, modules).members) {
    const [u, v] = [(Math.cos(angle) * repeat.length) / 2, (Math.sin(angle) * repeat.length) / 2];
    const ends: Point[] = [
      { x: x - u, y: y - v },
      { x: x + u, y: y + v },
    ];
    eachStripStud(ends, 0.5, setting.window, (column, row) => {
      const i = indexOf(land, column, row);
      put(setting, i, land.surface[i], land.surface[i] + repeat.height);
    });
  }
}

/** A plant: its crown as wide as it is, as high as it stands above what is at its stem. @param foot where it names that, plates */
export function placePlant(
  setting: Setting,
  { x, y, height, crown }: { x: number; y: number; height: number; crown: number },
  foot: number | null,
  heights = setting.to.land.surface,
): void {
  const { land } = setting.to;
  const stem = { column: Math.floor(x), row: Math.floor(y) };
  if (
    stem.column < land.x ||
    stem.row < land.y ||
    stem.column >= land.x + land.w ||
    stem.row >= land.y + land.d
  )
    return;
  const i = indexOf(land, stem.column, stem.row);
  if (land.ground[i] === OUTSIDE) return;
  const from = foot ?? heights[i];
  putDisc(setting, { x, y }, crown / 2, from, from + height);
}

function putDisc(setting: Setting, { x, y }: Point, radius: number, from: number, top: number): void {
  const { window, to } = setting;
  const reach = Math.max(radius, 0.5);
  for (
    let row = Math.max(window.y, Math.floor(y - reach));
    row < Math.min(window.y + window.d, Math.ceil(y + reach));
    row++
  )
    for (
      let column = Math.max(window.x, Math.floor(x - reach));
      column < Math.min(window.x + window.w, Math.ceil(x + reach));
      column++
    )
      if (Math.hypot(column + 0.5 - x, row + 0.5 - y) <= reach)
        put(setting, indexOf(to.land, column, row), from, top);
}

type Stander = 'plot' | 'run' | 'repeat' | 'planting' | 'tree';

/**
 * All that stands and touches a window, in order: buildings by id, those on other buildings last; then walls, repeats,
 * plantings, trees.
 */
export function placeObjects(
  scene: Scene,
  to: PlacedObjects,
  window: Rect,
  ownerOf: (kind: Stander, id: string) => number,
  touches: (kind: Stander, id: string) => boolean,
): void {
  const modules = listOf(scene, 'module');
  const each = <K extends Stander>(kind: K, stand: (setting: Setting, thing: Entity<K>) => void) => {
    for (const thing of listOf(scene, kind))
      if (touches(kind, thing.id)) stand({ scene, to, window, owner: ownerOf(kind, thing.id) }, thing);
  };
  each('plot', (setting, plot) => (plot.onPlot === null ? placePlot(setting, plot) : undefined));
  each('plot', (setting, plot) => (plot.onPlot === null ? undefined : placePlot(setting, plot)));
  each('run', placeRun);
  each('repeat', (setting, repeat) => placeRepeat(setting, repeat, modules));
  each('planting', (setting, planting) => {
    for (const plant of plantsOf(planting)) placePlant(setting, plant, null);
  });
  each('tree', (setting, tree) =>
    placePlant(setting, tree, namedFoot(scene, to.land, tree, tree), footHeights(to.land, tree)),
  );
}
