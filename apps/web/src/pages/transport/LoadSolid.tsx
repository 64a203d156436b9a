import { useState } from 'react';
import type { Carrier, Shipment, TripLoad } from '@quarry/core/transport';
import { paintOrder, type Solid } from './paintOrder.ts';

const [COS, SIN] = [Math.cos(Math.PI / 6), 0.5];

interface Point {
  u: number;
  v: number;
  z: number;
}
/** The eye is high above the door and the right wall. */
const flat = ({ u, v, z }: Point) => ({ x: (u - v) * COS, y: (u + v) * SIN - z });
const path = (points: readonly Point[]) =>
  points
    .map(flat)
    .map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`)
    .join(' ');

/** A load in three dimensions, the door at the right; as far as it has been put in. */
export function LoadSolid({
  carrier: { space },
  load,
  shipment,
  picked,
  onPick,
}: {
  carrier: Carrier;
  load: TripLoad;
  shipment: Shipment;
  picked: string | null;
  onPick: (key: string | null) => void;
}) {
  const [step, setStep] = useState<number | null>(null);
  const upTo = Math.min(step ?? load.placed.length, load.placed.length);
  const shown = load.placed.filter(({ number }) => number <= upTo);
  const solids = shown.map((unit): Solid & { unit: typeof unit } => ({
    ...{ u: space.d - unit.y - unit.d, v: unit.x, z: unit.z, du: unit.d, dv: unit.w, dz: unit.h },
    unit,
  }));
  const nameOf = new Map(shipment.units.map(({ key, name }) => [key, name]));
  const room: Solid = { u: 0, v: 0, z: 0, du: space.d, dv: space.w, dz: space.h };
  const words = Math.max(space.d, space.w) * 0.03;
  const [left, right] = [-space.w * COS, space.d * COS];
  const bottom = (space.d + space.w) * SIN;
  const last = shown.find(({ number }) => number === upTo);
  return (
    <section aria-label="In three dimensions">
      <svg
        viewBox={`${left - words} ${-space.h - words} ${right - left + 2 * words} ${bottom + space.h + 3 * words}`}
        className="w-full max-h-[46vh]"
        role="img"
        aria-label={`The first ${upTo} of ${load.placed.length} things in three dimensions, the door at the right`}
      >
        <Room {...room} words={words} />
        {paintOrder(solids).map(({ unit, ...solid }) => (
          <BoxDrawing
            key={unit.id}
            solid={solid}
            number={unit.number}
            name={nameOf.get(unit.id) ?? ''}
            words={words}
            isMarked={picked === unit.id || (step !== null && unit === last)}
            onPick={() => onPick(picked === unit.id ? null : unit.id)}
          />
        ))}
      </svg>
      <label className="flex items-center gap-2 text-xs">
        Put in
        <input
          type="range"
          className="range range-xs max-w-64"
          min={0}
          max={load.placed.length}
          value={upTo}
          onChange={(event) => setStep(Number(event.currentTarget.value))}
        />
        <span className="fig">
          {upTo} of {load.placed.length}
        </span>
        {last && step !== null && <span>{nameOf.get(last.id)}</span>}
      </label>
    </section>
  );
}

/** Floor, cab and left wall; what is nearer to the eye is left open. */
function Room({ du, dv, dz, words }: Solid & { words: number }) {
  const at = (u: number, v: number, z: number): Point => ({ u, v, z });
  const walls = [
    [at(0, 0, 0), at(du, 0, 0), at(du, dv, 0), at(0, dv, 0)],
    [at(0, 0, 0), at(0, dv, 0), at(0, dv, dz), at(0, 0, dz)],
    [at(0, 0, 0), at(du, 0, 0), at(du, 0, dz), at(0, 0, dz)],
  ];
  const door = flat(at(du, dv / 2, 0));
  return (
    <g>
      {walls.map((wall, i) => (
        <polygon
          key={i}
          points={path(wall)}
          className="fill-base-100 stroke-base-content/50"
          strokeWidth={words / 12}
        />
      ))}
      <polyline
        points={path([at(du, 0, 0), at(du, dv, 0)])}
        className="stroke-primary"
        fill="none"
        strokeWidth={words / 4}
      />
      <text x={door.x + words} y={door.y + words * 1.2} fontSize={words} className="fill-primary">
        door
      </text>
    </g>
  );
}

function BoxDrawing({
  solid: { u, v, z, du, dv, dz },
  number,
  name,
  words,
  isMarked,
  onPick,
}: {
  solid: Solid;
  number: number;
  name: string;
  words: number;
  isMarked: boolean;
  onPick: () => void;
}) {
  const at = (a: number, b: number, c: number): Point => ({ u: u + a * du, v: v + b * dv, z: z + c * dz });
  const faces = [
    // Top, toward the door, toward the right wall: each a shade darker.
    { points: [at(0, 0, 1), at(1, 0, 1), at(1, 1, 1), at(0, 1, 1)], fill: 'fill-base-100' },
    { points: [at(1, 0, 0), at(1, 1, 0), at(1, 1, 1), at(1, 0, 1)], fill: 'fill-base-200' },
    { points: [at(0, 1, 0), at(1, 1, 0), at(1, 1, 1), at(0, 1, 1)], fill: 'fill-base-300' },
  ];
  const top = flat(at(0.5, 0.5, 1));
  return (
    <g className="cursor-pointer" onClick={onPick}>
      {faces.map(({ points, fill }) => (
        <polygon
          key={fill}
          points={path(points)}
          className={`${fill} ${isMarked ? 'stroke-primary' : 'stroke-base-content'}`}
          strokeWidth={isMarked ? words / 4 : words / 14}
          strokeLinejoin="round"
        />
      ))}
      {Math.min(du, dv) > words * 1.6 && (
        <text
          x={top.x}
          y={top.y}
          dy="0.35em"
          fontSize={words}
          textAnchor="middle"
          className="fill-base-content fig"
        >
          {number}
        </text>
      )}
      <title>
        {number}. {name}
      </title>
    </g>
  );
}
