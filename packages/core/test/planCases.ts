import type { sceneFrom } from '../src/document/index.ts';

// For each rule of the plan: one thing that spoils the quiet display of the checks, and what must be said of it.

type File = Parameters<typeof sceneFrom>[0];
type More = Partial<Omit<File, 'display'>> & { display?: Partial<File['display']> };
type Quiet = File & { plots: object[]; pads: object[] };

const add = (more: More) => (f: Quiet) => {
  const { display, ...rest } = more;
  Object.assign(f, rest);
  Object.assign(f.display, display);
};
const plot =
  (which: number, fields: object, more: More = {}) =>
  (f: Quiet) => {
    Object.assign(f.plots[which], fields);
    add(more)(f);
  };
const pad = {
  id: 'q',
  name: 'Deck',
  x: 40,
  y: 20,
  w: 10,
  d: 10,
  level: 'street',
  ground: 'grass' as const,
  order: 1,
};
const way = { id: 'w', name: 'Lane', width: 8 };
const track = { id: 't1', name: 'Main', x: 10, y: 40, level: 'street', offset: 0 };
const straight = { go: 'straight' as const };
/** Over ground at 18 plates. */
const deck = (more: object) => ({
  ...{ id: 'd', name: 'Quay', x: 40, y: 20, w: 20, d: 10, level: 'street', offset: 12, ...more },
});
const cellar = (more: object) => ({
  ...{ id: 'c', name: 'Cellar', x: 40, y: 20, w: 8, d: 8, level: 'street', offset: -14, clear: 12, ...more },
});

export const planCases: [string, (f: Quiet) => void, string[]][] = [
  // Baker's south-west corner is its hinge; turning clockwise its east wall comes towards Dyer at once.
  [
    'moves-hit',
    plot(0, { moves: 'swing', hinge: 'sw', swingBy: 90 }),
    ['“Baker” swings into “Dyer” after', 'of its 90°'],
  ],
  // It begins at the west edge: a stud west it is over it.
  [
    'moves-out',
    plot(0, { moves: 'slide', slideX: -3 }),
    ['“Baker” slides over the edge of the display after 1 of its 3 studs'],
  ],
  // 96 plates are 38.4 studs upright, 39.8 along a slope of 15°: a tie each 10 makes 3.
  [
    'lean-ties',
    plot(0, { height: 96, lean: 15, leanTo: 90 }),
    ['“Baker” leans by 15° over 39.8 studs with 0 ties', '3 ties at least'],
  ],
  // 16 studs across and 120 plates tall: its mass is some 24 studs up, at 40° about 20 to the side.
  [
    'lean-hold',
    plot(0, { height: 120, lean: 40, leanTo: 180, mount: 'loose' }),
    ['“Baker” leans by 40°', 'stands loose with its mass beyond its foot'],
  ],
  // One stud of wall against 24 studs of jetty: 40 × 20 studs of floor and roof at 12 studs and more.
  [
    'overhang-hold',
    plot(0, { height: 60, overhangFrom: 30, overhang: { n: 0, e: 0, s: 24, w: 0 } }),
    [
      '“Baker” stands out 24 studs to the south',
      'of what the wall under it holds, at 100 g a stud',
      'at most',
    ],
  ],
  // From 18 plates it rises a plate each two studs at first: two plates less the cover tie nothing.
  [
    'bridge-steps',
    add({
      waters: [{ id: 'p', name: 'Pool', x: 44, y: 20, w: 24, d: 16, level: 'low', offset: 0, depth: 3 }],
      ways: [
        {
          ...{ ...way, use: 'path', width: 3, bridges: true, bridgeThick: 2, pierEvery: 12, maxGrade: 60 },
          points: [
            { x: 40, y: 28, z: 18 },
            { x: 72, y: 28, z: 34 },
          ],
        },
      ],
    }),
    ['The bridge of “Lane” has', 'nothing ties or carries', '2 plates thick, and 3 are needed'],
  ],
  // From the quay at 30 plates a path leads down to the street at 18; the shed stands on its lower half.
  [
    'way-down-hidden',
    plot(
      0,
      { x: 70, y: 22, w: 10, d: 8 },
      {
        decks: [deck({})],
        ways: [
          {
            ...{ ...way, name: 'Stair', use: 'path', width: 3, maxGrade: 60, bridges: true },
            points: [
              { x: 58, y: 26, z: 30 },
              { x: 78, y: 26, z: 18 },
            ],
          },
        ],
      },
    ),
    ['“Baker” stands on “Stair”, the only way down from “Quay”'],
  ],
  [
    'decks-overlap',
    add({ decks: [deck({}), deck({ id: 'e', name: 'Gallery', x: 50, offset: 13 })] }),
    ['“Quay” and “Gallery” fill the same heights on 100 studs', 'Raise “Gallery” by 1p'],
  ],
  // Pillars of 2 × 2 stand at 10 and 16 east, 2 and 10 south: two of them in the first 16 studs.
  [
    'support-hits',
    plot(0, { onGround: true }, { decks: [deck({ x: 10, y: 2, offset: 40 })] }),
    ['A pillar of “Quay” stands in “Baker”', 'on 8 studs'],
  ],
  // 30 plates less its floor are 9 courses; a door of 6 over a sill of 4 needs 10.
  [
    'bay-fault',
    plot(0, { bays: [{ side: 's', storey: 1, bays: [{ wide: 8, part: 'door-4x1', sill: 4 }] }] }),
    ['“Baker”: door 4×1×6 is not let into bay 1 of its south front', 'needs 10 courses, the storey has 9'],
  ],
  // Its floor is a plate over the ground, its first course of sill another brick: 4 plates.
  [
    'door-leads',
    plot(0, { bays: [{ side: 's', storey: 1, bays: [{ wide: 8, part: 'door-4x1', sill: 1 }] }] }),
    ['The door in bay 1 of its south front, storey 1 of “Baker” leads 1b1p above', 'stepped up to by 1b'],
  ],
  [
    'window-row',
    plot(0, {
      bays: [
        { side: 's', storey: 1, bays: [{ wide: 8, part: 'window-2x1', sill: 2 }] },
        { side: 'n', storey: 1, bays: [{ wide: 8, part: 'window-2x1', sill: 3 }] },
      ],
    }),
    ['On storey 1 of “Baker” windows stand at 3b1p to the north and at 2b1p to the south', 'one row'],
  ],
  ['deck-seam', add({ decks: [deck({ x: 40, w: 20 })] }), ['“Quay” lies over 2 modules', 'built in 2 parts']],
  // 20 studs less two ends of 2: the middle is 8 from either; half of the display's 8 is 4.
  [
    'slab-span',
    add({ decks: [deck({ support: 'ends' })] }),
    ['“Quay” has a stud 8 studs from what carries it', 'at most 4 are allowed'],
  ],
  // From 4 to 17 plates under ground at 18.
  [
    'cavity-roof',
    add({ cavities: [cellar({ clear: 13 })] }),
    ['The roof of “Cellar” is 1p thick', 'at least 2p', 'by 1 plate'],
  ],
  [
    'cavity-open',
    add({ cavities: [cellar({ offset: -4 })] }),
    ['“Cellar” is open to the sky on 64 studs', 'has 0'],
  ],
  // Its underside is at 28 plates.
  [
    'way-room',
    add({
      decks: [deck({})],
      ways: [
        {
          ...{ ...way, use: 'path', width: 3 },
          points: [
            { x: 50, y: 4 },
            { x: 50, y: 44 },
          ],
        },
      ],
    }),
    ['The underside of “Quay” leaves 3b1p over “Lane”', 'it needs 4b1p'],
  ],
  [
    'room-over',
    plot(0, { onGround: true }, { decks: [deck({ x: 2, y: 2, w: 10, d: 6 })] }),
    ['“Baker” is 10b tall', '“Quay” leaves 3b1p'],
  ],
  [
    'stands-on-nothing',
    plot(0, { onDeck: 'd' }, { decks: [deck({})] }),
    ['“Baker” is set to stand on “Quay”, which is under 0 of its 256 studs'],
  ],
  [
    'deck-low',
    add({ decks: [deck({ offset: 3 })] }),
    ['“Quay” has at most 1p of air under it', 'less than 1b'],
  ],
  // Turned by 45°, a square of 16 is 22.6 across: it reaches 3.3 studs past its side.
  ['turn-reaches', plot(0, { turn: 45 }), ['“Baker”', '45°', '“Dyer”', 'should touch 0']],
  [
    'turntable-sweep',
    // The corners of 16 × 16 lie 8 √2 from its middle: a circle of 22.6 across, and “Dyer” begins 8 studs off.
    plot(0, { mount: 'turntable' }),
    ['“Baker” sweeps a circle of 22.6 studs', '“Dyer” stands in it'],
  ],
  [
    'method-unfit',
    // A rock panel of 18 plates, a deck and a cover: 20. The low level is at 3, and the green's own at 18.
    (f) => void Object.assign(f.pads[0], { method: 'moulded' }),
    ['“Green” is set to moulded rock panels and at most 6b high', 'need 6b2p', 'none is laid'],
  ],
  ['pinned-half', plot(0, { y: 24, x: 0.5 }), ['“Baker” is pinned 0.5 studs from the west', 'jumpers']],
  [
    'plot-across',
    plot(
      0,
      {},
      {
        ways: [
          {
            ...way,
            points: [
              { x: 8, y: 4 },
              { x: 8, y: 30 },
            ],
          },
        ],
      },
    ),
    // 8 wide, from 4 to the wall at 16.
    ['“Baker” stands on 96 studs of “Lane”', 'on 0'],
  ],
  [
    'plot-tips',
    // A tower 8 studs across and 90 plates tall: its centre half-way up, at 144 mm or a little more: atan(32/145).
    plot(0, { w: 8, d: 8, height: 285, storeys: 0 }, { display: { limitHeight: 400, tipLimit: 10 } }),
    ['“Baker” tips at 4°: 8 studs across and 912 mm tall', 'at least 10°'],
  ],
  [
    'good-side',
    plot(0, { goodSides: ['s'], turn: 90 }, { display: { viewedSides: ['e'] } }),
    ['good sides of “Baker” look west', 'looked at from the east', 'Turn it by 180°'],
  ],
  [
    'stance-loose',
    plot(0, { mount: 'loose' }, { display: { stance: 'hung' } }),
    ['“Baker” stands loose', '0 things may'],
  ],
  [
    'loose-passage',
    (f) => {
      plot(0, { mount: 'loose', height: 60 })(f);
      Object.assign(f, { passages: [{ id: 'door', name: 'hall door', width: 390, height: 190 }] });
    },
    ['“Baker”, carried by itself, is 192 mm tall', 'hall door lets 190 mm', 'at most 19b2p'],
  ],
  [
    'overhang-heavy',
    (f) => {
      f.pads.push({ ...pad, x: 40, y: 40, w: 10, d: 8, offset: 12 });
      Object.assign(f, {
        tables: [{ id: 't', name: 'Long table', x: 0, y: 0, w: 768, d: 352, height: 740 }],
      });
    },
    // 4 rows of 10 studs, 30 plates high: 0.18 + 0.4 × 2.3 / 24 × 30 g each.
    ['40 studs of ground past the edge of “Long table” weigh 53 g', 'up to 1.3 g a stud', 'at most 1 g'],
  ],
  [
    'plots-gap',
    (f) => {
      plot(0, { streetFront: true })(f);
      plot(1, { streetFront: true, x: 18 })(f);
    },
    ['“Baker” and “Dyer” there are 2 studs', 'at least 6'],
  ],
  [
    'door-cliff',
    add({ pads: [pad, { ...pad, id: 'p', name: 'Green', x: 0, y: 0, w: 96, d: 17, order: 0 }] }),
    ['“Baker”, to the south', '6b (57.6 mm) above', 'at most 1b'],
  ],
  [
    'roof-hits',
    // Half the span is 7 studs: 1 stud from the wall the roof is at 9 + 21 / 7 = 12. It stands on a plate of floor.
    plot(0, { eaves: 9, fittings: [{ name: 'Oven', height: 15, fromWall: 1 }] }),
    ['“Baker” the roof is at 4b over “Oven”', '1b1p (12.8 mm) too tall'],
  ],
  [
    'part-joint',
    plot(0, { eaves: 18, parts: [{ name: 'Roof', use: 'roof', height: 9, clears: 18 }] }),
    ['“Roof” of “Baker” lifts off at 7b, 1b above its eaves', 'make it 4b high'],
  ],
  [
    'fitting-fault',
    plot(0, {
      fittings: [
        { name: 'Oven', height: 9, place: { x: 0, y: 0, w: 4, d: 4 } },
        { name: 'Table', height: 6, place: { x: 3.5, y: 3, w: 3, d: 6 } },
      ],
    }),
    ['In “Baker”, on storey 1, “Oven” has no room: it shares studs with “Table”, and 1 thing more'],
  ],
  // Its south wall is 32 studs long; the door of the middle bay opens over 4 studs, where the counter stands 3 off.
  [
    'leaf-blocked',
    plot(0, {
      bays: [{ side: 's', storey: 1, bays: [{ wide: 8, part: 'door-4x1' }] }],
      fittings: [{ name: 'Counter', height: 9, place: { x: 0, y: 10, w: 30, d: 1 } }],
    }),
    [
      'In “Baker”, on storey 1, the door to the south cannot open inwards: “Counter” stands within the 4 studs',
    ],
  ],
  [
    'stair-steep',
    plot(0, {
      storeys: 2,
      fittings: [{ name: 'Ladder', use: 'stair', height: 3, place: { x: 0, y: 0, w: 2, d: 3 } }],
    }),
    ['“Ladder” climbs 5b at 5 plates a stud', 'at most 1b a stud'],
  ],
  [
    'front-base',
    plot(0, { streetFront: true, pavement: 6, connectors: 'none' }),
    ['“Baker”', 'pavement is 6 studs deep where 8 meet', 'no connectors where 2'],
  ],
  [
    'tall-first',
    // A tree of 6 studs and a planting hide what is left of a building of 16: 10 of 16 studs.
    plot(
      1,
      { x: 0, y: 24, w: 4, height: 42 },
      {
        display: { viewedSides: ['s'], limitHeight: 80 },
        trees: [{ id: 't', name: 'Elm', x: 9, y: 20, crown: 6, height: 42 }],
      },
    ),
    ['Seen from the south, “Elm” and 1 other thing stand before “Baker”', '63 % of its width', '4b taller'],
  ],
  [
    'ground-uncounted',
    add({ waters: [{ id: 'a', name: 'Pond', x: 40, y: 20, w: 10, d: 8, level: 'low', offset: -3 }] }),
    ['80 studs of “Pond” lie at 0b', '0 pieces', 'at least 1 plate'],
  ],
  [
    'bare-step',
    (f) => void f.pads.push({ ...pad, offset: 6 }),
    ['“Deck” falls by up to 2b (19.2 mm)', '10 studs', 'is open'],
  ],
  [
    'raw-edge',
    add({ display: { viewedSides: ['n'] } }),
    ['north side', '64 studs', '6b (57.6 mm)', '0 should'],
  ],
  [
    'water-levels',
    add({
      waters: [
        { id: 'a', name: 'Upper pond', x: 40, y: 20, w: 10, d: 8, level: 'street' },
        { id: 'b', name: 'Lower pond', x: 50, y: 20, w: 10, d: 8, level: 'street', offset: -3 },
      ],
    }),
    ['“Upper pond” and “Lower pond”', 'along 8 studs', 'differ by 1b'],
  ],
  [
    'wall-course',
    (f) => void f.pads.push({ ...pad, offset: 7, edges: { n: { kind: 'wall' } } }),
    ['north of “Deck” is 2b1p high', '1 plate on top of 2 bricks', '10 studs'],
  ],
  [
    'way-steep',
    add({
      ways: [
        {
          ...way,
          points: [
            { x: 36, y: 40, z: 18 },
            { x: 56, y: 40, z: 28 },
          ],
        },
      ],
    }),
    // 10 plates in 20 studs: half a plate a stud, 20 %.
    ['“Lane” climbs at 20 %', 'limit is 15 %'],
  ],
  [
    'way-hangs',
    (f) => {
      // A cliff of 15 plates, and a ramp of 15 % (0.375 plates a stud) that has 20 studs for it: it wins 7.5 of them,
      // and ends 3.75 off the ground on both sides.
      f.pads.push({ ...pad, x: 40, y: 20, w: 40, d: 20, offset: 15 });
      add({
        ways: [
          {
            ...way,
            onSteep: 'ramp',
            points: [
              { x: 30, y: 30 },
              { x: 50, y: 30 },
            ],
          },
        ],
      })(f);
    },
    ['first end of “Lane” lies 1b1p above', 'at most 1p', '11 studs further'],
  ],
  [
    'way-over-water',
    add({
      waters: [{ id: 'a', name: 'Pond', x: 40, y: 20, w: 12, d: 8, level: 'street', offset: -3 }],
      ways: [
        {
          ...way,
          points: [
            { x: 46, y: 4, z: 18 },
            { x: 46, y: 44, z: 18 },
          ],
        },
      ],
    }),
    // 8 wide over 8 studs of water.
    ['“Lane” covers 64 studs of “Pond”', 'up to 6b (57.6 mm)'],
  ],
  [
    'way-tight',
    add({
      ways: [
        {
          ...way,
          points: [
            { x: 40, y: 30 },
            { x: 42, y: 30 },
            { x: 42, y: 44 },
          ],
        },
      ],
    }),
    ['8 studs wide, turns by 90° with 2.0 studs', 'needs 4.0'],
  ],
  [
    'way-ends',
    add({
      ways: [
        {
          ...way,
          points: [
            { x: 40, y: 30 },
            { x: 80, y: 30 },
          ],
        },
        {
          ...way,
          id: 'v',
          name: 'Spur',
          points: [
            { x: 60, y: 36 },
            { x: 60, y: 44 },
          ],
        },
      ],
    }),
    ['“Spur” ends 2 studs short of “Lane”'],
  ],
  [
    'track-steep',
    add({ tracks: [{ ...track, pieces: [straight, { ...straight, rise: 2 }] }] }),
    // 2 plates (6.4 mm) over 16 studs (128 mm).
    ['Piece 2 of “Main” climbs at 5 %', 'limit is 4 %'],
  ],
  [
    'track-tight',
    add({ tracks: [{ ...track, pieces: [straight, { go: 'left', radius: 24 }] }] }),
    ['Piece 2 of “Main” has a radius of 24 studs', 'least is 40'],
  ],
  [
    'track-ends',
    add({
      tracks: [
        { ...track, pieces: [straight] },
        { ...track, id: 't2', name: 'Siding', x: 27.5, offset: 1, pieces: [straight] },
      ],
    }),
    ['“Main” and “Siding”', '1.5 studs apart', '1p higher or lower'],
  ],
  [
    'track-clear',
    add({ tracks: [{ ...track, y: 20, pieces: [straight] }] }),
    ['“Baker” stands 4.5 studs from the middle of “Main”', 'free up to 5'],
  ],
  // Baker's roof stands 8 studs out from 9 bricks up, 27 plates: lower than the 33 plates that must be free.
  [
    'track-clear',
    (quiet) => {
      plot(0, { overhang: { n: 0, e: 0, s: 8, w: 0 }, overhangFrom: 27 })(quiet);
      add({ tracks: [{ ...track, y: 23, pieces: [straight] }] })(quiet);
    },
    ['“Baker” hangs 9b above the bed 0.5 studs from the middle of “Main”', 'free up to 5 and up to 11b'],
  ],
  [
    'water-bed',
    add({ waters: [{ id: 'w', name: 'Tarn', x: 40, y: 20, w: 10, d: 10, level: 'low', depth: 5 }] }),
    [
      '“Tarn” is said to be 1b2p deep',
      'surface lies 1b above',
      'at most 1b deep, or raise its surface by 2p',
    ],
  ],
  // Two corners of 8 studs at the ends of one row of a house 16 wide leave nothing of it.
  [
    'corners-left-out',
    plot(0, {
      w: 16,
      d: 16,
      notches: [
        { corner: 'nw', w: 8, d: 4 },
        { corner: 'se', w: 8, d: 13 },
      ],
    }),
    ['The corners left out of “Baker” take 16 studs of a row of 16', '15 may be'],
  ],
  // A court as deep as the house leaves its two ends.
  [
    'recess-not-built',
    plot(0, { w: 16, d: 12, recesses: [{ side: 'n', at: 4, wide: 8, deep: 12 }] }),
    [
      'Recess 1 of “Baker”, 8 × 12 studs in its north side, is not built',
      'it would part the building, which is 12 studs deep there',
    ],
  ],
  // Round a corner of one stud no slope of two fits.
  [
    'roof-flat',
    plot(0, { w: 16, d: 16, height: 40, eaves: 20, notches: [{ corner: 'nw', w: 1, d: 1 }] }),
    [
      'The roof of “Baker”, 16 × 16 studs with parts left out',
      'from 6b2p',
      'no courses of slopes find room on it that close it',
    ],
  ],
  [
    'outside-footprint',
    add({
      runs: [
        {
          ...{ id: 'g', name: 'Far wall', height: 9 },
          points: [
            { x: 40, y: -4 },
            { x: 48, y: -4 },
          ],
        },
      ],
    }),
    ['“Far wall” has 8 studs outside the footprint'],
  ],
  [
    'wall-openings',
    add({
      runs: [
        {
          ...{ id: 'g', name: 'Long wall', height: 6, panel: 8, openings: [{ at: 2, part: 'door-2x1' }] },
          points: [
            { x: 40, y: 40 },
            { x: 71, y: 40 },
          ],
        },
      ],
    }),
    ['in panel 2 of “Long wall” ends 6b above its foot, and the wall is 2b high'],
  ],
  [
    'wall-arches',
    add({
      runs: [
        {
          ...{ id: 'g', name: 'Long wall', height: 6, arches: 'arch-1x8x2' },
          points: [
            { x: 40, y: 40 },
            { x: 71, y: 40 },
          ],
        },
      ],
    }),
    ['“Long wall” is 2b high', 'arch 1×8×2, need 3b'],
  ],
  // The pad is 3 plates high: one for the cover, two for layers.
  [
    'layers-thin',
    add({
      customGrounds: [
        {
          ...{ id: 'custom-1', name: 'Snow', colour: 'chalk' },
          layers: [
            { colour: 'chalk', plates: 2 },
            { colour: 'ice', plates: 3 },
          ],
        },
      ],
      pads: [
        { id: 'w', name: 'Field', x: 40, y: 20, w: 10, d: 8, level: 'low', ground: 'custom-1', order: 9 },
      ],
    }),
    ['“Snow” has 1b2p of layers', '80 studs of it have room for less', 'thinnest for 2p', '2b at least'],
  ],
  [
    'track-seam',
    add({ tracks: [{ ...track, x: 44, y: 30, heading: 1, pieces: [straight] }] }),
    ['“Main” crosses the seam between A1 and A2 22.5° off square'],
  ],
  [
    'flag-wind',
    add({ flags: [{ id: 'g', name: 'Pennant', x: 60, y: 20, heading: 'n' }], display: { wind: 'w' } }),
    ['“Pennant” points north', 'wind from the west flags point east'],
  ],
  [
    'plant-season',
    add({
      plantings: [
        { id: 'g', name: 'Wood', x: 60, y: 20, w: 10, d: 10, mix: [{ name: 'Maple', season: 'autumn' }] },
      ],
      display: { season: 'summer' },
    }),
    ['Maple in “Wood” shows autumn', 'season is summer'],
  ],
  [
    'leaves-unwritten',
    add({
      trees: [{ id: 'o', name: 'Oak', x: 60, y: 20, season: 'month' }],
      display: { season: 'autumn', month: 10, leaves: [{ month: 9, tones: [{ colour: 'ochre' }] }] },
    }),
    ['1 plant has leaves by month; no colours are written for October, so that it counts as Rust'],
  ],
  [
    'repeat-seam',
    add({
      repeats: [
        {
          id: 'g',
          name: 'Arches',
          points: [
            { x: 36, y: 40 },
            { x: 60, y: 40 },
          ],
          spacing: 'count',
          count: 1,
          length: 8,
        },
      ],
    }),
    ['1 member of “Arches” would be cut'],
  ],
  [
    'span-ties',
    add({
      runs: [
        {
          id: 'g',
          name: 'Long wall',
          points: [
            { x: 40, y: 40 },
            { x: 71, y: 40 },
          ],
          height: 18,
        },
      ],
    }),
    ['“Long wall”, 6b high', '31 studs straight', '3 ties'],
  ],
  [
    'marker-open',
    add({
      markers: [{ id: 'g', name: 'Fountain', x: 60, y: 20, w: 8, d: 8 }],
      display: { showDate: '2031-07-01' },
    }),
    ['“Fountain” is still to be decided 4 weeks before', 'decide 6 weeks'],
  ],
  [
    'reserved-built',
    add({ reserved: [{ id: 'g', name: 'Footbridge', x: 24, y: 8, w: 16, d: 16 }] }),
    ['64 studs of the ground reserved for “Footbridge”', '“Dyer”'],
  ],
];
