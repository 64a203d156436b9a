import { keyOf, labelOf, listOf, type Scene } from '../document/index.ts';
import type { Body, Relief } from '../terrain/index.ts';
import { lookAtFaces, type KeptFace } from './cliffs.ts';
import { WATCHERS, publicEyes, type PublicEyes } from './eyes.ts';
import { fieldChange, type FieldState } from './fieldChange.ts';
import { cavityFloor, roomFloors } from './floors.ts';
import { peaksOf, type Eye, type HeightField } from './seen.ts';
import {
  Lookout,
  lookedAt,
  type LineMemo,
  type LookedAt,
  type SeenFloor,
  type SeenThing,
} from './targets.ts';
import { Touch } from './touch.ts';
import { viewpointsOf, type Viewpoint } from './views.ts';
import { lookAgain, lookWhole, watchOf, watchesOf, type Watch } from './watches.ts';

// What eyes see, kept from scene to scene: after a change only lines are followed that it may touch.

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

/** Of a thing: what was found, and the bodies it was found for. */
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

/** What was seen of a scene, for the next look at it. */
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
