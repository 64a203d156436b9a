import { MM_PER_STUD } from '../grid/index.ts';
import {
  chosenSpotOf,
  labelOf,
  listOf,
  photoSpotsOf,
  type Kind,
  type Place,
  type Scene,
} from '../document/index.ts';
import type { Relief } from '../terrain/index.ts';
import {
  currentContents,
  currentPlace,
  frameOf,
  highestTable,
  openingLine,
  pointToScene,
} from '../venue/index.ts';
import { NO_BARRIER } from './eyes.ts';
import { inFrame } from './field.ts';
import type { Eye, HeightField } from './seen.ts';

// Single places from which the display is seen: the doors of the hall, and spots where photos are taken.

/** A place from which the display is seen, with an adult's eyes. */
export interface Viewpoint {
  kind: 'opening' | 'photo' | 'photoSpot';
  id: string;
  name: string;
  /** In the frame of lines of sight. */
  eye: Eye;
  /** Where one looks, degrees clockwise from north; null: at the display. */
  bearing: number | null;
  /** The newest photo from there; null: none. */
  photo: string | null;
}

/** What is seen from one place. */
export interface ViewFrom extends Viewpoint {
  /** To the nearest edge of the display, mm. */
  distance: number;
  /** Share of the studs whose top is seen, 0 to 1. */
  seen: number;
  /** What fills most of the view: shares of the solid angle that the display fills. */
  first: { kind: Kind; id: string; name: string; share: number }[];
}

/** So much of the view is told. */
const MAX_FIRST = 3;

/**
 * Doors and open ways of the current place, then spots of photos and those chosen for photos, with an adult's eyes unless a
 * spot says how high its camera is. Walls of the hall hide nothing.
 */
export function viewpointsOf(scene: Scene, relief: Relief): Viewpoint[] {
  const place = currentPlace(scene);
  if (!place) return [];
  const z = place.eyeAdult - highestTable(scene);
  const photos = photoViews(scene, relief, z);
  return [...doorsOf(scene, place, relief, z), ...photos, ...chosenViews(scene, relief, z, photos)];
}

function doorsOf(scene: Scene, place: Place, relief: Relief, z: number): Viewpoint[] {
  const frame = frameOf(scene);
  return currentContents(scene, 'opening')
    .filter(({ use }) => use !== 'window')
    .flatMap((opening): Viewpoint[] => {
      const line = openingLine(place.walls, opening);
      if (!line) return [];
      const middle = pointToScene(frame, { x: (line.a.x + line.b.x) / 2, y: (line.a.y + line.b.y) / 2 });
      const { id, name } = opening;
      return [{ kind: 'opening', id, name, eye: inFrame(relief, middle, z), bearing: null, photo: null }];
    });
}

/** Spots of photos with a place: from where they were taken, or from before the edge where what is looked at is known. */
function photoViews(scene: Scene, relief: Relief, z: number): Viewpoint[] {
  return photoSpotsOf(scene).flatMap(({ photos }): Viewpoint[] => {
    const [first, newest] = [photos[0], photos.at(-1)];
    if (!first || first.x === null || first.y === null) return [];
    const at = inFrame(relief, { x: first.x, y: first.y }, z);
    const eye = isOver(relief, at) ? steppedBack(relief, at, first.bearing) : at;
    if (!eye) return [];
    const name = `${labelOf(scene, 'photo', first.id)} at ${first.x}, ${first.y}`;
    return [
      { kind: 'photo', id: first.id, name, eye, bearing: first.bearing, photo: newest?.id ?? first.id },
    ];
  });
}

/** Spots that are chosen for photos; once there is a photo from one, that stands for it. */
function chosenViews(scene: Scene, relief: Relief, z: number, photos: readonly Viewpoint[]): Viewpoint[] {
  const taken = new Set(
    photos.flatMap(({ id }) => {
      const spot = chosenSpotOf(scene, scene.photo[id]);
      return spot ? [spot.id] : [];
    }),
  );
  return listOf(scene, 'photoSpot').flatMap(({ id, name, x, y, bearing, eye: camera }): Viewpoint[] => {
    if (taken.has(id)) return [];
    const at = inFrame(relief, { x, y }, camera === null ? z : camera - highestTable(scene));
    const eye = isOver(relief, at) ? steppedBack(relief, at, bearing) : at;
    return eye ? [{ kind: 'photoSpot', id, name, eye, bearing, photo: null }] : [];
  });
}

const isOver = ({ w, d }: { w: number; d: number }, { x, y }: Eye): boolean =>
  x > 0 && y > 0 && x < w && y < d;

/** Back from what is looked at, against the bearing, to where the public stands; null where the direction is not known. */
function steppedBack({ w, d }: Relief, at: Eye, bearing: number | null): Eye | null {
  if (bearing === null) return null;
  const angle = (bearing * Math.PI) / 180;
  const [dx, dy] = [-Math.sin(angle), -Math.cos(angle)];
  // Where the way back leaves the display.
  const out = Math.min(
    ...[dx > 1e-9 ? (w - at.x) / dx : dx < -1e-9 ? -at.x / dx : Infinity],
    ...[dy > 1e-9 ? (d - at.y) / dy : dy < -1e-9 ? -at.y / dy : Infinity],
  );
  const by = out + NO_BARRIER / MM_PER_STUD;
  return { x: at.x + dx * by, y: at.y + dy * by, z: at.z };
}

/** What is seen from a place. @param view what its eye sees of each column */
export function viewFrom(
  scene: Scene,
  relief: Relief,
  field: HeightField,
  from: Viewpoint,
  { counts, sizes }: { counts: Uint16Array; sizes: Float64Array },
): ViewFrom {
  const { eye } = from;
  let [studs, seen] = [0, 0];
  field.heights.forEach((height, i) => {
    if (Number.isNaN(height)) return;
    studs++;
    seen += counts[i];
  });
  const byOwner = new Map<number, number>();
  let all = 0;
  sizes.forEach((angle, i) => {
    all += angle;
    // Ways and pads are ground: what stands on it catches the eye.
    if (relief.owner[i] > 0 && relief.top[i] > relief.surface[i])
      byOwner.set(relief.owner[i], (byOwner.get(relief.owner[i]) ?? 0) + angle);
  });
  const off = Math.hypot(Math.max(-eye.x, eye.x - relief.w, 0), Math.max(-eye.y, eye.y - relief.d, 0));
  return {
    ...from,
    distance: off * MM_PER_STUD,
    seen: studs > 0 ? seen / studs : 0,
    first: [...byOwner]
      .toSorted((a, b) => b[1] - a[1] || a[0] - b[0])
      .slice(0, MAX_FIRST)
      .flatMap(([owner, angle]) => {
        const thing = relief.things[owner - 1];
        return thing && all > 0
          ? [{ ...thing, name: labelOf(scene, thing.kind, thing.id), share: angle / all }]
          : [];
      }),
  };
}
