import fc from 'fast-check';
import { DISPLAY_ID, reduce, sceneFrom, type Scene } from '@quarry/core/document';
import {
  VENUE_KINDS,
  distanceTo,
  frameOf,
  currentContents,
  lengthOf,
  openingLine,
  sidesOf,
  tableInStuds,
  withPlace,
} from '@quarry/core/venue';
import { firstPlace, middleOf, rectangle } from './defaults.ts';
import { fitted, zoomed } from './roomView.ts';
import { sceneMoved, slideOpening } from './moving.ts';
import { runs } from '../../../../../packages/core/test/runs.ts';

const after = (scene: Scene, changes: Parameters<typeof reduce>[1]): Scene => {
  const reduction = reduce(scene, changes);
  if (!reduction.ok) throw new Error(reduction.refusal.sentence);
  return reduction.scene;
};
const mm = fc.integer({ min: -2000, max: 2000 });
const size = fc.integer({ min: 100, max: 2500 });
const loose = fc
  .record({
    tables: fc.array(fc.record({ x: mm, y: mm, w: size, d: size }), { maxLength: 4 }),
    barrier: fc.record({ x1: mm, y1: mm, x2: mm, y2: mm }),
    w: fc.integer({ min: 1, max: 200 }),
    d: fc.integer({ min: 1, max: 200 }),
  })
  .map(({ tables, barrier, w, d }) =>
    sceneFrom({
      display: { name: 'Loose', kind: 'diorama' },
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w, d }],
      tables: tables.map((table, i) => ({ id: `t${i}`, name: `Table ${i}`, ...table })),
      barriers: [{ id: 'b', name: 'Rope', ...barrier }],
    }),
  );

describe('a display gets its first place', () => {
  test('everything of no place moves in, and lies to the scene as it lay before', () => {
    fc.assert(
      fc.property(loose, (scene) => {
        const placed = after(scene, firstPlace(scene, 'home'));
        expect(placed.display[DISPLAY_ID].place).toBe('home');
        for (const kind of VENUE_KINDS)
          expect(currentContents(placed, kind)).toHaveLength(currentContents(scene, kind).length);
        for (const table of currentContents(scene, 'table'))
          expect(tableInStuds(placed, placed.table[table.id])).toEqual(tableInStuds(scene, table));
      }),
      { numRuns: runs(60) },
    );
  });
  test('its room has at least 1.5 m of floor round the scene and all tables', () => {
    fc.assert(
      fc.property(loose, (scene) => {
        const placed = after(scene, firstPlace(scene, 'home'));
        const { walls } = placed.place.home;
        const [east, south] = [Math.max(...walls.map(({ x }) => x)), Math.max(...walls.map(({ y }) => y))];
        for (const { x, y, w, d } of currentContents(placed, 'table')) {
          expect(Math.min(x, y)).toBeGreaterThanOrEqual(1500);
          expect(x + w).toBeLessThanOrEqual(east - 1500 + 1);
          expect(y + d).toBeLessThanOrEqual(south - 1500 + 1);
        }
        expect(frameOf(placed).turn).toBe(0);
      }),
      { numRuns: runs(60) },
    );
  });
  test('a second place takes nothing away from the first and does not move the display', () => {
    const one = sceneFrom({
      display: { name: 'Two', kind: 'city', place: 'home' },
      places: [{ id: 'home', name: 'Home' }],
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
      tables: [{ id: 't', name: 'Table', place: 'home', x: 0, y: 0, w: 800, d: 400 }],
    });
    const two = after(one, firstPlace(one, 'hall'));
    expect(two.display[DISPLAY_ID].place).toBe('home');
    expect(currentContents(two, 'table')).toHaveLength(1);
    expect(two.place.hall.name).toBe('Place 2');
    expect(currentContents(withPlace(two, 'hall'), 'table')).toEqual([]);
    // New things appear in the middle of the room that is looked at.
    const { x, y } = middleOf(withPlace(two, 'hall'));
    const { walls } = two.place.hall;
    expect(x).toBeCloseTo(Math.max(...walls.map((wall) => wall.x)) / 2, -1);
    expect(y).toBeCloseTo(Math.max(...walls.map((wall) => wall.y)) / 2, -1);
  });
});

describe('a door is pushed along the walls', () => {
  const walls = rectangle(4000, 3000);
  test('it stays in the wall it is in when pushed along it, and stops at its ends', () => {
    const door = { wall: 0, at: 1000, width: 900 };
    expect(slideOpening(walls, door, { x: 500, y: 40 })).toEqual({ wall: 0, at: 1500 });
    expect(slideOpening(walls, door, { x: 9000, y: -900 })).toEqual({ wall: 0, at: 3100 });
    expect(slideOpening(walls, door, { x: -9000, y: -900 })).toEqual({ wall: 0, at: 0 });
  });
  test('pushed across the room it goes to the wall that is nearest', () => {
    expect(slideOpening(walls, { wall: 0, at: 1000, width: 900 }, { x: 0, y: 2900 })?.wall).toBe(2);
  });
  test('wherever it is pushed, it lies in a wall and nearest to where the hand is', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 3 }),
        fc.integer({ min: 0, max: 2000 }),
        fc.integer({ min: -5000, max: 5000 }),
        fc.integer({ min: -5000, max: 5000 }),
        (wall, at, x, y) => {
          const door = { wall, at, width: 900 };
          const to = slideOpening(walls, door, { x, y });
          const line = openingLine(walls, door);
          if (!to || !line) throw new Error('the door left its walls');
          const side = sidesOf(walls)[to.wall];
          expect(to.at).toBeGreaterThanOrEqual(0);
          expect(to.at + door.width).toBeLessThanOrEqual(lengthOf(side) + 1e-6);
          const hand = { x: (line.a.x + line.b.x) / 2 + x, y: (line.a.y + line.b.y) / 2 + y };
          const nearest = Math.min(...sidesOf(walls).map((one) => distanceTo(hand, one)));
          expect(distanceTo(hand, side)).toBeCloseTo(nearest, 6);
        },
      ),
    );
  });
  test('an opening in a wall that is gone does not move', () => {
    expect(slideOpening(walls, { wall: 9, at: 0, width: 900 }, { x: 10, y: 10 })).toBeNull();
  });
});

describe('the room on the screen', () => {
  test('fitted, the whole room lies on the screen with a margin; zooming keeps what is under the pointer', () => {
    fc.assert(
      fc.property(
        fc.record({
          x: mm,
          y: mm,
          w: fc.integer({ min: 500, max: 30_000 }),
          d: fc.integer({ min: 500, max: 30_000 }),
        }),
        fc.double({ min: 0.5, max: 2, noNaN: true }),
        (rect, factor) => {
          const view = fitted(rect, { width: 828, height: 720 });
          const left = view.x + rect.x * view.scale;
          const right = view.x + (rect.x + rect.w) * view.scale;
          expect(left).toBeGreaterThanOrEqual(51.9);
          expect(right).toBeLessThanOrEqual(828 - 51.9);
          const next = zoomed(view, factor, 300, 200);
          const under = (one: typeof view) => (300 - one.x) / one.scale;
          expect(under(next)).toBeCloseTo(under(view), 4);
        },
      ),
    );
  });
});

describe('the scene is moved in its room', () => {
  const scene = sceneFrom({
    display: { name: 'Moved', kind: 'diorama', place: 'home' },
    places: [{ id: 'home', name: 'Home', sceneX: 1000, sceneY: 500 }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
    tables: [
      { id: 'under', name: 'Under', place: 'home', x: 900, y: 400, w: 900, d: 600 },
      { id: 'aside', name: 'Aside', place: 'home', x: 3000, y: 400, w: 900, d: 600 },
      { id: 'elsewhere', name: 'Elsewhere', x: 900, y: 400, w: 900, d: 600 },
    ],
  });
  const lies = (one: Scene) => tableInStuds(one, one.table.under);
  test('with its tables: they lie to it as before, and no other table moves', () => {
    fc.assert(
      fc.property(mm, mm, (dx, dy) => {
        const moved = after(scene, sceneMoved(scene, scene.place.home, dx, dy, true));
        expect(lies(moved)).toEqual(lies(scene));
        expect([moved.table.aside, moved.table.elsewhere]).toEqual([
          scene.table.aside,
          scene.table.elsewhere,
        ]);
      }),
    );
  });
  test('alone: the tables stay where they are', () => {
    const moved = after(scene, sceneMoved(scene, scene.place.home, 80, 16, false));
    expect(moved.table).toEqual(scene.table);
    expect(lies(moved)).toMatchObject({ x: lies(scene).x - 10, y: lies(scene).y - 2 });
  });
});
