import { containsPoint } from '../grid/index.ts';
import { listOf, type Scene, type Side } from '../document/index.ts';
import type { Relief } from '../terrain/index.ts';
import { apparentSizes } from './apparent.ts';
import { WATCHERS, publicEyes, type Watcher } from './eyes.ts';
import { NO_COLUMN, seenCounts } from './seen.ts';
import { Lookout, heightField, lookedAt, type SeenThing } from './targets.ts';

// What the public sees of all studs, sections, buildings and small scenes, from where it stands.

/** What is seen of a part of the display. */
export interface SeenPart {
  /** Of a section; null: all of it. */
  section: string | null;
  studs: number;
  /** Shares of its studs whose top somebody of each height sees, 0 to 1. */
  seen: Record<Watcher, number>;
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
  /** The whole display first, then its sections in the order of their letters. */
  parts: SeenPart[];
  /** The least seen first. */
  things: SeenThing[];
  /** Each stud's top, row by row from the north: the share of all eyes that see it in percent; UNSEEN or NO_STUD. */
  studs: Uint8Array;
}

/** Codes of studs beside the percents: seen by nobody, and outside the footprint. */
export const UNSEEN = 0;
export const NO_STUD = 255;

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
  const field = heightField(relief);
  const refs = lookedAt(scene);
  const steps = 2 * WATCHERS.length + 1;
  let done = 0;
  const step = <T>(result: T): T => {
    onProgress(++done / steps);
    return result;
  };
  const counts = WATCHERS.map((who) => step(seenCounts(field, eyes.by[who])));
  const sizes = WATCHERS.map((who) => step(apparentSizes(field, eyes.by[who])));
  const lookout = new Lookout(scene, relief, eyes);
  const things = step(refs.map(({ kind, id }) => lookout.look(kind, id)));
  const all = WATCHERS.reduce((sum, who) => sum + eyes.by[who].length, 0);
  const sections = listOf(scene, 'section').toSorted((a, b) => (a.letter < b.letter ? -1 : 1));
  const view = sizes.reduce((sum, size) => sum + size.reduce((one, angle) => one + angle, 0), 0);
  const partOf = (section: string | null, isIn: (x: number, y: number) => boolean): SeenPart => {
    const sums = WATCHERS.map(() => 0);
    let [studs, hidden, fills] = [0, 0, 0];
    for (let i = 0; i < counts[0].length; i++) {
      const at = { x: relief.x + (i % relief.w), y: relief.y + Math.trunc(i / relief.w) };
      if (counts[0][i] === NO_COLUMN || !isIn(at.x, at.y)) continue;
      studs++;
      let isSeen = false;
      counts.forEach((count, k) => {
        if (count[i] > 0) sums[k]++;
        isSeen ||= count[i] > 0;
        fills += sizes[k][i];
      });
      if (!isSeen) hidden++;
    }
    const share = (who: Watcher) => (studs > 0 ? sums[WATCHERS.indexOf(who)] / studs : 0);
    return {
      ...{ section, studs, hidden },
      seen: { adult: share('adult'), seated: share('seated'), child: share('child') },
      view: view > 0 ? fills / view : 0,
    };
  };
  return {
    ...{ sides: eyes.sides, distance: eyes.distance, eyes: eyes.by.adult.length },
    parts: [
      partOf(null, () => true),
      ...sections.map((section) =>
        partOf(section.id, (column, row) => containsPoint(section, column + 0.5, row + 0.5)),
      ),
    ],
    things: things.toSorted((a, b) => meanFree(a) - meanFree(b) || (a.name < b.name ? -1 : 1)),
    studs: Uint8Array.from(counts[0], (first, i) => {
      if (first === NO_COLUMN) return NO_STUD;
      const seen = counts.reduce((sum, count) => sum + count[i], 0);
      return seen === 0 ? UNSEEN : Math.max(1, Math.round((100 * seen) / all));
    }),
  };
}

/** The mean of what each of the watchers sees of a thing, 0 to 1; of those who see none of its faces nothing. */
export const meanFree = ({ free }: Pick<SeenThing, 'free'>): number =>
  WATCHERS.reduce((sum, who) => sum + (free[who] ?? 0), 0) / WATCHERS.length;
