import { useState } from 'react';
import { MM_PER_STUD, type Rect } from '@quarry/core/grid';
import { runsEast, SIDE_WORDS, type Side } from '@quarry/core/document';
import { arrowWay } from '../../../ui/arrows.ts';
import { useDrag } from '../../../ui/useDrag.ts';
import type { DoorSwing, FloorPlan, PlacedFitting } from '@quarry/core/structures';

/** The drawing's measures by its longer side: its words, and the room for them round it. */
const WORDS_SHARE = 1 / 42;
const MARGIN_IN_WORDS = 2.2;
/** The clip of the room: a floor is drawn once at a time. */
const ROOM_CLIP = 'room-of-the-floor';
/** Places snap to half studs. */
const HALF = 0.5;

/** Of the arrow on a stair: from its ends, and the length of its head, mm. */
const ARROW = 5;

/** Studs that arrows move a thing by with Shift, as on the board. */
const FAR = 8;

const snapped = (studs: number): number => Math.round(studs / HALF) * HALF;
const mm = (studs: number): number => studs * MM_PER_STUD;
const pointsOf = (corners: readonly { x: number; y: number }[]) =>
  corners.map(({ x, y }) => `${mm(x)},${mm(y)}`).join(' ');
const boxOf = ({ x, y, w, d }: Rect) => ({ x: mm(x), y: mm(y), width: mm(w), height: mm(d) });

/** One floor of a building from above, to scale and unturned; what stands on it can be picked, dragged and nudged. */
export function FloorDrawing({
  floor,
  front,
  picked,
  disabled,
  onPick,
  onMove,
}: {
  floor: FloorPlan;
  front: Side;
  /** Index of the fitting in hand. */
  picked: number | null;
  disabled: boolean;
  onPick: (index: number) => void;
  onMove: (index: number, to: { x: number; y: number }) => void;
}) {
  const { w, d, wall, outline, openings, pillars, windows, holes, fittings, doors, figures } = floor;
  const [wide, deep] = [mm(w + 2 * wall), mm(d + 2 * wall)];
  const words = Math.max(wide, deep) * WORDS_SHARE;
  const margin = words * MARGIN_IN_WORDS;
  return (
    <svg
      viewBox={[-mm(wall) - margin, -mm(wall) - margin, wide + 2 * margin, deep + 2 * margin].join(' ')}
      className="w-full max-h-[58vh]"
      role="group"
      aria-label={`Storey ${floor.number} from above, ${w} × ${d} studs inside`}
    >
      <polygon
        points={pointsOf(outline.walls)}
        strokeWidth={0.8}
        vectorEffect="non-scaling-stroke"
        className="fill-base-content/25 stroke-base-content"
      />
      <polygon
        points={pointsOf(outline.room)}
        strokeWidth={0.8}
        vectorEffect="non-scaling-stroke"
        className="fill-base-100 stroke-base-content"
      />
      <clipPath id={ROOM_CLIP}>
        <polygon points={pointsOf(outline.room)} />
      </clipPath>
      <g clipPath={`url(#${ROOM_CLIP})`}>
        <Studs w={w} d={d} />
      </g>
      {holes.map((hole) => (
        <g key={`${hole.x} ${hole.y}`}>
          <rect
            {...boxOf(hole)}
            strokeWidth={0.8}
            vectorEffect="non-scaling-stroke"
            strokeDasharray="4 2"
            className="fill-base-content/10 stroke-base-content"
          />
          <path
            d={`M${mm(hole.x)} ${mm(hole.y)}l${mm(hole.w)} ${mm(hole.d)}m0 ${-mm(hole.d)}l${-mm(hole.w)} ${mm(hole.d)}`}
            strokeWidth={0.6}
            vectorEffect="non-scaling-stroke"
            className="stroke-base-content/60"
          >
            <title>Open over the stair below</title>
          </path>
        </g>
      ))}
      {openings.map((one) => {
        const isX = runsEast(one.side);
        const along = one.from - wall;
        const across = one.side === 's' ? d - one.back : one.side === 'e' ? w - one.back : one.back - wall;
        const place = isX
          ? { x: along, y: across, w: one.wide, d: wall }
          : { x: across, y: along, w: wall, d: one.wide };
        return (
          <rect
            key={`${one.side} ${one.from} ${one.foot}`}
            {...boxOf(place)}
            strokeWidth={0.6}
            vectorEffect="non-scaling-stroke"
            className={`stroke-base-content ${one.part.family === 'window' ? 'fill-secondary/40' : 'fill-base-100'}`}
          >
            <title>{`${one.part.family} to the ${SIDE_WORDS[one.side]}`}</title>
          </rect>
        );
      })}
      {windows.map((rect) => (
        <rect key={`${rect.x} ${rect.y}`} {...boxOf(rect)} className="fill-secondary/40" />
      ))}
      {pillars.map((rect) => (
        <rect key={`${rect.x} ${rect.y}`} {...boxOf(rect)} className="fill-base-content/50">
          <title>A pillar carries the floor above</title>
        </rect>
      ))}
      {figures.map(({ x, y }) => (
        <circle
          key={`${x} ${y}`}
          cx={mm(x)}
          cy={mm(y)}
          r={2.4}
          strokeWidth={0.5}
          vectorEffect="non-scaling-stroke"
          className="fill-none stroke-base-content/60"
        />
      ))}
      {fittings.map((fitting) => (
        <Thing
          key={fitting.index}
          fitting={fitting}
          words={words}
          isPicked={fitting.index === picked}
          disabled={disabled}
          onPick={() => onPick(fitting.index)}
          onMove={(to) => onMove(fitting.index, to)}
        />
      ))}
      {doors.map((door) => (
        <Swing key={`${door.side} ${door.hinges.left.x} ${door.hinges.left.y}`} door={door} />
      ))}
      <text
        x={mm(w) / 2}
        y={-mm(wall) - words / 2}
        fontSize={words}
        textAnchor="middle"
        className="fill-base-content"
      >
        north{front === 'n' && ', street'}
      </text>
      <text
        x={mm(w) / 2}
        y={mm(d + wall) + 1.4 * words}
        fontSize={words}
        textAnchor="middle"
        className="fig fill-base-content"
      >
        {w} × {d} studs inside · {mm(w)} × {mm(d)} mm{front === 's' && ' · street'}
      </text>
    </svg>
  );
}

/** A line at each stud of the room. */
function Studs({ w, d }: { w: number; d: number }) {
  const across = Array.from({ length: Math.max(0, w - 1) }, (_, i) => `M${mm(i + 1)} 0V${mm(d)}`);
  const along = Array.from({ length: Math.max(0, d - 1) }, (_, i) => `M0 ${mm(i + 1)}H${mm(w)}`);
  return (
    <path
      d={[...across, ...along].join('')}
      strokeWidth={0.6}
      vectorEffect="non-scaling-stroke"
      className="stroke-base-content/25"
    />
  );
}

/** The quarter that a leaf sweeps, hung where it opens; on both sides where it opens on neither. */
function Swing({ door: { hinges, leaf, blocked } }: { door: DoorSwing }) {
  const isStuck = blocked.left !== null && blocked.right !== null;
  const hands = isStuck
    ? (['left', 'right'] as const)
    : blocked.left === null
      ? (['left'] as const)
      : (['right'] as const);
  return hands.map((hand) => {
    const [hinge, other] = [hinges[hand], hinges[hand === 'left' ? 'right' : 'left']];
    const along = { x: (other.x - hinge.x) / leaf, y: (other.y - hinge.y) / leaf };
    // From the north wall a door opens south, from the west wall east.
    const into = inward(hinges, along);
    const open = { x: hinge.x + into.x * leaf, y: hinge.y + into.y * leaf };
    const isClockwise = along.x * into.y - along.y * into.x > 0 ? 1 : 0;
    return (
      <path
        key={hand}
        d={`M${mm(hinge.x)} ${mm(hinge.y)}L${mm(open.x)} ${mm(open.y)}A${mm(leaf)} ${mm(leaf)} 0 0 ${1 - isClockwise} ${mm(other.x)} ${mm(other.y)}`}
        strokeWidth={0.8}
        vectorEffect="non-scaling-stroke"
        strokeDasharray="3 2"
        className={`fill-none pointer-events-none ${isStuck ? 'stroke-error' : 'stroke-base-content'}`}
      >
        <title>{isStuck ? 'This door cannot open inwards' : `This door opens hung ${hand}`}</title>
      </path>
    );
  });
}

/** The way into the room from a door: at the north and west walls away from 0, else towards it. */
const inward = ({ left }: DoorSwing['hinges'], along: { x: number; y: number }): { x: number; y: number } =>
  along.x !== 0 ? { x: 0, y: left.y === 0 ? 1 : -1 } : { x: left.x === 0 ? 1 : -1, y: 0 };

/** A thing on the floor: dragged by pointer, nudged by arrows a stud, with Alt half a stud. */
function Thing({
  fitting,
  words,
  isPicked,
  disabled,
  onPick,
  onMove,
}: {
  fitting: PlacedFitting;
  /** Size of words, mm. */
  words: number;
  isPicked: boolean;
  disabled: boolean;
  onPick: () => void;
  onMove: (to: { x: number; y: number }) => void;
}) {
  const [by, setBy] = useState({ x: 0, y: 0 });
  const { name, w, d, use, climbsTo, onHalf, fault } = fitting;
  const at = { x: fitting.x + by.x, y: fitting.y + by.y };
  const { onPointerDown, ...drag } = useDrag(
    (dx, dy) => ({
      x: snapped(fitting.x + dx / MM_PER_STUD) - fitting.x,
      y: snapped(fitting.y + dy / MM_PER_STUD) - fitting.y,
    }),
    setBy,
    (off) => {
      setBy({ x: 0, y: 0 });
      if (off.x !== 0 || off.y !== 0) onMove({ x: fitting.x + off.x, y: fitting.y + off.y });
    },
  );
  const isTall = d > 1.3 * w;
  const tone = fault !== null ? 'stroke-error' : isPicked ? 'stroke-primary' : 'stroke-base-content';
  return (
    <g>
      <rect
        {...boxOf({ ...at, w, d })}
        role="button"
        tabIndex={0}
        aria-pressed={isPicked}
        aria-label={`${name}, ${w} × ${d} studs at ${fitting.x}, ${fitting.y}${fault === null ? '' : `: ${fault}`}`}
        strokeWidth={isPicked ? 1.8 : 1}
        vectorEffect="non-scaling-stroke"
        strokeDasharray={fault === null ? undefined : '3 2'}
        className={`outline-offset-2 touch-none fill-base-300 ${disabled ? '' : 'cursor-move'} ${tone}`}
        onPointerDown={(event) => {
          onPick();
          if (!disabled) onPointerDown(event);
        }}
        {...drag}
        onKeyDown={(event) => {
          const nudge = arrowWay(event.key);
          if (event.key === 'Enter' || event.key === ' ') onPick();
          else if (nudge && !disabled) {
            const step = event.altKey ? HALF : event.shiftKey ? FAR : 1;
            onMove({ x: fitting.x + step * nudge[0], y: fitting.y + step * nudge[1] });
          } else return;
          event.preventDefault();
        }}
      >
        <title>{fault ?? name}</title>
      </rect>
      {use === 'stair' && <Steps {...at} w={w} d={d} climbsTo={climbsTo} />}
      <text
        transform={`translate(${mm(at.x + w / 2)} ${mm(at.y + d / 2)}) rotate(${isTall ? -90 : 0})`}
        dy={words / 3}
        fontSize={words}
        textAnchor="middle"
        className="fill-base-content pointer-events-none"
      >
        {shortName(name, mm(isTall ? d : w) / words)}
        {onHalf && ' ½'}
      </text>
    </g>
  );
}

/** As much of a name as lies within a length, about. @param length in sizes of words */
const shortName = (name: string, length: number): string => {
  const most = Math.max(1, Math.floor(length / 0.55));
  return name.length <= most ? name : name.slice(0, most);
};

/** A line at each stud along a stair, and an arrow upwards. */
function Steps({ x, y, w, d, climbsTo }: Rect & Pick<PlacedFitting, 'climbsTo'>) {
  const isAlongX = w >= d;
  const long = Math.max(mm(w), mm(d)) - 2 * ARROW;
  const ahead = climbsTo === 'start' ? -1 : 1;
  const head = `m${isAlongX ? -ahead * ARROW : -ARROW / 2} ${isAlongX ? -ARROW / 2 : -ahead * ARROW}`;
  const tip = isAlongX
    ? `l${ahead * ARROW} ${ARROW / 2}l${-ahead * ARROW} ${ARROW / 2}`
    : `l${ARROW / 2} ${ahead * ARROW}l${ARROW / 2} ${-ahead * ARROW}`;
  const tail = climbsTo === 'start' ? ARROW + long : ARROW;
  const arrow = isAlongX
    ? `M${mm(x) + tail} ${mm(y + d / 2)}h${ahead * long}${head}${tip}`
    : `M${mm(x + w / 2)} ${mm(y) + tail}v${ahead * long}${head}${tip}`;
  const lines = Array.from({ length: Math.floor(isAlongX ? w : d) }, (_, i) =>
    isAlongX ? `M${mm(x + i)} ${mm(y)}v${mm(d)}` : `M${mm(x)} ${mm(y + i)}h${mm(w)}`,
  );
  return (
    <path
      d={[...lines, arrow].join('')}
      strokeWidth={0.5}
      vectorEffect="non-scaling-stroke"
      className="stroke-base-content pointer-events-none fill-none"
    />
  );
}
