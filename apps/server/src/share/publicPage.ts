import { writePagePlan } from '@quarry/core/formats';
import { compareTotals, findsOf, publicProgress, publicScene, storyOf, totalsOf } from '@quarry/core/history';
import { CountCache } from '@quarry/core/masonry';
import { materialsOf } from '@quarry/core/materials';
import { compile, compileRelief } from '@quarry/core/terrain';
import { displayOf, listOf, sceneInVersion, type Scene } from '@quarry/core/document';
import { standingVersion } from '@quarry/core/transport';

/** Height of the names on the plan, mm of the drawing. */
const TEXT_MM = 19;
/** The most reports and photos a page shows, the newest first. */
const MAX_REPORTS = 12;
const MAX_PHOTOS = 24;

/** Blocks that were counted before are not counted again. */
const counted = new CountCache();
/** The page never waits longer for its count of pieces, ms: then it tells none. */
const MAX_COUNT_MS = 20_000;

/** Pieces without spares, of everything that is counted; null where that takes too long. */
function piecesOf(scene: Scene): number | null {
  const until = performance.now() + MAX_COUNT_MS;
  const made = materialsOf(scene, compile(scene), counted, () => performance.now() < until);
  return made && made.needs.reduce((sum, { qty }) => sum + qty, 0);
}

/** The contents of the public page: `done` are shares from 0 to 1, `plan` is an SVG text, `at` ms since the epoch. */
export type PublicPage = ReturnType<typeof publicPage>;

/**
 * The page of a display for the public, in the version that stands.
 * @param at when it last changed @param names whether people are named
 */
export function publicPage(base: Scene, at: number, names: boolean) {
  const stands = standingVersion(base);
  const scene = stands === null ? base : sceneInVersion(base, stands).scene;
  const seen = publicScene(scene);
  const { name, kind, ratio, showName, showDate } = displayOf(seen);
  return {
    ...{ name, kind, ratio, showName, showDate, at },
    ...publicProgress(scene, names),
    totals: totalsOf(scene, piecesOf(scene)),
    story: storyOf(scene),
    // Where they are is for those who look.
    finds: findsOf(scene).map(({ word, count }) => ({ word, count })),
    versions: versionsOf(base, stands),
    plan: writePagePlan(seen, compileRelief(seen), { textSize: TEXT_MM }),
    reports: listOf(scene, 'report')
      .filter(({ published }) => published)
      .sort((a, b) => b.upto - a.upto)
      .slice(0, MAX_REPORTS)
      .map((report) => ({ name: report.name, at: report.at, text: report.text })),
    // Notes are for the crew.
    photos: listOf(scene, 'photo')
      .filter(({ published }) => published)
      .sort((a, b) => (a.taken < b.taken ? 1 : -1))
      .slice(0, MAX_PHOTOS)
      .map(({ file, width, height, taken, section }) => ({
        ...{ file, width, height, taken },
        section: section === null ? null : (scene.section[section]?.name ?? null),
      })),
  };
}

/** The versions of a display, and which of its numbers are otherwise in each. */
const versionsOf = (base: Scene, stands: string | null) =>
  listOf(base, 'version').map(({ id, name }) => ({
    ...{ name, stands: id === stands },
    totals: compareTotals(base, sceneInVersion(base, id).scene)
      .filter(({ before, after }) => before !== after)
      .map(({ word, before, after }) => ({ word, base: before, count: after })),
  }));
