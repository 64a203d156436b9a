import { Plus } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { coloursNamed, partNamed, partName } from '@quarry/core/catalogue';
import { balances, costBySection, daysLate, nextStates, receive, sumOrder } from '@quarry/core/ledger';
import { priceOfPart } from '@quarry/core/masonry';
import { ORDER_STATES, ORDER_WORDS, displayOf, listOf, type Loan, type Order } from '@quarry/core/scene';
import { freshId, useDisplay, useEdit, useMay } from '../../data/useDisplay.tsx';
import { DateField, NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading, Line, Loading } from '../../ui/parts.tsx';
import { RemoveButton } from '../../ui/rows.tsx';
import { PartColour } from '../../ui/Swatch.tsx';
import { dayWord } from '../../ui/words.ts';
import { today } from '../../workers/survey.tsx';

const CostChart = lazy(() => import('./CostChart.tsx').then((chart) => ({ default: chart.CostChart })));

/** Orders from draft to drawer, what they cost against the guess, who bears it, and what is lent. */
export function OrdersPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const { role, person } = useDisplay(({ actor }) => actor);
  const edit = useEdit();
  const [chosen, setChosen] = useState<string | null>(null);
  const orders = listOf(scene, 'order').toSorted(
    (a, b) =>
      ORDER_STATES.indexOf(a.state) - ORDER_STATES.indexOf(b.state) ||
      ((a.expected ?? '') < (b.expected ?? '') ? -1 : 1),
  );
  const order = orders.find(({ id }) => id === chosen) ?? null;
  const begin = () => {
    const id = freshId('order');
    if (edit.add('began an order', 'order', id, { name: 'New order', by: person, lines: [] })) setChosen(id);
  };
  return (
    <div className="h-full grid grid-rows-[minmax(140px,2fr)_minmax(0,3fr)] md:grid-rows-1 md:grid-cols-[360px_minmax(0,1fr)]">
      <div className="overflow-auto border-b md:border-b-0 md:border-r hair px-3 py-2.5">
        {role !== 'viewer' && (
          <button type="button" className="btn btn-xs mb-1" onClick={begin}>
            <Plus size={12} aria-hidden /> New order
          </button>
        )}
        {orders.length === 0 && (
          <Empty title="Nothing is ordered">
            Select short lines under «Needs», or buy what is short under «Buy».
          </Empty>
        )}
        <ul aria-label="Orders">
          {orders.map((one) => {
            const { pieces, came } = sumOrder(one);
            const late = daysLate(one, today());
            return (
              <li key={one.id}>
                <button
                  type="button"
                  aria-pressed={one.id === chosen}
                  className={`w-full text-left border-b hair py-1 px-1 cursor-pointer hover:bg-base-200 ${one.id === chosen ? 'bg-base-200' : ''}`}
                  onClick={() => setChosen(one.id === chosen ? null : one.id)}
                >
                  <span className="flex gap-2">
                    <span className="flex-1 truncate">{one.name}</span>
                    <span className={`text-xs ${late > 0 ? 'text-error font-semibold' : 'ink-2'}`}>
                      {ORDER_WORDS[one.state]}
                      {late > 0 && `, ${late} ${late === 1 ? 'day' : 'days'} late`}
                    </span>
                  </span>
                  <span className="ink-2 fig text-[11px]">
                    {came > 0 && one.state !== 'away' ? `${came} of ` : ''}
                    {pieces.toLocaleString('en')} pcs
                    {one.expected && one.state !== 'away' ? ` · due ${dayWord(one.expected)}` : ''}
                  </span>
                </button>
              </li>
            );
          })}
        </ul>
        <Loans />
      </div>
      <div className="overflow-auto px-4 py-2.5 min-h-0">
        {order ? <OrderSheet key={order.id} order={order} /> : <Money />}
      </div>
    </div>
  );
}

/** Guess against actual, by section and over time, and who owes whom. */
function Money() {
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
        <Heading aside={`${actual.toFixed(2)} of ${guess.toFixed(2)} ${currency} guessed`}>
          Guess against actual
        </Heading>
        <table className="w-full text-xs">
          <caption className="sr-only">Cost by section</caption>
          <thead>
            <tr className="ink-2 border-b hair">
              <th scope="col" className="text-left font-normal py-1">
                Section
              </th>
              <th scope="col" className="text-right font-normal">
                Guess
              </th>
              <th scope="col" className="text-right font-normal">
                Paid
              </th>
            </tr>
          </thead>
          <tbody>
            {costs.map(({ section, guess: g, actual: a }) => {
              const at = section === null ? null : scene.section[section];
              return (
                <tr key={section ?? ''} className="border-b hair">
                  <th scope="row" className="text-left font-normal">
                    {at ? `${at.letter}, ${at.name}` : 'no section'}
                  </th>
                  <td className="fig text-right">{g.toFixed(2)}</td>
                  <td className={`fig text-right ${a > g ? 'text-error' : ''}`}>
                    {a > 0 ? a.toFixed(2) : '–'}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
        <Suspense fallback={<Loading what="Drawing" />}>
          <CostChart orders={listOf(scene, 'order')} currency={currency} />
        </Suspense>
      </section>
      <section aria-label="Shared cost">
        <Heading>Shared cost</Heading>
        {owed.length === 0 && <p className="ink-2 text-xs">Nothing is paid yet.</p>}
        <dl>
          {owed.map(({ person, paid, bears, owed: balance }) => (
            <Line
              key={person}
              label={scene.person[person]?.name ?? person}
              note={`paid ${paid.toFixed(2)}, bears ${bears.toFixed(2)}`}
            >
              {balance === 0
                ? 'even'
                : balance > 0
                  ? `gets ${balance.toFixed(2)} ${currency}`
                  : `owes ${(-balance).toFixed(2)} ${currency}`}
            </Line>
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

function OrderSheet({ order }: { order: Order }) {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const may = useMay();
  const { currency } = displayOf(scene);
  const [came, setCame] = useState<Record<number, number>>({});
  const [place, setPlace] = useState('');
  const locked = may({ op: 'patch', kind: 'order', id: order.id, v: order.v, set: {} }) !== null;
  const set = (what: string, fields: Partial<Order>) =>
    edit.patch(`${what} of order ${order.name}`, 'order', order, fields);
  const { pieces, goods, expected, over } = sumOrder(order);
  const [next] = nextStates(order.state);
  const coming = order.state !== 'draft' && order.state !== 'away';
  const arriving = Object.values(came).reduce((sum, qty) => sum + qty, 0);
  const put = () => {
    const list = order.lines.map((_, i) => came[i] ?? 0);
    if (
      edit.change(
        `put ${arriving} pieces of ${order.name} away`,
        receive(scene, order, list, place.trim(), () => freshId('lot')),
      )
    )
      setCame({});
  };
  const people = listOf(scene, 'person');
  return (
    <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_300px] items-start">
      <section aria-label={`Lines of ${order.name}`}>
        <div className="flex items-center gap-2 pb-1">
          <h2 className="font-bold text-base flex-1">{order.name}</h2>
          {next && next !== 'part' && !locked && (
            <button
              type="button"
              className="btn btn-xs btn-primary"
              onClick={() => set(`moved to ${ORDER_WORDS[next]} the state`, { state: next })}
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
        <table className="w-full text-xs">
          <caption className="sr-only">Lines of {order.name}</caption>
          <thead>
            <tr className="ink-2 border-b hair text-left">
              <th scope="col" className="font-normal py-1">
                Part
              </th>
              <th scope="col" className="font-normal">
                For
              </th>
              <th scope="col" className="font-normal text-right">
                Pieces
              </th>
              <th scope="col" className="font-normal text-right">
                Each
              </th>
              <th scope="col" className="font-normal text-right">
                Came
              </th>
              {coming && (
                <th scope="col" className="font-normal text-right w-24">
                  Comes now
                </th>
              )}
            </tr>
          </thead>
          <tbody>
            {order.lines.map((line, i) => (
              <tr key={`${line.part} ${line.colour} ${line.section}`} className="border-b hair">
                <th scope="row" className="font-normal text-left">
                  <PartColour {...line} />
                </th>
                <td className="ink-2">
                  {line.section === null ? '–' : (scene.section[line.section]?.letter ?? '–')}
                </td>
                <td className="fig text-right">{line.qty}</td>
                <td className="fig text-right">{line.price.toFixed(2)}</td>
                <td className={`fig text-right ${line.came >= line.qty ? 'text-success' : ''}`}>
                  {line.came}
                </td>
                {coming && (
                  <td>
                    <NumberField
                      label={`Comes now of ${partName(line.part)} in ${line.colour}`}
                      bare
                      whole
                      value={came[i] ?? 0}
                      min={0}
                      max={1_000_000}
                      disabled={locked}
                      onCommit={(qty) => setCame({ ...came, [i]: qty ?? 0 })}
                    />
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
        {order.lines.length === 0 && (
          <p className="ink-2 text-xs py-1">No line yet: add one, or put short lines on it under «Needs».</p>
        )}
        {!locked && order.state === 'draft' && <AddLine order={order} />}
        {coming && !locked && (
          <div className="flex flex-wrap items-center gap-2 pt-2">
            <button
              type="button"
              className="btn btn-xs"
              onClick={() =>
                setCame(
                  Object.fromEntries(order.lines.map(({ qty, came: has }, i) => [i, Math.max(0, qty - has)])),
                )
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
        )}
      </section>
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
          <Line label="Pieces">{pieces.toLocaleString('en')}</Line>
          <Line label="Goods and postage" note={`${goods.toFixed(2)} + ${order.postage.toFixed(2)}`}>
            {expected.toFixed(2)} {currency}
          </Line>
        </dl>
        <NumberField
          label="Postage"
          unit={currency}
          value={order.postage}
          min={0}
          max={1e6}
          disabled={locked}
          onCommit={(postage) => set('changed the postage', { postage: postage ?? 0 })}
        />
        <NumberField
          label="Guessed"
          unit={currency}
          value={order.guess}
          min={0}
          max={1e6}
          disabled={locked}
          onCommit={(guess) => set('changed the guess', { guess: guess ?? 0 })}
        />
        <NumberField
          label="Paid"
          unit={currency}
          optional="not yet"
          value={order.paid}
          min={0}
          max={1e6}
          disabled={locked}
          onCommit={(paid) => set('changed what was paid', { paid })}
          hint={
            over === null
              ? undefined
              : `${over >= 0 ? '+' : '−'}${Math.abs(over).toFixed(2)} against the guess`
          }
        />
        <Heading>Borne by</Heading>
        {people.map(({ id, name }) => {
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
    </div>
  );
}

function AddLine({ order }: { order: Order }) {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const [text, setText] = useState('');
  const [error, setError] = useState<string | null>(null);
  const add = () => {
    const match = /^\s*(\d{1,6})\s+(.+?)\s+in\s+(.+?)\s*$/i.exec(text);
    if (!match) return setError('A line: type for instance «40 plate 2x4 in Slate».');
    const part = partNamed(match[2]);
    const colour = coloursNamed(match[3]).exact;
    if (!part) return setError(`Part: «${match[2]}» is not known.`);
    if (!colour) return setError(`Colour: «${match[3]}» is not known.`);
    const line = {
      part: part.id,
      colour: colour.id,
      qty: Number(match[1]),
      price: priceOfPart(part.id, scene.partType).price,
      came: 0,
      section: null,
    };
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

/** What is lent to whom, and since when it should be back. */
function Loans() {
  const scene = useDisplay(({ scene }) => scene);
  const { role, person } = useDisplay(({ actor }) => actor);
  const edit = useEdit();
  const may = useMay();
  const [text, setText] = useState('');
  const [to, setTo] = useState('');
  const [error, setError] = useState<string | null>(null);
  const loans = listOf(scene, 'loan').filter(({ back }) => back === null);
  const name = (id: Loan['from']) => (id === null ? 'somebody' : (scene.person[id]?.name ?? id));
  const people = listOf(scene, 'person').filter(({ id }) => id !== person);
  const lend = () => {
    const match = /^\s*(\d{1,6})\s+(.+?)\s+in\s+(.+?)\s*$/i.exec(text);
    const part = match && partNamed(match[2]);
    const colour = match && coloursNamed(match[3]).exact;
    if (!match || !part || !colour) return setError('Lend: type for instance «20 brick 2x4 in Slate».');
    if (!to) return setError('Say to whom.');
    const done = edit.add(`lent ${match[1]} × ${partName(part.id)} to ${name(to)}`, 'loan', freshId('loan'), {
      part: part.id,
      colour: colour.id,
      qty: Number(match[1]),
      from: person,
      to,
    });
    if (!done) return;
    setText('');
    setError(null);
  };
  return (
    <section aria-label="Lent">
      <Heading aside={`${loans.length} out`}>Lent and borrowed</Heading>
      <ul className="text-xs">
        {loans.map((loan) => {
          const overdue = loan.due !== null && loan.due < today();
          return (
            <li key={loan.id} className="border-b hair py-1 flex gap-2 items-center">
              <span className="flex-1">
                {loan.qty} × <PartColour {...loan} />
                <br />
                <span className="ink-2">
                  {name(loan.from)} to {name(loan.to)}
                </span>
                {loan.due && (
                  <span className={overdue ? 'text-error' : 'ink-2'}> · back by {dayWord(loan.due)}</span>
                )}
              </span>
              {may({ op: 'patch', kind: 'loan', id: loan.id, v: loan.v, set: {} }) === null && (
                <button
                  type="button"
                  className="btn btn-xs btn-ghost"
                  onClick={() =>
                    edit.patch(`gave ${partName(loan.part)} back`, 'loan', loan, { back: today() })
                  }
                >
                  Back
                </button>
              )}
            </li>
          );
        })}
      </ul>
      {role !== 'viewer' && person !== null && (
        <form
          className="pt-1 flex flex-wrap gap-1 items-center"
          onSubmit={(event) => {
            event.preventDefault();
            lend();
          }}
        >
          <input
            className="input input-xs w-44"
            aria-label="What you lend"
            placeholder="20 brick 2x4 in Slate"
            value={text}
            onChange={(event) => setText(event.currentTarget.value)}
          />
          <select
            className="select select-xs w-28"
            aria-label="To whom"
            value={to}
            onChange={(event) => setTo(event.currentTarget.value)}
          >
            <option value="">to…</option>
            {people.map(({ id, name: word }) => (
              <option key={id} value={id}>
                {word}
              </option>
            ))}
          </select>
          <button type="submit" className="btn btn-xs" disabled={text.trim() === ''}>
            Lend
          </button>
          <span role="alert" className="text-error text-xs w-full">
            {error}
          </span>
        </form>
      )}
    </section>
  );
}
