import { Info } from 'lucide-react';
import { useEffect, useRef, type ReactNode } from 'react';
import type { Severity } from '@quarry/core/findings';
import { useView } from '../data/view.ts';
import { formatMeasure, formatOtherMeasure, type Measure } from './quantity.ts';

export { Failure, Loading, Spinner } from './states.tsx';

/** A line of a data sheet: what it is at the left, the figure at the right. */
export function DefinitionRow({
  label,
  children,
  note,
}: {
  label: ReactNode;
  children: ReactNode;
  note?: ReactNode;
}) {
  return (
    <div className="flex items-baseline justify-between gap-3 border-b hair py-1">
      <dt>{label}</dt>
      <dd className="fig text-right">
        {children}
        {note && <div className="ink-2 text-[11px] leading-4">{note}</div>}
      </dd>
    </div>
  );
}

/** A length in its own words with the other unit beside it, smaller. */
export function Quantity({ value, measure }: { value: number; measure: Measure }) {
  const metric = useView((view) => view.metric);
  return (
    <span className="fig whitespace-nowrap">
      {formatMeasure(value, measure, metric)}{' '}
      <span className="ink-2 text-[11px]">{formatOtherMeasure(value, measure, metric)}</span>
    </span>
  );
}

export function Heading({ children, aside, id }: { children: ReactNode; aside?: ReactNode; id?: string }) {
  return (
    <div className="flex items-baseline justify-between gap-2 pb-1 not-first:pt-4">
      <h2 id={id} className="font-semibold text-[13px]">
        {children}
      </h2>
      {aside && <span className="ink-2 text-xs">{aside}</span>}
    </div>
  );
}

/** How a number was made, in reach but out of the way. */
export function Basis({ children }: { children: ReactNode }) {
  return (
    <details className="text-xs ink-2">
      <summary className="cursor-pointer inline-flex items-center gap-1 py-0.5">
        <Info size={12} aria-hidden /> How is this number made?
      </summary>
      <p className="pb-1 max-w-prose">{children}</p>
    </details>
  );
}

/** What to do first, where there is nothing yet. */
export function Empty({ title, children, act }: { title: string; children: ReactNode; act?: ReactNode }) {
  return (
    <div className="border border-dashed hair p-4 my-2 max-w-prose">
      <p className="font-semibold">{title}</p>
      <p className="ink-2 py-1">{children}</p>
      {act}
    </div>
  );
}

export const SEVERITY: Record<Severity, { word: string; mark: string; text: string; border: string }> = {
  error: { word: 'Error', mark: '!', text: 'text-error', border: 'border-error' },
  warning: { word: 'Warning', mark: '△', text: 'text-warning', border: 'border-warning' },
  note: { word: 'Note', mark: '·', text: 'ink-2', border: 'border-base-300' },
};

/** A dialog with a heading, closed by Escape or its button; the browser keeps the focus inside. */
export function Dialog({
  title,
  open,
  onClose,
  wide = false,
  children,
}: {
  title: string;
  open: boolean;
  onClose: () => void;
  /** For a drawing: as wide as the page. */
  wide?: boolean;
  children: ReactNode;
}) {
  const ref = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const dialog = ref.current;
    if (!dialog) return;
    if (open && !dialog.open) dialog.showModal();
    if (!open && dialog.open) dialog.close();
  }, [open]);
  return (
    <dialog ref={ref} className="modal" aria-label={title} onClose={onClose}>
      <div className={`modal-box border hair p-4 shadow-none ${wide ? 'max-w-6xl w-11/12' : 'max-w-xl'}`}>
        <div className="flex justify-between items-baseline gap-4 pb-2">
          <h2 className="text-base font-semibold">{title}</h2>
          <button type="button" className="btn btn-xs btn-ghost" onClick={onClose}>
            Close
          </button>
        </div>
        {open && children}
      </div>
      <form method="dialog" className="modal-backdrop">
        <button type="submit" aria-label="Close" />
      </form>
    </dialog>
  );
}
