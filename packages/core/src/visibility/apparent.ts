import { MM_PER_STUD } from '../grid/index.ts';
import type { Eye, HeightField } from './seen.ts';

// How large each column of a height field looks: the solid angle that its top and its sides fill, hidden parts left out.

/** Rays lie no farther apart than so many studs at the far end of the field: narrow things there are met by chance. */
const RAY_GAP = 2;
/** Fewest rays round an eye. */
const MIN_RAYS = 720;

/**
 * The solid angle each column fills as seen from eyes, by rays in all directions from each: along a ray what rises over
 * the horizon so far is seen (the horizon of a height field; Max 1988). Its cost grows with eyes × rays × columns crossed.
 * @returns steradians by column, added up over the eyes, row by row from the north
 */
export function apparentSizes(field: HeightField, eyes: readonly Eye[]): Float64Array {
  const sizes = new Float64Array(field.w * field.d);
  for (const eye of eyes) addSizes(field, eye, sizes);
  return sizes;
}

/**
 * Adds the solid angle of each column from one eye to `sizes`.
 * @param times what each is multiplied by: -1 takes away what was added
 * @param asks which rays are followed, by their direction; left out: all
 */
export function addSizes(
  { w, d, heights }: HeightField,
  eye: Eye,
  sizes: Float64Array,
  times = 1,
  asks: (dx: number, dy: number) => boolean = () => true,
): void {
  const corners = [
    [0, 0],
    [w, 0],
    [w, d],
    [0, d],
  ].map(([x, y]) => ({ x: x - eye.x, y: y - eye.y }));
  const farthest = Math.max(...corners.map(({ x, y }) => Math.hypot(x, y)));
  const { from, to } = anglesOf(corners, eye.x > 0 && eye.x < w && eye.y > 0 && eye.y < d);
  const rays = Math.max(
    Math.ceil((MIN_RAYS * (to - from)) / (2 * Math.PI)),
    Math.ceil(((to - from) * farthest) / RAY_GAP),
  );
  const wide = (to - from) / rays;
  /** Solid angle of a strip between two slopes: the integral of the cosine of the elevation. */
  const strip = (low: number, high: number) => times * wide * (sine(high) - sine(low));
  for (let ray = 0; ray < rays; ray++) {
    const angle = from + (ray + 0.5) * wide;
    const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
    if (!asks(dx, dy)) continue;
    const [enter, leave] = crossing(eye, dx, dy, w, d);
    if (!(enter < leave)) continue;
    let horizon = -Infinity;
    const [startX, startY] = [eye.x + dx * enter, eye.y + dy * enter];
    let column = Math.min(w - 1, Math.max(0, dx < 0 ? Math.ceil(startX) - 1 : Math.floor(startX)));
    let north = Math.min(d - 1, Math.max(0, dy < 0 ? Math.ceil(startY) - 1 : Math.floor(startY)));
    let [nextX, nextY] = [
      dx === 0 ? Infinity : ((dx > 0 ? column + 1 : column) - eye.x) / dx,
      dy === 0 ? Infinity : ((dy > 0 ? north + 1 : north) - eye.y) / dy,
    ];
    const [everyX, everyY] = [1 / Math.abs(dx), 1 / Math.abs(dy)];
    for (let near = enter; near < leave;) {
      const far = Math.min(nextX, nextY, leave);
      const i = (d - 1 - north) * w + column;
      const rise = heights[i] - eye.z;
      if (!Number.isNaN(rise)) {
        // From the foot of its near side to the near edge of its top, then to the far edge where the eye is above it.
        const foot = near > 0 ? -eye.z / (near * MM_PER_STUD) : -Infinity;
        const edge = near > 0 ? rise / (near * MM_PER_STUD) : rise < 0 ? -Infinity : Infinity;
        const high = rise < 0 ? rise / (far * MM_PER_STUD) : edge;
        const low = Math.max(horizon, Math.min(foot, edge));
        if (high > low) {
          sizes[i] += strip(low, high);
          horizon = high;
        }
      }
      if (nextX <= nextY) {
        column += dx > 0 ? 1 : -1;
        nextX += everyX;
      } else {
        north += dy > 0 ? 1 : -1;
        nextY += everyY;
      }
      if (column < 0 || north < 0 || column >= w || north >= d) break;
      near = far;
    }
  }
}

const sine = (slope: number): number =>
  slope === Infinity ? 1 : slope === -Infinity ? -1 : slope / Math.sqrt(1 + slope * slope);

/** The directions in which the field lies, radians; all of them for an eye over it. */
function anglesOf(
  corners: readonly { x: number; y: number }[],
  isOver: boolean,
): { from: number; to: number } {
  if (isOver) return { from: 0, to: 2 * Math.PI };
  const middle = Math.atan2(
    corners.reduce((sum, { y }) => sum + y, 0),
    corners.reduce((sum, { x }) => sum + x, 0),
  );
  const off = corners.map(({ x, y }) => {
    const by = Math.atan2(y, x) - middle;
    return by > Math.PI ? by - 2 * Math.PI : by < -Math.PI ? by + 2 * Math.PI : by;
  });
  return { from: middle + Math.min(...off), to: middle + Math.max(...off) };
}

/** From where to where a ray is over the field, studs from the eye; nothing where from is not below to. */
function crossing(eye: Eye, dx: number, dy: number, w: number, d: number): [number, number] {
  let [enter, leave] = [0, Infinity];
  for (const [at, by, size] of [
    [eye.x, dx, w],
    [eye.y, dy, d],
  ]) {
    if (by === 0) {
      if (at <= 0 || at >= size) return [0, 0];
      continue;
    }
    const [a, b] = [-at / by, (size - at) / by];
    [enter, leave] = [Math.max(enter, Math.min(a, b)), Math.min(leave, Math.max(a, b))];
  }
  return [enter, leave];
}
