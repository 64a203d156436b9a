import { useId, useState } from 'react';
import {
  MM_PER_STUD,
  formatInches,
  formatMm,
  outerSize,
  readGridSize,
  type GridSize,
} from '@quarry/core/grid';
import { MAX_STUDS } from '@quarry/core/document';
import { useView } from '../data/view.ts';

export type SizeDraft = ReturnType<typeof readGridSize>;

/** A size that is being typed, and what it comes to on the grid. */
export function useSizeDraft(first: string): {
  text: string;
  setText: (text: string) => void;
  read: SizeDraft;
} {
  const [text, setText] = useState(first);
  return { text, setText, read: readGridSize(text, MAX_STUDS) };
}

/** A width and a depth in one field, with the whole studs that it comes to and what is left of it. */
export function GridSizeField({
  draft: { text, setText, read },
  label,
}: {
  draft: ReturnType<typeof useSizeDraft>;
  label: string;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block pb-0.5">
        {label}
      </label>
      <input
        id={id}
        className="input input-sm w-full fig"
        autoComplete="off"
        value={text}
        maxLength={80}
        placeholder="42 × 55 cm"
        aria-invalid={!read.ok}
        aria-describedby={`${id}-read`}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      <p
        id={`${id}-read`}
        role="status"
        className={`text-xs pt-0.5 min-h-8 ${read.ok || text === '' ? 'ink-2' : 'text-error'}`}
      >
        {text === '' ? 'In studs, mm, cm or inches.' : read.ok ? <SizeRead size={read.size} /> : read.error}
      </p>
    </div>
  );
}

function SizeRead({ size: { w, d, room, left, nearest } }: { size: GridSize }) {
  const inches = useView(({ metric }) => metric === 'in');
  const length = (nanometres: number) => (inches ? formatInches(nanometres) : formatMm(nanometres));
  const outer = (one: number, other: number) => `${length(outerSize(one))} × ${length(outerSize(other))}`;
  if (!room)
    return (
      <>
        {w} × {d} studs: {outer(w, d)}, {((w * d * MM_PER_STUD ** 2) / 1e6).toFixed(2)} m².
      </>
    );
  return (
    <>
      <b>
        {w} × {d} studs
      </b>{' '}
      fit: {outer(w, d)}. Left over: {length(left.w)} and {length(left.d)}.
      {nearest && (
        <>
          {' '}
          {nearest.w} × {nearest.d} studs are nearer and stand{' '}
          {length(Math.max(nearest.over.w, nearest.over.d))} over.
        </>
      )}
    </>
  );
}
