import type { Reach } from '@quarry/core/reach';

/** Shades of a reach: past the arm in ochre, past the ladder line in iron; hatched, so that it reads without colour. */
export function reachImage(reach: Reach, ochre: string, iron: string): string | null {
  if (reach.w === 0 || reach.d === 0) return null;
  // Two dots a stud, so that a hatch of single dots is fine enough.
  const canvas = document.createElement('canvas');
  canvas.width = reach.w * 2;
  canvas.height = reach.d * 2;
  const ctx = canvas.getContext('2d');
  if (!ctx) return null;
  const image = ctx.createImageData(canvas.width, canvas.height);
  const [far, farther] = [rgb(ochre), rgb(iron)];
  for (let y = 0; y < canvas.height; y++)
    for (let x = 0; x < canvas.width; x++) {
      const distance = reach.distance[(y >> 1) * reach.w + (x >> 1)];
      if (!(distance > reach.arm)) continue;
      const past = distance > reach.ladder;
      // Sparse strokes one way past the arm, dense ones both ways past the ladder line.
      const stroke = (x + y) % 8 === 0 || (past && (x - y + canvas.height) % 8 === 0);
      const at = 4 * (y * canvas.width + x);
      const [r, g, b] = past ? farther : far;
      image.data.set([r, g, b, stroke ? 255 : past ? 90 : 60], at);
    }
  ctx.putImageData(image, 0, 0);
  return canvas.toDataURL();
}

function rgb(hex: string): [number, number, number] {
  const value = Number.parseInt(hex.slice(1), 16);
  return [value >> 16, (value >> 8) & 255, value & 255];
}
