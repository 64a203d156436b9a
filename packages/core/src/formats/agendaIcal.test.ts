import ICAL from 'ical.js';
import { sceneFrom } from '../document/index.ts';
import { writeAgenda } from './agendaIcal.ts';

/** Read back by a general reader (ical.js): what RFC 5545 says of each event. */
const read = (text: string) =>
  new ICAL.Component(ICAL.parse(text))
    .getAllSubcomponents('vevent')
    .map((component) => new ICAL.Event(component));

const scene = sceneFrom({
  display: { name: 'Skarn; Edge, north', kind: 'city', showDate: '2026-11-07', showName: 'Fair' },
  people: [
    { id: 'ada', name: 'Ada', initials: 'A' },
    { id: 'bo', name: 'Bo', initials: 'B' },
  ],
  sections: [
    { id: 'a', letter: 'A', name: 'A', x: 0, y: 0, w: 8, d: 8, owner: 'ada', partsBy: '2026-10-30' },
    { id: 'b', letter: 'B', name: 'B', x: 8, y: 0, w: 8, d: 8, owner: 'bo', partsBy: '2026-10-29' },
  ],
  calendars: [
    {
      ...{ id: 'c', person: 'ada', weekly: [0, 0, 0, 0, 0, 2.5, 0], from: '19:00', zone: 'Europe/Oslo' },
      away: [{ from: '2026-11-01', to: '2026-11-30' }],
    },
    { id: 'd', person: 'bo', weekly: [3, 3, 3, 3, 3, 3, 3] },
  ],
});
const agenda = (person: string | null, stamp = 0) =>
  writeAgenda(scene, person, { id: 'd1', from: '2026-10-19', to: '2026-11-30', stamp });

test('one’s own sittings by the clock of one’s town, before and after summer time ends; days as days', () => {
  const events = read(agenda('ada')).map(({ summary, startDate, endDate, description }) => [
    ...[summary, startDate.toString(), startDate.isDate ? null : endDate.toString(), description],
  ]);
  expect(events).toEqual([
    ['Skarn; Edge, north: at the table', '2026-10-24T17:00:00Z', '2026-10-24T19:30:00Z', 'Sections A'],
    ['Skarn; Edge, north: at the table', '2026-10-31T18:00:00Z', '2026-10-31T20:30:00Z', 'Sections A'],
    ['Parts wanted: Parts of section A wanted', '2026-10-30', null, null],
    ['Show: Fair', '2026-11-07', null, null],
  ]);
});
test('the same events keep their names, so that a later file replaces an earlier one; nobody’s has days only', () => {
  const uids = (text: string) => read(text).map(({ uid }) => uid);
  expect(uids(agenda('ada', 1e12))).toEqual(uids(agenda('ada')));
  expect(new Set(uids(agenda('bo'))).size).toBe(uids(agenda('bo')).length);
  expect(read(agenda(null)).map(({ summary }) => summary)).toEqual(['Show: Fair']);
});
