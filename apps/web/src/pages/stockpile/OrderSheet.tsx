import { useState } from 'react';
import { partName } from '@quarry/core/catalogue';
import { countOf, formatSum, formatMoney } from '@quarry/core/grid';
import { lineTyped, nextStates, receive, sumOrder } from '@quarry/core/materials';
import { priceOfPart } from '@quarry/core/masonry';
import { ORDER_STATES, ORDER_WORDS, displayOf, isComing, listOf, type Order } from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { DataTable, type Column } from '../../ui/DataTable.tsx';
import { DateField, NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { Heading, DefinitionRow } from '../../ui/parts.tsx';
import { RemoveButton } from '../../ui/rows.tsx';
import { PartColour } from '../../ui/Swatch.tsx';

/** One order: its lines, what of it came, its state and day, and what it costs whom. */
export function OrderSheet({ order }: { order: Order }) {
  const edit = useEdit();
  const may = useDenialReason();
  const [came, setCame] = useState<Came>({});
  const locked = may({ op: 'patch', kind: 'order', id: order.id, v: order.v, set: {} }) !== null;
  const [next] = nextStates(order.state);
  return (
    <div className="grid gap-8 grid-cols-1 xl:grid-cols-[minmax(0,1fr)_300px] items-start">
      <section aria-label={`Lines of ${order.name}`}>
        <div className="flex items-center gap-2 pb-1">
          <h2 className="font-bold text-base flex-1">{order.name}</h2>
          {next && next !== 'part' && !locked && (
            <button
              type="button"
              className="btn btn-xs btn-primary"
              onClick={() =>
                edit.patch(`marked the order ${order.name} as ${ORDER_WORDS[next]}`, 'order', order, {
                  state: next,
                })
              }
            >
              Mark as {ORDER_WORDS[next]}
            </button>
          )}
          <RemoveButton
            what={order.name}
            disabled={locked}
            onClick={() => edit.remove(`removed the order ${order.name}`, 'order', order.id, order.v)}
          />
        </div>
        <OrderLines order={order} locked={locked} came={came} onCame={setCame} />
        {order.lines.length === 0 && (
          <p className="ink-2 text-xs py-1">No line yet: add one, or put short lines on it under “Needs”.</p>
        )}
        {!locked && order.state === 'draft' && <AddLine order={order} />}
        {isComing(order) && !locked && <ComesNow order={order} came={came} onCame={setCame} />}
      </section>
      <OrderForm order={order} locked={locked} />
    </div>
  );
}

/** Pieces that come now, by the number of their line. */
type Came = Readonly<Record<number, number>>;

/** Sets fields of an order, with the words for the history. */
function useSetOrder(order: Order) {
  const edit = useEdit();
  return (what: string, fields: Partial<Order>) =>
    edit.patch(`${what} of order ${order.name}`, 'order', order, fields);
}

interface LinesProps {
  order: Order;
  came: Came;
  onCame: (came: Came) => void;
}

interface LineOf {
  line: Order['lines'][number];
  /** Which of the lines it is. */
  i: number;
}

function OrderLines({ order, locked, came, onCame }: LinesProps & { locked: boolean }) {
  const scene = useScene('section');
  const set = useSetOrder(order);
  const setLine = (at: number, what: string, fields: Partial<Order['lines'][number]>) =>
    set(what, { lines: order.lines.map((line, k) => (k === at ? { ...line, ...fields } : line)) });
  const isFixed = locked || order.state === 'away';
  const takeOff: Column<LineOf> = {
    head: 'Take off',
    acts: true,
    cell: ({ line, i }) => (
      <RemoveButton
        what={`${line.qty} ${partName(line.part)}`}
        disabled={locked}
        onClick={() =>
          set(`took ${partName(line.part)} off the lines`, {
            lines: order.lines.filter((_, k) => k !== i),
          })
        }
      />
    ),
  };
  const comesNow: Column<LineOf> = {
    head: 'Comes now',
    number: true,
    cell: ({ line, i }) => (
      <NumberField
        label={`Comes now of ${partName(line.part)} in ${line.colour}`}
        bare
        whole
        value={came[i] ?? 0}
        min={0}
        max={1_000_000}
        disabled={locked}
        onCommit={(qty) => onCame({ ...came, [i]: qty ?? 0 })}
      />
    ),
  };
  return (
    <DataTable
      label={`Lines of ${order.name}`}
      rows={order.lines.map((line, i) => ({ line, i }))}
      keyOf={({ line, i }) => `${i} ${line.part} ${line.colour} ${line.section}`}
      columns={[
        { head: 'Part', wraps: true, cell: ({ line }) => <PartColour {...line} /> },
        {
          head: 'For',
          tone: () => 'quiet',
          cell: ({ line }) => (line.section === null ? '–' : (scene.section[line.section]?.letter ?? '–')),
        },
        {
          head: 'Pieces',
          number: true,
          cell: ({ line, i }) =>
            isFixed ? (
              line.qty.toLocaleString('en')
            ) : (
              <NumberField
                label={`Pieces of ${partName(line.part)} in ${line.colour}`}
                bare
                whole
                value={line.qty}
                min={Math.max(1, line.came)}
                max={1_000_000}
                onCommit={(qty) => qty !== null && setLine(i, 'changed the pieces', { qty })}
              />
            ),
        },
        {
          head: 'Each',
          number: true,
          cell: ({ line, i }) =>
            isFixed ? (
              formatMoney(line.price)
            ) : (
              <NumberField
                label={`Price of one ${partName(line.part)} in ${line.colour}`}
                bare
                money
                value={line.price}
                min={0}
                max={1e6}
                onCommit={(price) => price !== null && setLine(i, 'changed the price', { price })}
              />
            ),
        },
        {
          head: 'Came',
          number: true,
          cell: ({ line }) => (
            <span className={line.came >= line.qty ? 'text-success' : ''}>{line.came}</span>
          ),
        },
        ...(order.state === 'draft' ? [takeOff] : []),
        ...(isComing(order) ? [comesNow] : []),
      ]}
    />
  );
}

/** What has come is put into drawers. */
function ComesNow({ order, came, onCame }: LinesProps) {
  const scene = useDisplay(({ scene: now }) => now);
  const edit = useEdit();
  const [place, setPlace] = useState('');
  const arriving = Object.values(came).reduce((sum, qty) => sum + qty, 0);
  const put = () => {
    const list = order.lines.map((_, i) => came[i] ?? 0);
    const changes = receive(scene, order, list, place.trim(), () => freshId('lot'));
    if (edit.change(`put ${countOf(arriving, 'piece')} of ${order.name} away`, changes)) onCame({});
  };
  return (
    <div className="flex flex-wrap items-center gap-2 pt-2">
      <button
        type="button"
        className="btn btn-xs"
        onClick={() =>
          onCame(Object.fromEntries(order.lines.map(({ qty, came: has }, i) => [i, Math.max(0, qty - has)])))
        }
      >
        All of it came
      </button>
      <input
        className="input input-xs w-40"
        aria-label="Into which drawer"
        placeholder="drawer"
        maxLength={80}
        value={place}
        onChange={(event) => setPlace(event.currentTarget.value)}
      />
      <button type="button" className="btn btn-xs btn-primary" disabled={arriving === 0} onClick={put}>
        Put {arriving.toLocaleString('en')} away
      </button>
    </div>
  );
}

/** What the order is called, from whom, where it is, and what it costs whom. */
function OrderForm({ order, locked }: { order: Order; locked: boolean }) {
  const scene = useScene('display', 'person');
  const { currency } = displayOf(scene);
  const set = useSetOrder(order);
  const { pieces, goods, expected, guessed, over } = sumOrder(order);
  return (
    <aside aria-label="The order">
      <Heading>The order</Heading>
      <TextField
        label="Name"
        required
        value={order.name}
        disabled={locked}
        onCommit={(name) => set('renamed', { name })}
      />
      <TextField
        label="Seller"
        value={order.seller}
        disabled={locked}
        onCommit={(seller) => set('changed the seller', { seller })}
      />
      <TextField
        label="Notes"
        long
        max={2000}
        value={order.notes}
        disabled={locked}
        onCommit={(notes) => set('changed the notes', { notes })}
      />
      <SelectField
        label="State"
        value={order.state}
        options={ORDER_STATES.map((value) => ({ value, word: ORDER_WORDS[value] }))}
        disabled={locked}
        onCommit={(state) => set('changed the state', { state })}
      />
      <DateField
        label="Expected"
        value={order.expected}
        disabled={locked}
        onCommit={(date) => set('changed the day', { expected: date })}
      />
      <dl>
        <DefinitionRow label="Pieces">{pieces.toLocaleString('en')}</DefinitionRow>
        <DefinitionRow label="Goods and postage" note={`${formatSum(goods)} + ${formatSum(order.postage)}`}>
          {formatSum(expected)} {currency}
        </DefinitionRow>
      </dl>
      <NumberField
        label="Postage"
        money
        unit={currency}
        value={order.postage}
        min={0}
        max={1e6}
        disabled={locked}
        onCommit={(postage) => set('changed the postage', { postage: postage ?? 0 })}
      />
      <NumberField
        label="Guessed"
        money
        unit={currency}
        value={order.guess}
        min={0}
        max={1e6}
        disabled={locked}
        onCommit={(guess) => set('changed the guess', { guess: guess ?? 0 })}
        hint={
          order.guess === 0 && guessed !== null ? `none typed: ${formatSum(guessed)} as listed` : undefined
        }
      />
      <NumberField
        label="Paid"
        money
        unit={currency}
        optional="not yet"
        value={order.paid}
        min={0}
        max={1e6}
        disabled={locked}
        onCommit={(paid) => set('changed what was paid', { paid })}
        hint={
          over === null ? undefined : `${over >= 0 ? '+' : '−'}${formatSum(Math.abs(over))} against the guess`
        }
      />
      <Heading>Borne by</Heading>
      {listOf(scene, 'person').map(({ id, name }) => {
        const share = order.shares.find(({ person }) => person === id)?.share ?? 0;
        return (
          <NumberField
            key={id}
            label={name}
            unit="parts"
            value={share}
            min={0}
            max={1000}
            disabled={locked}
            onCommit={(value) =>
              set('changed who bears the cost', {
                shares: [
                  ...order.shares.filter(({ person }) => person !== id),
                  ...(value ? [{ person: id, share: value }] : []),
                ],
              })
            }
          />
        );
      })}
    </aside>
  );
}

function AddLine({ order }: { order: Order }) {
  const scene = useScene('partType');
  const edit = useEdit();
  const [text, setText] = useState('');
  const [error, setError] = useState<string | null>(null);
  const add = () => {
    const typed = lineTyped(text);
    if (!typed.ok) return setError(typed.error);
    const { price } = priceOfPart(typed.line.part, scene.partType);
    const line = { ...typed.line, price, came: 0, section: null };
    if (edit.patch(`added a line to ${order.name}`, 'order', order, { lines: [...order.lines, line] })) {
      setText('');
      setError(null);
    }
  };
  return (
    <form
      className="pt-1 flex gap-2 items-center"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <input
        className="input input-xs w-64"
        aria-label="One more line"
        placeholder="40 plate 2x4 in Slate"
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      <button type="submit" className="btn btn-xs" disabled={text.trim() === ''}>
        Add
      </button>
      <span role="alert" className="text-error text-xs">
        {error}
      </span>
    </form>
  );
}
