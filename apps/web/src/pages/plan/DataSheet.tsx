import type { ComponentType } from 'react';
import { entityOf, isStandingKind, type Entity, type Kind } from '@quarry/core/document';
import { boardKindOf, isPlaced, type Placed } from '../../board/kinds/index.ts';
import { useDisplay, useDenialReason } from '../../data/useDisplay.tsx';
import type { Picked } from '../../data/view.ts';
import { EntityFields } from '../../ui/EntityForm.tsx';
import { SheetHead } from '../../ui/SheetHead.tsx';
import { CopyPart } from './GroupSheet.tsx';
import { FrontsPart } from './FrontsPart.tsx';
import { PadPart, PointsPart, RisePart, WayPart } from './groundParts.tsx';
import { CavityPart, DeckPart, StandPart } from './levelParts.tsx';
import { PicturePart } from './PicturePart.tsx';
import { PlantingPart, RepeatPart } from './manyParts.tsx';
import { RunPart } from './RunPart.tsx';
import { FigurePart } from './FigurePart.tsx';
import { MixRows } from './MixRows.tsx';
import { PlotPart } from './PlotPart.tsx';
import { SignboardPart } from './SignboardPart.tsx';
import { ShellPart } from './ShellPart.tsx';
import { SwapPlotPart } from './SwapPlotPart.tsx';
import { TrackPart } from './TrackPart.tsx';
import { ModuleSheet, SectionSheet } from './sheets.tsx';

interface PartProps<K extends Kind> {
  thing: Entity<K>;
  picked: Picked;
  disabled: boolean;
}
/** What follows the fields of a kind: numbers computed of it, and what no single field holds. */
const PARTS: { readonly [K in Placed]?: ComponentType<PartProps<K>> } = {
  pad: ({ thing, disabled }) => <PadPart pad={thing} disabled={disabled} />,
  hill: RisePart,
  hollow: RisePart,
  plot: ({ thing, disabled }) => (
    <>
      <PlotPart plot={thing} disabled={disabled} />
      <FrontsPart plot={thing} disabled={disabled} />
      <MixRows plot={thing} disabled={disabled} />
      <ShellPart plot={thing} />
      <SwapPlotPart key={`swap ${thing.id}`} plot={thing} disabled={disabled} />
    </>
  ),
  deck: ({ thing }) => <DeckPart deck={thing} />,
  cavity: ({ thing }) => <CavityPart cavity={thing} />,
  way: ({ thing }) => <WayPart way={thing} />,
  figure: ({ thing }) => <FigurePart figure={thing} />,
  signboard: ({ thing }) => <SignboardPart sign={thing} />,
  track: ({ thing, disabled }) => <TrackPart track={thing} disabled={disabled} />,
  run: ({ thing, disabled }) => <RunPart run={thing} disabled={disabled} />,
  repeat: ({ thing }) => <RepeatPart repeat={thing} />,
  planting: ({ thing, disabled }) => <PlantingPart planting={thing} disabled={disabled} />,
  picture: ({ thing, disabled }) => <PicturePart picture={thing} disabled={disabled} />,
  section: ({ thing }) => <SectionSheet section={thing} />,
  module: ({ thing }) => <ModuleSheet module={thing} />,
};

/** The part of a kind for one of its entities. */
function PartOf<K extends Placed>({ kind, id, disabled }: { kind: K; id: string; disabled: boolean }) {
  const thing = useDisplay(({ scene }) => entityOf(scene, kind, id));
  const Part: ComponentType<PartProps<K>> | undefined = PARTS[kind];
  return Part && thing ? <Part thing={thing} picked={{ kind, id }} disabled={disabled} /> : null;
}

/** What one thing of the plan is, to be read and changed. */
export function DataSheet({ picked }: { picked: Picked }) {
  const { kind, id } = picked;
  const scene = useDisplay(({ scene }) => scene);
  const may = useDenialReason();
  const entity = entityOf(scene, kind, id);
  const forbids = may({ op: 'patch', kind, id, v: entity?.v ?? 1, set: {} });
  const disabled = forbids !== null;
  const fields = boardKindOf(kind)?.fields ?? [];
  return (
    <>
      <SheetHead picked={picked} scene={scene} fixed={disabled} />
      {forbids && <p className="ink-2 text-xs pb-2">{forbids}</p>}
      <EntityFields picked={picked} fields={fields} disabled={disabled} />
      {isStandingKind(kind) && <StandPart kind={kind} id={id} disabled={disabled} />}
      {isPlaced(kind) && <PartOf kind={kind} id={id} disabled={disabled} />}
      <PointsPart picked={picked} disabled={disabled} />
      <CopyPart picks={[picked]} />
    </>
  );
}
