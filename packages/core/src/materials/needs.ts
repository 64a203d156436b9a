import { FAMILIES, partOf } from '../catalogue/index.ts';
import { containsPoint } from '../grid/index.ts';
import { familyOfPart, type BlockLine } from '../masonry/index.ts';
import { displayOf, listOf, type Scene } from '../document/index.ts';
import { thingLines, type ThingLine } from './things.ts';

// What sections need: counted from the plan, set out on it, and listed by people.

export type NeedPurpose =
  | BlockLine['purpose']
  | ThingLine['purpose']
  | 'building'
  | 'ground'
  | 'other'
  | 'spares';

/** Where parts may come from: kits only, own stock only, or anywhere (null). */
export type Source = 'kits' | 'own' | null;
export const PURPOSE_WORDS: Record<NeedPurpose, string> = {
  core: 'core',
  deck: 'decks',
  under: 'layers under the cover',
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
  spares: 'spares',
};

/** So many of a part in a colour, for one section and purpose. */
export interface Need {
  section: string | null;
  part: string;
  colour: string;
  purpose: NeedPurpose;
  /** Counted, without spares. */
  qty: number;
  source: Source;
  /** The list that may only be built from kits; null: none. */
  list: string | null;
  /** Where it comes from: modules, things of the plan or lists, at most three names. */
  from: string[];
}

/**
 * A part in a colour for one section, its purposes together; or the spares of a part and colour for the whole display:
 * they are no section's. What may only come from kits stands apart, list by list.
 */
export interface Demand {
  /** `section part colour`, of bound ones with their list or source. */
  id: string;
  section: string | null;
  part: string;
  colour: string;
  needs: Need[];
  /** Pieces that are counted, set out or listed; 0 for spares. */
  counted: number;
  /** Pieces to be had: as counted, or the spares. */
  qty: number;
  source: Source;
  list: string | null;
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
  const usual: Source = { any: null, own: 'own' as const, kit: 'kits' as const }[displayOf(scene).sourceRule];
  const add = (
    one: Omit<Need, 'from' | 'source' | 'list'> & Partial<Pick<Need, 'source' | 'list'>>,
    from: string,
  ) => {
    const need = { source: usual, list: null, ...one };
    if (need.qty <= 0) return;
    const key = `${need.section ?? ''} ${need.part} ${need.colour} ${need.purpose} ${need.source} ${need.list}`;
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
  for (const { at, part, colour, qty, purpose, from } of thingLines(scene)) {
    const section = at ? sections.find((one) => containsPoint(one, at.x, at.y)) : undefined;
    add({ section: section?.id ?? null, part, colour, qty, purpose }, from);
  }
  for (const list of listOf(scene, 'partList'))
    if (list.use === 'need')
      for (const { part, colour, qty } of list.lines)
        add(
          {
            ...{ section: list.section, part, colour, qty: qty * list.copies, purpose: list.purpose },
            ...(list.kitsOnly ? { source: 'kits' as const, list: list.id } : {}),
          },
          list.name,
        );
  return [...needs.values()];
}

/** Bought over the count, percent: set for the part or the display, else usual for its family. */
export function sparesOf(scene: Scene, part: string): number {
  const own = Object.hasOwn(scene.partType, part) ? scene.partType[part].spares : null;
  return own ?? displayOf(scene).spares ?? FAMILIES[familyOfPart(part, scene.partType)].spares;
}

/**
 * Needs gathered by section, part and colour, with the day and the builder, and the spares of the whole display: of each
 * part and colour so many percent of all that is counted of it, to the nearest piece. What may only come from kits or
 * own stock has none.
 */
export function demandsOf(scene: Scene, needs: readonly Need[]): Demand[] {
  const demands = new Map<string, Demand>();
  const { showDate } = displayOf(scene);
  const totals = new Map<string, { part: string; colour: string; qty: number }>();
  for (const need of needs) {
    const { section, part, colour, qty, source, list } = need;
    if (source === null) {
      const total = totals.get(`${part} ${colour}`);
      if (total) total.qty += qty;
      else totals.set(`${part} ${colour}`, { part, colour, qty });
    }
    const id = [section ?? '-', part, colour, ...(source ? [list ?? source] : [])].join(' ');
    const known = demands.get(id);
    if (known) {
      known.needs.push(need);
      known.counted += qty;
      known.qty += qty;
      continue;
    }
    const at = section === null ? null : scene.section[section];
    demands.set(id, {
      ...{ id, section, part, colour, needs: [need], counted: qty, qty, source, list },
      by: at?.partsBy ?? showDate,
      person: at?.owner ?? null,
    });
  }
  for (const { part, colour, qty } of totals.values()) {
    const spares = Math.round((qty * sparesOf(scene, part)) / 100);
    if (spares === 0) continue;
    const need: Need = {
      ...{ section: null, part, colour, purpose: 'spares', qty: spares, source: null, list: null },
      from: [`${sparesOf(scene, part)} % of ${qty.toLocaleString('en')}`],
    };
    demands.set(`spares ${part} ${colour}`, {
      ...{ id: `spares ${part} ${colour}`, section: null, part, colour, needs: [need] },
      ...{ counted: 0, qty: spares, source: null, list: null, by: showDate, person: null },
    });
  }
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
  const key = ({ section, part, colour, purpose, list }: Need) =>
    `${section ?? ''} ${part} ${colour} ${purpose} ${list}`;
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
