import { useState } from 'react';
import { countOf, formatKg, formatPlates, formatPercent } from '@quarry/core/grid';
import { METHOD_SPECS, minHeightOf, type MethodCount } from '@quarry/core/masonry';
import { METHODS, displayOf, listOf, type Method } from '@quarry/core/document';
import { useEdit, useIsPlanner, useScene } from '../../data/useDisplay.tsx';
import { DataTable, type Column } from '../../ui/DataTable.tsx';
import { CheckField, NumberField, QuantityField, SelectField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading, DefinitionRow, Loading } from '../../ui/parts.tsx';
import { useMaterialsWorker } from './useMaterialsWorker.ts';
import { useDerived } from '../../workers/useDerived.ts';

type Target = { kind: 'hill' | 'pad' | 'section'; id: string };
const OPTIONS = METHODS.map((value) => ({ value, word: METHOD_SPECS[value].word }));

/** How ground is filled: the methods side by side for a hill, a pad or a section, counted piece by piece. */
export function MethodsPanel() {
  const scene = useScene('hill', 'section', 'pad');
  const plans = useIsPlanner();
  const edit = useEdit();
  const targets = [
    ...listOf(scene, 'hill').map(({ id, v, name, method }) => ({
      kind: 'hill' as const,
      id,
      v,
      name,
      method,
    })),
    ...listOf(scene, 'section').map(({ id, v, letter, name, method }) => ({
      kind: 'section' as const,
      id,
      v,
      name: `Section ${letter}, ${name}`,
      method,
    })),
    ...listOf(scene, 'pad').map(({ id, v, name, method }) => ({ kind: 'pad' as const, id, v, name, method })),
  ];
  const [chosen, setChosen] = useState<Target | null>(null);
  const target =
    targets.find(({ kind, id }) => kind === chosen?.kind && id === chosen.id) ?? targets[0] ?? null;
  const counts = useMaterialsWorker(
    (materialsWorker) => (target ? materialsWorker.compare(target.kind, target.id) : Promise.resolve([])),
    `${target?.kind} ${target?.id}`,
  );
  const set = (method: Method | null) => {
    if (!target) return;
    const label = `fills ${target.name} ${method === null ? 'as what it lies in' : METHOD_SPECS[method].word}`;
    const { kind, id, v } = target;
    edit.change(label, [{ op: 'patch', kind, id, v, set: { method } }]);
  };
  return (
    <div className="p-4 grid gap-8 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_300px] items-start max-w-[1240px]">
      <section aria-label="Methods side by side">
        <div className="flex flex-wrap items-center gap-2 pb-2">
          <h2 className="font-semibold text-[13px]">Fill</h2>
          <select
            className="select select-xs w-56"
            aria-label="What is filled"
            value={target ? `${target.kind} ${target.id}` : ''}
            onChange={(event) => {
              const found = targets.find(({ kind, id }) => `${kind} ${id}` === event.currentTarget.value);
              if (found) setChosen({ kind: found.kind, id: found.id });
            }}
          >
            {targets.map(({ kind, id, name }) => (
              <option key={`${kind} ${id}`} value={`${kind} ${id}`}>
                {name}
              </option>
            ))}
          </select>
          <span className="ink-2 text-xs">
            {target &&
              (target.method ? `set to ${METHOD_SPECS[target.method].word}` : 'no method of its own')}
          </span>
        </div>
        {!target && (
          <Empty title="No ground yet">
            Lay a pad or a hill on the Plan; then its methods are compared here.
          </Empty>
        )}
        {target && !counts && <Loading what={`Counting ${target.name} six ways`} />}
        {counts?.length === 0 && (
          <Empty title="No ground of its own shows">
            Something else covers it all; choose a section instead.
          </Empty>
        )}
        {counts && counts.length > 0 && (
          <MethodsTable counts={counts} target={target} onChoose={plans ? set : null} />
        )}
        {plans && target?.method && (
          <button type="button" className="btn btn-xs btn-ghost mt-1" onClick={() => set(null)}>
            No method of its own
          </button>
        )}
        {plans && target && target.method !== 'reuse' && (
          <button type="button" className="btn btn-xs btn-ghost mt-1" onClick={() => set('reuse')}>
            It stands already: reuse it
          </button>
        )}
        <Basis>
          Each method is built here piece by piece with its skin: courses of bricks, plates where less than a
          brick is left, decks with a column under every edge and joint and pillars so that no square wider
          than the free span hangs. Bond: of the joints that a layer lies on, how many it bridges. Mass by
          volume or as weighed; money at known prices or guesses; hours at default rates (
          {METHODS.filter((method) => method !== 'reuse')
            .map((method) => `${METHOD_SPECS[method].word} ${METHOD_SPECS[method].rate}`)
            .join(', ')}{' '}
          pieces an hour), ours until own rates are known.
        </Basis>
      </section>
      <WholeDisplay />
    </div>
  );
}

/** The methods with what each takes; the least of each figure is marked. @param onChoose null: nothing may be chosen */
function MethodsTable({
  counts,
  target,
  onChoose,
}: {
  counts: readonly MethodCount[];
  target: { name: string; method: Method | null } | null;
  onChoose: ((method: Method) => void) | null;
}) {
  const { currency } = displayOf(useScene('display'));
  const columns: Column<MethodCount>[] = [
    { head: 'Method', wraps: true, cell: (one) => <MethodName count={one} /> },
    leastColumn(
      'Pieces',
      counts,
      ({ pieces }) => pieces,
      (pieces) => pieces.toLocaleString('en'),
    ),
    leastColumn('Mass', counts, ({ grams }) => grams, formatKg),
    leastColumn(
      'Money',
      counts,
      ({ money }) => money,
      (money) => `${money.toFixed(0)} ${currency}`,
    ),
    leastColumn(
      'Hours',
      counts,
      ({ hours }) => hours,
      (hours) => `${hours.toFixed(1)} h`,
    ),
    {
      head: 'Height off',
      number: true,
      cell: ({ error }) => (error.most === 0 ? 'none' : `≤ ${countOf(error.most, 'plate')}`),
    },
    { head: 'Free span', number: true, cell: ({ span }) => (span === 0 ? 'filled' : countOf(span, 'stud')) },
    {
      head: 'Bond',
      number: true,
      cell: ({ bond }) => (bond.joints > 0 ? formatPercent(bond.bridged / bond.joints) : '–'),
    },
    {
      head: 'Choose',
      acts: true,
      cell: ({ method }) =>
        onChoose && (
          <button
            type="button"
            className="btn btn-xs"
            disabled={target?.method === method}
            onClick={() => onChoose(method)}
          >
            Choose<span className="sr-only"> {METHOD_SPECS[method].word}</span>
          </button>
        ),
    },
  ];
  return (
    <DataTable
      label={`Methods for ${target?.name}`}
      columns={columns}
      rows={counts}
      keyOf={({ method }) => method}
      isPicked={({ method }) => target?.method === method}
    />
  );
}

/** A column of figures of which less is better. */
function leastColumn(
  head: string,
  counts: readonly MethodCount[],
  of: (one: MethodCount) => number,
  words: (figure: number) => string,
): Column<MethodCount> {
  const least = Math.min(...counts.map(of));
  return {
    ...{ head, number: true },
    tone: (one) => (of(one) === least ? 'good' : null),
    cell: (one) => (
      <>
        {words(of(one))}
        {of(one) === least && <span className="sr-only"> (least)</span>}
      </>
    ),
  };
}

function MethodName({ count }: { count: MethodCount }) {
  const { word, how } = METHOD_SPECS[count.method];
  return (
    <>
      <b>{word}</b>
      <div className="ink-2 text-[11px] leading-4 max-w-72">
        {how}
        <Unfit count={count} />
      </div>
    </>
  );
}

/** What all ground comes to, and how it is filled where nothing else is chosen. */
function WholeDisplay() {
  const display = displayOf(useScene('display'));
  const plans = useIsPlanner();
  const edit = useEdit();
  const blocks = useDerived(({ materials }) => materials?.blocks);
  const pieces = blocks?.reduce((sum, { counted }) => sum + counted.pieces, 0) ?? 0;
  const grams = blocks?.reduce((sum, { counted }) => sum + counted.grams, 0) ?? 0;
  const hours = blocks?.reduce((sum, { counted }) => sum + counted.hours, 0) ?? 0;
  const joints = blocks?.reduce((sum, { bond }) => sum + bond.joints, 0) ?? 0;
  const bridged = blocks?.reduce((sum, { bond }) => sum + bond.bridged, 0) ?? 0;
  return (
    <aside aria-label="The whole display">
      <Heading>The whole display</Heading>
      <dl>
        <DefinitionRow label="Pieces of ground">
          {blocks ? pieces.toLocaleString('en') : 'counting'}
        </DefinitionRow>
        <DefinitionRow label="Their mass">{blocks ? formatKg(grams) : 'counting'}</DefinitionRow>
        <DefinitionRow label="Hours at default rates">
          {blocks ? `${hours.toFixed(0)} h` : 'counting'}
        </DefinitionRow>
        <DefinitionRow label="Joints bridged">
          {joints > 0 ? formatPercent(bridged / joints) : blocks ? '–' : 'counting'}
        </DefinitionRow>
      </dl>
      <Heading>Default method</Heading>
      <SelectField
        label="Method"
        value={display.method}
        options={OPTIONS}
        disabled={!plans}
        onCommit={(method) => edit.patch('changed the usual method', 'display', display, { method })}
      />
      <QuantityField
        measure="studs"
        step={1}
        label="Largest plate of a deck"
        value={display.deckMost}
        min={2}
        max={16}
        disabled={!plans}
        onCommit={(deckMost) =>
          edit.patch('changed the largest deck plate', 'display', display, { deckMost: deckMost ?? 16 })
        }
      />
      <QuantityField
        measure="studs"
        step={1}
        label="Widest free span"
        value={display.deckSpan}
        min={2}
        max={14}
        disabled={!plans}
        onCommit={(deckSpan) =>
          edit.patch('changed the free span', 'display', display, { deckSpan: deckSpan ?? 8 })
        }
      />
      <CheckField
        label="Base sheets in decks"
        value={display.deckSheets}
        disabled={!plans}
        onCommit={(deckSheets) =>
          edit.patch('changed the use of sheets in decks', 'display', display, { deckSheets })
        }
      />
      <NumberField
        label="Spares"
        unit="%"
        optional="by family"
        value={display.spares}
        min={0}
        max={100}
        disabled={!plans}
        onCommit={(spares) => edit.patch('changed the spares', 'display', display, { spares })}
      />
    </aside>
  );
}

/** Why a method with large pieces lays none of them. */
function Unfit({ count: { method, tall, highest } }: { count: MethodCount }) {
  const least = minHeightOf(method);
  if (least === null || tall > 0) return null;
  return (
    <b className="block">
      None of its large pieces fits:{' '}
      {highest < least
        ? `they need ground of ${formatPlates(least)}, this is at most ${formatPlates(highest)}.`
        : `ground of ${formatPlates(least)} is nowhere wide enough for one.`}
    </b>
  );
}
