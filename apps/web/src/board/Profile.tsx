import { useId, useMemo } from 'react';
import { PLATES_PER_BRICK, formatPlates } from '@quarry/core/grid';
import type { Relief } from '@quarry/core/terrain';
import { listOf, type Scene } from '@quarry/core/document';
import {
  crossPieces,
  crossRooms,
  crossSectionAt,
  type CrossPiece,
  type CrossSectionStep,
} from '@quarry/core/venue';
import type { CutLine } from '../data/view.ts';
import { formatMeasure, formatOtherMeasure } from '../ui/quantity.ts';
import { useMeasureFormat } from '../ui/useMeasureFormat.ts';
import { useSize } from '../ui/useSize.ts';

/** Heights are never drawn more than this much taller than widths. */
const MAX_EXAGGERATION = 4;
/** How many names of what stands are written; the tallest first. */
const MAX_NAMES = 6;

/** How a section is drawn: x east along the line, y down. */
interface ProfileScale {
  /** Units of the drawing to a plate. */
  unit: number;
  /** Length and greatest height, units of the drawing. */
  width: number;
  height: number;
  /** Units of the drawing to a pixel. */
  pixel: number;
}
/** Units of the drawing to a stud: 5, and 2 to a plate, so that a brick is 5 to 6. */
const STUD = 5;
const PLATE = 2;

/** The section cut under the plan: ground, what stands on it, named levels, seams and tables along a line. */
export function Profile({ scene, relief, line }: { scene: Scene; relief: Relief; line: CutLine }) {
  const { metric } = useMeasureFormat();
  const [frame, size] = useSize<HTMLDivElement>();
  const section = useMemo(() => crossSectionAt(scene, relief, line.a, line.b), [scene, relief, line]);
  const { cuts, length } = section;
  if (length === 0 || cuts.every(({ ground }) => ground === null))
    return (
      <p className="ink-2 px-3 py-2">The line crosses no ground. Press D and draw it across the scene.</p>
    );
  const most = Math.max(PLATES_PER_BRICK, ...cuts.map(({ top }) => top));
  const width = length * STUD;
  const room = size.width > 0 ? (width * size.height) / size.width : width / 8;
  const exaggeration = Math.min(MAX_EXAGGERATION, room / (most * PLATE * 1.16));
  const unit = PLATE * exaggeration;
  const scale = { unit, width, height: most * unit, pixel: size.width > 0 ? width / size.width : 1 };
  const levels = listOf(scene, 'level').filter((level) => level.height <= most);
  const across = placeOfLine(line);
  return (
    <figure className="h-full flex flex-col px-3 py-1" aria-label={`Section cut along ${across}`}>
      <figcaption className="text-xs flex gap-3 whitespace-nowrap overflow-hidden">
        <span className="font-semibold">Section S–S′</span>
        <span className="fig ink-2">
          {across} · {formatMeasure(length, 'studs', metric)} ({formatOtherMeasure(length, 'studs', metric)})
          long · heights ×{exaggeration.toFixed(1)} · highest {formatPlates(most)} (
          {formatOtherMeasure(most, 'plates', metric)})
        </span>
      </figcaption>
      <div ref={frame} className="flex-1 min-h-0 relative">
        <svg
          className="w-full h-full"
          viewBox={`0 ${-scale.height * 0.08} ${width} ${scale.height * 1.16}`}
          preserveAspectRatio="xMinYMax meet"
          role="img"
          aria-label={`Highest point ${formatPlates(most)}`}
        >
          {section.tables.map(({ name, from, to, height: high }) => (
            <rect
              key={`${name}${from}`}
              x={from * STUD}
              y={scale.height}
              width={(to - from) * STUD}
              height={scale.height * 0.05}
              className="fill-base-300"
              stroke="currentColor"
              strokeWidth="0.6"
              vectorEffect="non-scaling-stroke"
            >
              <title>{`${name}, ${formatMeasure(high, 'mm', metric)} high`}</title>
            </rect>
          ))}
          <Solids cuts={cuts} scale={scale} />
          <MarkedLines
            cuts={cuts}
            heights={levels.map(({ height }) => height)}
            seams={section.seams}
            scale={scale}
          />
          {names(cuts).map(({ stands, middle, top, base }) => (
            <text
              key={`${stands}${middle}`}
              x={middle * STUD}
              y={scale.height - ((top + base) / 2) * unit}
              fontSize={10.5 * scale.pixel}
              textAnchor="middle"
              dominantBaseline="central"
              className="fill-base-content"
              stroke="var(--color-base-200)"
              strokeWidth={3 * scale.pixel}
              paintOrder="stroke"
            >
              {stands} {formatPlates(top - base)}
            </text>
          ))}
        </svg>
      </div>
      <div className="flex gap-3 text-[11px] text-warning fig overflow-hidden whitespace-nowrap">
        {levels.map(({ id, name, height: level }) => (
          <span key={id}>
            {name} {formatPlates(level)}{' '}
            <span className="ink-2">{formatOtherMeasure(level, 'plates', metric)}</span>
          </span>
        ))}
      </div>
    </figure>
  );
}

function placeOfLine({ a, b }: CutLine): string {
  if (a.y === b.y) return `y = ${a.y}`;
  return a.x === b.x ? `x = ${a.x}` : `${a.x}, ${a.y} to ${b.x}, ${b.y}`;
}

/** The ground with its rooms, decks, and what stands on it or in a room. */
function Solids({ cuts, scale }: { cuts: readonly CrossSectionStep[]; scale: ProfileScale }) {
  const hatch = useId();
  const { unit, height, pixel } = scale;
  const grain = 10 * pixel;
  const pieces = crossPieces(cuts);
  const rooms = crossRooms(cuts);
  const boxOf = ({ from, to, low, high }: Omit<CrossPiece, 'owner'>) => ({
    ...{ x: from * STUD, y: height - high * unit },
    ...{ width: (to - from) * STUD, height: (high - low) * unit },
    ...{ stroke: 'currentColor', vectorEffect: 'non-scaling-stroke' as const },
  });
  // What stands in a cavity is drawn over its room.
  const isInRoom = ({ low, from, to, owner }: CrossPiece) =>
    owner !== null &&
    rooms.some((room) => low >= room.low && low < room.high && from < room.to && to > room.from);
  return (
    <>
      <defs>
        <pattern
          id={hatch}
          width={grain}
          height={grain}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line y2={grain} stroke="currentColor" strokeWidth={grain / 14} opacity="0.25" />
        </pattern>
      </defs>
      {pieces
        .filter(({ owner }) => owner !== null && !isSlab(owner))
        .map((piece, i) => (
          <rect key={i} {...boxOf(piece)} className="fill-base-200" strokeWidth="1" strokeDasharray="3 2" />
        ))}
      <path
        d={groundPath(cuts, scale)}
        fill={`url(#${hatch})`}
        stroke="currentColor"
        strokeWidth="1.2"
        vectorEffect="non-scaling-stroke"
      />
      {rooms.map((room, i) => (
        <rect key={i} {...boxOf(room)} className="fill-base-100" strokeWidth="1" />
      ))}
      {pieces
        .filter((piece) => (piece.owner !== null && isSlab(piece.owner)) || isInRoom(piece))
        .map((piece, i) => (
          <rect
            key={i}
            {...boxOf(piece)}
            className={piece.owner && isSlab(piece.owner) ? 'fill-base-300' : 'fill-base-200'}
            strokeWidth="1.2"
          />
        ))}
    </>
  );
}

/** The outline of the ground, broken where there is none. */
function groundPath(cuts: readonly CrossSectionStep[], { unit, height }: ProfileScale): string {
  let d = '';
  let open = false;
  for (const cut of cuts) {
    const on = cut.ground !== null;
    const y = height - cut.height * unit;
    if (on && !open) d += `M${cut.from * STUD} ${height}`;
    if (open && !on) d += `V${height}`;
    if (on) d += `V${y}H${cut.to * STUD}`;
    open = on;
  }
  return open ? `${d}V${height}` : d;
}

/** Water, named levels and seams. @param heights of the levels, plates @param seams studs along the line */
function MarkedLines({
  cuts,
  heights,
  seams,
  scale: { unit, width, height },
}: {
  cuts: readonly CrossSectionStep[];
  heights: readonly number[];
  seams: readonly number[];
  scale: ProfileScale;
}) {
  return (
    <>
      {waters(cuts).map(({ from, to, height: at }) => (
        <line
          key={`water ${from}`}
          x1={from * STUD}
          x2={to * STUD}
          y1={height - at * unit}
          y2={height - at * unit}
          className="stroke-secondary"
          strokeWidth="2.2"
          vectorEffect="non-scaling-stroke"
        />
      ))}
      {heights.map((level, i) => (
        <line
          key={`level ${i}`}
          x1="0"
          x2={width}
          y1={height - level * unit}
          y2={height - level * unit}
          className="stroke-warning"
          strokeWidth="0.8"
          strokeDasharray="4 3"
          vectorEffect="non-scaling-stroke"
        />
      ))}
      {seams.map((at) => (
        <line
          key={`seam ${at}`}
          x1={at * STUD}
          x2={at * STUD}
          y1={-height * 0.06}
          y2={height}
          className="stroke-primary"
          strokeWidth="1.1"
          strokeDasharray="10 3 2 3"
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </>
  );
}

/** Decks and bridges are solid; what stands is drawn dashed. */
const isSlab = ({ kind }: { kind: string }) => kind === 'deck' || kind === 'way' || kind === 'track';

/** Stretches of water at one height. */
function waters(cuts: readonly CrossSectionStep[]): { from: number; to: number; height: number }[] {
  const list: { from: number; to: number; height: number }[] = [];
  for (const { ground, from, to, height } of cuts) {
    if (ground !== 'water') continue;
    const last = list.at(-1);
    if (last && last.to === from && last.height === height) last.to = to;
    else list.push({ from, to, height });
  }
  return list;
}

/** The tallest buildings the line crosses, each with the middle of its stretch. */
function names(cuts: readonly CrossSectionStep[]) {
  const found = new Map<string, { stands: string; from: number; to: number; top: number; base: number }>();
  for (const { stands, from, to, top, foot } of cuts) {
    if (stands === null) continue;
    const known = found.get(stands);
    if (known) {
      known.to = to;
      known.base = Math.max(known.base, foot);
    } else found.set(stands, { stands, from, to, top, base: foot });
  }
  return [...found.values()]
    .filter(({ from, to, top, base }) => to - from >= 12 && top - base >= 12)
    .sort((a, b) => b.top - a.top)
    .slice(0, MAX_NAMES)
    .map((entry) => ({ ...entry, middle: (entry.from + entry.to) / 2 }));
}
