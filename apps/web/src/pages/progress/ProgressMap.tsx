import { formatPercent } from '@quarry/core/grid';
import { useId, useRef, type PointerEvent } from 'react';
import { listOf, stageWord, type Section } from '@quarry/core/document';
import type { SectionSchedule } from '@quarry/core/progress';
import { useScene } from '../../data/useDisplay.tsx';

/** Studs round the plan. */
const MARGIN = 6;

interface Mark {
  x: number;
  y: number;
  bearing: number | null;
  word: string;
  picked: boolean;
}

/**
 * The sections on the display's own plan, each filled from its west with hatch as far as its work goes; late, blocked
 * and idle ones say so in a word. Places can be marked on it, and picked.
 */
export function ProgressMap({
  standings = [],
  blocked = new Set(),
  marks = [],
  onPick,
  label,
}: {
  standings?: readonly SectionSchedule[];
  blocked?: ReadonlySet<string>;
  marks?: readonly Mark[];
  onPick?: (x: number, y: number) => void;
  label: string;
}) {
  const scene = useScene('section', 'footprint', 'display');
  const ref = useRef<SVGSVGElement>(null);
  const pattern = useId();
  const sections = listOf(scene, 'section');
  const ground = listOf(scene, 'footprint');
  const all = [...sections, ...ground];
  if (all.length === 0) return null;
  const x0 = Math.min(...all.map(({ x }) => x)) - MARGIN;
  const y0 = Math.min(...all.map(({ y }) => y)) - MARGIN;
  const x1 = Math.max(...all.map(({ x, w }) => x + w)) + MARGIN;
  const y1 = Math.max(...all.map(({ y, d }) => y + d)) + MARGIN;
  const unit = (x1 - x0) / 100;
  const pick = (event: PointerEvent<SVGSVGElement>) => {
    const box = ref.current?.getBoundingClientRect();
    if (!box || !onPick) return;
    onPick(
      Math.round(x0 + ((event.clientX - box.left) / box.width) * (x1 - x0)),
      Math.round(y0 + ((event.clientY - box.top) / box.height) * (y1 - y0)),
    );
  };
  const words = ({ id }: Section) => {
    const standing = standings.find((one) => one.id === id);
    if (!standing) return [];
    return [
      formatPercent(standing.done),
      ...(standing.late ? ['late'] : []),
      ...(blocked.has(id) ? ['blocked'] : []),
      ...(standing.idle ? ['idle'] : []),
    ];
  };
  return (
    <svg
      ref={ref}
      viewBox={`${x0} ${y0} ${x1 - x0} ${y1 - y0}`}
      className={`w-full max-h-[46vh] border hair bg-base-100 ${onPick ? 'cursor-crosshair' : ''}`}
      role="img"
      aria-label={label}
      onPointerDown={onPick ? pick : undefined}
    >
      <defs>
        <pattern
          id={pattern}
          width={unit * 1.4}
          height={unit * 1.4}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" y1="0" x2="0" y2={unit * 1.4} stroke="currentColor" strokeWidth={unit * 0.45} />
        </pattern>
      </defs>
      {ground.map(({ id, x, y, w, d }) => (
        <rect
          key={id}
          {...{ x, y, width: w, height: d }}
          className="fill-base-200 stroke-base-300"
          strokeWidth={unit * 0.2}
        />
      ))}
      {sections.map((section) => {
        const { id, x, y, w, d, letter } = section;
        const standing = standings.find((one) => one.id === id);
        // A flat section has its words beside its letter, others below it.
        const flat = d < unit * 16;
        const size = Math.min(unit * 3.4, d / 3.2);
        const at = flat ? { x: x + size * 1.8, y: y + d / 2 } : { x: x + w / 2, y: y + d / 2 - size };
        const [share, ...rest] = words(section);
        const lines = flat
          ? [[share, ...rest].filter(Boolean).join(', ')]
          : [share, rest.join(', ')].filter(Boolean);
        return (
          <g key={id}>
            <title>{`Section ${letter}, ${section.name}: ${[stageWord(scene, section.stage), ...words(section)].join(', ')}`}</title>
            <rect
              {...{ x, y, width: w * (standing?.done ?? 0), height: d }}
              fill={`url(#${pattern})`}
              className="text-base-content/45"
            />
            <rect
              {...{ x, y, width: w, height: d }}
              fill="none"
              className={standing?.late ? 'stroke-primary' : 'stroke-base-content'}
              strokeWidth={standing?.late ? unit * 0.6 : unit * 0.3}
            />
            <circle
              cx={at.x}
              cy={at.y}
              r={size}
              className="fill-base-100 stroke-base-content"
              strokeWidth={unit * 0.2}
            />
            <text
              x={at.x}
              y={at.y}
              fontSize={size * 1.1}
              textAnchor="middle"
              dominantBaseline="central"
              className="fill-base-content font-semibold"
            >
              {letter}
            </text>
            {lines.map((line, i) => (
              <text
                key={line}
                x={flat ? at.x + size * 1.5 : at.x}
                y={flat ? at.y : at.y + size * (1.75 + 1.15 * i)}
                fontSize={unit * 2.9}
                textAnchor={flat ? 'start' : 'middle'}
                dominantBaseline="central"
                className={`stroke-base-100 ${standing?.late && (flat || i > 0) ? 'fill-primary' : 'fill-base-content'} font-semibold`}
                strokeWidth={unit * 0.9}
                paintOrder="stroke"
              >
                {line}
              </text>
            ))}
          </g>
        );
      })}
      {marks.map(({ x, y, bearing, word, picked }, i) => (
        <g key={i} transform={`translate(${x} ${y})`} className={picked ? 'text-primary' : 'text-secondary'}>
          <title>{word}</title>
          {bearing !== null && (
            <path
              d={`M0 0 L${-unit * 1.6} ${-unit * 5} L${unit * 1.6} ${-unit * 5} Z`}
              transform={`rotate(${bearing})`}
              fill="currentColor"
              fillOpacity="0.25"
              stroke="currentColor"
              strokeWidth={unit * 0.2}
            />
          )}
          <circle r={unit * (picked ? 1.3 : 0.9)} fill="currentColor" />
        </g>
      ))}
    </svg>
  );
}
