import { formatPercent } from '@quarry/core/grid';
import { Plus } from 'lucide-react';
import { Link } from 'react-router';
import { displayOf, listOf } from '@quarry/core/document';
import type { MainsLead, Power, SupplyReport } from '@quarry/core/power';
import { footprintBounds } from '@quarry/core/terrain';
import { freshId, useDenialReason, useEdit, useLink, useScene } from '../../data/useDisplay.tsx';
import { FindingsHere } from '../../frame/Findings.tsx';
import { Basis, DefinitionRow, Empty, Heading } from '../../ui/parts.tsx';
import { cable, figure, milliamps } from './CircuitsPart.tsx';
import { ThingForm } from './ThingForm.tsx';

/** Adapters, USB supplies and batteries: how much each gives, into which outlet it goes, how long it lasts. */
export function SuppliesPart({ power }: { power: Power }) {
  const scene = useScene('display', 'footprint', 'supply');
  const { id } = useLink();
  const edit = useEdit();
  const may = useDenialReason();
  const isFixed = may({ op: 'add', kind: 'supply', id: 'x', data: { name: 'x', x: 0, y: 0 } }) !== null;
  const place = displayOf(scene).showPlace ?? displayOf(scene).place;
  const { w } = footprintBounds(scene) ?? { w: 0 };
  return (
    <>
      <Heading
        aside={
          power.mainsWatts > 0 ? `about ${figure(power.mainsWatts, 0)} W from the mains (guess)` : undefined
        }
      >
        Power supplies
      </Heading>
      {power.supplies.length === 0 && (
        <Empty title="No power supply yet">
          A mains adapter, a USB supply or a battery, with what it gives and how much: then you see whether it
          does, and into which outlet of the hall it goes.
        </Empty>
      )}
      {power.supplies.map((report) => (
        <ThingForm
          key={report.supply.id}
          kind="supply"
          id={report.supply.id}
          aside={[
            `${figure(report.supply.volts)} V`,
            loadWord(report),
            ...(report.hours === null ? [] : [`${figure(report.hours, 1)} h`]),
          ].join(' · ')}
        >
          <Gives
            report={report}
            lead={power.leads.find((one) => one.kind === 'supply' && one.id === report.supply.id) ?? null}
            showHours={power.showHours}
          />
          <FindingsHere picked={{ kind: 'supply', id: report.supply.id }} />
        </ThingForm>
      ))}
      <button
        type="button"
        className="btn btn-xs mt-1"
        disabled={isFixed}
        onClick={() =>
          void edit.add('added a power supply', 'supply', freshId('supply'), {
            name: `Supply ${listOf(scene, 'supply').length + 1}`,
            // Behind the middle of the display, beside it.
            ...{ x: Math.round(w / 2), y: -4 },
          })
        }
      >
        <Plus size={12} aria-hidden /> Add a power supply
      </button>
      <Heading
        aside={
          <Link className="act link" to={`/d/${id}/survey?sheet=room`}>
            Room
          </Link>
        }
      >
        Into the outlets
      </Heading>
      {power.leads.length === 0 ? (
        <p className="ink-2 text-xs">Batteries alone: nothing is plugged in.</p>
      ) : (
        <dl>
          {power.leads.map((lead) => (
            <DefinitionRow key={`${lead.kind} ${lead.id}`} label={lead.name} note={leadNote(lead)}>
              {lead.outlet ? lead.outlet.name : <span className="text-warning">△ none within it</span>}
            </DefinitionRow>
          ))}
        </dl>
      )}
      {place === null && (
        <p className="ink-2 text-xs">
          No place of the show is known: choose it on “Day”, and set its sockets on Survey.
        </p>
      )}
      <p className="text-xs py-2 border-l-4 border-warning pl-2 my-2">
        Only extra-low voltage (up to 50 V) is planned here. Mains, its leads and its strips are for qualified
        people and the rules of the place. Adapters and batteries get warm: give them air, nothing that burns
        near them, and charge no battery unwatched.
      </p>
      <Basis>
        Each adapter goes into an outlet within its lead, straight over the floor and down from the highest
        table; as many as possible get one, with as few extension leads as possible, and none in another. A
        battery is counted with 80 % of what it holds, an adapter as giving 80 % of what it takes (guesses of
        ours).
      </Basis>
    </>
  );
}

function loadWord({ supply, milliamps: current, share }: SupplyReport): string {
  if (supply.milliamps === null || share === null) return milliamps(current);
  return `${milliamps(current)} of ${milliamps(supply.milliamps)}${share > 1 ? ' !' : ''}`;
}

function Gives({
  report,
  lead,
  showHours,
}: {
  report: SupplyReport;
  lead: MainsLead | null;
  showHours: number | null;
}) {
  const { circuits, milliamps: current, share, watts, hours, offFirst, isStuck } = report;
  return (
    <dl>
      <DefinitionRow label="Gives" note={`${figure(watts)} W`}>
        <span className={share !== null && share > 1 ? 'text-error font-semibold' : ''}>
          {milliamps(current)}
          {share !== null && ` · ${formatPercent(share)}`}
        </span>
      </DefinitionRow>
      {circuits.length > 0 && (
        <DefinitionRow label="Circuits">
          {circuits.map(({ circuit }) => circuit.name).join(', ')}
        </DefinitionRow>
      )}
      {offFirst.length > 0 && (
        <DefinitionRow label="Turn off first">
          {offFirst.map(({ circuit }) => circuit.name).join(', ')}
        </DefinitionRow>
      )}
      {isStuck && <DefinitionRow label="Turn off first">what stays on is too much</DefinitionRow>}
      {hours !== null && (
        <DefinitionRow label="Lasts" note={showHours === null ? undefined : `open ${figure(showHours, 1)} h`}>
          {figure(hours, 1)} h
        </DefinitionRow>
      )}
      {lead && (
        <DefinitionRow label="Plugged into" note={leadNote(lead)}>
          {lead.outlet?.name ?? 'none within its lead'}
        </DefinitionRow>
      )}
    </dl>
  );
}

/** How long a lead must be. */
function leadNote({ leadMm, needsMm, isCrossing, outlet }: MainsLead): string {
  if (needsMm === null) return 'the place has no outlet';
  const needs = `${cable(needsMm)} of ${cable(leadMm)}`;
  return outlet && isCrossing ? `${needs}, over the visitors’ floor` : needs;
}
