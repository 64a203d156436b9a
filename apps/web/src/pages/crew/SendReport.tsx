import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { fileName } from '@quarry/core/formats';
import type { Rect } from '@quarry/core/grid';
import { reportMarkdown, type SinceReport } from '@quarry/core/history';
import { dateIn } from '@quarry/core/progress';
import { listOf } from '@quarry/core/document';
import { keys } from '../../data/api.ts';
import { crewApi } from '../../data/crewApi.ts';
import { usePaper } from '../../data/sheets.ts';
import { freshId, useDisplay, useEdit, useLink, useIsPlanner } from '../../data/useDisplay.tsx';
import { localZone } from '../../ui/clock.ts';
import { Trouble } from '../../ui/forms.tsx';
import { Heading } from '../../ui/parts.tsx';
import { save } from '../../ui/save.ts';

/** The longest text that is sent, characters. */
const MAX_TEXT = 20_000;

/** Editing and sending a report: introduction or whole text; sent, published, exported. */
export function SendReport({
  report,
  made,
  since,
  sinceAt,
  section,
  now,
  playing,
  changed,
}: {
  /** The report with people's names or without. */
  report: (names: boolean) => SinceReport;
  made: SinceReport;
  since: number;
  sinceAt: number | null;
  section: string | null;
  now: number;
  /** The odds are still being worked out. */
  playing: boolean;
  /** Where the plan changed, studs. */
  changed: readonly Rect[];
}) {
  const people = listOf(
    useDisplay(({ scene }) => scene),
    'person',
  );
  const me = useDisplay(({ actor }) => actor.person);
  const share = useShareNames();
  const edit = useEdit();
  const link = useLink();
  const paper = usePaper();
  const plans = useIsPlanner();
  const [words, setWords] = useState('');
  /** The edited text; null: as computed. */
  const [edited, setEdited] = useState<string | null>(null);
  const [published, setPublished] = useState(false);
  /** People whom a text for the public would name although it may not. */
  const named =
    published && !share ? people.map((one) => one.name).filter((one) => (edited ?? words).includes(one)) : [];
  const name = `${made.title}, ${dateIn(now, localZone())}`;
  const print = useMutation({
    mutationFn: () =>
      crewApi.reportSheet(
        link.id,
        { report: made, words: edited ?? words, whole: edited !== null, changed },
        paper,
      ),
    onSuccess: (file) => save(file, fileName([name], 'pdf')),
  });
  const send = () => {
    const text = (edited ?? reportMarkdown(report(published ? share : true), words)).slice(0, MAX_TEXT);
    edit.add('sent a report', 'report', freshId('report'), {
      ...{ name: name.slice(0, 80), section, from: since, upto: made.upto, by: me, text, published },
      fromAt: sinceAt === null ? null : new Date(sinceAt).toISOString(),
      at: new Date().toISOString(),
    });
  };
  return (
    <>
      <Heading aside={playing ? 'working out the odds …' : undefined}>Send it</Heading>
      {edited !== null && (
        <label>
          <span className="block pb-0.5">The whole text, as Markdown</span>
          <textarea
            className="textarea textarea-sm w-full font-mono text-xs"
            rows={16}
            maxLength={MAX_TEXT}
            value={edited}
            onChange={(event) => setEdited(event.currentTarget.value)}
          />
        </label>
      )}
      <button
        type="button"
        className="btn btn-xs mb-1"
        disabled={playing}
        onClick={() =>
          setEdited(
            edited === null
              ? reportMarkdown(report(published ? share : true), words).slice(0, MAX_TEXT)
              : null,
          )
        }
      >
        {edited === null ? 'Edit the whole text' : 'Back to what is worked out'}
      </button>
      {named.length > 0 && (
        <p role="alert" className="text-error text-xs">
          The public page names nobody, but this text names {named.join(', ')}: take that out, or allow names
          under Crew, People.
        </p>
      )}
      <label className={edited === null ? '' : 'hidden'}>
        <span className="block pb-0.5">A few words above it</span>
        <textarea
          className="textarea textarea-sm w-full"
          rows={4}
          maxLength={4000}
          value={words}
          onChange={(event) => setWords(event.currentTarget.value)}
        />
      </label>
      {plans && (
        <>
          <label className="flex items-center gap-1.5 py-1">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={published}
              onChange={(event) => setPublished(event.currentTarget.checked)}
            />
            Also on the page for the public{share ? '' : ', without names'}
          </label>
          <button
            type="button"
            className="btn btn-sm btn-primary"
            disabled={playing || named.length > 0}
            onClick={send}
          >
            Send the report
          </button>
        </>
      )}
      <div className="flex gap-2 py-2">
        <button
          type="button"
          className="btn btn-xs"
          onClick={() =>
            save(
              new Blob([edited ?? reportMarkdown(made, words)], { type: 'text/markdown' }),
              fileName([name], 'md'),
            )
          }
        >
          Markdown
        </button>
        <button
          type="button"
          className="btn btn-xs"
          disabled={print.isPending}
          onClick={() => print.mutate()}
        >
          PDF
        </button>
      </div>
      <Trouble error={print.error} />
    </>
  );
}

/** Whether the public page names people. */
function useShareNames(): boolean {
  const link = useLink();
  const share = useQuery({ queryKey: keys.share(link.id), queryFn: () => crewApi.share(link.id) });
  return share.data?.names ?? false;
}
