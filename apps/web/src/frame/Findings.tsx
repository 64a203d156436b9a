import { format, parseISO } from 'date-fns';
import { X } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { EvaluatedFinding, Page, Severity } from '@quarry/core/findings';
import { freshId, useDisplay, useEdit, useLink, useDenialReason, useScene } from '../data/useDisplay.tsx';
import { useView, type Picked } from '../data/view.ts';
import { useMeasureFormat } from '../ui/useMeasureFormat.ts';
import { Basis, Empty, Heading, Loading, SEVERITY } from '../ui/parts.tsx';
import { useDerived } from '../workers/derived.tsx';
import { PAGES } from './pages.ts';

/** Counts of open (not accepted) findings, by severity. */
export function countOpen(findings: readonly EvaluatedFinding[]): Record<Severity, number> {
  const count = { error: 0, warning: 0, note: 0 };
  for (const { severity, accepted } of findings) if (!accepted) count[severity]++;
  return count;
}

/** The one list of findings: filtered by page, gone to with a click, kept with a reason. */
export function FindingsPanel({ onClose, page }: { onClose: () => void; page: Page | null }) {
  const judgement = useDerived(({ judgement }) => judgement);
  const error = useDerived(({ error }) => error);
  const [only, setOnly] = useState<Page | null>(null);
  const findings = judgement?.findings ?? [];
  const shown = findings.filter((finding) => only === null || finding.page === only);
  const open = shown.filter(({ accepted }) => !accepted);
  const kept = shown.filter(({ accepted }) => accepted);
  const total = countOpen(findings);
  return (
    <aside
      aria-label="Findings"
      className="fixed inset-0 sm:inset-y-11 sm:left-auto sm:right-0 sm:bottom-0 sm:w-[25rem] bg-base-100 border-l hair z-30 flex flex-col"
      onKeyDown={(event) => event.key === 'Escape' && onClose()}
    >
      <div className="flex items-center justify-between px-3 py-2 border-b hair">
        <h2 className="font-semibold text-sm">
          {total.error + total.warning + total.note} findings{' '}
          <span className="ink-2 font-normal">
            {total.error} errors, {total.warning} warnings
          </span>
        </h2>
        <button
          type="button"
          className="btn btn-xs btn-ghost btn-square"
          onClick={onClose}
          aria-label="Close the findings"
        >
          <X size={14} aria-hidden />
        </button>
      </div>
      <div
        className="flex flex-wrap gap-1 px-3 py-2 border-b hair"
        role="group"
        aria-label="Show findings of"
      >
        <Filter
          on={only === null}
          onClick={() => setOnly(null)}
          word="All"
          count={findings.filter(({ accepted }) => !accepted).length}
        />
        {PAGES.map(({ id, word }) => {
          const count = findings.filter((finding) => finding.page === id && !finding.accepted).length;
          return (
            <Filter
              key={id}
              on={only === id}
              onClick={() => setOnly(id)}
              word={word}
              count={count}
              here={id === page}
            />
          );
        })}
      </div>
      <div className="overflow-auto flex-1 px-3 py-2">
        {error && (
          <p role="alert" className="text-error">
            The scene could not be checked: {error}
          </p>
        )}
        {!judgement && !error && <Loading what="Checking the scene" />}
        {judgement && open.length === 0 && (
          <Empty title="Nothing is wrong here">
            Every check of {only ?? 'every page'} passes or has been accepted.
          </Empty>
        )}
        <ul className="flex flex-col gap-2">
          {open.map((finding) => (
            <FindingItem key={finding.key} finding={finding} onGone={onClose} />
          ))}
        </ul>
        {kept.length > 0 && (
          <>
            <h3 className="font-semibold pt-4 pb-1">Known and kept</h3>
            <ul className="flex flex-col gap-2">
              {kept.map((finding) => (
                <FindingItem key={finding.key} finding={finding} onGone={onClose} />
              ))}
            </ul>
          </>
        )}
      </div>
    </aside>
  );
}

function Filter({
  on,
  onClick,
  word,
  count,
  here,
}: {
  on: boolean;
  onClick: () => void;
  word: string;
  count: number;
  here?: boolean;
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={onClick}
      className={`btn btn-xs ${on ? 'btn-neutral' : 'btn-ghost border hair'}`}
    >
      <span className={here ? 'underline underline-offset-2' : ''}>{word}</span>{' '}
      <span className="fig">{count}</span>
    </button>
  );
}

/** One finding: the sentence, the remedy, where it is, how it was found, and keeping it. */
export function FindingItem({ finding, onGone }: { finding: EvaluatedFinding; onGone?: () => void }) {
  const scene = useScene('person', 'acceptance');
  const actor = useDisplay(({ actor }) => actor);
  const link = useLink();
  const edit = useEdit();
  const may = useDenialReason();
  const view = useView();
  const navigate = useNavigate();
  const [keeping, setKeeping] = useState(false);
  const [reason, setReason] = useState('');
  const judgement = useDerived(({ judgement }) => judgement);
  const { tell } = useMeasureFormat();
  const look = SEVERITY[finding.severity];
  const forbids = may({ op: 'add', kind: 'acceptance', id: 'a', data: {} });
  // What stands in the room is shown on the Survey; what has a place in the scene, on the Plan.
  const target = finding.place && finding.page !== 'survey' ? 'plan' : finding.page;
  const go = () => {
    view.show(finding.place, finding.things[0] ?? null);
    void navigate(`/d/${link.id}/${target}`);
    if (window.innerWidth < 640) onGone?.();
  };
  const keep = () => {
    const by = actor.person ? (scene.person[actor.person]?.name ?? '') : '';
    const data = {
      finding: finding.key,
      fingerprint: finding.fingerprint,
      reason: reason.trim(),
      by,
      at: new Date().toISOString(),
    };
    if (edit.add(`kept a finding: ${finding.rule}`, 'acceptance', freshId('acceptance'), data))
      setKeeping(false);
  };
  return (
    <li className={`border-l-[3px] ${look.border} bg-base-200 px-2.5 py-1.5`}>
      <p>
        <span className={`${look.text} font-semibold`}>
          <span aria-hidden>{look.mark}</span> {look.word}.
        </span>{' '}
        {tell(finding.sentence)}
      </p>
      {finding.accepted ? (
        <p className="ink-2 pt-0.5">
          Kept{finding.accepted.by && ` by ${finding.accepted.by}`}
          {finding.accepted.at && `, ${format(parseISO(finding.accepted.at), 'd MMM')}`}:{' '}
          {finding.accepted.reason}
        </p>
      ) : (
        <p className="text-secondary pt-0.5">{tell(finding.remedy)}</p>
      )}
      {finding.lapsed && (
        <p className="ink-2 pt-0.5">Was kept («{finding.lapsed}»), but its numbers have changed.</p>
      )}
      <div className="flex flex-wrap gap-x-3 items-center pt-0.5">
        <button type="button" className="link link-hover text-secondary font-semibold" onClick={go}>
          {target === 'plan'
            ? 'Show on the plan'
            : `${target === 'survey' ? 'Show on the' : 'Go to'} ${PAGES.find(({ id }) => id === target)?.word}`}
        </button>
        <Link
          className="link link-hover ink-2"
          to={`/d/${link.id}/crew?sheet=advice&new=&finding=${encodeURIComponent(finding.key)}`}
          onClick={onGone}
        >
          Ask the crew
        </Link>
        {finding.accepted
          ? !forbids && (
              <button
                type="button"
                className="link link-hover ink-2"
                onClick={() =>
                  finding.accepted &&
                  edit.remove(
                    'reopened a finding',
                    'acceptance',
                    finding.accepted.id,
                    scene.acceptance[finding.accepted.id]?.v ?? 1,
                  )
                }
              >
                Reopen
              </button>
            )
          : !forbids &&
            !keeping && (
              <button type="button" className="link link-hover ink-2" onClick={() => setKeeping(true)}>
                Accept with a reason …
              </button>
            )}
      </div>
      {keeping && (
        <form
          className="flex gap-1 py-1"
          onSubmit={(event) => {
            event.preventDefault();
            if (reason.trim()) keep();
          }}
        >
          <input
            autoFocus
            className="input input-xs flex-1"
            aria-label="Why is it kept?"
            placeholder="Why is it kept?"
            maxLength={500}
            value={reason}
            onChange={(event) => setReason(event.currentTarget.value)}
          />
          <button type="submit" className="btn btn-xs btn-primary" disabled={reason.trim() === ''}>
            Keep
          </button>
        </form>
      )}
      <Basis>{judgement?.basis[finding.rule]}</Basis>
    </li>
  );
}

/** The findings about one thing, under its data sheet. */
export function FindingsHere({ picked }: { picked: Picked }) {
  const judgement = useDerived(({ judgement }) => judgement);
  const here =
    judgement?.findings.filter(({ things }) =>
      things.some(({ kind, id }) => kind === picked.kind && id === picked.id),
    ) ?? [];
  if (here.length === 0) return null;
  return (
    <>
      <Heading>Findings here</Heading>
      <ul className="flex flex-col gap-2">
        {here.map((finding) => (
          <FindingItem key={finding.key} finding={finding} />
        ))}
      </ul>
    </>
  );
}
