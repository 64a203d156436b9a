import { colourName } from '../catalogue/index.ts';
import { MM, countOf, formatMm, formatPlates } from '../grid/index.ts';
import { groundName, listOf, sectionAt, type Entity } from '../document/index.ts';
import { clearDepth, dressesOf, groundNamed } from '../masonry/index.ts';
import { OUTSIDE, indexAt, namedFoot } from '../terrain/index.ts';
import { AMPS_PER_MM2, USABLE, type CircuitReport } from '../power/index.ts';
import type { FindingDraft, Rule } from './finding.ts';

// Light and power: what is fed too much, too little or not at all. Of the mains only leads and outlets are judged.

/** How far a supply may be from what a device is made for (common practice, no source). */
const VOLTS_WITHIN = 0.1;
const CAUTION =
  'Only extra-low voltage is planned here; mains is for qualified people and the rules of the place.';

const amps = (milliamps: number) => `${Math.round(milliamps).toLocaleString('en')} mA`;
const figure = (value: number) => value.toLocaleString('en', { maximumFractionDigits: 2 });

/** Whether a device runs on a supply of so many volts. */
export const suitsVolts = (device: { volts: number }, supply: { volts: number }): boolean =>
  Math.abs(supply.volts - device.volts) <= VOLTS_WITHIN * device.volts + 1e-9;

const supplyOver: Rule = {
  id: 'supply-over',
  title: 'A power supply is over its rating',
  basis: `The current of everything on its circuits, all on at once, against its rating (USB ports give 500 or 900 mA: USB 2.0 and 3). Motors take more while they start. ${CAUTION}`,
  page: 'transport',
  severity: 'error',
  check: ({ power }) =>
    power().supplies.flatMap(({ supply, milliamps, offFirst, isStuck }): FindingDraft[] => {
      if (supply.milliamps === null || milliamps <= supply.milliamps) return [];
      const names = offFirst.map(({ circuit }) => `“${circuit.name}”`).join(' and ');
      return [
        {
          sentence: `“${supply.name}” is to give ${amps(milliamps)}; it is rated for ${amps(supply.milliamps)}.`,
          remedy: isStuck
            ? 'Divide what stays on among supplies, or take a stronger one.'
            : `Hang a circuit on another supply, take a stronger one, or turn off ${names} first.`,
          place: null,
          things: [{ kind: 'supply', id: supply.id }],
          numbers: { milliamps, rating: supply.milliamps },
        },
      ];
    }),
};

const lightBuried: Rule = {
  id: 'light-buried',
  title: 'A light is set into ground that lets none through',
  basis:
    'How deep a light is set into ground against how deep its recipe lets light through: its cover, a plate, and the layers of a custom ground under it, as long as all their colours are clear or glow.',
  page: 'transport',
  severity: 'warning',
  check({ scene, relief }) {
    const dresses = dressesOf(scene);
    return listOf(scene, 'device').flatMap((device): FindingDraft[] => {
      const i = indexAt(relief, device.x, device.y);
      if (device.use !== 'light' || device.below === 0 || i < 0 || relief.ground[i] === OUTSIDE) return [];
      // What lies over a light in a deck, a building or a cavity is not known.
      if (namedFoot(scene, relief, device, device) !== null || relief.surface[i] !== relief.height[i])
        return [];
      const ground = groundNamed(relief.ground[i]);
      const { plates, stops } = clearDepth(dresses.of(ground, sectionAt(scene, device), relief.height[i]));
      if (device.below <= plates) return [];
      return [
        {
          sentence: `“${device.name}” is set ${formatPlates(device.below)} into ${ground === 'bare' ? 'bare ground' : groundName(scene, ground)}, which ${plates > 0 ? `lets light through ${formatPlates(plates)}; under that it is ${colourName(stops)}` : `lets none through: it is ${colourName(stops)}`}.`,
          remedy: 'Set it less deep, or plan clear colours over it.',
          place: { x: device.x, y: device.y },
          things: [{ kind: 'device', id: device.id }],
          numbers: { below: device.below, clear: plates },
        },
      ];
    });
  },
};

const deviceVolts: Rule = {
  id: 'device-volts',
  title: 'A light or motor gets a voltage it is not made for',
  basis: `What its circuit’s supply gives against what it is made for, within ${VOLTS_WITHIN * 100} % (common practice, no source): too much burns it, with too little it stays dark.`,
  page: 'transport',
  severity: 'error',
  check: ({ power }) =>
    power().circuits.flatMap(({ supply, devices }) =>
      devices.flatMap(({ device }): FindingDraft[] =>
        !supply || suitsVolts(device, supply)
          ? []
          : [
              {
                sentence: `“${device.name}” is made for ${figure(device.volts)} V; “${supply.name}” gives ${figure(supply.volts)} V.`,
                remedy:
                  'Hang it on a circuit of its voltage, or put a driver before it and type what that takes.',
                place: { x: device.x, y: device.y },
                things: [
                  { kind: 'device', id: device.id },
                  { kind: 'supply', id: supply.id },
                ],
                numbers: { volts: device.volts, supply: supply.volts },
              },
            ],
      ),
    ),
};

const cableDrop: Rule = {
  id: 'cable-drop',
  title: 'The voltage falls too far on a cable',
  basis:
    'Ohm’s law on every wire, there and back, with all devices on at their current: copper of 1/58 Ω mm²/m (IEC 60028), length of the route on the plan with slack and each device’s own lead, against the circuit’s limit.',
  page: 'transport',
  severity: 'warning',
  check: ({ power }) =>
    power().circuits.flatMap(({ circuit, supply, worst }): FindingDraft[] => {
      if (!supply || !worst) return [];
      const percent = (100 * worst.drop) / supply.volts;
      if (percent <= circuit.maxDrop) return [];
      return [
        {
          sentence: `On circuit “${circuit.name}” the voltage falls by ${figure(worst.drop)} V of ${figure(supply.volts)} V (${figure(percent)} %) to “${worst.device.name}”; at most ${circuit.maxDrop} % is allowed.`,
          remedy: 'Take thicker wire, a shorter way, a supply nearer by, or part the circuit in two.',
          place: null,
          things: [
            { kind: 'circuit', id: circuit.id },
            { kind: 'device', id: worst.device.id },
          ],
          numbers: { percent, limit: circuit.maxDrop },
        },
      ];
    }),
};

const hottest = ({ wires }: CircuitReport) =>
  wires.reduce((most, { milliamps }) => Math.max(most, milliamps), 0);

const cableHot: Rule = {
  id: 'cable-hot',
  title: 'A cable is too thin for its current',
  basis: `The largest current in a wire against ${AMPS_PER_MM2} A for each mm² of copper (a cautious figure of ours, no source): thin wires warm up, under a display without air above all. ${CAUTION}`,
  page: 'transport',
  severity: 'error',
  check: ({ power }) =>
    power().circuits.flatMap((report): FindingDraft[] => {
      const { circuit } = report;
      const [most, may] = [hottest(report), circuit.wire * AMPS_PER_MM2 * 1000];
      if (most <= may + 1e-9) return [];
      return [
        {
          sentence: `A wire of circuit “${circuit.name}” carries ${amps(most)}; 2 × ${circuit.wire} mm² is taken for ${amps(may)} at most.`,
          remedy: 'Take thicker wire, or part the circuit in two.',
          place: null,
          things: [{ kind: 'circuit', id: circuit.id }],
          numbers: { milliamps: most, limit: may },
        },
      ];
    }),
};

const cableParting: Rule = {
  id: 'cable-parting',
  title: 'A cable crosses a seam without a connector',
  basis:
    'The route of each circuit along the grid, over as few seams as possible, by its connectors where they lie on it: where it goes from one module to another, or off the display, it must come apart when the module is carried.',
  page: 'transport',
  severity: 'warning',
  check: ({ scene, power }) =>
    power().circuits.flatMap(({ circuit, partings }): FindingDraft[] => {
      if (partings.length === 0) return [];
      const nameOf = (id: string | null) => (id === null ? 'the table' : (scene.module[id]?.name ?? id));
      const [{ x, y, from, to }] = partings;
      const more = partings.length === 1 ? '' : `, the first`;
      return [
        {
          sentence: `Circuit “${circuit.name}” crosses ${countOf(partings.length, 'seam')} without a connector${more} between ${nameOf(from)} and ${nameOf(to)} at ${figure(x)}, ${figure(y)}; 0 may be.`,
          remedy: 'Plan a connector there: the module cannot be carried away else.',
          place: { x, y },
          things: [{ kind: 'circuit', id: circuit.id }],
          numbers: { seams: partings.length },
        },
      ];
    }),
};

const mainsOutlet: Rule = {
  id: 'mains-outlet',
  title: 'No outlet lies within an adapter’s lead',
  basis: `Each adapter, USB supply and extension lead into an outlet of the place of the show that is free, straight over the floor and down from the table; as many as possible get one. No extension goes into another. ${CAUTION}`,
  page: 'transport',
  severity: 'warning',
  check: ({ power }) =>
    power().leads.flatMap(({ kind, id, name, leadMm, needsMm, outlet }): FindingDraft[] => {
      if (outlet) return [];
      const why =
        needsMm === null
          ? 'the place of the show has none'
          : needsMm > leadMm
            ? `the nearest takes ${formatMm(Math.ceil(needsMm) * MM)}`
            : 'those within it are taken';
      return [
        {
          sentence: `The lead of “${name}” is ${formatMm(leadMm * MM)}; no outlet is free within it: ${why}.`,
          remedy: 'Bring an extension lead, lay the supply nearer to a socket, or ask the place for one.',
          place: null,
          things: [{ kind, id }],
          numbers: { lead: leadMm, needs: Math.round(needsMm ?? 0) },
        },
      ];
    }),
};

const mainsCrossing: Rule = {
  id: 'mains-crossing',
  title: 'A mains lead crosses where visitors stand',
  basis: `The straight way of each lead to its outlet against the barriers of the place and the line along which visitors stand (Sight). A lead on the floor there trips people. ${CAUTION}`,
  page: 'transport',
  severity: 'warning',
  check: ({ power }) =>
    power().leads.flatMap(({ kind, id, name, outlet, isCrossing, needsMm }): FindingDraft[] =>
      outlet && isCrossing
        ? [
            {
              sentence: `The straight way from “${name}” to “${outlet.name}”, ${formatMm(Math.round(needsMm ?? 0) * MM)}, crosses where visitors stand; 0 leads may.`,
              remedy:
                'Take another outlet or another way, behind the display, or cover it as the place demands.',
              place: null,
              things: [{ kind, id }],
              numbers: { crossings: 1 },
            },
          ]
        : [],
    ),
};

const batteryShort: Rule = {
  id: 'battery-short',
  title: 'A battery is empty before the show closes',
  basis: `What all charged batteries hold, of which ${USABLE * 100} % is counted on (a guess of ours), by the current of their circuits, against the hours from opening to closing.`,
  page: 'transport',
  severity: 'warning',
  check({ power }) {
    const { supplies, showHours } = power();
    if (showHours === null) return [];
    return supplies.flatMap(({ supply, hours, milliamps }): FindingDraft[] =>
      hours === null || hours >= showHours
        ? []
        : [
            {
              sentence: `“${supply.name}” lasts ${figure(hours)} h at ${amps(milliamps)} with ${countOf(supply.sets, 'charge')}; the show is open for ${figure(showHours)} h.`,
              remedy: 'Bring more charged ones, turn lights off between, or take an adapter.',
              place: null,
              things: [{ kind: 'supply', id: supply.id }],
              numbers: { hours, needed: showHours, sets: supply.sets },
            },
          ],
    );
  },
};

const deviceDark: Rule = {
  id: 'device-dark',
  title: 'Nothing feeds a light or motor',
  basis: 'Devices on no circuit, or on one without a power supply.',
  page: 'transport',
  severity: 'note',
  check({ power }) {
    const { dark } = power();
    if (dark.length === 0) return [];
    const first: Entity<'device'> = dark[0];
    return [
      {
        sentence: `Of lights and motors ${dark.length} ${dark.length === 1 ? 'hangs' : 'hang'} on no power supply, the first “${first.name}”; 0 should.`,
        remedy: 'Hang each on a circuit, and the circuit on a supply.',
        place: null,
        things: dark.slice(0, 5).map(({ id }) => ({ kind: 'device', id })),
        numbers: { dark: dark.length },
      },
    ];
  },
};

export const POWER_RULES: readonly Rule[] = [
  supplyOver,
  lightBuried,
  deviceVolts,
  cableDrop,
  cableHot,
  cableParting,
  mainsOutlet,
  mainsCrossing,
  batteryShort,
  deviceDark,
];
