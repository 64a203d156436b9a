import fc from 'fast-check';
import { compileRelief, groundAt, indexAt } from '../terrain/index.ts';
import { denialReason, reduce, sceneFrom, type Plot, type Scene, type Seam } from '../document/index.ts';
import {
  SEAM_COSTS,
  adoptCutting,
  arrangementOf,
  partitionDiffs,
  crossingsOf,
  cutProblemOf,
  edgeOf,
  glue,
  knifeAlong,
  seamRemedies,
  neighboursOf,
  seamClassifier,
  seamSheet,
  seamState,
  shiftSeam,
  solveCut,
  split,
  stripsOf,
  verifyCutting,
  type ByHand,
} from './index.ts';
import { evaluateRules } from '../findings/index.ts';
import { namesFor } from './naming.ts';
import { rimsOf } from './rim.ts';
import { runs } from '../../test/runs.ts';

/** Two modules of 48 × 32 side by side, grass at 6 bricks; more as a test asks. */
type File = Parameters<typeof sceneFrom>[0];
const base = (x: number, y: number, w = 16, d = 16) => ({ x, y, w, d });
const tiles = (x: number, y: number, w: number, d: number) =>
  Array.from({ length: (w / 16) * (d / 16) }, (_, i) =>
    base(x + (i % (w / 16)) * 16, y + Math.trunc(i / (w / 16)) * 16),
  );
const moduleAt = (name: string, x: number, y: number, w: number, d: number) => ({
  id: `module-${name.toLowerCase()}`,
  name,
  ...{ x, y, w, d },
  bases: tiles(x, y, w, d),
});
const file = (more: Partial<File> = {}): File => ({
  display: { name: 'Seams', kind: 'diorama', moduleMaxW: 64, moduleMaxD: 48 },
  levels: [{ id: 'street', name: 'Street', height: 18 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 32 }],
  pads: [{ id: 'green', name: 'Green', x: 0, y: 0, w: 96, d: 32, level: 'street', ground: 'grass' }],
  bases: [{ id: 'small', w: 16, d: 16, price: 2, stock: 4 }],
  modules: [moduleAt('A1', 0, 0, 48, 32), moduleAt('A2', 48, 0, 48, 32)],
  ...more,
});
const sheetOf = (scene: Scene) => {
  const [pair] = neighboursOf(scene);
  return seamSheet(scene, compileRelief(scene), pair);
};
const after = (scene: Scene, hand: ByHand): Scene => {
  if (!hand.ok) throw new Error(hand.error);
  const reduction = reduce(scene, hand.changes);
  if (!reduction.ok) throw new Error(reduction.refusal.sentence);
  return reduction.scene;
};
const shapes = (scene: Scene) =>
  Object.values(scene.module)
    .map(({ name, x, y, w, d }) => `${name} ${x},${y} ${w}×${d}`)
    .sort();

describe('the seam sheet', () => {
  test('says stud by stud what is on both sides, by the relief', () => {
    const scene = sceneFrom(
      file({
        hills: [
          { id: 'h', name: 'Knoll', x: 38, y: 4, w: 20, d: 20, shape: 'oval', level: 'street', height: 9 },
        ],
      }),
    );
    const relief = compileRelief(scene);
    const { studs, neighbours } = sheetOf(scene);
    expect(neighbours.line).toEqual({ x: 48, y: 0, upright: true, length: 32 });
    studs.forEach((pair, at) => {
      for (const [side, x] of [
        ['a', 47],
        ['b', 48],
      ] as const) {
        const i = indexAt(relief, x, at);
        expect(pair?.[side]).toMatchObject({ height: relief.height[i], ground: groundAt(relief, i) });
      }
    });
    expect(Math.max(...studs.map((pair) => pair?.a.height ?? 0))).toBeGreaterThan(18);
  });

  test('a lane that slants crosses wider by 1/cos, a track at its own angle (trigonometry)', () => {
    const scene = sceneFrom(
      file({
        ways: [
          // 3 studs south for 4 east: cos = 0.8.
          {
            id: 'w',
            name: 'Lane',
            width: 8,
            points: [
              { x: 40, y: 8 },
              { x: 56, y: 20 },
            ],
          },
        ],
        tracks: [
          {
            id: 't',
            name: 'Line',
            x: 40,
            y: 26,
            heading: 0,
            level: 'street',
            offset: 0,
            pieces: [{ go: 'straight', length: 16 }],
          },
        ],
      }),
    );
    const { crossings } = sheetOf(scene);
    expect(crossings.map(({ name }) => name)).toEqual(['Lane', 'Line']);
    expect(crossings[0]).toMatchObject({ centre: 14, width: 10 });
    expect(crossings[0].angle).toBeCloseTo((Math.atan(0.75) * 180) / Math.PI, 9);
    expect(crossings[1]).toMatchObject({ centre: 26, width: 8, angle: 0, height: 18 });
  });

  test('connectors of a street front keep 9 + 2 + 10 + 2 + 9 from the front, mirrored for the neighbour (common practice)', () => {
    const front = { y: 0, w: 48, d: 32, height: 30, streetFront: true, front: 's' as const };
    const { connectors, standard } = sheetOf(
      sceneFrom(file({ plots: [{ id: 'p', name: 'Mill', x: 0, ...front }] })),
    );
    expect(standard).toBe('street');
    expect(connectors).toEqual([
      { from: 9, to: 11, mirrored: { from: 21, to: 23 } },
      { from: 21, to: 23, mirrored: { from: 9, to: 11 } },
    ]);
    expect(sheetOf(sceneFrom(file())).connectors.map(({ from }) => from)).toEqual([7, 23]);
  });

  test('what a seam lies over: kerb and wall cheap, slopes and water dear, track only squarely', () => {
    const over = (more: Partial<File>) => {
      const scene = sceneFrom(file(more));
      return seamClassifier(scene, compileRelief(scene))({ x: 48, y: 8, upright: true, length: 8 });
    };
    const pad = { id: 'q', name: 'East', x: 48, y: 0, w: 48, d: 32, level: 'street', order: 1 } as const;
    const grass = file().pads ?? [];
    expect(over({})).toBe('flat');
    expect(over({ pads: [...grass, { ...pad, ground: 'paving' }] })).toBe('edge');
    expect(over({ pads: [...grass, { ...pad, ground: 'grass', offset: 15 }] })).toBe('step');
    expect(over({ pads: [{ ...pad, x: 0, w: 96, ground: 'water' }] })).toBe('water');
    expect(
      over({ hills: [{ id: 'h', name: 'H', x: 32, y: 0, w: 32, d: 32, level: 'street', height: 12 }] }),
    ).toBe('slope');
    const track = (heading: number) => ({
      tracks: [
        {
          id: 't',
          name: 'T',
          x: 40,
          y: 12,
          heading,
          level: 'street',
          offset: 0,
          pieces: [{ go: 'straight' as const, length: 16 }],
        },
      ],
    });
    expect(over(track(0))).toBe('track');
    expect(over(track(1))).toBe('forbidden');
    const way = (y: number) => ({
      ways: [
        {
          id: 'w',
          name: 'W',
          width: 4,
          points: [
            { x: 40, y: 12 },
            { x: 56, y },
          ],
        },
      ],
    });
    expect(over(way(12))).toBe('way');
    expect(over(way(14))).toBe('slanted');
  });

  test('a building that may be cut at named places alone: they turn with it, counted from its own walls', () => {
    // By hand: of 24 × 12 studs with its middle at 51, 16, the seam at 48 lies 3 studs west of it; at 90° north is east.
    const judged = (turn: number, cut: Plot['cutAt'][number]) => {
      const house = { id: 'p', name: 'House', x: 39, y: 10, w: 24, d: 12, height: 30, mayCut: true };
      const scene = sceneFrom(file({ plots: [{ ...house, turn, cutAt: [cut] }] }));
      const line = { x: 48, y: 8, upright: true, length: 8 };
      const over = seamClassifier(scene, compileRelief(scene))(line);
      const found = evaluateRules(scene, { today: '2026-05-01' }).filter(
        ({ rule }) => rule === 'plot-over-seam',
      );
      return [over, ...found.map(({ numbers }) => numbers.at)];
    };
    const places = [
      [0, 'x', 9, 15],
      [90, 'y', 9, 3],
      [180, 'x', 15, 9],
      [270, 'y', 3, 9],
    ] as const;
    for (const [turn, across, at, wrong] of places) {
      expect([turn, ...judged(turn, { across, at })]).toEqual([turn, 'building']);
      expect([turn, ...judged(turn, { across, at: wrong })]).toEqual([turn, 'forbidden', at]);
      const other = across === 'x' ? 'y' : 'x';
      expect([turn, ...judged(turn, { across: other, at })]).toEqual([turn, 'forbidden', at]);
    }
    // Slantwise no seam runs at a place of its own.
    expect(judged(45, { across: 'x', at: 9 })).toEqual(['forbidden', undefined]);
  });

  test('property: a strip crosses a line where a walk along it changes sides', () => {
    const point = fc.record({ x: fc.integer({ min: 20, max: 76 }), y: fc.integer({ min: -8, max: 40 }) });
    fc.assert(
      fc.property(fc.array(point, { minLength: 2, maxLength: 6 }), (points) => {
        const scene = sceneFrom(file({ runs: [{ id: 'r', name: 'R', points, height: 3, thick: 0.5 }] }));
        const found = crossingsOf(stripsOf(scene, compileRelief(scene)), {
          x: 48,
          y: -64,
          upright: true,
          length: 192,
        });
        const changes = points.slice(1).filter(({ x }, i) => x >= 48 !== points[i].x >= 48).length;
        expect(found).toHaveLength(changes);
      }),
      { numRuns: runs(60) },
    );
  });
});

describe('an agreement', () => {
  const signed = (scene: Scene, fields: Partial<Seam> = {}): Seam => ({
    id: 'seam-a1-a2',
    v: 1,
    a: 'module-a1',
    b: 'module-a2',
    tolerance: 1,
    agreed: edgeOf(sheetOf(scene)),
    signs: (['a', 'b'] as const).map((side) => ({
      side,
      person: null,
      by: 'Ada',
      at: '2031-05-01T10:00:00Z',
    })),
    readings: [],
    ...fields,
  });
  const raised = (by: number, ground: 'grass' | 'paving' = 'grass') =>
    sceneFrom(
      file({
        pads: [
          ...(file().pads ?? []),
          { id: 'q', name: 'Bump', x: 40, y: 8, w: 16, d: 4, level: 'street', offset: by, ground, order: 1 },
        ],
      }),
    );
  test('holds within its tolerance on rough ground, reopens past it, and tells each stud', () => {
    const seam = signed(sceneFrom(file()));
    expect(seamState(undefined, sheetOf(raised(0)))).toEqual({ state: 'open' });
    expect(seamState({ ...seam, signs: seam.signs.slice(0, 1) }, sheetOf(raised(0)))).toEqual({
      state: 'half',
      side: 'a',
    });
    expect(seamState(seam, sheetOf(raised(0)))).toEqual({ state: 'agreed' });
    expect(seamState(seam, sheetOf(raised(1)))).toEqual({ state: 'agreed' });
    const state = seamState(seam, sheetOf(raised(2)));
    if (state.state !== 'reopened') throw new Error('should be reopened');
    expect(state.differences.map(({ side, at, was, now }) => `${side}${at} ${was}>${now}`)).toEqual(
      ['a', 'b'].flatMap((side) => [8, 9, 10, 11].map((at) => `${side}${at} 18>20`)),
    );
  });
  test('paving and ways may not differ at all; other ground reopens it too; another place always', () => {
    const paved = signed(raised(0, 'paving'));
    expect(seamState(paved, sheetOf(raised(1, 'paving')))).toMatchObject({ state: 'reopened' });
    expect(seamState(signed(sceneFrom(file())), sheetOf(raised(0, 'paving')))).toMatchObject({
      state: 'reopened',
    });
    const moved = sceneFrom(file({ modules: [moduleAt('A1', 0, 0, 32, 32), moduleAt('A2', 32, 0, 64, 32)] }));
    expect(seamState(signed(sceneFrom(file())), sheetOf(moved))).toMatchObject({ moved: true });
  });
  test('readings become a list to mend by, stretches of one difference together', () => {
    const scene = sceneFrom(file());
    const readings = [
      ...[4, 5, 6].map((at) => ({ side: 'a' as const, at, height: 16 })),
      { side: 'a' as const, at: 7, height: 20 },
      { side: 'b' as const, at: 4, height: 17 },
    ];
    expect(seamRemedies(signed(scene, { readings }), sheetOf(scene)).map(({ words }) => words)).toEqual([
      'A1, studs 5 to 7: raise by 2p',
      'A1, stud 8: lower by 2p',
    ]);
  });
  test('builders sign their own side in their own name, and nobody else’s', () => {
    const scene = sceneFrom(
      file({
        people: ['ada', 'bo'].map((id) => ({ id, name: id, initials: id[0] })),
        sections: [
          { id: 'w', letter: 'A', name: 'West', x: 0, y: 0, w: 48, d: 32, owner: 'ada' },
          { id: 'e', letter: 'B', name: 'East', x: 48, y: 0, w: 48, d: 32, owner: 'bo' },
        ],
      }),
    );
    const agreed = edgeOf(sheetOf(scene));
    const sign = (side: 'a' | 'b', person: string) => ({
      side,
      person,
      by: person,
      at: '2031-05-01T10:00:00Z',
    });
    const add = (signs: object[], person: string) =>
      denialReason({ role: 'builder', person }, scene, {
        op: 'add',
        kind: 'seam',
        id: 'seam-a1-a2',
        data: { a: 'module-a1', b: 'module-a2', agreed, signs },
      });
    expect(add([sign('a', 'ada')], 'ada')).toBeNull();
    expect(add([sign('b', 'bo')], 'ada')).toContain('own side');
    expect(add([sign('a', 'bo')], 'ada')).toContain('own name');
    expect(add([], 'cy')).toContain('Neither side');
    const stands = reduce(scene, [
      {
        op: 'add',
        kind: 'seam',
        id: 'seam-a1-a2',
        data: { a: 'module-a1', b: 'module-a2', agreed, signs: [sign('a', 'ada')] },
      },
    ]);
    if (!stands.ok) throw new Error(stands.refusal.sentence);
    const patch = (set: Record<string, unknown>, person: string) =>
      denialReason({ role: 'builder', person }, stands.scene, {
        op: 'patch',
        kind: 'seam',
        id: 'seam-a1-a2',
        v: 1,
        set,
      });
    expect(patch({ signs: [sign('a', 'ada'), sign('b', 'bo')] }, 'bo')).toBeNull();
    expect(patch({ signs: [sign('b', 'bo')] }, 'bo')).toContain('own side');
    // What is agreed again takes the other's signature away.
    const other = { ...agreed, heights: { ...agreed.heights, a: agreed.heights.a.map((h) => h + 1) } };
    expect(patch({ agreed: other, signs: [sign('b', 'bo')] }, 'bo')).toBeNull();
    expect(patch({ agreed: other, signs: [sign('a', 'ada'), sign('b', 'bo')] }, 'bo')).toContain('own side');
    expect(patch({ readings: [{ side: 'a', at: 1, height: 2 }] }, 'bo')).toContain('own side');
    expect(patch({ tolerance: 9 }, 'bo')).toContain('planner');
  });
});

describe('by hand', () => {
  test('the knife parts what it crosses whole, glue joins, and both keep names and cover', () => {
    const scene = sceneFrom(file());
    const parted = after(scene, split(scene, { upright: true, at: 32, from: 0, to: 32 }));
    expect(shapes(parted)).toEqual(['A1 0,0 32×32', 'A2 48,0 48×32', 'A3 32,0 16×32']);
    const [first] = neighboursOf(parted).filter(({ a, b }) => a.name === 'A1' && b.name === 'A3');
    expect(shapes(after(parted, glue(parted, first.a, first.b)))).toEqual(['A1 0,0 48×32', 'A2 48,0 48×32']);
    const moved = after(scene, shiftSeam(scene, neighboursOf(scene)[0], 16));
    expect(shapes(moved)).toEqual(['A1 0,0 64×32', 'A2 64,0 32×32']);
    for (const each of [parted, moved]) {
      const covered = Object.values(each.module).flatMap(({ bases }) => bases);
      expect(covered.reduce((sum, { w, d }) => sum + w * d, 0)).toBe(96 * 32);
    }
  });
  test.each<[string, (scene: Scene) => ByHand, string]>([
    [
      'a line that ends inside',
      (s) => split(s, { upright: true, at: 32, from: 0, to: 16 }),
      'through no module from side to side',
    ],
    [
      'too large a whole',
      (s) => glue(s, s.module['module-a1'], s.module['module-a2']),
      '96 × 32 studs; the largest module agreed is 64 × 48',
    ],
    ['nothing left', (s) => shiftSeam(s, neighboursOf(s)[0], 48), 'Nothing would be left of A2'],
    [
      'a building in the way',
      (s) => split(s, { upright: true, at: 16, from: 0, to: 32 }),
      'runs through “Mill”, which may not be cut',
    ],
  ])('says why not: %s', (_, act, words) => {
    const mill = { id: 'p', name: 'Mill', x: 8, y: 8, w: 12, d: 12, height: 30 };
    const answer = act(sceneFrom(file({ plots: [mill] })));
    expect(answer.ok ? '' : answer.error).toContain(words);
  });
  test('what bases cannot cover of a part stays beside them, on plates', () => {
    for (const [at, onBases] of [
      [24, 16 + 64],
      [20, 16 + 64],
      [32, 32 + 64],
    ]) {
      const scene = sceneFrom(file({}));
      const parted = after(scene, split(scene, { upright: true, at, from: 0, to: 32 }));
      const covered = Object.values(parted.module).flatMap(({ bases }) => bases);
      expect(covered.reduce((sum, { w, d }) => sum + w * d, 0)).toBe(32 * onBases);
      expect(rimsOf(parted).reduce((sum, { studs }) => sum + studs, 0)).toBe(32 * (96 - onBases));
    }
  });
  test('a line drawn crookedly means the nearest step of the bases', () => {
    const line = { a: { x: 30.2, y: -1 }, b: { x: 35, y: 30.4 } };
    expect(knifeAlong(line, 16, { x: 0, y: 0 })).toEqual({ upright: true, at: 32, from: -16, to: 32 });
    const flat = { a: { x: 50, y: 21 }, b: { x: 3, y: 18 } };
    expect(knifeAlong(flat, 8, { x: 4, y: 0 })).toEqual({ upright: false, at: 16, from: -4, to: 52 });
  });
  test('what is locked is cut neither by hand nor by a new cutting, and its bases are taken', () => {
    const locked = file();
    Object.assign(locked.modules?.[0] ?? {}, { locked: true });
    const scene = sceneFrom(locked);
    expect(split(scene, { upright: true, at: 32, from: 0, to: 32 })).toMatchObject({ ok: false });
    const stated = cutProblemOf(scene);
    if (!stated.ok) throw new Error(stated.reasons.join());
    // Six bases lie in the locked module, four are owned.
    expect(stated.problem).toMatchObject({ region: [{ x: 48, y: 0, w: 48, d: 32 }], bases: [{ stock: 0 }] });
    const answer = solveCut(stated.problem, { seconds: 2, now: () => performance.now() });
    if (!answer.feasible) throw new Error(answer.reasons.join());
    const reduction = reduce(scene, adoptCutting(scene, answer.cutting, stated.origin));
    expect(reduction.ok && reduction.scene.module['module-a1']).toMatchObject({ locked: true, w: 48, v: 1 });
  });
  test('an arrangement costs what the checker says a cutting costs', () => {
    const scene = sceneFrom(
      file({ hills: [{ id: 'h', name: 'H', x: 32, y: 0, w: 32, d: 32, level: 'street', height: 12 }] }),
    );
    const stated = cutProblemOf(scene);
    if (!stated.ok) throw new Error(stated.reasons.join());
    const answer = solveCut(stated.problem, { seconds: 2, now: () => performance.now() });
    if (!answer.feasible) throw new Error(answer.reasons.join());
    expect(verifyCutting(stated.problem, answer.cutting)).toEqual([]);
    const taken = reduce(scene, adoptCutting(scene, answer.cutting, stated.origin));
    if (!taken.ok) throw new Error(taken.refusal.sentence);
    const { cost, over } = arrangementOf(taken.scene, compileRelief(scene));
    expect(cost.total).toBeCloseTo(answer.cutting.cost.total, 6);
    expect(cost.seams).toBeCloseTo(
      0.05 * over.reduce((sum, { over: what, studs }) => sum + studs * (1 + SEAM_COSTS[what]), 0),
      9,
    );
  });
  test('borders of sections on the bases’ steps must be seams; others are told', () => {
    const section = (letter: string, x: number, w: number) => ({
      id: letter.toLowerCase(),
      letter,
      name: letter,
      x,
      y: 0,
      w,
      d: 32,
      owner: null,
    });
    const at = (border: number) =>
      cutProblemOf(
        sceneFrom(file({ sections: [section('A', 0, border), section('B', border, 96 - border)] })),
      );
    expect(at(32)).toMatchObject({
      remarks: [],
      problem: { pins: [0, 8, 16, 24].map((y) => ({ x1: 32, y1: y, x2: 32, y2: y + 8 })) },
    });
    expect(at(40)).toMatchObject({
      remarks: [expect.stringContaining('A and B at x = 40 lies between the bases’ steps of 16')],
      problem: { pins: [] },
    });
  });
  test('blocks: the smallest parts in which two ways of dividing differ', () => {
    const scene = sceneFrom(
      file({
        modules: [moduleAt('A1', 0, 0, 48, 32), moduleAt('A2', 48, 0, 32, 32), moduleAt('A3', 80, 0, 16, 32)],
      }),
    );
    const alternative = [
      { x: 0, y: 0, w: 16, d: 32 },
      { x: 16, y: 0, w: 32, d: 32 },
      { x: 48, y: 0, w: 48, d: 32 },
    ];
    expect(
      partitionDiffs(Object.values(scene.module), alternative).map(({ here, there }) => [
        here
          .map(({ name }) => name)
          .sort()
          .join(),
        there.length,
      ]),
    ).toEqual([
      ['A1', 2],
      ['A2,A3', 1],
    ]);
    expect(partitionDiffs(Object.values(scene.module), Object.values(scene.module))).toEqual([]);
  });
  test('property: names stay with what stays, and are never given twice', () => {
    const cell = fc.integer({ min: 0, max: 3 });
    const rects = fc.uniqueArray(fc.tuple(cell, cell), {
      minLength: 1,
      maxLength: 9,
      selector: (at) => at.join(),
    });
    fc.assert(
      fc.property(rects, rects, (old, fresh) => {
        const toRect = ([x, y]: number[]) => ({ x: x * 16, y: y * 16, w: 16, d: 16 });
        const before = namesFor([], old.map(toRect)).map(({ name }, i) => ({
          id: `m-${name}`,
          name,
          ...toRect(old[i]),
        }));
        const names = namesFor(before, fresh.map(toRect));
        expect(new Set(names.map(({ name }) => name)).size).toBe(fresh.length);
        fresh.forEach((at, i) => {
          const same = before.find(({ x, y }) => x === at[0] * 16 && y === at[1] * 16);
          if (same) expect(names[i]).toEqual({ name: same.name, follows: same.id });
        });
      }),
    );
  });
});
