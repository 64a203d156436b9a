import { useState } from 'react';
import { fieldWord, valueWord } from '@quarry/core/history';
import { labelOf } from '@quarry/core/document';
import { choiceKey, type Conflict } from '../data/conflicts.ts';
import { useDisplay, useLink } from '../data/useDisplay.tsx';
import { capital } from '../ui/words.ts';

/** One change that came too late, field by field: what it was, mine, theirs. */
export function ConflictChoice({ conflict }: { conflict: Conflict }) {
  const link = useLink();
  const scene = useDisplay(({ scene }) => scene);
  const [theirs, setTheirs] = useState<ReadonlySet<string>>(
    () => new Set(conflict.fields.filter(({ clash }) => clash).map(choiceKey)),
  );
  const choose = (key: string, side: 'mine' | 'theirs') => {
    const next = new Set(theirs);
    if (side === 'theirs') next.add(key);
    else next.delete(key);
    setTheirs(next);
  };
  const things = [...new Set(conflict.fields.map(({ kind, id }) => `${kind}/${id}`))];
  return (
    <>
      <p>{conflict.sentence}</p>
      <p className="ink-2">
        You {conflict.label || 'changed it'}. Pick for each field whose value shall stand; your other changes
        of the same act go with it.
      </p>
      {things.map((key) => {
        const fields = conflict.fields.filter(({ kind, id }) => `${kind}/${id}` === key);
        const { kind, id } = fields[0];
        return (
          <table key={key} className="table table-xs my-2">
            <caption className="text-left font-semibold">{capital(labelOf(scene, kind, id))}</caption>
            <thead>
              <tr>
                <th scope="col">Field</th>
                <th scope="col">It was</th>
                <th scope="col">Yours</th>
                <th scope="col">Theirs</th>
              </tr>
            </thead>
            <tbody>
              {fields.map((field) => {
                const choice = choiceKey(field);
                const say = (value: unknown) => valueWord(scene, kind, field.field, value);
                const word = fieldWord(field.field);
                return (
                  <tr key={choice}>
                    <th scope="row" className="font-normal">
                      {word}
                    </th>
                    <td className="fig ink-2">{field.was === undefined ? '–' : say(field.was)}</td>
                    {(['mine', 'theirs'] as const).map((side) => (
                      <td key={side} className="fig">
                        <label className="flex items-center gap-1.5">
                          <input
                            type="radio"
                            name={choice}
                            className="radio radio-xs"
                            aria-label={`${capital(word)}: ${side === 'mine' ? 'yours' : 'theirs'}, ${say(field[side])}`}
                            checked={theirs.has(choice) === (side === 'theirs')}
                            onChange={() => choose(choice, side)}
                          />
                          {say(field[side])}
                        </label>
                        {side === 'theirs' && !field.clash && (
                          <span className="ink-2 text-[11px]">they left it</span>
                        )}
                      </td>
                    ))}
                  </tr>
                );
              })}
            </tbody>
          </table>
        );
      })}
      <div className="flex flex-wrap gap-2 pt-1">
        <button type="button" className="btn btn-sm btn-primary" onClick={() => link.decide(theirs)}>
          Take it as picked
        </button>
        <button type="button" className="btn btn-sm" onClick={() => link.resolveWithMine()}>
          Put mine on top
        </button>
        <button type="button" className="btn btn-sm" onClick={() => link.resolveWithTheirs()}>
          Keep theirs
        </button>
      </div>
    </>
  );
}
