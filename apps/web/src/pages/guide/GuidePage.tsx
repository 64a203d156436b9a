import { useState } from 'react';
import Markdown from 'react-markdown';
import { Link, useNavigate } from 'react-router';
import city from '../../../../../docs/guide/city.md?raw';
import group from '../../../../../docs/guide/group.md?raw';
import otterHolt from '../../../../../docs/guide/otter-holt.quarry.json?raw';
import weekend from '../../../../../docs/guide/weekend.md?raw';
import { api } from '../../data/api.ts';
import { Tabs } from '../../ui/Tabs.tsx';
import { Trouble } from '../../ui/forms.tsx';

const PARTS = [
  { id: 'weekend', word: 'The weekend builder', text: weekend },
  { id: 'city', word: 'The city keeper', text: city },
  { id: 'group', word: 'The lead of a group', text: group },
] as const;

/** One worked example for each of three people, the first with a display to follow it on. */
export function GuidePage() {
  const navigate = useNavigate();
  const [open, setOpen] = useState<(typeof PARTS)[number]['id']>('weekend');
  const [trouble, setTrouble] = useState<Error | null>(null);
  const part = PARTS.find(({ id }) => id === open) ?? PARTS[0];
  const follow = () => {
    setTrouble(null);
    api.importDisplay(otterHolt).then(
      ({ id }) => void navigate(`/d/${id}/brief`),
      (error: unknown) => setTrouble(error instanceof Error ? error : new Error(String(error))),
    );
  };
  return (
    <main className="max-w-3xl mx-auto p-4 sm:p-8">
      <div className="flex items-center gap-3 pb-2 border-b border-base-content">
        <Link to="/" aria-label="All displays" className="act">
          <img src="/mark.svg" alt="" width={24} height={24} />
        </Link>
        <span className="text-lg font-bold flex-1">Guide</span>
        <Link to="/" className="act link link-hover">
          Displays
        </Link>
      </div>
      <Tabs label="Examples" look="line" each="px-3" tabs={PARTS} open={open} onOpen={setOpen} />
      <section role="tabpanel" aria-label={part.word} className="report text-sm leading-6 pt-2">
        {open === 'weekend' && (
          <p>
            <button type="button" className="btn btn-sm" onClick={follow}>
              Open this example as a display of your own
            </button>
          </p>
        )}
        <Trouble error={trouble} />
        <Markdown>{part.text}</Markdown>
      </section>
    </main>
  );
}
