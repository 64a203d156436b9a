import { KIND_NAMES } from '@quarry/core/document';
import { fieldFaults } from '../../../test/fieldFaults.ts';
import { VENUE_FIELDS } from './venueFields.ts';

test.each(KIND_NAMES.filter((kind) => VENUE_FIELDS[kind]))(
  'each field of a %s is one of its schema’s, its choices and limits valid',
  (kind) => expect(fieldFaults(kind, VENUE_FIELDS[kind] ?? [])).toEqual([]),
);
test('a table of fields that disagrees with its schema is found', () => {
  const faults = fieldFaults('socket', [
    { as: 'text', key: 'colour', label: 'Colour' },
    { as: 'length', measure: 'mm', key: 'x', label: 'Colour', min: 0, max: 40_001 },
  ]);
  expect(faults).toEqual(['Colour twice', 'socket has no colour', 'x does not take 40001']);
});
