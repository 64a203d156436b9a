import { ANY_COLOUR, colourOf, partOf } from '../catalogue/index.ts';
import { intersection, type Rect } from '../grid/index.ts';
import {
  SIDES,
  type Side,
  GROUNDS,
  fixedGround,
  displayOf,
  listOf,
  customGroundOf,
  layersAt,
  type FixedGround,
  type CoverSurface,
  type Ground,
  type CustomGround,
  type Recipe,
  type Scene,
} from '../document/index.ts';
import { countsOf, scatterOrder } from './scatter.ts';
import { SKIN, heightAround, type Fill, type LayerPlan } from './fill.ts';

// Which colour each piece gets, and what is scattered on the ground.

/**
 * What ground looks like: see the schemas of recipes and custom grounds. `core` is the colour of hidden pieces, `layers`
 * lie under the cover, from the top down.
 */
export type Dress = Pick<Recipe, 'tones' | 'accents' | 'seed'> & {
  side: string;
  core: string;
  layers: CustomGround['layers'];
};
type Look = Omit<Dress, 'core' | 'layers'>;

const plain = (base: string, side: string): Look => ({
  tones: [{ colour: base, share: 1 }],
  accents: [],
  seed: 1,
  side,
});
/** What ground is made of where no recipe is written (defaults of ours). */
export const PLAIN_DRESS: Record<FixedGround | 'bare', Look> = {
  grass: plain('moss', 'loam'),
  rock: plain('slate', 'slate'),
  soil: plain('loam', 'loam'),
  sand: plain('sandbank', 'sandbank'),
  paving: plain('pebble', 'pebble'),
  road: plain('basalt', 'basalt'),
  ballast: plain('mist', 'pebble'),
  water: plain('brook', 'tarn'),
  bare: plain('pebble', 'pebble'),
};

/** How far from a shore the water is broken where waves strike it, studs (ours, no source). */
export const SURF = 2;
/** Broken water: white and clear among the water's own colour, as builders mix it where it strikes the shore. */
export const surfOf = (water: Dress): Dress => ({
  ...water,
  tones: [
    { colour: water.tones[0].colour, share: 2 },
    { colour: 'ice', share: 1 },
    { colour: 'chalk', share: 1 },
  ],
});

/** The studs of plain ground, row by row: 1. */
export function plainMask(scene: Scene, relief: Rect): Uint8Array {
  const mask = new Uint8Array(relief.w * relief.d);
  for (const { areas } of listOf(scene, 'plain'))
    for (const area of areas) {
      const on = intersection(area, relief);
      if (!on) continue;
      for (let y = on.y - relief.y; y < on.y - relief.y + on.d; y++)
        mask.fill(1, y * relief.w + on.x - relief.x, y * relief.w + on.x - relief.x + on.w);
    }
  return mask;
}

/** Which faces of each stud are plain ground: a bit a side, in the order of SIDES; null: none of any. */
export function plainFaces(scene: Scene, relief: Rect): Uint8Array | null {
  let bits: Uint8Array | null = null;
  for (const { faces } of listOf(scene, 'plain'))
    for (const { side, ...face } of faces) {
      const on = intersection(face, relief);
      if (!on) continue;
      bits ??= new Uint8Array(relief.w * relief.d);
      for (let y = on.y - relief.y; y < on.y - relief.y + on.d; y++)
        for (let x = on.x - relief.x; x < on.x - relief.x + on.w; x++)
          bits[y * relief.w + x] |= 1 << SIDES.indexOf(side);
    }
  return bits;
}

/** Cover that nobody sees: of the colour of hidden pieces, with nothing scattered on it. */
export const plainOf = (dress: Dress): Dress => ({
  ...dress,
  tones: [{ colour: dress.core, share: 1 }],
  accents: [],
  layers: [],
});

/** How each ground of every display is covered. */
export const SURFACE_OF: Readonly<Record<FixedGround | 'bare', CoverSurface>> = {
  grass: 'natural',
  rock: 'natural',
  soil: 'natural',
  sand: 'natural',
  paving: 'tiles',
  road: 'tiles',
  ballast: 'plates',
  water: 'tiles',
  bare: 'plates',
};
/**
 * How deep under its top a ground lets light through, plates: its cover, and the layers under it, as long as all their
 * colours are clear or glow; and the first colour that does not.
 */
export function clearDepth({ tones, layers, core }: Dress): { plates: number; stops: string } {
  const isClear = (colour: string) => ['clear', 'glow'].includes(colourOf(colour)?.finish ?? '');
  const solid = tones.find(({ colour, share }) => share > 0 && !isClear(colour));
  if (solid) return { plates: 0, stops: solid.colour };
  let plates = COVER_PLATES;
  for (const layer of layers) {
    if (!isClear(layer.colour)) return { plates, stops: layer.colour };
    plates += layer.plates;
  }
  return { plates, stops: core };
}
/** Plates of a cover. */
const COVER_PLATES = 1;

/** How a ground is covered: a number of SKIN. */
export const skinOf = (scene: Pick<Scene, 'customGround'>, ground: Ground | 'bare'): number =>
  SKIN[
    customGroundOf(scene, ground)?.surface ??
      SURFACE_OF[ground === 'bare' ? 'bare' : fixedGround(scene, ground)]
  ];

/** How grounds of a scene are dressed. */
export interface Dresses {
  /** @param height of the ground, plates above the datum; left out: as low as it may be */
  of(ground: Ground | 'bare', section: string | null, height?: number): Dress;
  /**
   * How many heights, from which recipes hold and above which layers end, a ground reaches: where it is the same, it is
   * dressed alike.
   */
  band(height: number): number;
}

/**
 * The dresses of a scene: one for each ground, for each ground of a section that has a recipe of its own, and from each
 * height on from which a recipe holds. What is hidden is of any colour where the house rules leave it free, else of the
 * colour of the ground's sides.
 */
export function dressesOf(scene: Scene): Dresses {
  const isFree = displayOf(scene).colourHidden === 'free';
  const withCore = (look: Look, layers: CustomGround['layers'] = []): Dress => ({
    ...look,
    core: isFree ? ANY_COLOUR : look.side,
    layers,
  });
  const bare = withCore(PLAIN_DRESS.bare);
  const recipes = new Map(
    GROUNDS.map((ground): [string, Dress] => {
      const own = customGroundOf(scene, ground);
      return [
        `${ground} `,
        own
          ? withCore(plain(own.colour, own.side ?? own.colour), own.layers)
          : withCore(PLAIN_DRESS[fixedGround(scene, ground)]),
      ];
    }),
  );
  const high = new Map<string, { above: number; dress: Dress }[]>();
  for (const recipe of listOf(scene, 'recipe')) {
    const key = `${recipe.ground} ${recipe.section ?? ''}`;
    const dress = withCore(
      { ...recipe, side: recipe.side ?? recipe.tones[0].colour },
      customGroundOf(scene, recipe.ground)?.layers,
    );
    if (recipe.above === null) recipes.set(key, dress);
    else high.set(key, [...(high.get(key) ?? []), { above: recipe.above, dress }]);
  }
  // The highest first; of two from one height the later one.
  for (const [key, list] of high)
    high.set(
      key,
      list.toReversed().toSorted((a, b) => b.above - a.above),
    );
  const ends = listOf(scene, 'customGround').flatMap(({ layers }) =>
    layers.flatMap(({ upTo }) => (upTo === null ? [] : [upTo + 1])),
  );
  const heights = [
    ...new Set([...[...high.values()].flatMap((list) => list.map(({ above }) => above)), ...ends]),
  ];
  // One dress for all heights at which the same layers lie: the higher, the fewer of them.
  const thinned = new Map<Dress, Map<number, Dress>>();
  const reaching = (dress: Dress, height: number): Dress => {
    const layers = layersAt(dress, height);
    if (layers.length === dress.layers.length) return dress;
    const known = thinned.get(dress) ?? new Map<number, Dress>();
    thinned.set(dress, known);
    const thin = known.get(layers.length) ?? { ...dress, layers };
    known.set(layers.length, thin);
    return thin;
  };
  const at = (key: string, height: number): Dress | undefined =>
    high.get(key)?.find(({ above }) => height >= above)?.dress ?? recipes.get(key);
  return {
    of: (ground, section, height = -Infinity) =>
      reaching(
        (section === null ? undefined : at(`${ground} ${section}`, height)) ??
          at(`${ground} `, height) ??
          bare,
        height,
      ),
    band: (height) => {
      let band = 0;
      for (const above of heights) if (height >= above) band++;
      return band;
    },
  };
}

/** A piece scattered on the ground, by its north-west stud. */
export interface Accent {
  part: string;
  colour: string;
  x: number;
  y: number;
  /** Its underside, plates above the floor. */
  z: number;
}

/**
 * Colours of a masonry's pieces, layer by layer and piece by piece: covers by the tones of their ground, in even
 * scatter and with counts that sum exactly; cores the ground's side colour where a side of theirs shows, else what the
 * house rules ask of hidden pieces.
 * @param dressAt the dress of each stud
 */
export function coloursOf(
  fill: Fill,
  layers: readonly LayerPlan[],
  dressAt: (i: number) => Dress,
): string[][] {
  const { w } = fill;
  const colours = layers.map(({ laid }) => new Array<string>(laid.length / 4));
  const covers = new Map<Dress, { layer: number; piece: number; x: number; y: number }[]>();
  layers.forEach((layer, index) => {
    const { laid, z, h, purpose } = layer;
    for (let p = 0; p < laid.length; p += 4) {
      const [x, y, pw, pd] = laid.subarray(p, p + 4);
      const dress = dressAt(y * w + x);
      if (layer.under !== undefined) {
        colours[index][p / 4] = dress.layers[layer.under].colour;
        continue;
      }
      if (purpose === 'cover' || purpose === 'slope') {
        const list = covers.get(dress) ?? [];
        list.push({ layer: index, piece: p / 4, x, y });
        covers.set(dress, list);
        continue;
      }
      const lower = (column: number, row: number) => heightAround(fill, column, row) < z + h;
      const isBare = (column: number, row: number, side: Side) =>
        fill.bare !== undefined && ((fill.bare[row * w + column] >> SIDES.indexOf(side)) & 1) === 1;
      const shows =
        some(
          x,
          pw,
          (column) =>
            (lower(column, y - 1) && !isBare(column, y, 'n')) ||
            (lower(column, y + pd) && !isBare(column, y + pd - 1, 's')),
        ) ||
        some(
          y,
          pd,
          (row) =>
            (lower(x - 1, row) && !isBare(x, row, 'w')) ||
            (lower(x + pw, row) && !isBare(x + pw - 1, row, 'e')),
        );
      colours[index][p / 4] = shows ? dress.side : dress.core;
    }
  });
  for (const [dress, pieces] of covers) {
    const counts = countsOf(
      dress.tones.map(({ share }) => share),
      pieces.length,
    );
    const order = dress.tones.length > 1 ? scatterOrder(pieces, dress.seed) : pieces.map((_, i) => i);
    let at = 0;
    // The base comes last in the scatter, so that the rarer tones are spread the most evenly.
    for (const tone of [...dress.tones.keys()].toReversed())
      for (let k = 0; k < counts[tone]; k++) {
        const piece = pieces[order[at++]];
        colours[piece.layer][piece.piece] = dress.tones[tone].colour;
      }
  }
  return colours;
}

function some(from: number, count: number, test: (at: number) => boolean): boolean {
  for (let at = from; at < from + count; at++) if (test(at)) return true;
  return false;
}

/** Accents that could not all be laid, since nothing nearer than asked was allowed. */
export interface AccentTally {
  part: string;
  colour: string;
  wanted: number;
  laid: number;
}

/**
 * Lays a dress's accents over studs: each to its percentage of them, groups together, none nearer to its like than
 * asked, none on another.
 * @param studs indices of the studs, on a grid `w` wide
 * @param topOf the height on which they lie, plates
 */
export function accentsOf(
  dress: Pick<Dress, 'accents' | 'seed'>,
  studs: readonly number[],
  w: number,
  topOf: (i: number) => number,
): { accents: Accent[]; tally: AccentTally[] } {
  const free = new Set(studs);
  const cells = studs.map((i) => ({ x: i % w, y: Math.floor(i / w) }));
  const order = scatterOrder(cells, dress.seed).map((k) => studs[k]);
  const accents: Accent[] = [];
  const tally: AccentTally[] = [];
  const lines = dress.accents
    .map((accent) => ({ ...accent, size: sizeOf(accent.part) }))
    .toSorted((a, b) => b.size[0] * b.size[1] - a.size[0] * a.size[1]);
  for (const { part, colour, percent, group, apart, size } of lines) {
    const [pw, pd] = size;
    const groups = Math.round(((percent / 100) * studs.length) / (pw * pd * group));
    const wanted = groups * group;
    const centres: { x: number; y: number }[] = [];
    let laid = 0;
    const fits = (x: number, y: number, z: number) => {
      for (let row = y; row < y + pd; row++)
        for (let column = x; column < x + pw; column++)
          if (column >= w || !free.has(row * w + column) || topOf(row * w + column) !== z) return false;
      return true;
    };
    const each = (x: number, y: number, visit: (i: number) => void) => {
      for (let row = y; row < y + pd; row++)
        for (let column = x; column < x + pw; column++) visit(row * w + column);
    };
    const put = (x: number, y: number): boolean => {
      const z = topOf(y * w + x);
      if (x < 0 || y < 0 || !fits(x, y, z)) return false;
      each(x, y, (i) => free.delete(i));
      accents.push({ part, colour, x, y, z });
      laid++;
      return true;
    };
    const takeBack = () => {
      const gone = accents.pop();
      if (!gone) return;
      each(gone.x, gone.y, (i) => free.add(i));
      laid--;
    };
    for (const i of order) {
      if (laid >= wanted) break;
      const [x, y] = [i % w, Math.floor(i / w)];
      if (!free.has(i) || centres.some((one) => Math.hypot(one.x - x, one.y - y) < apart)) continue;
      if (!put(x, y)) continue;
      // The rest of a group stands close by, never in a row; where it has no room there is no group.
      let members = 1;
      for (const [dx, dy] of [
        [pw + 1, pd],
        [-pw, pd + 1],
        [pw, -pd - 1],
        [-pw - 1, -pd],
        [pw, pd + 1],
        [-pw - 1, pd],
        [pw + 1, -pd],
        [-pw, -pd - 1],
      ])
        if (members < group && put(x + dx, y + dy)) members++;
      if (members === group) centres.push({ x, y });
      else while (members-- > 0) takeBack();
    }
    tally.push({ part, colour, wanted, laid });
  }
  return { accents, tally };
}

function sizeOf(id: string): [number, number] {
  const part = partOf(id);
  return part ? [part.w, part.d] : [1, 1];
}

/** The number of a ground, “bare” last, for arrays. */
export const groundNumber = (ground: Ground | 'bare'): number =>
  ground === 'bare' ? GROUNDS.length : GROUNDS.indexOf(ground);
export const groundNamed = (code: number): Ground | 'bare' => GROUNDS[code] ?? 'bare';
