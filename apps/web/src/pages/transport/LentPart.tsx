import type { Entity } from '@quarry/core/document';
import { useEdit } from '../../data/useDisplay.tsx';
import { Heading } from '../../ui/parts.tsx';
import { momentWord } from '../../ui/words.ts';
import { NoteForm, RemoveNote, TaskOf, useNote } from './NoteForm.tsx';

/** What is lent to others of the show, until it is back. */
export function Lent({
  out,
  back,
  isFixed,
}: {
  out: readonly Entity<'incident'>[];
  back: readonly Entity<'incident'>[];
  isFixed: boolean;
}) {
  const note = useNote();
  const edit = useEdit();
  return (
    <section aria-labelledby="lent" className="pt-4">
      <Heading id="lent" aside={out.length > 0 ? `${out.length} not back` : undefined}>
        Lent
      </Heading>
      <NoteForm
        fields={[
          { key: 'what', label: 'What is lent', most: 160 },
          { key: 'to', label: 'To whom', most: 80 },
        ]}
        isFixed={isFixed}
        onNote={({ what, to }) => note(`lent ${what}`, { use: 'lent', what, to })}
      />
      <ul className="pt-1">
        {[...out, ...back].map((entry) => (
          <li key={entry.id} className="flex flex-wrap items-center justify-between gap-2 border-b hair py-1">
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                aria-label={`${entry.what} is back`}
                checked={entry.ended !== null}
                disabled={isFixed}
                onChange={(event) => {
                  const isBack = event.currentTarget.checked;
                  edit.patch(`${entry.what} is ${isBack ? 'back' : 'out'}`, 'incident', entry, {
                    ended: isBack ? new Date().toISOString() : null,
                  });
                }}
              />
              <span className={entry.ended ? 'line-through ink-2' : ''}>
                {entry.what}
                {entry.to && <span className="ink-2 text-xs"> to {entry.to}</span>}
              </span>
            </label>
            <RemoveNote entry={entry} isFixed={isFixed} />
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What to do otherwise at the next show. */
export function Changes({ entries, isFixed }: { entries: readonly Entity<'incident'>[]; isFixed: boolean }) {
  const note = useNote();
  return (
    <section aria-labelledby="changes" className="pt-4">
      <Heading id="changes">For the next show</Heading>
      <NoteForm
        fields={[{ key: 'what', label: 'What to change', most: 160 }]}
        isFixed={isFixed}
        onNote={({ what }) => note('noted something for the next show', { use: 'change', what })}
      />
      <ul className="pt-1">
        {entries.map((entry) => (
          <li key={entry.id} className="flex flex-wrap items-center justify-between gap-2 border-b hair py-1">
            <span>
              {entry.what} <span className="ink-2 text-xs">{momentWord(entry.at)}</span>
            </span>
            <span className="flex items-center gap-2">
              <TaskOf entry={entry} verb="" isFixed={isFixed} />
              <RemoveNote entry={entry} isFixed={isFixed} />
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
