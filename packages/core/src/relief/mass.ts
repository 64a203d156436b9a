import { BARE, OUTSIDE, type Relief } from './relief.ts';

/**
 * Mass by area, until pieces are counted. A brick 2×4 weighs about 2.3 g (from memory): 24 stud-plates, so solid
 * ground is 0.096 g a stud and plate. Ground is rarely solid and buildings are shells: the shares are defaults of
 * ours, no source.
 */
export const GRAMS_PER_STUD_PLATE = 2.3 / 24;
export const GROUND_FILL = 0.4;
export const BUILDING_FILL = 0.2;
/** A base sheet under everything, grams a stud (from memory: about 0.4 kg for 48 × 48). */
export const BASE_GRAMS = 0.18;

/**
 * Grams on each stud of a relief: its ground as counted where it is, else estimated from its height, with what
 * stands on it; 0 outside the footprint.
 */
export function massOf(relief: Relief): Float32Array {
  const grams = new Float32Array(relief.ground.length);
  for (let i = 0; i < grams.length; i++) {
    if (relief.ground[i] === OUTSIDE) continue;
    const ground = relief.ground[i] === BARE ? 0 : Math.max(1, relief.height[i]);
    const building = Math.max(0, relief.top[i] - relief.height[i]);
    const under = relief.counted?.grams[i] ?? BASE_GRAMS + GRAMS_PER_STUD_PLATE * ground * GROUND_FILL;
    grams[i] = under + GRAMS_PER_STUD_PLATE * building * BUILDING_FILL;
  }
  return grams;
}
