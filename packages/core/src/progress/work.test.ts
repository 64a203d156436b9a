import fc from 'fast-check';
import { photoSpotsOf, sceneFrom, type Scene, type Slot } from '../document/index.ts';
import { dayClock, eveningOf, offeredTasks, type CountedBlock } from './index.ts';

const people = [
  { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
  { id: 'bo', name: 'Bo Lind', initials: 'BL' },
];
const section = (letter: string, x: number, more: object = {}) => ({
  ...{ id: letter.toLowerCase(), letter, name: letter, x, y: 0, w: 32, d: 32 },
  ...more,
});
const display = (more: object): Scene =>
  sceneFrom({
    display: { name: 'P', kind: 'diorama', showDate: '2031-07-10' },
    people,
    sections: [section('A', 0, { owner: 'ada' }), section('B', 32, { owner: 'bo', stage: 'done' })],
    ...more,
  });

describe('tasks that are offered', () => {
  const block: CountedBlock = { id: 'm1', name: 'A1', x: 4, y: 0, w: 32, d: 32, pieces: 900 };
  test('what is open in a section that is not done: each once, until it is a task', () => {
    const placeholder = {
      id: 'p',
      part: 'brick-1x2',
      colour: 'slate',
      stands: 'rust',
      x: 1,
      y: 1,
      qty: 3,
      section: 'a',
    };
    const things = {
      markers: [
        { id: 'k', name: 'Which gate', x: 2, y: 2, w: 2, d: 2 },
        { id: 'l', name: 'In B', x: 40, y: 2, w: 2, d: 2 },
      ],
      placeholders: [
        { ...placeholder, built: '2031-05-01' },
        { ...placeholder, id: 'q' },
      ],
      figures: [{ id: 'f', name: 'Anglers', x: 3, y: 3, cast: 2, state: 'built' }],
      partLists: [
        {
          id: 'h',
          name: 'Toll house',
          section: 'a',
          copies: 2,
          lines: [{ part: 'brick-1x2', colour: 'slate', qty: 40 }],
        },
      ],
      threads: [
        { id: 't', title: 'Ivy on the wall', text: 'x', by: 'bo', section: 'a', state: 'accepted' },
        { id: 'u', title: 'Never', text: 'x', by: 'bo', section: 'a', state: 'declined' },
        {
          id: 'w',
          title: 'A lamp',
          text: 'x',
          by: null,
          use: 'wish',
          askedBy: 38,
          section: 'a',
          state: 'accepted',
        },
      ],
    };
    const told = (more: object) =>
      offeredTasks(display({ ...things, ...more }), { findings: null, blocks: [block] }).map(
        ({ source, name, section: of, pieces }) => [source, name, of, pieces],
      );
    expect(told({})).toEqual([
      ['marker:k', 'Decide: Which gate', 'a', null],
      ['placeholder:p', 'Swap 3 × brick 1×2, Rust for Slate', 'a', 3],
      ['advice:t', 'As advised: Ivy on the wall', 'a', null],
      ['advice:w', 'As 38 followers wished: A lamp', 'a', null],
      ['figure:f', 'Place “Anglers”, 2 figures', 'a', 2],
      ['block:m1', 'Ground of A1', 'a', 900],
      ['list:h', 'Build 2 × Toll house', 'a', 80],
    ]);
    // Where any colour may be seen, nothing waits to be swapped.
    const free = { sections: [section('A', 0, { owner: 'ada', colour: 'free' })] };
    expect(told(free).map(([source]) => source)).not.toContain('placeholder:p');
    const taken = {
      tasks: [{ id: 'x', name: 'Ground', source: 'block:m1', section: 'a', done: '2031-05-01' }],
    };
    expect(told(taken).map(([source]) => source)).not.toContain('block:m1');
    // Behind its stage nothing is asked for any more.
    const dressed = { sections: [section('A', 0, { owner: 'ada', stage: 'dressed' })] };
    expect(told(dressed).map(([source]) => source)).toEqual(
      expect.not.arrayContaining(['block:m1', 'list:h']),
    );
    expect(told(dressed).map(([source]) => source)).toContain('figure:f');
  });
});

const task = (id: string, hours: number | null, more: object = {}) => ({
  ...{ id, name: id, section: 'a', stage: 'ground', low: hours, likely: hours, high: hours },
  ...more,
});
const evening = (tasks: object[], minutes: number, more: object = {}, ask: object = {}) =>
  eveningOf(
    display({ tasks, ...more }),
    { person: 'ada', minutes, section: null, today: '2031-05-06', ...ask },
    { netted: null, handOvers: null },
  );
const names = (list: readonly { task: { id: string } }[]) => list.map((one) => one.task.id);

describe('tonight', () => {
  test('says of what is left out why', () => {
    const told = evening(
      [
        task('now', 1),
        task('later', 0.5, { parts: '2031-05-09' }),
        task('after-bo', 0.5, { after: ['bos'] }),
        task('bos', 0.5, { owner: 'bo' }),
        task('long', 5),
        task('unsaid', null),
        task('done', 1, { done: '2031-05-01' }),
      ],
      150,
    );
    expect([names(told.chosen), told.spent]).toEqual([['now'], 60]);
    expect(told.not.map(({ task: { id }, why }) => [id, why]).sort()).toEqual([
      ['after-bo', 'comes after “bos” of Bo Lind'],
      ['later', 'its parts come on 2031-05-09'],
      ['long', 'takes longer than there is tonight'],
      ['unsaid', 'no estimate, and nothing is counted'],
    ]);
  });
  test('rather brings one stage to its end than begins two of equal work', () => {
    const stages = [
      task('a1', 1, { stage: 'ground' }),
      task('a2', 1, { stage: 'ground' }),
      ...['b1', 'b2', 'b3', 'b4'].map((id) => task(id, 1, { stage: 'dressed' })),
    ];
    expect(names(evening(stages, 120).chosen).sort()).toEqual(['a1', 'a2']);
  });
  test('three guesses: the mean and a deviation more, laid in fives (by hand)', () => {
    // (1 + 4·2 + 6) / 6 = 2.5 h and (6 − 1) / 6 h more: 200 min.
    const wide = { low: 1, likely: 2, high: 6 };
    expect(evening([task('w', 0, wide)], 200).chosen.map(({ minutes }) => minutes)).toEqual([200]);
    expect(evening([task('w', 0, wide)], 195).chosen).toEqual([]);
  });
  test('what it lays must be here; what is short is to be ordered before the next session', () => {
    const row = (part: string, given: { short?: number; late?: number }) => ({
      demand: {
        ...{ id: part, section: 'a', part, colour: 'slate', counted: 9, qty: 9, by: null, person: 'ada' },
        ...{ source: null, list: null },
        needs: [
          {
            section: 'a',
            part,
            colour: 'slate',
            purpose: 'building' as const,
            qty: 9,
            source: null,
            list: null,
            from: ['Toll house'],
          },
        ],
      },
      ...{ given: [], own: 0, handed: 0, ordered: 0, late: 0, substituted: 0, short: 0, ...given },
    });
    const lines = [{ part: 'brick-1x2', colour: 'slate', qty: 9 }];
    const scene = display({
      partLists: [{ id: 'h', name: 'Toll house', section: 'a', lines }],
      tasks: [task('h', null, { source: 'list:h', work: 'structures', pieces: 9 })],
      calendars: [{ id: 'c', person: 'ada', weekly: [0, 0, 0, 3, 0, 0, 0] }],
    });
    const ask = { person: 'ada', minutes: 240, section: null, today: '2031-05-06' };
    const hand = { part: 'brick-1x2', colour: 'slate', qty: 4, place: '', promised: false, section: 'a' };
    const handOvers = [
      { ...hand, from: 'bo', to: 'ada' },
      { ...hand, from: 'ada', to: 'bo', section: 'b' },
    ];
    const short = eveningOf(scene, ask, { netted: [row('brick-1x2', { short: 4 })], handOvers });
    expect(short.not.map(({ why }) => why)).toEqual(['4 pieces of it not here yet']);
    expect(short.order).toEqual([{ part: 'brick-1x2', colour: 'slate', qty: 4 }]);
    // The 6th is a Tuesday: Thursday is next.
    expect([short.next, short.fetch.length, short.bring.length]).toEqual(['2031-05-08', 1, 1]);
    expect(names(eveningOf(scene, ask, { netted: [row('brick-1x2', {})], handOvers }).chosen)).toEqual(['h']);
  });
  test('never takes on more than there is time for, nor anything before what it comes after', () => {
    const some = fc.array(
      fc.record({ hours: fc.integer({ min: 0, max: 8 }), after: fc.nat(9), own: fc.boolean() }),
      { minLength: 1, maxLength: 10 },
    );
    fc.assert(
      fc.property(some, fc.integer({ min: 0, max: 400 }), (list, minutes) => {
        const tasks = list.map(({ hours, after, own }, i) =>
          task(`t${i}`, hours / 2, { owner: own ? 'ada' : 'bo', after: after < i ? [`t${after}`] : [] }),
        );
        const told = evening(tasks, minutes);
        const order = names(told.chosen);
        expect(told.spent).toBeLessThanOrEqual(minutes);
        told.chosen.forEach(({ task: one }, i) => {
          expect(one.owner).toBe('ada');
          one.after.forEach((id) => expect(order.slice(0, i)).toContain(id));
        });
        expect(order.length + told.not.length).toBe(list.filter(({ own }) => own).length);
      }),
    );
  });
});

describe('the day’s clock', () => {
  const at = (clock: string) => `2031-05-06T${clock}:00Z`;
  const slot = (id: string, minutes: number, more: Partial<Slot> = {}): Slot => ({
    ...{ id, v: 1, name: id, day: '2031-05-06', order: 0, minutes, section: null, must: false, worth: 5 },
    ...{ began: null, ended: null, dropped: false, took: null, after: null },
    ...{ work: 'other', unattended: false, drying: null, ...more },
  });
  test('half again as slow as planned: what is to come is stretched, and the least worth is dropped (by hand)', () => {
    const slots = [
      slot('planning', 60, { began: at('09:00'), ended: at('10:30') }),
      slot('hill', 60, { began: at('10:30') }),
      slot('trees', 40, { worth: 3 }),
      slot('lamps', 20, { worth: 2 }),
      slot('figures', 40, { must: true }),
    ];
    // At 11:00 an hour of the hill is left, then 60, 30 and 60 minutes: over at 14:30, an hour after the end.
    const clock = dayClock(slots, Date.parse(at('11:00')), Date.parse(at('13:30')));
    expect([clock.paces[0].pace, new Date(clock.ends).toISOString(), clock.late]).toEqual([
      1.5,
      '2031-05-06T14:30:00.000Z',
      60,
    ]);
    expect([clock.drop.map(({ id }) => id), clock.fits]).toEqual([['trees'], true]);
    expect(clock.rows.map(({ state }) => state)).toEqual(['over', 'runs', 'waits', 'waits', 'waits']);
    expect(dayClock(slots, Date.parse(at('11:00')), Date.parse(at('11:30'))).fits).toBe(false);
    expect(dayClock(slots, Date.parse(at('11:00')), null)).toMatchObject({ late: null, drop: [] });
  });
  test('a pace is of its kind of work and bounded; what took another time is said; what dries holds nobody up', () => {
    const evening = slot('figures', 45, { work: 'figures', began: at('09:00'), ended: at('09:01') });
    const ends = (slots: Slot[], now = '09:01') =>
      new Date(dayClock(slots, Date.parse(at(now)), null).ends).toISOString().slice(11, 16);
    // Done within a minute, the evening before: hills are another kind of work, and take what was planned.
    expect(ends([evening, slot('hills', 300, { work: 'ground' })])).toBe('14:01');
    // Of its own kind no more than twice as fast is believed, until the time it took is said.
    expect(ends([evening, slot('more', 60, { work: 'figures' })])).toBe('09:31');
    expect(ends([{ ...evening, took: 45 }, slot('more', 60, { work: 'figures' })])).toBe('10:01');
    const glue = slot('glue', 120, { unattended: true, began: at('09:00') });
    const rows = [glue, slot('trees', 60), slot('roof', 30, { after: 'glue' })];
    // Trees until 10:00; the roof waits for the glue, until 11:00, and takes half an hour.
    expect(ends(rows, '09:00')).toBe('11:30');
    expect(
      dayClock(rows, Date.parse(at('09:00')), null).rows.map(({ ends: end }) =>
        new Date(end ?? 0).toISOString().slice(11, 16),
      ),
    ).toEqual(['11:00', '10:00', '11:30']);
  });
  test('no other set of slots that saves enough is worth less', () => {
    const some = fc.array(
      fc.record({ minutes: fc.integer({ min: 5, max: 60 }), worth: fc.integer({ min: 1, max: 10 }) }),
      {
        minLength: 1,
        maxLength: 8,
      },
    );
    fc.assert(
      fc.property(some, fc.integer({ min: 0, max: 300 }), (list, room) => {
        const slots = list.map(({ minutes, worth }, i) => slot(`s${i}`, minutes, { worth }));
        const now = Date.parse(at('09:00'));
        const { late, drop, fits } = dayClock(slots, now, now + room * 60_000);
        const worth = (set: readonly Slot[]) => set.reduce((sum, one) => sum + one.worth, 0);
        let least = Infinity;
        for (let bits = 0; bits < 1 << slots.length; bits++) {
          const set = slots.filter((_, i) => bits & (1 << i));
          if (set.reduce((sum, one) => sum + one.minutes, 0) >= (late ?? 0))
            least = Math.min(least, worth(set));
        }
        expect([worth(drop), fits]).toEqual([least, true]);
      }),
    );
  });
});

test('photos of one spot are those from near the same place that look the same way, in time', () => {
  const photo = (id: string, taken: string, x: number | null, bearing: number | null) => ({
    ...{
      id,
      file: 'a'.repeat(64),
      width: 100,
      height: 80,
      taken: `2031-05-${taken}T12:00:00Z`,
      section: 'a',
    },
    ...{ x, y: x, bearing },
  });
  const scene = display({
    photos: [
      photo('late', '09', 12, 5),
      photo('first', '01', 10, 350),
      photo('turned', '05', 10, 90),
      photo('far', '03', 40, 350),
      photo('loose', '02', null, null),
    ],
  });
  expect(photoSpotsOf(scene).map(({ photos }) => photos.map(({ id }) => id))).toEqual([
    ['first', 'late'],
    ['turned'],
    ['far'],
    ['loose'],
  ]);
});
