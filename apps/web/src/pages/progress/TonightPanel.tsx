import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { countOf } from '@quarry/core/grid';
import { eveningOf, hoursAhead, type Evening } from '@quarry/core/progress';
import { colourName, partName } from '@quarry/core/catalogue';
import type { Transfer } from '@quarry/core/materials';
import { useSheets } from '../../data/sheets.ts';
import { freshId, useDisplay, useEdit, useLink, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { SelectField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading } from '../../ui/parts.tsx';
import { sectionOptions } from '../../ui/picks.ts';
import { capital, dayWord } from '../../ui/words.ts';
import { today } from '../../ui/days.ts';
import { useDerived } from '../../workers/useDerived.ts';

/** Default length of the evening, minutes, and the step of its field. */
const USUAL = 150;
const STEP = 15;
const LEAST = 15;
const MOST = 720;
/** So many lines of parts and of what is not for tonight. */
const SHOWN = 12;

const clock = (minutes: number) => `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`;

/** What can really be finished in the time one has. */
export function TonightPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const person = useDisplay(({ actor }) => actor.person);
  const netted = useDerived(({ materials }) => materials?.rows ?? null);
  const handOvers = useDerived(({ materials }) => materials?.handOvers ?? null);
  const own = person === null ? 0 : (hoursAhead(scene, person, today(), 1)[0] ?? 0);
  const [said, setSaid] = useState<number | null>(null);
  const [section, setSection] = useState('');
  const minutes = said ?? (own > 0 ? Math.round((60 * own) / STEP) * STEP : USUAL);
  const evening = useMemo(
    () =>
      person === null
        ? null
        : eveningOf(
            scene,
            { person, minutes, section: section || null, today: today() },
            { netted, handOvers },
          ),
    [scene, person, minutes, section, netted, handOvers],
  );
  if (evening === null)
    return (
      <div className="p-4">
        <Empty title="Whose evening?">
          Your account is nobody on this display yet; its owner says under Crew, People, who you are.
        </Empty>
      </div>
    );
  return (
    <div className="p-3 sm:p-4 grid gap-6 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_360px] items-start max-w-[1180px]">
      <div>
        <section aria-labelledby="have">
          <Heading id="have">What there is</Heading>
          <div className="flex items-center gap-3">
            <label htmlFor="minutes" className="shrink-0">
              At the table
            </label>
            <input
              id="minutes"
              type="range"
              className="range range-sm flex-1"
              min={LEAST}
              max={MOST}
              step={STEP}
              value={minutes}
              aria-valuetext={clock(minutes)}
              onChange={(event) => setSaid(event.currentTarget.valueAsNumber)}
            />
            <output htmlFor="minutes" className="fig text-lg w-24 text-right">
              {clock(minutes)}
            </output>
          </div>
          <SelectField
            label="On"
            value={section}
            options={sectionOptions(scene, 'any of my sections')}
            onCommit={setSection}
          />
        </section>
        <Chosen evening={evening} minutes={minutes} counting={netted === null} />
      </div>
      <Around evening={evening} counting={netted === null} />
    </div>
  );
}

function Chosen({ evening, minutes, counting }: { evening: Evening; minutes: number; counting: boolean }) {
  const scene = useScene('section');
  const person = useDisplay(({ actor }) => actor.person);
  const edit = useEdit();
  const may = useDenialReason();
  const link = useLink();
  const { chosen, spent, not } = evening;
  const begin = () => {
    const [first] = chosen;
    if (!first) return;
    edit.add('began a session', 'session', freshId('session'), {
      ...{ person, section: first.task.section, work: first.task.work, start: new Date().toISOString() },
    });
  };
  return (
    <section aria-labelledby="finish" className="pt-4">
      <Heading id="finish" aside={counting ? 'counting parts …' : `${clock(spent)} of ${clock(minutes)}`}>
        What can be finished
      </Heading>
      {chosen.length === 0 ? (
        <Empty
          title="Nothing fits as it stands"
          act={
            <Link className="btn btn-xs" to={`/d/${link.id}/progress?sheet=tasks`}>
              Go to the tasks
            </Link>
          }
        >
          {not.length > 0
            ? 'Below stands of each task why it is not for tonight.'
            : 'You have no open task: add suggested tasks under Tasks.'}
        </Empty>
      ) : (
        <>
          <ol>
            {chosen.map(({ task, minutes: takes }, i) => (
              <li key={task.id} className="flex items-start gap-3 border-b hair py-2">
                <span className="fig ink-2 w-4">{i + 1}</span>
                <input
                  type="checkbox"
                  className="checkbox mt-0.5"
                  aria-label={`${task.name}, done`}
                  checked={false}
                  disabled={
                    may({ op: 'patch', kind: 'task', id: task.id, v: task.v, set: { done: today() } }) !==
                    null
                  }
                  onChange={() => edit.patch(`finished “${task.name}”`, 'task', task, { done: today() })}
                />
                <span className="flex-1 min-w-0 break-words">
                  <span className="font-semibold">{task.name}</span>
                  <span className="block ink-2 text-xs">
                    {capital(task.work)}
                    {task.section && `, section ${scene.section[task.section]?.letter ?? ''}`}
                    {task.pieces !== null && `, ${countOf(task.pieces, 'piece')}`}
                  </span>
                </span>
                <span className="fig whitespace-nowrap">{takes} min</span>
              </li>
            ))}
          </ol>
          <button
            type="button"
            className="btn btn-primary w-full h-14 text-base mt-3"
            disabled={may({ op: 'add', kind: 'session', id: 'x', data: { person } }) !== null}
            onClick={begin}
          >
            Sit down and start
          </button>
        </>
      )}
      {not.length > 0 && (
        <details className="pt-3" open={chosen.length === 0}>
          <summary className="cursor-pointer font-semibold">Not tonight: {not.length}</summary>
          <ul>
            {not.slice(0, SHOWN * 2).map(({ task, minutes: takes, why }) => (
              <li key={task.id} className="flex justify-between gap-3 border-b hair py-1">
                <span className="min-w-0 break-words">
                  {task.name}
                  <span className="block ink-2 text-xs">{why}</span>
                </span>
                {takes !== null && <span className="fig ink-2 whitespace-nowrap">{takes} min</span>}
              </li>
            ))}
          </ul>
        </details>
      )}
      <Basis>
        The set of your tasks that is worth most and fits, found exactly. A task takes its mean (a + 4m + b) /
        6 and one deviation (b − a) / 6 more, or its pieces at your rate with one deviation of it, so that
        about five in six are done in time; minutes are rounded up to fives. It is worth the minutes it
        usually takes; bringing all that is open in a stage of a section to its end is worth an hour more,
        shared among those tasks (a choice of ours). Whatever waits for parts, for another task or for
        somebody else is left out.
      </Basis>
    </section>
  );
}

/** What to order and to bring before the next evening. */
function Around({
  evening: { order, next, bring, fetch, seams },
  counting,
}: {
  evening: Evening;
  counting: boolean;
}) {
  const scene = useScene('person');
  const sheets = useSheets();
  const link = useLink();
  const name = (id: string | null) => (id === null ? 'everybody' : (scene.person[id]?.name ?? id));
  const pieces = (list: readonly { qty: number }[]) =>
    countOf(
      list.reduce((sum, { qty }) => sum + qty, 0),
      'piece',
    );
  const hands = (id: string, title: string, list: readonly Transfer[], who: (one: Transfer) => string) =>
    list.length > 0 && (
      <section aria-labelledby={id} className="pt-4">
        <Heading id={id} aside={pieces(list)}>
          {title}
        </Heading>
        <ul>
          {list.slice(0, SHOWN).map((one) => (
            <PartLine
              key={`${one.from}${one.to}${one.section}${one.part}${one.colour}`}
              {...one}
              note={who(one)}
            />
          ))}
        </ul>
        {list.length > SHOWN && (
          <p className="ink-2 text-xs py-1">and {countOf(list.length - SHOWN, 'line')} more</p>
        )}
      </section>
    );
  return (
    <div>
      <section aria-labelledby="order">
        <Heading id="order" aside={order.length > 0 ? pieces(order) : undefined}>
          To order before {next ? dayWord(next) : 'the next session'}
        </Heading>
        {order.length === 0 ? (
          <p className="ink-2">{counting ? 'Counting parts …' : 'Nothing of your sections is short.'}</p>
        ) : (
          <>
            <ul>
              {order.slice(0, SHOWN).map((one) => (
                <PartLine key={`${one.part} ${one.colour}`} {...one} />
              ))}
            </ul>
            <Link className="link text-xs" to={`/d/${link.id}/stockpile?sheet=buy`}>
              {order.length > SHOWN ? `and ${countOf(order.length - SHOWN, 'line')} more: ` : ''}to the
              Stockpile
            </Link>
          </>
        )}
      </section>
      {hands(
        'bring',
        'To bring to the others',
        bring,
        ({ to, place }) => `to ${name(to)}${place ? `, from ${place}` : ''}`,
      )}
      {hands('fetch', 'To ask of the others', fetch, ({ from }) => `from ${name(from)}`)}
      {seams.length > 0 && (
        <section aria-labelledby="neighbours" className="pt-4">
          <Heading id="neighbours">With a neighbour</Heading>
          <ul>
            {seams.map(({ id, name: what, source }) => (
              <li key={id} className="flex justify-between gap-2 border-b hair py-1">
                <span>{what}</span>
                <a
                  className="link whitespace-nowrap"
                  href={sheets('strip.pdf', { seam: source.slice('seam:'.length) })}
                  target="_blank"
                  rel="noreferrer"
                >
                  Print its strip
                </a>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

function PartLine({ part, colour, qty, note }: { part: string; colour: string; qty: number; note?: string }) {
  return (
    <li className="flex justify-between gap-3 border-b hair py-1">
      <span className="min-w-0">
        {partName(part)}, {colourName(colour)}
        {note && <span className="block ink-2 text-xs">{note}</span>}
      </span>
      <span className="fig whitespace-nowrap">{qty.toLocaleString('en')}</span>
    </li>
  );
}
