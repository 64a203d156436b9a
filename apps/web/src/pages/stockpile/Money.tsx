import { formatSum } from '@quarry/core/grid';
import { balances, costBySection } from '@quarry/core/materials';
import { displayOf, listOf } from '@quarry/core/document';
import { useDisplay } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { Basis, Heading, DefinitionRow } from '../../ui/parts.tsx';
import { later } from '../../ui/later.tsx';

const CostChart = later(() => import('./CostChart.tsx').then((chart) => chart.CostChart), 'Drawing');

/** Guess against actual, by section and over time, and who owes whom. */
export function Money() {
  const scene = useDisplay(({ scene }) => scene);
  const { currency } = displayOf(scene);
  const costs = costBySection(scene);
  const owed = balances(scene);
  const guess = costs.reduce((sum, one) => sum + one.guess, 0);
  const actual = costs.reduce((sum, one) => sum + one.actual, 0);
  if (costs.length === 0)
    return <p className="ink-2">Pick an order to see its lines; what orders cost is summed here.</p>;
  return (
    <div className="grid gap-8 xl:grid-cols-2 items-start">
      <section aria-label="Cost by section">
        <Heading aside={`${formatSum(actual)} of ${formatSum(guess)} ${currency} guessed`}>
          Guess against actual
        </Heading>
        <DataTable
          label="Cost by section"
          rows={costs}
          keyOf={({ section }) => section ?? ''}
          columns={[
            {
              head: 'Section',
              cell: ({ section }) => {
                const at = section === null ? null : scene.section[section];
                return at ? `${at.letter}, ${at.name}` : 'no section';
              },
            },
            { head: `Guess, ${currency}`, number: true, cell: (cost) => formatSum(cost.guess) },
            {
              head: `Paid, ${currency}`,
              number: true,
              cell: (cost) => (cost.actual > 0 ? formatSum(cost.actual) : '–'),
              tone: (cost) => (cost.over >= 0.005 && cost.actual > cost.guess ? 'error' : null),
            },
          ]}
        />

        <CostChart orders={listOf(scene, 'order')} currency={currency} />
      </section>
      <section aria-label="Shared cost">
        <Heading>Shared cost</Heading>
        {owed.length === 0 && <p className="ink-2 text-xs">Nothing is paid yet.</p>}
        <dl>
          {owed.map(({ person, paid, bears, owed: balance }) => (
            <DefinitionRow
              key={person}
              label={scene.person[person]?.name ?? person}
              note={`paid ${formatSum(paid)}, bears ${formatSum(bears)}`}
            >
              {balance === 0
                ? 'even'
                : balance > 0
                  ? `gets ${formatSum(balance)} ${currency}`
                  : `owes ${formatSum(-balance)} ${currency}`}
            </DefinitionRow>
          ))}
        </dl>
        <Basis>
          Who ordered has paid. Each order is borne by its shares, rounded so that the cents add up; without
          shares by who ordered. An order’s money goes to its lines’ sections by their part of its goods,
          postage with it.
        </Basis>
      </section>
    </div>
  );
}
