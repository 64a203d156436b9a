import { PACK_TOLERANCE, archBoxes, standings, type PackItem, type PackSpace } from './packItem.ts';

/** A piece at its place; what bears it was put in before it. */
export interface PackPlace {
  item: PackItem;
  x: number;
  y: number;
  z: number;
  /** As it stands, mm. */
  w: number;
  d: number;
}

/** What bears a piece: which place, and what share of its foot stands on it. */
interface Bearing {
  on: number;
  share: number;
}

const overlap = (a: number, aLength: number, b: number, bLength: number): number =>
  Math.min(a + aLength, b + bLength) - Math.max(a, b);
const isOver = (length: number): boolean => length > PACK_TOLERANCE;

/**
 * Where a piece leaves straight out: it goes aside at its own depth as far as the door and the arches before it ask for.
 * @returns its x on the way out; null where it is too wide for that
 */
function exitOf(space: PackSpace, { item, x, y, z, w, d }: PackPlace): number | null {
  const { door, arches } = space;
  let [from, to] = door ? [door.x, door.x + door.w] : [0, space.w];
  if (arches && z < arches.h - PACK_TOLERANCE && item.h > 0 && y + d > arches.from + PACK_TOLERANCE)
    [from, to] = [Math.max(from, arches.w), Math.min(to, space.w - arches.w)];
  return w > to - from + PACK_TOLERANCE ? null : Math.min(Math.max(x, from), Math.max(from, to - w));
}

/** Above this many pieces a place is looked for at fewer corners. */
const MANY = 12;

/** What is in one trip, put in piece by piece; each stands on the floor or wholly on tops of one height. */
export class Load {
  /** The arches, then the pieces. */
  readonly #all: PackPlace[] = [];
  readonly #arches: number;
  readonly #bearings: Bearing[][] = [];
  readonly #loads: number[] = [];
  readonly #isOpen: boolean;
  #mass = 0;
  #volume = 0;

  constructor(readonly space: PackSpace) {
    for (const { x, y, z, w, d, h } of archBoxes(space)) {
      const item = { id: '', w, d, h, mass: 0, canTurn: false, bears: Infinity, order: 0 };
      this.#all.push({ item, x, y, z, w, d });
      this.#bearings.push([]);
      this.#loads.push(0);
      this.#volume += w * d * h;
    }
    this.#arches = this.#all.length;
    this.#isOpen = !space.door && this.#arches === 0;
  }

  /** The pieces in the order in which they were put in. */
  get places(): PackPlace[] {
    return this.#all.slice(this.#arches);
  }

  /**
   * Puts a piece where it is liked best.
   * @param liking less is better; lower is never worse
   * @returns false where there is no place for it
   */
  put(item: PackItem, liking: (place: PackPlace) => number): boolean {
    const { space } = this;
    const volume = item.w * item.d * item.h;
    if (this.#mass + item.mass > (space.maxMass ?? Infinity)) return false;
    if (this.#volume + volume > space.w * space.d * space.h * (1 + 1e-9)) return false;
    let best: { place: PackPlace; bearing: Bearing[]; value: number } | null = null;
    for (const [w, d] of standings(item)) {
      const deep = this.#corners('y', d);
      for (const x of this.#corners('x', w)) {
        const near = this.#beside(x, w);
        for (const y of deep) {
          const place: PackPlace = { item, x, y, z: 0, w, d };
          if (best && liking(place) >= best.value) continue;
          place.z = this.#restsAt(y, d, near);
          if (place.z + item.h > space.h + PACK_TOLERANCE) continue;
          const value = liking(place);
          if (best && value >= best.value) continue;
          const bearing = this.#bearing(place, near);
          if (bearing && this.#isInOrder(place, near)) best = { place, bearing, value };
        }
      }
    }
    if (!best) return false;
    this.#all.push(best.place);
    this.#bearings.push(best.bearing);
    this.#loads.push(0);
    for (const [on, more] of this.#passedDown(best.bearing, item.mass)) this.#loads[on] += more;
    this.#mass += item.mass;
    this.#volume += volume;
    return true;
  }

  /** Where a piece so long may begin along x or y: at a wall, beside a piece, or in line with one. */
  #corners(axis: 'x' | 'y', length: number): number[] {
    const room = axis === 'x' ? this.space.w : this.space.d;
    const isMany = this.#all.length > MANY;
    const all = this.#all.flatMap((place) => {
      const from = place[axis];
      const to = from + (axis === 'x' ? place.w : place.d);
      if (!isMany) return [from - length, from, to - length, to];
      // From the left wall and from the back.
      return axis === 'x' ? [from, to] : [from - length, to - length];
    });
    const inside = [...new Set([0, room - length, ...all])].filter(
      (at) => at >= -PACK_TOLERANCE && at + length <= room + PACK_TOLERANCE,
    );
    // The deepest and leftmost, which are mostly liked best, first: what is liked less is then left out at once.
    return inside.sort((a, b) => (axis === 'x' ? a - b : b - a));
  }

  /** The numbers of the places that lie within a strip from the door to the back. */
  #beside(x: number, w: number): number[] {
    return this.#all.flatMap((at, i) => (isOver(overlap(x, w, at.x, at.w)) ? [i] : []));
  }

  /** How high a piece comes to rest that is let down on a strip. */
  #restsAt(y: number, d: number, near: readonly number[]): number {
    let z = 0;
    for (const i of near) {
      const at = this.#all[i];
      const top = at.z + at.item.h;
      if (top > z && isOver(overlap(y, d, at.y, at.d))) z = top;
    }
    return z;
  }

  /** What bears a piece. @returns null where a part of it stands on nothing, or something bears too much */
  #bearing({ item, x, y, z, w, d }: PackPlace, near: readonly number[]): Bearing[] | null {
    if (z === 0) return [];
    let held = 0;
    const bearing: Bearing[] = [];
    for (const on of near) {
      const at = this.#all[on];
      if (Math.abs(at.z + at.item.h - z) > PACK_TOLERANCE) continue;
      const [along, deep] = [overlap(x, w, at.x, at.w), overlap(y, d, at.y, at.d)];
      if (!isOver(deep)) continue;
      held += along * deep;
      bearing.push({ on, share: (along * deep) / (w * d) });
    }
    if (held < w * d * (1 - 1e-9)) return null;
    for (const [on, more] of this.#passedDown(bearing, item.mass)) {
      const { bears } = this.#all[on].item;
      if (bears === 0 || this.#loads[on] + more > bears * (1 + 1e-9)) return null;
    }
    return bearing;
  }

  /** How many grams more each piece bears when so many come on these. */
  #passedDown(bearing: readonly Bearing[], mass: number): Map<number, number> {
    const more = new Map<number, number>();
    const pass = (list: readonly Bearing[], grams: number) => {
      for (const { on, share } of list) {
        more.set(on, (more.get(on) ?? 0) + grams * share);
        pass(this.#bearings[on], grams * share);
      }
    };
    pass(bearing, mass);
    return more;
  }

  /** Whether it can be put in, and nothing that is needed earlier is then behind or under what is needed later. */
  #isInOrder(place: PackPlace, near: readonly number[]): boolean {
    const { item, y, d } = place;
    const exit = exitOf(this.space, place);
    if (exit === null) return false;
    const isHeldBy = (i: number): boolean => {
      const at = this.#all[i];
      if (i < this.#arches || at.item.order === item.order) return false;
      const isEarlier = item.order < at.item.order;
      // What is let down on the strip comes to rest over it.
      if (isOver(overlap(place.x, place.w, at.x, at.w)) && isOver(overlap(y, d, at.y, at.d)))
        return !isEarlier;
      return isEarlier
        ? this.#isInWay(place, exit, at)
        : this.#isInWay(at, exitOf(this.space, at) ?? at.x, place);
    };
    return this.#isOpen ? !near.some(isHeldBy) : !this.#all.some((_, i) => isHeldBy(i));
  }

  /** Whether another piece stands where this one goes: aside to its exit, then straight out. */
  #isInWay({ item, x, y, z, w, d }: PackPlace, exit: number, other: PackPlace): boolean {
    if (!isOver(overlap(z, item.h, other.z, other.item.h))) return false;
    const aside = Math.min(x, exit);
    const isAside =
      isOver(overlap(aside, Math.abs(x - exit) + w, other.x, other.w)) &&
      isOver(overlap(y, d, other.y, other.d));
    return isAside || (isOver(overlap(exit, w, other.x, other.w)) && isOver(overlap(0, y, other.y, other.d)));
  }
}
