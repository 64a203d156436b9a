import type { Rect } from '../grid/index.ts';
import {
  wallCorners,
  listOf,
  outerCorners,
  isOverhanging,
  type Entity,
  type Plot,
  type Repeat,
  type Scene,
} from '../document/index.ts';
import { OUTSIDE, type Raster } from './rasterize.ts';
import { eachTouched, type Point } from './shape.ts';
import { membersOf, plantsOf } from './scatter.ts';
import { eachStripStud } from './strip.ts';

// What stands on the ground raises the top: buildings, walls, repeats, plants.

/** The ground with what stands on it. */
export interface PlacedObjects {
  /** The compiled ground: read only here. */
  land: Raster;
  /** Height with what stands there, plates. */
  top: Int16Array;
  /** 0: none; n: the entity at index n − 1 of `things`. */
  owner: Uint16Array;
}

interface Setting {
  to: PlacedObjects;
  window: Rect;
  owner: number;
}

function raise({ to, owner }: Setting, i: number, top: number): void {
  if (to.land.ground[i] === OUTSIDE || top <= to.top[i]) return;
  to.top[i] = top;
  to.owner[i] = owner;
}

const indexOf = ({ x, y, w }: Raster, column: number, row: number) => (row - y) * w + column - x;

/** The studs of each row that a plot's turned walls touch. */
export function eachPlotSpan(
  plot: Pick<Plot, 'x' | 'y' | 'w' | 'd' | 'turn'>,
  window: Rect,
  visit: (row: number, from: number, to: number) => void,
): void {
  eachTouched(wallCorners(plot), window, visit);
}

/** A building stands on the highest ground under it. A later one covers an earlier one; what stands out lies over both. */
export function placePlot({ to, window, owner }: Setting, plot: Plot): void {
  const { land } = to;
  let ground = -32_768;
  eachPlotSpan(plot, land, (row, from, end) => {
    for (let i = indexOf(land, from, row); i < indexOf(land, end, row); i++)
      if (land.ground[i] !== OUTSIDE) ground = Math.max(ground, land.height[i]);
  });
  eachPlotSpan(plot, window, (row, from, end) => {
    for (let i = indexOf(land, from, row); i < indexOf(land, end, row); i++)
      if (land.ground[i] !== OUTSIDE) {
        to.top[i] = ground + plot.height;
        to.owner[i] = owner;
      }
  });
  if (!isOverhanging(plot)) return;
  eachTouched(outerCorners(plot), window, (row, from, end) => {
    for (let i = indexOf(land, from, row); i < indexOf(land, end, row); i++)
      raise({ to, window, owner }, i, ground + plot.height);
  });
}

/** A wall or fence stands on the ground along its line. */
export function placeRun(setting: Setting, run: Entity<'run'>): void {
  const { land } = setting.to;
  eachStripStud(run.points, Math.max(0.5, run.thick / 2), setting.window, (x, y) => {
    const i = indexOf(land, x, y);
    raise(setting, i, land.height[i] + run.height);
  });
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
      raise(setting, i, land.height[i] + repeat.height);
    });
  }
}

/** A plant: its crown as wide as it is, as high as it stands above the ground at its stem. */
export function placePlant(
  setting: Setting,
  { x, y, height, crown }: { x: number; y: number; height: number; crown: number },
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
  const top = land.height[i] + height;
  raiseDisc(setting, { x, y }, crown / 2, top);
}

function raiseDisc(setting: Setting, { x, y }: Point, radius: number, top: number): void {
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
        raise(setting, indexOf(to.land, column, row), top);
}

type Stander = 'plot' | 'run' | 'repeat' | 'planting' | 'tree';

/** All that stands and touches a window, in order: buildings by id, then walls, repeats, plantings, trees. */
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
      if (touches(kind, thing.id)) stand({ to, window, owner: ownerOf(kind, thing.id) }, thing);
  };
  each('plot', placePlot);
  each('run', placeRun);
  each('repeat', (setting, repeat) => placeRepeat(setting, repeat, modules));
  each('planting', (setting, planting) => {
    for (const plant of plantsOf(planting)) placePlant(setting, plant);
  });
  each('tree', placePlant);
}
