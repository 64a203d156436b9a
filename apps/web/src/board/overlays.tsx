import type Konva from 'konva';
import { useEffect, useRef } from 'react';
import { Label, Line, Rect as KonvaRect, Tag, Text, Transformer } from 'react-konva';
import type { Rect } from '@quarry/core/lattice';
import { say, sayAlso } from '../ui/quantity.ts';
import type { PALETTES } from './palette.ts';
import { snapRect } from './pick.ts';
import { rectToScreen, rectToStuds, type Viewport } from './viewport.ts';

export const box = ({ x, y, w, d }: Rect) => ({ x, y, width: w, height: d });

interface SelectionProps {
  place: Rect;
  step: number;
  view: Viewport;
  editable: boolean;
  iron: string;
  onMove: (rect: Rect) => void;
  onSize: (rect: Rect) => void;
  onPlace: (rect: Rect) => void;
  onClick: (x: number, y: number) => void;
}

/** The outline of what is picked, with handles where it may be changed; it moves and grows by its steps. */
export function Selection({
  place,
  step,
  view,
  editable,
  iron,
  onMove,
  onSize,
  onPlace,
  onClick,
}: SelectionProps) {
  const shape = useRef<Konva.Rect>(null);
  const handles = useRef<Konva.Transformer>(null);
  useEffect(() => {
    if (handles.current && shape.current) handles.current.nodes([shape.current]);
  }, [editable]);
  const on = rectToScreen(view, place);
  const snapped = (rect: Rect) => snapRect(rectToStuds(view, rect), step);
  const read = (node: Konva.Rect): Rect =>
    snapped({ x: node.x(), y: node.y(), w: node.width() * node.scaleX(), d: node.height() * node.scaleY() });
  const settle = (node: Konva.Rect) => {
    const rect = read(node);
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
        dragBoundFunc={({ x, y }) => {
          const { x: sx, y: sy } = snapped({ x, y, w: on.w, d: on.d });
          return { x: view.x + sx * view.scale, y: view.y + sy * view.scale };
        }}
        onDragMove={() => shape.current && onMove(read(shape.current))}
        onDragEnd={() => shape.current && settle(shape.current)}
        onClick={({ target }) => {
          const at = target.getStage()?.getPointerPosition();
          if (at) onClick(at.x, at.y);
        }}
        onTransform={() => shape.current && onSize(read(shape.current))}
        onTransformEnd={() => shape.current && settle(shape.current)}
      />
      {editable && (
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

export function Measured({ draft, view, iron }: { draft: Rect; view: Viewport; iron: string }) {
  const { x, y, w, d } = rectToScreen(view, draft);
  return <Line points={[x, y, x + w, y + d]} stroke={iron} strokeWidth={2} dash={[6, 3]} listening={false} />;
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
    ? `${say(reach, 'studs', metric)}  ${sayAlso(reach, 'studs', metric)}\n${say(Math.abs(rect.w), 'studs', metric)} across, ${say(Math.abs(rect.d), 'studs', metric)} deep`
    : `${say(rect.w, 'studs', metric)} × ${say(rect.d, 'studs', metric)}\n${sayAlso(rect.w, 'studs', metric)} × ${sayAlso(rect.d, 'studs', metric)}\nat ${Number(rect.x.toFixed(2))}, ${Number(rect.y.toFixed(2))}`;
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
