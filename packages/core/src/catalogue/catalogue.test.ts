import { converter } from 'culori';
import fc from 'fast-check';
import {
  CATALOGUE,
  FAMILY_NAMES,
  PALETTE,
  coloursNamed,
  deltaE,
  colourDeltaE,
  deltaESeen,
  gramsOf,
  labOf,
  nearColours,
  partId,
  partName,
  partNamed,
  partOf,
  simulateVision,
} from './index.ts';

/** L, a, b of two colours and their difference: the 34 pairs of Sharma, Wu, Dalal 2005, table 1 (from memory). */
const PAIRS: readonly (readonly [number, number, number, number, number, number, number])[] = [
  [50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425],
  [50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615],
  [50, 2.8361, -74.02, 50, 0, -82.7485, 3.4412],
  [50, -1.3802, -84.2814, 50, 0, -82.7485, 1],
  [50, -1.1848, -84.8006, 50, 0, -82.7485, 1],
  [50, -0.9009, -85.5211, 50, 0, -82.7485, 1],
  [50, 0, 0, 50, -1, 2, 2.3669],
  [50, -1, 2, 50, 0, 0, 2.3669],
  [50, 2.49, -0.001, 50, -2.49, 0.0009, 7.1792],
  [50, 2.49, -0.001, 50, -2.49, 0.001, 7.1792],
  [50, 2.49, -0.001, 50, -2.49, 0.0011, 7.2195],
  [50, 2.49, -0.001, 50, -2.49, 0.0012, 7.2195],
  [50, -0.001, 2.49, 50, 0.0009, -2.49, 4.8045],
  [50, -0.001, 2.49, 50, 0.001, -2.49, 4.8045],
  [50, -0.001, 2.49, 50, 0.0011, -2.49, 4.7461],
  [50, 2.5, 0, 50, 0, -2.5, 4.3065],
  [50, 2.5, 0, 73, 25, -18, 27.1492],
  [50, 2.5, 0, 61, -5, 29, 22.8977],
  [50, 2.5, 0, 56, -27, -3, 31.903],
  [50, 2.5, 0, 58, 24, 15, 19.4535],
  [50, 2.5, 0, 50, 3.1736, 0.5854, 1],
  [50, 2.5, 0, 50, 3.2972, 0, 1],
  [50, 2.5, 0, 50, 1.8634, 0.5757, 1],
  [50, 2.5, 0, 50, 3.2592, 0.335, 1],
  [60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644],
  [63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.263],
  [61.2901, 3.7196, -5.3901, 61.4292, 2.248, -4.962, 1.8731],
  [35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645],
  [22.7233, 20.0904, -46.694, 23.0331, 14.973, -42.5619, 2.0373],
  [36.4612, 47.858, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146],
  [90.8027, -2.0831, 1.441, 91.1528, -1.6435, 0.0447, 1.4441],
  [90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381],
  [6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377],
  [2.0776, 0.0795, -1.135, 0.9033, -0.0636, -0.5514, 0.9082],
];

describe('colours', () => {
  test('differences of the 34 published pairs, to four digits, either way round', () => {
    for (const [l1, a1, b1, l2, a2, b2, apart] of PAIRS) {
      const [first, second] = [
        { l: l1, a: a1, b: b1 },
        { l: l2, a: a2, b: b2 },
      ];
      expect(deltaE(first, second)).toBeCloseTo(apart, 4);
      expect(deltaE(second, first)).toBeCloseTo(apart, 4);
    }
    expect(PAIRS).toHaveLength(34);
  });
  test('white, black and sRGB red in Lab under D65 (IEC 61966-2-1; published values)', () => {
    expect(labOf('#ffffff').l).toBeCloseTo(100, 3);
    expect(labOf('#000000').l).toBeCloseTo(0, 3);
    const red = labOf('#ff0000');
    expect([red.l, red.a, red.b].map((value) => Math.round(value * 10) / 10)).toEqual([53.2, 80.1, 67.2]);
    expect(() => labOf('red')).toThrow('“red” is no colour');
  });
  test('the palette: about 45 solid and 12 clear, names and ids once, solid ones told apart by the eye', () => {
    const of = (finish: string) => PALETTE.filter((colour) => colour.finish === finish);
    expect(of('solid').length).toBeGreaterThanOrEqual(45);
    expect(of('clear')).toHaveLength(12);
    expect(new Set(PALETTE.map(({ id }) => id)).size).toBe(PALETTE.length);
    for (const a of of('solid'))
      for (const b of of('solid')) if (a.id < b.id) expect(colourDeltaE(a.id, b.id)).toBeGreaterThan(3);
  });
  test('near colours come nearest first and keep the finish; the eye without red cannot tell moss from rust well', () => {
    const near = nearColours('slate', 5);
    expect(near.map(({ deltaE: far }) => far)).toEqual(
      near.map(({ deltaE: far }) => far).toSorted((a, b) => a - b),
    );
    expect(near.every(({ colour }) => colour.finish === 'solid' && colour.id !== 'slate')).toBe(true);
    const [rust, moss] = ['rust', 'moss'].map(
      (id) => PALETTE.find((colour) => colour.id === id) ?? PALETTE[0],
    );
    expect(deltaESeen(rust, moss, 'deutan')).toBeLessThan(deltaESeen(rust, moss, 'usual') / 2);
  });
  test('greys look the same to all eyes (a property of the simulation)', () => {
    const grey = converter('rgb');
    for (const sight of ['protan', 'deutan', 'tritan'] as const) {
      const seen = grey(simulateVision('#808080', sight));
      expect(Math.abs((seen?.r ?? 0) - (seen?.b ?? 1))).toBeLessThan(0.02);
    }
  });
  test('names that people write', () => {
    expect(coloursNamed(' SLATE ').exact?.id).toBe('slate');
    expect(coloursNamed('slaet').alike[0].id).toBe('slate');
    expect(coloursNamed('#66707b').alike[0].id).toBe('slate');
    expect(coloursNamed('quux')).toEqual({ exact: null, alike: [] });
  });
});

describe('parts', () => {
  test('an id is made of family and size, and read back to the same part', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...FAMILY_NAMES),
        fc.integer({ min: 1, max: 64 }),
        fc.integer({ min: 1, max: 64 }),
        fc.integer({ min: 1, max: 60 }),
        fc.option(fc.constantFrom(30, 33, 45, 65, 75), { nil: undefined }),
        (family, w, d, h, angle) => {
          const id = partId(family, w, d, h, angle);
          const part = partOf(id);
          expect(part).toMatchObject({ id, family, h });
          expect([part?.w, part?.d].toSorted()).toEqual([w, d].toSorted());
        },
      ),
    );
    expect(CATALOGUE.map(({ id }) => partOf(id)?.id)).toEqual(CATALOGUE.map(({ id }) => id));
    expect(new Set(CATALOGUE.map(({ id }) => id)).size).toBe(CATALOGUE.length);
  });
  test.each([
    ['brick-4x2', null],
    ['brick-2x4x1', null],
    ['brick-2x4x2p', 2],
    ['boat-2x4', null],
    ['brick-0x4', null],
  ])('%s is told one way only', (id, h) => {
    expect(partOf(id)?.h ?? null).toBe(h);
  });
  test.each([
    ['brick 2x4', 'brick-2x4'],
    ['2 × 4 Brick', 'brick-2x4'],
    ['4x2 bricks', 'brick-2x4'],
    ['Slope 45° 1x2', 'slope-1x2-45'],
    ['rock panel 4x6x6', 'rock-panel-6x4'],
    ['Plate, 6 x 16', 'plate-6x16'],
  ])('people write %s', (word, id) => {
    expect(partNamed(word)?.id).toBe(id);
  });
  test('names, and what is no part', () => {
    expect([
      partName('brick-2x4'),
      partName('slope-1x2-45'),
      partName('rock-panel-6x4'),
      partName('odd thing'),
    ]).toEqual(['brick 2×4', 'slope 1×2 45°', 'rock panel 6×4×6', 'odd thing']);
    expect([partNamed('banana'), partNamed('boat 2x4')]).toEqual([null, null]);
  });
  test('the name of every listed part means that part', () => {
    expect(
      CATALOGUE.filter(({ id }) => partNamed(partName(id))?.id !== id).map(({ id }) => partName(id)),
    ).toEqual([]);
  });
  test('masses by volume: a brick 2 × 4 about 2.3 g (from memory); bigger is heavier', () => {
    const grams = (id: string) => gramsOf(partOf(id) ?? CATALOGUE[0]);
    expect(Math.abs(grams('brick-2x4') - 2.3)).toBeLessThan(0.15);
    expect(grams('plate-2x4')).toBeLessThan(grams('brick-2x4'));
    expect(grams('tile-2x2')).toBeLessThan(grams('plate-2x2'));
    expect(grams('base-48x48')).toBeGreaterThan(350);
  });
});
