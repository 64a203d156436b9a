import fc from 'fast-check';
import { runs } from '../../test/runs.ts';
import { hiddenAreas } from './index.ts';

/** The studs of the largest rectangle of hidden studs with no side below 2, every one tried. */
function slowLargest(hidden: readonly boolean[], w: number, d: number): number {
  let most = 0;
  for (let x = 0; x < w; x++)
    for (let y = 0; y < d; y++)
      for (let wide = 2; x + wide <= w; wide++)
        for (let deep = 2; y + deep <= d; deep++) {
          const studs = Array.from(
            { length: wide * deep },
            (_, k) => hidden[(y + Math.trunc(k / wide)) * w + x + (k % wide)],
          );
          if (studs.every(Boolean)) most = Math.max(most, studs.length);
        }
  return most;
}

test('areas that nobody sees are hidden, apart, and each is a largest of what is left', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 9 }),
      fc.integer({ min: 2, max: 8 }),
      fc.infiniteStream(fc.integer({ min: 0, max: 9 })),
      (w, d, stream) => {
        const hidden = Array.from({ length: w * d }, () => Number(stream.next().value) > 0);
        const areas = hiddenAreas(Uint8Array.from(hidden, Number), { x: -3, y: 5, w, d });
        const left = [...hidden];
        for (const area of areas) {
          expect(area.w * area.d).toBe(slowLargest(left, w, d));
          for (let k = 0; k < area.w * area.d; k++) {
            const i = (area.y - 5 + Math.trunc(k / area.w)) * w + area.x + 3 + (k % area.w);
            expect(left[i]).toBe(true);
            left[i] = false;
          }
        }
        expect(slowLargest(left, w, d)).toBeLessThan(16);
      },
    ),
    { numRuns: runs(100) },
  );
});
