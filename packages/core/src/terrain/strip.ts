import type { Rect } from '../grid/index.ts';
import { TIE, type Point } from './shape.ts';

// Lines with a width: ways, streams, track beds, walls.

/** A point of a line: how far from its beginning, studs, and where. */
export interface Station extends Point {
  along: number;
}

/** Stations along a line, at most `step` studs apart; every point of the line is one. */
export function stationsOf(points: readonly Point[], step = 1): Station[] {
  const stations: Station[] = [{ x: points[0].x, y: points[0].y, along: 0 }];
  let along = 0;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    const parts = Math.max(1, Math.ceil(length / step));
    for (let part = 1; part <= parts; part++) {
      const share = part / parts;
      stations.push({
        x: a.x + (b.x - a.x) * share,
        y: a.y + (b.y - a.y) * share,
        along: along + length * share,
      });
    }
    along += length;
  }
  return stations;
}

/** Points of a line with how far each is from its beginning, studs. */
export function withAlong<P extends Point>(line: readonly P[]): (P & { along: number })[] {
  let along = 0;
  return line.map((point, i) => {
    if (i > 0) along += Math.hypot(point.x - line[i - 1].x, point.y - line[i - 1].y);
    return { ...point, along };
  });
}

/** The place at a distance along a line, and the direction there in radians (0 east, clockwise). */
export function atAlong(points: readonly Point[], along: number): Point & { angle: number } {
  let rest = Math.max(0, along);
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    if (rest <= length || i === points.length - 1) {
      const share = length === 0 ? 0 : Math.min(1, rest / length);
      return {
        x: a.x + (b.x - a.x) * share,
        y: a.y + (b.y - a.y) * share,
        angle: Math.atan2(b.y - a.y, b.x - a.x),
      };
    }
    rest -= length;
  }
  return { x: points[0].x, y: points[0].y, angle: 0 };
}

/**
 * Calls `visit` once for each stud of a window whose centre lies within half a width of a line, with how far along
 * the line its nearest point is and how far off it lies, studs. Ends are cut square, bends are rounded; of a
 * straight piece the left border belongs to it and the right one does not, so that a strip of n studs is n wide.
 */
export function eachStripStud(
  points: readonly Point[],
  half: number,
  window: Rect,
  visit: (x: number, y: number, along: number, off: number) => void,
): void {
  const xs = points.map(({ x }) => x);
  const ys = points.map(({ y }) => y);
  const west = Math.max(window.x, Math.floor(Math.min(...xs) - half));
  const north = Math.max(window.y, Math.floor(Math.min(...ys) - half));
  const w = Math.min(window.x + window.w, Math.ceil(Math.max(...xs) + half)) - west;
  const d = Math.min(window.y + window.d, Math.ceil(Math.max(...ys) + half)) - north;
  if (w <= 0 || d <= 0) return;
  const off = new Float64Array(w * d).fill(Infinity);
  const along = new Float64Array(w * d);
  let begun = 0;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const length = Math.hypot(dx, dy);
    if (length === 0) continue;
    const [ux, uy] = [dx / length, dy / length];
    const bends = i < points.length - 1;
    const x0 = Math.max(0, Math.floor(Math.min(a.x, b.x) - half) - west);
    const x1 = Math.min(w, Math.ceil(Math.max(a.x, b.x) + half) - west);
    const y0 = Math.max(0, Math.floor(Math.min(a.y, b.y) - half) - north);
    const y1 = Math.min(d, Math.ceil(Math.max(a.y, b.y) + half) - north);
    for (let row = y0; row < y1; row++)
      for (let column = x0; column < x1; column++) {
        const px = west + column + 0.5 - a.x;
        const py = north + row + 0.5 - a.y;
        const t = px * ux + py * uy;
        const side = px * uy - py * ux;
        const at = row * w + column;
        let distance: number;
        if (t >= -TIE && t < length - TIE && side > TIE - half && side <= half + TIE)
          distance = Math.abs(side);
        else if (bends && t >= length - TIE) {
          distance = Math.hypot(px - dx, py - dy);
          if (distance >= half - TIE) continue;
        } else continue;
        if (distance >= off[at] - TIE) continue;
        off[at] = distance;
        along[at] = begun + Math.min(t, length);
      }
    begun += length;
  }
  for (let row = 0; row < d; row++)
    for (let column = 0; column < w; column++) {
      const at = row * w + column;
      if (off[at] < Infinity) visit(west + column, north + row, along[at], off[at]);
    }
}

/** Corners of a straight strip, cut square at its ends. */
export function stripCorners(a: Point, b: Point, wide: number): Point[] {
  const length = Math.hypot(b.x - a.x, b.y - a.y) || 1;
  const [u, v] = [((b.x - a.x) / length) * (wide / 2), ((b.y - a.y) / length) * (wide / 2)];
  return [
    { x: a.x + v, y: a.y - u },
    { x: b.x + v, y: b.y - u },
    { x: b.x - v, y: b.y + u },
    { x: a.x - v, y: a.y + u },
  ];
}
