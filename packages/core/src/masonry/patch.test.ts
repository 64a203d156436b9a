import { partOf } from '../catalogue/index.ts';
import { CUSTOM_GROUNDS, FIXED_GROUNDS, sceneFrom } from '../document/index.ts';
import { PATCH_SIDE, groundPatch } from './index.ts';

// What a square of each ground takes, against its area: every layer is covered once.

const scene = sceneFrom({
  display: { name: 'Any', kind: 'diorama' },
  recipes: [
    {
      ...{ id: 'r', name: 'Meadow', ground: 'grass', seed: 7 },
      tones: [
        { colour: 'moss', share: 3 },
        { colour: 'fern', share: 1 },
      ],
    },
  ],
  customGrounds: [
    {
      ...{ id: CUSTOM_GROUNDS[0], name: 'Snow', like: 'grass', colour: 'chalk' },
      layers: [{ colour: 'frost', plates: 2 }],
    },
  ],
});
const studs = PATCH_SIDE ** 2;
const volumeOf = (lines: readonly { part: string; qty: number }[]) =>
  lines.reduce((sum, { part, qty }) => {
    const piece = partOf(part);
    return sum + (piece ? piece.w * piece.d * piece.h * qty : NaN);
  }, 0);

test('a plain ground is one layer of plates or tiles: 256 studs of one plate, most pieces first', () => {
  for (const ground of FIXED_GROUNDS) {
    const { lines, pieces, thick } = groundPatch(scene, ground);
    expect(pieces).toBe(lines.reduce((sum, { qty }) => sum + qty, 0));
    expect(lines.map(({ qty }) => qty)).toEqual(lines.map(({ qty }) => qty).toSorted((a, b) => b - a));
    // What is one plate thick fills its volume; water and slopes of others have their own.
    if (thick === 1 && lines.every(({ part }) => partOf(part)?.h === 1))
      expect([ground, volumeOf(lines)]).toEqual([ground, studs]);
  }
});

test('tones stand in their shares, and layers under a cover add their plates', () => {
  const grass = groundPatch(scene, 'grass');
  const of = (colour: string) => volumeOf(grass.lines.filter((line) => line.colour === colour));
  // Three parts of four of 256 studs, cut out of a scatter that goes on: to a hundredth of them.
  expect(of('moss') + of('fern')).toBe(studs);
  expect(Math.abs(of('moss') - 192)).toBeLessThanOrEqual(3);
  const snow = groundPatch(scene, CUSTOM_GROUNDS[0]);
  expect(snow.thick).toBe(3);
  expect(volumeOf(snow.lines.filter(({ colour }) => colour === 'frost'))).toBe(2 * studs);
  expect(volumeOf(snow.lines)).toBe(3 * studs);
});
