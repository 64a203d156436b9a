import { formatKg, formatPercent } from '@quarry/core/grid';
import type { Carrier, PlacedUnit, Shipment, TripLoad } from '@quarry/core/transport';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { LoadSolid } from './LoadSolid.tsx';

/** Room round the drawing for words, and the size of words, as shares of the longer side. */
const MARGIN = 0.06;
const WORDS = 0.022;

/** A load from above, from its left side and in three dimensions, to scale, the door at the right; numbers are the order of putting in. */
export function LoadDrawing({
  shipment,
  load,
  picked,
  onPick,
}: {
  shipment: Shipment;
  load: TripLoad;
  picked: string | null;
  onPick: (key: string | null) => void;
}) {
  const { say } = useMeasureFormat();
  const carrier = shipment.carriers.find(({ id }) => id === load.carrier);
  if (!carrier) return null;
  const { space } = carrier;
  const mm = (value: number) => say(Math.round(value), 'mm');
  return (
    <section aria-label={`Load of ${carrier.name}`}>
      <h2 className="font-semibold">
        {carrier.name}{' '}
        <span className="ink-2 font-normal text-xs">
          inside {mm(space.d)} × {mm(space.w)} × {mm(space.h)} · {formatKg(load.grams)}
          {space.maxMass === null ? '' : ` of ${formatKg(space.maxMass)}`} · floor {formatPercent(load.floor)}
        </span>
      </h2>
      <View carrier={carrier} load={load} shipment={shipment} picked={picked} onPick={onPick} from="above" />
      <View carrier={carrier} load={load} shipment={shipment} picked={picked} onPick={onPick} from="side" />
      <LoadSolid carrier={carrier} load={load} shipment={shipment} picked={picked} onPick={onPick} />
      <p className="ink-2 text-xs">
        Mass at the left wall {formatPercent(load.left)}, at the door half {formatPercent(load.rear)}: a
        caution, the limits of the axles are in the vehicle’s papers.
      </p>
    </section>
  );
}

/** One view: the back of the vehicle at the left, its door at the right. */
function View({
  carrier: { space },
  load,
  shipment,
  picked,
  onPick,
  from,
}: {
  carrier: Carrier;
  load: TripLoad;
  shipment: Shipment;
  picked: string | null;
  onPick: (key: string | null) => void;
  from: 'above' | 'side';
}) {
  const { say } = useMeasureFormat();
  const isAbove = from === 'above';
  const across = isAbove ? space.w : space.h;
  const longest = Math.max(space.d, space.w);
  const [margin, words] = [MARGIN * longest, WORDS * longest];
  const nameOf = new Map(shipment.units.map((unit) => [unit.key, unit]));
  const boxOf = (one: Pick<PlacedUnit, 'x' | 'y' | 'z' | 'w' | 'd' | 'h'>): Box => ({
    x: space.d - one.y - one.d,
    y: isAbove ? one.x : space.h - one.z - one.h,
    width: one.d,
    height: isAbove ? one.w : one.h,
  });
  const { arches, door } = space;
  const archBoxes = arches
    ? (isAbove ? [0, space.w - arches.w] : [0]).map((x) => boxOf({ x, y: arches.from, z: 0, ...arches }))
    : [];
  // From above the highest lie over the others; from the side the nearest to the left wall.
  const inTurn = load.placed.toSorted((a, b) => (isAbove ? a.z - b.z : b.x - a.x));
  const hatch = `load-hatch-${from}`;
  const boxes = inTurn.map((one) => ({ one, box: boxOf(one) }));
  return (
    <svg
      viewBox={`${-margin} ${-words * 1.4} ${space.d + 2 * margin} ${across + words * 4.4}`}
      className={`w-full ${isAbove ? 'max-h-[52vh]' : 'max-h-[34vh]'}`}
      role="group"
      aria-label={isAbove ? 'From above' : 'From the left side'}
    >
      <defs>
        <pattern
          id={hatch}
          width={words}
          height={words}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line
            x1="0"
            y1="0"
            x2="0"
            y2={words}
            className="stroke-base-content"
            strokeOpacity="0.25"
            strokeWidth={words / 12}
          />
        </pattern>
      </defs>
      <rect
        width={space.d}
        height={across}
        className="fill-base-100 stroke-base-content"
        strokeWidth={words / 8}
      />
      {archBoxes.map((box) => (
        <rect
          key={box.y}
          {...box}
          fill={`url(#${hatch})`}
          className="stroke-base-content"
          strokeWidth={words / 16}
        >
          <title>Wheel arch</title>
        </rect>
      ))}
      {boxes.map(({ one, box }, i) => (
        <PlacedBox
          key={one.id}
          box={box}
          isCovered={boxes.slice(i + 1).some((other) => overlaps(other.box, box))}
          number={one.number}
          name={nameOf.get(one.id)?.name ?? one.id}
          mass={formatKg(nameOf.get(one.id)?.grams ?? 0)}
          words={words}
          hatch={hatch}
          isPicked={picked === one.id}
          onPick={isAbove ? () => onPick(picked === one.id ? null : one.id) : null}
        />
      ))}
      <line
        x1={space.d}
        x2={space.d}
        y1={isAbove ? (door?.x ?? 0) : 0}
        y2={isAbove ? (door ? door.x + door.w : space.w) : space.h}
        className="stroke-primary"
        strokeWidth={words / 3}
      />
      <text
        x={space.d + words * 0.5}
        y={across / 2}
        fontSize={words}
        className="fill-primary"
        transform={`rotate(90 ${space.d + words * 0.6} ${across / 2})`}
        textAnchor="middle"
      >
        door {say(Math.round(isAbove ? (door?.w ?? space.w) : space.h), 'mm')}
      </text>
      <text
        x={-words * 0.5}
        y={across / 2}
        fontSize={words}
        className="fill-base-content"
        opacity="0.7"
        transform={`rotate(-90 ${-words * 0.5} ${across / 2})`}
        textAnchor="middle"
      >
        cab
      </text>
      <line
        x1="0"
        x2="1000"
        y1={across + words * 1.2}
        y2={across + words * 1.2}
        className="stroke-base-content"
        strokeWidth={words / 10}
      />
      <text x="0" y={across + words * 2.4} fontSize={words} className="fill-base-content fig">
        {say(1000, 'mm')} · {isAbove ? 'from above' : 'from the left side'}
      </text>
    </svg>
  );
}

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

const overlaps = (a: Box, b: Box): boolean =>
  Math.min(a.x + a.width, b.x + b.width) > Math.max(a.x, b.x) &&
  Math.min(a.y + a.height, b.y + b.height) > Math.max(a.y, b.y);

function PlacedBox({
  box,
  isCovered,
  number,
  name,
  mass,
  words,
  hatch,
  isPicked,
  onPick,
}: {
  box: Box;
  /** Something is drawn over it: no name is written that would be cut. */
  isCovered: boolean;
  number: number;
  name: string;
  mass: string;
  words: number;
  hatch: string;
  isPicked: boolean;
  /** Null: the view is only looked at. */
  onPick: (() => void) | null;
}) {
  const { x, y, width, height } = box;
  const fits = (text: string) => text.length * words * 0.56 < width - words * 0.4;
  const short = name.length > 22 ? `${name.slice(0, 21)}…` : name;
  const middle = y + height / 2;
  const hasName = !isCovered && height > words * 2.4 && fits(short);
  const drawing = (
    <>
      <rect
        {...box}
        className={`fill-base-200 ${isPicked ? 'stroke-primary' : 'stroke-base-content'}`}
        strokeWidth={isPicked ? words / 4 : words / 12}
      />
      <rect {...box} fill={`url(#${hatch})`} />
      {hasName && (
        <text
          x={x + width / 2}
          y={middle + (height > words * 4 ? 0 : words * 0.5)}
          fontSize={words}
          textAnchor="middle"
          className="fill-base-content font-semibold"
        >
          {short}
        </text>
      )}
      {hasName && height > words * 4 && (
        <text
          x={x + width / 2}
          y={middle + words * 1.2}
          fontSize={words * 0.9}
          textAnchor="middle"
          className="fill-base-content fig"
          opacity="0.8"
        >
          {mass}
        </text>
      )}
      {height > words * 1.5 && width > words * 1.5 && (
        <>
          <circle cx={x + words * 0.85} cy={y + words * 0.85} r={words * 0.7} className="fill-base-content" />
          <text
            x={x + words * 0.85}
            y={y + words * 1.13}
            fontSize={words * 0.8}
            textAnchor="middle"
            className="fill-base-100 fig"
          >
            {number}
          </text>
        </>
      )}
      <title>
        {number}. {name}, {mass}
      </title>
    </>
  );
  if (!onPick) return <g aria-hidden>{drawing}</g>;
  return (
    <>
      <g aria-hidden>{drawing}</g>
      <rect
        {...box}
        fill="transparent"
        role="button"
        tabIndex={0}
        aria-pressed={isPicked}
        aria-label={`${number}. ${name}, ${mass}`}
        className="cursor-pointer"
        onClick={onPick}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          onPick();
        }}
      >
        <title>
          {number}. {name}, {mass}
        </title>
      </rect>
    </>
  );
}
