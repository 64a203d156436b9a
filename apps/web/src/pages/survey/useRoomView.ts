import { useEffect, useEffectEvent, useRef, useState, type PointerEvent, type WheelEvent } from 'react';
import type { Rect } from '@quarry/core/grid';
import type { Place } from '@quarry/core/document';
import { fitted, zoomed, type RoomView } from './roomView.ts';

/** How much a step of the wheel zooms. */
const WHEEL = 0.0015;

/**
 * Where the drawing of a room looks: all of it at first, and again for another room or window.
 * @param whole what is drawn, mm
 * @param size of the drawing, px
 * @param onPress a press beside all things
 */
export function useRoomView(
  place: Place | null,
  whole: Rect<'mm'>,
  size: { width: number; height: number },
  onPress: () => void,
) {
  const [view, setView] = useState<RoomView | null>(null);
  const press = useRef<{ x: number; y: number; view: RoomView } | null>(null);
  const release = () => {
    press.current = null;
  };
  const fit = () => setView(fitted(whole, size));
  const fitAgain = useEffectEvent(fit);
  useEffect(() => {
    if (size.width > 0) fitAgain();
    // Not for each change in the room.
  }, [place?.id, place?.walls, size.width, size.height]);
  return {
    view,
    fit,
    zoom: (factor: number) => setView((now) => now && zoomed(now, factor, size.width / 2, size.height / 2)),
    /** Dragging pans, the wheel zooms. */
    panning: {
      onPointerDown: (event: PointerEvent<SVGElement>) => {
        if (event.button !== 0 || !view) return;
        press.current = { x: event.clientX, y: event.clientY, view };
        event.currentTarget.setPointerCapture(event.pointerId);
        onPress();
      },
      onPointerMove: (event: PointerEvent<SVGElement>) => {
        const { current } = press;
        if (current)
          setView({
            ...current.view,
            x: current.view.x + event.clientX - current.x,
            y: current.view.y + event.clientY - current.y,
          });
      },
      onPointerUp: release,
      onPointerCancel: release,
      onLostPointerCapture: release,
      onWheel: (event: WheelEvent<SVGElement>) => {
        const box = event.currentTarget.getBoundingClientRect();
        const factor = Math.exp(-event.deltaY * WHEEL);
        setView((now) => now && zoomed(now, factor, event.clientX - box.x, event.clientY - box.y));
      },
    },
  };
}

/** What the whole drawing takes in, mm. */
export function roomExtent(place: Place | null, rects: readonly Rect<'mm'>[]): Rect<'mm'> {
  const xs = [...(place?.walls.map(({ x }) => x) ?? []), ...rects.flatMap(({ x, w }) => [x, x + w])];
  const ys = [...(place?.walls.map(({ y }) => y) ?? []), ...rects.flatMap(({ y, d }) => [y, y + d])];
  if (xs.length === 0) return { x: 0, y: 0, w: 4000, d: 3000 };
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, w: Math.max(1, Math.max(...xs) - x), d: Math.max(1, Math.max(...ys) - y) };
}
