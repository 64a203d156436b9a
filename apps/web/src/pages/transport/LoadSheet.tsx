import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { countOf, formatKg } from '@quarry/core/grid';
import {
  loadProgress,
  sceneAtShow,
  stoppedUnits,
  tripsOf,
  type LoadPlan,
  type Shipment,
} from '@quarry/core/transport';
import { useDisplay, useLink } from '../../data/useDisplay.tsx';
import { Basis, DefinitionRow, Empty, Failure, Heading, Loading } from '../../ui/parts.tsx';
import { Tabs } from '../../ui/Tabs.tsx';
import type { Asked } from '../../workers/askOnce.ts';
import { useLoadPlan, useShow } from '../../workers/useTransport.ts';
import { BroughtPart } from './BroughtPart.tsx';
import { CratesPart } from './CratesPart.tsx';
import { useTicked } from './handling.ts';
import { LabelsLink } from './LabelsLink.tsx';
import { LoadDrawing } from './LoadDrawing.tsx';
import { LoadHelps } from './LoadHelps.tsx';
import { LoadList } from './LoadList.tsx';
import { tripWord } from './tripWord.ts';
import { UnitPart } from './UnitPart.tsx';
import { VehiclesPart } from './VehiclesPart.tsx';

const PARTS = [
  { id: 'order', word: 'Order' },
  { id: 'vehicles', word: 'Vehicles' },
  { id: 'crates', word: 'Crates' },
  { id: 'brought', word: 'Brought along' },
] as const;

/** What is loaded into which vehicle, drawn and as a list that is ticked. */
export function LoadSheet() {
  const show = useShow();
  const { id } = useLink();
  const { plan, state } = useLoadPlan(id, show?.shipment ?? null);
  const [part, setPart] = useState<(typeof PARTS)[number]['id']>('order');
  const [trip, setTrip] = useState(0);
  // The code of a label leads to the thing it is on.
  const [query] = useSearchParams();
  const [key, setKey] = useState<string | null>(query.get('thing'));
  const shipment = useTicked(show?.shipment ?? null);
  if (!shipment) return <Loading what="Weighing what is carried" />;
  const chosen = shipment.units.find((unit) => unit.key === key) ?? null;
  const shown = plan?.trips[Math.min(trip, plan.trips.length - 1)] ?? null;
  const choose = (next: string | null) => {
    setKey(next);
    const at = plan?.trips.findIndex(({ placed }) => placed.some((one) => one.id === next)) ?? -1;
    if (at >= 0) setTrip(at);
  };
  return (
    <div className="h-full grid grid-rows-[minmax(15rem,2fr)_minmax(16rem,3fr)] md:grid-rows-1 md:grid-cols-[minmax(0,1fr)_380px]">
      <div className="min-h-0 min-w-0 overflow-auto px-4 py-2">
        {shipment.units.length === 0 ? (
          <Empty title="Nothing to load yet">
            Cut the scene into modules, or add what you bring along: tables, cloths, tools.
          </Empty>
        ) : shipment.carriers.length === 0 ? (
          <NoVehicle unknown={shipment.unknown} />
        ) : !plan ? (
          state.is === 'failed' ? (
            <Failure title="The loading failed" message={state.error} />
          ) : (
            <Loading what="Loading the vehicles" />
          )
        ) : (
          <>
            {plan.trips.length > 1 && (
              <Tabs
                label="Trips"
                look="bar"
                tabs={plan.trips.map((one, i) => ({ id: String(i), word: tripWord(shipment, one) }))}
                open={String(Math.min(trip, plan.trips.length - 1))}
                onOpen={(next) => setTrip(Number(next))}
              />
            )}
            {shown && <LoadDrawing shipment={shipment} load={shown} picked={key} onPick={choose} />}
            {!shown && <p className="text-error">Nothing fits into any vehicle.</p>}
          </>
        )}
      </div>
      <aside
        aria-label="Load"
        className="border-t md:border-t-0 md:border-l hair bg-base-100 overflow-auto px-3 pb-3 min-h-0"
      >
        <Tabs
          label="Load parts"
          look="line"
          className="border-b hair sticky top-0 bg-base-100 z-10"
          each="flex-1 text-xs"
          tabs={PARTS}
          open={part}
          onOpen={setPart}
        />
        <div role="tabpanel" aria-label={PARTS.find((one) => one.id === part)?.word} className="pt-2">
          {part === 'order' && (
            <>
              {chosen && <UnitPart key={chosen.key} unit={chosen} onClose={() => setKey(null)} />}
              {key !== null && !chosen && (
                <p role="status" className="text-warning">
                  △ What this label is on is not among what is loaded any more.
                </p>
              )}
              {plan && <Summary shipment={shipment} plan={plan} state={state} />}
              <Stopped shipment={shipment} onPick={choose} />
              {plan && <LeftOver shipment={shipment} plan={plan} onPick={choose} />}
              <LabelsLink />
              {plan && <LoadList shipment={shipment} plan={plan} picked={key} onPick={choose} />}
              <Basis>
                What is needed first stands nearest to the door, and nothing stands behind or under what is
                needed later: tables before modules, modules as they are set down (Cut, Order), then what
                stands on them, trees and figures, tools. Each stands upright on the floor or wholly on what
                bears it, comes in by the door, between the wheel arches, with {shipment.gap} mm of air. “At
                least” is a number of trips that no loading is below. Every loading is checked before it is
                shown. Fasten what may slide; local rules decide.
              </Basis>
            </>
          )}
          {part === 'vehicles' && <VehiclesPart shipment={shipment} />}
          {part === 'crates' && <CratesPart shipment={shipment} onPick={choose} />}
          {part === 'brought' && <BroughtPart />}
        </div>
      </aside>
    </div>
  );
}

function NoVehicle({ unknown }: { unknown: readonly string[] }) {
  const { id } = useLink();
  return (
    <Empty
      title="Which vehicle?"
      act={
        <Link className="btn btn-sm" to={`/d/${id}/survey?sheet=way`}>
          Go to the access route
        </Link>
      }
    >
      {unknown.length > 0
        ? `Give the ${unknown.join(' and ')} the size of its inside: then you see how it is loaded.`
        : 'Add a vehicle to the access route on Survey, with its door and inside: then you see how it is loaded, and in how many trips.'}
    </Empty>
  );
}

function Summary({ shipment, plan, state }: { shipment: Shipment; plan: LoadPlan; state: Asked<LoadPlan> }) {
  const { units, carriers, uncrated } = shipment;
  const inside = plan.trips.reduce((sum, { placed }) => sum + placed.length, 0);
  const planned = tripsOf(carriers).length;
  const grams = units.reduce((sum, unit) => sum + unit.grams, 0);
  const progress = loadProgress(units);
  const loose = uncrated.reduce((sum, { count }) => sum + count, 0);
  return (
    <section aria-labelledby="load">
      <Heading id="load" aside={state.is === 'asking' ? 'looking for fewer trips …' : undefined}>
        Load
      </Heading>
      <dl>
        <DefinitionRow label="In a vehicle" note={formatKg(grams)}>
          <span className={inside < units.length ? 'text-error font-semibold' : ''}>
            {inside} of {units.length}
          </span>
        </DefinitionRow>
        <DefinitionRow label="Trips" note={tripsNote(plan)}>
          {plan.trips.length} of {planned}
        </DefinitionRow>
        <DefinitionRow label="Needed first, nearest to the door">
          {plan.isInOrder ? 'kept' : 'but for modules'}
        </DefinitionRow>
        <DefinitionRow label="Put in · arrived" note={`of ${units.length}`}>
          {progress.loaded} · {progress.arrived}
        </DefinitionRow>
        {loose > 0 && (
          <DefinitionRow label="In no crate" note="trees, figures, flags, signboards">
            {loose}
          </DefinitionRow>
        )}
      </dl>
      {progress.missing.length > 0 && (
        <p className="text-xs py-1">
          <b>Not arrived yet:</b> {progress.missing.map(({ name }) => name).join(', ')}
        </p>
      )}
    </section>
  );
}

/** What is proven of the number of trips. */
function tripsNote({ trips, bound, left }: LoadPlan): string {
  if (left.length > 0) return `at least ${bound}; as found they do not do`;
  return trips.length <= bound ? 'proven: no fewer' : `at least ${bound}`;
}

/** What does not come through the access route at all. */
function Stopped({ shipment, onPick }: { shipment: Shipment; onPick: (key: string) => void }) {
  const scene = useDisplay(({ scene: now }) => now);
  const stopped = stoppedUnits(sceneAtShow(scene), shipment.units);
  if (stopped.length === 0) return null;
  return (
    <div role="status" className="border-l-4 border-primary pl-3 my-2">
      <p className="font-semibold">Does not come through</p>
      <ul>
        {stopped.map(({ unit, passage }) => (
          <li key={unit.key}>
            <button type="button" className="link link-hover text-left" onClick={() => onPick(unit.key)}>
              {unit.name}
            </button>
            <span className="ink-2 text-xs"> stopped by the {passage.name}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What is not in, and why. */
function LeftOver({
  shipment,
  plan,
  onPick,
}: {
  shipment: Shipment;
  plan: LoadPlan;
  onPick: (key: string) => void;
}) {
  const rows = [
    ...plan.tooLarge.map((key) => ({ key, why: 'fits into no vehicle' })),
    ...plan.left.map((key) => ({ key, why: 'no room in the trips planned' })),
  ];
  if (rows.length === 0) return null;
  return (
    <div role="status" className="border-l-4 border-primary pl-3 my-2">
      <p className="font-semibold">{countOf(rows.length, 'thing')} not loaded</p>
      <ul>
        {rows.map(({ key, why }) => (
          <li key={key}>
            <button type="button" className="link link-hover text-left" onClick={() => onPick(key)}>
              {shipment.units.find((unit) => unit.key === key)?.name ?? key}
            </button>
            <span className="ink-2 text-xs"> {why}</span>
          </li>
        ))}
      </ul>
      <LoadHelps shipment={shipment} over={rows.length} />
    </div>
  );
}
