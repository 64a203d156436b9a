import { useState } from 'react';
import { countOf, formatKg, formatPlates } from '@quarry/core/grid';
import type { Entity } from '@quarry/core/document';
import { swapChoices } from '@quarry/core/structures';
import { useDenialReason, useDisplay, useEdit } from '../../data/useDisplay.tsx';
import { SelectField } from '../../ui/fields.tsx';
import { DefinitionRow, Heading } from '../../ui/parts.tsx';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';

/** Another building on the place of one: a plain shape or a kept piece, with what it comes to before it is swapped. */
export function SwapPlotPart({ plot, disabled }: { plot: Entity<'plot'>; disabled: boolean }) {
  const piece = useDisplay(({ scene }) => scene.piece);
  const edit = useEdit();
  const may = useDenialReason();
  const [chosen, setChosen] = useState('');
  const choices = swapChoices({ piece });
  const choice = choices.find(({ from, id }) => `${from} ${id}` === chosen) ?? null;
  const answer = useWorkerQuery(
    choice && ((core) => core.swap(plot.id, choice)),
    `${plot.id} as ${choice ? chosen : ''}`,
  );
  const denied = answer?.ok ? (answer.card.changes.map(may).find((reason) => reason !== null) ?? null) : null;
  return (
    <>
      <Heading>Another building here</Heading>
      <SelectField
        label="Becomes"
        value={choice ? chosen : ''}
        disabled={disabled}
        options={[
          { value: '', word: 'As it is' },
          ...choices.map(({ from, id, name }) => ({
            value: `${from} ${id}`,
            word: from === 'piece' ? `${name} (kept)` : name,
          })),
        ]}
        onCommit={setChosen}
      />
      {choice && answer && !answer.ok && <p className="text-error text-xs">{answer.error}</p>}
      {choice && answer?.ok && (
        <>
          <dl>
            {(['then', 'now'] as const).map((when) => {
              const { w, d, height, pieces, grams } = answer.card[when];
              return (
                <DefinitionRow
                  key={when}
                  label={when === 'now' ? 'As it is' : choice.name}
                  note={`shell of ${countOf(pieces, 'piece')}, ${formatKg(grams)}`}
                >
                  {w} × {d} studs, {formatPlates(height)}
                </DefinitionRow>
              );
            })}
          </dl>
          <p className="ink-2 text-xs">
            It keeps its name, its middle, its turn and what it stands on. A list that its shell made is made
            again; any other list of its stays.
          </p>
          <button
            type="button"
            className="btn btn-xs my-1"
            disabled={denied !== null}
            title={denied ?? undefined}
            onClick={() => {
              if (edit.change(`made ${plot.name} a ${choice.name}`, answer.card.changes)) setChosen('');
            }}
          >
            Swap it
          </button>
        </>
      )}
    </>
  );
}
