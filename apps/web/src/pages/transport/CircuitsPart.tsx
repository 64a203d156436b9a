import { Plus } from 'lucide-react';
import { countOf, formatMm, MM } from '@quarry/core/grid';
import { listOf, type Entity } from '@quarry/core/document';
import type { CircuitReport, Power } from '@quarry/core/power';
import { freshId, useDenialReason, useEdit, useScene } from '../../data/useDisplay.tsx';
import { SelectField } from '../../ui/fields.tsx';
import { Basis, DefinitionRow, Empty, Heading } from '../../ui/parts.tsx';
import { FindingsHere } from '../../frame/Findings.tsx';
import { ThingForm } from './ThingForm.tsx';

export const figure = (value: number, digits = 2) =>
  value.toLocaleString('en', { maximumFractionDigits: digits });
export const milliamps = (value: number) => `${Math.round(value).toLocaleString('en')} mA`;
/** A length of cable: centimetres are enough. */
export const cable = (mm: number) => (mm < 1000 ? formatMm(Math.round(mm) * MM) : `${figure(mm / 1000)} m`);

/** Cables by supply: what hangs on each, what flows, how far the voltage falls, where it parts. */
export function CircuitsPart({
  power,
  picked,
  onPick,
  isPutting,
  onPutting,
}: {
  power: Power;
  picked: string | null;
  onPick: (id: string | null) => void;
  /** Clicks on the drawing put lights on the picked circuit. */
  isPutting: boolean;
  onPutting: (is: boolean) => void;
}) {
  const scene = useScene('supply');
  const edit = useEdit();
  const may = useDenialReason();
  const isFixed = may({ op: 'add', kind: 'circuit', id: 'x', data: { name: 'x' } }) !== null;
  const loose = power.dark.filter(({ circuit }) => circuit === null);
  const supplies = [
    { value: '', word: 'none yet' },
    ...listOf(scene, 'supply').map(({ id, name, volts }) => ({ value: id, word: `${name}, ${volts} V` })),
  ];
  const add = () => {
    const id = freshId('circuit');
    const [first] = listOf(scene, 'supply');
    if (
      edit.add('added a circuit', 'circuit', id, {
        name: `Circuit ${power.circuits.length + 1}`,
        ...(first ? { supply: first.id } : {}),
      })
    )
      onPick(id);
  };
  return (
    <>
      <Heading aside={power.circuits.length > 0 ? countOf(power.circuits.length, 'circuit') : undefined}>
        Circuits
      </Heading>
      {power.circuits.length === 0 && (
        <Empty title="No circuit yet">
          A circuit is one cable from a power supply to the lights and motors that go on together. Its way,
          its length and where it parts at the seams are worked out.
        </Empty>
      )}
      {power.circuits.map((report, i) => (
        <div key={report.circuit.id} onFocus={() => onPick(report.circuit.id)}>
          <ThingForm
            kind="circuit"
            id={report.circuit.id}
            isOpen={picked === report.circuit.id || undefined}
            aside={`${i + 1} · ${summary(report)}`}
          >
            <SelectField
              label="Power supply"
              value={report.circuit.supply ?? ''}
              options={supplies}
              disabled={isFixed}
              onCommit={(supply) =>
                edit.patch(`hung ${report.circuit.name} on a supply`, 'circuit', report.circuit, {
                  supply: supply || null,
                })
              }
            />
            <Feeds report={report} />
            <Connectors report={report} isFixed={isFixed} />
            <button
              type="button"
              className={`btn btn-xs mt-1 ${isPutting && picked === report.circuit.id ? 'btn-primary' : ''}`}
              aria-pressed={isPutting && picked === report.circuit.id}
              disabled={isFixed}
              onClick={() => {
                onPick(report.circuit.id);
                onPutting(!isPutting || picked !== report.circuit.id);
              }}
            >
              Put lights on it by clicks on the drawing
            </button>
            <FindingsHere picked={{ kind: 'circuit', id: report.circuit.id }} />
          </ThingForm>
        </div>
      ))}
      <button type="button" className="btn btn-xs mt-1" disabled={isFixed} onClick={add}>
        <Plus size={12} aria-hidden /> Add a circuit
      </button>
      {loose.length > 0 && <Loose devices={loose} isFixed={isFixed} />}
      <Basis>
        The cable goes along the stud grid from its supply to all it feeds by the shortest tree that crosses
        the fewest seams without a connector; slack is added to its length. Each wire carries the current of
        all beyond it. The voltage falls by current × resistance there and back: copper has 1/58 Ω for each
        metre of 1 mm² (IEC 60028). Lights are taken as taking their current at any voltage, all on at once.
      </Basis>
    </>
  );
}

function summary({ devices, milliamps: current, cableMm, worst, supply }: CircuitReport): string {
  const count = devices.reduce((sum, { device }) => sum + device.count, 0);
  if (count === 0) return 'feeds nothing yet';
  if (!supply) return `${count} on it, no supply`;
  const fall = worst ? ` · falls ${figure((100 * worst.drop) / supply.volts, 1)} %` : '';
  return `${count} on it · ${milliamps(current)} · ${cable(cableMm)}${fall}`;
}

function Feeds({
  report: { devices, milliamps: current, watts, worst, supply, cableMm },
}: {
  report: CircuitReport;
}) {
  if (devices.length === 0) return null;
  return (
    <>
      <dl>
        <DefinitionRow label="Current" note={supply ? `${figure(watts)} W` : undefined}>
          {milliamps(current)}
        </DefinitionRow>
        {supply && worst && (
          <>
            <DefinitionRow label="Cable, with slack">{cable(cableMm)}</DefinitionRow>
            <DefinitionRow label="Lowest voltage" note={`at ${worst.device.name}`}>
              {figure(supply.volts - worst.drop)} V of {figure(supply.volts)} V
            </DefinitionRow>
          </>
        )}
      </dl>
      {devices.slice(0, MAX_LISTED).map(({ device, drop }) => (
        <ThingForm
          key={device.id}
          kind="device"
          id={device.id}
          aside={`${device.count > 1 ? `${device.count} × ` : ''}${milliamps(device.milliamps)}${supply ? ` · gets ${figure(supply.volts - drop)} V` : ''}`}
        />
      ))}
      {devices.length > MAX_LISTED && (
        <p className="text-xs ink-2">and {devices.length - MAX_LISTED} more, on the Plan</p>
      )}
    </>
  );
}

/** Where the cable can be parted; one press plans what is missing. */
function Connectors({
  report: { circuit, used, partings },
  isFixed,
}: {
  report: CircuitReport;
  isFixed: boolean;
}) {
  const edit = useEdit();
  const idle = circuit.connectors.length - used.length;
  const set = (words: string, connectors: { x: number; y: number }[]) =>
    edit.patch(words, 'circuit', circuit, { connectors });
  return (
    <>
      <dl>
        <DefinitionRow
          label="Connectors"
          note={partings.length > 0 ? `${partings.length} missing at seams` : undefined}
        >
          {used.length}
        </DefinitionRow>
      </dl>
      <span className="flex flex-wrap gap-1 pt-1">
        {partings.length > 0 && (
          <button
            type="button"
            className="btn btn-xs"
            disabled={isFixed}
            onClick={() =>
              set(`planned connectors on ${circuit.name}`, [
                ...circuit.connectors,
                ...partings.map(({ x, y }) => ({ x, y })),
              ])
            }
          >
            Plan {countOf(partings.length, 'connector')}
          </button>
        )}
        {idle > 0 && (
          <button
            type="button"
            className="btn btn-xs"
            disabled={isFixed}
            onClick={() => set(`removed idle connectors of ${circuit.name}`, [...used])}
          >
            Remove {countOf(idle, 'connector')} off its way
          </button>
        )}
      </span>
    </>
  );
}

/** What hangs on no circuit, to hang it on one. */
function Loose({ devices, isFixed }: { devices: readonly Entity<'device'>[]; isFixed: boolean }) {
  const scene = useScene('circuit');
  const edit = useEdit();
  const options = [
    { value: '', word: 'choose …' },
    ...listOf(scene, 'circuit').map(({ id, name }) => ({ value: id, word: name })),
  ];
  return (
    <>
      <Heading aside={String(devices.length)}>On no circuit</Heading>
      {devices.slice(0, MAX_LOOSE).map((device) => (
        <SelectField
          key={device.id}
          label={device.name}
          value=""
          options={options}
          disabled={isFixed}
          onCommit={(circuit) => {
            if (circuit) edit.patch(`hung ${device.name} on a circuit`, 'device', device, { circuit });
          }}
        />
      ))}
      {devices.length > 1 && options.length > 1 && (
        <SelectField
          label={`All ${devices.length} of them`}
          value=""
          options={options}
          disabled={isFixed}
          onCommit={(circuit) => {
            if (!circuit) return;
            edit.change(
              `hung ${devices.length} lights and motors on a circuit`,
              devices.map(({ id, v }) => ({
                op: 'patch' as const,
                kind: 'device' as const,
                id,
                v,
                set: { circuit },
              })),
            );
          }}
        />
      )}
    </>
  );
}

/** More are not listed one by one. */
const MAX_LOOSE = 12;
const MAX_LISTED = 30;
