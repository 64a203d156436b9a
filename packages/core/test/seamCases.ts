import type { sceneFrom } from '../src/document/index.ts';

// For each rule of seams and modules: one thing that spoils the quiet display of the checks, and what must be said.

type File = Parameters<typeof sceneFrom>[0];
type Quiet = File & { levels: { height: number }[]; display: object };

const forty = <T>(value: T) => new Array<T>(48).fill(value);
/** What is along the seam of the two modules of the quiet display: 48 studs of grass at 6 bricks. */
const agreed = {
  x: 48,
  y: 0,
  upright: true,
  heights: { a: forty(18), b: forty(18) },
  grounds: { a: forty('grass'), b: forty('grass') },
};
const sign = (side: 'a' | 'b', by: string) => ({ side, person: 'ada', by, at: '2031-05-01T10:00:00Z' });
const both = [sign('a', 'Ada Fenn'), sign('b', 'Bo Lund')];
const seam = (fields: object) => (f: Quiet) =>
  Object.assign(f, { seams: [{ id: 'seam-m1-m2', a: 'm1', b: 'm2', agreed, signs: both, ...fields }] });

export const seamCases: [string, (f: Quiet) => unknown, string[]][] = [
  [
    'seam-reopened',
    (f) => {
      seam({})(f);
      // Two studs beside the seam, raised by 2 plates where 1 is tolerated.
      const more = {
        id: 'q',
        name: 'Knoll',
        x: 47,
        y: 10,
        w: 1,
        d: 2,
        level: 'street',
        offset: 2,
        ground: 'grass',
        order: 1,
      };
      Object.assign(f, { pads: [...(f.pads ?? []), more] });
    },
    ['A1–A2', 'Ada Fenn and Bo Lund', '2 studs differ', 'A1 studs 11 to 12 +2p', 'more than 1 plate'],
  ],
  ['seam-half', seam({ signs: [sign('a', 'Ada Fenn')] }), ['A1–A2', '1 signature of 2', 'A2 has not signed']],
  [
    'seam-built',
    seam({ readings: [6, 7, 8].map((at) => ({ side: 'b' as const, at, height: 15 })) }),
    ['3 studs stand wrong by up to 1b', 'A2, studs 7 to 9: raise by 1b'],
  ],
  [
    'seam-track',
    (f) =>
      Object.assign(f, {
        tracks: [
          {
            id: 't',
            name: 'Tip line',
            x: 40,
            y: 20,
            heading: 1,
            level: 'street',
            offset: 0,
            pieces: [{ go: 'straight', length: 16 }],
          },
        ],
      }),
    ['A1–A2', '“Tip line”', '23° from square'],
  ],
  // 2,304 studs × 450 plates × 0.0958 g × 0.4 = 39.7 kg, 0.4 kg of base and 0.3 kg of houses, for two: 23 × 25/30 × 0.997 × 0.9 = 17.2 kg each.
  ['module-heavy', (f) => (f.levels[1].height = 450), ['Module A1', '40.6 kg', '17.2 kg']],
  ['module-mass', (f) => Object.assign(f.display, { moduleMaxKg: 2 }), ['Module A1', '2.4 kg', '2 kg']],
  // The centre is half of 450 × 3.2 mm up, the edge 192 mm away: atan(192 / 720) is about 15°.
  ['module-tips', (f) => (f.levels[1].height = 450), ['Module A', '15°', '20°']],
  [
    'module-sections',
    (f) =>
      Object.assign(f, {
        people: [...(f.people ?? []), { id: 'bo', name: 'Bo Lund', initials: 'BL' }],
        sections: [
          { id: 's', letter: 'A', name: 'West', x: 0, y: 0, w: 40, d: 48, owner: 'ada' },
          { id: 't', letter: 'B', name: 'East', x: 40, y: 0, w: 56, d: 48, owner: 'bo' },
        ],
      }),
    ['Module A1', '2 sections of 2 builders', 'A 1,920, B 384'],
  ],
];
