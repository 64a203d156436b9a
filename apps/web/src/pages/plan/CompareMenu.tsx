import { format } from 'date-fns';
import { History } from 'lucide-react';
import { useDisplay, useLink } from '../../data/useDisplay.tsx';
import { otherVersions } from '../../data/versions.ts';
import { useView } from '../../data/view.ts';
import { Menu } from './Toolbar.tsx';

/** Keeps the plan as it is now, and compares it with what was kept or with another version. */
export function CompareMenu() {
  const scene = useDisplay(({ scene: now }) => now);
  const base = useDisplay((state) => state.base);
  const shown = useDisplay(({ version }) => version?.id ?? null);
  const { id: display } = useLink();
  const { before, keepBefore, compare } = useView();
  const kept = before?.display === display ? before : null;
  const versions = otherVersions(base, shown);
  return (
    <Menu name="Compare" worded={false} end label={<History size={13} aria-hidden />}>
      {(close) => {
        const item = (word: string, act: () => void) => (
          <button
            key={word}
            type="button"
            className="btn btn-xs btn-ghost w-full justify-start"
            onClick={() => {
              act();
              close();
            }}
          >
            <span className="truncate">{word}</span>
          </button>
        );
        return (
          <div className="p-1 w-60">
            <p className="ink-2 text-xs pb-1">
              Keep the plan as it is and work on: then and now lie side by side on the plan. It is kept in
              this browser until the page is closed.
            </p>
            {item(kept ? 'Keep this moment instead' : 'Keep this moment', () =>
              keepBefore({ display, scene, kept: `Before, ${format(new Date(), 'HH:mm')}` }),
            )}
            {kept &&
              item(`Compare with ${kept.kept}`, () => compare({ display, with: 'moment', shows: 'both' }))}
            {kept && item('Forget it', () => keepBefore(null))}
            {versions.length > 0 && <hr className="hair my-1" />}
            {versions.map(({ id, name }) =>
              item(`Compare with ${name}`, () =>
                compare({ display, with: 'version', version: id, shows: 'both' }),
              ),
            )}
          </div>
        );
      }}
    </Menu>
  );
}
