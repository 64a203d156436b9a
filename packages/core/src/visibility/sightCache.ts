import { MM_PER_PLATE, type Rect } from '../grid/index.ts';
import { keyOf, labelOf, listOf, type Scene } from '../document/index.ts';
import type { Body, Relief } from '../terrain/index.ts';
import { addSizes } from './apparent.ts';
import { lookAtFaces, type KeptFace } from './cliffs.ts';
import { WATCHERS, publicEyes, type PublicEyes, type Watcher } from './eyes.ts';
import {
  eachBehind,
  fieldChange,
  tangents,
  overArea,
  type ChangedArea,
  type FieldChange,
  type FieldState,
} from './fieldChange.ts';
import { cavityFloor, roomFloors } from './floors.ts';
import { peaksOf, seesTop, type Eye, type HeightField, type Peaks } from './seen.ts';
import {
  Lookout,
  lookedAt,
  type LineMemo,
  type LookedAt,
  type SeenFloor,
  type SeenThing,
} from './targets.ts';
import { viewpointsOf, type Viewpoint } from './views.ts';

// What eyes see, kept from scene to scene: after a change only lines are followed that it may touch.

/** Eyes of one height along one side that count alike, and what they see of the ground. */
export interface Watch {
  who: Watcher;
  /** How much each of them counts. */
  weight: number;
  eyes: readonly Eye[];
  /** By eye: tops that it sees, 1 each. */
  seen: readonly Uint8Array[];
  /** How many of them see each top, and the solid angle of each column for all of them. */
  counts: Uint16Array;
  sizes: Float64Array;
}

/** What is seen of everything. What it holds is looked at again with the next scene: it is read at once. */
export interface Looked {
  field: HeightField;
  eyes: PublicEyes;
  watches: readonly Watch[];
  viewpoints: { from: Viewpoint; view: Watch }[];
  things: SeenThing[];
  rooms: Record<string, SeenFloor[]>;
  cavities: (SeenFloor & { id: string })[];
  faces: ReadonlyMap<number, KeptFace>;
}

/** A floor with what was found of each line to it. */
interface KeptFloor {
  seen: SeenFloor;
  lines: Int32Array;
}

/** Of a thing: what was found, and the bodies and the area it was found for. */
interface KeptThing {
  seen: SeenThing;
  /** What each line to it met. */
  lines: Int32Array;
  rooms: readonly KeptFloor[];
  bodies: readonly Body[];
}

interface Known extends FieldState {
  eyes: PublicEyes;
  watches: readonly Watch[];
  /** Of single places, by where their eyes are. */
  viewpoints: ReadonlyMap<string, Watch>;
  things: Map<string, KeptThing>;
  cavities: Map<string, SeenFloor | null>;
  faces: ReadonlyMap<number, KeptFace>;
}

/** What else than columns the colours of what is behind hang on. */
const COLOURED_BY = ['recipe', 'section', 'display', 'deck', 'way', 'cavity', 'level'] as const;

export class SightCache {
  #known: Known | null = null;

  /**
   * What is seen of a scene. Entities that did not change since the last one must be the same objects.
   * @param onProgress receives how much of it is done, 0 to 1
   * @returns null where it is not said who looks
   */
  look(scene: Scene, relief: Relief, onProgress: (share: number) => void): Looked | null {
    const eyes = publicEyes(scene, relief);
    if (!eyes) {
      this.#known = null;
      return null;
    }
    const lookout = new Lookout(scene, relief, eyes);
    const { field } = lookout;
    const state: FieldState = { scene, relief, field };
    const before = this.#known && areSameEyes(this.#known.eyes, eyes) ? this.#known : null;
    // What is kept is changed in place: a computation that is broken off leaves nothing.
    this.#known = null;
    const change = before && fieldChange(before, state);
    const update = before && change ? { before: before.field, ...change } : null;
    const viewpoints = viewpointsOf(scene, relief);
    const groups = before && change ? before.watches : watchesOf(eyes, field.heights.length);
    const peaks = peaksOf(field);
    let [done, told] = [0, 0];
    // A message for each thing would take longer than many a thing.
    const tell = (share: number) => {
      if (share - told < 0.01) return;
      told = share;
      onProgress(share);
    };
    const looking = (watch: Watch, kept: boolean): Watch => {
      watch.eyes.forEach((eye, k) => {
        if (kept && update) lookAgain(watch, k, eye, field, peaks, update);
        else lookWhole(watch, k, eye, field, peaks);
        tell((0.8 * ++done) / (viewpoints.length + groups.length * watch.eyes.length));
      });
      return watch;
    };
    const watches = groups.map((watch) => looking(watch, true));
    const single = new Map<string, Watch>();
    for (const { eye } of viewpoints) {
      const name = nameOfEye(eye);
      const kept = update ? before?.viewpoints.get(name) : undefined;
      if (!single.has(name))
        single.set(
          name,
          looking(kept ?? watchOf('adult', 1, [eye], field.heights.length), kept !== undefined),
        );
    }
    const known: Known = {
      ...{ ...state, eyes, watches },
      ...{ viewpoints: single, things: new Map(), cavities: new Map(), faces: NO_FACES },
    };
    const touch = before && change ? new Touch(before, known, change.areas) : null;
    known.faces = lookAtFaces(
      ...([relief, eyes, field, peaks] as const),
      before && touch && { faces: before.faces, touches: (lowest) => touch.meetsAny(lowest) },
    );
    const refs = lookedAt(scene);
    refs.forEach(({ kind, id }, i) => {
      known.things.set(keyOf(kind, id), thingOf(lookout, kind, id, before, touch));
      tell(0.8 + (0.2 * (i + 1)) / refs.length);
    });
    for (const { id } of listOf(scene, 'cavity')) {
      const kept = touch?.isCavityKept(id) ? before?.cavities.get(id) : undefined;
      const floor = kept === undefined ? cavityFloor(scene, relief, id) : null;
      known.cavities.set(id, kept === undefined ? floor && lookout.lookInto(floor) : kept);
    }
    this.#known = known;
    return {
      ...{ field, eyes, watches, faces: known.faces },
      viewpoints: viewpoints.flatMap((from) => {
        const view = single.get(nameOfEye(from.eye));
        return view ? [{ from, view }] : [];
      }),
      things: [...known.things.values()].map(({ seen }) => withNames(scene, seen)),
      rooms: Object.fromEntries(
        listOf(scene, 'plot').flatMap(({ id }) => {
          const rooms = known.things.get(keyOf('plot', id))?.rooms ?? [];
          return rooms.length > 0 ? [[id, rooms.map(({ seen }) => seen)] as const] : [];
        }),
      ),
      cavities: [...known.cavities].flatMap(([id, floor]) => (floor ? [{ id, ...floor }] : [])),
    };
  }
}

const NO_FACES: ReadonlyMap<number, KeptFace> = new Map();
const nameOfEye = ({ x, y, z }: Eye): string => `${x} ${y} ${z}`;

/** Whether the same eyes look: each at its place, counting as much. */
const areSameEyes = (a: PublicEyes, b: PublicEyes): boolean =>
  WATCHERS.every(
    (who) =>
      a.shares[who] === b.shares[who] &&
      a.by[who].length === b.by[who].length &&
      a.by[who].every((eye, i) => {
        const other = b.by[who][i];
        return nameOfEye(eye) === nameOfEye(other) && eye.crowd === other.crowd && eye.side === other.side;
      }),
  );

const watchOf = (who: Watcher, weight: number, eyes: readonly Eye[], size: number): Watch => ({
  ...{ who, weight, eyes, seen: eyes.map(() => new Uint8Array(size)) },
  ...{ counts: new Uint16Array(size), sizes: new Float64Array(size) },
});

/** Eyes of one height along one side that count alike, each group by itself. */
function watchesOf({ by, sides, shares }: PublicEyes, size: number): Watch[] {
  return WATCHERS.flatMap((who) =>
    sides.flatMap((side) => {
      const eyes = by[who].filter((eye) => eye.side === side);
      return [...new Set(eyes.map(({ crowd }) => crowd))].map((crowd) =>
        watchOf(
          who,
          shares[who] * crowd,
          eyes.filter((eye) => eye.crowd === crowd),
          size,
        ),
      );
    }),
  );
}

function lookWhole(
  { seen: all, counts, sizes }: Watch,
  k: number,
  eye: Eye,
  field: HeightField,
  peaks: Peaks,
) {
  const { w, heights } = field;
  const seen = all[k];
  for (let i = 0; i < seen.length; i++) {
    if (Number.isNaN(heights[i]) || !seesTop(field, peaks, eye, i % w, Math.trunc(i / w))) continue;
    seen[i] = 1;
    counts[i]++;
  }
  addSizes(field, eye, sizes);
}

/** Looks at the columns that differ, and at those whose lines may pass through them. */
function lookAgain(
  { seen: all, counts, sizes }: Watch,
  k: number,
  eye: Eye,
  field: HeightField,
  peaks: Peaks,
  { before, studs, areas }: FieldChange & { before: HeightField },
): void {
  if (studs.length === 0) return;
  const { w, heights } = field;
  const seen = all[k];
  const again = (i: number, column: number, row: number) => {
    const now = !Number.isNaN(heights[i]) && seesTop(field, peaks, eye, column, row) ? 1 : 0;
    counts[i] += now - seen[i];
    seen[i] = now;
  };
  for (const i of studs) again(i, i % w, Math.trunc(i / w));
  for (const area of areas) eachBehind(field, eye, area, again);
  const meets = (dx: number, dy: number) => areas.some((area) => meetsArea(eye, dx, dy, area));
  addSizes(before, eye, sizes, -1, meets);
  addSizes(field, eye, sizes, 1, meets);
}

/** Whether a ray from an eye passes over an area. */
function meetsArea(eye: Eye, dx: number, dy: number, area: ChangedArea): boolean {
  let [enter, leave] = [0, Infinity];
  for (const [at, by, low, high] of [
    [eye.x, dx, area.west, area.east],
    [eye.y, dy, area.south, area.north],
  ]) {
    if (by === 0) {
      if (at < low || at > high) return false;
      continue;
    }
    const [a, b] = [(low - at) / by, (high - at) / by];
    [enter, leave] = [Math.max(enter, Math.min(a, b)), Math.min(leave, Math.max(a, b))];
  }
  return enter <= leave;
}

function thingOf(
  lookout: Lookout,
  kind: LookedAt,
  id: string,
  before: Known | null,
  touch: Touch | null,
): KeptThing {
  const key = keyOf(kind, id);
  const bodies = lookout.bodiesOf(kind, id);
  const kept = before?.things.get(key);
  const isItself = kept !== undefined && touch?.isItself(kind, id, kept.bodies, bodies) === true;
  const isKept = isItself && touch?.isUncrossed(bodies) === true;
  const blends = isKept && touch?.isColourKept(bodies) ? kept.seen.blends : lookout.blendOf(kind, id);
  if (isKept) return { ...kept, bodies, seen: { ...kept.seen, blends } };
  const memo = memoOf(lookout, lookout.pointsOf(kind, id), isItself ? kept.lines : null, touch);
  return {
    bodies,
    lines: memo.lines,
    seen: {
      ...lookout.look(kind, id, [], memo),
      blends,
      reads: kind === 'signboard' ? (lookout.reading(id)?.by ?? null) : null,
    },
    rooms:
      kind === 'plot'
        ? roomsOf(lookout, id, isItself && touch?.isClear(bodies) ? kept.rooms : [], touch)
        : [],
  };
}

/** What lines to some points met, to be kept, or as it was kept for as many. */
function memoOf(
  lookout: Lookout,
  points: number,
  kept: Int32Array | null | undefined,
  touch: Touch | null,
): LineMemo {
  const size = points * lookout.eyeCount;
  const isFilled = touch !== null && kept?.length === size;
  return {
    lines: isFilled && kept ? kept : new Int32Array(size),
    isFilled,
    asks: (at, eye) => touch === null || touch.meets(at, eye),
  };
}

/** Floors of a building from the top down, as far as one sees into them. @param before the same floors, where they are known */
function roomsOf(
  lookout: Lookout,
  id: string,
  before: readonly KeptFloor[],
  touch: Touch | null,
): KeptFloor[] {
  const { scene, relief } = lookout;
  const plot = scene.plot[id];
  const ground = lookout.groundOf('plot', id);
  if (!plot || ground === null) return [];
  return roomFloors(relief, plot, ground, lookout.studsOf('plot', id)).map((floor, storey) => {
    const memo = memoOf(lookout, floor.points.length, before[storey]?.lines, touch);
    return { seen: lookout.lookInto(floor, memo), lines: memo.lines };
  });
}

/** What is seen with the names that things have now. */
const withNames = (scene: Scene, seen: SeenThing): SeenThing => ({
  ...seen,
  name: labelOf(scene, seen.kind, seen.id),
  hiders: seen.hiders.map((hider) =>
    hider.id === '' ? hider : { ...hider, name: labelOf(scene, hider.kind, hider.id) },
  ),
});

/** Which things a change may touch: lines between them and eyes, and what lies behind them. */
class Touch {
  /** Of eyes at one place the lowest. */
  readonly #eyes: readonly Eye[];
  /** Where colours of what may lie behind something differ; null: everywhere. */
  readonly #painted: readonly ChangedArea[] | null;

  constructor(
    readonly before: Known,
    readonly now: Known,
    readonly areas: readonly ChangedArea[],
  ) {
    const { by } = now.eyes;
    const lowest = new Map<string, Eye>();
    for (const who of WATCHERS)
      for (const eye of by[who]) {
        const place = `${eye.x} ${eye.y}`;
        if (eye.z < (lowest.get(place)?.z ?? Infinity)) lowest.set(place, eye);
      }
    this.#eyes = [...lowest.values()];
    this.#painted = COLOURED_BY.some((kind) => before.scene[kind] !== now.scene[kind])
      ? null
      : [...areas, ...this.#repainted()];
  }

  /** Whether a thing is as it was, and stands as it did. */
  isItself(kind: LookedAt, id: string, old: readonly Body[], bodies: readonly Body[]): boolean {
    return this.before.scene[kind][id] === this.now.scene[kind][id] && areSameBodies(old, bodies);
  }

  /** Whether no line to a thing may meet what differs. */
  isUncrossed(bodies: readonly Body[]): boolean {
    const place = this.#placeOf(bodies);
    const low = MM_PER_PLATE * Math.min(...bodies.map(({ ground }) => ground));
    return !this.areas.some((area) => this.#crosses(area, place, low));
  }

  /** Whether a line from some eye to a point, or to one above it, may meet what differs. */
  meetsAny(lowest: Eye): boolean {
    return this.areas.length > 0 && this.#eyes.some((eye) => this.meets(lowest, eye));
  }

  /** Whether nothing differs where a thing stands: on floors inside it too. */
  isClear(bodies: readonly Body[]): boolean {
    const place = this.#placeOf(bodies);
    return this.areas.every(
      ({ west, south, east, north }) =>
        west >= place.east || east <= place.west || south >= place.north || north <= place.south,
    );
  }

  /** Whether a line may meet what differs. */
  meets(at: Eye, eye: Eye): boolean {
    return this.areas.some((area) => {
      const [enter, leave] = overArea(at, eye, area);
      return enter <= leave && at.z + Math.min((eye.z - at.z) * enter, (eye.z - at.z) * leave) < area.high;
    });
  }

  /** Whether what lies behind a thing has the colours it had. */
  isColourKept(bodies: readonly Body[]): boolean {
    if (this.#painted === null || this.before.scene.character !== this.now.scene.character) return false;
    const place = this.#placeOf(bodies);
    return !this.#painted.some((area) => this.#crosses(area, place, null));
  }

  isCavityKept(id: string): boolean {
    const [was, is] = [this.before, this.now];
    if (was.scene.cavity[id] !== is.scene.cavity[id] || was.scene.level !== is.scene.level) return false;
    const slab = is.relief.slabs.find((one) => one.kind === 'cavity' && one.id === id);
    if (!slab) return false;
    const place = this.#inFrame(slab);
    return !this.areas.some((area) => this.#crosses(area, place, -Infinity));
  }

  #repainted(): ChangedArea[] {
    const [was, is] = [this.before, this.now];
    return listOf(is.scene, 'plot').flatMap(({ id }) => {
      if (was.scene.plot[id] === is.scene.plot[id]) return [];
      const bodies = is.things.get(keyOf('plot', id))?.bodies ?? was.things.get(keyOf('plot', id))?.bodies;
      return bodies ? [this.#placeOf(bodies)] : [];
    });
  }

  #placeOf(bodies: readonly Body[]): ChangedArea {
    const places = bodies.map(({ bounds }) => this.#inFrame(bounds));
    return {
      west: Math.min(...places.map(({ west }) => west)),
      south: Math.min(...places.map(({ south }) => south)),
      east: Math.max(...places.map(({ east }) => east)),
      north: Math.max(...places.map(({ north }) => north)),
      high: Infinity,
    };
  }

  #inFrame({ x, y, w, d }: Rect): ChangedArea {
    const { relief } = this.now;
    const north = relief.y + relief.d - y;
    return { west: x - relief.x, east: x - relief.x + w, south: north - d, north, high: Infinity };
  }

  /**
   * Whether some eye may look at a place past an area.
   * @param low the lowest point that is looked at there, mm; null: what is behind the place is looked at too
   */
  #crosses(area: ChangedArea, place: ChangedArea, low: number | null): boolean {
    return this.#eyes.some((eye) => {
      if (isIn(eye, place)) return true;
      const [own, other] = [cornersFrom(eye, place), cornersFrom(eye, area)];
      const [right, left] = tangents(own);
      if (other.every(({ x, y }) => right.x * y - right.y * x < -NEAR)) return false;
      if (other.every(({ x, y }) => left.x * y - left.y * x > NEAR)) return false;
      const to = { x: right.x + left.x, y: right.y + left.y };
      const far = ({ x, y }: { x: number; y: number }) => x * to.x + y * to.y;
      const most = Math.max(...other.map(far));
      if (most < 0 && !isIn(eye, area)) return false;
      if (low === null) return true;
      if (Math.min(...other.map(far)) > Math.max(...own.map(far)) + NEAR) return false;
      // A line rises from the place to the eye; where it leaves the area first it is lowest over it.
      const least = low + (eye.z - low) * (1 - most / Math.min(...own.map(far)));
      return eye.z < low || !(least > area.high + NEAR);
    });
  }
}

const NEAR = 1e-6;
const isIn = ({ x, y }: { x: number; y: number }, { west, south, east, north }: ChangedArea): boolean =>
  x >= west && x <= east && y >= south && y <= north;
const cornersFrom = (eye: { x: number; y: number }, { west, south, east, north }: ChangedArea) =>
  [
    [west, south],
    [east, south],
    [east, north],
    [west, north],
  ].map(([x, y]) => ({ x: x - eye.x, y: y - eye.y }));

const areSameBodies = (a: readonly Body[], b: readonly Body[]): boolean =>
  a.length === b.length &&
  a.every((one, i) => {
    const other = b[i];
    return (
      one.ground === other.ground &&
      one.begins === other.begins &&
      one.top === other.top &&
      one.corners.length === other.corners.length &&
      one.corners.every(({ x, y }, k) => x === other.corners[k].x && y === other.corners[k].y)
    );
  });
