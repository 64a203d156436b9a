/** Counting ground in pieces, few pieces against a proven least, buying in a large market, long lists. */
import loadHighs from 'highs';
import Papa from 'papaparse';
import { CATALOGUE, PALETTE } from '../packages/core/src/catalogue/index.ts';
import { readRows, source, type Market } from '../packages/core/src/materials/index.ts';
import { BRICKS, CountCache, tileLayer } from '../packages/core/src/masonry/index.ts';
import { compile, seeded } from '../packages/core/src/terrain/index.ts';
import { reduce, type Scene } from '../packages/core/src/document/index.ts';
import { leastPieces, smallMasks } from '../packages/core/test/leastPieces.ts';
import { largeScene } from './relief.ts';
import { median, type Row } from './table.ts';

const countTime = (scene: Scene) => {
  const compiled = compile(scene);
  return median(3, () => void new CountCache().count(scene, compiled));
};

/** A market of 400 lines and 60 sellers, each with about a third of the lines. */
function largeMarket(): { needs: { part: string; colour: string; qty: number }[]; market: Market } {
  const random = seeded(5);
  const sellers = Array.from({ length: 60 }, (_, i) => ({
    ...{ name: `seller ${i}`, days: null },
    shipping: 2 + Math.round(random() * 60) / 10,
    minOrder: Math.round(random() * 20),
  }));
  const needs = Array.from({ length: 400 }, (_, i) => ({
    part: CATALOGUE[i % CATALOGUE.length].id,
    colour: PALETTE[Math.floor(i / CATALOGUE.length)].id,
    qty: 1 + Math.floor(random() * 80),
  }));
  const offers = needs.flatMap(({ part, colour, qty }) => {
    const base = 0.03 + random() * 0.4;
    // One seller has everything, so that every line is covered.
    const whole = { seller: 'seller 0', part, colour, qty, price: Math.round(base * 170) / 100 };
    return [
      whole,
      ...sellers.slice(1).flatMap(({ name }) =>
        random() < 0.33
          ? [
              {
                seller: name,
                part,
                colour,
                qty: Math.ceil(random() * 120),
                price: Math.round(base * (70 + 70 * random())) / 100,
              },
            ]
          : [],
      ),
    ];
  });
  return { needs, market: { sellers, offers } };
}

export async function benchMaterials(): Promise<Row[]> {
  const large = largeScene();
  const compiled = compile(large);
  const highest = compiled.relief.height.reduce((most, value) => Math.max(most, value), 0);
  const book = new CountCache();
  book.count(large, compiled);
  // Each time to another height, so that none is counted already.
  const edits = [20, 23, 17, 25, 15].map((height) => {
    const moved = reduce(large, [{ op: 'patch', kind: 'hill', id: 'hill-7', v: 1, set: { height } }]);
    if (!moved.ok) throw new Error(moved.refusal.sentence);
    const after = compile(moved.scene);
    const began = performance.now();
    const again = book.count(moved.scene, after);
    return { ms: performance.now() - began, fresh: again?.fresh, of: again?.blocks.length };
  });
  const edit = edits.toSorted((a, b) => a.ms - b.ms)[edits.length >> 1];
  const highs = await loadHighs();
  const masks = smallMasks(12);
  const pieces = (of: (mask: Uint8Array, w: number, d: number) => number) =>
    masks.reduce((sum, { mask, w, d }) => sum + of(mask, w, d), 0);
  const ours = pieces((mask, w, d) => tileLayer(mask, w, d, BRICKS).length / 4);
  const least = pieces((mask, w, d) => leastPieces(highs, mask, w, d));
  const { needs, market } = largeMarket();
  const now = () => performance.now();
  const first = now();
  const quick = source(needs, market, { seconds: 10, now });
  const quickTime = (now() - first) / 1000;
  const exact = source(needs, market, { seconds: 10, now, highs });
  if (!quick.ok || !exact.ok) throw new Error('the market does not cover the needs');
  const csv = `part,colour,qty\n${Array.from({ length: 20_000 }, (_, i) => `${CATALOGUE[(i * 7) % CATALOGUE.length].id},${PALETTE[(i * 13) % PALETTE.length].name},${i % 900}`).join('\n')}`;
  const importTime = median(3, () => {
    const { data } = Papa.parse<string[]>(csv);
    readRows(data.slice(1), ['part', 'colour', 'qty'], new Map(), new Set());
  });
  return [
    {
      what: 'ground of 240×144 counted in pieces',
      measured: countTime(largeScene(0.225)) / 1000,
      unit: 's',
      aim: 0.6,
      better: 'less',
    },
    {
      what: `ground of 480×320, up to ${highest} plates, counted`,
      measured: countTime(large) / 1000,
      unit: 's',
      aim: 3,
      better: 'less',
    },
    {
      // What the page waits for, with all cores, is measured there (web.ts).
      what: `one hill changed there: ${edit.fresh} of ${edit.of} blocks counted, on one core`,
      measured: edit.ms,
      unit: 'ms',
      better: 'less',
    },
    {
      what: 'pieces over the proven least, 12 small layers',
      measured: ours / least,
      unit: '',
      aim: 1.02,
      better: 'less',
    },
    {
      what: '400 lines × 60 sellers: gap of the first answer',
      measured: 100 * quick.purchase.gap,
      unit: '%',
      better: 'less',
    },
    { what: '… after', measured: quickTime, unit: 's', better: 'less' },
    {
      what: '400 lines × 60 sellers: gap after 10 s',
      measured: 100 * exact.purchase.gap,
      unit: '%',
      aim: 2,
      better: 'less',
    },
    { what: 'a list of 20,000 rows read', measured: importTime / 1000, unit: 's', aim: 3, better: 'less' },
  ];
}
