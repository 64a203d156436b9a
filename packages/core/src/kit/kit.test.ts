import { sceneFrom } from '../document/index.ts';
import { CountCache } from '../masonry/index.ts';
import { materialsOf } from '../materials/index.ts';
import { compile, compileRelief } from '../terrain/index.ts';
import { brokenThings, showBook, showLog, valuesByOwner } from './index.ts';

type Given = Parameters<typeof sceneFrom>[0];
const table = (id: string, x: number, height: number, more: object = {}) => ({
  ...{ id, name: `Table ${id}`, x, y: 0, w: 1000, d: 600, height, place: 'hall' },
  ...more,
});
/** One module on two tables in a hall, looked at from the south. */
const given = (more: object = {}): Given => ({
  display: { name: 'Quay', kind: 'diorama', place: 'hall', viewedSides: ['s'], glue: 'none' },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 48 }],
  pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 48, d: 48, level: 'low', ground: 'paving' }],
  places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0 }],
  tables: [table('a', 0, 720), table('b', 1000, 726)],
  modules: [{ id: 'm', name: 'M', x: 0, y: 0, w: 48, d: 48, bases: [{ x: 0, y: 0, w: 48, d: 48 }] }],
  people: ['ada', 'bob', 'cas'].map((id) => ({ id, name: id, initials: id[0] })),
  ...more,
});
const bookOf = (file: Given) => {
  const scene = sceneFrom(file);
  return showBook(scene, compileRelief(scene));
};
const counts = (file: Given) => Object.fromEntries(bookOf(file).kit.map(({ name, count }) => [name, count]));

describe('the kit', () => {
  it('is counted from the place: cloths, posts and shims by hand', () => {
    const kit = counts(
      given({ barriers: [{ id: 'r', name: 'Rope', place: 'hall', x1: 0, y1: 900, x2: 2800, y2: 900 }] }),
    );
    // 1,000 + 2 × 700 by 600 + 2 × 700; the higher table takes 12 mm more, which steps of 50 mm leave out.
    expect(kit['Table cloth 2,400 mm × 2,000 mm']).toBe(2);
    // 2,800 mm of rope in two parts of at most 1,500: three posts.
    expect(kit['Posts of the barrier']).toBe(3);
    // One table is 6 mm lower: four legs.
    expect(kit['Shims of 6 mm']).toBe(4);
    expect(kit['Lever to part pieces']).toBe(2);
    expect(kit.Signs).toBe(1);
    expect(kit['Glue for mending']).toBeUndefined();
    expect(kit['Step ladder']).toBeUndefined();
  });

  it('brings a ladder for what no arm reaches, and glue only where the house rules allow it', () => {
    const wide = given({
      display: { name: 'Quay', kind: 'diorama', place: 'hall', viewedSides: ['s'], glue: 'hidden' },
      places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0, armReach: 100 }],
    });
    // The middle of 48 studs is 192 mm from the nearest edge.
    expect(counts(wide)['Step ladder']).toBe(1);
    expect(counts(wide)['Glue for mending']).toBe(1);
    const ladder = bookOf(wide).cautions.find(({ about }) => about === 'Ladders');
    expect(ladder?.found).toMatch(/^[\d,]+ studs lie beyond an arm of 100 mm\.$/);
  });

  it('brings sheets and batteries for two days and the nights between, and says what stands there', () => {
    const file = (more: object) =>
      given({
        display: { name: 'Quay', kind: 'diorama', place: 'hall', showDays: 2, ...more },
        supplies: [
          { id: 's', name: 'Pack', type: 'battery', x: 0, y: 0, volts: 5, capacity: 1000, sets: 2 },
          { id: 'u', name: 'Box', x: 1, y: 0, volts: 5 },
        ],
        circuits: [{ id: 'c', name: 'Street', supply: 's' }],
        devices: [{ id: 'd', name: 'Lamp', x: 4, y: 4, circuit: 'c', volts: 5, milliamps: 100 }],
      });
    const kit = counts(file({ eveFrom: '19:00', morrowFrom: '08:00' }));
    // One night between two days, one before and one after; two tables; two charges for each day.
    expect([kit['Dust sheet'], kit['Charged batteries for Pack']]).toEqual([2, 4]);
    const night = (more: object) =>
      bookOf(file(more)).cautions.find(({ about }) => about === 'Over night')?.found;
    expect(night({ eveFrom: '19:00', morrowFrom: '08:00' })).toMatch(
      /^The display stands 3 nights .* 1 mains plug /,
    );
    expect(night({ showDays: 1 })).toBeUndefined();
    expect(counts(file({ showDays: 1 }))['Dust sheet']).toBeUndefined();
  });

  it('has a spare light for each ten, and parts for what broke before', () => {
    const kit = counts(
      given({
        supplies: [{ id: 's', name: 'Cell', x: 0, y: 0, type: 'battery', sets: 2 }],
        circuits: [{ id: 'c', name: 'Lamps', supply: 's' }],
        devices: [{ id: 'l', name: 'Lamps', x: 4, y: 4, count: 21, circuit: 'c' }],
        incidents: [
          { id: 'x', use: 'broke', what: 'Crane', at: '2031-01-01T10:00:00.000Z' },
          { id: 'y', use: 'broke', what: 'Crane', at: '2031-01-02T10:00:00.000Z' },
        ],
      }),
    );
    expect(kit['Spare lights, 5 V']).toBe(3);
    expect(kit['Charged batteries for Cell']).toBe(2);
    expect(kit['Spare parts for Crane']).toBe(1);
  });

  it('cautions say what was computed', () => {
    const { cautions, show } = bookOf(given());
    const [lifting] = cautions;
    expect(lifting.found).toContain('The heaviest is module M');
    expect(show.shipment.units).toHaveLength(1);
    expect(cautions.find(({ about }) => about === 'Mains and batteries')?.found).toContain(
      '0 mains plugs, 0 batteries',
    );
  });
});

describe('what is noted at the show', () => {
  const scene = sceneFrom(
    given({
      incidents: [
        { id: 'a', use: 'visitors', what: 'visitors', at: '2031-01-01T10:00:00.000Z', count: 12, by: 'ada' },
        { id: 'b', use: 'visitors', what: 'visitors', at: '2031-01-01T10:00:00.000Z', count: 5, by: 'bob' },
        { id: 'c', use: 'visitors', what: 'visitors', at: '2031-01-01T11:00:00.000Z', count: 7 },
        { id: 'd', use: 'lent', what: 'Ladder', to: 'the next table', at: '2031-01-01T09:00:00.000Z' },
        {
          id: 'e',
          use: 'lent',
          what: 'Lead',
          at: '2031-01-01T08:00:00.000Z',
          ended: '2031-01-01T12:00:00.000Z',
        },
        { id: 'f', use: 'broke', what: 'Crane', at: '2031-01-01T08:00:00.000Z' },
        { id: 'g', use: 'change', what: 'Come earlier', at: '2031-01-01T18:00:00.000Z' },
      ],
    }),
  );
  it('adds up who counts at once, and tells what is not back', () => {
    const log = showLog(scene);
    expect(log.visitors).toBe(24);
    expect(log.hours.map(({ count }) => count)).toEqual([17, 7]);
    expect([log.out, log.back, log.broke, log.changes].map((some) => some.map(({ what }) => what))).toEqual([
      ['Ladder'],
      ['Lead'],
      ['Crane'],
      ['Come earlier'],
    ]);
    expect(brokenThings(scene)).toEqual([{ what: 'Crane', times: 1 }]);
  });

  it('counts the visitors of each show by its days: those of another one in the diary are earlier ones', () => {
    const visitors = (day: string) => ({
      id: day,
      use: 'visitors',
      what: 'v',
      at: `${day}T10:00:00.000Z`,
      count: 5,
    });
    const log = showLog(
      sceneFrom({
        ...given(),
        display: { ...given().display, showDate: '2031-06-01', showDays: 2 },
        milestones: [{ id: 'w', name: 'Winter', date: '2031-01-01', show: true }],
        incidents: ['2031-01-01', '2031-03-01', '2031-06-02'].map(visitors),
      } as Given),
    );
    // In March there was no show of the diary: it is not told away.
    expect([log.visitors, log.earlier]).toEqual([10, 5]);
  });
});

it('values are the pieces by owner at their prices, known or guessed', () => {
  const file = given({
    // No ground: only what is listed.
    pads: [],
    modules: [],
    sections: [
      { id: 's', letter: 'A', name: 'West', x: 0, y: 0, w: 24, d: 48, owner: 'ada' },
      { id: 't', letter: 'B', name: 'East', x: 24, y: 0, w: 24, d: 48 },
    ],
    partTypes: [{ id: 'brick-2x4', family: 'brick', price: 0.2 }],
    partLists: [
      { id: 'l', name: 'Sheds', section: 's', lines: [{ part: 'brick-2x4', colour: 'slate', qty: 100 }] },
      { id: 'k', name: 'Fence', section: 't', lines: [{ part: 'plate-1x2', colour: 'slate', qty: 10 }] },
    ],
  });
  const scene = sceneFrom(file);
  const materials = materialsOf(scene, compile(scene), new CountCache());
  const [first, second] = valuesByOwner(scene, materials?.needs ?? []);
  expect(first).toMatchObject({ owner: 'ada', sections: ['A'], pieces: 100, guessed: 0 });
  expect(first.money).toBeCloseTo(20, 9);
  expect(second).toMatchObject({ owner: null, name: 'nobody’s', sections: ['B'], pieces: 10 });
  expect(second.guessed).toBeCloseTo(second.money, 9);
});
