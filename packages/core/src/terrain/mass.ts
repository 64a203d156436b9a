import { gramsOfPart } from '../catalogue/index.ts';
import { MM, MM_PER_PLATE, MM_PER_STUD, containsPoint, outerSize } from '../grid/index.ts';
import { builtRect, insideOf, listOf, type PartList, type Plot, type Scene } from '../document/index.ts';
import { standsOn } from './bodies.ts';
import { BARE, OUTSIDE, indexAt, ownerAt, type MassRaster, type Relief } from './relief.ts';
import { eachPlotSpan, placeObjects } from './placeObjects.ts';

// Masses and centres of mass of all things: the one source for lifting, carrying and table loads.

/**
 * A brick 2×4 weighs about 2.3 g (from memory): 24 stud-plates, so solid plastic is 0.096 g a stud and plate. Until
 * ground is counted piece by piece it is taken as 40 % solid; plants, fences and the like as 20 %: defaults of ours,
 * no source.
 */
export const GRAMS_PER_STUD_PLATE = 2.3 / 24;
export const GROUND_FILL = 0.4;
const THING_FILL = 0.2;
/** A base sheet under everything, grams a stud (from memory: about 0.4 kg for 48 × 48). */
export const BASE_GRAMS = 0.18;

/** Mass and the height of its centre above its own foot, plates. */
export interface MassCentre {
  grams: number;
  z: number;
}

/** How far a block may lean before it tips over its narrow side, degrees: atan(half base ÷ centre height). */
export const tippingAngle = (halfBaseMm: number, centreMm: number): number =>
  centreMm <= 0 ? 90 : (Math.atan(halfBaseMm / centreMm) * 180) / Math.PI;

/**
 * A building by its plain shell, up to a height: walls of its given thickness, a floor of plates for each storey, a roof
 * of plates, and the plates of its pavement. Windows, doors, furniture and ornament are not in it.
 * @param upTo plates above its ground; less than its height: what is left when the rest is off
 */
export function shellOf(plot: Plot, upTo: number = plot.height): MassCentre {
  const built = builtRect(plot);
  const inside = insideOf(plot);
  const parts: MassCentre[] = [
    { grams: (built.w * built.d - inside.w * inside.d) * upTo, z: upTo / 2 },
    { grams: plot.w * plot.d - built.w * built.d, z: 0.5 },
  ];
  for (let storey = 0; storey < plot.storeys; storey++) {
    const z = (storey * plot.height) / plot.storeys;
    if (z < upTo) parts.push({ grams: inside.w * inside.d, z: z + 0.5 });
  }
  if (upTo >= plot.height) parts.push({ grams: built.w * built.d, z: upTo });
  const grams = parts.reduce((sum, part) => sum + part.grams, 0);
  const moment = parts.reduce((sum, part) => sum + part.grams * part.z, 0);
  return { grams: grams * GRAMS_PER_STUD_PLATE, z: grams > 0 ? moment / grams : 0 };
}

/** Height of a building when all that lifts off is off, plates: 0 where all of it is carried by itself. */
export const fixedHeight = ({ mount, height, parts }: Pick<Plot, 'mount' | 'height' | 'parts'>): number =>
  isLoose({ mount }) ? 0 : Math.max(0, height - parts.reduce((sum, part) => sum + part.height, 0));

/** Whether a building stands by itself and is taken off before its module is carried. */
export const isLoose = ({ mount }: Pick<Plot, 'mount'>): boolean =>
  mount === 'loose' || mount === 'turntable';

const LISTED: readonly PartList['purpose'][] = ['building', 'figures', 'lights', 'other'];

/** Grams of the lists of needs: of buildings by plot, and what else is listed by section (null: nowhere in particular). */
export interface ListedMass {
  plots: ReadonlyMap<string, number>;
  sections: ReadonlyMap<string | null, number>;
}

/**
 * What people listed, weighed. A list of a building is that building's mass; one that names none is shared by the
 * buildings of its section that have no list of their own, as their shells weigh. Ground and plants are counted from
 * the plan and not weighed twice.
 */
export function listedMass(scene: Scene): ListedMass {
  const plots = new Map<string, number>();
  const sections = new Map<string | null, number>();
  const lists = listOf(scene, 'partList').filter(
    ({ use, purpose }) => use === 'need' && LISTED.includes(purpose),
  );
  const weigh = ({ lines, copies }: PartList) =>
    copies * lines.reduce((sum, { part, qty }) => sum + qty * gramsOfPart(part, scene.partType), 0);
  const add = <K>(to: Map<K, number>, key: K, grams: number) => to.set(key, (to.get(key) ?? 0) + grams);
  for (const list of lists) if (list.plot !== null) add(plots, list.plot, weigh(list));
  const named = new Set(plots.keys());
  for (const list of lists) {
    if (list.plot !== null) continue;
    const grams = weigh(list);
    const at = list.section === null ? null : scene.section[list.section];
    const sharing =
      list.purpose === 'building'
        ? listOf(scene, 'plot').filter(
            ({ id, x, y, w, d }) =>
              !named.has(id) && (at === null || containsPoint(at, x + w / 2, y + d / 2)),
          )
        : [];
    const whole = sharing.reduce((sum, plot) => sum + shellOf(plot).grams, 0);
    if (whole === 0) add(sections, list.section, grams);
    for (const plot of sharing) if (whole > 0) add(plots, plot.id, (grams * shellOf(plot).grams) / whole);
  }
  return { plots, sections };
}

/** A building as it weighs: by its list where it has one (spread evenly over its height), else by its plain shell. */
export function weightOf(
  plot: Plot,
  listed: ListedMass,
  upTo: number = plot.height,
): MassCentre & { listed: boolean } {
  const grams = listed.plots.get(plot.id);
  if (grams === undefined) return { ...shellOf(plot, upTo), listed: false };
  return { grams: (grams * upTo) / plot.height, z: upTo / 2, listed: true };
}

/** A loose building or a part that lifts off: what is carried by itself. */
export interface LoosePiece extends MassCentre {
  plot: string;
  /** Index of the building's part; null: the building without its parts. */
  part: number | null;
  name: string;
  /** As carried, mm. */
  w: number;
  d: number;
  h: number;
  /** Degrees it may lean before it tips, set down by itself. */
  tips: number;
  listed: boolean;
}

/** The pieces that come off a building, the uppermost first; the building itself last where it is loose. */
export function loosePieces(plot: Plot, listed: ListedMass): LoosePiece[] {
  const [w, d] = [outerSize(plot.w) / MM, outerSize(plot.d) / MM];
  const half = (Math.min(plot.w, plot.d) * MM_PER_STUD) / 2;
  const piece = (
    part: number | null,
    name: string,
    height: number,
    weight: MassCentre & { listed: boolean },
  ): LoosePiece => ({
    ...{ plot: plot.id, part, name, w, d, h: height * MM_PER_PLATE },
    ...weight,
    tips: tippingAngle(half, weight.z * MM_PER_PLATE),
  });
  const left = Math.max(0, plot.height - plot.parts.reduce((sum, part) => sum + part.height, 0));
  const under = weightOf(plot, listed, left);
  const above = weightOf(plot, listed).grams - under.grams;
  const heights = plot.parts.reduce((sum, { height }) => sum + height, 0);
  const pieces = plot.parts.map(({ name, height }, i) =>
    piece(i, name, height, { grams: (above * height) / heights, z: height / 2, listed: under.listed }),
  );
  return isLoose(plot) ? [...pieces, piece(null, plot.name, left, under)] : pieces;
}

/** What stands on the ground of a scene, as it is carried and as it stands on show. */
export interface Loads {
  /** What goes with a module: pinned buildings without what lifts off, walls, repeats, plantings. */
  fixed: MassRaster;
  /** What is taken off first: loose buildings, parts that lift off, trees, and what is listed by section only. */
  loose: MassRaster;
  /** Height of each stud with what is fixed to it, plates: the tops a module is carried with. */
  top: Int16Array;
  pieces: readonly LoosePiece[];
}

const known = new WeakMap<Int16Array, { of: readonly unknown[]; loads: Loads }>();

/** What stands on a scene's ground; worked out once for each relief and what its masses hang on. */
export function loadsOf(scene: Scene, relief: Relief): Loads {
  const of = [scene.plot, scene.partList, scene.partType, scene.section, relief.height];
  const before = known.get(relief.top);
  if (before && before.of.every((one, i) => one === of[i])) return before.loads;
  const loads = weighed(scene, relief);
  known.set(relief.top, { of, loads });
  return loads;
}

function weighed(scene: Scene, relief: Relief): Loads {
  const size = relief.height.length;
  const blank = (): MassRaster => ({ grams: new Float32Array(size), moment: new Float32Array(size) });
  const [fixed, loose] = [blank(), blank()];
  const put = (to: MassRaster, i: number, grams: number, z: number) => {
    to.grams[i] += grams;
    to.moment[i] += grams * z;
  };
  for (let i = 0; i < size; i++) {
    const above = relief.top[i] - relief.height[i];
    if (above <= 0 || relief.ground[i] === OUTSIDE) continue;
    const owner = ownerAt(relief, i);
    if (!owner || owner.kind === 'plot') continue;
    const grams = GRAMS_PER_STUD_PLATE * above * fillOf(scene, owner);
    put(owner.kind === 'tree' ? loose : fixed, i, grams, relief.height[i] + above / 2);
  }
  const listed = listedMass(scene);
  const pieces: LoosePiece[] = [];
  const kept: Record<string, Plot & { id: string; v: number }> = {};
  for (const plot of listOf(scene, 'plot')) {
    const height = fixedHeight(plot);
    if (height > 0) kept[plot.id] = { ...plot, height };
    pieces.push(...loosePieces(plot, listed));
    const foot = standsOn(relief, plot);
    if (foot === null) continue;
    const whole = weightOf(plot, listed);
    const stays = height > 0 ? weightOf(plot, listed, height) : { grams: 0, z: 0 };
    const off = whole.grams - stays.grams;
    const offZ = off > 0 ? (whole.grams * whole.z - stays.grams * stays.z) / off : 0;
    const studs: number[] = [];
    eachPlotSpan(plot, relief, (row, from, to) => {
      for (let x = from; x < to; x++) {
        const i = indexAt(relief, x, row);
        if (i >= 0 && relief.ground[i] !== OUTSIDE) studs.push(i);
      }
    });
    // What stands beyond the footprint hangs on the studs that carry the rest.
    for (const i of studs) {
      put(fixed, i, stays.grams / studs.length, foot + stays.z);
      put(loose, i, off / studs.length, foot + offZ);
    }
  }
  for (const [id, grams] of listed.sections) {
    const at = id === null ? relief : scene.section[id];
    if (!at) continue;
    const studs: number[] = [];
    for (let i = 0; i < size; i++) {
      const [x, y] = [relief.x + (i % relief.w) + 0.5, relief.y + Math.trunc(i / relief.w) + 0.5];
      if (relief.ground[i] !== OUTSIDE && containsPoint(at, x, y)) studs.push(i);
    }
    for (const i of studs) put(loose, i, grams / studs.length, relief.height[i]);
  }
  const top = relief.height.slice();
  placeObjects(
    { ...scene, plot: kept, tree: {} },
    { land: relief, top, owner: new Uint16Array(size) },
    relief,
    () => 1,
    () => true,
  );
  return { fixed, loose, top, pieces };
}

/** How solid a thing that is no building is, 0 to 1: a wall of bricks is solid for its thickness. */
function fillOf(scene: Scene, { kind, id }: { kind: string; id: string }): number {
  const run = kind === 'run' ? scene.run[id] : undefined;
  return run?.use === 'wall' ? Math.min(1, run.thick) : THING_FILL;
}

/**
 * The ground's own mass on each stud of a relief, grams, and its moment: as counted where it is, else estimated from its
 * height. Values outside the footprint have no meaning.
 */
export function groundMass({ counted, ground, height }: Relief): MassRaster {
  if (counted) return counted;
  const grams = new Float32Array(height.length);
  const moment = new Float32Array(height.length);
  for (let i = 0; i < height.length; i++) {
    const plates = ground[i] === BARE ? 0 : Math.max(1, height[i]);
    const filled = GRAMS_PER_STUD_PLATE * GROUND_FILL * plates;
    grams[i] = BASE_GRAMS + filled;
    moment[i] = (filled * plates) / 2;
  }
  return { grams, moment };
}

/**
 * Grams on each stud of a relief; 0 outside the footprint.
 * @param carried without what is taken off before a module is carried
 */
export function massOf(scene: Scene, relief: Relief, carried = false): MassRaster {
  const { fixed, loose } = loadsOf(scene, relief);
  const { ground } = relief;
  const own = groundMass(relief);
  const grams = new Float32Array(ground.length);
  const moment = new Float32Array(ground.length);
  for (let i = 0; i < grams.length; i++) {
    if (ground[i] === OUTSIDE) continue;
    grams[i] = own.grams[i] + fixed.grams[i] + (carried ? 0 : loose.grams[i]);
    moment[i] = own.moment[i] + fixed.moment[i] + (carried ? 0 : loose.moment[i]);
  }
  return { grams, moment };
}
