import fc from 'fast-check';
import { MM, MM_PER_STUD, outerSize, readGridSize } from '../grid/index.ts';
import { blankDisplay, startSchema, type Start } from './begin.ts';
import { reduce } from './reduce.ts';
import { resizeDisplay } from './resize.ts';
import { displayOf, listOf, type Scene } from './scene.ts';

const ME = { name: 'Ada Brook', initials: 'AB' };
const blank = (start: Partial<Start> = {}) =>
  blankDisplay('Trial', { kind: 'diorama', w: 48, d: 32, ...start }, ME);
const applied = (scene: Scene, changes: Parameters<typeof reduce>[1]): Scene => {
  const reduction = reduce(scene, changes);
  if (!reduction.ok) throw new Error(reduction.refusal.sentence);
  return reduction.scene;
};
const read = (text: string) => {
  const size = readGridSize(text, 4096);
  if (!size.ok) throw new Error(size.error);
  return size.size;
};

describe('a size as people say it', () => {
  test('42 × 55 cm: 52 × 68 studs fit, by hand 52 × 8 − 0.2 = 415.8 mm and 68 × 8 − 0.2 = 543.8 mm', () => {
    expect(read('42 × 55 cm')).toEqual({
      ...{ w: 52, d: 68 },
      room: { w: 420 * MM, d: 550 * MM },
      left: { w: 4.2 * MM, d: 6.2 * MM },
      // 53 studs are 423.8 mm, 69 are 551.8 mm: the nearer ones.
      nearest: { w: 53, d: 69, over: { w: 3.8 * MM, d: 1.8 * MM } },
    });
  });
  test.each([
    ['16x16', 16, 16],
    ['16 X 24 studs', 16, 24],
    ['48 by 32', 48, 32],
    ['32', 32, 32],
    ['256mm*128mm', 32, 16],
    ['0.5 m × 25.6 cm', 62, 32],
    ['1 ft × 6 in', 38, 19],
    ['10" x 12"', 31, 38],
    ['16 1/2 in × 21 5/8 in', 52, 68],
  ])('“%s” is %i × %i studs', (text, w, d) => expect(read(text)).toMatchObject({ w, d }));
  test.each([
    ['', 'type a width and a depth'],
    ['42 ×', 'type a width and a depth'],
    ['1 × 2 × 3', 'type a width and a depth'],
    ['12.5 × 16 studs', 'no whole number of studs'],
    ['5 × 5 mm', 'no room for one stud'],
    ['5000 × 10', 'above the most'],
    ['3 × 4 parsecs', '“parsecs” is not a unit'],
  ])('“%s” is refused: %s', (text, words) => {
    const size = readGridSize(text, 4096);
    expect(size.ok ? '' : size.error).toContain(words);
  });
  test('what fits lies in the room, and one stud more does not', () =>
    fc.assert(
      fc.property(fc.integer({ min: 80, max: 30_000 }), fc.integer({ min: 80, max: 30_000 }), (w, d) => {
        const size = read(`${w / 10} × ${d / 10} mm`);
        const rooms = { w: (w / 10) * MM, d: (d / 10) * MM };
        for (const side of ['w', 'd'] as const) {
          expect(outerSize(size[side])).toBeLessThanOrEqual(Math.round(rooms[side]));
          expect(outerSize(size[side] + 1)).toBeGreaterThan(Math.round(rooms[side]));
          expect(outerSize(size[side]) + size.left[side]).toBe(Math.round(rooms[side]));
        }
      }),
    ));
});

describe('a new display', () => {
  test('stands on the top that was measured, in its middle', () => {
    const [table] = listOf(blank({ w: 52, d: 68, top: { w: 420, d: 550 }, stand: 'shelf' }), 'table');
    expect(table).toMatchObject({ kind: 'shelf', x: -2, y: -3, w: 420, d: 550 });
  });
  test('on a shelf it is seen from the south; the currency is the one that was asked for', () => {
    expect(displayOf(blank({ stand: 'shelf', currency: '€' }))).toMatchObject({
      ...{ viewedSides: ['s'], currency: '€', limitW: null },
    });
    expect(displayOf(blank({ isLimit: true }))).toMatchObject({ limitW: 48, limitD: 32 });
  });
  test('a footprint of more studs than fit is refused with the limit', () => {
    const parsed = startSchema.safeParse({ kind: 'city', w: 4096, d: 4096 });
    expect(parsed.error?.issues[0]?.message).toBe('a footprint has at most 4,194,304 studs');
  });
});

describe('resizing a display', () => {
  test('takes footprint, section, base ground and table with it, in one batch', () => {
    const before = blank();
    const after = applied(before, resizeDisplay(before, 60, 20).changes);
    for (const kind of ['footprint', 'section', 'pad'] as const)
      expect(listOf(after, kind)[0]).toMatchObject({ x: 0, y: 0, w: 60, d: 20 });
    // The table stood 40 mm beyond each side, and still does.
    expect(listOf(after, 'table')[0]).toMatchObject({ w: 60 * MM_PER_STUD + 80, d: 20 * MM_PER_STUD + 80 });
  });
  test('sections at the far sides follow, others stay; what would lie outside is named', () => {
    const [whole] = listOf(blank(), 'section');
    const data = (x: number, w: number) => ({ letter: 'B', name: 'East', x, y: 0, w, d: 32, owner: null });
    const plot = { name: 'House', x: 40, y: 4, w: 8, d: 8, height: 30 };
    const before = applied(blank(), [
      { op: 'patch', kind: 'section', id: whole.id, v: whole.v, set: { w: 24 } },
      { op: 'add', kind: 'section', id: 'east', data: data(24, 24) },
      { op: 'add', kind: 'plot', id: 'house', data: plot },
    ]);
    const wider = applied(before, resizeDisplay(before, 64, 32).changes);
    expect(listOf(wider, 'section').map(({ x, w }) => [x, w])).toEqual([
      [24, 40],
      [0, 24],
    ]);
    expect(resizeDisplay(before, 64, 32).outside).toEqual([]);
    expect(resizeDisplay(before, 44, 32).outside).toEqual([{ kind: 'plot', id: 'house' }]);
  });
  test('of an L it keeps the shape: parts at the far sides follow, parts beyond are taken away', () => {
    const [part] = listOf(blank(), 'footprint');
    const arm = { name: 'Arm', x: 0, y: 32, w: 16, d: 32 };
    const before = applied(blank(), [
      { op: 'patch', kind: 'footprint', id: part.id, v: part.v, set: { w: 64 } },
      { op: 'add', kind: 'footprint', id: 'arm', data: arm },
    ]);
    const sizes = (scene: Scene) => listOf(scene, 'footprint').map(({ w, d }) => [w, d]);
    expect(sizes(applied(before, resizeDisplay(before, 80, 80).changes))).toEqual([
      [16, 48],
      [80, 32],
    ]);
    expect(sizes(applied(before, resizeDisplay(before, 80, 32).changes))).toEqual([[80, 32]]);
  });
  test('there and back again is where it began (sizes of whole studs)', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 200 }), fc.integer({ min: 1, max: 200 }), (w, d) => {
        const before = blank();
        const there = applied(before, resizeDisplay(before, w, d).changes);
        const back = applied(there, resizeDisplay(there, 48, 32).changes);
        for (const kind of ['footprint', 'section', 'pad', 'table'] as const) {
          const places = (scene: Scene) =>
            listOf(scene, kind).map(({ x, y, w: wide, d: deep }) => [x, y, wide, deep]);
          expect(places(back)).toEqual(places(before));
        }
      }),
    ));
});
