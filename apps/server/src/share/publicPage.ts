import { writePagePlan } from '@quarry/core/formats';
import { publicProgress, publicScene } from '@quarry/core/history';
import type { PublicPage } from '@quarry/protocol/share';
import { compileRelief } from '@quarry/core/terrain';
import { displayOf, listOf, type Scene } from '@quarry/core/document';

/** Height of the names on the plan, mm of the drawing. */
const TEXT_MM = 19;
/** The most reports and photos a page shows, the newest first. */
const MAX_REPORTS = 12;
const MAX_PHOTOS = 24;

/** The page of a display for the public. @param at when it last changed @param names whether people are named */
export function publicPage(scene: Scene, at: number, names: boolean): PublicPage {
  const seen = publicScene(scene);
  const { name, kind, ratio, showName, showDate } = displayOf(seen);
  return {
    ...{ name, kind, ratio, showName, showDate, at },
    ...publicProgress(scene, names),
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
