import { NEEDED, type Kind } from '@quarry/core/document';
import { WIRE_CHOICES, deviceBoard } from '../../board/kinds/device.ts';
import { supplyBoard } from '../../board/kinds/supply.ts';
import { field, type FieldSpec } from '../../ui/fieldSpec.ts';

/** The fields of what is loaded and of what it is loaded in. */
export const LOAD_FIELDS: Partial<Record<Kind, readonly FieldSpec[]>> = {
  crate: [
    field.text('name', 'Name'),
    field.number('count', 'How many', 1, 500, { whole: true }),
    field.mm('insideW', 'Inside, width', 1),
    field.mm('insideD', 'Inside, depth', 1),
    field.mm('insideH', 'Inside, height', 1),
    field.mm('wall', 'Wall, floor and lid', 0, 200),
    field.mm('padding', 'Padding about each thing', 0, 500),
    field.number('maxKg', 'May hold', 0.1, 2000, { unit: 'kg', optional: 'no limit' }),
    field.number('ownKg', 'Its own mass', 0, 500, { unit: 'kg' }),
    field.number('bearsKg', 'Bears on its lid', 0, 2000, { unit: 'kg' }),
    field.check('wheels', 'On wheels'),
  ],
  cargo: [
    field.text('name', 'Name'),
    field.number('count', 'How many', 1, 60, { whole: true }),
    field.mm('w', 'Width', 1),
    field.mm('d', 'Depth', 1),
    field.mm('h', 'Height as it travels', 1),
    field.number('kg', 'Mass of one', 0, 1000, { unit: 'kg' }),
    field.number('bearsKg', 'Bears on top', 0, 2000, { unit: 'kg' }),
    field.choice('needed', 'Needed', NEEDED, {
      first: 'Before the modules',
      with: 'With what stands on them',
      last: 'Last of all',
    }),
  ],
  circuit: [
    field.text('name', 'Name'),
    { as: 'choice', key: 'wire', label: 'Wire', whole: true, options: WIRE_CHOICES },
    field.number('slack', 'Cut longer by', 0, 200, { unit: '%' }),
    field.number('maxDrop', 'Voltage may fall by', 1, 50, { unit: '%' }),
    field.check('essential', 'Stays on when something is turned off'),
  ],
  supply: supplyBoard.fields,
  device: deviceBoard.fields,
  passage: [
    field.mm('width', 'Door, width', 1),
    field.mm('height', 'Door, height', 1),
    field.mm('insideW', 'Inside, width', 1),
    field.mm('insideD', 'Inside, length', 1),
    field.mm('insideH', 'Inside, height', 1),
    field.number('maxKg', 'May be loaded with', 1, 40_000, { unit: 'kg', optional: 'not known' }),
    field.number('trips', 'Trips', 1, 20, { whole: true }),
    field.mm('archW', 'Wheel arches, width of each', 0),
    field.mm('archFrom', 'Wheel arches, from the door', 0, 40_000, hasArches),
    field.mm('archD', 'Wheel arches, length', 0, 40_000, hasArches),
    field.mm('archH', 'Wheel arches, height', 0, 40_000, hasArches),
  ],
};

function hasArches({ archW }: Readonly<Record<string, unknown>>): boolean {
  return typeof archW === 'number' && archW > 0;
}
