import type { Rect } from '@quarry/core/grid';
import { BARE, OUTSIDE, type Contour, type Relief } from '@quarry/core/terrain';
import { GROUNDS, type Ground, type Scene } from '@quarry/core/document';
import type { Tile } from '../workers/tiles.ts';
import type { CompiledGround as TiledGround } from '../workers/useDerived.ts';
import { groundTint, hatchOf, type Palette } from './palette.ts';

/** The ground of one tile, ready to be drawn at any zoom: paths in studs. */
interface TileArt extends Rect {
  hatches: { path: Path2D; ground: Ground }[];
  /** Borders between one ground and another, and of the footprint. */
  borders: Path2D;
  outline: Path2D;
  /** `path` turns its corners softly, `exact` follows the stud edges: for a far and a near look. */
  contours: { path: Path2D; exact: Path2D; index: boolean }[];
  labels: Label[];
}

/** The height of an index contour, bricks, where it is written. */
interface Label {
  text: string;
  x: number;
  y: number;
  length: number;
}

/** The ground of one relief: its tiles, the tints as one pixel a stud, and the hatches they are filled with. */
export interface GroundArt {
  relief: Relief;
  palette: Palette;
  /** The descriptions of custom grounds it was drawn with. */
  own: Scene['customGround'];
  tint: HTMLCanvasElement | null;
  tiles: readonly TileArt[];
  patterns: Map<Ground, CanvasPattern>;
}

const known = new WeakMap<Tile, TileArt>();

/** @param before the art drawn last: what did not change since is taken over */
export function groundArt(
  { relief, tiles }: TiledGround,
  scene: Pick<Scene, 'customGround'>,
  palette: Palette,
  before: GroundArt | null,
): GroundArt {
  const follows =
    before !== null &&
    before.palette === palette &&
    before.own === scene.customGround &&
    (['x', 'y', 'w', 'd'] as const).every((side) => before.relief[side] === relief[side]);
  const fresh = follows ? tiles.filter((tile) => !known.has(tile)) : tiles;
  const tint = follows ? before.tint : blankTint(relief);
  if (tint) paintTint(tint, relief, fresh, scene, palette);
  const art = tiles.map((tile) => {
    const drawn = known.get(tile) ?? tileArt(relief, tile);
    known.set(tile, drawn);
    return drawn;
  });
  return {
    ...{ relief, palette, tint, own: scene.customGround },
    tiles: art,
    patterns: follows ? before.patterns : patternsOf(scene, palette),
  };
}

function patternsOf(scene: Pick<Scene, 'customGround'>, palette: Palette): Map<Ground, CanvasPattern> {
  return new Map(
    GROUNDS.flatMap((ground): [Ground, CanvasPattern][] => {
      const pattern = hatchOf(ground, scene, palette);
      return pattern ? [[ground, pattern]] : [];
    }),
  );
}

function tileArt(relief: Relief, tile: Tile): TileArt {
  const { x, y, w, d } = tile;
  const drawn = tile.contours.map(contourArt);
  return {
    ...{ x, y, w, d },
    hatches: [...GROUNDS.entries()].flatMap(([code, ground]) => {
      const path = areaOf(relief, tile, code);
      return path ? [{ path, ground }] : [];
    }),
    ...bordersOf(relief, tile),
    contours: drawn,
    labels: drawn.flatMap(({ label }) => (label ? [label] : [])),
  };
}

function blankTint({ w, d }: Relief): HTMLCanvasElement | null {
  if (w === 0 || d === 0) return null;
  const canvas = document.createElement('canvas');
  canvas.width = w;
  canvas.height = d;
  return canvas;
}

function paintTint(
  canvas: HTMLCanvasElement,
  relief: Relief,
  tiles: readonly Rect[],
  scene: Pick<Scene, 'customGround'>,
  palette: Palette,
): void {
  const ctx = canvas.getContext('2d');
  if (!ctx) return;
  const own = [...GROUNDS, 'bare' as const]
    .map((name) => groundTint(palette, scene, name))
    .map((tint) => (tint === null ? null : pixelOf(tint)));
  const tints = palette.tints.map(pixelOf);
  for (const { x, y, w, d } of tiles) {
    const image = ctx.createImageData(w, d);
    const pixels = new Uint32Array(image.data.buffer);
    for (let row = 0; row < d; row++)
      for (let column = 0; column < w; column++) {
        const i = (y - relief.y + row) * relief.w + x - relief.x + column;
        const code = relief.ground[i] ?? OUTSIDE;
        if (code === OUTSIDE) continue;
        const fixed = own[code === BARE ? GROUNDS.length : code];
        // One tint for each three bricks above datum.
        const step = Math.min(tints.length - 1, Math.max(0, Math.trunc(((relief.height[i] ?? 0) - 9) / 9)));
        pixels[row * w + column] = fixed ?? tints[step] ?? 0;
      }
    ctx.putImageData(image, x - relief.x, y - relief.y);
  }
}

/** `#rrggbb` as a little-endian RGBA pixel. */
function pixelOf(colour: string): number {
  const rgb = Number.parseInt(colour.slice(1), 16);
  return (0xff000000 | ((rgb & 0xff) << 16) | (rgb & 0xff00) | (rgb >> 16)) >>> 0;
}

/** The studs of one ground as few rectangles: runs of a row, carried down while the next row has the same run. */
function areaOf(relief: Relief, tile: Rect, code: number): Path2D | null {
  const { x, y, w, d } = tile;
  const path = new Path2D();
  let open = new Map<number, { to: number; from: number; row: number }>();
  let any = false;
  const shut = (runs: Iterable<{ from: number; to: number; row: number }>, row: number) => {
    for (const run of runs) path.rect(x + run.from, y + run.row, run.to - run.from, row - run.row);
  };
  for (let row = 0; row <= d; row++) {
    const next: typeof open = new Map();
    const first = (y - relief.y + row) * relief.w + x - relief.x;
    for (let column = 0; row < d && column < w; column++) {
      if (relief.ground[first + column] !== code) continue;
      const from = column;
      while (column < w && relief.ground[first + column] === code) column++;
      const before = open.get(from);
      const same = before?.to === column ? before : null;
      if (same) open.delete(from);
      next.set(from, same ?? { from, to: column, row });
      any = true;
    }
    shut(open.values(), row);
    open = next;
  }
  return any ? path : null;
}

/** The borders on the west and north sides of a tile's studs; at the relief's end on the others too. */
function bordersOf(relief: Relief, tile: Rect): { borders: Path2D; outline: Path2D } {
  const borders = new Path2D();
  const outline = new Path2D();
  const at = (column: number, row: number) =>
    column < 0 || row < 0 || column >= relief.w || row >= relief.d
      ? OUTSIDE
      : (relief.ground[row * relief.w + column] ?? OUTSIDE);
  const kind = (a: number, b: number) =>
    a === b ? null : a === OUTSIDE || b === OUTSIDE ? outline : borders;
  const x0 = tile.x - relief.x;
  const y0 = tile.y - relief.y;
  const x1 = x0 + tile.w;
  const y1 = y0 + tile.d;
  for (let row = y0; row <= (y1 === relief.d ? y1 : y1 - 1); row++)
    for (let column = x0; column < x1;) {
      const north = kind(at(column, row - 1), at(column, row));
      const from = column;
      do column++;
      while (column < x1 && kind(at(column, row - 1), at(column, row)) === north);
      north?.moveTo(relief.x + from, relief.y + row);
      north?.lineTo(relief.x + column, relief.y + row);
    }
  for (let column = x0; column <= (x1 === relief.w ? x1 : x1 - 1); column++)
    for (let row = y0; row < y1;) {
      const west = kind(at(column - 1, row), at(column, row));
      const from = row;
      do row++;
      while (row < y1 && kind(at(column - 1, row), at(column, row)) === west);
      west?.moveTo(relief.x + column, relief.y + from);
      west?.lineTo(relief.x + column, relief.y + row);
    }
  return { borders, outline };
}

/** How far from a corner a contour starts to turn, studs: enough to make stairs of studs a line, little enough to stay true. */
const TURN = 0.75;

function contourArt({
  height,
  index,
  lines,
}: Contour): TileArt['contours'][number] & { label: Label | null } {
  const path = new Path2D();
  const exact = new Path2D();
  let longest: { length: number; x: number; y: number } | null = null;
  for (const line of lines) {
    const count = line.length / 2;
    const closed = line[0] === line[line.length - 2] && line[1] === line[line.length - 1];
    let length = 0;
    const corner = (i: number) => ({ x: line[2 * i] ?? 0, y: line[2 * i + 1] ?? 0 });
    const toward = (from: { x: number; y: number }, to: { x: number; y: number }) => {
      const distance = Math.hypot(to.x - from.x, to.y - from.y) || 1;
      const share = Math.min(0.5, TURN / distance);
      return { x: from.x + (to.x - from.x) * share, y: from.y + (to.y - from.y) * share };
    };
    const start = corner(0);
    const first = closed ? toward(start, corner(1)) : start;
    path.moveTo(first.x, first.y);
    exact.moveTo(start.x, start.y);
    for (let i = 1; i < count; i++) {
      const here = corner(i);
      exact.lineTo(here.x, here.y);
      const before = corner(i - 1);
      length += Math.hypot(here.x - before.x, here.y - before.y);
      const last = i === count - 1;
      if (last && !closed) {
        path.lineTo(here.x, here.y);
        break;
      }
      const into = toward(here, before);
      const out = toward(here, corner(last ? 1 : i + 1));
      path.lineTo(into.x, into.y);
      path.quadraticCurveTo(here.x, here.y, out.x, out.y);
    }
    if (index && (!longest || length > longest.length)) {
      const middle = corner(Math.trunc(count / 2));
      longest = { length, ...middle };
    }
  }
  const bricks = height / 3;
  return {
    path,
    exact,
    index,
    label: longest && longest.length > 20 ? { text: String(bricks), ...longest } : null,
  };
}
