import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readFile, reduce, sceneFrom, type Scene } from '../document/index.ts';
import { backTurned, castCases } from '../../test/castCases.ts';
import { planCases } from '../../test/planCases.ts';
import { powerCases } from '../../test/powerCases.ts';
import { seamCases } from '../../test/seamCases.ts';
import { sightCases } from '../../test/sightCases.ts';
import { stockCases } from '../../test/stockCases.ts';
import { RULES, evaluateRules } from './index.ts';

/** A display that is in order: no finding at all. Each case below spoils one thing. */
const file = () => ({
  display: {
    name: 'Quiet',
    kind: 'diorama' as const,
    limitW: 96,
    limitD: 48,
    limitHeight: 60,
    levelStep: 15,
    showDate: '2031-10-01',
  },
  levels: [
    { id: 'low', name: 'Low', height: 3 },
    { id: 'street', name: 'Street', height: 18 },
  ],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  tables: [{ id: 't', name: 'Long table', x: 0, y: 0, w: 768, d: 384, height: 740 }],
  passages: [{ id: 'door', name: 'hall door', width: 390, height: 2000 }],
  pads: [{ id: 'p', name: 'Green', x: 0, y: 0, w: 96, d: 48, level: 'street', ground: 'grass' as const }],
  plots: [
    { id: 'a', name: 'Baker', x: 0, y: 0, w: 16, d: 16, height: 30 },
    { id: 'b', name: 'Dyer', x: 16, y: 0, w: 16, d: 16, height: 30 },
  ],
  people: [{ id: 'ada', name: 'Ada Fenn', initials: 'AF' }],
  sections: [{ id: 's', letter: 'A', name: 'All', x: 0, y: 0, w: 96, d: 48, owner: 'ada' }],
  bases: [{ id: 'big', w: 48, d: 48, price: 14, stock: 2 }],
  modules: [
    { id: 'm1', name: 'A1', x: 0, y: 0, w: 48, d: 48, bases: [{ x: 0, y: 0, w: 48, d: 48 }] },
    { id: 'm2', name: 'A2', x: 48, y: 0, w: 48, d: 48, bases: [{ x: 48, y: 0, w: 48, d: 48 }] },
  ],
});
type File = ReturnType<typeof file>;
/** The quiet display in a room of 6 × 5 m, 2 m from the west and north walls, with what the case adds. */
function inRoom(spoil: (f: RoomFile) => unknown) {
  return (f: File) => {
    // What is looked at has a dressed edge.
    Object.assign(f.pads[0], { edges: { s: { kind: 'cliff' } } });
    const room: RoomFile = Object.assign(f, {
      display: { ...f.display, place: 'hall', viewedSides: ['s' as const] },
      places: [
        {
          id: 'hall',
          name: 'Hall',
          walls: [
            { x: -2000, y: -2000 },
            { x: 4000, y: -2000 },
            { x: 4000, y: 3000 },
            { x: -2000, y: 3000 },
          ],
          eyeChild: 1050,
        },
      ],
      tables: f.tables.map((table) => ({ ...table, place: 'hall', ratedKg: 100, leaves: 1, leafGap: 0 })),
      obstacles: [{ id: 'pillar', name: 'Pillar', place: 'hall', x: 3000, y: 0, w: 300, d: 300 }],
      openings: [{ id: 'fire', name: 'fire door', place: 'hall', wall: 0, at: 500, width: 900 }],
      barriers: [{ id: 'rope', name: 'Rope', place: 'hall', x1: 0, y1: 1400, x2: 768, y2: 1400 }],
    });
    spoil(room);
  };
}
type RoomFile = Omit<
  Parameters<typeof sceneFrom>[0],
  'places' | 'tables' | 'obstacles' | 'openings' | 'barriers'
> & {
  display: File['display'] & { place: string; viewedSides: ('n' | 'e' | 's' | 'w')[] };
  places: {
    id: string;
    name: string;
    walls: { x: number; y: number }[];
    eyeChild: number;
    sceneX?: number;
    ceiling?: number;
  }[];
  tables: (File['tables'][number] & { place: string; ratedKg: number; leaves: number; leafGap: number })[];
  obstacles: {
    id: string;
    name: string;
    place: string;
    x: number;
    y: number;
    w: number;
    d: number;
    height?: number;
  }[];
  openings: { id: string; name: string; place: string; wall: number; at: number; width: number }[];
  barriers: { id: string; name: string; place: string; x1: number; y1: number; x2: number; y2: number }[];
};
const findings = (scene: Scene, today = '2031-06-01') => evaluateRules(scene, { today });

test('a display in order has no findings', () => expect(findings(sceneFrom(file()))).toEqual([]));

test('nor has it any in a room with space on all sides', () => {
  const quiet = file();
  inRoom(() => undefined)(quiet);
  expect(findings(sceneFrom(quiet))).toEqual([]);
});

const van = (more: object = {}) => ({
  ...{ id: 'van', name: 'van', kind: 'vehicle', width: 600, height: 400, maxKg: 1000 },
  ...{ insideW: 600, insideD: 500, insideH: 400, ...more },
});
const hours = { accessFrom: '08:00', opensAt: '08:10' };
type Case = [string, (f: File) => unknown, string[]];
const spoiled: Case[] = [
  // Two modules of 383.8 mm with 20 mm of air are 807.6: more than 600 or 500.
  [
    'load-trips',
    (f) => f.passages.push(van()),
    ['The load of 2 things', 'at least 2 trips; 1 is planned (van)'],
  ],
  [
    'load-stuck',
    (f) => f.passages.push(van({ maxKg: 1 })),
    ['“module A1” is 384 mm × 384 mm', '20 mm of air', '600 mm × 500 mm × 400 mm inside', '1.0 kg at most'],
  ],
  [
    'load-uncrated',
    (f) =>
      Object.assign(f, {
        crates: [{ id: 'k', name: 'Tin', insideW: 40, insideD: 40, insideH: 40 }],
        figures: [{ id: 'q', name: 'Queue', x: 60, y: 30, cast: 4 }],
      }),
    ['4 are in no crate', '“Queue”, is 48 mm × 48 mm × 48 mm'],
  ],
  // A figure lies in 24 mm of padding of its own: with 5 mm more on each side it takes 34.
  [
    'crate-unfit',
    (f) => {
      Object.assign(f, {
        crates: [{ id: 'k', name: 'Box', insideW: 30, insideD: 400, insideH: 200, padding: 5 }],
        figures: [{ id: 'q', name: 'Queue', x: 30, y: 30, cast: 1 }],
        handlings: [{ id: 'h', piece: 'figure-q', packing: 'crate', crate: 'k' }],
      });
    },
    ['“Queue” is 24 mm × 24 mm × 48 mm', '5 mm of padding', '30 mm × 400 mm × 200 mm inside'],
  ],
  [
    'lift-stairs',
    (f) => {
      Object.assign(f, {
        passages: [{ id: 'st', name: 'steep stair', kind: 'stair', width: 900, height: 2300, pitch: 30 }],
        cargoes: [{ id: 'c', name: 'Transformer box', w: 600, d: 400, h: 400, kg: 90 }],
      });
    },
    ['“Transformer box”, 90.0 kg, goes over the steep stair', 'for each of two; 1 is the limit.'],
  ],
  [
    'shows-clash',
    (f) =>
      Object.assign(f, {
        milestones: [
          { id: 'other', name: 'Fair', date: '2031-10-02', show: true, showDays: 2, eveFrom: '18:00' },
        ],
      }),
    ['“Fair” (2031-10-01 to 2031-10-03)', 'share 1 day.'],
  ],
  ['vehicle-driver', (f) => f.passages.push(van()), ['Nobody drives the van', '2031-10-01: 0 of 1']],
  // A table takes two 4 min; each module one 1 + 0.5 + 2 × 40 ÷ 50 + 3, that is 6; a pin 1, the rope 5: 26 for two.
  [
    'setup-short',
    inRoom((f) => {
      Object.assign(f.display, hours);
      f.people?.push({ id: 'bob', name: 'Bob Ash', initials: 'BA' });
    }),
    ['at least 13 min with 2 people', 'from 08:00 until the hall opens at 08:10 there are 10 min'],
  ],
  [
    'setup-hands',
    inRoom((f) => Object.assign(f.display, hours)),
    ['“Long table” needs 2 people; 1 comes to set up'],
  ],
  [
    'scene-unseen',
    // Half a stud and more behind a wall 128 mm tall, the eyes 1,220 mm off: a line to a face 37 mm up passes 4 mm on
    // only 3 mm higher.
    inRoom((f) => {
      f.figures = [{ id: 'q', name: 'Queue', x: 40, y: 22.5 }];
      f.runs = [
        {
          ...{ id: 'w', name: 'Long wall', thick: 2, height: 40 },
          points: [
            { x: 0, y: 24 },
            { x: 96, y: 24 },
          ],
        },
      ];
    }),
    ['Nobody sees the faces of “Queue”: 0 of 3 places', '“Long wall” cuts off 100 % of the lines'],
  ],
  [
    'table-load',
    inRoom((f) => (f.tables[0].ratedKg = 4)),
    // 4,608 studs × (0.18 + 0.0958 × (18 × 0.4)) g + 512 × 0.0958 × 30 × 0.2 g = 4.3 kg, by hand.
    ['“Long table” carries about 4.4 kg', 'rated for 4 kg'],
  ],
  // The tunnel runs from the west edge 40 studs in: its last stud's middle lies 4 + 39 × 8 mm from where one stands.
  [
    'track-reach',
    inRoom((f) => {
      Object.assign(f.places[0], { armReach: 200 });
      Object.assign(f, {
        pads: f.pads?.map((pad) => ({ ...pad, offset: 40 })),
        cavities: [{ id: 'c', name: 'Bore', x: 0, y: 10, w: 40, d: 8, level: 'low', clear: 30 }],
        tracks: [
          {
            id: 'k',
            name: 'Main',
            x: 0,
            y: 14,
            heading: 0,
            level: 'low',
            pieces: [{ go: 'straight' }, { go: 'straight' }],
          },
        ],
      });
    }),
    ['“Main” lies under cover', 'by the nearest mouth, past an arm’s 200 mm'],
  ],
  [
    'out-of-reach',
    inRoom((f) => {
      for (const corner of f.places[0].walls) corner.x = corner.x < 0 ? 0 : 768;
      for (const corner of f.places[0].walls) corner.y = corner.y < 0 ? 0 : 1000;
      f.footprint = [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 100 }];
      f.tables[0].d = 800;
      f.openings = [];
      f.obstacles = [];
      f.barriers = [];
      f.display.viewedSides = [];
    }),
    ['100 % of section A lies past an arm’s 750 mm and 100 % past 1,000 mm, and no side is open'],
  ],
  [
    'through-wall',
    inRoom((f) => (f.places[0].walls[1].x = f.places[0].walls[2].x = 700)),
    ['“Pillar” reaches 2,600 mm through a wall of “Hall”'],
  ],
  [
    'obstacle-hit',
    inRoom((f) => (f.obstacles[0].x = 700)),
    ['“Long table” stands 68 mm × 300 mm in “Pillar”'],
  ],
  // A house of 30 plates on 18 of ground, 48 × 3.2 mm, on a table of 740 mm: 893.6 mm.
  [
    'ceiling-low',
    inRoom((f) => (f.places[0].ceiling = 890)),
    ['reaches 893.6 mm above the floor, 16b on a table of 740 mm', 'ceiling is at 890 mm'],
  ],
  [
    'door-blocked',
    inRoom((f) => Object.assign(f.openings[0], { at: 2100, width: 2100 })),
    ['“Long table” stands 100 mm into the 2,100 mm', '“fire door”'],
  ],
  [
    'opening-off-wall',
    inRoom((f) => (f.openings[0].at = 5200)),
    ['ends 6,100 mm along wall 1, which is 6,000 mm'],
  ],
  [
    'joint-gap',
    inRoom((f) => Object.assign(f.tables[0], { leaves: 2, leafGap: 60 })),
    ['leaves of “Long table”', '60 mm (7.5 studs)', '48 mm may be bridged'],
  ],
  [
    'module-limit',
    (f) => Object.assign(f.passages[0], { kind: 'lift', insideW: 500, insideD: 600 }),
    ['96 × 48 studs', 'hall door lets 600 mm of length', '72 × 48 studs'],
  ],
  ['aisle-narrow', inRoom((f) => (f.barriers[0].y1 = f.barriers[0].y2 = 2200)), ['“Rope” 800 mm', '915 mm']],
  [
    'barrier-close',
    inRoom((f) => (f.barriers[0].y1 = f.barriers[0].y2 = 684)),
    ['300 mm from the scene', 'reaches 750 mm'],
  ],
  ['eyes-below', inRoom((f) => (f.tables[0].height = 1110)), ['A child’s eyes at 1,050 mm are 60 mm below']],
  [
    'viewed-side',
    inRoom((f) => (f.places[0].walls[2].y = f.places[0].walls[3].y = 984)),
    ['The south side', '600 mm of floor', '“Hall”', '915 mm'],
  ],
  [
    'card-overhang',
    (f) =>
      Object.assign(
        f,
        { display: { ...f.display, kind: 'vignette' } },
        { plots: [{ ...f.plots[0], x: -2 }] },
      ),
    ['“Baker” stands 2 studs out over the west side', 'allows 0 studs'],
  ],
  [
    'card-piece',
    (f) => Object.assign(f, { requirements: [{ id: 'r', name: 'clear round', count: 3, placed: 1 }] }),
    ['1 of 3 “clear round”'],
  ],
  [
    'space-short',
    // 20 m ÷ 45 ÷ 8 mm = 55.6 studs, 10 m = 27.8: 58 × 30 with walls; 14 × 14 of 1543 = 13 %.
    (f) => Object.assign(f, { spaces: [{ id: 't', name: 'turbine hall', w: 20, d: 10, plot: 'a' }] }),
    ['The turbine hall has 13 % of the floor it needs: 58 × 30 studs at 1:45, and “Baker” is 16 × 16'],
  ],
  [
    'vehicle-cover',
    (f) =>
      Object.assign(f, {
        vehicles: [{ id: 'v', name: 'Bus', count: 8, length: 24, width: 6, trueLength: 12 }],
      }),
    ['25.0 %', 'limit set is 10 %'],
  ],
  [
    'vehicle-scale',
    (f) => Object.assign(f, { vehicles: [{ id: 'v', name: 'Bus', length: 46, width: 8, trueLength: 12 }] }),
    ['“Bus” is built at 1:32.6, 34 % larger', '1:43.75'],
  ],
  [
    'furniture-height',
    (f) => Object.assign(f, { furnishings: [{ id: 'c', name: 'bar stool', use: 'seat', height: 10 }] }),
    ['3b1p (32.0 mm), 80 % of a figure: too high for a seat, it reaches the chest; 1b to 1b1p'],
  ],
  [
    'street-standard',
    (f) => {
      Object.assign(f.display, { streetDepth: 32 });
      Object.assign(f.plots[0], { streetFront: true });
    },
    ['“Baker” is 16 × 16', '32 deep and 16, 32, 48, 64 wide'],
  ],
  [
    'date-order',
    (f) => Object.assign(f, { milestones: [{ id: 'm', name: 'Ground closed', date: '2031-10-04' }] }),
    ['“Ground closed” is set for 2031-10-04, 3 days after'],
  ],
  [
    'off-table',
    (f) => (f.tables[0].w = 700),
    ['8.5 studs (68 mm)', 'limit is 6', '“Long table”', '144 studs'],
  ],
  [
    'plot-overhangs',
    (f) => {
      f.tables[0].x = 8;
    },
    ['“Baker”', '16 studs', 'up to 1 stud (8 mm)'],
  ],
  ['no-table', (f) => (f.tables = []), ['0 of at least 1']],
  [
    'tables-overlap',
    (f) => f.tables.push({ ...f.tables[0], id: 'u', name: 'Second', x: 760 }),
    ['8 mm × 384 mm'],
  ],
  [
    'table-step',
    (f) => f.tables.push({ ...f.tables[0], id: 'u', name: 'Second', x: 768, height: 720 }),
    ['20 mm', '“Second”'],
  ],
  ['footprint-limit', (f) => (f.display.limitW = 80), ['96 × 48', '80 × 48']],
  ['height-limit', (f) => (f.plots[1].height = 43), ['“Dyer”', '20b1p (195.2 mm)', '20b (192 mm)']],
  ['outside-footprint', (f) => (f.plots[0].y = -2), ['“Baker”', '32 studs outside']],
  ['plots-overlap', (f) => (f.plots[1].x = 14), ['“Baker” and “Dyer”', '2 × 16 studs']],
  [
    'plot-uneven',
    (f) => f.pads.push({ ...f.pads[0], id: 'q', x: 8, w: 8, level: 'low' }),
    ['“Baker”', 'from 1b to 6b', '5b (48 mm)'],
  ],
  ['plot-over-seam', (f) => (f.plots[1].x = 40), ['“Dyer”', '2 modules (A1, A2)']],
  ['module-passage', (f) => (f.passages[0].width = 380), ['Module A1 is 383.8 mm', 'hall door lets 380 mm']],
  [
    'module-size',
    (f) => Object.assign(f.display, { moduleMaxW: 40, moduleMaxD: 40 }),
    ['48 × 48', '40 × 40'],
  ],
  ['modules-cover', (f) => f.modules.pop(), ['2,304 studs in no module']],
  ['bases-short', (f) => (f.bases[0].stock = 1), ['2 bases of 48×48 and 1 are owned: 1 short, about 14.00']],
  ['level-step', (f) => (f.levels[1].height = 19), ['5b1p (51.2 mm)', 'agreed step is 5b']],
  ['section-owner', (f) => Object.assign(f.sections[0], { owner: null }), ['Section A', 'no owner']],
  [
    'sections-overlap',
    (f) => f.sections.push({ ...f.sections[0], id: 'z', letter: 'B', w: 4 }),
    ['A and B share 4 × 48'],
  ],
  ['no-section', (f) => (f.sections[0].w = 95), ['48 studs']],
  ['show-near', (f) => (f.display.showDate = '2031-06-15'), ['in 14 days', '7 stages']],
  ...planCases,
  ...seamCases,
  ...stockCases,
  ...powerCases,
  ...castCases,
  [backTurned[0], inRoom(backTurned[1]), backTurned[2]],
  ...sightCases.map(([rule, spoil, words]): Case => [rule, inRoom(spoil), words]),
];

test.each(spoiled)('%s: names the thing, the number and the limit', (rule, spoil, words) => {
  const spoiledFile = file();
  spoil(spoiledFile);
  const found = findings(sceneFrom(spoiledFile)).filter((finding) => finding.rule === rule);
  expect(found.length).toBeGreaterThan(0);
  for (const word of words) expect(`${found[0].sentence} ${found[0].remedy}`).toContain(word);
  expect(found[0].remedy).toMatch(/\.$/);
});
test('each rule of the registry has such a case, and tells how its number is made', () => {
  expect(RULES.map(({ id }) => id).sort()).toEqual([...new Set(spoiled.map(([id]) => id))].sort());
  for (const rule of RULES) expect(rule.basis.length).toBeGreaterThan(20);
});

test('an accepted finding stays accepted until its numbers change', () => {
  const spoiledFile = file();
  spoiledFile.bases[0].stock = 1;
  const scene = sceneFrom(spoiledFile);
  const [finding] = findings(scene);
  const accept = {
    op: 'add' as const,
    kind: 'acceptance' as const,
    id: 'acc',
    data: { finding: finding.key, fingerprint: finding.fingerprint, reason: 'lent by the club' },
  };
  const kept = reduce(scene, [accept]);
  if (!kept.ok) throw new Error(kept.refusal.sentence);
  expect(findings(kept.scene)[0].accepted).toMatchObject({ reason: 'lent by the club' });
  const worse = reduce(kept.scene, [{ op: 'patch', kind: 'baseType', id: 'big', v: 1, set: { stock: 0 } }]);
  if (!worse.ok) throw new Error(worse.refusal.sentence);
  expect(findings(worse.scene)[0]).toMatchObject({ accepted: null, lapsed: 'lent by the club' });
});

test('what is accepted of one part of a thing says nothing of its other parts, nor of what was accepted of all', () => {
  const bends = file();
  const points = [
    { x: 40, y: 30 },
    { x: 42, y: 30 },
    { x: 42, y: 32 },
    { x: 60, y: 32 },
  ];
  Object.assign(bends, { ways: [{ id: 'w', name: 'Lane', width: 8, points }] });
  const scene = sceneFrom(bends);
  const tight = (one: Scene) => findings(one).filter(({ rule }) => rule === 'way-tight');
  const [first, second] = tight(scene);
  const accept = (finding: string, print: string) =>
    reduce(scene, [
      {
        op: 'add',
        kind: 'acceptance',
        id: 'acc',
        data: { finding, fingerprint: print, reason: 'a lane of cobbles' },
      },
    ]);
  for (const key of [first.key, 'way-tight:w']) {
    const kept = accept(key, first.fingerprint);
    if (!kept.ok) throw new Error(kept.refusal.sentence);
    expect(tight(kept.scene)[0].accepted).toMatchObject({ reason: 'a lane of cobbles' });
    expect(tight(kept.scene)[1]).toMatchObject({ accepted: null, lapsed: null, key: second.key });
  }
});

test('the demo displays open, and the valley has its planted flaws', () => {
  const demo = (name: string) =>
    readFileSync(join(import.meta.dirname, '../../../../demo', `${name}.quarry.json`), 'utf8');
  const rules = (name: string) => {
    const reading = readFile(demo(name));
    if (!reading.ok) throw new Error(reading.error);
    const found = findings(reading.scene, '2026-08-08');
    expect(new Set(found.map(({ key }) => key)).size).toBe(found.length);
    return new Set(found.map(({ rule }) => rule));
  };
  for (const rule of [
    'module-passage',
    'plot-over-seam',
    'off-table',
    'section-owner',
    'bases-short',
    'table-step',
    'seam-reopened',
    'seam-built',
  ])
    expect(rules('skarn-edge')).toContain(rule);
  expect(rules('heron-weir')).toContain('height-limit');
  expect(rules('larch-lane')).toContain('plots-overlap');
});

test('what is no higher than the table may stand under it', () => {
  const room = (height: number) => {
    const f = file();
    inRoom((one) => (one.obstacles[0] = { ...one.obstacles[0], x: 700, height }))(f);
    return findings(sceneFrom(f)).map(({ rule }) => rule);
  };
  expect(room(740)).not.toContain('obstacle-hit');
  expect(room(741)).toContain('obstacle-hit');
});

describe('places', () => {
  /** The quiet display at home; the hall has a table far too weak and a barrier against the wall. */
  const twoPlaces = (here: string) => {
    const room = file();
    return sceneFrom({
      ...room,
      display: { ...room.display, place: here },
      places: [
        { id: 'home', name: 'Home' },
        {
          id: 'hall',
          name: 'Hall',
          walls: [
            { x: -900, y: -900 },
            { x: 2000, y: -900 },
            { x: 2000, y: 1800 },
            { x: -900, y: 1800 },
          ],
        },
      ],
      tables: [
        { ...room.tables[0], place: 'home' },
        { ...room.tables[0], id: 'weak', name: 'Card table', place: 'hall', ratedKg: 2 },
      ],
      barriers: [{ id: 'rope', name: 'Rope', place: 'hall', x1: 0, y1: 1500, x2: 700, y2: 1500 }],
    });
  };
  test('only the place where the display stands is judged', () => {
    expect(findings(twoPlaces('home'))).toEqual([]);
    expect(findings(twoPlaces('hall')).map(({ rule }) => rule)).toEqual(
      expect.arrayContaining(['table-load', 'aisle-narrow']),
    );
  });
  test('a finding about a table tells where it stands in the scene, turned or not', () => {
    const scene = twoPlaces('hall');
    const turned = reduce(scene, [
      { op: 'patch', kind: 'place', id: 'hall', v: 1, set: { turn: 180, sceneX: 768, sceneY: 384 } },
    ]);
    if (!turned.ok) throw new Error(turned.refusal.sentence);
    const place = (one: Scene) => findings(one).find(({ rule }) => rule === 'table-load')?.place;
    expect(place(scene)).toEqual({ x: 48, y: 24 });
    expect(place(turned.scene)).toEqual({ x: 48, y: 24 });
  });
  test('a module that is too long for a lift is told by its length, one too tall by its height', () => {
    const lift = file();
    Object.assign(lift.passages[0], { kind: 'lift', width: 900, insideW: 400, insideD: 380 });
    const told = findings(sceneFrom(lift)).filter(({ rule }) => rule === 'module-passage');
    expect(told[0].sentence).toBe(
      'Module A1 is 383.8 mm across its narrow side; the hall door lets 380 mm through.',
    );
    Object.assign(lift.passages[0], { insideW: 900, insideD: 900, height: 40 });
    const tall = findings(sceneFrom(lift)).filter(({ rule }) => rule === 'module-passage');
    expect(tall[0].sentence).toContain('153.6 mm tall; the hall door lets 40 mm through');
  });
});
