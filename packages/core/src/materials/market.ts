import { ANY_COLOUR, CATALOGUE, PALETTE, colourOf, partOf } from '../catalogue/index.ts';
import { priceOfPart } from '../masonry/index.ts';
import { seeded } from '../terrain/index.ts';
import type { Market, Offer, Seller } from './buyProblem.ts';

// A simulated market with invented sellers, stock and prices; it is labelled as simulated.

/** Invented sellers; how dear they are, what they keep in stock, and how they send. */
const SELLERS: readonly (Seller & {
  level: number;
  keeps: number;
  likes: 'basic' | 'all' | 'green' | 'grey';
})[] = [
  { name: 'Marl & Daughters', shipping: 4.5, minOrder: 0, days: 3, level: 1.1, keeps: 0.75, likes: 'all' },
  { name: 'The Sorting Shed', shipping: 3.2, minOrder: 10, days: 6, level: 0.95, keeps: 0.6, likes: 'basic' },
  {
    name: 'Quernstone Bricks',
    shipping: 5.9,
    minOrder: 25,
    days: 4,
    level: 0.85,
    keeps: 0.65,
    likes: 'grey',
  },
  { name: 'Fernhollow Parts', shipping: 2.8, minOrder: 5, days: 8, level: 1, keeps: 0.55, likes: 'green' },
  { name: 'Drawer Nine', shipping: 2.2, minOrder: 0, days: 10, level: 1.05, keeps: 0.35, likes: 'all' },
  { name: 'Tilda Rook', shipping: 3.8, minOrder: 0, days: 2, level: 1.35, keeps: 0.5, likes: 'all' },
  { name: 'Grey Heap', shipping: 6.5, minOrder: 40, days: 7, level: 0.75, keeps: 0.45, likes: 'grey' },
  { name: 'Sprig & Stem', shipping: 3.1, minOrder: 8, days: 5, level: 0.9, keeps: 0.5, likes: 'green' },
  { name: 'Plateworks', shipping: 4.9, minOrder: 15, days: 5, level: 0.88, keeps: 0.6, likes: 'basic' },
  { name: 'Saltpan Stock', shipping: 7.5, minOrder: 0, days: 14, level: 0.7, keeps: 0.7, likes: 'all' },
];
const GREENS = [
  'moss',
  'fern',
  'meadow',
  'willow',
  'pine',
  'olive',
  'lichen',
  'loam',
  'peat',
  'bark',
  'clay',
];
const GREYS = ['slate', 'pebble', 'mist', 'basalt', 'soot', 'limestone', 'chalk'];

/**
 * The simulated market for a list of parts: the same for the same seed.
 * @param wanted parts and colours; of any colour, each seller has a few
 */
export function simulatedMarket(wanted: readonly { part: string; colour: string }[], seed = 1): Market {
  const offers: Offer[] = [];
  const keys = [...new Set(wanted.map(({ part, colour }) => `${part} ${colour}`))].sort();
  for (const [index, seller] of SELLERS.entries())
    for (const key of keys) {
      const [part, wantedColour] = key.split(' ');
      const random = seeded(hash(key) + 7919 * (index + 1) + seed);
      const colours =
        wantedColour === ANY_COLOUR
          ? [0, 1].map(() => PALETTE[Math.floor(random() * PALETTE.length)].id)
          : [wantedColour];
      for (const colour of colours) {
        const liked =
          seller.likes === 'all' ||
          (seller.likes === 'green' && GREENS.includes(colour)) ||
          (seller.likes === 'grey' && GREYS.includes(colour)) ||
          (seller.likes === 'basic' && isBasic(part));
        const rare = colourOf(colour)?.finish === 'solid' ? 1 : 0.7;
        if (random() > seller.keeps * rare * (liked ? 1.25 : 0.7)) continue;
        const { price } = priceOfPart(part);
        offers.push({
          seller: seller.name,
          part,
          colour,
          qty: Math.ceil(20 + random() ** 2 * (isBasic(part) ? 1500 : 300)),
          price: Math.max(0.01, Math.round(price * seller.level * (0.8 + 0.5 * random()) * 100) / 100),
        });
      }
    }
  return {
    sellers: SELLERS.map(({ name, shipping, minOrder, days }) => ({ name, shipping, minOrder, days })),
    offers,
  };
}

const BASIC = new Set(
  CATALOGUE.flatMap(({ id, family, w, d }) =>
    (family === 'brick' || family === 'plate') && w * d <= 16 ? [id] : [],
  ),
);
const isBasic = (part: string) => BASIC.has(part) && partOf(part) !== null;

function hash(text: string): number {
  let value = 5381;
  for (let i = 0; i < text.length; i++) value = (Math.imul(value, 33) ^ text.charCodeAt(i)) >>> 0;
  return value % 1_000_003;
}
