import { countOf, formatChance, formatPercent } from '@quarry/core/grid';
import { effortOf, type Effort } from '@quarry/core/progress';
import { listOf } from '@quarry/core/document';
import { useDisplay, useEdit, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { NumberField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading, DefinitionRow, Loading } from '../../ui/parts.tsx';
import { dayWord } from '../../ui/words.ts';
import { BurnCharts } from './BurnCharts.tsx';
import { EarnedPart } from './EarnedPart.tsx';
import { useCounts } from '../../workers/useCounts.ts';
import { useOutlook } from '../../workers/useOutlook.ts';

/** What is earned, and when it will be done, with odds. */
export function OutlookPanel() {
  return (
    <div className="p-3 sm:p-4 grid gap-6 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_392px] items-start max-w-[1200px]">
      <div>
        <Odds />
        <BurnCharts />
      </div>
      <div>
        <EarnedPart />
        <Hours />
      </div>
    </div>
  );
}

function Odds() {
  const scene = useScene('section');
  const { answer, counting } = useOutlook();
  if (!answer) return <Loading what={counting ? 'Counting what is left to build' : 'Playing it through'} />;
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
  const { half, late, shows, sections, moves, runs, missing, without } = answer.outlook;
  const but = without.length > 0 ? `, but for ${without.join(', ')}` : '';
  const day = (date: string | null) => (date ? dayWord(date) : 'not within two years');
  return (
    <section aria-labelledby="odds">
      <Heading id="odds">When it will be done</Heading>
      {missing.length > 0 && (
        <div role="note" className="border-l-4 border-warning pl-3 mb-2">
          <p className="font-semibold">
            {without.length > 0
              ? `Left out: section ${without.join(', ')}. The odds are those of the other sections.`
              : 'Not all is known'}
          </p>
          {missing.slice(0, 12).map((line) => (
            <p key={line} className="ink-2">
              {line}
            </p>
          ))}
        </div>
      )}
      <dl>
        <DefinitionRow label="50 % likely by">{day(half)}</DefinitionRow>
        <DefinitionRow label="90 % likely by">{day(late)}</DefinitionRow>
        {shows.map(({ name, date, chance }) => (
          <DefinitionRow key={name + date} label={`Ready for ${name}${but}`} note={dayWord(date)}>
            {formatChance(chance)}
          </DefinitionRow>
        ))}
      </dl>
      {moves.length > 0 && (
        <>
          <Heading aside={`for ${shows[0]?.name ?? 'the show'}`}>What moves the odds most</Heading>
          <ol>
            {moves.map(({ words, chance, now, sooner }) => (
              <li key={words} className="flex justify-between gap-3 border-b hair py-1">
                <span>{words}</span>
                <span className="fig text-right whitespace-nowrap">
                  {chance > now
                    ? `${(100 * now).toFixed(0)} → ${formatChance(chance)}`
                    : formatChance(chance)}
                  {sooner > 0 && (
                    <span className="block ink-2 text-[11px]">{countOf(sooner, 'day')} sooner</span>
                  )}
                </span>
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
              {scene.section[id]
                ? `${scene.section[id].letter}, ${scene.section[id].name}`
                : 'Tasks of no section'}
            </span>
            <span className="fig text-right">
              {day(done)}
              <span className="block ink-2 text-[11px]">last to be done in {formatPercent(critical)}</span>
            </span>
          </li>
        ))}
      </ul>
      <Basis>
        {runs.toLocaleString('en')} runs with one seed. In each the hours left of a section, typed or its
        counted pieces and the plain shells of buildings without a list over its builder’s rates, are drawn
        between 0.7 and 1.8 of the guess (a beta distribution with the mean of PERT, (a + 4m + b) / 6; the
        shares are ours); a task with three guesses between those, after what it comes after. Every builder’s
        speed is drawn from the scatter of their counted sessions, and all is worked off in the hours their
        calendar has before the day of the show, not before the parts that are on their way. What moves the
        odds is played with the same luck, in 400 runs each, for the sections of those on whom the end hangs.
      </Basis>
    </section>
  );
}

function Hours() {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const may = useDenialReason();
  const counts = useCounts();
  const sections = listOf(scene, 'section').toSorted((a, b) => (a.letter < b.letter ? -1 : 1));
  return (
    <section aria-labelledby="hours" className="pt-4">
      <Heading id="hours">Hours in all, by section</Heading>
      {sections.map((section) => (
        <NumberField
          hint={countedHint(effortOf(scene, { ...section, hours: null }, counts ?? {}))}
          key={section.id}
          label={`${section.letter}, ${section.name}`}
          unit="h"
          optional="counted"
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

/** Hours from the piece count, shown where no guess is typed. */
const countedHint = ({ hours, pieces, byWork, guessed }: Effort) =>
  hours === null
    ? 'nothing counted'
    : `${Math.round(hours).toLocaleString('en')} h by ${countOf(pieces, 'piece')}${guessed.length === 0 ? '' : ` and ${guessed.length} plain shell${guessed.length === 1 ? '' : 's'}`}${byWork.every(({ learnt }) => learnt) ? '' : ', at guessed rates'}`;
