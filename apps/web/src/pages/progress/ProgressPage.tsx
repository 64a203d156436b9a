import { Link, useSearchParams } from 'react-router';
import { lazy, Suspense } from 'react';
import { useLink } from '../../data/useDisplay.tsx';
import { Loading } from '../../ui/parts.tsx';
import { Tabs } from '../../ui/Tabs.tsx';
import { AgendaPanel } from './AgendaPanel.tsx';
import { DayPanel } from './DayPanel.tsx';
import { PhotosPanel } from './PhotosPanel.tsx';
import { SectionsPanel } from './SectionsPanel.tsx';
import { SessionsPanel } from './SessionsPanel.tsx';
import { TasksPanel } from './TasksPanel.tsx';
import { TonightPanel } from './TonightPanel.tsx';

/** The charts are large and loaded only when opened. */
const OutlookPanel = lazy(() =>
  import('./OutlookPanel.tsx').then((file) => ({ default: file.OutlookPanel })),
);

const SHEETS = [
  { id: 'sections', word: 'Sections', Panel: SectionsPanel },
  { id: 'tonight', word: 'Tonight', Panel: TonightPanel },
  { id: 'sessions', word: 'Sessions', Panel: SessionsPanel },
  { id: 'tasks', word: 'Tasks', Panel: TasksPanel },
  { id: 'outlook', word: 'Outlook', Panel: OutlookPanel },
  { id: 'agenda', word: 'Agenda', Panel: AgendaPanel },
  { id: 'photos', word: 'Photos', Panel: PhotosPanel },
  { id: 'day', word: 'One day', Panel: DayPanel },
] as const;

/** Where each section is, what sessions took, what to do tonight, and when it will be done. */
export function ProgressPage() {
  const [query, setQuery] = useSearchParams();
  const link = useLink();
  const asked = query.get('sheet');
  const { id, word, Panel } = SHEETS.find((sheet) => sheet.id === asked) ?? SHEETS[0];
  return (
    <div className="h-full grid grid-rows-[36px_minmax(0,1fr)]">
      <div className="flex items-center justify-between gap-4 px-2 bg-base-100 border-b hair overflow-x-auto">
        <Tabs label="Progress" look="bar" tabs={SHEETS} open={id} onOpen={(sheet) => setQuery({ sheet })} />
        <Link className="link whitespace-nowrap pr-2" to={`/d/${link.id}/crew?sheet=report`}>
          Write the update
        </Link>
      </div>
      <section role="tabpanel" aria-label={word} className="min-h-0 overflow-auto bg-base-100">
        <Suspense fallback={<Loading what="Opening the charts" />}>
          <Panel />
        </Suspense>
      </section>
    </div>
  );
}
