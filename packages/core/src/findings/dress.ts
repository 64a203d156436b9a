import { PLATES_PER_BRICK, centreOf, formatPlates, intersection, countOf } from '../grid/index.ts';
import {
  LEAST_PIER,
  indexAt,
  influenceOf,
  leavesOf,
  membersOf,
  ownerAt,
  seamDistance,
  straightLengths,
  straightsOf,
  usualLeaf,
} from '../terrain/index.ts';
import { colourName, partName } from '../catalogue/index.ts';
import {
  WINDS,
  WIND_WORDS,
  archOf,
  displayOf,
  labelOf,
  listOf,
  daysBetween,
  monthWord,
} from '../document/index.ts';
import { type FindingDraft, type Rule } from './finding.ts';

// What is judged of what dresses the ground: flags, seasons, repeats, walls, and signs left for later.

const flagWind: Rule = {
  id: 'flag-wind',
  title: 'A flag flies against the wind',
  basis:
    'Each flag’s direction against the house rules’ wind: it blows one way over the whole display, and flags point where it goes.',
  page: 'plan',
  severity: 'warning',
  check({ scene }) {
    const { wind } = displayOf(scene);
    if (wind === null) return [];
    const downwind = WINDS[(WINDS.indexOf(wind) + 4) % 8];
    return listOf(scene, 'flag')
      .filter(({ heading }) => heading !== downwind)
      .map(({ id, name, heading, x, y }) => ({
        sentence: `“${name}” points ${WIND_WORDS[heading]}; in the agreed wind from the ${WIND_WORDS[wind]} flags point ${WIND_WORDS[downwind]}.`,
        remedy: `Turn it to point ${WIND_WORDS[downwind]}.`,
        place: { x, y },
        things: [{ kind: 'flag' as const, id }],
        numbers: { heading: WINDS.indexOf(heading), wind: WINDS.indexOf(wind) },
      }));
  },
};

const leavesUnwritten: Rule = {
  id: 'leaves-unwritten',
  title: 'Leaves by month have no month',
  basis:
    'Where trees or plants have leaves by month: the month of the house rules, and the colours written for it. Without either they count in the usual colour of the season.',
  page: 'stockpile',
  severity: 'note',
  check({ scene }) {
    const { month, leaves } = displayOf(scene);
    const { count } = leavesOf(scene).byMonth;
    if (count === 0 || leaves.some((one) => one.month === month)) return [];
    const name = monthWord(month);
    return [
      {
        sentence: `${countOf(count, 'plant')} ${count === 1 ? 'has' : 'have'} leaves by month; ${
          name === null ? 'the house rules name no month' : `no colours are written for ${name}`
        }, so that ${count === 1 ? 'it counts' : 'all count'} as ${colourName(usualLeaf(scene))}.`,
        remedy:
          name === null
            ? 'Choose the month that the display shows, on Brief, Rules.'
            : `Write the colours of ${name}, on Stockpile, Colours.`,
        place: null,
        things: [],
        numbers: { plants: count, month: month ?? 0 },
      },
    ];
  },
};

const plantSeason: Rule = {
  id: 'plant-season',
  title: 'Leaves of another season',
  basis:
    'The season of each tree and of each plant in a mix against the season of the house rules; plants of any season, and those that follow the month, agree with all.',
  page: 'plan',
  severity: 'warning',
  check({ scene }) {
    const { season } = displayOf(scene);
    if (season === null) return [];
    const clashes = (own: string) => own !== 'any' && own !== 'month' && own !== season;
    const listed = (
      kind: 'tree' | 'planting',
      id: string,
      what: string,
      own: string,
      place: { x: number; y: number },
    ): FindingDraft => ({
      sentence: `${what} shows ${own}; the display’s season is ${season}.`,
      remedy: 'Choose leaves of the season, before they are bought.',
      place,
      things: [{ kind, id }],
      numbers: { season: SEASON_NUMBERS.indexOf(own) },
    });
    return [
      ...listOf(scene, 'tree')
        .filter((tree) => clashes(tree.season))
        .map(({ id, name, season: own, x, y }) => listed('tree', id, `“${name}”`, own, { x, y })),
      ...listOf(scene, 'planting').flatMap((planting): FindingDraft[] => {
        const other = planting.mix.find((plant) => clashes(plant.season) && plant.share > 0);
        return other
          ? [
              listed(
                'planting',
                planting.id,
                `${other.name} in “${planting.name}”`,
                other.season,
                centreOf(planting),
              ),
            ]
          : [];
      }),
    ];
  },
};
const SEASON_NUMBERS = ['spring', 'summer', 'autumn', 'winter'];

const repeatSeam: Rule = {
  id: 'repeat-seam',
  title: 'A repeat straddles a seam',
  basis: 'Members of a repeat whose middle is nearer to a seam than half their length.',
  page: 'cut',
  severity: 'warning',
  check({ scene }) {
    const modules = listOf(scene, 'module');
    return listOf(scene, 'repeat').flatMap((repeat): FindingDraft[] => {
      const across = membersOf(repeat, modules).members.filter(
        (member) => seamDistance(member, modules) < repeat.length / 2 - 1e-9,
      );
      if (across.length === 0) return [];
      return [
        {
          sentence: `${countOf(across.length, 'member')} of “${repeat.name}” would be cut by a seam; 0 should.`,
          remedy: 'Keep them off seams by a stud or more, or divide by the base.',
          place: { x: across[0].x, y: across[0].y },
          things: [{ kind: 'repeat', id: repeat.id }],
          numbers: { members: across.length },
        },
      ];
    });
  },
};

/** Longest stretch without a tie, studs (common practice: each 8 to 10); lower walls stand by themselves. */
const TIE_EACH = 10;
const TIE_FROM = 6 * PLATES_PER_BRICK;

const spanTies: Rule = {
  id: 'span-ties',
  title: 'A long high wall without ties',
  basis: `Straight stretches of walls at least ${formatPlates(TIE_FROM)} high and one stud thick: a rigid tie each ${TIE_EACH} studs (common practice, 8 to 10), corners counting as one.`,
  page: 'plan',
  severity: 'note',
  check: ({ scene }) =>
    listOf(scene, 'run').flatMap((run): FindingDraft[] => {
      if (run.use !== 'wall' || run.height < TIE_FROM || run.thick > 1) return [];
      let ties = 0;
      let longest = 0;
      let at = run.points[0];
      for (let i = 1; i < run.points.length; i++) {
        const [a, b] = [run.points[i - 1], run.points[i]];
        const length = Math.hypot(b.x - a.x, b.y - a.y);
        ties += Math.max(0, Math.ceil(length / TIE_EACH - 1e-9) - 1);
        if (length <= longest) continue;
        longest = length;
        at = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
      }
      if (ties === 0) return [];
      return [
        {
          sentence: `“${run.name}”, ${formatPlates(run.height)} high and ${run.thick} stud thick, runs ${longest.toFixed(0)} studs straight; it needs ${countOf(ties, 'tie')}, one each ${TIE_EACH} studs.`,
          remedy: 'Plan buttresses or ties into the ground behind, or build it thicker.',
          place: { x: at.x, y: at.y },
          things: [{ kind: 'run', id: run.id }],
          numbers: { ties, longest },
        },
      ];
    }),
};

const wallArches: Rule = {
  id: 'wall-arches',
  title: 'Arches of a wall find no room',
  basis: `A wall with arches at its face against their own height over piers of at least ${formatPlates(LEAST_PIER)}, and each straight piece or panel of it against the width of one arch. Where they find no room it is laid plain.`,
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'run').flatMap((run): FindingDraft[] => {
      const arch = archOf(run);
      const middle = run.points[Math.floor(run.points.length / 2)];
      const asked = { place: { x: middle.x, y: middle.y }, things: [{ kind: 'run' as const, id: run.id }] };
      if (!arch)
        return run.use === 'wall' && run.arches !== null
          ? [
              {
                ...asked,
                sentence: `“${run.name}” is to have arches at its face, and ${partName(run.arches)} is no arch; it is laid plain.`,
                remedy: 'Choose an arch.',
                numbers: {},
              },
            ]
          : [];
      const least = arch.high + LEAST_PIER;
      if (run.height < least)
        return [
          {
            ...asked,
            sentence: `“${run.name}” is ${formatPlates(run.height)} high; its arches, ${partName(arch.part)}, need ${formatPlates(least)} with their piers. It is laid plain.`,
            remedy: 'Build it higher, or choose lower arches.',
            numbers: { least, height: run.height },
          },
        ];
      const short = straightLengths(run)
        .flatMap((length) => straightsOf(run, length).map(({ from, to }) => to - from))
        .filter((length) => length < arch.span);
      if (short.length === 0) return [];
      return [
        {
          ...asked,
          sentence: `${countOf(short.length, 'straight piece')} of “${run.name}” ${short.length === 1 ? 'is' : 'are'} shorter than one of its arches, ${countOf(arch.span, 'stud')} wide, the shortest ${short.reduce((a, b) => Math.min(a, b)).toFixed(1)} studs; ${short.length === 1 ? 'it is' : 'they are'} laid plain.`,
          remedy: 'Choose narrower arches, or longer panels.',
          numbers: { short: short.length, span: arch.span },
        },
      ];
    }),
};

/** Markers should be decided this long before the show, weeks. */
const DECIDE_WEEKS = 6;

const markerOpen: Rule = {
  id: 'marker-open',
  title: 'Something is still to be decided',
  basis: `Open markers when the show is at most ${DECIDE_WEEKS} weeks away: what is decided later can hardly be ordered and built.`,
  page: 'plan',
  severity: 'warning',
  check({ scene, today }) {
    const { showDate } = displayOf(scene);
    if (!showDate || today === null) return [];
    const weeks = daysBetween(today, showDate) / 7;
    if (weeks > DECIDE_WEEKS || weeks < 0) return [];
    return listOf(scene, 'marker')
      .filter(({ state }) => state === 'open')
      .map((marker) => ({
        sentence: `“${marker.name}” is still to be decided ${countOf(Math.floor(weeks), 'week')} before the show; decide ${DECIDE_WEEKS} weeks before.`,
        remedy: 'Decide it and close the marker, or leave it out.',
        place: centreOf(marker),
        things: [{ kind: 'marker' as const, id: marker.id }],
        numbers: { weeks: Math.floor(weeks) },
      }));
  },
};

const reservedBuilt: Rule = {
  id: 'reserved-built',
  title: 'Reserved ground is built on',
  basis: 'Studs of reserved ground on which a building, a wall, a way or track lies.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene, relief }) =>
    listOf(scene, 'reserved').flatMap((area): FindingDraft[] => {
      const takers = (['plot', 'run', 'way', 'track'] as const).flatMap((kind) =>
        listOf(scene, kind).flatMap(({ id }) => {
          const reach = influenceOf(scene, kind, id);
          return reach && intersection(reach, area) ? [{ kind, id }] : [];
        }),
      );
      let studs = 0;
      for (let y = Math.ceil(area.y); y < area.y + area.d; y++)
        for (let x = Math.ceil(area.x); x < area.x + area.w; x++) {
          const owner = ownerAt(relief, indexAt(relief, x, y));
          if (owner && takers.some(({ kind, id }) => kind === owner.kind && id === owner.id)) studs++;
        }
      if (studs === 0) return [];
      const names = takers.map(({ kind, id }) => `“${labelOf(scene, kind, id)}”`).slice(0, 3);
      return [
        {
          sentence: `${countOf(studs, 'stud')} of the ground reserved for “${area.name}” are taken by ${names.join(', ')}.`,
          remedy: 'Move what stands there, or give the ground up.',
          place: centreOf(area),
          things: [{ kind: 'reserved', id: area.id }, ...takers],
          numbers: { studs },
        },
      ];
    }),
};

export const DRESS_RULES: readonly Rule[] = [
  flagWind,
  plantSeason,
  leavesUnwritten,
  repeatSeam,
  spanTies,
  wallArches,
  markerOpen,
  reservedBuilt,
];
