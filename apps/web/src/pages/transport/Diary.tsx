import { useState } from 'react';
import { displayOf, listOf } from '@quarry/core/document';
import { furtherShows, prepareShow, type DiaryShow } from '@quarry/core/transport';
import { freshId, useDenialReason, useDisplay, useEdit, useScene } from '../../data/useDisplay.tsx';
import { today } from '../../ui/days.ts';
import { DateField, NumberField, SelectField, TextField, TimeField } from '../../ui/fields.tsx';
import { Heading } from '../../ui/parts.tsx';
import { RemoveButton } from '../../ui/rows.tsx';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';
import { clockAfter, dayAfter } from './clock.ts';

/** All shows by date, each judged in its own place and hours; one of them is prepared at a time. */
export function Diary() {
  const scene = useDisplay(({ scene: now }) => now);
  const diary = useWorkerQuery((core) => core.diary());
  const edit = useEdit();
  const may = useDenialReason();
  const [open, setOpen] = useState<string | null>(null);
  const isFixed = may({ op: 'add', kind: 'milestone', id: 'x', data: { name: 'x', date: today() } }) !== null;
  const judged = new Map((diary ?? []).map((show) => [show.id, show]));
  const { showName, showDate } = displayOf(scene);
  const shows = [{ id: null, name: showName || 'The show', date: showDate }, ...furtherShows(scene)].sort(
    (a, b) => ((a.date ?? '') < (b.date ?? '') ? -1 : 1),
  );
  return (
    <section aria-labelledby="diary" className="pt-4">
      <Heading id="diary" aside={`${shows.length} in the diary`}>
        Shows
      </Heading>
      <ul>
        {shows.map(({ id, name, date }) => (
          <li key={id ?? 'now'} className="border-b hair py-1" aria-label={name}>
            <div className="flex flex-wrap items-baseline gap-x-3">
              <span className="flex-1 font-semibold min-w-0">
                {name}
                {id === null && <span className="ink-2 font-normal text-xs"> prepared now</span>}
              </span>
              <span className="fig text-xs">{date ?? 'no day'}</span>
              {id !== null && (
                <button
                  type="button"
                  className="btn btn-xs"
                  aria-expanded={open === id}
                  onClick={() => setOpen(open === id ? null : id)}
                >
                  Hours
                </button>
              )}
              {id !== null && (
                <button
                  type="button"
                  className="btn btn-xs"
                  aria-label={`Prepare ${name}`}
                  disabled={isFixed}
                  onClick={() => void edit.change(`${name} is prepared now`, prepareShow(scene, id))}
                >
                  Prepare
                </button>
              )}
            </div>
            <Judged show={judged.get(id)} />
            {open === id && id !== null && <ShowFields id={id} isFixed={isFixed} />}
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="btn btn-xs mt-2"
        disabled={isFixed}
        onClick={() => {
          const id = freshId('milestone');
          setOpen(id);
          void edit.add('added a show', 'milestone', id, {
            ...{ name: 'Next show', date: dayAfter(showDate ?? today(), 28), show: true },
          });
        }}
      >
        Add a show
      </button>
    </section>
  );
}

/** What is known of a show by computation. */
function Judged({ show }: { show: DiaryShow | undefined }) {
  if (!show) return <p className="ink-2 text-xs">Working out whether it gets in …</p>;
  const { from, to, place, nights, stopped, times, bound } = show;
  const isLate = bound !== null && bound > times.until;
  // Two windows: the first is the evening before.
  const [eve, day] = times.windows;
  return (
    <p className="ink-2 text-xs">
      {place ?? 'no place chosen'}
      {from !== null && to !== null && from !== to && `, until ${to}`}
      {nights > 0 && `, ${nights} ${nights === 1 ? 'night' : 'nights'} in the hall`}
      {'. '}
      {stopped ? (
        <span className="text-error">
          {stopped.count === 1 ? `“${stopped.first}” does` : `${stopped.count} things do`} not pass the{' '}
          {stopped.passage}.{' '}
        </span>
      ) : (
        'Everything gets in. '
      )}
      {bound === null ? (
        <span className="text-error">Too few people come for a task of setting up.</span>
      ) : (
        <span className={isLate ? 'text-error' : ''}>
          Ready {clockAfter(times.from, bound)}
          {eve && day && bound <= eve.end && ' on the evening before'} at the earliest, visitors come at{' '}
          {times.to}
          {times.isGuess ? ' (guess)' : ''}.
        </span>
      )}
    </p>
  );
}

const HOURS = [
  { field: 'eveFrom', label: 'The evening before, from', none: 'not open' },
  { field: 'eveTo', label: 'The evening before, until', none: 'not known' },
  { field: 'accessFrom', label: 'Builders may come in', none: 'not known' },
  { field: 'opensAt', label: 'Visitors come', none: 'not known' },
  { field: 'closesAt', label: 'Visitors leave', none: 'not known' },
  { field: 'clearBy', label: 'Hall is to be empty', none: 'not known' },
  { field: 'morrowFrom', label: 'The day after, from', none: 'not open' },
  { field: 'morrowTo', label: 'The day after, until', none: 'not known' },
] as const;

/** The day, place and hours of a further show. */
function ShowFields({ id, isFixed }: { id: string; isFixed: boolean }) {
  const scene = useScene('milestone', 'place');
  const edit = useEdit();
  const show = scene.milestone[id];
  if (!show) return null;
  const set = (fields: Partial<typeof show>) => edit.patch(`changed ${show.name}`, 'milestone', show, fields);
  return (
    <div className="pl-4 py-2 max-w-md">
      <TextField
        label="Show"
        required
        value={show.name}
        disabled={isFixed}
        onCommit={(name) => set({ name })}
      />
      <DateField
        label="First day"
        value={show.date}
        disabled={isFixed}
        onCommit={(date) => date !== null && set({ date })}
      />
      <NumberField
        label="Days with visitors"
        whole
        value={show.showDays}
        min={1}
        max={30}
        disabled={isFixed}
        onCommit={(showDays) => showDays !== null && set({ showDays })}
      />
      <SelectField
        label="Place"
        value={show.place ?? ''}
        options={[
          { value: '', word: 'not chosen' },
          ...listOf(scene, 'place').map((place) => ({ value: place.id, word: place.name })),
        ]}
        disabled={isFixed}
        onCommit={(place) => set({ place: place || null })}
      />
      {HOURS.map(({ field, label, none }) => (
        <TimeField
          key={field}
          label={label}
          value={show[field]}
          optional={none}
          disabled={isFixed}
          onCommit={(value) => set({ [field]: value })}
        />
      ))}
      <NumberField
        label="From home to the hall"
        unit="min"
        whole
        value={show.driveMinutes}
        min={0}
        max={2880}
        optional="not known"
        disabled={isFixed}
        onCommit={(driveMinutes) => set({ driveMinutes })}
      />
      <RemoveButton
        what={show.name}
        disabled={isFixed}
        onClick={() => void edit.remove(`removed ${show.name}`, 'milestone', id, show.v)}
      />
    </div>
  );
}
