import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { describeBatch } from '@quarry/core/history';
import {
  labelOf,
  mentionsIn,
  proposalOf,
  reduce,
  rebase,
  repliesOf,
  thingOf,
  wishOf,
  type Change,
  type Scene,
  type Thread,
  type ThreadState,
} from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useLink, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { NumberField } from '../../ui/fields.tsx';
import { DefinitionRow, Heading } from '../../ui/parts.tsx';
import { capital, dayWord } from '../../ui/words.ts';
import { useDerived } from '../../workers/useDerived.ts';
import { ThreadText, StateWord } from './threadText.tsx';

const USE_WORDS: Readonly<Record<Thread['use'], string>> = {
  advice: 'Advice',
  wish: 'Wish of followers',
  handover: 'Hand-over',
};

/** A thread: message, proposal, answers and decision. */
export function ThreadView({ thread }: { thread: Thread }) {
  const scene = useDisplay(({ scene }) => scene);
  const me = useDisplay(({ actor }) => actor.person);
  const findings = useDerived(({ judgement }) => judgement?.findings);
  const show = useView((view) => view.show);
  const link = useLink();
  const edit = useEdit();
  const [answer, setAnswer] = useState('');
  const about = thingOf(scene, thread.about);
  const found = findings?.find(({ key }) => key === thread.finding);
  const place = thread.x !== null && thread.y !== null ? { x: thread.x, y: thread.y } : null;
  const reply = () => {
    const done = edit.add('', 'reply', freshId('reply'), {
      ...{ thread: thread.id, text: answer.trim(), by: me, at: new Date().toISOString() },
      mentions: mentionsIn(scene, answer),
    });
    if (done) setAnswer('');
  };
  return (
    <article className="p-3 sm:p-4 max-w-2xl" aria-label={thread.title}>
      <div className="flex items-baseline gap-3 border-b border-base-content pb-1">
        <h2 className="font-bold text-base flex-1 break-words">{thread.title}</h2>
        <StateWord thread={thread} />
      </div>
      <p className="ink-2 text-xs py-1">
        {USE_WORDS[thread.use]}
        {about && ` about ${labelOf(scene, about.kind, about.id)}`}
        {thread.section && `, section ${scene.section[thread.section]?.letter ?? ''}`}
        {(about || place) && (
          <>
            {' '}
            <Link
              className="act link text-secondary font-semibold"
              to={`/d/${link.id}/plan`}
              onClick={() => show(place, about)}
            >
              Show on the plan
            </Link>
          </>
        )}
      </p>
      {thread.finding && (
        <p className="border-l-2 hair pl-2 ink-2">
          {found ? found.sentence : 'The finding it was about is gone: what it asked for has been done.'}
        </p>
      )}
      {thread.use === 'wish' && <WishPart thread={thread} />}
      <ThreadText by={thread.by} at={thread.at} text={thread.text} />
      {thread.proposal.length > 0 && <Proposal thread={thread} />}
      {repliesOf(scene, thread.id).map((one) => (
        <div key={one.id} className="border-t hair pl-3">
          <ThreadText by={one.by} at={one.at} text={one.text} />
        </div>
      ))}
      {thread.reason && (
        <p className="border-l-2 border-secondary pl-2 my-1">
          {capital(thread.state)}
          {thread.answeredBy && ` by ${scene.person[thread.answeredBy]?.name ?? ''}`}: {thread.reason}
        </p>
      )}
      {me !== null && (
        <form
          className="pt-2"
          aria-label="Answer"
          onSubmit={(event) => {
            event.preventDefault();
            reply();
          }}
        >
          <label className="block">
            <span className="sr-only">Your answer</span>
            <textarea
              className="textarea textarea-sm w-full"
              rows={2}
              maxLength={4000}
              placeholder="Answer; mention a person with @"
              value={answer}
              onChange={(event) => setAnswer(event.currentTarget.value)}
            />
          </label>
          <button type="submit" className="btn btn-xs mt-1" disabled={answer.trim() === ''}>
            Answer
          </button>
        </form>
      )}
      <Decide thread={thread} />
    </article>
  );
}

/** How many followers wish for it, and the milestone that promises it. */
function WishPart({ thread }: { thread: Thread }) {
  const scene = useScene('milestone');
  const link = useLink();
  const edit = useEdit();
  const may = useDenialReason();
  const { promisedFor } = wishOf(scene, thread);
  const count = (askedBy: number): Change => ({
    ...{ op: 'patch', kind: 'thread', id: thread.id, v: thread.v, set: { askedBy } },
  });
  return (
    <>
      <NumberField
        label="Followers who asked for it"
        whole
        min={1}
        max={1_000_000}
        value={thread.askedBy}
        disabled={may(count(thread.askedBy)) !== null}
        onCommit={(askedBy) => edit.change(`counted who wishes “${thread.title}”`, [count(askedBy ?? 1)])}
      />
      <dl>
        <DefinitionRow label="Promised for">
          <Link className="act link text-secondary" to={`/d/${link.id}/brief?sheet=dates`}>
            {promisedFor ? `${promisedFor.name}, ${dayWord(promisedFor.date)}` : 'no milestone yet'}
          </Link>
        </DefinitionRow>
      </dl>
    </>
  );
}

/** What the proposal would do to the scene as it stands. */
function proposed(scene: Scene, thread: Thread) {
  const fitted = rebase(scene, proposalOf(thread));
  if (!fitted.ok) return fitted;
  const reduction = reduce(scene, fitted.changes);
  return reduction.ok
    ? { ...fitted, descriptions: describeBatch(scene, reduction.scene, fitted.changes) }
    : { ok: false as const, sentence: reduction.refusal.sentence };
}

function Proposal({ thread }: { thread: Thread }) {
  const scene = useDisplay(({ scene }) => scene);
  const fits = useMemo(() => proposed(scene, thread), [scene, thread]);
  const done = thread.state === 'accepted' || thread.state === 'resolved';
  return (
    <section className="border hair p-2 my-1" aria-label="Proposal">
      <Heading aside={`${thread.proposal.length} ${thread.proposal.length === 1 ? 'change' : 'changes'}`}>
        Proposes
      </Heading>
      {fits.ok ? (
        fits.descriptions.length === 0 ? (
          <p className="ink-2">{done ? 'It has been taken over.' : 'It stands like this already.'}</p>
        ) : (
          <ul className="list-disc pl-4">
            {fits.descriptions.map(({ kind, id, sentence }) => (
              <li key={`${kind}/${id}`}>{capital(sentence)}</li>
            ))}
          </ul>
        )
      ) : (
        <p className="text-warning">It can no longer be taken over: {fits.sentence}</p>
      )}
      {fits.ok && fits.moved.length > 0 && fits.descriptions.length > 0 && (
        <p className="ink-2 text-xs">
          {capital(fits.moved.join(', '))} {fits.moved.length === 1 ? 'has' : 'have'} changed since this was
          proposed; the fields above are set as proposed.
        </p>
      )}
    </section>
  );
}

/** Taking, declining, settling: for those who may. */
function Decide({ thread }: { thread: Thread }) {
  const scene = useDisplay(({ scene }) => scene);
  const me = useDisplay(({ actor }) => actor.person);
  const edit = useEdit();
  const may = useDenialReason();
  const [reason, setReason] = useState('');
  const patch = (set: Record<string, unknown>): Change => ({
    ...{ op: 'patch', kind: 'thread', id: thread.id, v: thread.v },
    set,
  });
  const answers = may(patch({ state: 'accepted', answeredBy: me })) === null;
  const settles = may(patch({ state: 'resolved' })) === null;
  if (!answers && !settles) return null;
  const set = (state: ThreadState, more: readonly Change[] = []) =>
    edit.change(state === 'open' ? 'opened advice again' : `${state} “${thread.title}”`, [
      ...more,
      patch({ state, ...(answers ? { answeredBy: me, reason: reason.trim() } : {}) }),
    ]) && setReason('');
  const fits = thread.proposal.length > 0 ? proposed(scene, thread) : null;
  const blocked = fits?.ok ? fits.changes.map((change) => may(change)).find(Boolean) : null;
  return (
    <section aria-label="Decide" className="border-t hair mt-3 pt-2">
      {thread.state === 'open' ? (
        <>
          {answers && (
            <label className="block pb-1">
              <span className="block pb-0.5">Why (needed to decline)</span>
              <input
                className="input input-sm w-full"
                maxLength={500}
                value={reason}
                onChange={(event) => setReason(event.currentTarget.value)}
              />
            </label>
          )}
          <div className="flex flex-wrap gap-2">
            {answers && fits?.ok && fits.descriptions.length > 0 && (
              <button
                type="button"
                className="btn btn-sm btn-primary"
                disabled={Boolean(blocked)}
                title={blocked ?? undefined}
                onClick={() => set('accepted', fits.changes)}
              >
                Apply
              </button>
            )}
            {answers && (
              <button type="button" className="btn btn-sm" onClick={() => set('accepted')}>
                {fits ? 'Accept without its changes' : 'Accept'}
              </button>
            )}
            {answers && (
              <button
                type="button"
                className="btn btn-sm"
                disabled={reason.trim() === ''}
                onClick={() => set('declined')}
              >
                Decline
              </button>
            )}
            <button type="button" className="btn btn-sm btn-ghost" onClick={() => set('resolved')}>
              {thread.use === 'wish' ? 'Granted' : 'Close'}
            </button>
          </div>
          {blocked && <p className="ink-2 text-xs pt-1">{blocked} A planner can apply it.</p>}
        </>
      ) : (
        <div className="flex flex-wrap gap-2">
          {thread.state === 'accepted' && settles && (
            <button
              type="button"
              className="btn btn-xs"
              // The reason why it was accepted stays.
              onClick={() => edit.change(`resolved “${thread.title}”`, [patch({ state: 'resolved' })])}
            >
              {thread.use === 'wish' ? 'Granted' : 'Done'}
            </button>
          )}
          <button type="button" className="btn btn-xs" onClick={() => set('open')}>
            Open it again
          </button>
        </div>
      )}
    </section>
  );
}
