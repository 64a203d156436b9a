import { OPENING_USES, type Kind } from '@quarry/core/document';
import { lengthOf, sidesOf } from '@quarry/core/venue';
import { tableBoard } from '../../board/kinds/table.ts';
import { field, type ChoiceContext, type FieldSpec } from '../../ui/fieldSpec.ts';

/** The fields of what stands in a room. */
export const VENUE_FIELDS: Partial<Record<Kind, readonly FieldSpec[]>> = {
  table: tableBoard.fields,
  opening: [
    field.text('name', 'Name'),
    field.choice('use', 'Kind', OPENING_USES, { opening: 'Open way' }),
    { as: 'choice', key: 'wall', label: 'In wall', whole: true, options: wallsOf },
    field.mm('at', 'From its first corner', 0),
    field.mm('width', 'Clear width', 1),
    field.mm('height', 'Clear height', 1),
  ],
  obstacle: [field.text('name', 'Name'), ...field.roomArea(), field.mm('height', 'Height', 1)],
  socket: [
    field.text('name', 'Name'),
    field.mm('x', 'From west'),
    field.mm('y', 'From north'),
    field.number('outlets', 'Plugs it takes', 1, 20, { whole: true }),
  ],
  extension: [
    field.text('name', 'Name'),
    field.mm('x', 'Its outlets, from west'),
    field.mm('y', 'Its outlets, from north'),
    field.mm('leadMm', 'Lead', 1),
    field.number('outlets', 'Plugs it takes', 1, 20, { whole: true }),
  ],
  barrier: [
    field.text('name', 'Name'),
    field.mm('x1', 'One end, from west'),
    field.mm('y1', 'One end, from north'),
    field.mm('x2', 'Other end, from west'),
    field.mm('y2', 'Other end, from north'),
  ],
};

/** The walls of an opening's room by number and length. */
function wallsOf({ scene, data, say }: ChoiceContext) {
  const { place } = data;
  const walls = (typeof place === 'string' && scene.place[place]?.walls) || [];
  return sidesOf(walls).map((side, i) => ({
    value: String(i),
    word: `${i + 1}, ${say(Math.round(lengthOf(side)), 'mm')}`,
  }));
}
