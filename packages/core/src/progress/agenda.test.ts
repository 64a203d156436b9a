import fc from 'fast-check';
import { sceneFrom, nextUpdate } from '../document/index.ts';
import { burnUp, clockIn, dateIn, daysAhead, momentOf, sittings, together } from './index.ts';

const iso = (moment: number) => new Date(moment).toISOString();

describe('clocks', () => {
  // Summer time begins and ends at 01:00 UTC on the last Sundays of March and October in the European Union (directive
  // 2000/84/EC), and at 02:00 local time on the second Sunday of March and the first of November in the United States
  // (Energy Policy Act of 2005). India keeps UTC + 5:30 all year.
  test.each([
    ['2026-10-24', 'Europe/Oslo', '2026-10-24T17:00:00.000Z'],
    ['2026-10-25', 'Europe/Oslo', '2026-10-25T18:00:00.000Z'],
    ['2026-10-31', 'America/New_York', '2026-10-31T23:00:00.000Z'],
    ['2026-11-01', 'America/New_York', '2026-11-02T00:00:00.000Z'],
    ['2026-10-25', 'Asia/Kolkata', '2026-10-25T13:30:00.000Z'],
    ['2026-03-28', 'Europe/Oslo', '2026-03-28T18:00:00.000Z'],
    ['2026-03-29', 'Europe/Oslo', '2026-03-29T17:00:00.000Z'],
  ])('seven in the evening of %s in %s is %s', (date, zone, expected) => {
    const at = momentOf(date, '19:00', zone);
    expect(iso(at)).toBe(expected);
    expect([dateIn(at, zone), clockIn(at, zone)]).toEqual([date, '19:00']);
  });
  test('a time that the clock leaps over is as much later; midnight is another day elsewhere', () => {
    expect(clockIn(momentOf('2026-03-29', '02:30', 'Europe/Oslo'), 'Europe/Oslo')).toBe('03:30');
    expect(dateIn('2026-10-24T23:30:00Z', 'Europe/Oslo')).toBe('2026-10-25');
    expect(dateIn('2026-10-24T23:30:00Z', 'America/New_York')).toBe('2026-10-24');
  });
});

const person = (id: string) => ({ id, name: id, initials: id.slice(0, 2) });
const crew = (more: object = {}) =>
  sceneFrom({
    display: { name: 'P', kind: 'city', showDate: '2026-11-07', showName: 'Fair' },
    people: ['oslo', 'york', 'pune'].map(person),
    calendars: [
      // Sundays: six to ten in the evening, noon to four, and half past nine to half past midnight.
      { id: 'o', person: 'oslo', weekly: [0, 0, 0, 0, 0, 0, 4], from: '18:00', zone: 'Europe/Oslo' },
      { id: 'y', person: 'york', weekly: [0, 0, 0, 0, 0, 0, 4], from: '12:00', zone: 'America/New_York' },
      { id: 'p', person: 'pune', weekly: [0, 0, 0, 0, 0, 0, 3], from: '21:30', zone: 'Asia/Kolkata' },
    ],
    ...more,
  });

describe('a crew in three zones', () => {
  // On 18 October all keep summer time or none: Oslo is UTC + 2, New York − 4. On the 25th Oslo has left it, New York
  // has not; on 1 November New York left it too (worked by hand).
  test('meets at other hours when one of them changes its clock', () => {
    const meet = (date: string) => {
      const [best] = together(sittings(crew(), date, date));
      return [best.people, iso(best.start), iso(best.end)];
    };
    const all = ['oslo', 'pune', 'york'];
    expect(meet('2026-10-18')).toEqual([all, '2026-10-18T16:00:00.000Z', '2026-10-18T19:00:00.000Z']);
    expect(meet('2026-10-25')).toEqual([all, '2026-10-25T17:00:00.000Z', '2026-10-25T19:00:00.000Z']);
    expect(meet('2026-11-01')).toEqual([all, '2026-11-01T17:00:00.000Z', '2026-11-01T19:00:00.000Z']);
    const starts = sittings(crew(), '2026-10-18', '2026-11-01').map(
      (one) => `${one.person} ${iso(one.start).slice(5, 16)}`,
    );
    expect(starts).toEqual([
      ...['oslo 10-18T16:00', 'pune 10-18T16:00', 'york 10-18T16:00'],
      ...['pune 10-25T16:00', 'york 10-25T16:00', 'oslo 10-25T17:00'],
      ...['pune 11-01T16:00', 'oslo 11-01T17:00', 'york 11-01T17:00'],
    ]);
  });
  test('a zone nobody keeps is refused with its name', () => {
    expect(() =>
      crew({ calendars: [{ id: 'o', person: 'oslo', weekly: [0, 0, 0, 0, 0, 0, 4], zone: 'Moon/Base' }] }),
    ).toThrow('Moon/Base');
  });
  test('times together are those of counting minute by minute', () => {
    const sitting = fc.record({
      person: fc.constantFrom('a', 'b', 'c'),
      start: fc.nat(40),
      long: fc.integer({ min: 1, max: 20 }),
    });
    fc.assert(
      fc.property(fc.array(sitting, { maxLength: 7 }), (list) => {
        const all = list.map(({ person, start, long }) => ({ person, date: '', start, end: start + long }));
        const times = together(all);
        for (let at = 0; at < 60; at++) {
          const here = [
            ...new Set(all.filter((one) => one.start <= at && at < one.end).map((one) => one.person)),
          ].sort();
          const told = times.filter((one) => one.start <= at && at < one.end).map((one) => one.people);
          expect(told).toEqual(here.length >= 2 ? [here] : []);
        }
      }),
    );
  });
});

test('each day of the week has its own beginning (by hand)', () => {
  const scene = crew({
    calendars: [
      {
        id: 'c',
        person: 'york',
        weekly: [0, 3, 0, 0, 0, 5, 0],
        from: '18:00',
        starts: [null, null, null, null, null, '09:00', null],
        zone: 'America/New_York',
      },
    ],
  });
  // 20 October 2026 is a Tuesday, the 24th a Saturday; New York is four hours behind UTC then.
  expect(
    sittings(scene, '2026-10-19', '2026-10-25').map(({ start, end }) =>
      [start, end].map((moment) => new Date(moment).toISOString().slice(0, 16)),
    ),
  ).toEqual([
    ['2026-10-20T22:00', '2026-10-21T01:00'],
    ['2026-10-24T13:00', '2026-10-24T18:00'],
  ]);
});
test('updates every so many days, counted from the start', () => {
  const every = (rhythm: 'none' | 'weekly' | 'days', today: string) =>
    nextUpdate({ rhythm, rhythmDays: 10, startDate: '2026-10-01' }, today);
  expect([
    every('days', '2026-10-01'),
    every('days', '2026-10-11'),
    every('weekly', '2026-10-09'),
    every('none', '2026-10-09'),
  ]).toEqual(['2026-10-11', '2026-10-21', '2026-10-15', null]);
});
test('the days ahead: shows, milestones, parcels that are coming, wanted parts', () => {
  const order = (id: string, state: string) => ({ id, name: id, state, expected: '2026-10-20', lines: [] });
  const scene = crew({
    milestones: [{ id: 'm', name: 'Ground done', date: '2026-10-22' }],
    orders: [order('sent', 'sent'), order('draft', 'draft')],
    tasks: [
      { id: 't', name: 'Roofs', due: '2026-10-23' },
      { id: 'd', name: 'Done', due: '2026-10-23', done: '2026-10-20' },
    ],
    sections: [{ id: 'a', letter: 'A', name: 'A', x: 0, y: 0, w: 8, d: 8, partsBy: '2026-10-21' }],
  });
  expect(daysAhead(scene, '2026-10-19', '2026-11-30').map(({ date, what }) => `${date} ${what}`)).toEqual([
    '2026-10-20 parcel',
    '2026-10-21 parts',
    '2026-10-22 milestone',
    '2026-10-23 task',
    '2026-11-07 show',
  ]);
  expect(daysAhead(scene, '2026-10-24', '2026-11-01')).toEqual([]);
});

test('what was done is summed by the builder’s own days and weeks (worked by hand)', () => {
  const session = (
    id: string,
    person: string,
    start: string,
    minutes: number | null,
    pieces: number | null,
  ) => ({
    ...{ id, person, start, minutes, pieces },
  });
  const scene = crew({
    sessions: [
      // Past midnight in Oslo, Monday there; still Sunday in New York.
      session('s1', 'oslo', '2026-10-18T22:30:00Z', 60, 100),
      session('s2', 'york', '2026-10-18T22:30:00Z', 90, null),
      session('s3', 'oslo', '2026-10-19T18:00:00Z', 30, 50),
      session('s4', 'oslo', '2026-10-20T18:00:00Z', null, null),
    ],
  });
  expect(burnUp(scene)).toEqual({
    days: ['2026-10-18', '2026-10-19'],
    hours: [1.5, 3],
    pieces: [0, 150],
    weeks: [
      { monday: '2026-10-12', hours: { york: 1.5 } },
      { monday: '2026-10-19', hours: { oslo: 1.5 } },
    ],
  });
});
