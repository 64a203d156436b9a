import fc from 'fast-check';
import { compileRelief, plotCard, roofAt } from '../terrain/index.ts';
import { denialReason, sceneFrom } from '../document/index.ts';
import { crossSectionAt } from './index.ts';

const scene = sceneFrom({
  display: { name: 'Cut', kind: 'diorama' },
  levels: [{ id: 'l', name: 'Street', height: 6 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 40, d: 24 }],
  tables: [{ id: 't', name: 'Table', x: 80, y: 0, w: 160, d: 192, height: 720 }],
  pads: [
    { id: 'p', name: 'Low', x: 0, y: 0, w: 40, d: 24, level: 'l', ground: 'grass' },
    { id: 'q', name: 'High', x: 20, y: 0, w: 20, d: 24, order: 1, level: 'l', offset: 9, ground: 'rock' },
  ],
  plots: [{ id: 'h', name: 'Mill', x: 24, y: 8, w: 8, d: 8, height: 30, storeys: 3 }],
  modules: [
    { id: 'a', name: 'A1', x: 0, y: 0, w: 16, d: 24, bases: [] },
    { id: 'b', name: 'A2', x: 16, y: 0, w: 24, d: 24, bases: [] },
  ],
  people: [{ id: 'ada', name: 'Ada Fenn', initials: 'AF' }],
  sections: [{ id: 's', letter: 'A', name: 'West', x: 0, y: 0, w: 20, d: 24, owner: 'ada' }],
});
const relief = compileRelief(scene);

describe('a section across the plan', () => {
  test('tells ground, buildings, seams and tables where they are', () => {
    const { length, cuts, seams, tables } = crossSectionAt(
      scene,
      relief,
      { x: -4, y: 12.5 },
      { x: 44, y: 12.5 },
    );
    expect(length).toBe(48);
    const at = (along: number) => cuts.find(({ from, to }) => along >= from && along < to);
    expect(at(1)).toMatchObject({ ground: null, stands: null });
    expect(at(10)).toMatchObject({ ground: 'grass', height: 6, top: 6 });
    expect(at(26)).toMatchObject({ ground: 'rock', height: 15 });
    expect(at(30)).toMatchObject({ height: 15, top: 45, stands: 'Mill' });
    expect(seams).toEqual([20]);
    // The table runs from 80 to 240 mm: studs 10 to 30, which is 14 to 34 along the line.
    expect(tables).toEqual([{ name: 'Table', height: 720, from: 14, to: 34 }]);
  });
  test('in any direction its steps join from end to end and say what the stud under their middle has', () => {
    const point = fc.record({ x: fc.integer({ min: -5, max: 45 }), y: fc.integer({ min: -5, max: 29 }) });
    fc.assert(
      fc.property(point, point, (a, b) => {
        const { length, cuts } = crossSectionAt(scene, relief, a, b);
        if (length === 0) return true;
        const joins = cuts.every((cut, i) => i === 0 || Math.abs(cut.from - cuts[i - 1].to) < 1e-6);
        const whole = Math.abs(cuts[0].from) < 1e-9 && Math.abs(cuts[cuts.length - 1].to - length) < 1e-6;
        const right = cuts.every(({ from, to, height, ground }) => {
          const share = (from + to) / 2 / length;
          const [x, y] = [Math.floor(a.x + (b.x - a.x) * share), Math.floor(a.y + (b.y - a.y) * share)];
          const inside = x >= 0 && y >= 0 && x < 40 && y < 24;
          return inside ? height === relief.height[y * 40 + x] : ground === null;
        });
        return joins && whole && right;
      }),
    );
  });
});

describe('the plot card', () => {
  const plot = (more: object) =>
    sceneFrom({
      display: { name: 'Card', kind: 'city' },
      plots: [{ id: 'p', name: 'House', x: 0, y: 0, w: 8, d: 8, height: 30, ...more }],
    }).plot.p;
  test('an 8 × 8 house with walls of one stud has 36 studs inside (common practice)', () => {
    const card = plotCard(plot({ storeys: 2 }), 45);
    expect([card.inside, card.floors, card.storey, card.swept, card.sweptMore]).toEqual([36, 72, 15, 64, 0]);
    // 8 studs of 8 mm at 1 : 45.
    expect(card.trueW).toBeCloseTo(2.88, 9);
  });
  test('connectors lie at 9 + 2 + 10 + 2 + 9 = 32 studs (common practice), only where the side is that deep', () => {
    const front = plotCard(plot({ w: 16, d: 32, streetFront: true }), 45);
    expect(front.connectors).toEqual([
      { from: 9, to: 11 },
      { from: 21, to: 23 },
    ]);
    expect(plotCard(plot({ w: 16, d: 30, streetFront: true }), 45).connectors).toEqual([]);
    expect(plotCard(plot({ w: 32, d: 16, streetFront: true, front: 'e' }), 45).connectors).toHaveLength(2);
  });
  test('a roof is as high inside as its courses are laid, and level under the plates on top; a flat one as its part says', () => {
    const slanted = plot({ w: 16, d: 10, eaves: 10, slope: 'slope-2x2-45' });
    // Behind a wall of a stud the first course of two reaches a stud in; four courses of 3 plates, then plates.
    expect([0, 1, 2, 3, 4, 9].map((from) => roofAt(slanted, from))).toEqual([10, 13, 16, 19, 22, 22]);
    // Planned higher than its slopes reach, it is no higher.
    expect(roofAt({ ...slanted, height: 90 }, 4)).toBe(22);
    expect(roofAt(plot({ parts: [{ name: 'Lid', use: 'roof', height: 6, clears: 21 }] }), 3)).toBe(21);
    const furnished = plot({
      w: 16,
      d: 10,
      eaves: 10,
      slope: 'slope-2x2-45',
      fittings: [{ name: 'Loom', on: 2, height: 11, fromWall: 1 }],
    });
    const [fitting] = plotCard(furnished, 45).clearances;
    expect(fitting).toMatchObject({ name: 'Loom', under: 'roof', ceiling: 13, clear: 0 });
  });
});

describe('what a builder may draw', () => {
  const ada = { role: 'builder' as const, person: 'ada' };
  const may = (kind: 'way' | 'tree' | 'pad' | 'track' | 'plot' | 'picture', data: Record<string, unknown>) =>
    denialReason(ada, scene, { op: 'add', kind, id: 'new', data: { name: 'New', ...data } });
  const level = { level: 'l' };
  test.each([
    ['a tree in the section', 'tree', { x: 10, y: 10 }, true],
    ['a tree whose crown stands out', 'tree', { x: 18, y: 10 }, false],
    [
      'a narrow way',
      'way',
      {
        points: [
          { x: 4, y: 4 },
          { x: 12, y: 4 },
        ],
        width: 4,
      },
      true,
    ],
    [
      'a way as wide as it is by default',
      'way',
      {
        points: [
          { x: 4, y: 4 },
          { x: 12, y: 4 },
        ],
      },
      false,
    ],
    ['a pad', 'pad', { x: 2, y: 2, w: 16, d: 8, ground: 'grass', ...level }, true],
    [
      'a pad whose slope runs out',
      'pad',
      { x: 2, y: 2, w: 16, d: 8, ground: 'grass', ...level, edges: { e: { kind: 'slope' } } },
      false,
    ],
    ['track', 'track', { x: 5, y: 12, pieces: [{ go: 'straight', length: 10 }], ...level }, true],
    [
      'track that leaves it',
      'track',
      { x: 2, y: 12, pieces: [{ go: 'straight', length: 40 }], ...level },
      false,
    ],
    ['a building turned into the neighbour', 'plot', { x: 2, y: 6, w: 14, d: 8, height: 9, turn: 45 }, true],
    ['the same nearer to the border', 'plot', { x: 8, y: 4, w: 12, d: 8, height: 9, turn: 45 }, false],
    ['a picture', 'picture', { x: 0, y: 0, w: 4, d: 4, image: 'data:image/png;base64,AAAA' }, false],
  ] as const)('%s', (_, kind, data, allowed) => {
    expect(may(kind, data) === null).toBe(allowed);
  });
});
