import { formatPlates } from '../grid/index.ts';
import { WIRES, listOf, type Entity, type Scene } from '../document/index.ts';
import { compileRelief } from '../terrain/index.ts';
import { cablesOf, circuitReports, supplyReports } from '../power/index.ts';
import { sceneAtShow } from '../transport/index.ts';
import { frameOf, pointToRoom } from '../venue/index.ts';
import { patch, namedThing, type Fix, type FixesOf } from './fix.ts';
import { suitsVolts } from './power.ts';

// Remedies of light and power: proposed here, tried like all others.

const thicker: FixesOf = (scene, finding) => {
  const circuit = namedThing(scene, finding, 'circuit');
  return circuit
    ? WIRES.filter((wire) => wire > circuit.wire).map((wire) => ({
        words: `Take 2 × ${wire} mm² for “${circuit.name}”`,
        changes: [patch('circuit', circuit, { wire })],
      }))
    : [];
};

/** Lengths of extension leads that are common, m (from memory). */
const EXTENSIONS = [3, 5, 10];

/** Circuits whose supply suits a device. */
const circuitsFor = (scene: Scene, device: Entity<'device'>) =>
  listOf(scene, 'circuit').filter(({ supply }) => {
    const feeds = supply === null ? undefined : scene.supply[supply];
    return feeds !== undefined && suitsVolts(device, feeds);
  });

const onAnotherCircuit = (scene: Scene, device: Entity<'device'>): Fix[] =>
  circuitsFor(scene, device).map((circuit) => ({
    words: `Hang “${device.name}” on circuit “${circuit.name}”`,
    changes: [patch('device', device, { circuit: circuit.id })],
  }));

export const POWER_FIXES: Readonly<Record<string, FixesOf>> = {
  'light-buried': (scene, finding) => {
    const device = namedThing(scene, finding, 'device');
    const clear = finding.numbers.clear;
    if (!device || clear === undefined) return [];
    return [
      {
        words:
          clear > 0
            ? `Set “${device.name}” ${formatPlates(clear)} into the ground`
            : `Set “${device.name}” on the ground`,
        changes: [patch('device', device, { below: clear })],
      },
    ];
  },
  'supply-over': (scene, finding) => {
    const supply = namedThing(scene, finding, 'supply');
    if (!supply) return [];
    const reports = supplyReports(scene, circuitReports(scene, compileRelief(scene)));
    const own = reports.find((one) => one.supply.id === supply.id);
    if (!own || supply.milliamps === null) return [];
    const over = own.milliamps - supply.milliamps;
    const others = reports.filter((one) => one !== own && suitsVolts(supply, one.supply));
    return own.circuits
      .filter(({ milliamps }) => milliamps >= over)
      .toSorted((a, b) => a.milliamps - b.milliamps)
      .flatMap(({ circuit, milliamps }) =>
        others
          .filter((one) => one.supply.milliamps === null || one.milliamps + milliamps <= one.supply.milliamps)
          .map((one) => ({
            words: `Hang circuit “${circuit.name}” on “${one.supply.name}”`,
            changes: [patch('circuit', circuit, { supply: one.supply.id })],
          })),
      );
  },
  'device-volts': (scene, finding) => {
    const device = namedThing(scene, finding, 'device');
    return device ? onAnotherCircuit(scene, device) : [];
  },
  'device-dark': (scene, finding) => {
    const device = namedThing(scene, finding, 'device');
    return device ? onAnotherCircuit(scene, device) : [];
  },
  'cable-drop': thicker,
  'cable-hot': thicker,
  'cable-parting': (scene, finding) => {
    const circuit = namedThing(scene, finding, 'circuit');
    const cable = cablesOf(scene).find((one) => one.circuit.id === circuit?.id);
    if (!circuit || !cable) return [];
    const fresh = cable.partings.map(({ x, y }) => ({ x, y }));
    return [
      {
        words: `Plan ${fresh.length} ${fresh.length === 1 ? 'connector' : 'connectors'} on “${circuit.name}”`,
        changes: [patch('circuit', circuit, { connectors: [...circuit.connectors, ...fresh] })],
      },
    ];
  },
  'mains-outlet': (scene, finding) => {
    const there = sceneAtShow(scene);
    const supply = namedThing(scene, finding, 'supply');
    if (!supply) return [];
    const at = pointToRoom(frameOf(there), supply);
    const [{ place }] = listOf(there, 'display');
    return EXTENSIONS.map((metres) => ({
      words: `Bring an extension lead of ${metres} m for “${supply.name}”`,
      changes: [
        {
          op: 'add' as const,
          kind: 'extension' as const,
          id: `extension-${supply.id}`.slice(0, 40),
          data: {
            name: `Extension lead to ${supply.name}`.slice(0, 80),
            ...{ place, leadMm: metres * 1000 },
            ...{ x: Math.round(at.x), y: Math.round(at.y) },
          },
        },
      ],
    }));
  },
  'battery-short': (scene, finding) => {
    const supply = namedThing(scene, finding, 'supply');
    const { hours, needed } = finding.numbers;
    if (!supply || !(hours > 0)) return [];
    const sets = Math.ceil((needed / hours) * supply.sets - 1e-9);
    return [
      {
        words: `Bring ${sets} charged batteries for “${supply.name}”`,
        changes: [patch('supply', supply, { sets })],
      },
    ];
  },
};
