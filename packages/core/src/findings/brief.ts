import {
  MM_PER_PLATE,
  centreOf,
  formatPlates,
  formatStuds,
  STUD,
  countOf,
  formatPercent,
} from '../grid/index.ts';
import { FIGURE_MM, FIGURE_RATIO, STATURE, judgeFurniture, spaceBudget } from '../scale/index.ts';
import {
  frontSize,
  SIDE_WORDS,
  builtRect,
  displayOf,
  isBoxed,
  isRound,
  labelOf,
  listOf,
  spacesOf,
  vehiclesOf,
  daysBetween,
} from '../document/index.ts';
import { footprintBounds } from '../terrain/index.ts';
import { type FindingDraft, type Rule } from './finding.ts';

const cardOverhang: Rule = {
  id: 'card-overhang',
  title: 'More stands out over the base than the card allows',
  basis:
    'How far each building, wall, plant, figure and flag reaches past the footprint’s bounding box on each side, turned as it is, in studs, and how high above the base that begins (its ground and its own “stands out from”), against the rule card. Judged for vignettes.',
  page: 'brief',
  severity: 'error',
  check({ scene, card }) {
    const { kind: sort, cardOverhang: limit, cardOverhangFrom: from } = displayOf(scene);
    if (sort !== 'vignette') return [];
    return card().over.flatMap(({ kind, id, by, side, begins, at }): FindingDraft[] => {
      const low = begins < from;
      if (by <= limit && !low) return [];
      const name = labelOf(scene, kind, id);
      return [
        {
          sentence:
            by > limit
              ? `“${name}” stands ${formatStuds(Math.round(by * STUD))} out over the ${side} side of the base; the card allows ${formatStuds(limit * STUD)}.`
              : `“${name}” begins to stand out at ${formatPlates(begins)}; the card allows it from ${formatPlates(from)} on.`,
          remedy: 'Move it in, let it begin higher, or correct the card on the Brief.',
          place: at,
          things: [{ kind, id }],
          numbers: by > limit ? { by, limit } : { begins, from },
        },
      ];
    });
  },
};

const cardPiece: Rule = {
  id: 'card-piece',
  title: 'A required piece is missing',
  basis: 'The count placed, as ticked on the Brief, against the count that the card asks for.',
  page: 'brief',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'requirement')
      .filter(({ placed, count }) => placed < count)
      .map(({ id, name, placed, count }) => ({
        sentence: `${placed} of ${count} “${name}” ${count === 1 ? 'stands' : 'stand'} in the scene; the card asks for ${count}.`,
        remedy: 'Build it in and tick it on the Brief.',
        place: null,
        things: [{ kind: 'requirement' as const, id }],
        numbers: { placed, count },
      })),
};

const spaceShort: Rule = {
  id: 'space-short',
  title: 'A room does not fit its plot',
  basis:
    'True size ÷ ratio ÷ 8 mm, rounded up to whole studs, and the walls on both sides, against the plot without its pavement, either way round. The share is floor inside over floor needed.',
  page: 'brief',
  severity: 'warning',
  check({ scene }) {
    const { ratio } = displayOf(scene);
    return spaceBudget(spacesOf(scene), ratio).spaces.flatMap(({ id, share, fits, need }): FindingDraft[] => {
      if (share === null || fits !== false) return [];
      const space = scene.space[id];
      const plot = space.plot === null ? null : scene.plot[space.plot];
      if (!plot) return [];
      const built = builtRect(plot);
      const floor =
        share < 1
          ? `has ${formatPercent(share)} of the floor it needs`
          : 'has floor enough but not the shape';
      return [
        {
          sentence: `The ${space.name} ${floor}: ${need.w} × ${need.d} studs at 1:${ratio}, and “${plot.name}” is ${built.w} × ${built.d}${built.w * built.d < plot.w * plot.d ? ' without its pavement' : ''}${isBoxed(plot) ? '' : isRound(plot) ? ', round' : ' with corners left out'}.`,
          remedy: 'Widen the plot, choose a smaller true room, or another scale for it.',
          place: centreOf(plot),
          things: [
            { kind: 'space', id },
            { kind: 'plot', id: plot.id },
          ],
          numbers: { share: Number(share.toFixed(2)), w: need.w, d: need.d },
        },
      ];
    });
  },
};

const vehicleCover: Rule = {
  id: 'vehicle-cover',
  title: 'Vehicles make the scene look small',
  basis:
    'Length × width × count of the vehicles over the area of the footprint, against the share set on the Brief. A few large vehicles make a whole scene look small (common practice).',
  page: 'brief',
  severity: 'warning',
  check({ scene }) {
    const limit = displayOf(scene).vehicleShare;
    const { share } = vehiclesOf(scene);
    if (!footprintBounds(scene) || share * 100 <= limit) return [];
    return [
      {
        sentence: `Vehicles cover ${(share * 100).toFixed(1)} % of the ground; the limit set is ${limit} %.`,
        remedy: 'Leave some out, build them shorter, or widen the ground.',
        place: null,
        things: listOf(scene, 'vehicle').map(({ id }) => ({ kind: 'vehicle' as const, id })),
        numbers: { share: Number((share * 100).toFixed(1)), limit },
      },
    ];
  },
};

const vehicleScale: Rule = {
  id: 'vehicle-scale',
  title: 'A vehicle’s scale is far from the figures’',
  basis: `Its true length over its built length, against the figures’ 1:${FIGURE_RATIO} (${FIGURE_MM} mm for ${STATURE} m, from memory) and the display’s spread. Smaller ones are common practice; larger ones dwarf the figures.`,
  page: 'brief',
  severity: 'note',
  check({ scene }) {
    const spread = displayOf(scene).scaleSpread / 100;
    return vehiclesOf(scene).vehicles.flatMap(({ id, ratio, beside }): FindingDraft[] => {
      if (beside <= spread) return [];
      return [
        {
          sentence: `“${scene.vehicle[id].name}” is built at 1:${ratio.toFixed(1)}, ${formatPercent(beside)} larger than the figures’ 1:${FIGURE_RATIO}; the spread is ${formatPercent(spread)}.`,
          remedy: 'Build it shorter, or widen the spread on the Brief.',
          place: null,
          things: [{ kind: 'vehicle', id }],
          numbers: { ratio: Number(ratio.toFixed(1)), spread },
        },
      ];
    });
  },
};

const furniture: Rule = {
  id: 'furniture-height',
  title: 'Furniture does not suit the figures',
  basis:
    'Height over the 40 mm of a figure, against seats of 17 to 19 in, tables of 28 to 34 in, counters up to 42 in and doorways of at least 80 in for a person of 1.75 m (2010 ADA Standards 903.5, 902.3, 904.4.1, 307.4), rounded out to whole plates. A seat never reaches the chest.',
  page: 'brief',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'furnishing').flatMap(({ id, name, use, height }): FindingDraft[] => {
      const { verdict, least, most, chest, share } = judgeFurniture(use, height);
      if (verdict === 'fits') return [];
      return [
        {
          sentence: `“${name}” is ${formatPlates(height)} (${(height * MM_PER_PLATE).toFixed(1)} mm), ${formatPercent(share)} of a figure: too ${verdict} for a ${use}${chest ? ', it reaches the chest' : ''}; ${formatPlates(least)} to ${formatPlates(most)} suit.`,
          remedy: verdict === 'high' ? 'Build it lower.' : 'Build it higher.',
          place: null,
          things: [{ kind: 'furnishing', id }],
          numbers: { height, least, most },
        },
      ];
    }),
};

const streetStandard: Rule = {
  id: 'street-standard',
  title: 'A street front breaks the standard',
  basis:
    'Depth of each plot marked as a street front, from its front to its back, and its width along the street, against the house rules.',
  page: 'brief',
  severity: 'warning',
  check({ scene }) {
    const { streetDepth, streetWidths } = displayOf(scene);
    if (streetDepth === null) return [];
    const widths = [...streetWidths].sort((a, b) => a - b);
    return listOf(scene, 'plot').flatMap(({ id, name, streetFront, front, ...plot }): FindingDraft[] => {
      const { wide, deep } = frontSize({ ...plot, front });
      if (!streetFront || (deep === streetDepth && widths.includes(wide))) return [];
      return [
        {
          sentence: `The street front “${name}” is ${plot.w} × ${plot.d} studs, ${deep} deep from its front to the ${SIDE_WORDS[front]}; the standard is ${streetDepth} deep and ${widths.join(', ')} wide.`,
          remedy:
            wide === streetDepth && widths.includes(deep)
              ? 'Turn its front to a longer side, or resize it.'
              : 'Resize it, or take the mark of a street front off.',
          place: centreOf(plot),
          things: [{ kind: 'plot', id }],
          numbers: { wide, deep, depth: streetDepth },
        },
      ];
    });
  },
};

const dateOrder: Rule = {
  id: 'date-order',
  title: 'Dates are in the wrong order',
  basis: 'Start and milestones against the show day; a show day after it (another show) is in order.',
  page: 'brief',
  severity: 'warning',
  check({ scene }) {
    const { startDate, showDate } = displayOf(scene);
    if (!showDate) return [];
    const dates = [
      ...(startDate ? [{ name: 'The start', date: startDate, things: [] }] : []),
      ...listOf(scene, 'milestone')
        .filter(({ show }) => !show)
        .map(({ id, name, date }) => ({
          name: `“${name}”`,
          date,
          things: [{ kind: 'milestone' as const, id }],
        })),
    ];
    return dates.flatMap(({ name, date, things }): FindingDraft[] => {
      const late = daysBetween(showDate, date);
      if (late <= 0) return [];
      return [
        {
          sentence: `${name} is set for ${date}, ${countOf(late, 'day')} after the show on ${showDate}.`,
          remedy: 'Move one of the two on the Brief.',
          place: null,
          things,
          numbers: { late },
        },
      ];
    });
  },
};

export const BRIEF_RULES: readonly Rule[] = [
  cardOverhang,
  cardPiece,
  spaceShort,
  vehicleCover,
  vehicleScale,
  furniture,
  streetStandard,
  dateOrder,
];
