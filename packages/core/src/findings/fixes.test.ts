import { partOf } from '../catalogue/index.ts';
import { reduce, sceneFrom, type Plot, type Scene } from '../document/index.ts';
import { evaluateRules } from './evaluator.ts';
import { FIXABLE_RULES, tryFixes } from './fixes.ts';
import { RULES } from './rules.ts';

const TODAY = '2027-01-15';
type Given = Parameters<typeof sceneFrom>[0];
const BASE: Given & { display: object; levels: object[]; pads: object[] } = {
  display: { name: 'Fixes', kind: 'diorama', moduleMaxW: 96, moduleMaxD: 96 },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 64, d: 64 }],
  tables: [{ id: 't', name: 'Table', x: 0, y: 0, w: 512, d: 512 }],
  pads: [{ id: 'p', name: 'Ground', x: 0, y: 0, w: 64, d: 64, level: 'low', ground: 'grass' }],
  people: [{ id: 'ada', name: 'Ada Brook', initials: 'AB' }],
  sections: [{ id: 's', letter: 'A', name: 'All', x: 0, y: 0, w: 64, d: 64, owner: 'ada' }],
};
const house = (id: string, x: number, y: number, more: object = {}) => ({
  ...{ id, name: `House ${id}`, x, y, w: 10, d: 8, height: 18 },
  ...more,
});
const keyOf = (scene: Scene, rule: string) =>
  evaluateRules(scene, { today: TODAY }).find((finding) => finding.rule === rule)?.key ?? 'not found';
const fixed = (given: Partial<Given>, rule: string) => {
  const scene = sceneFrom({ ...BASE, ...given });
  const fix = tryFixes(scene, keyOf(scene, rule), TODAY);
  if (!fix) throw new Error(`no fix of ${rule}`);
  const done = reduce(scene, fix.changes);
  if (!done.ok) throw new Error(done.refusal.sentence);
  return { fix, after: done.scene };
};

describe('fixes of findings', () => {
  test('two buildings that share studs: the shortest way that clears them, by hand 2 studs east', () => {
    // House b lies 8 studs east of a, which is 10 wide.
    const { fix, after } = fixed({ plots: [house('a', 20, 20), house('b', 28, 20)] }, 'plots-overlap');
    expect(fix.words).toBe('Move House b 2 studs east');
    expect(after.plot.b).toMatchObject({ x: 30, y: 20 });
    expect(fix.alsoGone).toEqual([]);
  });
  test('a way that would make another finding is passed over', () => {
    // East of b stands c: the two studs that would do are taken, so b goes another way.
    const plots = [house('a', 20, 20), house('b', 28, 20), house('c', 38, 20)];
    const { fix, after } = fixed({ plots }, 'plots-overlap');
    expect(fix.words).not.toContain('east');
    expect(evaluateRules(after, { today: TODAY }).filter(({ rule }) => rule === 'plots-overlap')).toEqual([]);
  });
  test('nor one that makes a finding worse that is there already', () => {
    // b shares 2 studs with a and 2 with c, which ends 2 studs short of the edge: east of a lies more of c.
    const plots = [house('a', 20, 20), house('b', 28, 20), house('c', 36, 20)];
    const { after } = fixed({ plots }, 'plots-overlap');
    const shared = evaluateRules(after, { today: TODAY }).filter(({ rule }) => rule === 'plots-overlap');
    expect(shared.every(({ numbers }) => (numbers.w ?? 0) <= 2)).toBe(true);
  });
  test('a small scene behind a house that nobody sees comes out from behind it', () => {
    const { fix, after } = fixed(
      {
        display: { ...BASE.display, viewedSides: ['s'], place: 'hall' },
        places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0 }],
        tables: [{ id: 't', name: 'Table', place: 'hall', x: 0, y: 0, w: 512, d: 512, height: 740 }],
        plots: [house('a', 27, 20, { height: 60 })],
        figures: [{ id: 'q', name: 'Queue', x: 32, y: 18 }],
      },
      'scene-unseen',
    );
    // Moves of 8 studs come first: east or west it stands beside the house, whose 10 studs end 5 from its middle.
    expect(fix.words).toBe('Move Queue 8 studs west');
    expect(after.figure.q).toMatchObject({ x: 24, y: 18 });
  });
  test('a signboard that looks away is turned; small letters get the board they need, dim ones another colour', () => {
    const board = (more: object): Partial<Given> => ({
      display: { ...BASE.display, viewedSides: ['s'], place: 'hall' },
      places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0 }],
      tables: [{ id: 't', name: 'Table', place: 'hall', x: 0, y: 0, w: 512, d: 512, height: 740 }],
      signboards: [{ id: 'q', name: 'QUAY', x: 32, y: 40, ...more }],
    });
    expect(fixed(board({ facing: 0 }), 'signboard-unseen').after.signboard.q).toMatchObject({ facing: 180 });
    // By length 8 ÷ 2.8 = 2.8 mm. The front eyes stand 23.5 + 75 studs off: 788 mm, and need 2.4 mm; so it must be farther in.
    const small = fixed(board({ w: 1, height: 1, y: 4 }), 'signboard-small');
    expect(fixed(board({ letters: 30 }), 'signboard-letters').after.signboard.q).toMatchObject({
      letters: null,
    });
    expect(small.after.signboard.q.height).toBeGreaterThan(1);
    expect(fixed(board({ colour: 'pebble', ink: 'slate' }), 'signboard-dim').after.signboard.q.ink).toBe(
      'soot',
    );
  });
  test('the good side of a house comes out from behind a taller one; its doors get a colour of their own', () => {
    const house8 = house('b', 27, 4, { goodSides: ['s'], ...{ wallColour: 'chalk', letInColour: 'chalk' } });
    const given: Partial<Given> = {
      display: { ...BASE.display, viewedSides: ['s'], place: 'hall' },
      places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0 }],
      tables: [{ id: 't', name: 'Table', place: 'hall', x: 0, y: 0, w: 512, d: 512, height: 740 }],
      plots: [
        house('a', 27, 14, { height: 60 }),
        {
          ...house8,
          bays: [{ side: 's', storey: 1, bays: [{ wide: 10, part: 'door-4x1', sill: 0, high: 6 }] }],
        },
      ],
    };
    const { fix, after } = fixed(given, 'good-side-hidden');
    // Of the moves of 8 studs north leaves the display; east or west 2 of its 10 studs are still behind the other.
    expect(fix.words).toMatch(/^Move House b (8|16) studs (east|west)$/);
    expect(evaluateRules(after, { today: TODAY }).map(({ rule }) => rule)).not.toContain('good-side-hidden');
    // Chalk is tried first, and is what the walls are.
    expect(fixed(given, 'door-blends').fix.words).toBe('Make the doors and windows of House b Soot');
  });
  test('a module that is too wide for a door is split where it is most even and nothing else breaks', () => {
    const bases = [0, 32].flatMap((x) => [0, 32].map((y) => ({ x, y, w: 32, d: 32 })));
    const module = { id: 'm', name: 'A1', x: 0, y: 0, w: 64, d: 64, bases };
    const { fix, after } = fixed(
      {
        // 64 studs are 511.8 mm; half of them, 255.8, pass a door of 400.
        passages: [{ id: 'd', name: 'door', width: 400, height: 2000 }],
        bases: [{ id: 'b', w: 32, d: 32, price: 1, stock: 4 }],
        modules: [module],
        // A house over the middle from west to east: a cut on column 32 goes through it.
        plots: [house('a', 27, 10)],
        // Its cable runs from row 10 to row 50, and would be torn.
        supplies: [{ id: 's', name: 'Pack', type: 'battery', x: 4, y: 10, volts: 5, capacity: 90_000 }],
        circuits: [{ id: 'c', name: 'Street', supply: 's' }],
        devices: [{ id: 'd', name: 'Lamp', x: 4, y: 50, circuit: 'c', volts: 5, milliamps: 20 }],
      },
      'module-passage',
    );
    expect(fix.words).toBe('Split A1 on row 32; 1 connector planned in its cables');
    expect(after.circuit.c.connectors).toEqual([{ x: 4, y: 32 }]);
    expect(Object.values(after.module).map(({ w, d }) => [w, d])).toEqual([
      [64, 32],
      [64, 32],
    ]);
  });
  test('what does not go into the crate that is chosen for it goes into one that holds it', () => {
    const crate = (id: string, insideW: number, count = 1) => ({
      ...{ id, name: id.toUpperCase(), count, insideW, insideD: 300, insideH: 200, padding: 5 },
    });
    const { fix, after } = fixed(
      {
        crates: [crate('box', 30), crate('tray', 20), crate('tub', 200)],
        figures: [{ id: 'q', name: 'Queue', x: 30, y: 30, cast: 1 }],
        handlings: [{ id: 'h', piece: 'figure-q', packing: 'crate', crate: 'box' }],
      },
      'crate-unfit',
    );
    expect(fix.words).toBe('Pack it in “TUB”');
    expect(after.handling.h.crate).toBe('tub');
  });
  describe('casts of small scenes', () => {
    const figures = (...spots: object[][]) =>
      spots.map((each, i) => ({ id: `f${i}`, name: `Scene ${i}`, x: 20 + 20 * i, y: 30, spots: each }));
    const wenna = { id: 'wenna', name: 'Old Wenna', role: 'baker' };
    test('who is in two places is played by a stand-in of the role who is free, or the spot is left open', () => {
      const twice = figures([{ character: 'wenna' }], [{ character: 'wenna' }]);
      const stand = { id: 'tam', name: 'Tam', role: 'Baker' };
      const { fix, after } = fixed(
        { characters: [wenna, { ...stand, id: 'lost', state: 'lost' }, stand], figures: twice },
        'cast-twice',
      );
      expect(fix.words).toBe('Let “Tam” play in “Scene 1”');
      expect(after.figure.f1.spots[0].character).toBe('tam');
      const open = fixed({ characters: [wenna, { ...stand, role: 'mason' }], figures: twice }, 'cast-twice');
      expect(open.fix.words).toBe('Leave its spot in “Scene 1” open');
      expect(open.after.figure.f1.spots[0]).toMatchObject({ character: null, role: 'baker' });
    });
    test('who is lost is played by another, unless only that one will do', () => {
      const given = (isFixed: boolean) => ({
        characters: [
          { ...wenna, state: 'lost' as const },
          { id: 'tam', name: 'Tam', role: 'baker' },
        ],
        figures: [{ ...figures([{ character: 'wenna', isFixed }])[0], state: 'placed' as const }],
      });
      expect(fixed(given(false), 'cast-missing').fix.words).toBe('Let “Tam” play in “Scene 0”');
      expect(() => fixed(given(true), 'cast-missing')).toThrow('no fix');
    });
    test('only those who look away are turned to visitors', () => {
      const { fix, after } = fixed(
        {
          display: { ...BASE.display, viewedSides: ['e'], place: 'hall' },
          places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0 }],
          tables: [{ id: 't', name: 'Table', place: 'hall', x: 0, y: 0, w: 512, d: 512, height: 740 }],
          figures: figures([{ facing: 270 }, { facing: 45 }]),
        },
        'spot-back',
      );
      expect(fix.words).toBe('Turn those of “Scene 0” who look away to the east');
      expect(after.figure.f0.spots.map(({ facing }) => facing)).toEqual([90, 45]);
    });
  });
  test('what stands out over the edge comes in by whole studs', () => {
    const { fix, after } = fixed({ plots: [house('a', 59, -3)] }, 'outside-footprint');
    expect(fix.words).toBe('Move House a 5 studs west and 3 studs south');
    expect(after.plot.a).toMatchObject({ x: 54, y: 0 });
    // A wall along the edge lies half over it.
    const points = [8, 20].map((x) => ({ x, y: 0 }));
    const wall = fixed({ runs: [{ id: 'r', name: 'Parapet', points }] }, 'outside-footprint');
    expect(wall.fix.words).toBe('Move Parapet 1 stud south');
    expect(wall.after.run.r.points).toEqual([8, 20].map((x) => ({ x, y: 1 })));
  });
  describe('light and power', () => {
    const supply = (id: string, more: object = {}) => ({
      ...{ id, name: id.toUpperCase(), x: 0, y: 10, type: 'battery' as const, milliamps: 500 },
      ...more,
    });
    const circuit = (id: string, on: string | null, more: object = {}) => ({
      ...{ id, name: `circuit ${id}`, supply: on, slack: 0 },
      ...more,
    });
    const light = (id: string, on: string | null, more: object = {}) => ({
      ...{ id, name: `light ${id}`, x: 10, y: 10, circuit: on, milliamps: 100 },
      ...more,
    });
    test('an overloaded supply gives the least circuit that does to one with room for it', () => {
      // A: 300 + 250 + 60 of 500 mA, 110 over; B gives 300 of 500 already, so 250 are too much; C has room.
      const { fix, after } = fixed(
        {
          supplies: [supply('a'), supply('b'), supply('c', { milliamps: 260 }), supply('d', { volts: 9 })],
          circuits: [circuit('p', 'a'), circuit('q', 'a'), circuit('r', 'a'), circuit('t', 'b')],
          devices: [
            light('p', 'p', { milliamps: 300 }),
            light('q', 'q', { milliamps: 250 }),
            light('r', 'r', { milliamps: 60 }),
            light('t', 't', { milliamps: 300 }),
          ],
        },
        'supply-over',
      );
      expect(fix.words).toBe('Hang circuit “circuit q” on “C”');
      expect(after.circuit.q.supply).toBe('c');
    });
    test('a light of another voltage goes to a circuit that has it', () => {
      const { after } = fixed(
        {
          supplies: [supply('a'), supply('b', { volts: 12 })],
          circuits: [circuit('p', 'a'), circuit('q', 'b')],
          devices: [light('x', 'p', { volts: 12 })],
        },
        'device-volts',
      );
      expect(after.device.x.circuit).toBe('q');
    });
    test('one on no circuit goes to one that bears it', () => {
      const { after } = fixed(
        {
          supplies: [supply('a', { milliamps: 150 }), supply('b')],
          circuits: [circuit('p', 'a'), circuit('q', 'b')],
          devices: [light('x', 'p'), light('y', null)],
        },
        'device-dark',
      );
      expect(after.device.y.circuit).toBe('q');
    });
    test('a thin cable becomes as thick as it must: 400 mA take 0.08 mm² at 5 A a mm²', () => {
      const { after } = fixed(
        {
          supplies: [supply('a')],
          circuits: [circuit('p', 'a', { wire: 0.05 as const })],
          devices: [light('x', 'p', { milliamps: 400 })],
        },
        'cable-hot',
      );
      expect(after.circuit.p.wire).toBe(0.08);
    });
    test('the same for a voltage that falls too far: 0.5 A over 480 mm, 1.2 % of 5 V at 0.14 mm², 0.7 % at 0.25 mm²', () => {
      const { after } = fixed(
        {
          supplies: [supply('a', { x: 0 })],
          circuits: [circuit('p', 'a', { wire: 0.14 as const, maxDrop: 1 })],
          devices: [light('x', 'p', { x: 60, milliamps: 500, leadMm: 1 })],
        },
        'cable-drop',
      );
      // 0.5 A × 0.96 m ÷ 58 ÷ 0.14 mm² = 0.059 V.
      expect(after.circuit.p.wire).toBe(0.25);
    });
    test('a cable over a seam gets its connectors, and a battery as many charges as the day takes', () => {
      const modules = ['a', 'b'].map((id, i) => ({
        ...{ id, name: id.toUpperCase(), x: 32 * i, y: 0, w: 32, d: 64 },
        bases: [{ x: 32 * i, y: 0, w: 32, d: 64 }],
      }));
      const given = {
        display: { ...BASE.display, opensAt: '10:00', closesAt: '16:00' },
        modules,
        supplies: [supply('a', { capacity: 250 })],
        circuits: [circuit('p', 'a')],
        devices: [light('x', 'p', { x: 50 })],
      };
      expect(fixed(given, 'cable-parting').after.circuit.p.connectors).toEqual([{ x: 32, y: 10 }]);
      // 250 mAh, 80 % of it, at 100 mA: 2 h a charge; 6 h are open.
      expect(fixed(given, 'battery-short').after.supply.a.sets).toBe(3);
    });
    test('an adapter far from a socket gets the shortest extension lead that reaches', () => {
      // From the table at 740 mm its lead of 1,500 mm has 760 mm left; the socket is 4 m off.
      const { fix, after } = fixed(
        {
          supplies: [supply('a', { type: 'adapter' as const })],
          sockets: [{ id: 'w', name: 'Wall', x: -4000, y: 80 }],
        },
        'mains-outlet',
      );
      expect(fix.words).toBe('Bring an extension lead of 5 m for “A”');
      expect(Object.values(after.extension)[0]).toMatchObject({ x: 0, y: 80, leadMm: 5000 });
    });
  });
  test('corners left out that leave nothing are made as narrow as leaves a stud, or each half of that', () => {
    const { fix, after } = fixed(
      {
        plots: [
          {
            ...{ id: 'a', name: 'Baker', x: 0, y: 0, w: 16, d: 16, height: 30 },
            notches: [
              { corner: 'nw', w: 12, d: 4 },
              { corner: 'ne', w: 5, d: 4 },
            ],
          },
        ],
      },
      'corners-left-out',
    );
    expect(fix.words).toBe('Leave out at most 7 studs at each corner of “Baker”');
    expect(after.plot.a.notches.map(({ w }) => w)).toEqual([7, 5]);
  });
  test('a recess that parts a building, or takes all of a side, is not built: it stands back less, or is narrower', () => {
    const inn = (recess: Plot['recesses'][number]) => ({
      plots: [{ id: 'a', name: 'Inn', x: 0, y: 0, w: 16, d: 12, height: 40, recesses: [recess] }],
    });
    const parted = fixed(inn({ side: 'n', at: 4, wide: 8, deep: 12 }), 'recess-not-built');
    expect(parted.after.plot.a.recesses).toMatchObject([{ at: 4, wide: 8, deep: 11 }]);
    const taken = fixed(inn({ side: 'e', at: 0, wide: 12, deep: 4 }), 'recess-not-built');
    expect(taken.fix.words).toBe('Let recess 1 of “Inn” begin 1 stud along its side, 10 wide');
    const beyond = fixed(inn({ side: 's', at: 16, wide: 4, deep: 4 }), 'recess-not-built');
    expect(beyond.after.plot.a.recesses).toMatchObject([{ at: 11, wide: 4, deep: 4 }]);
  });
  test('a roof over a step of one stud: no slope fits round it, rings of bricks do', () => {
    const { fix, after } = fixed(
      {
        plots: [
          {
            ...{ id: 'a', name: 'Baker', x: 0, y: 0, w: 16, d: 16, height: 40, eaves: 20 },
            notches: [{ corner: 'nw', w: 1, d: 1 }],
          },
        ],
      },
      'roof-flat',
    );
    expect(fix.words).toBe('Let the roof of “Baker” rise in rings of bricks');
    expect(after.plot.a.roofForm).toBe('stepped');
    // Of two studs slopes of two fit round it, those of three do not.
    const pair = fixed(
      {
        plots: [
          {
            ...{ id: 'a', name: 'Baker', x: 0, y: 0, w: 16, d: 16, height: 40, eaves: 20 },
            ...{ slope: 'slope-1x3-33', notches: [{ corner: 'nw', w: 2, d: 2 }] },
          },
        ],
      },
      'roof-flat',
    );
    expect(partOf(pair.after.plot.a.slope ?? '')).toMatchObject({ family: 'slope', d: 2 });
  });
  test('layers under a cover become as thin as the ground: 3 plates hold a cover, chalk and one of four of ice', () => {
    const layers = [
      { colour: 'chalk', plates: 1 },
      { colour: 'ice', plates: 4 },
    ];
    const { fix, after } = fixed(
      {
        customGrounds: [{ id: 'custom-1', name: 'Snow', colour: 'chalk', layers }],
        pads: BASE.pads.map((pad) => ({ ...pad, ground: 'custom-1' as const })),
      },
      'layers-thin',
    );
    expect(fix.words).toBe('Make the layers of “Snow” 2p thick');
    expect(after.customGround['custom-1'].layers).toEqual([
      { ...layers[0], upTo: null },
      { colour: 'ice', plates: 1, upTo: null },
    ]);
  });
  test('an accepted wish is promised for the next milestone, not for one whose day is past', () => {
    const { fix, after } = fixed(
      {
        threads: [
          { id: 'w', title: 'A lamp', text: 'x', by: null, use: 'wish', askedBy: 38, state: 'accepted' },
        ],
        milestones: [
          { id: 'old', name: 'May letter', date: '2000-05-01' },
          { id: 'far', name: 'July letter', date: '2999-07-01' },
          { id: 'next', name: 'June letter', date: '2999-06-01' },
        ],
      },
      'wish-unpromised',
    );
    expect(fix.words).toBe('Promise “A lamp” for June letter, 2999-06-01');
    expect(after.milestone.next.promises).toEqual([{ of: 'thread', thing: 'w', stage: 'done' }]);
  });
  test('layers that end at a height fit wherever they lie: two plates of room at 3 plates, three at 4', () => {
    const { fix, after } = fixed(
      {
        levels: [...BASE.levels, { id: 'up', name: 'Up', height: 4 }],
        customGrounds: [
          {
            ...{ id: 'custom-1', name: 'Snow', colour: 'chalk' },
            layers: [
              { colour: 'ice', plates: 1, upTo: 3 },
              { colour: 'chalk', plates: 4 },
            ],
          },
        ],
        pads: [
          ...BASE.pads.map((pad) => ({ ...pad, ground: 'custom-1' as const })),
          { id: 'q', name: 'Up', x: 0, y: 0, w: 8, d: 8, level: 'up', ground: 'custom-1' as const, order: 1 },
        ],
      },
      'layers-thin',
    );
    // At 4 plates only chalk lies: 3. At 3 plates ice and chalk: 1 and 1.
    expect(fix.words).toBe('Make the layers of “Snow” 2p thick');
    expect(after.customGround['custom-1'].layers).toEqual([
      { colour: 'ice', plates: 1, upTo: 3 },
      { colour: 'chalk', plates: 1, upTo: null },
    ]);
  });
  test.each([
    ['flag-wind', { flags: [{ id: 'w', name: 'Pennant', x: 4, y: 4, heading: 'n' }] }, { wind: 'w' }],
    [
      'plant-season',
      { trees: [{ id: 'o', name: 'Oak', x: 9, y: 9, season: 'autumn' }] },
      { season: 'summer' },
    ],
    ['leaves-unwritten', { trees: [{ id: 'o', name: 'Oak', x: 9, y: 9, season: 'month' }] }, { month: 10 }],
    [
      'leaves-unwritten',
      { trees: [{ id: 'o', name: 'Oak', x: 9, y: 9, season: 'month' }] },
      { leaves: [{ month: 5, tones: [{ colour: 'fern' }] }] },
    ],
    ['footprint-limit', {}, { limitW: 48, limitD: 32 }],
    ['good-side', { plots: [house('a', 20, 20, { goodSides: ['n'] })] }, { viewedSides: ['s'] }],
    ['pinned-half', { plots: [house('a', 20.5, 20)] }, {}],
    ['no-table', { tables: [] }, {}],
    ['off-table', { tables: [{ id: 't', name: 'Table', x: 0, y: 0, w: 512, d: 400 }] }, {}],
    ['level-step', { levels: [...BASE.levels, { id: 'up', name: 'Up', height: 20 }] }, { levelStep: 15 }],
    [
      'tables-overlap',
      {
        tables: [
          { id: 't', name: 'West', x: 0, y: 0, w: 300, d: 512 },
          { id: 'u', name: 'East', x: 290, y: 0, w: 300, d: 512 },
        ],
      },
      {},
    ],
    [
      'sections-overlap',
      {
        sections: [
          { id: 's', letter: 'A', name: 'West', x: 0, y: 0, w: 40, d: 64, owner: 'ada' },
          { id: 'u', letter: 'B', name: 'East', x: 32, y: 0, w: 32, d: 64, owner: 'ada' },
        ],
      },
      {},
    ],
    [
      'plots-gap',
      { plots: [house('a', 10, 20, { streetFront: true }), house('b', 23, 20, { streetFront: true })] },
      {},
    ],
    ['lean-ties', { plots: [house('a', 20, 20, { height: 96, lean: 10 })] }, {}],
    [
      'part-joint',
      {
        plots: [
          house('a', 20, 20, { height: 24, eaves: 15, parts: [{ name: 'Roof', use: 'roof', height: 6 }] }),
        ],
      },
      {},
    ],
    [
      'window-row',
      {
        plots: [
          house('a', 20, 20, {
            ...{ w: 16, d: 16, height: 30 },
            bays: [
              { side: 's', storey: 1, bays: [{ wide: 8, part: 'window-2x1', sill: 2 }] },
              { side: 'e', storey: 1, bays: [{ wide: 8, part: 'window-2x1', sill: 4 }] },
            ],
          }),
        ],
      },
      {},
    ],
    [
      'overhang-hold',
      { plots: [house('a', 20, 8, { d: 30, height: 60, overhangFrom: 30, overhang: { s: 24 } })] },
      {},
    ],
    [
      'lean-hold',
      { plots: [house('a', 20, 20, { height: 120, lean: 40, mount: 'loose', tieEvery: 8 })] },
      { tipLimit: 1 },
    ],
    [
      'decks-overlap',
      {
        decks: [
          { id: 'd', name: 'Quay', x: 8, y: 8, w: 12, d: 10, level: 'low', offset: 12 },
          { id: 'e', name: 'Gallery', x: 12, y: 8, w: 12, d: 10, level: 'low', offset: 13 },
        ],
      },
      {},
    ],
    [
      'bridge-steps',
      {
        pads: [],
        ways: [
          {
            ...{ id: 'w', name: 'Lane', width: 4, maxGrade: 60, bridges: true, pierEvery: 8 },
            points: [
              { x: 4, y: 30, z: 2 },
              { x: 36, y: 30, z: 14 },
            ],
          },
        ],
      },
      { deckSpan: 14 },
    ],
    ['turn-reaches', { plots: [house('a', 20, 20), house('b', 31, 20, { turn: 30 })] }, {}],
    [
      'way-steep',
      {
        // A brick on one stud is 15 % over 8 studs; levelled to a ramp it has 56 studs for it, by hand 2.1 %.
        pads: [
          ...BASE.pads,
          { id: 'q', name: 'Step', x: 32, y: 0, w: 32, d: 64, level: 'low', offset: 3, ground: 'grass' },
        ],
        ways: [
          {
            ...{ id: 'w', name: 'Lane', width: 4, maxGrade: 5 },
            points: [
              { x: 4, y: 30 },
              { x: 60, y: 30 },
            ],
          },
        ],
      },
      {},
    ],
  ] as [string, Partial<Given>, object][])(
    '%s: gone after the fix, and nothing new',
    (rule, given, display) => {
      const { after } = fixed({ ...given, display: { ...BASE.display, ...display } }, rule);
      const left = evaluateRules(after, { today: TODAY }).map((finding) => finding.rule);
      expect(left).not.toContain(rule);
    },
  );
  test('none is offered where none works: two buildings that fill the scene', () => {
    const scene = sceneFrom({
      ...BASE,
      plots: [house('a', 0, 0, { w: 40, d: 64 }), house('b', 30, 0, { w: 34, d: 64 })],
    });
    expect(tryFixes(scene, keyOf(scene, 'plots-overlap'), TODAY)).toBeNull();
  });
  test('every fixable rule is a rule', () => {
    const ids = RULES.map(({ id }) => id);
    expect(FIXABLE_RULES.filter((id) => !ids.includes(id))).toEqual([]);
  });
});
