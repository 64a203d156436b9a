import { useState } from 'react';
import { countOf, formatKg, formatPlates, formatPercent } from '@quarry/core/grid';
import { METHOD_SPECS, minHeightOf, type MethodCount } from '@quarry/core/masonry';
import { METHODS, displayOf, listOf, type Method } from '@quarry/core/document';
import { useEdit, useIsPlanner, useScene } from '../../data/useDisplay.tsx';
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
    ...listOf(scene, 'hill').map(({ id, name, method }) => ({ kind: 'hill' as const, id, name, method })),
    ...listOf(scene, 'section').map(({ id, letter, name, method }) => ({
      kind: 'section' as const,
      id,
      name: `Section ${letter}, ${name}`,
      method,
    })),
    ...listOf(scene, 'pad').map(({ id, name, method }) => ({ kind: 'pad' as const, id, name, method })),
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
    if (target.kind === 'hill') edit.patch(label, 'hill', scene.hill[target.id], { method });
    else if (target.kind === 'pad') edit.patch(label, 'pad', scene.pad[target.id], { method });
    else edit.patch(label, 'section', scene.section[target.id], { method });
  };
  return (
    <div className="p-4 grid gap-8 lg:grid-cols-[minmax(0,1fr)_300px] items-start max-w-[1240px]">
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
  const least = (of: (one: MethodCount) => number) => Math.min(...counts.map(of));
  return (
    <div className="overflow-x-auto">
      <table className="w-full text-xs" data-methods>
        <caption className="sr-only">Methods for {target?.name}</caption>
        <thead>
          <tr className="ink-2 border-b hair text-right">
            <th scope="col" className="font-normal text-left py-1">
              Method
            </th>
            <th scope="col" className="font-normal">
              Pieces
            </th>
            <th scope="col" className="font-normal">
              Mass
            </th>
            <th scope="col" className="font-normal">
              Money
            </th>
            <th scope="col" className="font-normal">
              Hours
            </th>
            <th scope="col" className="font-normal">
              Height off
            </th>
            <th scope="col" className="font-normal">
              Free span
            </th>
            <th scope="col" className="font-normal">
              Bond
            </th>
            <th scope="col">
              <span className="sr-only">Choose</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {counts.map((one) => (
            <tr
              key={one.method}
              className={`border-b hair ${target?.method === one.method ? 'bg-base-200' : ''}`}
            >
              <th scope="row" className="text-left font-normal py-1">
                <b>{METHOD_SPECS[one.method].word}</b>
                <div className="ink-2 text-[11px] leading-4 max-w-72">
                  {METHOD_SPECS[one.method].how}
                  <Unfit count={one} />
                </div>
              </th>
              <Figure best={one.pieces === least(({ pieces: p }) => p)}>
                {one.pieces.toLocaleString('en')}
              </Figure>
              <Figure best={one.grams === least(({ grams }) => grams)}>{formatKg(one.grams)}</Figure>
              <Figure best={one.money === least(({ money }) => money)}>
                {one.money.toFixed(0)} {currency}
              </Figure>
              <Figure best={one.hours === least(({ hours }) => hours)}>{one.hours.toFixed(1)} h</Figure>
              <Figure best={false}>
                {one.error.most === 0 ? 'none' : `≤ ${countOf(one.error.most, 'plate')}`}
              </Figure>
              <Figure best={false}>{one.span === 0 ? 'filled' : countOf(one.span, 'stud')}</Figure>
              <Figure best={false}>
                {one.bond.joints > 0 ? formatPercent(one.bond.bridged / one.bond.joints) : '–'}
              </Figure>
              <td className="text-right">
                {onChoose && (
                  <button
                    type="button"
                    className="btn btn-xs"
                    disabled={target?.method === one.method}
                    onClick={() => onChoose(one.method)}
                  >
                    Choose<span className="sr-only"> {METHOD_SPECS[one.method].word}</span>
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
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

function Figure({ best, children }: { best: boolean; children: React.ReactNode }) {
  return (
    <td className={`fig text-right whitespace-nowrap px-1.5 ${best ? 'text-success font-medium' : ''}`}>
      {children}
      {best && <span className="sr-only"> (least)</span>}
    </td>
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
