import { displayOf, listOf, signboardCorners, wordsOn, type Entity } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { ofLevel } from '../drawSlabs.ts';
import { inStuds, type Picture } from '../ink.ts';
import { LABEL_RANKS, besideSpots, textLabel, type BoardLabel } from '../labels.ts';
import type { BoardKind } from './kind.ts';

export const signboardBoard: BoardKind = {
  drawings: [
    {
      rank: 67,
      draw: (ctx, picture) =>
        inStuds(ctx, picture, () => {
          for (const sign of ofLevel(picture, listOf(picture.scene, 'signboard')))
            drawBoard(ctx, picture, sign);
        }),
    },
  ],
  labels: (picture) => boardLabels(picture),
  layer: 'dressing',
  picked: 26,
  boxed: true,
  tool: {
    draws: 'spot',
    key: '7',
    more: true,
    make: (scene, at, name) => {
      const [side] = displayOf(scene).viewedSides;
      return {
        words: 'a signboard',
        // It looks to those who look at it.
        data: { name: name('Signboard'), ...at, ...(side ? { facing: FACING[side] } : {}) },
      };
    },
  },
  fields: [
    field.text('name', 'Name'),
    field.text('text', 'Words on it'),
    ...field.spot(),
    field.number('facing', 'Looks, clockwise from north', 0, 359, { whole: true, unit: '°' }),
    field.studs('w', 'Width of the board', 1, 96, 1),
    field.plates('height', 'Height of the board', 1, 120),
    field.plates('up', 'Lower edge, over its foot', 0),
    field.choice('on', 'On', ['post', 'wall'], { post: 'A post of its own', wall: 'The wall behind it' }),
    field.number('letters', 'Letters, high', 0.5, 300, { unit: 'mm', optional: 'largest' }),
    field.colour('colour', 'Board in'),
    field.colour('ink', 'Letters in'),
  ],
};

const FACING = { n: 0, e: 90, s: 180, w: 270 } as const;

/** The board from above, with a stroke to where its letters look. */
function drawBoard(
  ctx: CanvasRenderingContext2D,
  { palette, view }: Picture,
  sign: Entity<'signboard'>,
): void {
  const [first, ...rest] = signboardCorners(sign);
  ctx.beginPath();
  if (first) ctx.moveTo(first.x, first.y);
  for (const { x, y } of rest) ctx.lineTo(x, y);
  ctx.closePath();
  ctx.fillStyle = palette.ink;
  ctx.fill();
  const angle = (sign.facing * Math.PI) / 180;
  const [east, south] = [Math.sin(angle), -Math.cos(angle)];
  ctx.beginPath();
  ctx.moveTo(sign.x + east / 2, sign.y + south / 2);
  ctx.lineTo(sign.x + east * 2.5, sign.y + south * 2.5);
  ctx.lineWidth = 1.4 / view.scale;
  ctx.strokeStyle = palette.iron;
  ctx.stroke();
}

const boardLabels = (picture: Picture): BoardLabel[] =>
  ofLevel(picture, listOf(picture.scene, 'signboard')).map((sign) =>
    textLabel(picture, LABEL_RANKS.note, wordsOn(sign), besideSpots(picture, sign, wordsOn(sign)), {
      ink: picture.palette.ink,
    }),
  );
