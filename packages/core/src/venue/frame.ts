import { MM_PER_STUD, type CoordinateFrame, type Rect } from '../grid/index.ts';
import {
  KIND_NAMES,
  displayOf,
  emptyScene,
  listOf,
  type Entity,
  type Place,
  type Scene,
  type Table,
} from '../document/index.ts';

/** Kinds of things that stand in a place. */
export const VENUE_KINDS = ['table', 'opening', 'obstacle', 'socket', 'extension', 'barrier'] as const;
export type VenueKind = (typeof VENUE_KINDS)[number];

/** The place the display stands in now; null when none has been described. */
export function currentPlace(scene: Pick<Scene, 'display' | 'place'>): Place | null {
  const { place } = displayOf(scene);
  return place === null ? null : (scene.place[place] ?? null);
}

/** The things of a kind that stand in the current place, by id. */
export function currentContents<K extends VenueKind>(scene: Scene, kind: K): readonly Entity<K>[] {
  const { place } = displayOf(scene);
  const list: readonly Entity<K>[] = listOf(scene, kind);
  return list.filter((thing) => thing.place === place);
}

/** Height of the highest table of the current place, mm; 0 without tables. */
export const highestTable = (scene: Scene): number =>
  Math.max(0, ...currentContents(scene, 'table').map(({ height }) => height));

/** The way into the current place, step by step: its own passages and those of every place. */
export function wayOf(scene: Pick<Scene, 'display' | 'passage'>): Entity<'passage'>[] {
  const { place } = displayOf(scene);
  return listOf(scene, 'passage')
    .filter((passage) => passage.place === null || passage.place === place)
    .sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));
}

/** How the scene lies in its place: where stud (0, 0) is, mm, and the quarter turns clockwise about it. */
export interface SceneFrame {
  x: number;
  y: number;
  turn: 0 | 90 | 180 | 270;
}

export function frameOf(scene: Scene): SceneFrame {
  const place = currentPlace(scene);
  return place ? { x: place.sceneX, y: place.sceneY, turn: place.turn } : { x: 0, y: 0, turn: 0 };
}

interface Point {
  x: number;
  y: number;
}

/** Turns a vector clockwise, as seen on a plan with y south. */
function turned({ x, y }: Point, turn: number): Point {
  if (turn === 90) return { x: -y, y: x };
  if (turn === 180) return { x: -x, y: -y };
  if (turn === 270) return { x: y, y: -x };
  return { x, y };
}

/** A point of the scene, studs, as one of the room, mm. */
export function pointToRoom(frame: SceneFrame, { x, y }: Point): Point {
  const at = turned({ x: x * MM_PER_STUD, y: y * MM_PER_STUD }, frame.turn);
  return { x: frame.x + at.x + 0, y: frame.y + at.y + 0 };
}

/** A point of the room, mm, as one of the scene, studs. */
export function pointToScene(frame: SceneFrame, { x, y }: Point): Point {
  const at = turned({ x: x - frame.x, y: y - frame.y }, (360 - frame.turn) % 360);
  return { x: at.x / MM_PER_STUD + 0, y: at.y / MM_PER_STUD + 0 };
}

const between = <F extends CoordinateFrame>(a: Point, b: Point): Rect<F> => ({
  x: Math.min(a.x, b.x) + 0,
  y: Math.min(a.y, b.y) + 0,
  w: Math.abs(a.x - b.x),
  d: Math.abs(a.y - b.y),
});

/** A rectangle of the scene, studs, as one of the room, mm. */
export const rectToRoom = (frame: SceneFrame, { x, y, w, d }: Rect): Rect<'mm'> =>
  between(pointToRoom(frame, { x, y }), pointToRoom(frame, { x: x + w, y: y + d }));

/** A rectangle of the room, mm, as one of the scene, studs. */
export const rectToScene = (frame: SceneFrame, { x, y, w, d }: Rect<'mm'>): Rect =>
  between(pointToScene(frame, { x, y }), pointToScene(frame, { x: x + w, y: y + d }));

/** A table's top on the stud grid, in studs (rarely whole ones). */
export const tableInStuds = (scene: Scene, table: Pick<Table, 'x' | 'y' | 'w' | 'd'>): Rect =>
  rectToScene(frameOf(scene), table);

/** The scene's footprint parts as they lie in the room, mm. */
export function sceneInRoom(scene: Scene): Rect<'mm'>[] {
  const frame = frameOf(scene);
  return listOf(scene, 'footprint').map((part) => rectToRoom(frame, part));
}

/**
 * The same scene as if it stood in another place: for looking at a place without moving there. Its kinds are read from the
 * scene when they are asked for, so that who records reads hears of no others.
 */
export function withPlace(scene: Scene, place: string | null): Scene {
  const display = displayOf(scene);
  if (display.place === place) return scene;
  const there = emptyScene();
  for (const kind of KIND_NAMES)
    Object.defineProperty(there, kind, { enumerable: true, get: () => scene[kind] });
  const moved = { [display.id]: { ...display, place } };
  Object.defineProperty(there, 'display', { enumerable: true, get: () => moved });
  return there;
}
