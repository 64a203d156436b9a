import { useRef, useState, type PointerEvent, type SVGProps } from 'react';
import type { Rect } from '@quarry/core/grid';
import type { Point } from '@quarry/core/terrain';
import { useDrag } from '../ui/useDrag.ts';
import { Polyline, boxOf } from './overlays.tsx';
import { rectToScreen, rectToStuds, toScreen, toStuds, type Viewport } from './viewport.ts';

// What is picked, and what of it may be pulled by the pointer. Each drag ends in one call with what it came to.

/** Pixels the pointer may move before a press is a drag. */
export const SLOP = 4;

interface SelectionProps {
  place: Rect;
  step: number;
  view: Viewport;
  editable: boolean;
  /** Whether pulling at its sides changes its size. */
  resizes: boolean;
  iron: string;
  /** Where a moved rectangle is brought to. */
  snap: (rect: Rect, step: number) => Rect;
  onMove: (rect: Rect) => void;
  onSize: (rect: Rect) => void;
  onPlace: (rect: Rect) => void;
  onClick: (x: number, y: number, adds: boolean) => void;
}

/** The outline of what is picked, with handles where it may be changed; it moves and grows by its steps. */
export function Selection(props: SelectionProps) {
  const { place, view, editable, resizes, iron } = props;
  const on = rectToScreen(view, place);
  const outline = { ...boxOf(on), stroke: iron, strokeWidth: 2.5, fill: `${iron}1c` };
  return (
    <>
      {editable ? <MovedOutline {...props} outline={outline} /> : <rect {...outline} />}
      {editable &&
        resizes &&
        PULLS.map((pull) => <Grip key={`${pull.x} ${pull.y}`} {...props} pull={pull} />)}
    </>
  );
}

/**
 * A rectangle under the pointer, from a press on.
 * @param slop pixels that the pointer may move before it is a drag
 * @param read what becomes of the rectangle by so many pixels @param onEnd where it is let go, if it was dragged
 */
function usePull(
  place: Rect,
  slop: number,
  read: (from: Rect, dx: number, dy: number) => Rect,
  onMove: (rect: Rect) => void,
  onEnd: (rect: Rect) => void,
) {
  const from = useRef(place);
  const isDrag = useRef(false);
  const drag = useDrag(
    (dx, dy) => ({ dx, dy }),
    ({ dx, dy }) => {
      isDrag.current ||= Math.hypot(dx, dy) > slop;
      if (isDrag.current) onMove(read(from.current, dx, dy));
    },
    ({ dx, dy }) => {
      isDrag.current ||= Math.hypot(dx, dy) > slop;
      if (isDrag.current) onEnd(read(from.current, dx, dy));
    },
  );
  return {
    ...drag,
    isDrag,
    onPointerDown: (event: PointerEvent<SVGGraphicsElement>) => {
      if (!begins(event)) return;
      from.current = place;
      isDrag.current = false;
      drag.onPointerDown(event);
    },
  };
}

/** The outline, to be dragged; pressed without being moved it is clicked. */
function MovedOutline({
  place,
  step,
  view,
  snap,
  outline,
  onMove,
  onPlace,
  onClick,
}: SelectionProps & { outline: SVGProps<SVGRectElement> }) {
  const movedBy = (from: Rect, dx: number, dy: number): Rect => {
    const { x, y, w, d } = rectToScreen(view, from);
    return snap(rectToStuds(view, { x: x + dx, y: y + dy, w, d }), step);
  };
  const { isDrag, ...drag } = usePull(place, SLOP, movedBy, onMove, onPlace);
  return (
    <rect
      {...outline}
      {...drag}
      pointerEvents="all"
      cursor="move"
      onPointerUp={(event) => {
        const board = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
        drag.onPointerUp(event);
        if (!isDrag.current && board)
          onClick(event.clientX - board.left, event.clientY - board.top, event.shiftKey);
      }}
    />
  );
}

/** Where a rectangle is pulled: -1 its west or north side, 1 its east or south side. */
interface Pull {
  x: -1 | 0 | 1;
  y: -1 | 0 | 1;
  cursor: string;
}
const PULLS: readonly Pull[] = [
  { x: -1, y: -1, cursor: 'nwse-resize' },
  { x: 0, y: -1, cursor: 'ns-resize' },
  { x: 1, y: -1, cursor: 'nesw-resize' },
  { x: -1, y: 0, cursor: 'ew-resize' },
  { x: 1, y: 0, cursor: 'ew-resize' },
  { x: -1, y: 1, cursor: 'nesw-resize' },
  { x: 0, y: 1, cursor: 'ns-resize' },
  { x: 1, y: 1, cursor: 'nwse-resize' },
];
const GRIP = 8;
/** What the pointer may miss a grip by, px, where a side is long enough for it. */
const MISS = 7;

/** One of eight grips: it pulls its sides, the opposite ones stay. */
function Grip({ place, step, view, iron, onSize, onPlace, pull }: SelectionProps & { pull: Pull }) {
  const pulled = ({ x, y, w, d }: Rect, dx: number, dy: number): Rect => {
    const [east, south] = [
      pulledSide(w, (pull.x * dx) / view.scale, step),
      pulledSide(d, (pull.y * dy) / view.scale, step),
    ];
    return {
      x: pull.x < 0 ? x + w - east : x,
      y: pull.y < 0 ? y + d - south : y,
      w: pull.x === 0 ? w : east,
      d: pull.y === 0 ? d : south,
    };
  };
  const { isDrag: _, ...drag } = usePull(place, 0, pulled, onSize, onPlace);
  const { x, y, w, d } = rectToScreen(view, place);
  if (isCrowded(pull, w, d)) return null;
  const middle = { x: x + ((pull.x + 1) / 2) * w, y: y + ((pull.y + 1) / 2) * d };
  const miss = Math.min(MISS, Math.max(0, Math.min(w, d) / 4 - GRIP / 2));
  return (
    <>
      <rect {...squareAt(middle, GRIP)} fill="#ffffff" stroke={iron} />
      <rect
        {...squareAt(middle, GRIP + 2 * miss)}
        fill="transparent"
        pointerEvents="all"
        cursor={pull.cursor}
        {...drag}
      />
    </>
  );
}

/** Whether a grip is left out, for the thing under it would be hidden. @param w width and depth on the screen, px */
function isCrowded(pull: Pull, w: number, d: number): boolean {
  if (Math.min(w, d) < 3 * GRIP) return pull.x !== 1 || pull.y !== 1;
  return (pull.x === 0 && w < 6 * GRIP) || (pull.y === 0 && d < 6 * GRIP);
}

/** The new length of a side that is pulled by so much: whole steps, one at least. Studs. */
function pulledSide(length: number, by: number, step: number): number {
  return Math.max(step, Math.round((length + by) / step) * step);
}

/** Whether a press begins a drag of a thing: then the board below does not see it. */
function begins(event: PointerEvent): boolean {
  if (event.button !== 0) return false;
  event.stopPropagation();
  return true;
}

const squareAt = ({ x, y }: Point, size: number) => ({
  ...{ x: x - size / 2, y: y - size / 2 },
  ...{ width: size, height: size },
});

interface VerticesProps {
  points: readonly Point[];
  view: Viewport;
  step: number;
  iron: string;
  editable: boolean;
  /** No point is added or taken out. */
  fixed?: boolean;
  onPoints: (points: Point[]) => void;
}

/**
 * The points of a picked line, each to be dragged; a small one between two becomes a new point when it is dragged.
 * A double click takes a point out.
 */
export function Vertices({ points, view, step, iron, editable, fixed = false, onPoints }: VerticesProps) {
  const [draft, setDraft] = useState<readonly Point[] | null>(null);
  const vertex = { view, step, iron, onDraft: setDraft, onPoints };
  return (
    <>
      <Polyline points={draft ?? points} view={view} stroke={iron} strokeWidth={2} />
      {editable &&
        points.flatMap((point, i) => {
          const next = fixed ? undefined : points[i + 1];
          const before = points.slice(0, i);
          const after = points.slice(i + 1);
          return [
            next && (
              <Vertex
                key={`m${i}`}
                {...vertex}
                at={{ x: (point.x + next.x) / 2, y: (point.y + next.y) / 2 }}
                isNew
                moved={(to) => [...before, point, { ...point, z: null, ...to }, ...after]}
              />
            ),
            <Vertex
              key={`p${i}`}
              {...vertex}
              at={point}
              moved={(to) => [...before, { ...point, ...to }, ...after]}
              removed={points.length > 2 && !fixed ? [...before, ...after] : undefined}
            />,
          ];
        })}
    </>
  );
}

/** Side of a point of a line, and of one between two, px; and how much more of it takes the pointer. */
const VERTEX = 10;
const NEW_VERTEX = 6;
const VERTEX_MISS = 7;

function Vertex({
  at,
  view,
  step,
  iron,
  isNew = false,
  moved,
  removed,
  onDraft,
  onPoints,
}: Pick<VerticesProps, 'view' | 'step' | 'iron' | 'onPoints'> & {
  at: Point;
  isNew?: boolean;
  moved: (to: Point) => Point[];
  /** The line without it, where it can do without. */
  removed?: Point[];
  onDraft: (points: Point[] | null) => void;
}) {
  const [by, setBy] = useState({ x: 0, y: 0 });
  const place = toScreen(view, at.x, at.y);
  const on = (off: Point): Point => {
    const studs = toStuds(view, place.x + off.x, place.y + off.y);
    return { x: Math.round(studs.x / step) * step, y: Math.round(studs.y / step) * step };
  };
  const drag = useDrag(
    (x, y) => ({ x, y }),
    (off) => {
      setBy(off);
      onDraft(moved(on(off)));
    },
    (off) => {
      setBy({ x: 0, y: 0 });
      onDraft(null);
      if (off.x !== 0 || off.y !== 0) onPoints(moved(on(off)));
    },
  );
  const shown = { x: place.x + by.x, y: place.y + by.y };
  const size = isNew ? NEW_VERTEX : VERTEX;
  return (
    <>
      <rect
        {...squareAt(shown, size)}
        fill={isNew ? iron : '#ffffff'}
        opacity={isNew ? 0.6 : 1}
        stroke={iron}
        strokeWidth={1.5}
      />
      <rect
        {...squareAt(shown, size + VERTEX_MISS)}
        fill="transparent"
        pointerEvents="all"
        cursor="move"
        {...drag}
        onPointerDown={(event) => begins(event) && drag.onPointerDown(event)}
        onDoubleClick={() => removed && onPoints(removed)}
      />
    </>
  );
}
