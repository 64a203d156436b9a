import { sceneFrom } from '../document/index.ts';
import { compile } from '../terrain/index.ts';
import { walkMesh } from '../visibility/index.ts';
import { CountCache, blockInputs, builtFrom, dressesOf } from './index.ts';

// A fell with snow from a height on: every stud of cover by itself.

const SNOW = 21;
const fell = (recipes: object[]) =>
  sceneFrom({
    display: { name: 'Fell', kind: 'diorama' },
    levels: [
      { id: 'l', name: 'Low', height: 3 },
      { id: 'dug', name: 'Dug', height: -6 },
    ],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 64, d: 32 }],
    modules: [{ id: 'm', name: 'M', x: 0, y: 0, w: 32, d: 32, bases: [] }],
    sections: [{ id: 's', letter: 'A', name: 'West', x: 0, y: 0, w: 32, d: 32 }],
    pads: [
      { id: 'p', name: 'Field', x: 0, y: 0, w: 64, d: 32, level: 'l', ground: 'grass' },
      { id: 'q', name: 'Pit', x: 2, y: 2, w: 4, d: 4, level: 'dug', ground: 'grass', order: 1 },
    ],
    hills: [{ id: 'h', name: 'Fell', x: 10, y: 2, w: 44, d: 28, level: 'l', height: 34, ground: 'grass' }],
    recipes: recipes.map((recipe, i) => ({ id: `r${i}`, name: `R${i}`, ground: 'grass', ...recipe })),
  } as never);
const tone = (colour: string) => ({ tones: [{ colour, share: 1 }] });

test('each stud is covered by the recipe that holds at its height, in the section with one first, dug ground too', () => {
  const scene = fell([
    tone('moss'),
    { ...tone('chalk'), above: SNOW },
    { ...tone('ice'), above: 30 },
    { ...tone('rust'), above: 30, section: 's' },
  ]);
  const compiled = compile(scene);
  const { relief } = compiled;
  const wanted = (x: number, y: number): string => {
    const height = relief.height[y * relief.w + x];
    if (x < 32 && height >= 30) return 'rust';
    return height >= 30 ? 'ice' : height >= SNOW ? 'chalk' : 'moss';
  };
  const wrong: string[] = [];
  const seen = new Set<string>();
  for (const input of blockInputs(scene, compiled)) {
    const { block } = input;
    const { masonry, colours } = builtFrom(input);
    masonry.layers.forEach(({ purpose, laid }, layer) => {
      if (purpose !== 'cover' && purpose !== 'slope') return;
      for (let p = 0; p < laid.length; p += 4)
        for (let y = laid[p + 1]; y < laid[p + 1] + laid[p + 3]; y++)
          for (let x = laid[p]; x < laid[p] + laid[p + 2]; x++) {
            const own = wanted(block.x + x, block.y + y);
            const colour = colours[layer][p / 4];
            seen.add(colour);
            // A slope takes the colour of the stud it begins on.
            if (purpose === 'cover' && colour !== own)
              wrong.push(`${block.x + x}, ${block.y + y}: ${colour}, not ${own}`);
          }
    });
  }
  expect(wrong.slice(0, 5)).toEqual([]);
  expect([...seen].toSorted()).toEqual(['chalk', 'ice', 'moss', 'rust']);
  // The walk shows the same, but for recipes of sections.
  const materials = walkMesh(scene, relief)?.parts.map(({ material }) => material) ?? [];
  expect(['colour moss', 'colour chalk', 'colour ice'].filter((one) => !materials.includes(one))).toEqual([]);
});

test('below the lowest recipe ground is as it is without one; a higher recipe changes nothing below it', () => {
  const dresses = dressesOf(fell([{ ...tone('chalk'), above: SNOW }]));
  const plain = dressesOf(fell([]));
  expect(dresses.of('grass', null, SNOW - 1)).toEqual(plain.of('grass', null));
  expect(dresses.of('grass', 's', SNOW).tones).toEqual([{ colour: 'chalk', share: 1 }]);
  expect([dresses.band(SNOW - 1), dresses.band(SNOW), plain.band(99)]).toEqual([0, 1, 0]);
  const counts = (recipes: object[]) => {
    const scene = fell(recipes);
    return new CountCache().count(scene, compile(scene))?.blocks.map(({ counted }) => counted.pieces);
  };
  // Higher than the fell: nothing is counted otherwise.
  expect(counts([{ ...tone('chalk'), above: 90 }])).toEqual(counts([]));
});
