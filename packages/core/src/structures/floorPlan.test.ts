import fc from 'fast-check';
import { sceneFrom, type Plot } from '../document/index.ts';
import { filledBy } from '../../test/filled.ts';
import { runs } from '../../test/runs.ts';
import { clearanceOfFitting } from '../terrain/index.ts';
import { buildingPieces, floorPlans } from './index.ts';

const plotOf = (more: object): Plot =>
  sceneFrom({
    display: { name: 'Rooms', kind: 'city' },
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 96 }],
    plots: [{ id: 'p', name: 'House', x: 0, y: 0, w: 8, d: 8, height: 30, storeys: 1, ...more }],
  }).plot.p;
const at = (name: string, x: number, y: number, w: number, d: number, more: object = {}) => ({
  ...{ name, height: 6, place: { x, y, w, d } },
  ...more,
});

describe('a floor from above', () => {
  test('36 studs in an 8 × 8 house (common practice): a table of 3 × 6 leaves 18, and places for three figures', () => {
    const [bare] = floorPlans(plotOf({}));
    expect([bare.w, bare.d, bare.free, bare.figures.length]).toEqual([6, 6, 36, 9]);
    const [floor] = floorPlans(plotOf({ fittings: [at('Table', 0, 0, 6, 3)] }));
    expect([floor.free, floor.figures]).toEqual([18, [1, 3, 5].map((x) => ({ x, y: 4 }))]);
    // Set a stud into the wall it wins a row of studs back; deeper than the wall is thick it does not fit.
    const set = (y: number) =>
      floorPlans(plotOf({ wall: 2, w: 10, d: 10, fittings: [at('Shelf', 0, y, 6, 3)] }))[0];
    expect([set(0).free, set(-1).free, set(-1).fittings[0].fault]).toEqual([18, 24, null]);
    expect(set(-2).fittings[0].fault).toBe('it is set 2 studs into a wall 2 thick');
  });
  test('what hangs takes no floor, and a figure stands under it where there is room for one', () => {
    // Its floor lies at 1; a figure takes 13 plates.
    const under = (on: number) => floorPlans(plotOf({ fittings: [at('Lamp', 0, 0, 6, 6, { on })] }))[0];
    expect([under(14).free, under(14).figures.length]).toEqual([36, 9]);
    expect([under(13).free, under(13).figures.length]).toEqual([36, 0]);
    expect([under(0).free, under(0).figures.length]).toEqual([0, 0]);
  });
  test('a seat in the middle of an even table stands on half a stud', () => {
    const seats = [at('Table', 1, 0, 4, 2), at('Chair', 2.5, 2, 1, 1)];
    const [{ fittings, free }] = floorPlans(plotOf({ fittings: seats }));
    expect(fittings.map(({ onHalf }) => onHalf)).toEqual([false, true]);
    expect(free).toBe(36 - 8 - 1);
  });
  test('a door opens hung on the side that is free: the leaf’s corner against √(dx² + dy²), by hand', () => {
    const house = (...fittings: object[]) =>
      floorPlans(
        plotOf({ bays: [{ side: 's', storey: 1, bays: [{ wide: 8, part: 'door-4x1' }] }], fittings }),
      )[0].doors;
    // The door stands 1 to 5 on the south wall of the room, at 6. Hung right, the leaf of 4 passes a corner 3 and 3 off.
    expect(house()).toMatchObject([
      {
        leaf: 4,
        hinges: { left: { x: 1, y: 6 }, right: { x: 5, y: 6 } },
        blocked: { left: null, right: null },
      },
    ]);
    expect(house(at('Desk', 0, 0, 2, 3))[0].blocked).toEqual({ left: 'Desk', right: null });
    expect(house(at('Desk', 0, 0, 3, 3))[0].blocked).toEqual({ left: 'Desk', right: 'Desk' });
    expect(house(at('Desk', 0, 0, 6, 2))[0].blocked).toEqual({ left: null, right: null });
    // What hangs over the door is not in its way.
    expect(house(at('Lamp', 0, 0, 6, 4, { on: 20 }))[0].blocked).toEqual({ left: null, right: null });
  });
  test('a stair climbs from its floor to the next, and the floor above is open where a head would hit it', () => {
    const plot = plotOf({
      ...{ w: 16, d: 16, height: 60, storeys: 2 },
      fittings: [at('Stair', 0, 0, 2, 12, { use: 'stair' }), at('Bed', 0, 0, 4, 6, { on: 30 })],
    });
    const [ground, upper] = floorPlans(plot);
    // From the plate at 1 to the one at 31: 30 plates over 12 studs. Free under the floor are 29; a figure takes 13.
    expect(ground.stairs).toEqual([{ index: 0, name: 'Stair', rise: 30, perStud: 2.5, opening: 12 - 6 }]);
    expect(upper.fittings.map(({ name, from }) => [name, from])).toEqual([['Bed', 31]]);
  });
  test('over a stair the floor is open at its upper end: plates, room and what may stand there', () => {
    const house = (climbsTo: string, bed: object) =>
      plotOf({
        ...{ w: 16, d: 16, height: 60, storeys: 2 },
        fittings: [
          at('Stair', 0, 0, 2, 12, { use: 'stair', climbsTo }),
          at('Bed', 4, 0, 4, 6, { on: 30, ...bed }),
        ],
      });
    const open = (climbsTo: string) => {
      const pieces = buildingPieces(house(climbsTo, {}), { pavementLight: 'any', pavementDark: 'any' });
      const upper = filledBy(pieces);
      const spots: string[] = [];
      for (let y = 0; y < 16; y++)
        for (let x = 0; x < 16; x++) if (upper(x, y, 30) === 0) spots.push(`${x} ${y}`);
      return spots;
    };
    // Of 12 studs the upper 6 are open: to the north from the wall on, to the south the rows 6 to 11 of the room.
    const rows = (from: number) =>
      Array.from({ length: 12 }, (_, k) => `${1 + (k % 2)} ${1 + from + Math.trunc(k / 2)}`);
    expect(open('start')).toEqual(rows(0));
    expect(open('end')).toEqual(rows(6));
    const [, upper] = floorPlans(house('start', {}));
    expect([upper.studs, upper.free, upper.holes]).toEqual([
      196,
      196 - 12 - 24,
      [{ x: 0, y: 0, w: 2, d: 6 }],
    ]);
    const faultOf = (bed: object) => floorPlans(house('start', bed))[1].fittings[0].fault;
    expect(faultOf({})).toBeNull();
    expect(faultOf({ place: { x: 1, y: 0, w: 4, d: 6 } })).toBe(
      'the floor is open there over the stair below',
    );
  });
  test('every plate beside an open stair is borne, and nothing else of the floor is open', () => {
    const given = fc.record({
      w: fc.integer({ min: 6, max: 30 }),
      d: fc.integer({ min: 6, max: 30 }),
      shape: fc.constantFrom('box', 'round'),
      place: fc.record({
        x: fc.integer({ min: -2, max: 40 }).map((n) => n / 2),
        y: fc.integer({ min: -2, max: 40 }).map((n) => n / 2),
        w: fc.integer({ min: 1, max: 10 }),
        d: fc.integer({ min: 1, max: 12 }),
      }),
      climbsTo: fc.constantFrom('start', 'end'),
    });
    fc.assert(
      fc.property(given, ({ place, climbsTo, ...more }) => {
        const plot = plotOf({
          ...{ ...more, height: 60, storeys: 2 },
          fittings: [{ name: 'Stair', height: 3, use: 'stair', climbsTo, place }],
        });
        const pieces = buildingPieces(plot, { pavementLight: 'any', pavementDark: 'any' });
        const bare = buildingPieces(plotOf({ ...more, height: 60, storeys: 2 }), {
          pavementLight: 'any',
          pavementDark: 'any',
        });
        const isPillar = (x: number, y: number) =>
          bare.some(
            (one) =>
              one.use === 'pillar' &&
              one.z === 31 &&
              x >= one.x &&
              x < one.x + one.w &&
              y >= one.y &&
              y < one.y + one.d,
          );
        const plain = filledBy(bare);
        const solid = filledBy(pieces);
        const long = Math.max(place.w, place.d);
        // 30 plates from floor to floor, or 29 from jumpers; a figure of 13 under a floor of 1.
        const rise = Number.isInteger(place.x) && Number.isInteger(place.y) ? 30 : 29;
        const open = Math.ceil(long - (rise - 14) / (rise / long));
        const off = climbsTo === 'start' ? 0 : long - open;
        const isX = place.w >= place.d;
        const [x0, y0] = [place.x + 1 + (isX ? off : 0), place.y + 1 + (isX ? 0 : off)];
        const [x1, y1] = [x0 + (isX ? open : place.w), y0 + (isX ? place.d : open)];
        const isInHole = (x: number, y: number) =>
          x >= 1 &&
          y >= 1 &&
          x < more.w - 1 &&
          y < more.d - 1 &&
          x + 1 > x0 &&
          x < x1 &&
          y + 1 > y0 &&
          y < y1;
        // Where a wall of the upper storey stands over it there is no hole.
        let isWalled = false;
        for (let y = 0; y < more.d; y++)
          for (let x = 0; x < more.w; x++)
            isWalled ||=
              isInHole(x, y) &&
              (plain(x, y, 31) > 0 || plain(x, y, 30) === 0) &&
              more.shape === 'round' &&
              !isPillar(x, y);
        const wrong: string[] = [];
        for (let y = 0; y < more.d; y++)
          for (let x = 0; x < more.w; x++) {
            const isOpen = isInHole(x, y) && !isWalled;
            if (solid(x, y, 30) > 0 !== (plain(x, y, 30) > 0 && !isOpen)) wrong.push(`floor ${x}, ${y}`);
          }
        // A plate that only the stair itself is under has no place for a pillar.
        const overStair = (x: number, y: number) =>
          x + 1 > place.x + 1 &&
          x < place.x + 1 + place.w &&
          y + 1 > place.y + 1 &&
          y < place.y + 1 + place.d;
        for (const { part, use, x, y, z, w, d } of pieces) {
          if (use === 'pillar' && solid(x, y, z - 1) === 0)
            wrong.push(`a pillar over the hole at ${x}, ${y}`);
          if (z !== 30 || !part.startsWith('plate')) continue;
          const studs = Array.from({ length: w * d }, (_, k) => [x + (k % w), y + Math.trunc(k / w)]);
          if (
            studs.every(([u, v]) => solid(u, v, 29) === 0) &&
            !studs.some(
              ([u, v]) =>
                overStair(u, v) ||
                overStair(u - 1, v) ||
                overStair(u + 1, v) ||
                overStair(u, v - 1) ||
                overStair(u, v + 1),
            )
          )
            wrong.push(`${part} at ${x}, ${y} lies on nothing`);
        }
        expect(wrong.slice(0, 5)).toEqual([]);
      }),
      { numRuns: runs(40) },
    );
  });
  test('what stands on half a stud stands on jumpers, a plate higher', () => {
    const jumpers = (place: object) =>
      buildingPieces(plotOf({ fittings: [{ name: 'Seat', height: 6, place }] }), {
        pavementLight: 'any',
        pavementDark: 'any',
      }).flatMap(({ part, x, y, z, w, d }) =>
        part.startsWith('jumper') ? [[part, x, y, z, w, d].join(' ')] : [],
      );
    expect(jumpers({ x: 2, y: 2, w: 2, d: 2 })).toEqual([]);
    // A seat of one stud at 2.5: its stud lies where the floor's studs 3 and 4 from the corner of the walls meet.
    expect(jumpers({ x: 2.5, y: 2, w: 1, d: 1 })).toEqual(['jumper-1x2 3 3 1 2 1']);
    expect(jumpers({ x: 2.5, y: 2, w: 1, d: 3 })).toEqual(['jumper-1x2 3 3 1 2 1', 'jumper-1x2 3 5 1 2 1']);
    expect(jumpers({ x: 2.5, y: 2.5, w: 1, d: 1 })).toEqual(['jumper-2x2 3 3 1 2 2']);
    const seat = (x: number) =>
      floorPlans(plotOf({ fittings: [{ name: 'Seat', height: 6, place: { x, y: 2, w: 1, d: 1 } }] }))[0];
    expect([seat(2), seat(2.5)].map(({ fittings, free }) => [fittings[0].from, free])).toEqual([
      [1, 35],
      [2, 35],
    ]);
  });
  test('under a low roof nobody stands', () => {
    // Eaves at 9 over a floor at 1, the ridge at 30, 3 studs in: at the wall there are 8 plates, a stud in 15.
    const [{ figures }] = floorPlans(plotOf({ eaves: 9 }));
    expect(figures.map(({ y }) => y)).toEqual([2, 2, 2, 4, 4, 4]);
    expect(floorPlans(plotOf({ height: 12 }))[0].figures).toEqual([]);
    // Of one side it rises from the front to the back: 21 plates over 6 studs, 3.5 a stud; from 2 studs off there is room.
    const leanTo = floorPlans(plotOf({ eaves: 9, roofForm: 'lean-to', front: 's' }))[0].figures;
    expect([...new Set(leanTo.map(({ y }) => y))]).toEqual([1, 3]);
  });
  test('free studs, figures and doors agree with slow code on random rooms', () => {
    const half = (max: number) => fc.integer({ min: 0, max: 2 * max }).map((n) => n / 2);
    const thing = fc
      .record({ x: half(12), y: half(12), w: half(5), d: half(5) })
      .map(({ x, y, w, d }) => at('Thing', x - 1, y - 1, w + 0.5, d + 0.5));
    fc.assert(
      fc.property(
        fc.integer({ min: 6, max: 14 }),
        fc.integer({ min: 6, max: 14 }),
        fc.constantFrom('n', 'e', 's', 'w'),
        fc.array(thing, { maxLength: 5 }),
        (w, d, side, fittings) => {
          const bays = [{ side, storey: 1, bays: [{ wide: 5, part: 'door-2x1' }] }];
          const [floor] = floorPlans(plotOf({ w, d, bays, fittings }));
          const isTaken = (x: number, y: number) =>
            [...floor.pillars, ...fittings.map(({ place }) => place)].some(
              (one) => x > one.x && x < one.x + one.w && y > one.y && y < one.y + one.d,
            );
          let free = 0;
          for (let y = 0.25; y < d - 2; y += 0.5)
            for (let x = 0.25; x < w - 2; x += 0.5) if (!isTaken(x, y)) free += 0.25;
          expect(floor.free).toBe(free);
          for (const [i, spot] of floor.figures.entries()) {
            for (let y = spot.y - 0.75; y < spot.y + 1; y += 0.5)
              for (let x = spot.x - 0.75; x < spot.x + 1; x += 0.5) expect(isTaken(x, y)).toBe(false);
            for (const other of floor.figures.slice(i + 1))
              expect(Math.max(Math.abs(other.x - spot.x), Math.abs(other.y - spot.y))).toBeGreaterThanOrEqual(
                2,
              );
          }
          // The leaf, walked through its quarter a degree at a time: what it touches blocks it.
          for (const { hinges, leaf, blocked } of floor.doors) {
            const out = { n: [0, 1], s: [0, -1], w: [1, 0], e: [-1, 0] }[side] ?? [0, 0];
            for (const [hand, other] of [
              ['left', 'right'],
              ['right', 'left'],
            ] as const) {
              const [a, b] = [hinges[hand], hinges[other]];
              const along = [(b.x - a.x) / leaf, (b.y - a.y) / leaf];
              let touched = false;
              for (let angle = 1; angle < 90; angle++)
                for (let far = 0.02; far < leaf - 0.02; far += 0.02) {
                  const [cos, sin] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
                  const [x, y] = [0, 1].map((k) => [a.x, a.y][k] + far * (along[k] * cos + out[k] * sin));
                  touched ||= fittings.some(
                    ({ place: one }) =>
                      x > one.x + 0.01 &&
                      x < one.x + one.w - 0.01 &&
                      y > one.y + 0.01 &&
                      y < one.y + one.d - 0.01,
                  );
                }
              if (touched) expect(blocked[hand]).toBe('Thing');
              // What is found in the way by the exact test the walk may pass by a hair only.
              if (!touched && blocked[hand] !== null)
                expect(
                  fittings.some(({ place: one }) => {
                    const [nx, ny] = [
                      Math.max(one.x - a.x, a.x - one.x - one.w, 0),
                      Math.max(one.y - a.y, a.y - one.y - one.d, 0),
                    ];
                    return Math.hypot(nx, ny) < leaf && Math.hypot(nx, ny) > leaf - 0.1;
                  }),
                ).toBe(true);
            }
          }
        },
      ),
      { numRuns: runs(60) },
    );
  });

  test('a church whose roof lifts off its eaves: its door clears the benches, the altar fits under the slopes', () => {
    const church = (benches: number) =>
      plotOf({
        ...{ w: 16, d: 28, height: 60, eaves: 33, slope: 'slope-2x2-45', wall: 1, front: 's' },
        parts: [{ name: 'Roof', use: 'roof', height: 27 }],
        bays: [{ side: 's', storey: 1, bays: [{ wide: 16, part: 'door-4x1' }] }],
        fittings: [
          ...Array.from({ length: benches }, (_, i) => at(`Bench ${i + 1}`, 1, 6 + 3 * i, 12, 1)),
          at('Altar screen', 4, 0, 6, 1, { height: 44 }),
        ],
      });
    const [nave] = floorPlans(church(5));
    // Its door is 4 wide in a room 26 deep: benches at 6, 9, 12, 15 and 18 end 7 before it.
    expect(nave.doors).toMatchObject([{ side: 's', leaf: 4, blocked: { left: null, right: null } }]);
    expect(floorPlans(church(7))[0].doors[0].blocked).toEqual({ left: 'Bench 7', right: 'Bench 7' });
    expect(nave.fittings.every(({ fault }) => fault === null)).toBe(true);
    // The ridge runs north: 4 studs off the west wall lies the fifth course, at 33 + 4 × 3; the screen stands on a plate.
    const screen = clearanceOfFitting(church(5), church(5).fittings[5]);
    expect(screen).toMatchObject({ ceiling: 45, clear: 0 });
    // The walls end under tiles at the eaves, and nothing ties the roof to them.
    const pieces = buildingPieces(church(5), { pavementLight: 'mist', pavementDark: 'slate' });
    expect(pieces.some(({ z, h }) => z < 33 && z + h > 33)).toBe(false);
    expect(
      pieces.filter(({ z, use }) => z === 32 && use === 'wall').every(({ part }) => part.startsWith('tile')),
    ).toBe(true);
  });
});
