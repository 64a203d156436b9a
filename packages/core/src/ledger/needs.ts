import { FAMILIES, partOf } from '../catalogue/index.ts';
import { inRect } from '../lattice/index.ts';
import { familyOfPart, type BlockLine } from '../masonry/index.ts';
import { displayOf, listOf, type Scene } from '../scene/index.ts';
import { thingLines, type ThingLine } from './things.ts';

/** What sections need: counted from the plan, set out on it, and listed by people. */

export type NeedPurpose = BlockLine['purpose'] | ThingLine['purpose'] | 'building' | 'ground' | 'other';
export const PURPOSE_WORDS: Record<NeedPurpose, string> = {
  core: 'core',
  deck: 'decks',
  cover: 'ground cover',
  slope: 'slopes',
  accent: 'scatter',
  planting: 'planting',
  figures: 'figures',
  lights: 'lights',
  walls: 'walls, fences',
  track: 'track',
  rim: 'rims of modules',
  building: 'buildings',
  ground: 'ground, listed',
  other: 'other',
};

/** So many of a part in a colour, for one section and purpose. */
export interface Need {
  section: string | null;
  part: string;
  colour: string;
  purpose: NeedPurpose;
  /** Counted, without spares. */
  qty: number;
  /** Where it comes from: modules, things of the plan or lists, at most three names. */
  from: string[];
}

/** A part in a colour for one section: its purposes together, with spares. */
export interface Demand {
  /** `section part colour`. */
  id: string;
  section: string | null;
  part: string;
  colour: string;
  needs: Need[];
  /** Without and with spares. */
  counted: number;
  qty: number;
  /** The day it is needed, or null. */
  by: string | null;
  /** Who builds with it. */
  person: string | null;
}

const FROM = 3;

/**
 * All needs of a scene.
 * @param lines the ground as counted, with the block each line comes from
 */
export function needsOf(scene: Scene, lines: readonly (BlockLine & { block: string })[]): Need[] {
  const needs = new Map<string, Need>();
  const add = (need: Omit<Need, 'from'>, from: string) => {
    if (need.qty <= 0) return;
    const key = `${need.section ?? ''} ${need.part} ${need.colour} ${need.purpose}`;
    const known = needs.get(key);
    if (!known) needs.set(key, { ...need, from: [from] });
    else {
      known.qty += need.qty;
      if (known.from.length < FROM && !known.from.includes(from)) known.from.push(from);
    }
  };
  for (const { block, section, part, colour, purpose, qty } of lines)
    add({ section, part, colour, purpose, qty }, block);
  const sections = listOf(scene, 'section');
  for (const { x, y, part, colour, qty, purpose, from } of thingLines(scene)) {
    const at = sections.find((one) => inRect(one, x, y));
    add({ section: at?.id ?? null, part, colour, qty, purpose }, from);
  }
  for (const list of listOf(scene, 'partList'))
    if (list.use === 'need')
      for (const { part, colour, qty } of list.lines)
        add(
          { section: list.section, part, colour, qty: qty * list.copies, purpose: list.purpose },
          list.name,
        );
  return [...needs.values()];
}

/** Bought over the count, percent: as said for the part, the display, or usual for its family. */
export function sparesOf(scene: Scene, part: string): number {
  const own = Object.hasOwn(scene.partType, part) ? scene.partType[part].spares : null;
  return own ?? displayOf(scene).spares ?? FAMILIES[familyOfPart(part, scene.partType)].spares;
}

/** Needs gathered by section, part and colour, with spares, the day and the builder. */
export function demandsOf(scene: Scene, needs: readonly Need[]): Demand[] {
  const demands = new Map<string, Demand>();
  const { showDate } = displayOf(scene);
  for (const need of needs) {
    const { section, part, colour, qty } = need;
    const id = `${section ?? '-'} ${part} ${colour}`;
    const known = demands.get(id);
    if (known) {
      known.needs.push(need);
      known.counted += qty;
      continue;
    }
    const at = section === null ? null : scene.section[section];
    demands.set(id, {
      ...{ id, section, part, colour, needs: [need], counted: qty, qty: 0 },
      by: at?.partsBy ?? showDate,
      person: at?.owner ?? null,
    });
  }
  for (const demand of demands.values())
    demand.qty = demand.counted + Math.ceil((demand.counted * sparesOf(scene, demand.part)) / 100 - 1e-9);
  return [...demands.values()];
}

/** A need that is another than before, and by how much. */
export interface NeedChange {
  section: string | null;
  part: string;
  colour: string;
  purpose: NeedPurpose;
  before: number;
  after: number;
  from: string[];
}

/** What is needed now and was not before, or was and is not: the largest changes first. */
export function changedNeeds(before: readonly Need[], after: readonly Need[]): NeedChange[] {
  const key = ({ section, part, colour, purpose }: Need) => `${section ?? ''} ${part} ${colour} ${purpose}`;
  const old = new Map(before.map((need) => [key(need), need]));
  const changes: NeedChange[] = [];
  for (const need of after) {
    const was = old.get(key(need));
    old.delete(key(need));
    if (was?.qty !== need.qty) changes.push({ ...need, before: was?.qty ?? 0, after: need.qty });
  }
  for (const gone of old.values()) changes.push({ ...gone, before: gone.qty, after: 0 });
  return changes.toSorted((a, b) => Math.abs(b.after - b.before) - Math.abs(a.after - a.before));
}

/** Parts in the order in which drawers are sorted: by family, then size. */
export function byPart(a: string, b: string): number {
  const [p, q] = [partOf(a), partOf(b)];
  if (!p || !q) return p ? -1 : q ? 1 : a < b ? -1 : a > b ? 1 : 0;
  if (p.family !== q.family)
    return Object.keys(FAMILIES).indexOf(p.family) - Object.keys(FAMILIES).indexOf(q.family);
  return p.w - q.w || p.d - q.d || p.h - q.h || (p.angle ?? 0) - (q.angle ?? 0);
}
