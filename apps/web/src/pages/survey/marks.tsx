import { memo } from 'react';
import type { Entity, Opening, Place, Scene, Table } from '@quarry/core/document';
import {
  leafGaps,
  lengthOf,
  openingFloor,
  openingLine,
  sidesOf,
  signedArea,
  type RoomPoint,
} from '@quarry/core/venue';
import { formatMeasure, type Metric } from '../../ui/quantity.ts';
import { MarkGroup, at, moved, on, path, type Mark } from './mark.tsx';
import type { RoomView } from './roomView.ts';

/** Walls with their lengths outside. */
export function Walls({ place, view, metric }: { place: Place | null; view: RoomView; metric: Metric }) {
  if (!place || place.walls.length < 3) return null;
  const out = signedArea(place.walls) >= 0 ? -1 : 1;
  return (
    <g pointerEvents="none">
      <path
        d={path(view, place.walls)}
        className="fill-base-100"
        stroke="currentColor"
        strokeWidth="4"
        strokeLinejoin="miter"
      />
      {sidesOf(place.walls).map((side, i) => {
        const length = lengthOf(side);
        if (length * view.scale < 40) return null;
        const [a, b] = [at(view, side.a), at(view, side.b)];
        const turn = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
        const upright = turn > 90 || turn <= -90 ? turn + 180 : turn;
        const normal = {
          x: (-(b.y - a.y) / Math.hypot(b.x - a.x, b.y - a.y)) * out,
          y: ((b.x - a.x) / Math.hypot(b.x - a.x, b.y - a.y)) * out,
        };
        const [x, y] = [(a.x + b.x) / 2 + normal.x * 20, (a.y + b.y) / 2 + normal.y * 20];
        return (
          <text
            key={i}
            x={x}
            y={y}
            transform={`rotate(${upright} ${x} ${y})`}
            textAnchor="middle"
            dominantBaseline="middle"
            fontSize="11"
            fill="currentColor"
            className="fig"
          >
            {formatMeasure(Math.round(length), 'mm', metric)}
          </text>
        );
      })}
    </g>
  );
}

export const TableMark = memo(
  function TableMark({
    table,
    metric,
    scene: _,
    ...mark
  }: Mark & { table: Table; metric: Metric; scene: Scene }) {
    const { view, picked } = mark;
    const box = on(view, table);
    return (
      <MarkGroup
        mark={mark}
        label={`${table.name} ${formatMeasure(table.height, 'mm', metric)} high, ${formatMeasure(table.w, 'mm', metric)} by ${formatMeasure(table.d, 'mm', metric)}`}
      >
        <rect
          {...box}
          className={`fill-base-300/60 ${picked ? 'stroke-primary' : ''}`}
          stroke={picked ? undefined : 'currentColor'}
          strokeWidth={picked ? 2.5 : 1}
          strokeDasharray={table.kind === 'floor' ? '6 4' : table.kind === 'shelf' ? '10 3' : undefined}
        />
        {leafGaps(table).map((gap) => (
          <rect key={`${gap.x} ${gap.y}`} {...on(view, gap)} className="fill-base-100" />
        ))}
        {box.height > 20 && box.width > table.name.length * 6 + 12 && (
          <text
            x={box.x + 7}
            y={box.y + 17}
            fontSize="11"
            fill="currentColor"
            className="stroke-base-100"
            strokeWidth="3"
            paintOrder="stroke"
            pointerEvents="none"
          >
            {table.name}
            {box.width > table.name.length * 6 + 90 && (
              <tspan className="fig"> {formatMeasure(table.height, 'mm', metric)} high</tspan>
            )}
          </text>
        )}
      </MarkGroup>
    );
  },
  // Handlers are recreated on each render and are equivalent while the scene is the same.
  (a, b) =>
    a.scene === b.scene &&
    a.table === b.table &&
    a.view === b.view &&
    a.picked === b.picked &&
    a.shift === b.shift &&
    a.metric === b.metric,
);

/** What a pointer takes hold of to move a picked table, over whatever lies on it. */
export function TableGrip({ table, view, shift, onPointerDown }: Mark & { table: Table }) {
  return (
    <rect
      {...on(view, table)}
      transform={moved(view, shift)}
      fill="transparent"
      className="stroke-primary cursor-grab"
      strokeWidth="2.5"
      onPointerDown={onPointerDown}
    />
  );
}

export function Obstacle({ obstacle, ...mark }: Mark & { obstacle: Entity<'obstacle'> }) {
  const { view, picked } = mark;
  const box = on(view, obstacle);
  return (
    <MarkGroup mark={mark} label={`Obstacle ${obstacle.name}`}>
      <rect
        {...box}
        className={`fill-base-content/25 ${picked ? 'stroke-primary' : ''}`}
        stroke={picked ? undefined : 'currentColor'}
        strokeWidth={picked ? 2.5 : 1}
      />
      <path
        d={`M${box.x} ${box.y}l${box.width} ${box.height}m0 ${-box.height}l${-box.width} ${box.height}`}
        stroke="currentColor"
        strokeWidth="0.7"
      />
      {box.width > 50 && (
        <text x={box.x + box.width / 2} y={box.y - 3} textAnchor="middle" fontSize="10" fill="currentColor">
          {obstacle.name}
        </text>
      )}
    </MarkGroup>
  );
}

export function OpeningMark({
  opening,
  walls,
  metric,
  ...mark
}: Mark & { opening: Opening; walls: readonly RoomPoint[]; metric: Metric }) {
  const { view, picked } = mark;
  const line = openingLine(walls, opening);
  if (!line) return null;
  const [a, b] = [at(view, line.a), at(view, line.b)];
  // The corner of its floor opposite the end of its wall.
  const [, , , corner = b] = openingFloor(walls, line, opening.width).map((point) => at(view, point));
  const radius = opening.width * view.scale;
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  // The name stands in the swing of a door, and close to the wall of a window.
  const deep = opening.use === 'window' ? Math.min(1, 16 / radius) : 0.5;
  const inside = {
    x: middle.x + (corner.x - a.x) * deep,
    y: middle.y + (corner.y - a.y) * deep,
  };
  const slope = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
  // Along the wall for a window, and never upside down.
  const turn = opening.use === 'window' ? (slope > 90 || slope <= -90 ? slope + 180 : slope) : 0;
  const sweep = signedArea(walls) >= 0 ? 1 : 0;
  return (
    <MarkGroup mark={mark} label={`${opening.name}, ${formatMeasure(opening.width, 'mm', metric)} wide`}>
      <line
        x1={a.x}
        y1={a.y}
        x2={b.x}
        y2={b.y}
        className={picked ? 'stroke-primary' : 'stroke-base-100'}
        strokeWidth="6"
      />
      {opening.use === 'door' && (
        <path
          d={`M${a.x} ${a.y}L${corner.x} ${corner.y}A${radius} ${radius} 0 0 ${1 - sweep} ${b.x} ${b.y}`}
          fill="none"
          stroke="currentColor"
          strokeWidth="0.9"
          strokeDasharray="3 2"
        />
      )}
      {opening.use === 'window' && (
        <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} className="stroke-secondary" strokeWidth="2" />
      )}
      <text
        x={inside.x}
        y={inside.y + 3}
        transform={`rotate(${turn} ${inside.x} ${inside.y})`}
        textAnchor="middle"
        fontSize="10"
        fill="currentColor"
        className="stroke-base-100"
        strokeWidth="3"
        paintOrder="stroke"
      >
        {opening.name}
      </text>
    </MarkGroup>
  );
}

export function Socket({ socket, ...mark }: Mark & { socket: Entity<'socket'> }) {
  const { x, y } = at(mark.view, socket);
  return (
    <MarkGroup mark={mark} label={`Socket ${socket.name}`}>
      <circle
        cx={x}
        cy={y}
        r="8"
        className={`fill-base-100 ${mark.picked ? 'stroke-primary' : ''}`}
        stroke={mark.picked ? undefined : 'currentColor'}
        strokeWidth={mark.picked ? 2.5 : 1.2}
      />
      <path
        d={`M${x + 1} ${y - 5}L${x - 3} ${y + 1}H${x + 2}L${x - 1} ${y + 5}`}
        fill="none"
        stroke="currentColor"
        pointerEvents="none"
      />
    </MarkGroup>
  );
}

/** The outlets of an extension lead, with the circle that its lead reaches while it is picked. */
export function ExtensionMark({ extension, ...mark }: Mark & { extension: Entity<'extension'> }) {
  const { x, y } = at(mark.view, extension);
  return (
    <MarkGroup mark={mark} label={`Extension lead ${extension.name}`}>
      {mark.picked && (
        <circle
          cx={x}
          cy={y}
          r={extension.leadMm * mark.view.scale}
          fill="none"
          stroke="currentColor"
          strokeDasharray="2 4"
          pointerEvents="none"
        />
      )}
      <rect
        x={x - 11}
        y={y - 6}
        width="22"
        height="12"
        className={`fill-base-100 ${mark.picked ? 'stroke-primary' : ''}`}
        stroke={mark.picked ? undefined : 'currentColor'}
        strokeWidth={mark.picked ? 2.5 : 1.2}
      />
      {[-6, 0, 6].map((dx) => (
        <circle key={dx} cx={x + dx} cy={y} r="1.5" fill="currentColor" pointerEvents="none" />
      ))}
    </MarkGroup>
  );
}

export function Barrier({ barrier, ...mark }: Mark & { barrier: Entity<'barrier'> }) {
  const { view, picked } = mark;
  const [a, b] = [at(view, { x: barrier.x1, y: barrier.y1 }), at(view, { x: barrier.x2, y: barrier.y2 })];
  return (
    <MarkGroup mark={mark} label={`Barrier ${barrier.name}`}>
      <line
        x1={a.x}
        y1={a.y}
        x2={b.x}
        y2={b.y}
        className={picked ? 'stroke-primary' : 'stroke-warning'}
        strokeWidth={picked ? 3 : 2.2}
        strokeDasharray="9 4 2 4"
      />
      <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="transparent" strokeWidth="14" />
      {[a, b].map(({ x, y }) => (
        <circle
          key={`${x} ${y}`}
          cx={x}
          cy={y}
          r="4"
          className="fill-base-100 stroke-warning"
          strokeWidth="1.6"
        />
      ))}
      <text
        x={(a.x + b.x) / 2}
        y={(a.y + b.y) / 2 + 15}
        textAnchor="middle"
        fontSize="10.5"
        fill="currentColor"
      >
        {barrier.name}
      </text>
    </MarkGroup>
  );
}

/** A corner of the room, to be moved. */
export function Corner({ corner, index, ...mark }: Mark & { corner: RoomPoint; index: number }) {
  const { x, y } = at(mark.view, corner);
  return (
    <MarkGroup mark={mark} label={`Corner ${index + 1} of the room`}>
      <rect
        x={x - 5}
        y={y - 5}
        width="10"
        height="10"
        className="fill-base-100 stroke-primary"
        strokeWidth="1.6"
      />
    </MarkGroup>
  );
}
