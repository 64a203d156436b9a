import { MM_PER_STUD } from '../grid/index.ts';
import { ANY_COLOUR, DISTINCT_DELTA_E, colourDeltaE } from '../catalogue/index.ts';
import {
  SIDES,
  entityOf,
  keyOf,
  labelOf,
  letterHeight,
  type Kind,
  type Scene,
  type Side,
} from '../document/index.ts';
import type { Body, Relief } from '../terrain/index.ts';
import { colourOfStuds, knownColour, outlineColour, wornColours, type Coloured } from './colours.ts';
import { faceAt, lookAtFace } from './cliffs.ts';
import { WATCHERS, byWatcher, type PublicEyes, type Watcher } from './eyes.ts';
import { SightField } from './field.ts';
import {
  LEAST_STRAIGHT,
  boardTargets,
  faceOf,
  isBefore,
  lettersReadFrom,
  outlinePoints,
  straightness,
  targetsOf,
  type LookedPoint,
} from './points.ts';
import { FREE, firstHider, peaksOf, type Eye, type HeightField, type Peaks } from './seen.ts';

// Buildings and small scenes as eyes see them: points on their faces, the lines to them, and what cuts those off.

/** What is looked at by itself. */
export type LookedAt = 'plot' | 'figure' | 'signboard';
const LOOKED_AT: readonly LookedAt[] = ['plot', 'figure', 'signboard'];

/** What is seen of a building, a small scene or a signboard. */
export interface SeenThing {
  kind: LookedAt;
  id: string;
  name: string;
  /**
   * Share of the lines from eyes to those parts of it that face them which nothing cuts off, 0 to 1; null: none faces any. To
   * the letters of a signboard there are lines from all eyes, and those from behind are cut off.
   */
  free: Record<Watcher, number | null>;
  /** The share of all watchers by the side it faces, of those sides that face somebody; of a building alone. */
  sides: { side: Side; free: number }[];
  /** The mean of all visitors, 0 to 1: those that see none of the faces that are before them count as nothing. */
  mean: number;
  /** What cuts its lines off first, the most first: shares of all its lines. */
  hiders: Hider[];
  /** The shortest free line: how long, mm, and how steeply one looks down along it, degrees; null: nobody sees it. */
  nearest: { distance: number; down: number } | null;
  /** Where it has the colour of what lies behind it; null: its own is not known, or nobody sees its outline. */
  blends: Blend | null;
  /** Of a signboard: share of the places from which those of each height read it, 0 to 1; null: nobody of that height comes. */
  reads: Record<Watcher, number | null> | null;
}

/** What `look` tells of a thing: all but its colours and its letters, which are asked apart. */
export type Seen = Omit<SeenThing, 'blends' | 'reads'>;

/** How a signboard is read. */
export interface BoardReading {
  by: Record<Watcher, number | null>;
  /** How many places are before its face, and how many of these see it freely. */
  before: number;
  free: number;
  /** Letters that those who see it best would read, mm; Infinity: nobody sees it. */
  needed: number;
  /** How far off straight on they stand, degrees. */
  aside: number;
}

/** What has nearly the same colour behind a thing's outline. */
export interface Blend {
  /** Share of what is seen of its outline, 0 to 1. */
  share: number;
  /** The most first; deltaE by CIEDE2000, below DISTINCT_DELTA_E. */
  against: (Coloured & { own: string; deltaE: number; share: number })[];
}

/** Points of a floor that eyes may see, mm over the table, and what is lower meanwhile. */
export interface Floor {
  name: string;
  points: readonly Eye[];
  /** Studs that are no higher, mm. */
  lowered: readonly { i: number; height: number }[];
}

/** How much of a floor is seen. */
export interface SeenFloor {
  name: string;
  /** Shares of its points that somebody of each height sees; null: nobody of that height comes. */
  free: Record<Watcher, number | null>;
  /** How deep one sees into it from each side that is looked at, of how much, studs. */
  depths: { side: Side; seen: number; of: number }[];
}

export interface Hider {
  kind: Kind;
  id: string;
  name: string;
  share: number;
  /** Whether it stands on the ground, so that it could be moved or taken away. */
  isStanding: boolean;
}

/** Where sums of lines stand: by watcher, of all, by side. */
const ALL = WATCHERS.length;
const SUMS = ALL + 1 + SIDES.length;

/** What stands, and is put on the ground. */
const STANDING: readonly Kind[] = ['plot', 'run', 'repeat', 'planting', 'tree'];

/** What lines were found to meet, kept for the next time. */
export interface LineMemo {
  lines: Int32Array;
  /** They are those of the same points and eyes. */
  isFilled: boolean;
  /** Whether a line may meet something else than then. */
  asks: (at: Eye, eye: Eye) => boolean;
}

/** Looks at buildings and small scenes of a compiled scene, one after the other. */
export class Lookout {
  readonly #field: SightField;
  /** With everything in its place: what is taken away only lowers the field. */
  readonly #peaks: Peaks;
  readonly #colours: ReturnType<typeof colourOfStuds>;

  /** @param standing everything that stands in the scene, where it is known already */
  constructor(
    readonly scene: Scene,
    readonly relief: Relief,
    readonly eyes: PublicEyes,
    standing?: readonly Body[],
  ) {
    this.#field = new SightField(scene, relief, standing);
    this.#peaks = peaksOf(this.#field.field);
    this.#colours = colourOfStuds(scene, relief);
  }

  /** The columns that lines of sight meet. */
  get field(): HeightField {
    return this.#field.field;
  }

  /** What stands of a thing. */
  bodiesOf(kind: Kind, id: string): readonly Body[] {
    return this.#field.bodiesOf(keyOf(kind, id));
  }

  /**
   * What is seen of a thing.
   * @param without what is taken away meanwhile, keys of things
   * @param memo what each line met, by watcher, eye and point: filled in, or taken as it is where a line is not asked about
   */
  look(kind: LookedAt, id: string, without: readonly string[] = [], memo: LineMemo | null = null): Seen {
    const key = keyOf(kind, id);
    const targets = this.#targetsOf(kind, id);
    const putBack = [key, ...without].map((one) => this.#field.takeAway(one));
    // By watcher, of all, and by side: the weight of all lines and of free ones.
    const [sums, freeSums] = [new Float64Array(SUMS), new Float64Array(SUMS)];
    const add = (of: number, weight: number, isFree: boolean) => {
      sums[of] += weight;
      if (isFree) freeSums[of] += weight;
    };
    const cut = new Map<number, number>();
    let line = -1;
    let nearest = { distance: Infinity, down: 0 };
    WATCHERS.forEach((who, watcher) => {
      for (const eye of this.eyes.by[who])
        for (const target of targets) {
          const { at, side } = target;
          line++;
          const seen = target.weight * eye.crowd;
          const weight = seen * this.eyes.shares[who];
          if (!isBefore(target, eye)) {
            // A building has other sides for those behind it; a signboard has letters on one.
            if (kind === 'signboard') {
              add(watcher, seen, false);
              add(ALL, weight, false);
            }
            continue;
          }
          const isKnown = memo !== null && memo.isFilled && !memo.asks(at, eye);
          const hider = isKnown ? memo.lines[line] : firstHider(this.#field.field, this.#peaks, at, eye);
          if (memo) memo.lines[line] = hider;
          if (hider === FREE) {
            const flat = MM_PER_STUD * Math.hypot(eye.x - at.x, eye.y - at.y);
            const distance = Math.hypot(flat, eye.z - at.z);
            if (distance < nearest.distance)
              nearest = { distance, down: (Math.atan2(eye.z - at.z, flat) * 180) / Math.PI };
          }
          add(watcher, seen, hider === FREE);
          add(ALL, weight, hider === FREE);
          if (side !== null) add(ALL + 1 + SIDES.indexOf(side), weight, hider === FREE);
          if (hider !== FREE) {
            const owner = this.relief.owner[hider];
            cut.set(owner, (cut.get(owner) ?? 0) + weight);
          }
        }
    });
    for (const back of putBack.toReversed()) back();
    const shareOf = (of: number) => (sums[of] > 0 ? freeSums[of] / sums[of] : null);
    const all = sums[ALL] > 0 ? sums[ALL] : 1;
    const free = byWatcher((who) => shareOf(WATCHERS.indexOf(who)));
    return {
      ...{ kind, id, name: labelOf(this.scene, kind, id), free },
      nearest: nearest.distance < Infinity ? nearest : null,
      mean: WATCHERS.reduce((sum, who) => sum + this.eyes.shares[who] * (free[who] ?? 0), 0),
      sides: SIDES.flatMap((side, k) => {
        const share = shareOf(ALL + 1 + k);
        return share === null ? [] : [{ side, free: share }];
      }),
      hiders: [...cut]
        .map(([owner, weight]) => this.#hider(owner, weight / all))
        .toSorted((a, b) => b.share - a.share || (a.id < b.id ? -1 : 1)),
    };
  }

  /**
   * How much of a floor is seen, and how deep one sees into it.
   * @param memo whether each line is free (1), by watcher, point and eye: filled in, or taken as it is where a line is not
   * asked about
   */
  lookInto(floor: Floor, memo: LineMemo | null = null): SeenFloor {
    const { field } = this.#field;
    const before = floor.lowered.map(({ i }) => field.heights[i]);
    floor.lowered.forEach(({ i, height }, k) => (field.heights[i] = Math.min(before[k], height)));
    const depths = this.eyes.sides.map((side) => ({ side, ...depthsFrom(side, floor.points), seen: 0 }));
    let line = -1;
    const isFree = (at: Eye, eye: Eye): boolean => {
      line++;
      if (memo?.isFilled && !memo.asks(at, eye)) return memo.lines[line] === 1;
      const free = eye.z >= at.z && firstHider(field, this.#peaks, at, eye) === FREE;
      if (memo) memo.lines[line] = free ? 1 : 0;
      return free;
    };
    const free = byWatcher((who) => {
      let seen = 0;
      floor.points.forEach((at, k) => {
        const seeing = this.eyes.by[who].filter((eye) => isFree(at, eye));
        if (seeing.length > 0) seen++;
        for (const depth of depths)
          if (seeing.some(({ side }) => side === depth.side))
            depth.seen = Math.max(depth.seen, depth.deep[k]);
      });
      return this.eyes.by[who].length > 0 && floor.points.length > 0 ? seen / floor.points.length : null;
    });
    floor.lowered.forEach(({ i }, k) => (field.heights[i] = before[k]));
    return { name: floor.name, free, depths: depths.map(({ side, seen, of }) => ({ side, seen, of })) };
  }

  /** From how many eyes each point is looked at. */
  get eyeCount(): number {
    return WATCHERS.reduce((sum, who) => sum + this.eyes.by[who].length, 0);
  }

  /** How many points of a thing are looked at. */
  pointsOf(kind: LookedAt, id: string): number {
    return this.#targetsOf(kind, id).length;
  }

  /** Those of some studs, by their index in the relief, whose top somebody sees. */
  seenTops(studs: readonly number[]): number[] {
    const { field } = this.#field;
    const eyes = WATCHERS.flatMap((who) => this.eyes.by[who]);
    return studs.filter((i) => {
      const z = field.heights[i];
      if (Number.isNaN(z)) return false;
      const at = { x: (i % field.w) + 0.5, y: field.d - Math.trunc(i / field.w) - 0.5, z };
      return eyes.some((eye) => eye.z >= z && firstHider(field, this.#peaks, at, eye) === FREE);
    });
  }

  /** Whether somebody sees the face of a stud of ground to one side. @param side by number of SIDES */
  seesFace(stud: number, side: number): boolean {
    const face = faceAt(this.relief, stud, side);
    return face !== null && lookAtFace(this.relief, this.eyes, this.field, this.#peaks, face).isSeen;
  }

  /** How near to it eyes come, mm; Infinity where it does not stand in the scene. */
  nearest(kind: LookedAt, id: string): number {
    const points = this.#targetsOf(kind, id);
    const eyes = WATCHERS.flatMap((who) => this.eyes.by[who]);
    let nearest = Infinity;
    for (const { at } of points)
      for (const eye of eyes)
        nearest = Math.min(
          nearest,
          Math.hypot((eye.x - at.x) * MM_PER_STUD, (eye.y - at.y) * MM_PER_STUD, eye.z - at.z),
        );
    return nearest;
  }

  /** The studs on which a thing is uppermost. */
  studsOf(kind: Kind, id: string): readonly number[] {
    return this.#field.studsOf(keyOf(kind, id));
  }

  /** What a thing stands on, plates; null: it does not stand in the scene. */
  groundOf(kind: Kind, id: string): number | null {
    return this.#field.bodiesOf(keyOf(kind, id))[0]?.ground ?? null;
  }

  #hider(owner: number, share: number): Hider {
    const thing = owner > 0 ? this.relief.things[owner - 1] : null;
    if (!thing) return { kind: 'display', id: '', name: 'The ground', share, isStanding: false };
    const { kind, id } = thing;
    return { kind, id, name: labelOf(this.scene, kind, id), share, isStanding: STANDING.includes(kind) };
  }

  /** Where a thing has the colour of what lies behind its outline: its head, or the farther top edges where one looks down on it, else the nearer ones. */
  blendOf(kind: LookedAt, id: string): Blend | null {
    const colours = coloursOf(this.scene, kind, id);
    if (colours.length === 0) return null;
    const key = keyOf(kind, id);
    const behind = new Behind(colours);
    const outline = this.#bodiesOf(key).flatMap((body) => outlinePoints(body, this.relief));
    const back = this.#field.takeAway(key);
    for (const who of WATCHERS)
      for (const eye of this.eyes.by[who])
        for (const target of outline) {
          const { at, out, weight } = target;
          if (out && isBefore(target, eye) === eye.z >= at.z) continue;
          if (firstHider(this.#field.field, this.#peaks, at, eye) !== FREE) continue;
          behind.add(this.#behind(at, eye, key), weight * eye.crowd * this.eyes.shares[who]);
        }
    back();
    return behind.answer();
  }

  /** How a signboard is read from all places; null: it is not there. */
  reading(id: string): BoardReading | null {
    const sign = this.scene.signboard[id];
    const [board] = this.#field.bodiesOf(keyOf('signboard', id));
    if (!sign || !board) return null;
    const middle = faceOf(sign, board, this.relief, 0);
    const letters = letterHeight(sign);
    let [before, free, needed, aside] = [0, 0, Infinity, 0];
    const by = byWatcher((who) => {
      let [all, reading] = [0, 0];
      for (const eye of this.eyes.by[who]) {
        all += eye.crowd;
        const straight = straightness(middle, eye);
        if (straight < LEAST_STRAIGHT) continue;
        before++;
        if (firstHider(this.#field.field, this.#peaks, middle.at, eye) !== FREE) continue;
        free++;
        const size = lettersReadFrom(middle, eye);
        if (size < needed) [needed, aside] = [size, (Math.acos(straight) * 180) / Math.PI];
        if (letters >= size) reading += eye.crowd;
      }
      return all > 0 ? reading / all : null;
    });
    return { by, before, free, needed, aside };
  }

  #targetsOf(kind: LookedAt, id: string): LookedPoint[] {
    const bodies = this.#bodiesOf(keyOf(kind, id));
    const sign = kind === 'signboard' ? this.scene.signboard[id] : undefined;
    if (sign) return bodies.flatMap((body) => boardTargets(sign, body, this.relief));
    return bodies.flatMap((body) => targetsOf(body, this.relief));
  }

  /** What stands there of a thing but its pavement. */
  #bodiesOf(key: string): Body[] {
    return this.#field.bodiesOf(key).filter(({ isPavement }) => !isPavement);
  }

  /** What a line from an eye meets behind a point; null: the hall, or what has no known colour. */
  #behind(at: Eye, eye: Eye, away: string): Coloured | null {
    const { field } = this.#field;
    const flat = Math.hypot(at.x - eye.x, at.y - eye.y);
    if (flat === 0) return null;
    const far = (field.w + field.d) / flat;
    const on = (t: number): Eye => ({
      x: at.x + (at.x - eye.x) * t,
      y: at.y + (at.y - eye.y) * t,
      z: at.z + (at.z - eye.z) * t,
    });
    const met = firstHider(field, this.#peaks, at, on(far));
    if (met !== FREE) return this.#colours(met, away);
    if (at.z >= eye.z) return null;
    // Down on even ground at the datum.
    const { x, y } = on(at.z / (eye.z - at.z));
    const [column, row] = [Math.floor(x), field.d - 1 - Math.floor(y)];
    if (column < 0 || row < 0 || column >= field.w || row >= field.d) return null;
    const i = row * field.w + column;
    return Number.isNaN(field.heights[i]) ? null : this.#colours(i, away);
  }
}

function coloursOf(scene: Scene, kind: LookedAt, id: string): string[] {
  if (kind === 'figure') return wornColours(scene, id);
  const own =
    kind === 'signboard'
      ? knownColour(scene.signboard[id]?.colour ?? ANY_COLOUR)
      : scene.plot[id] && outlineColour(scene.plot[id]);
  return own ? [own] : [];
}

/** What lies behind the outline of a thing, by how much of it. */
class Behind {
  #all = 0;
  readonly #met = new Map<string, Coloured & { weight: number }>();

  constructor(readonly colours: readonly string[]) {}

  add(met: Coloured | null, weight: number): void {
    this.#all += weight;
    if (!met) return;
    const key = `${met.colour} ${met.name}`;
    const there = this.#met.get(key);
    if (there) there.weight += weight;
    else this.#met.set(key, { ...met, weight });
  }

  /** null: nobody sees its outline. */
  answer(): Blend | null {
    if (this.#all === 0) return null;
    const against = [...this.#met.values()].flatMap(({ weight, ...met }) => {
      const close = this.colours
        .map((own) => ({ own, deltaE: colourDeltaE(own, met.colour) }))
        .filter(({ deltaE }) => deltaE < DISTINCT_DELTA_E);
      const [nearest] = close.toSorted((a, b) => a.deltaE - b.deltaE);
      const share = (weight / this.#all) * (close.length / this.colours.length);
      return nearest ? [{ ...met, ...nearest, share }] : [];
    });
    return {
      share: against.reduce((sum, one) => sum + one.share, 0),
      against: against.toSorted((a, b) => b.share - a.share || (a.name < b.name ? -1 : 1)),
    };
  }
}

/** How far each point lies behind the nearest one as one looks from a side, and how deep all of it is, studs. */
function depthsFrom(side: Side, points: readonly Eye[]): { deep: number[]; of: number } {
  const along = points.map(({ x, y }) => ({ s: y, n: -y, w: x, e: -x })[side]);
  const least = Math.min(...along);
  return { deep: along.map((at) => at - least + 1), of: Math.max(0, ...along.map((at) => at - least + 1)) };
}

/** Whether a kind of thing is looked at by itself. */
export const lookedAt = (scene: Scene): { kind: LookedAt; id: string }[] =>
  LOOKED_AT.flatMap((kind) =>
    Object.keys(scene[kind])
      .filter((id) => entityOf(scene, kind, id) !== undefined)
      .toSorted()
      .map((id) => ({ kind, id })),
  );
