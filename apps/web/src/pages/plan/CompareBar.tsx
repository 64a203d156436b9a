import { X } from 'lucide-react';
import { useHotkeys } from 'react-hotkeys-hook';
import { ON_BOARD, focusBoard } from '../../board/boardKeys.ts';
import { useView } from '../../data/view.ts';
import type { Compared } from './useComparison.ts';

/** While the plan is compared: which of both is shown, what differs, and the end of it. */
export function CompareBar({ compared }: { compared: Compared }) {
  const { compare } = useView();
  const { comparison, other, own, words } = compared;
  const { shows } = comparison;
  const show = (next: typeof shows) => {
    compare({ ...comparison, shows: next });
    focusBoard();
  };
  useHotkeys('x', () => show(shows === 'other' ? 'now' : 'other'), ON_BOARD);
  const choice = (value: typeof shows, word: string) => (
    <button
      type="button"
      className={`btn btn-xs join-item max-w-40 ${shows === value ? 'btn-neutral' : ''}`}
      aria-pressed={shows === value}
      title={value === 'both' ? undefined : 'X flips between both'}
      onClick={() => show(value)}
    >
      <span className="truncate">{word}</span>
    </button>
  );
  return (
    <div
      role="region"
      aria-label="Comparison"
      className="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 py-1 bg-base-100 border-b hair text-xs"
    >
      <span className="join" role="group" aria-label="Shown on the plan">
        {choice('other', other)}
        {choice('both', 'Both')}
        {choice('now', own)}
      </span>
      <span role="status">{words ?? 'Compiling the other ground …'}</span>
      <span className="flex-1" />
      <button
        type="button"
        className="btn btn-xs btn-ghost"
        aria-label="End the comparison"
        onClick={() => {
          compare(null);
          focusBoard();
        }}
      >
        <X size={14} aria-hidden />
      </button>
    </div>
  );
}
