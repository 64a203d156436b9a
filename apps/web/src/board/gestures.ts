import {
  useEffect,
  useEffectEvent,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
  type RefObject,
} from 'react';
import type { Rect } from '@quarry/core/grid';
import type { CutLine, Tool } from '../data/view.ts';
import { toolOf } from './kinds/index.ts';
import { SLOP } from './handles.tsx';
import type { Point } from '@quarry/core/terrain';
import { usePinch } from './pinch.ts';
import { usePointer } from './pointer.ts';
import { snapRect, stepOf } from './pick.ts';
import { toStuds, zoomAt, type Viewport } from './viewport.ts';

/** What is being drawn and not done yet. */
export type DraftShape =
  | { kind: 'area' | 'box'; rect: Rect }
  | { kind: 'line'; points: Point[]; at: Point | null }
  | { kind: 'spot'; at: Point }
  | { kind: 'measure' | 'cut'; line: CutLine };

interface Setting {
  host: RefObject<HTMLElement | null>;
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
 * point and end with a click on the last point (a double click) or Enter, spots are clicked.
 */
export function useGestures({ host, tool, snap, view, setView, readOnly, finish, click }: Setting) {
  const [draft, setDraft] = useState<DraftShape | null>(null);
  const draws = toolOf(tool)?.draws ?? null;
  const press = useRef<(Point & { view: Viewport; moved: boolean; on: 'pan' | 'draw' }) | null>(null);
  useEffect(() => setDraft(null), [tool]);

  const pointerAt = ({ clientX, clientY }: { clientX: number; clientY: number }): Point => {
    const { left, top } = host.current?.getBoundingClientRect() ?? { left: 0, top: 0 };
    return { x: clientX - left, y: clientY - top };
  };
  /** A drag that is not finished draws nothing; points of a line stay. */
  const breakOff = () => {
    press.current = null;
    setDraft((now) => (now?.kind === 'line' ? now : null));
  };
  const pinch = usePinch(host, readOnly, setView, breakOff);
  const onStep = (point: Point): Point => {
    const step = draws === 'area' ? stepOf(tool, snap) || snap : snap;
    return { x: Math.round(point.x / step) * step, y: Math.round(point.y / step) * step };
  };
  /** What a drag from one place of the board to another draws. */
  const drawnTo = (from: Point, to: Point): DraftShape | null => {
    if (!view) return null;
    const [a, b] = [toStuds(view, from.x, from.y), toStuds(view, to.x, to.y)];
    const rect = snapRect(
      { x: Math.min(a.x, b.x), y: Math.min(a.y, b.y), w: Math.abs(b.x - a.x), d: Math.abs(b.y - a.y) },
      draws === 'area' ? stepOf(tool, snap) || snap : snap,
    );
    if (tool === 'pick') return { kind: 'box', rect };
    if (tool === 'measure') return { kind: 'measure', line: { a: onStep(a), b: onStep(b) } };
    if (tool === 'profile') return { kind: 'cut', line: { a: onStep(a), b: onStep(b) } };
    return draws === 'area' ? { kind: 'area', rect } : null;
  };

  const down = (event: PointerEvent<HTMLElement>) => {
    if (readOnly || !view || event.button > 1) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const drags =
      event.button === 0 && (tool === 'pick' ? event.shiftKey : draws !== 'line' && draws !== 'spot');
    press.current = { ...pointerAt(event), view, moved: false, on: drags ? 'draw' : 'pan' };
  };
  const move = (event: PointerEvent) => {
    if (!view) return;
    const at = pointerAt(event);
    const studs = toStuds(view, at.x, at.y);
    if (!readOnly) usePointer.setState({ studs });
    if (draft?.kind === 'line' && !press.current)
      setDraft((now) => (now?.kind === 'line' ? { ...now, at: onStep(studs) } : now));
    const { current } = press;
    if (!current) return;
    current.moved ||= hasLeft(current, at);
    if (!current.moved) return;
    if (current.on === 'pan')
      setView({
        ...current.view,
        x: current.view.x + at.x - current.x,
        y: current.view.y + at.y - current.y,
      });
    else setDraft(drawnTo(current, at));
  };
  const up = (event: PointerEvent) => {
    const { current } = press;
    press.current = null;
    if (!current || !view) return;
    const at = pointerAt(event);
    if (current.moved || hasLeft(current, at)) {
      if (current.on === 'pan') return;
      // Made again from where it was let go: the last movement may not be drawn yet.
      const drawn = drawnTo(current, at);
      if (drawn) finish(drawn);
      // A measured length stays to be read.
      setDraft(drawn?.kind === 'measure' ? drawn : null);
      return;
    }
    const studs = onStep(toStuds(view, at.x, at.y));
    if (draws === 'line') {
      const points = draft?.kind === 'line' ? draft.points : [];
      const last = points.at(-1);
      if (last && last.x === studs.x && last.y === studs.y) endLine();
      else setDraft({ kind: 'line', points: [...points, studs], at: null });
    } else if (draws === 'spot') finish({ kind: 'spot', at: studs });
    else if (tool === 'pick') click(at.x, at.y, event.shiftKey);
  };
  const endLine = (): boolean => {
    if (draft?.kind !== 'line' || draft.points.length < 2) return false;
    setDraft(null);
    finish(draft);
    return true;
  };

  const wheel = useEffectEvent((event: WheelEvent) => {
    if (readOnly) return;
    event.preventDefault();
    const { x, y } = pointerAt(event);
    setView((now) => now && zoomAt(now, Math.exp(-event.deltaY * 0.0015), x, y));
  });
  useEffect(() => {
    const element = host.current;
    const onWheel = (event: WheelEvent) => wheel(event);
    // Not React’s own: it listens passively, so that the page would scroll too.
    element?.addEventListener('wheel', onWheel, { passive: false });
    return () => element?.removeEventListener('wheel', onWheel);
  }, [host]);

  return {
    draft,
    /** Whether a key belonged to what is being drawn. */
    keyTaken: (event: KeyboardEvent): boolean => {
      if (!draft) return false;
      if (event.key === 'Escape') {
        press.current = null;
        setDraft(null);
      } else if (event.key === 'Enter' && draft.kind === 'line') return endLine();
      else if (event.key === 'Backspace' && draft.kind === 'line') {
        const points = draft.points.slice(0, -1);
        setDraft(points.length > 0 ? { ...draft, points } : null);
        event.stopPropagation();
      } else return false;
      event.preventDefault();
      return true;
    },
    handlers: {
      ...pinch,
      onPointerDown: down,
      onPointerMove: move,
      onPointerUp: up,
      onPointerCancel: breakOff,
    },
    clickAt: click,
  };
}

/** Whether a press that went from one place to another, px, is a drag. */
const hasLeft = (from: Point, to: Point): boolean => Math.hypot(to.x - from.x, to.y - from.y) > SLOP;
