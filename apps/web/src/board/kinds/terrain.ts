import { field } from '../../ui/fieldSpec.ts';
import type { BoardKind } from './kind.ts';

export const terrainBoard: BoardKind = {
  picked: 170,
  boxed: true,
  fields: [
    field.text('name', 'Name'),
    ...field.area(0.5),
    ...field.level(),
    field.plates('low', 'Lowest', -3000),
    field.plates('high', 'Highest', -3000),
    field.ground('ground', 'Ground'),
    field.long('notes', 'Notes'),
  ],
};
