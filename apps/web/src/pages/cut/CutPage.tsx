import { useMemo, useState } from 'react';
import { countOf } from '@quarry/core/grid';
import { adoptCutting, neighboursOf, type Alternative } from '@quarry/core/cut';
import { listOf, reduce, type Scene } from '@quarry/core/document';
import { Board } from '../../board/Board.tsx';
import { PICK_ONLY } from '../../board/pickOnly.ts';
import { useDisplay } from '../../data/useDisplay.tsx';
import { useView, type CutLine } from '../../data/view.ts';
import { PAGE_SHEETS } from '../../frame/pages.ts';
import { useSheet } from '../../frame/useSheet.ts';
import { Tabs } from '../../ui/Tabs.tsx';
import { useDerived } from '../../workers/useDerived.ts';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';
import { useAlternatives } from '../../workers/useAlternatives.ts';
import { CarriedList } from './CarriedTable.tsx';
import { HandPanel } from './HandPanel.tsx';
import { LiftPanel } from './LiftPanel.tsx';
import { OrderPanel } from './OrderPanel.tsx';
import { AlternativesPanel } from './AlternativesPanel.tsx';
import { StabilityPanel } from './StabilityPanel.tsx';
import { SeamsPanel } from './SeamsPanel.tsx';

/** How the scene comes apart: alternative cuttings, cuts by hand, what is lifted, seams agreed, and the order of it all. */
export function CutPage() {
  const scene = useDisplay(({ scene }) => scene);
  const ground = useDerived(({ ground }) => ground);
  const judgement = useDerived(({ judgement }) => judgement);
  const { pick, cutLine } = useView();
  const { sheet: panel, word, open } = useSheet('cut');
  const [chosen, setChosen] = useState<Alternative | null>(null);
  const alternatives = useAlternatives();
  const [seam, setSeam] = useState<string | null>(null);
  const seamLine = useMemo(() => (panel === 'seams' ? lineOf(scene, seam) : null), [scene, panel, seam]);
  const [joint, setJoint] = useState<CutLine | null>(null);
  const stated = useWorkerQuery((core) => core.problem());
  const shown = panel === 'alternatives' && chosen ? (alternatives.run.found[chosen]?.cutting ?? null) : null;
  const preview = useMemo(
    () => (shown && stated?.ok ? withCutting(scene, shown, stated.origin) : scene),
    [shown, scene, stated],
  );
  const findings = useMemo(
    () => judgement?.findings.filter(({ page }) => page === 'cut' || page === 'plan') ?? [],
    [judgement],
  );
  const count = listOf(preview, 'module').length;
  return (
    <div className="h-full grid grid-cols-[minmax(0,1fr)] grid-rows-[var(--bar)_minmax(0,1fr)]">
      <div className="flex items-center px-2 bg-base-100 border-b hair">
        <Tabs label="Cut" look="bar" tabs={PAGE_SHEETS.cut} open={panel} onOpen={open} />
        <span className="flex-1" />
        <span className="ink-2 text-xs whitespace-nowrap px-1">
          {shown
            ? `Proposed: ${countOf(count, 'module')}`
            : count > 0
              ? `Current: ${countOf(count, 'module')}`
              : 'Not cut yet'}
        </span>
      </div>
      <div className="grid grid-rows-[minmax(16rem,2fr)_minmax(16rem,3fr)] md:grid-rows-1 md:grid-cols-[minmax(0,1fr)_472px] min-h-0">
        <div className="min-h-0 min-w-0 grid grid-cols-[minmax(0,1fr)] lg:grid-rows-[minmax(0,1fr)_minmax(0,220px)]">
          <div className="min-h-0 min-w-0 relative">
            <Board
              scene={preview}
              ground={ground}
              findings={shown ? undefined : findings}
              acts={PICK_ONLY}
              cut={panel === 'hand' ? cutLine : null}
              pointedOut={panel === 'stability' ? joint : seamLine}
              label={
                shown
                  ? `The cutting found: ${countOf(count, 'module')}`
                  : `The modules as they are: ${count}. Press one to pick it.`
              }
            />
          </div>
          {/* A phone and a tablet have the same list on the sheet of lifting. */}
          <div className="hidden lg:block border-t hair bg-base-100 min-h-0">
            <CarriedList />
          </div>
        </div>
        <section
          role="tabpanel"
          aria-label={word}
          className="border-t md:border-t-0 md:border-l hair bg-base-100 overflow-auto px-3 py-2.5 min-h-0"
        >
          {panel === 'alternatives' && (
            <AlternativesPanel
              stated={stated}
              alternatives={alternatives}
              chosen={chosen}
              onChoose={(alternative) => {
                setChosen(alternative);
                pick(null);
              }}
            />
          )}
          {panel === 'hand' && <HandPanel />}
          {panel === 'lift' && <LiftPanel />}
          {panel === 'stability' && <StabilityPanel onPoint={setJoint} />}
          {panel === 'seams' && <SeamsPanel chosen={seam} onChoose={setSeam} />}
          {panel === 'order' && <OrderPanel />}
        </section>
      </div>
    </div>
  );
}

/** The chosen seam as a line on the board: of none, that of the first. */
function lineOf(scene: Scene, id: string | null) {
  const pairs = neighboursOf(scene);
  const pair = pairs.find((one) => one.id === id) ?? pairs[0];
  if (!pair) return null;
  const { x, y, upright, length } = pair.line;
  return { a: { x, y }, b: upright ? { x, y: y + length } : { x: x + length, y } };
}

function withCutting(
  scene: Scene,
  cutting: Parameters<typeof adoptCutting>[1],
  origin: { x: number; y: number },
): Scene {
  const reduction = reduce(scene, adoptCutting(scene, cutting, origin));
  return reduction.ok ? reduction.scene : scene;
}
