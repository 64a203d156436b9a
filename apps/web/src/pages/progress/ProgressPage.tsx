import { Link } from 'react-router';
import { type ComponentType } from 'react';
import { useLink } from '../../data/useDisplay.tsx';
import { PAGE_SHEETS, type SheetOf } from '../../frame/pages.ts';
import { useSheet } from '../../frame/useSheet.ts';
import { Tabs } from '../../ui/Tabs.tsx';
import { AgendaPanel } from './AgendaPanel.tsx';
import { DayPanel } from './DayPanel.tsx';
import { PhotosPanel } from './PhotosPanel.tsx';
import { SectionsPanel } from './SectionsPanel.tsx';
import { SessionsPanel } from './SessionsPanel.tsx';
import { TasksPanel } from './TasksPanel.tsx';
import { TonightPanel } from './TonightPanel.tsx';
import { later } from '../../ui/later.tsx';

/** The charts are large and loaded only when opened. */
const OutlookPanel = later(
  () => import('./OutlookPanel.tsx').then((file) => file.OutlookPanel),
  'Opening the charts',
);

const PANELS = {
  sections: SectionsPanel,
  tonight: TonightPanel,
  sessions: SessionsPanel,
  tasks: TasksPanel,
  outlook: OutlookPanel,
  agenda: AgendaPanel,
  photos: PhotosPanel,
  day: DayPanel,
} satisfies Record<SheetOf<'progress'>, ComponentType>;

/** Where each section is, what sessions took, what to do tonight, and when it will be done. */
export function ProgressPage() {
  const link = useLink();
  const { sheet, word, open } = useSheet('progress');
  const Panel = PANELS[sheet];
  return (
    <div className="h-full grid grid-cols-[minmax(0,1fr)] grid-rows-[var(--bar)_minmax(0,1fr)]">
      <div className="flex items-center justify-between gap-4 px-2 bg-base-100 border-b hair">
        <Tabs label="Progress" look="bar" tabs={PAGE_SHEETS.progress} open={sheet} onOpen={open} />
        <Link className="act link whitespace-nowrap pr-2" to={`/d/${link.id}/crew?sheet=report`}>
          Write the update
        </Link>
      </div>
      <section role="tabpanel" aria-label={word} className="min-h-0 overflow-auto bg-base-100">
        <Panel />
      </section>
    </div>
  );
}
