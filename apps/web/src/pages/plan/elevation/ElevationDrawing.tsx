import { useState } from 'react';
import { ANY_COLOUR, colourOf, partName, partOf, type Family } from '@quarry/core/catalogue';
import { MM_PER_PLATE, MM_PER_STUD, PLATES_PER_BRICK, formatPlates } from '@quarry/core/grid';
import { SIDE_WORDS, type Side } from '@quarry/core/document';
import { useDrag } from '../../../ui/useDrag.ts';
import type { Elevation, ElevationPoint, PlacedBay, SeenPiece, Tracing } from '@quarry/core/structures';

/** The height and width of a figure, mm (from memory). */
const FIGURE = { w: 16, h: 40 };
/** The size of words by the longer side of the drawing, at most so many mm; and the room for them round it, in words. */
const WORDS_SHARE = 1 / 30;
const MAX_WORDS = 7;
const MARGIN = { left: 6, right: 4, top: 1.5, foot: 2.3 };

/** What a bay holds, in words. */
export function bayWords({ bay, fault }: Pick<PlacedBay, 'bay' | 'fault'>): string {
  if (bay.part === null) return 'plain';
  return fault === null ? partName(bay.part) : `${partName(bay.part)}, left out`;
}

/** A front to scale, stud by stud and plate by plate; its bays can be picked. */
export function ElevationDrawing({
  elevation,
  beside,
  picked,
  tracing,
  points,
  disabled,
  onPick,
  onHeight,
  onPoint,
}: {
  elevation: Elevation;
  /** Fronts beside it: how far right their left end is, studs, and their ground above this one's, plates. */
  beside: readonly { id: string; name: string; elevation: Elevation; right: number; up: number }[];
  picked: { storey: number; index: number | null };
  /** A photograph behind it; null: none. */
  tracing: (Tracing & { image: string }) | null;
  /** Points of it that are pressed. */
  points: readonly ElevationPoint[];
  disabled: boolean;
  onPick: (storey: number, index: number | null) => void;
  /** Takes a point instead of a bay; null: bays are pressed. */
  onPoint: ((point: ElevationPoint) => void) | null;
  /** Gives a storey a height, plates. */
  onHeight: (storey: number, height: number) => void;
}) {
  const { side, length, high } = elevation;
  const left = Math.min(0, ...beside.map(({ right }) => right));
  const end = Math.max(length, ...beside.map(({ right, elevation: one }) => right + one.length));
  const top = Math.max(high, ...beside.map(({ up, elevation: one }) => up + one.high));
  const low = Math.min(0, ...beside.map(({ up }) => up));
  const [w, h] = [(end - left) * MM_PER_STUD, (top - low) * MM_PER_PLATE];
  const x = (studs: number) => (studs - left) * MM_PER_STUD;
  const y = (plates: number) => (top - plates) * MM_PER_PLATE;
  const words = Math.min(MAX_WORDS, Math.max(w, h) * WORDS_SHARE);
  const box = [
    -MARGIN.left * words,
    -MARGIN.top * words,
    w + (MARGIN.left + MARGIN.right) * words + FIGURE.w,
    h + (MARGIN.top + MARGIN.foot) * words,
  ];
  return (
    <svg
      viewBox={box.join(' ')}
      className="w-full max-h-[46vh]"
      role="group"
      aria-label={`The ${SIDE_WORDS[side]} front to scale`}
    >
      {beside.map((one) => (
        <g
          key={one.id}
          className="opacity-45"
          transform={`translate(${x(one.right)} ${y(one.up) - one.elevation.high * MM_PER_PLATE})`}
        >
          <Pieces pieces={one.elevation.pieces} high={one.elevation.high} />
          <text x={2} y={-2} fontSize={words} className="fill-base-content">
            {one.name}
          </text>
        </g>
      ))}
      {tracing && (
        <image
          href={tracing.image}
          x={x(tracing.left)}
          y={y(tracing.up) - tracing.wide * tracing.tall * MM_PER_STUD}
          width={tracing.wide * MM_PER_STUD}
          height={tracing.wide * tracing.tall * MM_PER_STUD}
          preserveAspectRatio="none"
        />
      )}
      <g transform={`translate(${x(0)} ${y(high)})`}>
        <g className={tracing ? 'opacity-55' : undefined}>
          <Pieces pieces={elevation.pieces} high={high} />
        </g>
        <Storeys elevation={elevation} words={words} picked={picked} onPick={onPick} />
        {!disabled &&
          elevation.storeys
            .slice(1)
            .map(({ level }, i) => (
              <StoreyEdge
                key={i}
                storey={i + 1}
                level={level}
                below={elevation.storeys[i]?.level ?? 0}
                high={high}
                length={length}
                onHeight={onHeight}
              />
            ))}
      </g>
      <line
        x1={0}
        x2={w + FIGURE.w + 8}
        y1={y(low)}
        y2={y(low)}
        strokeWidth={1}
        className="stroke-base-content"
      />
      <g transform={`translate(${w + 8} ${y(low) - FIGURE.h})`} className="fill-base-content/30">
        <title>A figure, 40 mm tall</title>
        <rect x={4} y={0} width={8} height={9} rx={3} />
        <path d="M3 10 H13 L16 24 H13 V40 H3 V24 H0 Z" />
      </g>
      {points.map((point) => (
        <circle
          key={`${point.x} ${point.y}`}
          cx={x(0) + point.x}
          cy={y(0) - point.y}
          r={words / 2}
          strokeWidth={1.6}
          vectorEffect="non-scaling-stroke"
          className="fill-none stroke-primary pointer-events-none"
        />
      ))}
      {onPoint && (
        <rect
          x={box[0]}
          y={box[1]}
          width={box[2]}
          height={box[3]}
          data-points
          className="fill-transparent cursor-crosshair"
          onClick={(event) => {
            const seen = event.currentTarget.getScreenCTM();
            if (!seen) return;
            const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(seen.inverse());
            onPoint({ x: at.x - x(0), y: y(0) - at.y });
          }}
        />
      )}
      <text
        x={x(length / 2)}
        y={h + 1.6 * words}
        fontSize={words}
        textAnchor="middle"
        className="fig fill-base-content"
      >
        {length} studs · {Math.round(length * MM_PER_STUD).toLocaleString('en')} mm · {formatPlates(high)} to
        the top of the roof
      </text>
    </svg>
  );
}

/** A piece in its colour, with joints that show on it by day and by night; without one as the theme has it. */
export const painted = (paint: string | undefined) =>
  paint ? { fill: paint, stroke: '#22292e' } : undefined;

/** Families of which a wall is laid: many, and so with thin lines. */
const FINE: readonly Family[] = ['brick', 'scored-brick', 'side-stud-brick', 'plate'];

/** What shows of each piece: bricks as outlines, glass and leaves filled. */
export function Pieces({ pieces, high }: { pieces: readonly SeenPiece[]; high: number }) {
  return pieces.map(({ part, colour, left, z, w, h, falls }, key) => {
    const place = {
      x: left * MM_PER_STUD,
      y: (high - z - h) * MM_PER_PLATE,
      width: w * MM_PER_STUD,
      height: h * MM_PER_PLATE,
    };
    const family = partOf(part)?.family;
    const paint = colour === ANY_COLOUR ? undefined : colourOf(colour)?.hex;
    if (family === 'arch') return <Arch key={key} paint={paint} {...place} />;
    if (falls) return <SlopeEnd key={key} falls={falls} paint={paint} {...place} />;
    const isGlass = family === 'window';
    return (
      <g key={key}>
        <rect
          {...place}
          style={isGlass ? undefined : painted(paint)}
          strokeWidth={FINE.some((one) => one === family) ? 0.25 : 0.8}
          className={
            isGlass
              ? 'fill-secondary/25 stroke-base-content'
              : family === 'door'
                ? 'fill-base-content/20 stroke-base-content'
                : family === 'slope'
                  ? 'fill-base-300 stroke-base-content/60'
                  : 'fill-base-100 stroke-base-content/60'
          }
        />
        {isGlass && (
          <path
            d={`M${place.x + place.width / 2} ${place.y} v${place.height} M${place.x} ${place.y + place.height / 2} h${place.width}`}
            strokeWidth={0.5}
            className="stroke-base-content fill-none"
          />
        )}
        {family === 'scored-brick' && (
          <path
            d={`M${place.x} ${place.y + place.height / 2} h${place.width}`}
            strokeWidth={0.25}
            className="stroke-base-content/60"
          />
        )}
        {family === 'side-stud-brick' &&
          Array.from({ length: Math.round(w) }, (_, k) => (
            <circle
              key={k}
              cx={place.x + (k + 0.5) * MM_PER_STUD}
              cy={place.y + place.height / 2}
              r={2.4}
              strokeWidth={0.25}
              className="fill-none stroke-base-content/60"
            />
          ))}
        {family === 'door' && (
          <circle
            cx={place.x + place.width * 0.85}
            cy={place.y + place.height / 2}
            r={1.2}
            className="fill-base-content"
          />
        )}
      </g>
    );
  });
}

/** A slope from its end: a stud's width of top, a lip at its low edge. */
function SlopeEnd({
  falls,
  paint,
  x,
  y,
  width,
  height,
}: {
  falls: 'left' | 'right';
  paint: string | undefined;
  x: number;
  y: number;
  width: number;
  height: number;
}) {
  const lip = Math.min(MM_PER_PLATE, height / 3);
  const [low, high, back] =
    falls === 'left' ? [x, x + width - MM_PER_STUD, x + width] : [x + width, x + MM_PER_STUD, x];
  return (
    <path
      d={`M${low} ${y + height} V${y + height - lip} L${high} ${y} H${back} V${y + height} Z`}
      style={painted(paint)}
      strokeWidth={0.4}
      className="fill-base-300 stroke-base-content"
    />
  );
}

/** An arch: a block with half an ellipse out of its underside, a stud of foot at either side. */
function Arch({
  paint,
  x,
  y,
  width,
  height,
}: {
  paint: string | undefined;
  x: number;
  y: number;
  width: number;
  height: number;
}) {
  const [rx, ry] = [(width - 2 * MM_PER_STUD) / 2, height - MM_PER_PLATE];
  return (
    <path
      d={`M${x} ${y} h${width} v${height} h${-MM_PER_STUD} a${rx} ${ry} 0 0 0 ${-2 * rx} 0 h${-MM_PER_STUD} Z`}
      style={painted(paint)}
      strokeWidth={0.6}
      className="fill-base-100 stroke-base-content"
    />
  );
}

/** Storeys with their heights at the left, and the bays of each to be picked. */
function Storeys({
  elevation: { length, high, storeys, fronts },
  words,
  picked,
  onPick,
}: {
  elevation: Elevation;
  /** Size of words, mm. */
  words: number;
  picked: { storey: number; index: number | null };
  onPick: (storey: number, index: number | null) => void;
}) {
  return storeys.map(({ level, from, to }, i) => {
    const storey = i + 1;
    const bays = fronts.find((front) => front.storey === storey)?.bays ?? [];
    const place = { y: (high - to) * MM_PER_PLATE, height: (to - from) * MM_PER_PLATE };
    return (
      <g key={level}>
        <line
          x1={-MARGIN.left * words}
          x2={length * MM_PER_STUD}
          y1={(high - level) * MM_PER_PLATE}
          y2={(high - level) * MM_PER_PLATE}
          strokeWidth={0.4}
          strokeDasharray="3 2"
          className="stroke-base-content/60"
        />
        <text
          x={-MARGIN.left * words + 1}
          y={(high - level) * MM_PER_PLATE - 2}
          fontSize={words}
          className="fig fill-base-content"
        >
          {storey} · {formatPlates(level)}
        </text>
        {bays.length === 0 ? (
          <Spot
            label={`Storey ${storey}, plain`}
            isPicked={picked.storey === storey}
            x={0}
            width={length * MM_PER_STUD}
            {...place}
            onPick={() => onPick(storey, null)}
          />
        ) : (
          bays.map((bay) => (
            <Spot
              key={bay.index}
              label={`Storey ${storey}, bay ${bay.index + 1}: ${bayWords(bay)}`}
              isPicked={picked.storey === storey && picked.index === bay.index}
              isFaulty={bay.fault !== null}
              x={bay.left * MM_PER_STUD}
              width={bay.bay.wide * MM_PER_STUD}
              {...place}
              onPick={() => onPick(storey, bay.index)}
            />
          ))
        )}
      </g>
    );
  });
}

/** Height of the strip by which the top of a storey is taken, mm; arrows move it by a plate, with Shift by a brick. */
const EDGE_MM = 5;
const STEPS: Readonly<Record<string, 1 | -1>> = { ArrowUp: 1, ArrowDown: -1 };

/** The top of a storey, to be dragged up and down: what is above it takes the rest. */
function StoreyEdge({
  storey,
  level,
  below,
  high,
  length,
  onHeight,
}: {
  storey: number;
  /** Where the next storey begins, and where this one does, plates. */
  level: number;
  below: number;
  high: number;
  length: number;
  onHeight: (storey: number, height: number) => void;
}) {
  const [by, setBy] = useState(0);
  const drag = useDrag(
    (_, dy) => -Math.round(dy / MM_PER_PLATE),
    setBy,
    (plates) => {
      setBy(0);
      if (plates !== 0) onHeight(storey, Math.max(1, level + plates - below));
    },
  );
  const y = (high - level - by) * MM_PER_PLATE;
  return (
    <g>
      <rect
        x={0}
        y={y - EDGE_MM / 2}
        width={length * MM_PER_STUD}
        height={EDGE_MM}
        role="slider"
        tabIndex={0}
        aria-label={`Top of storey ${storey}`}
        aria-orientation="vertical"
        aria-valuenow={level - below}
        aria-valuemin={1}
        aria-valuemax={3000}
        aria-valuetext={`${formatPlates(level - below)} high`}
        className="cursor-ns-resize touch-none fill-transparent hover:fill-primary/30 outline-offset-2"
        {...drag}
        onKeyDown={(event) => {
          const step = STEPS[event.key];
          if (!step) return;
          event.preventDefault();
          const plates = step * (event.shiftKey ? PLATES_PER_BRICK : 1);
          onHeight(storey, Math.max(1, level + plates - below));
        }}
      >
        <title>{`Top of storey ${storey}: drag it, or press the arrow keys`}</title>
      </rect>
      {by !== 0 && (
        <g className="pointer-events-none">
          <line x1={0} x2={length * MM_PER_STUD} y1={y} y2={y} strokeWidth={1.2} className="stroke-primary" />
          <text x={4} y={y - EDGE_MM} fontSize={MAX_WORDS} className="fig fill-primary">
            {formatPlates(Math.max(1, level + by - below))} high
          </text>
        </g>
      )}
    </g>
  );
}

/** A place of the drawing that can be pressed. */
function Spot({
  label,
  isPicked,
  isFaulty = false,
  onPick,
  ...place
}: {
  label: string;
  isPicked: boolean;
  isFaulty?: boolean;
  x: number;
  y: number;
  width: number;
  height: number;
  onPick: () => void;
}) {
  return (
    <rect
      {...place}
      role="button"
      tabIndex={0}
      aria-pressed={isPicked}
      aria-label={label}
      strokeWidth={isPicked ? 2 : 0.8}
      strokeDasharray={isPicked ? undefined : '4 3'}
      className={`cursor-pointer outline-offset-2 fill-transparent hover:fill-primary/10 ${isPicked || isFaulty ? 'stroke-primary' : 'stroke-white/70 mix-blend-difference'}`}
      onClick={onPick}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        onPick();
      }}
    >
      <title>{label}</title>
    </rect>
  );
}

/** The sides of a building as a person goes round it, its street front first. */
export const sidesFrom = (front: Side): Side[] => {
  const round: Side[] = ['s', 'e', 'n', 'w'];
  const at = round.indexOf(front);
  return [...round.slice(at), ...round.slice(0, at)];
};
