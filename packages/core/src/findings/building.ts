import {
  BRICK,
  MM,
  MM_PER_PLATE,
  PLATE,
  centreOf,
  countOf,
  formatMm,
  formatPlates,
  outerSize,
  intersection,
  studsWithin,
  formatSum,
} from '../grid/index.ts';
import {
  standingOf,
  displayOf,
  labelOf,
  listOf,
  areaBounds,
  mayCutAt,
  plotBounds,
  seamPlaceOf,
  type Module,
  type Passage,
  type Plot,
  type Scene,
} from '../document/index.ts';
import {
  OUTSIDE,
  eachPlotSpan,
  fixedHeight,
  indexAt,
  isLoose,
  loadsOf,
  ownerAt,
  studMiddle,
  type Relief,
} from '../terrain/index.ts';
import { evaluatePassage, passagesFor, wayOf, widestOf, type Box } from '../venue/index.ts';
import { baseGroundOf, baseNeeds } from '../cut/index.ts';
import { type FindingDraft, type Rule } from './finding.ts';

const plotUneven: Rule = {
  id: 'plot-uneven',
  title: 'A building stands on uneven ground',
  basis:
    'Lowest and highest ground under the plot, from the relief. The building stands on the highest; what is lower is a gap under its walls.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene, relief }) =>
    listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      // What names a deck, a cavity or a roof to stand on is judged by that; half on a deck it has two feet.
      if (standingOf(plot) !== null && !plot.onGround) return [];
      if (!plot.onGround && isHalfOnSlab(relief, plot)) return [];
      const range = rangeUnder(relief, plot);
      if (!range || range.low === range.high) return [];
      const gap = range.high - range.low;
      return [
        {
          sentence: `“${plot.name}” stands on ground from ${formatPlates(range.low)} to ${formatPlates(range.high)}: a gap of ${formatPlates(gap)} (${formatMm(gap * PLATE)}) under its walls where 0 belongs.`,
          remedy: `Lay a pad at ${formatPlates(range.high)} under the whole plot, or move it.`,
          place: { x: plot.x + plot.w, y: plot.y },
          things: [{ kind: 'plot', id: plot.id }],
          numbers: { low: range.low, high: range.high },
        },
      ];
    }),
};

/** Whether a deck or a bridge is under a building somewhere. */
const isHalfOnSlab = (relief: Relief, plot: Plot): boolean => {
  if (relief.slabs.length === 0) return false;
  let found = false;
  eachPlotSpan(plot, relief, (row, from, to) => {
    for (let x = from; x < to && !found; x++) {
      const i = indexAt(relief, x, row);
      found = i >= 0 && relief.surface[i] !== relief.height[i];
    }
  });
  return found;
};

/** Lowest and highest ground under a building, every stud that its walls touch. */
function rangeUnder(relief: Relief, plot: Plot): { low: number; high: number } | null {
  let [low, high] = [Infinity, -Infinity];
  eachPlotSpan(plot, relief, (row, from, to) => {
    for (let x = from; x < to; x++) {
      const i = indexAt(relief, x, row);
      if (i < 0 || relief.ground[i] === OUTSIDE) continue;
      low = Math.min(low, relief.height[i]);
      high = Math.max(high, relief.height[i]);
    }
  });
  return low > high ? null : { low, high };
}

const plotOverSeam: Rule = {
  id: 'plot-over-seam',
  title: 'A seam cuts a building',
  basis:
    'The modules whose areas a plot shares, for plots that may not be cut; for those that may be cut at named places only, the seams that run elsewhere. What stands loose is set on when its modules stand, and may bridge their seam.',
  page: 'cut',
  severity: 'error',
  check({ scene }) {
    const modules = listOf(scene, 'module');
    return listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      if (isLoose(plot) || (plot.mayCut && plot.cutAt.length === 0)) return [];
      const pieces = areaBounds(plot);
      const under = modules.filter((module) => pieces.some((piece) => intersection(module, piece)));
      if (under.length < 2) return [];
      const [first, second] = under;
      if (plot.mayCut) {
        const seam = seamElsewhere(plot, under);
        if (!seam) return [];
        const wall = (across: 'x' | 'y') => (across === 'x' ? 'west' : 'north');
        const allowed = plot.cutAt.map(({ across, at }) => `${countOf(at, 'stud')} from the ${wall(across)}`);
        const where = seam.place
          ? `${countOf(seam.place.at, 'stud')} from its ${wall(seam.place.across)} wall`
          : 'slantwise';
        const turned = plot.turn === 0 ? '' : `, counted unturned (it is turned by ${plot.turn}°)`;
        return [
          {
            sentence: `A seam cuts “${plot.name}” ${where}; it may be cut ${allowed.join(' or ')}${turned}.`,
            remedy: seam.place
              ? 'Cut again, move the plot, or name that place too.'
              : 'Cut again, move the plot, or turn it along the studs.',
            place: centreOf(plot),
            things: [
              { kind: 'plot', id: plot.id },
              ...under.map(({ id }) => ({ kind: 'module' as const, id })),
            ],
            numbers: { ...(seam.place && { at: seam.place.at }), modules: under.length },
          },
        ];
      }
      return [
        {
          sentence: `“${plot.name}” stands on ${under.length} modules (${under.map(({ name }) => name).join(', ')}); a building that may not be cut stands on 1.`,
          remedy: 'Cut again, move the plot, stand it loose, or allow it to be cut.',
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

/** A seam through a plot where it may not be cut; its place is null where it runs slantwise. */
function seamElsewhere(plot: Plot, under: readonly Module[]): { place: Plot['cutAt'][number] | null } | null {
  const bounds = plotBounds(plot);
  for (const across of ['x', 'y'] as const)
    for (const module of under) {
      const from = module[across] - bounds[across];
      const inside = from > 0 && from < (across === 'x' ? bounds.w : bounds.d);
      if (inside && !mayCutAt(plot, across, module[across]))
        return { place: seamPlaceOf(plot, across, module[across]) };
    }
  return null;
}

function seamBetween(a: Module, b: Module): { x: number; y: number } | null {
  const near = intersection({ x: a.x - 0.5, y: a.y - 0.5, w: a.w + 1, d: a.d + 1 }, b);
  return near ? centreOf(near) : null;
}

const modulePassage: Rule = {
  id: 'module-passage',
  title: 'A module does not pass the way in',
  basis:
    'The module (8 mm a stud less 0.2 mm of play, as tall as its tallest stud with what is fixed to it: loose buildings, parts that lift off and trees are taken off first) is carried upright and level, either way round, through each passage of the Survey; how each kind of passage is judged stands there.',
  page: 'cut',
  severity: 'error',
  check({ scene, relief, modules }) {
    const way = wayOf(scene);
    return modules().flatMap(({ id, name, tall }): FindingDraft[] => {
      const module = scene.module[id];
      const box = {
        short: outerSize(Math.min(module.w, module.d)) / MM,
        long: outerSize(Math.max(module.w, module.d)) / MM,
        height: tall,
      };
      for (const passage of passagesFor(way, box).sort((a, b) => widestOf(a) - widestOf(b))) {
        const judged = evaluatePassage(passage, box);
        if (judged.passes) continue;
        const { by, has, limit } = judged;
        const measure = { width: 'across its narrow side', height: 'tall', length: 'long' }[by];
        return [
          {
            sentence: `Module ${name} is ${formatMm(has * MM)} ${measure}; the ${passage.name} lets ${formatMm(limit * MM)} through${by === 'length' ? ' at its width' : ''}.`,
            remedy:
              by === 'width'
                ? `Make it at most ${studsWithin(limit * MM)} studs on one side, or carry it another way.`
                : by === 'length'
                  ? `Make it at most ${studsWithin(limit * MM)} studs long, or narrower, or carry it another way.`
                  : heightRemedy(scene, relief, module, box, passage, limit),
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

/** A tried remedy for a module that is too tall for a passage. */
function heightRemedy(
  scene: Scene,
  relief: Relief,
  module: Module,
  box: Box,
  passage: Passage,
  limit: number,
): string {
  const { top } = loadsOf(scene, relief);
  const tall = new Set<string>();
  let left = 0;
  eachStudOf(relief, module, (i) => {
    if (top[i] * MM_PER_PLATE <= limit) left = Math.max(left, top[i]);
    else {
      const owner = ownerAt(relief, i);
      if (owner?.kind === 'plot' && fixedHeight(scene.plot[owner.id]) > 0) tall.add(owner.id);
      left = Math.max(left, owner?.kind === 'plot' ? relief.surface[i] : top[i]);
    }
  });
  const plots = [...tall].map((id) => scene.plot[id]);
  const names = plots.map(({ name }) => `“${name}”`).join(', ');
  const rest = formatMm(Math.round(left * MM_PER_PLATE * MM));
  if (plots.length === 0 || !evaluatePassage(passage, { ...box, height: left * MM_PER_PLATE }).passes)
    return 'Lower its ground, carry it another way, or build that height at the place.';
  const boxOf = (plot: Plot, height: number): Box => ({
    short: outerSize(Math.min(plot.w, plot.d)) / MM,
    long: outerSize(Math.max(plot.w, plot.d)) / MM,
    height,
  });
  if (plots.every((plot) => evaluatePassage(passage, boxOf(plot, fixedHeight(plot) * MM_PER_PLATE)).passes))
    return `Let ${names} lift off (mount: loose): then the module is ${rest} tall and passes, and so does what is lifted off.`;
  const most = Math.floor(limit / MM_PER_PLATE);
  if (most > 0 && plots.every((plot) => evaluatePassage(passage, boxOf(plot, most * MM_PER_PLATE)).passes)) {
    const pieces = Math.max(...plots.map((plot) => Math.ceil(fixedHeight(plot) / most)));
    return `Let ${names} lift off in ${pieces} pieces of at most ${formatPlates(most)} each: then the module is ${rest} tall, and all of it passes.`;
  }
  return 'Carry it another way, or build that height at the place: what would be lifted off does not pass either.';
}

function eachStudOf(relief: Relief, area: Module, visit: (i: number) => void): void {
  for (let y = area.y; y < area.y + area.d; y++)
    for (let x = area.x; x < area.x + area.w; x++) {
      const i = indexAt(relief, x, y);
      if (i >= 0 && relief.ground[i] !== OUTSIDE) visit(i);
    }
}

const loosePassage: Rule = {
  id: 'loose-passage',
  title: 'What is carried by itself does not pass the way in',
  basis:
    'Loose buildings, parts and decks that lift off, and what lies over seams, are carried by themselves, upright and level, with what is pinned to them: outer size on the plan and own height, through each passage of the Survey.',
  page: 'cut',
  severity: 'error',
  check({ scene, carried }) {
    const way = wayOf(scene);
    return carried().flatMap((piece): FindingDraft[] => {
      if (piece.kind === 'module') return [];
      const box = { short: Math.min(piece.w, piece.d), long: Math.max(piece.w, piece.d), height: piece.h };
      for (const passage of passagesFor(way, box).sort((a, b) => widestOf(a) - widestOf(b))) {
        const judged = evaluatePassage(passage, box);
        if (judged.passes) continue;
        const { by, has, limit } = judged;
        const measure = { width: 'across its narrow side', height: 'tall', length: 'long' }[by];
        const whose = piece.part === null ? '' : ` of “${labelOf(scene, piece.ref.kind, piece.ref.id)}”`;
        return [
          {
            sentence: `“${piece.name}”${whose}, carried by itself, is ${formatMm(Math.round(has * MM))} ${measure}; the ${passage.name} lets ${formatMm(Math.round(limit * MM))} through.`,
            remedy:
              by === 'height'
                ? `Part it into pieces of at most ${formatPlates(Math.floor(limit / MM_PER_PLATE))}.`
                : 'Part it, or carry it another way.',
            place: centreOf(piece.area),
            part: piece.part === null ? 'whole' : `part ${piece.part}`,
            things: [piece.ref, { kind: 'passage', id: passage.id }],
            numbers: { [by]: has, passage: limit },
          },
        ];
      }
      return [];
    });
  },
};

const moduleSize: Rule = {
  id: 'module-size',
  title: 'A module is larger than agreed',
  basis: 'The module’s size in studs, either way round, against the Brief’s largest module.',
  page: 'cut',
  severity: 'warning',
  check({ scene }) {
    const { moduleMaxW, moduleMaxD } = displayOf(scene);
    return listOf(scene, 'module').flatMap(({ id, name, ...module }): FindingDraft[] => {
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
      place ??= studMiddle(relief, i);
    }
    // A rim that is to be left bare is in no module, and is not missing.
    if (displayOf(scene).rim === 'bare' && bare <= (baseGroundOf(scene)?.rim ?? 0)) bare = 0;
    if (bare + twice + astray === 0) return [];
    const parts = [
      bare > 0 && `${countOf(bare, 'stud')} in no module`,
      twice > 0 && `${countOf(twice, 'stud')} in two`,
      astray > 0 && `${countOf(astray, 'module stud')} outside the footprint`,
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
        sentence: `The modules need ${countOf(needed, 'base')} of ${w}×${d} and ${owned} are owned: ${short} short${cost > 0 ? `, about ${formatSum(cost)} ${currency}` : ''}.`,
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
    return levels.slice(1).flatMap((level, i): FindingDraft[] => {
      const below = levels[i];
      const rise = level.height - below.height;
      if (rise % step === 0) return [];
      return [
        {
          sentence: `“${level.name}” lies ${formatPlates(rise)} (${formatMm((rise * BRICK) / 3)}) above “${below.name}”; the agreed step is ${formatPlates(step)}.`,
          remedy: `Set “${level.name}” to ${formatPlates(below.height + Math.max(1, Math.round(rise / step)) * step)}.`,
          place: null,
          things: [{ kind: 'level', id: level.id }],
          numbers: { rise, step },
        },
      ];
    });
  },
};

export const BUILDING_RULES: readonly Rule[] = [
  plotUneven,
  plotOverSeam,
  modulePassage,
  loosePassage,
  moduleSize,
  modulesCover,
  basesShort,
  levelSteps,
];
