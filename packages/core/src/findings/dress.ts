import { centreOf, intersection, countOf } from '../grid/index.ts';
import {
  indexAt,
  influenceOf,
  leavesOf,
  membersOf,
  ownerAt,
  seamDistance,
  usualLeaf,
} from '../terrain/index.ts';
import { colourName } from '../catalogue/index.ts';
import { WINDS, WIND_WORDS, displayOf, labelOf, listOf, daysBetween, monthWord } from '../document/index.ts';
import { type FindingDraft, type Rule } from './finding.ts';

// What is judged of what dresses the ground: flags, seasons, repeats, and signs left for later.

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
  markerOpen,
  reservedBuilt,
];
