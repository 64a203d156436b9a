import { useState } from 'react';
import { fieldWord, valueWord } from '@quarry/core/history';
import { labelOf } from '@quarry/core/document';
import { choiceKey, type Conflict } from '../data/conflicts.ts';
import { useDisplay, useLink } from '../data/useDisplay.tsx';
import { DataTable, type Column } from '../ui/DataTable.tsx';
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
        const [first] = fields;
        if (!first) return null;
        const { kind, id } = first;
        const side = (which: 'mine' | 'theirs', head: string): Column<Conflict['fields'][number]> => ({
          head,
          wraps: true,
          cell: (field) => {
            const said = valueWord(scene, kind, field.field, field[which]);
            return (
              <>
                <label className="fig flex items-center gap-1.5">
                  <input
                    type="radio"
                    name={choiceKey(field)}
                    className="radio radio-xs"
                    aria-label={`${capital(fieldWord(field.field))}: ${head.toLowerCase()}, ${said}`}
                    checked={theirs.has(choiceKey(field)) === (which === 'theirs')}
                    onChange={() => choose(choiceKey(field), which)}
                  />
                  {said}
                </label>
                {which === 'theirs' && !field.clash && (
                  <span className="ink-2 text-[11px]">they left it</span>
                )}
              </>
            );
          },
        });
        return (
          <section key={key} className="my-2">
            <h3 className="font-semibold">{capital(labelOf(scene, kind, id))}</h3>
            <DataTable
              label={`${capital(labelOf(scene, kind, id))}: whose values shall stand`}
              rows={fields}
              keyOf={choiceKey}
              columns={[
                { head: 'Field', cell: ({ field }) => fieldWord(field) },
                {
                  head: 'It was',
                  wraps: true,
                  tone: () => 'quiet',
                  cell: ({ field, was }) => (was === undefined ? '–' : valueWord(scene, kind, field, was)),
                },
                side('mine', 'Yours'),
                side('theirs', 'Theirs'),
              ]}
            />
          </section>
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
