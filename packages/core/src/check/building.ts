import {
  BRICK,
  MM,
  PLATE,
  centreOf,
  formatMm,
  formatPlates,
  overlap,
  studsWithin,
  outerSize,
  counted,
} from '../lattice/index.ts';
import { displayOf, listOf, plotBounds, type Module, type Plot } from '../scene/index.ts';
import { OUTSIDE, heightRange } from '../relief/index.ts';
import { judgePassage, wayOf, widestOf } from '../site/index.ts';
import { baseNeeds } from '../cut/index.ts';
import { type Draft, type Rule } from './finding.ts';
import { overlapping } from './places.ts';

const plotsOverlap: Rule = {
  id: 'plots-overlap',
  title: 'Buildings overlap',
  basis: 'The studs two plots share, from their places and sizes.',
  page: 'plan',
  severity: 'error',
  check: ({ scene }) =>
    overlapping(listOf(scene, 'plot'), plotBounds).flatMap(([a, b]): Draft[] => {
      // What is turned off the grid is judged by the studs it touches: see «turn-reaches».
      if (a.turn % 90 !== 0 || b.turn % 90 !== 0) return [];
      const shared = overlap(plotBounds(a), plotBounds(b));
      if (!shared) return [];
      return [
        {
          sentence: `«${a.name}» and «${b.name}» share ${shared.w} × ${shared.d} studs; two buildings need 0.`,
          remedy: `Move «${b.name}» by ${Math.min(shared.w, shared.d)} studs.`,
          place: centreOf(shared),
          things: [
            { kind: 'plot', id: a.id },
            { kind: 'plot', id: b.id },
          ],
          numbers: { w: shared.w, d: shared.d },
        },
      ];
    }),
};

const plotUneven: Rule = {
  id: 'plot-uneven',
  title: 'A building stands on uneven ground',
  basis:
    'Lowest and highest ground under the plot, from the relief. The building stands on the highest; what is lower is a gap under its walls.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene, relief }) =>
    listOf(scene, 'plot').flatMap((plot): Draft[] => {
      const range = heightRange(relief, plotBounds(plot));
      if (!range || range.low === range.high) return [];
      const gap = range.high - range.low;
      return [
        {
          sentence: `«${plot.name}» stands on ground from ${formatPlates(range.low)} to ${formatPlates(range.high)}: a gap of ${formatPlates(gap)} (${formatMm(gap * PLATE)}) under its walls where 0 belongs.`,
          remedy: `Lay a pad at ${formatPlates(range.high)} under the whole plot, or move it.`,
          place: { x: plot.x + plot.w, y: plot.y },
          things: [{ kind: 'plot', id: plot.id }],
          numbers: { low: range.low, high: range.high },
        },
      ];
    }),
};

const plotOverSeam: Rule = {
  id: 'plot-over-seam',
  title: 'A seam cuts a building',
  basis:
    'The modules whose areas a plot shares, for plots that may not be cut; for those that may be cut at named places only, the seams that run elsewhere.',
  page: 'cut',
  severity: 'error',
  check({ scene }) {
    const modules = listOf(scene, 'module');
    return listOf(scene, 'plot').flatMap((plot): Draft[] => {
      if (plot.mayCut && plot.cutAt.length === 0) return [];
      const bounds = plotBounds(plot);
      const under = modules.filter((module) => overlap(module, bounds));
      if (under.length < 2) return [];
      const [first, second] = under;
      if (plot.mayCut) {
        const seam = seamElsewhere(plot, under);
        if (!seam) return [];
        const allowed = plot.cutAt.map(
          ({ across, at }) => `${at} studs from the ${across === 'x' ? 'west' : 'north'}`,
        );
        return [
          {
            sentence: `A seam cuts «${plot.name}» ${counted(seam.at, 'stud')} from its ${seam.across === 'x' ? 'west' : 'north'} wall; it may be cut ${allowed.join(' or ')}.`,
            remedy: 'Cut again, move the plot, or name that place too.',
            place: centreOf(plot),
            things: [
              { kind: 'plot', id: plot.id },
              ...under.map(({ id }) => ({ kind: 'module' as const, id })),
            ],
            numbers: { at: seam.at, modules: under.length },
          },
        ];
      }
      return [
        {
          sentence: `«${plot.name}» stands on ${under.length} modules (${under.map(({ name }) => name).join(', ')}); a building that may not be cut stands on 1.`,
          remedy: 'Cut again, move the plot, or allow it to be cut.',
          place: seamBetween(first, second) ?? centreOf(plot),
          things: [
            { kind: 'plot', id: plot.id },
            ...under.map(({ id }) => ({ kind: 'module' as const, id })),
          ],
          numbers: { modules: under.length },
        },
      ];
    });
  },
};

/** A seam through a plot where it may not be cut, studs from its west or north wall. */
function seamElsewhere(plot: Plot, under: readonly Module[]): { across: 'x' | 'y'; at: number } | null {
  for (const across of ['x', 'y'] as const)
    for (const module of under) {
      const at = module[across] - plot[across];
      const inside = at > 0 && at < (across === 'x' ? plot.w : plot.d);
      if (inside && !plot.cutAt.some((place) => place.across === across && place.at === at))
        return { across, at };
    }
  return null;
}

function seamBetween(a: Module, b: Module): { x: number; y: number } | null {
  const near = overlap({ x: a.x - 0.5, y: a.y - 0.5, w: a.w + 1, d: a.d + 1 }, b);
  return near ? centreOf(near) : null;
}

const modulePassage: Rule = {
  id: 'module-passage',
  title: 'A module does not pass the way in',
  basis:
    'The module (8 mm a stud less 0.2 mm of play, as tall as its tallest stud) is carried upright and level, either way round, through each passage of the Survey; how each kind of passage is judged stands there.',
  page: 'cut',
  severity: 'error',
  check({ scene, relief }) {
    const way = wayOf(scene).sort((a, b) => widestOf(a) - widestOf(b));
    return listOf(scene, 'module').flatMap((module): Draft[] => {
      const box = {
        short: outerSize(Math.min(module.w, module.d)) / MM,
        long: outerSize(Math.max(module.w, module.d)) / MM,
        height: (topOf(relief, module) * PLATE) / MM,
      };
      for (const passage of way) {
        const judged = judgePassage(passage, box);
        if (judged.passes) continue;
        const { by, has, limit } = judged;
        const measure = { width: 'across its narrow side', height: 'tall', length: 'long' }[by];
        return [
          {
            sentence: `Module ${module.name} is ${formatMm(has * MM)} ${measure}; the ${passage.name} lets ${formatMm(limit * MM)} through${by === 'length' ? ' at its width' : ''}.`,
            remedy: {
              width: `Make it at most ${studsWithin(limit * MM)} studs on one side, or carry it another way.`,
              height: 'Plan the tall part to lift off.',
              length: `Make it at most ${studsWithin(limit * MM)} studs long, or narrower, or carry it another way.`,
            }[by],
            place: centreOf(module),
            things: [
              { kind: 'module', id: module.id },
              { kind: 'passage', id: passage.id },
            ],
            numbers: { [by]: has, passage: limit },
          },
        ];
      }
      return [];
    });
  },
};

function topOf(
  relief: { x: number; y: number; w: number; d: number; top: Int16Array; ground: Uint8Array },
  module: Module,
): number {
  let top = 0;
  for (let y = Math.max(module.y, relief.y); y < Math.min(module.y + module.d, relief.y + relief.d); y++)
    for (let x = Math.max(module.x, relief.x); x < Math.min(module.x + module.w, relief.x + relief.w); x++) {
      const i = (y - relief.y) * relief.w + x - relief.x;
      if (relief.ground[i] !== OUTSIDE) top = Math.max(top, relief.top[i]);
    }
  return top;
}

const moduleSize: Rule = {
  id: 'module-size',
  title: 'A module is larger than agreed',
  basis: 'The module’s size in studs, either way round, against the Brief’s largest module.',
  page: 'cut',
  severity: 'warning',
  check({ scene }) {
    const { moduleMaxW, moduleMaxD } = displayOf(scene);
    return listOf(scene, 'module').flatMap(({ id, name, ...module }): Draft[] => {
      const { w, d } = module;
      if ((w <= moduleMaxW && d <= moduleMaxD) || (d <= moduleMaxW && w <= moduleMaxD)) return [];
      return [
        {
          sentence: `Module ${name} is ${w} × ${d} studs; the largest agreed is ${moduleMaxW} × ${moduleMaxD}.`,
          remedy: 'Cut again, or agree on a larger module.',
          place: centreOf(module),
          things: [{ kind: 'module', id }],
          numbers: { w, d, maxW: moduleMaxW, maxD: moduleMaxD },
        },
      ];
    });
  },
};

const modulesCover: Rule = {
  id: 'modules-cover',
  title: 'The modules do not match the footprint',
  basis: 'Studs of the footprint in no module, and module studs that lie outside it or in two modules.',
  page: 'cut',
  severity: 'error',
  check({ scene, relief }) {
    const modules = listOf(scene, 'module');
    if (modules.length === 0) return [];
    const count = new Uint8Array(relief.ground.length);
    let astray = 0;
    for (const module of modules)
      for (let y = module.y; y < module.y + module.d; y++)
        for (let x = module.x; x < module.x + module.w; x++) {
          const [i, j] = [x - relief.x, y - relief.y];
          const index = j * relief.w + i;
          if (i < 0 || j < 0 || i >= relief.w || j >= relief.d || relief.ground[index] === OUTSIDE) astray++;
          else if (count[index] < 2) count[index]++;
        }
    let bare = 0;
    let twice = 0;
    let place: { x: number; y: number } | null = null;
    for (let i = 0; i < count.length; i++) {
      if (relief.ground[i] === OUTSIDE || count[i] === 1) continue;
      if (count[i] === 0) bare++;
      else twice++;
      place ??= { x: relief.x + (i % relief.w) + 0.5, y: relief.y + Math.trunc(i / relief.w) + 0.5 };
    }
    if (bare + twice + astray === 0) return [];
    const parts = [
      bare > 0 && `${counted(bare, 'stud')} in no module`,
      twice > 0 && `${counted(twice, 'stud')} in two`,
      astray > 0 && `${counted(astray, 'module stud')} outside the footprint`,
    ];
    return [
      {
        sentence: `The modules do not match the footprint: ${parts.filter(Boolean).join(', ')}; all three should be 0.`,
        remedy: 'Press Cut again.',
        place,
        things: [],
        numbers: { bare, twice, astray },
      },
    ];
  },
};

const basesShort: Rule = {
  id: 'bases-short',
  title: 'Bases are missing',
  basis: 'Bases of all modules by size, less the stock on Stockpile; the price is the one typed there.',
  page: 'stockpile',
  severity: 'warning',
  check({ scene }) {
    const { currency } = displayOf(scene);
    return baseNeeds(scene)
      .filter(({ short }) => short > 0)
      .map(({ id, w, d, needed, owned, short, cost }) => ({
        sentence: `The modules need ${counted(needed, 'base')} of ${w}×${d} and ${owned} are owned: ${short} short${cost > 0 ? `, about ${cost.toFixed(2)} ${currency}` : ''}.`,
        remedy: 'Buy or borrow them before the session that lays them, or cut with what is owned.',
        place: null,
        things: id ? [{ kind: 'baseType' as const, id }] : [],
        numbers: { needed, owned, short, cost },
      }));
  },
};

const levelSteps: Rule = {
  id: 'level-step',
  title: 'A level breaks the agreed step',
  basis:
    'The difference between one named level and the next higher one, against the step agreed on the Brief.',
  page: 'brief',
  severity: 'warning',
  check({ scene }) {
    const step = displayOf(scene).levelStep;
    if (step === null) return [];
    const levels = listOf(scene, 'level').toSorted((a, b) => a.height - b.height);
    return levels.slice(1).flatMap((level, i): Draft[] => {
      const below = levels[i];
      const rise = level.height - below.height;
      if (rise % step === 0) return [];
      return [
        {
          sentence: `«${level.name}» lies ${formatPlates(rise)} (${formatMm((rise * BRICK) / 3)}) above «${below.name}»; the agreed step is ${formatPlates(step)}.`,
          remedy: `Set «${level.name}» to ${formatPlates(below.height + Math.max(1, Math.round(rise / step)) * step)}.`,
          place: null,
          things: [{ kind: 'level', id: level.id }],
          numbers: { rise, step },
        },
      ];
    });
  },
};

export const BUILDING_RULES: readonly Rule[] = [
  plotsOverlap,
  plotUneven,
  plotOverSeam,
  modulePassage,
  moduleSize,
  modulesCover,
  basesShort,
  levelSteps,
];
