import { useState } from 'react';
import { mentionsIn, sectionOfEntity } from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useLink } from '../data/useDisplay.tsx';
import { Dialog } from '../ui/parts.tsx';

/** While a proposal is put together: what is in it, and the ways out. */
export function ProposalBar() {
  const draft = useDisplay(({ draft }) => draft);
  const link = useLink();
  const [sending, setSending] = useState(false);
  if (!draft) return null;
  const count = draft.reduce((sum, { changes }) => sum + changes.length, 0);
  return (
    <div
      role="region"
      aria-label="Proposal"
      className="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 py-1 bg-neutral text-neutral-content"
    >
      <span className="flex-1 min-w-40">
        <strong>You are proposing.</strong>{' '}
        {count === 0
          ? 'Change what you like, anywhere: only you see it until you send it.'
          : `${count} ${count === 1 ? 'change' : 'changes'}, the last: ${draft.at(-1)?.label || 'a change'}.`}
      </span>
      <button
        type="button"
        className="btn btn-xs bg-base-100 text-base-content disabled:opacity-60"
        disabled={count === 0 || count > 200}
        onClick={() => setSending(true)}
      >
        Send as advice …
      </button>
      <button type="button" className="link text-xs" onClick={() => link.endDraft()}>
        Let it go
      </button>
      {sending && <SendDialog onClose={() => setSending(false)} />}
    </div>
  );
}

function SendDialog({ onClose }: { onClose: () => void }) {
  const link = useLink();
  const edit = useEdit();
  const scene = useDisplay(({ scene }) => scene);
  const person = useDisplay(({ actor }) => actor.person);
  const draft = useDisplay(({ draft }) => draft) ?? [];
  const [title, setTitle] = useState(draft[0]?.label ?? '');
  const [text, setText] = useState('');
  const [first] = draft.flatMap(({ changes }) => changes);
  const send = () => {
    const section = first ? sectionOfEntity(scene, first.kind, first.id) : null;
    const about = first && first.op !== 'add' ? { kind: first.kind, id: first.id } : null;
    const proposal = link.endDraft();
    const id = freshId('thread');
    edit.add('', 'thread', id, {
      ...{ title: title.trim(), text: text.trim(), by: person, at: new Date().toISOString() },
      ...{ section, about, proposal, mentions: mentionsIn(scene, text) },
    });
    onClose();
  };
  return (
    <Dialog title="Send the proposal" open onClose={onClose}>
      <form
        className="flex flex-col gap-2 text-base-content"
        onSubmit={(event) => {
          event.preventDefault();
          send();
        }}
      >
        <label>
          <span className="block pb-0.5">In a few words</span>
          <input
            className="input input-sm w-full"
            required
            maxLength={120}
            value={title}
            onChange={(event) => setTitle(event.currentTarget.value)}
          />
        </label>
        <label>
          <span className="block pb-0.5">Why (mention a person with @)</span>
          <textarea
            className="textarea textarea-sm w-full"
            rows={4}
            required
            maxLength={4000}
            value={text}
            onChange={(event) => setText(event.currentTarget.value)}
          />
        </label>
        <p className="ink-2 text-xs">
          Whoever holds the section can take it over with one press, or decline it with a reason.
        </p>
        <button
          type="submit"
          className="btn btn-sm btn-primary self-start"
          disabled={person === null || title.trim() === '' || text.trim() === ''}
        >
          Send
        </button>
      </form>
    </Dialog>
  );
}
