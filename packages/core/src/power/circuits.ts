import { MM_PER_PLATE } from '../grid/index.ts';
import { listOf, type Circuit, type Device, type Entity, type Scene } from '../document/index.ts';
import { footHeights, namedFoot, type Relief } from '../terrain/index.ts';
import {
  wireMm,
  wiringOf,
  type Parting,
  type Wire,
  type WireGround,
  type WireNode,
  type WirePoint,
} from './wires.ts';

// What flows in each cable and how far its voltage falls, by Ohm's law.

/** Resistance of copper at 20 °C, Ω mm²/m: 1/58 (IEC 60028, from memory). */
const COPPER = 1 / 58;
/** What a thin wire carries for long, A per mm² (a cautious figure of ours, no source). */
export const AMPS_PER_MM2 = 5;

/** A device on its cable. */
export interface FedDevice {
  device: Entity<'device'>;
  /** All of them at this spot, mA. */
  milliamps: number;
  /** Its own lead down to the cable, mm, without slack. */
  leadMm: number;
  /** How far the voltage has fallen there, V, with its own lead. */
  drop: number;
}

/** A wire with what flows in it. */
export interface LiveWire extends Wire {
  milliamps: number;
  /** As it is cut: with slack, and at the beginning the way up from below the table. */
  mm: number;
  drop: number;
}

export interface CircuitReport {
  circuit: Entity<'circuit'>;
  supply: Entity<'supply'> | null;
  devices: FedDevice[];
  wires: LiveWire[];
  milliamps: number;
  /** W at the supply; 0 without one. */
  watts: number;
  /** All wires and leads as they are cut, mm. */
  cableMm: number;
  /** The farthest that the voltage falls, V, and where; null without a supply or devices. */
  worst: FedDevice | null;
  /** Sides of modules that its wires cross without a connector. */
  partings: Parting[];
  /** Connectors of the circuit that lie on its way. */
  used: readonly { x: number; y: number }[];
}

/** What a device takes, mA: all at its spot. */
export const milliampsOf = ({ count, milliamps }: Pick<Device, 'count' | 'milliamps'>): number =>
  count * milliamps;

/** The modules as what a cable is parted by. */
export const wireGround = (scene: Pick<Scene, 'module'>): WireGround[] =>
  listOf(scene, 'module').map(({ id, x, y, w, d, bases }) => ({
    id,
    rects: bases.length > 0 ? bases : [{ x, y, w, d }],
  }));

/** Height of a device over the table, mm: what it stands on and its own height, less what it is set into it; beside the display its own alone. */
export function heightOf(scene: Scene, relief: Relief, device: Device): number {
  const [x, y] = [Math.floor(device.x), Math.floor(device.y)];
  const isOn = x >= relief.x && y >= relief.y && x < relief.x + relief.w && y < relief.y + relief.d;
  const under = isOn ? footHeights(relief, device)[(y - relief.y) * relief.w + x - relief.x] : 0;
  const foot = namedFoot(scene, relief, device, device) ?? under;
  return Math.max(0, foot + device.height - device.below) * MM_PER_PLATE;
}

/** Each circuit with its wires, currents and voltages, by name. O(n²) for n devices of one circuit. */
export function circuitReports(scene: Scene, relief: Relief): CircuitReport[] {
  const ground = wireGround(scene);
  const devices = listOf(scene, 'device');
  return listOf(scene, 'circuit')
    .toSorted((a, b) => a.name.localeCompare(b.name, 'en') || (a.id < b.id ? -1 : 1))
    .map((circuit) =>
      reportOf(
        circuit,
        circuit.supply === null ? null : (scene.supply[circuit.supply] ?? null),
        devices
          .filter((device) => device.circuit === circuit.id)
          .map((device) => ({ device, leadMm: device.leadMm ?? heightOf(scene, relief, device) })),
        ground,
      ),
    );
}

function reportOf(
  circuit: Entity<'circuit'>,
  supply: Entity<'supply'> | null,
  fed: readonly { device: Entity<'device'>; leadMm: number }[],
  ground: readonly WireGround[],
): CircuitReport {
  const flows = fed.map(({ device, leadMm }) => ({ device, leadMm, milliamps: milliampsOf(device) }));
  const milliamps = flows.reduce((sum, one) => sum + one.milliamps, 0);
  const longer = 1 + circuit.slack / 100;
  const leads = flows.reduce((sum, { leadMm }) => sum + leadMm * longer, 0);
  const report = { circuit, supply, milliamps, watts: ((supply?.volts ?? 0) * milliamps) / 1000 };
  if (!supply || fed.length === 0) {
    const devices = flows.map((one) => ({ ...one, drop: 0 }));
    return { ...report, devices, wires: [], cableMm: leads, worst: null, partings: [], used: [] };
  }
  const nodes = nodesOf(
    circuit,
    supply,
    fed.map(({ device }) => device),
  );
  const tree = wiringOf(ground, nodes);
  const flow = nodes.map((_, i) => (i > 0 && i <= flows.length ? flows[i - 1].milliamps : 0));
  // Wires stand in the order in which they are joined: backwards each end comes before its beginning.
  for (const { from, to } of tree.toReversed()) flow[from] += flow[to];
  const fallen = nodes.map(() => 0);
  const wires = tree.map((wire): LiveWire => {
    const mm = (wireMm(wire) + (wire.from === 0 ? supply.belowMm : 0)) * longer;
    const drop = dropOf(flow[wire.to], mm, circuit);
    fallen[wire.to] = fallen[wire.from] + drop;
    return { ...wire, mm, drop, milliamps: flow[wire.to] };
  });
  const devices = flows.map((one, i): FedDevice => ({
    ...one,
    drop: fallen[i + 1] + dropOf(one.milliamps, one.leadMm * longer, circuit),
  }));
  return {
    ...report,
    ...{ devices, wires },
    cableMm: leads + wires.reduce((sum, { mm }) => sum + mm, 0),
    worst: devices.reduce<FedDevice | null>((a, b) => (a && a.drop >= b.drop ? a : b), null),
    partings: wires.flatMap(({ partings }) => partings),
    used: usedOf(circuit, fed.length, wires),
  };
}

/** What a cable joins: its supply, its devices, its connectors. */
const nodesOf = (circuit: Circuit, supply: WirePoint, devices: readonly WirePoint[]): WireNode[] => [
  { x: supply.x, y: supply.y, isConnector: false },
  ...devices.map(({ x, y }) => ({ x, y, isConnector: false })),
  ...circuit.connectors.map(({ x, y }) => ({ x, y, isConnector: true })),
];

/** Connectors on the way of a cable. */
const usedOf = (circuit: Circuit, devices: number, wires: readonly Wire[]): WirePoint[] =>
  circuit.connectors.filter((_, i) => wires.some(({ to }) => to === devices + 1 + i));

/** A cable as it lies on the plan, studs. */
export interface Cable {
  circuit: Entity<'circuit'>;
  /** Each wire as the points of a line. */
  lines: readonly (readonly WirePoint[])[];
  connectors: readonly WirePoint[];
  /** Sides of modules that it crosses without a connector. */
  partings: readonly Parting[];
}

/** The cables of circuits that feed something, by the id of the circuit: the same ways as in `circuitReports`. */
export function cablesOf(scene: Pick<Scene, 'circuit' | 'supply' | 'device' | 'module'>): Cable[] {
  const ground = wireGround(scene);
  return listOf(scene, 'circuit').flatMap((circuit): Cable[] => {
    const supply = circuit.supply === null ? undefined : scene.supply[circuit.supply];
    const devices = listOf(scene, 'device').filter((device) => device.circuit === circuit.id);
    if (!supply || devices.length === 0) return [];
    const wires = wiringOf(ground, nodesOf(circuit, supply, devices));
    const lines = wires.map(({ points }) => points);
    const partings = wires.flatMap((wire) => wire.partings);
    return [{ circuit, lines, connectors: usedOf(circuit, devices.length, wires), partings }];
  });
}

/** Volts lost there and back: I·R with R = ρ·2L/A. @param mm of the cable, one way */
export const dropOf = (milliamps: number, mm: number, { wire }: Pick<Circuit, 'wire'>): number =>
  ((milliamps / 1000) * COPPER * 2 * (mm / 1000)) / wire;

/** Circuits as they are switched on: what stays on first, then the least current. */
export const inSwitchOrder = (circuits: readonly CircuitReport[]): CircuitReport[] =>
  circuits.toSorted(
    (a, b) => Number(b.circuit.essential) - Number(a.circuit.essential) || a.milliamps - b.milliamps,
  );

/** What a supply feeds. */
export interface SupplyReport {
  supply: Entity<'supply'>;
  circuits: CircuitReport[];
  milliamps: number;
  watts: number;
  /** Of its rating; null: no rating. */
  share: number | null;
  /** How long its batteries last, h; null: no battery, or nothing is fed. */
  hours: number | null;
  /** What to turn off first to keep to its rating: the fewest circuits, then the least current; empty: nothing need be. */
  offFirst: CircuitReport[];
  /** Turning off all that may go does not do. */
  isStuck: boolean;
}

/** What of a battery's capacity can be counted on (a guess of ours: age and cold). */
export const USABLE = 0.8;

export function supplyReports(scene: Scene, circuits: readonly CircuitReport[]): SupplyReport[] {
  return listOf(scene, 'supply')
    .toSorted((a, b) => a.name.localeCompare(b.name, 'en') || (a.id < b.id ? -1 : 1))
    .map((supply): SupplyReport => {
      const fed = circuits.filter(({ circuit }) => circuit.supply === supply.id);
      const milliamps = fed.reduce((sum, one) => sum + one.milliamps, 0);
      const over = supply.milliamps === null ? 0 : milliamps - supply.milliamps;
      const off = over > 0 ? turnedOff(fed, over) : [];
      return {
        ...{ supply, circuits: fed, milliamps },
        watts: (supply.volts * milliamps) / 1000,
        share: supply.milliamps === null ? null : milliamps / supply.milliamps,
        hours: supply.type === 'battery' && milliamps > 0 ? hoursOf(supply, milliamps) : null,
        offFirst: off ?? [],
        isStuck: off === null,
      };
    });
}

const hoursOf = ({ capacity, sets }: Entity<'supply'>, milliamps: number) =>
  (capacity * USABLE * sets) / milliamps;

/** Circuits tried in every combination; with more of them the largest go first. */
const MAX_SUBSETS = 12;

/** The fewest circuits whose turning off wins so much, and of those the least; null: all do not. */
function turnedOff(fed: readonly CircuitReport[], over: number): CircuitReport[] | null {
  const may = fed
    .filter(({ circuit, milliamps }) => !circuit.essential && milliamps > 0)
    .toSorted((a, b) => b.milliamps - a.milliamps);
  const total = (some: readonly CircuitReport[]) => some.reduce((sum, { milliamps }) => sum + milliamps, 0);
  if (total(may) < over) return null;
  if (may.length > MAX_SUBSETS) {
    const count = may.findIndex((_, i) => total(may.slice(0, i + 1)) >= over);
    return may.slice(0, count + 1);
  }
  let best: CircuitReport[] | null = null;
  for (let mask = 1; mask < 1 << may.length; mask++) {
    const some = may.filter((_, i) => mask & (1 << i));
    if (total(some) < over) continue;
    if (!best || some.length < best.length || (some.length === best.length && total(some) < total(best)))
      best = some;
  }
  return best;
}
