import type { PlacedPieces, PieceSet } from './pieces.ts';

// Local search: windows of a layer are tiled again with fewer pieces, by exact search of bounded length.

/** Sides of the windows that are tiled again, and how many steps one search may take. */
const WINDOWS = [8, 12] as const;
const STEPS = 1500;
/** How many steps all searches of a layer may take. */
const BUDGET = 12_000;

/**
 * Takes the pieces that touch a window away and tiles their studs again with fewer, window after window, until none
 * gains or the layer has as few as `floor`.
 */
export function improveTiling(
  laid: PlacedPieces,
  w: number,
  d: number,
  set: PieceSet,
  floor: number,
): PlacedPieces {
  let pieces: Piece[] = [];
  let left = BUDGET;
  for (let i = 0; i < laid.length; i += 4)
    pieces.push({ x: laid[i], y: laid[i + 1], w: laid[i + 2], d: laid[i + 3] });
  for (const side of WINDOWS)
    for (let gained = true; gained && pieces.length > floor;) {
      gained = false;
      for (let y = -side / 2; y < d; y += side / 2)
        for (let x = -side / 2; x < w; x += side / 2) {
          const within = (piece: Piece) =>
            piece.x < x + side && piece.y < y + side && piece.x + piece.w > x && piece.y + piece.d > y;
          const gone = pieces.filter(within);
          if (gone.length < 2) continue;
          const fewer = fewest(gone, set, Math.min(STEPS, left));
          left -= fewer.steps;
          if (!fewer.pieces) continue;
          pieces = [...pieces.filter((piece) => !within(piece)), ...fewer.pieces];
          gained = true;
        }
    }
  const out = new Int16Array(pieces.length * 4);
  pieces.forEach((piece, i) => out.set([piece.x, piece.y, piece.w, piece.d], i * 4));
  return out;
}

interface Piece {
  x: number;
  y: number;
  w: number;
  d: number;
}

/** Covers the studs of some pieces with fewer pieces, by exact search of bounded length; null when none were found. */
function fewest(
  pieces: readonly Piece[],
  set: PieceSet,
  mostSteps: number,
): { pieces: Piece[] | null; steps: number } {
  const x0 = Math.min(...pieces.map(({ x }) => x));
  const y0 = Math.min(...pieces.map(({ y }) => y));
  const w = Math.max(...pieces.map((piece) => piece.x + piece.w)) - x0;
  const d = Math.max(...pieces.map((piece) => piece.y + piece.d)) - y0;
  const open = new Uint8Array(w * d);
  let left = 0;
  for (const piece of pieces)
    for (let y = piece.y - y0; y < piece.y - y0 + piece.d; y++) {
      open.fill(1, y * w + piece.x - x0, y * w + piece.x - x0 + piece.w);
      left += piece.w;
    }
  // As few as its area asks for: nothing to gain.
  if (Math.ceil(left / set.largest) >= pieces.length) return { pieces: null, steps: 0 };
  let best: Piece[] | null = null;
  let most = pieces.length - 1;
  let steps = 0;
  const trail: Piece[] = [];
  const search = (from: number, remaining: number): void => {
    if (remaining === 0) {
      best = trail.slice();
      most = trail.length - 1;
      return;
    }
    if (trail.length + Math.ceil(remaining / set.largest) > most || ++steps > mostSteps) return;
    let first = from;
    while (!open[first]) first++;
    const [x, y] = [first % w, Math.floor(first / w)];
    let wide = 0;
    while (x + wide < w && wide < set.longest && open[first + wide]) wide++;
    const choices: [number, number][] = [];
    for (let pw = wide; pw >= 1; pw--) {
      const deep = set.lengths[pw];
      for (const pd of deep) {
        if (y + pd > d) continue;
        let fits = true;
        for (let row = y; row < y + pd && fits; row++)
          for (let column = x; column < x + pw; column++)
            if (!open[row * w + column]) {
              fits = false;
              break;
            }
        if (fits) choices.push([pw, pd]);
      }
    }
    choices.sort((a, b) => b[0] * b[1] - a[0] * a[1]);
    for (const [pw, pd] of choices) {
      for (let row = y; row < y + pd; row++) open.fill(0, row * w + x, row * w + x + pw);
      trail.push({ x: x + x0, y: y + y0, w: pw, d: pd });
      search(first, remaining - pw * pd);
      trail.pop();
      for (let row = y; row < y + pd; row++) open.fill(1, row * w + x, row * w + x + pw);
      if (steps > mostSteps) return;
    }
  };
  search(0, left);
  return { pieces: best, steps };
}
