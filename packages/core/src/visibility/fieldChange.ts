import { keyOf, type Scene } from '../document/index.ts';
import type { Relief } from '../terrain/index.ts';
import type { Eye, HeightField, Void } from './seen.ts';

// What differs between two height fields of one size, and which lines of sight that may touch.

/** A rectangle of columns in which something differs, studs from the south-west corner. */
export interface ChangedArea {
  west: number;
  south: number;
  east: number;
  north: number;
  /** The highest column in it, before or after, mm: lines over it are as they were. */
  high: number;
}

/** Columns that differ, and rectangles that hold them all. */
export interface FieldChange {
  studs: readonly number[];
  areas: readonly ChangedArea[];
}

/** A compiled scene as lines of sight meet it. */
export interface FieldState {
  scene: Scene;
  relief: Relief;
  field: HeightField;
}

/** Columns are compared in squares of so many studs, and squares that touch are one area. */
const SQUARE = 8;
/** More areas than this are taken as one. */
const MAX_AREAS = 6;

/**
 * The columns whose height, open stretches, owner or ground differ.
 * @returns null where the fields are of different places or sizes, or grounds have other numbers
 */
export function fieldChange(before: FieldState, after: FieldState): FieldChange | null {
  const [old, now] = [before.relief, after.relief];
  if (old.x !== now.x || old.y !== now.y || old.w !== now.w || old.d !== now.d) return null;
  if (before.scene.customGround !== after.scene.customGround) return null;
  // Numbers of owners follow the list of things, which may have moved up.
  const numbers = new Map(now.things.map(({ kind, id }, i) => [keyOf(kind, id), i + 1]));
  const renumbered = Int32Array.from([
    0,
    ...old.things.map(({ kind, id }) => numbers.get(keyOf(kind, id)) ?? -1),
  ]);
  const [a, b] = [before.field.heights, after.field.heights];
  const studs: number[] = [];
  for (let i = 0; i < b.length; i++)
    if (
      (a[i] !== b[i] && !(Number.isNaN(a[i]) && Number.isNaN(b[i]))) ||
      (renumbered[old.owner[i]] ?? old.owner[i]) !== now.owner[i] ||
      old.ground[i] !== now.ground[i] ||
      old.surface[i] !== now.surface[i]
    )
      studs.push(i);
  const seen = new Set(studs);
  for (const i of new Set([...(before.field.voids?.keys() ?? []), ...(after.field.voids?.keys() ?? [])]))
    if (!seen.has(i) && !areSame(before.field.voids?.get(i), after.field.voids?.get(i))) studs.push(i);
  return { studs, areas: areasOf(studs, now, a, b) };
}

const areSame = (a: readonly Void[] = [], b: readonly Void[] = []): boolean =>
  a.length === b.length && a.every(({ from, to }, k) => from === b[k].from && to === b[k].to);

/** Rectangles round studs that lie near each other. */
function areasOf(
  studs: readonly number[],
  { w, d }: Relief,
  before: Float64Array,
  after: Float64Array,
): ChangedArea[] {
  const across = Math.ceil(w / SQUARE);
  const squares = new Map<number, ChangedArea>();
  for (const i of studs) {
    const [column, row] = [i % w, Math.trunc(i / w)];
    const number = Math.trunc(row / SQUARE) * across + Math.trunc(column / SQUARE);
    const own: ChangedArea = {
      ...{ west: column, east: column + 1, south: d - row - 1, north: d - row },
      high: Math.max(before[i] || 0, after[i] || 0),
    };
    const there = squares.get(number);
    squares.set(number, there ? joined(there, own) : own);
  }
  const areas: ChangedArea[] = [];
  const left = new Set(squares.keys());
  for (const first of squares.keys()) {
    if (!left.delete(first)) continue;
    let area: ChangedArea | null = null;
    for (const queue = [first]; queue.length > 0;) {
      const number = queue.pop() ?? first;
      const square = squares.get(number);
      if (square) area = area ? joined(area, square) : square;
      for (const next of [number - 1, number + 1, number - across, number + across])
        if (left.delete(next)) queue.push(next);
    }
    if (area) areas.push(area);
  }
  return areas.length <= MAX_AREAS ? areas : [areas.reduce(joined)];
}

const joined = (a: ChangedArea, b: ChangedArea): ChangedArea => ({
  west: Math.min(a.west, b.west),
  south: Math.min(a.south, b.south),
  east: Math.max(a.east, b.east),
  north: Math.max(a.north, b.north),
  high: Math.max(a.high, b.high),
});

/**
 * Calls with each column whose line to an eye may pass through an area below its highest column, row by row from the
 * north: a cone from the eye through the area, and beyond its near side.
 */
export function eachBehind(
  { w, d, heights }: HeightField,
  eye: Eye,
  area: ChangedArea,
  visit: (i: number, column: number, row: number) => void,
): void {
  const { west, south, east, north, high } = area;
  const corners = [
    { x: west - eye.x, y: south - eye.y },
    { x: east - eye.x, y: south - eye.y },
    { x: east - eye.x, y: north - eye.y },
    { x: west - eye.x, y: north - eye.y },
  ];
  const isOver = eye.x >= west && eye.x <= east && eye.y >= south && eye.y <= north;
  const [right, left] = isOver ? [null, null] : tangents(corners);
  for (let row = 0; row < d; row++) {
    const y = d - row - 0.5 - eye.y;
    let [from, to] = [-eye.x, w - eye.x];
    if (right && left) {
      // Left of the right edge of the cone, and right of its left edge.
      [from, to] = clipped(from, to, right, y, 1);
      [from, to] = clipped(from, to, left, y, -1);
    }
    if (!(from < to)) continue;
    const last = Math.min(w - 1, Math.floor(to + eye.x));
    for (let column = Math.max(0, Math.floor(from + eye.x)); column <= last; column++) {
      const i = row * w + column;
      const z = heights[i];
      const at = { x: column + 0.5, y: d - row - 0.5 };
      const [enter, leave] = overArea(at, eye.x - at.x, eye.y - at.y, area, 1);
      if (!(enter <= leave)) continue;
      const rise = eye.z - z;
      if (z + Math.min(rise * enter, rise * leave) >= high) continue;
      visit(i, column, row);
    }
  }
}

/** Keeps of a row, studs east of the eye, what lies on one side of a way: cross product × sign ≥ 0. */
function clipped(
  from: number,
  to: number,
  way: { x: number; y: number },
  y: number,
  sign: 1 | -1,
): [number, number] {
  // way.x × y − way.y × x, times the sign, is not below nothing.
  const [a, b] = [sign * way.x * y, sign * way.y];
  if (b === 0) return a >= 0 ? [from, to] : [0, 0];
  return b > 0 ? [from, Math.min(to, a / b)] : [Math.max(from, a / b), to];
}

/** The rightmost and the leftmost of corners as an eye sees them, which is not among them. */
export function tangents<P extends { x: number; y: number }>(corners: readonly P[]): [P, P] {
  let [right, left] = [corners[0], corners[0]];
  for (const corner of corners) {
    if (right.x * corner.y - right.y * corner.x < 0) right = corner;
    if (left.x * corner.y - left.y * corner.x > 0) left = corner;
  }
  return [right, left];
}

/**
 * Which stretch of a line lies over an area.
 * @param to how far it goes, in ways of (dx, dy): to the end of the way, or for ever
 * @returns from and to, in ways; from past to where none does
 */
export function overArea(
  { x, y }: { x: number; y: number },
  dx: number,
  dy: number,
  { west, south, east, north }: Omit<ChangedArea, 'high'>,
  to: number,
): [number, number] {
  let [enter, leave] = [0, to];
  if (dx === 0) {
    if (x < west || x > east) return [1, 0];
  } else {
    const [a, b] = [(west - x) / dx, (east - x) / dx];
    enter = Math.max(enter, Math.min(a, b));
    leave = Math.min(leave, Math.max(a, b));
  }
  if (dy === 0) return y < south || y > north ? [1, 0] : [enter, leave];
  const [a, b] = [(south - y) / dy, (north - y) / dy];
  return [Math.max(enter, Math.min(a, b)), Math.min(leave, Math.max(a, b))];
}
