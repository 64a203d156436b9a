import { useSearchParams } from 'react-router';
import { displayOf } from '@quarry/core/scene';
import { useDisplay, useMay } from '../../data/useDisplay.tsx';
import { DatesSheet } from './DatesSheet.tsx';
import { RulesSheet } from './RulesSheet.tsx';
import { ScaleSheet } from './ScaleSheet.tsx';
import { SpaceSheet } from './SpaceSheet.tsx';

const SHEETS = [
  { id: 'rules', word: 'Rules', Sheet: RulesSheet },
  { id: 'scale', word: 'Scale', Sheet: ScaleSheet },
  { id: 'space', word: 'Space and vehicles', Sheet: SpaceSheet },
  { id: 'dates', word: 'Dates and people', Sheet: DatesSheet },
] as const;

/** The brief, on four sheets. Which one is open stands in the address, so that it can be sent to somebody. */
export function BriefPage() {
  const scene = useDisplay(({ scene }) => scene);
  const may = useMay();
  const [search, setSearch] = useSearchParams();
  const display = displayOf(scene);
  const disabled = may({ op: 'patch', kind: 'display', id: 'display', v: display.v, set: {} }) !== null;
  const open = SHEETS.find(({ id }) => id === search.get('sheet')) ?? SHEETS[0];
  return (
    <div className="max-w-[1400px]">
      <div
        role="tablist"
        aria-label="Sheets of the brief"
        className="flex gap-1 px-4 pt-2 border-b hair overflow-x-auto"
      >
        {SHEETS.map(({ id, word }) => (
          <button
            key={id}
            type="button"
            role="tab"
            aria-selected={id === open.id}
            className={`px-3 h-8 whitespace-nowrap border-b-2 cursor-pointer ${id === open.id ? 'border-primary font-semibold' : 'border-transparent ink-2 hover:text-base-content'}`}
            onClick={() => setSearch({ sheet: id }, { replace: true })}
          >
            {word}
          </button>
        ))}
      </div>
      <div role="tabpanel" aria-label={open.word} className="p-4">
        <open.Sheet disabled={disabled} />
      </div>
    </div>
  );
}
