import { BARE, OUTSIDE, type Contour, type Relief } from '@quarry/core/relief';
import { GROUNDS } from '@quarry/core/scene';
import { groundTint, hatchOf, type Palette } from './palette.ts';

/** The ground of one relief, ready to be drawn at any zoom: paths in studs, tints as one pixel a stud. */
export interface GroundArt {
  relief: Relief;
  tint: HTMLCanvasElement | null;
  hatches: { path: Path2D; pattern: CanvasPattern }[];
  /** Borders between one ground and another, and of the footprint. */
  borders: Path2D;
  outline: Path2D;
  /** `path` turns its corners softly, `exact` follows the stud edges: for a far and a near look. */
  contours: {
    path: Path2D;
    exact: Path2D;
    index: boolean;
    label: { text: string; x: number; y: number } | null;
  }[];
}

export function groundArt(relief: Relief, contours: readonly Contour[], palette: Palette): GroundArt {
  const hatches = [...GROUNDS.entries()].flatMap(([code, ground]) => {
    const pattern = hatchOf(ground, palette);
    const path = pattern && areaOf(relief, code);
    return pattern && path ? [{ path, pattern }] : [];
  });
  return {
    relief,
    tint: tintOf(relief, palette),
    hatches,
    ...bordersOf(relief),
    contours: contours.map(contourArt),
  };
}

function tintOf(relief: Relief, palette: Palette): HTMLCanvasElement | null {
  const { w, d, ground, height } = relief;
  if (w === 0 || d === 0) return null;
  const canvas = document.createElement('canvas');
  canvas.width = w;
  canvas.height = d;
  const ctx = canvas.getContext('2d');
  if (!ctx) return null;
  const image = ctx.createImageData(w, d);
  const pixels = new Uint32Array(image.data.buffer);
  const own = [...GROUNDS, 'bare' as const]
    .map((name) => groundTint(palette, name))
    .map((tint) => (tint === null ? null : pixelOf(tint)));
  const tints = palette.tints.map(pixelOf);
  for (let i = 0; i < pixels.length; i++) {
    const code = ground[i];
    if (code === OUTSIDE) continue;
    const fixed = own[code === BARE ? GROUNDS.length : code];
    // One tint for each three bricks above datum.
    pixels[i] = fixed ?? tints[Math.min(tints.length - 1, Math.max(0, Math.trunc((height[i] - 9) / 9)))];
  }
  ctx.putImageData(image, 0, 0);
  return canvas;
}

/** `#rrggbb` as a little-endian RGBA pixel. */
function pixelOf(colour: string): number {
  const rgb = Number.parseInt(colour.slice(1), 16);
  return (0xff000000 | ((rgb & 0xff) << 16) | (rgb & 0xff00) | (rgb >> 16)) >>> 0;
}

/** The studs of one ground as few rectangles: runs of a row, carried down while the next row has the same run. */
function areaOf({ x, y, w, d, ground }: Relief, code: number): Path2D | null {
  const path = new Path2D();
  let open = new Map<number, { to: number; from: number; row: number }>();
  let any = false;
  const shut = (runs: Iterable<{ from: number; to: number; row: number }>, row: number) => {
    for (const run of runs) path.rect(x + run.from, y + run.row, run.to - run.from, row - run.row);
  };
  for (let row = 0; row <= d; row++) {
    const next: typeof open = new Map();
    for (let column = 0; row < d && column < w; column++) {
      if (ground[row * w + column] !== code) continue;
      const from = column;
      while (column < w && ground[row * w + column] === code) column++;
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

function bordersOf({ x, y, w, d, ground }: Relief): { borders: Path2D; outline: Path2D } {
  const borders = new Path2D();
  const outline = new Path2D();
  const at = (column: number, row: number) =>
    column < 0 || row < 0 || column >= w || row >= d ? OUTSIDE : ground[row * w + column];
  const kind = (a: number, b: number) =>
    a === b ? null : a === OUTSIDE || b === OUTSIDE ? outline : borders;
  for (let row = 0; row <= d; row++)
    for (let column = 0; column <= w; column++) {
      // Runs along a row and a column: begin where the border begins, end where it ends.
      const north = kind(at(column, row - 1), at(column, row));
      if (north && kind(at(column - 1, row - 1), at(column - 1, row)) !== north) {
        let end = column;
        while (kind(at(end, row - 1), at(end, row)) === north) end++;
        north.moveTo(x + column, y + row);
        north.lineTo(x + end, y + row);
      }
      const west = kind(at(column - 1, row), at(column, row));
      if (west && kind(at(column - 1, row - 1), at(column, row - 1)) !== west) {
        let end = row;
        while (kind(at(column - 1, end), at(column, end)) === west) end++;
        west.moveTo(x + column, y + row);
        west.lineTo(x + column, y + end);
      }
    }
  return { borders, outline };
}

/** How far from a corner a contour starts to turn, studs: enough to make stairs of studs a line, little enough to stay true. */
const TURN = 0.75;

function contourArt({ height, index, lines }: Contour): GroundArt['contours'][number] {
  const path = new Path2D();
  const exact = new Path2D();
  let longest: { length: number; x: number; y: number } | null = null;
  for (const line of lines) {
    const count = line.length / 2;
    const closed = line[0] === line[line.length - 2] && line[1] === line[line.length - 1];
    let length = 0;
    const corner = (i: number) => ({ x: line[2 * i], y: line[2 * i + 1] });
    const toward = (from: { x: number; y: number }, to: { x: number; y: number }) => {
      const distance = Math.hypot(to.x - from.x, to.y - from.y) || 1;
      const share = Math.min(0.5, TURN / distance);
      return { x: from.x + (to.x - from.x) * share, y: from.y + (to.y - from.y) * share };
    };
    const first = closed ? toward(corner(0), corner(1)) : corner(0);
    path.moveTo(first.x, first.y);
    exact.moveTo(line[0], line[1]);
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
    label: longest && longest.length > 12 ? { text: String(bricks), x: longest.x, y: longest.y } : null,
  };
}
