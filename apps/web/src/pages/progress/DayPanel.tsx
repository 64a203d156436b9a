import { format } from 'date-fns';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { PACE_BOUNDS, dayClock, slotsOf, type ClockRow } from '@quarry/core/progress';
import { WORKS, displayOf, type Drying, type Slot, type Work } from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useDenialReason } from '../../data/useDisplay.tsx';
import { localDay, spanWord, useNow } from '../../ui/clock.ts';
import { CheckField, NumberField, SelectField, TextField, TimeField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading, DefinitionRow } from '../../ui/parts.tsx';
import { RemoveButton } from '../../ui/rows.tsx';
import { DRYING_OPTIONS, dryingCaution } from '../../ui/drying.ts';
import { capital } from '../../ui/words.ts';
import { today } from '../../ui/days.ts';

const at = (moment: number) => format(moment, 'HH:mm');

/** A build in one day: planned slots against what they take, and what to drop next. */
export function DayPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const may = useDenialReason();
  const now = useNow();
  const [day, setDay] = useState(today);
  const display = displayOf(scene);
  const end =
    display.clockEnd !== null && localDay(display.clockEnd) === day ? Date.parse(display.clockEnd) : null;
  const slots = slotsOf(scene, day);
  const clock = dayClock(slots, now, end);
  const forbids = may({ op: 'add', kind: 'slot', id: 'x', data: { name: 'x', day, minutes: 1 } });
  const planned = slots.filter(({ dropped }) => !dropped).reduce((sum, { minutes }) => sum + minutes, 0);
  const running = clock.rows.find(({ slot, state }) => state === 'runs' && !slot.unattended);
  const mayEnd =
    may({ op: 'patch', kind: 'display', id: display.id, v: display.v, set: { clockEnd: null } }) === null;
  return (
    <div className="p-3 sm:p-4 grid gap-6 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_320px] items-start max-w-[1100px]">
      <section aria-labelledby="slots">
        <Heading id="slots" aside={slots.length > 0 ? `${spanWord(planned)} planned` : undefined}>
          The day in slots
        </Heading>
        <label className="flex items-center gap-2 pb-2">
          Day
          <input
            type="date"
            className="input input-sm fig w-40"
            value={day}
            onChange={(event) => event.currentTarget.value && setDay(event.currentTarget.value)}
          />
        </label>
        {slots.length === 0 && (
          <Empty title="No slot on this day">
            Box a whole build in one day: planning, figures, hills, plants, each with the minutes it may take.
            Press the one that begins; what is late says what to drop.
          </Empty>
        )}
        <ol>
          {clock.rows.map((row, i) => (
            <SlotRow
              key={row.slot.id}
              row={row}
              toDrop={clock.drop.some(({ id }) => id === row.slot.id)}
              running={running?.slot ?? null}
              fixed={forbids !== null}
              above={clock.rows[i - 1]?.slot ?? null}
              before={slots.slice(0, i)}
            />
          ))}
        </ol>
        <button
          type="button"
          className="btn btn-sm mt-2"
          disabled={forbids !== null}
          onClick={() =>
            edit.add('added a slot', 'slot', freshId('slot'), {
              ...{ name: 'New slot', day, minutes: 60 },
              order: Math.max(-1, ...slots.map(({ order }) => order)) + 1,
            })
          }
        >
          <Plus size={14} aria-hidden /> One more slot
        </button>
        {forbids && <p className="ink-2 text-xs pt-1">{forbids}</p>}
      </section>
      <section aria-labelledby="clock" className="order-first lg:order-none">
        <Heading id="clock">How the day goes</Heading>
        <TimeField
          label="Must be over at"
          value={end === null ? null : at(end)}
          optional="18:00"
          disabled={!mayEnd}
          onCommit={(time) =>
            edit.patch('set the end of the day', 'display', display, {
              clockEnd: time === null ? null : new Date(`${day}T${time}:00`).toISOString(),
            })
          }
        />
        {slots.length > 0 && (
          <dl>
            <DefinitionRow label="Ends at this pace">{at(clock.ends)}</DefinitionRow>
            {clock.late !== null && (
              <DefinitionRow label={clock.late > 0 ? 'Too late by' : 'In hand'}>
                <span className={clock.late > 0 ? 'text-primary' : ''}>{spanWord(clock.late)}</span>
              </DefinitionRow>
            )}
            {clock.paces.map(({ work, pace, slots: over }) => (
              <DefinitionRow
                key={work}
                label={`${capital(work)}: minutes for each planned`}
                note={`by ${over} slot${over === 1 ? '' : 's'}`}
              >
                {pace.toFixed(2)}
              </DefinitionRow>
            ))}
          </dl>
        )}
        {clock.drop.length > 0 && (
          <div role="status" className="border-l-4 border-primary pl-3 my-2">
            <p className="font-semibold">
              {clock.fits ? 'Drop, and the rest is done in time' : 'Even without these it is too late'}
            </p>
            <ul>
              {clock.drop.map(({ id, name }) => (
                <li key={id}>{name}</li>
              ))}
            </ul>
          </div>
        )}
        <Basis>
          What is to come takes its planned minutes times the pace of what is over of the same kind of work
          (minutes taken ÷ planned, between {PACE_BOUNDS.least} and {PACE_BOUNDS.most}); where nothing of a
          kind is over, its plan. What goes on by itself holds up only what comes after it. If that ends too
          late, the slots to drop are those worth least together that save enough, found exactly; what must be
          done and what has begun is kept.
        </Basis>
      </section>
    </div>
  );
}

const STATE_WORD = { waits: 'to come', runs: 'now', over: 'over', dropped: 'dropped' } as const;

function SlotRow({
  row: { slot, state, took, ends },
  toDrop,
  running,
  fixed,
  above,
  before,
}: {
  row: ClockRow;
  toDrop: boolean;
  running: Slot | null;
  fixed: boolean;
  above: Slot | null;
  before: readonly Slot[];
}) {
  const [open, setOpen] = useState(false);
  const edit = useEdit();
  const set = (label: string, changed: Partial<Slot>) => edit.patch(label, 'slot', slot, changed);
  const begin = () => {
    const moment = new Date().toISOString();
    edit.change(`began “${slot.name}”`, [
      // Who begins one thing has ended the one before; what goes on by itself goes on.
      ...(running && running.id !== slot.id && !slot.unattended
        ? [
            {
              op: 'patch' as const,
              kind: 'slot' as const,
              id: running.id,
              v: running.v,
              set: { ended: moment },
            },
          ]
        : []),
      {
        op: 'patch',
        kind: 'slot',
        id: slot.id,
        v: slot.v,
        set: { began: moment, ended: null, took: null, dropped: false },
      },
    ]);
  };
  return (
    <li className={`border-b hair py-2 ${state === 'runs' ? 'bg-base-200' : ''}`} aria-label={slot.name}>
      <div className="flex flex-wrap items-center gap-2">
        <div className="flex-1 min-w-40">
          <TextField
            bare
            label={`Name of ${slot.name}`}
            value={slot.name}
            required
            disabled={fixed}
            onCommit={(name) => set('renamed a slot', { name })}
          />
        </div>
        <span className={`w-16 text-xs ${toDrop ? 'text-primary font-semibold' : 'ink-2'}`}>
          {toDrop ? 'drop' : STATE_WORD[state]}
        </span>
        <span className="fig text-right w-36 text-xs">
          {took === null ? '' : `${spanWord(took)} of `}
          {slot.minutes} min{slot.unattended ? ' by itself' : ''}
          <span className="block ink-2">{ends === null ? '' : `until ${at(ends)}`}</span>
        </span>
        {state === 'runs' ? (
          <button
            type="button"
            className="btn btn-sm btn-primary w-20"
            disabled={fixed}
            onClick={() => set(`ended “${slot.name}”`, { ended: new Date().toISOString() })}
          >
            Done
          </button>
        ) : (
          <button
            type="button"
            className="btn btn-sm w-20"
            disabled={fixed}
            aria-label={`Begin ${slot.name}`}
            onClick={begin}
          >
            {state === 'over' ? 'Again' : 'Begin'}
          </button>
        )}
        <button
          type="button"
          className="btn btn-sm btn-ghost"
          aria-expanded={open}
          aria-label={`More of ${slot.name}`}
          onClick={() => setOpen(!open)}
        >
          {open ? 'Less' : 'More'}
        </button>
        <RemoveButton
          what={`slot ${slot.name}`}
          disabled={fixed}
          onClick={() => edit.remove('removed a slot', 'slot', slot.id, slot.v)}
        />
      </div>
      {(state === 'waits' || state === 'dropped') && (
        <SlotPlan slot={slot} above={above} fixed={fixed} set={set} />
      )}
      {open && (
        <SlotSheet
          slot={slot}
          took={state === 'over' ? took : null}
          before={before}
          fixed={fixed}
          set={set}
        />
      )}
    </li>
  );
}

/** What is planned of a slot that is not begun. @param above the slot before it */
function SlotPlan({
  slot,
  above,
  fixed,
  set,
}: {
  slot: Slot;
  above: Slot | null;
  fixed: boolean;
  set: (label: string, changed: Partial<Slot>) => void;
}) {
  const edit = useEdit();
  return (
    <div className="flex flex-wrap items-center gap-3 text-xs">
      <span className="w-24">
        <NumberField
          bare
          label={`Minutes of ${slot.name}`}
          unit="min"
          whole
          value={slot.minutes}
          min={1}
          max={1440}
          disabled={fixed}
          onCommit={(minutes) => minutes !== null && set('planned a slot', { minutes })}
        />
      </span>
      <span className="w-28 flex items-center gap-1">
        <span className="ink-2">worth</span>
        <NumberField
          bare
          label={`Worth of ${slot.name}, 1 to 10`}
          whole
          value={slot.worth}
          min={1}
          max={10}
          disabled={fixed}
          onCommit={(worth) => worth !== null && set('weighed a slot', { worth })}
        />
      </span>
      <label className="flex items-center gap-1">
        <CheckField
          bare
          label={`${slot.name} must be done`}
          value={slot.must}
          disabled={fixed}
          onCommit={(must) => set('changed a slot', { must })}
        />
        <span aria-hidden>must</span>
      </label>
      <button
        type="button"
        className="btn btn-xs"
        disabled={fixed}
        onClick={() =>
          set(slot.dropped ? 'took a slot back in' : `dropped “${slot.name}”`, {
            dropped: !slot.dropped,
          })
        }
      >
        {slot.dropped ? 'Take back in' : 'Drop'}
      </button>
      {above && (
        <button
          type="button"
          className="btn btn-xs"
          disabled={fixed}
          aria-label={`${slot.name} earlier`}
          onClick={() =>
            edit.change('changed the order of the day', [
              { op: 'patch', kind: 'slot', id: slot.id, v: slot.v, set: { order: above.order } },
              { op: 'patch', kind: 'slot', id: above.id, v: above.v, set: { order: slot.order } },
            ])
          }
        >
          Earlier
        </button>
      )}
    </div>
  );
}

/** What is seldom changed: the kind of work, what it waits for, and the time it really took. */
function SlotSheet({
  slot,
  took,
  before,
  fixed,
  set,
}: {
  slot: Slot;
  took: number | null;
  before: readonly Slot[];
  fixed: boolean;
  set: (label: string, changed: Partial<Slot>) => void;
}) {
  return (
    <div className="ml-3 pl-3 my-1 border-l border-base-300 max-w-md">
      <SelectField<Work>
        label="Work"
        value={slot.work}
        options={WORKS.map((value) => ({ value, word: capital(value) }))}
        disabled={fixed}
        onCommit={(work) => set('changed a slot', { work })}
      />
      <SelectField
        label="Not before is over"
        value={slot.after ?? ''}
        options={[
          { value: '', word: 'the turn decides' },
          ...before.map(({ id, name }) => ({ value: id, word: name })),
        ]}
        disabled={fixed}
        onCommit={(after) => set('changed a slot', { after: after || null })}
      />
      <CheckField
        label="Goes on by itself, while others are worked on"
        value={slot.unattended}
        disabled={fixed}
        onCommit={(unattended) => set('changed a slot', { unattended })}
      />
      {slot.unattended && (
        <SelectField<Drying | ''>
          label="Because it dries"
          value={slot.drying ?? ''}
          options={DRYING_OPTIONS}
          disabled={fixed}
          onCommit={(drying) => set('changed a slot', { drying: drying || null })}
        />
      )}
      {slot.unattended && slot.drying && (
        <p className="text-xs ink-2 py-1">{dryingCaution(slot.drying, `${slot.minutes} min`)}</p>
      )}
      {took !== null && (
        <NumberField
          label="Really took"
          unit="min"
          whole
          optional={String(Math.round(took))}
          value={slot.took}
          min={0}
          max={1440}
          disabled={fixed}
          hint="empty: as the clock says"
          onCommit={(minutes) => set('corrected a slot', { took: minutes })}
        />
      )}
    </div>
  );
}
