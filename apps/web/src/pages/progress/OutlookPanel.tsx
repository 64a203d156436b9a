import { useEffect, useState } from 'react';
import { earnedIndices, earnedValue, type OutlookAnswer } from '@quarry/core/progress';
import { listOf, type Calendar } from '@quarry/core/scene';
import { freshId, useDisplay, useEdit, useMay } from '../../data/useDisplay.tsx';
import { NumberField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading, Line, Loading } from '../../ui/parts.tsx';
import { dayWord } from '../../ui/words.ts';
import { today, useSurvey } from '../../workers/survey.tsx';

const RUNS = 2000;
/** One seed for all: two people see the same odds. */
const SEED = 1;
/** Changes of guesses and calendars are waited for this long before the odds are played anew, ms. */
const PLAY_AFTER = 400;
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;

/** What is earned, and when it will be done, with odds. */
export function OutlookPanel() {
  return (
    <div className="p-3 sm:p-4 grid gap-6 lg:grid-cols-[minmax(0,1fr)_392px] items-start max-w-[1200px]">
      <Odds />
      <div>
        <EarnedPart />
        <Hours />
        <Calendars />
      </div>
    </div>
  );
}

function Odds() {
  const scene = useDisplay(({ scene }) => scene);
  const core = useSurvey(({ core }) => core);
  const [answer, setAnswer] = useState<OutlookAnswer | null>(null);
  useEffect(() => {
    let wanted = true;
    const timer = setTimeout(() => {
      void core?.outlook(scene, today(), { runs: RUNS, seed: SEED }).then((one) => wanted && setAnswer(one));
    }, PLAY_AFTER);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  }, [scene, core]);
  if (!answer) return <Loading what="Playing it through" />;
  if (!answer.ok)
    return (
      <section aria-labelledby="odds">
        <Heading id="odds">When it will be done</Heading>
        <Empty title="No forecast without knowing these">
          {answer.missing.slice(0, 12).map((line) => (
            <span key={line} className="block">
              {line}
            </span>
          ))}
        </Empty>
      </section>
    );
  const { half, late, shows, sections, moves, runs } = answer.outlook;
  const day = (date: string | null) => (date ? dayWord(date) : 'not within two years');
  return (
    <section aria-labelledby="odds">
      <Heading id="odds">When it will be done</Heading>
      <dl>
        <Line label="As likely before as after">{day(half)}</Line>
        <Line label="Nine times in ten by">{day(late)}</Line>
        {shows.map(({ name, date, chance }) => (
          <Line key={name + date} label={`Ready for ${name}`} note={dayWord(date)}>
            {(100 * chance).toFixed(0)} %
          </Line>
        ))}
      </dl>
      {moves.length > 0 && (
        <>
          <Heading aside={`for ${shows[0]?.name ?? 'the show'}`}>What moves the odds most</Heading>
          <ol>
            {moves.map(({ words, chance }) => (
              <li key={words} className="flex justify-between gap-3 border-b hair py-1">
                <span>{words}</span>
                <span className="fig whitespace-nowrap">{(100 * chance).toFixed(0)} %</span>
              </li>
            ))}
          </ol>
        </>
      )}
      <Heading>By section</Heading>
      <ul>
        {sections.map(({ id, half: done, critical }) => (
          <li key={id} className="flex justify-between gap-3 border-b hair py-1">
            <span>
              {scene.section[id]?.letter}, {scene.section[id]?.name}
            </span>
            <span className="fig text-right">
              {day(done)}
              <span className="block ink-2 text-[11px]">
                last to be done in {(100 * critical).toFixed(0)} %
              </span>
            </span>
          </li>
        ))}
      </ul>
      <Basis>
        {runs.toLocaleString('en')} runs with one seed. In each the hours left of a section are drawn between
        0.7 and 1.8 of the guess (a beta distribution with the mean of PERT, (a + 4m + b) / 6; the shares are
        ours), every builder’s speed from the scatter of their counted sessions, and worked off in the hours
        their calendar has, not before the parts that are on their way. The moves are played with the same
        luck.
      </Basis>
    </section>
  );
}

function EarnedPart() {
  const scene = useDisplay(({ scene }) => scene);
  const value = earnedValue(scene, today());
  const { spi, cpi, eac } = earnedIndices(value);
  const hours = (number: number) => `${number.toFixed(1)} h`;
  return (
    <section aria-labelledby="earned">
      <Heading id="earned" aside={`${value.guessed} of ${value.sections} sections guessed`}>
        Earned value
      </Heading>
      {value.guessed === 0 ? (
        <p className="ink-2">Say below how many hours each section takes in all; then it can be told.</p>
      ) : (
        <dl>
          <Line label="Planned by today">{hours(value.planned)}</Line>
          <Line label="Earned">{hours(value.earned)}</Line>
          <Line label="Spent">{hours(value.actual)}</Line>
          <Line label="In all, as guessed">{hours(value.budget)}</Line>
          <Line label="Schedule index">{spi === null ? '–' : spi.toFixed(2)}</Line>
          <Line label="Cost index">{cpi === null ? '–' : cpi.toFixed(2)}</Line>
          <Line label="In all, as it goes">{eac === null ? '–' : hours(eac)}</Line>
        </dl>
      )}
      <Basis>
        Earned is the guess of each section times the share of its work behind it (stages by their weights);
        planned is the guess spread evenly from the first day to the show; spent is what sessions logged.
        Schedule index = earned ÷ planned, cost index = earned ÷ spent, in all as it goes = guess ÷ cost index
        (ANSI/EIA-748).
      </Basis>
    </section>
  );
}

function Hours() {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const may = useMay();
  const sections = listOf(scene, 'section').toSorted((a, b) => (a.letter < b.letter ? -1 : 1));
  return (
    <section aria-labelledby="hours">
      <Heading id="hours">Hours in all, by section</Heading>
      {sections.map((section) => (
        <NumberField
          key={section.id}
          label={`${section.letter}, ${section.name}`}
          unit="h"
          optional="none"
          value={section.hours}
          min={0}
          max={100_000}
          disabled={
            may({ op: 'patch', kind: 'section', id: section.id, v: section.v, set: { hours: 0 } }) !== null
          }
          onCommit={(hours) =>
            edit.patch(`guessed the hours of section ${section.letter}`, 'section', section, { hours })
          }
        />
      ))}
    </section>
  );
}

function Calendars() {
  const scene = useDisplay(({ scene }) => scene);
  const calendars = listOf(scene, 'calendar');
  const edit = useEdit();
  const may = useMay();
  const set = (person: string, calendar: Calendar | undefined, weekly: number[]) =>
    calendar
      ? edit.patch('set a calendar', 'calendar', calendar, { weekly })
      : edit.add('set a calendar', 'calendar', freshId('calendar'), { person, weekly });
  return (
    <section aria-labelledby="calendars">
      <Heading id="calendars">Hours at the table, by day</Heading>
      <div className="overflow-x-auto" role="region" aria-label="Calendars" tabIndex={0}>
        <table className="text-xs">
          <thead>
            <tr>
              <th scope="col" className="text-left font-normal ink-2">
                Builder
              </th>
              {DAYS.map((day) => (
                <th key={day} scope="col" className="font-normal ink-2">
                  {day}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {listOf(scene, 'person').map(({ id, name }) => {
              const calendar = calendars.find(({ person }) => person === id);
              const weekly = calendar?.weekly ?? [0, 0, 0, 0, 0, 0, 0];
              const fixed =
                may({ op: 'add', kind: 'calendar', id: 'x', data: { person: id, weekly } }) !== null;
              return (
                <tr key={id}>
                  <th scope="row" className="text-left font-normal pr-2 whitespace-nowrap">
                    {name}
                  </th>
                  {DAYS.map((day, i) => (
                    <td key={day}>
                      <input
                        type="number"
                        className="input input-xs w-9 px-1 fig text-right"
                        aria-label={`Hours of ${name} on ${day}`}
                        min={0}
                        max={24}
                        step={0.5}
                        disabled={fixed}
                        defaultValue={weekly[i]}
                        key={weekly[i]}
                        onBlur={(event) => {
                          const hours = event.currentTarget.valueAsNumber;
                          if (hours >= 0 && hours <= 24 && hours !== weekly[i])
                            set(
                              id,
                              calendar,
                              weekly.map((was, k) => (k === i ? hours : was)),
                            );
                          else event.currentTarget.value = String(weekly[i]);
                        }}
                      />
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </section>
  );
}
