import { useState } from 'react';
import { Link } from 'react-router';
import { listOf } from '@quarry/core/document';
import type { Power } from '@quarry/core/power';
import { freshId, useDisplay, useEdit, useLink } from '../../data/useDisplay.tsx';
import { Empty, Loading } from '../../ui/parts.tsx';
import { Tabs } from '../../ui/Tabs.tsx';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';
import { CircuitsPart } from './CircuitsPart.tsx';
import { PowerDrawing } from './PowerDrawing.tsx';
import { PowerList } from './PowerList.tsx';
import { SuppliesPart } from './SuppliesPart.tsx';

const PARTS = [
  { id: 'circuits', word: 'Circuits' },
  { id: 'supplies', word: 'Supplies' },
  { id: 'list', word: 'Parts and switches' },
] as const;

/** Light and power: cables over the display, what flows in them, and the outlets of the hall. */
export function PowerSheet() {
  const power = useWorkerQuery((core) => core.power());
  const scene = useDisplay(({ scene: now }) => now);
  const [part, setPart] = useState<(typeof PARTS)[number]['id']>('circuits');
  const [picked, setPicked] = useState<string | null>(null);
  const [isPutting, setPutting] = useState(false);
  const edit = useEdit();
  const put = (at: { x: number; y: number }) => {
    const name = `Light ${listOf(scene, 'device').length + 1}`;
    edit.add(`put ${name}`, 'device', freshId('device'), { name, ...at, circuit: picked });
  };
  if (!power) return <Loading what="Working out cables and currents" />;
  return (
    <div className="h-full grid grid-rows-[minmax(15rem,2fr)_minmax(16rem,3fr)] md:grid-rows-1 md:grid-cols-[minmax(0,1fr)_380px]">
      <div className="min-h-0 min-w-0 overflow-auto px-4 py-2 flex flex-col">
        {isEmpty(power) ? (
          <NothingYet />
        ) : (
          <>
            <p className="ink-2 text-xs pb-1" aria-live="polite">
              {isPutting
                ? 'Click where each light goes; the button, or Esc on it, ends that.'
                : 'Cables by number and dash. A square is a connector, “!” a seam without one.'}
            </p>
            <PowerDrawing
              scene={scene}
              power={power}
              picked={picked}
              onPick={setPicked}
              onPut={isPutting && picked !== null && scene.circuit[picked] ? put : null}
            />
          </>
        )}
      </div>
      <aside
        aria-label="Light and power"
        className="border-t md:border-t-0 md:border-l hair bg-base-100 overflow-auto px-3 pb-3 min-h-0"
        onKeyDown={(event) => {
          if (event.key === 'Escape') setPutting(false);
        }}
      >
        <Tabs
          label="Light and power parts"
          look="line"
          className="border-b hair sticky top-0 bg-base-100 z-10"
          each="flex-1 text-xs"
          tabs={PARTS}
          open={part}
          onOpen={setPart}
        />
        <div role="tabpanel" aria-label={PARTS.find((one) => one.id === part)?.word} className="pt-2">
          {part === 'circuits' && (
            <CircuitsPart
              power={power}
              picked={picked}
              onPick={setPicked}
              isPutting={isPutting}
              onPutting={setPutting}
            />
          )}
          {part === 'supplies' && <SuppliesPart power={power} />}
          {part === 'list' && <PowerList power={power} />}
        </div>
      </aside>
    </div>
  );
}

const isEmpty = ({ circuits, supplies, dark }: Power) =>
  circuits.length === 0 && supplies.length === 0 && dark.length === 0;

function NothingYet() {
  const { id } = useLink();
  return (
    <Empty
      title="No light yet"
      act={
        <Link className="btn btn-sm" to={`/d/${id}/plan`}>
          Go to the Plan
        </Link>
      }
    >
      Add a power supply and a circuit at the right, then put lights on it by clicks on the drawing; or set
      lights and motors on the Plan, under “More”. Lengths, currents and connectors follow.
    </Empty>
  );
}
