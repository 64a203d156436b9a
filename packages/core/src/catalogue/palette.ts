// The palette: colours named after stones, plants and weather. Values are sRGB, chosen for this program; people map
// the names of their own lists to them by alias.

export const FINISHES = ['solid', 'clear', 'metal', 'glow'] as const;
export type Finish = (typeof FINISHES)[number];

/** A colour of the palette; `id` is what needs, stock and orders name. */
export interface Colour {
  id: string;
  name: string;
  /** sRGB as #rrggbb. Of clear colours: as they look over white. */
  hex: string;
  finish: Finish;
}

/** Placeholder for hidden pieces: any colour that is in stock. */
export const ANY_COLOUR = 'any';

const SOLID = `Chalk f4f2ec · Limestone e3dccb · Bone d8cfb4 · Sandbank cdb98a · Straw e6d08a · Primrose f2e27a · Gorse f0c419 ·
Ochre c98f1e · Amber e08a1a · Marigold ee7a16 · Coral e8705a · Rust a5482a · Brick 8f3a2c · Poppy c8281f · Rowan 9c1c24 ·
Heather 9a6f9c · Foxglove c65a92 · Rose e3a0b4 · Thistle 6d4a86 · Elder 43294f · Harebell 7f8fd0 · Dusk 3f4a86 ·
Gentian 1f4aa0 · Rain 5f86b3 · Sky 8fc0e0 · Frost c3dbe6 · Tarn 1f6a73 · Lagoon 2f9c9c · Verdigris 74b29a · Mint b6dcc0 ·
Lichen b3bd8c · Moss 6c7a35 · Fern 3f7d3a · Meadow 5fae3f · Willow 98c25a · Pine 1f4a34 · Olive 75713c · Peat 4a3326 ·
Bark 6b4a2f · Clay 96613c · Fawn b98f63 · Loam 7d5b41 · Mist b9bfc0 · Pebble 9a9c98 · Slate 66707a · Basalt 3b4148 ·
Soot 1c1f22`;
const CLEAR = `Ice f2f6f7 · Spring cfe6ee · Brook 9fcfe6 · Deepwater 3f7fc0 · Reed 9fd09a · Bottle 2f8f58 · Honey f2c24a ·
Ember f08030 · Ruby d03038 · Petal f0a8c8 · Dew dff0b0 · Smoke 84827c`;
const METAL = `Pewter a7a9a8 · Brass c9a648 · Copper b87348 · Gunmetal 565b60`;
const GLOW = `Moonlight d9e8c0 · Firefly d8f060`;

function read(text: string, finish: Finish): Colour[] {
  return text.split('·').map((entry) => {
    const [name, hex] = entry.trim().split(' ');
    return { id: name.toLowerCase(), name, hex: `#${hex}`, finish };
  });
}

/** All colours: solid ones first, then clear, metal and glowing ones. */
export const PALETTE: readonly Colour[] = [
  ...read(SOLID, 'solid'),
  ...read(CLEAR, 'clear'),
  ...read(METAL, 'metal'),
  ...read(GLOW, 'glow'),
];

const BY_ID = new Map(PALETTE.map((colour) => [colour.id, colour]));

/** A colour by its id; null for “any” and for what the palette does not have. */
export const colourOf = (id: string): Colour | null => BY_ID.get(id) ?? null;

/** What a colour is called: its name, “any colour”, or the id itself when the palette does not list it. */
export const colourName = (id: string): string =>
  id === ANY_COLOUR ? 'any colour' : (colourOf(id)?.name ?? id);

/** A colour between two, channel by channel of sRGB, #rrggbb. @param share of the second, 0 to 1 */
export function mixedHex(first: string, second: string, share: number): string {
  const channels = [1, 3, 5].map((at) => {
    const [from, to] = [first, second].map((hex) => Number.parseInt(hex.slice(at, at + 2), 16));
    return Math.round(from + (to - from) * share)
      .toString(16)
      .padStart(2, '0');
  });
  return `#${channels.join('')}`;
}
