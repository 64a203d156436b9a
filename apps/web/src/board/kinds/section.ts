import type { Rect } from '@quarry/core/grid';
import { listOf, type Scene } from '@quarry/core/document';
import { SANS, visible, type Picture } from '../ink.ts';
import { LABEL_RANKS, type BoardLabel } from '../labels.ts';
import { rectToScreen } from '../viewport.ts';
import type { BoardKind } from './kind.ts';

export const sectionBoard: BoardKind = {
  drawings: [{ rank: 130, draw: drawSections }],
  labels: (picture) => sectionLabels(picture),
  layer: 'sections',
  // By its mark alone: its area is that of everything in it.
  picked: 0,
  hit: (scene, id, { px, py, view }) => {
    const section = scene.section[id];
    if (!section) return false;
    const mark = sectionMark(rectToScreen(view, section));
    return Math.hypot(mark.x - px, mark.y - py) <= 11;
  },
  snaps: true,
  tool: {
    draws: 'area',
    key: 'c',
    more: true,
    planners: true,
    make: (scene, rect, name) => ({
      words: 'a section',
      data: { letter: nextLetter(scene), name: name('Section'), ...rect },
    }),
  },
};

/** The next letter that no section has: A, B, … Z, AA … */
function nextLetter(scene: Scene): string {
  const used = new Set(listOf(scene, 'section').map(({ letter }) => letter));
  const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
  return [...letters, ...letters.map((letter) => `A${letter}`)].find((letter) => !used.has(letter)) ?? '?';
}

function drawSections(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette } = picture;
  for (const section of listOf(picture.scene, 'section')) {
    const on = visible(picture, section);
    if (!on) continue;
    ctx.strokeStyle = palette.ink;
    ctx.lineWidth = 0.9;
    ctx.setLineDash([2, 3]);
    ctx.strokeRect(on.x, on.y, on.w, on.d);
    ctx.setLineDash([]);
  }
}

/** The letters of sections in rings: at their marks, which are picked there. */
const sectionLabels = (picture: Picture): BoardLabel[] =>
  listOf(picture.scene, 'section').flatMap((section) => {
    const on = visible(picture, section);
    if (!on || Math.min(on.w, on.d) < MIN_SIDE) return [];
    const { palette } = picture;
    return [
      {
        rank: LABEL_RANKS.section,
        says: [[{ text: section.letter, font: `600 11px ${SANS}`, ink: palette.ink }]],
        spots: [sectionMark(on)],
        ground: { as: 'ring', paper: palette.sheet, ink: palette.ink, radius: 10, width: 1.4 },
      },
    ];
  });
/** Sections smaller than their mark are not lettered, px. */
const MIN_SIDE = 12;

/** Where a section's letter stands on the screen: in the far corner that the module flags leave free. */
const sectionMark = (on: Rect<'px'>) => ({
  x: on.x + on.w - Math.min(18, on.w / 2),
  y: on.y + Math.min(18, on.d / 2),
});
