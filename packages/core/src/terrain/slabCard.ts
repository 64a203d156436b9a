import { intersection, roundOut, type Rect } from '../grid/index.ts';
import {
  BASE_KINDS,
  KINDS,
  influenceBounds,
  labelOf,
  listOf,
  standFieldsFor,
  type BaseKind,
  type Kind,
  type Scene,
  type Standing,
} from '../document/index.ts';
import type { Relief } from './relief.ts';
import { OUTSIDE } from './rasterize.ts';
import { ARCH, NO_SLAB, eachStudOf, spanOf, topAt, undersideAt, type Slab } from './slab.ts';
import { shapesOf } from './slabs.ts';
import { isOnWall, namedFoot } from './stand.ts';

// What decks, bridges and cavities come to, and what a thing could stand on.

/** A place on the plan, studs. */
type Spot = { x: number; y: number };

/** What lies over air in numbers. */
export interface SlabCard {
  /** Studs it covers. */
  studs: number;
  /** Studs on which pillars, walls or piers stand. */
  supports: number;
  /** Least air under it, plates, and where: to the ground, or to a lower deck; null where nothing of it is over air. */
  clear: { plates: number; at: Spot } | null;
  /** Steps from the farthest stud to what carries it; null: nothing carries some of it. */
  far: number | null;
  farAt: Spot;
}

/** The numbers of a deck or of the bridges of a way or track; null where it has no stud over air. */
export function slabCard(relief: Relief, kind: 'deck' | 'way' | 'track', id: string): SlabCard | null {
  const slab = relief.slabs.find((one) => one.kind === kind && one.id === id);
  if (!slab) return null;
  let [studs, supports] = [0, 0];
  let clear: SlabCard['clear'] = null;
  eachStudOf(slab, (k, x, y) => {
    studs++;
    if (slab.foot[k] !== NO_SLAB && slab.arch[k] === ARCH.none) supports++;
    const air = undersideAt(slab, k) - surfaceUnder(relief, slab, x, y);
    if (air > 0 && (clear === null || air < clear.plates))
      clear = { plates: air, at: { x: x + 0.5, y: y + 0.5 } };
  });
  const { far, at } = spanOf(slab);
  return { studs, supports, clear, far, farAt: at };
}

/** The highest surface under a slab at a stud, plates: the ground, or a lower slab. */
export function surfaceUnder(relief: Relief, slab: Slab, x: number, y: number): number {
  const own = slab.under[(y - slab.y) * slab.w + x - slab.x];
  let high = relief.height[(y - relief.y) * relief.w + x - relief.x];
  for (const other of relief.slabs) {
    const top = other === slab || other.kind === 'cavity' ? NO_SLAB : topAt(other, x, y);
    if (top !== NO_SLAB && top <= own) high = Math.max(high, top);
  }
  return high;
}

/** A cavity in numbers. */
export interface CavityCard {
  /** Studs under a roof, and studs whose ground lies at its floor, open to the sky. */
  roofed: number;
  open: number;
  /** Its thinnest roof, plates, and where; null where none of it is roofed. */
  roof: { plates: number; at: Spot } | null;
  /** Steps from the farthest stud of its roof to what carries it; null where nothing does, or nothing is roofed. */
  far: number | null;
  farAt: Spot;
  /** Studs from its mouth that can be seen into: as deep as it is open to the side; 0: closed all round. */
  depth: number;
}

/** The numbers of a cavity; null where none of it is in the ground. */
export function cavityCard(scene: Scene, relief: Relief, id: string): CavityCard | null {
  const shape = shapesOf(scene, relief).cavities.find(({ thing }) => thing.id === id);
  if (!shape) return null;
  const slab = relief.slabs.find((one) => one.kind === 'cavity' && one.id === id);
  let roof: CavityCard['roof'] = null;
  let [roofed, open] = [0, 0];
  const isRoofed = (x: number, y: number) => slab !== undefined && topAt(slab, x, y) !== NO_SLAB;
  const mouths: [number, number, number, number][] = [];
  for (let k = 0; k < shape.mask.length; k++) {
    if (!shape.mask[k]) continue;
    const x: number = shape.x + (k % shape.w);
    const y: number = shape.y + Math.trunc(k / shape.w);
    const i = (y - relief.y) * relief.w + x - relief.x;
    if (relief.ground[i] === OUTSIDE) continue;
    if (!isRoofed(x, y)) {
      // Lower ground is none of it: its floor lies in the air there.
      if (relief.height[i] === shape.low) open++;
      continue;
    }
    roofed++;
    const plates = slab ? topAt(slab, x, y) - shape.high : 0;
    if (roof === null || plates < roof.plates) roof = { plates, at: { x: x + 0.5, y: y + 0.5 } };
    // A mouth: beside it there is air from the floor to the ceiling, or the edge of the display.
    for (const [dx, dy] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ] as const) {
      const [nx, ny] = [x + dx, y + dy];
      const isOff = nx < relief.x || ny < relief.y || nx >= relief.x + relief.w || ny >= relief.y + relief.d;
      const next = isOff ? -1 : (ny - relief.y) * relief.w + nx - relief.x;
      const isAir = next < 0 || relief.ground[next] === OUTSIDE || relief.height[next] <= shape.low;
      if (isAir) mouths.push([x, y, -dx, -dy]);
    }
  }
  if (roofed + open === 0) return null;
  let depth = 0;
  for (const [x, y, dx, dy] of mouths) {
    let steps = 0;
    while (isRoofed(x + steps * dx, y + steps * dy)) steps++;
    depth = Math.max(depth, steps);
  }
  const { far, at } = slab ? spanOf(slab) : { far: null, at: { x: 0, y: 0 } };
  return { roofed, open, roof, far: roofed > 0 ? far : null, farAt: at, depth };
}

/** Something a thing could stand on, and how high that is. */
export interface StandChoice {
  on: Standing | null;
  word: string;
  /** Plates; null where it depends on what else is there. */
  height: number | null;
}

const BASE_WORDS: Readonly<Record<BaseKind, string>> = {
  deck: `the ${KINDS.deck.word}`,
  cavity: `the ${KINDS.cavity.word}`,
  plot: 'the roof of',
  run: 'the top of',
};

/** What lies under a place of the plan to stand on: the surface, the ground, decks, cavities, buildings and walls. */
export function standChoices(
  scene: Scene,
  relief: Relief,
  { kind, id }: { kind: Kind; id: string },
): StandChoice[] {
  const thing = scene[kind][id];
  const reach = thing ? influenceBounds(kind, thing) : null;
  const place = reach && intersection(roundOut(reach), relief);
  if (!place) return [{ on: null, word: 'the highest surface', height: null }];
  const range = (heights: Int16Array): number => {
    let high = -32_768;
    for (let y = place.y; y < place.y + place.d; y++)
      for (let x: number = place.x; x < place.x + place.w; x++) {
        const i = (y - relief.y) * relief.w + x - relief.x;
        if (relief.ground[i] !== OUTSIDE) high = Math.max(high, heights[i]);
      }
    return high;
  };
  const touches = (area: Rect) => intersection(area, place) !== null;
  const named = BASE_KINDS.flatMap((on) =>
    listOf(scene, on).flatMap((other): StandChoice[] => {
      if (other.id === id || !('points' in other ? isOnWall(other, place) : touches(other))) return [];
      const base = { kind: on, id: other.id };
      const height = namedFoot(scene, relief, standFieldsFor(base), place);
      return [{ on: base, word: `${BASE_WORDS[on]} “${labelOf(scene, on, other.id)}”`, height }];
    }),
  );
  return [
    { on: null, word: 'the highest surface', height: range(relief.surface) },
    { on: { kind: 'ground' }, word: 'the ground', height: range(relief.height) },
    ...named,
  ];
}
