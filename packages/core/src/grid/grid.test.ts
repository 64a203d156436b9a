import fc from 'fast-check';
import {
  BRICK,
  INCH,
  MM,
  PLATE,
  STUD,
  TICK,
  UNITS,
  formatChance,
  formatFeet,
  formatFit,
  formatHeight,
  formatInches,
  formatMm,
  formatPercent,
  formatPlates,
  formatStuds,
  intersection,
  outerSize,
  parseLength,
  studsIn,
  studsWithin,
  type Unit,
  unionArea,
} from './index.ts';

const read = (text: string, bare: Unit = 'stud') => {
  const parsed = parseLength(text, bare);
  if (!parsed.ok) throw new Error(parsed.error);
  return parsed.length;
};

describe('the grid (common practice, no source)', () => {
  test('a block of 6 studs by 5 bricks is a cube of 48 mm; 5 plates on their side are 2 studs', () => {
    expect(6 * STUD).toBe(5 * BRICK);
    expect(6 * STUD).toBe(48 * MM);
    expect(5 * PLATE).toBe(2 * STUD);
    expect(3 * PLATE).toBe(BRICK);
  });
  test('street connectors: 9 + 2 + 10 + 2 + 9 studs make a 32-stud front', () => {
    expect(read('9 studs + 2 studs + 10 studs + 2 studs + 9 studs')).toBe(32 * STUD);
  });
  test('outer size of n studs is 8n − 0.2 mm (from memory)', () => {
    expect(outerSize(48) / MM).toBeCloseTo(383.8, 9);
    expect(outerSize(0)).toBe(0);
    expect(() => outerSize(-1)).toThrow('-1');
    for (const studs of [1, 48, 95]) {
      expect(studsWithin(outerSize(studs))).toBe(studs);
      expect(studsWithin(outerSize(studs) - 1)).toBe(studs - 1);
    }
  });
});

describe('what people type', () => {
  test.each<[string, Unit, number]>([
    ['6b2p', 'stud', 6 * BRICK + 2 * PLATE],
    ['6 b 2 p', 'stud', 20 * PLATE],
    ['48 studs', 'mm', 384 * MM],
    ['384 mm', 'stud', 48 * STUD],
    ['15 1/8 in', 'mm', (121 * INCH) / 8], // 15.125 in = 384.175 mm (inch = 25.4 mm, 1959 agreement)
    ['15⅛ in', 'mm', (121 * INCH) / 8],
    ['1 ft 3 1/8 in', 'mm', (121 * INCH) / 8],
    ['12"', 'mm', 12 * INCH],
    ['1/2 stud', 'mm', 4 * MM],
    ['0,8 mm', 'stud', TICK],
    ['-3p', 'plate', -3 * PLATE],
    ['1.92 m', 'stud', 240 * STUD],
    ['7', 'plate', 7 * PLATE],
    ['.5', 'stud', STUD / 2],
    ['1,152 mm', 'stud', 144 * STUD],
  ])('%s (bare numbers: %s)', (text, bare, expected) => {
    expect(read(text, bare)).toBe(expected);
  });

  test.each([
    ['', 'is empty'],
    ['six', '“six”'],
    ['6 furlongs', '“furlongs” is not a unit'],
    ['6b 2', 'mixes numbers'],
    ['1/0 in', 'divides by zero'],
    ['1/3 in', 'finer than 1/64 in'],
    ['1000000000 studs', '10000 m'],
    ['NaN', 'cannot be read'],
    ['1e9', '“e” is not a unit'],
    ['9'.repeat(90), 'too long'],
  ])('%s is refused with the reason', (text, reason) => {
    const parsed = parseLength(text, 'stud', { name: 'Pad width' });
    expect(parsed).toMatchObject({ ok: false, error: expect.stringContaining(reason) });
    expect(parsed).toMatchObject({ error: expect.stringMatching(/^Pad width: /) });
  });

  test('limits name the field, the value and the limit', () => {
    const parsed = parseLength('0.3 studs', 'stud', { name: 'Pad width', step: STUD / 2 });
    expect(parsed).toEqual({
      ok: false,
      near: [0, STUD / 2],
      error: expect.stringContaining('0.3 studs is not a whole number of steps of 4 mm'),
    });
    // What people say and no step meets: told with the steps on both sides.
    const plates = (text: string) => parseLength(text, 'plate', { step: PLATE });
    expect(plates('36 in')).toMatchObject({
      error: expect.stringContaining('it is 285.75 plates; 95b or 95b1p would be'),
      near: [285 * PLATE, 286 * PLATE],
    });
    const feet: [string, number][] = [
      ['75 cm', 234],
      ['1.4 m', 437],
      ['3 ft', 285],
      ['5.5 ft', 523],
      ['4 ft 8 in', 444],
      ['2.5 bricks', 7],
      ['4\'8"', 444],
    ];
    for (const [text, below] of feet)
      expect(plates(text)).toMatchObject({ ok: false, near: [below * PLATE, (below + 1) * PLATE] });
    expect(parseLength('41.7 cm', 'stud', { step: STUD, max: 418_000_000 })).toMatchObject({
      near: [52 * STUD],
    });
    expect(parseLength('600', 'stud', { max: 512 * STUD })).toMatchObject({
      error: expect.stringContaining('512 stud'),
    });
  });
});

describe('what is printed', () => {
  test('remainders are told', () => {
    expect(formatFit(189 * MM, 'stud')).toBe('23.6 studs: 23 studs + 5 mm');
    expect(formatFit(48 * STUD, 'stud')).toBe('48 studs');
    expect(formatFit(10 * MM, 'brick')).toBe('1 brick: 1 brick + 0.4 mm');
    expect(formatHeight(BRICK * 6 + PLATE * 2)).toBe('6b2p');
    expect(formatHeight(0)).toBe('0b');
    expect(formatPlates(-4)).toBe('-1b1p');
    expect(formatMm(144 * STUD)).toBe('1,152 mm');
    expect(formatStuds(STUD)).toBe('1 stud');
    expect(formatInches((121 * INCH) / 8)).toBe('15 1/8 in');
    expect(formatInches(384 * MM)).toBe('≈ 15 1/8 in');
  });
  test('what is printed in studs, plates or inches is read back as the same length', () => {
    const halfStuds = fc.integer({ min: -20_000, max: 20_000 });
    fc.assert(fc.property(halfStuds, (n) => read(formatStuds((n * STUD) / 2)) === (n * STUD) / 2 + 0));
    fc.assert(fc.property(halfStuds, (n) => read(formatHeight(n * PLATE)) === n * PLATE + 0));
    fc.assert(fc.property(halfStuds, (n) => read(formatInches((n * INCH) / 16)) === (n * INCH) / 16 + 0));
  });
  test('every unit word of every unit reads as that unit', () => {
    for (const { length, words } of Object.values(UNITS))
      for (const word of words) expect(read(`3 ${word}`)).toBe(3 * length);
  });
});

describe('feet and inches', () => {
  test.each([
    [0, '0 in'],
    [INCH, '1 in'],
    [12 * INCH, '1 ft'],
    [86 * INCH + (5 * INCH) / 8, '7 ft 2 5/8 in'],
    [-13 * INCH, '-1 ft 1 in'],
    [2_750 * MM, '≈ 9 ft 1/4 in'],
    // A hair under a foot is told as the foot it rounds to.
    [12 * INCH - 1000, '≈ 1 ft'],
  ])('%i nm is %s', (length, words) => expect(formatFeet(length)).toBe(words));
  test('what is told is never farther off than 1/32 inch', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 20_000 }), (mm) => {
        const parsed = parseLength(formatFeet(mm * MM).replace('≈', ''), 'mm');
        return parsed.ok && Math.abs(parsed.length - mm * MM) <= INCH / 32;
      }),
    );
  });
});

describe('rectangles', () => {
  const rect = fc.record({
    x: fc.integer({ min: 0, max: 12 }),
    y: fc.integer({ min: 0, max: 12 }),
    w: fc.integer({ min: 1, max: 8 }),
    d: fc.integer({ min: 1, max: 8 }),
  });
  test('the union counts each stud once (brute force over studs)', () => {
    fc.assert(
      fc.property(fc.array(rect, { maxLength: 5 }), (rects) => {
        let count = 0;
        for (let x = 0; x < 20; x++)
          for (let y = 0; y < 20; y++) if (rects.some((r) => intersection(r, { x, y, w: 1, d: 1 }))) count++;
        return unionArea(rects) === count;
      }),
    );
  });
  test('a stud belongs by its centre, and rectangles that touch never share one', () => {
    expect(studsIn({ x: 0.5, y: 0, w: 2, d: 1 })).toEqual({ x: 0, y: 0, w: 2, d: 1 });
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 30 }),
        fc.integer({ min: 1, max: 30 }),
        fc.integer({ min: 1, max: 30 }),
        (x, a, b) => {
          const left = studsIn({ x: x / 2, y: 0, w: a / 2, d: 1 });
          const right = studsIn({ x: x / 2 + a / 2, y: 0, w: b / 2, d: 1 });
          return left.x + left.w === right.x;
        },
      ),
    );
  });
});

test.each([
  [0, '0 %'],
  [1e-12, '0 %'],
  [0.001, '< 1 %'],
  [0.005, '1 %'],
  [0.494, '49 %'],
  [0.9949, '99 %'],
  [0.996, '> 99 %'],
  // Of 20,000 pieces one is short.
  [19_999 / 20_000, '> 99 %'],
  // Three times a third of all, and what is left of it in floating point.
  [0.1 + 0.2 + 0.7, '100 %'],
  [1, '100 %'],
  [1.002, '> 100 %'],
  [1.12, '112 %'],
])('a share of %d is told as %s: all is said of all alone', (share, words) => {
  expect(formatPercent(share)).toBe(words);
});
test('a chance that was played is never sure', () => {
  expect([0, 0.3, 0.999, 1].map(formatChance)).toEqual(['< 1 %', '30 %', '> 99 %', '> 99 %']);
});
