import { useSearchParams } from 'react-router';
import { displayOf } from '@quarry/core/document';
import { useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { DatesSheet } from './DatesSheet.tsx';
import { RulesSheet } from './RulesSheet.tsx';
import { ScaleSheet } from './ScaleSheet.tsx';
import { SpaceSheet } from './SpaceSheet.tsx';
import { Tabs } from '../../ui/Tabs.tsx';

const SHEETS = [
  { id: 'rules', word: 'Rules', Sheet: RulesSheet },
  { id: 'scale', word: 'Scale', Sheet: ScaleSheet },
  { id: 'space', word: 'Space and vehicles', Sheet: SpaceSheet },
  { id: 'dates', word: 'Dates and people', Sheet: DatesSheet },
] as const;

/** The brief, on four sheets. The open one is part of the address, so that it can be linked. */
export function BriefPage() {
  const scene = useScene('display');
  const may = useDenialReason();
  const [search, setSearch] = useSearchParams();
  const display = displayOf(scene);
  const disabled = may({ op: 'patch', kind: 'display', id: 'display', v: display.v, set: {} }) !== null;
  const open = SHEETS.find(({ id }) => id === search.get('sheet')) ?? SHEETS[0];
  return (
    <div className="max-w-[1400px]">
      <Tabs
        label="Sheets of the brief"
        look="line"
        className="gap-1 px-4 pt-1 border-b hair overflow-x-auto"
        each="px-3"
        tabs={SHEETS}
        open={open.id}
        onOpen={(sheet) => setSearch({ sheet }, { replace: true })}
      />
      <div role="tabpanel" aria-label={open.word} className="p-4">
        <open.Sheet disabled={disabled} />
      </div>
    </div>
  );
}
