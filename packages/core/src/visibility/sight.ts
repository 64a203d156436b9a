import { containsPoint, type Rect } from '../grid/index.ts';
import { listOf, type Scene, type Side } from '../document/index.ts';
import type { Relief } from '../terrain/index.ts';
import { apparentSizes } from './apparent.ts';
import { hiddenBacks, type HiddenBack } from './backs.ts';
import { WATCHERS, publicEyes, type PublicEye, type PublicEyes, type Watcher } from './eyes.ts';
import { heightField } from './field.ts';
import { cavityFloor, roomFloors } from './floors.ts';
import { hiddenAreas } from './hiddenAreas.ts';
import { seenCounts } from './seen.ts';
import { Lookout, lookedAt, type SeenFloor, type SeenThing } from './targets.ts';
import { viewFrom, viewpointsOf, type ViewFrom } from './views.ts';

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
 * @returns null where the display does not say from which sides it is looked at, or stands in no place
 */
export function sightOf(
  scene: Scene,
  relief: Relief,
  onProgress: (share: number) => void = () => undefined,
): Sight | null {
  const eyes = publicEyes(scene, relief);
  if (!eyes) return null;
  const field = heightField(scene, relief);
  const refs = lookedAt(scene);
  const viewpoints = viewpointsOf(scene, relief);
  const groups = groupsOf(eyes);
  const steps = 2 * groups.length + 2 + viewpoints.length;
  let done = 0;
  const step = <T>(result: T): T => {
    onProgress(++done / steps);
    return result;
  };
  const looks = groups.map(({ who, weight, eyes: some }) => ({
    ...{ who, weight },
    counts: step(seenCounts(field, some)),
    sizes: step(apparentSizes(field, some)),
  }));
  const lookout = new Lookout(scene, relief, eyes);
  const things = step(
    refs.map(({ kind, id }): SeenThing => ({
      ...lookout.look(kind, id),
      blends: lookout.blendOf(kind, id),
      reads: kind === 'signboard' ? (lookout.reading(id)?.by ?? null) : null,
    })),
  );
  const { rooms, cavities } = step(floorsOf(lookout));
  const views = viewpoints.map((from) => step(viewFrom(scene, relief, field, from)));
  const all = groups.reduce((sum, { weight, eyes: some }) => sum + weight * some.length, 0);
  const sections = listOf(scene, 'section').toSorted((a, b) => (a.letter < b.letter ? -1 : 1));
  const view = looks.reduce(
    (sum, { weight, sizes }) => sum + weight * sizes.reduce((one, angle) => one + angle, 0),
    0,
  );
  const partOf = (section: string | null, isIn: (x: number, y: number) => boolean): SeenPart => {
    const seenBy: Record<Watcher, number> = { adult: 0, seated: 0, child: 0, shoulders: 0 };
    let [studs, hidden, fills] = [0, 0, 0];
    for (let i = 0; i < field.heights.length; i++) {
      const at = { x: relief.x + (i % relief.w), y: relief.y + Math.trunc(i / relief.w) };
      if (Number.isNaN(field.heights[i]) || !isIn(at.x, at.y)) continue;
      studs++;
      const seers = new Set<Watcher>();
      for (const { who, weight, counts, sizes } of looks) {
        if (counts[i] > 0) seers.add(who);
        fills += weight * sizes[i];
      }
      for (const who of seers) seenBy[who]++;
      if (seers.size === 0) hidden++;
    }
    const share = (who: Watcher) => (eyes.by[who].length === 0 ? null : studs > 0 ? seenBy[who] / studs : 0);
    return {
      ...{ section, studs, hidden },
      seen: {
        adult: share('adult'),
        seated: share('seated'),
        child: share('child'),
        shoulders: share('shoulders'),
      },
      view: view > 0 ? fills / view : 0,
    };
  };
  const studs = Uint8Array.from(field.heights, (height, i) => {
    if (Number.isNaN(height)) return NO_STUD;
    const seen = looks.reduce((sum, { weight, counts }) => sum + weight * counts[i], 0);
    return seen === 0 ? UNSEEN : Math.max(1, Math.round((100 * seen) / all));
  });
  return {
    ...{ sides: eyes.sides, distance: eyes.distance, eyes: eyes.places.length, shares: eyes.shares },
    ...{ rooms, cavities, views },
    hidden: hiddenAreas(
      studs.map((share) => (share === UNSEEN ? 1 : 0)),
      relief,
    ),
    backs: hiddenBacks(scene, things),
    parts: [
      partOf(null, () => true),
      ...sections.map((section) =>
        partOf(section.id, (column, row) => containsPoint(section, column + 0.5, row + 0.5)),
      ),
    ],
    things: things.toSorted((a, b) => a.mean - b.mean || (a.name < b.name ? -1 : 1)),
    studs,
  };
}

/** Eyes of one height along one side that count alike, and how much each of them counts. */
function groupsOf({ by, sides, shares }: PublicEyes): { who: Watcher; weight: number; eyes: PublicEye[] }[] {
  return WATCHERS.flatMap((who) =>
    sides.flatMap((side) => {
      const eyes = by[who].filter((eye) => eye.side === side);
      return [...new Set(eyes.map(({ crowd }) => crowd))].map((crowd) => ({
        ...{ who, weight: shares[who] * crowd },
        eyes: eyes.filter((eye) => eye.crowd === crowd),
      }));
    }),
  );
}

/** How much of all floors that one sees into. */
function floorsOf(lookout: Lookout): Pick<Sight, 'rooms' | 'cavities'> {
  const { scene, relief } = lookout;
  const rooms = listOf(scene, 'plot').flatMap((plot) => {
    const ground = lookout.groundOf('plot', plot.id);
    const floors = ground === null ? [] : roomFloors(relief, plot, ground, lookout.studsOf('plot', plot.id));
    return floors.length > 0 ? [[plot.id, floors.map((floor) => lookout.lookInto(floor))] as const] : [];
  });
  const cavities = listOf(scene, 'cavity').flatMap(({ id }) => {
    const floor = cavityFloor(scene, relief, id);
    return floor ? [{ id, ...lookout.lookInto(floor) }] : [];
  });
  return { rooms: Object.fromEntries(rooms), cavities };
}
