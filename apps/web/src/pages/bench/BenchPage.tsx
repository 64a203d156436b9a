import type { ComponentType } from 'react';
import { PAGE_SHEETS, type SheetOf } from '../../frame/pages.ts';
import { useSheet } from '../../frame/useSheet.ts';
import { Tabs } from '../../ui/Tabs.tsx';
import { BaysPanel } from './BaysPanel.tsx';
import { EnlargedPanel } from './EnlargedPanel.tsx';
import { FitsPanel } from './FitsPanel.tsx';
import { MosaicPanel } from './MosaicPanel.tsx';
import { RingPanel } from './RingPanel.tsx';
import { RoofPanel } from './RoofPanel.tsx';
import { StackPanel } from './StackPanel.tsx';
import { HingePanel } from './HingePanel.tsx';
import { TurnPanel } from './TurnPanel.tsx';
import { VolumePanel } from './VolumePanel.tsx';
import { WeighPanel } from './WeighPanel.tsx';

const PANELS = {
  fits: FitsPanel,
  ring: RingPanel,
  roof: RoofPanel,
  turn: TurnPanel,
  hinge: HingePanel,
  bays: BaysPanel,
  stack: StackPanel,
  volume: VolumePanel,
  picture: MosaicPanel,
  enlarged: EnlargedPanel,
  lift: WeighPanel,
} satisfies Record<SheetOf<'bench'>, ComponentType>;

/** Calculators that stand alone; what they answer is put into the plan, the needs or a note. */
export function BenchPage() {
  const { sheet, word, open } = useSheet('bench');
  const Panel = PANELS[sheet];
  return (
    <div className="h-full grid grid-cols-[minmax(0,1fr)] grid-rows-[var(--bar)_minmax(0,1fr)]">
      <div className="flex items-center px-2 bg-base-100 border-b hair">
        <Tabs label="Bench" look="bar" tabs={PAGE_SHEETS.bench} open={sheet} onOpen={open} />
      </div>
      <section role="tabpanel" aria-label={word} className="min-h-0 overflow-auto bg-base-100" tabIndex={-1}>
        <Panel />
      </section>
    </div>
  );
}
