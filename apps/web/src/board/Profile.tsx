import { useId } from 'react';
import { PLATES_PER_BRICK, formatPlates } from '@quarry/core/lattice';
import { OUTSIDE, type Relief } from '@quarry/core/relief';
import { listOf, type Scene } from '@quarry/core/scene';
import { useSize } from '../ui/useSize.ts';

/** Heights are never drawn more than this much taller than widths. */
const MOST_EXAGGERATION = 4;

/** The section cut under the plan: ground, buildings, named levels and seams along one row of studs. */
export function Profile({ scene, relief, row }: { scene: Scene; relief: Relief; row: number }) {
  const hatch = useId();
  const [frame, size] = useSize<HTMLDivElement>();
  const line = row - relief.y;
  if (line < 0 || line >= relief.d || relief.w === 0)
    return <p className="ink-2 px-3 py-2">Click the plan to lay the section cut there.</p>;
  const at = (column: number) => line * relief.w + column;
  // A stud is 5 units wide and a plate 2 units tall (5 : 6 for a brick), times the exaggeration.
  let most = PLATES_PER_BRICK;
  for (let column = 0; column < relief.w; column++)
    if (relief.ground[at(column)] !== OUTSIDE) most = Math.max(most, relief.top[at(column)]);
  const width = relief.w * 5;
  const room = size.width > 0 ? (width * size.height) / size.width : width / 8;
  const exaggeration = Math.min(MOST_EXAGGERATION, room / (most * 2 * 1.08));
  const unit = 2 * exaggeration;
  const height = most * unit;
  const grain = size.width > 0 ? (10 * width) / size.width : 14;
  const path = (values: Int16Array) => {
    let d = '';
    let open = false;
    for (let column = 0; column < relief.w; column++) {
      const on = relief.ground[at(column)] !== OUTSIDE;
      const y = height - values[at(column)] * unit;
      if (on && !open) d += `M${column * 5} ${height}`;
      if (on) d += `V${y}H${(column + 1) * 5}`;
      if (open && !on) d += `V${height}`;
      open = on;
    }
    return open ? `${d}V${height}` : d;
  };
  const levels = listOf(scene, 'level').filter((level) => level.height <= most);
  const seams = new Set(
    listOf(scene, 'module').flatMap(({ x, y, w, d }) => (row >= y && row < y + d ? [x, x + w] : [])),
  );
  return (
    <figure className="h-full flex flex-col px-3 py-1" aria-label={`Section cut along stud row ${row}`}>
      <figcaption className="text-xs">
        <span className="font-semibold">Section S–S′</span>
        <span className="fig ink-2 ml-2">
          y = {row} · heights ×{exaggeration.toFixed(1)} · highest {formatPlates(most)}
        </span>
      </figcaption>
      <div ref={frame} className="flex-1 min-h-0">
        <svg
          className="w-full h-full"
          viewBox={`0 ${-height * 0.06} ${width} ${height * 1.08}`}
          preserveAspectRatio="xMinYMax meet"
          role="img"
          aria-label={`Highest point ${formatPlates(most)}`}
        >
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
          <path
            d={path(relief.top)}
            className="fill-base-200"
            stroke="currentColor"
            strokeWidth="1"
            vectorEffect="non-scaling-stroke"
            strokeDasharray="3 2"
          />
          <path
            d={path(relief.height)}
            fill={`url(#${hatch})`}
            stroke="currentColor"
            strokeWidth="1.2"
            vectorEffect="non-scaling-stroke"
          />
          {levels.map(({ id, height: level }) => (
            <line
              key={id}
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
          {[...seams].map((x) => (
            <line
              key={x}
              x1={(x - relief.x) * 5}
              x2={(x - relief.x) * 5}
              y1={-height * 0.06}
              y2={height}
              className="stroke-primary"
              strokeWidth="1.1"
              strokeDasharray="10 3 2 3"
              vectorEffect="non-scaling-stroke"
            />
          ))}
        </svg>
      </div>
      <div className="flex gap-3 text-[11px] text-warning fig overflow-hidden whitespace-nowrap">
        {levels.map(({ id, name, height: level }) => (
          <span key={id}>
            {name} {formatPlates(level)}
          </span>
        ))}
      </div>
    </figure>
  );
}
