import type { sceneFrom } from '../src/document/index.ts';

// For each rule of small scenes' casts: one thing that spoils the quiet display of the checks, and what must be said.

type File = Parameters<typeof sceneFrom>[0];
type Quiet = File & { display: object };

const scene = (id: string, name: string, x: number, more: object = {}) => ({
  ...{ id, name, x, y: 30 },
  ...more,
});
const wenna = { id: 'wenna', name: 'Old Wenna', role: 'baker' };
/** Looked at from the south, in the room that `inRoom` makes. */
export const castCases: [string, (f: Quiet) => unknown, string[]][] = [
  [
    'cast-twice',
    (f) =>
      Object.assign(f, {
        characters: [
          { id: 'cart', name: 'Bread cart', form: 'vehicle' },
          { ...wenna, crewOf: 'cart' },
        ],
        figures: [
          scene('m', 'Market', 60, { spots: [{ character: 'cart', form: 'vehicle' }] }),
          scene('g', 'Gate', 80, { spots: [{ character: 'wenna' }] }),
        ],
      }),
    ['“Old Wenna” is in 2 spots at once, in “Gate”, “Market”; 1 may be'],
  ],
  // Said to be placed, and the cart is there; who rides on it is not.
  [
    'cast-missing',
    (f) =>
      Object.assign(f, {
        characters: [
          { id: 'cart', name: 'Bread cart', form: 'vehicle' },
          { ...wenna, crewOf: 'cart', state: 'lost' },
        ],
        figures: [
          scene('m', 'Market', 60, { state: 'placed', spots: [{ character: 'cart', form: 'vehicle' }, {}] }),
        ],
      }),
    ['“Market” lacks 1 of its cast of 2 spots: “Old Wenna” is lost'],
  ],
  [
    'cast-season',
    (f) => {
      Object.assign(f.display, { season: 'winter' });
      Object.assign(f, {
        characters: [{ ...wenna, season: 'summer' }],
        figures: [scene('m', 'Market', 60, { spots: [{ character: 'wenna' }] })],
      });
    },
    ['“Old Wenna” in “Market” wears clothes of summer; the season is winter and 0 should differ'],
  ],
  // Judged on 2031-06-01: 31 days after the first of May. The section stands at planned, the task is done.
  [
    'milestone-missed',
    (f) =>
      Object.assign(f, {
        tasks: [{ id: 'k', name: 'Sweep', done: '2031-04-30' }],
        milestones: [
          {
            ...{ id: 'n', name: 'May letter', date: '2031-05-01' },
            promises: [
              { of: 'section', thing: 's', stage: 'ground' },
              { of: 'task', thing: 'k' },
              { of: 'figure', thing: 'never-was' },
            ],
          },
          { id: 'later', name: 'June letter', date: '2031-06-01', promises: [{ of: 'section', thing: 's' }] },
        ],
      }),
    [
      '“May letter” promised 3 things for 31 days ago; 2 of them are not met',
      'section A, All at ground; a small scene that is gone placed',
    ],
  ],
  [
    'wish-unpromised',
    (f) =>
      Object.assign(f, {
        threads: [
          { id: 'w', title: 'A lamp', text: 'x', by: null, use: 'wish', askedBy: 38, state: 'accepted' },
          { id: 'v', title: 'A cat', text: 'x', by: null, use: 'wish', askedBy: 7, state: 'open' },
          { id: 'a', title: 'Ivy', text: 'x', by: null, state: 'accepted' },
        ],
      }),
    ['“A lamp”, wished for by 38 followers, is accepted and promised for 0 milestones.'],
  ],
  // The display ends at row 48: 30 + 18.5 lies half a stud beyond.
  [
    'spot-off',
    (f) => Object.assign(f, { figures: [scene('m', 'Market', 60, { spots: [{}, { dx: -2, dy: 18.5 }] })] }),
    ['Spot 2 of “Market”, 2 studs west and 18.5 studs south of it, is off the footprint; 0 spots may be'],
  ],
];

/** In a room, looked at from the south: one looks north, one to the side, where eyes further along are before it. */
export const backTurned: [string, (f: File) => unknown, string[]] = [
  'spot-back',
  (f) =>
    Object.assign(f, {
      figures: [scene('m', 'Market', 60, { spots: [{ facing: 0 }, { facing: 90 }, { facing: 170 }] })],
    }),
  [
    '1 of 3 spots of “Market” turns its back on all visitors, the first “spot 1”, who looks to 0°',
    'see 0 of its face',
  ],
];
