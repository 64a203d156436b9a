import { useState } from 'react';
import { Link } from 'react-router';
import { countOf } from '@quarry/core/grid';
import { colourName } from '@quarry/core/catalogue';
import { MONTH_WORDS, displayOf, monthWord, type Entity } from '@quarry/core/document';
import { leavesOf, usualLeaf } from '@quarry/core/terrain';
import { useIsPlanner, useLink, useScene } from '../../data/useDisplay.tsx';
import { useSetDisplay } from '../../data/useSetDisplay.ts';
import { DataTable } from '../../ui/DataTable.tsx';
import { Basis, DefinitionRow, Empty, Heading } from '../../ui/parts.tsx';
import { Swatch } from '../../ui/Swatch.tsx';
import { ToneRows } from './ToneRows.tsx';

type Leaves = Entity<'display'>['leaves'];

/** The colours of leaves in each month, and what the trees of the display come to in the month it shows. */
export function LeavesPart() {
  const scene = useScene('display', 'planting', 'tree');
  const plans = useIsPlanner();
  const set = useSetDisplay();
  const { month: shown, leaves } = displayOf(scene);
  const [chosen, setChosen] = useState<number | null>(null);
  const month = chosen ?? shown ?? leaves[0]?.month ?? 1;
  const name = MONTH_WORDS[month - 1] ?? '';
  const tones = leaves.find((one) => one.month === month)?.tones ?? null;
  const put = (what: string, next: Leaves) =>
    set(`${what} of ${name}`, { leaves: next.toSorted((a, b) => a.month - b.month) });
  const others = leaves.filter((one) => one.month !== month);
  return (
    <div className="grid gap-8 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_minmax(0,300px)] items-start">
      <div>
        <div className="flex flex-wrap items-center gap-2 pb-1">
          <select
            className="select select-xs w-52"
            aria-label="Month"
            value={month}
            onChange={(event) => setChosen(Number(event.currentTarget.value))}
          >
            {MONTH_WORDS.map((word, i) => (
              <option key={word} value={i + 1}>
                {word}
                {leaves.some((one) => one.month === i + 1) ? '' : ' (not written)'}
              </option>
            ))}
          </select>
          {plans && tones === null && (
            <button
              type="button"
              className="btn btn-xs"
              onClick={() =>
                put('wrote the leaves', [
                  ...leaves,
                  { month, tones: [{ colour: usualLeaf(scene), share: 1 }] },
                ])
              }
            >
              Write the leaves of {name}
            </button>
          )}
          {plans && tones !== null && (
            <button
              type="button"
              className="btn btn-xs btn-ghost"
              onClick={() => put('removed the leaves', others)}
            >
              Remove the leaves of {name}
            </button>
          )}
        </div>
        {tones === null ? (
          <Empty title={`No leaves of ${name} yet`}>
            Trees and plants by month have the colour of the season until it is written.
          </Empty>
        ) : (
          <ToneRows
            title={`Leaves in ${name}`}
            tones={tones}
            disabled={!plans}
            onChange={(what, next) => put(what, [...others, { month, tones: next }])}
          />
        )}
      </div>
      <InTheDisplay />
    </div>
  );
}

/** How many trees and plants of the display have leaves by month, by colour. */
function InTheDisplay() {
  const { id } = useLink();
  const scene = useScene('display', 'planting', 'tree');
  const { month } = displayOf(scene);
  const { count, colours } = leavesOf(scene).byMonth;
  return (
    <section aria-label="In the display">
      <Heading>In the display</Heading>
      <dl>
        <DefinitionRow label="Month">
          <Link className="link link-hover text-secondary" to={`/d/${id}/brief?sheet=rules`}>
            {monthWord(month) ?? 'not agreed'}
          </Link>
        </DefinitionRow>
        <DefinitionRow
          label="Leaves by month"
          note={count === 0 ? 'choose “The month shown” on a tree or in a planting' : undefined}
        >
          {countOf(count, 'plant')}
        </DefinitionRow>
      </dl>
      {count > 0 && (
        <DataTable
          label="Plants by colour"
          rows={colours.map((one, i) => ({ ...one, key: String(i) }))}
          keyOf={({ key }) => key}
          columns={[
            {
              head: 'Colour',
              cell: ({ colour }) => (
                <>
                  <Swatch colour={colour} /> {colourName(colour)}
                </>
              ),
            },
            { head: 'Plants', number: true, cell: ({ qty }) => qty },
          ]}
        />
      )}
      <Basis>
        Plants share the colours in proportion, to within one plant, each colour evenly among them. Their
        parts are counted in Needs in these colours, and the walk shows them. A version may show another
        month.
      </Basis>
    </section>
  );
}
