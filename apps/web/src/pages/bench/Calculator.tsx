import type { ReactNode } from 'react';
import { Basis } from '../../ui/parts.tsx';

/** A calculator: its questions and answers at the left, its drawing beside them, below them on a phone. */
export function Calculator({
  label,
  fields,
  children,
  drawing,
  basis,
  acts,
}: {
  label: string;
  fields: ReactNode;
  children: ReactNode;
  drawing: ReactNode;
  basis: ReactNode;
  acts?: ReactNode;
}) {
  return (
    <div className="grid lg:h-full grid-cols-1 lg:grid-cols-[26rem_minmax(0,1fr)]">
      <div className="p-3 lg:border-r hair lg:overflow-auto text-[13px]">
        <form aria-label={label} onSubmit={(event) => event.preventDefault()}>
          {fields}
        </form>
        {children}
        {acts && <div className="flex flex-wrap gap-2 py-3">{acts}</div>}
        <Basis>{basis}</Basis>
      </div>
      <figure className="p-4 min-h-0 lg:h-full flex">{drawing}</figure>
    </div>
  );
}

/** The first cell of a row that is picked by it. */
export function PickButton({
  picked,
  onPick,
  children,
}: {
  picked: boolean;
  onPick: () => void;
  children: ReactNode;
}) {
  return (
    <button type="button" className="fig link link-hover px-1" aria-pressed={picked} onClick={onPick}>
      {children}
    </button>
  );
}

/**
 * A drawing in its own lengths, as large as its place allows; lines keep their width.
 * @param props.label what it shows, in words
 */
export function Sketch({
  label,
  box: { x, y, w, d },
  children,
}: {
  label: string;
  box: { x: number; y: number; w: number; d: number };
  children: ReactNode;
}) {
  return (
    <svg
      role="img"
      aria-label={label}
      viewBox={`${x} ${y} ${w} ${d}`}
      className="w-full max-h-[60vh] lg:max-h-full m-auto [&_*]:[vector-effect:non-scaling-stroke]"
      fill="none"
      stroke="currentColor"
      strokeWidth={1.2}
      strokeLinejoin="round"
    >
      {children}
    </svg>
  );
}

/** Words in a drawing. @param props.size height of its letters, in the lengths of the drawing */
export function SketchText({
  x,
  y,
  size,
  anchor = 'middle',
  children,
}: {
  x: number;
  y: number;
  size: number;
  anchor?: 'start' | 'middle' | 'end';
  children: ReactNode;
}) {
  return (
    <text
      {...{ x, y, fontSize: size, textAnchor: anchor }}
      className="fig [paint-order:stroke] stroke-base-100"
      fill="currentColor"
      strokeWidth={5}
    >
      {children}
    </text>
  );
}
