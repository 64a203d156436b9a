import { listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { visible, type Picture } from '../ink.ts';
import type { BoardKind } from './kind.ts';

export const pictureBoard: BoardKind = {
  // A faded picture lies over the tints of the ground, so that it can be drawn after.
  drawings: [{ rank: 10, draw: drawPictures }],
  layer: 'pictures',
  picked: 190,
  boxed: true,
  fields: [
    field.text('name', 'Name'),
    ...field.area(0.5),
    field.number('shows', 'Shows', 5, 100, { whole: true, unit: '%' }),
  ],
};

function drawPictures(ctx: CanvasRenderingContext2D, picture: Picture): void {
  for (const entry of listOf(picture.scene, 'picture')) {
    const image = picture.images.get(entry.id);
    const on = visible(picture, entry);
    if (!image || !on) continue;
    ctx.globalAlpha = entry.shows / 100;
    ctx.imageSmoothingEnabled = true;
    ctx.drawImage(image, on.x, on.y, on.w, on.d);
    ctx.globalAlpha = 1;
  }
}
