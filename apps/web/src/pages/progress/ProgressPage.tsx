import { useSearchParams } from 'react-router';
import { Tabs } from '../../ui/Tabs.tsx';
import { OutlookPanel } from './OutlookPanel.tsx';
import { SectionsPanel } from './SectionsPanel.tsx';
import { SessionsPanel } from './SessionsPanel.tsx';

const SHEETS = [
  { id: 'sections', word: 'Sections' },
  { id: 'sessions', word: 'Sessions' },
  { id: 'outlook', word: 'Outlook' },
] as const;

/** Where each section is, what sessions took, and when it will be done. */
export function ProgressPage() {
  const [query, setQuery] = useSearchParams();
  const asked = query.get('sheet');
  const sheet = SHEETS.find(({ id }) => id === asked) ?? SHEETS[0];
  return (
    <div className="h-full grid grid-rows-[36px_minmax(0,1fr)]">
      <div className="flex items-center px-2 bg-base-100 border-b hair overflow-x-auto">
        <Tabs
          label="Progress"
          look="bar"
          tabs={SHEETS}
          open={sheet.id}
          onOpen={(id) => setQuery({ sheet: id })}
        />
      </div>
      <section role="tabpanel" aria-label={sheet.word} className="min-h-0 overflow-auto bg-base-100">
        {sheet.id === 'sections' && <SectionsPanel />}
        {sheet.id === 'sessions' && <SessionsPanel />}
        {sheet.id === 'outlook' && <OutlookPanel />}
      </section>
    </div>
  );
}
