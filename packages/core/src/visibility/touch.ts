import { MM_PER_PLATE, type Rect } from '../grid/index.ts';
import { keyOf, listOf, type Scene } from '../document/index.ts';
import type { Body, Relief } from '../terrain/index.ts';
import { WATCHERS, type PublicEyes } from './eyes.ts';
import { overArea, tangents, type ChangedArea } from './fieldChange.ts';
import type { Eye } from './seen.ts';
import type { LookedAt } from './targets.ts';

/** What else than columns the colours of what is behind hang on. */
const COLOURED_BY = ['recipe', 'section', 'display', 'deck', 'way', 'cavity', 'level'] as const;

/** A scene with those who look at it, and where its things stood when they were looked at. */
export interface TouchState {
  scene: Scene;
  relief: Relief;
  eyes: PublicEyes;
  things: ReadonlyMap<string, { bodies: readonly Body[] }>;
}

/** Which things a change may touch: lines between them and eyes, and what lies behind them. */
export class Touch {
  /** Of eyes at one place the lowest. */
  readonly #eyes: readonly Eye[];
  /** Where colours of what may lie behind something differ; null: everywhere. */
  readonly #painted: readonly ChangedArea[] | null;

  constructor(
    readonly before: TouchState,
    readonly now: TouchState,
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
      const [enter, leave] = overArea(at, eye.x - at.x, eye.y - at.y, area, 1);
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
      // Along the middle of the cone, in front of which all of the place lies, however wide it is.
      const [r, l] = [Math.hypot(right.x, right.y), Math.hypot(left.x, left.y)];
      const to = { x: right.x / r + left.x / l, y: right.y / r + left.y / l };
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
