import fc from 'fast-check';
import { runs } from '../../test/runs.ts';
import { sceneFrom } from '../document/index.ts';
import { compileRelief } from '../terrain/index.ts';
import { evaluateRules, tryFixes } from '../findings/index.ts';
import {
  cablesOf,
  circuitReports,
  lampsOf,
  mainsLeads,
  powerOf,
  powerParts,
  supplyReports,
  wiringOf,
  type Power,
  type WireGround,
  type WireNode,
} from './index.ts';

type Given = Parameters<typeof sceneFrom>[0];
const lights = (spots: readonly [number, number][], more: object = {}) =>
  spots.map(([x, y], i) => ({ id: `l${i}`, name: `Light ${i}`, x, y, circuit: 'c', ...more }));

/** Two modules of 48 × 48 studs side by side, a supply at the west end, no ground. */
const given = (more: object = {}): Given => ({
  display: { name: 'Quay', kind: 'diorama', place: 'hall', opensAt: '10:00', closesAt: '16:30' },
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0 }],
  modules: ['a', 'b'].map((id, i) => ({
    ...{ id, name: id.toUpperCase(), x: 48 * i, y: 0, w: 48, d: 48 },
    bases: [{ x: 48 * i, y: 0, w: 48, d: 48 }],
  })),
  supplies: [{ id: 's', name: 'Adapter', x: 0, y: 10, volts: 5, milliamps: 1000 }],
  circuits: [{ id: 'c', name: 'Street', supply: 's', wire: 0.14, slack: 0 }],
  ...more,
});
const powerIn = (file: Given): Power => {
  const scene = sceneFrom(file);
  return powerOf(scene, compileRelief(scene));
};

describe('one cable', () => {
  it('carries in each wire what is beyond it, and loses I·2ρL/A on the way', () => {
    // Three lights of 20 mA in a row, each 10 studs (80 mm) further: 60, 40 and 20 mA. Copper 1/58 Ω mm²/m (IEC 60028).
    const { circuits } = powerIn(
      given({
        devices: lights(
          [
            [10, 10],
            [20, 10],
            [30, 10],
          ],
          { milliamps: 20 },
        ),
      }),
    );
    const [{ wires, devices, milliamps, cableMm, worst, watts }] = circuits;
    expect(wires.map((wire) => wire.milliamps)).toEqual([60, 40, 20]);
    expect([milliamps, cableMm, watts]).toEqual([60, 240, 0.3]);
    const ohms = (2 * 0.08) / 58 / 0.14;
    const drops = [0.06 * ohms, 0.1 * ohms, 0.12 * ohms];
    devices.forEach(({ drop }, i) => expect(drop).toBeCloseTo(drops[i], 9));
    expect(worst?.device.id).toBe('l2');
  });

  it('is longer by its slack, from below the table, and by what a light stands over it', () => {
    // 40 studs (320 mm), from 700 mm below, 25 % longer; the light 10 plates (32 mm) up.
    const [{ cableMm, devices }] = powerIn(
      given({
        supplies: [{ id: 's', name: 'Adapter', x: 0, y: 10, belowMm: 700 }],
        circuits: [{ id: 'c', name: 'Street', supply: 's', slack: 25 }],
        devices: lights([[40, 10]], { height: 10 }),
      }),
    ).circuits;
    expect(cableMm).toBeCloseTo((320 + 700 + 32) * 1.25, 6);
    expect(devices[0].leadMm).toBeCloseTo(32, 6);
    const measured = powerIn(given({ devices: lights([[40, 10]], { height: 10, leadMm: 500 }) })).circuits[0];
    expect(measured.cableMm).toBe(320 + 500);
  });

  it('branches where that is shorter', () => {
    // A post at (20, 10), one light 8 north and one 8 south of it: 20 + 8 + 8 studs, not 20 + 8 + 16.
    const [{ wires, cableMm }] = powerIn(
      given({
        devices: lights([
          [20, 10],
          [20, 2],
          [20, 18],
        ]),
      }),
    ).circuits;
    expect(cableMm).toBe(36 * 8);
    expect(wires.map(({ milliamps }) => milliamps).sort((a, b) => a - b)).toEqual([20, 20, 60]);
  });

  it('comes apart at a seam: once, and by its connector where one lies on the side', () => {
    const spots: [number, number][] = [
      [60, 10],
      [70, 10],
      [60, 30],
    ];
    const [bare] = powerIn(given({ devices: lights(spots) })).circuits;
    expect(bare.partings).toEqual([{ x: 48, y: 10, from: 'a', to: 'b' }]);
    const circuits = (connectors: object[]) => [
      { id: 'c', name: 'Street', supply: 's', slack: 0, connectors },
    ];
    const by = (connectors: object[]) =>
      powerIn(given({ devices: lights(spots), circuits: circuits(connectors) })).circuits[0];
    const joined = by([{ x: 48, y: 20 }]);
    expect([joined.partings, joined.used]).toEqual([[], [{ x: 48, y: 20 }]]);
    // On the plan it lies as it is counted.
    const scene = sceneFrom(given({ devices: lights(spots), circuits: circuits([{ x: 48, y: 20 }]) }));
    expect(cablesOf(scene)).toMatchObject([
      { lines: joined.wires.map(({ points }) => points), connectors: joined.used },
    ]);
    expect(cablesOf(sceneFrom(given({ devices: [], circuits: circuits([]) })))).toEqual([]);
    // Round by row 20: west of the seam 48 + 10, east of it 12 + 10 and 10 to two lights, 20 from the first to the third.
    expect(joined.cableMm).toBe((48 + 10 + (12 + 10) + 10 + 20) * 8);
    // A connector inside a module parts nothing.
    const inside = by([{ x: 40, y: 10 }]);
    expect(inside.partings).toHaveLength(1);
  });

  it('asks for a connector at the edge when the supply lies beside the display', () => {
    const [{ partings }] = powerIn(
      given({ supplies: [{ id: 's', name: 'Adapter', x: -6, y: 10 }], devices: lights([[10, 10]]) }),
    ).circuits;
    expect(partings).toEqual([{ x: 0, y: 10, from: null, to: 'a' }]);
  });
});

/** Owners and crossings stud by stud, and the cheapest tree by trying all of them (Prüfer 1918). */
function slowly(ground: readonly WireGround[]) {
  const ownerAt = (x: number, y: number) =>
    ground.find(({ rects }) => rects.some((r) => x >= r.x && y >= r.y && x < r.x + r.w && y < r.y + r.d))
      ?.id ?? null;
  const alongWay = (a: WireNode, b: WireNode, corner: { x: number; y: number }) => {
    const owners: (string | null)[] = a.isConnector ? [] : [ownerAt(a.x, a.y)];
    for (const [p, q] of [
      [a, corner],
      [corner, b],
    ]) {
      const steps = 4 * (Math.abs(p.x - q.x) + Math.abs(p.y - q.y));
      for (let i = 0; i < steps; i++) {
        const t = (i + 0.5) / steps;
        owners.push(ownerAt(p.x + t * (q.x - p.x), p.y + t * (q.y - p.y)));
      }
    }
    if (!b.isConnector) owners.push(ownerAt(b.x, b.y));
    return owners.filter((owner, i) => i > 0 && owner !== owners[i - 1]).length;
  };
  const cost = (a: WireNode, b: WireNode) =>
    Math.abs(a.x - b.x) +
    Math.abs(a.y - b.y) +
    2000 * Math.min(alongWay(a, b, { x: b.x, y: a.y }), alongWay(a, b, { x: a.x, y: b.y }));
  const trees = (n: number): [number, number][][] => {
    if (n < 2) return [[]];
    if (n === 2) return [[[0, 1]]];
    return Array.from({ length: n ** (n - 2) }, (_, code) => {
      const prufer = Array.from({ length: n - 2 }, (_one, i) => Math.trunc(code / n ** i) % n);
      const degree = Array.from({ length: n }, (_one, i) => 1 + prufer.filter((p) => p === i).length);
      const edges: [number, number][] = prufer.map((p) => {
        const leaf = degree.indexOf(1);
        degree[leaf]--;
        degree[p]--;
        return [leaf, p];
      });
      const [u, v] = degree.flatMap((left, i) => (left === 1 ? [i] : []));
      return [...edges, [u, v]];
    });
  };
  const cheapest = (some: readonly WireNode[]) =>
    Math.min(
      ...trees(some.length).map((edges) => edges.reduce((sum, [i, j]) => sum + cost(some[i], some[j]), 0)),
    );
  return { cost, cheapest };
}

describe('wiring of random modules', () => {
  const half = (most: number) => fc.integer({ min: 0, max: 2 * most }).map((value) => value / 2);
  const node = (isConnector: boolean) =>
    fc.record({ x: half(24), y: half(12) }).map((at): WireNode => ({ ...at, isConnector }));
  it('is the cheapest tree over every choice of connectors', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 11 }), { minLength: 1, maxLength: 3 }),
        fc.array(node(false), { minLength: 2, maxLength: 4 }),
        fc.array(node(true), { maxLength: 2 }),
        (seams, ends, connectors) => {
          const stops = [0, ...new Set(seams.map((at) => at * 2).sort((a, b) => a - b)), 24];
          const ground = stops.slice(1).map((to, i): WireGround => ({
            id: `m${i}`,
            rects: [{ x: stops[i], y: 0, w: to - stops[i], d: 10 }],
          }));
          const nodes = [...ends, ...connectors];
          const wires = wiringOf(ground, nodes);
          const { cost, cheapest } = slowly(ground);
          const on = new Set([0]);
          for (const { from, to, studs, partings } of wires) {
            expect(on.has(from)).toBe(true);
            expect(on.has(to)).toBe(false);
            on.add(to);
            expect(studs + 2000 * partings.length).toBe(cost(nodes[from], nodes[to]));
          }
          ends.forEach((_, i) => expect(on.has(i)).toBe(true));
          const total = wires.reduce((sum, { studs, partings }) => sum + studs + 2000 * partings.length, 0);
          const choices = connectors.reduce<WireNode[][]>(
            (known, one) => [...known, ...known.map((some) => [...some, one])],
            [[]],
          );
          expect(total).toBe(Math.min(...choices.map((some) => cheapest([...ends, ...some]))));
        },
      ),
      { numRuns: runs(120) },
    );
  });
});

describe('supplies', () => {
  const circuits = (currents: readonly number[], more: object = {}) => ({
    circuits: currents.map((_, i) => ({ id: `c${i}`, name: `C${i}`, supply: 's', ...more })),
    devices: currents.map((milliamps, i) => ({
      ...{ id: `l${i}`, name: `Light ${i}`, x: 4 * i, y: 4, circuit: `c${i}`, milliamps },
    })),
  });
  const reportOf = (file: Given) => {
    const scene = sceneFrom(file);
    return supplyReports(scene, circuitReports(scene, compileRelief(scene)))[0];
  };

  it('give the sum of their circuits and tell what to turn off first', () => {
    // 500 mA of a USB 2.0 port: 200 + 180 + 150 + 90 are 120 over; 150 is the least single one that does.
    const file = given({
      supplies: [{ id: 's', name: 'Port', x: 0, y: 0, type: 'usb', milliamps: 500 }],
      ...circuits([200, 180, 150, 90]),
    });
    const report = reportOf(file);
    expect([report.milliamps, report.share]).toEqual([620, 1.24]);
    expect(report.offFirst.map(({ circuit }) => circuit.name)).toEqual(['C2']);
  });

  it('keep on what must stay on', () => {
    const on = reportOf(given({ ...circuits([900, 300], { essential: true }) }));
    expect([on.isStuck, on.offFirst]).toEqual([true, []]);
  });

  it('turn off the fewest circuits, then the least of them: against every choice', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 400 }), { minLength: 1, maxLength: 7 }),
        fc.integer({ min: 1, max: 1500 }),
        (currents, milliamps) => {
          const report = reportOf(
            given({ supplies: [{ id: 's', name: 'S', x: 0, y: 0, milliamps }], ...circuits(currents) }),
          );
          const total = currents.reduce((sum, one) => sum + one, 0);
          const off = report.offFirst.reduce((sum, one) => sum + one.milliamps, 0);
          expect(total - off).toBeLessThanOrEqual(milliamps);
          const choices = currents.reduce<[number, number][]>(
            (known, one) => [
              ...known,
              ...known.map(([count, sum]): [number, number] => [count + 1, sum + one]),
            ],
            [[0, 0]],
          );
          const [least] = choices
            .filter(([, sum]) => total - sum <= milliamps)
            .sort((a, b) => a[0] - b[0] || a[1] - b[1]);
          expect([report.offFirst.length, off]).toEqual(least);
        },
      ),
      { numRuns: runs(60) },
    );
  });

  it('last by what their batteries hold', () => {
    // 3 charges of 2,000 mAh, of which 80 % counts, at 300 mA: 16 h. The show is open for 6.5 h.
    const file = given({
      supplies: [
        { id: 's', name: 'Cell', x: 0, y: 0, type: 'battery', capacity: 2000, sets: 3, milliamps: null },
      ],
      ...circuits([100, 200]),
    });
    expect(reportOf(file).hours).toBeCloseTo(16, 9);
    expect(powerIn(file).showHours).toBe(6.5);
    expect(powerIn(file).mainsWatts).toBe(0);
  });
});

describe('leads to outlets', () => {
  const leadsOf = (more: object) => mainsLeads(sceneFrom(given({ circuits: [], ...more })));
  const supply = (id: string, x: number, leadMm: number) => ({ id, name: id, x, y: 0, leadMm });
  const socket = (id: string, x: number, outlets = 1) => ({ id, name: id, x, y: 0, outlets, place: 'hall' });

  it('reach over the floor and down from the table', () => {
    const tables = [{ id: 't', name: 'T', x: 0, y: 0, w: 800, d: 400, height: 700, place: 'hall' }];
    const by = (leadMm: number) =>
      leadsOf({
        tables,
        sockets: [socket('w', -600)],
        supplies: [{ ...supply('s', 0, leadMm), belowMm: 100 }],
      })[0];
    // 600 mm over the floor and 700 − 100 mm down.
    expect([by(1200).outlet?.id, by(1200).needsMm]).toEqual(['w', 1200]);
    expect([by(1199).outlet, by(1199).needsMm]).toEqual([null, 1200]);
  });

  it('plug in as many as go, though the nearest outlet is wanted by two', () => {
    // a reaches both sockets and is nearer to w; b reaches only w.
    const found = leadsOf({
      sockets: [socket('w', 0), socket('e', 1000)],
      supplies: [supply('a', 25, 1000), supply('b', 0, 100)],
    });
    expect(found.map(({ id, outlet }) => [id, outlet?.id])).toEqual([
      ['a', 'e'],
      ['b', 'w'],
    ]);
  });

  it('lie an extension only where it helps, never one into another', () => {
    const extension = (id: string, x: number) => ({
      id,
      name: id,
      x,
      y: 0,
      leadMm: 1500,
      outlets: 2,
      place: 'hall',
    });
    const near = {
      sockets: [socket('w', 0)],
      supplies: [supply('a', 25, 300)],
      extensions: [extension('one', 1000)],
    };
    expect(leadsOf(near).map(({ id }) => id)).toEqual(['a']);
    const far = { ...near, supplies: [supply('a', 125, 300), supply('b', 125, 300)] };
    expect(leadsOf(far).map(({ id, outlet }) => [id, outlet?.id])).toEqual([
      ['a', 'one'],
      ['b', 'one'],
      ['one', 'w'],
    ]);
    const chained = {
      ...near,
      supplies: [supply('a', 300, 300)],
      extensions: [extension('one', 1000), extension('two', 2400)],
    };
    expect(leadsOf(chained).map(({ id, outlet }) => [id, outlet])).toEqual([['a', null]]);
  });

  it('say when the straight way crosses where visitors stand', () => {
    const barriers = [{ id: 'rope', name: 'Rope', x1: -500, y1: 600, x2: 1500, y2: 600, place: 'hall' }];
    const by = (y: number) =>
      leadsOf({ barriers, sockets: [{ ...socket('w', 0), y }], supplies: [supply('s', 0, 3000)] })[0]
        .isCrossing;
    expect([by(900), by(500)]).toEqual([true, false]);
    // No barrier: visitors stand 600 mm south of the 384 mm deep display; a socket beyond them, and one before them.
    const viewed = (side: string, socketAt: object) =>
      leadsOf({
        display: { name: 'Quay', kind: 'diorama', place: 'hall', viewedSides: [side] },
        sockets: [{ ...socket('w', 100), ...socketAt }],
        supplies: [{ ...supply('s', 40, 9000), y: 20 }],
      })[0].isCrossing;
    expect([viewed('s', { y: 990 }), viewed('s', { y: 980 })]).toEqual([true, false]);
    expect([viewed('n', { y: -610 }), viewed('n', { y: -590 })]).toEqual([true, false]);
    expect([viewed('w', { x: -610 }), viewed('e', { x: 1370 }), viewed('e', { x: 1360 })]).toEqual([
      true,
      true,
      false,
    ]);
    // On the rope’s own line and beside it.
    const beside = [{ id: 'rope', name: 'Rope', x1: 2000, y1: 0, x2: 3000, y2: 0, place: 'hall' }];
    expect(
      leadsOf({ barriers: beside, sockets: [socket('w', 500)], supplies: [supply('s', 0, 3000)] })[0]
        .isCrossing,
    ).toBe(false);
  });

  it('are as many as a slow search finds', () => {
    const spot = fc.integer({ min: 0, max: 12 }).map((at) => at * 100);
    fc.assert(
      fc.property(
        fc.array(fc.record({ x: spot, outlets: fc.integer({ min: 1, max: 2 }) }), { maxLength: 3 }),
        fc.array(fc.record({ x: spot, lead: spot }), { minLength: 1, maxLength: 4 }),
        fc.array(spot, { maxLength: 2 }),
        (sockets, adapters, extensions) => {
          const leads = leadsOf({
            sockets: sockets.map(({ x, outlets }, i) => socket(`w${i}`, x, outlets)),
            supplies: adapters.map(({ x, lead }, i) => supply(`s${i}`, x / 8, Math.max(1, lead))),
            extensions: extensions.map((x, i) => ({
              id: `x${i}`,
              name: `x${i}`,
              x,
              y: 0,
              leadMm: 400,
              outlets: 2,
              place: 'hall',
            })),
          });
          /** Every way to give each plug an outlet or none. */
          const most = (
            plugs: { x: number; lead: number }[],
            free: { x: number; left: number }[],
          ): number => {
            if (plugs.length === 0) return 0;
            const [{ x, lead }, ...rest] = plugs;
            const into = free.flatMap((one, k) =>
              one.left > 0 && Math.abs(one.x - x) <= Math.max(1, lead)
                ? [
                    1 +
                      most(
                        rest,
                        free.map((other, i) => (i === k ? { ...other, left: other.left - 1 } : other)),
                      ),
                  ]
                : [],
            );
            return Math.max(most(rest, free), ...into);
          };
          const roots = sockets.map(({ x, outlets }) => ({ x, left: outlets }));
          /** Every extension left at home, or in each socket that it reaches. */
          const laid = (
            left: readonly number[],
            free: { x: number; left: number }[],
            lies: { x: number; left: number }[],
          ): number => {
            if (left.length === 0) return most(adapters, [...free, ...lies]);
            const [x, ...rest] = left;
            const into = free.flatMap((one, k) =>
              one.left > 0 && Math.abs(one.x - x) <= 400
                ? [
                    laid(
                      rest,
                      free.map((other, i) => (i === k ? { ...other, left: other.left - 1 } : other)),
                      [...lies, { x, left: 2 }],
                    ),
                  ]
                : [],
            );
            return Math.max(laid(rest, free, lies), ...into);
          };
          const plugged = leads.filter(({ kind, outlet }) => kind === 'supply' && outlet).length;
          expect(plugged).toBe(laid(extensions, roots, []));
          for (const { outlet, leadMm, needsMm } of leads)
            if (outlet) expect(needsMm).toBeLessThanOrEqual(leadMm);
        },
      ),
      { numRuns: runs(120) },
    );
  });
});

describe('the list of parts', () => {
  it('has the counterpart of each plug that goes into a cable', () => {
    const power = powerIn(
      given({
        circuits: [{ id: 'c', name: 'Street', supply: 's', slack: 0 }],
        devices: [
          ...lights([[10, 10]], { count: 3, plug: 'two pins' }),
          { id: 'n', name: 'Spare', x: 0, y: 0, plug: 'two pins' },
        ],
      }),
    );
    expect(powerParts(power)).toContainEqual({
      ...{ name: 'counterpart of plug “two pins”', count: 3, note: 'Street' },
    });
  });

  it('sums cable by its copper, up to the next tenth of a metre, and devices by what they are', () => {
    const power = powerIn(
      given({
        circuits: [
          { id: 'c', name: 'Street', supply: 's', slack: 0 },
          { id: 'd', name: 'Quay', supply: 's', slack: 0 },
        ],
        devices: [
          ...lights(
            [
              [10, 10],
              [60, 10],
            ],
            { count: 2 },
          ),
          { id: 'm', name: 'Crane', use: 'motor', x: 0, y: 20, circuit: 'd', volts: 5, milliamps: 150 },
          { id: 'n', name: 'Spare', x: 0, y: 0 },
        ],
      }),
    );
    expect(powerParts(power).map(({ name, count, unit }) => [name, count, unit ?? 'pieces'])).toEqual([
      ['motor 5 V, 150 mA', 1, 'pieces'],
      ['light 5 V, 20 mA', 5, 'pieces'],
      // 10 studs of one, 60 of the other: 0.56 m.
      ['cable 2 × 0.14 mm²', 0.6, 'm'],
      ['connector, two poles', 1, 'pieces'],
      ['adapter 5 V, 1000 mA', 1, 'pieces'],
    ]);
    expect(power.dark.map(({ id }) => id)).toEqual(['n']);
  });
});

it('lamps shine where they stand: over the ground, or over the deck they name, where a supply feeds them', () => {
  const scene = sceneFrom(
    given({
      levels: [{ id: 'low', name: 'Low', height: 15 }],
      pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 96, d: 48, level: 'low', ground: 'paving' }],
      circuits: [
        { id: 'c', name: 'Street', supply: 's' },
        { id: 'd', name: 'Loose' },
      ],
      devices: [
        { id: 'a', name: 'A', x: 4, y: 6, height: 10, circuit: 'c' },
        { id: 'b', name: 'B', x: 4, y: 6, circuit: 'd' },
        { id: 'm', name: 'M', x: 4, y: 6, use: 'motor', circuit: 'c' },
      ],
    }),
  );
  // 25 plates of 3.2 mm are 80 mm, 10 studs of 8 mm; 15 plates are 6.
  expect(lampsOf(scene, compileRelief(scene))).toEqual([
    { id: 'a', x: 4, y: 6, z: 10, isLit: true },
    { id: 'b', x: 4, y: 6, z: 6, isLit: false },
  ]);
});

test('a light under clear water over a lit floor: as deep as cover and layers are clear it shines, deeper it is told and raised', () => {
  const layers = [
    { colour: 'brook', plates: 2 },
    { colour: 'deepwater', plates: 3 },
    { colour: 'slate', plates: 1 },
  ];
  const at = (below: number) =>
    sceneFrom({
      ...given({
        levels: [{ id: 'q', name: 'Quay', height: 12 }],
        customGrounds: [{ id: 'custom-1', name: 'Clear pool', like: 'water', colour: 'ice', layers }],
        pads: [{ id: 'p', name: 'Pool', x: 0, y: 0, w: 96, d: 48, level: 'q', ground: 'custom-1' }],
        devices: lights([[20, 20]], { below }),
      }),
    });
  const told = (below: number) =>
    evaluateRules(at(below), { today: '2031-05-06' }).filter(({ rule }) => rule === 'light-buried');
  // A plate of ice, two of brook and three of deepwater: six.
  for (const below of [0, 1, 6]) expect(told(below)).toEqual([]);
  const [{ key, numbers, sentence }] = told(7);
  expect(numbers).toEqual({ below: 7, clear: 6 });
  expect(sentence).toContain('Clear pool, which lets light through 2b; under that it is Slate');
  expect(tryFixes(at(7), key, '2031-05-06')?.changes).toMatchObject([{ set: { below: 6 } }]);
  // It shines from there: 12 plates less 6, of 3.2 mm in studs of 8; its own lead is shorter by as much.
  const scene = at(6);
  expect(lampsOf(scene, compileRelief(scene))[0].z).toBeCloseTo((6 * 3.2) / 8, 9);
  expect(circuitReports(scene, compileRelief(scene))[0].devices[0].leadMm).toBeCloseTo(6 * 3.2, 9);
});
