import { listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import type { Picture } from '../ink.ts';
import { LABEL_RANKS, besideSpots, textLabel, type BoardLabel } from '../labels.ts';
import { toScreen } from '../viewport.ts';
import type { BoardKind } from './kind.ts';

export const noteBoard: BoardKind = {
  drawings: [{ rank: 94, draw: drawNotes }],
  labels: (picture) => noteLabels(picture),
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
  }
}

/** The heading beside its slip. */
function noteLabels(picture: Picture): BoardLabel[] {
  const { palette, scene, view } = picture;
  if (view.scale <= 2.5) return [];
  return listOf(scene, 'note').map((note) =>
    textLabel(picture, LABEL_RANKS.note, note.name, besideSpots(picture, note, note.name), {
      ink: palette.tarn,
    }),
  );
}
