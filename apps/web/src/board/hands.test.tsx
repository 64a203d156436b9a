import { act, fireEvent, render, screen } from '@testing-library/react';
import { useRef, useState } from 'react';
import type { Rect } from '@quarry/core/grid';
import type { Tool } from '../data/view.ts';
import { useGestures, type DraftShape } from './gestures.ts';
import { Selection, Vertices } from './handles.tsx';
import type { Point } from '@quarry/core/terrain';
import { snapRect } from './pick.ts';
import { toStuds, type Viewport } from './viewport.ts';

/** Four pixels a stud; stud (0, 0) at (100, 50). */
const VIEW: Viewport = { scale: 4, x: 100, y: 50 };

/** What a browser sends for a mouse, a pen or a finger. */
class Pointer extends MouseEvent {
  readonly pointerId: number;
  readonly pointerType: string;
  constructor(type: string, init: PointerEventInit = {}) {
    super(type, init);
    this.pointerId = init.pointerId ?? 0;
    this.pointerType = init.pointerType ?? 'mouse';
  }
}

/** Elements hold the pointer here as a browser's do: a press holds it, a release or another hand lets it go. */
function holdPointers(): void {
  Object.assign(window, { PointerEvent: Pointer });
  const held = new Map<number, Element>();
  Element.prototype.setPointerCapture = function (this: Element, id) {
    held.set(id, this);
  };
  Element.prototype.hasPointerCapture = function (this: Element, id) {
    return held.get(id) === this;
  };
  Element.prototype.releasePointerCapture = function (this: Element, id) {
    held.delete(id);
    fireEvent.lostPointerCapture(this, { pointerId: id });
  };
  // Drawings stand at the scale of the page.
  Object.assign(SVGElement.prototype, { getScreenCTM: () => null });
}
beforeAll(holdPointers);

type Way = readonly [dx: number, dy: number];
const at = (x: number, y: number, more: object = {}) => ({
  ...{ pointerId: 1, button: 0, buttons: 1, clientX: x, clientY: y },
  ...more,
});
/** Presses something, moves by some pixels, and lets go. */
function drag(element: Element, [dx, dy]: Way): void {
  fireEvent.pointerDown(element, at(0, 0));
  fireEvent.pointerMove(element, at(dx / 2, dy / 2));
  fireEvent.pointerMove(element, at(dx, dy));
  fireEvent.pointerUp(element, at(dx, dy, { buttons: 0 }));
}

describe('what is picked', () => {
  const shown = (place: Rect, more: { step?: number; editable?: boolean; resizes?: boolean } = {}) => {
    const calls: [string, unknown][] = [];
    const { container } = render(
      <svg>
        <Selection
          {...{ place, step: 1, view: VIEW, editable: true, resizes: true, iron: '#a8442a', ...more }}
          snap={snapRect}
          onMove={(rect) => calls.push(['move', rect])}
          onSize={(rect) => calls.push(['size', rect])}
          onPlace={(rect) => calls.push(['place', rect])}
          onClick={(x, y, adds) => calls.push(['click', [x, y, adds]])}
        />
      </svg>,
    );
    const takers = [...container.querySelectorAll('rect[cursor]')];
    const [outline, ...grips] = takers;
    return { calls, outline, grips, last: () => calls.at(-1) };
  };
  const plot = { x: 10, y: 20, w: 16, d: 12 };

  test('moves by whole steps; a press without a move clicks; another button does neither', () => {
    const { outline, calls, last } = shown(plot);
    // 9 px are 2.25 studs.
    drag(outline, [9, -13]);
    expect(last()).toEqual(['place', { ...plot, x: 12, y: 17 }]);
    calls.length = 0;
    drag(outline, [2, 1]);
    expect(calls).toEqual([['click', [2, 1, false]]]);
    fireEvent.pointerDown(outline, at(0, 0, { button: 2 }));
    fireEvent.pointerMove(outline, at(60, 0));
    expect(calls).toHaveLength(1);
  });
  test.each([
    ['north-west', 0, { x: 12, y: 23, w: 14, d: 9 }],
    ['north', 1, { ...plot, y: 23, d: 9 }],
    ['north-east', 2, { ...plot, y: 23, w: 18, d: 9 }],
    ['west', 3, { ...plot, x: 12, w: 14 }],
    ['east', 4, { ...plot, w: 18 }],
    ['south-west', 5, { x: 12, y: 20, w: 14, d: 15 }],
    ['south', 6, { ...plot, d: 15 }],
    ['south-east', 7, { ...plot, w: 18, d: 15 }],
  ])('pulled at its %s, the opposite sides stay', (_, grip, to) => {
    const { grips, last } = shown(plot);
    drag(grips[grip], [8, 12]);
    expect(last()).toEqual(['place', to]);
  });
  test('a side ends a step before the opposite one, also on half studs', () => {
    const half = { x: 10.5, y: 20, w: 16, d: 12 };
    const { grips, last } = shown(half);
    drag(grips[3], [400, 0]);
    expect(last()).toEqual(['place', { ...half, x: 25.5, w: 1 }]);
    drag(grips[4], [-400, 0]);
    expect(last()).toEqual(['place', { ...half, w: 1 }]);
    // A grip that is pressed only changes nothing.
    const { grips: others, calls } = shown(half);
    drag(others[4], [0, 0]);
    expect(calls).toEqual([]);
  });
  test('a small thing keeps one grip, so that it can be taken hold of; a locked one has none', () => {
    expect(shown({ x: 0, y: 0, w: 4, d: 4 }).grips).toHaveLength(1);
    expect(shown({ x: 0, y: 0, w: 8, d: 30 }).grips).toHaveLength(6);
    expect(shown(plot, { resizes: false }).grips).toEqual([]);
    expect(shown(plot, { editable: false }).outline).toBeUndefined();
  });
});

describe('the points of a line', () => {
  const road = [
    { x: 0, y: 0 },
    { x: 10, y: 0 },
    { x: 10, y: 8 },
  ];
  const shown = (fixed = false) => {
    const lines: Point[][] = [];
    const { container } = render(
      <svg>
        <Vertices
          {...{ points: road, view: VIEW, step: 1, iron: '#a8442a', editable: true, fixed }}
          onPoints={(points) => lines.push(points)}
        />
      </svg>,
    );
    return { lines, takers: [...container.querySelectorAll('rect[cursor]')], container };
  };
  test('each is moved on its step; between two, one more begins; twice pressed, one goes', () => {
    const { lines, takers, container } = shown();
    // Before each point but the last its middle to the next.
    expect(takers).toHaveLength(5);
    fireEvent.pointerDown(takers[1], at(0, 0));
    fireEvent.pointerMove(takers[1], at(9, 3));
    expect(container.querySelector('polyline')?.getAttribute('points')).toBe('108,54 140,50 140,82');
    fireEvent.pointerUp(takers[1], at(9, 3));
    drag(takers[0], [0, -8]);
    fireEvent.doubleClick(takers[3]);
    drag(takers[4], [0, 0]);
    expect(lines).toEqual([
      [{ x: 2, y: 1 }, road[1], road[2]],
      [road[0], { x: 5, y: -2, z: null }, road[1], road[2]],
      [road[0], road[2]],
    ]);
  });
  test('of a ridge none is added or taken out', () => {
    const { lines, takers } = shown(true);
    expect(takers).toHaveLength(3);
    fireEvent.doubleClick(takers[1]);
    expect(lines).toEqual([]);
  });
});

describe('the pointer on the board', () => {
  const board = (tool: Tool, { readOnly = false, under = false } = {}) => {
    const done: DraftShape[] = [];
    const clicks: unknown[] = [];
    const moved: Rect[] = [];
    let now: Viewport | null = VIEW;
    function Host() {
      const host = useRef<HTMLDivElement>(null);
      const [view, setView] = useState<Viewport | null>(VIEW);
      now = view;
      const { handlers, draft, keyTaken } = useGestures({
        ...{ host, tool, snap: 1, view, setView, readOnly },
        finish: (shape) => done.push(shape),
        click: (x, y, adds) => clicks.push([x, y, adds]),
      });
      return (
        <div ref={host} data-testid="host" {...handlers} onKeyDown={keyTaken}>
          <p>{draft?.kind ?? 'nothing'}</p>
          {under && (
            <svg>
              <Selection
                {...{ place: { x: 0, y: 0, w: 40, d: 40 }, step: 1, view: VIEW, iron: '#a8442a' }}
                {...{ editable: true, resizes: false, snap: snapRect, onSize: () => undefined }}
                onMove={(rect) => moved.push(rect)}
                onPlace={(rect) => moved.push(rect)}
                onClick={(x, y) => clicks.push([x, y])}
              />
            </svg>
          )}
        </div>
      );
    }
    const { container } = render(<Host />);
    const host = screen.getAllByTestId('host').at(-1);
    if (!host) throw new Error('no board');
    const press = (x: number, y: number) => {
      fireEvent.pointerDown(host, at(x, y));
      fireEvent.pointerUp(host, at(x, y));
    };
    return { host, container, done, clicks, moved, press, view: () => now, says: () => host.textContent };
  };

  test('with nothing in hand it pans, and a press picks', () => {
    const { host, press, clicks, view } = board('pick');
    drag(host, [30, -12]);
    expect(view()).toEqual({ scale: 4, x: 130, y: 38 });
    press(200, 90);
    expect(clicks).toEqual([[200, 90, false]]);
  });
  test('an area is dragged on whole studs; with the middle button the view moves instead', () => {
    const { host, done, view } = board('hill');
    fireEvent.pointerDown(host, at(141, 91));
    fireEvent.pointerMove(host, at(221, 131));
    fireEvent.pointerUp(host, at(221, 131));
    expect(done).toEqual([{ kind: 'area', rect: { x: 10, y: 10, w: 20, d: 10 } }]);
    fireEvent.pointerDown(host, at(0, 0, { button: 1 }));
    fireEvent.pointerMove(host, at(20, 20, { buttons: 4 }));
    fireEvent.pointerUp(host, at(20, 20));
    expect(done).toHaveLength(1);
    expect(view()).toEqual({ scale: 4, x: 120, y: 70 });
  });
  test('pressed, moved and let go before anything could be drawn, it draws all the same', () => {
    const { host, done } = board('profile');
    act(() => drag(host, [80, 44]));
    expect(done).toEqual([{ kind: 'cut', line: { a: { x: -25, y: -12 }, b: { x: -5, y: -1 } } }]);
    // As swift a hand that the browser tells of its end only.
    act(() => {
      fireEvent.pointerDown(host, at(0, 0));
      fireEvent.pointerUp(host, at(8, 400));
    });
    expect(done).toHaveLength(2);
  });
  test.each([
    ['Escape', (host: Element) => fireEvent.keyDown(host, { key: 'Escape' })],
    ['the browser', (host: Element) => fireEvent.pointerCancel(host, at(80, 40))],
  ])('broken off by %s, a drag draws nothing', (_, breakOff) => {
    const { host, done, says } = board('hill');
    fireEvent.pointerDown(host, at(0, 0));
    fireEvent.pointerMove(host, at(80, 40));
    expect(says()).toBe('area');
    breakOff(host);
    fireEvent.pointerUp(host, at(80, 40));
    expect([says(), done]).toEqual(['nothing', []]);
  });
  test('a line goes on with each press and ends with one on its last point; Backspace takes one back', () => {
    const { host, done, press, says } = board('way');
    press(100, 50);
    press(100, 50);
    expect([says(), done]).toEqual(['line', []]);
    press(140, 50);
    press(180, 50);
    fireEvent.keyDown(host, { key: 'Backspace' });
    press(140, 90);
    press(141, 91);
    expect(done).toEqual([
      {
        kind: 'line',
        at: null,
        points: [
          { x: 0, y: 0 },
          { x: 10, y: 0 },
          { x: 10, y: 10 },
        ],
      },
    ]);
    expect(says()).toBe('nothing');
  });
  test('the wheel zooms about the pointer; a board that is looked at stays', () => {
    const { host, view } = board('pick');
    const before = toStuds(VIEW, 300, 200);
    fireEvent.wheel(host, { deltaY: -400, clientX: 300, clientY: 200 });
    const now = view();
    if (!now) throw new Error('no view');
    expect(now.scale).toBeCloseTo(4 * Math.exp(0.6), 9);
    expect(toStuds(now, 300, 200).x).toBeCloseTo(before.x, 9);
    const still = board('pick', { readOnly: true });
    fireEvent.wheel(still.host, { deltaY: -400, clientX: 300, clientY: 200 });
    drag(still.host, [30, 30]);
    expect([still.view(), still.clicks]).toEqual([VIEW, []]);
  });
  test('two fingers zoom about what lies between them; what one had begun to move goes back, and nothing is clicked', () => {
    const { container, moved, clicks, view } = board('pick', { under: true });
    const outline = container.querySelector('rect[cursor]');
    if (!outline) throw new Error('no outline');
    const finger = (pointerId: number, x: number, y: number) =>
      at(x, y, { pointerId, pointerType: 'touch', buttons: 1 });
    fireEvent.pointerDown(outline, finger(1, 200, 100));
    fireEvent.pointerMove(outline, finger(1, 220, 100));
    expect(moved).toEqual([{ x: 5, y: 0, w: 40, d: 40 }]);
    fireEvent.pointerDown(outline, finger(2, 260, 100));
    // Let go, it stands where it was.
    expect(moved.at(-1)).toEqual({ x: 0, y: 0, w: 40, d: 40 });
    const middle = toStuds(VIEW, 240, 100);
    fireEvent.pointerMove(outline, finger(2, 300, 100));
    fireEvent.pointerMove(outline, finger(1, 180, 100));
    const now = view();
    if (!now) throw new Error('no view');
    // 40 px apart, then 120.
    expect(now.scale).toBeCloseTo(12, 9);
    expect(toStuds(now, 240, 100)).toEqual({
      x: expect.closeTo(middle.x, 9),
      y: expect.closeTo(middle.y, 9),
    });
    const count = moved.length;
    for (const id of [1, 2]) fireEvent.pointerUp(outline, finger(id, 200, 100));
    fireEvent.pointerMove(outline, finger(1, 90, 100));
    expect([clicks, moved.length]).toEqual([[], count]);
    // The next finger is one by itself again.
    fireEvent.pointerDown(outline, finger(3, 200, 100));
    fireEvent.pointerUp(outline, finger(3, 200, 100));
    expect(clicks).toEqual([[200, 100]]);
  });
});
