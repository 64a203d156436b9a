import {
  MM_PER_PLATE,
  MM_PER_STUD,
  centreOf,
  containsPoint,
  intersection,
  type Rect,
} from '../grid/index.ts';
import { listOf, type Scene, type Table } from '../document/index.ts';
import {
  OUTSIDE,
  fixedHeight,
  listedMass,
  loadsOf,
  massOf,
  standsOn,
  tippingAngle,
  offMiddle,
  weightOf,
  type ListedMass,
  type Loads,
  type MassRaster,
  type Relief,
} from '../terrain/index.ts';
import { currentContents, tableInStuds } from '../venue/index.ts';

/** What something weighs and where its centre of mass is. */
export interface Bulk {
  kg: number;
  /** Studs of the display, and mm above the table. */
  x: number;
  y: number;
  z: number;
}

/** Mass and centre of a rectangle of the scene, as it is carried as a module. Null where nothing is. */
export function bulkOf(scene: Scene, relief: Relief, area: Rect): Bulk | null {
  const on = intersection(area, relief);
  if (!on) return null;
  const mass = carriedMass(scene, relief);
  let [grams, mx, my, mz] = [0, 0, 0, 0];
  for (let y = Math.floor(on.y); y < on.y + on.d; y++)
    for (let x = Math.floor(on.x); x < on.x + on.w; x++) {
      const i = (y - relief.y) * relief.w + x - relief.x;
      const each = mass.grams[i];
      grams += each;
      mx += each * (x + 0.5);
      my += each * (y + 0.5);
      mz += mass.moment[i];
    }
  if (grams === 0) return null;
  return { kg: grams / 1000, x: mx / grams, y: my / grams, z: (mz / grams) * MM_PER_PLATE };
}

const carried = new WeakMap<Loads, { counted: unknown; mass: MassRaster }>();
/** The mass of what modules are carried with; worked out once for what stands there and how its ground is counted. */
function carriedMass(scene: Scene, relief: Relief): MassRaster {
  const loads = loadsOf(scene, relief);
  const before = carried.get(loads);
  if (before && before.counted === relief.counted) return before.mass;
  const mass = massOf(scene, relief, true);
  carried.set(loads, { counted: relief.counted, mass });
  return mass;
}

/**
 * The masses of squares of `cell` studs from a corner of the relief on, kg, as carried and as the cutting problem takes
 * them: with what lies over the seams of now, which need not be those to come. What lies before the corner, or past the
 * last whole square, counts to the nearest square.
 */
export function massTable(
  scene: Scene,
  relief: Relief,
  cell: number,
  corner: { x: number; y: number } = relief,
): number[][] {
  const { grams } = carriedMass(scene, relief);
  const [ox, oy] = [corner.x - relief.x, corner.y - relief.y];
  const rows = Math.max(1, Math.floor((relief.d - oy) / cell));
  const columns = Math.max(1, Math.floor((relief.w - ox) / cell));
  const square = (at: number, most: number) => Math.min(most - 1, Math.max(0, Math.floor(at / cell)));
  const kg = Array.from({ length: rows }, () => new Array<number>(columns).fill(0));
  const add = (i: number, mass: number) =>
    (kg[square(Math.trunc(i / relief.w) - oy, rows)][square((i % relief.w) - ox, columns)] += mass / 1000);
  grams.forEach((mass, i) => add(i, mass));
  for (const { studs, grams } of loadsOf(scene, relief).overSeams)
    for (const i of studs) add(i, grams / studs.length);
  // To a tenth of a gram, so that the sums do not hang on the order of adding.
  return kg.map((row) => row.map((value) => Math.round(value * 1e4) / 1e4));
}

/**
 * The revised NIOSH lifting equation (Waters et al. 1993; DHHS (NIOSH) 94-110), metric:
 * RWL = 23 kg × HM × VM × DM × AM × FM × CM. Lengths in cm, the angle in degrees.
 */
export interface LiftTask {
  kg: number;
  /** From the middle of the ankles to the hands, cm. */
  horizontal: number;
  /** Of the hands above the floor, cm, and how far they travel up or down. */
  vertical: number;
  travel: number;
  /** How far the body turns, degrees. */
  asymmetry: number;
  coupling: 'good' | 'fair' | 'poor';
}

export interface LiftReport {
  /** Recommended weight limit, kg. */
  limit: number;
  /** Load over limit: above 1 more people are at risk, above 3 many. Infinity where no load is recommended. */
  index: number;
  multipliers: {
    horizontal: number;
    vertical: number;
    distance: number;
    asymmetry: number;
    frequency: number;
    coupling: number;
  };
}

const LOAD_CONSTANT = 23;

/** Judges one lift, done now and then (up to 0.2 a minute for at most an hour: frequency multiplier 1.00). */
export function evaluateLift({
  kg,
  horizontal,
  vertical,
  travel,
  asymmetry,
  coupling,
}: LiftTask): LiftReport {
  const multipliers = {
    horizontal: horizontal > 63 ? 0 : Math.min(1, 25 / Math.max(25, horizontal)),
    vertical: vertical < 0 || vertical > 175 ? 0 : 1 - 0.003 * Math.abs(vertical - 75),
    distance: travel > 175 ? 0 : Math.min(1, 0.82 + 4.5 / Math.max(25, travel)),
    asymmetry: asymmetry > 135 ? 0 : 1 - 0.0032 * asymmetry,
    frequency: 1,
    coupling: coupling === 'good' ? 1 : coupling === 'poor' ? 0.9 : vertical < 75 ? 0.95 : 1,
  };
  const limit = Object.values(multipliers).reduce((product, each) => product * each, LOAD_CONSTANT);
  return { limit, index: limit > 0 ? kg / limit : Infinity, multipliers };
}

/** Where hands are when one walks with a load, cm above the floor (knuckle height; NIOSH’s reference height). */
const CARRIED_AT = 75;
/**
 * From the ankles to the hands with a load that begins at the body: 20 cm and half its depth where the hands are 25 cm
 * above the floor or higher, 25 cm and half its depth below that (NIOSH 94-110, §1.1).
 */
const bodyTo = (vertical: number) => (vertical >= 25 ? 20 : 25);
/** Two people at the two ends hold it one grip before them, cm (a default of ours, no source). */
const GRIP = 30;

/** One lift of a module: alone with its narrow side to the body, and by two, one at each end with half of it. */
export interface ModuleLift {
  one: LiftReport & { task: LiftTask };
  two: LiftReport & { task: LiftTask };
}

/**
 * @param size of the module, studs
 * @param tableHeight where it is lifted from, mm above the floor
 */
export function moduleLift(kg: number, size: { w: number; d: number }, tableHeight: number): ModuleLift {
  const depth = (Math.min(size.w, size.d) * MM_PER_STUD) / 10;
  const vertical = tableHeight / 10;
  const common = {
    vertical,
    travel: Math.abs(vertical - CARRIED_AT),
    asymmetry: 0,
    coupling: 'poor' as const,
  };
  const one: LiftTask = { ...common, kg, horizontal: bodyTo(vertical) + depth / 2 };
  const two: LiftTask = { ...common, kg: kg / 2, horizontal: GRIP };
  return { one: { ...evaluateLift(one), task: one }, two: { ...evaluateLift(two), task: two } };
}

/** The least angle over the four sides, for a centre of mass that need not be in the middle. */
export function tippingOf(area: Rect, { x, y, z }: Bulk): number {
  const half = Math.min(x - area.x, area.x + area.w - x, y - area.y, area.y + area.d - y);
  return tippingAngle(Math.max(0, half) * MM_PER_STUD, z);
}

/** What is to be known of a module before one lifts it. */
export interface ModuleLoad {
  id: string;
  name: string;
  bulk: Bulk;
  lift: ModuleLift;
  /** Degrees it may lean before it tips. */
  tips: number;
  /** The tables under it, with the share of its studs on each, and how many studs no table carries. */
  tables: { table: Table; studs: number }[];
  hanging: number;
  /** How far its centre of mass lies past the box of its studs on tables, studs; 0: over them, or no table at all. */
  offTable: number;
  /** Pinned buildings that are carried with it, the heaviest first. */
  fixed: (Bulk & { id: string; name: string })[];
  /** Of its tallest stud with what is fixed to it, mm above its base. */
  tall: number;
}

/** Usual table height where none stands under a module, mm (a default of ours, no source). */
export const TABLE_HEIGHT = 740;

/** Every module's mass, lift, lean and tables. */
export function moduleLoads(scene: Scene, relief: Relief): ModuleLoad[] {
  const tables = currentContents(scene, 'table').map((table) => ({ table, on: tableInStuds(scene, table) }));
  const { top } = loadsOf(scene, relief);
  const listed = listedMass(scene);
  return listOf(scene, 'module').flatMap((module): ModuleLoad[] => {
    const bulk = bulkOf(scene, relief, module);
    if (!bulk) return [];
    let hanging = 0;
    let tall = 0;
    const borne = { west: Infinity, north: Infinity, east: -Infinity, south: -Infinity };
    const under = tables
      .filter(({ on }) => intersection(on, module))
      .map(({ table, on }) => ({ table, on, studs: 0 }));
    const tableAt = firstUnder(under, module);
    for (let y = module.y; y < module.y + module.d; y++)
      for (let x = module.x; x < module.x + module.w; x++) {
        const i = (y - relief.y) * relief.w + x - relief.x;
        if (x < relief.x || y < relief.y || x >= relief.x + relief.w || y >= relief.y + relief.d) continue;
        if (relief.ground[i] === OUTSIDE) continue;
        tall = Math.max(tall, top[i]);
        const number = tableAt[(y - module.y) * module.w + x - module.x];
        if (number === 0) hanging++;
        else {
          const below = under[number - 1];
          below.studs++;
          borne.west = Math.min(borne.west, x);
          borne.north = Math.min(borne.north, y);
          borne.east = Math.max(borne.east, x + 1);
          borne.south = Math.max(borne.south, y + 1);
        }
      }
    const carried = under
      .filter(({ studs }) => studs > 0)
      .map(({ table, studs }) => ({ table, studs }))
      .sort((a, b) => b.studs - a.studs);
    const height = carried[0]?.table.height ?? TABLE_HEIGHT;
    return [
      {
        id: module.id,
        name: module.name,
        bulk,
        lift: moduleLift(bulk.kg, module, height),
        tips: tippingOf(module, bulk),
        tables: carried,
        hanging,
        fixed: fixedOn(scene, relief, listed, module),
        offTable: !Number.isFinite(borne.west)
          ? 0
          : Math.max(0, borne.west - bulk.x, bulk.x - borne.east, borne.north - bulk.y, bulk.y - borne.south),
        tall: tall * MM_PER_PLATE,
      },
    ];
  });
}

/** Under the middle of each stud of a module the number of the first table from 1; 0: none. */
function firstUnder(tables: readonly { on: Rect }[], { x, y, w, d }: Rect): Uint16Array {
  const numbers = new Uint16Array(w * d);
  const middleFrom = (edge: number, least: number, most: number) =>
    Math.min(most, Math.max(least, Math.ceil(edge - 0.5)));
  // From the last on, so that the first one stays.
  for (let k = tables.length - 1; k >= 0; k--) {
    const { on } = tables[k];
    const [from, to] = [middleFrom(on.x, x, x + w), middleFrom(on.x + on.w, x, x + w)];
    const end = middleFrom(on.y + on.d, y, y + d);
    for (let row = middleFrom(on.y, y, y + d); row < end; row++)
      numbers.fill(k + 1, (row - y) * w + from - x, (row - y) * w + Math.max(from, to) - x);
  }
  return numbers;
}

/** Buildings that stand on a module with their middle and are carried with it, as they weigh without what lifts off. */
function fixedOn(scene: Scene, relief: Relief, listed: ListedMass, module: Rect): ModuleLoad['fixed'] {
  return listOf(scene, 'plot')
    .flatMap((plot) => {
      const height = fixedHeight(plot);
      const { x, y } = centreOf(plot);
      if (height === 0 || !containsPoint(module, x, y)) return [];
      const weight = weightOf(plot, listed, height);
      const { grams, z } = weight;
      const off = offMiddle(plot, weight);
      const up = ((standsOn(scene, relief, plot) ?? 0) + z) * MM_PER_PLATE;
      return [{ id: plot.id, name: plot.name, kg: grams / 1000, x: x + off.x, y: y + off.y, z: up }];
    })
    .sort((a, b) => b.kg - a.kg);
}

/** The fewest of the heaviest pinned buildings without which a module is as it should be; none where that never is. */
export function liftOff({ bulk, fixed }: ModuleLoad, mends: (bulk: Bulk) => boolean): ModuleLoad['fixed'] {
  let left = bulk;
  for (const [i, piece] of fixed.entries()) {
    const kg = left.kg - piece.kg;
    if (kg <= 0) return [];
    const at = (whole: number, own: number) => (whole * left.kg - own * piece.kg) / kg;
    left = { kg, x: at(left.x, piece.x), y: at(left.y, piece.y), z: at(left.z, piece.z) };
    if (mends(left)) return fixed.slice(0, i + 1);
  }
  return [];
}
