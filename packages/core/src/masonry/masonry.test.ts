import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import loadHighs from 'highs';
import fc from 'fast-check';
import { partOf } from '../catalogue/index.ts';
import { compile } from '../terrain/index.ts';
import {
  KINDS,
  METHODS,
  readFile,
  reduce,
  sceneFrom,
  type Change,
  type Method,
  type Scene,
} from '../document/index.ts';
import { leastPieces, smallMasks } from '../../test/leastPieces.ts';
import { sceneOf } from '../../test/materials.ts';
import {
  BRICKS,
  CountCache,
  PLATES,
  SKIN,
  accentsOf,
  bendCounts,
  blueNoise,
  buildLayers,
  builtBlock,
  builtBlocks,
  countBlock,
  compareMethods,
  countedRelief,
  countMasonry,
  countsOf,
  dressMasonry,
  minHeightOf,
  paintedGround,
  pieceId,
  scatterOrder,
  tileLayer,
  verifyMasonry,
  type Dress,
  type Fill,
} from './index.ts';
import { COVERS, TILES } from './method.ts';
import { randomDisplays } from '../../test/randomDisplays.ts';
import { longTest, runs } from '../../test/runs.ts';

const fillOf = (heights: readonly number[], w: number, method: Method, set: Partial<Fill> = {}): Fill => ({
  w,
  d: heights.length / w,
  height: Int16Array.from(heights),
  method: new Uint8Array(heights.length).fill(METHODS.indexOf(method)),
  skin: null,
  beyond: () => -1,
  deckMost: 16,
  span: 8,
  sheets: false,
  ...set,
});
const flat = (w: number, d: number, height: number) => new Array<number>(w * d).fill(height);
const piecesOf = ({ layers }: ReturnType<typeof buildLayers>) =>
  layers.flatMap((layer) =>
    Array.from({ length: layer.laid.length / 4 }, (_, i) =>
      pieceId(layer, layer.laid[4 * i + 2], layer.laid[4 * i + 3]),
    ),
  );

describe('layers', () => {
  test('32 × 32 and 6 bricks high, solid: 768 bricks 2 × 4 (by hand)', () => {
    const fill = fillOf(flat(32, 32, 18), 32, 'solid');
    const masonry = buildLayers(fill);
    expect(piecesOf(masonry)).toEqual(new Array(768).fill('brick-2x4'));
    expect(verifyMasonry(fill, masonry)).toEqual([]);
    expect(masonry.layers.map(({ z }) => z)).toEqual([0, 3, 6, 9, 12, 15]);
  });
  test('no joint runs through it: each is bridged within three layers', () => {
    const { bond } = buildLayers(fillOf(flat(32, 32, 18), 32, 'solid'));
    expect(bond.through).toEqual([]);
    // In steps of two studs: a layer of 128 bricks has 352 joints and can bridge at most 128 of those below.
    expect(bond.bridged / bond.joints).toBeCloseTo(128 / 352, 2);
  });
  test('a tower one stud wide is one joint all the way, and is listed as such', () => {
    const heights = flat(2, 1, 30);
    const fill = fillOf(heights, 2, 'solid');
    expect(buildLayers(fill).bond.through).toEqual([]);
    const split = { ...fill, w: 3, d: 1, height: Int16Array.from([30, -1, 30]), method: new Uint8Array(3) };
    expect(verifyMasonry(split, buildLayers(split))).toEqual([]);
  });
  test('a raft of 32 × 32: four plates 16 × 16, a row under both sides of each joint, far fewer bricks than solid', () => {
    const fill = fillOf(flat(32, 32, 19), 32, 'raft');
    const masonry = buildLayers(fill);
    expect(piecesOf(masonry).filter((id) => id === 'plate-16x16')).toHaveLength(4);
    expect(verifyMasonry(fill, masonry)).toEqual([]);
    expect(masonry.span).toBeLessThanOrEqual(8);
    expect(piecesOf(masonry).length).toBeLessThan(768 * 0.5);
  });
  test('base sheets lie level with the plates of a deck', () => {
    const fill = fillOf(flat(48, 32, 10), 48, 'raft', { sheets: true });
    const masonry = buildLayers(fill);
    expect(verifyMasonry(fill, masonry)).toEqual([]);
    expect(piecesOf(masonry).filter((id) => id === 'base-32x32')).toHaveLength(1);
  });
  test('steps of whole bricks leave at most two plates away', () => {
    const fill = fillOf(
      Array.from({ length: 400 }, (_, i) => i % 20),
      20,
      'stepped',
    );
    const masonry = buildLayers(fill);
    expect(verifyMasonry(fill, masonry)).toEqual([]);
    const off = [...masonry.built].map((built, i) => fill.height[i] - built);
    expect([Math.min(...off), Math.max(...off)]).toEqual([0, 2]);
  });
  test('slopes by steepness: a fall of 9 plates gets the steepest, 2 plates the flattest; ways get tiles', () => {
    const slopes = (fall: number) => {
      const heights = Array.from({ length: 8 * 12 }, (_, i) => (i % 8 < 4 ? 12 : 12 - fall));
      const fill = fillOf(heights, 8, 'solid', { skin: new Uint8Array(96).fill(SKIN.natural) });
      const masonry = buildLayers(fill);
      expect(verifyMasonry(fill, masonry)).toEqual([]);
      return [
        ...new Set(
          piecesOf(masonry)
            .filter((id) => id.startsWith('slope'))
            .map((id) => partOf(id)?.angle),
        ),
      ];
    };
    expect([9, 6, 3, 2, 1].map(slopes)).toEqual([[75], [65], [45], [30], []]);
    const way = fillOf(flat(8, 8, 4), 8, 'solid', { skin: new Uint8Array(64).fill(SKIN.tiles) });
    expect(piecesOf(buildLayers(way)).filter((id) => id.startsWith('tile')).length).toBeGreaterThan(0);
  });
  test('any ground by any method passes the recount', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 26 }),
        fc.integer({ min: 1, max: 18 }),
        fc.constantFrom(...METHODS),
        fc.boolean(),
        fc.boolean(),
        fc.integer({ min: 2, max: 12 }),
        fc.constantFrom(4, 8, 16),
        fc.nat(),
        (w, d, method, skinned, sheets, span, deckMost, seed) => {
          // A linear congruence: a ground takes up to 1,400 draws.
          let state = seed;
          const next = () => {
            state = (Math.imul(state, 1_103_515_245) + 12_345) >>> 0;
            return (state >>> 16) % 100;
          };
          const [steep, base] = [next() % 7, next() % 40];
          const heights = Array.from({ length: w * d }, (_, i) => {
            const roll = next();
            if (roll < 6) return -1;
            return base + Math.floor((i % w) / (1 + (roll % 3))) * steep + (roll % 4);
          });
          const skin = Uint8Array.from(heights, () => next() % 4);
          const look = Uint8Array.from(heights, () => Math.trunc(next() / 80));
          const fill = fillOf(heights, w, method, {
            ...{ skin: skinned ? skin : null, sheets, span, deckMost },
            ...(base % 2 ? { look } : {}),
          });
          expect(verifyMasonry(fill, buildLayers(fill))).toEqual([]);
        },
      ),
      { numRuns: runs(40) },
    );
  });
  test('the recount sees what is wrong', () => {
    const fill = fillOf(flat(16, 16, 7), 16, 'raft');
    const spoil = (change: (masonry: ReturnType<typeof buildLayers>) => void) => {
      const masonry = buildLayers(fill);
      change(masonry);
      return verifyMasonry(fill, masonry).join('\n');
    };
    expect(spoil(() => undefined)).toBe('');
    expect(
      spoil(
        ({ layers }) =>
          void layers.splice(
            layers.findIndex(({ purpose }) => purpose === 'deck'),
            1,
          ),
      ),
    ).toContain('not covered');
    expect(spoil(({ layers }) => void (layers[0].laid[0] += 1))).toContain('in another piece');
    expect(spoil(({ layers }) => layers.splice(0, 2))).toContain('stands on nothing');
    expect(spoil(({ layers }) => void layers[0].laid.set([0, 0, 5, 5]))).toContain(
      'brick-5x5 at 0,0,0: no such part',
    );
    expect(spoil(({ layers }) => void (layers[0].z = 40))).toContain('higher than');
    expect(() => buildLayers(fillOf([1001], 1, 'solid'))).toThrow('1001 plates high; the most is 1000');
  });
});

describe('few pieces', () => {
  test('the largest piece of a set lies wherever whole ones make the layer up', () => {
    for (const [set, side] of [
      [PLATES, 16],
      [COVERS, 8],
      [TILES, 4],
    ] as const)
      fc.assert(
        fc.property(fc.integer({ min: 1, max: 8 }), fc.integer({ min: 1, max: 8 }), (across, down) => {
          const [w, d] = [across * side, down * side];
          const laid = tileLayer(new Uint8Array(w * d).fill(1), w, d, set);
          expect(laid.length / 4).toBe(across * down);
        }),
      );
  });
  test('stepped ground: bricks two studs deep in front, stair pieces behind them (by hand)', () => {
    // Three bricks, a deck and the cover: the shell is four studs deep, so that a ring two wide is left for stairs.
    const fill = fillOf(flat(16, 16, 11), 16, 'stepped', { skin: new Uint8Array(256).fill(SKIN.natural) });
    const masonry = buildLayers(fill);
    expect(verifyMasonry(fill, masonry)).toEqual([]);
    const stairs = masonry.layers.filter(({ family }) => family === 'stair');
    expect(stairs.map(({ z, h }) => [z, h])).toEqual([[0, 9]]);
    const places = [...Array(stairs[0].laid.length / 4).keys()].map((p) => [
      ...stairs[0].laid.subarray(4 * p, 4 * p + 4),
    ]);
    expect(places.length).toBeGreaterThanOrEqual(8);
    for (const [x, y, w, d] of places) {
      expect(Math.min(x, y, 16 - x - w, 16 - y - d)).toBeGreaterThanOrEqual(2);
      expect(pieceId(stairs[0], w, d)).toBe('stair-4x2');
    }
    // A brick lower there is no room for any, and the comparison says from which height there is.
    expect(
      buildLayers({ ...fill, height: fill.height.map((z) => z - 3) }).layers.map(({ family }) => family),
    ).not.toContain('stair');
    expect(minHeightOf('stepped')).toBe(11);
  });
  test('small layers within 2 % of the least number that HiGHS proves', async () => {
    const highs = await loadHighs();
    let [ours, least] = [0, 0];
    for (const { mask, w, d } of smallMasks(8)) {
      ours += tileLayer(mask, w, d, BRICKS).length / 4;
      least += leastPieces(highs, mask, w, d);
    }
    expect(ours).toBeGreaterThanOrEqual(least);
    expect(ours / least).toBeLessThanOrEqual(1.02);
  });
});

describe('colours and scatter', () => {
  const dress: Dress = {
    tones: [
      { colour: 'moss', share: 6 },
      { colour: 'fern', share: 3 },
      { colour: 'olive', share: 1 },
    ],
    accents: [
      { part: 'plate-1x1', colour: 'meadow', percent: 5, group: 3, apart: 0 },
      { part: 'round-1x1x1p', colour: 'poppy', percent: 2, group: 1, apart: 4 },
    ],
    seed: 5,
    side: 'loam',
    core: 'any',
    layers: [],
  };
  test('counts sum exactly and lie within one of their share', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(50), { minLength: 1, maxLength: 8 }), fc.nat(5000), (shares, total) => {
        const counts = countsOf(shares, total);
        const sum = shares.reduce((a, b) => a + b, 0);
        expect(counts.reduce((a, b) => a + b, 0)).toBe(total);
        if (sum > 0)
          counts.forEach((count, i) => expect(Math.abs(count - (shares[i] / sum) * total)).toBeLessThan(1));
      }),
    );
  });
  test('tones come out as asked, spread over all quarters: χ² of each quarter below the 0.999 point', () => {
    const fill = fillOf(flat(64, 64, 1), 64, 'solid', { skin: new Uint8Array(4096).fill(SKIN.natural) });
    // One stud a piece, so that a quarter has enough of them.
    const studs = Array.from({ length: 4096 }, (_, i) => ({ x: i % 64, y: Math.floor(i / 64) }));
    const order = scatterOrder(studs, 3);
    const [olive, fern] = [410, 1229];
    const tone = new Array<number>(4096).fill(0);
    order.forEach((i, k) => (tone[i] = k < olive ? 2 : k < olive + fern ? 1 : 0));
    for (const quarter of [0, 1, 2, 3]) {
      const inside = studs.flatMap(({ x, y }, i) =>
        (x < 32 ? 0 : 1) + (y < 32 ? 0 : 2) === quarter ? [tone[i]] : [],
      );
      const expected = [4096 - olive - fern, fern, olive].map((count) => count / 4);
      const chi = expected.reduce(
        (sum, want, k) => sum + (inside.filter((one) => one === k).length - want) ** 2 / want,
        0,
      );
      // Two degrees of freedom: 13.8.
      expect(chi).toBeLessThan(13.8);
    }
    const bare = { ...dress, accents: [] };
    const built = dressMasonry(fill, buildLayers(fill), () => bare);
    const flatColours = built.colours.flat();
    const total = flatColours.length;
    const counts = ['moss', 'fern', 'olive'].map(
      (id) => flatColours.filter((colour) => colour === id).length,
    );
    expect(counts).toEqual(countsOf([6, 3, 1], total));
  });
  test('blue noise is a permutation whose first cells keep their distance', () => {
    const rank = blueNoise();
    expect(new Set(rank).size).toBe(4096);
    const first = [...rank].flatMap((value, i) =>
      value < 256 ? [{ x: i % 64, y: Math.floor(i / 64) }] : [],
    );
    const round = (a: number) => Math.min(Math.abs(a), 64 - Math.abs(a));
    const nearest = first.map((p) =>
      Math.min(...first.filter((q) => q !== p).map((q) => Math.hypot(round(p.x - q.x), round(p.y - q.y)))),
    );
    // By chance the nearest of 256 in 4,096 lies about 2 away and some touch.
    expect(Math.min(...nearest)).toBeGreaterThanOrEqual(2);
    expect(nearest.reduce((a, b) => a + b, 0) / nearest.length).toBeGreaterThan(3);
  });
  test('accents: to their share, none on another, none nearer than asked, the same each time', () => {
    const studs = Array.from({ length: 2500 }, (_, i) => i);
    const once = accentsOf(dress, studs, 50, () => 4);
    expect(once).toEqual(accentsOf(dress, studs, 50, () => 4));
    expect(once.tally).toEqual([
      // 5 % of 2,500 studs are 125: the nearest number of whole groups of three is 42.
      { part: 'plate-1x1', colour: 'meadow', wanted: 126, laid: 126 },
      { part: 'round-1x1x1p', colour: 'poppy', wanted: 50, laid: 50 },
    ]);
    expect(new Set(once.accents.map(({ x, y }) => `${x} ${y}`)).size).toBe(176);
    const poppies = once.accents.filter(({ colour }) => colour === 'poppy');
    for (const p of poppies)
      for (const q of poppies)
        if (p !== q) expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeGreaterThanOrEqual(4);
    const crowded = accentsOf(
      { ...dress, accents: [{ ...dress.accents[1], percent: 60 }] },
      studs,
      50,
      () => 4,
    );
    expect(crowded.tally[0].laid).toBeLessThan(crowded.tally[0].wanted);
    // A group lies together or not at all, on ground with holes too.
    const holes = studs.filter((i) => (i * 7) % 5 > 1);
    for (const group of [2, 3, 4, 5]) {
      const line = { ...dress.accents[0], group, percent: 8 };
      const { tally, accents } = accentsOf({ ...dress, accents: [line] }, holes, 50, () => 4);
      expect([tally[0].wanted % group, tally[0].laid % group, accents.length]).toEqual([0, 0, tally[0].laid]);
      expect(tally[0].laid).toBeGreaterThan(0);
      for (let at = 0; at < accents.length; at += group)
        for (const { x, y } of accents.slice(at, at + group))
          expect(Math.max(Math.abs(x - accents[at].x), Math.abs(y - accents[at].y))).toBeLessThanOrEqual(2);
    }
  });
  test('a recipe bends to stock within its limit and keeps its sum', () => {
    expect(bendCounts([60, 30, 10], [40, 100, 100], 0.1)).toEqual({
      counts: [50, 40, 10],
      bent: [-10, 10, 0],
      short: [10, 0, 0],
    });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(90), fc.nat(90)), { minLength: 1, maxLength: 6 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (lines, limit) => {
          const counts = lines.map(([count]) => count);
          const bent = bendCounts(
            counts,
            lines.map(([, have]) => have),
            limit,
          );
          const total = counts.reduce((a, b) => a + b, 0);
          expect(bent.counts.reduce((a, b) => a + b, 0)).toBe(total);
          for (const by of bent.bent) expect(Math.abs(by)).toBeLessThanOrEqual(limit * total + 1e-9);
          for (const count of bent.counts) expect(count).toBeGreaterThanOrEqual(0);
        },
      ),
    );
  });
});

describe('a scene counted', () => {
  test('ground is laid in its own colour to the very stud, and none under a building unless it is asked for', () => {
    const tiles = (more: object) => {
      const scene = sceneFrom({
        display: { name: 'Green', kind: 'diorama' },
        levels: [{ id: 'ground', name: 'Ground', height: 6 }],
        footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 80, d: 32 }],
        pads: [{ id: 'p', name: 'Green', x: 0, y: 0, w: 80, d: 32, level: 'ground', ground: 'grass' }],
        waters: [{ id: 'w', name: 'Pond', x: 0, y: 16, w: 80, d: 16, level: 'ground', offset: -1 }],
        ways: [
          {
            id: 'v',
            name: 'Causeway',
            use: 'path',
            width: 6,
            points: [
              { x: 44, y: 20 },
              { x: 60, y: 20 },
            ],
          },
        ],
        ...more,
      });
      const count = new CountCache().count(scene, compile(scene));
      const studs = new Map<string, number>();
      for (const { lines } of count?.blocks ?? [])
        for (const { part, colour, purpose, qty } of lines)
          if (purpose === 'cover') {
            const { w, d } = partOf(part) ?? { w: 0, d: 0 };
            studs.set(colour, (studs.get(colour) ?? 0) + qty * w * d);
          }
      return studs;
    };
    const plain = tiles({});
    expect([plain.get('basalt'), plain.get('brook')]).toEqual([96, 80 * 16 - 96]);
    const store = { id: 's', name: 'Store', x: 4, y: 18, w: 24, d: 8, height: 30 };
    expect(tiles({ plots: [store] }).get('brook')).toBe(80 * 16 - 96 - 24 * 8);
    expect(tiles({ plots: [{ ...store, coverUnder: true }] }).get('brook')).toBe(80 * 16 - 96);
  });
  longTest('on the demo displays too each stud of cover has a colour of its own ground', () => {
    for (const name of ['skarn-edge', 'larch-lane']) {
      const file = readFileSync(join(import.meta.dirname, '../../../../demo', `${name}.quarry.json`), 'utf8');
      const reading = readFile(file);
      if (!reading.ok) throw new Error(reading.error);
      const compiled = compile(reading.scene);
      let studs = 0;
      const strange: string[] = [];
      for (const built of builtBlocks(reading.scene, compiled, () => true)) {
        const { fill, dressAt, block } = built.ground;
        built.masonry.layers.forEach(({ purpose, laid }, layer) => {
          if (purpose !== 'cover' && purpose !== 'slope') return;
          for (let p = 0; p < laid.length; p += 4)
            for (let y = laid[p + 1]; y < laid[p + 1] + laid[p + 3]; y++)
              for (let x = laid[p]; x < laid[p] + laid[p + 2]; x++) {
                const own = built.colours[layer][p / 4];
                studs++;
                if (!dressAt(y * fill.w + x).tones.some(({ colour }) => colour === own))
                  strange.push(`${block.name} ${x},${y}: ${own}`);
              }
        });
      }
      expect(strange).toEqual([]);
      expect(studs).toBeGreaterThan(5000);
    }
  });
  const scene = sceneOf();
  const [hill] = Object.values(scene.hill);
  test('every piece is in one line of one block; masses are those of the pieces; all blocks pass the recount', () => {
    const compiled = compile(scene);
    const counted = new CountCache().count(scene, compiled);
    expect(counted?.blocks.length).toBeGreaterThan(2);
    let grams = 0;
    for (const block of counted?.blocks ?? []) {
      expect(block.lines.reduce((sum, { qty }) => sum + qty, 0)).toBe(block.counted.pieces);
      const built = builtBlock(scene, compiled, block.block.id);
      if (!built) throw new Error('no such block');
      expect(verifyMasonry(built.ground.fill, built.masonry)).toEqual([]);
      grams += block.counted.grams;
    }
    const studs = compiled.relief.ground.length;
    const spread = counted?.mass.grams.reduce((a, b) => a + b, 0) ?? 0;
    expect(spread / (grams + studs * 0.18)).toBeCloseTo(1, 3);
    expect(builtBlock(scene, compiled, 'nowhere')).toBeNull();
  });
  test('a change of one hill counts its modules only, and the same as counting all again', () => {
    const book = new CountCache();
    book.count(scene, compile(scene));
    const changes: Change[] = [
      { op: 'patch', kind: 'hill', id: hill.id, v: hill.v, set: { height: hill.height + 3 } },
    ];
    const next = reduce(scene, changes);
    if (!next.ok) throw new Error(next.refusal.sentence);
    const compiled = compile(next.scene);
    const again = book.count(next.scene, compiled);
    const whole = new CountCache().count(next.scene, compiled);
    expect(again?.fresh).toBe(1);
    expect(again?.blocks).toEqual(whole?.blocks);
    expect(book.count(next.scene, compiled, () => false)).toBeNull();
  });
  test('counts that were stored are not made again, whatever the blocks are called; sections by id', () => {
    const first = new CountCache();
    const counted = first.count(scene, compile(scene));
    const stored = structuredClone(first.current);
    expect(stored.size).toBeGreaterThan(0);
    const later = new CountCache();
    later.load(stored);
    const again = later.count(scene, compile(scene));
    expect(again).toEqual({ ...counted, fresh: 0 });
    const module = Object.fromEntries(
      Object.entries(scene.module).map(([id, one]) => [id, { ...one, name: `${one.name} again` }]),
    );
    const renamed = { ...scene, module };
    expect(later.count(renamed, compile(renamed))?.fresh).toBe(0);
    // Undone, a change is not counted again.
    const higher = { ...scene, hill: { [hill.id]: { ...hill, height: hill.height + 3 } } };
    expect(later.count(higher, compile(higher))?.fresh).toBe(1);
    expect(later.count(scene, compile(scene))?.fresh).toBe(0);
    // The same ground in a section of another id has lines of its own.
    const section = Object.fromEntries(
      Object.values(scene.section).map((one) => [`new-${one.id}`, { ...one, id: `new-${one.id}` }]),
    );
    const moved = { ...scene, section };
    const lines = later.count(moved, compile(moved))?.blocks.flatMap((block) => block.lines) ?? [];
    const sections = new Set(lines.flatMap((line) => line.section ?? []));
    expect([...sections].every((id) => id.startsWith('new-'))).toBe(true);
  });
  test('one cache over many displays counts each as a cache of its own', () => {
    const shared = new CountCache();
    fc.assert(
      fc.property(randomDisplays, (display) => {
        const compiled = compile(display);
        const own = new CountCache().count(display, compiled);
        expect(shared.count(display, compiled)).toEqual({ ...own, fresh: expect.any(Number) });
      }),
      { numRuns: runs(25) },
    );
  });
  test('ground of another block, two studs off or inside its rectangle, is seen: sides that show are counted again', () => {
    const high = { level: 'l', ground: 'rock', method: 'stepped' } as const;
    const made = (ditch: number) =>
      sceneFrom({
        display: { name: 'Ditch', kind: 'diorama', colourHidden: 'free' },
        levels: [
          { id: 'l', name: 'High', height: 12 },
          { id: 'low', name: 'Low', height: ditch },
        ],
        footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 64, d: 32 }],
        pads: [
          { id: 'a', name: 'All', x: 0, y: 0, w: 64, d: 32, ...high },
          // One inside a square of what is in no module, one from the second stud beyond a module on.
          { id: 'b', name: 'Within', x: 40, y: 8, w: 8, d: 8, ...high, level: 'low', order: 1 },
          { id: 'c', name: 'Beyond', x: 17, y: 0, w: 4, d: 32, ...high, level: 'low', order: 1 },
        ],
        modules: [
          { id: 'm', name: 'M', x: 0, y: 0, w: 16, d: 32, bases: [] },
          { id: 'n', name: 'N', x: 40, y: 8, w: 8, d: 8, bases: [] },
          { id: 'o', name: 'O', x: 17, y: 0, w: 4, d: 32, bases: [] },
        ],
      });
    const shared = new CountCache();
    for (const ditch of [12, 3, 9]) {
      const scene = made(ditch);
      const compiled = compile(scene);
      const own = new CountCache().count(scene, compiled);
      expect(shared.count(scene, compiled)).toEqual({ ...own, fresh: expect.any(Number) });
    }
  });
  test('blocks counted elsewhere and sent back make the same count; a recipe counts again only where it lies', () => {
    const compiled = compile(scene);
    const book = new CountCache();
    const work = structuredClone(book.missing(scene, compiled));
    expect(work.length).toBeGreaterThan(1);
    for (const { key, input } of work) book.put(key, structuredClone(countBlock(input)));
    expect(book.missing(scene, compiled)).toEqual([]);
    expect(book.count(scene, compiled)).toEqual(new CountCache().count(scene, compiled));
    const [section] = Object.values(scene.section);
    const recipe = KINDS.recipe.schema.parse({
      name: 'Rusty',
      ground: 'grass',
      section: section.id,
      tones: [{ colour: 'rust' }],
    });
    const dressed = { ...scene, recipe: { ...scene.recipe, r: { ...recipe, id: 'r', v: 1 } } };
    const again = book.missing(dressed, compile(dressed)).length;
    expect([again > 0, again < work.length]).toEqual([true, true]);
  });
  test('methods side by side: a raft is lighter than solid, steps are less exact, what hangs keeps the span', () => {
    const of = compareMethods(scene, compile(scene), { kind: 'hill', id: hill.id });
    const by = (method: Method) => of.find((one) => one.method === method) ?? of[0];
    expect(of.map(({ method }) => method)).toEqual(METHODS.filter((method) => method !== 'reuse'));
    expect(by('raft').grams).toBeLessThan(by('solid').grams);
    expect([by('solid').error.most, by('solid').span]).toEqual([0, 0]);
    expect(by('stepped').error.mean).toBeGreaterThan(0);
    expect(by('raft').span).toBeLessThanOrEqual(8);
    expect(compareMethods(scene, compile(scene), { kind: 'hill', id: 'none' })).toEqual([]);
  });
  test('a relief with its ground counted weighs as its pieces; ground no one builds is not counted', () => {
    const relief = countedRelief(scene);
    const mass = new CountCache().count(scene, compile(scene))?.mass;
    expect(relief.counted).toEqual(mass);
    const { street } = scene.level;
    expect(
      countedRelief({ ...scene, level: { street: { ...street, height: 2000 } } }).counted,
    ).toBeUndefined();
  });
  test('its own method is taken for a hill, and what stands already is not counted', () => {
    const reused: Scene = { ...scene, hill: { [hill.id]: { ...hill, method: 'reuse' } } };
    const pieces = (of: Scene) =>
      new CountCache().count(of, compile(of))?.blocks.reduce((sum, { counted }) => sum + counted.pieces, 0) ??
      0;
    expect(pieces(reused)).toBeLessThan(pieces(scene) / 2);
  });
  test('water is broken, white and clear in it, where waves strike a shore and nowhere else (by hand)', () => {
    // A pond of 20 × 16 in grass, its east half at the end of the display: no shore there.
    const pond = (struck: readonly string[]) =>
      sceneFrom({
        display: { name: 'Pond', kind: 'diorama' },
        levels: [{ id: 'ground', name: 'Ground', height: 3 }],
        footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 32, d: 32 }],
        pads: [
          { id: 'p', name: 'Green', x: 0, y: 0, w: 32, d: 32, level: 'ground', ground: 'grass' as const },
        ],
        waters: [
          {
            id: 'w',
            name: 'Pond',
            x: 12,
            y: 8,
            w: 20,
            d: 16,
            level: 'ground',
            struck: [...struck] as ('n' | 'e')[],
          },
        ],
      });
    const broken = (struck: readonly string[]) => {
      const scene = pond(struck);
      const { colours, studs } = paintedGround(scene, compile(scene));
      return [...studs].flatMap((number, i) =>
        ['ice', 'chalk'].includes(colours[number]) ? [{ x: i % 32, y: Math.floor(i / 32) }] : [],
      );
    };
    expect(broken([])).toEqual([]);
    expect(broken(['e'])).toEqual([]);
    const north = broken(['n', 'e']);
    // Half of what is laid in the two rows beside the shore.
    expect(north.length).toBeGreaterThan(0.3 * 40);
    expect(north.length).toBeLessThan(0.7 * 40);
    expect(north.every(({ x, y }) => x >= 12 && (y === 8 || y === 9))).toBe(true);
    // What was counted before waves struck is counted again.
    const book = new CountCache();
    const lines = (scene: Scene) =>
      book.count(scene, compile(scene))?.blocks.flatMap((block) => block.lines.map(({ colour }) => colour));
    expect(lines(pond([]))).not.toContain('ice');
    expect(lines(pond(['n']))).toContain('ice');
  });
  test('what is hidden has any colour where the house rules leave it free, else the ground’s, counted again', () => {
    const hill = (colourHidden: 'free' | 'strict') =>
      sceneFrom({
        display: { name: 'Mound', kind: 'diorama', method: 'raft', colourHidden },
        levels: [{ id: 'ground', name: 'Ground', height: 9 }],
        footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 32, d: 32 }],
        pads: [
          { id: 'p', name: 'Green', x: 0, y: 0, w: 32, d: 32, level: 'ground', ground: 'grass' as const },
        ],
      });
    const book = new CountCache();
    const byColour = (colourHidden: 'free' | 'strict') => {
      const scene = hill(colourHidden);
      const sums: Record<string, number> = {};
      for (const block of book.count(scene, compile(scene))?.blocks ?? [])
        for (const { colour, qty } of block.lines) sums[colour] = (sums[colour] ?? 0) + qty;
      return sums;
    };
    const [free, strict] = [byColour('free'), byColour('strict')];
    expect(free.any).toBeGreaterThan(0);
    expect(strict).toEqual({ moss: free.moss, loam: free.loam + free.any });
  });
  test('painted from above: every stud of covered ground has a colour of its recipe', () => {
    const tones = [
      { colour: 'moss', share: 3 },
      { colour: 'straw', share: 1 },
    ];
    const recipe = {
      id: 'r',
      v: 1,
      name: 'Field',
      ground: 'grass' as const,
      section: null,
      above: null,
      tones,
      side: null,
      accents: [],
      bend: 0,
      seed: 3,
    };
    const field: Scene = { ...scene, hill: {}, way: {}, recipe: { r: recipe } };
    const { colours, studs } = paintedGround(field, compile(field));
    expect(colours.toSorted()).toEqual(['moss', 'straw']);
    expect(Math.min(...studs)).toBe(0);
  });
  test('pieces weigh what somebody weighed', () => {
    const fill = fillOf(flat(8, 8, 3), 8, 'solid');
    const built = dressMasonry(fill, buildLayers(fill), () => ({
      tones: [{ colour: 'moss', share: 1 }],
      accents: [],
      seed: 1,
      side: 'loam',
      core: 'any',
      layers: [],
    }));
    const known = { 'brick-2x4': { grams: 2.5, price: 0.2, family: 'brick' as const } };
    const counted = countMasonry(fill, built, () => -1, known);
    expect([counted.pieces, counted.grams, counted.money]).toEqual([8, 20, expect.closeTo(1.6)]);
    expect(counted.centre).toEqual({ x: 4, y: 4, z: 1.5 });
    // All of its edge shows.
    expect(counted.lines.map(({ colour, qty }) => [colour, qty])).toEqual(
      expect.arrayContaining([['loam', expect.any(Number)]]),
    );
  });
});
