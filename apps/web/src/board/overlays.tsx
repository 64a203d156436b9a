import type { SVGProps } from 'react';
import type { Rect } from '@quarry/core/grid';
import type { Point } from '@quarry/core/terrain';
import type { Guide } from '@quarry/core/venue';
import type { CutLine } from '../data/view.ts';
import { formatMeasure, formatOtherMeasure } from '../ui/quantity.ts';
import type { Palette } from './palette.ts';
import { rectToScreen, toScreen, type Viewport } from './viewport.ts';

// Marks over the picture of the scene, in pixels of the board. None of them takes the pointer.

export const boxOf = ({ x, y, w, d }: Rect<'px'>) => ({ x, y, width: w, height: d });

/** A line through points of the plan, studs. */
export function Polyline({
  points,
  view,
  ...look
}: { points: readonly Point[]; view: Viewport } & Omit<SVGProps<SVGPolylineElement>, 'points'>) {
  const on = points.map(({ x, y }) => toScreen(view, x, y));
  return <polyline points={on.map(({ x, y }) => `${x},${y}`).join(' ')} fill="none" {...look} />;
}

export function Measured({ line: { a, b }, view, iron }: { line: CutLine; view: Viewport; iron: string }) {
  return <Polyline points={[a, b]} view={view} stroke={iron} strokeWidth={2} strokeDasharray="6 3" />;
}

/** A line that is pointed out: wide, rimmed with the sheet's colour, with a mark at both ends. */
export function PointedOut({
  line: { a, b },
  view,
  palette,
}: {
  line: CutLine;
  view: Viewport;
  palette: Palette;
}) {
  const ends = [toScreen(view, a.x, a.y), toScreen(view, b.x, b.y)];
  return (
    <>
      <Polyline points={[a, b]} view={view} stroke={palette.sheet} strokeWidth={9} />
      <Polyline points={[a, b]} view={view} stroke={palette.iron} strokeWidth={5} strokeLinecap="round" />
      {ends.map(({ x, y }, i) => (
        <rect
          key={i}
          {...boxOf({ x: x - 6, y: y - 6, w: 12, d: 12 })}
          fill={palette.sheet}
          stroke={palette.iron}
          strokeWidth={2.5}
        />
      ))}
    </>
  );
}

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
      <Polyline points={points} view={view} stroke={iron} strokeWidth={2} strokeDasharray="6 3" />
      {points.map((point, i) => {
        const { x, y } = toScreen(view, point.x, point.y);
        return <rect key={i} {...boxOf({ x: x - 3, y: y - 3, w: 6, d: 6 })} fill={iron} />;
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
  const ends =
    guide.axis === 'x' ? { x1: x, y1: 0, x2: x, y2: room.height } : { x1: 0, y1: y, x2: room.width, y2: y };
  return <line {...ends} stroke={ink} strokeDasharray="2 3" />;
}

/** Room for the longest size, px. */
const TAG_WIDTH = 170;

/** The size while it changes: studs and millimetres (or inches) beside the pointer's rectangle. */
export function SizeTag({
  rect,
  view,
  metric,
  room,
  measure,
}: {
  rect: Rect;
  view: Viewport;
  metric: 'mm' | 'in';
  /** Of the board, px: the tag stays in it. */
  room: { width: number; height: number };
  measure?: boolean;
}) {
  const on = rectToScreen(view, rect);
  const left = Math.min(on.x + Math.max(0, on.w) + 8, room.width - TAG_WIDTH);
  const top = Math.min(Math.max(on.y, 24), room.height - 60);
  const own = (studs: number) => formatMeasure(studs, 'studs', metric);
  const other = (studs: number) => formatOtherMeasure(studs, 'studs', metric);
  const reach = Math.hypot(rect.w, rect.d);
  const lines = measure
    ? [`${own(reach)}  ${other(reach)}`, `${own(Math.abs(rect.w))} across, ${own(Math.abs(rect.d))} deep`]
    : [
        `${own(rect.w)} × ${own(rect.d)}`,
        `${other(rect.w)} × ${other(rect.d)}`,
        `at ${Number(rect.x.toFixed(2))}, ${Number(rect.y.toFixed(2))}`,
      ];
  return (
    <p
      className="absolute whitespace-pre bg-neutral p-1.5 font-mono text-[11px] leading-[1.3] text-neutral-content"
      style={{ left, top }}
    >
      {lines.join('\n')}
    </p>
  );
}

export interface OtherPick {
  key: string;
  place: Rect;
  initials: string;
  ring: string;
}

/** What another has picked: a dashed ring in their colour, with their initials. */
export function OtherPicked({
  other: { place, initials, ring },
  view,
}: {
  other: OtherPick;
  view: Viewport;
}) {
  const { x, y, w, d } = rectToScreen(view, place);
  return (
    <div
      className="absolute border-2 border-dashed"
      style={{ left: x - 3, top: y - 3, width: w + 6, height: d + 6, borderColor: ring }}
    >
      <span
        className="absolute -top-4 -left-0.5 px-0.5 text-[10px] leading-[14px] text-white"
        style={{ background: ring }}
      >
        {initials}
      </span>
    </div>
  );
}
