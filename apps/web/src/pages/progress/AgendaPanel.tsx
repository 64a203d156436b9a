import { addWeeks, formatISO, parseISO } from 'date-fns';
import { ChevronRight, Download } from 'lucide-react';
import { useMemo } from 'react';
import { clockIn, dateIn, dayLine, daysAhead, sittings, together, type Sitting } from '@quarry/core/progress';
import { isZone, listOf, type Calendar } from '@quarry/core/document';
import { useSheets } from '../../data/sheets.ts';
import { freshId, useDisplay, useEdit, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { DateField, NumberField, TextField, TimeField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading } from '../../ui/parts.tsx';
import { RemoveButton } from '../../ui/rows.tsx';
import { dayWord } from '../../ui/words.ts';
import { localZone } from '../../ui/clock.ts';
import { today } from '../../ui/days.ts';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
/** How far the list looks ahead, weeks, and how many times together it names. */
const WEEKS = 6;
const MEETINGS = 4;
const NO_HOURS = [0, 0, 0, 0, 0, 0, 0];
const NO_STARTS = [null, null, null, null, null, null, null];
const SHOWN_ZONE = localZone();

/** What comes: sessions of everybody by their own clocks, parcels, milestones and shows; and who has time when. */
export function AgendaPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const sheets = useSheets();
  const from = today();
  const to = formatISO(addWeeks(parseISO(from), WEEKS), { representation: 'date' });
  const all = useMemo(() => sittings(scene, from, to), [scene, from, to]);
  const days = useMemo(() => daysAhead(scene, from, to), [scene, from, to]);
  const meetings = useMemo(
    () =>
      together(all)
        .slice(0, MEETINGS)
        .toSorted((a, b) => a.start - b.start),
    [all],
  );
  const zoneOf = new Map(listOf(scene, 'calendar').map(({ person, zone }) => [person, zone]));
  const dates = [
    ...new Set([...all.map(({ start }) => dateIn(start, SHOWN_ZONE)), ...days.map(({ date }) => date)]),
  ].sort();
  const name = (id: string) => scene.person[id]?.name ?? id;
  return (
    <div className="p-3 sm:p-4 grid gap-6 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_440px] items-start max-w-[1240px]">
      <section aria-labelledby="agenda">
        <Heading id="agenda" aside={`times of ${SHOWN_ZONE.replace('_', ' ')}`}>
          The next {WEEKS} weeks
        </Heading>
        {dates.length === 0 && (
          <Empty title="Nothing stands in the calendar">
            Say at the right on which days who builds; milestones and shows are set in the Brief, parcels in
            the Stockpile.
          </Empty>
        )}
        <ol>
          {dates.map((date) => (
            <li key={date} className="grid grid-cols-[5.2rem_minmax(0,1fr)] gap-3 border-b hair py-1.5">
              <span className="fig ink-2">
                {DAYS[(new Date(`${date}T00:00:00Z`).getUTCDay() + 6) % 7]} {dayWord(date).slice(0, -5)}
              </span>
              <ul>
                {days
                  .filter((day) => day.date === date)
                  .map((day) => (
                    <li
                      key={day.what + day.id}
                      className={day.what === 'show' ? 'font-semibold text-primary' : 'font-semibold'}
                    >
                      {dayLine(day)}
                    </li>
                  ))}
                {all
                  .filter(({ start }) => dateIn(start, SHOWN_ZONE) === date)
                  .map((one) => (
                    <SittingLine
                      key={one.person + one.start}
                      sitting={one}
                      name={name(one.person)}
                      zone={zoneOf.get(one.person) ?? ''}
                    />
                  ))}
              </ul>
            </li>
          ))}
        </ol>
      </section>
      <div>
        <section aria-labelledby="together">
          <Heading id="together">At the table at the same time</Heading>
          {meetings.length === 0 && <p className="ink-2">In these weeks no two calendars meet.</p>}
          <ul>
            {meetings.map(({ start, end, people }) => (
              <li key={start} className="border-b hair py-1">
                <span className="flex justify-between gap-3">
                  <span>{people.map(name).join(', ')}</span>
                  <span className="fig whitespace-nowrap">
                    {dayWord(dateIn(start, SHOWN_ZONE)).slice(0, -5)}, {clockIn(start, SHOWN_ZONE)}–
                    {clockIn(end, SHOWN_ZONE)}
                  </span>
                </span>
                <span className="block ink-2 text-xs">
                  {people
                    .map(
                      (id) =>
                        `${scene.person[id]?.initials ?? id} ${clockIn(start, zoneOf.get(id) ?? '')}–${clockIn(end, zoneOf.get(id) ?? '')}`,
                    )
                    .join(', ')}
                </span>
              </li>
            ))}
          </ul>
          <Basis>
            Every sitting of every calendar is laid on one clock (UTC), with the summer time of each town on
            that day; the times with the most people are named first found, the longest before the shorter.
          </Basis>
        </section>
        <Calendars />
        <Heading>For your own calendar</Heading>
        <a className="btn btn-sm" href={sheets('agenda.ics')}>
          <Download size={14} aria-hidden /> My agenda as iCalendar
        </a>
        <p className="ink-2 text-xs py-1">
          Your sittings in UTC, and the days of the display: it reads right in any zone. Take it again after
          changes: the same events are replaced. Reminders come as letters in the morning of the day before,
          of shows four, two and one week before too (mail is simulated: they are listed under Messages).
        </p>
      </div>
    </div>
  );
}

function SittingLine({
  sitting: { start, end },
  name,
  zone,
}: {
  sitting: Sitting;
  name: string;
  zone: string;
}) {
  const here = `${clockIn(start, SHOWN_ZONE)}–${clockIn(end, SHOWN_ZONE)}`;
  const there = `${clockIn(start, zone)}–${clockIn(end, zone)}`;
  return (
    <li className="flex justify-between gap-3">
      <span>{name}</span>
      <span className="fig text-right whitespace-nowrap">
        {here}
        {here !== there && <span className="ink-2 text-xs block sm:inline"> ({there} there)</span>}
      </span>
    </li>
  );
}

function Calendars() {
  const scene = useScene('calendar', 'person');
  const calendars = listOf(scene, 'calendar');
  return (
    <section aria-labelledby="calendars" className="pt-4">
      <Heading id="calendars">Who has time when</Heading>
      {listOf(scene, 'person').length === 0 && (
        <p className="ink-2">There are no people yet: name them in the Brief.</p>
      )}
      {listOf(scene, 'person').map(({ id, name }) => (
        <CalendarSheet
          key={id}
          person={id}
          name={name}
          calendar={calendars.find((one) => one.person === id)}
        />
      ))}
    </section>
  );
}

/** “Mon Wed from 20:00, Sat from 09:00”: days that begin alike together. */
function timesWord(weekly: readonly number[], starts: readonly (string | null)[], from: string): string {
  const days = DAYS.flatMap((day, i) => ((weekly[i] ?? 0) > 0 ? [{ day, begins: starts[i] ?? from }] : []));
  return [...new Set(days.map(({ begins }) => begins))]
    .map(
      (begins) =>
        `${days.flatMap((one) => (one.begins === begins ? [one.day] : [])).join(' ')} from ${begins}`,
    )
    .join(', ');
}

function CalendarSheet({
  person,
  name,
  calendar,
}: {
  person: string;
  name: string;
  calendar: Calendar | undefined;
}) {
  const edit = useEdit();
  const may = useDenialReason();
  const weekly = calendar?.weekly ?? NO_HOURS;
  const fixed = may({ op: 'add', kind: 'calendar', id: 'x', data: { person, weekly } }) !== null;
  const set = (changed: Partial<Calendar>) =>
    calendar
      ? edit.patch(`set the calendar of ${name}`, 'calendar', calendar, changed)
      : edit.add(`set the calendar of ${name}`, 'calendar', freshId('calendar'), {
          person,
          weekly,
          ...changed,
        });
  const away = calendar?.away ?? [];
  const starts = calendar?.starts ?? NO_STARTS;
  const total = weekly.reduce((sum, hours) => sum + hours, 0);
  return (
    <details className="group border-b hair py-1">
      <summary className="cursor-pointer flex justify-between gap-3">
        <span className="flex items-center gap-1">
          <ChevronRight size={14} aria-hidden className="group-open:rotate-90" /> {name}
        </span>
        <span className="fig ink-2 text-xs">
          {total === 0
            ? 'no hours yet'
            : `${total} h a week: ${timesWord(weekly, starts, calendar?.from ?? '')}`}
        </span>
      </summary>
      <div className="pl-3 pb-2">
        <div className="grid grid-cols-7 gap-1">
          {DAYS.map((day, i) => (
            <div key={day} className="text-xs ink-2">
              {day}
              <NumberField
                bare
                label={`Hours of ${name} on ${day}`}
                value={weekly[i] ?? 0}
                min={0}
                max={24}
                disabled={fixed}
                onCommit={(hours) => set({ weekly: weekly.map((was, k) => (k === i ? (hours ?? 0) : was)) })}
              />
            </div>
          ))}
        </div>
        <TimeField
          label="Begins at"
          value={calendar?.from ?? '19:00'}
          disabled={fixed}
          onCommit={(begins) => begins !== null && set({ from: begins })}
        />
        {DAYS.map(
          (day, i) =>
            (weekly[i] ?? 0) > 0 && (
              <TimeField
                key={day}
                label={`On ${day} begins at`}
                value={starts[i] ?? null}
                optional={calendar?.from ?? '19:00'}
                disabled={fixed}
                onCommit={(begins) => set({ starts: starts.map((was, k) => (k === i ? begins : was)) })}
              />
            ),
        )}
        <TextField
          label="Clock of"
          value={calendar?.zone ?? ''}
          placeholder={SHOWN_ZONE}
          max={60}
          disabled={fixed}
          check={(text) =>
            isZone(text)
              ? null
              : `Clock of: “${text}” is no zone: told by its IANA name, such as ${SHOWN_ZONE}.`
          }
          onCommit={(zone) => set({ zone })}
        />
        {away.map((gone, i) => {
          const put = (changed: { from?: string; to?: string }) =>
            set({ away: away.map((one, k) => (k === i ? { ...one, ...changed } : one)) });
          return (
            <div key={i} className="flex items-center gap-1">
              <span className="ink-2 text-xs">Away</span>
              <DateField
                bare
                label={`Away from, ${i + 1}`}
                value={gone.from}
                disabled={fixed}
                onCommit={(from) => from && put({ from })}
              />
              <DateField
                bare
                label={`Away to, ${i + 1}`}
                value={gone.to}
                disabled={fixed}
                onCommit={(to) => to && put({ to })}
              />
              <RemoveButton
                what={`the days away from ${gone.from}`}
                disabled={fixed}
                onClick={() => set({ away: away.filter((_, k) => k !== i) })}
              />
            </div>
          );
        })}
        <button
          type="button"
          className="btn btn-xs mt-1"
          disabled={fixed}
          onClick={() => set({ away: [...away, { from: today(), to: today() }] })}
        >
          Days away
        </button>
      </div>
    </details>
  );
}
