import fc from 'fast-check';
import { runs } from '../../test/runs.ts';
import { timetableFaults, timetableOf, type Pool, type TimedTask } from './index.ts';

const found = (tasks: readonly TimedTask[], hands: number) => {
  const answer = timetableOf(tasks, hands);
  if (!answer.ok) throw new Error(answer.reasons.join(' '));
  return answer.timetable;
};
const task = (id: string, minutes: number, hands: number, ...after: string[]): TimedTask => ({
  id,
  minutes,
  hands,
  after,
});

/** The shortest length by brute force: at each minute each set of tasks that can begin. For a few short tasks. */
function shortest(
  tasks: readonly TimedTask[],
  hands: number,
  away = { from: 0, until: 0, hands: 0 },
  strong: Pool | null = null,
): number {
  let best = tasks.reduce((sum, { minutes, from = 0 }) => Math.max(sum, from, away.until) + minutes, 0);
  /** Hands left of those that are there through a whole time. */
  const isAway = (from: number, until: number) => away.from < until && from < away.until;
  const visit = (now: number, ends: ReadonlyMap<string, number>): void => {
    if (now >= best) return;
    if (ends.size === tasks.length) {
      best = Math.min(best, Math.max(0, ...ends.values()));
      return;
    }
    const freeOf = (all: number, needs: (one: TimedTask) => number) =>
      tasks.reduce((left, one) => left - ((ends.get(one.id) ?? 0) > now ? needs(one) : 0), all);
    const needsStrong = ({ id }: TimedTask) => strong?.needs.get(id) ?? 0;
    const free = freeOf(hands, (one) => one.hands);
    const freeStrong = freeOf(strong?.hands ?? 0, needsStrong);
    const ready = tasks.filter(
      ({ id, after, from = 0 }) =>
        !ends.has(id) && from <= now && after.every((name) => (ends.get(name) ?? Infinity) <= now),
    );
    for (let set = 0; set < 2 ** ready.length; set++) {
      const begun = ready.filter((_, i) => (set >> i) & 1);
      const sum = (needs: (one: TimedTask) => number) => begun.reduce((all, one) => all + needs(one), 0);
      if (sum(needsStrong) > freeStrong || sum((one) => one.hands) > free) continue;
      // Who is away is missed by all that goes on meanwhile.
      const going = [...begun, ...tasks.filter(({ id }) => (ends.get(id) ?? 0) > now)];
      const until = (one: TimedTask) => ends.get(one.id) ?? now + one.minutes;
      const isMissed = Array.from({ length: 24 }, (_, at) => now + at).some((at) => {
        const busy = going.filter((one) => one.hands > 0 && until(one) > at);
        return (
          busy.length > 0 &&
          isAway(at, at + 1) &&
          busy.reduce((all, one) => all + one.hands, 0) > hands - away.hands
        );
      });
      if (isMissed) continue;
      visit(
        now + 1,
        new Map([...ends, ...begun.map(({ id, minutes }): [string, number] => [id, now + minutes])]),
      );
    }
  };
  visit(0, new Map());
  return best;
}

const randomTasks = (most: number, longest: number) =>
  fc
    .array(
      fc.record({
        minutes: fc.integer({ min: 1, max: longest }),
        hands: fc.integer({ min: 0, max: 3 }),
        after: fc.array(fc.nat(most), { maxLength: 2 }),
      }),
      { maxLength: most },
    )
    .map((list) =>
      list.map(({ minutes, hands, after }, i) =>
        // After tasks before it in the list only, so that no circle comes about.
        task(`t${i}`, minutes, hands, ...new Set(after.filter((j) => j < i).map((j) => `t${j}`))),
      ),
    );

test('tables first, then modules by two, by hand', () => {
  // Two tables of 10 minutes by one each, three modules of 15 minutes by two each; three hands: one module at a time.
  const tasks = [
    task('table 1', 10, 1),
    task('table 2', 10, 1),
    task('A', 15, 2, 'table 1'),
    task('B', 15, 2, 'table 1'),
    task('C', 15, 2, 'table 2'),
  ];
  const { rows, length, bound } = found(tasks, 3);
  expect([length, bound]).toEqual([10 + 3 * 15, 55]);
  expect(rows.map(({ id }) => id)).toEqual(tasks.map(({ id }) => id));
  // With four hands two modules go on at once: 10 + 15 + 15.
  expect(found(tasks, 4)).toMatchObject({ length: 40, bound: 40 });
});

test('those who come later, and what cannot begin before, by hand', () => {
  const carry = task('carry', 10, 2);
  // Of three hands two come at minute 20.
  const absent = [{ until: 20, hands: 2 }];
  const late = timetableOf([carry, task('sweep', 15, 1)], 3, { absent });
  expect(late).toMatchObject({
    ok: true,
    timetable: { length: 30, bound: 30, rows: [{ start: 20 }, { start: 0 }] },
  });
  const held = timetableOf([{ ...carry, from: 7 }], 2);
  expect(held).toMatchObject({ ok: true, timetable: { length: 17, bound: 17, rows: [{ start: 7 }] } });
});

test('what takes no hands goes on beside everything; nothing to do takes no time', () => {
  expect(found([task('glue dries', 90, 0), task('carry', 30, 1), task('sweep', 20, 1)], 1).length).toBe(90);
  expect(found([], 4)).toEqual({ rows: [], length: 0, bound: 0 });
});

test('circles and tasks for more hands than there are, by name', () => {
  expect(timetableOf([task('A', 5, 1, 'B'), task('B', 5, 1, 'A'), task('C', 5, 1)], 2)).toEqual({
    ok: false,
    reasons: [expect.stringMatching(/circle: (A, B|B, A)\./)],
  });
  expect(timetableOf([task('lift the dome', 5, 5)], 4)).toEqual({
    ok: false,
    reasons: ['lift the dome needs 5 hands; there are 4.'],
  });
  expect(() => timetableOf([task('A', 5, 1, 'X')], 1)).toThrow('task A is after X');
});

test('the shortest of a few tasks is that of brute force, and proven', () => {
  fc.assert(
    fc.property(randomTasks(5, 4), fc.integer({ min: 3, max: 5 }), (tasks, hands) => {
      const { rows, length, bound } = found(tasks, hands);
      expect(timetableFaults(tasks, hands, rows)).toEqual([]);
      expect([length, bound]).toEqual([shortest(tasks, hands), length]);
    }),
    { numRuns: runs(60) },
  );
});

test('many tasks: each timetable holds, its bound is at least the chains and the work, and never above it', () => {
  fc.assert(
    fc.property(randomTasks(60, 90), fc.integer({ min: 3, max: 12 }), (tasks, hands) => {
      const { rows, length, bound } = found(tasks, hands);
      expect(timetableFaults(tasks, hands, rows)).toEqual([]);
      const ends = new Map<string, number>();
      for (const { id, minutes, after } of tasks)
        ends.set(id, minutes + Math.max(0, ...after.map((name) => ends.get(name) ?? 0)));
      const work = tasks.reduce((sum, one) => sum + one.minutes * one.hands, 0);
      expect(bound).toBeGreaterThanOrEqual(Math.max(0, ...ends.values(), Math.ceil(work / hands)));
      expect(length).toBeGreaterThanOrEqual(bound);
    }),
    { numRuns: runs(25) },
  );
});

test('faults of a timetable are found', () => {
  const tasks = [task('A', 5, 2), task('B', 5, 2, 'A')];
  expect(
    timetableFaults(tasks, 3, [
      { id: 'A', start: 0, end: 6 },
      { id: 'B', start: 4, end: 9 },
    ]),
  ).toEqual(['A takes 6 min instead of 5.', 'B begins before A ends.', '4 hands at minute 4; there are 3.']);
});

test('with hands away for a while, tasks held back and tasks for the strong the shortest is that of brute force', () => {
  const later = fc.record({
    from: fc.integer({ min: 0, max: 6 }),
    long: fc.integer({ min: 0, max: 6 }),
    hands: fc.integer({ min: 0, max: 2 }),
  });
  fc.assert(
    fc.property(
      randomTasks(4, 4),
      fc.array(fc.nat(5), { minLength: 4, maxLength: 4 }),
      fc.integer({ min: 3, max: 5 }),
      later,
      fc.constantFrom(0, 9),
      fc.tuple(fc.integer({ min: 1, max: 3 }), fc.nat(15)),
      (plain, froms, hands, one, extra, [strongHands, which]) => {
        const tasks = plain.map((task, i) => ({ ...task, from: froms[i] ?? 0 }));
        // More hands may be busy at first than there are.
        const away = { from: one.from, until: one.from + one.long, hands: one.hands + extra };
        const absent = one.long > 0 ? [away] : [];
        const needs = new Map(
          tasks.flatMap(({ id, hands: count }, i) =>
            (which >> i) & 1 && count > 0 ? [[id, Math.min(count, strongHands)] as const] : [],
          ),
        );
        const strong: Pool = { hands: strongHands, needs, absent: [] };
        const answer = timetableOf(tasks, hands, { absent, pools: [strong] });
        if (!answer.ok) throw new Error(answer.reasons.join());
        const { rows, length, bound } = answer.timetable;
        expect(timetableFaults(tasks, hands, rows, { absent, pools: [strong] })).toEqual([]);
        expect([length, bound]).toEqual([shortest(tasks, hands, away, strong), length]);
      },
    ),
    { numRuns: runs(60) },
  );
});
