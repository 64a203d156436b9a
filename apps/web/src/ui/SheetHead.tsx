import { Trash2 } from 'lucide-react';
import { Link } from 'react-router';
import { KINDS, labelOf, type Entity, type Kind, type Scene } from '@quarry/core/document';
import { useEdit, useLink } from '../data/useDisplay.tsx';
import { useView, type Picked } from '../data/view.ts';
import { capital } from './words.ts';

/** The head of a data sheet: what the thing is called, its kind, and the button that takes it away. */
export function SheetHead({ picked, scene, fixed }: { picked: Picked; scene: Scene; fixed: boolean }) {
  const { kind, id } = picked;
  const edit = useEdit();
  const link = useLink();
  const pick = useView((view) => view.pick);
  const entity: Entity<Kind> | undefined = scene[kind][id];
  const name = labelOf(scene, kind, id);
  return (
    <>
      <div className="flex items-start justify-between gap-2 pb-1">
        <h2 className="font-bold text-base leading-5">{capital(name)}</h2>
        {!fixed && entity && (
          <button
            type="button"
            className="btn btn-xs btn-ghost btn-square"
            aria-label={`Remove ${name}`}
            title="Remove (Delete)"
            onClick={() => edit.remove(`removed ${name}`, kind, id, entity.v) && pick(null)}
          >
            <Trash2 size={13} aria-hidden />
          </button>
        )}
      </div>
      <p className="ink-2 text-xs pb-2 flex justify-between">
        {KINDS[kind].word}
        <Link className="link link-hover" to={`/d/${link.id}/crew?sheet=advice&new=&about=${kind}/${id}`}>
          Advise on it
        </Link>
      </p>
    </>
  );
}
