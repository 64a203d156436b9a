import fc from 'fast-check';
import { sceneFrom } from '@quarry/core/document';
import { fieldsForRect, pickAt, pickIn, snapRect, stepOf } from './pick.ts';
import { placeOf } from './place.ts';
import { bringIn, fit, rectToScreen, rectToStuds, toScreen, toStuds, zoomAt } from './viewport.ts';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const views = fc.record({ scale: number(0.3, 60), x: number(-2000, 2000), y: number(-2000, 2000) });
const rects = fc.record({
  x: number(-200, 200),
  y: number(-200, 200),
  w: number(0.5, 300),
  d: number(0.5, 300),
});
const close = (a: number, b: number) => Math.abs(a - b) < 1e-6 * Math.max(1, Math.abs(a), Math.abs(b));

describe('the viewport', () => {
  test('studs to the screen and back', () => {
    fc.assert(
      fc.property(views, rects, (view, rect) => {
        const there = rectToScreen(view, rect);
        const back = rectToStuds(view, there);
        const corner = toStuds(view, there.x, there.y);
        return (
          close(back.x, rect.x) && close(back.w, rect.w) && close(back.d, rect.d) && close(corner.y, rect.y)
        );
      }),
    );
  });
  test('zooming keeps the stud under the pointer, within its limits', () => {
    fc.assert(
      fc.property(views, number(0.01, 100), number(0, 1200), number(0, 800), (view, factor, px, py) => {
        const zoomed = zoomAt(view, factor, px, py);
        const [before, after] = [toStuds(view, px, py), toStuds(zoomed, px, py)];
        return (
          close(before.x, after.x) && close(before.y, after.y) && zoomed.scale >= 0.3 && zoomed.scale <= 60
        );
      }),
    );
  });
  test('fitting shows the whole rectangle, and what is in sight is not moved', () => {
    fc.assert(
      fc.property(rects, (rect) => {
        const view = fit(rect, 900, 600);
        if (view.scale <= 0.3 || view.scale >= 60) return true;
        const { x, y, w, d } = rectToScreen(view, rect);
        return x >= 0 && y >= 0 && x + w <= 900 && y + d <= 600;
      }),
    );
    const view = { scale: 2, x: 0, y: 0 };
    expect(bringIn(view, 100, 100, 900, 600)).toBe(view);
    const brought = bringIn(view, 1000, 100, 900, 600);
    expect(toScreen(brought, 1000, 100)).toEqual({ x: 450, y: 300 });
  });
});

const scene = sceneFrom({
  display: { name: 'Pick', kind: 'city' },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 64, d: 64 }],
  tables: [{ id: 't', name: 'Table', x: 4, y: 4, w: 600, d: 600 }],
  pads: [
    { id: 'under', name: 'Under', x: 0, y: 0, w: 64, d: 64, level: 'low', ground: 'grass', order: 1 },
    {
      id: 'oval',
      name: 'Oval',
      x: 0,
      y: 0,
      w: 32,
      d: 32,
      shape: 'oval',
      level: 'low',
      ground: 'water',
      order: 2,
    },
  ],
  plots: [{ id: 'house', name: 'House', x: 10, y: 10, w: 8, d: 8, height: 9 }],
  sections: [{ id: 's', letter: 'A', name: 'All', x: 0, y: 0, w: 64, d: 64 }],
  modules: [{ id: 'm', name: 'A1', x: 0, y: 0, w: 64, d: 64, bases: [] }],
});
const view = { scale: 10, x: 0, y: 0 };
const pick = (x: number, y: number, now: Parameters<typeof pickAt>[5] = null, hidden = new Set<never>()) =>
  pickAt(scene, hidden, view, x, y, now);

describe('picking', () => {
  test('marks before buildings, buildings before ground, ground as it is laid; a second click goes deeper', () => {
    expect(pick(622, 18)).toEqual({ kind: 'section', id: 's' });
    expect(pick(12, 12)).toEqual({ kind: 'module', id: 'm' });
    const clicks = [null, null, null, null, null].reduce<ReturnType<typeof pick>[]>(
      (list) => [...list, pick(140, 140, list.at(-1) ?? null)],
      [],
    );
    expect(clicks).toEqual([
      { kind: 'plot', id: 'house' },
      { kind: 'pad', id: 'oval' },
      { kind: 'pad', id: 'under' },
      { kind: 'footprint', id: 'f' },
      { kind: 'table', id: 't' },
    ]);
    expect(pick(140, 140, clicks.at(-1))).toEqual(clicks[0]);
  });
  test('an oval is hit inside its curve only, hidden layers not at all, empty paper gives nothing', () => {
    expect(pick(40, 25)).toEqual({ kind: 'pad', id: 'under' });
    expect(pickAt(scene, new Set(['plots', 'modules', 'sections'] as const), view, 140, 140, null)).toEqual({
      kind: 'pad',
      id: 'oval',
    });
    expect(pick(5000, 5000)).toBeNull();
  });
  test('a box picks what lies wholly in it, and nothing that is hidden', () => {
    const box = { x: 0, y: 0, w: 40, d: 40 };
    expect(pickIn(scene, new Set(), box)).toEqual([
      { kind: 'plot', id: 'house' },
      { kind: 'pad', id: 'oval' },
    ]);
    expect(pickIn(scene, new Set(['plots'] as const), { ...box, w: 17 })).toEqual([]);
  });
  test('tables stand in millimetres and come back in millimetres', () => {
    const place = placeOf(scene, { kind: 'table', id: 't' });
    expect(place).toEqual({ x: 0.5, y: 0.5, w: 75, d: 75 });
    expect(place && fieldsForRect(scene, { kind: 'table', id: 't' }, place)).toEqual({
      x: 4,
      y: 4,
      w: 600,
      d: 600,
    });
    expect(placeOf(scene, { kind: 'level', id: 'low' })).toBeNull();
    expect(placeOf(scene, { kind: 'pad', id: 'gone' })).toBeNull();
  });
});

test('snapping puts any rectangle on its steps, never smaller than one', () => {
  fc.assert(
    fc.property(rects, fc.constantFrom(0.5, 1, stepOf('table', 1)), (rect, step) => {
      const { x, y, w, d } = snapRect({ ...rect, w: rect.w / 100 }, step);
      const on = (value: number) => Math.abs(value / step - Math.round(value / step)) < 1e-9;
      return [x, y, w, d].every(on) && w >= step && d >= step && Math.abs(x - rect.x) <= step / 2 + 1e-9;
    }),
  );
});
