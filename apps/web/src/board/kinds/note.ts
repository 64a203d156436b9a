import { listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import type { Picture } from '../ink.ts';
import { LABEL_RANKS, textLabel, type BoardLabel } from '../labels.ts';
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

/** The heading beside its slip: on the other side where it would run off the scene. */
function noteLabels(picture: Picture): BoardLabel[] {
  const { palette, scene, view, art } = picture;
  if (view.scale <= 2.5) return [];
  const east = art ? toScreen(view, art.relief.x + art.relief.w, 0).x : Infinity;
  return listOf(scene, 'note').map((note) => {
    const { x, y } = toScreen(view, note.x, note.y);
    const half = LETTER * note.name.length;
    const spots = [
      { x: x + 10 + half, y },
      { x: x - 10 - half, y },
      { x, y: y + 16 },
      { x, y: y - 16 },
    ];
    return textLabel(
      picture,
      LABEL_RANKS.note,
      note.name,
      x + 14 + 2 * half > east ? [spots[1], spots[0], ...spots.slice(2)] : spots,
      { ink: palette.tarn },
    );
  });
}
/** Half the usual width of a letter, px. */
const LETTER = 3;
