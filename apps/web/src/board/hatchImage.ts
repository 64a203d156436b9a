import type { Rect } from '@quarry/core/grid';
import { runsEast, type Side } from '@quarry/core/document';

/** How a stud is hatched: not, sparsely one way, or densely both ways, so that it reads without colour. */
export type HatchLevel = 0 | 1 | 2;

/** Hatched studs as a picture of two dots a stud: level 1 in the first colour, level 2 in the second; null for no studs. */
export function hatchImage(
  { w, d }: { w: number; d: number },
  levelOf: (i: number) => HatchLevel,
  sparse: string,
  dense: string,
): HTMLCanvasElement | null {
  if (w === 0 || d === 0) return null;
  const canvas = document.createElement('canvas');
  canvas.width = w * 2;
  canvas.height = d * 2;
  const ctx = canvas.getContext('2d');
  if (!ctx) return null;
  const image = ctx.createImageData(canvas.width, canvas.height);
  const colours = { 1: rgb(sparse), 2: rgb(dense) };
  for (let y = 0; y < canvas.height; y++)
    for (let x = 0; x < canvas.width; x++) {
      const level = levelOf((y >> 1) * w + (x >> 1));
      if (level === 0) continue;
      const isStroke = (x + y) % 8 === 0 || (level === 2 && (x - y + canvas.height) % 8 === 0);
      const [r, g, b] = colours[level];
      image.data.set([r, g, b, isStroke ? 255 : level === 2 ? 90 : 60], 4 * (y * canvas.width + x));
    }
  ctx.putImageData(image, 0, 0);
  return canvas;
}

/** Strokes along sides of studs, on a picture that `hatchImage` made: dashes, half a stud wide. */
export function strokeFaces(
  canvas: HTMLCanvasElement,
  { x: west, y: north }: { x: number; y: number },
  faces: readonly (Rect & { side: Side })[],
  colour: string,
): void {
  const ctx = canvas.getContext('2d');
  if (!ctx) return;
  ctx.fillStyle = colour;
  for (const { side, x, y, w, d } of faces) {
    const [left, top] = [2 * (x - west), 2 * (y - north)];
    const long = 2 * Math.max(w, d);
    for (let at = 0; at < long; at += 4) {
      const dash = Math.min(3, long - at);
      if (runsEast(side)) ctx.fillRect(left + at, top + (side === 's' ? 1 : 0), dash, 1);
      else ctx.fillRect(left + (side === 'e' ? 1 : 0), top + at, 1, dash);
    }
  }
}

function rgb(hex: string): [number, number, number] {
  const value = Number.parseInt(hex.slice(1), 16);
  return [value >> 16, (value >> 8) & 255, value & 255];
}
