import { Plus } from 'lucide-react';
import { useState } from 'react';
import { daysLate, sumOrder } from '@quarry/core/materials';
import { ORDER_STATES, ORDER_WORDS, listOf } from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useScene } from '../../data/useDisplay.tsx';
import { Empty } from '../../ui/parts.tsx';
import { dayWord } from '../../ui/words.ts';
import { today } from '../../ui/days.ts';
import { Loans } from './Loans.tsx';
import { Money } from './Money.tsx';
import { OrderSheet } from './OrderSheet.tsx';

/** Orders from draft to drawer, what they cost against the guess, who bears it, and what is lent. */
export function OrdersPanel() {
  const scene = useScene('order');
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
            Select short lines under “Needs”, or buy what is short under “Buy”.
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
