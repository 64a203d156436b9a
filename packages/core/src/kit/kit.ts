import { MM, countOf, formatMm } from '../grid/index.ts';
import { displayOf, listOf, type Scene } from '../document/index.ts';
import { currentContents, highestTable } from '../venue/index.ts';
import { shareOf, type Reach } from '../reach/index.ts';
import { handsOf, nightsOf, type Shipment } from '../transport/index.ts';
import type { Power } from '../power/index.ts';
import { brokenThings } from './log.ts';

// What comes along to a show beside the display, worked out from the plan, each with its reason.

export interface KitItem {
  /** The same as long as the plan is. */
  key: string;
  name: string;
  count: number;
  /** Why, and how the count is made. */
  why: string;
  /** Its size as it travels, mm, and mass, kg (guesses of ours), for the load. */
  pack: { w: number; d: number; h: number; kg: number };
}

/** Posts of a rope barrier stand so far apart at most, mm (a guess of ours). */
const POST_EVERY = 1500;
/** Spare lights for each so many, and spare connectors for each so many (guesses of ours). */
const SPARE_EACH = 10;
/** Cloths end at least so far over the floor, mm, and are made in such steps. */
const OVER_FLOOR = 20;
const CLOTH_STEP = 50;

const SMALL = { w: 300, d: 200, h: 150, kg: 1 };

/**
 * The kit of a show. @param scene in the place of its show
 * @returns in the order in which it is packed; nothing whose count is 0
 */
export function showKit(
  scene: Scene,
  { shipment, reach, power }: { shipment: Shipment; reach: Reach; power: Power },
): KitItem[] {
  const display = displayOf(scene);
  const hasPublic = display.viewedSides.length > 0;
  const helpers = listOf(scene, 'person').filter(({ comes }) => comes).length;
  const items: (KitItem | null)[] = [
    ...cloths(scene),
    barrierItem(scene),
    ...shims(scene),
    ladderItem(reach),
    trolleyItem(shipment),
    ...powerItems(power, display.showDays),
    ...nightItems(scene),
    ...brokenThings(scene).map(({ what, times }) => ({
      ...{ key: `spares ${what}`, name: `Spare parts for ${what}`, count: 1 },
      why: `It broke ${times === 1 ? 'once' : `${times} times`} before.`,
      pack: SMALL,
    })),
    item(
      'lever',
      'Lever to part pieces',
      Math.max(1, Math.ceil(helpers / 2)),
      `One for two of ${helpers} who come.`,
    ),
    item('brush', 'Brush and dust cloth', 1, 'Dust shows under lights.'),
    display.glue === 'none'
      ? null
      : item(
          'glue',
          'Glue for mending',
          1,
          `The house rules allow glue: ${display.glue === 'hidden' ? 'where it is not seen' : 'anywhere'}.`,
        ),
    item('first-aid', 'First-aid box', 1, 'Where people lift and cut.'),
    item('papers', 'Papers: lists, contacts, values, cautions', 1, 'Printed in one act.'),
    hasPublic
      ? item(
          'signs',
          'Signs',
          1 + signed(scene),
          `One of the display${signed(scene) > 0 ? `, and ${countOf(signed(scene), 'small scene')} with a story` : ''}.`,
        )
      : null,
  ];
  return items.flatMap((one) => (one && one.count > 0 ? [one] : []));
}

const item = (key: string, name: string, count: number, why: string): KitItem => ({
  ...{ key, name, count, why },
  pack: SMALL,
});

const signed = (scene: Scene) => listOf(scene, 'figure').filter(({ story }) => story !== '').length;

/** A cloth for each table, down to the floor on all sides, by size. */
function cloths(scene: Scene): KitItem[] {
  const bySize = new Map<string, { w: number; d: number; names: string[] }>();
  for (const { name, w, d, height, kind } of currentContents(scene, 'table')) {
    if (kind !== 'table') continue;
    const drop = 2 * Math.max(0, height - OVER_FLOOR);
    const [long, short] = [Math.max(w, d), Math.min(w, d)].map(
      (side) => Math.floor((side + drop) / CLOTH_STEP) * CLOTH_STEP,
    );
    const known = bySize.get(`${long} ${short}`);
    if (known) known.names.push(name);
    else bySize.set(`${long} ${short}`, { w: long, d: short, names: [name] });
  }
  return [...bySize.values()].map(({ w, d, names }) => ({
    ...{ key: `cloth ${w} ${d}`, name: `Table cloth ${size(w)} × ${size(d)}`, count: names.length },
    why: `For ${names.slice(0, 4).join(', ')}${names.length > 4 ? ' …' : ''}: to the floor on all sides, ${OVER_FLOOR} mm over it at least.`,
    pack: { w: 400, d: 300, h: 60, kg: 0.8 },
  }));
}

const size = (mm: number) => formatMm(Math.round(mm) * MM);

/** What covers the display while it stands in the hall over night. */
function nightItems(scene: Scene): KitItem[] {
  const nights = nightsOf(scene);
  const tables = currentContents(scene, 'table').filter(({ kind }) => kind === 'table').length;
  return nights === 0
    ? []
    : [
        item(
          'dust-sheet',
          'Dust sheet',
          tables,
          `One for each table: it stands ${countOf(nights, 'night')} in the hall.`,
        ),
      ];
}

function barrierItem(scene: Scene): KitItem | null {
  const lengths = currentContents(scene, 'barrier').map(({ x1, y1, x2, y2 }) => Math.hypot(x2 - x1, y2 - y1));
  if (lengths.length === 0) return null;
  const whole = lengths.reduce((sum, one) => sum + one, 0);
  const posts = lengths.reduce((sum, one) => sum + Math.ceil(one / POST_EVERY) + 1, 0);
  return {
    ...{ key: 'posts', name: 'Posts of the barrier', count: posts },
    why: `With ${size(whole)} of rope; a post each ${size(POST_EVERY)} at most, and at both ends.`,
    pack: { w: 300, d: 300, h: 900, kg: 3 },
  };
}

/** What tables that are lower than the highest stand on, four legs each. */
function shims(scene: Scene): KitItem[] {
  const high = highestTable(scene);
  const lower = new Map<number, string[]>();
  for (const { name, height, kind } of currentContents(scene, 'table')) {
    if (kind === 'floor' || height >= high || high - height > MAX_SHIM) continue;
    lower.set(high - height, [...(lower.get(high - height) ?? []), name]);
  }
  return [...lower].map(([mm, names]) => ({
    ...{ key: `shim ${mm}`, name: `Shims of ${size(mm)}`, count: 4 * names.length },
    why: `Under the legs of ${names.join(', ')}: the highest table is ${size(high)}.`,
    pack: SMALL,
  }));
}
/** What is lower still is no table of the display, mm. */
const MAX_SHIM = 60;

function ladderItem(reach: Reach): KitItem | null {
  const { pastArm, farthest } = shareOf(reach);
  if (pastArm === 0) return null;
  return {
    ...{ key: 'ladder', name: 'Step ladder', count: 1 },
    why: `${countOf(pastArm, 'stud')} are beyond an arm of ${size(reach.arm)}, the farthest ${Number.isFinite(farthest) ? size(farthest) : 'out of reach'}. Lean on nothing; one holds it.`,
    pack: { w: 450, d: 120, h: 1300, kg: 6 },
  };
}

function trolleyItem({ units }: Shipment): KitItem | null {
  const heavy = units.filter((unit) => handsOf(unit) > 2);
  if (heavy.length === 0) return null;
  return {
    ...{ key: 'trolley', name: 'Trolley', count: 1 },
    why: `${countOf(heavy.length, 'thing')} ${heavy.length === 1 ? 'needs' : 'need'} more than two people, the first ${heavy[0].name}.`,
    pack: { w: 900, d: 600, h: 200, kg: 12 },
  };
}

/** Spares of lights and connectors, charged batteries, extension leads, covers for leads over the visitors’ floor. */
function powerItems({ circuits, supplies, leads }: Power, days: number): KitItem[] {
  const lights = new Map<string, number>();
  for (const { devices } of circuits)
    for (const { device } of devices)
      if (device.use === 'light')
        lights.set(`${device.volts} V`, (lights.get(`${device.volts} V`) ?? 0) + device.count);
  const connectors = circuits.reduce((sum, { used, partings }) => sum + used.length + partings.length, 0);
  const crossing = leads.filter(({ isCrossing, outlet }) => isCrossing && outlet);
  return [
    ...[...lights].map(([volts, count]) =>
      item(
        `lights ${volts}`,
        `Spare lights, ${volts}`,
        Math.ceil(count / SPARE_EACH),
        `One for each ${SPARE_EACH} of ${count}.`,
      ),
    ),
    item(
      'connectors',
      'Spare connectors',
      Math.ceil(connectors / SPARE_EACH),
      `One for each ${SPARE_EACH} of ${connectors}.`,
    ),
    ...supplies.flatMap(({ supply, hours }) =>
      supply.type === 'battery' && hours !== null
        ? [
            item(
              `battery ${supply.id}`,
              `Charged batteries for ${supply.name}`,
              supply.sets * days,
              days === 1
                ? `They last ${hours.toFixed(1)} h together.`
                : `${countOf(supply.sets, 'set')} for each of ${days} days, ${hours.toFixed(1)} h a day: nothing is charged unwatched.`,
            ),
          ]
        : [],
    ),
    ...leads.flatMap(({ kind, id, name, outlet }) =>
      kind === 'extension' ? [item(`lead ${id}`, name, 1, `To ${outlet?.name ?? 'a socket'}.`)] : [],
    ),
    item(
      'covers',
      'Covers for leads',
      crossing.length,
      'Over the floor where visitors stand: they trip people.',
    ),
  ];
}
