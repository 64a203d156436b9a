import { METHODS, layersThick, type Ground, type Scene } from '../document/index.ts';
import { countMasonry, dressMasonry } from './count.ts';
import { dressesOf, skinOf } from './dress.ts';
import type { Fill } from './fill.ts';
import { buildLayers } from './layers.ts';

/** Side of a patch, studs. */
export const PATCH_SIDE = 16;
/** What a patch lies on, plates: a brick. */
const UNDER = 3;

/** What a square of a ground takes, from its cover to its lowest layer: without what it lies on. */
export interface GroundPatch {
  /** Most first. */
  lines: { part: string; colour: string; qty: number }[];
  pieces: number;
  /** Cover and layers, plates. */
  thick: number;
}

/** A level square of `PATCH_SIDE` studs of a ground as it is counted, in no section. */
export function groundPatch(scene: Scene, ground: Ground): GroundPatch {
  const dress = dressesOf(scene).of(ground, null);
  const studs = PATCH_SIDE * PATCH_SIDE;
  const thick = 1 + layersThick(dress);
  const layers = dress.layers.map(({ plates }) => plates);
  const fill: Fill = {
    ...{ w: PATCH_SIDE, d: PATCH_SIDE, deckMost: PATCH_SIDE, span: PATCH_SIDE, sheets: false },
    height: new Int16Array(studs).fill(UNDER + thick),
    method: new Uint8Array(studs).fill(METHODS.indexOf('solid')),
    skin: new Uint8Array(studs).fill(skinOf(scene, ground)),
    fine: new Uint8Array(studs).fill(dress.tones.length > 1 ? 1 : 0),
    look: new Uint8Array(studs),
    layersAt: () => layers,
    // It goes on about it: nothing shows at its sides.
    beyond: () => UNDER + thick,
  };
  const { lines } = countMasonry(
    fill,
    dressMasonry(fill, buildLayers(fill), () => dress),
    () => 0,
  );
  const own = lines.filter(({ purpose }) => purpose !== 'core');
  return {
    lines: own
      .map(({ part, colour, qty }) => ({ part, colour, qty }))
      .toSorted((a, b) => b.qty - a.qty || (a.part < b.part ? -1 : 1)),
    pieces: own.reduce((sum, { qty }) => sum + qty, 0),
    thick,
  };
}
