import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { countOf, formatSum, formatMoney } from '@quarry/core/grid';
import { nearColours, colourName, partName } from '@quarry/core/catalogue';
import {
  aliasesOf,
  buyable,
  readOffers,
  linesToOrder,
  simulatedMarket,
  withNearColours,
  type Buyable,
  type Market,
  type Purchase,
  type Sourcing,
} from '@quarry/core/materials';
import { displayOf, type PartLine } from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useScene } from '../../data/useDisplay.tsx';
import { Basis, Empty, Heading, DefinitionRow, Loading } from '../../ui/parts.tsx';
import { PartColour } from '../../ui/Swatch.tsx';
import { useDerived } from '../../workers/useDerived.ts';
import type { BuyGoal } from '../../workers/source.worker.ts';
import { readTable } from './readTable.ts';
import { sectionChoices } from './rows.ts';
import { useBuy } from './useBuy.ts';

const GOALS: readonly { id: BuyGoal; word: string; what: string }[] = [
  { id: 'cheapest', word: 'Cheapest', what: 'goods and postage together' },
  { id: 'fewest', word: 'Fewest parcels', what: 'and the cheapest of those' },
  { id: 'soonest', word: 'Soonest', what: 'and the cheapest of those' },
];

/** Where to buy what is short: a complete purchase with its distance from a proven bound. */
export function BuyPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const { role, person } = useDisplay(({ actor }) => actor);
  const materials = useDerived(({ materials }) => materials);
  const edit = useEdit();
  const { currency } = displayOf(scene);
  const [section, setSection] = useState('');
  const [own, setOwn] = useState<{ name: string; market: Market } | null>(null);
  const [goal, setGoal] = useState<BuyGoal>('cheapest');
  const [nearer, setNearer] = useState(false);
  const wanted = useMemo(
    () => linesToOrder(materials?.rows ?? [], Object.values(scene.order), section),
    [materials, scene.order, section],
  );
  const market = useMemo(() => own?.market ?? simulatedMarket(withNearColours(wanted)), [own, wanted]);
  const needs = useMemo(() => buyable(wanted, market, nearer), [wanted, market, nearer]);
  const { found, running, cut, start, stop } = useBuy(needs.lines, market);
  if (!materials) return <Loading what="Counting what the plan needs" />;
  const bring = async (file: File | undefined) => {
    if (!file) return;
    try {
      const read = readOffers(await readTable(file), aliasesOf(scene), new Set(Object.keys(scene.partType)));
      if (!read.ok) throw new Error(`${file.name}: ${read.error}`);
      setOwn({ name: file.name, market: read.market });
      const [first] = read.bad;
      if (first)
        toast.warning(
          `${file.name}: left out ${countOf(read.bad.length, 'row')}; row ${first.row}: ${first.reason}.`,
        );
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    }
  };
  const sourcing = found[goal] ?? null;
  const order = (purchase: Purchase) => {
    const changes = purchase.sellers.map(({ seller, goods }) => ({
      ...({ op: 'add', kind: 'order', id: freshId('order') } as const),
      data: {
        ...{ name: `From ${seller.name}`, seller: seller.name, by: person, postage: seller.shipping },
        guess: Math.round(100 * (goods + seller.shipping)) / 100,
        lines: purchase.lines
          .filter((line) => line.seller === seller.name)
          .map(({ part, colour, qty, price }) => ({
            part,
            colour,
            qty,
            price,
            came: 0,
            section: section === '' || section === '-' ? null : section,
          })),
      },
    }));
    edit.change(`drafted ${countOf(changes.length, 'order')} from a purchase`, changes);
  };
  return (
    <div className="p-4 grid gap-8 grid-cols-1 lg:grid-cols-[300px_minmax(0,1fr)] items-start max-w-[1240px]">
      <WhatToBuy
        {...{ section, nearer, wanted, needs, market }}
        from={own?.name ?? null}
        onSection={setSection}
        onNearer={setNearer}
        onFile={(file) => void bring(file)}
      />
      <section aria-label="The purchase" aria-live="polite">
        <Goals
          {...{ goal, found, running, currency }}
          disabled={needs.lines.length === 0}
          onGoal={(id) => {
            setGoal(id);
            if (!found[id]) void start(id);
          }}
          onStop={stop}
          onAgain={!running && cut.has(goal) ? () => void start(goal) : null}
        />
        {needs.lines.length === 0 && (
          <Empty title="Nothing to buy">
            {wanted.length === 0
              ? 'Nothing is short here that is not on an order or a draft.'
              : 'Nobody offers any of what is short.'}
          </Empty>
        )}
        {sourcing && (
          <Answer
            sourcing={sourcing}
            currency={currency}
            busy={running === goal}
            mayOrder={role !== 'viewer'}
            onOrder={order}
          />
        )}
        {needs.missing.length > 0 && <NotOffered lines={needs.missing} />}
      </section>
    </div>
  );
}

/** What is short, of which section, and what of it is offered where. @param from file of the offers; null: simulated */
function WhatToBuy({
  section,
  nearer,
  wanted,
  needs,
  market,
  from,
  onSection,
  onNearer,
  onFile,
}: {
  section: string;
  nearer: boolean;
  wanted: readonly PartLine[];
  needs: Buyable;
  market: Market;
  from: string | null;
  onSection: (section: string) => void;
  onNearer: (nearer: boolean) => void;
  onFile: (file: File | undefined) => void;
}) {
  const scene = useScene('section');
  const pieces = needs.lines.reduce((sum, { qty }) => sum + qty, 0);
  return (
    <section aria-label="What to buy">
      <p className="border-l-4 border-warning pl-2 mb-2 text-xs">
        {from !== null
          ? `Offers from ${from}.`
          : 'Simulated: this market, its sellers, stock and prices are made up and ship with the program. Bring a list of real offers to plan a real purchase.'}
      </p>
      <Heading>What to buy</Heading>
      <label className="flex items-center gap-2 border-b hair py-1">
        <span className="flex-1">Section</span>
        <select
          className="select select-xs w-40"
          value={section}
          onChange={(event) => onSection(event.currentTarget.value)}
        >
          {sectionChoices(scene).map(({ value, word }) => (
            <option key={value} value={value}>
              {word}
            </option>
          ))}
        </select>
      </label>
      <dl>
        <DefinitionRow label="Lines short" note="without what stands on drafts">
          {wanted.length}
        </DefinitionRow>
        <DefinitionRow
          label="Offered"
          note={
            needs.missing.length > 0 ? `${countOf(needs.missing.length, 'line')} without an offer` : undefined
          }
        >
          {countOf(needs.lines.length, 'line')}, {countOf(pieces, 'piece')}
        </DefinitionRow>
        <DefinitionRow label="Sellers">{market.sellers.length}</DefinitionRow>
      </dl>
      <label className="flex items-center gap-2 py-1">
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          checked={nearer}
          onChange={(event) => onNearer(event.currentTarget.checked)}
        />
        <span>Accept the nearest colour where the right one is not offered</span>
      </label>
      {needs.swapped.length > 0 && (
        <p className="ink-2 text-xs pb-1">
          {countOf(needs.swapped.length, 'line')} in a nearer colour, the furthest off by{' '}
          {Math.max(...needs.swapped.map(({ off }) => off)).toFixed(1)}.
        </p>
      )}
      <label className="block py-1">
        <span className="block ink-2 text-xs">
          Offers of your own: CSV or XLSX with seller, part, colour, qty, price, shipping, min_order, days
        </span>
        <input
          type="file"
          accept=".csv,.tsv,.txt,.xlsx"
          className="file-input file-input-xs w-full"
          onChange={(event) => onFile(event.currentTarget.files?.[0])}
        />
      </label>
      <Basis>
        Exactly what is short is bought. The price is goods and the postage of each parcel; an order reaches
        its seller’s least order. Found by opening and closing sellers one by one, then by a mixed-integer
        solver; the bound comes from a relaxation in which each line pays its own price, so no complete
        purchase is cheaper.
      </Basis>
    </section>
  );
}

/** What a purchase may be good for, with what was found for each. */
function Goals({
  goal,
  found,
  running,
  currency,
  disabled,
  onGoal,
  onStop,
  onAgain,
}: {
  goal: BuyGoal;
  found: Partial<Record<BuyGoal, Sourcing>>;
  running: BuyGoal | null;
  currency: string;
  disabled: boolean;
  onGoal: (goal: BuyGoal) => void;
  onStop: () => void;
  /** Searches for the goal again; null: its search runs or is over. */
  onAgain: (() => void) | null;
}) {
  return (
    <div className="flex flex-wrap gap-2 pb-2">
      {GOALS.map(({ id, word, what }) => {
        const answer = found[id];
        return (
          <button
            key={id}
            type="button"
            aria-pressed={goal === id}
            disabled={disabled}
            className={`border text-left px-3 py-1.5 min-w-44 cursor-pointer ${goal === id ? 'border-base-content bg-base-200' : 'hair'}`}
            onClick={() => onGoal(id)}
          >
            <b>{word}</b> <span className="ink-2 text-xs">{what}</span>
            <div className="fig text-xs">
              {answer?.ok
                ? `${formatSum(answer.purchase.total)} ${currency} · ${countOf(answer.purchase.sellers.length, 'parcel')}${answer.purchase.days === null ? '' : ` · ${countOf(answer.purchase.days, 'day')}`}`
                : running === id
                  ? 'looking…'
                  : answer
                    ? 'none found'
                    : 'not looked for yet'}
            </div>
          </button>
        );
      })}
      {running && (
        <button type="button" className="btn btn-xs self-center" onClick={onStop}>
          Stop
        </button>
      )}
      {onAgain && (
        <button type="button" className="btn btn-xs self-center" onClick={onAgain}>
          Search again
        </button>
      )}
    </div>
  );
}

/** What nobody offers, with the colours nearest to it. */
function NotOffered({ lines }: { lines: readonly PartLine[] }) {
  return (
    <>
      <Heading aside={countOf(lines.length, 'line')}>Nobody offers</Heading>
      <ul className="text-xs">
        {lines.slice(0, 12).map((line) => (
          <li key={`${line.part} ${line.colour}`} className="border-b hair py-0.5 flex gap-2">
            <span className="fig w-12 text-right">{line.qty}</span> <PartColour {...line} />
            <span className="ink-2">
              near:{' '}
              {nearColours(line.colour, 2)
                .map(({ colour, deltaE }) => `${colour.name} (${deltaE.toFixed(1)})`)
                .join(', ')}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

function Answer({
  sourcing,
  currency,
  busy,
  mayOrder,
  onOrder,
}: {
  sourcing: Sourcing;
  currency: string;
  busy: boolean;
  mayOrder: boolean;
  onOrder: (purchase: Purchase) => void;
}) {
  if (!sourcing.ok) return <Empty title="No complete purchase">{sourcing.reason}</Empty>;
  const { purchase } = sourcing;
  return (
    <>
      <div className="grid sm:grid-cols-2 gap-x-8">
        <dl>
          <DefinitionRow label="Goods">
            {formatSum(purchase.goods)} {currency}
          </DefinitionRow>
          <DefinitionRow label="Postage">
            {formatSum(purchase.postage)} {currency}
          </DefinitionRow>
          <DefinitionRow label="Total">
            <b>
              {formatSum(purchase.total)} {currency}
            </b>
          </DefinitionRow>
        </dl>
        <dl>
          <DefinitionRow label="No purchase costs less than">
            {formatSum(purchase.bound)} {currency}
          </DefinitionRow>
          <DefinitionRow label="So it is off by at most" note={busy ? 'still looking' : undefined}>
            {purchase.gap < 1e-6 ? 'nothing: proven' : `${(100 * purchase.gap).toFixed(1)} %`}
          </DefinitionRow>
          <DefinitionRow label="Last parcel">
            {purchase.days === null ? 'not said' : `in ${countOf(purchase.days, 'day')}`}
          </DefinitionRow>
        </dl>
      </div>
      {mayOrder && (
        <button
          type="button"
          className="btn btn-xs btn-primary my-2"
          disabled={busy}
          onClick={() => onOrder(purchase)}
        >
          Draft {countOf(purchase.sellers.length, 'order')}
        </button>
      )}
      {purchase.sellers.map(({ seller, pieces, goods }) => (
        <details key={seller.name} className="border-b hair py-1">
          <summary className="cursor-pointer flex gap-3 items-baseline">
            <b className="flex-1">{seller.name}</b>
            <span className="ink-2 text-xs">{countOf(pieces, 'piece')}</span>
            <span className="fig text-xs">
              {formatSum(goods)} + {formatSum(seller.shipping)} {currency}
            </span>
          </summary>
          <ul className="text-xs pl-4">
            {purchase.lines
              .filter((line) => line.seller === seller.name)
              .map((line) => (
                <li key={`${line.part} ${line.colour}`} className="flex gap-3 border-t hair py-0.5">
                  <span className="fig w-12 text-right">{line.qty}</span>
                  <span className="flex-1">
                    {partName(line.part)} in {colourName(line.colour)}
                  </span>
                  <span className="fig">{formatMoney(line.price)}</span>
                </li>
              ))}
          </ul>
        </details>
      ))}
    </>
  );
}
