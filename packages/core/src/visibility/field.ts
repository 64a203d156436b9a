import { MM_PER_PLATE, roundOut, type Rect } from '../grid/index.ts';
import { keyOf, type Scene } from '../document/index.ts';
import { OUTSIDE, bodiesOf, columnsOf, type Body, type Interval, type Relief } from '../terrain/index.ts';
import type { Eye, HeightField, Void } from './seen.ts';

// A scene as lines of sight meet it: the height of each stud, and what is open under decks, roofs of ground and eaves.

/** The columns of a scene for lines of sight, from which things are taken away for a while. */
export class SightField {
  readonly field: HeightField & { voids: Map<number, readonly Void[]> };
  /** Solid pieces of those studs that have something open in them. */
  readonly #pieces: ReadonlyMap<number, readonly Interval[]>;
  /** Of those the ones in which a thing has a piece, by its key. */
  readonly #openOf = new Map<string, number[]>();
  readonly #bodies: ReadonlyMap<string, readonly Body[]>;
  readonly #numberOf: ReadonlyMap<string, number>;
  #studsOf: ReadonlyMap<number, number[]> | null = null;

  /** @param standing everything that stands in the scene, where it is known already */
  constructor(
    scene: Scene,
    readonly relief: Relief,
    standing: readonly Body[] = bodiesOf(scene, relief),
  ) {
    this.#pieces = openPieces(scene, relief, standing);
    this.field = {
      ...{ w: relief.w, d: relief.d },
      heights: topsOf(relief),
      voids: new Map([...this.#pieces].map(([i, pieces]) => [i, voidsOf(pieces)])),
    };
    for (const [i, pieces] of this.#pieces)
      for (const { owner } of pieces) if (owner) addTo(this.#openOf, keyOf(owner.kind, owner.id), i);
    const bodies = new Map<string, Body[]>();
    for (const body of standing) addTo(bodies, keyOf(body.kind, body.id), body);
    this.#bodies = bodies;
    this.#numberOf = new Map(relief.things.map(({ kind, id }, i) => [keyOf(kind, id), i + 1]));
  }

  /** The studs on which a thing is uppermost. */
  studsOf(key: string): readonly number[] {
    const number = this.#numberOf.get(key);
    return number === undefined ? [] : ((this.#studsOf ??= studsByOwner(this.relief)).get(number) ?? []);
  }

  bodiesOf(key: string): readonly Body[] {
    return this.#bodies.get(key) ?? [];
  }

  /** Lowers the studs of a thing to what it stands on, and opens what it closes under others. @returns puts it back */
  takeAway(key: string): () => void {
    const { heights, voids } = this.field;
    const closed = (this.#openOf.get(key) ?? []).map((i) => [i, voids.get(i) ?? []] as const);
    for (const [i] of closed)
      voids.set(i, voidsOf((this.#pieces.get(i) ?? []).filter((piece) => !isOf(piece, key))));
    const studs = this.studsOf(key);
    const foot = Math.min(...this.bodiesOf(key).map(({ ground }) => ground));
    const before = studs.map((i) => heights[i]);
    for (const i of studs)
      heights[i] = MM_PER_PLATE * Math.max(this.relief.surface[i], Number.isFinite(foot) ? foot : 0);
    return () => {
      studs.forEach((i, k) => (heights[i] = before[k]));
      for (const [i, stretches] of closed) voids.set(i, stretches);
    };
  }
}

const isOf = ({ owner }: Interval, key: string): boolean =>
  owner !== null && keyOf(owner.kind, owner.id) === key;

/** The top of each stud in mm; NaN outside the footprint. */
function topsOf({ ground, top }: Relief): Float64Array {
  const tops = new Float64Array(top.length);
  for (let i = 0; i < top.length; i++) tops[i] = ground[i] === OUTSIDE ? NaN : top[i] * MM_PER_PLATE;
  return tops;
}

/** A point of the plan, studs, in the frame of lines of sight. @param z mm over the table */
export const inFrame = ({ x, y, d }: Relief, at: { x: number; y: number }, z: number): Eye => ({
  ...{ x: at.x - x, y: y + d - at.y },
  z,
});

/** The tops of a relief in mm over its datum; none outside the footprint. */
export const heightField = (scene: Scene, relief: Relief): HeightField => new SightField(scene, relief).field;

/** The pieces of those studs that have air under something: beneath slabs, and beneath what begins over the ground. */
function openPieces(scene: Scene, relief: Relief, standing: readonly Body[]): Map<number, Interval[]> {
  const windows: Rect[] = [
    ...relief.slabs,
    ...standing.filter(({ begins, ground }) => begins > ground).map(({ bounds }) => roundOut(bounds)),
  ];
  const found = new Map<number, Interval[]>();
  for (const window of windows) {
    const columns = columnsOf(scene, relief, window);
    for (let y = columns.y; y < columns.y + columns.d; y++)
      for (let x = columns.x; x < columns.x + columns.w; x++) {
        const pieces = columns.at(x, y);
        if (voidsOf(pieces).length > 0) found.set((y - relief.y) * relief.w + x - relief.x, [...pieces]);
      }
  }
  return found;
}

/** What is open between the table and the highest of some pieces, and between them, mm. */
function voidsOf(pieces: readonly Interval[]): Void[] {
  const voids: Void[] = [];
  let from = 0;
  for (const piece of pieces) {
    if (piece.to <= piece.from) continue;
    if (piece.from > from) voids.push({ from: from * MM_PER_PLATE, to: piece.from * MM_PER_PLATE });
    from = Math.max(from, piece.to);
  }
  return voids;
}

/** The studs on which each thing is uppermost, by its number. */
function studsByOwner({ owner }: Relief): Map<number, number[]> {
  const studsOf = new Map<number, number[]>();
  owner.forEach((number, i) => {
    if (number > 0) addTo(studsOf, number, i);
  });
  return studsOf;
}

function addTo<K, V>(lists: Map<K, V[]>, key: K, value: V): void {
  const list = lists.get(key);
  if (list) list.push(value);
  else lists.set(key, [value]);
}
