import { countOf, formatPercent, formatSum } from '@quarry/core/grid';
import { colourName, partName } from '@quarry/core/catalogue';
import { PURPOSE_WORDS, blockedSections, type NeedChange } from '@quarry/core/materials';
import { priceOfPart } from '@quarry/core/masonry';
import { displayOf } from '@quarry/core/document';
import { useScene } from '../../data/useDisplay.tsx';
import { Basis, Heading, DefinitionRow } from '../../ui/parts.tsx';
import { dayWord } from '../../ui/words.ts';
import type { NeedRow } from './rows.ts';

/** What the rows come to: pieces, money, what each section waits for, and what changed last. */
export function NeedsSum({ rows, changed }: { rows: readonly NeedRow[]; changed: readonly NeedChange[] }) {
  const scene = useScene('display', 'partType', 'section');
  const { currency } = displayOf(scene);
  const sum = (of: (row: NeedRow) => number) => rows.reduce((total, row) => total + of(row), 0);
  const [needed, short, late] = [sum(({ qty }) => qty), sum(({ short: s }) => s), sum(({ late: l }) => l)];
  const prices = rows.map(({ part }) => priceOfPart(part, scene.partType));
  const money = (of: (row: NeedRow) => number) =>
    rows.reduce((total, row, i) => total + of(row) * (prices[i]?.price ?? 0), 0);
  const guessed = prices.filter(({ guess }) => guess).length;
  const blocked = blockedSections(rows);
  return (
    <>
      <Heading>These {countOf(rows.length, 'line')}</Heading>
      <dl>
        <DefinitionRow label="Pieces counted">
          {sum(({ demand }) => demand.counted).toLocaleString('en')}
        </DefinitionRow>
        <DefinitionRow label="Spares" note="of each part and colour, for the whole display">
          {sum(({ demand, qty }) => (demand.counted === 0 ? qty : 0)).toLocaleString('en')}
        </DefinitionRow>
        <DefinitionRow label="Needed">{needed.toLocaleString('en')}</DefinitionRow>
        <DefinitionRow label="Covered by what is there">
          {needed > 0 ? formatPercent(sum(isHere) / needed) : '–'}
        </DefinitionRow>
        <DefinitionRow label="Short">{short.toLocaleString('en')}</DefinitionRow>
        <DefinitionRow label="On order, but late">{late.toLocaleString('en')}</DefinitionRow>
        <DefinitionRow
          label="All of it would cost"
          note={guessed > 0 ? `${guessed} prices are guesses` : undefined}
        >
          {formatSum(money(({ qty }) => qty))} {currency}
        </DefinitionRow>
        <DefinitionRow label="What is short">
          {formatSum(money(({ short: s }) => s))} {currency}
        </DefinitionRow>
      </dl>
      <Basis>
        Ground is counted piece by piece from the plan: each module’s layers by its method, every piece
        placed. Things of the plan and lists are added. Spares are so many percent of all that is counted of a
        part and colour, to the nearest piece; what may only come from kits has none. Then, part by part: what
        may only come from kits; promises, own stock and donated bulk by the nearest date, orders that come in
        time or on no known day, others’ stock from as few hands as can be, late orders, accepted substitutes.
        The rest is short. Prices are as typed, else guesses by mass.
      </Basis>
      {blocked.length > 0 && (
        <>
          <Heading>Who waits for what</Heading>
          <ul className="text-xs">
            {blocked.map(({ section, by, short: missing, late: coming, parts }) => {
              const at = section === null ? null : scene.section[section];
              return (
                <li key={section ?? ''} className="border-b hair py-1">
                  <CoverBar rows={rows.filter((row) => row.section === section)} />
                  <b>{at ? `${at.letter}, ${at.name}` : 'No section'}</b>: {missing.toLocaleString('en')}{' '}
                  pieces short
                  {coming > 0 && `, ${coming.toLocaleString('en')} late`} in {countOf(parts, 'line')}
                  {by && <span className="ink-2"> · by {dayWord(by)}</span>}
                </li>
              );
            })}
          </ul>
        </>
      )}
      <Heading aside={changed.length > 0 ? 'by the plan or a list' : undefined}>Changed last</Heading>
      {changed.length === 0 ? (
        <p className="ink-2 text-xs">Nothing since this display was opened.</p>
      ) : (
        <ul className="text-xs" data-changed>
          {changed.slice(0, 8).map((one) => (
            <li
              key={`${one.section} ${one.part} ${one.colour} ${one.purpose}`}
              className="border-b hair py-0.5"
            >
              <span className="fig">
                {one.after >= one.before ? '+' : '−'}
                {Math.abs(one.after - one.before).toLocaleString('en')}
              </span>{' '}
              {partName(one.part)} in {colourName(one.colour)}{' '}
              <span className="ink-2">
                for {PURPOSE_WORDS[one.purpose]}: {one.from.join(', ')}
              </span>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** Pieces of a row that are there: own, promised, or substitutes that were accepted. */
const isHere = ({ own, handed, substituted }: NeedRow): number => own + handed + substituted;

/** How much of a section's pieces is there, is coming, and is short, as one bar. */
function CoverBar({ rows }: { rows: readonly NeedRow[] }) {
  const sum = (of: (row: NeedRow) => number) => rows.reduce((total, row) => total + of(row), 0);
  const all = Math.max(
    1,
    sum(({ qty }) => qty),
  );
  const [here, coming] = [sum(isHere), sum(({ ordered, late }) => ordered + late)];
  const share = (count: number) => formatPercent(count / all);
  return (
    <div
      role="img"
      aria-label={`${share(here)} is there, ${share(coming)} is coming, ${share(all - here - coming)} is short`}
      className="h-2 border border-base-content/60 flex mb-0.5"
    >
      <span className="bg-base-content" style={{ width: `${(100 * here) / all}%` }} />
      <span className="hatch text-base-content" style={{ width: `${(100 * coming) / all}%` }} />
    </div>
  );
}
