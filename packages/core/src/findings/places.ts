import {
  MM,
  PLATE,
  STUD,
  centreOf,
  contains,
  formatHeight,
  formatKg,
  formatMm,
  formatPlates,
  formatStuds,
  roundOut,
  intersection,
  studsIn,
  type Rect,
  countOf,
} from '../grid/index.ts';
import {
  displayOf,
  influenceBounds,
  labelOf,
  listOf,
  placeIn,
  plotBounds,
  type Entity,
  type Kind,
  type Plot,
  type Scene,
} from '../document/index.ts';
import {
  OUTSIDE,
  eachPlotSpan,
  eachWallStud,
  footprintBounds,
  groundMass,
  indexAt,
  ownerAt,
  studMiddle,
  type Relief,
} from '../terrain/index.ts';
import { currentContents, tableInStuds } from '../venue/index.ts';
import { type FindingDraft, type Rule } from './finding.ts';

const offTable: Rule = {
  id: 'off-table',
  title: 'The scene leaves its tables',
  basis:
    'Each stud of the footprint whose centre lies on no table top is measured to the nearest one, along the longer axis, from its outer edge. The limit is the display’s overhang (common practice: about 6 studs).',
  page: 'plan',
  severity: 'error',
  check({ scene, hanging }) {
    const tables = currentContents(scene, 'table');
    const limit = displayOf(scene).overhang;
    const worst = tables.map(() => ({ by: 0, x: 0, y: 0, studs: 0 }));
    for (const { x, y, by, table } of hanging()) {
      const entry = worst[table];
      if (by > limit) entry.studs++;
      if (by > entry.by) worst[table] = { ...entry, by, x, y };
    }
    return tables.flatMap((table, i): FindingDraft[] => {
      const { by, x, y, studs } = worst[i];
      if (studs === 0) return [];
      return [
        {
          sentence: `The scene hangs ${formatStuds(by * STUD)} (${formatMm(by * STUD)}) beyond “${table.name}”; the limit is ${limit} studs, and ${countOf(studs, 'stud')} of ground lie past it.`,
          remedy: 'Move or widen the table, or draw the footprint in.',
          place: { x, y },
          things: [{ kind: 'table', id: table.id }],
          numbers: { overhang: by, limit, studs },
        },
      ];
    });
  },
};

const plotOverhangs: Rule = {
  id: 'plot-overhangs',
  title: 'A building stands on an overhang',
  basis:
    'Studs of the plot whose centres lie on no table top. An overhang of a few studs is common practice only where nothing heavy stands.',
  page: 'plan',
  severity: 'warning',
  check({ scene, relief, hanging }) {
    const found = new Map<string, { studs: number; by: number; x: number; y: number }>();
    for (const { x, y, by } of hanging()) {
      const owner = ownerAt(relief, indexAt(relief, x, y));
      if (owner?.kind !== 'plot') continue;
      const { id } = owner;
      const entry = found.get(id) ?? { studs: 0, by: 0, x, y };
      found.set(id, { studs: entry.studs + 1, by: Math.max(entry.by, by), x, y });
    }
    return [...found].map(([id, { studs, by, x, y }]) => ({
      sentence: `“${scene.plot[id].name}” stands with ${countOf(studs, 'stud')} over a table edge, up to ${formatStuds(by * STUD)} (${formatMm(by * STUD)}) out; nothing heavy belongs there.`,
      remedy: 'Move the plot back onto a table or bring a table under it.',
      place: { x, y },
      things: [{ kind: 'plot' as const, id }],
      numbers: { studs, overhang: by },
    }));
  },
};

/** Ground heavier than this is too heavy past a table's edge, grams a stud: about 12 bricks of hollow ground (ours, no source). */
const HEAVY = 1;

const overhangHeavy: Rule = {
  id: 'overhang-heavy',
  title: 'Heavy ground hangs over a table edge',
  basis: `Mass of the ground on each stud whose centre lies on no table, as counted, else estimated from its height; more than ${HEAVY} g a stud is heavy (a default of ours, no source). And whether the centre of mass of each module lies over the studs that tables carry.`,
  page: 'plan',
  severity: 'warning',
  check({ scene, relief, hanging, modules }) {
    const tables = currentContents(scene, 'table');
    const worst = tables.map(() => ({ studs: 0, grams: 0, most: 0, x: 0, y: 0 }));
    const ground = groundMass(scene, relief);
    for (const { x, y, table } of hanging()) {
      const grams = ground.grams[indexAt(relief, x, y)];
      const entry = worst[table];
      if (grams <= HEAVY || !entry) continue;
      entry.studs++;
      entry.grams += grams;
      if (grams > entry.most) Object.assign(entry, { most: grams, x, y });
    }
    const heavy = tables.flatMap((table, i): FindingDraft[] => {
      const { studs, grams, most, x, y } = worst[i];
      if (studs === 0) return [];
      return [
        {
          sentence: `${countOf(studs, 'stud')} of ground past the edge of “${table.name}” weigh ${formatKg(grams)}, up to ${most.toFixed(1)} g a stud; at most ${HEAVY} g a stud belongs there.`,
          remedy: 'Move the table under it, or keep the ground there low and hollow.',
          place: { x, y },
          things: [{ kind: 'table', id: table.id }],
          numbers: { studs, grams: Math.round(grams), limit: HEAVY },
        },
      ];
    });
    const falling = modules().flatMap(({ id, name, bulk, offTable }): FindingDraft[] => {
      if (offTable <= 0) return [];
      const module = scene.module[id];
      return [
        {
          severity: 'error',
          sentence: `The centre of mass of module ${name} lies ${formatStuds(Math.round(offTable * STUD))} (${formatMm(Math.round(offTable * STUD))}) past what tables carry of it; it must lie at least 0 inside.`,
          remedy: 'Move the table under it, or make the part on the table heavier than what hangs over.',
          place: centreOf(module),
          things: [{ kind: 'module', id }],
          part: 'falls',
          numbers: { off: Number(offTable.toFixed(2)), kg: Number(bulk.kg.toFixed(2)) },
        },
      ];
    });
    return [...heavy, ...falling];
  },
};

const noTable: Rule = {
  id: 'no-table',
  title: 'Nothing carries the display',
  basis: 'The count of tables in the display; at least one must stand under its footprint.',
  page: 'survey',
  severity: 'note',
  check: ({ scene }) =>
    currentContents(scene, 'table').length > 0 || !footprintBounds(scene)
      ? []
      : [
          {
            sentence: 'The display stands on no table: 0 of at least 1.',
            remedy: 'Draw a table under the footprint.',
            place: null,
            things: [],
            numbers: { tables: 0 },
          },
        ],
};

const tablesOverlap: Rule = {
  id: 'tables-overlap',
  title: 'Tables overlap',
  basis: 'The area two table tops share, from their sizes and places in millimetres.',
  page: 'survey',
  severity: 'warning',
  check: ({ scene }) =>
    unorderedPairs(currentContents(scene, 'table')).flatMap(([a, b]): FindingDraft[] => {
      const shared = intersection(a, b);
      if (!shared) return [];
      return [
        {
          sentence: `“${a.name}” and “${b.name}” overlap by ${formatMm(shared.w * MM)} × ${formatMm(shared.d * MM)}; two tables cannot stand in one place.`,
          remedy: 'Pull one of them aside.',
          place: centreOf(tableInStuds(scene, shared)),
          things: [
            { kind: 'table', id: a.id },
            { kind: 'table', id: b.id },
          ],
          numbers: { w: shared.w, d: shared.d },
        },
      ];
    }),
};

/** Tables closer than this, mm, carry the scene across their joint. */
const JOINT = 60;
/** What a scene bridges without shims, mm (common practice, no source: one plate). */
const STEP_LIMIT = PLATE / MM;

const tableSteps: Rule = {
  id: 'table-step',
  title: 'Neighbouring tables differ in height',
  basis: `Height difference of tables less than ${JOINT} mm apart, against one plate (${STEP_LIMIT} mm), which a base can bridge.`,
  page: 'survey',
  severity: 'warning',
  check: ({ scene }) =>
    unorderedPairs(currentContents(scene, 'table')).flatMap(([a, b]): FindingDraft[] => {
      const step = Math.abs(a.height - b.height);
      const near = intersection(
        { x: a.x - JOINT, y: a.y - JOINT, w: a.w + 2 * JOINT, d: a.d + 2 * JOINT },
        b,
      );
      // Tables that meet at a corner only share no joint.
      if (step <= STEP_LIMIT || !near || Math.max(near.w, near.d) <= 2 * JOINT) return [];
      const low = a.height < b.height ? a : b;
      return [
        {
          sentence: `“${a.name}” is ${formatMm(a.height * MM)} high and “${b.name}” ${formatMm(b.height * MM)}: a step of ${formatMm(step * MM)} under the scene; one plate (${STEP_LIMIT} mm) is the most a base bridges.`,
          remedy: `Raise “${low.name}” by ${formatMm(step * MM)} (${formatHeight(Math.round(step * MM))} of shim) with blocks under its legs.`,
          place: centreOf(tableInStuds(scene, near)),
          things: [
            { kind: 'table', id: a.id },
            { kind: 'table', id: b.id },
          ],
          numbers: { step, limit: STEP_LIMIT },
        },
      ];
    }),
};

const footprintLimit: Rule = {
  id: 'footprint-limit',
  title: 'The footprint is larger than the rules allow',
  basis: 'The bounding box of all footprint parts against the display’s limit, either way round.',
  page: 'brief',
  severity: 'error',
  check({ scene }) {
    const { limitW, limitD } = displayOf(scene);
    const bounds = footprintBounds(scene);
    if (!bounds || limitW === null || limitD === null) return [];
    if ((bounds.w <= limitW && bounds.d <= limitD) || (bounds.d <= limitW && bounds.w <= limitD)) return [];
    return [
      {
        sentence: `The footprint is ${bounds.w} × ${bounds.d} studs; the rules allow ${limitW} × ${limitD}.`,
        remedy: 'Draw the footprint in, or correct the limit on the Brief.',
        place: { x: bounds.x + bounds.w, y: bounds.y + bounds.d },
        things: listOf(scene, 'footprint').map(({ id }) => ({ kind: 'footprint' as const, id })),
        numbers: { w: bounds.w, d: bounds.d, limitW, limitD },
      },
    ];
  },
};

const heightLimit: Rule = {
  id: 'height-limit',
  title: 'Taller than the rules allow',
  basis:
    'The highest of all that stands in the scene, flags and figures included, against the display’s height limit.',
  page: 'brief',
  severity: 'error',
  check({ scene, relief, card, bodies }) {
    const limit = displayOf(scene).limitHeight;
    if (limit === null) return [];
    const { height, tallest } = card();
    if (height <= limit) return [];
    const name = tallest ? `“${labelOf(scene, tallest.kind, tallest.id)}”` : 'The ground';
    const body =
      tallest &&
      bodies().find(({ kind, id, top }) => kind === tallest.kind && id === tallest.id && top === height);
    const i = relief.height.indexOf(height);
    return [
      {
        sentence: `${name} reaches ${formatPlates(height)} (${formatMm(height * PLATE)}); the rules allow ${formatPlates(limit)} (${formatMm(limit * PLATE)}).`,
        remedy: 'Lower it, or correct the limit on the Brief.',
        place: body ? centreOf(body.bounds) : studMiddle(relief, i),
        things: tallest ? [tallest] : [],
        numbers: { top: height, limit },
      },
    ];
  },
};

const outside: Rule = {
  id: 'outside-footprint',
  title: 'Something leaves the footprint',
  basis:
    'Each stud that a plot’s walls touch, turned as they are, and those of sections, walls and fences, against the union of the footprint parts; a pad only when it lies wholly outside.',
  page: 'plan',
  severity: 'warning',
  check({ scene, relief }) {
    const parts = listOf(scene, 'footprint');
    if (parts.length === 0) return [];
    return (['pad', 'plot', 'run', 'section'] as const).flatMap((kind) =>
      listOf(scene, kind).flatMap((thing): FindingDraft[] => {
        const run = kind === 'run' ? scene.run[thing.id] : null;
        const place = takenBounds(scene, kind, thing.id);
        if (!place) return [];
        if (parts.some((part) => contains(part, place))) return [];
        // What a vignette's card allows over the edge is judged by the card.
        if ((kind === 'plot' || run) && displayOf(scene).kind === 'vignette') return [];
        const studs = run
          ? lineStudsOff(relief, run, place)
          : kind === 'plot'
            ? studsOff(relief, scene.plot[thing.id])
            : studsOutside(relief, place);
        // A pad may run past the edge, where it is simply cut off; it is a mistake only when none of it is left.
        if (studs === 0 || (kind === 'pad' && studs < studsIn(place).w * studsIn(place).d)) return [];
        const name =
          kind === 'section'
            ? `Section ${scene.section[thing.id].letter}`
            : `“${'name' in thing ? thing.name : ''}”`;
        return [
          {
            ...(kind === 'plot' ? { severity: 'error' as const } : {}),
            sentence: `${name} has ${countOf(studs, 'stud')} outside the footprint; 0 may be.`,
            remedy: 'Move or shrink it, or widen the footprint.',
            place: centreOf(place),
            things: [{ kind, id: thing.id }],
            numbers: { studs },
          },
        ];
      }),
    );
  },
};

/** The rectangle that holds what a thing takes by itself: a plot's turned walls, a wall or fence as thick as it is. */
export function takenBounds(scene: Scene, kind: Kind, id: string): Rect | null {
  const place = placeIn(scene, kind, id);
  if (place && kind === 'plot') return plotBounds(scene.plot[id]);
  return place && kind === 'run' ? influenceBounds('run', scene.run[id]) : place;
}

/** Studs of a wall or fence outside the footprint. @param within a rectangle that holds it */
function lineStudsOff(relief: Relief, run: Entity<'run'>, within: Rect): number {
  let studs = 0;
  eachWallStud(run, roundOut(within), (x, y) => {
    const i = indexAt(relief, x, y);
    if (i < 0 || relief.ground[i] === OUTSIDE) studs++;
  });
  return studs;
}

/** Studs that a plot's walls touch outside the footprint. */
function studsOff(relief: Relief, plot: Plot): number {
  let studs = 0;
  eachPlotSpan(plot, roundOut(grownBy(plotBounds(plot), 1)), (row, from, to) => {
    for (let x = from; x < to; x++) {
      const i = indexAt(relief, x, row);
      if (i < 0 || relief.ground[i] === OUTSIDE) studs++;
    }
  });
  return studs;
}

const grownBy = ({ x, y, w, d }: Rect, by: number): Rect => ({
  x: x - by,
  y: y - by,
  w: w + 2 * by,
  d: d + 2 * by,
});

function studsOutside(relief: Relief, shape: Rect): number {
  const area = studsIn(shape);
  let studs = 0;
  for (let row = area.y; row < area.y + area.d; row++)
    for (let column = area.x; column < area.x + area.w; column++) {
      const [i, j] = [column - relief.x, row - relief.y];
      if (i < 0 || j < 0 || i >= relief.w || j >= relief.d || relief.ground[j * relief.w + i] === OUTSIDE)
        studs++;
    }
  return studs;
}

/** All unordered pairs of a list. */
export function unorderedPairs<T>(list: readonly T[]): [T, T][] {
  return list.flatMap((a, i) => list.slice(i + 1).map((b): [T, T] => [a, b]));
}

/** The pairs whose rectangles overlap, found from west to east: few of thousands are compared. Places are in the list's order. */
export function overlappingPairs<T>(list: readonly T[], placeOf: (thing: T) => Rect): [T, T][] {
  const sorted = list
    .map((thing, order) => ({ thing, order, place: placeOf(thing) }))
    .sort((a, b) => a.place.x - b.place.x);
  const found: [T, T][] = [];
  sorted.forEach((a, i) => {
    for (let j = i + 1; j < sorted.length && sorted[j].place.x < a.place.x + a.place.w; j++) {
      const b = sorted[j];
      if (intersection(a.place, b.place))
        found.push(a.order < b.order ? [a.thing, b.thing] : [b.thing, a.thing]);
    }
  });
  return found;
}

export const PLACE_RULES: readonly Rule[] = [
  noTable,
  offTable,
  plotOverhangs,
  overhangHeavy,
  tablesOverlap,
  tableSteps,
  footprintLimit,
  heightLimit,
  outside,
];
