import { useState } from 'react';
import { countOf } from '@quarry/core/grid';
import { earnedIndices, earnedValue } from '@quarry/core/progress';
import { useDisplay } from '../../data/useDisplay.tsx';
import { Basis, Heading, DefinitionRow } from '../../ui/parts.tsx';
import { Tabs } from '../../ui/Tabs.tsx';
import { today } from '../../ui/days.ts';
import { useCounts } from '../../workers/useCounts.ts';

const UNITS = [
  { id: 'hours', word: 'In hours' },
  { id: 'pieces', word: 'In pieces' },
] as const;
type Unit = (typeof UNITS)[number]['id'];

/** What is planned, earned and spent, with the indices that follow from them. */
export function EarnedPart() {
  const scene = useDisplay(({ scene }) => scene);
  const counts = useCounts();
  const [unit, setUnit] = useState<Unit>('hours');
  const value = earnedValue(scene, today(), counts ?? {}, unit);
  const { sv, cv, spi, cpi, eac, etc } = earnedIndices(value);
  const say = (number: number) =>
    unit === 'hours' ? `${number.toFixed(1)} h` : Math.round(number).toLocaleString('en');
  const index = (number: number | null) => (number === null ? '–' : number.toFixed(2));
  const signed = (number: number) => `${number > 0 ? '+' : ''}${say(number)}`;
  return (
    <section aria-labelledby="earned">
      <Heading id="earned" aside={`${value.known} of ${countOf(value.sections, 'section')} known`}>
        Earned value
      </Heading>
      <Tabs label="Earned value" look="line" tabs={UNITS} open={unit} onOpen={setUnit} each="px-2" />
      {value.known === 0 ? (
        <p className="ink-2 py-2">
          {counts
            ? 'Nothing is typed or counted yet: type hours below, or give the plan ground and lists.'
            : 'Counting …'}
        </p>
      ) : (
        <dl>
          <DefinitionRow label="Planned by today">{say(value.planned)}</DefinitionRow>
          <DefinitionRow label="Earned" note={`${signed(sv)} against the plan`}>
            {say(value.earned)}
          </DefinitionRow>
          <DefinitionRow
            label={unit === 'hours' ? 'Spent' : 'Placed and counted'}
            note={unit === 'hours' ? `${signed(cv)} against what was earned` : undefined}
          >
            {say(value.actual)}
          </DefinitionRow>
          <DefinitionRow label="Budget (BAC)">{say(value.budget)}</DefinitionRow>
          <DefinitionRow label="Schedule index, SPI">{index(spi)}</DefinitionRow>
          {unit === 'hours' && <DefinitionRow label="Cost index, CPI">{index(cpi)}</DefinitionRow>}
          {unit === 'hours' && (
            <DefinitionRow
              label="Estimate at completion (EAC)"
              note={etc === null ? undefined : `${say(etc)} of it to come`}
            >
              {eac === null ? '–' : say(eac)}
            </DefinitionRow>
          )}
        </dl>
      )}
      <Basis>
        {unit === 'hours'
          ? 'Earned is the work of each section (typed hours, else counted pieces over its builder’s rates) times the share of it that is done, by the weights of its stages. Spent is what sessions logged.'
          : 'Earned is the counted pieces of each section times the share of its work that is done. Placed is what sessions counted: builders do not count every evening, so no index is made of it.'}{' '}
        Planned is the whole spread evenly from the first day to the show. SPI = earned ÷ planned, CPI =
        earned ÷ spent, EAC = BAC ÷ CPI (ANSI/EIA-748).
      </Basis>
    </section>
  );
}
