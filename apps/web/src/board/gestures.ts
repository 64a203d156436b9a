import type Konva from 'konva';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import type { Rect } from '@quarry/core/grid';
import type { CutLine, Tool } from '../data/view.ts';
import { toolOf } from './kinds/index.ts';
import { usePointer } from './pointer.ts';
import { snapRect, stepOf } from './pick.ts';
import { toStuds, zoomAt, type Viewport } from './viewport.ts';

type Point = { x: number; y: number };

/** What is being drawn and not done yet. */
export type DraftShape =
  | { kind: 'area' | 'box'; rect: Rect }
  | { kind: 'line'; points: Point[]; at: Point | null }
  | { kind: 'spot'; at: Point }
  | { kind: 'measure' | 'cut'; line: CutLine };

type Event = Konva.KonvaEventObject<MouseEvent | TouchEvent>;

/** Pixels the pointer may move before a press is a drag. */
const SLOP = 4;

interface Setting {
  tool: Tool;
  snap: number;
  view: Viewport | null;
  setView: (change: Viewport | ((now: Viewport | null) => Viewport | null)) => void;
  readOnly: boolean;
  finish: (draft: DraftShape) => void;
  click: (x: number, y: number, adds: boolean) => void;
}

/**
 * The pointer on the board. With nothing in hand: a press and drag pans, with Shift it draws a box to pick in; a
 * click picks, with Shift it picks too. Two fingers zoom. With a tool: areas are dragged, lines are clicked point by
 * point and end with a double click or Enter, spots are clicked.
 */
export function useGestures({ tool, snap, view, setView, readOnly, finish, click }: Setting) {
  const [draft, setDraft] = useState<DraftShape | null>(null);
  const draws = toolOf(tool)?.draws ?? null;
  const press = useRef<(Point & { view: Viewport; moved: boolean; on: 'pan' | 'draw' }) | null>(null);
  const pinch = useRef<{ apart: number; middle: Point } | null>(null);
  useEffect(() => setDraft(null), [tool]);

  const pointerAt = (stage: Konva.Stage | null) => stage?.getPointerPosition() ?? null;
  const onStep = (point: Point): Point => {
    const step = draws === 'area' ? stepOf(tool, snap) || snap : snap;
    return { x: Math.round(point.x / step) * step, y: Math.round(point.y / step) * step };
  };
  const begun = (a: Point, b: Point, shift: boolean): DraftShape | null => {
    const rect = snapRect(
      { x: Math.min(a.x, b.x), y: Math.min(a.y, b.y), w: Math.abs(b.x - a.x), d: Math.abs(b.y - a.y) },
      draws === 'area' ? stepOf(tool, snap) || snap : snap,
    );
    if (tool === 'pick') return shift ? { kind: 'box', rect } : null;
    if (tool === 'measure') return { kind: 'measure', line: { a: onStep(a), b: onStep(b) } };
    if (tool === 'profile') return { kind: 'cut', line: { a: onStep(a), b: onStep(b) } };
    return draws === 'area' ? { kind: 'area', rect } : null;
  };

  const down = ({ evt, target }: Event) => {
    if (readOnly || !view) return;
    if ('touches' in evt && evt.touches.length === 2) {
      press.current = null;
      pinch.current = fingers(evt);
      return;
    }
    // A press on the picked thing or its handles belongs to them.
    if (tool === 'pick' && target !== target.getStage() && target.name() !== 'sheet') return;
    const at = pointerAt(target.getStage());
    if (!at) return;
    const middleButton = 'button' in evt && evt.button === 1;
    const drags = !middleButton && (tool === 'pick' ? evt.shiftKey : draws !== 'line' && draws !== 'spot');
    press.current = { ...at, view, moved: false, on: drags ? 'draw' : 'pan' };
  };
  const move = ({ evt, target }: Event) => {
    if ('touches' in evt && evt.touches.length === 2 && pinch.current) {
      evt.preventDefault();
      const now = fingers(evt);
      const before = pinch.current;
      const box = target.getStage()?.container().getBoundingClientRect();
      pinch.current = now;
      if (box)
        setView(
          (at) =>
            at &&
            zoomAt(
              { ...at, x: at.x + now.middle.x - before.middle.x, y: at.y + now.middle.y - before.middle.y },
              now.apart / before.apart,
              now.middle.x - box.left,
              now.middle.y - box.top,
            ),
        );
      return;
    }
    // The button was let go outside the board.
    if ('buttons' in evt && evt.buttons === 0) press.current = null;
    const at = pointerAt(target.getStage());
    if (!at || !view) return;
    const studs = toStuds(view, at.x, at.y);
    if (!readOnly) usePointer.setState({ studs });
    if (draft?.kind === 'line' && !press.current) setDraft({ ...draft, at: onStep(studs) });
    const { current } = press;
    if (!current) return;
    if (Math.hypot(at.x - current.x, at.y - current.y) > SLOP) current.moved = true;
    if (!current.moved) return;
    if (current.on === 'pan')
      setView({
        ...current.view,
        x: current.view.x + at.x - current.x,
        y: current.view.y + at.y - current.y,
      });
    else setDraft(begun(toStuds(view, current.x, current.y), studs, tool === 'pick'));
  };
  const up = ({ evt, target }: Event) => {
    const { current } = press;
    press.current = null;
    pinch.current = null;
    const at = pointerAt(target.getStage());
    if (!current || !at || !view) return;
    if (current.moved) {
      if (draft && current.on === 'draw') finish(draft);
      // A measured length stays to be read.
      if (draft && draft.kind !== 'measure' && draft.kind !== 'line') setDraft(null);
      return;
    }
    const studs = onStep(toStuds(view, at.x, at.y));
    if (draws === 'line') {
      const points = draft?.kind === 'line' ? draft.points : [];
      const last = points.at(-1);
      if (!last || last.x !== studs.x || last.y !== studs.y)
        setDraft({ kind: 'line', points: [...points, studs], at: null });
    } else if (draws === 'spot') finish({ kind: 'spot', at: studs });
    else if (tool === 'pick') click(at.x, at.y, evt.shiftKey);
  };
  const endLine = (): boolean => {
    if (draft?.kind !== 'line' || draft.points.length < 2) return false;
    setDraft(null);
    finish(draft);
    return true;
  };

  return {
    draft,
    /** Whether a key belonged to what is being drawn. */
    keyTaken: (event: KeyboardEvent): boolean => {
      if (!draft) return false;
      if (event.key === 'Escape') setDraft(null);
      else if (event.key === 'Enter' && draft.kind === 'line') return endLine();
      else if (event.key === 'Backspace' && draft.kind === 'line') {
        const points = draft.points.slice(0, -1);
        setDraft(points.length > 0 ? { ...draft, points } : null);
        event.stopPropagation();
      } else return false;
      event.preventDefault();
      return true;
    },
    handlers: {
      onMouseDown: down,
      onMouseMove: move,
      onMouseUp: up,
      onTouchStart: down,
      onTouchMove: move,
      onTouchEnd: up,
      onDblClick: () => void endLine(),
      onDblTap: () => void endLine(),
      onWheel: ({ evt }: Konva.KonvaEventObject<WheelEvent>) => {
        if (readOnly) return;
        evt.preventDefault();
        setView((now) => now && zoomAt(now, Math.exp(-evt.deltaY * 0.0015), evt.offsetX, evt.offsetY));
      },
    },
    clickAt: click,
  };
}

function fingers({ touches: [a, b] }: TouchEvent): { apart: number; middle: Point } {
  return {
    apart: Math.max(1, Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY)),
    middle: { x: (a.clientX + b.clientX) / 2, y: (a.clientY + b.clientY) / 2 },
  };
}
