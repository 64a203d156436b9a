import fc from 'fast-check';
import { METHOD_SPECS } from '../masonry/index.ts';
import { sceneFrom, type Scene } from '../document/index.ts';
import {
  RandomDraws,
  bestEvening,
  chanceBy,
  dayOf,
  draw,
  earnedIndices,
  earnedValue,
  effortOf,
  forecast,
  hoursAhead,
  outlook,
  pert,
  pieceCounts,
  rateOf,
  uniformFrom,
  workDone,
  type EveningTask,
  type LeftWork,
} from './index.ts';
import { runs } from '../../test/runs.ts';

describe('earned value', () => {
  // A budget of 10,000 after a term in which 4,000 should have been done, 3,000 were, and 5,000 were spent: the
  // textbook formulas of ANSI/EIA-748 and the PMI practice standard, worked by hand (from memory).
  test('a textbook table', () => {
    expect(earnedIndices({ planned: 4000, earned: 3000, actual: 5000, budget: 10_000 })).toEqual({
      ...{ sv: -1000, cv: -2000, spi: 0.75, cpi: 0.6 },
      eac: expect.closeTo(16_666.67, 2),
      etc: expect.closeTo(11_666.67, 2),
      vac: expect.closeTo(-6666.67, 2),
    });
  });
  test('before anything is planned, done or spent nothing is claimed', () => {
    expect(earnedIndices({ planned: 0, earned: 0, actual: 0, budget: 80 })).toEqual({
      ...{ sv: 0, cv: 0, spi: null, cpi: null, eac: null, etc: null, vac: null },
    });
  });
});

describe('three guesses', () => {
  // Malcolm, Roseboom, Clark and Fazar 1959: (2 + 4·4 + 12) / 6 and ((12 − 2) / 6)².
  test('mean and variance by the formula', () => {
    expect(pert({ low: 2, likely: 4, high: 12 })).toEqual({ mean: 5, variance: expect.closeTo(25 / 9, 12) });
  });
  test('draws have that mean and stay within the guesses; the same seed draws the same', () => {
    fc.assert(
      fc.property(
        fc.record({
          low: fc.integer({ min: 0, max: 20 }),
          up: fc.integer({ min: 0, max: 20 }),
          over: fc.integer({ min: 1, max: 30 }),
        }),
        fc.integer(),
        ({ low, up, over }, seed) => {
          const guess = { low, likely: low + up, high: low + up + over };
          const uniform = uniformFrom(seed);
          const drawn = Array.from({ length: 4000 }, () => draw(guess, uniform));
          const mean = drawn.reduce((sum, value) => sum + value, 0) / drawn.length;
          // The beta's own variance is at most a sixteenth of the span squared: five standard errors of the mean.
          const error = (guess.high - guess.low) / 4 / Math.sqrt(drawn.length);
          expect(Math.abs(mean - pert(guess).mean)).toBeLessThan(5 * error);
          expect(Math.min(...drawn)).toBeGreaterThanOrEqual(guess.low);
          expect(Math.max(...drawn)).toBeLessThanOrEqual(guess.high);
          const again = uniformFrom(seed);
          expect(drawn.slice(0, 20)).toEqual(Array.from({ length: 20 }, () => draw(guess, again)));
        },
      ),
      { numRuns: runs(20) },
    );
  });
});

const sure = (hours: number) => ({ low: hours, likely: hours, high: hours });
const piece = (id: string, hours: number, more: Partial<LeftWork> = {}): LeftWork => ({
  ...{ id, section: id, person: 0, guess: sure(hours), after: [], ready: 0 },
  ...more,
});

describe('the forecast', () => {
  test('without chance it is the calendar: hours a day, days away, parts, what comes before (worked by hand)', () => {
    const hours = [2, 2, 0, 2, 2, 2, 2, 2, 2, 2];
    const run = (work: LeftWork[]) =>
      [...forecast({ work, people: [{ hours, spread: 0 }], luck: new RandomDraws(3, 1) }).bySection].map(
        ([, days]) => days[0],
      );
    expect(run([piece('a', 4), piece('b', 2)])).toEqual([1, 3]);
    expect(run([piece('a', 3, { ready: 4 })])).toEqual([5]);
    expect(run([piece('b', 2, { after: [1] }), piece('a', 2)])).toEqual([1, 0]);
    // More than there are hours for: never within the horizon.
    expect(run([piece('a', 99)])).toEqual([10]);
    expect(() => run([piece('a', 1, { after: [1] }), piece('b', 1, { after: [0] })])).toThrow(
      'comes after itself',
    );
  });
  test('two people wait for each other where their work does', () => {
    const people = [
      { hours: [1, 1, 1, 1, 1, 1], spread: 0 },
      { hours: [5, 5, 5, 5, 5, 5], spread: 0 },
    ];
    const work = [piece('a', 3), piece('b', 5, { person: 1, after: [0] })];
    const { bySection, critical } = forecast({ work, people, luck: new RandomDraws(4, 1) });
    expect([...bySection].map(([id, days]) => [id, days[0]])).toEqual([
      ['a', 2],
      // The first needs the whole of its third day: the other begins on the next.
      ['b', 3],
    ]);
    expect(critical.get('b')).toBe(4);
  });
  test('what is handed on costs its time: three chained days of three people take three days (by hand)', () => {
    const people = [0, 1, 2].map(() => ({ hours: [8, 8, 8, 8, 8], spread: 0 }));
    const chain = (hours: number, more: Partial<LeftWork> = {}) =>
      [0, 1, 2].map((person) =>
        piece(`p${person}`, hours, { person, after: person > 0 ? [person - 1] : [], ...more }),
      );
    const last = (work: LeftWork[]) => forecast({ work, people, luck: new RandomDraws(1, 1) }).finish[0];
    expect(last(chain(8))).toBe(2);
    // Half a day each: the second has the afternoon, the third the next morning.
    expect(last(chain(4))).toBe(1);
    // Two hours are a quarter of a day: all in one.
    expect(last(chain(2))).toBe(0);
    // What dries for a day in between holds up who comes after, not who dries it.
    expect(last(chain(2, { rests: 1 }))).toBe(3);
    expect(last([piece('a', 2, { rests: 1 }), piece('b', 2)])).toBe(1);
    expect(last([])).toBe(-1);
  });
  test('no chain over people is done sooner than its days laid end to end (slow code, hour by hour)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ person: fc.nat(2), hours: fc.integer({ min: 1, max: 12 }) }), {
          minLength: 1,
          maxLength: 5,
        }),
        fc.array(fc.integer({ min: 1, max: 8 }), { minLength: 3, maxLength: 3 }),
        (list, daily) => {
          const people = daily.map((hours) => ({
            hours: Array.from({ length: 60 }, () => hours),
            spread: 0,
          }));
          const work = list.map(({ person, hours }, i) =>
            piece(`p${i}`, hours, { person, after: i > 0 ? [i - 1] : [] }),
          );
          // Each works through the same share of a day in the same share of its hours.
          let [day, share] = [0, 0];
          let finished = 0;
          for (const { person, hours } of list) {
            let left = hours;
            while (left > 1e-9) {
              if (share > 1 - 1e-9) [day, share] = [day + 1, 0];
              const step = Math.min(left, (1 - share) * daily[person]);
              left -= step;
              share += step / daily[person];
              finished = day;
            }
          }
          expect(forecast({ work, people, luck: new RandomDraws(1, 1) }).finish[0]).toBe(finished);
        },
      ),
    );
  });
  // Thirty pieces by one person add up to nearly a normal distribution: its mean and variance are the sums
  // (closed form; Lyapunov), so the chance of any day is known.
  test('many pieces by one person: the odds are those of the closed form', () => {
    const guess = { low: 2, likely: 3, high: 7 };
    const { mean } = pert(guess);
    // The beta's own variance, not PERT's round figure: αβ(b − a)² / ((α + β)² (α + β + 1)).
    const [alpha, beta] = [1 + (4 * 1) / 5, 1 + (4 * 4) / 5];
    const variance = (alpha * beta * 25) / ((alpha + beta) ** 2 * (alpha + beta + 1));
    const work = Array.from({ length: 30 }, (_, i) => piece(`p${i}`, 0, { guess, section: 's' }));
    const people = [{ hours: Array.from({ length: 400 }, () => 1), spread: 0 }];
    const { finish } = forecast({ work, people, luck: new RandomDraws(20_000, 7) });
    const [mu, sigma] = [30 * mean, Math.sqrt(30 * variance)];
    for (const z of [-1.5, -0.5, 0, 0.5, 1.5]) {
      // By the end of day d there are d + 1 hours.
      const day = Math.round(mu + z * sigma) - 1;
      const exact = phi((day + 1 - mu) / sigma);
      expect(Math.abs(chanceBy(finish, day) - exact)).toBeLessThan(0.02);
    }
    expect(Math.abs(dayOf(finish, 0.5) + 0.5 - mu)).toBeLessThan(1.5);
  });
  test('more work is never sooner, another pair of hands never later; the same seed says the same', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 8 }),
        fc.integer(),
        (sizes, seed) => {
          const people = [{ hours: Array.from({ length: 200 }, (_, i) => i % 3), spread: 0.3 }];
          const work = sizes.map((size, i) => piece(`s${i}`, size));
          const one = forecast({ work, people, luck: new RandomDraws(50, seed) });
          expect(forecast({ work, people, luck: new RandomDraws(50, seed) }).finish).toEqual(one.finish);
          const more = forecast({
            work: work.map((w) => ({ ...w, guess: sure(w.guess.likely * 1.5) })),
            people,
            luck: new RandomDraws(50, seed),
          });
          one.finish.forEach((day, run) => expect(more.finish[run]).toBeGreaterThanOrEqual(day));
        },
      ),
      { numRuns: runs(40) },
    );
  });
});

/** The normal distribution (Abramowitz and Stegun 7.1.26, error below 1.5e-7). */
function phi(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const poly =
    ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t;
  const erf = 1 - poly * Math.exp(-x * x);
  return z >= 0 ? (1 + erf) / 2 : (1 - erf) / 2;
}

describe('an evening', () => {
  const doable = fc.array(
    fc.record({
      minutes: fc.integer({ min: 5, max: 90 }),
      value: fc.integer({ min: 1, max: 20 }),
      needs: fc.array(fc.nat(8), { maxLength: 2 }),
    }),
    { minLength: 1, maxLength: 9 },
  );
  test('is the best that brute force finds, in an order in which it can be done', () => {
    fc.assert(
      fc.property(doable, fc.integer({ min: 0, max: 240 }), (list, minutes) => {
        const tasks: EveningTask[] = list.map(({ needs, ...task }, i) => ({
          ...{ id: `t${i}`, ...task },
          after: [...new Set(needs.filter((k) => k < i))],
        }));
        let most = 0;
        for (let bits = 0; bits < 1 << tasks.length; bits++) {
          const set = tasks.filter((_, i) => bits & (1 << i));
          if (set.some(({ after }) => after.some((k) => !(bits & (1 << k))))) continue;
          if (set.reduce((sum, task) => sum + task.minutes, 0) > minutes) continue;
          most = Math.max(
            most,
            set.reduce((sum, task) => sum + task.value, 0),
          );
        }
        const order = bestEvening(tasks, minutes);
        expect(order.reduce((sum, i) => sum + tasks[i].value, 0)).toBe(most);
        expect(order.reduce((sum, i) => sum + tasks[i].minutes, 0)).toBeLessThanOrEqual(minutes);
        order.forEach((i, at) => tasks[i].after.forEach((k) => expect(order.indexOf(k)).toBeLessThan(at)));
        expect(order.every((i) => tasks[i].after.every((k) => order.includes(k)))).toBe(true);
      }),
      { numRuns: runs(300) },
    );
  });
});

const session = (id: string, minutes: number | null, pieces: number | null) => ({
  ...{
    id,
    person: 'ada',
    section: 'a',
    start: '2031-05-01T18:00:00Z',
    minutes,
    pieces,
    work: 'ground' as const,
  },
});
const display = (more: object = {}): Scene =>
  sceneFrom({
    display: {
      name: 'P',
      kind: 'diorama',
      startDate: '2031-05-01',
      showDate: '2031-07-10',
      showName: 'Fair',
    },
    people: [
      { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
      { id: 'bo', name: 'Bo Lind', initials: 'BL' },
    ],
    sections: [
      { id: 'a', letter: 'A', name: 'A', x: 0, y: 0, w: 10, d: 10, owner: 'ada', hours: 40, stage: 'ground' },
    ],
    calendars: [
      {
        id: 'ca',
        person: 'ada',
        weekly: [0, 2, 0, 2, 0, 4, 0],
        away: [{ from: '2031-05-10', to: '2031-05-11' }],
      },
      { id: 'cb', person: 'bo', weekly: [2, 0, 0, 0, 0, 6, 0] },
    ],
    ...more,
  });

describe('from a scene', () => {
  test('rates are learnt from three counted sessions on; before that the default stands and says so', () => {
    const two = display({
      sessions: [session('s1', 60, 200), session('s2', 60, 300), session('s3', null, null)],
    });
    expect(rateOf(two, 'ada', 'ground')).toMatchObject({
      learnt: false,
      perHour: 300,
      sessions: 2,
      pieces: 500,
    });
    const three = display({
      sessions: [session('s1', 60, 200), session('s2', 60, 300), session('s3', 120, 700)],
    });
    const rate = rateOf(three, 'ada', 'ground');
    expect(rate).toMatchObject({ learnt: true, perHour: 300, sessions: 3, hours: 4 });
    // Rates of 200, 300 and 350 an hour: the deviation of their logarithms, by hand.
    const logs = [200, 300, 350].map(Math.log);
    const mean = (logs[0] + logs[1] + logs[2]) / 3;
    expect(rate.spread).toBeCloseTo(Math.sqrt(logs.reduce((sum, log) => sum + (log - mean) ** 2, 0) / 2), 12);
    expect(rateOf(three, 'bo', 'ground').learnt).toBe(false);
  });
  test('ground is learnt by its method where three sessions were of it, and the section’s hours follow (by hand)', () => {
    const scene = display({
      sessions: [
        ...['r1', 'r2', 'r3'].map((id) => ({ ...session(id, 60, 400), section: null })),
        ...['m1', 'm2', 'm3'].map((id) => ({ ...session(id, 60, 100), method: 'moulded' })),
      ],
      sections: [
        { id: 'a', letter: 'A', name: 'A', x: 0, y: 0, w: 10, d: 10, owner: 'ada', method: 'moulded' },
      ],
    });
    const rates = (['raft', 'moulded', 'frame'] as const).map(
      (method) => rateOf(scene, 'ada', 'ground', method).perHour,
    );
    // Nobody logged a frame: all six together, 1,500 pieces in 6 h.
    expect(rates).toEqual([400, 100, 250]);
    expect(effortOf(scene, scene.section.a, { a: { ground: 900 } }).hours).toBeCloseTo(9, 12);
    // Who has logged nothing builds at the rate that the comparison of methods takes.
    expect(rateOf(scene, 'bo', 'ground', 'moulded')).toMatchObject({
      learnt: false,
      perHour: METHOD_SPECS.moulded.rate,
    });
  });
  test('earned value in hours: stages by their weights, planned evenly from start to show (worked by hand)', () => {
    const scene = display({ sessions: [session('s1', 90, null)] });
    // Planned and supported are behind it: 5 + 10 of 100.
    expect(workDone(scene, scene.section.a)).toBeCloseTo(0.15, 12);
    // 7 of 70 days have gone.
    expect(earnedValue(scene, '2031-05-08', {}, 'hours')).toEqual({
      ...{ planned: expect.closeTo(4, 12), earned: expect.closeTo(6, 12), actual: 1.5, budget: 40 },
      ...{ sections: 1, known: 1 },
    });
  });
  test('where nobody typed hours they are counted pieces over the builder’s rate; earned value in pieces (by hand)', () => {
    const scene = display({
      sections: [
        { id: 'a', letter: 'A', name: 'A', x: 0, y: 0, w: 10, d: 10, owner: 'ada', stage: 'ground' },
        { id: 'b', letter: 'B', name: 'B', x: 20, y: 0, w: 10, d: 10, owner: 'bo' },
      ],
      sessions: [session('s1', 60, 200), session('s2', 60, 300), session('s3', 120, 700)],
    });
    const need = (purpose: 'core' | 'deck' | 'figures', qty: number, section: string | null = 'a') => ({
      ...{ section, purpose, qty, part: 'brick-2x4', colour: 'slate', source: null, list: null, from: [] },
    });
    const counts = pieceCounts([
      need('core', 500),
      need('deck', 100),
      need('figures', 120),
      need('core', 9, null),
    ]);
    expect(counts).toEqual({ a: { ground: 600, figures: 120 } });
    // Ground at the learnt 300 an hour, figures at our guess of 60.
    expect(effortOf(scene, scene.section.a, counts)).toMatchObject({
      hours: 600 / 300 + 120 / 60,
      how: 'counted',
    });
    expect(effortOf(scene, scene.section.b, counts)).toMatchObject({ hours: null, how: null });
    expect(earnedValue(scene, '2031-05-08', counts, 'pieces')).toEqual({
      ...{
        planned: expect.closeTo(72, 12),
        earned: expect.closeTo(0.15 * 720, 12),
        actual: 1200,
        budget: 720,
      },
      ...{ sections: 2, known: 1 },
    });
    // What nothing is known of is left out and named.
    expect(outlook(scene, '2031-05-06', { runs: 10, seed: 1, counts })).toMatchObject({
      ok: true,
      outlook: {
        missing: ['Section B: how many hours in all? Nothing is counted for it either.'],
        without: ['B'],
        sections: [{ id: 'a' }],
      },
    });
  });
  test('calendars: weekdays from Monday, days away give nothing', () => {
    // 2031-05-06 is a Tuesday; the Saturday of that week is a day away.
    expect(hoursAhead(display(), 'ada', '2031-05-06', 7)).toEqual([2, 0, 2, 0, 0, 0, 0]);
    expect(hoursAhead(display(), 'bo', '2031-05-05', 7)).toEqual([2, 0, 0, 0, 0, 6, 0]);
  });
  test('odds by show, and what would move them most, found by playing it; nothing is claimed without guesses and calendars', () => {
    const answer = outlook(display(), '2031-05-06', { runs: 400, seed: 3, counts: {} });
    if (!answer.ok) throw new Error(answer.missing.join());
    const [show] = answer.outlook.shows;
    expect(show).toMatchObject({ name: 'Fair', date: '2031-07-10' });
    expect(show.chance).toBeGreaterThan(0.5);
    // The evening of the show's own day comes too late: what needs it has no chance; what is done has every one.
    const left = (hours: number) => [
      { id: 'a', letter: 'A', name: 'A', x: 0, y: 0, w: 9, d: 9, owner: 'ada', hours },
    ];
    const calendars = [{ id: 'c', person: 'ada', weekly: [3, 3, 3, 3, 3, 3, 3] }];
    const chance = (today: string, hours: number) => {
      const made = outlook(display({ sections: left(hours), calendars, tasks: [] }), today, {
        runs: 50,
        seed: 1,
        counts: {},
      });
      return made.ok ? made.outlook.shows[0].chance : null;
    };
    expect([chance('2031-07-10', 0.3), chance('2031-07-09', 0.3), chance('2031-07-10', 0)]).toEqual([
      0, 1, 1,
    ]);
    expect(answer.outlook.moves.map(({ words }) => words)).toEqual(
      expect.arrayContaining([
        'Bo Lind takes half of what is left of section A',
        'Section A made a quarter simpler',
      ]),
    );
    for (const move of answer.outlook.moves) expect(move.chance > move.now || move.sooner > 0).toBe(true);
    const chances = answer.outlook.moves.map(({ chance }) => chance);
    expect(chances).toEqual(chances.toSorted((a, b) => b - a));
    expect(outlook(display({ calendars: [] }), '2031-05-06', { runs: 10, seed: 1, counts: {} })).toEqual({
      ok: false,
      missing: ['Ada Fenn: on which days, how many hours?'],
    });
    const task = (id: string, more: object) => ({ id, name: id, section: 'a', ...more });
    const circle = [task('x', { after: ['y'] }), task('y', { after: ['x'] })];
    expect(outlook(display({ tasks: circle }), '2031-05-06', { runs: 10, seed: 1, counts: {} })).toEqual({
      ok: false,
      missing: ['These tasks come after each other in a circle: “x”, “y”.'],
    });
    const bare = sceneFrom({ display: { name: 'P', kind: 'city' } });
    expect(outlook(bare, '2031-05-06', { runs: 10, seed: 1, counts: {} })).toEqual({
      ok: false,
      missing: ['There are no sections.'],
    });
  });
  test('tasks with three guesses are played as told, each by its owner after what comes before; the rest besides them', () => {
    const task = (id: string, more: object) => ({ id, name: id, section: 'a', stage: 'ground', ...more });
    const sure = (hours: number) => ({ low: hours, likely: hours, high: hours });
    const section = {
      id: 'a',
      letter: 'A',
      name: 'A',
      x: 0,
      y: 0,
      w: 10,
      d: 10,
      owner: 'ada',
      stage: 'ground',
    };
    // Speeds scatter by half where nobody counted sessions: with hours enough a day the day is sure all the same.
    const rich = (person: string) => ({ id: person, person, weekly: [24, 24, 24, 24, 24, 24, 24] });
    const answer = (tasks: object[]) => {
      const scene = display({
        sections: [{ ...section, hours: 0 }],
        calendars: [rich('ada'), rich('bo')],
        tasks,
      });
      const told = outlook(scene, '2031-05-06', { runs: 20, seed: 1, counts: {} });
      return told.ok ? told.outlook.half : told.missing;
    };
    expect(answer([task('x', sure(1))])).toBe('2031-05-06');
    expect(answer([task('x', { ...sure(1), parts: '2031-05-20' })])).toBe('2031-05-20');
    expect(
      answer([
        task('x', { ...sure(1), parts: '2031-05-20', owner: 'bo' }),
        task('y', { ...sure(1), after: ['x'] }),
      ]),
    ).toBe('2031-05-20');
    // Done ones are not played; of one that nobody guessed nothing is said.
    expect(answer([task('x', { ...sure(1), parts: '2031-05-20', done: '2031-05-01' })])).toBe('2031-05-06');
  });
});
