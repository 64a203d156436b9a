import { boundsOf, type Rect } from '@quarry/core/grid';

/** A cutting the size of a stamp. */
export function MiniPlan({ modules, label }: { modules: readonly Rect[]; label: string }) {
  if (modules.length === 0) return null;
  const { x, y, w, d } = boundsOf(modules);
  return (
    <svg
      role="img"
      aria-label={label}
      viewBox={`${x - 1} ${y - 1} ${w + 2} ${d + 2}`}
      className="w-[42px] h-[26px] shrink-0"
      preserveAspectRatio="xMidYMid meet"
    >
      {modules.map((module) => (
        <rect
          key={`${module.x} ${module.y}`}
          x={module.x}
          y={module.y}
          width={module.w}
          height={module.d}
          className="fill-base-200 stroke-base-content"
          strokeWidth={1}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}
