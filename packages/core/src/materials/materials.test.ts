import loadHighs from 'highs';
import fc from 'fast-check';
import { ANY_COLOUR, PALETTE, labOf, nearColours } from '../catalogue/index.ts';
import { numberStyleOf, readNumber } from '../grid/index.ts';
import { compile } from '../terrain/index.ts';
import { CountCache } from '../masonry/index.ts';
import {
  emptyScene,
  denialReason,
  reduce,
  sceneFrom,
  type Change,
  type Order,
  type Scene,
  mergeLines,
} from '../document/index.ts';
import { sceneOf } from '../../test/materials.ts';
import {
  buyable,
  linesToOrder,
  toOrder,
  substitutionsFor,
  balances,
  blockedSections,
  changedNeeds,
  coloursKnown,
  copiesNeeded,
  costBySection,
  daysLate,
  demandsOf,
  fewestParcels,
  fitKits,
  guessColumns,
  needsOf,
  netNeeds,
  nextStates,
  piecesByWeight,
  readOffers,
  readRows,
  receive,
  simulatedMarket,
  soonest,
  source,
  sparesOf,
  splitsOf,
  suppliesOf,
  waitingPlaceholders,
  type Demand,
  type Market,
  type Supply,
} from './index.ts';
import { runs } from '../../test/runs.ts';

const add = (kind: Change['kind'], id: string, data: Record<string, unknown>): Change => ({
  op: 'add',
  kind,
  id,
  data,
});
const brick = { part: 'brick-2x4', colour: 'slate' };
const clock = () => 0;
const seconds = { seconds: 5, now: clock };

/** A crew of three with drawers, promises and orders, small enough to try everything. */
const crew = fc.record({
  demands: fc.array(
    fc.record({
      person: fc.constantFrom('ada', 'bo', 'cy'),
      qty: fc.integer({ min: 1, max: 6 }),
      by: fc.constantFrom('2031-05-01', '2031-06-01', null),
    }),
    { minLength: 1, maxLength: 4 },
  ),
  supplies: fc.array(
    fc.record({
      person: fc.constantFrom('ada', 'bo', 'cy', null),
      qty: fc.integer({ min: 1, max: 6 }),
      kind: fc.constantFrom('lot' as const, 'order' as const),
      from: fc.constantFrom('2031-04-20', '2031-05-20', null),
    }),
    { maxLength: 5 },
  ),
});
type Crew = typeof crew extends fc.Arbitrary<infer T> ? T : never;

const demandOf = (index: number, set: Partial<Demand>): Demand => ({
  ...{
    id: `d${index}`,
    section: `s${index}`,
    ...brick,
    needs: [],
    counted: 1,
    qty: 1,
    by: null,
    person: null,
    source: null,
    list: null,
  },
  ...set,
});
const supplyOf = (index: number, set: Partial<Supply>): Supply => ({
  ...{
    id: `u${index}`,
    kind: 'lot',
    person: null,
    ...brick,
    qty: 1,
    from: null,
    place: 'drawer',
    section: null,
    isWorn: false,
  },
  ...set,
});
const stated = ({ demands, supplies }: Crew) => ({
  demands: demands.map((one, i) => demandOf(i, { ...one, counted: one.qty })),
  supplies: supplies.map((one, i) => supplyOf(i, { ...one, from: one.kind === 'lot' ? null : one.from })),
});

describe('netting', () => {
  test('nothing is made or lost, and nothing is short that somebody has (brute force on small crews)', () => {
    fc.assert(
      fc.property(crew, (small) => {
        const { demands, supplies } = stated(small);
        const { rows, left } = netNeeds(emptyScene(), demands, supplies);
        for (const { demand, given, own, handed, ordered, late, short } of rows) {
          expect(own + handed + ordered + late + short).toBe(demand.qty);
          expect(given.reduce((sum, { qty }) => sum + qty, 0)).toBe(demand.qty - short);
        }
        for (const supply of supplies) {
          const used = rows.flatMap(({ given }) => given).filter(({ supply: id }) => id === supply.id);
          expect(used.reduce((sum, { qty }) => sum + qty, 0) + (left.get(supply.id) ?? 0)).toBe(supply.qty);
        }
        const sum = (list: readonly { qty: number }[]) => list.reduce((total, { qty }) => total + qty, 0);
        expect(rows.reduce((total, { short }) => total + short, 0)).toBe(
          Math.max(0, sum(demands) - sum(supplies)),
        );
      }),
    );
  });
  test('own pieces stay with their owner as far as they are needed there', () => {
    fc.assert(
      fc.property(crew, (small) => {
        const { demands, supplies } = stated(small);
        const { rows } = netNeeds(emptyScene(), demands, supplies);
        for (const person of ['ada', 'bo', 'cy']) {
          const needed = demands
            .filter((one) => one.person === person)
            .reduce((sum, { qty }) => sum + qty, 0);
          const has = supplies
            .filter((one) => one.person === person && one.kind === 'lot')
            .reduce((sum, { qty }) => sum + qty, 0);
          const bulk = supplies
            .filter((one) => one.person === null && one.kind === 'lot')
            .reduce((sum, { qty }) => sum + qty, 0);
          const own = rows
            .filter(({ demand }) => demand.person === person)
            .reduce((sum, row) => sum + row.own, 0);
          expect(own).toBeGreaterThanOrEqual(Math.min(needed, has));
          expect(own).toBeLessThanOrEqual(Math.min(needed, has + bulk));
        }
      }),
    );
  });
  test('one demand is handed over by as few people as can be (all subsets tried)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 1, max: 30 }),
        (has, qty) => {
          const supplies = has.map((count, i) => supplyOf(i, { person: `p${i}`, qty: count }));
          const { handOvers, rows } = netNeeds(emptyScene(), [demandOf(0, { qty, person: 'ada' })], supplies);
          let fewest = has.length;
          for (let set = 0; set < 1 << has.length; set++) {
            const sum = has.reduce((total, count, i) => total + (set & (1 << i) ? count : 0), 0);
            if (sum >= qty)
              fewest = Math.min(fewest, [...set.toString(2)].filter((bit) => bit === '1').length);
          }
          expect(handOvers).toHaveLength(fewest);
          expect(rows[0].short).toBe(Math.max(0, qty - has.reduce((a, b) => a + b, 0)));
        },
      ),
    );
  });
  test('the nearest date goes first; orders in time, then others’, then what comes late', () => {
    const demands = [
      demandOf(0, { qty: 10, by: '2031-06-01', person: 'ada' }),
      demandOf(1, { qty: 10, by: '2031-05-01', person: 'ada' }),
    ];
    const supplies = [
      supplyOf(0, { person: 'ada', qty: 5 }),
      supplyOf(1, { person: 'bo', qty: 6 }),
      supplyOf(2, { kind: 'order', person: 'ada', qty: 7, from: '2031-05-20' }),
    ];
    const [june, may] = netNeeds(emptyScene(), demands, supplies).rows;
    expect([may.own, may.ordered, may.handed, may.late, may.short]).toEqual([5, 0, 5, 0, 0]);
    expect([june.own, june.ordered, june.handed, june.late, june.short]).toEqual([0, 7, 1, 0, 2]);
    expect(blockedSections([june, may])).toEqual([
      { section: 's0', by: '2031-06-01', short: 2, late: 0, parts: 1 },
    ]);
  });
  test('any colour takes what nobody needs for its colour; a promise comes before everything', () => {
    const scene: Scene = {
      ...emptyScene(),
      promise: { p: { id: 'p', v: 1, ...brick, qty: 3, person: 'bo', section: 's1', note: '' } },
    };
    const demands = [demandOf(0, { qty: 4, colour: 'any' }), demandOf(1, { qty: 4, person: 'ada' })];
    const supplies = [supplyOf(0, { person: 'bo', qty: 5 }), supplyOf(1, { qty: 2, colour: 'rust' })];
    const { rows, handOvers } = netNeeds(scene, demands, supplies);
    expect([rows[1].handed, rows[1].short]).toEqual([4, 0]);
    expect([rows[0].own, rows[0].handed, rows[0].short]).toEqual([2, 1, 1]);
    expect(handOvers.map(({ qty, promised }) => [qty, promised])).toEqual(
      expect.arrayContaining([[4, true]]),
    );
  });
  test('worn pieces go where they are not seen; where that is strict they go nowhere else', () => {
    const demands = [demandOf(0, { qty: 6, colour: 'any' }), demandOf(1, { qty: 6 })];
    const supplies = [
      supplyOf(0, { qty: 4, isWorn: true }),
      supplyOf(1, { qty: 5 }),
      supplyOf(2, { qty: 3, colour: 'rust' }),
    ];
    const net = (colourSeen: 'aged' | 'strict') => {
      const scene = sceneFrom({ display: { name: 'Quay', kind: 'diorama', colourSeen } });
      const { rows } = netNeeds(scene, demands, supplies);
      return rows.map(({ given, short }) => [
        ...given.map(({ supply, qty }) => `${qty} of ${supply}`),
        short,
      ]);
    };
    // What is seen takes the five good ones and, not strict, one worn; the rest of them are hidden first.
    expect(net('aged')).toEqual([
      ['3 of u0', '3 of u2', 0],
      ['5 of u1', '1 of u0', 0],
    ]);
    expect(net('strict')).toEqual([
      ['4 of u0', '2 of u2', 0],
      ['5 of u1', 1],
    ]);
  });
  test('an accepted substitute makes up what is short, whole sets only', () => {
    const scene: Scene = {
      ...emptyScene(),
      substitute: {
        s: { id: 's', v: 1, ...brick, use: [{ part: 'brick-2x2', colour: 'slate', qty: 2 }], section: null },
      },
    };
    const { rows, left } = netNeeds(
      scene,
      [demandOf(0, { qty: 5 })],
      [supplyOf(0, { qty: 1 }), supplyOf(1, { part: 'brick-2x2', qty: 7 })],
    );
    expect([rows[0].own, rows[0].substituted, rows[0].short]).toEqual([1, 3, 1]);
    expect(left.get('u1')).toBe(1);
  });
  test('nothing is made or lost with promises, any colours and substitutes either', () => {
    const colour = fc.constantFrom('slate', 'rust');
    const person = fc.constantFrom('ada', 'bo');
    const qty = fc.integer({ min: 1, max: 8 });
    const part = fc.constantFrom('brick-2x4', 'brick-2x2');
    fc.assert(
      fc.property(
        fc.array(fc.record({ part, colour: fc.constantFrom('slate', 'rust', 'any'), person, qty }), {
          minLength: 1,
          maxLength: 5,
        }),
        fc.array(fc.record({ part, colour, person, qty }), { maxLength: 6 }),
        fc.array(fc.record({ part, colour, person, qty, section: fc.constantFrom('s0', 's1') }), {
          maxLength: 2,
        }),
        fc.integer({ min: 1, max: 3 }),
        (wanted, had, promises, makes) => {
          const scene: Scene = {
            ...emptyScene(),
            promise: Object.fromEntries(
              promises.map((one, i) => [`p${i}`, { ...one, id: `p${i}`, v: 1, note: '' }]),
            ),
            substitute: {
              s: {
                id: 's',
                v: 1,
                ...brick,
                use: [{ part: 'brick-2x2', colour: 'slate', qty: makes }],
                section: null,
              },
            },
          };
          const demands = wanted.map((one, i) => demandOf(i, { ...one, counted: one.qty }));
          const supplies = had.map((one, i) => supplyOf(i, one));
          const { rows, left, handOvers } = netNeeds(scene, demands, supplies);
          for (const { demand, own, handed, ordered, late, substituted, short } of rows) {
            expect(own + handed + ordered + late + substituted + short).toBe(demand.qty);
            expect(short).toBeGreaterThanOrEqual(0);
          }
          for (const supply of supplies) {
            const used = rows.flatMap(({ given }) => given).filter((one) => one.supply === supply.id);
            expect(used.reduce((sum, one) => sum + one.qty, 0) + (left.get(supply.id) ?? 0)).toBe(supply.qty);
          }
          // Hand-over notes say what goes to somebody else, and no more.
          const foreign = rows.flatMap(({ demand, given }) =>
            given.filter((one) => supplies.find(({ id }) => id === one.supply)?.person !== demand.person),
          );
          expect(handOvers.reduce((sum, one) => sum + one.qty, 0)).toBe(
            foreign.reduce((sum, one) => sum + one.qty, 0),
          );
        },
      ),
    );
  });
  test('a substitute of two lines that draw on one supply takes no piece twice', () => {
    const twice = (colour: string) =>
      netNeeds(
        sceneOf([
          add('substitute', 's', {
            ...{ part: 'brick-2x4', colour: 'slate' },
            use: [
              { part: 'brick-2x2', colour, qty: 1 },
              { part: 'brick-2x2', colour: 'slate', qty: 1 },
            ],
          }),
        ]),
        [demandOf(0, { counted: 3, qty: 3 })],
        [supplyOf(0, { part: 'brick-2x2', qty: 5 })],
      ).rows[0];
    for (const colour of ['any', 'slate']) {
      const row = twice(colour);
      expect([row.substituted, row.short]).toEqual([2, 1]);
      expect(row.given.reduce((sum, { qty }) => sum + qty, 0)).toBe(4);
    }
  });
  test('lending moves pieces and makes none', () => {
    fc.assert(
      fc.property(fc.nat(20), fc.integer({ min: 1, max: 30 }), (has, lent) => {
        const scene = sceneOf([
          add('lot', 'l', { ...brick, qty: has, owner: 'ada' }),
          add('loan', 'n', { ...brick, qty: lent, from: 'ada', to: 'bo' }),
        ]);
        const supplies = suppliesOf(scene);
        expect(supplies.reduce((sum, { qty }) => sum + qty, 0)).toBe(has);
        expect(supplies.filter(({ person }) => person === 'bo').reduce((sum, { qty }) => sum + qty, 0)).toBe(
          Math.min(has, lent),
        );
      }),
    );
  });
});

describe('whose stock it is', () => {
  const scene = sceneOf([
    add('lot', 'mine', { ...brick, qty: 5, owner: 'ada' }),
    add('lot', 'theirs', { ...brick, qty: 5, owner: 'bo' }),
    add('placeholder', 'p', { ...brick, stands: 'rust', section: 'b', x: 40, y: 4 }),
  ]);
  const may = (change: Change, role: 'builder' | 'viewer' | 'planner' = 'builder') =>
    denialReason({ role, person: 'ada' }, scene, change) === null;
  const patch = (id: string, set: Record<string, unknown>): Change => ({
    op: 'patch',
    kind: 'lot',
    id,
    v: 1,
    set,
  });
  test('builders count their own, note placeholders in their own sections, and give nothing that is another’s', () => {
    expect([
      may(patch('mine', { qty: 6 })),
      may(patch('theirs', { qty: 6 })),
      may(patch('mine', { owner: 'bo' })),
    ]).toEqual([true, false, false]);
    expect(may({ op: 'remove', kind: 'lot', id: 'theirs', v: 1 })).toBe(false);
    expect([
      may(add('lot', 'n', { ...brick, qty: 1, owner: 'ada' })),
      may(add('lot', 'n', { ...brick, qty: 1, owner: null })),
    ]).toEqual([true, false]);
    const note = (section: string) =>
      add('placeholder', 'q', { ...brick, stands: 'rust', section, x: 1, y: 1 });
    expect([may(note('a')), may(note('b'))]).toEqual([true, false]);
    expect([
      may(add('loan', 'l', { ...brick, qty: 1, from: 'bo', to: 'ada' })),
      may(add('loan', 'l', { ...brick, qty: 1, from: 'ada', to: 'bo' })),
      may(add('loan', 'l', { ...brick, qty: 1, from: 'bo', to: null })),
    ]).toEqual([true, false, false]);
    expect([
      may(add('order', 'o', { name: 'O', by: 'ada', lines: [] })),
      may(add('order', 'o', { name: 'O', by: 'bo', lines: [] })),
    ]).toEqual([true, false]);
  });
  test('lists, recipes and substitutes are planned; viewers change nothing', () => {
    for (const change of [
      add('partList', 'l', { name: 'L', lines: [] }),
      add('recipe', 'r', { name: 'R', ground: 'grass', tones: [{ colour: 'moss' }] }),
      add('substitute', 's', { ...brick, use: [{ ...brick, qty: 1 }] }),
    ])
      expect([may(change), may(change, 'planner')]).toEqual([false, true]);
    expect(may(patch('mine', { qty: 6 }), 'viewer')).toBe(false);
    expect(may(add('alias', 'a', { about: 'colour', word: 'dusk', means: 'slate' }))).toBe(true);
  });
});

describe('needs', () => {
  const scene = sceneOf([
    add('partList', 'mill', { name: 'Mill', section: 'b', copies: 2, lines: [{ ...brick, qty: 30 }] }),
    add('figure', 'f', { name: 'Market', x: 40, y: 10, cast: 7 }),
    add('tree', 't', { name: 'Ash', x: 50, y: 10 }),
  ]);
  const lines = (of: Scene) =>
    new CountCache()
      .count(of, compile(of))
      ?.blocks.flatMap(({ block, lines: own }) => own.map((line) => ({ ...line, block: block.name }))) ?? [];
  test('counted, set out and listed needs, each in its section with its day, its builder and its spares', () => {
    const needs = needsOf(scene, lines(scene));
    const demands = demandsOf(scene, needs);
    const listed = demands.find(
      ({ section, part, colour }) => section === 'b' && part === 'brick-2x4' && colour === 'slate',
    );
    expect([listed?.counted, listed?.qty, listed?.person]).toEqual([60, 60, 'bo']);
    // Spares stand apart: of each part and colour of the whole display 3 % (bricks), to the nearest piece.
    for (const spare of demands.filter(({ counted }) => counted === 0)) {
      const all = needs.filter(({ part, colour }) => part === spare.part && colour === spare.colour);
      const counted = all.reduce((sum, { qty }) => sum + qty, 0);
      expect([spare.section, spare.qty]).toEqual([
        null,
        Math.round((counted * sparesOf(scene, spare.part)) / 100),
      ]);
    }
    expect(demands.find(({ id }) => id === 'spares brick-2x4 slate')?.qty).toBe(Math.round(60 * 0.03));
    expect(demands.reduce((sum, { counted }) => sum + counted, 0)).toBe(
      needs.reduce((sum, { qty }) => sum + qty, 0),
    );
    expect(needs.find(({ purpose }) => purpose === 'figures')).toMatchObject({
      section: 'b',
      qty: 7,
      from: ['Market'],
    });
    expect(needs.find(({ purpose }) => purpose === 'planting')?.qty).toBe(1);
    expect(needs.filter(({ purpose }) => purpose === 'core').some(({ from }) => from.includes('A1'))).toBe(
      true,
    );
  });
  test('a part is known in the colours that lie here or that somebody named', () => {
    const known = sceneOf([
      add('partType', 'door-4x1', { family: 'door', colours: ['chalk'] }),
      add('lot', 'l', { part: 'door-4x1', colour: 'pine', qty: 1 }),
      add('order', 'o', { name: 'Doors', lines: [{ part: 'door-4x1', colour: 'any', qty: 2 }] }),
    ]);
    expect([coloursKnown(known, 'door-4x1'), coloursKnown(known, 'brick-1x1')]).toEqual([
      ['chalk', 'pine'],
      [],
    ]);
  });
  test('what changed and by how much, the most first', () => {
    const before = needsOf(scene, lines(scene));
    expect(changedNeeds(before, before)).toEqual([]);
    const list = scene.partList.mill;
    const after = needsOf({ ...scene, partList: { mill: { ...list, copies: 5 } } }, lines(scene));
    expect(changedNeeds(before, after)).toEqual([
      expect.objectContaining({ part: 'brick-2x4', before: 60, after: 150 }),
    ]);
    expect(changedNeeds(after, []).length).toBe(after.length);
  });
});

describe('kits and substitutes', () => {
  test('lists that may only be built from kits share them, have no spares, and leave everything else to others', () => {
    const kit = {
      use: 'kit',
      owner: 'ada',
      copies: 4,
      lines: [{ part: 'plate-2x4', colour: 'moss', qty: 10 }],
    };
    const need = (qty: number) => ({ kitsOnly: true, lines: [{ part: 'plate-2x4', colour: 'moss', qty }] });
    const scene = sceneOf([
      add('partList', 'box', { name: 'Big box', ...kit }),
      add('partList', 'hall', { name: 'Hall', ...need(30) }),
      add('partList', 'shed', { name: 'Shed', ...need(25) }),
      add('lot', 'l', { part: 'plate-2x4', colour: 'moss', qty: 100, owner: 'bo' }),
    ]);
    const { rows, left } = netNeeds(scene, demandsOf(scene, needsOf(scene, [])), suppliesOf(scene));
    const of = (list: string) => rows.filter(({ demand }) => demand.list === list);
    const [[hall], [shed]] = [of('hall'), of('shed')];
    // 40 plates in four boxes: 30 for the first, 10 for the second; the drawer's hundred are not asked.
    expect([hall.own, hall.short, shed.own, shed.short]).toEqual([30, 0, 10, 15]);
    expect(rows.filter(({ demand }) => demand.part === 'plate-2x4' && demand.counted === 0)).toEqual([]);
    expect(left.get('lot l')).toBe(100);
    // The card's one kit, two copies of it: everything must come from those.
    const card = reduce(scene, [
      {
        op: 'patch',
        kind: 'display',
        id: 'display',
        v: 1,
        set: { sourceRule: 'kit', kitName: 'big box', kitCopies: 2 },
      },
    ]);
    if (!card.ok) throw new Error(card.refusal.sentence);
    const bound = netNeeds(
      card.scene,
      demandsOf(card.scene, needsOf(card.scene, [])),
      suppliesOf(card.scene),
    );
    const plates = bound.rows.filter(({ demand }) => demand.part === 'plate-2x4');
    expect(plates.reduce((sum, { short }) => sum + short, 0)).toBe(55 - 20);
    expect(bound.rows.every(({ demand }) => demand.source === 'kits')).toBe(true);
    const own = reduce(scene, [
      { op: 'patch', kind: 'display', id: 'display', v: 1, set: { sourceRule: 'own' } },
    ]);
    if (!own.ok) throw new Error(own.refusal.sentence);
    const stock = netNeeds(own.scene, demandsOf(own.scene, needsOf(own.scene, [])), suppliesOf(own.scene));
    expect(stock.rows.every(({ ordered, late }) => ordered + late === 0)).toBe(true);
  });
  test('what fits, what is missing, what is left to trade', () => {
    const kit = [
      { ...brick, qty: 4 },
      { part: 'plate-1x2', colour: 'rust', qty: 6 },
    ];
    const need = [
      { ...brick, qty: 10 },
      { part: 'plate-1x2', colour: 'any', qty: 4 },
    ];
    const fit = fitKits(need, [{ lines: kit, copies: 2 }]);
    expect(fit).toMatchObject({
      fits: 12,
      needed: 14,
      missing: [{ ...brick, qty: 2 }],
      leftover: [{ part: 'plate-1x2', qty: 8 }],
    });
    expect(fit.trade).toBeGreaterThan(0);
    expect(copiesNeeded(need, kit)).toBe(3);
    expect(copiesNeeded([{ ...brick, qty: 401 }], kit)).toBe(101);
    expect(copiesNeeded([{ part: 'door-4x1', colour: 'any', qty: 1 }], kit)).toBeNull();
  });
  test('kits: what fits and what is missing make the need, what fits and what is left make the kits', () => {
    const line = fc.record({
      part: fc.constantFrom('brick-2x4', 'plate-1x2'),
      colour: fc.constantFrom('slate', 'rust'),
      qty: fc.integer({ min: 0, max: 9 }),
    });
    fc.assert(
      fc.property(
        fc.array(line, { maxLength: 4 }),
        fc.array(line, { maxLength: 4 }),
        fc.integer({ min: 1, max: 3 }),
        (need, lines, copies) => {
          const sum = (list: readonly { qty: number }[]) => list.reduce((total, { qty }) => total + qty, 0);
          const { fits, needed, missing, leftover } = fitKits(need, [{ lines, copies }]);
          expect(fits + sum(missing)).toBe(needed);
          expect(fits + sum(leftover)).toBe(copies * sum(lines));
          // Nothing is both missing and left over in the same colour.
          for (const { part, colour } of missing)
            expect(leftover.some((one) => one.part === part && one.colour === colour)).toBe(false);
          const copiesOf = copiesNeeded(need, lines, 40);
          if (copiesOf !== null) {
            expect(fitKits(need, [{ lines, copies: copiesOf }]).missing).toEqual([]);
            if (copiesOf > 1)
              expect(fitKits(need, [{ lines, copies: copiesOf - 1 }]).missing).not.toEqual([]);
          }
        },
      ),
    );
  });
  test('1 × 8 is two of 1 × 4 (common practice), a brick is three plates; every split has the very size', () => {
    expect(splitsOf('brick-1x8')[0]).toEqual({ part: 'brick-1x4', qty: 2 });
    expect(splitsOf('brick-2x4')).toContainEqual({ part: 'plate-2x4', qty: 3 });
    expect(splitsOf('figure-1x2')).toEqual([]);
  });
  test('the same size in a near colour and smaller pieces, with what they cost in look, joints and money', () => {
    const stock = new Map([['brick-2x2 slate', 9]]);
    const list = substitutionsFor('brick-2x4', 'slate', stock);
    expect(list[0]).toMatchObject({
      use: [{ part: 'brick-2x2', colour: 'slate', qty: 2 }],
      off: 0,
      more: 1,
      makes: 4,
    });
    expect(list.some(({ more, off }) => more === 0 && off > 0 && off < 18)).toBe(true);
  });
});

describe('buying', () => {
  /** A small market with integer prices in cents. */
  const market = fc.record({
    qty: fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 1, maxLength: 3 }),
    sellers: fc.array(
      fc.record({ shipping: fc.integer({ min: 0, max: 6 }), minOrder: fc.integer({ min: 0, max: 8 }) }),
      { minLength: 1, maxLength: 3 },
    ),
    offers: fc.array(
      fc.record({
        line: fc.nat(2),
        seller: fc.nat(2),
        qty: fc.integer({ min: 1, max: 3 }),
        price: fc.integer({ min: 1, max: 5 }),
      }),
      { maxLength: 7 },
    ),
  });
  const built = ({ qty, sellers, offers }: typeof market extends fc.Arbitrary<infer T> ? T : never) => {
    const needs = qty.map((count, i) => ({ part: `brick-1x${i + 1}`, colour: 'slate', qty: count }));
    const seen = new Set<string>();
    const stated: Market = {
      sellers: sellers.map((one, i) => ({ ...one, name: `s${i}`, days: i + 1 })),
      offers: offers.flatMap(({ line, seller, qty: stock, price }) => {
        const key = `${line} ${seller}`;
        if (line >= qty.length || seller >= sellers.length || seen.has(key)) return [];
        seen.add(key);
        return [{ seller: `s${seller}`, part: `brick-1x${line + 1}`, colour: 'slate', qty: stock, price }];
      }),
    };
    return { needs, market: stated };
  };
  /** Every way of taking pieces from offers; null when none is complete. */
  const leastCost = (
    needs: ReturnType<typeof built>['needs'],
    { sellers, offers }: Market,
    maxOrders = 9,
  ): number | null => {
    let best: number | null = null;
    const taken = offers.map(() => 0);
    const left = needs.map(({ qty }) => qty);
    const visit = (i: number) => {
      if (i === offers.length) {
        if (left.some((qty) => qty > 0)) return;
        let [total, used] = [0, 0];
        for (const { name, shipping, minOrder } of sellers) {
          const goods = offers.reduce(
            (sum, offer, k) => sum + (offer.seller === name ? taken[k] * offer.price : 0),
            0,
          );
          const any = offers.some((offer, k) => offer.seller === name && taken[k] > 0);
          if (any && goods < minOrder) return;
          if (any) used++;
          total += goods + (any ? shipping : 0);
        }
        if (used <= maxOrders) best = best === null ? total : Math.min(best, total);
        return;
      }
      const line = needs.findIndex(({ part }) => part === offers[i].part);
      for (let qty = 0; qty <= Math.min(offers[i].qty, left[line]); qty++) {
        taken[i] = qty;
        left[line] -= qty;
        visit(i + 1);
        left[line] += qty;
      }
      taken[i] = 0;
    };
    visit(0);
    return best;
  };
  test('the cheapest complete purchase, its bound never above, by brute force; also with few parcels', async () => {
    const highs = await loadHighs();
    fc.assert(
      fc.property(market, fc.integer({ min: 1, max: 3 }), (small, maxOrders) => {
        const { needs, market: stated } = built(small);
        for (const most of [undefined, maxOrders]) {
          const least = leastCost(needs, stated, most);
          const plain = source(needs, stated, { ...seconds, maxOrders: most });
          if (plain.ok && least !== null) {
            expect(plain.purchase.bound).toBeLessThanOrEqual(least + 1e-6);
            expect(plain.purchase.total).toBeGreaterThanOrEqual(least - 1e-6);
          }
          const exact = source(needs, stated, { ...seconds, maxOrders: most, highs });
          expect(exact.ok).toBe(least !== null);
          if (exact.ok && least !== null) {
            expect(exact.purchase.total).toBeCloseTo(least, 6);
            expect(exact.purchase.lines.reduce((sum, { qty }) => sum + qty, 0)).toBe(
              needs.reduce((sum, { qty }) => sum + qty, 0),
            );
          }
        }
      }),
      { numRuns: runs(60) },
    );
  });
  test('what stands on a draft is not ordered again: by section, for none, for any colour; sent or bound, as before', () => {
    const need = (
      id: string,
      colour: string,
      section: string | null,
      short: number,
      source: 'kits' | null = null,
    ) => ({
      ...{ given: [], own: 0, handed: 0, ordered: 0, late: 0, substituted: 0, short },
      demand: {
        ...{ id, part: 'brick-2x4', colour, section, source, purpose: 'core' as const, from: [], needs: [] },
        ...{ qty: short, counted: short, by: null, person: null, list: null },
      },
    });
    const rows = [
      need('any', ANY_COLOUR, 'a', 10),
      need('slate a', 'slate', 'a', 10),
      need('slate b', 'slate', 'b', 10),
      need('kit', 'slate', 'a', 10, 'kits'),
    ];
    const draft = (state: 'draft' | 'sent', ...lines: [string, number, string | null][]) => ({
      state,
      lines: lines.map(([colour, qty, section]) => ({
        ...{ part: 'brick-2x4', colour, qty, section, price: 0, came: 0 },
      })),
    });
    const left = (...orders: ReturnType<typeof draft>[]) => Object.fromEntries(toOrder(rows, orders));
    expect(left()).toEqual({ any: 10, 'slate a': 10, 'slate b': 10 });
    expect(left(draft('sent', ['slate', 30, 'a']))).toEqual({ any: 10, 'slate a': 10, 'slate b': 10 });
    expect(left(draft('draft', ['slate', 4, 'a'], ['slate', 3, null]))).toEqual({
      ...{ any: 10, 'slate a': 3, 'slate b': 10 },
    });
    // Twelve for section A: ten of them in slate, two to the need of any colour; moss for none to that one alone.
    expect(left(draft('draft', ['slate', 12, 'a'], ['moss', 5, null]))).toEqual({ any: 3, 'slate b': 10 });
    expect(linesToOrder(rows, [draft('draft', ['slate', 4, 'a'])], 'a')).toEqual([
      { part: 'brick-2x4', colour: ANY_COLOUR, qty: 10 },
      { part: 'brick-2x4', colour: 'slate', qty: 6 },
    ]);
    // All of it drafted as it is told, nothing is left to order.
    const all = linesToOrder(rows, [], '').map(({ colour, qty }): [string, number, null] => [
      colour,
      qty,
      null,
    ]);
    expect(linesToOrder(rows, [draft('draft', ...all)], '')).toEqual([]);
  });
  test('what is said to be buyable is bought in full: colours that share offers, near ones, any (random markets)', async () => {
    const highs = await loadHighs();
    const colours = [...PALETTE.slice(0, 5).map(({ id }) => id), ANY_COLOUR];
    const part = fc.constantFrom('brick-2x4', 'brick-1x2');
    const line = fc.record({
      part,
      colour: fc.constantFrom(...colours),
      qty: fc.integer({ min: 1, max: 9 }),
    });
    const offer = fc.record({
      part,
      colour: fc.constantFrom(...PALETTE.slice(0, 9).map(({ id }) => id)),
      qty: fc.integer({ min: 1, max: 9 }),
      seller: fc.constantFrom('s0', 's1'),
      price: fc.integer({ min: 1, max: 5 }),
    });
    const total = (lines: readonly { qty: number }[]) => lines.reduce((sum, { qty }) => sum + qty, 0);
    fc.assert(
      fc.property(
        fc.array(line, { maxLength: 8 }),
        fc.array(offer, { maxLength: 12 }),
        fc.boolean(),
        (wanted, offers, nearer) => {
          const needs = mergeLines(wanted);
          const sellers = ['s0', 's1'].map((name) => ({ name, shipping: 1, minOrder: 0, days: 1 }));
          const stated = { sellers, offers };
          const { lines, missing, swapped } = buyable(needs, stated, nearer);
          expect(total(lines) + total(missing)).toBe(total(needs));
          if (!nearer) expect(swapped).toEqual([]);
          if (lines.length > 0)
            expect(source(lines, stated, { ...seconds, highs })).toMatchObject({ ok: true });
          // Nothing is said to be missing that is on offer: of each part by itself, in the right colour first.
          for (const { part: id, colour } of nearer ? [] : missing) {
            const left = (of: string) =>
              total(offers.filter((one) => one.part === id && (of === ANY_COLOUR || one.colour === of))) -
              total(lines.filter((one) => one.part === id && (of === ANY_COLOUR || one.colour === of)));
            expect(left(colour)).toBe(0);
          }
        },
      ),
      { numRuns: runs(150) },
    );
  });
  test('an offer for nothing bounds no order from below: by hand', async () => {
    const [piece, any] = [{ part: 'brick-2x4' }, 'any'];
    const offers = [
      { seller: 's0', colour: 'slate', qty: 2, price: 1 },
      { seller: 's0', colour: 'moss', qty: 2, price: 0 },
      { seller: 's0', colour: 'moss', qty: 1, price: 1 },
      { seller: 's1', colour: 'moss', qty: 2, price: 0 },
    ].map((one) => ({ ...one, ...piece }));
    const needs = [
      { ...piece, colour: 'slate', qty: 1 },
      { ...piece, colour: 'moss', qty: 2 },
      { ...piece, colour: any, qty: 2 },
    ];
    const sellers = [2, 0].map((minOrder, i) => ({ shipping: 0, minOrder, name: `s${i}`, days: 1 }));
    // Two of slate reach the least order of 2; three of moss cost nothing.
    const answer = source(needs, { sellers, offers }, { ...seconds, highs: await loadHighs() });
    expect(answer).toMatchObject({ ok: true, purchase: { total: 2, bound: 2 } });
  });
  test('a need of any colour and needs of one share an offer: nothing is bought twice (brute force)', async () => {
    const highs = await loadHighs();
    const colours = ['slate', 'moss', 'any'] as const;
    const stalls = fc.record({
      wants: fc.tuple(fc.nat(3), fc.nat(3), fc.integer({ min: 1, max: 3 })),
      sellers: fc.array(fc.record({ shipping: fc.nat(4), minOrder: fc.nat(4) }), {
        minLength: 1,
        maxLength: 2,
      }),
      offers: fc.array(
        fc.record({
          seller: fc.nat(1),
          colour: fc.nat(1),
          qty: fc.integer({ min: 1, max: 4 }),
          price: fc.nat(3),
        }),
        { minLength: 1, maxLength: 4 },
      ),
    });
    fc.assert(
      fc.property(stalls, ({ wants, sellers, offers }) => {
        const needs = wants.map((qty, i) => ({ part: 'brick-2x4', colour: colours[i], qty }));
        const stated: Market = {
          sellers: sellers.map((one, i) => ({ ...one, name: `s${i}`, days: 1 })),
          offers: offers
            .filter(({ seller }) => seller < sellers.length)
            .map(({ seller, colour, qty, price }) => ({
              seller: `s${seller}`,
              part: 'brick-2x4',
              colour: colours[colour],
              qty,
              price,
            })),
        };
        // So many of each offer that each colour is had, and as many in all as are wanted.
        let least: number | null = null;
        const taken = stated.offers.map(() => 0);
        const visit = (i: number): void => {
          if (i < taken.length) {
            for (let qty = 0; qty <= stated.offers[i].qty; qty++) {
              taken[i] = qty;
              visit(i + 1);
            }
            taken[i] = 0;
            return;
          }
          const of = (colour: string) =>
            taken.reduce((sum, qty, k) => sum + (stated.offers[k].colour === colour ? qty : 0), 0);
          const all = taken.reduce((sum, qty) => sum + qty, 0);
          if (all !== wants[0] + wants[1] + wants[2] || of('slate') < wants[0] || of('moss') < wants[1])
            return;
          let total = 0;
          for (const { name, shipping, minOrder } of stated.sellers) {
            const mine = taken.flatMap((qty, k) =>
              stated.offers[k].seller === name && qty > 0 ? [qty * stated.offers[k].price] : [],
            );
            const goods = mine.reduce((sum, one) => sum + one, 0);
            if (mine.length > 0 && goods < minOrder) return;
            total += goods + (mine.length > 0 ? shipping : 0);
          }
          least = least === null ? total : Math.min(least, total);
        };
        visit(0);
        const answer = source(needs, stated, { ...seconds, highs });
        expect(answer.ok).toBe(least !== null);
        if (!answer.ok || least === null) return;
        expect(answer.purchase.total).toBeCloseTo(least, 6);
        expect(answer.purchase.bound).toBeLessThanOrEqual(answer.purchase.total + 1e-6);
        // Each line bought names a colour that its seller has, and no more of it than is there.
        for (const { seller, colour, price, qty } of answer.purchase.lines) {
          const has = stated.offers.filter(
            (offer) => offer.seller === seller && offer.colour === colour && offer.price === price,
          );
          expect(has.reduce((sum, offer) => sum + offer.qty, 0)).toBeGreaterThanOrEqual(qty);
        }
      }),
      { numRuns: runs(120) },
    );
  });
  test('what cannot be is told from what was not found', async () => {
    const stall: Market = {
      sellers: [{ name: 'Ash', shipping: 1, minOrder: 3, days: 1 }],
      offers: [{ seller: 'Ash', ...brick, qty: 5, price: 0 }],
    };
    // Free pieces make no order of three.
    const proven = source([{ ...brick, qty: 5 }], stall, { ...seconds, highs: await loadHighs() });
    expect(proven).toMatchObject({ ok: false, reason: expect.stringContaining('exists') });
    expect(source([{ ...brick, qty: 5 }], stall, seconds)).toMatchObject({
      ok: false,
      reason: expect.stringContaining('not proven'),
    });
  });
  test('what no offer covers is named', () => {
    const answer = source(
      [{ ...brick, qty: 5 }],
      {
        sellers: [{ name: 'a', shipping: 0, minOrder: 0, days: 1 }],
        offers: [{ seller: 'a', ...brick, qty: 3, price: 1 }],
      },
      seconds,
    );
    expect(answer).toEqual({
      ok: false,
      uncovered: [{ ...brick, qty: 2 }],
      reason: 'No offer covers 1 line in full.',
    });
  });
  test('in the simulated market: fewer parcels cost more, sooner costs more, and it is the same each time', () => {
    const needs = ['brick-2x4', 'brick-2x2', 'plate-2x4', 'tile-2x2'].flatMap((part) =>
      ['slate', 'moss', 'pebble'].map((colour) => ({ part, colour, qty: 40 })),
    );
    const stated = simulatedMarket(needs, 3);
    expect(stated).toEqual(simulatedMarket(needs, 3));
    const cheapest = source(needs, stated, seconds);
    const few = fewestParcels(needs, stated, seconds);
    const soon = soonest(needs, stated, seconds);
    if (!cheapest.ok || !few.ok || !soon.ok) throw new Error('the market does not cover this');
    expect(few.purchase.sellers.length).toBeLessThanOrEqual(cheapest.purchase.sellers.length);
    expect(few.purchase.total).toBeGreaterThanOrEqual(cheapest.purchase.total - 1e-6);
    expect(soon.purchase.days).toBeLessThanOrEqual(cheapest.purchase.days ?? 0);
    expect(soon.purchase.total).toBeGreaterThanOrEqual(cheapest.purchase.total - 1e-6);
  });
});

describe('orders', () => {
  const scene = sceneOf([
    add('order', 'o', {
      name: 'Greys',
      by: 'ada',
      state: 'mail',
      expected: '2031-05-01',
      guess: 20,
      paid: 31.01,
      postage: 4,
      shares: [
        { person: 'ada', share: 1 },
        { person: 'bo', share: 2 },
      ],
      lines: [
        { ...brick, qty: 100, price: 0.2, section: 'a' },
        { part: 'plate-1x2', colour: 'moss', qty: 50, price: 0.2, section: 'b' },
      ],
    }),
    add('lot', 'drawer', { ...brick, qty: 7, owner: 'ada', place: 'drawer 4' }),
  ]);
  const order: Order = scene.order.o;
  test('half of it arrives: the lines say so, the drawer has it, the rest is still on its way', () => {
    const done = reduce(
      scene,
      receive(scene, order, [60, 10], 'drawer 4', (i) => `new-${i}`),
    );
    if (!done.ok) throw new Error(done.refusal.sentence);
    expect(done.scene.order.o.state).toBe('part');
    expect(done.scene.lot.drawer.qty).toBe(67);
    expect(done.scene.lot['new-1']).toMatchObject({ part: 'plate-1x2', qty: 10, owner: 'ada' });
    expect(
      suppliesOf(done.scene)
        .filter(({ kind }) => kind === 'order')
        .map(({ qty }) => qty),
    ).toEqual([40, 40]);
    const rest = reduce(
      done.scene,
      receive(done.scene, done.scene.order.o, [40, 40], 'drawer 4', (i) => `more-${i}`),
    );
    expect(rest.ok && rest.scene.order.o.state).toBe('away');
    expect(rest.ok && suppliesOf(rest.scene).filter(({ kind }) => kind === 'order')).toEqual([]);
  });
  test('lateness in days, the next state, cost by section, and a split that sums to the cent', () => {
    expect([
      daysLate(order, '2031-05-04'),
      daysLate(order, '2031-04-30'),
      daysLate({ ...order, state: 'away' }, '2031-06-01'),
    ]).toEqual([3, 0, 0]);
    expect([nextStates('draft'), nextStates('away')]).toEqual([['sent'], []]);
    const costs = costBySection(scene);
    expect(costs.map(({ section, guess }) => [section, Number(guess.toFixed(2))])).toEqual([
      ['a', 13.33],
      ['b', 6.67],
    ]);
    expect(balances(scene)).toEqual([
      { person: 'ada', paid: 31.01, bears: 10.34, owed: 20.67 },
      { person: 'bo', paid: 0, bears: 20.67, owed: -20.67 },
    ]);
  });
  test('by weight: 46 g of bricks 2 × 4 are 20 (from memory: 2.3 g each); as weighed when somebody did', () => {
    expect(piecesByWeight('brick-2x4', 46)?.pieces).toBe(20);
    expect(
      piecesByWeight('brick-2x4', 50, { 'brick-2x4': { grams: 2.5, price: null, family: 'brick' } })?.pieces,
    ).toBe(20);
  });
  test('placeholders: the ones visitors see come first', () => {
    const placed = sceneOf([
      add('placeholder', 'back', { ...brick, stands: 'rust', x: 10, y: 2 }),
      add('placeholder', 'front', { ...brick, stands: 'rust', x: 10, y: 30 }),
      add('placeholder', 'done', { ...brick, stands: 'rust', x: 10, y: 31, swapped: '2031-01-01' }),
      add('lot', 'l', { ...brick, qty: 3, owner: 'ada' }),
    ]);
    const list = waitingPlaceholders(placed, { x: 0, y: 0, w: 80, d: 32 }, ['s'], suppliesOf(placed));
    expect(list.map(({ placeholder, seen, here }) => [placeholder.id, seen, here])).toEqual([
      ['front', true, 1],
      ['back', true, 1],
    ]);
    expect(waitingPlaceholders(placed, null, [], [])[0].seen).toBeNull();
    // Two wait for one piece that is here and two of an order: what is there is given once.
    const order = { id: 'o', part: 'brick-2x4', colour: 'slate', qty: 2, from: '2031-06-09', person: null };
    const supplies = [
      { ...order, kind: 'order' as const, place: 'Walls', section: null, isWorn: false },
      {
        ...order,
        id: 'l',
        kind: 'lot' as const,
        from: null,
        qty: 1,
        place: '',
        section: null,
        isWorn: false,
      },
    ];
    const two = sceneOf([
      add('placeholder', 'back', { ...brick, qty: 3, stands: 'rust', x: 10, y: 2 }),
      add('placeholder', 'front', { ...brick, stands: 'rust', x: 10, y: 30 }),
    ]);
    expect(
      waitingPlaceholders(two, { x: 0, y: 0, w: 80, d: 32 }, ['s'], supplies).map((one) => [
        ...[one.placeholder.id, one.here, one.coming, one.comes],
      ]),
    ).toEqual([
      ['front', 1, 0, null],
      ['back', 0, 2, '2031-06-09'],
    ]);
  });
});

describe('lists', () => {
  const none = new Map<string, string>();
  test('columns are guessed from their headings', () => {
    expect(guessColumns(['Drawer', 'Piece', 'Colour', 'Qty', 'Price each', 'Notes'])).toEqual([
      'place',
      'part',
      'colour',
      'qty',
      'price',
      'none',
    ]);
  });
  test('rows are read, put together, or reported with their number and reason', () => {
    const read = readRows(
      [
        ['brick 2x4', 'Slate', '10'],
        ['2 × 4 brick', 'slate', '5'],
        ['brick 2x4', 'dark gray', '2'],
        ['widget', 'slate', '1'],
        ['brick 2x4', 'slate', 'ten'],
        ['', 'slate', '3'],
        ['', '', ''],
      ],
      ['part', 'colour', 'qty'],
      none,
      new Set(),
    );
    expect(read.lines).toEqual([{ ...brick, qty: 15, place: '', price: null, owner: null }]);
    expect(read.rows).toBe(6);
    expect(read.bad).toEqual([
      { row: 4, reason: 'the colour “dark gray” is not known' },
      { row: 5, reason: 'the part “widget” is not known' },
      { row: 6, reason: '“ten” is no quantity from 0 to 1,000,000' },
      { row: 7, reason: 'no part is named' },
    ]);
    expect(read.unknown.find(({ word }) => word === 'dark gray')?.offers.length).toBe(3);
    const taught = readRows(
      [['widget', 'dark gray', '2']],
      ['part', 'colour', 'qty'],
      new Map([
        ['part widget', 'brick-1x1'],
        ['colour dark gray', 'basalt'],
      ]),
      new Set(),
    );
    expect(taught.lines).toEqual([
      { part: 'brick-1x1', colour: 'basalt', qty: 2, place: '', price: null, owner: null },
    ]);
  });
  test('a list of offers becomes a market; bad rows are left out with their reason', () => {
    const head = ['seller', 'part', 'colour', 'qty', 'price', 'shipping', 'min_order', 'days'];
    const read = readOffers([
      head,
      ['Ash', 'brick 2x4', 'Slate', '40', '0,12', '3.5', '', '4'],
      ['Beech', 'brick 2x4', 'Slate', '10', '0.1', '2', '5', ''],
      ['', 'brick 2x4', 'Slate', '10', '0.1', '2', '5', ''],
      ['Cedar', 'brick 2x4', 'plaid', '10', '0.1', '2', '5', ''],
      ['Cedar', 'brick 2x4', 'Slate', '1.5', '0.1', '2', '5', ''],
      ['Cedar', 'brick 2x4', 'Slate', '10', '-1', '2', '5', ''],
    ]);
    if (!read.ok) throw new Error(read.error);
    expect(read.market.sellers).toEqual([
      { name: 'Ash', shipping: 3.5, minOrder: 0, days: 4 },
      { name: 'Beech', shipping: 2, minOrder: 5, days: null },
    ]);
    expect(read.market.offers[0]).toEqual({ seller: 'Ash', ...brick, qty: 40, price: 0.12 });
    expect(read.bad).toEqual([
      { row: 4, reason: 'no seller is named' },
      { row: 5, reason: 'the colour “plaid” is not known' },
      { row: 6, reason: '“1.5” is no whole quantity from 0 to 1,000,000' },
      { row: 7, reason: '“-1” is no price from 0 to 1,000,000' },
    ]);
    expect(readOffers([['seller', 'part']])).toEqual({ ok: false, error: 'the column “colour” is missing' });
  });
  test('numbers are read as the whole column writes them (by hand)', () => {
    const qty = (...cells: string[]) => {
      const read = readRows(
        cells.map((cell, i) => [`brick 1x${i + 1}`, cell]),
        ['part', 'qty'],
        none,
        new Set(),
      );
      return [read.lines.map((line) => line.qty), read.bad.length];
    };
    expect(qty('1,000', '12', '12,000')).toEqual([[1000, 12, 12_000], 0]);
    expect(qty('1.000', '12')).toEqual([[1000, 12], 0]);
    expect(qty('1 250', '1’250', '3 pcs', '1,234,567')).toEqual([[1250, 1250, 3], 1]);
    expect(qty('12.0', '1,000')).toEqual([[12, 1000], 0]);
    // A comma parts decimals here, so that 1.000 is a thousand and 1,5 no whole number.
    expect(qty('12,0', '1.000', '1,5')).toEqual([[12, 1000], 1]);
    const prices = (...cells: string[]) =>
      readRows(
        cells.map((cell, i) => [`brick 1x${i + 1}`, '1', cell]),
        ['part', 'qty', 'price'],
        none,
        new Set(),
      ).lines.map(({ price }) => price);
    expect(prices('0,12', '1,250', '3.000,50 €')).toEqual([0.12, 1.25, 3000.5]);
    expect(prices('0.12', '1,250', '$3,000.50')).toEqual([0.12, 1250, 3000.5]);
    expect(
      readRows([['brick 1x1', '1,000']], ['part', 'qty'], none, new Set(), { decimal: ',' }).lines,
    ).toEqual([expect.objectContaining({ qty: 1 })]);
  });
  test('a number written in either style reads back, whatever stands around it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 9_999_999 }),
        fc.constantFrom('.' as const, ',' as const),
        fc.constantFrom('', '€ ', '$'),
        fc.constantFrom('', ' kr', '€'),
        fc.boolean(),
        (cents, decimal, before, after, grouped) => {
          const text = (cents / 100).toLocaleString('en', { minimumFractionDigits: 2, useGrouping: grouped });
          const written =
            decimal === '.' ? text : text.replace(/[.,]/g, (mark) => (mark === '.' ? ',' : '.'));
          expect(numberStyleOf([written])).toEqual({ decimal, sure: true });
          expect(readNumber(before + written + after, decimal)).toBe(cents / 100);
        },
      ),
    );
  });
  test('offers: nothing is free that has no price; remembered words and parts of one’s own are known', () => {
    const head = ['seller', 'part', 'colour', 'qty', 'price'];
    const read = readOffers(
      [
        head,
        ['Ash', 'brick 2x4', 'Slate', '', '0,12'],
        ['Ash', 'brick 2x4', 'Slate', '1.000', ''],
        ['Ash', 'own-foo', 'dark gray', '1.000', '0,12'],
      ],
      new Map([['colour dark gray', 'basalt']]),
      new Set(['own-foo']),
    );
    if (!read.ok) throw new Error(read.error);
    expect(read.market.offers).toEqual([
      { seller: 'Ash', part: 'own-foo', colour: 'basalt', qty: 1000, price: 0.12 },
    ]);
    expect(read.bad.map(({ row }) => row)).toEqual([2, 3]);
  });
  test('an owner’s column keeps whose pieces they are; whoever is not on the display is named', () => {
    const read = readRows(
      [
        ['brick 2x4', '10', 'Ada Fenn'],
        ['brick 2x4', '5', 'bm'],
        ['brick 2x4', '2', ''],
        ['brick 2x4', '1', 'Cy'],
      ],
      ['part', 'qty', 'owner'],
      none,
      new Set(),
      {
        people: new Map([
          ['ada fenn', 'ada'],
          ['bm', 'bo'],
        ]),
      },
    );
    expect(read.lines.map(({ qty, owner }) => [qty, owner])).toEqual([
      [10, 'ada'],
      [5, 'bo'],
      [2, null],
    ]);
    expect(read.bad).toEqual([{ row: 5, reason: '“Cy” is nobody of this display' }]);
  });
  test('everyday words for colours are offered by what they mean', () => {
    const offered = (word: string) =>
      readRows([['brick 1x1', word, '1']], ['part', 'colour', 'qty'], none, new Set()).unknown[0].offers;
    for (const [word, looks] of [
      ['black', '#1c1f22'],
      ['tan', '#cdb98a'],
      ['white', '#f4f2ec'],
      ['dark blue', '#1f4aa0'],
    ]) {
      const [first] = offered(word);
      const lab = labOf(looks);
      const nearest = nearColours(word.startsWith('dark') ? { ...lab, l: lab.l - 16 } : lab, 1, 'solid')[0]
        .colour.id;
      expect([word, first]).toEqual([word, nearest]);
    }
  });
  test('every row is in a line or reported: no piece is dropped silently', () => {
    const cell = fc.constantFrom(
      'brick 2x4',
      'plate 1x2',
      'nonsense',
      '',
      '12',
      '-3',
      'slate',
      'moss',
      '1e9',
    );
    fc.assert(
      fc.property(fc.array(fc.array(cell, { minLength: 3, maxLength: 3 }), { maxLength: 30 }), (rows) => {
        const read = readRows(rows, ['part', 'colour', 'qty'], none, new Set());
        const bad = new Set(read.bad.map(({ row }) => row));
        const sum = rows.reduce(
          (total, [, , qty], i) => total + (bad.has(i + 2) || qty.trim() === '' ? 0 : Number(qty)),
          0,
        );
        expect(read.lines.reduce((total, { qty }) => total + qty, 0)).toBe(sum);
      }),
    );
  });
});
