import type Konva from 'konva';
import { Fragment, useEffect, useRef, useState } from 'react';
import type { Rect } from '@quarry/core/grid';
import type { Guide } from '@quarry/core/venue';
import type { CutLine } from '../data/view.ts';
import { formatMeasure, formatOtherMeasure } from '../ui/quantity.ts';
import { Label, Line, Rect as KonvaRect, Tag, Text, Transformer } from './konva.ts';
import type { PALETTES } from './palette.ts';
import { snapRect } from './pick.ts';
import { rectToScreen, rectToStuds, toScreen, toStuds, type Viewport } from './viewport.ts';

export const box = ({ x, y, w, d }: Rect) => ({ x, y, width: w, height: d });

interface SelectionProps {
  place: Rect;
  step: number;
  view: Viewport;
  editable: boolean;
  /** Whether pulling at its sides changes its size. */
  resizes: boolean;
  /** With a tool in hand the board below it takes the pointer. */
  listening: boolean;
  iron: string;
  /** Where a moved rectangle is brought to. */
  snap: (rect: Rect, step: number) => Rect;
  onMove: (rect: Rect) => void;
  onSize: (rect: Rect) => void;
  onPlace: (rect: Rect) => void;
  onClick: (x: number, y: number, adds: boolean) => void;
}

/** The outline of what is picked, with handles where it may be changed; it moves and grows by its steps. */
export function Selection({
  place,
  step,
  view,
  editable,
  resizes,
  listening,
  iron,
  snap,
  onMove,
  onSize,
  onPlace,
  onClick,
}: SelectionProps) {
  const shape = useRef<Konva.Rect>(null);
  const handles = useRef<Konva.Transformer>(null);
  useEffect(() => {
    if (handles.current && shape.current) handles.current.nodes([shape.current]);
  }, [editable, resizes]);
  const on = rectToScreen(view, place);
  const snapped = (rect: Rect) => snapRect(rectToStuds(view, rect), step);
  const read = (node: Konva.Rect): Rect =>
    snapped({ x: node.x(), y: node.y(), w: node.width() * node.scaleX(), d: node.height() * node.scaleY() });
  const boxed = (node: Konva.Rect): Rect => ({ x: node.x(), y: node.y(), w: node.width(), d: node.height() });
  const settle = (node: Konva.Rect) => {
    const resized = node.scaleX() !== 1 || node.scaleY() !== 1;
    const rect = resized ? read(node) : snap(rectToStuds(view, boxed(node)), step);
    node.scale({ x: 1, y: 1 });
    onPlace(rect);
  };
  return (
    <>
      <KonvaRect
        ref={shape}
        {...box(on)}
        stroke={iron}
        strokeWidth={2.5}
        strokeScaleEnabled={false}
        fill={`${iron}1c`}
        draggable={editable}
        listening={listening}
        dragBoundFunc={({ x, y }) => {
          const { x: sx, y: sy } = snap(rectToStuds(view, { x, y, w: on.w, d: on.d }), step);
          return { x: view.x + sx * view.scale, y: view.y + sy * view.scale };
        }}
        onDragMove={() => shape.current && onMove(rectToStuds(view, boxed(shape.current)))}
        onDragEnd={() => shape.current && settle(shape.current)}
        onClick={({ target, evt }) => {
          const at = target.getStage()?.getPointerPosition();
          if (at) onClick(at.x, at.y, evt.shiftKey);
        }}
        onTransform={() => shape.current && onSize(read(shape.current))}
        onTransformEnd={() => shape.current && settle(shape.current)}
      />
      {editable && resizes && (
        <Transformer
          ref={handles}
          rotateEnabled={false}
          flipEnabled={false}
          keepRatio={false}
          ignoreStroke
          borderEnabled={false}
          anchorSize={8}
          anchorCornerRadius={0}
          anchorStroke={iron}
          anchorFill="#ffffff"
          boundBoxFunc={(_, next) => {
            const { x, y, w, d } = rectToScreen(
              view,
              snapped({ x: next.x, y: next.y, w: next.width, d: next.height }),
            );
            return { ...next, x, y, width: w, height: d };
          }}
        />
      )}
    </>
  );
}

export function Measured({ line: { a, b }, view, iron }: { line: CutLine; view: Viewport; iron: string }) {
  const [from, to] = [toScreen(view, a.x, a.y), toScreen(view, b.x, b.y)];
  return (
    <Line
      points={[from.x, from.y, to.x, to.y]}
      stroke={iron}
      strokeWidth={2}
      dash={[6, 3]}
      listening={false}
    />
  );
}

/** A line that is pointed out: wide, rimmed with the sheet's colour, with a mark at both ends. */
export function PointedOut({
  line: { a, b },
  view,
  palette,
}: {
  line: CutLine;
  view: Viewport;
  palette: (typeof PALETTES)['day'];
}) {
  const ends = [toScreen(view, a.x, a.y), toScreen(view, b.x, b.y)];
  const points = ends.flatMap(({ x, y }) => [x, y]);
  return (
    <>
      <Line points={points} stroke={palette.sheet} strokeWidth={9} listening={false} />
      <Line points={points} stroke={palette.iron} strokeWidth={5} lineCap="round" listening={false} />
      {ends.map(({ x, y }, i) => (
        <KonvaRect
          key={i}
          x={x - 6}
          y={y - 6}
          width={12}
          height={12}
          fill={palette.sheet}
          stroke={palette.iron}
          strokeWidth={2.5}
          listening={false}
        />
      ))}
    </>
  );
}

type Point = { x: number; y: number };
const flat = (points: readonly Point[], view: Viewport) =>
  points.flatMap(({ x, y }) => Object.values(toScreen(view, x, y)));

/** A line while its points are being set. */
export function DraftLine({
  points,
  view,
  iron,
}: {
  points: readonly Point[];
  view: Viewport;
  iron: string;
}) {
  return (
    <>
      <Line points={flat(points, view)} stroke={iron} strokeWidth={2} dash={[6, 3]} listening={false} />
      {points.map((point, i) => {
        const { x, y } = toScreen(view, point.x, point.y);
        return <KonvaRect key={i} x={x - 3} y={y - 3} width={6} height={6} fill={iron} listening={false} />;
      })}
    </>
  );
}

/** A line that something was brought to, across the whole board. */
export function SnapGuides({
  guide,
  view,
  room,
  ink,
}: {
  guide: Guide;
  view: Viewport;
  room: { width: number; height: number };
  ink: string;
}) {
  const { x, y } = toScreen(view, guide.at, guide.at);
  const points = guide.axis === 'x' ? [x, 0, x, room.height] : [0, y, room.width, y];
  return <Line points={points} stroke={ink} strokeWidth={1} dash={[2, 3]} listening={false} />;
}

/**
 * The points of a picked line, each to be dragged; a small one between two becomes a new point when it is dragged.
 * A double click takes a point out.
 */
export function Vertices({
  points,
  view,
  step,
  iron,
  editable,
  fixed = false,
  onPoints,
}: {
  points: readonly Point[];
  view: Viewport;
  step: number;
  iron: string;
  editable: boolean;
  /** No point is added or taken out. */
  fixed?: boolean;
  onPoints: (points: Point[]) => void;
}) {
  const [draft, setDraft] = useState<Point[] | null>(null);
  const shown = draft ?? points;
  const on = ({ x, y }: Point): Point => {
    const studs = toStuds(view, x, y);
    return { x: Math.round(studs.x / step) * step, y: Math.round(studs.y / step) * step };
  };
  const settle = (next: Point[]) => {
    setDraft(null);
    onPoints(next);
  };
  const handle = (
    key: string,
    at: Point,
    small: boolean,
    moved: (to: Point) => Point[],
    remove?: () => Point[],
  ) => {
    const { x, y } = toScreen(view, at.x, at.y);
    const half = small ? 3 : 5;
    return (
      <KonvaRect
        key={key}
        x={x}
        y={y}
        offsetX={half}
        offsetY={half}
        width={2 * half}
        height={2 * half}
        fill={small ? iron : '#ffffff'}
        opacity={small ? 0.6 : 1}
        stroke={iron}
        strokeWidth={1.5}
        hitStrokeWidth={14}
        draggable
        onDragMove={({ target }) => setDraft(moved(on(target.position())))}
        onDragEnd={({ target }) => settle(moved(on(target.position())))}
        onDblClick={() => remove && settle(remove())}
      />
    );
  };
  return (
    <>
      <Line points={flat(shown, view)} stroke={iron} strokeWidth={2} listening={false} />
      {editable &&
        points.flatMap((point, i) => {
          const next = points[i + 1];
          return [
            ...(next && !fixed
              ? [
                  handle(`m${i}`, { x: (point.x + next.x) / 2, y: (point.y + next.y) / 2 }, true, (to) => [
                    ...points.slice(0, i + 1),
                    { ...point, z: null, ...to },
                    ...points.slice(i + 1),
                  ]),
                ]
              : []),
            handle(
              `p${i}`,
              point,
              false,
              (to) => points.map((old, j) => (j === i ? { ...old, ...to } : old)),
              points.length > 2 && !fixed ? () => points.filter((_, j) => j !== i) : undefined,
            ),
          ];
        })}
    </>
  );
}

/** Room for the longest size, px. */
const TAG_WIDTH = 170;

/** The size while it changes: studs and millimetres (or inches) beside the pointer's rectangle. */
export function SizeTag({
  rect,
  view,
  palette,
  metric,
  room,
  measure,
}: {
  rect: Rect;
  view: Viewport;
  palette: (typeof PALETTES)['day'];
  metric: 'mm' | 'in';
  /** Of the board, px: the tag stays in it. */
  room: { width: number; height: number };
  measure?: boolean;
}) {
  const on = rectToScreen(view, rect);
  const x = Math.min(on.x + Math.max(0, on.w) + 8, room.width - TAG_WIDTH);
  const y = Math.min(Math.max(on.y, 24), room.height - 60);
  const reach = Math.hypot(rect.w, rect.d);
  const words = measure
    ? `${formatMeasure(reach, 'studs', metric)}  ${formatOtherMeasure(reach, 'studs', metric)}\n${formatMeasure(Math.abs(rect.w), 'studs', metric)} across, ${formatMeasure(Math.abs(rect.d), 'studs', metric)} deep`
    : `${formatMeasure(rect.w, 'studs', metric)} × ${formatMeasure(rect.d, 'studs', metric)}\n${formatOtherMeasure(rect.w, 'studs', metric)} × ${formatOtherMeasure(rect.d, 'studs', metric)}\nat ${Number(rect.x.toFixed(2))}, ${Number(rect.y.toFixed(2))}`;
  return (
    <Label x={x} y={y} listening={false}>
      <Tag fill={palette.ink} />
      <Text
        text={words}
        fill={palette.paper}
        padding={5}
        fontSize={11}
        lineHeight={1.3}
        fontFamily="Spline Sans Mono"
      />
    </Label>
  );
}

/** What others have picked: a dashed ring in their colour, with their initials. */
export function OthersPicked({ others, view }: { others: readonly OtherPick[]; view: Viewport }) {
  return (
    <>
      {others.map(({ key, place, initials, ring }) => {
        const { x, y, w, d } = rectToScreen(view, place);
        return (
          <Fragment key={key}>
            <KonvaRect
              {...{ x: x - 2, y: y - 2, width: w + 4, height: d + 4 }}
              stroke={ring}
              strokeWidth={2}
              dash={[3, 3]}
              listening={false}
            />
            <Label x={x - 2} y={y - 17} listening={false}>
              <Tag fill={ring} />
              <Text
                text={initials}
                fontFamily="'Archivo Variable'"
                fontSize={10}
                padding={2}
                fill="#ffffff"
              />
            </Label>
          </Fragment>
        );
      })}
    </>
  );
}
export interface OtherPick {
  key: string;
  place: Rect;
  initials: string;
  ring: string;
}
