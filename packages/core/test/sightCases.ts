import type { sceneFrom } from '../src/document/index.ts';

// For each rule of what visitors see: one thing that spoils the quiet display of the checks in its room, and what must
// be said. Eyes stand 1,016 mm (127 studs) south of it, over a table of 740 mm.

type Room = Parameters<typeof sceneFrom>[0];

export const sightCases: [string, (room: Room) => unknown, string[]][] = [
  [
    'good-side-hidden',
    // Over the wall, 249.6 mm up, a line from shoulders (1,210 mm) to the top of the mill, 115.2 mm, passes at 175 mm.
    (f) =>
      Object.assign(f, {
        plots: [
          { id: 'm', name: 'Mill', x: 40, y: 20, w: 16, d: 8, height: 18, goodSides: ['s', 'w'] as const },
        ],
        runs: [
          {
            ...{ id: 'w', name: 'Long wall', thick: 2, height: 60 },
            points: [
              { x: 0, y: 36 },
              { x: 96, y: 36 },
            ],
          },
        ],
      }),
    ['The good side of “Mill” looks south, and visitors see 0 % of it', '“Long wall” hides most', '100 %'],
  ],
  [
    'tall-first',
    // From shoulders a line to the highest point of the mill's face, 105.6 mm up, passes 4 studs before it at 135.6 mm: the
    // tower ends at 249.6. From the ends of the side it shifts by 2.2 studs at most, and the tower is 10 wider each way.
    (f) =>
      Object.assign(f, {
        plots: [
          { id: 'm', name: 'Mill', x: 40, y: 20, w: 16, d: 8, height: 18 },
          { id: 't', name: 'Tower', x: 30, y: 32, w: 36, d: 4, height: 60 },
        ],
      }),
    ['“Tower” stands before “Mill” and hides 100 % of its south face from visitors’ eyes'],
  ],
  [
    'scene-blends',
    // Behind every head lies grass, which is Moss where no recipe says otherwise.
    (f) =>
      Object.assign(f, {
        characters: [
          { id: 'w', name: 'Old Wenna', wears: [{ part: 'torso-1x2', colour: 'moss' }] },
          { id: 'r', name: 'Rill', wears: [{ part: 'legs-1x2', colour: 'poppy' }] },
        ],
        figures: [
          {
            ...{ id: 'q', name: 'Queue', x: 60, y: 30 },
            spots: [{ character: 'w' }, { character: 'r', dx: 2 }],
          },
        ],
      }),
    [
      '100 % of “Queue” is seen before its own colour: Moss before Moss of “grass” differs by 0.0',
      '10 or more',
    ],
  ],
  [
    'door-blends',
    (f) =>
      Object.assign(f.plots?.[0] ?? {}, {
        ...{ wallColour: 'ochre', letInColour: 'ochre' },
        bays: [{ side: 's', storey: 1, bays: [{ wide: 16, part: 'door-4x1', sill: 0, high: 6 }] }],
      }),
    ['of “Baker” are Ochre in walls of Ochre: they differ by 0.0', '10 or more'],
  ],
  [
    'faces-far',
    // 4,016 mm from the edge, and the figures 18 studs behind that: 4,160 mm; 96 mm aside; a child's eyes 310 mm up, the
    // faces 18 + 0.9 × 13 plates, 95.04 mm. √(4,160² + 96² + 214.96²) = 4,166.7.
    (f) => {
      Object.assign(f.barriers?.[0] ?? {}, { y1: 4400, y2: 4400 });
      for (const corner of f.places?.[0]?.walls ?? []) if (corner.y > 0) corner.y = 6000;
      Object.assign(f, { figures: [{ id: 'q', name: 'Queue', x: 60, y: 30 }] });
    },
    ['The faces of “Queue” are 4,166.7 mm from the nearest eyes', 'made out up to 3,437.7 mm'],
  ],
  [
    'signboard-unseen',
    (f) => Object.assign(f, { signboards: [{ id: 'b', name: 'Quay', x: 60, y: 30, facing: 0 }] }),
    ['“Quay” looks to 0°, and visitors look from the south: 0 eyes are before it'],
  ],
  [
    'signboard-small',
    // The rope is 1,016 mm from the edge, and the letters 17.5 studs behind that: 1,156 mm; the nearest eyes stand 96 mm
    // aside. A child’s are 310 mm up, the board’s middle 18 + 15 plates, 105.6 mm. √(1,156² + 96² + 204.4²) = 1,177.9 mm,
    // tan 10′ of it 3.43 mm, and from 11.1° aside 3.49 mm.
    (f) => Object.assign(f, { signboards: [{ id: 'b', name: 'Quay', x: 60, y: 30, letters: 3 }] }),
    ['The letters of “Quay” are 3 mm high; where it is seen best, 11° off straight on', 'from 3.5 mm on'],
  ],
  [
    'signboard-letters',
    // 4 × 0.7 × 20 mm are 56; 0.7 × 6 plates are 13.44 mm, and 48 mm ÷ 2.8 are 17.1.
    (f) => Object.assign(f, { signboards: [{ id: 'b', name: 'Quay', x: 60, y: 30, letters: 20 }] }),
    [
      'Letters of 20 mm make “Quay” 56 mm long; on a board of 6 studs and 6 plates go letters of 13.4 mm at most',
    ],
  ],
  [
    'signboard-dim',
    // Relative luminance (WCAG 2) of Slate #66707a by hand: 0.2126 × 0.133 + 0.7152 × 0.162 + 0.0722 × 0.195 = 0.1582; of
    // Pebble #9a9c98 0.3292.
    (f) =>
      Object.assign(f, {
        signboards: [{ id: 'b', name: 'Quay', x: 60, y: 30, colour: 'pebble', ink: 'slate' }],
      }),
    ['Slate letters on Pebble differ in light by 51.9 %', 'legible is 70 % or more'],
  ],
  [
    'signboard-blends',
    // Behind its edge lies grass, which is Moss where no recipe says otherwise.
    (f) => Object.assign(f, { signboards: [{ id: 'b', name: 'Quay', x: 60, y: 30, colour: 'moss' }] }),
    ['of the edge of “Quay” is seen before its own colour: Moss before Moss of “grass” differs by 0.0'],
  ],
  [
    'plain-seen',
    (f) => Object.assign(f, { plains: [{ id: 'g', name: 'Back', areas: [{ x: 60, y: 30, w: 8, d: 4 }] }] }),
    ['32 of 32 studs of plain ground are seen now; 0 were meant to be'],
  ],
  [
    'tunnel-deep',
    // Under its lintel, 35.2 mm up, a child's line falls (310 − 35.2) ÷ 127 = 2.16 mm a stud, and the floor is 25.6 mm
    // lower: 11.8 studs, of which the middles of 12 are seen. Others look steeper.
    (f) =>
      Object.assign(f, {
        cavities: [
          {
            ...{ id: 'c', name: 'Adit', use: 'tunnel', x: 40, y: 8, w: 8, d: 40 },
            ...{ level: 'low', clear: 8 },
          },
        ],
      }),
    ['Visitors see at most 30 % of the floor of “Adit”, 12 of 40 studs from the south deep'],
  ],
];
