import { rememberFor, roundOut, type Rect } from '../grid/index.ts';
import {
  GROUNDS,
  SIDES,
  type Ground,
  type Hill,
  type Hollow,
  type Pad,
  type Side,
  type Stream,
  type Terrain,
  type Water,
} from '../document/index.ts';
import {
  TIE,
  NEIGHBOUR_STEPS,
  eachNearBorder,
  eachSpan,
  nearestOn,
  rayExitFraction,
  type Point,
} from './shape.ts';
import { eachStripStud } from './strip.ts';
import { PERCENT_PER_PLATE, heightAlong, streamProfile } from './profile.ts';
import { MAX_SAMPLE, readSamples } from './samples.ts';

/** Ground code of a stud outside the footprint, and of a stud that nothing covers. */
export const OUTSIDE = 255;
export const BARE = 254;

/** Heights and grounds at each stud of a rectangle, row by row, and what laid each. */
export interface Raster extends Rect {
  /** Plates above datum. */
  height: Int16Array;
  /** Index into GROUNDS, BARE or OUTSIDE. */
  ground: Uint8Array;
  /** 0: nothing; n: the thing at index n − 1 of the relief's `things`. */
  owner: Uint16Array;
}

/** The raster, the index of the entity being laid, and the window of studs to recompute. */
interface Laying {
  raster: Raster;
  window: Rect;
  owner: number;
}

interface LayingWater extends Laying {
  /** For each ground code whether it is judged as water: 1. */
  waters: Uint8Array;
}

/** The nearest whole plate; halves go up, whatever the last digits of a number say. */
export const wholePlates = (height: number) => Math.floor(height + 0.5 + TIE);

const codeOf = (ground: Ground): number => GROUNDS.indexOf(ground);

function lay({ raster, owner }: Laying, x: number, y: number, height: number, ground: number): void {
  const i = (y - raster.y) * raster.w + x - raster.x;
  if (raster.ground[i] === OUTSIDE) return;
  raster.height[i] = height;
  raster.ground[i] = ground;
  raster.owner[i] = owner;
}

/** The same along a row of studs. */
function layRow(
  { raster, owner }: Laying,
  row: number,
  from: number,
  end: number,
  height: number,
  ground: number,
): void {
  const first = (row - raster.y) * raster.w - raster.x;
  for (let i = first + from; i < first + end; i++) {
    if (raster.ground[i] === OUTSIDE) continue;
    raster.height[i] = height;
    raster.ground[i] = ground;
    raster.owner[i] = owner;
  }
}

/** Height of the ground at a stud inside the raster, or null outside the footprint. */
export function heightOfStud(raster: Raster, x: number, y: number): number | null {
  const [column, row] = [x - raster.x, y - raster.y];
  if (column < 0 || row < 0 || column >= raster.w || row >= raster.d) return null;
  const i = row * raster.w + column;
  return raster.ground[i] === OUTSIDE ? null : raster.height[i];
}

/** A pad lies flat at its height; slopes and terraces run from its sides to the ground beyond, up or down. */
export function layPad(to: Laying, pad: Pad, height: number): void {
  const code = codeOf(pad.ground);
  if (leadsOn(pad)) layEdges(to, pad, height);
  eachSpan(pad, to.window, (row, from, end) => layRow(to, row, from, end, height, code));
}

const isSlope = ({ kind }: Pad['edges']['n']) => kind === 'slope' || kind === 'terrace';
/** Whether a pad has slopes or terraces that go beyond it. */
const leadsOn = ({ shape, reach, edges }: Pad): boolean =>
  shape === 'rect' && reach > 0 && Object.values(edges).some(isSlope);

function layEdges(to: Laying, pad: Pad, height: number): void {
  const { raster, window } = to;
  const { x, y, w, d, edges, reach } = pad;
  const code = codeOf(pad.ground);
  const x0 = Math.max(window.x, Math.floor(x - reach));
  const x1 = Math.min(window.x + window.w, Math.ceil(x + w + reach));
  const y0 = Math.max(window.y, Math.floor(y - reach));
  const y1 = Math.min(window.y + window.d, Math.ceil(y + d + reach));
  const { height: heights, ground } = raster;
  for (let row = y0; row < y1; row++) {
    const py = row + 0.5;
    const along = py < y ? edges.n : py >= y + d ? edges.s : null;
    const alongBy = py < y ? y - py : py - y - d;
    if (along && (alongBy > reach || !isSlope(along))) continue;
    for (let column = x0; column < x1; column++) {
      const px = column + 0.5;
      const across = px < x ? edges.w : px >= x + w ? edges.e : null;
      const acrossBy = px < x ? x - px : px - x - w;
      // At a corner both sides must lead on; they meet in a mitre.
      if (across ? acrossBy > reach || !isSlope(across) : !along) continue;
      const i = (row - raster.y) * raster.w + column - raster.x;
      const now = heights[i];
      if (ground[i] === OUTSIDE || now === height) continue;
      const bricks = Math.max(across ? acrossBy / across.run : 0, along ? alongBy / along.run : 0);
      const terraced = across?.kind === 'terrace' || along?.kind === 'terrace';
      const step = terraced ? 3 * Math.ceil(bricks) : wholePlates(3 * bricks);
      const then = now < height ? Math.max(now, height - step) : Math.min(now, height + step);
      if (then === now) continue;
      heights[i] = then;
      ground[i] = code;
      raster.owner[i] = to.owner;
    }
  }
}

/** How far up a hill is at a share of the way from its foot (0) to its ridge (1). */
function riseAt(profile: Hill['profile'], share: number): number {
  if (profile === 'convex') return 1 - (1 - share) ** 2;
  if (profile === 'concave') return share ** 2;
  return profile === 'sheer' ? 1 : share;
}

/** On a rock face the whole height is won in the first quarter of the way. */
const FACE = 4;

/** How much of a direction looks to one of some sides: all of it up to 30° off, half of it at 45°, none past 60°. */
function facing(dx: number, dy: number, sides: readonly Side[]): number {
  const length = dx * dx + dy * dy;
  if (length === 0 || sides.length === 0) return 0;
  let sum = 0;
  if (dy < 0 ? sides.includes('n') : sides.includes('s')) sum += dy * dy;
  if (dx < 0 ? sides.includes('w') : sides.includes('e')) sum += dx * dx;
  return Math.min(1, Math.max(0, (2 * sum) / length - 0.5));
}

type Form = Omit<Hill, 'height' | 'method'>;

const ridgeOf = ({ x, y, w, d, ridge }: Form): [Point, Point] => [
  { x: x + ridge.x1 * w, y: y + ridge.y1 * d },
  { x: x + ridge.x2 * w, y: y + ridge.y2 * d },
];

/** How far a point lies on the way from the foot of a hill (0) to its ridge (1), and the ridge's nearest point. */
function shareAt(form: Form, [a, b]: readonly [Point, Point], p: Point): { share: number; from: Point } {
  const from = nearestOn(a, b, p);
  return { share: 1 - Math.min(1, Math.max(0, rayExitFraction(form, from, p))), from };
}

/** Of what has no corner that points inwards, a stud this near to the ridge is the highest. */
const ABOUT = 2;

/**
 * The greatest share of the way that the centre of a stud has: less than 1 unless the ridge meets a centre. 1 where no
 * stud of the hill lies beside its ridge: such a hill does not reach its height.
 */
const crestOf = rememberFor((form: Form): number => {
  const ridge = ridgeOf(form);
  const [a, b] = ridge;
  const everywhere = form.shape === 'outline';
  const about = everywhere
    ? roundOut(form)
    : roundOut({
        x: Math.min(a.x, b.x) - ABOUT,
        y: Math.min(a.y, b.y) - ABOUT,
        w: Math.abs(a.x - b.x) + 2 * ABOUT,
        d: Math.abs(a.y - b.y) + 2 * ABOUT,
      });
  let most = -1;
  eachSpan(form, about, (row, from, to) => {
    for (let column = from; column < to; column++) {
      const p = { x: column + 0.5, y: row + 0.5 };
      const near = nearestOn(a, b, p);
      if (everywhere || Math.hypot(near.x - p.x, near.y - p.y) <= ABOUT)
        most = Math.max(most, shareAt(form, ridge, p).share);
    }
  });
  return most < 0 ? 1 : most;
});

/**
 * Height of a hill above its foot at each of its studs, plates, and whether the stud is part of a rock face. Every
 * stud rises by a plate at least (by a terrace where it has any), and the highest by the whole: where no stud's
 * centre lies on the ridge, the uppermost studs are drawn up to it, by the eighth power of their way so that the
 * slopes below keep their grade.
 */
function eachRise(
  window: Rect,
  form: Form,
  whole: number,
  visit: (x: number, y: number, rise: number, rock: boolean) => void,
): void {
  const { profile, terrace, faces } = form;
  const ridge = ridgeOf(form);
  const crest = crestOf(form);
  const steps = terrace > 0 ? Math.ceil(whole / terrace) : 0;
  eachSpan(form, window, (row, from, to) => {
    for (let column = from; column < to; column++) {
      const p = { x: column + 0.5, y: row + 0.5 };
      const { share: flat, from: q } = shareAt(form, ridge, p);
      const share = crest > TIE ? Math.min(1, flat + (1 - crest) * (flat / crest) ** 8) : 1;
      const steep = facing(p.x - q.x, p.y - q.y, faces);
      const even = riseAt(profile, share);
      const up = even + (Math.min(1, FACE * share) - even) * steep;
      const rise =
        terrace > 0 ? terrace * (Math.floor(up * steps + TIE) + 1) : Math.max(1, wholePlates(up * whole));
      visit(column, row, Math.min(whole, rise), steep > 0.5);
    }
  });
}

/** A hill's or hollow's own numbers, before anything else lies there. */
export interface RiseCard {
  /** The most it rises (or falls), plates: less than was typed only where no stud lies at its ridge. */
  reaches: number;
  /** Studs it lies on. */
  studs: number;
  /** Terraces with the last; 0: it has none. */
  terraces: number;
  /** From the ridge to the border on each side, studs, and the grade there, percent; null: it falls at once. */
  sides: { side: Side; run: number; grade: number | null }[];
}

/** @param whole its height or depth, plates */
export function riseCard(form: Form, whole: number): RiseCard {
  let [reaches, studs] = [0, 0];
  eachRise(roundOut(form), form, whole, (_x, _y, rise) => {
    studs++;
    reaches = Math.max(reaches, rise);
  });
  const [a, b] = ridgeOf(form);
  return {
    reaches,
    studs,
    terraces: form.terrace > 0 ? Math.ceil(whole / form.terrace) : 0,
    sides: SIDES.map((side) => {
      const { x, y } = NEIGHBOUR_STEPS[side];
      // From the end of the ridge that is nearer to that side.
      const q = a.x * x + a.y * y >= b.x * x + b.y * y ? a : b;
      const out = rayExitFraction(form, q, { x: q.x + x, y: q.y + y });
      const run = Number.isFinite(1 / out) ? 1 / out : 0;
      return {
        side,
        run,
        grade: form.profile === 'sheer' || run < 1 ? null : (whole / run) * PERCENT_PER_PLATE,
      };
    }),
  };
}

const ROCK = codeOf('rock');

/** A hill: the higher of itself and the ground there is. */
export function layHill(to: Laying, hill: Hill, foot: number): void {
  const code = codeOf(hill.ground);
  eachRise(to.window, hill, hill.height, (x, y, rise, rock) => {
    const now = heightOfStud(to.raster, x, y);
    if (now !== null && foot + rise > now) lay(to, x, y, foot + rise, rock ? ROCK : code);
  });
}

/** A hollow: the lower of itself and the ground there is. */
export function layHollow(to: Laying, hollow: Hollow, rim: number): void {
  const code = codeOf(hollow.ground);
  eachRise(to.window, hollow, hollow.depth, (x, y, rise, rock) => {
    const now = heightOfStud(to.raster, x, y);
    if (now !== null && rim - rise < now) lay(to, x, y, rim - rise, rock ? ROCK : code);
  });
}

/** Still water: level over its area; all about it a bank rises evenly from the water's border to the ground. */
export function layWater(to: LayingWater, water: Water, level: number): void {
  const code = codeOf(water.ground);
  const { bank } = water;
  if (bank > 0) {
    const shore = codeOf(water.bankGround);
    eachNearBorder(water, bank, to.window, (x, y, off) => layBank(to, x, y, level, off / bank, shore));
  }
  eachSpan(water, to.window, (row, from, end) => layRow(to, row, from, end, level, code));
}

function layBank(to: LayingWater, x: number, y: number, level: number, share: number, ground: number): void {
  const now = heightOfStud(to.raster, x, y);
  // A bank ends where there is water already: a stream's mouth is open.
  const water = to.waters[to.raster.ground[(y - to.raster.y) * to.raster.w + x - to.raster.x]] === 1;
  if (now !== null && !water) lay(to, x, y, wholePlates(level + (now - level) * share), ground);
}

/** A stream: water as wide as it is, its banks rising to the ground beside it. */
export function layStream(to: LayingWater, stream: Stream, level: number): void {
  const surface = heightAlong(streamProfile(stream, level));
  const half = stream.width / 2;
  const shore = codeOf(stream.bankGround);
  if (stream.bank > 0)
    eachStripStud(stream.points, half + stream.bank, to.window, (x, y, along, off) => {
      if (off > half) layBank(to, x, y, surface(along), (off - half) / stream.bank, shore);
    });
  const code = codeOf(stream.ground);
  eachStripStud(stream.points, half, to.window, (x, y, along) =>
    lay(to, x, y, wholePlates(surface(along)), code),
  );
}

/**
 * A strip of ground at the heights of a line: a way or the bed of a track.
 * @param ground its number in GROUNDS
 * @param isOnGround whether a stud of it lies on the ground, and not on a deck, in a cavity or on a bridge
 */
export function layStrip(
  to: Laying,
  { points, width, ground, heightAt }: StripOfGround,
  isOnGround: (x: number, y: number, height: number) => boolean,
): void {
  eachStripStud(points, width / 2, to.window, (x, y, along) => {
    const height = wholePlates(heightAt(along));
    if (isOnGround(x, y, height)) lay(to, x, y, height, ground);
  });
}

interface StripOfGround {
  points: readonly Point[];
  width: number;
  ground: number;
  heightAt: (along: number) => number;
}

/** Imported ground: the nearest sample to each stud, spread from low to high and rounded to plates; gaps are left. */
export function layTerrain(to: Laying, terrain: Terrain, level: number): void {
  const samples = readSamples(terrain);
  const code = codeOf(terrain.ground);
  const { x, y, w, d, columns, rows, low, high, gaps } = terrain;
  const first = gaps ? 1 : 0;
  const spread = (high - low) / (MAX_SAMPLE - first);
  eachSpan({ x, y, w, d, shape: 'rect', outline: [] }, to.window, (row, from, end) => {
    const r = Math.min(rows - 1, Math.max(0, Math.floor(((row + 0.5 - y) / d) * rows)));
    for (let column = from; column < end; column++) {
      const c = Math.min(columns - 1, Math.max(0, Math.floor(((column + 0.5 - x) / w) * columns)));
      const sample = samples[r * columns + c] ?? 0;
      if (sample < first) continue;
      lay(to, column, row, level + wholePlates(low + (sample - first) * spread), code);
    }
  });
}
