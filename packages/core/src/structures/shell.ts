import { partId } from '../catalogue/index.ts';
import { builtRect, type Plot } from '../document/index.ts';
import type { Rect } from '../grid/index.ts';
import { BRICKS, BondWatch, PLATES, tileLayer } from '../masonry/index.ts';

// A building nobody has detailed yet, in pieces: walls of bonded courses, a floor of plates for each storey that lies on
// the walls, a roof of plates, and the plates of its pavement. What `shellOf` weighs, laid.

/** A layer of the shell, and how often it is laid just so. */
export interface ShellCourse {
  family: 'brick' | 'plate';
  what: 'wall' | 'floor' | 'roof' | 'pavement';
  /** Pieces: x, y, w, d of each, in studs from the corner of what is built (of the plot, for pavement). */
  laid: Int16Array;
  times: number;
}

type Shelled = Pick<
  Plot,
  'x' | 'y' | 'w' | 'd' | 'height' | 'storeys' | 'wall' | 'front' | 'streetFront' | 'pavement'
>;

/**
 * The layers of a building's plain shell, without windows, doors, furniture and ornament. Sides and walls are whole studs:
 * half ones are rounded. Two courses alternate, the second over the joints of the first.
 * @returns the walls' two courses of bricks, their plates, floors, roof and pavement, each with how often it is laid
 */
export function shellCourses(plot: Shelled): ShellCourse[] {
  const built = builtRect(plot);
  const [w, d] = [built.w, built.d].map((side) => Math.max(1, Math.round(side)));
  const thick = Math.max(1, Math.round(plot.wall));
  const isWall = (i: number) => {
    const [x, y] = [i % w, Math.trunc(i / w)];
    return Math.min(x, y, w - 1 - x, d - 1 - y) < thick;
  };
  const ring = Uint8Array.from({ length: w * d }, (_, i) => (isWall(i) ? 1 : 0));
  const whole = new Uint8Array(w * d).fill(1);
  const courses: ShellCourse[] = [];
  const add = (course: ShellCourse) => course.times > 0 && course.laid.length > 0 && courses.push(course);
  const { bricks, plates, floors } = heightsOf(plot);
  const [first, second] = alternating(ring, w, d, thick);
  add({ family: 'brick', what: 'wall', laid: first, times: Math.ceil(bricks / 2) });
  add({ family: 'brick', what: 'wall', laid: second, times: Math.floor(bricks / 2) });
  add({
    family: 'plate',
    what: 'wall',
    laid: plates > 0 ? tileLayer(ring, w, d, PLATES) : first,
    times: plates,
  });
  const cover = tileLayer(whole, w, d, PLATES);
  add({ family: 'plate', what: 'floor', laid: cover, times: floors });
  add({ family: 'plate', what: 'roof', laid: cover, times: 1 });
  add({ family: 'plate', what: 'pavement', laid: pavementOf(plot, built), times: 1 });
  return courses;
}

/** Courses of bricks, of plates, and floors: between two floors stand as many bricks as fit, with plates over them. */
function heightsOf({ height, storeys }: Shelled): { bricks: number; plates: number; floors: number } {
  const high = Math.round(height);
  const floors = Math.min(storeys, high);
  const levels = Array.from({ length: floors }, (_, storey) => Math.round((storey * high) / floors));
  let [bricks, plates] = [0, 0];
  const stand = (between: number) => {
    bricks += Math.floor(between / 3);
    plates += between % 3;
  };
  if (floors === 0) stand(high);
  else levels.forEach((level, i) => stand((levels[i + 1] ?? high) - level - 1));
  return { bricks, plates, floors };
}

/** Lengths of the bricks that walls of one stud and of two are laid with. */
const LENGTHS = [4, 3, 2, 1];

/**
 * A course of walls, and one over its joints. Walls of one stud or two interlock at the corners: in the first course the
 * sides along x run through, in the second those along y; no joint of the one lies over one of the other.
 */
function alternating(ring: Uint8Array, w: number, d: number, thick: number): [Int16Array, Int16Array] {
  if (thick > 2 || w <= 2 * thick || d <= 2 * thick) {
    const first = tileLayer(ring, w, d, BRICKS);
    const watch = new BondWatch(w, d);
    watch.see({ family: 'brick', laid: first, z: 0, h: 3, purpose: 'core' });
    return [first, tileLayer(ring, w, d, BRICKS, watch.open)];
  }
  const through = (side: number) => jointsOf(0, side, new Set([thick, side - thick]));
  const between = (side: number, below: readonly number[]) => jointsOf(thick, side - thick, new Set(below));
  const alongX = { first: through(w), second: between(w, through(w)) };
  const alongY = { second: through(d), first: between(d, through(d)) };
  const course = (which: 'first' | 'second') => {
    const laid: number[] = [];
    for (let i = 1; i < alongX[which].length; i++)
      for (const y of [0, d - thick]) {
        const [from, to] = [alongX[which][i - 1], alongX[which][i]];
        laid.push(from, y, to - from, thick);
      }
    for (let i = 1; i < alongY[which].length; i++)
      for (const x of [0, w - thick]) {
        const [from, to] = [alongY[which][i - 1], alongY[which][i]];
        laid.push(x, from, thick, to - from);
      }
    return Int16Array.from(laid);
  };
  return [course('first'), course('second')];
}

/**
 * Where the bricks of a straight wall meet, its ends among them: the fewest bricks with no joint where none may be.
 * @param from @param to its ends, whole studs @param not where no joint may be
 */
function jointsOf(from: number, to: number, not: ReadonlySet<number>): number[] {
  // The fewest bricks from each place to the end, and the first of them; a brick alone passes any place.
  const least = new Array<number>(to + 1).fill(Infinity);
  const first = new Array<number>(to + 1).fill(1);
  least[to] = 0;
  for (let at = to - 1; at >= from; at--)
    for (const length of LENGTHS) {
      const next = at + length;
      if (next > to || (next < to && not.has(next)) || least[next] + 1 >= least[at]) continue;
      least[at] = least[next] + 1;
      first[at] = length;
    }
  const joints = [from];
  for (let at = from; at < to; at += first[at]) joints.push(at + first[at]);
  return joints;
}

/** The plates of the pavement before a street front, as what is built leaves it in whole studs. */
function pavementOf(plot: Shelled, built: Rect): Int16Array {
  const [w, d] = [built.w, built.d].map((side) => Math.max(1, Math.round(side)));
  const [west, north] = [Math.round(built.x - plot.x), Math.round(built.y - plot.y)];
  const east = west + w + Math.round(plot.x + plot.w - built.x - built.w);
  const south = north + d + Math.round(plot.y + plot.d - built.y - built.d);
  const isBuilt = (x: number, y: number) => x >= west && y >= north && x < west + w && y < north + d;
  const mask = Uint8Array.from({ length: east * south }, (_, i) =>
    isBuilt(i % east, Math.trunc(i / east)) ? 0 : 1,
  );
  return tileLayer(mask, east, south, PLATES);
}

const known = new Map<string, { part: string; qty: number }[]>();
const MAX_KNOWN = 500;

/**
 * The pieces of a building's plain shell: a guess of what it takes at least, the most frequent first. Worked out once for
 * buildings of one size.
 */
export function shellPieces(plot: Shelled): { part: string; qty: number }[] {
  const { w, d, height, storeys, wall, front, streetFront, pavement } = plot;
  const key = [w, d, height, storeys, wall, front, streetFront, pavement].join();
  const before = known.get(key);
  if (before) return before;
  const pieces = countedPieces(plot);
  if (known.size >= MAX_KNOWN) known.clear();
  known.set(key, pieces);
  return pieces;
}

function countedPieces(plot: Shelled): { part: string; qty: number }[] {
  const counts = new Map<string, number>();
  for (const { family, laid, times } of shellCourses(plot))
    for (let p = 0; p < laid.length; p += 4) {
      const part = partId(family, laid[p + 2], laid[p + 3]);
      counts.set(part, (counts.get(part) ?? 0) + times);
    }
  return [...counts].map(([part, qty]) => ({ part, qty })).toSorted((a, b) => b.qty - a.qty);
}
