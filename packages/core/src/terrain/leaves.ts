import { displayOf, listOf, type LEAF_SEASONS, type Scene } from '../document/index.ts';
import { apportion, plantsOf } from './scatter.ts';

// Which colour the leaves of each tree and plant have: by its season, or by the month that the display shows.

type LeafSeason = (typeof LEAF_SEASONS)[number];

/** Leaves of a season, as plants come (defaults of ours). */
const SEASON_COLOURS: Readonly<Record<Exclude<LeafSeason, 'month'>, string>> = {
  any: 'fern',
  spring: 'willow',
  summer: 'fern',
  autumn: 'rust',
  winter: 'bark',
};

/** Colour of the leaves of most plants. */
export const SUMMER_LEAF = SEASON_COLOURS.summer;

/** The leaves of a display. */
export interface Leaves {
  /** Colour of a tree, by its id. */
  trees: ReadonlyMap<string, string>;
  /** Colours of a planting's plants in the order of `plantsOf`, by its id. */
  plants: ReadonlyMap<string, readonly string[]>;
  /** How many trees and plants have leaves by month, and of which colours, as the mix names them. */
  byMonth: { count: number; colours: readonly { colour: string; qty: number }[] };
}

/** Colour of leaves by month where no mix is written for the month: those of the display's season. */
export const usualLeaf = (scene: Pick<Scene, 'display'>): string =>
  SEASON_COLOURS[displayOf(scene).season ?? 'any'];

/**
 * Colours of all leaves. Plants by month share the colours of the month's mix in proportion, to within one plant, and
 * each colour comes evenly among them, plantings first.
 */
export function leavesOf(scene: Pick<Scene, 'display' | 'planting' | 'tree'>): Leaves {
  const { month, leaves } = displayOf(scene);
  const plantings = listOf(scene, 'planting').map((planting) => ({
    id: planting.id,
    seasons: plantsOf(planting).map(({ kind }): LeafSeason => planting.mix[kind]?.season ?? 'any'),
  }));
  const trees = listOf(scene, 'tree');
  const count = [...plantings.flatMap(({ seasons }) => seasons), ...trees.map(({ season }) => season)].filter(
    (season) => season === 'month',
  ).length;
  const tones = leaves.find((one) => one.month === month)?.tones ?? [{ colour: usualLeaf(scene), share: 1 }];
  const parts = apportion(
    count,
    tones.map(({ share }) => share),
  );
  const order = parts
    .flatMap((qty, tone) => Array.from({ length: qty }, (_, k) => ({ tone, at: (k + 0.5) / qty })))
    .sort((a, b) => a.at - b.at || a.tone - b.tone);
  let next = 0;
  const colourOfLeaf = (season: LeafSeason): string => {
    if (season !== 'month') return SEASON_COLOURS[season];
    const tone = order[next++]?.tone ?? 0;
    return tones[tone]?.colour ?? usualLeaf(scene);
  };
  return {
    plants: new Map(plantings.map(({ id, seasons }) => [id, seasons.map(colourOfLeaf)])),
    trees: new Map(trees.map(({ id, season }) => [id, colourOfLeaf(season)])),
    byMonth: { count, colours: tones.map(({ colour }, i) => ({ colour, qty: parts[i] ?? 0 })) },
  };
}
