import type { EdgeDifference, SeamSheet } from '@quarry/core/cut';
import { formatPlates } from '@quarry/core/grid';
import type { Seam, SeamSide } from '@quarry/core/document';

const W = 440;
const H = 128;
const LEFT = 30;
const FOOT = 16;

/** Both edges of a seam laid against each other, as heights from its beginning; what differs from an agreement is marked. */
export function SeamProfile({
  sheet,
  seam,
  differences,
}: {
  sheet: SeamSheet;
  seam: Seam | undefined;
  differences: readonly EdgeDifference[];
}) {
  const { studs, crossings, neighbours } = sheet;
  const { a, b, line } = neighbours;
  const read = seam?.readings ?? [];
  const all = [
    ...studs.flatMap((pair) => (pair ? [pair.a.height, pair.b.height] : [])),
    ...read.map(({ height }) => height),
    ...(seam?.agreed && differences.length > 0 ? [...seam.agreed.heights.a, ...seam.agreed.heights.b] : []),
  ];
  const low = Math.min(...all) - 2;
  const high = Math.max(low + 10, ...all) + 2;
  const x = (stud: number) => LEFT + (stud / line.length) * (W - LEFT - 4);
  const y = (plates: number) => H - FOOT - ((plates - low) / (high - low)) * (H - FOOT - 6);
  const steps = (side: SeamSide) => {
    let path = '';
    studs.forEach((pair, at) => {
      if (!pair) return;
      const height = y(pair[side].height).toFixed(1);
      path += `${path === '' || !studs[at - 1] ? 'M' : 'L'}${x(at).toFixed(1)} ${height}H${x(at + 1).toFixed(1)}`;
    });
    return path;
  };
  const ticks = Array.from({ length: Math.floor(line.length / 16) + 1 }, (_, i) => i * 16);
  const levels = [...new Set([Math.min(...all, high), Math.max(...all, low)])];
  return (
    <figure>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="w-full border hair bg-base-200/40"
        role="img"
        aria-label={`Heights along the seam of ${a.name} and ${b.name}, stud by stud; listed in the CSV.`}
      >
        {crossings.map((one) => (
          <rect
            key={`${one.id} ${one.centre}`}
            x={x(one.centre - one.width / 2)}
            y={4}
            width={((one.width / line.length) * (W - LEFT - 4)).toFixed(1)}
            height={H - FOOT - 4}
            className="fill-base-content/10"
          >
            <title>{one.name}</title>
          </rect>
        ))}
        {differences.map(({ side, at }) => (
          <rect
            key={`${side} ${at}`}
            x={x(at)}
            y={4}
            width={Math.max(1, x(1) - x(0))}
            height={H - FOOT - 4}
            className="fill-error/25"
          />
        ))}
        {levels.map((level) => (
          <g key={level}>
            <line
              x1={LEFT}
              x2={W - 4}
              y1={y(level)}
              y2={y(level)}
              className="stroke-base-300"
              strokeWidth={0.5}
            />
            <text x={LEFT - 3} y={y(level) + 3} textAnchor="end" className="fig fill-base-content text-[9px]">
              {formatPlates(level)}
            </text>
          </g>
        ))}
        {ticks.map((tick) => (
          <g key={tick}>
            <line
              x1={x(tick)}
              x2={x(tick)}
              y1={H - FOOT}
              y2={H - FOOT + 3}
              className="stroke-base-content"
              strokeWidth={0.5}
            />
            <text
              x={x(tick)}
              y={H - 4}
              textAnchor={tick === line.length ? 'end' : 'middle'}
              className="fig fill-base-content text-[9px]"
            >
              {tick}
            </text>
          </g>
        ))}
        <path d={steps('a')} fill="none" className="stroke-base-content" strokeWidth={1.6} />
        <path
          d={steps('b')}
          fill="none"
          className="stroke-secondary"
          strokeWidth={1.6}
          strokeDasharray="4 2"
        />
        {differences.map(({ side, at, was }) => (
          <line
            key={`was ${side} ${at}`}
            x1={x(at)}
            x2={x(at + 1)}
            y1={y(was)}
            y2={y(was)}
            className="stroke-error"
            strokeWidth={2}
          />
        ))}
        {read.map(({ side, at, height }) => (
          <circle
            key={`${side} ${at}`}
            cx={x(at + 0.5)}
            cy={y(height)}
            r={2.2}
            className={side === 'a' ? 'fill-base-content' : 'fill-secondary'}
          />
        ))}
      </svg>
      <figcaption className="flex gap-4 text-xs ink-2">
        <span>
          <b className="text-base-content">—</b> {a.name}, {line.upright ? 'west' : 'north'}
        </span>
        <span>
          <b className="text-secondary">- -</b> {b.name}, {line.upright ? 'east' : 'south'}
        </span>
        {differences.length > 0 && <span className="text-error">— as signed</span>}
        {read.length > 0 && <span>● as read</span>}
        <span className="flex-1 text-right">studs from the {line.upright ? 'north' : 'west'} end</span>
      </figcaption>
    </figure>
  );
}
