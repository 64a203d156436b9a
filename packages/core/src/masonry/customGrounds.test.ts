import fc from 'fast-check';
import { METHODS, reduce, sceneFrom } from '../document/index.ts';
import { compile, groundAt, indexAt, recompile } from '../terrain/index.ts';
import { randomDisplays } from '../../test/randomDisplays.ts';
import { runs } from '../../test/runs.ts';
import { SKIN, blockInputs, buildLayers, builtFrom, pieceId, verifyMasonry, type Fill } from './index.ts';

// Custom grounds: those that a display describes itself: layers of given colours under their cover.

/** Which layer of its ground each plate of each stud is, by the placed pieces: −1 for what is no layer. */
function underOf(
  { w, d }: Fill,
  { layers }: ReturnType<typeof buildLayers>,
): (i: number, z: number) => number {
  const found = new Map<number, number>();
  const size = w * d;
  for (const { laid, z, h, under } of layers) {
    if (under === undefined) continue;
    for (let p = 0; p < laid.length; p += 4)
      for (let y = laid[p + 1]; y < laid[p + 1] + laid[p + 3]; y++)
        for (let x = laid[p]; x < laid[p] + laid[p + 2]; x++)
          for (let at = z; at < z + h; at++) found.set(at * size + y * w + x, under);
  }
  return (i, z) => found.get(z * size + i) ?? -1;
}

/** Volumes of pieces by what they are for and their colour, studs × plates; cores left out. */
function volumesOf(scene: ReturnType<typeof sceneFrom>): [string, number][] {
  const volume = new Map<string, number>();
  for (const input of blockInputs(scene, compile(scene))) {
    const { masonry, colours } = builtFrom(input);
    masonry.layers.forEach(({ purpose, laid, h }, layer) => {
      for (let p = 0; purpose !== 'core' && p < laid.length; p += 4) {
        const key = `${purpose} ${colours[layer][p / 4]}`;
        volume.set(key, (volume.get(key) ?? 0) + laid[p + 2] * laid[p + 3] * h);
      }
    });
  }
  return [...volume].toSorted();
}

describe('layers under a cover', () => {
  test('of snow that is deeper below than above: its ice ends at 12 plates (by hand)', () => {
    const snow = (upTo: number | null) =>
      sceneFrom({
        display: { name: 'Field', kind: 'diorama', method: 'solid' },
        levels: [
          { id: 'low', name: 'Low', height: 12 },
          { id: 'high', name: 'High', height: 13 },
        ],
        footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 16, d: 16 }],
        customGrounds: [
          {
            ...{ id: 'custom-1', name: 'Snow', surface: 'tiles', colour: 'mist', side: 'loam' },
            layers: [
              { colour: 'chalk', plates: 1 },
              { colour: 'ice', plates: 4, upTo },
            ],
          },
        ],
        pads: [
          { id: 'p', name: 'West', x: 0, y: 0, w: 6, d: 16, level: 'low', ground: 'custom-1' },
          { id: 'q', name: 'East', x: 6, y: 0, w: 10, d: 16, level: 'high', ground: 'custom-1' },
        ],
      });
    // 96 studs at 12 plates, 160 at 13.
    const wanted = (ice: number) => [
      ['cover mist', 256],
      ['under chalk', 256],
      ['under ice', 4 * ice],
    ];
    expect(volumesOf(snow(null))).toEqual(wanted(256));
    expect(volumesOf(snow(12))).toEqual(wanted(96));
    expect(volumesOf(snow(13))).toEqual(wanted(256));
    expect(volumesOf(snow(11))).toEqual(wanted(0).slice(0, 2));
  });
  test('of snow: one plate of chalk and four of ice under tiles, the ice a brick and a plate (by hand)', () => {
    const scene = sceneFrom({
      display: { name: 'Field', kind: 'diorama', method: 'solid' },
      levels: [{ id: 'l', name: 'Field', height: 8 }],
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 16, d: 16 }],
      customGrounds: [
        {
          ...{ id: 'custom-1', name: 'Snow', surface: 'tiles', colour: 'mist', side: 'loam' },
          layers: [
            { colour: 'chalk', plates: 1 },
            { colour: 'ice', plates: 4 },
          ],
        },
      ],
      pads: [{ id: 'p', name: 'Field', x: 0, y: 0, w: 16, d: 16, level: 'l', ground: 'custom-1' }],
    });
    const [input] = blockInputs(scene, compile(scene));
    const { masonry } = builtFrom(input);
    // 256 studs, 8 plates: 1 of tiles, 1 of chalk, 4 of ice, 2 of what stands under them.
    expect(volumesOf(scene)).toEqual([
      ['cover mist', 256],
      ['under chalk', 256],
      ['under ice', 1024],
    ]);
    const ice = masonry.layers.filter(({ under }) => under === 1);
    expect(ice.map(({ z, h, family }) => [z, h, family])).toEqual([
      [2, 3, 'brick'],
      [5, 1, 'plate'],
    ]);
    expect(verifyMasonry({ ...builtFrom(input).ground.fill }, masonry)).toEqual([]);
  });
  test('any ground by any method: each plate under a cover is of the layer that lies so deep, as far as there is room', () => {
    const look = fc.record({
      skin: fc.constantFrom(SKIN.none, SKIN.natural, SKIN.plates, SKIN.tiles),
      layers: fc.array(fc.integer({ min: 1, max: 7 }), { maxLength: 3 }),
    });
    fc.assert(
      fc.property(
        fc.array(look, { minLength: 1, maxLength: 3 }),
        fc.integer({ min: 1, max: 12 }),
        fc.array(fc.tuple(fc.integer({ min: -1, max: 40 }), fc.nat(2)), { minLength: 12, maxLength: 120 }),
        fc.constantFrom(...METHODS),
        (looks, w, studs, method) => {
          const d = Math.floor(studs.length / w);
          if (d === 0) return;
          const cells = studs.slice(0, w * d);
          const lookAt = cells.map(([, number]) => number % looks.length);
          const fill: Fill = {
            ...{ w, d, deckMost: 16, span: 8, sheets: false, beyond: () => -1 },
            height: Int16Array.from(cells, ([height]) => height),
            method: new Uint8Array(w * d).fill(METHODS.indexOf(method)),
            skin: Uint8Array.from(lookAt, (number) => looks[number].skin),
            look: Uint8Array.from(lookAt),
            layersAt: (i) => looks[lookAt[i]].layers,
          };
          const masonry = buildLayers(fill);
          expect(verifyMasonry(fill, masonry)).toEqual([]);
          if (method === 'reuse') return;
          const under = underOf(fill, masonry);
          // Plates of cover or slope on each stud.
          const covered = new Uint8Array(w * d);
          for (const { laid, h, purpose } of masonry.layers)
            if (purpose === 'cover' || purpose === 'slope')
              for (let p = 0; p < laid.length; p += 4)
                for (let y = laid[p + 1]; y < laid[p + 1] + laid[p + 3]; y++)
                  covered.fill(h, y * w + laid[p], y * w + laid[p] + laid[p + 2]);
          for (let i = 0; i < w * d; i++) {
            const all = looks[lookAt[i]].layers.flatMap((plates, layer) =>
              new Array<number>(plates).fill(layer),
            );
            for (let z = 0; z < masonry.built[i]; z++) {
              const deep = masonry.built[i] - 1 - z;
              const wanted = covered[i] > 0 && deep >= covered[i] ? (all[deep - 1] ?? -1) : -1;
              expect([i, z, under(i, z)]).toEqual([i, z, wanted]);
            }
          }
        },
      ),
      { numRuns: runs(60) },
    );
  });
  test('on random displays pieces of a layer lie under studs of their ground, in its colour', () => {
    fc.assert(
      fc.property(randomDisplays, (scene) => {
        const compiled = compile(scene);
        for (const input of blockInputs(scene, compiled)) {
          if (input.block.part) continue;
          const { masonry, colours } = builtFrom(input);
          masonry.layers.forEach((layer, index) => {
            if (layer.under === undefined) return;
            for (let p = 0; p < layer.laid.length; p += 4) {
              const [x, y, w, d] = layer.laid.subarray(p, p + 4);
              for (let row = y; row < y + d; row++)
                for (let column = x; column < x + w; column++) {
                  const i = indexAt(compiled.relief, input.block.x + column, input.block.y + row);
                  const own = scene.customGround[groundAt(compiled.relief, i) ?? ''];
                  const top = compiled.relief.height[i];
                  const lying = own?.layers.filter(({ upTo }) => upTo === null || top <= upTo);
                  expect(lying?.[layer.under]?.colour).toBe(colours[index][p / 4]);
                }
              expect(pieceId(layer, w, d)).toMatch(/^(brick|plate)-/);
            }
          });
        }
      }),
      { numRuns: runs(25) },
    );
  });
});

test('a bank ends at what is judged as water: when that is another, the ground is compiled again', () => {
  const scene = sceneFrom({
    display: { name: 'Field', kind: 'diorama' },
    levels: [{ id: 'l', name: 'Field', height: 12 }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 24, d: 16 }],
    customGrounds: [{ id: 'custom-1', name: 'Molten rock', like: 'water', colour: 'poppy' }],
    pads: [{ id: 'p', name: 'Field', x: 0, y: 0, w: 24, d: 16, level: 'l', ground: 'custom-1' }],
    waters: [
      { id: 'w', name: 'Pool', x: 8, y: 4, w: 8, d: 8, level: 'l', offset: -6, bank: 3, ground: 'custom-1' },
    ],
  });
  const before = compile(scene);
  const changed = reduce(scene, [
    { op: 'patch', kind: 'customGround', id: 'custom-1', v: 1, set: { like: 'rock' } },
  ]);
  if (!changed.ok) throw new Error(changed.refusal.sentence);
  const { compiled } = recompile(before, changed.scene);
  expect([...compiled.relief.height]).toEqual([...compile(changed.scene).relief.height]);
  // All about is water at first, so that there is no bank; then there is one.
  const bank = indexAt(before.relief, 7, 8);
  expect([groundAt(before.relief, bank), groundAt(compiled.relief, bank)]).toEqual(['custom-1', 'sand']);
});
