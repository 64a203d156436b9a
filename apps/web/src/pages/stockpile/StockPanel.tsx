import { Minus, Plus, Scale } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { coloursNamed, colourName, partName, partNamed } from '@quarry/core/catalogue';
import { countOf, numberTyped } from '@quarry/core/grid';
import { byPart, piecesByWeight } from '@quarry/core/materials';
import { listOf, type Lot } from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { CheckField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading } from '../../ui/parts.tsx';
import { useTouch } from '../../ui/useTouch.ts';
import { Swatch } from '../../ui/Swatch.tsx';

const ROW = { mouse: 30, finger: 46 };

/** Drawers and what is in them; made to be counted at the table with one hand. */
export function StockPanel() {
  const scene = useScene('person', 'lot');
  const { role, person } = useDisplay(({ actor }) => actor);
  const may = useDenialReason();
  const [words, setWords] = useState('');
  const [owner, setOwner] = useState(role === 'builder' ? (person ?? '') : '');
  const [chosen, setChosen] = useState<string | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const people = listOf(scene, 'person');
  const all = listOf(scene, 'lot');
  const lots = useMemo(() => {
    const wanted = words.toLowerCase().split(/\s+/);
    return all
      .filter((lot) => owner === '' || (lot.bulk ? 'bulk' : (lot.owner ?? 'bulk')) === owner)
      .filter((lot) => {
        const text = `${partName(lot.part)} ${lot.part} ${colourName(lot.colour)} ${lot.place}`.toLowerCase();
        return wanted.every((word) => text.includes(word) || text.includes(word.replace('x', '×')));
      })
      .toSorted((a, b) => (a.place < b.place ? -1 : a.place > b.place ? 1 : byPart(a.part, b.part)));
  }, [all, words, owner]);
  const rowHeight = useTouch() ? ROW.finger : ROW.mouse;
  const virtual = useVirtualizer({
    count: lots.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 10,
  });
  const lot = lots.find(({ id }) => id === chosen) ?? null;
  const total = lots.reduce((sum, { qty }) => sum + qty, 0);
  const mine = { op: 'add' as const, kind: 'lot' as const, id: 'new', data: { owner: person } };
  return (
    <div className="h-full grid grid-rows-[auto_minmax(0,1fr)_auto] md:grid-rows-[auto_minmax(0,1fr)] md:grid-cols-[minmax(0,1fr)_340px]">
      <div className="flex flex-wrap items-center gap-2 px-3 py-1.5 border-b hair md:col-span-2">
        <input
          type="search"
          className="input input-xs w-40"
          aria-label="Find in drawers"
          placeholder="drawer 3 slate"
          value={words}
          onChange={(event) => setWords(event.currentTarget.value)}
        />
        <select
          aria-label="Whose"
          className="select select-xs w-auto"
          value={owner}
          onChange={(event) => setOwner(event.currentTarget.value)}
        >
          <option value="">everybody’s</option>
          {people.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
          <option value="bulk">donated bulk</option>
        </select>
        <span className="ink-2 text-xs">
          {countOf(total, 'piece')} in {countOf(lots.length, 'place')}
        </span>
      </div>
      <div ref={scroller} className="overflow-auto min-h-0" data-stock>
        {lots.length === 0 && (
          <div className="p-4">
            <Empty title={all.length === 0 ? 'No drawer is counted yet' : 'Nothing matches'}>
              Type a part and a colour at the right, or bring a list of drawers under “Lists and kits”.
            </Empty>
          </div>
        )}
        <ul style={{ height: virtual.getTotalSize(), position: 'relative' }} aria-label="Drawers">
          {virtual.getVirtualItems().map(({ index, start }) => {
            const one = lots[index];
            if (!one) return null;
            return (
              <li
                key={one.id}
                className="absolute inset-x-0 border-b hair"
                style={{ height: rowHeight, transform: `translateY(${start}px)` }}
              >
                <button
                  type="button"
                  aria-pressed={one.id === chosen}
                  className={`w-full h-full flex items-center gap-2 px-3 text-left text-xs cursor-pointer hover:bg-base-200 ${one.id === chosen ? 'bg-base-200' : ''}`}
                  onClick={() => setChosen(one.id)}
                >
                  <span className="w-28 truncate ink-2">
                    {one.place || (one.bulk ? 'donated bulk' : 'no drawer')}
                  </span>
                  <Swatch colour={one.colour} />
                  <span className="flex-1 truncate">
                    {partName(one.part)} <span className="ink-2">in {colourName(one.colour)}</span>
                    {one.worn && <span className="ink-2">, worn</span>}
                  </span>
                  <span className="fig">{one.qty.toLocaleString('en')}</span>
                </button>
              </li>
            );
          })}
        </ul>
      </div>
      <aside aria-label="Counting" className="border-t md:border-t-0 md:border-l hair p-3 overflow-auto">
        {lot ? (
          <CountCard
            key={lot.id}
            lot={lot}
            locked={may({ op: 'patch', kind: 'lot', id: lot.id, v: lot.v, set: {} })}
          />
        ) : (
          <p className="ink-2 text-xs pb-2">Pick a drawer’s entry to count it, or add one.</p>
        )}
        {may(mine) === null && (
          <AddLot key={`add ${lot?.place ?? ''}`} place={lot?.place ?? ''} onAdded={setChosen} />
        )}
      </aside>
    </div>
  );
}

/** Counting one entry: big buttons, and by weight. */
function CountCard({ lot, locked }: { lot: Lot; locked: string | null }) {
  const scene = useScene('partType', 'person');
  const edit = useEdit();
  const [grams, setGrams] = useState('');
  const word = `${partName(lot.part)} in ${colourName(lot.colour)}`;
  const set = (qty: number) => edit.patch(`counted ${word}: ${qty}`, 'lot', lot, { qty });
  const weighed = numberTyped(grams) ?? NaN;
  const byWeight =
    grams.trim() !== '' && weighed >= 0 ? piecesByWeight(lot.part, weighed, scene.partType) : null;
  const owner = lot.bulk ? 'shared' : ((lot.owner && scene.person[lot.owner]?.name) ?? 'no owner');
  return (
    <section aria-label={`Count ${word}`} className="pb-3 mb-2 border-b border-base-content">
      <h2 className="font-bold text-base">
        <Swatch colour={lot.colour} size={14} /> {word}
      </h2>
      <p className="ink-2 text-xs">
        {lot.place || 'no drawer'} · {owner}
      </p>
      <CheckField
        label="Worn: for where it is not seen"
        value={lot.worn}
        disabled={locked !== null}
        onCommit={(worn) =>
          edit.patch(`${worn ? 'called worn' : 'called good'}: ${word}`, 'lot', lot, { worn })
        }
      />
      {locked && <p className="text-xs text-warning">{locked}</p>}
      <div className="grid grid-cols-[1fr_1fr_1.4fr_1fr_1fr] items-center gap-1.5 py-2">
        <Step by={-10} qty={lot.qty} locked={locked} onSet={set} />
        <Step by={-1} qty={lot.qty} locked={locked} onSet={set} />
        <CountInput qty={lot.qty} locked={locked} onSet={set} />
        <Step by={1} qty={lot.qty} locked={locked} onSet={set} />
        <Step by={10} qty={lot.qty} locked={locked} onSet={set} />
      </div>
      <form
        className="flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (!byWeight) return;
          set(byWeight.pieces);
          setGrams('');
        }}
      >
        <Scale size={14} aria-hidden />
        <label className="flex-1">
          <span className="sr-only">Grams on the scale</span>
          <input
            className="input input-sm w-full fig"
            inputMode="decimal"
            placeholder="grams"
            value={grams}
            disabled={locked !== null}
            onChange={(event) => setGrams(event.currentTarget.value)}
          />
        </label>
        <button type="submit" className="btn btn-sm" disabled={!byWeight || locked !== null}>
          {byWeight ? `Set to ${byWeight.pieces.toLocaleString('en')}` : 'By weight'}
        </button>
      </form>
      {byWeight && (
        <p className="ink-2 text-xs pt-1">
          {weighed} g ÷ {byWeight.perPiece.toFixed(2)} g each
          {scene.partType[lot.part]?.grams ? ', as weighed' : ', by its volume: weigh twenty once to be sure'}
        </p>
      )}
    </section>
  );
}

/** The most pieces of one entry. */
const MAX_COUNT = 1_000_000;

/** The count itself, to be typed: what is no count is not taken. */
function CountInput({
  qty,
  locked,
  onSet,
}: {
  qty: number;
  locked: string | null;
  onSet: (qty: number) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const number = typed === null ? null : numberTyped(typed, true);
  const isCount = number !== null && Number.isInteger(number) && number >= 0 && number <= MAX_COUNT;
  const finish = () => {
    if (typed !== null && isCount) onSet(number);
    setTyped(null);
  };
  return (
    <input
      className="input h-14 w-full px-1 fig text-2xl! text-center"
      inputMode="numeric"
      aria-label="Count"
      aria-invalid={typed !== null && !isCount}
      title={
        typed !== null && !isCount ? `A whole number from 0 to ${MAX_COUNT.toLocaleString('en')}` : undefined
      }
      disabled={locked !== null}
      value={typed ?? String(qty)}
      onFocus={(event) => event.currentTarget.select()}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={finish}
      onKeyDown={(event) => {
        if (event.key === 'Enter') finish();
        if (event.key === 'Escape') setTyped(null);
      }}
    />
  );
}

function Step({
  by,
  qty,
  locked,
  onSet,
}: {
  by: number;
  qty: number;
  locked: string | null;
  onSet: (qty: number) => void;
}) {
  const [Icon, word] = by < 0 ? [Minus, 'fewer'] : [Plus, 'more'];
  return (
    <button
      type="button"
      className="btn h-14 px-0 gap-0.5 text-base"
      aria-label={`${Math.abs(by)} ${word}`}
      disabled={locked !== null || (by < 0 && qty === 0)}
      onClick={() => onSet(Math.max(0, qty + by))}
    >
      <Icon size={14} aria-hidden />
      <span className="fig">{Math.abs(by)}</span>
    </button>
  );
}

function AddLot({ place: usual, onAdded }: { place: string; onAdded: (id: string) => void }) {
  const { person } = useDisplay(({ actor }) => actor);
  const edit = useEdit();
  const [part, setPart] = useState('');
  const [colour, setColour] = useState('');
  const [place, setPlace] = useState(usual);
  const [bulk, setBulk] = useState(false);
  const [error, setError] = useState<string | null>(null);
  const { role } = useDisplay(({ actor }) => actor);
  const add = () => {
    const known = partNamed(part);
    const named = coloursNamed(colour);
    if (!known) return setError(`Part: “${part}” is not known; type a family and a size, such as brick 2x4.`);
    if (!named.exact)
      return setError(
        `Colour: “${colour}” is not known${named.alike.length > 0 ? `; did you mean ${named.alike.map(({ name }) => name).join(' or ')}?` : ''}.`,
      );
    const id = freshId('lot');
    const done = edit.add(`began a drawer entry of ${partName(known.id)} in ${named.exact.name}`, 'lot', id, {
      ...{ part: known.id, colour: named.exact.id, qty: 0, place, bulk },
      owner: bulk ? null : person,
    });
    if (!done) return;
    setError(null);
    setPart('');
    onAdded(id);
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <Heading>One more entry</Heading>
      {(
        [
          ['Part', part, setPart, 'brick 2x4'],
          ['Colour', colour, setColour, 'Slate'],
          ['Drawer', place, setPlace, 'drawer 3'],
        ] as const
      ).map(([label, value, set, example]) => (
        <label key={label} className="flex items-center gap-2 border-b hair py-1">
          <span className="flex-1">{label}</span>
          <input
            className="input input-sm md:input-xs w-44"
            value={value}
            maxLength={80}
            placeholder={example}
            aria-describedby="lot-error"
            onChange={(event) => set(event.currentTarget.value)}
          />
        </label>
      ))}
      {role !== 'builder' && (
        <label className="flex items-center gap-2 py-1">
          <span className="flex-1">Donated bulk, everybody’s</span>
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={bulk}
            onChange={(event) => setBulk(event.currentTarget.checked)}
          />
        </label>
      )}
      <p id="lot-error" role="alert" className="text-error text-xs">
        {error}
      </p>
      <button
        type="submit"
        className="btn btn-sm md:btn-xs mt-1"
        disabled={part.trim() === '' || colour.trim() === ''}
      >
        <Plus size={12} aria-hidden /> Add and count
      </button>
      <Basis>
        By weight: what the scale says ÷ the weight of one piece. That is by its volume until somebody weighs
        twenty and types the grams of one at a need’s sheet. Worn pieces are taken first for needs of any
        colour, which are not seen; for others last, or not at all where the house rules are strict about what
        is seen.
      </Basis>
    </form>
  );
}
