import type { Entity, Kind } from '@quarry/core/document';
import { useDisplay, useDenialReason } from '../../data/useDisplay.tsx';
import type { Picked } from '../../data/view.ts';
import { SheetHead } from '../../ui/SheetHead.tsx';
import { TableSheet } from '../../ui/TableSheet.tsx';
import { CopyPart } from './GroupSheet.tsx';
import { PadPart, PointsPart, RisePart, WayPart } from './groundParts.tsx';
import { PicturePart } from './PicturePart.tsx';
import { PlantingPart, RepeatPart } from './manyParts.tsx';
import { PlotPart } from './PlotPart.tsx';
import { TrackPart } from './TrackPart.tsx';
import { ModuleSheet, SectionSheet } from './sheets.tsx';
import { EntityFields } from './EntityForm.tsx';

/** What one thing of the plan is, to be read and changed. */
export function DataSheet({ picked }: { picked: Picked }) {
  const { kind, id } = picked;
  const scene = useDisplay(({ scene }) => scene);
  const may = useDenialReason();
  const entity: Entity<Kind> | undefined = scene[kind][id];
  const forbids = may({ op: 'patch', kind, id, v: entity?.v ?? 1, set: {} });
  const disabled = forbids !== null;
  return (
    <>
      <SheetHead picked={picked} scene={scene} fixed={disabled} />
      {forbids && <p className="ink-2 text-xs pb-2">{forbids}</p>}
      <EntityFields picked={picked} disabled={disabled} />
      {kind === 'pad' && scene.pad[id] && <PadPart pad={scene.pad[id]} disabled={disabled} />}
      {(kind === 'hill' || kind === 'hollow') && scene[kind][id] && (
        <RisePart picked={picked} thing={scene[kind][id]} disabled={disabled} />
      )}
      {kind === 'plot' && scene.plot[id] && <PlotPart plot={scene.plot[id]} disabled={disabled} />}
      {kind === 'way' && scene.way[id] && <WayPart way={scene.way[id]} />}
      {kind === 'track' && scene.track[id] && <TrackPart track={scene.track[id]} disabled={disabled} />}
      {kind === 'repeat' && scene.repeat[id] && <RepeatPart repeat={scene.repeat[id]} />}
      {kind === 'planting' && scene.planting[id] && (
        <PlantingPart planting={scene.planting[id]} disabled={disabled} />
      )}
      {kind === 'picture' && scene.picture[id] && (
        <PicturePart picture={scene.picture[id]} disabled={disabled} />
      )}
      <PointsPart picked={picked} disabled={disabled} />
      {kind === 'section' && scene.section[id] && <SectionSheet section={scene.section[id]} />}
      {kind === 'table' && scene.table[id] && <TableSheet table={scene.table[id]} disabled={disabled} />}
      {kind === 'module' && scene.module[id] && <ModuleSheet module={scene.module[id]} />}
      <CopyPart picks={[picked]} />
    </>
  );
}
