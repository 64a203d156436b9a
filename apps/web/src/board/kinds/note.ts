import { listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { SANS, halo, type Picture } from '../ink.ts';
import { toScreen } from '../viewport.ts';
import type { BoardKind } from './kind.ts';

export const noteBoard: BoardKind = {
  drawings: [{ rank: 94, draw: drawNotes }],
  beside: 220,
  layer: 'signs',
  picked: 20,
  boxed: true,
  tool: {
    draws: 'spot',
    key: 'u',
    more: true,
    make: (_scene, at, name) => ({ words: 'a note', data: { name: name('Note'), ...at } }),
  },
  fields: [field.text('name', 'Heading'), ...field.spot(), field.long('text', 'Note')],
};

/** A slip of paper with its heading beside it. */
function drawNotes(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, scene, view } = picture;
  ctx.textBaseline = 'middle';
  ctx.font = `500 11px ${SANS}`;
  ctx.textAlign = 'left';
  for (const note of listOf(scene, 'note')) {
    const { x, y } = toScreen(view, note.x, note.y);
    ctx.fillStyle = palette.sheet;
    ctx.strokeStyle = palette.tarn;
    ctx.lineWidth = 1.2;
    ctx.beginPath();
    ctx.moveTo(x - 6, y - 7);
    ctx.lineTo(x + 2, y - 7);
    ctx.lineTo(x + 6, y - 3);
    ctx.lineTo(x + 6, y + 7);
    ctx.lineTo(x - 6, y + 7);
    ctx.closePath();
    ctx.fill();
    ctx.stroke();
    if (view.scale <= 2.5) continue;
    // To the other side where it would run off the scene.
    const east = toScreen(view, (picture.art?.relief.x ?? 0) + (picture.art?.relief.w ?? 0), 0).x;
    const west = x + 14 + ctx.measureText(note.name).width > east;
    ctx.textAlign = west ? 'right' : 'left';
    halo(ctx, note.name, x + (west ? -10 : 10), y, palette.tarn, palette.sheet);
  }
}
