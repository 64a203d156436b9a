import { type ComponentType } from 'react';
import { displayOf } from '@quarry/core/document';
import { useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { DatesSheet } from './DatesSheet.tsx';
import { RulesSheet } from './RulesSheet.tsx';
import { PAGE_SHEETS, type SheetOf } from '../../frame/pages.ts';
import { useSheet } from '../../frame/useSheet.ts';
import { Tabs } from '../../ui/Tabs.tsx';
import { later } from '../../ui/later.tsx';

// Asked for while a display begins: they come when they are opened.
const ScaleSheet = later(
  () => import('./ScaleSheet.tsx').then((file) => file.ScaleSheet),
  'Opening the sheet',
);
const CastSheet = later(() => import('./CastSheet.tsx').then((file) => file.CastSheet), 'Opening the sheet');
const VersionsSheet = later(
  () => import('./VersionsSheet.tsx').then((file) => file.VersionsSheet),
  'Opening the sheet',
);
const SpaceSheet = later(
  () => import('./SpaceSheet.tsx').then((file) => file.SpaceSheet),
  'Opening the sheet',
);

const PANELS = {
  rules: RulesSheet,
  scale: ScaleSheet,
  space: SpaceSheet,
  dates: DatesSheet,
  cast: CastSheet,
  versions: VersionsSheet,
} satisfies Record<SheetOf<'brief'>, ComponentType<{ disabled: boolean }>>;

/** The brief, on six sheets. The open one is part of the address, so that it can be linked. */
export function BriefPage() {
  const scene = useScene('display');
  const may = useDenialReason();
  const { sheet, word, open } = useSheet('brief');
  const Panel = PANELS[sheet];
  const display = displayOf(scene);
  const disabled = may({ op: 'patch', kind: 'display', id: 'display', v: display.v, set: {} }) !== null;
  return (
    <div className="max-w-[1400px]">
      <Tabs
        label="Sheets of the brief"
        look="line"
        className="px-4 pt-1 border-b hair"
        each="px-3"
        tabs={PAGE_SHEETS.brief}
        open={sheet}
        onOpen={open}
      />
      <div role="tabpanel" aria-label={word} className="p-4">
        <Panel disabled={disabled} />
      </div>
    </div>
  );
}
