import { WINDS, WIND_WORDS, displayOf, listOf, type Entity } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import type { Picture } from '../ink.ts';
import { toScreen } from '../viewport.ts';
import type { BoardKind } from './kind.ts';

export const flagBoard: BoardKind = {
  drawings: [
    {
      rank: 68,
      draw: (ctx, picture) => {
        for (const flag of listOf(picture.scene, 'flag')) drawFlag(ctx, picture, flag);
      },
    },
  ],
  layer: 'dressing',
  picked: 25,
  boxed: true,
  tool: {
    draws: 'spot',
    key: 'n',
    more: true,
    make: (scene, at, name) => {
      const { wind } = displayOf(scene);
      return {
        words: 'a flag',
        data: { name: name('Flag'), ...at, ...(wind ? { heading: downwind(wind) } : {}) },
      };
    },
  },
  fields: [
    field.text('name', 'Name'),
    ...field.spot(),
    field.choice('heading', 'Points', WINDS, WIND_WORDS),
    field.plates('height', 'Height', 1),
  ],
};

/** Where a flag points in a wind that comes from somewhere. */
const downwind = (from: (typeof WINDS)[number]) => WINDS[(WINDS.indexOf(from) + 4) % 8];

/** Eighths of a turn clockwise from east, by the compass. */
const TURNS = { e: 0, se: 1, s: 2, sw: 3, w: 4, nw: 5, n: 6, ne: 7 } as const;

function drawFlag(ctx: CanvasRenderingContext2D, { palette, view }: Picture, flag: Entity<'flag'>): void {
  const { x, y } = toScreen(view, flag.x, flag.y);
  ctx.save();
  ctx.translate(x, y);
  ctx.rotate((TURNS[flag.heading] * Math.PI) / 4);
  ctx.beginPath();
  ctx.moveTo(2, -4);
  ctx.lineTo(15, 0);
  ctx.lineTo(2, 4);
  ctx.closePath();
  ctx.fillStyle = palette.iron;
  ctx.fill();
  ctx.beginPath();
  ctx.arc(0, 0, 2.5, 0, Math.PI * 2);
  ctx.fillStyle = palette.ink;
  ctx.fill();
  ctx.restore();
}
