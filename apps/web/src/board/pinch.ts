import { useRef, type PointerEvent, type RefObject } from 'react';
import type { Point } from '@quarry/core/terrain';
import { zoomAt, type Viewport } from './viewport.ts';

/**
 * Zooms and pans by two fingers. They are seen before anything on the board sees them: what the first finger had begun
 * to drag is let go, and nothing is clicked when the fingers are lifted.
 * @param onBegin called when the second finger comes down
 * @returns handlers of the board
 */
export function usePinch(
  host: RefObject<HTMLElement | null>,
  readOnly: boolean,
  setView: (change: (now: Viewport | null) => Viewport | null) => void,
  onBegin: () => void,
) {
  const fingers = useRef(new Map<number, Point>());
  const isPinching = useRef(false);
  const held = useRef<Element | null>(null);

  const down = (event: PointerEvent) => {
    if (readOnly || event.pointerType !== 'touch') return;
    const { current } = fingers;
    current.set(event.pointerId, { x: event.clientX, y: event.clientY });
    if (current.size === 1) held.current = event.target instanceof Element ? event.target : null;
    if (current.size < 2) return;
    event.stopPropagation();
    if (isPinching.current) return;
    isPinching.current = true;
    for (const id of current.keys())
      for (const element of [held.current, host.current])
        if (element?.hasPointerCapture(id)) element.releasePointerCapture(id);
    onBegin();
  };
  const move = (event: PointerEvent) => {
    const { current } = fingers;
    const before = spread(current);
    if (!current.has(event.pointerId)) return;
    current.set(event.pointerId, { x: event.clientX, y: event.clientY });
    if (!isPinching.current) return;
    event.stopPropagation();
    const [now, box] = [spread(current), host.current?.getBoundingClientRect()];
    if (!before || !now || !box) return;
    const [dx, dy] = [now.middle.x - before.middle.x, now.middle.y - before.middle.y];
    setView(
      (at) =>
        at &&
        zoomAt(
          { ...at, x: at.x + dx, y: at.y + dy },
          now.apart / before.apart,
          now.middle.x - box.left,
          now.middle.y - box.top,
        ),
    );
  };
  const lift = (event: PointerEvent) => {
    if (!fingers.current.delete(event.pointerId) || !isPinching.current) return;
    event.stopPropagation();
    if (fingers.current.size === 0) isPinching.current = false;
  };
  return {
    onPointerDownCapture: down,
    onPointerMoveCapture: move,
    onPointerUpCapture: lift,
    onPointerCancelCapture: lift,
  };
}

/** How far apart two fingers are, px, and what lies between them; null unless there are two. */
function spread(fingers: ReadonlyMap<number, Point>): { apart: number; middle: Point } | null {
  const [a, b, third] = fingers.values();
  if (!a || !b || third) return null;
  return {
    apart: Math.max(1, Math.hypot(a.x - b.x, a.y - b.y)),
    middle: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 },
  };
}
