import { useState } from 'react';
import type { Entity } from '@quarry/core/document';
import type { LoadUnit } from '@quarry/core/transport';
import { useEdit, useScene } from '../../data/useDisplay.tsx';
import { SelectField } from '../../ui/fields.tsx';
import { Heading } from '../../ui/parts.tsx';
import { PhotoOf } from '../../ui/PhotoOf.tsx';
import { momentWord } from '../../ui/words.ts';
import { NoteForm, RemoveNote, TaskOf, useNote } from './NoteForm.tsx';

/** What broke: of what, with a photo, and the task that mends it. */
export function Breakages({
  entries,
  units,
  isFixed,
}: {
  entries: readonly Entity<'incident'>[];
  units: readonly LoadUnit[];
  isFixed: boolean;
}) {
  const [piece, setPiece] = useState('');
  const note = useNote();
  const things = [
    { value: '', word: 'something else' },
    ...units
      .filter(({ ref }) => ref?.kind !== 'cargo')
      .flatMap(({ key, name, holds }) => [
        { value: key, word: name },
        ...holds.map((content) => ({ value: content.key, word: content.name })),
      ]),
  ];
  const named = piece === '' ? '' : (things.find(({ value }) => value === piece)?.word ?? '');
  return (
    <section aria-labelledby="broke" className="pt-4">
      <Heading id="broke" aside={entries.length > 0 ? String(entries.length) : undefined}>
        What broke
      </Heading>
      <NoteForm
        fields={[{ key: 'what', label: 'What happened', most: 80 }]}
        isFixed={isFixed}
        isEnough={named !== ''}
        onNote={({ what }) => {
          const words = [named, what].filter(Boolean).join(': ').slice(0, 160);
          return note(`noted that ${words} broke`, { use: 'broke', what: words, piece });
        }}
      >
        <SelectField label="Of" value={piece} options={things} disabled={isFixed} onCommit={setPiece} />
      </NoteForm>
      <ul className="pt-1">
        {entries.map((entry) => (
          <Breakage key={entry.id} entry={entry} isFixed={isFixed} />
        ))}
      </ul>
    </section>
  );
}

function Breakage({ entry, isFixed }: { entry: Entity<'incident'>; isFixed: boolean }) {
  const scene = useScene('person');
  const edit = useEdit();
  const by = entry.by === null ? '' : (scene.person[entry.by]?.name ?? '');
  return (
    <li className="border-b hair py-1 relative">
      <div className="flex items-baseline justify-between gap-2">
        <span>
          <span className={entry.ended ? 'line-through ink-2' : 'font-semibold'}>{entry.what}</span>{' '}
          <span className="ink-2 text-xs">{[momentWord(entry.at), by].filter(Boolean).join(', ')}</span>
        </span>
        <RemoveNote entry={entry} isFixed={isFixed} />
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <TaskOf entry={entry} verb="Mend" isFixed={isFixed} />
        <PhotoOf
          of={entry.what}
          photo={entry.photo}
          disabled={isFixed}
          onKept={(photo, added) =>
            void edit.change(`a photo of ${entry.what}`, [
              added,
              { op: 'patch', kind: 'incident', id: entry.id, v: entry.v, set: { photo } },
            ])
          }
        />
        <button
          type="button"
          className="btn btn-xs"
          disabled={isFixed}
          onClick={() =>
            edit.patch(entry.ended ? `${entry.what} is broken` : `mended ${entry.what}`, 'incident', entry, {
              ended: entry.ended ? null : new Date().toISOString(),
            })
          }
        >
          {entry.ended ? 'Not mended' : 'Mended'}
        </button>
      </div>
    </li>
  );
}
