import { DEVICE_USES, WIRES, listOf, type Entity } from '@quarry/core/document';
import { field, type ChoiceContext } from '../../ui/fieldSpec.ts';
import { ofLevel } from '../drawSlabs.ts';
import type { Picture } from '../ink.ts';
import { toScreen } from '../viewport.ts';
import type { BoardKind } from './kind.ts';

export const deviceBoard: BoardKind = {
  drawings: [
    {
      rank: 72,
      draw: (ctx, picture) => {
        for (const device of ofLevel(picture, listOf(picture.scene, 'device')))
          drawDevice(ctx, picture, device);
      },
    },
  ],
  layer: 'power',
  picked: 24,
  boxed: true,
  tool: {
    draws: 'spot',
    key: '4',
    more: true,
    make: (_scene, at, name) => ({ words: 'a light', data: { name: name('Light'), ...at } }),
  },
  fields: [
    field.text('name', 'Name'),
    field.choice('use', 'Kind', DEVICE_USES),
    ...field.spot(),
    field.plates('height', 'Over what it stands on', 0),
    field.plates('below', 'Set into it by', 0, 60),
    field.number('count', 'How many here', 1, 500, { whole: true }),
    field.number('volts', 'Made for', 0.5, 50, { unit: 'V' }),
    field.number('milliamps', 'One takes', 0, 20_000, { unit: 'mA' }),
    field.text('plug', 'Plug on its lead'),
    { as: 'choice', key: 'circuit', label: 'On circuit', optional: 'none yet', options: circuitsOf },
    {
      as: 'length',
      measure: 'mm',
      key: 'leadMm',
      label: 'Own lead',
      min: 1,
      max: 40_000,
      optional: 'by height',
    },
  ],
};

/** The circuits of a display, to choose one. */
function circuitsOf({ scene }: ChoiceContext) {
  return listOf(scene, 'circuit').map(({ id, name }) => ({ value: id, word: name }));
}

/** Copper of wires, to choose one. */
export const WIRE_CHOICES = WIRES.map((wire) => ({ value: String(wire), word: `2 × ${wire} mm²` }));

/** A light as a ring with rays, a motor as a ring with a bar, a controller as a square. */
function drawDevice(
  ctx: CanvasRenderingContext2D,
  { palette, view }: Picture,
  { x: atX, y: atY, use, circuit }: Entity<'device'>,
): void {
  const { x, y } = toScreen(view, atX, atY);
  ctx.save();
  ctx.translate(x, y);
  ctx.lineWidth = 1.2;
  ctx.strokeStyle = palette.ink;
  ctx.fillStyle = circuit === null ? palette.sheet : palette.iron;
  ctx.beginPath();
  if (use === 'controller') ctx.rect(-4, -4, 8, 8);
  else ctx.arc(0, 0, use === 'light' ? 3 : 4.5, 0, Math.PI * 2);
  ctx.fill();
  ctx.stroke();
  ctx.beginPath();
  if (use === 'light')
    for (let i = 0; i < 8; i++) {
      const [u, v] = [Math.cos((i * Math.PI) / 4), Math.sin((i * Math.PI) / 4)];
      ctx.moveTo(u * 5, v * 5);
      ctx.lineTo(u * 7, v * 7);
    }
  else if (use === 'motor') {
    ctx.moveTo(-7, 0);
    ctx.lineTo(7, 0);
  }
  ctx.stroke();
  ctx.restore();
}
