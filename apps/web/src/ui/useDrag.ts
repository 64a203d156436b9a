import { useRef, type PointerEvent } from 'react';

/**
 * Dragging of a thing in a drawing (SVG).
 * @param read what a way makes, by its east and south part in units of the drawing
 * @param onMove while it is dragged
 * @param onEnd where it is let go; what `read` makes of no way where it is broken off
 * @returns handlers of the element that is dragged
 */
export function useDrag<T>(
  read: (dx: number, dy: number) => T,
  onMove: (way: T) => void,
  onEnd: (way: T) => void,
) {
  const start = useRef<{ x: number; y: number; scale: number } | null>(null);
  const wayOf = ({ clientX, clientY }: PointerEvent): T => {
    const from = start.current;
    return from ? read((clientX - from.x) / from.scale, (clientY - from.y) / from.scale) : read(0, 0);
  };
  const end = (way: T) => {
    if (!start.current) return;
    start.current = null;
    onEnd(way);
  };
  return {
    onPointerDown: (event: PointerEvent<SVGGraphicsElement>) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      start.current = {
        x: event.clientX,
        y: event.clientY,
        scale: event.currentTarget.getScreenCTM()?.a ?? 1,
      };
    },
    onPointerMove: (event: PointerEvent) => start.current && onMove(wayOf(event)),
    onPointerUp: (event: PointerEvent) => end(wayOf(event)),
    onPointerCancel: () => end(read(0, 0)),
    // After a release this comes too late to do anything: then the drag has ended.
    onLostPointerCapture: () => end(read(0, 0)),
  };
}
