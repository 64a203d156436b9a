import { Suspense, lazy, type ComponentType } from 'react';
import { displayOf } from '@quarry/core/document';
import { useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { DatesSheet } from './DatesSheet.tsx';
import { RulesSheet } from './RulesSheet.tsx';
import { PAGE_SHEETS, type SheetOf } from '../../frame/pages.ts';
import { useSheet } from '../../frame/useSheet.ts';
import { Loading } from '../../ui/parts.tsx';
import { Tabs } from '../../ui/Tabs.tsx';

// Asked for while a display begins: they come when they are opened.
const ScaleSheet = lazy(() => import('./ScaleSheet.tsx').then((file) => ({ default: file.ScaleSheet })));
const CastSheet = lazy(() => import('./CastSheet.tsx').then((file) => ({ default: file.CastSheet })));
const VersionsSheet = lazy(() =>
  import('./VersionsSheet.tsx').then((file) => ({ default: file.VersionsSheet })),
);
const SpaceSheet = lazy(() => import('./SpaceSheet.tsx').then((file) => ({ default: file.SpaceSheet })));

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
        <Suspense fallback={<Loading what="Opening the sheet" />}>
          <Panel disabled={disabled} />
        </Suspense>
      </div>
    </div>
  );
}
