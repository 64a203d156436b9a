import fc from 'fast-check';
import { CATALOGUE, PALETTE } from '@quarry/core/catalogue';
import { readRows } from '@quarry/core/materials';
import { MAX_CHANGES, listOf, reduce, sceneFrom, type Kind, type Scene } from '@quarry/core/document';
import {
  NOTHING_THERE,
  ownPartId,
  existingList,
  takeIn,
  type Into,
  type ExistingList,
  type WordMeaning,
} from './takeIn.ts';
import { runs } from '../../../../../packages/core/test/runs.ts';

const empty = sceneFrom({
  display: { name: 'Drawers', kind: 'vignette' },
  people: [
    { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
    { id: 'bo', name: 'Bo Marl', initials: 'BM' },
  ],
  sections: [{ id: 'a', letter: 'A', name: 'All', x: 0, y: 0, w: 16, d: 16 }],
});
const people = new Map([
  ['ada fenn', 'ada'],
  ['bo marl', 'bo'],
]);
let made = 0;
const fresh = (kind: Kind) => `${kind.toLowerCase()}-${++made}`;

/** Takes rows of part, colour, pieces, price, drawer and owner in, as the sheet does; the batches must all land. */
function taken(
  scene: Scene,
  rows: readonly string[][],
  how: { into: Into; name?: string; section?: string | null; taught?: WordMeaning[]; there?: ExistingList },
): { scene: Scene; sizes: number[]; list: string | null; there: ExistingList } {
  const taught = how.taught ?? [];
  const read = readRows(
    rows,
    ['part', 'colour', 'qty', 'price', 'place', 'owner'],
    new Map(taught.map(({ about, word, means }) => [`${about} ${word.toLowerCase()}`, means])),
    new Set(taught.map(({ means }) => means)),
    { people },
  );
  expect(read.bad).toEqual([]);
  const where = { into: how.into, name: how.name ?? 'Attic', person: 'ada' };
  const there = how.there ?? existingList(scene, read.lines, where);
  const { batches, list } = takeIn(scene, read.lines, taught, {
    ...{ ...where, section: how.section ?? null, there, fresh },
  });
  let now = scene;
  for (const changes of batches) {
    const reduction = reduce(now, changes);
    if (!reduction.ok) throw new Error(reduction.refusal.sentence);
    now = reduction.scene;
  }
  return { scene: now, sizes: batches.map((changes) => changes.length), list, there };
}
const counts = (scene: Scene) =>
  listOf(scene, 'lot')
    .map(({ part, qty, place, owner }) => [part, qty, place, owner])
    .toSorted();

test('drawers taken in again are counted afresh; what is new in them is added, what they name no owner of is one’s own', () => {
  const first = taken(
    empty,
    [
      ['brick 2x4', 'Slate', '100', '', 'A1', ''],
      ['brick 2x4', 'Slate', '7', '', 'A1', 'Bo Marl'],
    ],
    { into: 'stock' },
  );
  const again = taken(
    first.scene,
    [
      ['brick 2x4', 'Slate', '80', '', 'A1', ''],
      ['brick 2x4', 'Slate', '80', '', 'A2', ''],
    ],
    { into: 'stock' },
  );
  expect(again.there.lots.size).toBe(1);
  expect(counts(again.scene)).toEqual([
    ['brick-2x4', 7, 'A1', 'bo'],
    ['brick-2x4', 80, 'A1', 'ada'],
    ['brick-2x4', 80, 'A2', 'ada'],
  ]);
  // Whoever says so has them added instead.
  const added = taken(again.scene, [['brick 2x4', 'Slate', '5', '', 'A2', '']], {
    into: 'stock',
    there: NOTHING_THERE,
  });
  expect(counts(added.scene)).toHaveLength(4);
});

test('a list of a name that is there takes its place, and its section only when one is said', () => {
  const rows = (qty: string) => [['plate 1x2', 'Moss', qty, '', '', '']];
  const first = taken(empty, rows('40'), { into: 'need', name: 'Mill', section: 'a' });
  const again = taken(first.scene, rows('50'), { into: 'need', name: ' Mill ' });
  expect(again.list).toBe(first.list);
  expect(listOf(again.scene, 'partList')).toMatchObject([
    { name: 'Mill', section: 'a', owner: null, lines: [{ part: 'plate-1x2', colour: 'moss', qty: 50 }] },
  ]);
  // A kit of that name is another list.
  const kit = taken(again.scene, rows('9'), { into: 'kit', name: 'Mill' });
  expect(listOf(kit.scene, 'partList').map(({ use, owner }) => [use, owner])).toEqual(
    expect.arrayContaining([
      ['need', null],
      ['kit', 'ada'],
    ]),
  );
  const moved = taken(first.scene, rows('50'), { into: 'kit', name: 'Mill', section: 'a' });
  expect(moved.list).not.toBe(first.list);
});

test('words and prices are remembered: a part of one’s own with its name, a price only where nobody said one (by hand)', () => {
  const own = ownPartId('Signal arm, old');
  expect(own).toBe('own-signal-arm-old');
  const { scene } = taken(
    empty,
    [
      ['Signal arm, old', 'Slate', '3', '1.50', '', ''],
      ['brick 2x4', 'Slate', '10', '0.10', '', ''],
      ['brick 2x4', 'Moss', '30', '0.20', '', ''],
    ],
    { into: 'need', taught: [{ about: 'part', word: 'Signal arm, old', means: own }] },
  );
  expect(scene.partType[own]).toMatchObject({ name: 'Signal arm, old', family: 'special', price: 1.5 });
  // (10 × 0.10 + 30 × 0.20) / 40 = 0.175.
  expect(scene.partType['brick-2x4']).toMatchObject({ family: 'brick', price: 0.18 });
  expect(listOf(scene, 'alias')).toMatchObject([{ word: 'Signal arm, old', means: own }]);
  const later = taken(scene, [['brick 2x4', 'Slate', '1', '9.00', '', '']], { into: 'need', name: 'Later' });
  expect(later.scene.partType['brick-2x4'].price).toBe(0.18);
});

test('twelve thousand drawers land in batches that each carry what one may', () => {
  const rows = Array.from({ length: 12_000 }, (_, i) => ['brick 2x4', 'Slate', '1', '', `drawer ${i}`, '']);
  const { scene, sizes } = taken(empty, rows, { into: 'stock' });
  expect(sizes).toEqual([MAX_CHANGES, MAX_CHANGES, 2000]);
  expect(listOf(scene, 'lot')).toHaveLength(12_000);
});

test('a list of more lines than one holds goes on in others; a shorter one takes fewer of them', () => {
  const every = CATALOGUE.flatMap(({ id }) => PALETTE.map(({ name }) => [id, name, '2', '', '', '']));
  const rows = every.slice(0, 5300);
  expect(rows).toHaveLength(5300);
  const first = taken(empty, rows, { into: 'need', name: 'All' });
  const lengths = (scene: Scene) => listOf(scene, 'partList').map(({ name, lines }) => [name, lines.length]);
  expect(lengths(first.scene)).toEqual([
    ['All', 5000],
    ['All (2)', 300],
  ]);
  const again = taken(first.scene, rows, { into: 'need', name: 'All' });
  expect(lengths(again.scene)).toEqual(lengths(first.scene));
  const less = taken(again.scene, rows.slice(0, 40), { into: 'need', name: 'All' });
  expect(lengths(less.scene)).toEqual([['All', 40]]);
});

test('whatever is taken in twice is there once, piece for piece', () => {
  const row = fc.record({
    part: fc.constantFrom(...CATALOGUE.slice(0, 6).map(({ id }) => id)),
    colour: fc.constantFrom('Slate', 'Moss', 'any'),
    qty: fc.integer({ min: 0, max: 999 }),
    place: fc.constantFrom('', 'A1', 'B 2'),
    owner: fc.constantFrom('', 'Ada Fenn', 'Bo Marl'),
  });
  fc.assert(
    fc.property(
      fc.array(row, { minLength: 1, maxLength: 20 }),
      fc.constantFrom<Into>('need', 'kit', 'stock'),
      (rows, into) => {
        const cells = rows.map(({ part, colour, qty, place, owner }) => [
          part,
          colour,
          String(qty),
          '',
          place,
          owner,
        ]);
        const pieces = (scene: Scene) =>
          [...listOf(scene, 'lot'), ...listOf(scene, 'partList').flatMap(({ lines }) => lines)].reduce(
            (sum, { qty }) => sum + qty,
            0,
          );
        const once = taken(empty, cells, { into });
        const twice = taken(once.scene, cells, { into });
        const all = rows.reduce((sum, { qty }) => sum + qty, 0);
        expect([pieces(once.scene), pieces(twice.scene)]).toEqual([all, all]);
      },
    ),
    { numRuns: runs(60) },
  );
});
