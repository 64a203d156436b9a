import type { ReactNode } from 'react';
import { labelOf, type Kind } from '@quarry/core/document';
import { useDenialReason, useDisplay, useEdit } from '../../data/useDisplay.tsx';
import { EntityFields } from '../../ui/EntityForm.tsx';
import { RemoveButton } from '../../ui/rows.tsx';
import { LOAD_FIELDS } from './loadFields.ts';

/** One thing in a list: a line that opens into its fields. */
export function ThingForm({
  kind,
  id,
  aside,
  canGo = true,
  isOpen,
  children,
}: {
  kind: Kind;
  id: string;
  aside: string;
  /** It may be removed here. */
  canGo?: boolean;
  /** It is opened from elsewhere. */
  isOpen?: boolean;
  children?: ReactNode;
}) {
  const scene = useDisplay(({ scene: now }) => now);
  const edit = useEdit();
  const may = useDenialReason();
  const entity = scene[kind][id];
  if (!entity) return null;
  const name = labelOf(scene, kind, id);
  const isFixed = may({ op: 'patch', kind, id, v: entity.v, set: { name } }) !== null;
  return (
    <details className="border-b hair py-1" open={isOpen}>
      <summary className="cursor-pointer">
        <span className="font-semibold">{name}</span> <span className="ink-2 text-xs">{aside}</span>
      </summary>
      <div className="pl-3 pb-2">
        <EntityFields picked={{ kind, id }} fields={LOAD_FIELDS[kind] ?? []} disabled={isFixed} />
        {children}
        {canGo && (
          <div className="pt-1 text-right">
            <RemoveButton
              what={name}
              disabled={isFixed}
              onClick={() => void edit.remove(`removed ${name}`, kind, id, entity.v)}
            />
          </div>
        )}
      </div>
    </details>
  );
}
