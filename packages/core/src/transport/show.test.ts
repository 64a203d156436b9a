import fc from 'fast-check';
import { runs } from '../../test/runs.ts';
import { idFor, sceneFrom } from '../document/index.ts';
import { compileRelief } from '../terrain/index.ts';
import {
  choreId,
  crated,
  dayPlanOf,
  handsOfShow,
  handsToCarry,
  loadPlanOf,
  loadProgress,
  packingFaults,
  packItemOf,
  showOf,
  showTasks,
  stoppedUnits,
  tripsOf,
  type Content,
  type CrateSize,
  type ShowTask,
} from './index.ts';

type Given = Parameters<typeof sceneFrom>[0];
/** Two modules of 48 × 48 studs on two tables, a house whose roof lifts off, three figures; a van, boxes, two people. */
const given = (): Given & { chores: object[]; handlings: object[] } => ({
  display: {
    ...{ name: 'Quay', kind: 'diorama', place: 'home', showPlace: 'hall' },
    ...{ accessFrom: '08:00', opensAt: '10:00', loadGap: 10 },
  },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 96, d: 48, level: 'low', ground: 'paving' }],
  places: [
    { id: 'home', name: 'Home', walls: [], sceneX: 0, sceneY: 0 },
    { id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0, carryMetres: 50 },
  ],
  tables: ['a', 'b'].map((id, i) => ({
    ...{ id: `t${id}`, name: `Table ${id}`, x: 384 * i, y: 0, w: 384, d: 384, place: 'hall' },
  })),
  modules: ['a', 'b'].map((id, i) => ({
    ...{ id, name: id.toUpperCase(), x: 48 * i, y: 0, w: 48, d: 48 },
    bases: [{ x: 48 * i, y: 0, w: 48, d: 48 }],
  })),
  plots: [
    {
      ...{ id: 'h', name: 'House', x: 8, y: 8, w: 16, d: 12, height: 24 },
      parts: [{ name: 'roof', height: 9 }],
    },
  ],
  figures: [{ id: 'q', name: 'Queue', x: 60, y: 20, cast: 3 }],
  passages: [
    {
      ...{ id: 'van', name: 'van', kind: 'vehicle', width: 800, height: 1000, order: 1, maxKg: 300 },
      ...{ insideW: 1200, insideD: 1500, insideH: 1100, trips: 1 },
    },
    { id: 'door', name: 'hall door', kind: 'door', width: 700, height: 2000, order: 2 },
  ],
  people: ['Ada', 'Bob'].map((name) => ({ id: name.toLowerCase(), name, initials: name[0] })),
  crates: [
    { id: 'box', name: 'Box', count: 2, insideW: 200, insideD: 150, insideH: 60, padding: 5, ownKg: 0.5 },
    { id: 'tub', name: 'Tub', count: 1, insideW: 400, insideD: 300, insideH: 200, padding: 5, ownKg: 1 },
  ],
  cargoes: [{ id: 'cloth', name: 'Cloth', w: 300, d: 300, h: 100, kg: 3, needed: 'first' }],
  chores: [],
  handlings: [],
});
const shown = (set: (file: ReturnType<typeof given>) => void = () => undefined) => {
  const file = given();
  set(file);
  const scene = sceneFrom(file);
  return showOf(scene, compileRelief(scene));
};
const setUp = (show: ReturnType<typeof shown>) => showTasks(show.scene, show.shipment, show.order, 'setup');

test('what is loaded, by hand: modules bare, roof and figures each in the smallest box, the cloth as it is', () => {
  const { shipment } = shown();
  // The roof is 128 × 96 × 28.8 mm less play: with 5 mm of padding it fits the box of 200 × 150 × 60. Three figures of
  // 24 mm stand as 2 × 2: 48 × 48 × 48, and 5 on top is 53 of 60.
  expect(shipment.units.map(({ key, order }) => [key, order])).toEqual([
    ['module-a', 10],
    ['module-b', 10],
    ['crate-box-1', 1000],
    ['crate-box-2', 2000],
    ['cargo-cloth-1', 1],
  ]);
  const [roof, queue] = shipment.units.filter(({ holds }) => holds.length > 0);
  expect(roof.holds.map(({ key }) => key)).toEqual(['part-h-1']);
  expect(roof.grams).toBeCloseTo(500 + roof.holds[0].grams, 6);
  // 3 mm of wall on each side; three figures of 4 g.
  expect(queue).toMatchObject({
    w: 206,
    d: 156,
    h: 66,
    grams: 500 + 12,
    name: 'Box 2, trees and figures, no section',
  });
  expect(shipment.uncrated).toEqual([]);
});

test('laid down it is as flat as it goes; a crate that is chosen is taken, and none where it travels bare', () => {
  const of = (handling: object) =>
    shown((file) => file.handlings.push({ id: 'x', piece: 'part-h-1', ...handling })).shipment.units;
  const upright = of({ packing: 'bare' }).find(({ key }) => key === 'part-h-1');
  const lying = of({ packing: 'bare', lying: true }).find(({ key }) => key === 'part-h-1');
  const sizes = [upright?.w ?? 0, upright?.d ?? 0, upright?.h ?? 0].sort((a, b) => b - a);
  expect([lying?.w, lying?.d, lying?.h]).toEqual(sizes);
  const inTub = of({ packing: 'crate', crate: 'tub' }).find(({ key }) => key === 'crate-tub-1');
  expect(inTub?.holds.map(({ key }) => key)).toEqual(['part-h-1']);
});

test('the load: what is needed first is nearest to the door, and a van that is too low takes nothing over it', () => {
  const { shipment } = shown();
  let time = 0;
  const plan = loadPlanOf(shipment, { seconds: 1, now: () => (time += 10) });
  expect(plan).toMatchObject({ bound: 1, left: [], tooLarge: [], isInOrder: true });
  const [{ placed, grams, left, rear }] = plan.trips;
  expect(placed).toHaveLength(5);
  expect(grams).toBeCloseTo(
    shipment.units.reduce((sum, unit) => sum + unit.grams, 0),
    6,
  );
  expect(left).toBeGreaterThan(0);
  expect(rear).toBeLessThan(1);
  const items = shipment.units.map((unit) => packItemOf(unit, shipment.gap));
  const back = placed.map(({ x, y, w, d, ...one }) => ({ ...one, x: x - 5, y: y - 5, w: w + 10, d: d + 10 }));
  expect(
    packingFaults(
      items,
      tripsOf(shipment.carriers).map(({ carrier }) => carrier.space),
      back,
    ),
  ).toEqual([]);
  // Its door is 800 wide in the middle of 1,200; nothing stands higher than the door.
  expect(shipment.carriers[0].space).toMatchObject({ h: 1000, door: { x: 200, w: 800 }, maxMass: 300_000 });
});

test('what is in, what has arrived, and what is missing at the place', () => {
  const units = (handlings: object[]) =>
    loadProgress(shown((file) => file.handlings.push(...handlings)).shipment.units);
  const [loaded, arrived] = ['2031-10-01T06:00:00Z', '2031-10-01T07:30:00Z'];
  expect(units([{ id: 'x', piece: 'module-a', loaded }])).toEqual({ loaded: 1, arrived: 0, missing: [] });
  const at = units([
    { id: 'x', piece: 'module-a', loaded, arrived },
    { id: 'y', piece: 'cargo-cloth-1', arrived },
    { id: 'z', piece: 'crate-box-1', loaded },
  ]);
  expect([at.loaded, at.arrived]).toEqual([3, 2]);
  expect(at.missing.map(({ key }) => key)).toEqual(['module-b', 'crate-box-1', 'crate-box-2']);
});

test('a table goes through a lift on its edge; a module does not', () => {
  const show = shown((file) => {
    Object.assign(file.cargoes?.[0] ?? {}, { w: 1200, d: 600, h: 60 });
    file.passages?.push({
      ...{ id: 'lift', name: 'lift', kind: 'lift', width: 300, height: 2000, order: 3 },
      ...{ insideW: 300, insideD: 1300, insideH: 2000 },
    });
  });
  // On its edge the table is 60 × 1,200 on the floor and 600 tall.
  expect(
    stoppedUnits(show.scene, show.shipment.units).map(({ unit, passage }) => [unit.key, passage.name]),
  ).toEqual([
    ['module-a', 'lift'],
    ['module-b', 'lift'],
  ]);
});

test('tasks of setting up, by hand: 50 m there and back at 50 m a minute, a door, one to load', () => {
  const tasks = setUp(shown());
  const of = (key: string) => tasks.find((task) => task.key === key);
  // 1 + 0.5 + 2 × 50 ÷ 50 = 3.5 min; a module 3 more.
  expect(of('carry cargo-cloth-1')).toMatchObject({ minutes: 4, hands: 1, after: [] });
  expect(of('table ta')).toMatchObject({ minutes: 4, hands: 2, after: ['carry cargo-cloth-1'] });
  expect(of('module a')?.minutes).toBe(7);
  expect(of('module a')?.after).toEqual(
    expect.arrayContaining(['table ta', 'table tb', 'carry cargo-cloth-1']),
  );
  expect(of('pin a b')?.after.toSorted()).toEqual(['module a', 'module b']);
  expect(of('part h 0')?.after).toEqual(expect.arrayContaining(['module a', 'carry crate-box-1']));
  // Three figures are one small scene.
  expect(of('dressing b')).toMatchObject({ canDrop: true, minutes: 1 });
});

test('what is typed of a task counts; what is left out passes on what it waited for; taking down goes backwards', () => {
  const chore = (key: string, more: object) => ({
    ...{ id: choreId('setup', key), name: key, task: key },
    ...more,
  });
  const tasks = setUp(
    shown((file) =>
      file.chores.push(chore('table ta', { minutes: 9, hands: 1 }), chore('pin a b', { dropped: true }), {
        id: 'own',
        name: 'Lamps',
        turn: 'modules',
        minutes: 5,
      }),
    ),
  );
  expect(tasks.find(({ key }) => key === 'table ta')).toMatchObject({ minutes: 9, hands: 1, isGuess: false });
  expect(tasks.find(({ key }) => key === 'own own')?.after.toSorted()).toEqual(['module a', 'module b']);
  const { scene, shipment, order } = shown();
  const down = showTasks(scene, shipment, order, 'takedown');
  expect(down.find(({ key }) => key === 'module a')?.after).toEqual(
    expect.arrayContaining(['pin a b', 'part h 0']),
  );
  expect(down.find(({ key }) => key === 'table ta')?.after.toSorted()).toEqual(['module a', 'module b']);
});

const lift = (one: number, two: number) => ({ one: { index: one }, two: { index: two } });
test.each([
  [lift(0.9, 0.5), 800, 1],
  [lift(0.9, 0.5), 1200, 2],
  [lift(1.1, 0.6), 800, 2],
  [lift(2.6, 1.3), 800, 3],
  [lift(30, 15), 800, 8],
])('hands to carry by the lift index and the length', (index, length, hands) => {
  expect(handsToCarry(index, length)).toBe(hands);
});

const task = (
  key: string,
  minutes: number,
  hands: number,
  after: string[] = [],
  more: Partial<ShowTask> = {},
): ShowTask => ({
  ...{ key, title: key, minutes, hands, after, isOwn: false, isGuess: false, canDrop: false },
  ...{ chore: null, owner: null },
  ...more,
});
const chore = (began: number | null, ended: number | null, dropped = false): ShowTask['chore'] => {
  const at = (minute: number | null) => (minute === null ? null : new Date(minute * 60_000).toISOString());
  return {
    ...{ id: 'c', v: 1, name: 'c', phase: 'setup', task: 'c', turn: 'last', minutes: null, hands: null },
    ...{ dropped, began: at(began), ended: at(ended) },
  };
};
const helpers = [
  { id: 'ada', arrives: 0 },
  { id: 'bob', arrives: 0 },
];
const planned = (tasks: ShowTask[], now: number | null, until = 1000) => {
  const answer = dayPlanOf(tasks, helpers, { now, origin: 0, until });
  if (!answer.ok) throw new Error(answer.reasons.join(' '));
  return answer.plan;
};

test('a day by hand, and planned again when it slips by twenty minutes', () => {
  const tasks = [
    task('tables', 10, 2),
    task('A', 15, 2, ['tables']),
    task('signs', 10, 1, ['tables']),
    task('lamps', 5, 1, ['A']),
  ];
  // Both hands: 10 + 15, and the lamps beside the signs: 10.
  expect(planned(tasks, null)).toMatchObject({ ready: 35, bound: 35 });
  // The tables took 30 instead of 10.
  const late = tasks.map((one) => (one.key === 'tables' ? { ...one, chore: chore(0, 30) } : one));
  const again = planned(late, 30);
  expect([again.ready, again.bound]).toEqual([55, 55]);
  expect(again.rows.find(({ key }) => key === 'tables')).toMatchObject({ start: 0, end: 30, state: 'over' });
  // The module was begun at 30 and is not over at 50: it ends now at the earliest.
  const slow = late.map((one) => (one.key === 'A' ? { ...one, chore: chore(30, null) } : one));
  expect(planned(slow, 50).rows.find(({ key }) => key === 'A')).toMatchObject({ end: 50, state: 'runs' });
  expect(planned(slow, 50).ready).toBe(60);
  // What was done at a rehearsal the day before is to be done again.
  const before = tasks.map((one) => ({ ...one, chore: chore(-24 * 60, -24 * 60 + 10) }));
  expect(planned(before, null).ready).toBe(35);
});

test('what makes it ready in time when it is left out; nobody comes; too few for a task', () => {
  const tasks = [
    task('tables', 10, 2),
    task('trees', 30, 2, ['tables'], { canDrop: true }),
    task('lamps', 5, 1, ['trees']),
  ];
  const plan = planned(tasks, null, 20);
  expect(plan).toMatchObject({ ready: 45, drops: [{ key: 'trees', ready: 15 }] });
  expect(dayPlanOf(tasks, [], { now: null, origin: 0, until: 20 })).toMatchObject({ ok: false });
  expect(dayPlanOf([task('dome', 5, 3)], helpers, { now: null, origin: 0, until: 20 })).toEqual({
    ok: false,
    reasons: ['dome needs 3 hands; there are 2.'],
  });
});

test('people who come, and when', () => {
  const scene = sceneFrom({
    ...given(),
    people: [
      { id: 'ada', name: 'Ada', initials: 'A', arrives: '08:45' },
      { id: 'bob', name: 'Bob', initials: 'B', comes: false },
      { id: 'cy', name: 'Cy', initials: 'C', arrives: '07:00' },
    ],
  });
  expect(handsOfShow(scene, '08:00')).toEqual([
    { id: 'cy', name: 'Cy', arrives: 0 },
    { id: 'ada', name: 'Ada', arrives: 45 },
  ]);
});

const randomDay = fc.array(
  fc.record({
    minutes: fc.integer({ min: 1, max: 20 }),
    hands: fc.integer({ min: 0, max: 2 }),
    after: fc.array(fc.nat(12), { maxLength: 2 }),
    state: fc.constantFrom('waits', 'waits', 'over', 'runs', 'dropped'),
  }),
  { maxLength: 12 },
);
test('random days half done: nobody is in two places, nothing to come begins too early, slack is no more than there is', () => {
  fc.assert(
    fc.property(
      randomDay,
      fc.integer({ min: 0, max: 40 }),
      fc.integer({ min: 0, max: 30 }),
      (list, now, arrives) => {
        const tasks = list.map(({ minutes, hands, after, state }, i) => {
          const known = {
            waits: null,
            over: chore(Math.max(0, now - minutes), now),
            runs: chore(now, null),
            dropped: chore(null, null, true),
          }[state];
          return task(`t${i}`, minutes, hands, [...new Set(after.filter((j) => j < i).map((j) => `t${j}`))], {
            chore: known,
          });
        });
        // What is left out is passed over before the day is planned.
        const known = tasks.map((one) => ({
          ...one,
          after: one.after.filter((key) => !tasks.find((other) => other.key === key)?.chore?.dropped),
        }));
        const people = [...helpers, { id: 'cy', arrives }];
        const answer = dayPlanOf(known, people, { now, origin: 0, until: 10_000 });
        if (!answer.ok) throw new Error(answer.reasons.join());
        const { rows, ready, bound } = answer.plan;
        expect(bound).toBeLessThanOrEqual(ready);
        const rowOf = new Map(rows.map((row) => [row.key, row]));
        const waiting = rows.filter(({ state }) => state === 'waits');
        for (const row of waiting) {
          const one = known.find(({ key }) => key === row.key);
          expect(row.start).toBeGreaterThanOrEqual(now);
          expect(row.people).toHaveLength(one?.hands ?? 0);
          for (const key of one?.after ?? [])
            expect(row.start).toBeGreaterThanOrEqual(rowOf.get(key)?.end ?? Infinity);
          for (const id of row.people) {
            expect(people.find((person) => person.id === id)?.arrives ?? 0).toBeLessThanOrEqual(row.start);
            const others = waiting.filter((other) => other !== row && other.people.includes(id));
            for (const other of others) expect(other.end <= row.start || other.start >= row.end).toBe(true);
          }
          expect(row.end + row.slack).toBeLessThanOrEqual(ready);
        }
      },
    ),
    { numRuns: runs(60) },
  );
});

test('things stand in rows in a crate, by hand', () => {
  const things = Array.from({ length: 5 }, (_, i): Content => ({
    ...{ key: `c${i}`, name: `c${i}`, ref: { kind: 'figure', id: `c${i}` }, count: 1, bears: 0, order: 1 },
    ...{ w: 50, d: 100, h: 40, grams: 10 },
  }));
  const crate: CrateSize = {
    ...{
      id: 'k',
      v: 1,
      name: 'K',
      wall: 0,
      padding: 0,
      maxKg: null,
      ownKg: 0,
      bearsKg: 0,
      count: 9,
      left: 9,
    },
    ...{ insideW: 240, insideD: 100, insideH: 40 },
  };
  const filled = (size: Partial<CrateSize>) =>
    crated(things, [{ ...crate, ...size }], () => null, null).crates.map(({ holds }) => holds.length);
  // Two rows of two, each 100 × 50; 40 mm beside them are too few for one more.
  expect(filled({})).toEqual([4, 1]);
  // 5 mm of padding make them 110 × 60: two in one row, and 40 mm behind it.
  expect(filled({ padding: 5, insideH: 45 })).toEqual([2, 2, 1]);
  expect(filled({ insideH: 39 })).toEqual([]);
  expect(filled({ maxKg: 0.025 })).toEqual([2, 2, 1]);
});

const side = fc.integer({ min: 10, max: 300 });
test('random crates: each thing is in one crate or left, no crate is overfull, no more are filled than there are', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ w: side, d: side, h: side, grams: fc.integer({ min: 1, max: 3000 }) }), {
        maxLength: 14,
      }),
      fc.array(
        fc.record({ insideW: side, insideD: side, insideH: side, count: fc.integer({ min: 1, max: 3 }) }),
        { maxLength: 3 },
      ),
      (things, sizes) => {
        const contents = things.map((thing, i): Content => ({
          ...{
            key: `c${i}`,
            name: `c${i}`,
            ref: { kind: 'figure', id: `c${i}` },
            count: 1,
            bears: 0,
            order: 1,
          },
          ...thing,
        }));
        const crates = sizes.map((size, i): CrateSize => ({
          ...{ id: `k${i}`, v: 1, name: `k${i}`, wall: 2, padding: 3, maxKg: 5, ownKg: 1, bearsKg: 0 },
          ...{ ...size, left: size.count },
        }));
        const full = crated(contents, crates, () => null, null);
        const inside = full.crates.flatMap(({ holds }) => holds.map(({ key }) => key));
        expect([...inside, ...full.left.map(({ key }) => key)].toSorted()).toEqual(
          contents.map(({ key }) => key).toSorted(),
        );
        for (const { key, holds, grams } of full.crates) {
          const crate = crates.find(({ id }) => key.startsWith(`crate-${id}-`));
          const area = holds.reduce((sum, { w, d }) => sum + (w + 6) * (d + 6), 0);
          expect(area).toBeLessThanOrEqual((crate?.insideW ?? 0) * (crate?.insideD ?? 0) + 1e-6);
          expect(Math.max(...holds.map(({ h }) => h + 3))).toBeLessThanOrEqual(crate?.insideH ?? 0);
          expect(grams - 1000).toBeLessThanOrEqual(5000);
          expect(grams).toBe(1000 + holds.reduce((sum, one) => sum + one.grams, 0));
        }
        for (const { id, count, left } of crates)
          expect(full.crates.filter(({ key }) => key.startsWith(`crate-${id}-`))).toHaveLength(count - left);
        // What is left fits into no crate that is still empty.
        for (const { w, d, h, grams } of full.left)
          for (const { insideW, insideD, insideH, left } of crates)
            if (left > 0 && grams <= 5000 && h + 3 <= insideH)
              expect((w + 6 <= insideW && d + 6 <= insideD) || (d + 6 <= insideW && w + 6 <= insideD)).toBe(
                false,
              );
      },
    ),
    { numRuns: runs(60) },
  );
});

test('the id of what has a key: FNV-1a of “a” in 64 bits is af63dc4c8601ec8c (published test vector, from memory)', () => {
  expect(idFor('x', 'a')).toBe(`x-${0xaf63dc4c8601ec8cn.toString(36)}`);
});

test('each cable that feeds something is joined once all modules stand: 2 min, and half for each connector', () => {
  const file = {
    ...given(),
    supplies: [{ id: 's', name: 'Cell', x: 0, y: 0, type: 'battery' as const }],
    circuits: [
      { id: 'c', name: 'Lamps', supply: 's', connectors: [48, 60, 72, 84].map((x) => ({ x, y: 4 })) },
      { id: 'd', name: 'Signs', supply: 's', essential: true },
      { id: 'e', name: 'Nothing', supply: 's' },
      { id: 'f', name: 'Loose' },
    ],
    devices: ['c', 'd', 'f'].map((circuit) => ({ id: circuit, name: circuit, x: 4, y: 4, circuit })),
  };
  const scene = sceneFrom(file);
  const { shipment, order } = showOf(scene, compileRelief(scene));
  const tasks = showTasks(scene, shipment, order, 'setup').filter(({ key }) => key.startsWith('circuit '));
  expect(tasks.map(({ title, minutes, canDrop }) => [title, minutes, canDrop])).toEqual([
    ['Connect Lamps', 4, true],
    ['Connect Signs', 2, false],
  ]);
  expect(tasks[0].after).toEqual(['module a', 'module b']);
  const back = showTasks(scene, shipment, order, 'takedown');
  expect(back.find(({ key }) => key === 'module a')?.after).toContain('circuit c');
});
