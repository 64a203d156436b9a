import { type Family } from '../catalogue/index.ts';
import { METHODS } from '../document/index.ts';
import {
  BRICKS,
  COVERS,
  FINE_COVERS,
  FINE_TILES,
  METHOD_SPECS,
  PLATES,
  SHEETS,
  TILES,
  deckSet,
} from './method.ts';
import { SKIN, heightAround, type Fill, type LayerPlan, type Purpose } from './fill.ts';
import { BondWatch, type Bond } from './bond.ts';
import { crestsOf } from './crest.ts';
import { paintPieceIds, type PieceSet } from './pieces.ts';
import { tileLayer, tileSome } from './tile.ts';

// Heights compiled to layers of placed pieces. All positions in studs from the ground's corner, heights in plates
// above its floor.

/** The most plates that are stacked up: 1,000 plates = 3.2 m. */
export const MAX_HEIGHT = 1000;

export interface Masonry {
  w: number;
  d: number;
  layers: LayerPlan[];
  /** Height as built, plates; −1 outside. */
  built: Int16Array;
  bond: Bond;
  /** Side of the widest square of deck that has nothing under it, studs. */
  span: number;
}

/**
 * Compiles a fill. Columns of bricks stand from the floor, with plates on top where less than a brick is left. Hollow
 * methods are built in storeys of six bricks, each closed by a deck that carries what is above; under every deck
 * there are columns under its edges, under both sides of its joints, and pillars so that no square of it wider than
 * the span hangs free.
 * @throws RangeError when the ground is higher than `MAX_HEIGHT`
 */
export function buildLayers(fill: Fill): Masonry {
  const { w, d, height, skin } = fill;
  const n = w * d;
  let highest = 0;
  for (let i = 0; i < n; i++) highest = Math.max(highest, height[i]);
  if (highest > MAX_HEIGHT)
    throw new RangeError(`the ground is ${highest} plates high; the most is ${MAX_HEIGHT}`);
  const crests = skin ? crestsOf(fill) : null;
  const plan = planOf(fill, crests?.on ?? null);
  const decks: LayerPlan[] = [];
  let span = 0;
  for (const storey of storeysOf(fill, plan)) {
    decks.push(...storey.decks);
    span = Math.max(span, storey.span);
  }
  const layers: LayerPlan[] = [];
  const watch = new BondWatch(w, d);
  const take = (layer: LayerPlan) => {
    if (layer.laid.length === 0) return;
    layers.push(layer);
    watch.see(layer);
  };
  const lay = (z: number, h: number, purpose: Purpose, family: Family, set: PieceSet, on = mask) =>
    take({ z, h, purpose, family, laid: tileLayer(on, w, d, set, watch.open) });
  const methods = [...new Set(fill.method)].toSorted((a, b) => a - b);
  const covers = coversOf(fill, plan);
  const unders = undersOf(fill, plan);
  const taken = new Int16Array(n);
  const mask = new Uint8Array(n);
  const plateMask = new Uint8Array(n);
  for (let z = 0; z < highest; z++) {
    layTall(fill, methods, plan, z, taken, mask, take);
    const { bricks, plates } = coreOf(plan, z, taken, mask, plateMask);
    if (bricks) lay(z, 3, 'core', 'brick', BRICKS);
    if (plates) lay(z, 1, 'core', 'plate', PLATES, plateMask);
    for (const deck of decks) if (deck.z === z) take(deck);
    for (const crest of crests?.layers ?? []) if (crest.z === z) take(crest);
    for (const { under, h, studs } of unders.get(z) ?? []) {
      onlyOn(mask, studs);
      const [family, set] = h === 3 ? (['brick', BRICKS] as const) : (['plate', PLATES] as const);
      take({ z, h, purpose: 'under', under, family, laid: tileLayer(mask, w, d, set, watch.open) });
    }
    for (const { tiled, set, studs } of covers.get(z) ?? []) {
      onlyOn(mask, studs);
      lay(z, 1, 'cover', tiled ? 'tile' : 'plate', set);
    }
  }
  return { w, d, layers, built: plan.built, bond: watch.done(), span };
}

/**
 * The studs of the core at one height on which a brick begins, and those that a plate fills: what is left above the
 * last whole brick.
 * @param taken height up to which each stud is filled by taller pieces, plates
 * @returns whether there are any of each
 */
function coreOf(
  plan: Plan,
  z: number,
  taken: Int16Array,
  brickMask: Uint8Array,
  plateMask: Uint8Array,
): { bricks: boolean; plates: boolean } {
  let [bricks, plates] = [false, false];
  brickMask.fill(0);
  plateMask.fill(0);
  const { core, storeys, columns, base: bases } = plan;
  const storey = Math.floor(z / STOREY);
  for (let i = 0; i < taken.length; i++) {
    if (z >= core[i] || taken[i] > z) continue;
    // As `stands`, `baseAt` and `topAt`, which ask for the storey each.
    const isTop = storeys[i] <= storey;
    const own = isTop ? storeys[i] : storey;
    const from = own * STOREY;
    const base = bases === null ? from : Math.max(bases[i], from);
    if (z < base || columns[own][i] !== 1) continue;
    const top = isTop ? core[i] : from + STOREY - 1;
    if (z >= top - ((top - base) % 3)) {
      if (z < top) {
        plateMask[i] = 1;
        plates = true;
      }
    } else if ((z - base) % 3 === 0) {
      brickMask[i] = 1;
      bricks = true;
    }
  }
  return { bricks, plates };
}

/** Covers by whether they are tiles, whether their tones are mixed, and what they are then laid with. */
const SKINS = [
  [false, false, COVERS],
  [false, true, FINE_COVERS],
  [true, false, TILES],
  [true, true, FINE_TILES],
] as const;

interface Cover {
  tiled: boolean;
  set: PieceSet;
  studs: number[];
}

/** The studs of ground cover by their underside, each kind and each colour by itself: no piece lies over two of them. */
function coversOf({ skin, fine, look }: Fill, { cover }: Plan): Map<number, Cover[]> {
  const covers = new Map<number, Cover[]>();
  const known = new Map<string, Cover>();
  for (let i = 0; skin && i < cover.length; i++) {
    if (cover[i] < 0) continue;
    const [tiled, mixed] = [skin[i] === SKIN.tiles, fine?.[i] === 1];
    const key = `${cover[i]} ${tiled} ${mixed} ${look?.[i] ?? 0}`;
    let list = known.get(key);
    if (!list) {
      const set = SKINS.find(([isTiled, isMixed]) => isTiled === tiled && isMixed === mixed)?.[2] ?? COVERS;
      list = { tiled, set, studs: [] };
      known.set(key, list);
      covers.set(cover[i], [...(covers.get(cover[i]) ?? []), list]);
    }
    list.studs.push(i);
  }
  return covers;
}

/** Studs of one layer under the cover that are laid at one height. */
interface Under {
  /** Which layer of its ground it is, from the top down. */
  under: number;
  /** Plates: bricks where a layer has room for them, from its foot up. */
  h: number;
  studs: number[];
}

/** What lies under the cover by its underside; no piece lies over two grounds. */
function undersOf({ layersAt, look }: Fill, { foot, thick, skipped }: Plan): Map<number, Under[]> {
  const unders = new Map<number, Under[]>();
  const known = new Map<string, Under>();
  for (let i = 0; layersAt && i < thick.length; i++) {
    if (thick[i] === 0) continue;
    // From the top of all layers down, those that a slope takes the place of first.
    let top = foot[i] + thick[i] + skipped[i];
    for (const [under, plates] of layersAt(i).entries()) {
      const [low, high] = [Math.max(foot[i], top - plates), Math.min(top, foot[i] + thick[i])];
      top -= plates;
      for (let z = low; z < high;) {
        const h = z + 3 <= high ? 3 : 1;
        const key = `${z} ${h} ${under} ${look?.[i] ?? 0}`;
        let list = known.get(key);
        if (!list) {
          list = { under, h, studs: [] };
          known.set(key, list);
          unders.set(z, [...(unders.get(z) ?? []), list]);
        }
        list.studs.push(i);
        z += h;
      }
    }
  }
  return unders;
}

function onlyOn(mask: Uint8Array, studs: readonly number[]): void {
  mask.fill(0);
  for (const i of studs) mask[i] = 1;
}

/** Fills a mask by a test. @returns whether the mask has any stud */
function masked(mask: Uint8Array, test: (i: number) => unknown): boolean {
  let any = false;
  for (let i = 0; i < mask.length; i++) {
    const on = test(i) ? 1 : 0;
    mask[i] = on;
    if (on) any = true;
  }
  return any;
}

/** What stands on each stud, from the floor up. */
class Plan {
  /** Top of the core, plates. */
  readonly core: Int16Array;
  /** Underside of the uppermost deck, or −1. */
  readonly deck: Int16Array;
  /** Underside of the lowest layer under the cover, and how thick all of them are, plates; 0 where there is none. */
  readonly foot: Int16Array;
  readonly thick: Int16Array;
  /** Plates of the layers that a slope takes the place of. */
  readonly skipped: Uint8Array;
  /** Underside of the ground cover, or −1. */
  readonly cover: Int16Array;
  readonly built: Int16Array;
  /** How many storeys are under the core's uppermost part: each is `STOREY` plates high, with its deck. */
  readonly storeys: Uint8Array;
  /** Where columns stand in each storey; `columns[storeys[i]][i]` in the uppermost part. */
  readonly columns: Uint8Array[] = [];

  /** @param base where each stud's fill begins, plates; only solid fills begin above the floor */
  constructor(
    n: number,
    readonly base: Int16Array | null,
  ) {
    this.core = new Int16Array(n);
    this.deck = new Int16Array(n).fill(-1);
    this.foot = new Int16Array(n);
    this.thick = new Int16Array(n);
    this.skipped = new Uint8Array(n);
    this.cover = new Int16Array(n).fill(-1);
    this.built = new Int16Array(n).fill(-1);
    this.storeys = new Uint8Array(n);
  }

  private storeyAt = (i: number, z: number) => Math.min(this.storeys[i], Math.floor(z / STOREY));
  /** Where the storey at a height begins, and where the columns of it end. */
  baseAt = (i: number, z: number) => Math.max(this.base?.[i] ?? 0, this.storeyAt(i, z) * STOREY);
  topAt(i: number, z: number): number {
    const storey = this.storeyAt(i, z);
    return storey < this.storeys[i] ? (storey + 1) * STOREY - 1 : this.core[i];
  }
  stands(i: number, z: number): boolean {
    return z < this.core[i] && z >= this.baseAt(i, z) && this.columns[this.storeyAt(i, z)][i] === 1;
  }
}

/** A storey of a hollow method, plates: six bricks and a deck. */
const STOREY = 19;

function planOf(fill: Fill, crests: Uint8Array | null): Plan {
  const n = fill.w * fill.d;
  const plan = new Plan(n, fill.base ?? null);
  const specs = METHODS.map((method) => METHOD_SPECS[method]);
  let most = 0;
  for (let i = 0; i < n; i++) {
    const height = fill.height[i];
    if (height < 0) continue;
    const spec = specs[fill.method[i]];
    if (METHODS[fill.method[i]] === 'reuse') {
      plan.built[i] = height;
      continue;
    }
    const crest = crests?.[i] ?? 0;
    const thick = height - (fill.base?.[i] ?? 0);
    const covered = fill.skin && fill.skin[i] !== SKIN.none && thick > 0 && crest === 0 ? 1 : 0;
    const layers = covered > 0 || crest > 0 ? (fill.layersAt?.(i) ?? []) : [];
    const skipped = Math.max(0, crest - 1);
    const wanted = layers.reduce((sum, plates) => sum + plates, 0) - skipped;
    const under = Math.max(0, Math.min(wanted, thick - covered - crest));
    const decked = spec.shell > 0 && crest === 0 && height - covered - under > 0 ? 1 : 0;
    let core = height - covered - under - decked - crest;
    if (spec.shell > 0) plan.storeys[i] = Math.floor(Math.max(0, core - 3) / STOREY);
    if (spec.steps && crest === 0) core -= (core - plan.storeys[i] * STOREY) % 3;
    plan.core[i] = core;
    if (decked) plan.deck[i] = core;
    plan.foot[i] = core + decked;
    plan.thick[i] = under;
    plan.skipped[i] = skipped;
    if (covered) plan.cover[i] = core + decked + under;
    plan.built[i] = core + decked + under + covered + crest;
    most = Math.max(most, plan.storeys[i]);
  }
  for (let storey = 0; storey <= most; storey++) {
    const columns = new Uint8Array(n);
    for (let i = 0; i < n; i++)
      if (
        plan.core[i] > 0 &&
        (specs[fill.method[i]].shell === 0 || (storey === plan.storeys[i] && plan.deck[i] < 0))
      )
        columns[i] = 1;
    plan.columns.push(columns);
  }
  return plan;
}

/** The decks of a hollow fill, with columns set under each: those over whole storeys, and the uppermost ones. */
function* storeysOf(fill: Fill, plan: Plan): Generator<{ decks: LayerPlan[]; span: number }> {
  const n = fill.w * fill.d;
  for (let storey = 1; storey < plan.columns.length; storey++) {
    const deck = new Int16Array(n).fill(-1);
    for (let i = 0; i < n; i++) if (plan.storeys[i] >= storey) deck[i] = storey * STOREY - 1;
    const decks = layDecks(fill, deck);
    yield { decks, span: openColumns(fill, deck, decks, () => storey - 1, plan) };
  }
  const decks = layDecks(fill, plan.deck);
  yield { decks, span: openColumns(fill, plan.deck, decks, (i) => plan.storeys[i], plan) };
}

/** Decks level by level: sheets where they fit whole, plates over the rest. */
function layDecks(fill: Fill, deck: Int16Array): LayerPlan[] {
  const { w, d } = fill;
  const levels = new Set<number>();
  for (const z of deck) if (z >= 0) levels.add(z);
  const mask = new Uint8Array(w * d);
  return [...levels]
    .sort((a, b) => a - b)
    .flatMap((z) => {
      masked(mask, (i) => deck[i] === z);
      const layers: LayerPlan[] = [];
      if (fill.sheets)
        layers.push({ z, h: 1, purpose: 'deck', family: 'base', laid: tileSome(mask, w, d, SHEETS) });
      const laid = tileLayer(mask, w, d, deckSet(fill.deckMost));
      layers.push({ z, h: 1, purpose: 'deck', family: 'plate', laid });
      return layers.filter((layer) => layer.laid.length > 0);
    });
}

/**
 * Sets the columns under decks: under every edge as deep as the method's shell, under both sides of every joint, and
 * pillars between.
 * @param deck the underside of the deck on each stud, −1 for none
 * @param storeyOf the storey under the deck
 * @returns the side of the widest square of deck without a column under it
 */
function openColumns(
  fill: Fill,
  deck: Int16Array,
  decks: readonly LayerPlan[],
  storeyOf: (i: number) => number,
  plan: Plan,
): number {
  const { w, d, method } = fill;
  if (decks.length === 0) return 0;
  const shells = METHODS.map((one) => METHOD_SPECS[one].shell);
  const piece = new Int32Array(w * d);
  let first = 1;
  for (const { laid } of decks) {
    paintPieceIds(laid, w, piece, first);
    first += laid.length / 4;
  }
  const stand = (i: number) => {
    plan.columns[storeyOf(i)][i] = 1;
  };
  const around = [-1, 1, -w, w, -w - 1, -w + 1, w - 1, w + 1];
  const rim = new Uint8Array(w * d);
  for (let y = 0; y < d; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      if (deck[i] < 0) continue;
      const inner =
        x > 0 && y > 0 && x < w - 1 && y < d - 1 && around.every((step) => deck[i + step] === deck[i]);
      if (inner && around.slice(0, 4).every((step) => piece[i + step] === piece[i])) continue;
      if (!inner) rim[i] = 1;
      stand(i);
    }
  for (let ring = 2; ring <= Math.max(...shells); ring++) {
    const grown = rim.slice();
    for (let y = 1; y < d - 1; y++)
      for (let x = 1; x < w - 1; x++) {
        const i = y * w + x;
        if (rim[i] || deck[i] < 0 || shells[method[i]] < ring) continue;
        if (!around.some((step) => rim[i + step])) continue;
        grown[i] = 1;
        stand(i);
      }
    rim.set(grown);
  }
  return pillars(fill, (i) => deck[i] > 0 && !plan.columns[storeyOf(i)][i], stand);
}

/** Sets pillars of 2 × 2 wherever a square of deck would hang free over more than the span. */
function pillars({ w, d, span }: Fill, hollow: (i: number) => boolean, stand: (i: number) => void): number {
  const free = new Int16Array(w * d);
  let widest = 0;
  for (let y = 0; y < d; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      if (!hollow(i)) continue;
      free[i] = x === 0 || y === 0 ? 1 : 1 + Math.min(free[i - 1], free[i - w], free[i - w - 1]);
      if (free[i] <= span) {
        widest = Math.max(widest, free[i]);
        continue;
      }
      for (const j of [i, i - 1, i - w, i - w - 1]) {
        stand(j);
        free[j] = 0;
      }
    }
  return widest;
}

/** Tall pieces, of the methods there are, whose turn it is at this height. */
function layTall(
  fill: Fill,
  methods: readonly number[],
  plan: Plan,
  z: number,
  taken: Int16Array,
  mask: Uint8Array,
  take: (layer: LayerPlan) => void,
): void {
  const { w, d } = fill;
  for (const index of methods)
    for (const tall of METHOD_SPECS[METHODS[index]].tall) {
      const room = (i: number) =>
        fill.method[i] === index &&
        plan.stands(i, z) &&
        taken[i] <= z &&
        (z - plan.baseAt(i, z)) % tall.h === 0 &&
        plan.topAt(i, z) >= z + tall.h;
      // What shows stays brickwork where tall pieces are only filling; panels hang only where it shows.
      const shows = (i: number, reach: number) => {
        const [x, y] = [i % w, Math.floor(i / w)];
        const lower = (ax: number, ay: number) => heightAround(fill, ax, ay) < z + tall.h;
        for (let far = 1; far <= reach; far++)
          if (lower(x - far, y) || lower(x + far, y) || lower(x, y - far) || lower(x, y + far)) return true;
        return false;
      };
      const wanted = (i: number) =>
        tall.at === 'anywhere' || (tall.at === 'face' ? shows(i, 1) : !shows(i, tall.at.behind));
      if (!masked(mask, (i) => room(i) && wanted(i))) continue;
      const laid = tileSome(mask, w, d, tall.set);
      for (let p = 0; p < laid.length; p += 4)
        for (let row = laid[p + 1]; row < laid[p + 1] + laid[p + 3]; row++)
          taken.fill(z + tall.h, row * w + laid[p], row * w + laid[p] + laid[p + 2]);
      take({ z, h: tall.h, purpose: 'core', family: tall.family, laid });
    }
}
