import { useState } from 'react';
import { centreOf } from '@quarry/core/grid';
import { labelOf, listOf, mentionsIn, placeIn, sectionOfEntity, thingOf } from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useLink } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { Heading } from '../../ui/parts.tsx';
import { capital } from '../../ui/words.ts';
import { useDerived } from '../../workers/useDerived.ts';

/** Advice about what is picked on the plan, a finding, or a section. */
export function NewAdvice({
  about,
  finding,
  onDone,
}: {
  /** “kind/id” of what it is about. */
  about: string | null;
  /** Key of a finding. */
  finding: string | null;
  onDone: (id: string | null) => void;
}) {
  const scene = useDisplay(({ scene }) => scene);
  const person = useDisplay(({ actor }) => actor.person);
  const picked = useView((view) => view.picked);
  const findings = useDerived(({ judgement }) => judgement?.findings);
  const edit = useEdit();
  const link = useLink();
  const found = findings?.find(({ key }) => key === finding) ?? null;
  const [kind = '', id = ''] = about?.split('/') ?? [];
  const thing = thingOf(scene, about ? { kind, id } : (found?.things[0] ?? picked));
  const guess = thing ? sectionOfEntity(scene, thing.kind, thing.id) : null;
  const [title, setTitle] = useState(found ? found.sentence.slice(0, 120) : '');
  const [text, setText] = useState('');
  const [section, setSection] = useState(guess ?? '');
  const [askedBy, setAskedBy] = useState<string | null>(null);
  if (person === null)
    return (
      <p className="p-4 max-w-prose">
        Your account is nobody on this display yet: ask its owner to say under People which person you are.
        Then you can give advice in your own name.
      </p>
    );
  const send = () => {
    const place = thing ? placeIn(scene, thing.kind, thing.id) : null;
    const at = found?.place ?? (place && centreOf(place));
    const half = (value: number) => Math.round(value * 2) / 2;
    const fresh = freshId('thread');
    const done = edit.add('', 'thread', fresh, {
      ...{ title: title.trim(), text: text.trim(), by: person, at: new Date().toISOString() },
      ...{ about: thing, finding: found?.key ?? null, section: section || null },
      ...(askedBy === null ? {} : { use: 'wish' as const, askedBy: Number(askedBy) }),
      ...{ x: at ? half(at.x) : null, y: at ? half(at.y) : null, mentions: mentionsIn(scene, text) },
    });
    if (done) onDone(fresh);
  };
  return (
    <form
      className="p-3 sm:p-4 flex flex-col gap-2 max-w-xl"
      aria-label="New advice"
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      <Heading>Advise</Heading>
      <p className="ink-2">
        {found
          ? `About the finding “${found.sentence}”`
          : thing
            ? `About ${labelOf(scene, thing.kind, thing.id)}`
            : 'About the whole display: pick something on the Plan first to pin it there.'}
      </p>
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
        <span className="block pb-0.5">
          What and why <span className="ink-2">(mention a person with @: they get a message)</span>
        </span>
        <textarea
          className="textarea textarea-sm w-full"
          rows={5}
          required
          maxLength={4000}
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
      </label>
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={askedBy !== null}
            onChange={(event) => setAskedBy(event.currentTarget.checked ? '1' : null)}
          />
          <span>A wish of followers</span>
        </label>
        {askedBy !== null && (
          <label className="flex items-center gap-2">
            <input
              type="number"
              className="input input-sm w-28 fig text-right"
              required
              min={1}
              max={1_000_000}
              step={1}
              value={askedBy}
              onChange={(event) => setAskedBy(event.currentTarget.value)}
            />
            <span>followers asked for it</span>
          </label>
        )}
      </div>
      <label className="flex items-center gap-2">
        <span>For section</span>
        <select
          className="select select-sm"
          value={section}
          onChange={(event) => setSection(event.currentTarget.value)}
        >
          <option value="">none: planners answer</option>
          {listOf(scene, 'section').map((one) => (
            <option key={one.id} value={one.id}>
              {one.letter}, {one.name}
              {one.owner ? `: ${scene.person[one.owner]?.name ?? ''} answers` : ''}
            </option>
          ))}
        </select>
      </label>
      <div className="flex flex-wrap gap-2 pt-1">
        <button
          type="submit"
          className="btn btn-sm btn-primary"
          disabled={title.trim() === '' || text.trim() === ''}
        >
          {askedBy === null ? 'Give the advice' : 'Write down the wish'}
        </button>
        <button type="button" className="btn btn-sm" onClick={() => link.beginDraft()}>
          {capital('show it as a proposal instead')}
        </button>
        <button type="button" className="btn btn-sm btn-ghost" onClick={() => onDone(null)}>
          Let it be
        </button>
      </div>
      <p className="ink-2 text-xs">
        A proposal carries changes: make them anywhere on the plan, then send them. Whoever holds the section
        takes them over with one press.
      </p>
    </form>
  );
}
