import { format } from 'date-fns';
import { History } from 'lucide-react';
import { useHotkeys } from 'react-hotkeys-hook';
import { ON_BOARD, focusBoard } from '../../board/boardKeys.ts';
import { useDisplay, useLink } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { Menu } from './Toolbar.tsx';

/** Keeps the plan as it is now, to flip between it and what comes of it. */
export function BeforeBar() {
  const scene = useDisplay(({ scene }) => scene);
  const { id } = useLink();
  const { before, showsBefore, keepBefore, flip } = useView();
  const kept = before?.display === id ? before : null;
  useHotkeys('x', () => kept && flip(!showsBefore), ON_BOARD);
  return (
    <>
      {kept && (
        <button
          type="button"
          aria-pressed={showsBefore}
          title="Flip (X)"
          className={`btn btn-xs h-7 px-1.5 ${showsBefore ? 'btn-neutral' : 'btn-ghost'}`}
          onClick={() => {
            flip(!showsBefore);
            focusBoard();
          }}
        >
          {showsBefore ? kept.kept : 'Now'}{' '}
          <kbd className="fig font-normal text-[10px] uppercase opacity-80">x</kbd>
        </button>
      )}
      <Menu name="Before and now" worded={false} end label={<History size={13} aria-hidden />}>
        {(close) => (
          <div className="p-1 w-60">
            <p className="ink-2 text-xs pb-1">
              Keep the plan as it is, work on, and flip between then and now (X). It is kept in this browser
              until the page is closed.
            </p>
            <button
              type="button"
              className="btn btn-xs w-full"
              onClick={() => {
                keepBefore({ display: id, scene, kept: `Before, ${format(new Date(), 'HH:mm')}` });
                close();
              }}
            >
              {kept ? 'Keep this moment instead' : 'Keep this moment'}
            </button>
            {kept && (
              <button type="button" className="btn btn-xs btn-ghost w-full" onClick={() => keepBefore(null)}>
                Forget it
              </button>
            )}
          </div>
        )}
      </Menu>
    </>
  );
}
