import { ChevronRight, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import type { EvaluatedFinding, Page } from '@quarry/core/findings';
import { useView, type Picked } from '../data/view.ts';
import { Empty, Heading, Loading, SEVERITY } from '../ui/parts.tsx';
import { useDerived } from '../workers/useDerived.ts';
import { AcceptForm, useAccept } from './AcceptForm.tsx';
import { FindingItem } from './FindingItem.tsx';
import { countOpen } from './countOpen.ts';
import { FINDING_PAGES, type PageId } from './pages.ts';

/** Findings of one rule from so many on are one group, and from so many on it is shut at first. */
const GROUPED = 3;
const SHUT = 7;

/** Findings by rule, in the order of their gravest. */
function byRule(findings: readonly EvaluatedFinding[]): [string, EvaluatedFinding[]][] {
  const groups = new Map<string, EvaluatedFinding[]>();
  for (const finding of findings) {
    const group = groups.get(finding.rule);
    if (group) group.push(finding);
    else groups.set(finding.rule, [finding]);
  }
  return [...groups];
}

/** The one list of findings: filtered by page, grouped by rule, gone to with a click, accepted with a reason. */
export function FindingsPanel({ onClose, page }: { onClose: () => void; page: PageId | null }) {
  const judgement = useDerived(({ judgement }) => judgement);
  const error = useDerived(({ error }) => error);
  const keys = useView(({ findings }) => findings.only);
  const openAll = useView(({ openFindings }) => openFindings);
  const [only, setOnly] = useState<Page | null>(null);
  const panel = useRef<HTMLElement>(null);
  // Opened by a key, it takes the focus; pressed on the board, the hand stays there.
  useEffect(() => panel.current?.focus(), []);
  useHotkeys('escape', onClose, {
    enableOnFormTags: false,
    // On the board Escape first lays down the tool and lets go of what is picked.
    ignoreEventWhen: ({ target }) => {
      const { tool, picked } = useView.getState();
      const onBoard = target instanceof Element && target.closest('[role="application"]') !== null;
      return onBoard && (tool !== 'pick' || picked !== null);
    },
  });
  const findings = judgement?.findings ?? [];
  const shown = findings.filter(
    ({ key, page: of }) => (keys === null || keys.includes(key)) && (only === null || of === only),
  );
  const open = shown.filter(({ accepted }) => !accepted);
  const kept = shown.filter(({ accepted }) => accepted);
  const total = countOpen(findings);
  return (
    <aside
      ref={panel}
      tabIndex={-1}
      aria-label="Findings"
      className="fixed inset-0 sm:inset-y-11 sm:left-auto sm:right-0 sm:bottom-0 sm:w-[23rem] lg:static lg:w-auto min-h-0 bg-base-100 border-l hair z-30 flex flex-col outline-none"
    >
      <div className="flex items-center justify-between px-3 py-2 border-b hair">
        <h2 className="font-semibold text-sm">
          {judgement ? `${total.error + total.warning + total.note} findings ` : 'Findings'}
          {judgement && (
            <span className="ink-2 font-normal">
              {total.error} errors, {total.warning} warnings
            </span>
          )}
        </h2>
        <button
          type="button"
          className="btn btn-xs max-lg:btn-md btn-ghost btn-square"
          onClick={onClose}
          aria-label="Close the findings"
          title="Close (Esc)"
        >
          <X size={14} aria-hidden />
        </button>
      </div>
      {keys ? (
        <p className="px-3 py-2 border-b hair flex items-center justify-between gap-2">
          <span>{open.length} at this place</span>
          <button type="button" className="btn btn-xs max-lg:btn-md" onClick={() => openAll()}>
            Show all findings
          </button>
        </p>
      ) : (
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
          {FINDING_PAGES.map(({ id, word }) => (
            <Filter
              key={id}
              on={only === id}
              onClick={() => setOnly(id)}
              word={word}
              count={findings.filter((finding) => finding.page === id && !finding.accepted).length}
              here={id === page}
            />
          ))}
        </div>
      )}
      <div className="overflow-auto flex-1 px-3 py-2">
        {error && (
          <p role="alert" className="text-error">
            The scene could not be checked: {error}
          </p>
        )}
        {!judgement && !error && <Loading what="Checking the scene" />}
        {judgement && open.length === 0 && (
          <Empty title="Nothing is wrong here">
            Every check of {keys ? 'this place' : (only ?? 'every page')} passes or has been accepted.
          </Empty>
        )}
        <ul className="flex flex-col gap-2">
          {byRule(open).map(([rule, group]) =>
            group.length < GROUPED ? (
              group.map((finding) => <FindingItem key={finding.key} finding={finding} onGone={onClose} />)
            ) : (
              <RuleGroup key={rule} rule={rule} findings={group} onGone={onClose} />
            ),
          )}
        </ul>
        {kept.length > 0 && (
          <>
            <h3 className="font-semibold pt-4 pb-1">Accepted</h3>
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

/** All findings of one rule: shown when opened, accepted together. */
function RuleGroup({
  rule,
  findings,
  onGone,
}: {
  rule: string;
  findings: readonly EvaluatedFinding[];
  onGone: () => void;
}) {
  const title = useDerived(({ judgement }) => judgement?.rules[rule]?.title ?? rule);
  const { forbids } = useAccept();
  const [open, setOpen] = useState(findings.length < SHUT);
  const [accepting, setAccepting] = useState(false);
  const gravest = findings.some(({ severity }) => severity === 'error')
    ? 'error'
    : (findings[0]?.severity ?? 'note');
  const look = SEVERITY[gravest];
  return (
    <li>
      <div className="flex flex-wrap items-center gap-x-2 border-b hair">
        <button
          type="button"
          aria-expanded={open}
          className="flex-1 flex items-center gap-1 text-left font-semibold py-1 cursor-pointer"
          onClick={() => setOpen(!open)}
        >
          <ChevronRight size={13} aria-hidden className={open ? 'rotate-90' : ''} />
          <span className={look.text} aria-hidden>
            {look.mark}
          </span>
          <span className="flex-1">{title}</span>
          <span className="fig font-normal">{findings.length}</span>
        </button>
        {!forbids && !accepting && (
          <button
            type="button"
            className="link link-hover ink-2 text-xs max-lg:min-h-11"
            onClick={() => setAccepting(true)}
          >
            Accept all of this kind …
          </button>
        )}
      </div>
      {accepting && <AcceptForm findings={findings} onDone={() => setAccepting(false)} />}
      {open && (
        <ul className="flex flex-col gap-2 pt-2">
          {findings.map((finding) => (
            <FindingItem key={finding.key} finding={finding} onGone={onGone} />
          ))}
        </ul>
      )}
    </li>
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
