import fc from 'fast-check';
import { compileRelief } from '../terrain/index.ts';
import { sceneFrom } from '../document/index.ts';
import { fileName, keyPlace, placeLabels, planScales, writePagePlan } from './index.ts';

const coordinate = fc.double({ min: 0, max: 300, noNaN: true });
const labels = fc.array(
  fc.record({
    at: fc.record({ x: coordinate, y: coordinate }),
    text: fc.string({ minLength: 1, maxLength: 20 }),
    size: fc.constantFrom(2, 4, 9),
    rank: fc.integer({ min: 1, max: 4 }),
  }),
  { maxLength: 60 },
);
const widthOf = (text: string, size: number) => 0.6 * size * text.length;

test('no label lies on another or outside the frame, and each is placed or left', () => {
  fc.assert(
    fc.property(labels, (all) => {
      const frame = { x: 0, y: 0, w: 300, d: 300 };
      const { placed, left } = placeLabels(all, widthOf, frame);
      expect(placed.length + left.length).toBe(all.length);
      const boxes = placed.map(({ at, width, size }) => [
        at.x - width / 2,
        at.x + width / 2,
        at.y - size / 2,
        at.y + size / 2,
      ]);
      boxes.forEach(([x0, x1, y0, y1], i) => {
        expect(x0 >= 0 && x1 <= 300 && y0 >= 0 && y1 <= 300).toBe(true);
        for (const [u0, u1, v0, v1] of boxes.slice(i + 1))
          expect(x0 < u1 && u0 < x1 && y0 < v1 && v0 < y1).toBe(false);
      });
    }),
  );
});

test('a label that has its place free stands there; of two on one place the smaller rank stays', () => {
  const here = { at: { x: 50, y: 50 }, size: 4 };
  const { placed } = placeLabels(
    [
      { ...here, text: 'low', rank: 3 },
      { ...here, text: 'high', rank: 1 },
    ],
    widthOf,
  );
  expect(placed[0]).toMatchObject({ text: 'high', at: { x: 50, y: 50 } });
  expect(placed[1].at).not.toEqual({ x: 50, y: 50 });
});

test('names on the picture of a crowded plan do not lie on each other; modules keep theirs', () => {
  const plots = Array.from({ length: 12 }, (_, i) => ({
    ...{ id: `p${i}`, name: `Signal cabin ${i}`, x: 20 + (i % 3), y: 8 + i, w: 6, d: 4, height: 9 },
  }));
  const scene = sceneFrom({
    display: { name: 'Crowd', kind: 'diorama' },
    levels: [{ id: 'l', name: 'Datum', height: 0 }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 32 }],
    modules: [{ id: 'm', name: 'A1', x: 18, y: 6, w: 30, d: 26, bases: [] }],
    plots,
  });
  const svg = writePagePlan(scene, compileRelief(scene), { textSize: 19 });
  const texts = [...svg.matchAll(/<text x="([\d.]+)" y="([\d.]+)" font-size="([\d.]+)">([^<]*)</g)].map(
    ([, x, y, size, text]) => ({ x: Number(x), y: Number(y), size: Number(size), text }),
  );
  expect(texts.map(({ text }) => text)).toContain('A1');
  expect(texts.length).toBeGreaterThan(3);
  // A letter of the page's face is about 0.55 of its size wide.
  texts.forEach((a, i) => {
    for (const b of texts.slice(i + 1)) {
      const near = Math.abs(a.x - b.x) < (0.55 * a.size * (a.text.length + b.text.length)) / 2;
      expect(near && Math.abs(a.y - b.y) < 0.7 * a.size).toBe(false);
    }
  });
});

test('scales that fit, by hand: 1,920 × 1,152 mm lies on A4 at 1 : 8 with its key below, a tall plan beside it', () => {
  // A4 lying down, less margins, foot, key and air: 269 × 146 mm below which the key stands.
  expect(keyPlace({ w: 1920, d: 1152 }, 8, 'a4')).toBe('below');
  expect(keyPlace({ w: 1920, d: 1152 }, 5, 'a4')).toBe(null);
  expect(keyPlace({ w: 800, d: 800 }, 5, 'a4')).toBe('beside');
  expect(planScales({ w: 1920, d: 1152 }, 'letter')[0]).toBe(8);
});

test('file names say what they are of, in letters of any script', () => {
  expect(fileName(['Skarn Edge', 'seam', 'A3', 'C1'], 'pdf')).toBe('skarn-edge-seam-a3-c1.pdf');
  expect(fileName(['Долина', '', '三 / 四'], 'csv')).toBe('долина-三-四.csv');
  expect(fileName(['…'], 'asc')).toBe('display.asc');
});
