import { displayOf, listOf, type Entity, type Scene } from '../document/index.ts';
import type { Relief } from '../terrain/index.ts';
import { circuitReports, supplyReports, type CircuitReport, type SupplyReport } from './circuits.ts';
import { mainsLeads, type MainsLead } from './mains.ts';

/** Light and power of a display in the place of its show. */
export interface Power {
  circuits: CircuitReport[];
  supplies: SupplyReport[];
  leads: MainsLead[];
  /** Devices that nothing feeds: on no circuit, or on one without a supply. */
  dark: Entity<'device'>[];
  /** Hours from opening to closing; null: not known. */
  showHours: number | null;
  /** W taken from the mains at most, by guess of what adapters lose. */
  mainsWatts: number;
}

/** What an adapter gives of what it takes (a guess of ours). */
export const ADAPTER_YIELD = 0.8;

/** @param scene in the place of its show */
export function powerOf(scene: Scene, relief: Relief): Power {
  const circuits = circuitReports(scene, relief);
  const supplies = supplyReports(scene, circuits);
  const fed = new Set(
    circuits.flatMap(({ supply, devices }) => (supply ? devices.map(({ device }) => device.id) : [])),
  );
  return {
    ...{ circuits, supplies },
    leads: mainsLeads(scene),
    dark: listOf(scene, 'device').filter(({ id }) => !fed.has(id)),
    showHours: showHoursOf(scene),
    mainsWatts:
      supplies.reduce((sum, { supply, watts }) => sum + (supply.type === 'battery' ? 0 : watts), 0) /
      ADAPTER_YIELD,
  };
}

function showHoursOf(scene: Scene): number | null {
  const { opensAt, closesAt } = displayOf(scene);
  if (opensAt === null || closesAt === null) return null;
  const hours = (at: string) => Number(at.slice(0, 2)) + Number(at.slice(3)) / 60;
  const long = hours(closesAt) - hours(opensAt);
  return long > 0 ? long : null;
}

/** One line of what is bought or packed for light and power. */
export interface PowerPart {
  name: string;
  count: number;
  /** Left out: pieces. */
  unit?: 'm';
  /** What it is for. */
  note: string;
}

/** What is needed for light and power: devices by what they are, cable by its copper, connectors, supplies, leads. */
export function powerParts({ circuits, dark, supplies, leads }: Power): PowerPart[] {
  const rows = new Map<string, PowerPart>();
  const add = (row: PowerPart) => {
    const known = rows.get(`${row.name} ${row.unit ?? ''}`);
    if (!known) return rows.set(`${row.name} ${row.unit ?? ''}`, row);
    known.count += row.count;
    if (row.note && !known.note.split(', ').includes(row.note))
      known.note = [known.note, row.note].filter(Boolean).join(', ');
    return rows;
  };
  const device = ({ use, volts, milliamps, count }: Entity<'device'>, note: string) =>
    add({ name: `${use} ${volts} V, ${milliamps} mA`, count, note });
  for (const { circuit, devices } of circuits) for (const one of devices) device(one.device, circuit.name);
  for (const one of dark) if (one.circuit === null) device(one, 'on no circuit');
  for (const { circuit, cableMm, used, partings } of circuits) {
    if (cableMm > 0)
      add({ name: `cable 2 × ${circuit.wire} mm²`, count: cableMm / 1000, unit: 'm', note: circuit.name });
    const connectors = used.length + partings.length;
    if (connectors > 0) add({ name: 'connector, two poles', count: connectors, note: circuit.name });
  }
  // A cable has the counterpart of each plug that goes into it.
  const counterpart = (plug: string, count: number, note: string) => {
    if (plug !== '') add({ name: `counterpart of plug “${plug}”`, count, note });
  };
  for (const { circuit, supply, devices } of circuits) {
    if (!supply) continue;
    for (const { device } of devices) counterpart(device.plug, device.count, circuit.name);
    if (devices.length > 0) counterpart(supply.plug, 1, circuit.name);
  }
  for (const { supply } of supplies) {
    const { type, volts, milliamps, capacity, sets, name } = supply;
    if (type === 'battery') add({ name: `battery ${volts} V, ${capacity} mAh`, count: sets, note: name });
    else
      add({
        name: `${type === 'usb' ? 'USB supply' : 'adapter'} ${volts} V${milliamps === null ? '' : `, ${milliamps} mA`}`,
        count: 1,
        note: name,
      });
  }
  for (const { kind, leadMm, name } of leads)
    if (kind === 'extension') add({ name: `extension lead ${leadMm / 1000} m`, count: 1, note: name });
  return [...rows.values()].map((row) => ({
    ...row,
    // Cable is told up to the next tenth of a metre.
    count: row.unit === 'm' ? Math.ceil(row.count * 10 - 1e-6) / 10 : row.count,
  }));
}
