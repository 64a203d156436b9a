import { useMemo, useState } from 'react';
import { formatKg } from '@quarry/core/grid';
import { displayOf, listOf, type Entity, type Scene } from '@quarry/core/document';
import {
  finishSwap,
  standingVersion,
  swapPlan,
  tickSwap,
  type SwapPiece,
  type SwapStep,
} from '@quarry/core/transport';
import { useDenialReason, useEdit, useLink } from '../../data/useDisplay.tsx';
import { SelectField } from '../../ui/fields.tsx';
import { Basis, Heading } from '../../ui/parts.tsx';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';

const ACTS: Record<SwapStep['act'], string> = { out: 'Take out', in: 'Put in' };

/** What turns the version that stands into another one, step by step, ticked on a phone. */
export function SwapPart({ base, versions }: { base: Scene; versions: readonly Entity<'version'>[] }) {
  const edit = useEdit();
  const link = useLink();
  const may = useDenialReason();
  const standing = standingVersion(base);
  const [chosen, setChosen] = useState<string | null>(null);
  const options = [
    { value: '', word: 'Base' },
    ...versions.map(({ id, name }) => ({ value: id, word: name })),
  ];
  const others = options.filter(({ value }) => value !== (standing ?? ''));
  const to = others.some(({ value }) => value === chosen) ? chosen : (others[0]?.value ?? '');
  const plan = useMemo(() => swapPlan(base, to === '' ? null : to), [base, to]);
  const pieces = useWorkerQuery(
    plan.steps.length > 0 ? (core) => core.swapPieces(base, to === '' ? null : to) : null,
    plan.steps.map(({ key }) => key).join(),
  );
  const { v } = displayOf(base);
  const mayStand = may({ op: 'patch', kind: 'display', id: 'display', v, set: { stands: null } }) === null;
  const mayTick = may({ op: 'add', kind: 'swap', id: 'x', data: { step: 'x' } }) === null;
  const people = new Map(listOf(base, 'person').map(({ id, name }) => [id, name]));
  const done = plan.steps.filter((step) => step.done !== null).length;
  return (
    <section aria-labelledby="swap" className="pt-4 max-w-xl">
      <Heading id="swap" aside={plan.steps.length > 0 ? `${done} of ${plan.steps.length} done` : undefined}>
        Swap
      </Heading>
      <SelectField
        label="Stands now"
        value={standing ?? ''}
        options={options}
        disabled={!mayStand}
        onCommit={(value) => void edit.change('said which version stands', finishSwap(base, value || null))}
      />
      <SelectField label="Swap to" value={to ?? ''} options={others} onCommit={setChosen} />
      {plan.steps.length === 0 ? (
        <p className="ink-2 py-1">Nothing is taken out or put in.</p>
      ) : (
        <>
          <p className="py-1">
            <b className="fig text-lg">{plan.left}</b> min left of {plan.minutes}
          </p>
          <ol>
            {plan.steps.map((step) => (
              <li key={step.key} className="flex items-center gap-2 border-b hair py-1">
                <input
                  type="checkbox"
                  className="checkbox checkbox-sm shrink-0"
                  aria-label={`${ACTS[step.act]} ${step.name}: done`}
                  checked={step.done !== null}
                  disabled={!mayTick}
                  onChange={(event) =>
                    void edit.change(
                      `${event.currentTarget.checked ? 'swapped' : 'did not swap'}: ${ACTS[step.act].toLowerCase()} ${step.name}`,
                      // As it is now: two ticks may follow at once.
                      tickSwap(
                        link.getState().base,
                        swapPlan(link.getState().base, to === '' ? null : to),
                        step.key,
                        event.currentTarget.checked ? new Date().toISOString() : null,
                      ),
                    )
                  }
                />
                <span className={`flex-1 min-w-0 ${step.done ? 'line-through ink-2' : ''}`}>
                  <span className="ink-2">{ACTS[step.act]}</span> {step.name}
                  {step.isMoved && <span className="ink-2 text-xs"> stands on what is swapped</span>}
                  {step.owner !== null && (
                    <span className="ink-2 text-xs"> {people.get(step.owner) ?? step.owner}</span>
                  )}
                  <Carried pieces={pieces?.get(step.key) ?? []} />
                </span>
                <span className="fig text-xs">
                  {step.minutes} min{step.isLearnt ? '' : ' guess'}
                </span>
              </li>
            ))}
          </ol>
          <button
            type="button"
            className="btn btn-xs bg-base-100 mt-2"
            disabled={!mayStand}
            onClick={() => void edit.change('the swap is done', finishSwap(base, to === '' ? null : to))}
          >
            It stands: {options.find(({ value }) => value === to)?.word}
          </button>
        </>
      )}
      {plan.rebuilt.length > 0 && (
        <p className="text-warning text-xs py-1">
          △ No swap but a rebuild: {plan.rebuilt.slice(0, 6).join(', ')}
          {plan.rebuilt.length > 6 && ` and ${plan.rebuilt.length - 6} more`}.
        </p>
      )}
      <Basis>
        What differs between the two comes out first, what stands on others before them; what is put in goes
        the other way round. What stands in both on something that is swapped is taken off and put back. A
        thing takes 1 min out and 5 in (common practice) until its own time is known from the ticks of an
        earlier swap. Buildings that are carried are told by their pieces, with the mass and the people that
        lifting takes (lift index 1 at most; local rules and qualified people decide).
      </Basis>
    </section>
  );
}

/** What is carried of a thing, piece by piece in that order, and by how many. */
function Carried({ pieces }: { pieces: readonly SwapPiece[] }) {
  if (pieces.length === 0) return null;
  const hands = Math.max(...pieces.map((piece) => piece.hands));
  return (
    <span className="block ink-2 text-xs">
      {pieces.map(({ title, grams }) => `${title} ${formatKg(grams)}`).join(', then ')}
      {`; ${hands === 1 ? 'one person' : `${hands} people`}`}
    </span>
  );
}
