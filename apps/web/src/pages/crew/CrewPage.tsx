import { useUnread } from '../../frame/CrewHere.tsx';
import { PAGE_SHEETS } from '../../frame/pages.ts';
import { useSheet } from '../../frame/useSheet.ts';
import { Tabs } from '../../ui/Tabs.tsx';
import { AdvicePanel } from './AdvicePanel.tsx';
import { HoldingsPanel } from './HoldingsPanel.tsx';
import { PeoplePanel } from './PeoplePanel.tsx';
import { later } from '../../ui/later.tsx';

/** These two draw the plan as it was: the board comes with them. */
const HistoryPanel = later(
  () => import('./HistoryPanel.tsx').then((panel) => panel.HistoryPanel),
  'Opening the history',
);
const ReportPanel = later(
  () => import('./ReportPanel.tsx').then((panel) => panel.ReportPanel),
  'Opening the report',
);

/** Who is in, who holds what, what was advised and answered, what changed, and the report of it. */
export function CrewPage() {
  const { sheet, word: name, open } = useSheet('crew');
  const unread = useUnread().size;
  const word = sheet === 'advice' ? adviceWord(unread) : name;
  return (
    <div className="h-full grid grid-cols-[minmax(0,1fr)] grid-rows-[var(--bar)_minmax(0,1fr)]">
      <div className="flex items-center px-2 bg-base-100 border-b hair">
        <Tabs
          label="Crew"
          look="bar"
          tabs={PAGE_SHEETS.crew.map((tab) =>
            tab.id === 'advice' ? { ...tab, word: adviceWord(unread) } : tab,
          )}
          open={sheet}
          onOpen={open}
        />
      </div>
      <section role="tabpanel" aria-label={word} className="min-h-0 overflow-auto bg-base-100" tabIndex={-1}>
        {sheet === 'holdings' && <HoldingsPanel />}
        {sheet === 'people' && <PeoplePanel />}
        {sheet === 'advice' && <AdvicePanel />}
        {sheet === 'history' && <HistoryPanel />}
        {sheet === 'report' && <ReportPanel />}
      </section>
    </div>
  );
}

const adviceWord = (unread: number) => (unread > 0 ? `Advice, ${unread} to read` : 'Advice');
