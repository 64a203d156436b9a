import { useState } from 'react';
import { partName } from '@quarry/core/catalogue';
import { lineTyped } from '@quarry/core/ledger';
import { listOf, type Loan } from '@quarry/core/scene';
import { freshId, useDisplay, useEdit, useMay } from '../../data/useDisplay.tsx';
import { Heading } from '../../ui/parts.tsx';
import { PartColour } from '../../ui/Swatch.tsx';
import { dayWord } from '../../ui/words.ts';
import { today } from '../../workers/survey.tsx';

/** What is lent to whom, and since when it should be back. */
export function Loans() {
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
    const typed = lineTyped(text);
    if (!typed.ok) return setError(typed.error);
    if (!to) return setError('Say to whom.');
    const { line } = typed;
    const done = edit.add(
      `lent ${line.qty} × ${partName(line.part)} to ${name(to)}`,
      'loan',
      freshId('loan'),
      { ...line, from: person, to },
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
