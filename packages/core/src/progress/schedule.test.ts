import { sceneFrom } from '../document/index.ts';
import { sectionSchedules } from './index.ts';

// How sections stand against an even pace, and which of them rest, by hand.

const section = (
  letter: string,
  stage: 'planned' | 'structures' | 'dressed' | 'done',
  more: object = {},
) => ({
  ...{ id: letter.toLowerCase(), letter, name: `Part ${letter}`, x: 0, y: 0, w: 16, d: 16, stage },
  ...more,
});
const session = (id: string, of: string | null, start: string) => ({
  ...{ id, person: 'ada', section: of, work: 'ground' as const, minutes: 60, start },
});
const at = (today: string, more: object = {}, zone = '') =>
  sectionSchedules(
    sceneFrom({
      // A hundred days, eight stages of one weight each.
      display: {
        ...{ name: 'Quay', kind: 'diorama', startDate: '2031-01-01', showDate: '2031-04-11' },
        stageWeights: [1, 1, 1, 1, 1, 1, 1],
      },
      people: [{ id: 'ada', name: 'Ada Fenn', initials: 'AF' }],
      sections: [
        section('B', 'planned'),
        section('A', 'structures', { stageDone: 50 }),
        section('C', 'done'),
      ],
      ...more,
    }),
    today,
    zone,
  );

test('days behind an even pace are its share that has gone less what is done, of all its days', () => {
  // The twentieth of February is the fiftieth day: half has gone.
  const [a, b, c] = at('2031-02-20');
  expect([a?.id, b?.id, c?.id]).toEqual(['a', 'b', 'c']);
  expect([a?.planned, b?.planned]).toEqual([0.5, 0.5]);
  // Three and a half of seven steps: exactly as far as the pace.
  expect(a?.done).toBe(0.5);
  expect(a?.behind).toBeCloseTo(0, 12);
  expect(b?.behind).toBeCloseTo(50, 12);
  // Over before its time: ahead by half of the days, and never late.
  expect(c?.behind).toBeCloseTo(-50, 12);
  expect([a?.late, b?.late, c?.late]).toEqual([false, true, false]);
});

test('a week behind is not late yet, a day more is; before the first day and after the show the pace stands', () => {
  const late = (today: string) => at(today, { sections: [section('B', 'planned')] })[0];
  expect([late('2031-01-08')?.behind, late('2031-01-08')?.late]).toEqual([7, false]);
  expect([late('2031-01-09')?.behind, late('2031-01-09')?.late]).toEqual([8, true]);
  expect(late('2030-12-01')?.behind).toBe(0);
  expect(late('2031-09-01')?.behind).toBe(100);
  // Without days there is no pace, and nothing is late.
  const [none] = at('2031-02-20', { display: { name: 'Quay', kind: 'diorama' } });
  expect([none?.planned, none?.behind, none?.late]).toEqual([null, null, false]);
});

test('idle is who had no session for more than two weeks, where sessions are logged at all', () => {
  const sessions = [
    session('1', 'a', '2031-02-06T19:00:00Z'),
    session('2', 'a', '2031-01-10T19:00:00Z'),
    session('3', null, '2031-02-19T19:00:00Z'),
  ];
  const idle = (today: string) => at(today, { sessions }).map((one) => [one.id, one.rested, one.idle]);
  expect(idle('2031-02-20')).toEqual([
    ['a', 14, false],
    // One that nobody ever sat at, while others are built; what is done rests.
    ['b', null, true],
    ['c', null, false],
  ]);
  expect(idle('2031-02-21')[0]).toEqual(['a', 15, true]);
  expect(at('2031-02-20').map((one) => one.idle)).toEqual([false, false, false]);
});

test('a session has its day where its people are', () => {
  // Half past eleven at night in Denver is the next morning in UTC.
  const sessions = [session('1', 'a', '2031-02-07T06:30:00Z')];
  const rested = (zone: string) => at('2031-02-10', { sessions }, zone)[0]?.rested;
  expect([rested('America/Denver'), rested(''), rested('Pacific/Auckland')]).toEqual([4, 3, 3]);
});
