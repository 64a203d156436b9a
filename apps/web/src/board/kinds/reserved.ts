import { listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { SANS, halo, hatch, visible, wrap, type Picture } from '../ink.ts';
import type { BoardKind } from './kind.ts';

export const reservedBoard: BoardKind = {
  drawings: [{ rank: 90, draw: drawReserved }],
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
  for (const { name, ...place } of listOf(picture.scene, 'reserved')) {
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
    if (on.w < 40 || on.d < 16) continue;
    ctx.font = `500 11px ${SANS}`;
    ctx.textAlign = 'center';
    ctx.textBaseline = 'middle';
    wrap(ctx, name, on.w - 8, Math.trunc(on.d / 13)).forEach((line, i) =>
      halo(ctx, line, on.x + on.w / 2, on.y + on.d / 2 + i * 13, palette.ochre, palette.sheet),
    );
  }
}
