import { useState } from 'react';
import { partName } from '@quarry/core/catalogue';
import { lineTyped } from '@quarry/core/materials';
import { listOf, type Loan } from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { Heading } from '../../ui/parts.tsx';
import { PartColour } from '../../ui/Swatch.tsx';
import { dayWord } from '../../ui/words.ts';
import { today } from '../../ui/days.ts';

/** What is lent to whom, and since when it should be back. */
export function Loans() {
  const scene = useScene('loan', 'person');
  const { role, person } = useDisplay(({ actor }) => actor);
  const edit = useEdit();
  const may = useDenialReason();
  const [text, setText] = useState('');
  const [other, setOther] = useState('');
  const [way, setWay] = useState<'lend' | 'borrow'>('lend');
  const [error, setError] = useState<string | null>(null);
  const loans = listOf(scene, 'loan').filter(({ back }) => back === null);
  const name = (id: Loan['from']) => (id === null ? 'someone' : (scene.person[id]?.name ?? id));
  const people = listOf(scene, 'person').filter(({ id }) => id !== person);
  // Builders write down what they borrow; what others owe is for them, or for a planner, to say.
  const mayLend = may({ op: 'add', kind: 'loan', id: 'x', data: { from: person, to: null } }) === null;
  const lends = mayLend && way === 'lend';
  const note = () => {
    const typed = lineTyped(text);
    if (!typed.ok) return setError(typed.error);
    if (!other) return setError(lends ? 'Say to whom.' : 'Say from whom.');
    const { line } = typed;
    const what = `${line.qty} × ${partName(line.part)}`;
    const done = edit.add(
      lends ? `lent ${what} to ${name(other)}` : `borrowed ${what} from ${name(other)}`,
      'loan',
      freshId('loan'),
      { ...line, ...(lends ? { from: person, to: other } : { from: other, to: person }) },
    );
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
            note();
          }}
        >
          {mayLend && (
            <select
              className="select select-xs w-24"
              aria-label="Which way"
              value={way}
              onChange={(event) => setWay(event.currentTarget.value === 'borrow' ? 'borrow' : 'lend')}
            >
              <option value="lend">I lend</option>
              <option value="borrow">I borrow</option>
            </select>
          )}
          <input
            className="input input-xs w-44"
            aria-label={lends ? 'What you lend' : 'What you borrow'}
            placeholder="20 brick 2x4 in Slate"
            value={text}
            onChange={(event) => setText(event.currentTarget.value)}
          />
          <select
            className="select select-xs w-28"
            aria-label={lends ? 'To whom' : 'From whom'}
            value={other}
            onChange={(event) => setOther(event.currentTarget.value)}
          >
            <option value="">{lends ? 'to…' : 'from…'}</option>
            {people.map(({ id, name: word }) => (
              <option key={id} value={id}>
                {word}
              </option>
            ))}
          </select>
          <button type="submit" className="btn btn-xs" disabled={text.trim() === ''}>
            {lends ? 'Lend' : 'Borrow'}
          </button>
          <span role="alert" className="text-error text-xs w-full">
            {error}
          </span>
        </form>
      )}
    </section>
  );
}
