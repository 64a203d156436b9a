import type { Rect } from '../grid/index.ts';
import { listOf, type Scene, type Side } from '../document/index.ts';
import type { Relief } from '../terrain/index.ts';
import { cliffsOf, hiddenFaces, type HiddenFaces, type SeenCliff } from './cliffs.ts';
import { hiddenBacks, type HiddenBack } from './backs.ts';
import { WATCHERS, byWatcher, publicEyes, type PublicEyes, type Watcher } from './eyes.ts';
import { hiddenAreas } from './hiddenAreas.ts';
import type { HeightField } from './seen.ts';
import { SightCache } from './sightCache.ts';
import type { Watch } from './watches.ts';
import { Lookout, lookedAt, type SeenFloor, type SeenThing } from './targets.ts';
import { viewFrom, type ViewFrom } from './views.ts';

// What the public sees of all studs, sections, buildings and small scenes, from where it stands.

/** What is seen of a part of the display. */
export interface SeenPart {
  /** Of a section; null: all of it. */
  section: string | null;
  studs: number;
  /** Shares of its studs whose top somebody of each height sees, 0 to 1; null: nobody of that height comes. */
  seen: Record<Watcher, number | null>;
  /** Studs that nobody sees. */
  hidden: number;
  /** Share of the view: of the solid angle that the whole display fills in all eyes, 0 to 1. */
  view: number;
}

/** What the public sees. */
export interface Sight {
  sides: readonly Side[];
  /** mm from the eyes to the scene, and how many places they stand at. */
  distance: number;
  eyes: number;
  /** Shares of the visitors, 1 in all. */
  shares: Record<Watcher, number>;
  /** The whole display first, then its sections in the order of their letters. */
  parts: SeenPart[];
  /** The least seen first. */
  things: SeenThing[];
  /** Floors of buildings from the top down, by the building's id. */
  rooms: Record<string, SeenFloor[]>;
  /** Floors of tunnels, caves and cellars under something, by the cavity's id. */
  cavities: (SeenFloor & { id: string })[];
  /** From the doors of the hall, and from where photos are taken. */
  views: ViewFrom[];
  /** Ground that nobody sees, in rectangles of the plan. */
  hidden: Rect[];
  /** Cliffs and edges of the ground, those of which nobody sees most first; stretches of four studs and more that nobody sees. */
  cliffs: SeenCliff[];
  hiddenFaces: HiddenFaces[];
  /** Backs of buildings that nobody sees, those that free most pieces first. */
  backs: HiddenBack[];
  /** Each stud's top, row by row from the north: the share of all visitors that see it in percent; UNSEEN or NO_STUD. */
  studs: Uint8Array;
}

/** Codes of studs beside the percents: seen by nobody, and outside the footprint. */
export const UNSEEN = 0;
export const NO_STUD = 255;

/**
 * How much visitors see of all buildings and small scenes: the mean over them, 0 to 1, as the sheet of buildings and scenes
 * tells of each.
 * @returns null where it is not known who looks, or there is nothing to look at
 */
export function meanSeen(scene: Scene, relief: Relief): number | null {
  const eyes = publicEyes(scene, relief);
  const refs = lookedAt(scene);
  if (!eyes || refs.length === 0) return null;
  const lookout = new Lookout(scene, relief, eyes);
  return refs.reduce((sum, { kind, id }) => sum + lookout.look(kind, id).mean, 0) / refs.length;
}

/**
 * Everything the public sees. Its cost grows with eyes × studs, and with eyes × buildings.
 * @param onProgress receives how much of it is done, 0 to 1
 * @param cache what was seen of the scene before: then only what the change may touch is looked at
 * @returns null where the display does not say from which sides it is looked at, or stands in no place
 */
export function sightOf(
  scene: Scene,
  relief: Relief,
  onProgress: (share: number) => void = () => undefined,
  cache: SightCache = new SightCache(),
): Sight | null {
  const looked = cache.look(scene, relief, onProgress);
  if (!looked) return null;
  const { field, eyes, things, rooms, cavities } = looked;
  const { watches } = looked;
  const all = watches.reduce((sum, { weight, eyes: some }) => sum + weight * some.length, 0);
  const weights = new Float64Array(field.heights.length);
  for (const { weight, counts } of watches)
    for (let i = 0; i < counts.length; i++) weights[i] += weight * counts[i];
  const studs = new Uint8Array(weights.length);
  for (let i = 0; i < studs.length; i++)
    studs[i] = Number.isNaN(field.heights[i])
      ? NO_STUD
      : weights[i] === 0
        ? UNSEEN
        : Math.max(1, Math.round((100 * weights[i]) / all));
  return {
    ...{ sides: eyes.sides, distance: eyes.distance, eyes: eyes.places.length, shares: eyes.shares },
    ...{ rooms, cavities },
    views: looked.viewpoints.map(({ from, view }) => viewFrom(scene, relief, field, from, view)),
    hidden: hiddenAreas(
      studs.map((share) => (share === UNSEEN ? 1 : 0)),
      relief,
    ),
    cliffs: cliffsOf(scene, relief, looked.faces),
    hiddenFaces: hiddenFaces(relief, looked.faces),
    backs: hiddenBacks(scene, things),
    parts: partsOf(scene, relief, eyes, field, watches),
    things: things.toSorted((a, b) => a.mean - b.mean || (a.name < b.name ? -1 : 1)),
    studs,
  };
}

/** How much is seen of the whole display, then of each section in the order of their letters. */
function partsOf(
  scene: Scene,
  relief: Relief,
  eyes: PublicEyes,
  { heights }: HeightField,
  watches: readonly Watch[],
): SeenPart[] {
  const size = heights.length;
  /** Who sees each stud, a bit for each height of eyes; how much of the view it fills. */
  const [seers, fills] = [new Uint8Array(size), new Float64Array(size)];
  for (const { who, weight, counts, sizes } of watches) {
    const bit = 1 << WATCHERS.indexOf(who);
    for (let i = 0; i < size; i++) {
      if (counts[i] > 0) seers[i] |= bit;
      fills[i] += weight * sizes[i];
    }
  }
  const view = fills.reduce((sum, angle) => sum + angle, 0);
  const partOf = (section: string | null, area: Rect): SeenPart => {
    /** How many studs are seen by just these heights of eyes. */
    const seenBy = new Int32Array(1 << WATCHERS.length);
    let filled = 0;
    for (
      let row = Math.max(0, area.y - relief.y);
      row < Math.min(relief.d, area.y + area.d - relief.y);
      row++
    )
      for (let x = Math.max(0, area.x - relief.x); x < Math.min(relief.w, area.x + area.w - relief.x); x++) {
        const i = row * relief.w + x;
        if (Number.isNaN(heights[i])) continue;
        filled += fills[i];
        seenBy[seers[i]]++;
      }
    const studs = seenBy.reduce((sum, count) => sum + count, 0);
    const share = (who: Watcher) => {
      if (eyes.by[who].length === 0) return null;
      const bit = 1 << WATCHERS.indexOf(who);
      return studs > 0 ? seenBy.reduce((sum, count, bits) => sum + (bits & bit ? count : 0), 0) / studs : 0;
    };
    return {
      ...{ section, studs, hidden: seenBy[0] },
      seen: byWatcher(share),
      view: view > 0 ? filled / view : 0,
    };
  };
  const sections = listOf(scene, 'section').toSorted((a, b) => (a.letter < b.letter ? -1 : 1));
  return [partOf(null, relief), ...sections.map((section) => partOf(section.id, studsWithin(section)))];
}

/** The studs whose middle lies in a rectangle: whole columns and rows. */
function studsWithin({ x, y, w, d }: Rect): Rect {
  const [west, north] = [Math.ceil(x - 0.5), Math.ceil(y - 0.5)];
  return { x: west, y: north, w: Math.ceil(x + w - 0.5) - west, d: Math.ceil(y + d - 0.5) - north };
}
