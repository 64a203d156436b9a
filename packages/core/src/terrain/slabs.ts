import { intersection, roundOut, type Rect } from '../grid/index.ts';
import {
  GROUNDS,
  influenceBounds,
  listOf,
  trackLine,
  type Cavity,
  type Deck,
  type Scene,
} from '../document/index.ts';
import { OUTSIDE, heightOfStud, wholePlates, type Raster } from './rasterize.ts';
import { heightAlong, wayProfile } from './profile.ts';
import { eachSpan, NEIGHBOUR_STEPS } from './shape.ts';
import { NO_SLAB, blankSlab, eachStudOf, type Slab, type SlabKind } from './slab.ts';
import { eachStripStud, withAlong } from './strip.ts';
import { supportDeck } from './supports.ts';

// What lies over air: decks, the bridges of ways and tracks, the roofs of cavities. The ground is a raster of one
// height a stud; everything here is over it or cut out of it.

/** Everything that lies over air, and the highest surface of each stud. */
export interface Surfaces {
  slabs: readonly Slab[];
  /** Plates: the ground, or the highest slab on it. The raster's own heights where there is no slab. */
  surface: Int16Array;
}

/** An area of decks and cavities on the stud grid, and the heights between which it is. */
interface Shape<T> extends Rect {
  thing: T;
  mask: Uint8Array;
  low: number;
  high: number;
}
export interface Shapes {
  decks: readonly Shape<Deck>[];
  cavities: readonly Shape<Cavity>[];
}

/** The height a deck or cavity is set at, plates: a deck's top, a cavity's floor. */
export const levelHeight = (scene: Scene, { level, offset }: Pick<Deck, 'level' | 'offset'>): number =>
  (scene.level[level]?.height ?? 0) + offset;

/** The decks and cavities of a scene as areas of studs; those that lie outside the bounds are left out. */
export function shapesOf(scene: Scene, bounds: Rect): Shapes {
  const shape = <T extends Deck | Cavity>(thing: T, low: number, high: number): Shape<T>[] => {
    const on = intersection(roundOut(thing), bounds);
    if (!on) return [];
    const mask = new Uint8Array(on.w * on.d);
    eachSpan(thing, on, (row, from, to) =>
      mask.fill(1, (row - on.y) * on.w + from - on.x, (row - on.y) * on.w + to - on.x),
    );
    return [{ ...on, thing, mask, low, high }];
  };
  return {
    // The lower ones first: what stands on them finds them.
    decks: listOf(scene, 'deck')
      .flatMap((deck) => {
        const top = levelHeight(scene, deck);
        return shape(deck, top - deck.thick, top);
      })
      .toSorted((a, b) => a.high - b.high),
    cavities: listOf(scene, 'cavity')
      .flatMap((cavity) => {
        const floor = levelHeight(scene, cavity);
        return shape(cavity, floor, floor + cavity.clear);
      })
      .toSorted((a, b) => a.low - b.low),
  };
}

/** Those of the shapes that lie within a rectangle: what is asked of each stud of it is asked of them alone. */
export const shapesNear = ({ decks, cavities }: Shapes, area: Rect): Shapes => ({
  decks: decks.filter((shape) => intersection(shape, area)),
  cavities: cavities.filter((shape) => intersection(shape, area)),
});

const has = ({ mask, x, y, w, d }: Shape<unknown>, column: number, row: number): boolean =>
  column >= x && row >= y && column < x + w && row < y + d && mask[(row - y) * w + column - x] === 1;

/** Cuts the ground down to a cavity's floor wherever it is not higher than the ceiling: there it is open to the sky. */
export function cutOpen(
  raster: Raster,
  window: Rect,
  { thing, mask, low, high, ...area }: Shape<Cavity>,
  owner: number,
): void {
  const on = intersection(area, window);
  if (!on) return;
  const ground = GROUNDS.indexOf(thing.ground);
  for (let y = on.y; y < on.y + on.d; y++)
    for (let x: number = on.x; x < on.x + on.w; x++) {
      const i = (y - raster.y) * raster.w + x - raster.x;
      const height = raster.height[i];
      if (!mask[(y - area.y) * area.w + x - area.x] || raster.ground[i] === OUTSIDE) continue;
      if (height <= low || height > high) continue;
      raster.height[i] = low;
      raster.ground[i] = ground;
      raster.owner[i] = owner;
    }
}

/** Where a stud of a way or track lies. */
type Lies = { on: 'ground' } | { on: 'bridge' } | { on: 'deck' | 'cavity'; id: string };

interface Bridging {
  bridges: boolean;
  bridgeThick: number;
}

/** A way may lie this far off a deck's top and still run on it, plates: heights along a line are rounded. */
const ON_DECK = 1;

/**
 * Decides where a stud of a way or track lies: in a cavity whose room it runs through, on a deck at its height, over
 * the ground on a bridge of its own, or on the ground.
 * @param z of the way, whole plates; `ground`: height of the land there
 */
export function laidOn(
  { decks, cavities }: Shapes,
  { bridges, bridgeThick }: Bridging,
  x: number,
  y: number,
  z: number,
  ground: number,
): Lies {
  for (const cavity of cavities)
    if (has(cavity, x, y) && ground > cavity.high && z >= cavity.low - ON_DECK && z < cavity.high)
      return { on: 'cavity', id: cavity.thing.id };
  for (const deck of decks)
    if (has(deck, x, y) && deck.high > ground && Math.abs(z - deck.high) <= ON_DECK)
      return { on: 'deck', id: deck.thing.id };
  return { on: bridges && z - bridgeThick > ground ? 'bridge' : 'ground' };
}

/** A way or track as a strip with heights. */
export interface Strip extends Bridging {
  kind: 'way' | 'track';
  id: string;
  points: readonly { x: number; y: number }[];
  width: number;
  pierEvery: number;
  ground: number;
  heightAt: (along: number) => number;
}

/** Ways, then tracks, as they are laid; the heights of each are worked out when asked for. @param land the ground before any of them */
export function laidStrips(scene: Scene, land: Raster): Strip[] {
  const ways = listOf(scene, 'way').map((way): Strip => {
    const { id, points, width, bridges, bridgeThick, pierEvery } = way;
    return {
      ...{ kind: 'way', id, points, width, bridges, bridgeThick, pierEvery },
      ground: GROUNDS.indexOf(way.ground),
      heightAt: whenAsked(() =>
        heightAlong(wayProfile(way, (x, y) => heightOfStud(land, Math.floor(x), Math.floor(y)))),
      ),
    };
  });
  const tracks = listOf(scene, 'track').map((track): Strip => {
    const { id, bed, bridges, bridgeThick, pierEvery } = track;
    const { line } = trackLine(track, levelHeight(scene, track));
    return {
      ...{ kind: 'track', id, points: line, width: bed, bridges, bridgeThick, pierEvery },
      ...{ ground: GROUNDS.indexOf('ballast'), heightAt: heightAlong(withAlong(line)) },
    };
  });
  return [...ways, ...tracks];
}

function whenAsked(make: () => (along: number) => number): (along: number) => number {
  let known: ReturnType<typeof make> | null = null;
  return (along) => (known ??= make())(along);
}

/** Whether a scene has anything that lies over air. */
export const hasSlabs = (scene: Scene): boolean =>
  Object.keys(scene.deck).length > 0 ||
  Object.keys(scene.cavity).length > 0 ||
  [scene.way, scene.track].some((group) => Object.values(group).some(({ bridges }) => bridges));

/**
 * All slabs of a compiled ground, the lower first, and the surface they make with it. Its cost grows with the studs of
 * decks, cavities and bridges; a scene without them pays nothing.
 * @param land the ground before ways and tracks @param ground the same with them
 * @param isWay whether a stud of the ground is a way's or a track's: no pillar stands there, nor on ways over it
 * @param known the slab of the scene before, where nothing on it, under it or beside it has changed; null: there was
 * none, and nothing has changed; undefined: something has
 */
export function slabsOf(
  scene: Scene,
  shapes: Shapes,
  strips: readonly Strip[],
  land: Raster,
  ground: Raster,
  isWay: (i: number) => boolean,
  known: (kind: SlabKind, id: string, area: Rect) => Slab | null | undefined = () => undefined,
): Surfaces {
  if (!hasSlabs(scene)) return { slabs: [], surface: ground.height };
  const slabs: Slab[] = [];
  const byId = new Map<string, Slab>();
  const same = new Set<Slab>();
  const reuse = (kind: SlabKind, id: string, area: Rect): Slab | null | undefined => {
    const slab = known(kind, id, area);
    if (slab) same.add(slab);
    return slab;
  };
  for (const cavity of shapes.cavities)
    slabs.push(reuse('cavity', cavity.thing.id, cavity) ?? roofOf(cavity, ground, shapes.cavities));
  for (const deck of shapes.decks) {
    const slab = reuse('deck', deck.thing.id, deck) ?? deckSlab(deck, ground);
    byId.set(deck.thing.id, slab);
    slabs.push(slab);
  }
  for (const strip of strips) {
    const reach = influenceBounds(strip.kind, scene[strip.kind][strip.id]);
    const touched = reach && intersection(roundOut(reach), ground);
    if (!touched || (!strip.bridges && slabs.every((slab) => !intersection(slab, touched)))) continue;
    // A deck that is made again has lost the ways on it: they are laid on it again.
    const isOnNew = shapes.decks.some((deck) => {
      const slab = intersection(deck, touched) && byId.get(deck.thing.id);
      return slab && !same.has(slab);
    });
    const before = isOnNew ? undefined : reuse(strip.kind, strip.id, touched);
    const bridge = before === undefined ? layOnSlabs(strip, touched, { land, shapes, byId }) : before;
    if (bridge) slabs.push(bridge);
  }
  const topOf = ({ top }: Slab) => top.reduce((most, height) => Math.max(most, height), NO_SLAB);
  const kept = slabs
    .map((slab) => ({ slab, top: topOf(slab) }))
    .filter(({ top }) => top !== NO_SLAB)
    .toSorted((a, b) => a.top - b.top)
    .map(({ slab }) => slab);
  const surface = ground.height.slice();
  const over = new Uint8Array(surface.length);
  const isTaken = (i: number) => over[i] === 1 || isWay(i);
  const indexOf = (x: number, y: number) => (y - ground.y) * ground.w + x - ground.x;
  const support = (slab: Slab) => {
    const deck = slab.kind === 'deck' ? scene.deck[slab.id] : undefined;
    if (deck) return supportDeck(slab, deck, surface, ground, isTaken);
    bearBeside(slab, ground, shapes.cavities);
    eachStudOf(slab, (k, x, y) => {
      const i = indexOf(x, y);
      // A pier stands on the highest surface under it, and never on a way.
      if (slab.foot[k] !== NO_SLAB)
        slab.foot[k] = isTaken(i) || surface[i] >= slab.under[k] ? NO_SLAB : surface[i];
    });
  };
  for (const slab of kept) {
    if (!same.has(slab)) support(slab);
    eachStudOf(slab, (k, x, y) => {
      const i = indexOf(x, y);
      surface[i] = Math.max(surface[i], slab.top[k]);
      over[i] |= slab.way[k];
    });
  }
  return { slabs: kept, surface };
}

/** What one sees from above on each stud: an index into GROUNDS, of the ground or of the highest deck or bridge over it. */
export function coverFromAbove({ x, y, w, ground, slabs }: Raster & { slabs: readonly Slab[] }): Uint8Array {
  const over = slabs.filter(({ kind }) => kind !== 'cavity');
  if (over.length === 0) return ground;
  const cover = ground.slice();
  for (const slab of over)
    eachStudOf(slab, (k, column, row) => (cover[(row - y) * w + column - x] = slab.ground[k]));
  return cover;
}

/** The ground over a cavity, up to the surface or to the floor of the next cavity over it. */
function roofOf(cavity: Shape<Cavity>, ground: Raster, all: readonly Shape<Cavity>[]): Slab {
  const slab = blankSlab('cavity', cavity.thing.id, cavity);
  const over = all.filter(
    (other) => other !== cavity && other.high > cavity.high && intersection(other, cavity),
  );
  for (let k = 0; k < cavity.mask.length; k++) {
    const [x, y] = [cavity.x + (k % cavity.w), cavity.y + Math.trunc(k / cavity.w)];
    const i = (y - ground.y) * ground.w + x - ground.x;
    if (!cavity.mask[k] || ground.ground[i] === OUTSIDE || ground.height[i] <= cavity.high) continue;
    const above =
      over.length === 0 ? over : over.filter((other) => has(other, x, y) && ground.height[i] > other.high);
    // Where the next cavity begins below its ceiling they are one room: its roof has no thickness there.
    const next = Math.max(cavity.high, Math.min(ground.height[i], ...above.map(({ low }) => low)));
    slab.under[k] = cavity.high;
    slab.top[k] = next;
    slab.ground[k] = ground.ground[i];
  }
  return slab;
}

function deckSlab({ thing, mask, low, high, ...area }: Shape<Deck>, ground: Raster): Slab {
  const slab = blankSlab('deck', thing.id, area);
  const cover = GROUNDS.indexOf(thing.ground);
  for (let k = 0; k < mask.length; k++) {
    const [x, y] = [area.x + (k % area.w), area.y + Math.trunc(k / area.w)];
    const i = (y - ground.y) * ground.w + x - ground.x;
    if (!mask[k] || ground.ground[i] === OUTSIDE || ground.height[i] >= high) continue;
    slab.under[k] = Math.max(low, ground.height[i]);
    slab.top[k] = high;
    slab.ground[k] = cover;
  }
  return slab;
}

/** A pier is this long along its way, studs. */
export const PIER = 2;

/** Lays a way or track where it is not on the ground: on decks as their cover, else as a bridge of its own. */
function layOnSlabs(
  strip: Strip,
  window: Rect,
  { land, shapes, byId }: { land: Raster; shapes: Shapes; byId: ReadonlyMap<string, Slab> },
): Slab | null {
  const slab = blankSlab(strip.kind, strip.id, window);
  const near = shapesNear(shapes, window);
  let bridged = false;
  eachStripStud(strip.points, strip.width / 2, window, (x, y, along) => {
    const i = (y - land.y) * land.w + x - land.x;
    if (land.ground[i] === OUTSIDE) return;
    const z = wholePlates(strip.heightAt(along));
    const lies = laidOn(near, strip, x, y, z, land.height[i]);
    if (lies.on === 'deck') {
      const deck = byId.get(lies.id);
      if (deck) {
        const k = (y - deck.y) * deck.w + x - deck.x;
        deck.ground[k] = strip.ground;
        deck.way[k] = 1;
      }
    }
    if (lies.on !== 'bridge') return;
    const k = (y - slab.y) * slab.w + x - slab.x;
    slab.under[k] = z - strip.bridgeThick;
    slab.top[k] = z;
    slab.ground[k] = strip.ground;
    slab.way[k] = 1;
    // Where it stands is known when all that lies under it is.
    if (along % strip.pierEvery < PIER) slab.foot[k] = 0;
    bridged = true;
  });
  return bridged ? slab : null;
}

/** Solid ground beside a roof or a bridge that is higher than its underside carries it. */
function bearBeside(slab: Slab, ground: Raster, all: readonly Shape<Cavity>[]): void {
  const around = { x: slab.x - 1, y: slab.y - 1, w: slab.w + 2, d: slab.d + 2 };
  const cavities = all.filter((shape) => intersection(shape, around));
  eachStudOf(slab, (k, x, y) => {
    for (const { x: dx, y: dy } of Object.values(NEIGHBOUR_STEPS)) {
      const [column, row] = [x + dx - slab.x, y + dy - slab.y];
      const isOwn =
        column >= 0 &&
        row >= 0 &&
        column < slab.w &&
        row < slab.d &&
        slab.top[row * slab.w + column] !== NO_SLAB;
      const height = isOwn ? null : heightOfStud(ground, x + dx, y + dy);
      if (height === null || height <= slab.under[k]) continue;
      const isHollow = cavities.some(
        (cavity) => cavity.low < slab.under[k] && cavity.high >= slab.under[k] && has(cavity, x + dx, y + dy),
      );
      if (!isHollow) slab.borne[k] = 1;
    }
  });
}
