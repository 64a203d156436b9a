import { rememberFor } from '../grid/index.ts';
import { paintPieceIds, pieceSet, type PlacedPieces, type PieceSet } from './pieces.ts';
import { improveTiling } from './localSearch.ts';

// Covering a layer with pieces: exactly, with few of them, and so that the joints below are bridged.
//
// A layer is a mask of studs, row-major. It is laid in bands: runs of full columns are cut along by dynamic
// programming, least pieces first and, among equals, fewest joints over joints. Both directions and several phases
// of the bands are tried; on small layers, windows are then tiled again by exact search.

/**
 * The joints of what a layer lies on: for each stud, how much it matters that the joint before it (to its west, to
 * its north) is bridged; 0 where there is none. A joint that has run through several layers matters more.
 */
export interface Joints {
  west: Uint8Array;
  north: Uint8Array;
}

/** One more piece is worth any number of joints bridged on it. */
const PIECE = 65_536;
/** Grounds of up to this many studs have their layers improved by exact search in windows. */
const SMALL = 600;
/** As the most studs of a layer that is improved: none, where many layers are laid at each change. */
export const UNSEARCHED = 0;
/** How many of the best bandings are improved so. */
const RELAID = 2;
/** Pieces of at least this many studs are worth being laid first. */
const LARGE_PIECE = 16;
/** Above this many studs fewer phases are tried. */
const LARGE = 6000;

/**
 * Covers a mask exactly.
 * @param mask 1 where a piece must lie; any set that has 1 × 1 covers every mask
 * @param below the joints it lies on; null: nothing that has joints
 * @param most studs of a layer that is improved by exact search, which takes some hundredths of a second
 * @throws RangeError when the set cannot cover the mask
 */
export function tileLayer(
  mask: Uint8Array,
  w: number,
  d: number,
  set: PieceSet,
  below: Joints | null = null,
  most = SMALL,
): PlacedPieces {
  const window = boundsOfMask(mask, w);
  if (!window) return new Int16Array(0);
  const area = window.w * window.d;
  const own = cropped(mask, w, window);
  const joints = below && { west: cropped(below.west, w, window), north: cropped(below.north, w, window) };
  const open = packed(own, window.w, window.d);
  const turned = packedTurned(own, window.w, window.d);
  const jointsTurned = joints && {
    west: transposed(joints.north, window.w, window.d),
    north: transposed(joints.west, window.w, window.d),
  };
  const step = set.depths.find((depth) => depth <= 4) ?? 1;
  const phases = area > LARGE ? [0, step / 2] : Array.from({ length: step }, (_, phase) => phase);
  // No cover can have fewer pieces than the largest would make.
  const floor = Math.ceil(open.studs / set.largest);
  const found: { laid: PlacedPieces; upright: boolean; cost: number }[] = [];
  const [mw, md] = [window.w, window.d];
  const judged = (laid: PlacedPieces, upright: boolean) => ({
    laid,
    upright,
    cost:
      (laid.length / 4) * PIECE +
      (upright ? jointsOver(laid, md, mw, jointsTurned) : jointsOver(laid, mw, md, joints)),
  });
  for (const upright of [false, true])
    for (const phase of phases) {
      const laid = upright
        ? inBands(turned, set, jointsTurned, Math.floor(phase))
        : inBands(open, set, joints, Math.floor(phase));
      if (laid) found.push(judged(laid, upright));
    }
  // Bands begin on their own steps: where the largest piece fits across them, it is laid first and the rest in bands.
  if (set.largest >= LARGE_PIECE && area >= set.largest) {
    const laid = largestFirst(own, mw, md, set, joints);
    if (laid) found.push(judged(laid, false));
  }
  if (found.length === 0) throw new RangeError(`no pieces of this set cover a layer of ${area} studs`);
  found.sort((a, b) => a.cost - b.cost);
  if (w * d <= most && found[0].laid.length / 4 > floor)
    for (const { laid, upright } of found.slice(0, RELAID)) {
      const again = upright
        ? improveTiling(laid, md, mw, set, floor)
        : improveTiling(laid, mw, md, set, floor);
      found.push(judged(again, upright));
    }
  const [first] = found.toSorted((a, b) => a.cost - b.cost);
  const best = first.upright ? swapped(first.laid) : first.laid;
  for (let i = 0; i < best.length; i += 4) {
    best[i] += window.x;
    best[i + 1] += window.y;
  }
  return best;
}

/**
 * The largest pieces of a set wherever they fit whole, then bands over what is left.
 * @returns null when they would cover less than half of it, so that it is not worth trying, or bands leave a stud
 */
function largestFirst(
  mask: Uint8Array,
  w: number,
  d: number,
  set: PieceSet,
  under: Joints | null,
): PlacedPieces | null {
  const rest = mask.slice();
  const first = tileSome(rest, w, d, largestOf(set));
  const bands = packed(rest, w, d);
  const covered = (first.length / 4) * set.largest;
  if (covered < bands.studs) return null;
  const others = inBands(bands, set, under, 0);
  if (!others) return null;
  const laid = new Int16Array(first.length + others.length);
  laid.set(first);
  laid.set(others, first.length);
  return laid;
}

/** The piece of most studs of a set, as a set of its own. */
const largestOf = rememberFor((set: PieceSet): PieceSet => {
  const size = set.has.flatMap((row, w) =>
    row.flatMap((there, d): [number, number][] => (there && w * d === set.largest ? [[w, d]] : [])),
  );
  return pieceSet(size);
});

/**
 * Lays as many large pieces as fit on whole runs of a mask, and leaves the rest open.
 * @returns the pieces; what they cover is taken out of the mask
 */
export function tileSome(mask: Uint8Array, w: number, d: number, set: PieceSet): PlacedPieces {
  const pieces = new Pieces();
  const open = packed(mask, w, d);
  const run = new Run(set, null, open);
  for (const depth of set.depths) for (let y = 0; y + depth <= d; y++) layBand(open, y, depth, run, pieces);
  const laid = pieces.done();
  for (let p = 0; p < laid.length; p += 4)
    for (let y = laid[p + 1]; y < laid[p + 1] + laid[p + 3]; y++)
      mask.fill(0, y * w + laid[p], y * w + laid[p] + laid[p + 2]);
  return laid;
}

interface Window {
  x: number;
  y: number;
  w: number;
  d: number;
}

function boundsOfMask(mask: Uint8Array, w: number): Window | null {
  const first = mask.indexOf(1);
  if (first < 0) return null;
  const y0 = Math.floor(first / w);
  const y1 = Math.floor(mask.lastIndexOf(1) / w);
  let [x0, x1] = [w, -1];
  // Only what lies further out than in the rows before is looked at.
  for (let y = y0; y <= y1; y++) {
    for (let x = 0; x < x0; x++) if (mask[y * w + x]) x0 = x;
    for (let x = w - 1; x > x1; x--) if (mask[y * w + x]) x1 = x;
  }
  return { x: x0, y: y0, w: x1 - x0 + 1, d: y1 - y0 + 1 };
}

function cropped(grid: Uint8Array, w: number, window: Window): Uint8Array {
  const out = new Uint8Array(window.w * window.d);
  for (let y = 0; y < window.d; y++) {
    const from = (window.y + y) * w + window.x;
    out.set(grid.subarray(from, from + window.w), y * window.w);
  }
  return out;
}

function transposed(grid: Uint8Array, w: number, d: number): Uint8Array {
  const out = new Uint8Array(w * d);
  for (let y = 0; y < d; y++) for (let x = 0; x < w; x++) out[x * d + y] = grid[y * w + x];
  return out;
}

function swapped(laid: PlacedPieces): PlacedPieces {
  const out = new Int16Array(laid.length);
  for (let i = 0; i < laid.length; i += 4) {
    out[i] = laid[i + 1];
    out[i + 1] = laid[i];
    out[i + 2] = laid[i + 3];
    out[i + 3] = laid[i + 2];
  }
  return out;
}

/** A growing list of pieces. */
class Pieces {
  private data = new Int16Array(256);
  length = 0;

  add(x: number, y: number, w: number, d: number): void {
    if (this.length + 4 > this.data.length) {
      const more = new Int16Array(this.data.length * 2);
      more.set(this.data);
      this.data = more;
    }
    this.data[this.length] = x;
    this.data[this.length + 1] = y;
    this.data[this.length + 2] = w;
    this.data[this.length + 3] = d;
    this.length += 4;
  }

  done = (): PlacedPieces => this.data.slice(0, this.length);
}

/** The studs of a mask, 32 to a word: bit b of word k of a row is column 32 k + b. */
interface OpenStuds {
  w: number;
  d: number;
  /** Words of a row. */
  words: number;
  bits: Uint32Array;
  /** How many there are. */
  studs: number;
}

function packed(mask: Uint8Array, w: number, d: number): OpenStuds {
  const words = Math.ceil(w / 32);
  const bits = new Uint32Array(words * d);
  let studs = 0;
  for (let y = 0; y < d; y++)
    for (let x = 0; x < w; x++)
      if (mask[y * w + x]) {
        bits[y * words + (x >>> 5)] |= 1 << (x & 31);
        studs++;
      }
  return { w, d, words, bits, studs };
}

/** The studs of a mask with rows and columns exchanged. */
function packedTurned(mask: Uint8Array, w: number, d: number): OpenStuds {
  const words = Math.ceil(d / 32);
  const bits = new Uint32Array(words * w);
  let studs = 0;
  for (let y = 0; y < d; y++) {
    const [word, bit] = [y >>> 5, 1 << (y & 31)];
    for (let x = 0; x < w; x++)
      if (mask[y * w + x]) {
        bits[x * words + word] |= bit;
        studs++;
      }
  }
  return { w: d, d: w, words, bits, studs };
}

/** Takes a run of a row's studs out. */
function close({ words, bits }: OpenStuds, y: number, from: number, to: number): void {
  for (let x = from; x < to;) {
    const next = Math.min(to, (x | 31) + 1);
    const run = next - x === 32 ? -1 : ((1 << (next - x)) - 1) << (x & 31);
    bits[y * words + (x >>> 5)] &= ~run;
    x = next;
  }
}

/**
 * @param flip 0: looks for a set bit; −1: for one that is not set
 * @returns the first such column from `from` on; w when there is none
 */
function nextColumn(band: Uint32Array, from: number, w: number, flip: 0 | -1): number {
  if (from >= w) return w;
  let k = from >>> 5;
  let bits = (band[k] ^ flip) & (-1 << (from & 31));
  while (bits === 0) {
    k++;
    if (32 * k >= w) return w;
    bits = band[k] ^ flip;
  }
  return Math.min(w, 32 * k + 31 - Math.clz32(bits & -bits));
}

/** Lays the runs of full columns of one band. @returns how many studs it covered */
function layBand(open: OpenStuds, y: number, depth: number, run: Run, pieces: Pieces): number {
  const { w, words, bits } = open;
  const { band } = run;
  let any = 0;
  for (let k = 0; k < words; k++) {
    let full = bits[y * words + k];
    for (let row = y + 1; row < y + depth; row++) full &= bits[row * words + k];
    band[k] = full;
    any |= full;
  }
  let covered = 0;
  for (let x = any === 0 ? w : nextColumn(band, 0, w, 0); x < w;) {
    const end = nextColumn(band, x, w, -1);
    covered += run.lay(x, end - x, y, depth, pieces);
    x = nextColumn(band, end, w, 0);
  }
  return covered;
}

/** Lays a mask in bands along x, the deepest first; null when something stays uncovered. */
function inBands(studs: OpenStuds, set: PieceSet, under: Joints | null, phase: number): PlacedPieces | null {
  const open = { ...studs, bits: studs.bits.slice() };
  let left = open.studs;
  const pieces = new Pieces();
  const run = new Run(set, under, open);
  for (const depth of set.depths) {
    if (left === 0) break;
    // Bands of each depth on their own steps; whatever lies across those steps is caught at the other phases.
    for (let shift = 0; shift < depth && left > 0; shift++) {
      for (let y = (phase + shift) % depth; y + depth <= open.d; y += depth)
        left -= layBand(open, y, depth, run, pieces);
      // On a wide layer the shifted bands find only scraps: the shallower depths cover those as well.
      if (depth > 4 && shift === 0) break;
    }
  }
  return left === 0 ? pieces.done() : null;
}

/** Cuts runs of a band along, by dynamic programming. */
class Run {
  private cost = new Float64Array(0);
  private choice = new Int16Array(0);
  /** The full columns of the band that is being laid. */
  readonly band: Uint32Array;

  constructor(
    private readonly set: PieceSet,
    private readonly under: Joints | null,
    private readonly open: OpenStuds,
  ) {
    this.band = new Uint32Array(open.words);
  }

  /** Lays the run of `length` columns from `from`; returns how many studs it covered. */
  lay(from: number, length: number, y: number, depth: number, pieces: Pieces): number {
    const { set, open } = this;
    const single = set.lengths[depth];
    const half = depth % 2 === 0 ? depth / 2 : 0;
    const paired = half > 0 && half <= 2 ? set.lengths[half] : [];
    if (this.cost.length <= length) {
      this.cost = new Float64Array(2 * length + 2);
      this.choice = new Int16Array(2 * length + 2);
    }
    const { cost, choice } = this;
    const wholly = single.includes(1) || paired.includes(1);
    // A column that this depth cannot cover costs about what shallower bands will need for it.
    const skip = (PIECE * depth) / Math.min(set.longest, 4) + PIECE / 2;
    for (let at = 1; at <= length; at++) {
      let least = wholly ? Infinity : cost[at - 1] + skip;
      let taken = 0;
      const joint = at < length ? this.jointsAcross(from + at, y, depth) : 0;
      for (let k = 0; k < single.length; k++) {
        const l = single[k];
        if (l > at) continue;
        const price = cost[at - l] + PIECE + joint;
        if (price >= least) continue;
        least = price;
        taken = l;
      }
      for (let k = 0; k < paired.length; k++) {
        const l = paired[k];
        // Two of a length cost more than what was found already: their joints need not be added up.
        if (l > at || cost[at - l] + 2 * PIECE + joint >= least) continue;
        const price = cost[at - l] + 2 * PIECE + joint + this.jointsAlong(from + at - l, l, y + half);
        if (price >= least) continue;
        least = price;
        taken = -l;
      }
      cost[at] = least;
      choice[at] = taken;
    }
    let covered = 0;
    for (let at = length; at > 0;) {
      const taken = choice[at];
      if (taken === 0) {
        at--;
        continue;
      }
      const l = Math.abs(taken);
      const x = from + at - l;
      if (taken > 0) pieces.add(x, y, l, depth);
      else {
        pieces.add(x, y, l, half);
        pieces.add(x, y + half, l, half);
      }
      for (let row = y; row < y + depth; row++) close(open, row, x, x + l);
      covered += l * depth;
      at -= l;
    }
    return covered;
  }

  /** What a joint before column x costs. */
  private jointsAcross(x: number, y: number, depth: number): number {
    const { under, open } = this;
    const { w } = open;
    let cost = 0;
    if (under) for (let row = y; row < y + depth; row++) cost += under.west[row * w + x];
    return cost;
  }

  private jointsAlong(x: number, length: number, y: number): number {
    const { under, open } = this;
    const { w } = open;
    let cost = 0;
    if (under) for (let i = y * w + x; i < y * w + x + length; i++) cost += under.north[i];
    return cost;
  }
}

/** The number of the piece on each stud, of one call at a time: layers are judged by the thousand. */
let pieceAt = new Int32Array(4096);

/** What the joints of a layer cost over those below. */
function jointsOver(laid: PlacedPieces, w: number, d: number, under: Joints | null): number {
  if (!under) return 0;
  const n = w * d;
  if (pieceAt.length < n) pieceAt = new Int32Array(2 * n);
  const piece = pieceAt.fill(0, 0, n);
  paintPieceIds(laid, w, piece, 1);
  const { west, north } = under;
  let cost = 0;
  // Only where a piece begins can a joint be: along its west and its north side.
  for (let p = 0; p < laid.length; p += 4) {
    const first = laid[p + 1] * w + laid[p];
    if (laid[p] > 0)
      for (let i = first; i < first + laid[p + 3] * w; i += w) if (piece[i - 1] > 0) cost += west[i];
    if (laid[p + 1] > 0)
      for (let i = first; i < first + laid[p + 2]; i++) if (piece[i - w] > 0) cost += north[i];
  }
  return cost;
}
