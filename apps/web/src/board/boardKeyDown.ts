import type { KeyboardEvent } from 'react';
import type { Rect } from '@quarry/core/grid';
import { useView, type Picked } from '../data/view.ts';
import { arrowWay } from '../ui/arrows.ts';
import type { BoardActs } from './acts.ts';
import { isPlaced, shapeAt, toolOf } from './kinds/index.ts';
import { snapRect } from './pick.ts';
import { toStuds, zoomAt, type Viewport } from './viewport.ts';

/** Pixels by which an arrow key moves the view. */
const PAN = 60;

interface KeySetting {
  acts: BoardActs | undefined;
  view: Viewport | null;
  setView: (view: Viewport) => void;
  fitAll: () => void;
  size: { width: number; height: number };
  whole: Rect;
  picks: readonly Picked[];
  /** Of all that is picked, studs. */
  place: Rect | null;
  editable: boolean;
  /** What a drawing that has begun takes first. */
  keyTaken: (event: KeyboardEvent) => boolean;
}

/** The keys of the board: arrows nudge or pan, plus, minus and 0 zoom, Escape lets go, Enter draws in the middle. */
export function boardKeyDown(setting: KeySetting): (event: KeyboardEvent) => void {
  const { acts, view, setView, fitAll, size, whole, picks, place, editable, keyTaken } = setting;
  const middle = { x: size.width / 2, y: size.height / 2 };
  const arrow = (event: KeyboardEvent, [dx, dy]: readonly [number, number], on: BoardActs, now: Viewport) => {
    event.preventDefault();
    const [picked] = picks;
    if (!place || !editable || !picked) return setView({ ...now, x: now.x - dx * PAN, y: now.y - dy * PAN });
    const by = event.shiftKey ? 8 : event.altKey && picked.kind !== 'footprint' ? 0.5 : 1;
    if (picks.length > 1) on.move(picks, dx * by, dy * by);
    else on.place(picked, { ...place, x: place.x + dx * by, y: place.y + dy * by });
  };
  const drawInMiddle = (held: ReturnType<typeof useView.getState>['tool'], on: BoardActs, now: Viewport) => {
    const { x, y } = toStuds(now, middle.x, middle.y);
    const rect = snapRect({ x: x - 8, y: y - 8, w: 16, d: 16 }, Math.max(1, on.snap));
    const draws = toolOf(held)?.draws;
    if (draws && isPlaced(held)) on.draw(held, shapeAt(draws, rect));
    else if (held === 'profile')
      useView.getState().layCut({ a: { x: whole.x, y: rect.y }, b: { x: whole.x + whole.w, y: rect.y } });
  };
  return (event) => {
    if (!acts || !view || event.ctrlKey || event.metaKey) return;
    if (keyTaken(event)) return;
    // The tool as it is this moment: a quick hand presses Enter before the board is drawn with a new one.
    const { tool: held, pick, takeTool } = useView.getState();
    const way = arrowWay(event.key);
    if (way) arrow(event, way, acts, view);
    else if (event.key === '+' || event.key === '=') setView(zoomAt(view, 1.25, middle.x, middle.y));
    else if (event.key === '-') setView(zoomAt(view, 0.8, middle.x, middle.y));
    else if (event.key === '0') fitAll();
    else if (event.key === 'Escape') {
      if (held === 'pick') pick(null);
      else takeTool('pick');
    } else if (event.key === 'Enter' && held !== 'pick') {
      event.preventDefault();
      drawInMiddle(held, acts, view);
    }
  };
}
