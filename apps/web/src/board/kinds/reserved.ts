import { listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { SANS, hatch, visible, within, wrapText, type Picture } from '../ink.ts';
import { LABEL_RANKS, type BoardLabel } from '../labels.ts';
import type { BoardKind } from './kind.ts';

export const reservedBoard: BoardKind = {
  drawings: [{ rank: 90, draw: drawReserved }],
  labels: (picture) => reservedLabels(picture),
  layer: 'signs',
  picked: 180,
  boxed: true,
  snaps: true,
  tool: {
    draws: 'area',
    key: 'q',
    more: true,
    make: (_scene, rect, name) => ({
      words: 'reserved ground',
      data: { name: name('Kept free'), ...rect },
    }),
  },
  fields: [field.text('name', 'Kept for'), ...field.area(0.5), field.long('notes', 'Notes')],
};

/** Ground kept free, hatched wide, with what it is kept for. */
function drawReserved(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette } = picture;
  for (const place of listOf(picture.scene, 'reserved')) {
    const on = visible(picture, place);
    if (!on) continue;
    ctx.strokeStyle = palette.ochre;
    ctx.lineWidth = 0.8;
    ctx.beginPath();
    hatch(ctx, on, 14);
    ctx.stroke();
    ctx.setLineDash([8, 4]);
    ctx.strokeRect(on.x, on.y, on.w, on.d);
    ctx.setLineDash([]);
  }
}

const reservedLabels = (picture: Picture): BoardLabel[] =>
  listOf(picture.scene, 'reserved').flatMap(({ name, ...place }) => {
    const on = visible(picture, place);
    if (!on || on.w < 40 || on.d < 16) return [];
    const { palette } = picture;
    const lines = wrapText(name, on.w - 8, Math.trunc(on.d / 13));
    return [
      {
        rank: LABEL_RANKS.marker,
        says: [lines.map((text) => ({ text, font: `500 11px ${SANS}`, ink: palette.ochre }))],
        spots: [{ x: on.x + on.w / 2, y: on.y + on.d / 2 }, ...within(on)],
        ground: { as: 'halo', paper: palette.sheet },
      },
    ];
  });
