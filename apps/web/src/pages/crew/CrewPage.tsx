import { lazy, Suspense } from 'react';
import { useSearchParams } from 'react-router';
import { useUnread } from '../../frame/CrewHere.tsx';
import { Loading } from '../../ui/parts.tsx';
import { Tabs } from '../../ui/Tabs.tsx';
import { AdvicePanel } from './AdvicePanel.tsx';
import { HoldingsPanel } from './HoldingsPanel.tsx';
import { PeoplePanel } from './PeoplePanel.tsx';

/** These two draw the plan as it was: the board comes with them. */
const HistoryPanel = lazy(() =>
  import('./HistoryPanel.tsx').then((panel) => ({ default: panel.HistoryPanel })),
);
const ReportPanel = lazy(() => import('./ReportPanel.tsx').then((panel) => ({ default: panel.ReportPanel })));

const SHEETS = ['holdings', 'people', 'advice', 'history', 'report'] as const;
type SheetId = (typeof SHEETS)[number];

/** Who is in, who holds what, what was advised and answered, what changed, and the report of it. */
export function CrewPage() {
  const [query, setQuery] = useSearchParams();
  const unread = useUnread().size;
  const asked = query.get('sheet');
  const sheet: SheetId = SHEETS.find((id) => id === asked) ?? 'holdings';
  const words: Record<SheetId, string> = {
    holdings: 'Owners',
    people: 'People',
    advice: unread > 0 ? `Advice, ${unread} to read` : 'Advice',
    history: 'History',
    report: 'Since last report',
  };
  return (
    <div className="h-full grid grid-rows-[36px_minmax(0,1fr)]">
      <div className="flex items-center px-2 bg-base-100 border-b hair overflow-x-auto">
        <Tabs
          label="Crew"
          look="bar"
          tabs={SHEETS.map((id) => ({ id, word: words[id] }))}
          open={sheet}
          onOpen={(id) => setQuery({ sheet: id })}
        />
      </div>
      <section
        role="tabpanel"
        aria-label={words[sheet]}
        className="min-h-0 overflow-auto bg-base-100"
        tabIndex={-1}
      >
        {sheet === 'holdings' && <HoldingsPanel />}
        {sheet === 'people' && <PeoplePanel />}
        {sheet === 'advice' && <AdvicePanel />}
        {sheet === 'history' && (
          <Suspense fallback={<Loading what="Opening the history" />}>
            <HistoryPanel />
          </Suspense>
        )}
        {sheet === 'report' && (
          <Suspense fallback={<Loading what="Opening the report" />}>
            <ReportPanel />
          </Suspense>
        )}
      </section>
    </div>
  );
}
