import { formatISO, parseISO } from 'date-fns';
import { Pencil } from 'lucide-react';
import { useState } from 'react';
import { countOf } from '@quarry/core/grid';
import { METHOD_SPECS } from '@quarry/core/masonry';
import { METHODS, WORKS, type Session, type Work } from '@quarry/core/document';
import { useEdit, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { sectionOptions } from '../../ui/picks.ts';
import { RemoveButton } from '../../ui/rows.tsx';
import { capital, momentWord } from '../../ui/words.ts';

export const MAX_SESSION_MINUTES = 1440;

/** A session as it was logged, and its fields for those who may edit it. */
export function SessionRow({ session }: { session: Session }) {
  const scene = useScene('person', 'section', 'task');
  const edit = useEdit();
  const may = useDenialReason();
  const [open, setOpen] = useState(false);
  const { id, v, person, section, start, minutes, pieces, work, where, note, ticked } = session;
  const forbids = may({ op: 'remove', kind: 'session', id, v });
  const rate = minutes && pieces ? Math.round((60 * pieces) / minutes) : null;
  const name = person ? (scene.person[person]?.name ?? '') : 'Somebody';
  return (
    <li className="border-b hair py-1.5">
      <div className="flex items-baseline gap-2">
        <div className="flex-1 min-w-0">
          <span className="font-semibold">{name}</span>{' '}
          <span className="ink-2">
            {[
              momentWord(start),
              work,
              ...(section ? [`section ${scene.section[section]?.letter ?? ''}`] : []),
              ...(where ? [where] : []),
            ].join(', ')}
          </span>
          {note && <p className="break-words">{note}</p>}
          {ticked.length > 0 && (
            <p className="ink-2 text-xs break-words">
              finished {ticked.map((task) => `“${scene.task[task]?.name ?? task}”`).join(', ')}
            </p>
          )}
        </div>
        <span className="fig text-right whitespace-nowrap">
          {minutes === null ? <span className="text-secondary">runs</span> : `${minutes} min`}
          {pieces !== null && <span className="block ink-2 text-xs">{countOf(pieces, 'piece')}</span>}
          {rate !== null && <span className="block ink-2 text-xs">{rate.toLocaleString('en')} an hour</span>}
        </span>
        <button
          type="button"
          className="btn btn-xs btn-ghost btn-square"
          aria-label={`Change the session of ${name}, ${momentWord(start)}`}
          aria-expanded={open}
          disabled={forbids !== null || minutes === null}
          onClick={() => setOpen(!open)}
        >
          <Pencil size={12} aria-hidden />
        </button>
        <RemoveButton
          what={`the session of ${formatISO(parseISO(start), { representation: 'date' })}`}
          disabled={forbids !== null}
          onClick={() => edit.remove('removed a session', 'session', id, v)}
        />
      </div>
      {open && <SessionSheet session={session} />}
    </li>
  );
}

/** What was forgotten while it ran, or mistyped. */
function SessionSheet({ session }: { session: Session }) {
  const scene = useScene('section');
  const edit = useEdit();
  const set = (changed: Partial<Session>) => edit.patch('mended a session', 'session', session, changed);
  return (
    <div className="pl-3 my-1 border-l border-base-300 max-w-sm">
      <NumberField
        label="Minutes"
        unit="min"
        whole
        value={session.minutes}
        min={1}
        max={MAX_SESSION_MINUTES}
        onCommit={(minutes) => set({ minutes })}
      />
      <NumberField
        label="Pieces placed"
        optional="not counted"
        whole
        value={session.pieces}
        min={0}
        max={1_000_000}
        onCommit={(pieces) => set({ pieces })}
      />
      <SelectField
        label="On section"
        value={session.section ?? ''}
        options={sectionOptions(scene, 'none')}
        onCommit={(section) => set({ section: section || null })}
      />
      <SelectField<Work>
        label="Kind of work"
        value={session.work}
        options={WORKS.map((value) => ({ value, word: capital(value) }))}
        onCommit={(work) => set({ work })}
      />
      {session.work === 'ground' && (
        <SelectField
          label="Method of the ground"
          value={session.method ?? ''}
          options={[
            { value: '', word: 'As in its section' },
            ...METHODS.map((value) => ({ value, word: capital(METHOD_SPECS[value].word) })),
          ]}
          onCommit={(method) => set({ method: method === '' ? null : method })}
        />
      )}
      <TextField label="Where" value={session.where} onCommit={(where) => set({ where })} />
      <TextField
        label="What was done"
        long
        max={2000}
        value={session.note}
        onCommit={(note) => set({ note })}
      />
    </div>
  );
}
