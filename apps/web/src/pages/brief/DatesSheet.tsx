import { addWeeks, differenceInCalendarDays, format, formatISO, parseISO } from 'date-fns';
import { countOf } from '@quarry/core/grid';
import { progressOf, STEPS } from '@quarry/core/progress';
import { RHYTHMS, displayOf, listOf, nextUpdate, updateDays } from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useScene } from '../../data/useDisplay.tsx';
import { CheckField, DateField, NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { Heading, DefinitionRow } from '../../ui/parts.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { daysTo, today } from '../../ui/days.ts';
import { MilestonePromises } from './MilestonePromises.tsx';
import { People } from './People.tsx';
import { useSetDisplay } from '../../data/useSetDisplay.ts';

const RHYTHM_WORDS: Record<(typeof RHYTHMS)[number], string> = {
  none: 'None agreed',
  weekly: 'Every week',
  fortnightly: 'Every two weeks',
  days: 'Every so many days',
};

export function DatesSheet({ disabled }: { disabled: boolean }) {
  return (
    <div className="grid gap-x-8 gap-y-4 md:grid-cols-2 xl:grid-cols-[1fr_1.75fr_1.1fr] items-start">
      <Dates disabled={disabled} />
      <Milestones disabled={disabled} />
      <People disabled={disabled} />
    </div>
  );
}

/** Weeks and days from today, in words. */
function away(date: string): string {
  const days = daysTo(date);
  const size = Math.abs(days);
  const words =
    size < 14 ? countOf(size, 'day') : `${Math.floor(size / 7)} weeks${size % 7 ? ` ${size % 7} d` : ''}`;
  if (days === 0) return 'today';
  return days > 0 ? `in ${words}` : `${words} ago`;
}

function Dates({ disabled }: { disabled: boolean }) {
  const scene = useDisplay(({ scene }) => scene);
  const set = useSetDisplay();
  const display = displayOf(scene);
  const { showDate, startDate, rhythm } = display;
  const days = showDate ? daysTo(showDate) : null;
  const { sections, toGo } = progressOf(scene);
  const every = updateDays(display);
  const next = nextUpdate(display, today());
  return (
    <section aria-labelledby="dates">
      <Heading id="dates">Dates</Heading>
      <DateField
        label="Begun"
        value={startDate}
        disabled={disabled}
        onCommit={(value) => set('moved the start', { startDate: value })}
      />
      <TextField
        label="Show"
        value={display.showName}
        disabled={disabled}
        onCommit={(showName) => set('named the show', { showName })}
      />
      <DateField
        label="Show day"
        value={showDate}
        disabled={disabled}
        onCommit={(value) => set('moved the show day', { showDate: value })}
      />
      <SelectField
        label="Updates go out"
        value={rhythm}
        disabled={disabled}
        options={RHYTHMS.map((value) => ({ value, word: RHYTHM_WORDS[value] }))}
        onCommit={(value) => set('changed the rhythm of updates', { rhythm: value })}
      />
      {rhythm === 'days' && (
        <NumberField
          label="Days from one to the next"
          unit="days"
          whole
          value={display.rhythmDays}
          min={1}
          max={365}
          disabled={disabled}
          onCommit={(value) => value !== null && set('changed the rhythm of updates', { rhythmDays: value })}
        />
      )}
      {days === null || !showDate ? (
        <p className="ink-2 pt-2">Set the show day to see the weeks left.</p>
      ) : (
        <dl>
          <DefinitionRow
            label={days >= 0 ? 'Left to the show' : 'Since the show'}
            note={countOf(Math.abs(days), 'day')}
          >
            {countOf(Math.floor(Math.abs(days) / 7), 'week')}
          </DefinitionRow>
          {startDate && (
            <DefinitionRow label="Of the time" note={`from ${format(parseISO(startDate), 'd MMM yyyy')}`}>
              {spent(startDate, showDate)} % gone
            </DefinitionRow>
          )}
          <DefinitionRow label="Stages to go" note={`${countOf(sections, 'section')} of ${STEPS} steps`}>
            {toGo.toFixed(1)}
          </DefinitionRow>
          {days > 0 && (
            <DefinitionRow label="That is, a week">{(toGo / (days / 7)).toFixed(1)} stages</DefinitionRow>
          )}
          {days > 0 && every !== null && (
            <DefinitionRow
              label="Updates before the show"
              note={next === null ? undefined : `the next on ${format(parseISO(next), 'EEE d MMM')}`}
            >
              {next === null || next > showDate
                ? 0
                : Math.floor(differenceInCalendarDays(parseISO(showDate), parseISO(next)) / every) + 1}
            </DefinitionRow>
          )}
        </dl>
      )}
    </section>
  );
}

function spent(from: string, to: string): number {
  const all = differenceInCalendarDays(parseISO(to), parseISO(from));
  const gone = -daysTo(from);
  return all <= 0 ? 100 : Math.round((100 * Math.min(all, Math.max(0, gone))) / all);
}

const COLUMNS = 'minmax(7rem,1fr) 9.2rem 7rem 2.4rem auto';

function Milestones({ disabled }: { disabled: boolean }) {
  const scene = useScene('display', 'milestone');
  const edit = useEdit();
  const { showDate } = displayOf(scene);
  const list = listOf(scene, 'milestone').toSorted((a, b) => (a.date < b.date ? -1 : 1));
  return (
    <Rows
      id="milestones"
      title="Milestones and further shows"
      columns={COLUMNS}
      words={['What', 'Day', { right: 'Away' }, { right: 'Show' }, '']}
      empty={
        <p className="ink-2 py-1">
          Nothing yet: a day when the ground is closed, a test set-up, the loading day, the shows after this
          one.
        </p>
      }
      add={{
        word: 'Add a milestone',
        disabled,
        onClick: () =>
          void edit.add('added a milestone', 'milestone', freshId('milestone'), {
            name: 'test set-up',
            date: formatISO(showDate ? addWeeks(parseISO(showDate), -2) : addWeeks(new Date(), 4), {
              representation: 'date',
            }),
          }),
      }}
    >
      {list.map((one) => {
        const late = !one.show && showDate !== null && one.date > showDate;
        const set = (fields: Partial<typeof one>) =>
          edit.patch(`changed ${one.name}`, 'milestone', one, fields);
        return (
          <div key={one.id}>
            <Row label={one.name} columns={COLUMNS}>
              <TextField
                bare
                label="Milestone"
                required
                value={one.name}
                disabled={disabled}
                onCommit={(name) => set({ name })}
              />
              <DateField
                bare
                label={`Day of ${one.name}`}
                value={one.date}
                disabled={disabled}
                onCommit={(date) => date !== null && set({ date })}
              />
              <span className={`fig text-right text-xs ${late ? 'text-warning' : 'ink-2'}`}>
                {late ? '△ after the show' : away(one.date)}
              </span>
              <span className="flex justify-end">
                <CheckField
                  bare
                  label={`${one.name} is a show`}
                  value={one.show}
                  disabled={disabled}
                  onCommit={(show) => set({ show })}
                />
              </span>
              <RemoveButton
                what={one.name}
                disabled={disabled}
                onClick={() => edit.remove(`removed ${one.name}`, 'milestone', one.id, one.v)}
              />
            </Row>
            <MilestonePromises milestone={one} isPast={one.date < today()} disabled={disabled} />
          </div>
        );
      })}
    </Rows>
  );
}
