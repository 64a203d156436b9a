import { useState, type ReactNode } from 'react';
import type { Entity } from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useScene } from '../../data/useDisplay.tsx';
import { TextInput } from '../../ui/forms.tsx';
import { RemoveButton } from '../../ui/rows.tsx';

/** Notes something of the show. @returns whether it was noted */
export function useNote(): (words: string, fields: Record<string, unknown>) => boolean {
  const edit = useEdit();
  const person = useDisplay(({ actor }) => actor.person);
  return (words, fields) =>
    Boolean(
      edit.add(words, 'incident', freshId('incident'), {
        at: new Date().toISOString(),
        by: person,
        ...fields,
      }),
    );
}

/** Words to note; the first are needed unless something else is said. */
export function NoteForm({
  fields,
  isFixed,
  isEnough = false,
  children,
  onNote,
}: {
  fields: readonly { key: string; label: string; most: number }[];
  isFixed: boolean;
  /** It may be noted without words. */
  isEnough?: boolean;
  children?: ReactNode;
  /** @returns whether it was noted: then the words are emptied */
  onNote: (words: Readonly<Record<string, string>>) => boolean;
}) {
  const [words, setWords] = useState<Readonly<Record<string, string>>>({});
  const wordOf = (key: string) => (words[key] ?? '').trim();
  const canNote = isEnough || fields.slice(0, 1).some(({ key }) => wordOf(key) !== '');
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (canNote && onNote(Object.fromEntries(fields.map(({ key }) => [key, wordOf(key)])))) setWords({});
      }}
    >
      <fieldset disabled={isFixed} className="flex flex-col gap-1">
        {children}
        {fields.map(({ key, label, most }) => (
          <TextInput
            key={key}
            label={label}
            maxLength={most}
            value={words[key] ?? ''}
            onChange={(event) => setWords({ ...words, [key]: event.currentTarget.value })}
          />
        ))}
        <button type="submit" className="btn btn-sm self-start" disabled={isFixed || !canNote}>
          Note it
        </button>
      </fieldset>
    </form>
  );
}

/** Makes a task of what was noted. */
export function TaskOf({
  entry,
  verb,
  isFixed,
}: {
  entry: Entity<'incident'>;
  /** What is done with it: “Mend”. */
  verb: string;
  isFixed: boolean;
}) {
  const scene = useScene('task');
  const edit = useEdit();
  const task = entry.task === null ? undefined : scene.task[entry.task];
  if (task) return <span className="ink-2 text-xs">{task.done ? 'task done' : 'a task of Progress'}</span>;
  const add = () => {
    const id = freshId('task');
    const name = [verb, entry.what].filter(Boolean).join(' ').slice(0, 80);
    edit.change(`made a task of ${entry.what}`, [
      { op: 'add', kind: 'task', id, data: { name, source: `incident:${entry.id}` } },
      { op: 'patch', kind: 'incident', id: entry.id, v: entry.v, set: { task: id } },
    ]);
  };
  return (
    <button type="button" className="btn btn-xs" disabled={isFixed} onClick={add}>
      Add as task
    </button>
  );
}

export function RemoveNote({ entry, isFixed }: { entry: Entity<'incident'>; isFixed: boolean }) {
  const edit = useEdit();
  return (
    <RemoveButton
      what={entry.what}
      disabled={isFixed}
      onClick={() => void edit.remove(`removed ${entry.what}`, 'incident', entry.id, entry.v)}
    />
  );
}
