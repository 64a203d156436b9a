import { Trash2 } from 'lucide-react';
import { KINDS, labelOf, type Entity, type Kind } from '@quarry/core/scene';
import { isPlaced } from '../../board/pick.ts';
import { useDisplay, useEdit, useMay } from '../../data/useDisplay.tsx';
import { useView, type Picked } from '../../data/view.ts';
import { FindingsHere } from '../../frame/Findings.tsx';
import { capital } from '../../ui/words.ts';
import { Outline } from './Outline.tsx';
import { TableSheet } from '../../ui/TableSheet.tsx';
import { FootprintSheet, ModuleSheet, PadSheet, PlotSheet, SectionSheet } from './sheets.tsx';

/** The data sheet of what is picked, or the outline of the whole scene. */
export function Inspector() {
  const { scene } = useDisplay();
  const { picked, pick } = useView();
  const entity = picked ? scene[picked.kind][picked.id] : null;
  if (!picked || !entity || !isPlaced(picked.kind)) return <Outline />;
  return (
    <>
      <button type="button" className="link link-hover text-secondary text-xs" onClick={() => pick(null)}>
        Whole display
      </button>
      <Sheet key={`${picked.kind} ${picked.id}`} picked={picked} />
      <FindingsHere picked={picked} />
    </>
  );
}

function Sheet({ picked: { kind, id } }: { picked: Picked }) {
  const { scene } = useDisplay();
  const edit = useEdit();
  const may = useMay();
  const pick = useView((view) => view.pick);
  const entity: Entity<Kind> | undefined = scene[kind][id];
  const forbids = may({ op: 'patch', kind, id, v: entity?.v ?? 1, set: {} });
  return (
    <>
      <div className="flex items-start justify-between gap-2 pb-1">
        <h2 className="font-bold text-base leading-5">{capital(labelOf(scene, kind, id))}</h2>
        {!forbids && entity && (
          <button
            type="button"
            className="btn btn-xs btn-ghost btn-square"
            aria-label={`Remove ${labelOf(scene, kind, id)}`}
            title="Remove (Delete)"
            onClick={() =>
              edit.remove(`removed ${labelOf(scene, kind, id)}`, kind, id, entity.v) && pick(null)
            }
          >
            <Trash2 size={13} aria-hidden />
          </button>
        )}
      </div>
      <p className="ink-2 text-xs pb-2">{KINDS[kind].word}</p>
      {forbids && <p className="ink-2 text-xs pb-2">{forbids}</p>}
      {kind === 'pad' && scene.pad[id] && <PadSheet pad={scene.pad[id]} disabled={forbids !== null} />}
      {kind === 'plot' && scene.plot[id] && <PlotSheet plot={scene.plot[id]} disabled={forbids !== null} />}
      {kind === 'section' && scene.section[id] && <SectionSheet section={scene.section[id]} />}
      {kind === 'table' && scene.table[id] && (
        <TableSheet table={scene.table[id]} disabled={forbids !== null} />
      )}
      {kind === 'footprint' && scene.footprint[id] && (
        <FootprintSheet part={scene.footprint[id]} disabled={forbids !== null} />
      )}
      {kind === 'module' && scene.module[id] && <ModuleSheet module={scene.module[id]} />}
    </>
  );
}
