// For each rule of light and power: what spoils the quiet display of the checks, which has no place of its own.

const add = (more: object) => (f: object) => Object.assign(f, more);
const supply = (more: object = {}) => ({
  id: 's',
  name: 'Port',
  x: 0,
  y: 10,
  volts: 5,
  milliamps: 500,
  ...more,
});
const circuit = (more: object = {}) => ({ id: 'c', name: 'Street', supply: 's', slack: 0, ...more });
const light = (more: object = {}) => ({ id: 'l', name: 'Lantern', x: 10, y: 10, circuit: 'c', ...more });
const power = (on: { supply?: object; circuit?: object; light?: object }, more: object = {}) =>
  add({
    supplies: [supply(on.supply)],
    circuits: [circuit(on.circuit)],
    devices: [light(on.light)],
    sockets: [{ id: 'w', name: 'Wall socket', x: 0, y: -300 }],
    ...more,
  });

export const powerCases: [string, (f: object) => unknown, string[]][] = [
  [
    'supply-over',
    power({ light: { count: 30, milliamps: 20 } }),
    ['“Port” is to give 600 mA; it is rated for 500 mA'],
  ],
  // The pad there is grass: no light comes through moss.
  [
    'light-buried',
    power({ light: { below: 2 } }),
    ['“Lantern” is set 2p into', 'which lets none through: it is Moss'],
  ],
  ['device-volts', power({ supply: { volts: 9 } }), ['“Lantern” is made for 5 V; “Port” gives 9 V']],
  // 90 studs, 720 mm: 0.4 A × 2 × 0.72 m ÷ 58 ÷ 0.05 mm² = 0.199 V of 5.
  [
    'cable-drop',
    power({ circuit: { wire: 0.05, maxDrop: 3 }, light: { x: 90, milliamps: 400, leadMm: 1 } }),
    ['falls by 0.2 V of 5 V (3.98 %) to “Lantern”; at most 3 % is allowed'],
  ],
  [
    'cable-hot',
    power({ circuit: { wire: 0.05 }, light: { milliamps: 400 } }),
    ['carries 400 mA; 2 × 0.05 mm² is taken for 250 mA at most'],
  ],
  [
    'cable-parting',
    power({ light: { x: 60 } }),
    ['“Street” crosses 1 seam without a connector between A1 and A2 at 48, 10'],
  ],
  // Down from the table 740 mm, and 380 mm over the floor.
  [
    'mains-outlet',
    power({ supply: { leadMm: 800 } }),
    ['The lead of “Port” is 800 mm', 'no outlet is free within it: the nearest takes 1,120 mm'],
  ],
  [
    'mains-crossing',
    power({}, { barriers: [{ id: 'rope', name: 'Rope', x1: -500, y1: -100, x2: 900, y2: -100 }] }),
    ['from “Port” to “Wall socket”, 1,120 mm, crosses where visitors stand; 0 leads may'],
  ],
  // 1,000 mAh, of which 80 % counts, at 400 mA: 2 h.
  [
    'battery-short',
    (f) => {
      power({ supply: { type: 'battery', capacity: 1000 }, light: { milliamps: 400 } })(f);
      if ('display' in f) Object.assign(f.display ?? {}, { opensAt: '10:00', closesAt: '16:30' });
    },
    ['“Port” lasts 2 h at 400 mA with 1 charge; the show is open for 6.5 h'],
  ],
  [
    'device-dark',
    power({ light: { circuit: null } }),
    ['Of lights and motors 1 hangs on no power supply, the first “Lantern”'],
  ],
];
