import { useMemo } from 'react';
import { roofOnRing, storeyOnRing } from '@quarry/core/bench';
import type { Change, Entity } from '@quarry/core/document';
import { freshId, useEdit, useLink } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { useDerived } from '../../workers/useDerived.ts';

/** What is built on a ring of panels in one act: the next storey with its floor, and a roof that lifts off. */
export function OnRing({ run, disabled }: { run: Entity<'run'>; disabled: boolean }) {
  const link = useLink();
  const relief = useDerived(({ ground }) => ground?.relief);
  const edit = useEdit();
  const pick = useView((view) => view.pick);
  const roof = useMemo(() => roofOnRing(run, freshId), [run]);
  const add = (label: string, changes: readonly Change[]) => {
    const [first] = changes;
    if (first && edit.change(label, [...changes])) pick({ kind: first.kind, id: first.id });
  };
  return (
    <>
      <div className="flex flex-wrap gap-2 pt-2">
        <button
          type="button"
          className="btn btn-xs"
          disabled={disabled || !relief}
          onClick={() =>
            relief &&
            add(`built a storey on ${run.name}`, storeyOnRing(link.getState().scene, relief, run, freshId))
          }
        >
          Build a storey on it
        </button>
        <button
          type="button"
          className="btn btn-xs"
          disabled={disabled || roof === null}
          onClick={() => roof && add(`put a roof on ${run.name}`, roof)}
        >
          Put a roof on it
        </button>
      </div>
      {roof === null && (
        <p className="ink-2 text-xs pt-1">No circle of studs lies on its panels all round: no roof fits.</p>
      )}
    </>
  );
}
