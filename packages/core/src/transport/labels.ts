import { containsPoint, centreOf, intersection, type Rect } from '../grid/index.ts';
import { SIDES, displayOf, listOf, placeIn, type Scene, type Side } from '../document/index.ts';
import { footprintBounds } from '../terrain/index.ts';
import { currentContents, tableInStuds } from '../venue/index.ts';
import { contentWord } from './crates.ts';
import type { LoadUnit } from './shipment.ts';
import type { Show } from './show.ts';
import { handsOf } from './showTasks.ts';

// What stands on the label of each thing that travels.

export interface ShowLabel {
  /** Its key among what is loaded; of what lies in a crate that of the crate. */
  key: string;
  name: string;
  what: 'module' | 'crate' | 'part' | 'brought along';
  /** mm and g, as it travels. */
  w: number;
  d: number;
  h: number;
  grams: number;
  /** Null: it is not carried by itself. */
  hands: number | null;
  /** Its place on the plan, studs, north up; null: it has none. */
  area: Rect | null;
  /** Its own sides from which visitors look at the display. */
  front: Side[];
  /** Tables under a module, modules under a part. */
  standsOn: string[];
  /** What is in a crate. */
  holds: string[];
  /** The crate that it travels in. */
  inside: string | null;
  /** Its turn in building up, from 1; null: it has none of its own. */
  turn: { at: number; of: number } | null;
}

/** A label for each thing that is loaded, and for each part in a crate; trees, figures, flags and signboards stand on their crate’s. */
export function showLabels({ scene, order, shipment }: Show): ShowLabel[] {
  const steps = order.ok ? order.steps.map(({ key }) => key) : [];
  const turnOf = (key: string) => {
    const at = steps.indexOf(key);
    return at < 0 ? null : { at: at + 1, of: steps.length };
  };
  const placed = (ref: LoadUnit['ref']): Pick<ShowLabel, 'area' | 'front' | 'standsOn' | 'turn'> => {
    const area = ref && ref.kind !== 'cargo' ? placeIn(scene, ref.kind, ref.id) : null;
    if (!ref || !area) return { area: null, front: [], standsOn: [], turn: null };
    const isModule = ref.kind === 'module';
    return {
      area,
      front: isModule ? frontOf(scene, area) : [],
      standsOn: isModule ? tablesUnder(scene, area) : modulesUnder(scene, area),
      turn: turnOf(`${ref.kind} ${ref.id}`),
    };
  };
  return shipment.units.flatMap((unit): ShowLabel[] => {
    const { key, name, ref, w, d, h, grams, holds } = unit;
    const what =
      ref === null
        ? 'crate'
        : ref.kind === 'cargo'
          ? 'brought along'
          : ref.kind === 'module'
            ? 'module'
            : 'part';
    const own: ShowLabel = {
      ...{ key, name, what, w, d, h, grams, inside: null },
      ...placed(ref),
      hands: handsOf(unit),
      holds: holds.map(contentWord),
    };
    const parts = holds
      .filter((content) => !LOOSE.has(content.ref.kind))
      .map((content): ShowLabel => ({
        ...{ key, name: content.name, what: 'part', w: content.w, d: content.d, h: content.h },
        ...{ grams: content.grams, hands: null, holds: [], inside: name },
        ...placed(content.ref),
      }));
    return [own, ...parts];
  });
}

/** What is too small for a label of its own. */
const LOOSE: ReadonlySet<string> = new Set(['tree', 'figure', 'flag', 'signboard']);

/** Sides of an area that lie on the edge of the display from which it is looked at. */
function frontOf(scene: Scene, { x, y, w, d }: Rect): Side[] {
  const whole = footprintBounds(scene);
  const { viewedSides } = displayOf(scene);
  if (!whole) return [];
  const isOnEdge: Record<Side, boolean> = {
    n: y <= whole.y,
    e: x + w >= whole.x + whole.w,
    s: y + d >= whole.y + whole.d,
    w: x <= whole.x,
  };
  return SIDES.filter((side) => isOnEdge[side] && viewedSides.includes(side));
}

const tablesUnder = (scene: Scene, area: Rect): string[] =>
  currentContents(scene, 'table')
    .filter((table) => intersection(tableInStuds(scene, table), area) !== null)
    .map(({ name }) => name);

const modulesUnder = (scene: Scene, area: Rect): string[] => {
  const { x, y } = centreOf(area);
  return listOf(scene, 'module')
    .filter((one) => containsPoint(one, x, y))
    .map(({ name }) => name);
};
