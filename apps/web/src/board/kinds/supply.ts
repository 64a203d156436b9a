import { SUPPLY_TYPES, listOf, type Entity } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { drawCables } from '../drawCables.ts';
import type { Picture } from '../ink.ts';
import { toScreen } from '../viewport.ts';
import type { BoardKind } from './kind.ts';

const isBattery = ({ type }: Readonly<Record<string, unknown>>) => type === 'battery';

export const supplyBoard: BoardKind = {
  drawings: [
    { rank: 70, draw: drawCables },
    {
      rank: 71,
      draw: (ctx, picture) => {
        for (const supply of listOf(picture.scene, 'supply')) drawSupply(ctx, picture, supply);
      },
    },
  ],
  layer: 'power',
  picked: 23,
  boxed: true,
  tool: {
    draws: 'spot',
    key: '5',
    more: true,
    make: (_scene, at, name) => ({ words: 'a power supply', data: { name: name('Supply'), ...at } }),
  },
  fields: [
    field.text('name', 'Name'),
    field.choice('type', 'Kind', SUPPLY_TYPES, {
      adapter: 'Mains adapter',
      usb: 'USB supply',
      battery: 'Battery',
    }),
    ...field.spot(),
    field.mm('belowMm', 'Below the table top', 0, 3000),
    field.number('volts', 'Gives', 0.5, 50, { unit: 'V' }),
    field.number('milliamps', 'Rated for', 1, 60_000, { unit: 'mA', optional: 'not known' }),
    field.text('plug', 'Plug at its low-voltage side'),
    field.mm('leadMm', 'Lead to its socket', 1, 40_000, (data) => !isBattery(data)),
    field.number('capacity', 'One charge', 1, 200_000, { unit: 'mAh', when: isBattery }),
    field.number('sets', 'Charged ones brought', 1, 100, { whole: true, when: isBattery }),
  ],
};

/** A plus and a minus, px from the middle: drawn, so that no letters lie under others. */
const POLES = [
  [-7, 0, -2, 0],
  [-4.5, -2.5, -4.5, 2.5],
  [2, 0, 7, 0],
] as const;

/** A box with its poles. */
function drawSupply(
  ctx: CanvasRenderingContext2D,
  { palette, view }: Picture,
  supply: Entity<'supply'>,
): void {
  const { x, y } = toScreen(view, supply.x, supply.y);
  ctx.save();
  ctx.fillStyle = palette.sheet;
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 1.4;
  ctx.beginPath();
  ctx.rect(x - 10, y - 6, 20, 12);
  ctx.fill();
  ctx.stroke();
  ctx.beginPath();
  for (const [fromX, fromY, toX, toY] of POLES) {
    ctx.moveTo(x + fromX, y + fromY);
    ctx.lineTo(x + toX, y + toY);
  }
  ctx.stroke();
  ctx.restore();
}
