import type { Rect } from '@quarry/core/grid';
import type { Side } from '@quarry/core/document';
import type { Guide } from '@quarry/core/venue';
import { formatMeasure, type Metric } from '../../ui/quantity.ts';
import { at as onScreen } from './mark.tsx';
import type { RoomView } from './roomView.ts';

/** Lines to which a moving thing was brought. */
export function RoomGuides({
  guides,
  view,
  size,
}: {
  guides: readonly Guide[];
  view: RoomView;
  size: { width: number; height: number };
}) {
  return guides.map(({ axis, at }) =>
    axis === 'x' ? (
      <line
        key={`x ${at}`}
        x1={view.x + at * view.scale}
        x2={view.x + at * view.scale}
        y1={0}
        y2={size.height}
        className="stroke-primary"
        strokeDasharray="4 3"
      />
    ) : (
      <line
        key={`y ${at}`}
        y1={view.y + at * view.scale}
        y2={view.y + at * view.scale}
        x1={0}
        x2={size.width}
        className="stroke-primary"
        strokeDasharray="4 3"
      />
    ),
  );
}

/** The clear distance on each side of a moving thing. */
export function Clearances({
  rect,
  clear,
  view,
  metric,
}: {
  rect: Rect<'mm'>;
  clear: Record<Side, number | null>;
  view: RoomView;
  metric: Metric;
}) {
  const { x, y, w, d } = rect;
  const lines: Record<Side, (by: number) => [number, number, number, number]> = {
    n: (by) => [x + w / 2, y, x + w / 2, y - by],
    s: (by) => [x + w / 2, y + d, x + w / 2, y + d + by],
    w: (by) => [x, y + d / 2, x - by, y + d / 2],
    e: (by) => [x + w, y + d / 2, x + w + by, y + d / 2],
  };
  return (['n', 'e', 's', 'w'] as const).map((side) => {
    const by = clear[side];
    if (by === null || by < 1) return null;
    const [fromX, fromY, toX, toY] = lines[side](by);
    const { x: x1, y: y1 } = onScreen(view, { x: fromX, y: fromY });
    const { x: x2, y: y2 } = onScreen(view, { x: toX, y: toY });
    return (
      <g key={side} pointerEvents="none">
        <line x1={x1} y1={y1} x2={x2} y2={y2} className="stroke-secondary" />
        <text
          x={(x1 + x2) / 2 + (x1 === x2 ? 4 : 0)}
          y={(y1 + y2) / 2 - 3}
          fontSize="11"
          textAnchor={x1 === x2 ? 'start' : 'middle'}
          className="fig fill-secondary stroke-base-200"
          strokeWidth="3"
          paintOrder="stroke"
        >
          {formatMeasure(Math.round(by), 'mm', metric)}
        </text>
      </g>
    );
  });
}

/** A bar of a round length, metres or feet. */
export function ScaleBar({
  view,
  size,
  metric,
}: {
  view: RoomView;
  size: { width: number; height: number };
  metric: Metric;
}) {
  const unit = metric === 'in' ? 304.8 : 1000;
  const count = [0.05, 0.1, 0.25, 0.5, 1, 2, 5, 10, 20].find((many) => many * unit * view.scale >= 70) ?? 20;
  const length = count * unit * view.scale;
  const [x, y] = [size.width - length - 130, size.height - 16];
  return (
    <g pointerEvents="none" stroke="currentColor" fill="currentColor">
      <path d={`M${x} ${y - 4}V${y}H${x + length}V${y - 4}`} fill="none" />
      <text x={x + length / 2} y={y - 6} fontSize="11" textAnchor="middle" stroke="none" className="fig">
        {count} {metric === 'in' ? 'ft' : 'm'}
      </text>
    </g>
  );
}
