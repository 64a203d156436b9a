import { listOf, type Entity } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import type { Picture } from '../ink.ts';
import { LABEL_RANKS, besideSpots, textLabel, type BoardLabel } from '../labels.ts';
import { toScreen } from '../viewport.ts';
import type { BoardKind } from './kind.ts';

export const photoSpotBoard: BoardKind = {
  drawings: [
    {
      rank: 91,
      draw: (ctx, picture) => {
        for (const spot of listOf(picture.scene, 'photoSpot')) drawSpot(ctx, picture, spot);
      },
    },
  ],
  labels: (picture) => spotLabels(picture),
  layer: 'signs',
  picked: 27,
  boxed: true,
  tool: {
    draws: 'spot',
    key: '6',
    more: true,
    make: (_scene, at, name) => ({ words: 'a photo spot', data: { name: name('Photo spot'), ...at } }),
  },
  fields: [
    field.text('name', 'Name'),
    ...field.spot(),
    {
      as: 'number',
      key: 'bearing',
      label: 'Looking, clockwise from north',
      min: 0,
      max: 359,
      whole: true,
      unit: '°',
    },
    {
      as: 'length',
      measure: 'mm',
      key: 'eye',
      label: 'Camera over the floor',
      min: 1,
      max: 10_000,
      optional: 'an adult’s',
    },
  ],
};

/** Length of the two rays of what it sees, px, and half the angle between them, radians. */
const RAY = 22;
const HALF = 0.42;

function drawSpot(
  ctx: CanvasRenderingContext2D,
  { palette, view }: Picture,
  { x, y, bearing }: Entity<'photoSpot'>,
): void {
  const at = toScreen(view, x, y);
  ctx.save();
  ctx.translate(at.x, at.y);
  ctx.rotate((bearing * Math.PI) / 180);
  ctx.strokeStyle = palette.tarn;
  ctx.lineWidth = 1.4;
  ctx.beginPath();
  for (const side of [-1, 1]) {
    ctx.moveTo(0, 0);
    ctx.lineTo(side * RAY * Math.sin(HALF), -RAY * Math.cos(HALF));
  }
  ctx.stroke();
  ctx.fillStyle = palette.sheet;
  ctx.fillRect(-5, -3.5, 10, 7);
  ctx.strokeRect(-5, -3.5, 10, 7);
  ctx.restore();
}

const spotLabels = (picture: Picture): BoardLabel[] =>
  listOf(picture.scene, 'photoSpot').map((spot) =>
    textLabel(picture, LABEL_RANKS.note, spot.name, besideSpots(picture, spot, spot.name), {
      ink: picture.palette.tarn,
    }),
  );
