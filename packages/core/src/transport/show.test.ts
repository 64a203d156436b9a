import fc from 'fast-check';
import { runs } from '../../test/runs.ts';
import { idFor, reduce, sceneFrom } from '../document/index.ts';
import { compileRelief } from '../terrain/index.ts';
import {
  choreId,
  crated,
  dayBoundOf,
  dayPlanOf,
  furtherShows,
  handsToCarry,
  helpersOf,
  loadPlanOf,
  loadProgress,
  packingFaults,
  packItemOf,
  nightsOf,
  phaseTimes,
  phasesOf,
  prepareShow,
  showDiary,
  showOf,
  showTasks,
  stoppedUnits,
  tasksOfPhase,
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
const shownAt = (set: (file: ReturnType<typeof given>) => void) => {
  const file = given();
  set(file);
  const scene = sceneFrom(file);
  const relief = compileRelief(scene);
  return { ...showOf(scene, relief), scene, relief };
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

test('a cast with a cart travels as large as both: ten that stand 4 × 3, and the cart before them', () => {
  const { shipment } = shown((file) =>
    Object.assign(file, {
      characters: [
        { id: 'cart', name: 'Cart', form: 'vehicle' },
        { id: 'tam', name: 'Tam', crewOf: 'cart' },
        { id: 'row', name: 'Row', count: 8 },
        { id: 'dog', name: 'Dog', form: 'animal' },
      ],
      figures: [
        {
          ...{ id: 'q', name: 'Queue', x: 60, y: 20 },
          spots: [{ character: 'cart' }, { character: 'row' }, { character: 'dog' }],
        },
      ],
    }),
  );
  const cast = shipment.units.flatMap(({ holds }) => holds).find(({ key }) => key === 'figure-q');
  // Four of 24 mm are 96, three rows 72 and the cart of 40; ten of 4 g and one of 40.
  expect(cast).toMatchObject({ w: 96, d: 72 + 40, h: 48, grams: 80, count: 11 });
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
  ...{ key, title: key, minutes, hands, kg: 0, after, isOwn: false, isGuess: false, canDrop: false },
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
  { id: 'ada', arrives: 0, carriesKg: null },
  { id: 'bob', arrives: 0, carriesKg: null },
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
  expect(helpersOf(scene, 'setup').map(({ name, arrives }) => [name, arrives])).toEqual([
    ['Cy', 0],
    ['Ada', 45],
  ]);
});

test('the hours of a show of two days with an evening before, by hand', () => {
  const scene = sceneFrom({
    ...given(),
    display: {
      ...given().display,
      ...{ showDays: 2, eveFrom: '19:00', eveTo: '22:00', closesAt: '17:00', clearBy: '19:00' },
      ...{ morrowFrom: '08:00', driveMinutes: 15, leaveFrom: '14:00', rebuildFrom: '10:00' },
    },
    people: [
      { id: 'ada', name: 'Ada', initials: 'A', arrives: '20:00' },
      { id: 'bob', name: 'Bob', initials: 'B', eve: false, arrives: '08:30' },
      { id: 'cy', name: 'Cy', initials: 'C', eve: false },
    ],
  });
  // 19:00 to 22:00 is 180 min; 08:00 is 13 h = 780 min after 19:00, visitors come at 10:00.
  expect(phaseTimes(scene, 'setup')).toEqual({
    ...{ day: -1, from: '19:00', to: '10:00', until: 900, isGuess: false },
    windows: [
      { start: 0, end: 180 },
      { start: 780, end: 900 },
    ],
  });
  // On the second day from 17:00; 08:00 is 900 min later, until noon by guess.
  expect(phaseTimes(scene, 'takedown')).toMatchObject({
    ...{ day: 1, from: '17:00', to: '12:00', until: 1140, isGuess: true },
    windows: [
      { start: 0, end: 120 },
      { start: 900, end: 1140 },
    ],
  });
  // A quarter of an hour before 19:00 the vehicle leaves.
  expect(phaseTimes(scene, 'leave')).toMatchObject({ day: -1, from: '14:00', to: '18:45', until: 285 });
  // Back at 12:15 of the day after: 10:00 is on the next one.
  expect(phaseTimes(scene, 'rebuild')).toMatchObject({ day: 3, from: '10:00', to: '20:00', until: 600 });
  expect(nightsOf(scene)).toBe(3);
  expect(helpersOf(scene, 'setup').map(({ name, arrives }) => [name, arrives])).toEqual([
    ['Ada', 60],
    ['Cy', 780],
    ['Bob', 810],
  ]);
  const late = sceneFrom({
    ...given(),
    display: { ...given().display, closesAt: '22:00', clearBy: '01:30' },
  });
  expect(phaseTimes(late, 'takedown')).toMatchObject({ day: 0, until: 210, to: '01:30' });
});

test('packing at home and standing there again, by hand: no tables, the way of home', () => {
  const { scene, order, shipment, relief } = shownAt((file) => {
    Object.assign(file.places?.[0] ?? {}, { carryMetres: 25 });
    file.passages?.push({
      id: 'step',
      name: 'step',
      kind: 'stair',
      width: 900,
      height: 2000,
      order: 0,
      place: 'home',
    });
  });
  expect(phasesOf(scene)).toEqual(['leave', 'setup', 'takedown', 'rebuild']);
  const show = { scene, order, shipment };
  const [leave, rebuild] = (['leave', 'rebuild'] as const).map((phase) =>
    tasksOfPhase(scene, relief, show, phase),
  );
  expect(leave.map(({ key }) => key).toSorted()).toEqual(rebuild.map(({ key }) => key).toSorted());
  expect(leave.filter(({ key }) => /^(table|barrier)/.test(key))).toEqual([]);
  // 1 to load, 2 for the stair, 2 × 25 ÷ 50 of way: 4 min; a module 3 more.
  expect(rebuild.find(({ key }) => key === 'carry cargo-cloth-1')?.minutes).toBe(4);
  expect(rebuild.find(({ key }) => key === 'module a')?.minutes).toBe(7);
  expect(leave.find(({ key }) => key === 'module a')?.after).toContain('part h 0');
  expect(rebuild.find(({ key }) => key === 'part h 0')?.after).toContain('module a');
});

test('a crate on wheels is rolled by one, except over a stair', () => {
  const carry = (set: (file: ReturnType<typeof given>) => void) =>
    setUp(
      shown((file) => {
        Object.assign(file.crates?.[0] ?? {}, { ownKg: 60, wheels: true });
        set(file);
      }),
    ).find(({ key }) => key === 'carry crate-box-1');
  expect(carry(() => undefined)).toMatchObject({ title: 'Roll Box 1', hands: 1, kg: 0 });
  const carried = carry((file) =>
    file.passages?.push({ id: 'stair', name: 'stair', kind: 'stair', width: 900, height: 2200, order: 3 }),
  );
  expect(carried?.title).toBe('Carry Box 1');
  expect(carried?.hands).toBeGreaterThan(1);
  expect(carried?.kg).toBeGreaterThan(60);
});

test('who carries at most 10 kg takes no end of 30, and what takes two of those who do waits for them', () => {
  const team = [
    { id: 'ada', arrives: 0, carriesKg: 10 },
    { id: 'bob', arrives: 0, carriesKg: null },
    { id: 'cy', arrives: 30, carriesKg: 20 },
  ];
  const heavy = task('heavy', 10, 2, [], { kg: 30 });
  const answer = dayPlanOf([heavy, task('light', 5, 1, [], { kg: 4 })], team, {
    now: null,
    origin: 0,
    until: 99,
  });
  if (!answer.ok) throw new Error(answer.reasons.join());
  // 15 kg each: Bob and Cy, who comes at minute 30; the light one is Ada’s meanwhile.
  expect(answer.plan).toMatchObject({ ready: 40, bound: 40 });
  const [first, second] = answer.plan.rows;
  expect([first.start, first.people.toSorted(), second.people]).toEqual([30, ['bob', 'cy'], ['ada']]);
  // Of 60 kg each bears 30: only Bob does.
  expect(dayPlanOf([{ ...heavy, kg: 60 }], team, { now: null, origin: 0, until: 99 })).toEqual({
    ok: false,
    reasons: ['heavy needs 2 hands that are strong enough for it; there is 1.'],
  });
});

test('nothing that takes hands goes on in the night; glue dries', () => {
  const closed = [{ from: 30, until: 600 }];
  const answer = dayPlanOf([task('A', 20, 2), task('glue', 40, 0, ['A']), task('B', 20, 2, ['A'])], helpers, {
    now: null,
    origin: 0,
    until: 640,
    closed,
  });
  if (!answer.ok) throw new Error(answer.reasons.join());
  expect(answer.plan.rows.map(({ start, end }) => [start, end])).toEqual([
    [0, 20],
    [20, 60],
    [600, 620],
  ]);
  expect(answer.plan).toMatchObject({ ready: 620, bound: 620 });
});

const randomDay = fc.array(
  fc.record({
    kg: fc.constantFrom(0, 0, 8, 14, 30),
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
      fc.array(fc.constantFrom(null, 10, 20), { minLength: 3, maxLength: 3 }),
      fc.option(fc.record({ from: fc.integer({ min: 0, max: 60 }), long: fc.integer({ min: 1, max: 60 }) })),
      (list, now, arrives, limits, night) => {
        const closed = night ? [{ from: night.from, until: night.from + night.long }] : [];
        const tasks = list.map(({ minutes, hands, after, state, kg }, i) => {
          const known = {
            waits: null,
            over: chore(Math.max(0, now - minutes), now),
            runs: chore(now, null),
            dropped: chore(null, null, true),
          }[state];
          return task(`t${i}`, minutes, hands, [...new Set(after.filter((j) => j < i).map((j) => `t${j}`))], {
            chore: known,
            kg,
          });
        });
        // What is left out is passed over before the day is planned.
        const known = tasks.map((one) => ({
          ...one,
          after: one.after.filter((key) => !tasks.find((other) => other.key === key)?.chore?.dropped),
        }));
        const people = [...helpers, { id: 'cy', arrives, carriesKg: null }].map((one, i) => ({
          ...one,
          carriesKg: limits[i],
        }));
        const answer = dayPlanOf(known, people, { now, origin: 0, until: 10_000, closed });
        const canDo = ({ kg, hands }: ShowTask, { carriesKg }: (typeof people)[number]) =>
          hands === 0 || carriesKg === null || kg / hands <= carriesKg;
        const waits = known.filter(({ chore: is }) => is === null);
        const isShort = waits.some((one) => people.filter((person) => canDo(one, person)).length < one.hands);
        expect(answer.ok).toBe(!isShort);
        if (!answer.ok) return;
        const { rows, ready, bound } = answer.plan;
        expect(bound).toBeLessThanOrEqual(ready);
        const rowOf = new Map(rows.map((row) => [row.key, row]));
        const waiting = rows.filter(({ state }) => state === 'waits');
        for (const row of waiting) {
          const one = known.find(({ key }) => key === row.key);
          expect(row.start).toBeGreaterThanOrEqual(now);
          expect(row.people).toHaveLength(one?.hands ?? 0);
          for (const person of people)
            if (one && row.people.includes(person.id)) expect(canDo(one, person)).toBe(true);
          if (one && one.hands > 0)
            for (const { from, until } of closed) expect(row.end <= from || row.start >= until).toBe(true);
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
      wheels: false,
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
          ...{
            id: `k${i}`,
            v: 1,
            name: `k${i}`,
            wall: 2,
            padding: 3,
            maxKg: 5,
            ownKg: 1,
            bearsKg: 0,
            wheels: false,
          },
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

test('another show is prepared and the first again: everything as it was, but for what the clock taught', () => {
  const [began, ended] = ['2031-10-01T08:00:00.000Z', '2031-10-01T08:12:20.000Z'];
  const scene = sceneFrom({
    ...given(),
    display: { ...given().display, showName: 'Autumn', showDate: '2031-10-01', showDays: 2 },
    milestones: [
      {
        ...{ id: 'w', name: 'Winter', date: '2031-12-06', show: true, place: 'home', opensAt: '09:00' },
        promises: [{ of: 'task', thing: 'lamps' }],
      },
      { id: 'm', name: 'Ground closed', date: '2031-09-01' },
    ],
    handlings: [{ id: 'x', piece: 'module-a', loaded: began, arrived: ended, lying: true }],
    chores: [
      { id: choreId('setup', 'table ta'), name: 'Table a', task: 'table ta', began, ended },
      { id: choreId('setup', 'table tb'), name: 'Table b', task: 'table tb', minutes: 9, began, ended },
      { id: 'own', name: 'Sweep', began },
    ],
  });
  const apply = (of: typeof scene, id: string) => {
    const answer = reduce(of, prepareShow(of, id));
    if (!answer.ok) throw new Error(answer.refusal.sentence);
    return answer.scene;
  };
  const winter = apply(scene, 'w');
  expect(winter.display.display).toMatchObject({
    ...{ showName: 'Winter', showDate: '2031-12-06', showPlace: 'home', showDays: 1 },
    ...{ opensAt: '09:00', accessFrom: null },
  });
  expect(winter.milestone.w).toMatchObject({
    ...{ name: 'Autumn', date: '2031-10-01', place: 'hall', showDays: 2, opensAt: '10:00', show: true },
  });
  // What was promised for that day is promised for it still.
  const promised = (of: typeof scene) =>
    Object.values(of.milestone).flatMap(({ date, promises }) => promises.map(({ thing }) => [date, thing]));
  expect(promised(winter)).toEqual([['2031-12-06', 'lamps']]);
  expect(winter.handling.x).toMatchObject({ loaded: null, arrived: null, lying: true });
  // 12 min 20 s; what was typed stays, and what was never ended teaches nothing.
  expect(Object.values(winter.chore).map((one) => [one.began, one.ended, one.minutes])).toEqual(
    expect.arrayContaining([
      [null, null, 12],
      [null, null, 9],
      [null, null, null],
    ]),
  );
  const back = apply(winter, 'w');
  const plain = ({ v: _v, ...fields }: { v: number }) => fields;
  expect(plain(back.display.display)).toEqual(plain(scene.display.display));
  expect(plain(back.milestone.w)).toEqual({ ...plain(scene.milestone.w), promises: [] });
  expect(promised(back)).toEqual(promised(scene));
  expect(prepareShow(scene, 'm')).toEqual([]);
  expect(furtherShows(scene).map(({ name }) => name)).toEqual(['Winter']);
  // Each is judged in its own place: at home there are no tables to put up, and the van's way is the same.
  const diary = showDiary(scene, compileRelief(scene));
  expect(diary.map(({ name, from, to, place, nights }) => [name, from, to, place, nights])).toEqual([
    ['Autumn', '2031-10-01', '2031-10-02', 'Hall', 1],
    ['Winter', '2031-12-06', '2031-12-06', 'Home', 0],
  ]);
  const now = setUp(showOf(scene, compileRelief(scene)));
  expect(diary[0].bound).toBe(dayBoundOf(now, helpersOf(scene, 'setup'), []));
  expect(diary[1].bound).toBeLessThan(diary[0].bound ?? 0);
});
