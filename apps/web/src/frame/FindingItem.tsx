import { format, parseISO } from 'date-fns';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { EvaluatedFinding } from '@quarry/core/findings';
import { useDisplay, useEdit, useLink, useDenialReason, useScene } from '../data/useDisplay.tsx';
import { useView } from '../data/view.ts';
import { useMeasureFormat } from '../ui/useMeasureFormat.ts';
import { Basis, SEVERITY, Spinner } from '../ui/parts.tsx';
import { useDerived } from '../workers/useDerived.ts';
import { useFix } from '../workers/useFix.ts';
import { AcceptForm, useAccept } from './AcceptForm.tsx';
import { PAGES, pageOfFinding } from './pages.ts';

/** One finding: the sentence, the remedy, where it is, a fix that has been tried, and accepting it. */
export function FindingItem({ finding, onGone }: { finding: EvaluatedFinding; onGone?: () => void }) {
  const [accepting, setAccepting] = useState(false);
  const rule = useDerived(({ judgement }) => judgement?.rules[finding.rule]);
  const { tell } = useMeasureFormat();
  const { accepted } = finding;
  const look = SEVERITY[finding.severity];
  return (
    <li className={`border-l-[3px] ${look.border} bg-base-200 px-2.5 py-1.5`}>
      <p>
        <span className={`${look.text} font-semibold`}>
          <span aria-hidden>{look.mark}</span> {look.word}.
        </span>{' '}
        {tell(finding.sentence)}
      </p>
      {accepted ? (
        <p className="ink-2 pt-0.5">
          Accepted{accepted.by && ` by ${accepted.by}`}
          {accepted.at && `, ${format(parseISO(accepted.at), 'd MMM')}`}: {accepted.reason}
        </p>
      ) : (
        <p className="text-secondary pt-0.5">{tell(finding.remedy)}</p>
      )}
      {finding.lapsed && (
        <p className="ink-2 pt-0.5">Was accepted (“{finding.lapsed}”), but its numbers have changed.</p>
      )}
      <Acts
        finding={finding}
        onAccept={accepting ? null : () => setAccepting(true)}
        {...(onGone ? { onGone } : {})}
      />
      {accepting && <AcceptForm findings={[finding]} onDone={() => setAccepting(false)} />}
      {rule?.fixable && !accepted && <FixPart finding={finding} />}
      <Basis>{rule?.basis}</Basis>
    </li>
  );
}

/** Where it is, asking the crew, and accepting or reopening it. */
function Acts({
  finding,
  onAccept,
  onGone,
}: {
  finding: EvaluatedFinding;
  /** Null: it is being accepted. */
  onAccept: (() => void) | null;
  onGone?: () => void;
}) {
  const link = useLink();
  const view = useView();
  const edit = useEdit();
  const navigate = useNavigate();
  const scene = useScene('acceptance');
  const { forbids } = useAccept();
  const target = pageOfFinding(finding);
  const go = () => {
    view.show(finding.place, finding.things[0] ?? null);
    void navigate(`/d/${link.id}/${target}`);
    if (window.innerWidth < 640) onGone?.();
  };
  const reopen = (id: string) =>
    edit.remove('reopened a finding', 'acceptance', id, scene.acceptance[id]?.v ?? 1);
  const quiet = 'link link-hover ink-2 max-lg:min-h-11';
  return (
    <div className="flex flex-wrap gap-x-3 items-center pt-0.5">
      <button
        type="button"
        className="link link-hover text-secondary font-semibold max-lg:min-h-11"
        onClick={go}
      >
        {target === 'plan'
          ? 'Show on the plan'
          : `${target === 'survey' ? 'Show on the' : 'Go to'} ${PAGES.find(({ id }) => id === target)?.word}`}
      </button>
      <Link
        className={`${quiet} inline-flex items-center`}
        to={`/d/${link.id}/crew?sheet=advice&new=&finding=${encodeURIComponent(finding.key)}`}
        {...(onGone ? { onClick: onGone } : {})}
      >
        Ask the crew
      </Link>
      {!forbids && finding.accepted && (
        <button
          type="button"
          className={quiet}
          onClick={() => finding.accepted && reopen(finding.accepted.id)}
        >
          Reopen
        </button>
      )}
      {!forbids && !finding.accepted && onAccept && (
        <button type="button" className={quiet} onClick={onAccept}>
          Accept with a reason …
        </button>
      )}
    </div>
  );
}

/** Looks for a fix that works, says what it would do, and does it. */
function FixPart({ finding }: { finding: EvaluatedFinding }) {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const may = useDenialReason();
  const { state, look, end } = useFix();
  const button = 'btn btn-xs max-lg:btn-md';
  if (state.is === 'idle')
    return (
      <button type="button" className={button} onClick={() => look(scene, finding.key)}>
        Find a fix
      </button>
    );
  if (state.is === 'trying')
    return (
      <p role="status" className="flex items-center gap-2">
        <Spinner /> Trying fixes on the whole display …
        <button type="button" className={button} onClick={end}>
          Cancel
        </button>
      </p>
    );
  if (state.is === 'none' || state.is === 'failed')
    return (
      <p role="status" className="ink-2">
        {state.is === 'failed'
          ? state.error
          : 'No simple change takes this finding away without making another.'}{' '}
        <button type="button" className="link link-hover" onClick={end}>
          Close
        </button>
      </p>
    );
  const { fix } = state;
  const isOld = state.scene !== scene;
  const reason = fix.changes.map(may).find((one) => one !== null) ?? null;
  return (
    <div role="status" className="border-l-2 border-secondary pl-2 py-0.5">
      <p>
        <b>{fix.words}.</b> Tried on the whole display: this finding is gone, and no other error or warning
        comes of it.
      </p>
      {fix.alsoGone.length > 0 && <p className="ink-2">Goes with it: {fix.alsoGone.slice(0, 2).join(' ')}</p>}
      {isOld && <p className="ink-2">The display has changed since: look again.</p>}
      {reason && <p className="text-error">{reason}</p>}
      <div className="flex gap-1 pt-1">
        {isOld ? (
          <button type="button" className={button} onClick={() => look(scene, finding.key)}>
            Look again
          </button>
        ) : (
          <button
            type="button"
            className={`${button} btn-primary`}
            disabled={reason !== null}
            onClick={() => {
              const words = fix.words.charAt(0).toLowerCase() + fix.words.slice(1);
              if (edit.change(`fixed a finding: ${words}`, fix.changes)) end();
            }}
          >
            Apply
          </button>
        )}
        <button type="button" className={button} onClick={end}>
          Close
        </button>
      </div>
    </div>
  );
}
